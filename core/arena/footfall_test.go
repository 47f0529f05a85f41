package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// hooves are strides of a second in which each fore foot lands so far after the hind foot
// of its side.
func hooves(strides int, fraction float64) track.Mark {
	taps := track.Footfall{Ask: horse.Ask{Step: "rush.walk"}}
	for i := range strides + 1 {
		at := 1 + float64(i)
		taps.Landings = append(taps.Landings,
			gait.Landing{Hoof: gait.NearHind, At: at}, gait.Landing{Hoof: gait.NearFore, At: at + fraction},
			gait.Landing{Hoof: gait.OffHind, At: at + 0.5}, gait.Landing{Hoof: gait.OffFore, At: at + 0.5 + fraction})
	}
	return track.Mark{Footfall: &taps}
}

// rush.walk is met once it has been timed as an even walk, 0.20 to under 0.30 (part 5): a
// run alone is not enough, and neither is the timing alone.
func TestAWalkIsMetOnceItWasTimed(t *testing.T) {
	walk := func() *script { return on("rush.walk") }
	three := func() *script { return walk().reps("accepted@3 accepted@3 accepted@3") }
	byEye := track.Mark{Footfall: &track.Footfall{Ask: horse.Ask{Step: "rush.walk"}, Eye: true}}
	for name, test := range map[string]struct {
		track  *script
		why    string
		passed bool
	}{
		"three, nothing timed":      {three(), "why.time_it", false},
		"two, nothing timed":        {walk().reps("accepted@3 accepted@3"), "why.dip_next", false},
		"timed at 0.20":             {three().mark(1000, hooves(4, 0.20)), "why.passed", true},
		"timed at 0.19":             {three().mark(1000, hooves(4, 0.19)), "why.other_gait", false},
		"timed at 0.29":             {three().mark(1000, hooves(4, 0.29)), "why.passed", true},
		"timed at 0.30":             {three().mark(1000, hooves(4, 0.30)), "why.other_gait", false},
		"timed first":               {walk().mark(1000, hooves(4, 0.25)).reps("accepted@3 accepted@3 accepted@3"), "why.passed", true},
		"timed, two only":           {walk().mark(1000, hooves(4, 0.25)).reps("accepted@3 accepted@3"), "why.dip_next", false},
		"the newest timing holds":   {three().mark(1000, hooves(4, 0.1)).mark(1000, hooves(4, 0.25)), "why.passed", true},
		"seen by eye":               {three().mark(1000, byEye), "why.passed", true},
		"seen first":                {walk().mark(1000, byEye).reps("accepted@3 accepted@3 accepted@3"), "why.passed", true},
		"the taps know better":      {walk().mark(1000, byEye).mark(1000, hooves(4, 0.1)).reps("accepted@3 accepted@3 accepted@3"), "why.other_gait", false},
		"the eye after them":        {three().mark(1000, hooves(4, 0.1)).mark(1000, byEye), "why.passed", true},
		"two strides tell nothing":  {three().mark(1000, hooves(2, 0.25)), "why.time_it", false},
		"a refusal breaks the run":  {walk().reps("accepted@3 accepted@3 refused@3").mark(1000, hooves(4, 0.25)), "why.refused.once", false},
		"another ask is not walked": {on("lead.forward").reps("accepted@3 accepted@3 accepted@3"), "why.passed", true},
	} {
		t.Run(name, func(t *testing.T) {
			in := test.track.input()
			a := advisedBy(t, in, func(*catalog.HouseRules) {})
			if test.passed {
				assert.Equal(t, "12", a.Rule)
			} else {
				assert.Equal(t, test.why, a.Why.Key)
			}
			out := ReadDay(shipped(t), track.Day{ID: "d", Date: "2026-06-01", Track: in.Track}, nil, nil)
			_, passed := out.Passed[in.Ask]
			assert.Equal(t, test.passed, passed)
		})
	}
}

// What was met by eye, before a gait could be timed, stays met.
func TestAWalkOfEarlierEditionsStaysMet(t *testing.T) {
	three := on("rush.walk").reps("accepted@3 accepted@3 accepted@3").input().Track
	for core, met := range map[string]bool{"2026.1": true, "2026.3": true, "": false, Version: false} {
		out := ReadDay(shipped(t), track.Day{Date: "2026-06-01", Core: core, Track: three}, nil, nil)
		_, passed := out.Passed[horse.Ask{Step: "rush.walk"}]
		assert.Equal(t, met, passed, core)
	}
}

// How it was timed is told live, and stays with its ask.
func TestTheTimingIsToldWithItsAsk(t *testing.T) {
	c := shipped(t)
	in := on("rush.walk").reps("accepted@3").mark(1000, hooves(4, 0.25)).input()
	r, err := Run(c, c.Rules, in)
	require.NoError(t, err)
	live := r.counting(horse.Ask{Step: "rush.walk"})
	require.Len(t, live.Lines, 1)
	assert.Equal(t, "Timed: It walks. Four even beats.", phrase.English(phrase.Shipped).Say(live.Lines[0]))
	assert.Empty(t, r.counting(horse.Ask{Step: "rush.hill"}).Lines)

	uneven := hooves(4, 0.25)
	for i, l := range uneven.Footfall.Landings {
		if l.Hoof == gait.OffFore {
			uneven.Footfall.Landings[i].At += 0.07
		}
	}
	r, err = Run(c, c.Rules, on("rush.walk").reps("accepted@3").mark(1000, uneven).input())
	require.NoError(t, err)
	live = r.counting(horse.Ask{Step: "rush.walk"})
	require.Len(t, live.Lines, 2)
	assert.Equal(t, "Uneven from side to side: have a vet look.", phrase.English(phrase.Shipped).Say(live.Lines[1]))
	step, _ := c.Step("rush.walk")
	assert.True(t, CardOf(c, step, horse.BuildAndRelease).Beats)
}
