package alternative_test

import (
	"fmt"

	"ivorybridge/core/alternative"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/outlook"
)

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
