package casefile

import (
	"testing"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// three is a case with three problems taken on, over all ladders.
func three(t testing.TB) (*catalog.Catalog, Document) {
	c := shipped(t)
	in := input(day("2026-06-02", good("lead.forward"), good("lead.forward"), good("lead.forward")), day("2026-06-05", good("lead.forward"), good("lead.halt")))
	a := looked()
	a.Doc.Problems[horse.Bridling] = assess.Account{Baseline: assess.Baseline{Done: true, Reached: "bridle.nose"}}
	a.Doc.Problems[horse.Crowding] = assess.Account{Baseline: assess.Baseline{Done: true, WaysOut: []horse.WayOut{horse.CrowdedIn}}}
	in.Assessments, in.NeededBy, in.Visits = []assess.Dated{a}, "2026-07-20", 6
	return c, in
}

func BenchmarkPlanForThreeProblems(b *testing.B) {
	c, in := three(b)
	for b.Loop() {
		f, err := in.Read(c)
		if err != nil || len(f.Plan().Forecast) != 3 {
			b.Fatal(err, len(f.Plan().Forecast))
		}
	}
}

func BenchmarkFit(b *testing.B) {
	c := shipped(b)
	for b.Loop() {
		if _, err := c.Fit(catalog.Fitting{}); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkAlternatives(b *testing.B) {
	c, in := three(b)
	f, err := in.Read(c)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		f.Alternatives()
	}
}
