package arena

import (
	"fmt"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Rule 9.
func ownersFirst(s *session) (decision, bool) {
	r := s.lastRep()
	h := s.in.Handlers[r.Handler]
	if !h.Owner || !s.good() || !s.lastIsRep {
		return decision{}, false
	}
	failed := slices.Contains(h.Failed, r.Step)
	for i, t := range s.reps[:len(s.reps)-1] {
		if t.Handler != r.Handler || t.Step != r.Step || !t.counted {
			continue
		}
		if s.reps[i].soft() {
			return decision{}, false
		}
		failed = failed || t.refused()
	}
	return decision{action: track.EndSession, why: phrase.Of("why.owner", nil)}, failed
}

// Rule 10.
func timeUp(s *session) (decision, bool) {
	if !s.good() {
		return decision{}, false
	}
	r := s.lastRep()
	if s.dip(r.n) && !s.reachedMark() {
		return decision{}, false
	}
	if s.schooling() >= float64(s.rules.SessionCap-5) {
		return decision{action: track.EndSession, why: phrase.Of("why.time.session", phrase.Args{"n": s.rules.SessionCap})}, true
	}
	if s.blockMinutes() >= float64(s.rules.BlockMinutes) {
		return decision{action: track.EndAsk, why: phrase.Of("why.time.block", phrase.Args{"n": s.rules.BlockMinutes})}, true
	}
	return decision{}, false
}

// reachedMark reports whether the run of the last rep has reached the pass
// mark at its value.
func (s *session) reachedMark() bool {
	r := s.lastRep()
	return r.passes && s.log(r.Ask).passRun >= r.step.Pass.Run
}

// Rule 11.
func routine(s *session) (decision, bool) {
	r := s.lastRep()
	three := tail(s.log(r.Ask).run, func(t told) bool { return t.answer == horse.Offered }) >= 3
	if !three || !s.known[r.Ask].Passed() || s.dip(r.n) {
		return decision{}, false
	}
	return decision{action: track.ChangeAsk, why: phrase.Of("why.routine", nil)}, true
}

// Rule 12.
func passMark(s *session) (decision, bool) {
	r := s.lastRep()
	if !s.reachedMark() || s.arousal > 1 {
		return decision{}, false
	}
	if !s.inFourBeats(*r) {
		return s.same(s.untimed(*r))
	}
	why := phrase.Of("why.passed", phrase.Args{"n": r.step.Pass.Run, "level": s.passLevel(r.step)})
	last := s.lastValue(r.step)
	if r.Target != last && !r.step.Reaches(r.Target, last) {
		if s.stay[r.Ask] {
			return decision{action: track.EndAsk, why: phrase.Of("why.stays_lower", nil)}, true
		}
		return decision{action: track.Up, ask: r.Ask, target: s.upTo(*r, last), why: why}, true
	}
	if left := float64(s.rules.SessionCap) - s.schooling(); left*60 < 3*s.repSeconds() {
		return decision{action: track.EndAsk, why: phrase.Of("why.passed.no_time", nil)}, true
	}
	if other, ok := s.unpassedVariant(r.Ask, s.in.Levels[r.Step]); ok {
		return decision{action: track.OtherSide, ask: other, target: s.startFor(other, r.step), why: why}, true
	}
	if next, ok := s.nextOpen(r.Ask); ok {
		step, _ := s.cat.Step(next.Step)
		return decision{action: track.Up, ask: next, target: s.startFor(next, step), why: why}, true
	}
	return decision{action: track.EndAsk, why: phrase.Of("why.passed.end", nil)}, true
}

// untimed says what a run in a gait that is asked for still waits for.
func (s *session) untimed(r told) phrase.Message {
	timed, ok := s.timed[r.Ask]
	if !ok {
		return phrase.Of("why.time_it", phrase.Args{"n": r.step.Pass.Run})
	}
	return phrase.Of("why.other_gait", phrase.Args{"n": r.step.Pass.Run, "says": timed.Says})
}

func (s *session) upTo(r told, last int) int {
	next := r.step.After(r.Target)
	if !r.step.Reaches(last, next) {
		return last
	}
	return next
}

// Rule 13.
func beforeTheDip(s *session) (decision, bool) {
	r := s.lastRep()
	c := s.rules.Cycle
	if !s.col.cycle || !s.good() || r.n%c != c-2 {
		return decision{}, false
	}
	rep := s.repSeconds()
	onePassMore := r.passes && s.log(r.Ask).passRun+1 >= r.step.Pass.Run
	if rep > 120 || onePassMore {
		return decision{}, false
	}
	left := min(float64(s.rules.BlockMinutes)-s.blockMinutes(), float64(s.rules.SessionCap-5)-s.schooling())
	needs := float64(c-1) * rep / 60
	if left >= needs {
		return decision{}, false
	}
	return decision{action: track.EndAsk, why: phrase.Of("why.before_dip", phrase.Args{
		"a": r.n + 1, "b": r.n + 2, "needs": fmt.Sprintf("%.1f", needs), "left": fmt.Sprintf("%.1f", left),
	})}, true
}

// Rule 14.
func balance(s *session) (decision, bool) {
	r := s.lastRep()
	if s.rules.SwapSides != afterEach || !s.good() || s.dip(r.n) || r.Variant.Side.IsZero() {
		return decision{}, false
	}
	other, ok := s.oppositeSide(r.Ask)
	if !ok || len(s.log(r.Ask).reps)-len(s.log(other).reps) <= 3 {
		return decision{}, false
	}
	return decision{action: track.OtherSide, ask: other, target: s.valueNow(other, r.step), why: phrase.Of("why.balance", nil)}, true
}

func (s *session) oppositeSide(a horse.Ask) (horse.Ask, bool) {
	other := a
	other.Variant.Side = horse.Near
	if a.Variant.Side == horse.Near {
		other.Variant.Side = horse.Off
	}
	return other, s.cat.HasAsk(other)
}

// Rule 15.
func otherwise(s *session) (decision, bool) {
	r := s.lastRep()
	next := r.n + 1
	switch {
	case r.refused():
		return s.same(phrase.Of("why.refused.once", nil))
	case s.arousal == 2:
		return s.same(phrase.Of("why.tense_after", nil))
	case s.dip(next):
		return s.same(phrase.Of("why.dip_next", phrase.Args{"a": next - btoi(s.dip(r.n)), "b": next + btoi(!s.dip(r.n))}))
	case r.soft() && !r.passes:
		return s.same(phrase.Of("why.lighter", phrase.Args{"level": s.passLevel(r.step)}))
	}
	return s.same(phrase.Of("why.same", phrase.Args{"n": s.log(r.Ask).passRun, "needs": r.step.Pass.Run}))
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}
