package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

const today = "2026-06-01"

func event(kind, on string) Event {
	k, err := horse.ParseWord[eventKinds](kind)
	if err != nil {
		panic(err)
	}
	return Event{Kind: k, On: on}
}

func body(item horse.BodyItem, state horse.BodyState) map[horse.BodyItem]BodyNote {
	return map[horse.BodyItem]BodyNote{item: {State: state}}
}

// met is loading, met with an arousal.
func met(arousal int) map[horse.Problem]Account {
	return map[horse.Problem]Account{horse.Loading: {Baseline: Baseline{Done: true, Arousal: horse.ArousalOf(arousal)}}}
}

func events(kind, on string) map[string]Event { return map[string]Event{"1": event(kind, on)} }

func kept(t testing.TB) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func TestRiskPoints(t *testing.T) {
	stallion, err := horse.ParseWord[sexes]("stallion")
	require.NoError(t, err)
	warning := LookGiven{}.All()[1]
	for name, test := range map[string]struct {
		in     RiskInput
		points int
		care   horse.Care
	}{
		"nothing known":             {RiskInput{}, 0, horse.OrdinaryCare},
		"a narrow place":            {RiskInput{Narrow: true}, 1, horse.OrdinaryCare},
		"reared a month ago":        {RiskInput{Assessment: Assessment{Events: events("reared", "2026-05-01")}}, 3, horse.ExtraCare},
		"twice counts once a kind":  {RiskInput{Assessment: Assessment{Events: events("reared", "2026-05-01")}, Logged: []Event{event("reared", "2026-05-20")}}, 3, horse.ExtraCare},
		"the 90th day still counts": {RiskInput{Logged: []Event{event("bolted", "2026-03-03")}}, 3, horse.ExtraCare},
		"the 91st does not":         {RiskInput{Logged: []Event{event("bolted", "2026-03-02")}}, 0, horse.OrdinaryCare},
		"went over never expires":   {RiskInput{Logged: []Event{event("went over backwards", "2019-01-01")}}, 3, horse.ExtraCare},
		"a bite is 2":               {RiskInput{Logged: []Event{event("bit", "2026-05-20")}}, 2, horse.OrdinaryCare},
		"struck is high care":       {RiskInput{Logged: []Event{event("struck", "2026-05-20")}}, 3, horse.HighCare},
		"arousal 3 is 2":            {RiskInput{Assessment: Assessment{Problems: met(3)}}, 2, horse.OrdinaryCare},
		"arousal 4 is 3":            {RiskInput{Assessment: Assessment{Problems: met(4)}}, 3, horse.ExtraCare},
		"a warning look":            {RiskInput{Assessment: Assessment{Mind: Mind{Look: warning}}}, 2, horse.OrdinaryCare},
		"not when it guards itself": {RiskInput{Record: Record{GuardsItself: true}, Assessment: Assessment{Mind: Mind{Look: warning}}}, 0, horse.OrdinaryCare},
		"gelded five months ago":    {RiskInput{Record: Record{Gelded: "2026-01-01"}}, 1, horse.OrdinaryCare},
		"nine points": {RiskInput{
			Narrow: true, Record: Record{Unhandled: true, Sex: stallion},
			Assessment: Assessment{
				Handlers: map[string]Handler{"1": {Experience: horse.Beginner}}, Body: body(horse.HindLeg, horse.Suspect),
				Problems: met(4),
			},
		}, 9, horse.SpecialistOnly},
		"the ladder's own floor": {RiskInput{Floor: horse.HighCare}, 0, horse.HighCare},
	} {
		t.Run(name, func(t *testing.T) {
			test.in.Today = today
			r, err := RiskOf(test.in)
			require.NoError(t, err)
			assert.Equal(t, test.points, r.Points)
			assert.Equal(t, test.care.String(), r.Care.String())
		})
	}
}

func TestTheGradeFallsSlowly(t *testing.T) {
	quiet := SessionRisk{Care: horse.OrdinaryCare}
	loud := SessionRisk{Care: horse.HighCare, Event: true}
	assert.Equal(t, horse.HighCare, Follow(horse.HighCare, []SessionRisk{quiet, quiet}, horse.OrdinaryCare))
	assert.Equal(t, horse.ExtraCare, Follow(horse.HighCare, []SessionRisk{quiet, quiet, quiet}, horse.OrdinaryCare), "one grade at a time")
	assert.Equal(t, horse.HighCare, Follow(horse.OrdinaryCare, []SessionRisk{quiet, loud, quiet, quiet}, horse.OrdinaryCare), "it rises at once")
	assert.Equal(t, horse.HighCare, Follow(horse.HighCare, []SessionRisk{quiet, quiet, quiet}, horse.HighCare), "never below the points")
}

func TestPrecautionsAddUpAndHaveWords(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	assert.Len(t, Precautions(horse.OrdinaryCare, true), 6)
	assert.Contains(t, Precautions(horse.OrdinaryCare, false), phrase.Of("care.1.5.ground", nil), "nobody may mount it")
	all := Precautions(horse.SpecialistOnly, true)
	assert.Len(t, all, 17)
	for _, m := range all {
		assert.True(t, book.Has(m.Key), m.Key)
	}
	assert.Contains(t, book.Say(all[0]), "lead trainer", "the grade's own come first")
}
