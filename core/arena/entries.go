package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func (s *session) remember(m track.Memory) {
	s.turn(m.Ask)
	s.lastIsRep = false
	s.fromMemory[m.Ask] = m.Last
}

type pads struct{}

func (pads) Words() []string {
	return []string{"answers", "tries", "dose", "offer", "places", "burst", "review"}
}

// Pad is what an ask is answered by: the keys of answers, or those of its school.
type Pad = horse.Word[pads]

// PadOf is the pad of a step in a school; places tells whether there are places to
// work and rest in.
func PadOf(step catalog.Step, school horse.School, places bool) Pad {
	switch {
	case step.Is(catalog.AReview):
		return horse.MustWord[pads]("review")
	case places:
		return horse.MustWord[pads]("places")
	case school == horse.WaitItOut:
		return horse.MustWord[pads]("tries")
	case school == horse.Doses:
		return horse.MustWord[pads]("dose")
	case school == horse.AskAndListen:
		return horse.MustWord[pads]("offer")
	}
	return horse.MustWord[pads]("answers")
}

// A PlaceToBe is a place of a ladder's plan, and what it is mostly meant for:
// rest where the horse is wanted, work elsewhere.
type PlaceToBe struct {
	Place track.SpellPlace `json:"place"`
	Rest  bool             `json:"rest"`
}

// PlacesOf lists the places in which a ladder is worked by spells: those round
// a trailer, or between home and away.
func PlacesOf(c *catalog.Catalog, l catalog.Ladder) []PlaceToBe {
	all := track.SpellPlace{}.All()
	words := []track.SpellPlace{track.NearHome, track.ByTheOther, track.Away}
	if slices.ContainsFunc(l.Steps, func(s catalog.Step) bool { return s.Trailer }) {
		words = all[:track.InIt.Rank()]
	}
	places := make([]PlaceToBe, len(words))
	for i, p := range words {
		places[i] = PlaceToBe{Place: p, Rest: !track.Spell{Ask: horse.Ask{Step: l.Steps[0].Key}, Place: p}.WrongPlace(c)}
	}
	return places
}
