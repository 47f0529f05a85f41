package history

import (
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

type surroundingKinds struct{}

func (surroundingKinds) Words() []string { return []string{"tack", "place", "company", "distraction"} }

// Surrounding is a kind of thing under which an ask can be answered otherwise
// (part 8, spread).
type Surrounding = horse.Word[surroundingKinds]

// The kinds of it.
var (
	InTack     = horse.MustWord[surroundingKinds]("tack")
	InPlace    = horse.MustWord[surroundingKinds]("place")
	InCompany  = horse.MustWord[surroundingKinds]("company")
	Distracted = horse.MustWord[surroundingKinds]("distraction")
)

// surroundings tells of each entry what was last written down of each kind before
// it; of what was not written down there is nothing.
func surroundings(live []track.Entry) map[string][]Under {
	var now []Under
	by := make(map[string][]Under, len(live))
	for _, e := range live {
		if e.Mark != nil {
			for _, u := range []Under{{What: InTack, Which: e.Mark.Tack}, {What: InPlace, Which: e.Mark.Place}, {What: InCompany, Which: e.Mark.Company}, {What: Distracted, Which: e.Mark.Distraction}} {
				if u.Which != "" {
					now = instead(now, u)
				}
			}
		}
		if len(now) > 0 {
			by[e.ID] = now
		}
	}
	return by
}

// instead puts one in the place of the other of its kind.
func instead(list []Under, u Under) []Under {
	next := make([]Under, 0, len(list)+1)
	for _, had := range list {
		if had.What != u.What {
			next = append(next, had)
		}
	}
	return append(next, u)
}
