package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
)

// Both sides of the numbers of parts 2 and 3 that no worked case stands on.

func TestNumbersOfARecord(t *testing.T) {
	wrong := func(r Record) bool { return len(r.Check("2026-06-01")) > 0 }
	for mm, want := range map[int]bool{499: true, 500: false, 2200: false, 2201: true} {
		assert.Equal(t, want, wrong(Record{HeightMM: mm}), "%d mm", mm)
	}
	for g, want := range map[int]bool{29_999: true, 30_000: false, 1_500_999: false, 1_501_000: true} {
		assert.Equal(t, want, wrong(Record{WeightG: g}), "%d g", g)
	}
	says := func(mm int) string { return height(mm) }
	assert.Equal(t, "14.2 cm is too small for a horse. If you mean 14 hands, that is 142 cm.", says(142))
	assert.Contains(t, says(50), "5 hands, that is 51 cm")
	assert.Contains(t, says(219), "21 hands, that is 213 cm")
	assert.NotContains(t, says(49), "you mean")
	assert.NotContains(t, says(220), "you mean")
	rides := func(n int) Record { return Record{Rides: &n} }
	assert.True(t, rides(9).Young("2026-06-01"), "under 10 rides")
	assert.False(t, rides(10).Young("2026-06-01"))
	assert.True(t, Record{Born: "2023-06-02"}.Young("2026-06-01"), "under 3 years")
	assert.False(t, Record{Born: "2023-06-01"}.Young("2026-06-01"))
}

func TestNumbersOfTheGrade(t *testing.T) {
	for points, want := range map[int]horse.Care{2: horse.OrdinaryCare, 3: horse.ExtraCare, 5: horse.ExtraCare, 6: horse.HighCare, 8: horse.HighCare, 9: horse.SpecialistOnly} {
		assert.Equal(t, want, grade(points), "%d points", points)
	}
	quiet := func(n int) []SessionRisk {
		list := make([]SessionRisk, n)
		for i := range list {
			list[i].Care = horse.OrdinaryCare
		}
		return list
	}
	assert.Equal(t, horse.HighCare, Follow(horse.HighCare, quiet(2), horse.OrdinaryCare))
	assert.Equal(t, horse.ExtraCare, Follow(horse.HighCare, quiet(3), horse.OrdinaryCare), "one grade down, after three without an event")
	for care, want := range map[horse.Care]int{horse.OrdinaryCare: 6, horse.ExtraCare: 9, horse.HighCare: 14, horse.SpecialistOnly: 17} {
		assert.Len(t, Precautions(care, true), want, "%s", care)
	}
}

func TestNumbersOfTheBasics(t *testing.T) {
	accepted := func(level int) Basic { return Basic{Grade: horse.Accepted, Level: horse.LevelOf(level)} }
	assert.False(t, accepted(5).missing())
	assert.True(t, accepted(6).missing())
	run := func(level int, grade horse.Answer) Run { return Run{Level: horse.LevelOf(level), Grade: grade} }
	assert.True(t, run(3, horse.Accepted).better(run(5, horse.Accepted)), "two levels")
	assert.False(t, run(4, horse.Accepted).better(run(5, horse.Accepted)), "one")
	assert.True(t, run(5, horse.Accepted).better(run(5, horse.Tolerated)), "a grade")
	stepsOut := func(n int) int {
		touch := Touch{StepOuts: &n}
		return len(First(kept(t), Assessment{Zones: map[Spot]Touch{{Zone: (horse.Zone{}).All()[2], Side: horse.Near}: touch}}))
	}
	assert.Equal(t, []int{0, 2}, []int{stepsOut(2), stepsOut(3)}, "three times out of zone 3 adds the pad and the saddle")
	c, err := yaml.Shipped()
	require.NoError(t, err)
	start := func(reached string, arousal int) string {
		key, _ := Start(c, "load", Assessment{}, Baseline{Done: true, Reached: reached, Arousal: horse.ArousalOf(arousal)}, false)
		return key
	}
	assert.Equal(t, "load.front", start("load.square", 1))
	assert.Equal(t, "load.square", start("load.square", 2))
	assert.Equal(t, "load.gap", start("load.square", 3))
}

func TestNumbersOfFindings(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	findings := func(a Assessment) map[string]bool {
		r, err := Judge(c, Case{Today: "2026-06-01", Assessment: a})
		require.NoError(t, err)
		keys := map[string]bool{}
		for _, cause := range r.Problems[0].Causes {
			for _, w := range append(cause.For, cause.Against...) {
				keys[w.Finding] = true
			}
		}
		return keys
	}
	found := func(recovery int) map[string]bool {
		return findings(Assessment{Problems: map[horse.Problem]Account{horse.Loading: {Baseline: Baseline{Done: true, Arousal: horse.ArousalOf(3), Recovery: &recovery}}}})
	}
	missing := func(n int) map[string]bool {
		a := Assessment{Basics: map[string]Basic{}, Problems: map[horse.Problem]Account{horse.Loading: {}}}
		for _, test := range Tests()[:n] {
			a.Basics[test.Asks()[0]] = Basic{Grade: horse.Refused, Level: horse.LevelOf(5)}
		}
		assert.Len(t, a.Missing(kept(t)), n)
		return findings(a)
	}
	assert.False(t, missing(1)["basics_2_missing"])
	assert.True(t, missing(2)["basics_2_missing"])
	assert.True(t, missing(3)["basics_2_missing"])
	assert.True(t, missing(4)["basics_4_missing"])
	assert.False(t, missing(4)["basics_2_missing"])
	assert.True(t, found(60)["down_within_60"])
	assert.False(t, found(61)["down_within_60"])
	assert.False(t, found(300)["down_after_300"])
	assert.True(t, found(301)["down_after_300"])
}

func TestAProblemStaysTakenOn(t *testing.T) {
	of := func(path string, value any) Mark { return Mark{Path: path, Value: value} }
	has := func(marks ...Mark) bool {
		doc, err := Fold(Assessment{}, marks)
		require.NoError(t, err)
		_, there := doc.Problems[horse.Loading]
		return there
	}
	story := of("problems/loading/story", map[string]any{"where": "at the ramp"})
	assert.True(t, has(story, of("problems/loading/story", nil)), "its last answer was taken back")
	assert.False(t, has(story, of("problems/loading", nil)), "the problem itself was")
}

func TestNumbersOfDates(t *testing.T) {
	assert.Equal(t, 1, Record{Gelded: "2025-12-02"}.risesOn("2026-06-01"), "gelded under 6 months ago")
	assert.Zero(t, Record{Gelded: "2025-12-01"}.risesOn("2026-06-01"))

	days := 28
	half := func(on string) []Recheck {
		note := BodyNote{State: horse.InTreatment, Begun: "2026-05-01", Days: &days, Checks: map[string]Pressed{"1": {On: on, Answer: Pressed{}.Answer.All()[0]}}}
		return Rechecks(Assessment{Body: map[horse.BodyItem]BodyNote{horse.Back: note}}, "2026-06-01")
	}
	assert.Equal(t, []int{14, 28}, []int{half("2026-05-15")[0].Day, half("2026-05-15")[1].Day})
	assert.Equal(t, []string{"2026-05-15", "2026-05-29"}, []string{half("2026-05-15")[0].Due, half("2026-05-15")[1].Due})
	assert.Empty(t, half("2026-05-11")[0].Found, "four days too early")
	assert.Len(t, half("2026-05-12")[0].Found, 1, "three days")
	assert.Len(t, half("2026-05-28")[0].Found, 1)
	assert.Empty(t, half("2026-05-29")[0].Found, "that is the one at the end")
	assert.Len(t, half("2026-05-29")[1].Found, 1)
}
