package arena

import (
	"ivorybridge/core/track"
	"slices"

	"ivorybridge/core/horse"
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
	if s.blockLadder != "" {
		s.blockStart, s.blockEasy = max(at, s.blockStart), 0
	}
	s.blockLadder, s.askEnded, s.finish = step.Ladder, false, nil
	s.bigGiven = map[horse.Ask]bool{}
}

// note keeps what later decisions need of a decision that was just made.
func (s *session) note(d decision) {
	s.last = d
	switch wait := d.action == track.Wait || d.action == track.MakeSafe; {
	case wait && s.waitSince < 0:
		s.waitSince = s.now
	case !wait && s.overSince < 0:
		s.waitSince = -1
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

// Units of the clock.
const (
	second = 1000   // ms; mutate: a unit
	minute = 60_000 // ms; mutate: a unit
)

func (s *session) schooling() float64 {
	return float64(s.now-s.in.Started)/minute - float64(s.easyMinutes)
}

func (s *session) blockMinutes() float64 {
	return float64(s.now-s.blockStart)/minute - float64(s.blockEasy)
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
