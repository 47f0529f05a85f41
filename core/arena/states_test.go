package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

func day(date string, s *script) Day { return Day{Date: date, Track: s.track} }

func TestStates(t *testing.T) {
	c := shipped(t)
	hind := "quarters.hind near"
	met := func() *script { return on(hind).reps("accepted@3 accepted@3 accepted@2") }
	for name, test := range map[string]struct {
		days []Day
		want horse.StepState
	}{
		"tried":                                  {[]Day{day("2026-01-01", on(hind).reps("refused@4 try@4"))}, horse.Tried},
		"tolerated":                              {[]Day{day("2026-01-01", on(hind).reps("refused@4 tolerated@4"))}, horse.StepTolerated},
		"not yet three in a row":                 {[]Day{day("2026-01-01", on(hind).reps("accepted@3 accepted@3 accepted@4 accepted@3"))}, horse.StepTolerated},
		"met":                                    {[]Day{day("2026-01-01", met())}, horse.Met},
		"the same day does not keep":             {[]Day{day("2026-01-01", met()), day("2026-01-01", on(hind).reps("accepted@2 accepted@2"))}, horse.Met},
		"kept on a later day":                    {[]Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("accepted@2 accepted@3"))}, horse.Kept},
		"warmed up is not kept":                  {[]Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("accepted@4 accepted@3 accepted@3"))}, horse.Met},
		"two noes after a good end: four decide": {[]Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("refused@4 refused@4 accepted@3 accepted@3"))}, horse.Met},
		"four bad ones slip":                     {[]Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("refused@4 refused@4 accepted@6 refused@4"))}, horse.Slipped},
		"two bad ones slip after a poor end":     {[]Day{day("2026-01-01", met().reps("try@4")), day("2026-01-03", on(hind).reps("refused@4 accepted@6"))}, horse.Slipped},
		"slipped and met again": {[]Day{
			day("2026-01-01", met().reps("try@4")), day("2026-01-03", on(hind).reps("refused@4 refused@6")), day("2026-01-05", met()),
		}, horse.Met},
	} {
		t.Run(name, func(t *testing.T) {
			known := States(c, test.days)
			require.Len(t, known, 1)
			assert.Equal(t, test.want.String(), known[0].State.String())
		})
	}
}

func TestStatesTellLevelAndValue(t *testing.T) {
	c := shipped(t)
	days := []Day{day("2026-01-01", on("lead.back").value(3).reps("accepted@1 accepted@1 accepted@1").value(4).reps("accepted@1 accepted@1 accepted@1"))}
	k := States(c, days)[0]
	assert.Equal(t, 4, k.Value)
	assert.Equal(t, 1, k.Level.Int())
	assert.Equal(t, horse.Met, k.State)
	assert.Equal(t, "2026-01-01", k.Last)

	visits := Changes(c, days)
	require.Len(t, visits, 1)
	assert.Empty(t, visits[0].Before)
	assert.Len(t, visits[0].After, 1)
}

func TestGate(t *testing.T) {
	calm := Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}
	with := func(edit func(*Readiness)) Readiness { r := calm; edit(&r); return r }
	for name, test := range map[string]struct {
		r           Readiness
		days        int
		bump        bool
		may         bool
		lower       int
		baseline    bool
		foundations bool
	}{
		"yesterday":          {calm, 1, false, true, 0, false, false},
		"three days off":     {calm, 3, false, true, 1, false, false},
		"a week off":         {calm, 7, false, true, 2, false, false},
		"a fortnight off":    {calm, 14, false, true, 0, true, false},
		"a bump":             {calm, 1, true, true, 2, false, false},
		"never worked":       {calm, -1, false, true, 0, false, false},
		"over the line":      {with(func(r *Readiness) { r.Arousal = horse.ArousalOf(3) }), 1, false, true, 0, false, true},
		"explosive":          {with(func(r *Readiness) { r.Arousal = horse.ArousalOf(4) }), 1, false, false, 0, false, false},
		"scared":             {with(func(r *Readiness) { r.Handler = horse.Scared }), 1, false, false, 0, false, false},
		"body not as it was": {with(func(r *Readiness) { r.Body = false }), 1, false, false, 0, false, false},
	} {
		t.Run(name, func(t *testing.T) {
			g := Ready(test.r, test.days, test.bump)
			assert.Equal(t, []any{test.may, test.lower, test.baseline, test.foundations}, []any{g.May, g.Lower, g.Baseline, g.Foundations})
		})
	}
}

func TestWhereToBegin(t *testing.T) {
	c := shipped(t)
	in := Input{School: horse.BuildAndRelease, Ask: ask("load.front")}
	assert.Equal(t, "load.front", Begin(c, in, Gate{May: true}).Step)
	assert.Equal(t, "load.gap", Begin(c, in, Gate{May: true, Lower: 2}).Step)
	assert.Equal(t, "load.board", Begin(c, in, Gate{May: true, Baseline: true}).Step)
	ladder, _ := c.Ladder("quarters")
	assert.Equal(t, catalog.Foundation, ladder.Kind)
	assert.Equal(t, "quarters.fore", Begin(c, in, Gate{May: true, Foundations: true}).Step)
	in.Blocked = []string{"load.front", "load.square"}
	assert.Equal(t, "load.gap", Begin(c, in, Gate{May: true}).Step, "never on a blocked step")
	assert.True(t, Begin(c, in, Gate{}).IsZero())
}

func TestBumped(t *testing.T) {
	bump := on("load.front").mark(0, Mark{Bump: true})
	assert.True(t, Bumped(Day{Track: bump.reps("accepted@3").track}))
	assert.False(t, Bumped(Day{Track: bump.reps("accepted@3").track}))
}

func TestBeadsCountAndMarkDips(t *testing.T) {
	c := shipped(t)
	beads := Beads(c, day("2026-01-01", on("quarters.hind near").reps("accepted@3 accepted@3 accepted@3 accepted@3")), nil, nil)
	require.Len(t, beads, 4)
	assert.Equal(t, []bool{false, false, true, true}, []bool{beads[0].Dip, beads[1].Dip, beads[2].Dip, beads[3].Dip})
}
