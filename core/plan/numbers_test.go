package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Both sides of the numbers of part 7 that no worked case stands on.

func TestNumbersOfChoices(t *testing.T) {
	c := shipped(t)
	wrong := func(choices Choices) bool { return len(choices.Check(c, "2026-06-01")) > 0 }
	for n, want := range map[int]bool{-1: true, 0: false, 14: false, 15: true} {
		assert.Equal(t, want, wrong(Choices{PerWeek: &n}), "%d visits", n)
		assert.Equal(t, want, wrong(Choices{Homework: n}), "%d homework sessions", n)
	}
}

func TestNumbersOfAForecast(t *testing.T) {
	for days, want := range map[int]float64{91: 1, 92: 0.85, 730: 0.85, 731: 0.75, 1825: 0.75, 1826: 0.5} {
		assert.InDelta(t, want, habitFactor(days), 1e-9, "%d days", days)
	}
	for p, want := range map[float64]string{
		0.85: "on course", 0.8499: "likely", 0.6: "likely", 0.5999: "in doubt", 0.3: "in doubt", 0.2999: "unlikely",
	} {
		assert.Equal(t, want, WordFor(p), "%v", p)
	}
	assert.Equal(t, []int{85, 0, 100, 50}, []int{percent(0.85), percent(0.0049), percent(1), percent(0.495)})
	assert.Equal(t, 1.5, Work{}.rate(), "what is expected before anything is logged")
	assert.InDelta(t, 4.5, Work{}.a(), 1e-9, "three sessions of it")
	assert.InDelta(t, 3.4, Work{Practised: 1}.b(), 1e-9, "a homework session counts 0.4")
	assert.Equal(t, []int{0, 1, 1, 2}, []int{visitsIn(6, 1), visitsIn(7, 1), visitsIn(13, 1), visitsIn(7, 2)})
	work := func(edit func(*Work)) error {
		w := Work{Today: "2026-06-01", Remaining: 5}
		edit(&w)
		return w.Check()
	}
	for name, set := range map[string]struct {
		most int
		put  func(*Work, int)
	}{
		"remaining": {1000, func(w *Work, n int) { w.Remaining = n }}, "met": {100_000, func(w *Work, n int) { w.Met = n }},
		"slips": {100_000, func(w *Work, n int) { w.Slips = n }}, "sessions": {100_000, func(w *Work, n int) { w.Sessions = n }},
		"homework sessions": {100_000, func(w *Work, n int) { w.Practised = n }}, "visits": {14, func(w *Work, n int) { w.PerWeek = n }},
		"homework": {14, func(w *Work, n int) { w.Homework = n }},
	} {
		assert.NoError(t, work(func(w *Work) { set.put(w, set.most) }), name)
		assert.Error(t, work(func(w *Work) { set.put(w, set.most+1) }), name)
		assert.Error(t, work(func(w *Work) { set.put(w, -1) }), name)
	}
	assert.NoError(t, work(func(w *Work) { w.Rate = 10 }))
	assert.Error(t, work(func(w *Work) { w.Rate = 10.01 }))
	assert.NoError(t, work(func(w *Work) { w.StepsToGo = []Step{{Units: 10}} }))
	assert.Error(t, work(func(w *Work) { w.StepsToGo = []Step{{Units: 10.01}} }))
	assert.Error(t, work(func(w *Work) { w.Earned = -0.1 }))
}

func TestNumbersOfAVisit(t *testing.T) {
	c := shipped(t)
	cleared := []clearance.State{{Person: "ines", Step: "lead.forward", Rehearsed: true}}
	p, ok := Build(c, Input{Goals: goal("load", ""), Known: all(c, horse.Kept, 1, foundations...), Visits: 1, Cleared: cleared, Facts: Facts{OwnerMay: true}, RepSeconds: 60})
	require.True(t, ok)
	minutes := map[PartKind]int{}
	for _, part := range p.Visits[0].Parts {
		minutes[part.Kind] += part.Minutes
	}
	assert.Equal(t, 1, minutes[Readiness])
	assert.Equal(t, 5, minutes[TuneIn], "what is kept is tuned in for five minutes")
	assert.Equal(t, 3, minutes[EasyEnd])
	assert.Equal(t, 5, minutes[OwnersTurn])
	b := builder{in: Input{RepSeconds: 40}, cat: c}
	step := catalog.Step{Pass: catalog.Pass{Run: 3}}
	assert.Equal(t, 3, b.minutes(step), "a run of three and half again, at 40 s: three minutes")
	b.in.RepSeconds = 41
	assert.Equal(t, 4, b.minutes(step))
	b.in.RepSeconds = 0
	assert.Equal(t, 7, b.minutes(step), "90 s before its own pace is known")
	for key, want := range map[string]int{"lead.forward": 3, "zones.hand": 14, "bridle.bit": 12} {
		step, _ := c.Step(key)
		assert.Equal(t, want, b.minutes(step), key)
	}
	hand, _ := c.Step("zones.hand")
	b.known = map[horse.Ask]arena.Known{}
	for _, k := range all(c, horse.Met, 1, "zones.hand")[:4] {
		b.known[k.Ask] = k
	}
	assert.Equal(t, 5, b.minutes(hand), "only its asks that are not met yet")
}

// A visit is filled to the length that the trainer drives for, within the session
// cap; several foundations in one are ordinary.
func TestAVisitIsFilled(t *testing.T) {
	c := shipped(t)
	p, _ := Build(c, Input{Goals: goal("load", ""), Visits: 2})
	first := p.Visits[0]
	assert.LessOrEqual(t, first.Minutes, c.Rules.SessionCap)
	var worked []string
	for _, part := range first.Parts {
		worked = append(worked, part.Steps...)
	}
	assert.Subset(t, worked, []string{"lead.forward", "lead.back", "head.down", "quarters.hind"}, "not one foundation a visit")
	p, _ = Build(c, Input{Goals: goal("load", ""), Visits: 1, Choices: Choices{Minutes: 20}})
	assert.LessOrEqual(t, p.Visits[0].Minutes, 20)
	assert.Equal(t, 45, Choices{}.Length())
}

func TestNumbersOfHomework(t *testing.T) {
	feel := func(level int) string {
		m := good(catalog.Step{Pass: catalog.Pass{Run: 3, Level: level}}, phrase.Args{})
		return m.Args["feel"].(phrase.Message).Key
	}
	assert.Equal(t, []string{"feel.light", "feel.medium", "feel.medium", "feel.firm"}, []string{feel(3), feel(4), feel(6), feel(7)})
	c := shipped(t)
	met := []string{"lead.forward", "lead.halt", "lead.stand", "lead.back"}
	in := Input{Goals: goal("load", ""), Known: all(c, horse.Met, 1, met...)}
	for _, key := range met {
		in.Cleared = append(in.Cleared, clearance.State{Person: "ines", Step: key, Cleared: true})
	}
	p, _ := Build(c, in)
	card := HomeworkFor(c, p, in.Choices, "ines", phrase.Args{})
	assert.Len(t, card.Steps, 3, "ten to fifteen minutes")
	assert.Len(t, card.Remember, 2)
}
