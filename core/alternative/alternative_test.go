package alternative_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/alternative"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/outlook"
	"ivorybridge/core/plan"
)

// A way that comes to the same steps in the same order is none to weigh: a goal that
// lies before the sending has no other way.
func TestOnlyWaysThatDifferAreShown(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	for until, want := range map[string]int{"": 2, "load.board": 1} {
		facts := judging.Facts{
			Today: "2026-06-20", Problem: horse.Loading, Ladder: "load",
			Choices: plan.Choices{Goals: map[horse.Problem]plan.Wanted{horse.Loading: {Until: until}}},
		}
		judged, err := judging.Of(c, facts)
		require.NoError(t, err)
		assert.Len(t, alternative.Of(c, outlook.Facts{Facts: facts, Judged: judged}), want, "until %q", until)
	}
}

func ExampleOf() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	facts := judging.Facts{
		Today: "2026-06-20", Problem: horse.Loading, Ladder: "load", NeededBy: "2026-07-20",
		Assessments: []assess.Dated{{On: "2026-06-20", Doc: assess.Assessment{Problems: map[horse.Problem]assess.Account{horse.Loading: {}}}}},
	}
	judged, err := judging.Of(c, facts)
	if err != nil {
		panic(err)
	}
	for _, w := range alternative.Of(c, outlook.Facts{Facts: facts, Judged: judged}) {
		fmt.Println(w.Ladder, w.Setting, w.Left, "steps,", w.Chosen)
	}
	// Output:
	// load map[] 20 steps, true
	// load map[trailer way:send in first] 20 steps, false
}
