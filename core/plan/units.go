package plan

import (
	"math/big"

	"ivorybridge/core/catalog"
)

// Step names a step to go, with what it weighs.
type Step struct {
	Key   string  `json:"key" doc:"key of the step"`
	Name  string  `json:"name" doc:"name of the step"`
	Units float64 `json:"units,omitempty" minimum:"0" maximum:"10" doc:"units of work it counts; 0: 1"`
}

// Units of work that a step counts (part 7).
const (
	foundationUnits = 0.25
	inHandUnits     = 1
	awayUnits       = 1.5 // ridden, or away from the yard
)

// UnitsOf is how many units of work a step counts.
func UnitsOf(c *catalog.Catalog, step catalog.Step) float64 {
	switch ladder, _ := c.Ladder(step.Ladder); {
	case step.Ridden || step.Away:
		return awayUnits
	case ladder.Kind == catalog.Foundation:
		return foundationUnits
	}
	return inHandUnits
}

// toGo is ⌈units × (1 + q)⌉ of some steps, exactly.
func (w Work) toGo(units *big.Rat) int {
	k := new(big.Rat).Mul(units, new(big.Rat).Add(big.NewRat(1, 1), w.slip()))
	whole, rest := new(big.Int).QuoRem(k.Num(), k.Denom(), new(big.Int))
	if rest.Sign() > 0 {
		return int(whole.Int64()) + 1
	}
	return int(whole.Int64())
}

// units of the step at a place of those to go.
func (w Work) units(place int) *big.Rat {
	u := new(big.Rat).SetInt64(1)
	if place < len(w.StepsToGo) && w.StepsToGo[place].Units > 0 {
		u.SetFloat64(w.StepsToGo[place].Units)
	}
	return u
}

// first is the units of the first so many steps.
func (w Work) first(steps int) *big.Rat {
	sum := new(big.Rat)
	for i := range steps {
		sum.Add(sum, w.units(i))
	}
	return sum
}

// held is the units of the blocked ones of the first so many steps, and the
// earliest day by which all can be lifted.
func (w Work) held(steps int) (units *big.Rat, until string) {
	units, until = new(big.Rat), w.Today
	for _, h := range w.Held {
		if h.Place < steps {
			units.Add(units, w.units(h.Place))
			until = max(until, h.Lifts)
		}
	}
	return units, until
}
