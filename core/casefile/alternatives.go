package casefile

import (
	"maps"
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// An Alternative is another way to the case's goal, beside the chosen one.
type Alternative struct {
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
}

// Alternatives lists the ladders that serve the case's problem, and the ways of
// the chosen one, side by side.
func (f *File) Alternatives() []Alternative {
	list := []Alternative{}
	for _, l := range f.shipped.LaddersFor(f.in.Problem) {
		chosen := l.Key == f.in.Ladder
		list = append(list, f.alternative(l, nil, "", chosen))
		if !chosen {
			continue
		}
		for _, choice := range f.shipped.Methods.Choices {
			if !slices.Contains(choice.Ladders, l.Key) {
				continue
			}
			for _, o := range choice.Options {
				if o.Key == f.in.Choices.Setting(choice).Key || len(o.Moves) == 0 && !f.moves(choice) {
					continue
				}
				list = append(list, f.alternative(l, map[string]string{choice.Key: o.Key}, o.Says, false))
			}
		}
	}
	return list
}

// moves reports whether the option chosen of a choice changes its ladder.
func (f *File) moves(c catalog.Choice) bool { return len(f.in.Choices.Setting(c).Moves) > 0 }

func (f *File) alternative(l catalog.Ladder, setting map[string]string, says phrase.Slotted, chosen bool) Alternative {
	a := Alternative{Ladder: l.Key, Name: l.Name, Setting: setting, Says: says, Chosen: chosen, Missing: []string{}, Helpers: []phrase.Slotted{}}
	fitted, p, ok := f.planBy(l, setting)
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
		if !i.Met && !i.Seen {
			a.count(fitted, i)
		}
	}
	for _, w := range f.Account().Baseline.WaysOut {
		if slices.Contains(l.Suits, w) {
			a.Suits = append(a.Suits, w.String())
		}
	}
	return a
}

// planBy is the plan for the case's problem alone, by a ladder, with a standing
// disagreement decided otherwise.
func (f *File) planBy(l catalog.Ladder, setting map[string]string) (*catalog.Catalog, plan.Plan, bool) {
	other := *f
	f = &other
	mine := l.Key == f.in.Ladder
	f.in.Ladder = l.Key
	settings := map[string]string{}
	maps.Copy(settings, f.in.Choices.Settings)
	maps.Copy(settings, setting)
	f.in.Choices.Settings = settings
	fitting := f.fitting()
	fitting.Afraid = !f.unafraid()
	fitted, err := f.shipped.Fit(fitting)
	if err != nil {
		return nil, plan.Plan{}, false
	}
	goal := plan.Goal{Problem: f.in.Problem, Ladder: l.Key, By: f.in.NeededBy}
	for _, g := range f.goals() {
		if g.Problem != f.in.Problem {
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
	f.Blocks = assess.AllBlocks(fitted, f.Assessment, f.in.Record, f.barring())
	p, ok := plan.Build(fitted, f.planInput([]plan.Goal{goal}))
	return fitted, p, ok
}

// count takes in a step that is to go.
func (a *Alternative) count(c *catalog.Catalog, i plan.Item) {
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
