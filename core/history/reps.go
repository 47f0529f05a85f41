package history

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Reps are answers in numbers. Medians are of the reps that have the number;
// Noted tells whether any had.
type Reps struct {
	N       int     `json:"n" doc:"reps that count"`
	Soft    int     `json:"soft" doc:"accepted or offered"`
	Good    int     `json:"good" doc:"successes, each in its school"`
	Level   float64 `json:"level" doc:"median peak level"`
	Noted   bool    `json:"noted" doc:"a level was noted"`
	Highest int     `json:"highest" doc:"highest level"`
	Arousal int     `json:"arousal" doc:"highest arousal"`
	OnTry   int     `json:"on_try" doc:"releases on the try, of all counted"`
}

// Count counts the reps that keep lets pass; nil lets all pass.
func Count(reps []arena.Told, keep func(arena.Told) bool) Reps {
	var r Reps
	var peaks []float64
	for _, b := range reps {
		if keep != nil && !keep(b) {
			continue
		}
		r.Arousal = max(r.Arousal, b.Calm)
		if !b.Counted {
			continue
		}
		r.N++
		if horse.Soft(b.Graded) {
			r.Soft++
		}
		if b.Good {
			r.Good++
		}
		if b.Release == horse.OnTheTry {
			r.OnTry++
		}
		if b.Peak.Noted() {
			peaks = append(peaks, float64(b.Peak.Int()))
			r.Highest = max(r.Highest, b.Peak.Int())
		}
	}
	r.Noted, r.Level = len(peaks) > 0, horse.Median(peaks)
	return r
}

// repSeconds is the median gap between the reps of a session that has four.
func repSeconds(reps []arena.Told) (float64, bool) {
	const least = 4
	if len(reps) < least {
		return 0, false
	}
	gaps := make([]float64, 0, len(reps))
	for i := 1; i < len(reps); i++ {
		gaps = append(gaps, float64(reps[i].At-reps[i-1].At)/1000) // ms; mutate: a unit
	}
	return horse.Median(gaps), true
}

// From which median level a horse is heavy, and at which it is light again (part
// 7), with four of five releases on the try.
const (
	heavyFrom = 5
	lightTo   = 4
)

// heavy tells whether a horse is heavy after a session.
func heavy(before bool, reps []arena.Told) bool {
	r := Count(reps, nil)
	switch {
	case !r.Noted:
		return before
	case r.Level >= heavyFrom:
		return true
	case r.Level <= lightTo && r.OnTry*5 >= r.N*4:
		return false
	}
	return before
}

// handsAfter adds a session's counted answers to those of each person and step;
// what lapsed with it begins anew, and is not counted again on that day.
func handsAfter(h, n History, reps []arena.Told, d track.Day) []Hand {
	list := slices.Clone(h.Hands)
	for _, t := range reps {
		person := t.Handler
		if person == "" {
			person = d.Handler
		}
		if !t.Counted {
			continue
		}
		i, there := slices.BinarySearchFunc(list, Hand{Person: person, Step: t.Step}, Hand.compare)
		if !there {
			list = slices.Insert(list, i, Hand{Person: person, Step: t.Step})
		}
		hand := &list[i]
		soft := horse.Soft(t.Graded)
		hand.Soft, hand.Refused = hand.Soft || soft, hand.Refused || t.Graded == horse.Refused
		if lapsed, _ := n.Lapsed(t.Step); lapsed >= d.Date {
			continue // what is seen on the day it lapsed counts no more
		}
		if hand.Run++; !soft {
			hand.Run = 0
		}
		hand.Best = max(hand.Best, hand.Run)
	}
	for i := range list {
		if lapsed, _ := n.Lapsed(list[i].Step); lapsed >= d.Date {
			list[i].Run, list[i].Best = 0, 0
		}
	}
	return list
}
