package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func day(date string, s *script) track.Day { return track.Day{Date: date, Track: s.track} }

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
	c := shipped(t)
	bump := on("load.front").mark(0, track.Mark{Bump: true})
	assert.True(t, ReadDay(c, track.Day{Track: bump.reps("accepted@3").track}, nil, nil).Bumped)
	assert.False(t, ReadDay(c, track.Day{Track: bump.reps("accepted@3").track}, nil, nil).Bumped)
}

func TestBeadsCountAndMarkDips(t *testing.T) {
	c := shipped(t)
	beads := Beads(c, day("2026-01-01", on("quarters.hind near").reps("accepted@3 accepted@3 accepted@3 accepted@3")), nil, nil)
	require.Len(t, beads, 4)
	assert.Equal(t, []bool{false, false, true, true}, []bool{beads[0].Dip, beads[1].Dip, beads[2].Dip, beads[3].Dip})
}
