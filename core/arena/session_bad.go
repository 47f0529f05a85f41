package arena

import (
	"slices"

	"ivorybridge/core/horse"
)

// pass notes that the pass mark is reached, at the highest level of the run.
func (s *session) pass(t told, log *askLog) {
	level := 0
	for _, r := range log.run[len(log.run)-t.step.Pass.Run:] {
		level = max(level, r.Peak.Int())
	}
	if old, ok := s.passed[t.Ask]; !ok || level < old {
		s.passed[t.Ask] = level
	}
}

// judge looks for danger and for arousal over the line (rules 2 and 3).
// over is the moment over the line that was not over before this entry.
func (s *session) judge(t told, log *askLog, over *bad) {
	if t.arousal < 3 {
		s.settled = 0
	}
	b := bad{fresh: true, since: t.at, from: t.Ask, target: t.Target}
	switch {
	case s.dangerous(t, log):
		b.danger = true
		b.onEasy = s.finishing >= 0 && t.Ask == s.finishEasy
		b.ridden = t.ridden()
		s.danger(b)
	case t.arousal == 3 && s.school == horse.ReliefPlace && over != nil && !over.danger && t.Ask != over.from:
		over.fresh = false // an easy ask, to settle it by its feet
		s.settled++
		s.bad = over
	case t.arousal == 3:
		s.overs++
		s.settled = 0
		b.fear = slices.ContainsFunc(t.Signs, horse.FearSign)
		s.fearSeen = b.fear
		seen := append(s.overAt[t.Ask], len(log.reps))
		s.overAt[t.Ask] = seen
		if k := len(seen); k > 1 && seen[k-1]-seen[k-2] < 4 {
			b.whole = true
		}
		s.bad = &b
	}
}

func (s *session) dangerous(t told, log *askLog) bool {
	if t.Arousal.Int() == 4 {
		return true
	}
	cleared := s.clearedRear(t.Rep)
	if !cleared && slices.ContainsFunc(t.WaysOut, horse.Dangerous) {
		return true
	}
	if cleared {
		tail := 0
		for i := len(log.run) - 1; i >= 0 && s.clearedRear(log.run[i].Rep); i-- {
			tail++
		}
		return tail >= 3
	}
	var kicks []int
	for _, r := range log.reps {
		if r.Kicks != nil {
			kicks = append(kicks, *r.Kicks)
		}
	}
	k := len(kicks)
	return t.Kicks != nil && t.counted && k >= 3 && kicks[k-1] > kicks[k-2] && kicks[k-2] > kicks[k-3]
}

func (s *session) danger(b bad) {
	s.dangers++
	s.incidentWanted = true
	s.afoot = s.afoot || b.ridden
	s.bad = &b
	if b.from.IsZero() {
		return
	}
	if b.onEasy {
		s.spoiltEasy[b.from] = true
		return
	}
	s.close(b.from.Step)
}

// mark takes in a mark.
func (s *session) mark(m Mark) {
	if s.bad != nil {
		s.bad.fresh = false
	}
	s.lastIsRep = false
	s.easyMinutes += m.EasyMinutes
	s.blockEasy += m.EasyMinutes
	if m.Halter {
		s.halterAt, s.violent = s.now, false
	}
	if m.Turn != "" {
		s.handler = m.Turn
	}
	if m.Incident {
		s.incidentWanted = false
	}
	if !m.Stop.IsZero() {
		s.stops = append(s.stops, m.Stop)
	}
	if m.Ask != nil {
		a := *m.Ask
		s.asked = &a
		s.turn(a)
		if s.arousal <= 1 {
			s.bad = nil // it is back, and the trainer has chosen
		}
		s.blockOf(a, s.now)
	}
	s.look(m.WaysOut, s.now)
	s.markArousal(m)
}

func (s *session) markArousal(m Mark) {
	level := s.arousal
	if m.Arousal.Noted() {
		level = m.Arousal.Int()
	}
	from, target := s.current()
	dangerous := slices.ContainsFunc(m.WaysOut, horse.Dangerous)
	sameEvent := s.bad != nil && s.bad.danger
	switch {
	case dangerous || m.Arousal.Noted() && level == 4 && !sameEvent:
		since := s.now
		if s.bad != nil && s.arousal >= 3 {
			since = s.bad.since
		}
		r := s.lastRep()
		s.danger(bad{danger: true, fresh: true, since: since, from: from, target: target, ridden: r != nil && r.ridden()})
	case m.Arousal.Noted() && level == 3 && s.bad == nil:
		s.overs++
		s.fearSeen = slices.ContainsFunc(m.Signs, horse.FearSign)
		s.bad = &bad{fresh: true, since: s.now, from: from, target: target, fear: s.fearSeen}
	case s.bad != nil && slices.ContainsFunc(m.Signs, horse.FearSign):
		s.bad.fear, s.fearSeen = true, true
	}
	s.arousal = level
}

func (s *session) look(ways []horse.WayOut, at int64) {
	if slices.ContainsFunc(ways, horse.Violent) && at >= s.halterAt {
		s.violent = true
	}
}

// current is the ask at work and its value.
func (s *session) current() (horse.Ask, int) {
	if s.asked != nil {
		step, _ := s.cat.Step(s.asked.Step)
		return *s.asked, s.startFor(*s.asked, step)
	}
	if n := len(s.reps); n > 0 {
		return s.reps[n-1].Ask, s.reps[n-1].Target
	}
	step, _ := s.cat.Step(s.in.Ask.Step)
	return s.in.Ask, s.startFor(s.in.Ask, step)
}
