package casefile

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/plan"
	"ivorybridge/core/track"
)

func shipped(t testing.TB) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

// day is a session on a date with reps of one ask, a minute apart.
func day(date string, reps ...track.Rep) track.Day {
	start, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	d := track.Day{Date: date, Started: start.UnixMilli(), Handler: "trainer"}
	for i, r := range reps {
		d.Track = append(d.Track, track.Entry{
			ID: fmt.Sprintf("%s-%d", date, i), Kind: track.KindRep, At: d.Started + int64(i+1)*60_000, Rep: &r,
		})
	}
	return d
}

func good(step string) track.Rep {
	return track.Rep{Ask: horse.Ask{Step: step}, Answer: horse.Accepted, Peak: horse.LevelOf(1), Arousal: horse.ArousalOf(1)}
}

func refused(by string) track.Rep {
	return track.Rep{Ask: horse.Ask{Step: "lead.forward"}, Answer: horse.Refused, Peak: horse.LevelOf(4), Arousal: horse.ArousalOf(1), Handler: by}
}

func kicked() track.Rep {
	r := refused("")
	r.WaysOut = []horse.WayOut{horse.KickedAtPerson}
	return r
}

func input(days ...track.Day) Document {
	return Document{Input: Input{Today: "2026-06-20", Problem: horse.Loading, Ladder: "load", Owners: []string{"owner"}}, Days: days}
}

func looked(change ...func(*assess.Assessment)) assess.Dated {
	a := assess.Assessment{
		Problems: map[horse.Problem]assess.Account{horse.Loading: {Baseline: assess.Baseline{Done: true, Arousal: horse.ArousalOf(1)}}},
		Body:     map[horse.BodyItem]assess.BodyNote{},
	}
	for _, item := range (horse.BodyItem{}).All() {
		a.Body[item] = assess.BodyNote{State: horse.Clear}
	}
	for _, c := range change {
		c(&a)
	}
	return assess.Dated{On: "2026-06-01", Doc: a}
}

func suspectLeg(a *assess.Assessment) {
	a.Body[horse.HindLeg] = assess.BodyNote{State: horse.Suspect}
}

func read(t *testing.T, in Document) *File {
	t.Helper()
	f, err := in.Read(shipped(t))
	require.NoError(t, err)
	return f
}

var ready = arena.Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}

func TestTheGradeRisesAtOnceAndFallsSlowly(t *testing.T) {
	for _, c := range []struct {
		name string
		days []track.Day
		care horse.Care
	}{
		{"nothing logged", nil, horse.OrdinaryCare},
		{"a kick", []track.Day{day("2026-06-10", kicked())}, horse.ExtraCare},
		{
			"long ago, two quiet sessions since",
			[]track.Day{day("2026-02-10", kicked()), day("2026-06-10", good("lead.forward")), day("2026-06-12", good("lead.forward"))},
			horse.ExtraCare,
		},
		{
			"long ago, three quiet sessions since",
			[]track.Day{day("2026-02-10", kicked()), day("2026-06-10", good("lead.forward")), day("2026-06-12", good("lead.forward")), day("2026-06-14", good("lead.forward"))},
			horse.OrdinaryCare,
		},
	} {
		assert.Equal(t, c.care, read(t, input(c.days...)).Risk.Care, c.name)
	}
}

func TestAClearedRearIsNoEvent(t *testing.T) {
	r := refused("")
	r.WaysOut = []horse.WayOut{horse.Reared}
	events := func() []assess.Event {
		return history.Fold(shipped(t), history.Beside{}, []track.Day{day("2026-06-10", r)}).Events()
	}
	require.Len(t, events(), 1)
	r.Flags = []horse.Flag{horse.RearCleared}
	assert.Empty(t, events())
}

func TestTheGateKeepsTheGradesPrecautions(t *testing.T) {
	says := func(g arena.Gate, key string) bool {
		for _, r := range g.Reasons {
			if r.Key == "gate."+key {
				return true
			}
		}
		return false
	}
	high := input()
	high.Assessments = []assess.Dated{looked(func(a *assess.Assessment) {
		a.Events = map[string]assess.Event{}
		for _, k := range []string{"kicked at a person", "struck"} {
			e := assess.Event{On: "2026-06-01"}
			if err := e.Kind.UnmarshalText([]byte(k)); err != nil {
				panic(err)
			}
			a.Events[k] = e
		}
	})}
	f := read(t, high)
	require.Equal(t, horse.HighCare, f.Risk.Care)
	assert.False(t, f.OwnerHandles())
	alone := ready
	alone.Alone = true
	g, ask := f.Brief().Gate(f.Catalog, f.in.Today, alone, true)
	assert.False(t, g.May)
	assert.True(t, says(g, "not_alone"))
	assert.True(t, ask.IsZero(), "nothing may be asked")
	g, ask = f.Brief().Gate(f.Catalog, f.in.Today, ready, true)
	assert.True(t, g.May)
	assert.Equal(t, "lead.forward", ask.Step)

	g, _ = gate(t, input(), alone)
	assert.True(t, g.May && says(g, "bars"), "ordinary care may be alone, but no bar is closed")
	in := f.Brief().Session(f.Catalog, arena.Beginning{Readiness: alone})
	assert.Contains(t, in.Blocked, "load.close")
	assert.NotContains(t, f.Brief().Input.Blocked, "load.close")
}

func TestDaysOffBeginLower(t *testing.T) {
	passed := func(step string, n int) []track.Rep {
		var reps []track.Rep
		for range n {
			reps = append(reps, good(step))
		}
		return reps
	}
	days := []track.Day{
		day("2026-06-10", append(passed("lead.forward", 3), passed("lead.halt", 3)...)...),
		day("2026-06-17", append(passed("lead.forward", 2), passed("lead.halt", 2)...)...),
	}
	in := input(days...)
	in.Today = "2026-06-18"
	_, ask := gate(t, in, ready)
	assert.Equal(t, "lead.back", ask.Step, "a day off: on where it was")
	in.Today = "2026-06-20"
	_, ask = gate(t, in, ready)
	assert.Equal(t, "lead.forward", ask.Step, "three days off: one below the last met, lead.halt")
	wanted := ready
	wanted.Asked = horse.Ask{Step: "lead.stand"}
	_, ask = gate(t, in, wanted)
	assert.Equal(t, "lead.stand", ask.Step, "the trainer may want another")
}

// The trainer's own start overrules: the result, the plan and the gate say the same
// step, and what is passed over is skipped by choice, never seen (part 3).
func TestTheOverruledStartIsWhereAllBegins(t *testing.T) {
	in := input()
	in.Assessments = []assess.Dated{looked(func(a *assess.Assessment) {
		a.Overruled = map[string]assess.Overruling{"start.loading": {To: "load.square", Reason: "it loads for me every week"}}
	})}
	f := read(t, in)
	assert.Equal(t, "load.square", f.Start)
	assert.Equal(t, "load.square", f.Plan().Next)
	_, ask := gate(t, in, ready)
	assert.Equal(t, "load.square", ask.Step)
	for _, i := range f.Plan().Items {
		if i.Step == "load.board" {
			assert.True(t, i.Seen)
			assert.Equal(t, "plan.below.chosen", i.Below.Key)
			assert.Nil(t, i.Known, "nobody saw it")
		}
	}
	in.Assessments = []assess.Dated{looked(suspectLeg, func(a *assess.Assessment) {
		a.Overruled = map[string]assess.Overruling{"start.loading": {To: "load.step", Reason: "it loads for me every week"}}
	})}
	assert.NotEqual(t, "load.step", read(t, in).Plan().Next, "what is blocked is not where it begins")
}

func TestWhatFailedWithTheOwnerIsKnown(t *testing.T) {
	f := read(t, input(day("2026-06-10", refused("owner"), refused("trainer")), day("2026-06-12", good("lead.halt"))))
	h := f.Brief().Input.Handlers["owner"]
	assert.True(t, h.Owner)
	assert.Equal(t, []string{"lead.forward"}, h.Failed)
	ok := good("lead.forward")
	ok.Handler = "owner"
	f = read(t, input(day("2026-06-10", refused("owner"), ok)))
	assert.Empty(t, f.Brief().Input.Handlers["owner"].Failed)
}

func TestWhatWasNotLookedAtIsNotClear(t *testing.T) {
	f := read(t, input())
	h := f.Brief().Input.Horse
	assert.True(t, h.FearLikely)
	assert.False(t, h.BodyClear)
	in := input()
	in.Assessments = []assess.Dated{looked()}
	h = read(t, in).Brief().Input.Horse
	assert.False(t, h.FearLikely)
	assert.True(t, h.BodyClear)
}

func TestAttention(t *testing.T) {
	keys := func(f *File) []string {
		var list []string
		for _, n := range f.Attention() {
			list = append(list, n.Say.Key)
			assert.True(t, phrase.English(phrase.Shipped).Has(n.Say.Key), n.Say.Key)
		}
		return list
	}
	assert.Equal(t, []string{"attention.not_assessed"}, keys(read(t, input())))
	in := input(day("2026-06-01", kicked()))
	in.Assessments, in.NeededBy = []assess.Dated{looked(suspectLeg)}, "2026-06-25"
	f := read(t, in)
	assert.Equal(t, []string{"attention.incident", "attention.referral.late", "attention.forecast", "attention.quiet"}, keys(f))
	assert.NotEmpty(t, f.Blocks)
	in.Finished = "2026-06-19"
	assert.Empty(t, keys(read(t, in)))
}

func TestAnUnknownLadderIsRefused(t *testing.T) {
	in := input()
	in.Ladder = "flying"
	_, err := in.Read(shipped(t))
	assert.ErrorContains(t, err, "flying")
}

// A blocked step is never proposed to begin with, whatever was logged.
func TestTheGateNeverProposesABlockedStep(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		in := input()
		if rapid.Bool().Draw(t, "leg") {
			in.Assessments = []assess.Dated{looked(suspectLeg)}
		}
		steps := []string{"lead.forward", "lead.halt", "lead.back", "head.down", "load.board", "load.front", "load.step", "load.close"}
		for i := range rapid.IntRange(0, 4).Draw(t, "sessions") {
			var reps []track.Rep
			for range rapid.IntRange(0, 8).Draw(t, "reps") {
				r := good(rapid.SampledFrom(steps).Draw(t, "step"))
				r.Answer = rapid.SampledFrom((horse.Answer{}).All()).Draw(t, "answer")
				reps = append(reps, r)
			}
			in.Days = append(in.Days, day(fmt.Sprintf("2026-06-%02d", i*4+1), reps...))
		}
		f, err := in.Read(c)
		require.NoError(t, err)
		r := ready
		r.Alone = rapid.Bool().Draw(t, "alone")
		r.Arousal = horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "arousal"))
		g, ask := f.Brief().Gate(f.Catalog, f.in.Today, r, true)
		if !g.May {
			assert.True(t, ask.IsZero())
			return
		}
		assert.NotContains(t, f.Brief().Session(f.Catalog, arena.Beginning{Readiness: r}).Blocked, ask.Step)
		step, ok := c.Step(ask.Step)
		require.True(t, ok, "something is always open here")
		if ladder, _ := c.Ladder(step.Ladder); g.Foundations {
			assert.Equal(t, catalog.Foundation, ladder.Kind)
		}
	})
}

// Each ladder is advised in its own school, as planned.
func TestEachLadderIsAdvisedInItsSchool(t *testing.T) {
	in := input()
	in.Ladder, in.Problem = "saddle", horse.Saddling
	a := looked()
	a.Doc.Problems[horse.Saddling] = assess.Account{Baseline: assess.Baseline{Reached: "saddle.pad"}}
	in.Assessments = []assess.Dated{a}
	f := read(t, in)
	advice := f.Brief().Session(f.Catalog, arena.Beginning{})
	assert.Equal(t, horse.AskAndListen, advice.Schools["saddle"])
	assert.Equal(t, horse.Doses, advice.Schools["zones"])
	assert.Equal(t, horse.BuildAndRelease, advice.Schools["lead"])
	assert.Equal(t, horse.ReliefPlace, advice.Schools["load"])
	assert.NotContains(t, advice.Blocked, "saddle.pad")
	in.Choices.Schools = map[string]horse.School{"saddle": horse.Doses}
	assert.Equal(t, horse.Doses, read(t, in).Schools()["saddle"])
}

func TestDangerThatDoesNotChangeIsReferred(t *testing.T) {
	days := []track.Day{day("2026-06-10", kicked()), day("2026-06-12", kicked()), day("2026-06-14", kicked())}
	f := read(t, input(days[:2]...))
	assert.Empty(t, f.Result.Referrals)
	f = read(t, input(days...))
	require.Len(t, f.Result.Referrals, 1)
	assert.Equal(t, []string{"aggression", "specialist", "2026-06-21"}, []string{f.Result.Referrals[0].Key, f.Result.Referrals[0].Who, f.Result.Referrals[0].Due})
	assert.Empty(t, read(t, input(append(days, day("2026-06-16", good("lead.forward")))...)).Result.Referrals, "a quiet session is a change")
}

func TestChecksOfATreatmentWantAttention(t *testing.T) {
	in := input()
	days := 28
	in.Assessments = []assess.Dated{looked(func(a *assess.Assessment) {
		a.Body[horse.Belly] = assess.BodyNote{State: horse.InTreatment, Begun: "2026-06-01", Days: &days}
	})}
	notes := read(t, in).Attention()
	require.NotEmpty(t, notes)
	assert.Contains(t, phrase.English(phrase.Words{}).Say(notes[0].Say), "was due 15 June 2026 and is not written down", "day 14 was the 15th, today is the 20th")
	in.Today = "2026-06-10"
	for _, n := range read(t, in).Attention() {
		assert.NotContains(t, n.Say.Key, "recheck")
	}
}

func gate(t *testing.T, in Document, r arena.Readiness) (arena.Gate, horse.Ask) {
	t.Helper()
	f := read(t, in)
	return f.Brief().Gate(f.Catalog, in.Today, r, true)
}

func TestWhatThePagesSayFirst(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	next := func(in Document) string { return book.Say(read(t, in).Headline().Says) }
	assert.Equal(t, "Look before you plan.", next(input()))
	in := input()
	in.Assessments = []assess.Dated{looked()}
	assert.Equal(t, "Next: lead forward.", next(in))
	worked := input(day("2026-06-10", good("load.board")))
	assert.Equal(t, "Next: lead forward.", next(worked), "worked, and never assessed")
	in.Finished = "2026-06-19"
	assert.Equal(t, "The work is finished.", next(in))
}

func TestTheBridgesOfAllProblems(t *testing.T) {
	in := input()
	in.Assessments = []assess.Dated{looked(func(a *assess.Assessment) {
		*a = a.About(horse.Girth, horse.Crowding)
	})}
	ladders := func(in Document) (beside, all []string) {
		f := read(t, in)
		for _, b := range f.Beside() {
			beside = append(beside, b.Ladder)
		}
		for _, b := range f.Bridges() {
			all = append(all, b.Ladder)
		}
		return beside, all
	}
	beside, all := ladders(in)
	assert.ElementsMatch(t, []string{"saddle", "crowd"}, beside, "the case's own is not beside itself")
	assert.ElementsMatch(t, []string{"load", "saddle", "crowd"}, all)
	in.Choices.Goals = map[horse.Problem]plan.Wanted{horse.Crowding: {Later: true}}
	beside, all = ladders(in)
	assert.Equal(t, []string{"saddle"}, beside, "what is left for later is drawn nowhere")
	assert.ElementsMatch(t, []string{"load", "saddle"}, all)
}

// Each plank's own pier is a step that the plan knows it waits for, and what stops
// the work is read aloud well, whatever was found.
func TestSnagsReadWell(t *testing.T) {
	c := shipped(t)
	book := phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		in := Document{Input: Input{Today: "2026-06-20", Problem: rapid.SampledFrom((horse.Problem{}).All()).Draw(t, "problem"), Owners: []string{"owner"}}}
		if _, ok := c.LadderFor(in.Problem); !ok {
			t.Skip("no ladder is for it")
		}
		a := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{}}.About(in.Problem)
		for _, item := range (horse.BodyItem{}).All() {
			a.Body[item] = assess.BodyNote{State: rapid.SampledFrom((horse.BodyState{}).All()).Draw(t, item.String())}
		}
		in.Assessments = []assess.Dated{{On: "2026-06-01", Doc: a}}
		f, err := in.Read(c)
		require.NoError(t, err)
		snags := f.Snags()
		require.Empty(t, aloud.Faults(book, snags))
		require.Empty(t, aloud.Faults(book, f.Headline()))
		require.Empty(t, aloud.Faults(book, f.Result.Gate))
		rank := 0
		for _, s := range snags {
			assert.GreaterOrEqual(t, s.Kind.Rank(), rank)
			rank = s.Kind.Rank()
			assert.Equal(t, s.Does == nil, s.Act.IsZero())
		}
	})
}
