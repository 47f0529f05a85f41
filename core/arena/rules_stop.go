package arena

import (
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

func hasEnded(s *session) (decision, bool) {
	return decision{action: track.EndSession, why: phrase.Of("why.ended", nil)}, s.ended
}

// endedForGood: what a stop, a danger or too long a wait has ended is not begun
// again, whatever comes after (rule 3).
func endedForGood(s *session) (decision, bool) {
	if s.over == nil {
		return decision{}, false
	}
	if s.arousal >= 3 && s.bad != nil && s.bad.danger && s.over.rule != "3" {
		return decision{}, false // it is made safe first
	}
	return decision{rule: s.over.rule, action: track.EndSession, why: s.over.why}, true
}

// Rule 1.
func stopReasons(s *session) (decision, bool) {
	if len(s.stops) == 0 {
		return decision{}, false
	}
	why := phrase.Of("why.stop", phrase.Args{"reason": s.stops[0].String()})
	if s.arousal >= 3 || s.bad != nil && s.bad.danger && !s.bad.noted {
		return decision{action: track.MakeSafe, then: []track.Action{track.EndSession}, why: why}, true
	}
	return decision{action: track.EndSession, why: why}, true
}

func tooLong(s *session) (decision, bool) {
	m, ok := s.lasts(s.now)
	return decision{action: track.EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}, ok
}

// Rule 2.
func danger(s *session) (decision, bool) {
	if s.dangers > 1 {
		return s.secondDanger(), true
	}
	b := s.bad
	if b == nil || !b.danger {
		return decision{}, false
	}
	why := phrase.Of("why.danger", nil)
	if b.ridden {
		why = phrase.Of("why.danger.ridden", nil)
	}
	if !b.noted || s.arousal >= 2 {
		return decision{action: track.MakeSafe, then: []track.Action{track.Down}, why: why}, true
	}
	if _, ok := caps(s); ok {
		return decision{}, false
	}
	if b.onEasy || b.from.IsZero() {
		return decision{action: track.EndAsk, why: phrase.Of("why.danger.easy", nil)}, true
	}
	return s.down(b.from, b.target, 2, true, phrase.Of("why.danger.after", nil)), true
}

// secondDanger ends the session; one easy answer first only where it has come
// back, and not of what was dangerous.
func (s *session) secondDanger() decision {
	why := phrase.Of("why.danger.second", nil)
	if s.arousal >= 3 {
		return decision{action: track.MakeSafe, then: []track.Action{track.EndSession}, why: why}
	}
	d := decision{action: track.EndSession, why: why}
	if r := s.lastRep(); s.arousal <= 1 && r != nil && s.bad != nil && !s.bad.onEasy {
		d.easy = s.easyKnown(r.Ask)
	}
	return d
}

// Rule 3; what is done while it is over the line is the school's.
func overTheLine(s *session) (decision, bool) {
	b := s.bad
	if b == nil || b.danger {
		return decision{}, false
	}
	last := s.overs >= s.col.overs
	if back := s.col.backFrom(b); s.arousal >= back {
		if last {
			return decision{action: track.Wait, then: []track.Action{track.EndSession}, why: phrase.Of("why.over.last", phrase.Args{"n": s.overs})}, true
		}
		return s.col.over(s, b)
	}
	if last {
		return decision{action: track.EndSession, easy: s.easyKnown(b.from), why: phrase.Of("why.over.third", phrase.Args{"n": s.overs})}, true
	}
	if _, ok := caps(s); ok || !b.whole && !s.col.lowers(b) {
		return decision{}, false
	}
	key := "why.over.after"
	if b.whole {
		key = "why.over.second"
	}
	return s.down(b.from, b.target, 1, b.whole, phrase.Of(key, nil)), true
}

// finished: an easy known ask was to be answered first. A good answer, or the
// second try, is the end that it was wanted for.
func finished(s *session) (decision, bool) {
	f := s.finish
	if f == nil || len(s.reps) <= f.since || s.lastRep().Ask != f.easy {
		return decision{}, false
	}
	d := f.end
	switch {
	case s.good():
	case len(s.reps)-f.since >= easyTries || s.spoiltEasy[f.easy]:
		d.why = phrase.Of("why.quiet_moment", nil)
	default:
		d.easy = &f.easy
	}
	return d, true
}

// easyTries is how often the easy ask that something ends on is tried.
const easyTries = 2

// Rule 4.
func caps(s *session) (decision, bool) {
	d := decision{action: track.EndAsk, why: phrase.Of("why.block_cap", phrase.Args{"n": s.rules.BlockCap})}
	if s.schooling() >= float64(s.rules.SessionCap) {
		d = decision{action: track.EndSession, why: phrase.Of("why.session_cap", phrase.Args{"n": s.rules.SessionCap})}
	} else if s.blockMinutes() < float64(s.rules.BlockCap) {
		return decision{}, false
	}
	if s.col.open && !s.tryReleased() {
		if !s.openIsOver() {
			return decision{}, false // reminded of, until the next try is released
		}
		return decision{action: track.EndSession, why: phrase.Of("why.open_over", phrase.Args{"n": s.openMinutes() + openMore})}, true
	}
	if s.good() || len(s.reps) == 0 || s.bad != nil && s.bad.onEasy {
		return d, true // good, or even the easy one was dangerous
	}
	from, _ := s.current()
	if d.easy = s.easyKnown(from); d.easy == nil {
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

// tryReleased reports whether the last answer was a try or better that was let
// go of, whatever was marked after it.
func (s *session) tryReleased() bool {
	r := s.lastRep()
	return r != nil && r.answer.Rank() >= horse.Try.Rank() && r.Release != horse.NotReleased
}
