// Package outlook gathers what a plan is built from (part 7): the goals of a
// case, what speaks for and against the schools, and how the work went so far.
package outlook

import (
	"maps"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/plan"
)

// Facts are what the outlook is read from.
type Facts struct {
	judging.Facts
	Judged    *judging.Judged
	Known     []arena.Known
	OwnerMay  bool // an owner is cleared for homework, or can be
	Visits    int  // how many to lay out; 0: 6
	Practices int  // at home, so far
}

// visits are laid out where nobody says how many.
const visits = 6

// Of is what the plan of a case is built from, but for who is cleared.
func Of(shipped *catalog.Catalog, f Facts) plan.Input {
	return For(f.Judged.Catalog, f, Goals(shipped, f.Facts, f.Judged), f.Judged.Blocks)
}

// For is the same for other goals, by a catalogue fitted to them and with its
// blocks.
func For(fitted *catalog.Catalog, f Facts, goals []plan.Goal, blocks []assess.Block) plan.Input {
	in := plan.Input{
		Today: f.Today, Goals: goals, Known: f.Known, Blocks: blocks, RepSeconds: f.History.RepSeconds,
		Young: f.Record.Young(f.Today), Visits: f.Visits, Choices: f.Choices, Facts: f.schools(), Work: f.work(),
	}
	if in.Visits == 0 {
		in.Visits = visits
	}
	for _, a := range assess.First(fitted, f.Judged.Assessment) {
		if _, ok := fitted.Step(a.Step); !ok {
			continue // a practice's own ladder need not have it
		}
		if a.Variant.IsZero() {
			in.First = append(in.First, a.Step)
		} else {
			in.Mounting = append(in.Mounting, a.Step)
		}
	}
	return in
}

// Goals are the problems that the plan mends: the case's, and the others that
// the assessment took on, but for those left for later.
func Goals(c *catalog.Catalog, f judging.Facts, j *judging.Judged) []plan.Goal {
	var goals []plan.Goal
	for _, p := range slices.SortedFunc(maps.Keys(j.Assessment.Problems), func(a, b horse.Problem) int { return a.Rank() - b.Rank() }) {
		wanted := f.Choices.Goals[p]
		ladder, ok := f.LadderOf(c, p)
		if !ok || wanted.Later && p != f.Problem {
			continue
		}
		account := j.Assessment.Problems[p]
		g := plan.Goal{
			Problem: p, Ladder: ladder.Key, Until: wanted.Until, Ridden: wanted.Ridden, By: account.Story.NeededBy, Danger: danger(account, ladder),
			Reached: account.Baseline.WaysOut, Last: account.Baseline.Reached, Source: j.Assessment.SourceIn("E"),
		}
		for _, r := range j.Result.Problems {
			if r.Problem == p && j.Assessed != "" {
				g.School = r.School
				if r.Start != nil {
					g.Start, g.Chosen = r.Start.Key, r.Computed != nil
				}
			}
		}
		if p == f.Problem {
			g.By = f.NeededBy
			if f.Choices.By > g.By && g.By != "" {
				g.By = f.Choices.By
			}
		}
		goals = append(goals, g)
	}
	return goals
}

// danger is how dangerous a problem is: what its baseline showed, and at least
// what its ladder says.
func danger(a assess.Account, l catalog.Ladder) int {
	n := l.Care.Rank()
	for _, w := range a.Baseline.WaysOut {
		if horse.Dangerous(w) {
			n += 2
		}
	}
	return n
}

// schools gathers what speaks for and against the schools.
func (f Facts) schools() plan.Facts {
	j, account := f.Judged, f.Judged.Account()
	facts := plan.Facts{
		Against: j.Problem().Against, FearUnlikely: j.Unafraid(),
		DoneBefore: account.Story.Successes != nil && *account.Story.Successes > 0,
		Alone:      account.Story.WhoAlone,
		NoBacking:  assess.NoBacking(j.Assessment),
		Spiral:     f.Record.Gaited || j.Assessment.BodyOf(horse.Balance) == horse.Suspect || j.Assessment.BodyOf(horse.Balance) == horse.InTreatment,
		OwnerMay:   f.OwnerMay,
		InHand:     j.Result.InHand,
	}
	facts.FearLikely = j.MayBeAfraid()
	if f.NeededBy != "" {
		facts.DaysToDate, _ = horse.DaysBetween(f.Today, f.NeededBy)
	}
	if hung := f.Record.BitHung; !hung.IsZero() {
		facts.Kit = append(facts.Kit, plan.Extra{Item: "bit hung with " + hung.String(), With: "bridle"})
	}
	switch f.Record.Food.String() {
	case "yes":
		facts.Kit = append(facts.Kit, plan.Extra{Item: "treats"})
	case "only after standing":
		facts.Kit = append(facts.Kit, plan.Extra{Item: "treats, only after standing"})
	}
	return facts
}

// work is how it went so far: steps met, those met again counted again, slips,
// and sessions.
func (f Facts) work() plan.Work {
	w := plan.Work{Sessions: f.History.Sessions(), Since: f.Judged.Account().Story.Since, CanClear: f.OwnerMay, Practised: f.Practices}
	for _, s := range f.History.Steps {
		if step, ok := f.Judged.Catalog.Step(s.Step); ok {
			w.Met, w.Slips = w.Met+s.Met, w.Slips+s.Lost
			w.Earned += float64(s.Met) * plan.UnitsOf(f.Judged.Catalog, step)
		}
	}
	return w
}
