package briefing_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/briefing"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/outlook"
	"ivorybridge/core/plan"
)

func ExampleOf() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	facts := judging.Facts{
		Today: "2026-06-20", Problem: horse.Bridling, Ladder: "bridle", NeededBy: "2026-07-20",
		Assessments: []assess.Dated{{On: "2026-06-20", Doc: assess.Assessment{Problems: map[horse.Problem]assess.Account{horse.Bridling: {}}}}},
	}
	judged, err := judging.Of(c, facts)
	if err != nil {
		panic(err)
	}
	work, _ := plan.Build(judged.Catalog, outlook.Of(c, outlook.Facts{Facts: facts, Judged: judged}))
	b := briefing.Of(briefing.Facts{Judged: judged, Plan: work, Today: facts.Today, Problem: facts.Problem, Ladder: facts.Ladder})
	gate, ask := b.Gate(judged.Catalog, facts.Today, arena.Readiness{Handler: horse.Calm, Tack: true, Body: true}, true)
	fmt.Println(gate.May, ask)
	// Output: true head.down
}

// A bar may be closed by one person once the owner's own step is met.
func TestBarsAreClosedByTwoUntilTheOwnersStepIsMet(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	facts := judging.Facts{Today: "2026-06-20", Problem: horse.Loading, Ladder: "load"}
	judged, err := judging.Of(c, facts)
	require.NoError(t, err)
	f := briefing.Facts{Judged: judged, Today: facts.Today, Problem: facts.Problem, Ladder: facts.Ladder, Owners: []string{"ines"}}
	b := briefing.Of(f)
	assert.NotEmpty(t, b.Bars)
	assert.Equal(t, map[string]arena.Handler{"ines": {Owner: true}}, b.Input.Handlers)
	for _, s := range c.With(catalog.OwnerAlone) {
		for _, a := range s.Asks() {
			f.Known = append(f.Known, arena.Known{Ask: a, State: horse.Met})
		}
	}
	assert.Empty(t, briefing.Of(f).Bars)
}
