package outlook_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
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
	in := outlook.Of(c, outlook.Facts{Facts: facts, Judged: judged})
	p, _ := plan.Build(judged.Catalog, in)
	fmt.Println(in.Goals[0].Problem, "by", in.Goals[0].By, "from", p.Items[0].Step, "in", len(p.Visits), "visits laid out")
	// Output: bridling by 2026-07-20 from head.down in 6 visits laid out
}

// goals reads the goals of an assessment that took on bridling and bucking.
func goals(t *testing.T, change func(*judging.Facts, map[horse.Problem]assess.Account)) []plan.Goal {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	var bucking horse.Problem
	require.NoError(t, bucking.UnmarshalText([]byte("bucking")))
	accounts := map[horse.Problem]assess.Account{horse.Bridling: {}, bucking: {}}
	f := judging.Facts{Today: "2026-06-20", Problem: horse.Bridling, Ladder: "bridle", NeededBy: "2026-07-20"}
	change(&f, accounts)
	f.Assessments = []assess.Dated{{On: "2026-06-20", Doc: assess.Assessment{Problems: accounts}}}
	j, err := judging.Of(c, f)
	require.NoError(t, err)
	return outlook.Goals(c, f, j)
}

func TestGoalsAreTheCasesAndWhatWasTakenOn(t *testing.T) {
	both := goals(t, func(*judging.Facts, map[horse.Problem]assess.Account) {})
	require.Len(t, both, 2)
	assert.Equal(t, "2026-07-20", both[0].By)
	assert.Empty(t, both[1].By, "the other has its own date, or none")

	later := goals(t, func(f *judging.Facts, accounts map[horse.Problem]assess.Account) {
		f.Choices.Goals = map[horse.Problem]plan.Wanted{}
		for p := range accounts {
			f.Choices.Goals[p] = plan.Wanted{Later: true}
		}
	})
	require.Len(t, later, 1, "the case's own is never left for later")
	assert.Equal(t, horse.Bridling, later[0].Problem)
}

func TestALaterDateCountsAnEarlierDoesNot(t *testing.T) {
	by := func(needed, chosen string) string {
		return goals(t, func(f *judging.Facts, _ map[horse.Problem]assess.Account) { f.NeededBy, f.Choices.By = needed, chosen })[0].By
	}
	assert.Equal(t, "2026-08-01", by("2026-07-20", "2026-08-01"))
	assert.Equal(t, "2026-07-20", by("2026-07-20", "2026-07-01"))
	assert.Empty(t, by("", "2026-08-01"), "without a date there is none to put off")
}

func TestDangerousWaysOutMakeAProblemMoreDangerous(t *testing.T) {
	danger := func(ways ...string) int {
		return goals(t, func(_ *judging.Facts, accounts map[horse.Problem]assess.Account) {
			a := accounts[horse.Bridling]
			for _, way := range ways {
				var w horse.WayOut
				require.NoError(t, w.UnmarshalText([]byte(way)))
				a.Baseline.WaysOut = append(a.Baseline.WaysOut, w)
			}
			accounts[horse.Bridling] = a
		})[0].Danger
	}
	assert.Equal(t, danger(), danger("head up"))
	assert.Equal(t, danger()+2, danger("head up", "reared"))
	assert.Equal(t, danger()+4, danger("bit", "reared"))
}
