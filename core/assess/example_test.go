package assess_test

import (
	"fmt"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
)

// A suspect back bars what bears on it, and somebody is asked.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	doc := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{horse.Back: {State: horse.Suspect}}}
	r, err := assess.Judge(c, assess.Case{Today: "2026-06-01", On: "2026-06-01", Assessment: doc.About(horse.Girth)})
	if err != nil {
		panic(err)
	}
	for _, ref := range r.Referrals {
		fmt.Println(ref.Item, "goes to the", ref.Who)
	}
	fmt.Println(len(r.Blocks) > 0)
	// Output:
	// back goes to the vet or back therapist
	// true
}
