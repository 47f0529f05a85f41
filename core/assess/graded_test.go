package assess

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
)

// The grade over many days is that of each day by itself, with all that was
// logged up to it.
func TestTheGradeOverManyDays(t *testing.T) {
	kinds := EventKind{}.All()
	require.Len(t, kinds, eventsKnown)
	rapid.Check(t, func(t *rapid.T) {
		day := func(n int) string { return fmt.Sprintf("2026-%02d-%02d", 1+n/28, 1+n%28) }
		draw := func(what string, most int) int { return rapid.IntRange(0, most).Draw(t, what) }
		g := Graded{Floor: rapid.SampledFrom(horse.Care{}.All()).Draw(t, "floor"), Narrow: rapid.Bool().Draw(t, "narrow")}
		g.Record = Record{Sex: rapid.SampledFrom(Sex{}.All()).Draw(t, "sex"), Unhandled: rapid.Bool().Draw(t, "unhandled"), Gelded: rapid.SampledFrom([]string{"", "2025-11-03", "2026-02-01"}).Draw(t, "gelded")}
		var dated []Event
		at := 0
		for range draw("assessments", 3) {
			at += 1 + draw("later", 60)
			a := Assessment{NotYet: rapid.Bool().Draw(t, "not yet"), Ways: map[string][]horse.WayOut{}, Events: map[string]Event{}}
			if rapid.Bool().Draw(t, "seen") {
				a.Ways["D"] = []horse.WayOut{rapid.SampledFrom(horse.WayOut{}.All()).Draw(t, "way")}
			}
			if rapid.Bool().Draw(t, "told") {
				a.Events["a"] = Event{Kind: rapid.SampledFrom(kinds).Draw(t, "kind"), On: rapid.SampledFrom([]string{"", day(draw("on", 300))}).Draw(t, "told on")}
			}
			g.Assessments, g.On = append(g.Assessments, a), append(g.On, day(at))
		}
		var days []WorkedDay
		for n := draw("first", 30); n < 300 && len(days) < 12; n += draw("gap", 60) {
			d := WorkedDay{On: day(n)}
			for range draw("events", 2) {
				d.Events = append(d.Events, rapid.SampledFrom(kinds).Draw(t, "logged"))
			}
			days = append(days, d)
		}
		got, err := g.Over(days)
		require.NoError(t, err)
		var logged []Event
		for i, d := range days {
			for _, k := range d.Events {
				logged = append(logged, Event{Kind: k, On: d.On})
			}
			in := RiskInput{Today: d.On, Record: g.Record, Narrow: g.Narrow, Floor: g.Floor, Logged: append(append([]Event{}, logged...), dated...)}
			var before Assessment
			for j, a := range g.Assessments {
				if j == 0 || g.On[j] <= d.On {
					in.Assessment = a
					in.Logged = append(in.Logged, a.Seen(before, g.On[j])...)
				}
				before = a
			}
			want, err := RiskOf(in)
			require.NoError(t, err)
			assert.Equal(t, want.Care, got[i].Care, "%s", d.On)
			assert.Equal(t, len(d.Events) > 0, got[i].Event)
		}
	})
	_, err := Graded{}.Over([]WorkedDay{{On: "no day"}})
	assert.ErrorContains(t, err, "no day")
}
