// Package briefing writes the sheet that a session starts from: all that the
// arena needs to know of a case, so that it advises without asking again (parts
// 6 and 9).
package briefing

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/plan"
)

// Facts are what goes on the sheet. The history must be that before the session.
type Facts struct {
	Judged  *judging.Judged
	Record  assess.Record
	Today   string
	Problem horse.Problem
	Ladder  string
	Thing   string // that a case of a new thing is about
	History history.History
	Known   []arena.Known
	Plan    plan.Plan
	Cycle   arena.Cycle
	Owners  []string // names under which owners hold the rope
	Cleared []clearance.State
}

// Of writes it.
func Of(f Facts) arena.Brief {
	j := f.Judged
	b := arena.Brief{
		Fitting: j.Fitting, Ladder: f.Ladder, Thing: f.Thing, Met: met(f), Next: f.Plan.Next, Bars: bars(j.Catalog, f.Known), Worked: f.History.LastWorked(), Bumped: f.History.Bumped,
		Care: j.Risk.Care, Cycle: f.Cycle.Cycle, Core: arena.Version, Forbidden: j.Result.Forbidden,
		Input: arena.Input{
			Schools: f.Plan.Schools(j.Catalog), Known: f.Known, Levels: f.Plan.Levels, Limits: assess.Limits(j.Catalog, j.Assessment), Handlers: f.handlers(),
			Before: f.History.Stopped, Spots: f.History.Spots, Spooks: f.History.Spooks,
			Horse: arena.Horse{
				Young: f.Record.Young(f.Today), GuardsItself: f.Record.GuardsItself,
				FearLikely: j.MayBeAfraid(), BodyClear: j.Assessment.BodyClear(j.Catalog.Judging, f.Problem),
			},
		},
	}
	b.Input.Barred = map[string]arena.Barred{}
	for _, block := range j.Blocks {
		b.Input.Blocked = append(b.Input.Blocked, block.Step)
		b.Input.Barred[block.Step] = arena.Barred{Why: block.Why, Lifts: block.Lifts, Until: j.Awaited[block.Step]}
	}
	return b
}

// met lists the things that the horse has met: those that were told of, and those
// of its sessions.
func met(f Facts) []string {
	things := slices.Clone(f.Record.Things)
	for _, t := range f.History.Things {
		if !slices.ContainsFunc(things, t.Is) {
			things = append(things, t.Name)
		}
	}
	return things
}

// bars lists the steps that close a bar, until the owner's own step is met
// with a second adult watching (part 9).
func bars(c *catalog.Catalog, known []arena.Known) []string {
	for _, alone := range c.With(catalog.OwnerAlone) {
		if arena.Passed(known, alone) {
			return nil
		}
	}
	var keys []string
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Bars {
				keys = append(keys, s.Key)
			}
		}
	}
	return keys
}

// clearedFor lists the steps that a person may do alone.
func (f Facts) clearedFor(person string) []string {
	var steps []string
	for _, st := range f.Cleared {
		if st.Person == person && st.Cleared {
			steps = append(steps, st.Step)
		}
	}
	return steps
}

// handlers tells of the owners who may hold the rope, and which steps have
// failed with each of them so far (part 6, rule 9).
func (f Facts) handlers() map[string]arena.Handler {
	all := make(map[string]arena.Handler, len(f.Owners))
	for _, id := range f.Owners {
		all[id] = arena.Handler{Owner: true, Beginner: f.Judged.Assessment.ExperienceOf(id) == horse.Beginner, Failed: f.History.Failed(id), Cleared: f.clearedFor(id)}
	}
	return all
}
