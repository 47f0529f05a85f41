package arena

import (
	"cmp"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// decision is what a rule said.
type decision struct {
	rule    string
	action  track.Action
	then    []track.Action
	from    horse.Ask // the ask it was decided on
	ask     horse.Ask // the ask to come
	target  int
	buildTo int
	rest    int
	easy    *horse.Ask
	whole   bool // a whole step lower, for the rest of the session
	begin   bool
	at1     bool // at once: no rest
	why     phrase.Message
}

type rule struct {
	number string
	judge  func(*session) (decision, bool)
}

// rules stand in part 6's order; the first that gives an action decides.
// Where part 6's table leaves one to the school, its column decides.
var rulesInOrder = []rule{
	{"ended", hasEnded},
	{"3", endedForGood},
	{"1", stopReasons},
	{"3", tooLong},
	{"2", danger},
	{"3", overTheLine},
	{"4", finished},
	{"4", caps},
	{"8", warningBeforeAnAsk},
	{"begin", begin},
	{"5", notCounted},
	{"6", stepTooBig},
	{"6", getDown},
	{"7", refused},
	{"8", warningLook},
	{"12", holdBroken},
	{"8", func(s *session) (decision, bool) { return s.col.tolerated(s) }},
	{"9", ownersFirst},
	{"10", timeUp},
	{"11", routine},
	{"12", func(s *session) (decision, bool) { return s.col.passed(s) }},
	{"13", beforeTheDip},
	{"14", balance},
	{"15", otherwise},
}

func (s *session) decide(now int64) decision {
	s.now = max(s.now, now)
	for _, r := range rulesInOrder {
		d, ok := r.judge(s)
		if !ok {
			continue
		}
		d.rule = cmp.Or(d.rule, r.number)
		d.from, _ = s.current()
		return s.keepOpen(d)
	}
	panic("arena: rule 15 always decides")
}

// keepOpen turns an ask on a shut step into the nearest open one below.
func (s *session) keepOpen(d decision) decision {
	asks := slices.Contains([]track.Action{track.Same, track.Up, track.OtherSide, track.Retreat}, d.action) || d.action == track.Hold && d.rule == "8"
	if !asks || !s.shut(d.ask.Step) {
		return d
	}
	if s.arousal > 1 {
		return decision{rule: d.rule, action: track.Wait, then: []track.Action{track.Down}, from: d.from, why: phrase.Of("why.shut.wait", nil)}
	}
	low, ok := s.lower(d.ask, 1)
	if !ok {
		return decision{rule: d.rule, action: track.EndAsk, easy: s.easyKnown(d.ask), from: d.from, why: phrase.Of("why.nothing_lower", nil)}
	}
	step, _ := s.cat.Step(low.Step)
	return decision{
		rule: d.rule, action: track.Down, from: d.from, ask: low, target: s.startFor(low, step),
		why: phrase.Of("why.shut", phrase.Args{"step": s.name(d.ask.Step)}),
	}
}

func (s *session) name(key string) string {
	step, _ := s.cat.Step(key)
	return step.FullName()
}

// same asks the same again from 1.
func (s *session) same(why phrase.Message) (decision, bool) {
	a, v := s.current()
	return decision{action: track.Same, ask: a, target: v, why: why}, true
}

// down goes to the start value, or a step lower when already there.
func (s *session) down(from horse.Ask, value, steps int, whole bool, why phrase.Message) decision {
	step, _ := s.cat.Step(from.Step)
	if !whole && steps == 1 && !s.early(from) && len(step.Pass.Values) > 0 && value != step.Start() && step.Reaches(value, step.Start()) && !s.shut(from.Step) {
		return decision{action: track.Down, ask: from, target: step.Start(), why: why}
	}
	low, ok := s.lower(from, steps)
	if first, waits := s.firstWaited(from); waits && (steps == 1 || !ok || s.under(first, low)) {
		low, ok = first, true
	}
	if !ok {
		return decision{action: track.EndAsk, easy: s.easyKnown(from), why: phrase.Of("why.nothing_lower", nil)}
	}
	lower, _ := s.cat.Step(low.Step)
	target := s.startFor(low, lower)
	if s.bad != nil || s.bumped {
		target = lower.Start() // after a scare it begins small, also where it was met
	}
	return decision{action: track.Down, ask: low, target: target, whole: whole, why: why}
}

// under reports whether an ask lies below another: a foundation below a step of a
// problem ladder, and on one ladder the one that stands before.
func (s *session) under(a, b horse.Ask) bool {
	x, _ := s.cat.Step(a.Step)
	y, _ := s.cat.Step(b.Step)
	if x.Ladder == y.Ladder {
		return x.Place < y.Place
	}
	l, _ := s.cat.Ladder(x.Ladder)
	return l.Kind == catalog.Foundation
}

func (s *session) lastRep() *told {
	if len(s.reps) == 0 {
		return nil
	}
	return &s.reps[len(s.reps)-1]
}

// good reports whether the last answer was accepted and all is quiet.
func (s *session) good() bool {
	r := s.lastRep()
	return r != nil && r.counted && r.soft() && s.arousal <= 1
}

func (s *session) capPassed() bool {
	return s.schooling() >= float64(s.rules.SessionCap) || s.blockMinutes() >= float64(s.rules.BlockCap)
}
