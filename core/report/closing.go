package report

import (
	"fmt"
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
)

// changed tells what came to another state, and what is to come.
func (w *writer) changed(say saying) {
	for _, state := range []horse.StepState{horse.Met, horse.Kept, horse.Slipped} {
		if steps := w.gained(state); len(steps) > 0 {
			say(state.String(), "changed."+state.String(), phrase.Args{"steps": steps})
		}
	}
	if len(w.gained(horse.Met))+len(w.gained(horse.Kept))+len(w.gained(horse.Slipped)) == 0 {
		say("none", "changed.none", nil)
	}
	if all := w.in.Bridge.Steps; all > 0 && w.in.Bridge.Met == 0 {
		say("bridge", "changed.bridge_none", nil)
	} else if all > 0 {
		say("bridge", "changed.bridge", phrase.Args{"met": w.in.Bridge.Met, "of": all})
	}
	ask, then, now, ok := w.compared()
	switch {
	case ok && now.Level > then.Reps.Level && wordOf(now) != wordOf(then.Reps):
		say("heavier", "changed.heavier", phrase.Args{"step": w.stepName(ask.Step), "before": progress.Feel(then.Reps.Level), "now": progress.Feel(now.Level), "on": phrase.Date(then.On)})
	case !ok && len(w.in.Beads) > 0 && len(w.in.Then) == 0 && !w.in.FirstVisit:
		say("new", "changed.not_asked", nil)
	}
}

func wordOf(r history.Reps) string { return progress.Feel(r.Level).Key }

// compared is the ask worked most today that has a level now and had one on the
// first day it was asked.
func (w *writer) compared() (ask horse.Ask, then Then, now history.Reps, ok bool) {
	for _, a := range w.in.Review.Asks {
		before, there := w.in.Then[a.Ask]
		today := history.Count(w.in.Beads, func(b arena.Told) bool { return b.Ask == a.Ask })
		if there && before.Reps.Noted && today.Noted && today.N > now.N {
			ask, then, now, ok = a.Ask, before, today, true
		}
	}
	return ask, then, now, ok
}

// figures sets two or three numbers against the first day, each of the same ask.
func (w *writer) figures() {
	add := func(key string, args, means phrase.Args, before, after phrase.Message) {
		means["at"] = phrase.Date(w.in.Standing.Last)
		w.doc.Figures = append(w.doc.Figures, Figure{
			Label: phrase.Of("report.figure."+key, args), Before: before, After: after, Means: phrase.Of("report.figure."+key+".means", means),
		})
	}
	for _, a := range w.in.Review.Asks {
		then, there := w.in.Then[a.Ask]
		if now := history.Count(w.in.Beads, func(b arena.Told) bool { return b.Ask == a.Ask }); there && then.Reps.N > 0 && now.N > 0 {
			share := func(r history.Reps) phrase.Message {
				return phrase.Of("report.figure.share", phrase.Args{"good": r.Good, "n": r.N})
			}
			add("good", phrase.Args{"step": w.stepName(a.Step)}, phrase.Args{"on": phrase.Date(then.On)}, share(then.Reps), share(now))
			break
		}
	}
	if ask, then, now, ok := w.compared(); ok {
		key := "feel"
		if wordOf(now) == wordOf(then.Reps) {
			key = "feel_same"
		}
		add(key, phrase.Args{"step": w.stepName(ask.Step)}, phrase.Args{"on": phrase.Date(then.On), "before": then.Reps.Level, "now": now.Level}, progress.Feel(then.Reps.Level), progress.Feel(now.Level))
	}
	step := func(b arena.Told) bool {
		s, _ := w.in.Catalog.Step(b.Step)
		return s.Ladder == w.in.Ladder
	}
	if peak := w.in.Baseline.Arousal; peak.Noted() && len(w.in.Review.Felt) > 0 && slices.ContainsFunc(w.in.Beads, step) {
		today := 0
		for _, f := range w.in.Review.Felt {
			today = max(today, f.Level)
		}
		add("calm", nil, phrase.Args{}, phrase.Of(fmt.Sprintf("arousal.%d", peak.Int()), nil), phrase.Of(fmt.Sprintf("arousal.%d", today), nil))
	}
}

func (w *writer) next(say saying) {
	switch {
	case w.in.Next != "":
		say("step", "next.step", phrase.Args{"step": w.stepName(w.in.Next)})
	case w.in.Bridge.Blocked > 0:
		say("step", "next.none", nil)
	}
	if w.in.Goal != "" {
		say("goal", "next.goal", phrase.Args{"goal": strings.TrimRight(w.in.Goal, ". ")})
	}
	if w.in.NeededBy != "" {
		say("date", "next.date", phrase.Args{"date": phrase.Date(w.in.NeededBy)})
	}
}

// home gives only what the owner is cleared for, else what to leave alone and
// how to handle safely for what must be done each day, fitted to the grade.
func (w *writer) home(say saying) {
	owner := w.in.Care.Rank() < horse.HighCare.Rank()
	switch {
	case w.in.NotCaught:
		say("handling", "home.not_caught", nil)
	case !owner:
		say("handling", "home.not_handled", nil)
	case len(w.in.Cleared) > 0:
		var steps []phrase.Slotted
		for _, key := range w.in.Cleared {
			steps = append(steps, w.stepName(key))
		}
		say("cleared", "home.cleared", phrase.Args{"steps": steps})
	case w.reached():
		say("handling", "home.done", nil)
	default:
		say("handling", "home.handling", nil)
	}
	switch l, _ := w.in.Catalog.Ladder(w.in.Ladder); {
	case w.reached():
		say("not", "home.up", nil)
	case l.Narrow:
		say("not", "home.not.trailer", nil)
	default:
		say("not", "home.not", nil)
	}
	if owner && !w.in.NotCaught {
		say("stop", "home.stop", nil)
	}
}

func (w *writer) call(say saying) {
	for _, r := range w.in.Referrals {
		if r.Done {
			continue
		}
		args := phrase.Args{"who": r.Who, "due": phrase.Date(r.Due)}
		if r.Item.IsZero() {
			say(r.Key, "call."+r.Key, args)
			continue
		}
		args["item"] = assess.Named(r.Item)
		say(r.Key, "call.referral", args)
	}
}

// care names the precautions of the grade; a helmet near the trailer or in the
// saddle only where there is one, or where somebody may get on.
func (w *writer) care(say saying) {
	key := fmt.Sprintf("care.%d", max(w.in.Care.Rank(), 1))
	if w.in.Care.Rank() <= 1 {
		ladder, _ := w.in.Catalog.Ladder(w.in.Ladder)
		trailer := slices.ContainsFunc(ladder.Steps, func(s catalog.Step) bool { return s.Trailer })
		on := !slices.ContainsFunc(w.in.Forbidden, func(m phrase.Message) bool {
			return slices.Contains([]string{"forbid.in_hand", "forbid.mounting", "forbid.sore"}, m.Key)
		})
		switch {
		case trailer && on:
			key += ".both"
		case trailer:
			key += ".trailer"
		case on:
			key += ".mounted"
		}
	}
	say("grade", key, nil)
	say("vet", "care.vet", nil)
}
