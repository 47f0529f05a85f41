package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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

func body(item horse.BodyItem, state horse.BodyState) []BodyNote {
	return []BodyNote{{Item: item, State: state}}
}

func TestRiskPoints(t *testing.T) {
	stallion, err := horse.ParseWord[sexes]("stallion")
	require.NoError(t, err)
	for name, test := range map[string]struct {
		in     RiskInput
		points int
		care   horse.Care
	}{
		"nothing known":             {RiskInput{}, 0, horse.OrdinaryCare},
		"a narrow place":            {RiskInput{Narrow: true}, 1, horse.OrdinaryCare},
		"reared a month ago":        {RiskInput{Assessment: Assessment{Events: []Event{event("reared", "2026-05-01")}}}, 3, horse.ExtraCare},
		"twice counts once a kind":  {RiskInput{Assessment: Assessment{Events: []Event{event("reared", "2026-05-01")}}, Logged: []Event{event("reared", "2026-05-20")}}, 3, horse.ExtraCare},
		"the 90th day still counts": {RiskInput{Logged: []Event{event("bolted", "2026-03-03")}}, 3, horse.ExtraCare},
		"the 91st does not":         {RiskInput{Logged: []Event{event("bolted", "2026-03-02")}}, 0, horse.OrdinaryCare},
		"went over never expires":   {RiskInput{Logged: []Event{event("went over backwards", "2019-01-01")}}, 3, horse.ExtraCare},
		"a bite is 2":               {RiskInput{Logged: []Event{event("bit", "2026-05-20")}}, 2, horse.OrdinaryCare},
		"struck is high care":       {RiskInput{Logged: []Event{event("struck", "2026-05-20")}}, 3, horse.HighCare},
		"arousal 3 is 2":            {RiskInput{Assessment: Assessment{Baseline: Baseline{Arousal: horse.ArousalOf(3)}}}, 2, horse.OrdinaryCare},
		"arousal 4 is 3":            {RiskInput{Assessment: Assessment{Baseline: Baseline{Arousal: horse.ArousalOf(4)}}}, 3, horse.ExtraCare},
		"a warning look":            {RiskInput{Assessment: Assessment{Baseline: Baseline{WarnedLook: true}}}, 2, horse.OrdinaryCare},
		"not when it guards itself": {RiskInput{Record: Record{GuardsItself: true}, Assessment: Assessment{Baseline: Baseline{WarnedLook: true}}}, 0, horse.OrdinaryCare},
		"gelded five months ago":    {RiskInput{Record: Record{Gelded: "2026-01-01"}}, 1, horse.OrdinaryCare},
		"nine points": {RiskInput{
			Narrow: true, Record: Record{Unhandled: true, Sex: stallion},
			Assessment: Assessment{
				Story: Story{HandlerIs: "beginner"}, Body: body(horse.HindLeg, horse.Suspect),
				Baseline: Baseline{Arousal: horse.ArousalOf(4)},
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
	assert.Len(t, Precautions(horse.OrdinaryCare), 6)
	all := Precautions(horse.SpecialistOnly)
	assert.Len(t, all, 17)
	for _, m := range all {
		assert.True(t, book.Has(m.Key), m.Key)
	}
	assert.Contains(t, book.Say(all[0]), "lead trainer", "the grade's own come first")
}

func TestSuspectBodyBlocksAndRefers(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	a := Assessment{Body: body(horse.HindLeg, horse.Suspect)}
	blocks := Blocks(c, a)
	require.NotEmpty(t, blocks)
	assert.Equal(t, "load.step", blocks[0].Step)
	assert.Len(t, blocks, 8, "load.step and up")
	assert.Equal(t, map[string]int{"lead.back": 1}, Limits(a))
	assert.Equal(t, "vet", Referrals(a)[0].Who)
	assert.Empty(t, Blocks(c, Assessment{Body: body(horse.HindLeg, horse.Cleared)}))
	assert.Empty(t, Blocks(c, Assessment{}), "not looked at blocks nothing")
}

func TestNotLookedAtIsNotClear(t *testing.T) {
	assert.False(t, Assessment{}.BodyClear(horse.Loading))
	var all Assessment
	for _, item := range []horse.BodyItem{horse.FeetLegs, horse.HindLeg, horse.Balance, horse.Eyes} {
		all.Body = append(all.Body, BodyNote{Item: item, State: horse.Clear})
	}
	assert.True(t, all.BodyClear(horse.Loading))
	assert.Len(t, Assessment{}.Unlooked(), 13)
}

func TestWhereToStart(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	for name, test := range map[string]struct {
		reached string
		arousal int
		body    []BodyNote
		want    string
	}{
		"nothing reached":         {"", 1, nil, "load.board"},
		"after the last accepted": {"load.gap", 1, nil, "load.square"},
		"one lower at 2":          {"load.gap", 2, nil, "load.gap"},
		"two lower at 3":          {"load.gap", 3, nil, "load.bridge"},
		"never below the first":   {"", 4, nil, "load.board"},
		"never on a blocked step": {"load.step", 1, body(horse.Balance, horse.InTreatment), "load.front"},
	} {
		t.Run(name, func(t *testing.T) {
			got, ok := Start(c, "load", Assessment{Body: test.body, Baseline: Baseline{Done: true, Reached: test.reached, Arousal: horse.ArousalOf(test.arousal)}})
			assert.True(t, ok)
			assert.Equal(t, test.want, got)
		})
	}
}

func TestWhatCantBe(t *testing.T) {
	assert.Empty(t, Record{Born: "2015-04-02", Gelded: "2017-01-01"}.Check(today))
	assert.ErrorContains(t, Record{Born: "2027-01-01"}.Check(today)[0], "in the future")
	assert.ErrorContains(t, Record{Born: "2015-04-02", Arrived: "2014-01-01"}.Check(today)[0], "before the horse was born")
	assert.ErrorContains(t, Record{Born: "1066-10-14"}.Check(today)[0], "that old")
	two, nine := 2, 9
	assert.ErrorContains(t, Assessment{Story: Story{Tries: &two, Successes: &nine}}.Check(today)[0], "9 went well of 2 tries")
	assert.True(t, Record{Born: "2024-04-02"}.Young(today) && Record{Rides: &nine}.Young(today) && !Record{Born: "2015-04-02"}.Young(today))
}
