package assess

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A FilmView is what an owner should film of a horse that is far away (part 3).
type FilmView struct {
	Key  string         `json:"key" doc:"a clip of it names it"`
	Says phrase.Message `json:"says" doc:"what to film, as a sentence"`
}

// Filming is what a film list is fitted to.
type Filming struct {
	Problems []horse.Problem
	Ridden   bool       // it is ridden, and may be
	Barred   bool       // something is not done with it until it is cleared
	Care     horse.Care // from high care on the owner does not handle it
}

// bare are the problems that show themselves in hand and without tack.
var bare = []string{"loading", "sour", "feet", "planting", "crowding", "new thing"}

// what is filmed besides, by problem.
var filmed = map[string][]string{
	"loading": {"vehicle"}, "bridling": {"bridle"}, "saddling": {"girth"}, "girth": {"girth"}, "feet": {"foot"}, "rushing": {"gait"}, "tracks": {"gait"},
}

// FilmList is what the owner should film, in this order: both sides and from behind at a
// walk, the gait that is quarrelled about, mounting, first contact and halt of one that is
// ridden, the problem itself, what belongs to it, the tack. Of a horse that its owner does
// not handle nothing is asked that would take handling; of one with which something is not
// done until it is cleared, nothing under tack.
func FilmList(in Filming) []FilmView {
	keys := []string{"near", "off", "behind"}
	if in.Care.Rank() >= horse.HighCare.Rank() {
		keys = []string{"loose", "outside"}
	} else {
		var more []string
		trouble := false
		for _, p := range in.Problems {
			if in.Barred && !slices.Contains(bare, p.String()) {
				continue
			}
			trouble = true
			more = append(more, filmed[p.String()]...)
		}
		if slices.Contains(more, "gait") {
			keys = append(keys, "gait")
		}
		if in.Ridden && !in.Barred {
			keys = append(keys, "mounting", "contact", "halt")
		}
		if trouble {
			keys = append(keys, "problem")
		}
		for _, key := range more {
			if !slices.Contains(keys, key) {
				keys = append(keys, key)
			}
		}
	}
	keys = append(keys, "tack")
	list := make([]FilmView, 0, len(keys))
	for _, key := range keys {
		list = append(list, FilmView{key, phrase.Of("film."+key, nil)})
	}
	return list
}
