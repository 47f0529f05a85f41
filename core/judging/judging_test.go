package judging_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

func shipped(t *testing.T) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func bridling() judging.Facts {
	return judging.Facts{Today: "2026-06-20", Problem: horse.Bridling, Ladder: "bridle"}
}

func of(t *testing.T, f judging.Facts) *judging.Judged {
	t.Helper()
	j, err := judging.Of(shipped(t), f)
	require.NoError(t, err)
	return j
}

// day is a session on a day with events of a kind.
func day(t *testing.T, on string, kinds ...string) history.Day {
	t.Helper()
	d := history.Day{On: on}
	for _, k := range kinds {
		var kind assess.EventKind
		require.NoError(t, kind.UnmarshalText([]byte(k)))
		d.Events = append(d.Events, kind)
	}
	return d
}

func TestWhatWasNotLookedAtIsNotClear(t *testing.T) {
	j := of(t, bridling())
	assert.Empty(t, j.Assessed)
	assert.True(t, j.MayBeAfraid(), "a problem never asked may be fear")
	assert.False(t, j.Unafraid())
	assert.True(t, j.Fitting.Afraid)
	assert.Equal(t, horse.OrdinaryCare, j.Risk.Care)
	assert.True(t, j.OwnerHandles())
	assert.Equal(t, horse.Bridling, j.Problem().Problem)
	assert.Empty(t, j.Levels())
}

func TestTheLadderIsTheCasesAsChosen(t *testing.T) {
	c, f := shipped(t), bridling()
	l, ok := f.LadderOf(c, horse.Bridling)
	require.True(t, ok)
	assert.Equal(t, "bridle", l.Key)
	usual, ok := f.LadderOf(c, horse.Loading)
	require.True(t, ok)
	assert.Equal(t, "load", usual.Key)
	f.Choices.Goals = map[horse.Problem]plan.Wanted{horse.Loading: {Ladder: "zones"}}
	other, ok := f.LadderOf(c, horse.Loading)
	require.True(t, ok)
	assert.Equal(t, "zones", other.Key)
	f.Assessments = []assess.Dated{{On: "2026-06-01", Doc: assess.Assessment{Problems: map[horse.Problem]assess.Account{horse.Loading: {}}}}}
	assert.Contains(t, of(t, f).Fitting.Ladders, "zones")
	f.Choices.Goals[horse.Loading] = plan.Wanted{Ladder: "zones", Later: true}
	assert.NotContains(t, of(t, f).Fitting.Ladders, "zones", "what is left for later is not fitted to")
}

// Danger in each of the last three sessions, and nothing has changed: a
// specialist is asked. Two do not ask, nor three with a quiet one between.
func TestThreeDangerousSessionsAskForOthers(t *testing.T) {
	asks := func(days ...history.Day) int {
		f := bridling()
		before := len(of(t, f).Result.Referrals)
		f.History.Days = days
		return len(of(t, f).Result.Referrals) - before
	}
	d1, d2, d3 := day(t, "2026-06-01", "reared"), day(t, "2026-06-05", "bit"), day(t, "2026-06-09", "reared")
	assert.Equal(t, 0, asks(d1, d2))
	assert.Equal(t, 1, asks(d1, d2, d3))
	assert.Equal(t, 0, asks(d1, d2, day(t, "2026-06-07"), d3))
	assert.Equal(t, 1, asks(day(t, "2026-05-20"), d1, d2, d3))
}

// The grade falls one at a time, after three sessions without an event.
func TestCareFallsOneGradeAtATime(t *testing.T) {
	f := bridling()
	care := func(days ...history.Day) horse.Care {
		f.History.Days = days
		return of(t, f).Risk.Care
	}
	struck := day(t, "2026-01-10", "struck")
	quiet := func(n int) []history.Day {
		days := []history.Day{struck}
		for i := range n {
			days = append(days, day(t, fmt.Sprintf("2026-05-%02d", 10+i)))
		}
		return days
	}
	high := care(quiet(0)...)
	assert.Equal(t, high, care(quiet(2)...))
	assert.Equal(t, high.Rank()-1, care(quiet(3)...).Rank())
}

func TestAnExceptionNeedsTheControlsInHand(t *testing.T) {
	f := bridling()
	f.Record = assess.Record{Born: "2025-01-01"}
	f.Choices.Exception = &plan.Exception{Reason: "light and well grown", Until: "2026-06-20"}
	f.Assessments = []assess.Dated{{On: "2026-06-01", Doc: assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{}, Basics: map[string]assess.Basic{}}}}
	for _, item := range (horse.BodyItem{}).All() {
		f.Assessments[0].Doc.Body[item] = assess.BodyNote{State: horse.Clear}
	}
	for _, key := range []string{"ridden.mount", "ridden.halt"} {
		f.Assessments[0].Doc.Basics[key] = assess.Basic{Level: horse.LevelOf(1), Grade: horse.Accepted, Anew: true}
	}
	excepted := func() bool { return of(t, f).Barring.Exception }
	assert.False(t, excepted())
	assert.Equal(t, []string{"control.flex", "control.disengage"}, of(t, f).Awaited["control.trot"], "the controls in hand lift it, in a session too")
	controls := shipped(t).With(catalog.ControlInHand)
	require.Len(t, controls, 2)
	for _, s := range controls {
		assert.False(t, excepted(), "not before every one is met")
		for _, a := range s.Asks() {
			k := history.Ask{}
			k.Ask, k.State = a, horse.Met
			f.History.Asks = append(f.History.Asks, k)
		}
	}
	assert.True(t, excepted(), "on its last day")
	assert.Empty(t, of(t, f).Awaited)
	f.Today = "2026-06-21"
	assert.False(t, excepted(), "and not after it")
}

func TestWhatAnAssessmentSawIsOfTheDayItWasFirstSeen(t *testing.T) {
	saw := func(way string) assess.Assessment {
		var w horse.WayOut
		require.NoError(t, w.UnmarshalText([]byte(way)))
		return assess.Assessment{Ways: map[string][]horse.WayOut{"C": {w}}}
	}
	f := bridling()
	f.Assessments = []assess.Dated{{On: "2026-06-01", Doc: saw("reared")}, {On: "2026-06-10", Doc: saw("reared")}}
	assert.Len(t, f.SeenOn("2026-06-01"), 1)
	assert.Empty(t, f.SeenOn("2026-06-10"), "it stood there before")
}

func ExampleOf() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	j, err := judging.Of(c, judging.Facts{
		Today: "2026-06-20", Problem: horse.Girth, Ladder: "girth",
		Assessments: []assess.Dated{{On: "2026-06-20", Doc: assess.Assessment{
			Body: map[horse.BodyItem]assess.BodyNote{horse.Back: {State: horse.Suspect}},
		}}},
	})
	if err != nil {
		panic(err)
	}
	fmt.Println(j.Risk.Care, "and", len(j.Result.Referrals), "to look first")
	// Output: ordinary care and 1 to look first
}

// What is open on the body at the gate: suspect, in treatment, or bearing on the
// problem and looked at by nobody; nothing else is listed.
func TestOnlyWhatIsOpenOfTheBodyIsAskedAtTheGate(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	says := func(body map[horse.BodyItem]assess.BodyNote) []string {
		f := bridling()
		f.Assessments = []assess.Dated{{On: "2026-06-01", Doc: assess.Assessment{Body: body}}}
		said := []string{}
		for _, m := range of(t, f).OpenOnBody() {
			said = append(said, book.Say(m))
		}
		return said
	}
	clear := assess.BodyNote{State: horse.Clear}
	all := map[horse.BodyItem]assess.BodyNote{}
	for _, item := range (horse.BodyItem{}).All() {
		all[item] = clear
	}
	assert.Empty(t, says(all))
	all[horse.Mouth] = assess.BodyNote{State: horse.Suspect, Since: "2026-05-20"}
	all[horse.Back] = assess.BodyNote{State: horse.InTreatment, Begun: "2026-05-28"}
	delete(all, horse.FeetLegs) // bears on nothing here
	assert.Equal(t, []string{"mouth and teeth: suspect, since 20 May 2026", "back: in treatment, since 28 May 2026"}, says(all))
	delete(all, horse.Mouth)
	assert.Equal(t, []string{"mouth and teeth: not looked at", "back: in treatment, since 28 May 2026"}, says(all))
}
