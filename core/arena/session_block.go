package arena

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// block begins a new block on another ladder, or after an ask was ended; the
// easy known ask that finishes one belongs to it.
func (s *session) block(t told) {
	if s.finish != nil && t.Ask == s.finish.easy || s.settling(t.Ask) {
		return
	}
	s.finish = nil // something else was done
	s.blockOf(t.Ask, t.at-int64(t.Seconds*second))
}

func (s *session) blockOf(a horse.Ask, at int64) {
	step, _ := s.cat.Step(a.Step)
	ended := s.askEnded && (len(s.reps) == 0 || a != s.reps[len(s.reps)-1].Ask)
	if s.blockLadder != "" && s.blockLadder == step.Ladder && !ended {
		return
	}
	s.begins(step.Ladder, at)
	s.bigGiven = map[horse.Ask]bool{}
}

// note keeps what later decisions need of a decision that was just made.
func (s *session) note(d decision) {
	s.last = d
	switch wait := d.action == track.Wait || d.action == track.MakeSafe; {
	case wait && s.waitSince < 0:
		s.waitSince = s.now
	case !wait && s.overSince < 0:
		s.waitSince = none
	}
	switch {
	case d.action == track.EndSession && d.easy == nil && slices.Contains([]string{"1", "2", "3"}, d.rule):
		s.over = &d
	case d.action == track.EndAsk || d.action == track.ChangeAsk:
		s.askEnded = true
	default:
		s.askEnded = false
	}
	if d.easy != nil && s.finish == nil {
		end := d
		end.easy = nil
		s.finish = &finish{easy: *d.easy, since: len(s.reps), end: end}
	}
}

// tookDown counts a down that was taken; after the second from one ask the
// horse stays on the lower one for the session.
func (s *session) tookDown(d decision) {
	s.downs[d.from]++
	if s.downs[d.from] < 2 && !d.whole {
		return
	}
	if d.ask == d.from {
		s.stay[d.from] = true
		return
	}
	s.close(d.from.Step)
}

// repSeconds is the median time from rep to rep in this session; the house
// rule's while there are under 4 reps.
func (s *session) repSeconds() float64 {
	if len(s.reps) < 4 {
		return float64(s.rules.RepSeconds)
	}
	gaps := make([]float64, 0, len(s.reps))
	for i := 1; i < len(s.reps); i++ {
		gaps = append(gaps, float64(s.reps[i].at-s.reps[i-1].at)/second)
	}
	return horse.Median(gaps)
}
