package history

import (
	"math"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// UsualTack is what a session's tack is called before another is written down.
const UsualTack = "usual tack"

// Swapped are the goes of a session at the one ask that was given to most pairs of person
// and tack, as rows for a swap (part 3, E2): a go lasts until the person or the tack is
// another. names are those of who may hold the rope, by id. No rows where nobody and nothing
// was changed at any ask.
func Swapped(c *catalog.Catalog, d track.Day, names map[string]string) (horse.Ask, []assess.SwapRow) {
	out := arena.ReadDay(c, d, nil, nil)
	tack := surroundings(out.Live)
	goes := map[horse.Ask][]swapGo{}
	var asks []horse.Ask
	for _, r := range out.Reps {
		if !r.Counted || !r.Peak.Noted() {
			continue
		}
		if goes[r.Ask] == nil {
			asks = append(asks, r.Ask)
		}
		goes[r.Ask] = goneOn(goes[r.Ask], pair{r.Handler, tackOf(tack[r.ID])}, r)
	}
	var best horse.Ask
	most := 1
	for _, a := range asks {
		if n := pairs(goes[a]); n > most {
			best, most = a, n
		}
	}
	var rows []assess.SwapRow
	for _, g := range goes[best] {
		rows = append(rows, g.row(names))
	}
	return best, rows[:min(len(rows), assess.MostSwapRows)]
}

type pair struct{ handler, tack string }

type swapGo struct {
	pair
	levels []float64
	grades []horse.Answer
}

func goneOn(list []swapGo, p pair, r arena.Told) []swapGo {
	if n := len(list); n == 0 || list[n-1].pair != p {
		list = append(list, swapGo{pair: p})
	}
	g := &list[len(list)-1]
	g.levels, g.grades = append(g.levels, float64(r.Peak.Int())), append(g.grades, r.Graded)
	return list
}

func tackOf(around []Under) string {
	for _, u := range around {
		if u.What == InTack {
			return u.Which
		}
	}
	return UsualTack
}

func pairs(list []swapGo) int {
	seen := map[pair]bool{}
	for _, g := range list {
		seen[g.pair] = true
	}
	return len(seen)
}

// row is the go in one line: the middle level, and the middle answer, the poorer of two.
func (g swapGo) row(names map[string]string) assess.SwapRow {
	slices.SortFunc(g.grades, func(a, b horse.Answer) int { return a.Rank() - b.Rank() })
	row := assess.SwapRow{Person: g.handler, Tack: g.tack}
	if name := names[g.handler]; name != "" {
		row.Person = name
	}
	row.Level = horse.LevelOf(int(math.Round(horse.Median(g.levels))))
	row.Grade = g.grades[(len(g.grades)-1)/2]
	return row
}
