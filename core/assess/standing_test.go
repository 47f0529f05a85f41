package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Care comes round by its date alone: what has none is not guessed.
func TestCareThatComesRound(t *testing.T) {
	whole := Assessment{
		Checkups: Checkups{Dental: "2026-01-31", Back: "2026-01-01", Hoof: "2026-05-01"},
		Body:     map[horse.BodyItem]BodyNote{horse.SaddleFit: {State: horse.Cleared, ClearedOn: "2026-02-10"}},
	}
	of := func(a Assessment, r Record, today string) map[string]string {
		due := map[string]string{}
		for _, x := range Rounds(a, r, today) {
			due[x.Kind] = x.Due
		}
		return due
	}
	assert.Equal(t, map[string]string{"hooves": "2026-06-26", "saddle": "2026-08-10", "teeth": "2027-01-31", "gelding": "2026-06-02"},
		of(whole, Record{Gelded: "2025-12-02"}, "2026-06-02"))
	assert.NotContains(t, of(whole, Record{Gelded: "2025-12-02"}, "2026-06-03"), "gelding", "its day has passed, and with it what it was for")
	assert.Empty(t, of(Assessment{Body: map[horse.BodyItem]BodyNote{horse.SaddleFit: {State: horse.Clear, ClearedOn: "2026-02-10"}}}, Record{}, "2026-06-01"))
	assert.Empty(t, of(Assessment{Checkups: Checkups{Dental: "in spring"}}, Record{}, "2026-06-01"))
	for state, due := range map[horse.BodyState]string{
		horse.NotLookedAt: "2027-01-31", horse.Clear: "2027-01-31", horse.Suspect: "2026-07-31", horse.InTreatment: "2026-07-31", horse.Cleared: "2026-07-31",
	} {
		a := Assessment{Checkups: Checkups{Dental: "2026-01-31"}, Body: map[horse.BodyItem]BodyNote{horse.Mouth: {State: state}}}
		assert.Equal(t, due, of(a, Record{}, "2026-06-01")["teeth"], state.String())
	}
	rounds := Rounds(whole, Record{}, "2026-06-01")
	assert.Equal(t, "hooves", rounds[0].Kind, "the earliest first")
	assert.Equal(t, "Feet to be seen to again: they were last on 1 May.", phrase.English(phrase.Words{}).Say(rounds[0].Says))
}
