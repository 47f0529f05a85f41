package arena

import (
	"math"
	"slices"
	"strconv"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Live is what is counted while an ask is worked, by what its school looks at (part
// 6, the table; part 8): today's numbers beside those of the last session.
type Live struct {
	Lines    []phrase.Message `json:"lines" doc:"of the ask first, then of what was stopped"`
	Released int64            `json:"released,omitempty" doc:"when the feel was let go, ms, where the let-down is still waited for; 0: it is not"`
}

// StoppedBefore is what was stopped in the last session that saw it.
type StoppedBefore struct {
	What    string  `json:"what" doc:"the behaviour, or the hurry and the slope"`
	Heading string  `json:"heading,omitempty" doc:"towards what"`
	On      string  `json:"on" format:"date" doc:"day of that session"`
	PerTen  float64 `json:"per_ten" doc:"times per ten minutes"`
	All     float64 `json:"all,omitempty" doc:"seconds per ten minutes"`
}

// Of reports whether it is the same that was stopped.
func (was StoppedBefore) Of(b Behaviour) bool {
	return was.What == b.Called() && was.Heading == b.Heading
}

// A Spot is a named place as it was passed so far, in one direction.
type Spot struct {
	Name    string        `json:"name" doc:"as the trainer calls it"`
	Heading horse.Heading `json:"heading,omitzero" doc:"in which direction"`
	Drawn   int           `json:"drawn" doc:"how often it tried to turn to it in the newest pass"`
	Clean   int           `json:"clean" doc:"passes in a row without a try, to the newest"`
}

// counting tells the live numbers of an ask.
func (r *Running) counting(at horse.Ask) Live {
	s := r.now.s
	live := Live{Lines: []phrase.Message{}}
	say := func(key string, args phrase.Args) { live.Lines = append(live.Lines, phrase.Of("live."+key, args)) }
	step, _ := r.cat.Step(at.Step)
	ladder, _ := r.cat.Ladder(step.Ladder)
	switch s.schoolOf(ladder.Key) {
	case horse.WaitItOut:
		r.softening(at, say)
	case horse.Doses:
		r.kicking(at, say)
	case horse.ReliefPlace:
		r.nearing(say)
	}
	if step.Is(catalog.LetsDown) || s.schoolOf(ladder.Key) == horse.WaitItOut {
		live.Released = r.released(at)
		r.lettingDown(at, say)
	}
	if step.Is(catalog.AReview) {
		r.reviewing(at, say)
	}
	if step.Is(catalog.PassesSpots) {
		r.passing(say)
	}
	if timed, ok := s.timed[at]; ok {
		says := timed.Says
		if len(timed.Strides) > 0 { // else it is what the eye says
			says = phrase.Of("live.timed", phrase.Args{"says": says})
		}
		live.Lines = append(live.Lines, says)
		if timed.Vet != nil {
			live.Lines = append(live.Lines, *timed.Vet)
		}
	}
	r.interrupting(say)
	r.spooking(say)
	return live
}

// beadsOf are the answers of an ask today that were measured.
func (r *Running) beadsOf(a horse.Ask, has func(Told) bool) []Told {
	var list []Told
	for _, b := range r.now.beads {
		if b.Ask == a && has(b) {
			list = append(list, b)
		}
	}
	return list
}

// whole is a number of seconds as it is said.
func whole(seconds float64) int { return int(math.Round(seconds)) }

// softening tells after how many seconds of unchanged feel it was soft, and whether
// they fall (part 5, bridling).
func (r *Running) softening(at horse.Ask, say func(string, phrase.Args)) {
	soft := r.beadsOf(at, func(t Told) bool { return horse.Soft(t.Graded) && t.Seconds > 0 })
	before := r.now.s.known[at].SoftAfter
	if len(soft) == 0 {
		if before > 0 {
			say("soft.before", phrase.Args{"before": whole(before)})
		}
		return
	}
	args := phrase.Args{"list": secondsOf(soft, func(t Told) float64 { return t.Seconds }), "trend": trend(soft), "before": phrase.Message{}}
	if before > 0 {
		args["before"] = phrase.Of("live.last_time", phrase.Args{"s": whole(before)})
	}
	say("soft", args)
}

// secondsOf lists the seconds of the last five answers.
func secondsOf(beads []Told, of func(Told) float64) []string {
	var list []string
	for _, t := range beads[max(len(beads)-5, 0):] {
		list = append(list, strconv.Itoa(whole(of(t))))
	}
	return list
}

// trend says whether the seconds to soft fall: the middle of the newer half under
// that of the older one by a quarter (part 8). Under three it says nothing.
func trend(soft []Told) phrase.Message {
	n := len(soft)
	if n < 3 {
		return phrase.Message{}
	}
	middle := func(half []Told) float64 {
		var of []float64
		for _, t := range half {
			of = append(of, t.Seconds)
		}
		return horse.Median(of)
	}
	switch was, is := middle(soft[:n/2]), middle(soft[n-n/2:]); {
	case is <= was*3/4:
		return phrase.Of("live.falling", nil)
	case is >= was*5/4:
		return phrase.Of("live.rising", nil)
	}
	return phrase.Of("live.level", nil)
}

// released is when the newest answer let go of a feel whose let-down is not noted.
func (r *Running) released(at horse.Ask) int64 {
	n := len(r.now.beads)
	if n == 0 {
		return 0
	}
	last := r.now.beads[n-1]
	if last.Ask != at || last.Kind != track.KindRep || last.LetDown != nil || last.Release == horse.NotReleased || last.Graded == horse.Refused {
		return 0
	}
	return last.At
}

func (r *Running) lettingDown(at horse.Ask, say func(string, phrase.Args)) {
	down := r.beadsOf(at, func(t Told) bool { return t.LetDown != nil })
	if len(down) > 0 {
		say("let_down", phrase.Args{"list": secondsOf(down, func(t Told) float64 { return *t.LetDown })})
	}
}

// kicking tells the kicks in ten of this set against the last one and the last
// session's first, and after how long it stood (part 5, the unhandled adult).
func (r *Running) kicking(at horse.Ask, say func(string, phrase.Args)) {
	doses := r.beadsOf(at, func(t Told) bool { return t.Kind == track.KindDose })
	kicked := r.beadsOf(at, func(t Told) bool { return t.Kicks != nil })
	before := r.now.s.known[at]
	if n := len(kicked); n > 0 {
		args := phrase.Args{"now": *kicked[n-1].Kicks, "set": phrase.Message{}, "before": phrase.Message{}}
		if n > 1 {
			args["set"] = phrase.Of("live.kicks.set", phrase.Args{"n": *kicked[n-2].Kicks})
		}
		if before.Kicks != nil {
			args["before"] = phrase.Of("live.kicks.before", phrase.Args{"n": *before.Kicks})
		}
		say("kicks", args)
	} else if before.Kicks != nil {
		say("kicks.only", phrase.Args{"n": *before.Kicks})
	}
	if n := len(doses); n > 0 && doses[n-1].Seconds > 0 {
		args := phrase.Args{"now": whole(doses[n-1].Seconds), "before": phrase.Message{}}
		if before.StoodAfter > 0 {
			args["before"] = phrase.Of("live.last_time", phrase.Args{"s": whole(before.StoodAfter)})
		}
		say("stood", args)
	}
}

// nearing tells how near it came today by its own choice, and what the work took
// there and away (part 6, the pass of a relief place).
func (r *Running) nearing(say func(string, phrase.Args)) {
	var best *track.Spell
	for _, e := range r.live {
		if p := e.Spell; p != nil && p.Rest && !p.WrongPlace(r.cat) && (best == nil || near(*p) > near(*best) || near(*p) == near(*best) && p.Seconds > best.Seconds) {
			best = p
		}
	}
	if best != nil {
		how := "live.by_itself"
		if best.Came == track.AskedTo {
			how = "live.asked"
		}
		say("nearest", phrase.Args{"place": best.Place.String(), "how": phrase.Of(how, nil), "s": best.Seconds})
	}
	if s := r.now.s; s.workAway.noted && s.workAt.noted {
		say("slope", phrase.Args{"away": s.workAway.level, "at": s.workAt.level})
	}
}

// near counts a place nearer than another, and one that was chosen before one that
// it was led to. One side is as near as the other.
func near(p track.Spell) int {
	rank := p.Place.Rank()
	if p.Place == track.BesideLeft {
		rank = track.BesideRight.Rank()
	}
	return 2*max(rank, p.FeetIn+track.InIt.Rank()-4) + btoi(p.Came != track.AskedTo)
}

// tooMany is how many trials of one thing in a row are enough for a session.
const tooMany = 5

// reviewing tells the trials of the thing looked at last, in their order (part 5).
func (r *Running) reviewing(at horse.Ask, say func(string, phrase.Args)) {
	trials := r.beadsOf(at, func(t Told) bool { return t.Trial != nil })
	if len(trials) == 0 {
		return
	}
	what := trials[len(trials)-1].Trial.What
	tried := slices.DeleteFunc(trials, func(t Told) bool { return t.Trial.What != what })
	for _, t := range tried[max(len(tried)-tooMany, 0):] {
		say(taleOf(*t.Trial))
	}
	changed := slices.DeleteFunc(tried, func(t Told) bool { return t.Trial.Changed == "" })
	if len(changed) >= tooMany {
		say("trial.enough", phrase.Args{"n": len(changed), "what": what.String()})
	}
}

// taleOf is a trial as it is told.
func taleOf(t track.Trial) (string, phrase.Args) {
	args := phrase.Args{"what": t.What.String(), "was": phrase.Message{}, "changed": t.Changed, "min": phrase.Message{}, "saw": phrase.Message{}, "verdict": t.Verdict.String()}
	if t.Seconds >= 30 {
		args["min"] = phrase.Of("live.trial.min", phrase.Args{"n": (t.Seconds + 30) / 60})
	}
	if t.Saw != "" {
		args["saw"] = phrase.Of("live.trial.saw", phrase.Args{"saw": t.Saw})
	}
	if t.Was != "" {
		args["was"] = phrase.Of("live.trial.was", phrase.Args{"was": t.Was})
	}
	if t.Changed == "" {
		return "trial.right", args
	}
	return "trial", args
}

// passing tells how each named place was passed, in each direction.
func (r *Running) passing(say func(string, phrase.Args)) {
	spots := SpotsAfter(r.cat, r.in.Spots, r.live)
	today := min(len(SpotsAfter(r.cat, nil, r.live)), 2) // today's stand last
	for _, p := range spots[len(spots)-today:] {
		say("spot", phrase.Args{"spot": p.Name, "heading": headingOf(p.Heading), "n": p.Drawn, "clean": p.Clean})
	}
}

func headingOf(h horse.Heading) phrase.Message {
	if h.IsZero() {
		return phrase.Message{}
	}
	return phrase.Of("story.heading", phrase.Args{"to": h.String()})
}

// SpotsAfter adds what was passed in a session to the named places passed before.
func SpotsAfter(c *catalog.Catalog, had []Spot, live []track.Entry) []Spot {
	spots := slices.Clone(had)
	for _, e := range live {
		rep, ok := e.AsRep(c)
		if !ok || rep.Spot == "" {
			continue
		}
		i := slices.IndexFunc(spots, func(s Spot) bool { return s.Name == rep.Spot && s.Heading == rep.Heading })
		p := Spot{Name: rep.Spot, Heading: rep.Heading}
		if i >= 0 {
			p = spots[i]
			spots = slices.Delete(spots, i, i+1) // the newest stand last
		}
		p.Drawn = rep.Drawn
		p.Clean++
		if rep.Drawn > 0 || !horse.Soft(rep.Answer) {
			p.Clean = 0
		}
		spots = append(spots, p)
	}
	return spots
}

// When a horse is unlike itself (part 6): more than twice its usual spooks in ten
// minutes, of so many sessions at least, and no single one.
const (
	twiceUsual  = 2
	leastUsual  = 3
	leastSpooks = 2
	atLeast     = 10 // minutes: before they are over one does not judge
)

// spooking tells how often it spooked today, and whether that is unlike itself.
func (r *Running) spooking(say func(string, phrase.Args)) {
	n := Spooks(r.live)
	if n == 0 {
		return
	}
	rate, usual := PerTen(float64(n), max(atLeast, Minutes(r.live, r.in.Started))), horse.Median(r.in.Spooks)
	args := phrase.Args{"n": n, "rate": whole(rate), "usual": math.Round(10*usual) / 10}
	switch {
	case len(r.in.Spooks) < leastUsual:
		say("spooked", args)
	case n >= leastSpooks && rate > twiceUsual*usual:
		say("unlike", args)
	default:
		say("spooked_usual", args)
	}
}

// interrupting tells how often something was stopped today, against the last
// session that saw it; on a later day it is gone, or to be thought over (part 4).
func (r *Running) interrupting(say func(string, phrase.Args)) {
	for _, b := range StoppedIn(r.live, r.in.Started) {
		args := phrase.Args{"what": b.Called(), "n": b.N, "rate": b.PerTen, "before": phrase.Message{}}
		key := "stopped"
		i := slices.IndexFunc(r.in.Before, func(was StoppedBefore) bool { return was.Of(b) })
		if !b.Hurry.IsZero() {
			key, args["s"] = "hurried", whole(b.AllPerTen)
		}
		if i >= 0 && b.Hurry.IsZero() {
			args["before"] = phrase.Of("live.rate_before", phrase.Args{"rate": r.in.Before[i].PerTen})
		} else if i >= 0 {
			args["before"] = phrase.Of("live.last_time", phrase.Args{"s": whole(r.in.Before[i].All)})
		}
		say(key, args)
		if i >= 0 && b.Hurry.IsZero() {
			say("rethink", phrase.Args{"on": phrase.Date(r.in.Before[i].On)})
		}
	}
}
