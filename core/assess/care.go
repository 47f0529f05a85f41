package assess

import (
	"fmt"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// SessionRisk is the grade that the points gave on a session's day, and
// whether the session had an event.
type SessionRisk struct {
	Care  horse.Care
	Event bool
}

// Follow carries the grade over the sessions: it rises at once, falls one
// grade at a time, only after 3 sessions without an event, and never below
// what the points say now.
func Follow(first horse.Care, sessions []SessionRisk, now horse.Care) horse.Care {
	care, quiet := first, 0
	for _, s := range sessions {
		if s.Event {
			quiet = 0
		} else {
			quiet++
		}
		switch {
		case s.Care.Rank() >= care.Rank():
			care = s.Care
		case quiet >= 3:
			care, quiet = care.All()[care.Rank()-2], 0
		}
	}
	return max2(care, now)
}

// Precautions lists what a grade of care brings: its own and those of the
// grades below it (part 9). mounted tells whether anybody may get on.
func Precautions(care horse.Care, mounted bool) []phrase.Message {
	counts := map[horse.Care]int{horse.OrdinaryCare: 6, horse.ExtraCare: 3, horse.HighCare: 5, horse.SpecialistOnly: 3}
	var all []phrase.Message
	for _, c := range care.All() {
		if c.Rank() > care.Rank() {
			break
		}
		for i := range counts[c] {
			key := fmt.Sprintf("care.%d.%d", c.Rank(), i+1)
			if key == helmet && !mounted {
				key += ".ground"
			}
			all = append(all, phrase.Of(key, nil))
		}
	}
	slices.Reverse(all)
	return all
}

// helmet is the precaution that speaks of getting on.
const helmet = "care.1.5"
