package plan

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Facts are what speaks for or against a way of working (part 4).
type Facts struct {
	assess.Against
	FearUnlikely bool
	DoneBefore   bool   // the horse has done it before
	OwnerMay     bool   // owners may handle, or learn to
	NoBacking    bool   // a hind leg that has locked, or that no vet has seen
	Spiral       bool   // gaited, clumsy or stumbling: no tight one-rein stop
	InHand       bool   // it went over backwards: nobody gets on
	Alone        string // who must be able to do it alone
	Kit          []Extra
}

// Extra is something that a horse's own settings put on the kit list, where
// the list has what it goes with; empty: always.
type Extra struct{ Item, With string }

// SchoolOption is a school that a ladder can be worked in.
type SchoolOption struct {
	School horse.School     `json:"school" doc:"which"`
	Usual  bool             `json:"usual,omitempty" doc:"the ladder's usual one"`
	Named  bool             `json:"named" doc:"the ladder names it"`
	Avoid  []phrase.Message `json:"avoid" doc:"what speaks against it with this horse now"`
}

// ways lists the ladders of the plan, foundations first, then the goals'.
func (b *builder) ways(items []Item, order []string) []Way {
	var foundations, others, goals []string
	for _, key := range order {
		step, _ := b.cat.Step(key)
		ladder, _ := b.cat.Ladder(step.Ladder)
		into := &others
		if ladder.Kind == catalog.Foundation {
			into = &foundations
		}
		isGoal := slices.ContainsFunc(b.goals, func(g Goal) bool { return g.Ladder == ladder.Key })
		if !isGoal && !slices.Contains(*into, ladder.Key) {
			*into = append(*into, ladder.Key)
		}
	}
	for _, g := range b.goals {
		goals = append(goals, g.Ladder)
	}
	ways := []Way{}
	for _, key := range slices.Concat(foundations, others, goals) {
		ways = append(ways, b.way(key, items))
	}
	return ways
}

func (b *builder) way(key string, items []Item) Way {
	l, _ := b.cat.Ladder(key)
	w := Way{Ladder: key, Name: l.Name, Kind: l.Kind, School: l.Schools[0], Where: l.Where, Watch: l.Watch, Helper: l.Helper, Options: []SchoolOption{}}
	w.Why = phrase.Of("plan.school.usual", phrase.Args{"school": w.School.String()})
	for _, g := range b.goals {
		if g.Ladder == key {
			w.Problem, w.Until = g.Problem, g.Until
			if !g.School.School.IsZero() {
				w.School, w.Why = g.School.School, g.School.Why
			}
		}
	}
	suggested := w.School
	if chosen, ok := b.in.Choices.Schools[key]; ok && !chosen.IsZero() {
		w.School, w.Chosen = chosen, true
		w.Why = phrase.Of("plan.school.own", phrase.Args{"school": chosen.String(), "suggested": suggested.String()})
		if chosen == suggested {
			w.Why = phrase.Of("plan.school.both", phrase.Args{"school": chosen.String()})
		}
	}
	named := slices.Clone(l.Schools)
	for _, s := range []horse.School{suggested, w.School} {
		if !slices.Contains(named, s) {
			named = append(named, s)
		}
	}
	for _, s := range named {
		w.Options = append(w.Options, SchoolOption{School: s, Usual: s == l.Schools[0], Named: slices.Contains(l.Schools, s), Avoid: b.in.Facts.Of(s)})
	}
	for _, i := range items {
		if i.Ladder != key {
			continue
		}
		if !i.Met && !i.Seen {
			w.Left++
		}
		if i.Blocked != nil {
			w.Barred++
		}
	}
	return w
}

// Schools are the ways the ladders are worked in: as planned, else the usual
// one.
func (p Plan) Schools(c *catalog.Catalog) map[string]horse.School {
	all := make(map[string]horse.School, len(c.Ladders))
	for _, l := range c.Ladders {
		all[l.Key] = l.Schools[0]
	}
	for _, w := range p.Ways {
		all[w.Ladder] = w.School
	}
	return all
}
