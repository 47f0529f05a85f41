package plan_test

import (
	"fmt"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
)

// Nothing is met yet: the plan for the trailer begins at its first foundation, and the
// foundations come before the ladder.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	p, ok := plan.Build(c, plan.Input{Today: "2026-06-01", Goals: []plan.Goal{{Problem: horse.Loading, Ladder: "load"}}})
	fmt.Println(ok, p.Next, p.Items[len(p.Items)-1].Ladder)
	// Output: true lead.forward load
}
