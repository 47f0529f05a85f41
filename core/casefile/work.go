package casefile

import (
	"maps"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// fitting is what fits the catalogue to this horse and its plan.
func (f *File) fitting() catalog.Fitting {
	fit := catalog.Fitting{Settings: f.in.Choices.Settings, Ladders: []string{f.in.Ladder}}
	if n := len(f.in.Used); n > 0 {
		fit.Own = f.in.Used[n-1].Ladders
	}
	if f.in.Record.NotYetRidden() {
		fit.Past = catalog.NotYetRidden
	}
	for p := range f.Assessment.Problems {
		if l, ok := f.ladderOf(p); ok && !f.in.Choices.Goals[p].Later {
			fit.Ladders = append(fit.Ladders, l.Key)
		}
	}
	for _, a := range assess.First(f.shipped, f.Assessment) {
		if step, ok := f.shipped.Step(a.Step); ok {
			fit.Ladders = append(fit.Ladders, step.Ladder) // a horse that can't be haltered: that first
		}
	}
	return fit
}

// ladderOf is the ladder that a problem is mended by, as chosen.
func (f *File) ladderOf(p horse.Problem) (catalog.Ladder, bool) {
	if p == f.in.Problem {
		return f.shipped.Ladder(f.in.Ladder)
	}
	if chosen := f.in.Choices.Goals[p].Ladder; chosen != "" {
		return f.shipped.Ladder(chosen)
	}
	return f.shipped.LadderFor(p)
}

// ladders are the ladders chosen, by problem.
func (f *File) ladders() map[horse.Problem]string {
	chosen := map[horse.Problem]string{f.in.Problem: f.in.Ladder}
	for p, w := range f.in.Choices.Goals {
		if w.Ladder != "" {
			chosen[p] = w.Ladder
		}
	}
	return chosen
}

// unafraid reports whether fear was looked at and is unlikely.
func (f *File) unafraid() bool {
	for _, c := range f.Problem().Causes {
		if c.Cause == horse.Fear {
			return c.Belief.String() == "unlikely" && c.Bound == nil
		}
	}
	return false
}

// excepted reports whether a lead trainer's exception for a young horse holds:
// not ended, the body cleared, and the two controls met in hand (part 9).
func (f *File) excepted() bool {
	x := f.in.Choices.Exception
	if x == nil || x.Until < f.in.Today {
		return false
	}
	controls := f.cat.With(catalog.ControlInHand)
	if len(controls) == 0 {
		return false
	}
	for _, step := range controls {
		if slices.ContainsFunc(step.Asks(), func(a horse.Ask) bool {
			return !slices.ContainsFunc(f.in.History.Asks, func(k history.Ask) bool { return k.Ask == a && k.Passed() })
		}) {
			return false
		}
	}
	return true
}

// fresh puts steps back to tried.
func fresh(known []arena.Known, steps []string) []arena.Known {
	known = slices.Clone(known)
	for i, k := range known {
		if slices.Contains(steps, k.Step) {
			known[i] = arena.Known{Ask: k.Ask, State: horse.Tried, Last: k.Last, Understood: k.Understood}
		}
	}
	return known
}

// goals are the problems that the plan mends: the case's, and the others that
// the assessment took on, but for those left for later.
func (f *File) goals() []plan.Goal {
	var goals []plan.Goal
	for _, p := range slices.SortedFunc(maps.Keys(f.Assessment.Problems), func(a, b horse.Problem) int { return a.Rank() - b.Rank() }) {
		wanted := f.in.Choices.Goals[p]
		ladder, ok := f.ladderOf(p)
		if !ok || wanted.Later && p != f.in.Problem {
			continue
		}
		account := f.Assessment.Problems[p]
		g := plan.Goal{Problem: p, Ladder: ladder.Key, Until: wanted.Until, By: account.Story.NeededBy, Danger: danger(account, ladder), Reached: account.Baseline.WaysOut, Last: account.Baseline.Reached, Source: f.Assessment.SourceIn("E")}
		for _, r := range f.Result.Problems {
			if r.Problem == p && f.Assessed != "" {
				g.School = r.School
				if r.Start != nil {
					g.Start = r.Start.Key
				}
			}
		}
		if p == f.in.Problem {
			g.By = f.in.NeededBy
			if f.in.Choices.By > g.By && g.By != "" {
				g.By = f.in.Choices.By
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

// planInput is what the plan for some goals is built from.
func (f *File) planInput(goals []plan.Goal) plan.Input {
	visits := f.in.Visits
	if visits == 0 {
		visits = 3
	}
	var first, mounting []string
	for _, a := range assess.First(f.shipped, f.Assessment) {
		if _, ok := f.cat.Step(a.Step); !ok {
			continue
		}
		if a.Variant.IsZero() {
			first = append(first, a.Step)
		} else {
			mounting = append(mounting, a.Step)
		}
	}
	return plan.Input{
		Today: f.in.Today, Goals: goals, First: first, Mounting: mounting, Known: f.Known, Blocks: f.Blocks, RepSeconds: f.in.History.RepSeconds,
		Young: f.in.Record.Young(f.in.Today), Visits: visits, Choices: f.in.Choices, Facts: f.facts(), Work: f.work(),
	}
}

// facts gathers what speaks for and against the schools.
func (f *File) facts() plan.Facts {
	account := f.Account()
	facts := plan.Facts{
		Against: f.Problem().Against, FearUnlikely: f.unafraid(),
		DoneBefore: account.Story.Successes != nil && *account.Story.Successes > 0,
		Alone:      account.Story.WhoAlone,
		NoBacking:  assess.NoBacking(f.Assessment),
		Spiral:     f.in.Record.Gaited || f.Assessment.BodyOf(horse.Balance) == horse.Suspect || f.Assessment.BodyOf(horse.Balance) == horse.InTreatment,
		OwnerMay:   f.canClear(),
		InHand:     f.Result.InHand,
	}
	facts.FearLikely = f.mayBeAfraid()
	if f.in.NeededBy != "" {
		facts.DaysToDate, _ = horse.DaysBetween(f.in.Today, f.in.NeededBy)
	}
	if hung := f.in.Record.BitHung; !hung.IsZero() {
		facts.Kit = append(facts.Kit, plan.Extra{Item: "bit hung with " + hung.String(), With: "bridle"})
	}
	switch f.in.Record.Food.String() {
	case "yes":
		facts.Kit = append(facts.Kit, plan.Extra{Item: "treats"})
	case "only after standing":
		facts.Kit = append(facts.Kit, plan.Extra{Item: "treats, only after standing"})
	}
	return facts
}

// work is how it went so far: steps met, those met again counted again, slips,
// and sessions.
func (f *File) work() plan.Work {
	w := plan.Work{Sessions: f.in.History.Sessions(), Since: f.Account().Story.Since, CanClear: f.canClear()}
	for _, s := range f.in.History.Steps {
		if _, ok := f.cat.Step(s.Step); ok {
			w.Met, w.Slips = w.Met+s.Met, w.Slips+s.Lost
		}
	}
	return w
}

// canClear reports whether an owner is cleared for homework, or can be.
func (f *File) canClear() bool {
	return len(f.in.Owners) > 0 && len(f.clearing().Held()) == 0
}

// NobodyCleared says why no owner is cleared at all, if so.
func (f *File) NobodyCleared() []phrase.Message { return f.clearing().Held() }

// clearing is what clearance is judged from.
func (f *File) clearing() clearance.Input {
	in := clearance.Input{
		Persons: f.in.Owners, History: f.in.History, Rehearsals: f.in.Rehearsals,
		Points: f.Risk.Points, Waits: !f.OwnerHandles(),
	}
	for _, c := range f.Problem().Causes {
		in.Dulled = in.Dulled || c.Cause == horse.Dulled && c.Belief.String() == "likely"
	}
	return in
}

// clearances tells how far the owners are with the steps that the horse has
// met, and with those that they have rehearsed.
func (f *File) clearances() []clearance.State {
	in := f.clearing()
	for _, l := range f.cat.Ladders {
		for _, s := range l.Steps {
			rehearsed := slices.ContainsFunc(f.in.Rehearsals, func(r clearance.Rehearsal) bool { return r.Step == s.Key })
			if s.Link == "" && (f.met(s) || rehearsed) {
				in.Steps = append(in.Steps, s.Key)
			}
		}
	}
	return clearance.Of(in)
}
