package history

import (
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// A Thing is one that the horse has met, with day and how it went (part 5, "A new
// thing"): from about the tenth to the twentieth a horse begins to trust the next.
type Thing struct {
	Name  string       `json:"name"`
	First string       `json:"first" format:"date" doc:"day on which it met it"`
	Last  string       `json:"last" format:"date" doc:"newest day with it"`
	Asks  int          `json:"asks" doc:"answers logged with it"`
	How   horse.Answer `json:"how" doc:"the newest answer"`
}

// Is reports whether a name names the thing, however it is written.
func (t Thing) Is(name string) bool {
	return strings.EqualFold(strings.TrimSpace(t.Name), strings.TrimSpace(name))
}

// thingsAfter adds what was met in a session.
func thingsAfter(c *catalog.Catalog, had []Thing, day string, live []track.Entry) []Thing {
	things := slices.Clone(had)
	for _, e := range live {
		rep, answered := e.AsRep(c)
		name := strings.TrimSpace(rep.Thing)
		if !answered || name == "" {
			continue
		}
		i := slices.IndexFunc(things, func(t Thing) bool { return t.Is(name) })
		if i < 0 {
			i, things = len(things), append(things, Thing{Name: name, First: day})
		}
		things[i].Last, things[i].How = day, rep.Answer
		things[i].Asks++
	}
	return things
}
