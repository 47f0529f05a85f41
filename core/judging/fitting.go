package judging

import (
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Fitting is what fits the catalogue to a horse and its plan, but for its fear,
// which only the judged assessment tells.
func Fitting(shipped *catalog.Catalog, f Facts, a assess.Assessment) catalog.Fitting {
	fit := catalog.Fitting{Settings: f.Choices.Settings, Ladders: []string{f.Ladder}, Own: f.Own, Asks: f.History.Own}
	if f.Record.NotYetRidden() {
		fit.Past = catalog.NotYetRidden
	}
	for p := range a.Problems {
		if l, ok := f.LadderOf(shipped, p); ok && !f.Choices.Goals[p].Later {
			fit.Ladders = append(fit.Ladders, l.Key)
		}
	}
	for _, ask := range assess.First(shipped, a) {
		if step, ok := shipped.Step(ask.Step); ok {
			fit.Ladders = append(fit.Ladders, step.Ladder) // a horse that can't be haltered: that first
		}
	}
	return fit
}

// LadderOf is the ladder that a problem is mended by, as chosen.
func (f Facts) LadderOf(c *catalog.Catalog, p horse.Problem) (catalog.Ladder, bool) {
	if p == f.Problem {
		return c.Ladder(f.Ladder)
	}
	if chosen := f.Choices.Goals[p].Ladder; chosen != "" {
		return c.Ladder(chosen)
	}
	return c.LadderFor(p)
}

// ladders are the ladders chosen, by problem.
func (f Facts) ladders() map[horse.Problem]string {
	chosen := map[horse.Problem]string{f.Problem: f.Ladder}
	for p, w := range f.Choices.Goals {
		if w.Ladder != "" {
			chosen[p] = w.Ladder
		}
	}
	return chosen
}
