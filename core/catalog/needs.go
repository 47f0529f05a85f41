package catalog

import (
	"slices"

	"ivorybridge/core/horse"
)

// A Need is what a step or ladder stands on: a step that is met, perhaps at a
// level or in one zone only, kept, or no more than understood; and perhaps only
// of a horse that is ridden already, or is not.
type Need struct {
	Step       string     `json:"step" doc:"key of the step needed"`
	Level      int        `json:"level,omitempty" doc:"met at this level or less; 0: the step's own pass level"`
	Kept       bool       `json:"kept,omitempty" doc:"kept on a later day, not only met"`
	Understood bool       `json:"understood,omitempty" doc:"2 of the last 3 answers a try or better, at level 6 or less, is enough"`
	Zone       horse.Zone `json:"zone,omitzero" doc:"only in this zone"`
	Side       horse.Side `json:"side,omitzero" doc:"only on this side"`
	Same       bool       `json:"same,omitempty" doc:"only on the side, and in the zone, that is asked"`
	When       Past       `json:"when,omitzero" doc:"only of a horse already ridden, or not yet"`
}

// Needs lists all that a step stands on (part 5): on a problem ladder the step
// before it, for the step from which its ladder stands on others what that is,
// its own needs, and for a horse that can't be haltered the step that comes before
// all other work, where the catalogue is fitted to a plan that has it. Needs of
// horses ridden already are told unless the catalogue is fitted to one that is not.
func (c *Catalog) Needs(key string) []Need {
	at, ok := c.steps[key]
	if !ok {
		return nil
	}
	ladder := c.Ladders[at[0]]
	step := ladder.Steps[at[1]]
	var needs []Need
	if before, ok := ladder.before(step); ok {
		needs = append(needs, Need{Step: before})
	}
	needs = append(needs, step.Needs...)
	if ladder.standsAt() == at[1] {
		needs = append(needs, ladder.StandsOn...)
	}
	if c.before != "" && !ladder.ComesFirst() && (ladder.Kind == Foundation || at[1] == 0) {
		needs = append(needs, Need{Step: c.before})
	}
	if opens, of := c.opens[0], c.opens[1]; step.Ridden && opens != "" && of != ladder.Key {
		needs = append(needs, Need{Step: opens, When: NotYetRidden})
	}
	return slices.DeleteFunc(needs, func(n Need) bool { return !n.When.IsZero() && n.When != c.pastOf() })
}

// Under lists all that a step stands on in a plan: what it needs, and the
// foundations of its ladder, which lie under each of its steps (part 7).
func (c *Catalog) Under(key string) []Need {
	needs := c.Needs(key)
	at, ok := c.steps[key]
	if !ok {
		return nil
	}
	ladder := c.Ladders[at[0]]
	if at[1] < ladder.standsAt() {
		return needs
	}
	for _, n := range c.Piers(ladder) {
		if !slices.Contains(needs, n) {
			needs = append(needs, n)
		}
	}
	return needs
}

// NeedsOf lists what one ask of a step stands on.
func (c *Catalog) NeedsOf(a horse.Ask) []Need {
	needs := c.Needs(a.Step)
	for i, n := range needs {
		if !n.Same {
			continue
		}
		needs[i].Side = a.Variant.Side
		if n.Zone.IsZero() {
			needs[i].Zone = a.Variant.Zone
		}
	}
	return needs
}

// before is the step of a problem ladder that another waits for: the nearest one
// before it that is worked in hand or ridden as it is itself, so that no work in
// hand waits for a ridden step. The first ridden step waits for the one before it.
func (l Ladder) before(s Step) (string, bool) {
	if l.Kind == Foundation || s.Instead || s.Place == 0 {
		return "", false
	}
	for _, b := range slices.Backward(l.Steps[:s.Place]) {
		if b.Ridden == s.Ridden {
			return b.Key, true
		}
	}
	return l.Steps[s.Place-1].Key, s.Ridden
}

// pastOf is the past that the catalogue is fitted to.
func (c *Catalog) pastOf() Past {
	if c.past.IsZero() {
		return AlreadyRidden
	}
	return c.past
}

// ComesFirst reports whether a step of the ladder comes before every foundation:
// a horse that can't be haltered.
func (l Ladder) ComesFirst() bool {
	return slices.ContainsFunc(l.Steps, func(s Step) bool { return s.Before })
}

// standsAt is the place of the step that stands on the ladder's foundations.
func (l Ladder) standsAt() int {
	return max(slices.IndexFunc(l.Steps, func(s Step) bool { return s.Key == l.From }), 0)
}

// Piers lists what a ladder stands on, as the catalogue is fitted.
func (c *Catalog) Piers(l Ladder) []Need {
	return slices.DeleteFunc(slices.Clone(l.StandsOn), func(n Need) bool { return !n.When.IsZero() && n.When != c.pastOf() })
}

// AsksOf lists the asks of the step that a need speaks of.
func (c *Catalog) AsksOf(n Need) []horse.Ask {
	step, ok := c.Step(n.Step)
	if !ok {
		return nil
	}
	return slices.DeleteFunc(step.Asks(), func(a horse.Ask) bool {
		return !n.Zone.IsZero() && a.Variant.Zone != n.Zone || !n.Side.IsZero() && a.Variant.Side != n.Side
	})
}

// StandingOn lists the ladders that stand on the step, directly or through a
// need of one of their steps.
func (c *Catalog) StandingOn(step string) []string {
	var keys []string
	for _, l := range c.Ladders {
		on := func(n Need) bool { return n.Step == step }
		if slices.ContainsFunc(l.StandsOn, on) {
			keys = append(keys, l.Key)
		}
	}
	return keys
}
