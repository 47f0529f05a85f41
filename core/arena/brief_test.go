package arena

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
)

// After days off a ridden horse shows first how soon it settles.
func TestRiddenAfterDaysOff(t *testing.T) {
	c := shipped(t)
	b := Brief{Ladder: "soft", Next: "soft.halt", Worked: "2026-06-01"}
	for _, one := range []struct {
		today   string
		settled Settling
		noPen   bool
		says    string
		ridden  bool
	}{
		{"2026-06-02", Settling{}, false, "", true},
		{"2026-06-03", Settling{}, false, "gate.ridden.ask", true},
		{"2026-06-03", AtOnce, false, "gate.ridden.slow", true},
		{"2026-06-03", NotInFive, false, "gate.ridden.loose", true},
		{"2026-06-03", NotInFive, true, "gate.ridden.not", false},
	} {
		r := Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true, Settled: one.settled, NoPen: one.noPen}
		g, _ := b.Gate(c, one.today, r, true)
		assert.True(t, g.May)
		said := ""
		for _, m := range g.Reasons {
			if m.Key[:min(len(m.Key), 11)] == "gate.ridden" {
				said = m.Key
			}
		}
		assert.Equal(t, one.says, said)
		in := b.Session(c, Beginning{Readiness: r})
		assert.Equal(t, one.ridden, !slices.Contains(in.Blocked, "soft.halt"))
	}
}

// Arousal 3 at the gate leaves the foundations, and the first touch of a horse
// that can't be haltered.
func TestOverTheLineAtTheGate(t *testing.T) {
	c := shipped(t)
	r := Readiness{Arousal: horse.ArousalOf(3), Handler: horse.Calm, Tack: true, Body: true}
	in := Brief{}.Session(c, Beginning{Readiness: r})
	assert.Contains(t, in.Blocked, "load.board")
	assert.Contains(t, in.Blocked, "wild.over")
	assert.NotContains(t, in.Blocked, "wild.pole")
	assert.NotContains(t, in.Blocked, "lead.forward")
	assert.Empty(t, Brief{}.Session(c, Beginning{}).Blocked)
}

// Rest belongs where the horse is wanted: at the trailer, or away from home.
func TestWhatAPlaceIsMostlyMeantFor(t *testing.T) {
	c := shipped(t)
	rests := func(ladder string) map[string]bool {
		l, _ := c.Ladder(ladder)
		all := map[string]bool{}
		for _, p := range PlacesOf(c, l) {
			all[p.Place.String()] = p.Rest
		}
		return all
	}
	assert.Equal(t, map[string]bool{"away": false, "beside left": true, "beside right": true, "at the door": true, "front feet in": true, "in": true}, rests("load"))
	assert.Equal(t, map[string]bool{"near home": false, "companion": false, "away": true}, rests("away"))
}

// Where the work goes on: at the plan's next step, lower after days off, and
// where the trainer wants it.
func TestWhereASessionBegins(t *testing.T) {
	c := shipped(t)
	b := Brief{Ladder: "load", Next: "lead.stand", Worked: "2026-06-01", Input: Input{Known: []Known{
		{Ask: ask("lead.forward"), State: horse.Kept}, {Ask: ask("lead.halt"), State: horse.Met},
	}}}
	ready := Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}
	for today, step := range map[string]string{"2026-06-02": "lead.stand", "2026-06-03": "lead.forward", "2026-06-20": "lead.forward"} {
		_, a := b.Gate(c, today, ready, true)
		assert.Equal(t, step, a.Step, today)
	}
	wanted := ready
	wanted.Asked = ask("lead.stand")
	_, a := b.Gate(c, "2026-06-20", wanted, true)
	assert.Equal(t, "lead.stand", a.Step, "the trainer may want another")
	b.Care = horse.SpecialistOnly
	g, a := b.Gate(c, "2026-06-02", ready, false)
	assert.False(t, g.May)
	assert.True(t, a.IsZero())
	assert.Equal(t, -1, Brief{}.DaysOff("2026-06-02"), "never worked")
}
