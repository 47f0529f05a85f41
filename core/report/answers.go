package report

import (
	"maps"
	"slices"

	"ivorybridge/core/diary"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
)

// Standing is how a case stands on a day, beside what one visit was.
type Standing struct {
	Today    string
	Steps    []history.Step  // how often each came to be met, and was lost
	Visits   int             // sessions so far
	Lines    []progress.Line // the level of each ask over the sessions
	Stopped  []string        // steps whose practice at home was stopped
	Last     string          // day of the newest visit
	Proposed phrase.Message  // when the next one should be, as the newest proposed it; its key tells
	Booked   string          // day of the next visit that is agreed; empty: none is
	At       string          // its time, 08:40; empty: it has none yet
	Done     bool            // the case is finished
	Who      string          // whom an owner rings
	Phone    string          // at which number; empty: none is known
}

// Now writes how the case stands, without a visit: what is forbidden, the five
// answers, what is done at home and what not, whom to call, and the care to take.
func Now(in Input) Document {
	w := &writer{in: in, doc: Document{Bridge: in.Bridge, Figures: []Figure{}}}
	w.section("first", w.first)
	w.section("short", w.answers)
	w.section("home", w.home)
	w.section("call", w.call)
	w.section("care", w.care)
	return w.doc
}

// answers are the five things that a worried owner asks, each in one sentence: is it
// better, and by what; what may I do; what must I not do; when is the next visit;
// whom do I ring.
func (w *writer) answers(say saying) {
	w.better(say)
	w.may(say)
	w.mustNot(say)
	w.nextVisit(say)
	args := phrase.Args{"who": w.in.Standing.Who, "phone": w.in.Standing.Phone}
	if w.in.Standing.Phone == "" {
		say("ring", "short.ring.no_number", args)
	} else {
		say("ring", "short.ring", args)
	}
}

// mostNamed is how many steps a sentence names before it counts them.
const mostNamed = 2

// named names steps, or says how many they are.
func (w *writer) named(key string, steps []string, args phrase.Args) (string, phrase.Args) {
	if args = maps.Clone(args); args == nil {
		args = phrase.Args{}
	}
	args["n"] = len(steps)
	if len(steps) > mostNamed {
		return key + ".many", args
	}
	var names []phrase.Slotted
	for _, s := range steps {
		names = append(names, w.stepName(s))
	}
	args["steps"] = names
	return key, args
}

// better says whether it is better, and by what: what slipped first, then the steps
// that hold and did not on the first day, then what got lighter or heavier.
func (w *writer) better(say saying) {
	s, b := w.in.Standing, w.in.Bridge
	var slipped, gained []string
	for _, p := range b.Planks {
		switch {
		case p.Beyond:
		case p.State == horse.Slipped:
			slipped = append(slipped, p.Step)
		case p.State == horse.Met || p.State == horse.Kept:
			if i := slices.IndexFunc(s.Steps, func(x history.Step) bool { return x.Step == p.Step }); i >= 0 && s.Steps[i].Met > 0 {
				gained = append(gained, p.Step)
			}
		}
	}
	args := phrase.Args{"met": b.Met, "of": b.Steps, "first": b.Met - len(gained), "n": s.Visits}
	heavier, lighter := w.felt(trend.More), w.felt(trend.Less)
	switch {
	case s.Visits == 0:
		say("better", "short.better.not_begun", nil)
	case s.Done && len(slipped) == 0 && b.Met == b.Steps:
		say("better", "short.better.done", args)
	case len(slipped) > 0 && len(gained) > 0:
		key, a := w.named("short.better.partly", slipped, args)
		say("better", key, a)
	case len(slipped) > 0:
		key, a := w.named("short.better.slipped", slipped, args)
		say("better", key, a)
	case len(gained) > 0 && b.Met == len(gained):
		say("better", "short.better.new", args)
	case len(gained) > 0:
		say("better", "short.better.more", args)
	case heavier != nil:
		say("better", "short.better.heavier", heavier)
	case lighter != nil:
		say("better", "short.better.lighter", lighter)
	case s.Visits < trend.Least:
		say("better", "short.better.early", args)
	default:
		say("better", "short.better.not_yet", args)
	}
}

// felt is the ask of the ladder whose level surely changed, in words that changed
// with it; nil: none did.
func (w *writer) felt(word trend.Word) phrase.Args {
	for _, l := range w.in.Standing.Lines {
		step, ok := w.in.Catalog.Step(l.Step)
		if !ok || l.Measure != progress.Level || l.Trend.Word != word || step.Ladder != w.in.Ladder || len(l.Trend.Points) == 0 {
			continue
		}
		before, now := progress.Feel(l.Trend.Points[0].Y), progress.Feel(l.Trend.Points[len(l.Trend.Points)-1].Y)
		if before.Key != now.Key {
			return phrase.Args{"step": w.stepName(l.Step), "before": before, "now": now}
		}
	}
	return nil
}

// may says what the owner may do.
func (w *writer) may(say saying) {
	switch {
	case w.in.NotCaught:
		say("may", "short.may.not_caught", nil)
	case w.in.Care.Rank() >= horse.HighCare.Rank():
		say("may", "short.may.not_handled", nil)
	case w.reached():
		say("may", "short.may.done", nil)
	case len(w.in.Cleared) > 0:
		steps := w.in.Cleared
		key, args := w.named("short.may", steps[max(len(steps)-mostNamed, 0):], nil)
		say("may", key, args)
	case len(w.in.Standing.Stopped) > 0:
		key, args := w.named("short.may.stopped", w.in.Standing.Stopped, nil)
		say("may", key, args)
	default:
		say("may", "short.may.daily", nil)
	}
}

// reached reports whether the case is finished with every step met: what was the
// problem is no longer left to the trainer.
func (w *writer) reached() bool { return w.in.Standing.Done && w.in.Bridge.Met == w.in.Bridge.Steps }

// mustNot says what to leave alone: the gravest of what is forbidden, else the
// problem itself.
func (w *writer) mustNot(say saying) {
	for _, key := range []string{"forbid.owner", "forbid.not_caught", "forbid.in_hand", "forbid.mounting", "forbid.sore", "forbid.bit", "forbid.alone"} {
		i := slices.IndexFunc(w.in.Forbidden, func(m phrase.Message) bool { return m.Key == key })
		if i >= 0 {
			say("must_not", "short.not."+key, w.in.Forbidden[i].Args)
			return
		}
	}
	if w.reached() {
		say("must_not", "short.not.done", nil)
		return
	}
	if l, ok := w.in.Catalog.Ladder(w.in.Ladder); ok && l.Narrow {
		say("must_not", "short.not.trailer", nil)
		return
	}
	say("must_not", "short.not", phrase.Args{"problem": phrase.Of("problem."+w.in.Problem.String(), nil)})
}

// nextVisit says when the next visit is, or should be, as the newest one proposed it.
func (w *writer) nextVisit(say saying) {
	s := w.in.Standing
	from, to, ok := diary.Window(s.Proposed, s.Last)
	switch {
	case s.Booked != "" && s.At != "":
		say("next", "short.next.booked_at", phrase.Args{"on": phrase.Date(s.Booked), "at": s.At})
	case s.Booked != "":
		say("next", "short.next.booked", phrase.Args{"on": phrase.Date(s.Booked)})
	case s.Done:
		say("next", "short.next.done", phrase.Args{"who": s.Who})
	case s.Proposed.Key == "next.pain":
		say("next", "short.next.pain", phrase.Args{"who": s.Who})
	case !ok:
		say("next", "short.next.none", phrase.Args{"who": s.Who})
	case to < s.Today:
		say("next", "short.next.late", phrase.Args{"to": phrase.Date(to), "who": s.Who})
	default:
		say("next", "short.next", phrase.Args{"from": phrase.Date(from), "to": phrase.Date(to), "who": s.Who})
	}
}
