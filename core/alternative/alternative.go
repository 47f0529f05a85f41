// Package alternative puts the ways to a case's goal side by side: the ladders
// that serve its problem, and the chosen one with a standing disagreement decided
// otherwise (parts 4 and 7).
package alternative

import (
	"maps"
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/outlook"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// A Way is another way to the case's goal, beside the chosen one.
type Way struct {
	Ladder  string            `json:"ladder" doc:"key of the ladder"`
	Name    phrase.Slotted    `json:"name" doc:"name of the ladder"`
	Setting map[string]string `json:"setting,omitempty" doc:"the standing disagreement decided otherwise"`
	Says    phrase.Slotted    `json:"says,omitempty" doc:"what it is made for"`
	School  horse.School      `json:"school" doc:"the way of working on it"`
	Left    int               `json:"left" doc:"steps to go"`
	Median  int               `json:"median" doc:"expected sessions"`
	Ridden  int               `json:"ridden" doc:"ridden steps among them"`
	Barred  int               `json:"barred" doc:"blocked steps among them"`
	Points  int               `json:"points" doc:"risk points that the place itself adds"`
	Missing []string          `json:"missing" doc:"foundations that it needs and that are not met"`
	Helpers []phrase.Slotted  `json:"helpers" doc:"second persons it needs, and what they do"`
	Chosen  bool              `json:"chosen" doc:"the plan works it"`
	Suits   []string          `json:"suits,omitempty" doc:"ways out at baseline that it is made for"`

	steps []string // to go, in their order
}

// Of lists them; the case's own way is among them and marked as chosen.
func Of(shipped *catalog.Catalog, f outlook.Facts) []Way {
	list := []Way{}
	for _, l := range shipped.LaddersFor(f.Problem) {
		chosen := l.Key == f.Ladder
		mine := by(shipped, f, l, nil, "", chosen)
		list = append(list, mine)
		if !chosen {
			continue
		}
		for _, choice := range shipped.Methods.Choices {
			if !slices.Contains(choice.Ladders, l.Key) {
				continue
			}
			now := f.Choices.Setting(choice)
			for _, o := range choice.Options {
				if o.Key == now.Key || len(o.Moves) == 0 && len(now.Moves) == 0 {
					continue // what moves no step is no other way
				}
				if other := by(shipped, f, l, map[string]string{choice.Key: o.Key}, o.Says, false); other.differs(mine) {
					list = append(list, other)
				}
			}
		}
	}
	return list
}

// differs reports whether a way comes to anything else than the chosen one; one that
// does not is none to weigh.
func (a Way) differs(mine Way) bool {
	return a.School != mine.School || !slices.Equal(a.steps, mine.steps) || a.Median != mine.Median || a.Ridden != mine.Ridden || a.Barred != mine.Barred ||
		a.Points != mine.Points || !slices.Equal(a.Missing, mine.Missing) || !slices.Equal(a.Helpers, mine.Helpers)
}

func by(shipped *catalog.Catalog, f outlook.Facts, l catalog.Ladder, setting map[string]string, says phrase.Slotted, chosen bool) Way {
	a := Way{Ladder: l.Key, Name: l.Name, Setting: setting, Says: says, Chosen: chosen, Missing: []string{}, Helpers: []phrase.Slotted{}}
	fitted, p, ok := planBy(shipped, f, l, setting)
	if !ok {
		return a
	}
	if l.Narrow {
		a.Points = 1
	}
	for _, w := range p.Ways {
		if w.Ladder == l.Key {
			a.School = w.School
		}
	}
	a.Left, a.Median = p.Forecast[0].Remaining, p.Forecast[0].Median
	for _, i := range p.Items {
		a.steps = append(a.steps, i.Step)
		if !i.Met && !i.Seen {
			a.count(fitted, i)
		}
	}
	for _, w := range f.Judged.Account().Baseline.WaysOut {
		if slices.Contains(l.Suits, w) {
			a.Suits = append(a.Suits, w.String())
		}
	}
	return a
}

// planBy is the plan for the case's problem alone, by a ladder, with a standing
// disagreement decided otherwise.
func planBy(shipped *catalog.Catalog, f outlook.Facts, l catalog.Ladder, setting map[string]string) (*catalog.Catalog, plan.Plan, bool) {
	mine := l.Key == f.Ladder
	f.Ladder = l.Key
	settings := maps.Clone(f.Choices.Settings)
	if settings == nil {
		settings = map[string]string{}
	}
	maps.Copy(settings, setting)
	f.Choices.Settings = settings
	fitting := judging.Fitting(shipped, f.Facts, f.Judged.Assessment)
	fitting.Afraid = f.Judged.Fitting.Afraid
	fitted, err := shipped.Fit(fitting)
	if err != nil {
		return nil, plan.Plan{}, false
	}
	goal := plan.Goal{Problem: f.Problem, Ladder: l.Key, By: f.NeededBy}
	for _, g := range outlook.Goals(shipped, f.Facts, f.Judged) {
		if g.Problem != f.Problem {
			continue
		}
		goal.Start, goal.Reached = g.Start, g.Reached
		if mine {
			goal.Until = g.Until
		}
		if mine || slices.Contains(l.Schools, g.School.School) {
			goal.School = g.School
		}
	}
	blocks := assess.AllBlocks(fitted, f.Judged.Assessment, f.Record, f.Judged.Barring)
	p, ok := plan.Build(fitted, outlook.For(fitted, f, []plan.Goal{goal}, blocks))
	return fitted, p, ok
}

// count takes in a step that is to go.
func (a *Way) count(c *catalog.Catalog, i plan.Item) {
	step, _ := c.Step(i.Step)
	ladder, _ := c.Ladder(i.Ladder)
	if i.Ridden {
		a.Ridden++
	}
	if i.Blocked != nil {
		a.Barred++
	}
	if ladder.Kind == catalog.Foundation {
		a.Missing = append(a.Missing, assess.NameOf(c, i.Step))
	}
	for _, h := range []phrase.Slotted{ladder.Helper, step.Helper} {
		if h != "" && !slices.Contains(a.Helpers, h) {
			a.Helpers = append(a.Helpers, h)
		}
	}
}
