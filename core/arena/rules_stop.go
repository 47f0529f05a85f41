package arena

import (
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func hasEnded(s *session) (decision, bool) {
	return decision{action: EndSession, why: phrase.Of("why.ended", nil)}, s.ended
}

// Rule 1.
func stopReasons(s *session) (decision, bool) {
	if len(s.stops) == 0 {
		return decision{}, false
	}
	why := phrase.Of("why.stop", phrase.Args{"reason": s.stops[0].String()})
	if s.arousal >= 3 || s.bad != nil && s.bad.danger && s.bad.fresh {
		return decision{action: MakeSafe, then: []Action{EndSession}, why: why}, true
	}
	return decision{action: EndSession, why: why}, true
}

// lasts reports whether a bad moment has lasted too long (rule 3).
func (s *session) lasts() (int, bool) {
	minutes := float64(s.now-s.bad.since) / 60000
	switch {
	case minutes >= 10 && s.arousal >= 3:
		return 10, true
	case minutes >= 20 && s.arousal >= 2:
		return 20, true
	}
	return 0, false
}

// Rule 2.
func danger(s *session) (decision, bool) {
	if s.over == "2" || s.dangers > 1 {
		return s.secondDanger(), true
	}
	b := s.bad
	if b == nil || !b.danger {
		return decision{}, false
	}
	if m, ok := s.lasts(); ok {
		return decision{action: EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}, true
	}
	why := phrase.Of("why.danger", nil)
	if b.ridden {
		why = phrase.Of("why.danger.ridden", nil)
	}
	if b.fresh || s.arousal >= 2 {
		return decision{action: MakeSafe, then: []Action{Down}, why: why}, true
	}
	if s.capPassed() {
		return decision{}, false
	}
	if b.onEasy || b.from.IsZero() {
		return decision{action: EndAsk, why: phrase.Of("why.danger.easy", nil)}, true
	}
	return s.down(b.from, b.target, 2, true, phrase.Of("why.danger.after", nil)), true
}

func (s *session) secondDanger() decision {
	why := phrase.Of("why.danger.second", nil)
	if s.arousal >= 3 {
		return decision{action: MakeSafe, then: []Action{EndSession}, why: why}
	}
	d := decision{action: EndSession, why: why}
	if r := s.lastRep(); s.arousal <= 1 && r != nil && s.bad != nil {
		d.easy = s.easyKnown(r.Ask)
	}
	return d
}

// Rule 3; what is done while it is over the line is the school's.
func overTheLine(s *session) (decision, bool) {
	if s.over == "3" {
		return decision{action: EndSession, why: phrase.Of("why.over.done", nil)}, true
	}
	b := s.bad
	if b == nil || b.danger {
		if s.overs >= 3 {
			return decision{action: EndSession, why: phrase.Of("why.over.third", nil)}, true
		}
		return decision{}, false
	}
	if m, ok := s.lasts(); ok {
		return decision{action: EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}, true
	}
	third := s.overs >= 3
	if b.fresh || s.arousal >= s.col.back {
		if third {
			return decision{action: Wait, then: []Action{EndSession}, why: phrase.Of("why.over", nil)}, true
		}
		return s.col.over(s, b)
	}
	if third {
		return decision{action: EndSession, easy: s.easyKnown(b.from), why: phrase.Of("why.over.third", nil)}, true
	}
	if s.capPassed() {
		return decision{}, false
	}
	if !b.whole && !s.col.lowers(b) {
		return decision{}, false
	}
	key := "why.over.after"
	if b.whole {
		key = "why.over.second"
	}
	return s.down(b.from, b.target, 1, b.whole, phrase.Of(key, nil)), true
}

// Rule 4.
func caps(s *session) (decision, bool) {
	d := decision{action: EndAsk, why: phrase.Of("why.block_cap", phrase.Args{"n": s.rules.BlockCap})}
	if s.schooling() >= float64(s.rules.SessionCap) {
		d = decision{action: EndSession, why: phrase.Of("why.session_cap", phrase.Args{"n": s.rules.SessionCap})}
	} else if s.blockMinutes() < float64(s.rules.BlockCap) {
		return decision{}, false
	}
	if s.col.open && !s.tryReleased() {
		if !s.openIsOver() {
			return decision{}, false // reminded of, until the next try is released
		}
		return decision{action: EndSession, why: phrase.Of("why.open_over", phrase.Args{"n": s.openMinutes() + openMore})}, true
	}
	if s.good() || len(s.reps) == 0 {
		return d, true
	}
	if s.finishing >= 0 && len(s.reps)-s.finishing >= 2 {
		d.why = phrase.Of("why.quiet_moment", nil)
		return d, true
	}
	from, _ := s.current()
	if s.finishing >= 0 {
		easy := s.finishEasy
		d.easy = &easy
	} else {
		d.easy = s.easyKnown(from)
	}
	if d.easy == nil {
		d.why = phrase.Of("why.quiet_moment", nil)
	}
	return d, true
}

// openMore is how many minutes after open time waiting ends at the latest.
const openMore = 10

// openIsOver reports whether open time has passed by more than it may: of the
// block, and of the session past its cap should the block begin anew.
func (s *session) openIsOver() bool {
	most := float64(s.openMinutes() + openMore)
	return s.blockMinutes() >= most || s.schooling()-float64(s.rules.SessionCap) >= most
}

// tryReleased reports whether the last entry was a try or better that was let
// go of.
func (s *session) tryReleased() bool {
	r := s.lastRep()
	return r != nil && s.lastIsRep && r.answer.Rank() >= horse.Try.Rank() && r.Release != horse.NotReleased
}
