package assess

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Filmable is a finding that a film may show (part 3).
type Filmable struct {
	Key     string         `json:"key" doc:"of the finding"`
	Says    phrase.Slotted `json:"says" doc:"the finding in words"`
	Section string         `json:"section" doc:"of the walk, where it belongs"`
	Path    string         `json:"path" doc:"its place in an assessment"`
}

// Looks that no film shows: what is told, felt with a hand, kept in the record, or compared
// over days.
var offFilm = []string{"A.began", "A.history", "A.with_whom", "B", "B.history", "E2", "G.days_off", "G.stable"}

// Findings that are counted from the tests, one by one.
var counted = []string{"basics_2_missing", "basics_4_missing", "all_basics_good", "one_side_worse"}

// OnFilm lists the findings that a film of a problem may show, in the order of the walk.
func OnFilm(j catalog.Judging, p horse.Problem) []Filmable {
	var list []Filmable
	for _, f := range j.Findings {
		if slices.Contains(offFilm, f.Look.String()) || slices.Contains(counted, f.Key) {
			continue
		}
		section, _, _ := strings.Cut(f.Look.String(), ".")
		base := ""
		if section == "A" || section == "E" {
			base = "problems/" + p.String() + "/"
		}
		list = append(list, Filmable{Key: f.Key, Says: f.Says, Section: section, Path: base + "findings/" + f.Key})
	}
	slices.SortStableFunc(list, func(a, b Filmable) int { return cmp.Compare(a.Section, b.Section) })
	return list
}

// mostInPerson is how many looks are asked for at a time.
const mostInPerson = 3

// inPerson lists what was seen on a film only and weighs most on a cause that is likely or
// possible, or would be were it seen: what to see in person first.
func inPerson(causes []Cause) []Evidence {
	list := []Evidence{}
	for _, c := range causes {
		if c.Belief != likely && c.Belief != possible && c.IfSeen != likely && c.IfSeen != possible {
			continue
		}
		for _, e := range slices.Concat(c.For, c.Against) {
			if e.Source != horse.OnVideo {
				continue
			}
			i := slices.IndexFunc(list, func(o Evidence) bool { return o.Finding == e.Finding })
			switch {
			case i < 0:
				list = append(list, e)
			case math.Abs(e.Weight) > math.Abs(list[i].Weight):
				list[i] = e
			}
		}
	}
	slices.SortStableFunc(list, func(a, b Evidence) int { return cmp.Compare(math.Abs(b.Weight), math.Abs(a.Weight)) })
	return list[:min(len(list), mostInPerson)]
}

// Ladders lists the ladders for these problems and those that they stand on, in the
// catalogue's order.
func Ladders(c *catalog.Catalog, problems ...horse.Problem) []catalog.Ladder {
	own := map[horse.Problem]catalog.Ladder{}
	for _, p := range problems {
		if l, ok := c.LadderFor(p); ok {
			own[p] = l
		}
	}
	reached := reach(c, own)
	return slices.DeleteFunc(slices.Clone(c.Ladders), func(l catalog.Ladder) bool { return !reached[l.Key] })
}
