package arena_test

import (
	"fmt"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// The first of the handbook's worked cases: three light answers running on one
// side reach the pass mark, and the other side is next.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	hind := horse.Ask{Step: "quarters.hind", Variant: horse.Variant{Side: horse.Near}}
	r, err := arena.Run(c, c.Rules, arena.Input{School: horse.BuildAndRelease, Ask: hind})
	if err != nil {
		panic(err)
	}
	for i, level := range []int{4, 3, 3, 2} {
		rep := track.Rep{Ask: hind, Answer: horse.Accepted, Peak: horse.LevelOf(level), Arousal: horse.ArousalOf(1)}
		at := int64(i+1) * 30_000
		r.Add(track.Entry{ID: fmt.Sprint(i), Kind: track.KindRep, At: at, Rep: &rep})
		a := r.Advise(at)
		fmt.Println(a.Action, "by rule", a.Rule)
	}
	// Output:
	// same by rule 15
	// same by rule 15
	// same by rule 15
	// other side by rule 12
}
