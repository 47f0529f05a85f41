// Package headline says in one sentence what is next with a horse, and where it
// stands: what a trainer reads first on its pages (part 7).
package headline

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
)

// A Headline is what is next.
type Headline struct {
	Says  phrase.Message  `json:"says" doc:"what is next, in one sentence"`
	Ask   phrase.Slotted  `json:"ask,omitempty" doc:"what is asked of the horse there"`
	Where *phrase.Message `json:"where,omitempty" doc:"which plank that is, and how far it has come; or what bars the work"`
}

// Facts are what it is read from.
type Facts struct {
	Finished bool
	Assessed bool
	Begun    bool // a session was logged
	Catalog  *catalog.Catalog
	Plan     plan.Plan
	Bridges  []progress.Bridge // of the goals
}

// Of says what is next.
func Of(f Facts) Headline {
	switch {
	case f.Finished:
		return Headline{Says: phrase.Of("headline.finished", nil)}
	case !f.Assessed && !f.Begun:
		return Headline{Says: phrase.Of("headline.assess", nil)}
	case f.Plan.Next != "":
		return f.next()
	}
	for _, i := range f.Plan.Items {
		if i.Blocked != nil && !i.Met {
			return Headline{Says: phrase.Of("headline.waits", nil), Where: i.Blocked}
		}
	}
	return Headline{Says: phrase.Of("headline.kept", nil)}
}

func (f Facts) next() Headline {
	step, _ := f.Catalog.Step(f.Plan.Next)
	h := Headline{Says: phrase.Of("headline.next", phrase.Args{"name": step.FullName()}), Ask: step.Ask}
	for _, b := range f.Bridges {
		if n := slices.IndexFunc(b.Planks, func(p progress.Plank) bool { return p.Step == step.Key }); n >= 0 {
			h.Says = phrase.Of("headline.next", phrase.Args{"name": step.Name})
			where := phrase.Of("headline.plank", phrase.Args{"n": n + 1, "of": b.Steps, "state": b.Planks[n].Says})
			h.Where = &where
			return h
		}
	}
	for _, i := range f.Plan.Items {
		if i.Step == step.Key {
			where := phrase.Of("headline.pier", phrase.Args{"state": i.State.String()})
			h.Where = &where
		}
	}
	return h
}
