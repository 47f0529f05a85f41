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
