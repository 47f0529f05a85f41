package catalog_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	. "ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
)

func shippedNow(t require.TestingT) *Catalog {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func places(faults []Fault) (list []string) {
	for _, f := range faults {
		list = append(list, f.Place)
	}
	return list
}

// Every rule has both its ends, and a number outside them is a sentence at its place.
func TestBothSidesOfEveryHouseRule(t *testing.T) {
	c := shippedNow(t)
	for _, r := range Rules() {
		shipped := r.Of(c.Rules)
		assert.True(t, shipped >= r.Min && shipped <= r.Max, "%s ships at %d", r.Key, shipped)
		for n, fits := range map[int]bool{r.Min - 1: false, r.Min: true, r.Max: true, r.Max + 1: false} {
			faults := House{Rules: map[string]int{r.Key: n}}.Check(c)
			assert.Equal(t, !fits, len(faults) == 1 && faults[0].Say == fmt.Sprintf("Give a whole number from %d to %d.", r.Min, r.Max), "%s %d: %v", r.Key, n, faults)
		}
		require.NoError(t, c.Rules.Check())
	}
}

func TestHouseRulesThatCantBe(t *testing.T) {
	c := shippedNow(t)
	for _, test := range []struct {
		house House
		place string
	}{
		{House{Rules: map[string]int{"tea": 1}}, "rules.tea"},
		{House{Rules: map[string]int{"block_minutes": 21}}, "rules.block_cap"},
		{House{Rules: map[string]int{"session_cap": 19}}, "rules.session_cap"},
		{House{Rules: map[string]int{"block_cap_young": 16}}, "rules.block_cap_young"}, // part 9
		{House{Swap: "never"}, "swap_sides"},
		{House{Likely: 1}, "likely"}, {House{Likely: 0.3}, "likely"}, {House{Possible: 0.6}, "likely"},
		{House{Bears: map[string]map[horse.Cause]Mark{"no_such": {horse.Fear: "+"}}}, "bears.no_such"},
		{House{Bears: map[string]map[horse.Cause]Mark{"curious": {horse.Fear: "+++++"}}}, "bears.curious"},
		{House{Bears: map[string]map[horse.Cause]Mark{"rushes_in_and_out": {horse.Fear: ""}}}, "bears.rushes_in_and_out"},
	} {
		assert.Equal(t, []string{test.place}, places(test.house.Check(c)), "%+v", test.house)
	}
	for _, fits := range []House{{}, {Rules: map[string]int{"block_minutes": 20}}, {Likely: 0.31}, {Swap: "after each dose"}, {Bears: map[string]map[horse.Cause]Mark{"curious": {horse.Fear: ""}}}} {
		assert.Empty(t, fits.Check(c), "%+v", fits)
	}
}

// What a step takes from the house rules goes with them; what it says itself stays, and what
// is put back is the shipped catalogue.
func TestACatalogueByHouseRules(t *testing.T) {
	c := shippedNow(t)
	own := c.ByHouse(House{Rules: map[string]int{"pass_run": 2, "cycle": 5}, Likely: 0.7, Bears: map[string]map[horse.Cause]Mark{"curious": {horse.Fear: "", horse.Body: "+"}}}, 3)
	assert.Equal(t, c.Version+"~3", own.Version)
	assert.Equal(t, []any{2, 5, 3}, []any{own.Rules.PassRun, own.Rules.Cycle, c.Rules.PassRun})
	step, _ := own.Step("lead.halt")
	was, _ := c.Step("lead.halt")
	assert.Equal(t, []int{2, 3}, []int{step.Pass.Run, was.Pass.Run})
	assert.Contains(t, step.Pass.Text, "2 in a row")
	changed := 0
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			now, ok := own.Step(s.Key)
			require.True(t, ok)
			if s.Pass.Run != c.Rules.PassRun {
				assert.Equal(t, s.Pass, now.Pass, s.Key)
				continue
			}
			changed++
		}
	}
	assert.Positive(t, changed)
	f, _ := own.Judging.Finding("curious")
	assert.Equal(t, "[{untaught +} {body +}]", fmt.Sprint(f.Bears))
	assert.InDelta(t, 0.7, own.Judging.Likely, 0)
	f, _ = c.Judging.Finding("curious")
	assert.Len(t, f.Bears, 2, "the shipped one stays as it is")
	assert.Same(t, c, c.ByHouse(House{}, 4), "put back")
	assert.Same(t, c, c.ByRules(c.Rules))
}

// What a session pinned before some rules were there takes what ships in their place.
func TestHouseRulesOfBefore(t *testing.T) {
	c := shippedNow(t)
	assert.Equal(t, c.Rules, c.Filled(HouseRules{}))
	assert.Equal(t, c.Rules, c.Filled(c.Rules))
	filled := c.Filled(HouseRules{PassRun: 2, SwapSides: "after each dose"})
	assert.Equal(t, []any{2, c.Rules.SessionCap, "after each dose"}, []any{filled.PassRun, filled.SessionCap, filled.SwapSides})
}

// Whatever fits gives a catalogue that is checked and found good, and what is as shipped is
// left out of it.
func TestAnyHouseRulesThatFitGiveAGoodCatalogue(t *testing.T) {
	c := shippedNow(t)
	rapid.Check(t, func(t *rapid.T) {
		h := House{Rules: map[string]int{}, Bears: map[string]map[horse.Cause]Mark{}}
		for _, r := range Rules() {
			if rapid.Bool().Draw(t, r.Key) {
				h.Rules[r.Key] = rapid.IntRange(r.Min, r.Max).Draw(t, r.Key+" at")
			}
		}
		f := rapid.SampledFrom(c.Judging.Findings).Draw(t, "finding")
		h.Bears[f.Key] = map[horse.Cause]Mark{rapid.SampledFrom((horse.Cause{}).All()).Draw(t, "cause"): rapid.SampledFrom(append(Marks(), "")).Draw(t, "mark")}
		if len(h.Check(c)) > 0 {
			t.Skip()
		}
		own := c.ByHouse(h, 1)
		_, err := New(own.Version, own.Rules, own.Judging, own.Methods, own.Ladders)
		require.NoError(t, err)
		plain := h.Plain(c)
		require.Empty(t, plain.Check(c))
		again := c.ByHouse(plain, 1)
		require.Equal(t, own.Rules, again.Rules)
		require.Equal(t, fmt.Sprint(own.Judging.Findings), fmt.Sprint(again.Judging.Findings))
		if own.Rules == c.Rules {
			require.Empty(t, plain.Rules)
		}
	})
}
