package casefile

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/track"
)

// drawCatalog draws ladders of steps that need others at random, without
// circles, in place of the shipped ones: some ladders for every problem drawn.
func drawCatalog(t *rapid.T, shipped *catalog.Catalog) *catalog.Catalog {
	var ladders []catalog.Ladder
	var keys []string
	for i := range rapid.IntRange(2, 6).Draw(t, "ladders") {
		l := catalog.Ladder{
			Key: fmt.Sprintf("l%d", i), Name: "l", Kind: catalog.Foundation, Where: "here", Rate: 0.8,
			Schools: []horse.School{rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")},
		}
		if i > 0 && rapid.Bool().Draw(t, "problem") || i == 1 {
			l.Kind, l.For = catalog.Problem, []horse.Problem{horse.Loading, horse.Bridling}[:1+i%2]
		}
		for j := range rapid.IntRange(1, 5).Draw(t, "steps") {
			s := catalog.Step{
				Key: fmt.Sprintf("l%d.s%d", i, j), Name: "s", Ask: "a", Plain: "p", Measures: []catalog.Measure{catalog.MeasureAnswer},
				Pass: catalog.Pass{Run: 3, Level: 3, Arousal: 1, Text: "t"}, Ridden: rapid.IntRange(0, 5).Draw(t, "ridden") == 0,
			}
			if rapid.Bool().Draw(t, "sides") {
				s.Variants = []horse.Variant{{Side: horse.Near}, {Side: horse.Off}}
			}
			if rapid.IntRange(0, 3).Draw(t, "blocked") == 0 {
				s.Blocked = []horse.BodyItem{rapid.SampledFrom((horse.BodyItem{}).All()).Draw(t, "item")}
			}
			if len(keys) > 0 && rapid.Bool().Draw(t, "needs") {
				s.Needs = []catalog.Need{{Step: rapid.SampledFrom(keys).Draw(t, "need"), Level: rapid.SampledFrom([]int{0, 1}).Draw(t, "at"), Kept: rapid.IntRange(0, 5).Draw(t, "kept") == 0}}
			}
			l.Steps = append(l.Steps, s)
		}
		if len(keys) > 0 {
			l.StandsOn = []catalog.Need{{Step: rapid.SampledFrom(keys).Draw(t, "stands on")}}
		}
		for _, s := range l.Steps {
			keys = append(keys, s.Key)
		}
		ladders = append(ladders, l)
	}
	c, err := catalog.New("drawn", shipped.Rules, shipped.Judging, catalog.Methods{Schools: shipped.Methods.Schools, Choices: []catalog.Choice{}}, ladders)
	require.NoError(t, err)
	return c
}

func drawAssessment(t *rapid.T, c *catalog.Catalog, problems []horse.Problem) assess.Assessment {
	a := assess.Assessment{Problems: map[horse.Problem]assess.Account{}, Body: map[horse.BodyItem]assess.BodyNote{}}
	for _, p := range problems {
		account := assess.Account{Baseline: assess.Baseline{Done: true, Arousal: horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "arousal"))}}
		if l, ok := c.LadderFor(p); ok {
			account.Baseline.Reached = rapid.SampledFrom(l.Steps).Draw(t, "reached").Key
		}
		if rapid.IntRange(0, 4).Draw(t, "danger") == 0 {
			account.Baseline.WaysOut = []horse.WayOut{horse.Reared, horse.KickedAtPerson}
		}
		a.Problems[p] = account
	}
	for _, item := range (horse.BodyItem{}).All() {
		a.Body[item] = assess.BodyNote{State: rapid.SampledFrom((horse.BodyState{}).All()).Draw(t, "state")}
	}
	if rapid.Bool().Draw(t, "seen safe") {
		a.Basics = map[string]assess.Basic{"ridden.halt": {Grade: horse.Accepted}}
		a.First.Mounting = still()
	}
	return a
}

func still() []assess.Mounting {
	return slices.DeleteFunc(assess.Mounting{}.All(), func(m assess.Mounting) bool { return m.String() != "still" })
}

func drawDays(t *rapid.T, c *catalog.Catalog) []track.Day {
	var keys []string
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Link == "" {
				keys = append(keys, s.Key)
			}
		}
	}
	var days []track.Day
	for i := range rapid.IntRange(0, 5).Draw(t, "days") {
		var reps []track.Rep
		for range rapid.IntRange(0, 6).Draw(t, "asks") {
			step, _ := c.Step(rapid.SampledFrom(keys).Draw(t, "step"))
			answer := rapid.SampledFrom([]horse.Answer{horse.Accepted, horse.Accepted, horse.Offered, horse.Refused}).Draw(t, "answer")
			by := rapid.SampledFrom([]string{"trainer", "owner"}).Draw(t, "by")
			for range 3 {
				for _, a := range step.Asks() {
					reps = append(reps, track.Rep{Ask: a, Answer: answer, Peak: horse.LevelOf(1), Arousal: horse.ArousalOf(0), Handler: by, Target: step.Last()})
				}
			}
		}
		days = append(days, day(fmt.Sprintf("2026-06-%02d", 2+3*i), reps...))
	}
	return days
}

// No plan schedules a blocked step, a step whose needs are unmet in its own
// order, or homework for somebody who is not cleared.
func TestNoPlanSchedulesWhatMayNotBe(t *testing.T) {
	shipped := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		c := shipped
		problems := []horse.Problem{horse.Loading, horse.Bridling, horse.Crowding}
		if rapid.Bool().Draw(t, "own catalogue") {
			c, problems = drawCatalog(t, shipped), []horse.Problem{horse.Loading, horse.Bridling}
		}
		n := rapid.IntRange(0, 120).Draw(t, "rides")
		in := Document{Days: drawDays(t, c), Input: Input{
			Today: "2026-06-20", Problem: horse.Loading, Owners: []string{"owner"}, Visits: 6,
			Record:      assess.Record{Rides: rapid.SampledFrom([]*int{nil, &n, new(int)}).Draw(t, "ridden")},
			Assessments: []assess.Dated{{On: "2026-06-01", Doc: drawAssessment(t, c, problems[:rapid.IntRange(1, len(problems)).Draw(t, "problems")])}},
		}}
		if c == shipped {
			in.Choices.Settings = map[string]string{"trailer way": rapid.SampledFrom([]string{"lead in first", "send in first"}).Draw(t, "way")}
		}
		for _, s := range c.Ladders[0].Steps {
			if rapid.Bool().Draw(t, "rehearsed") && s.Link == "" {
				in.Rehearsals = append(in.Rehearsals, rehearsed("owner", s.Key))
			}
		}
		f, err := in.Read(c)
		require.NoError(t, err)
		keepsOrder(t, f)
		hasWords(t, f.Plan(), f.Alternatives(), f.Cleared(), f.Blocks)
		blocked := map[string]bool{}
		for _, b := range f.Blocks {
			blocked[b.Step] = true
		}
		for _, h := range f.Plan().Homework {
			assert.False(t, blocked[h.Step], "%s is blocked", h.Step)
			i := slices.IndexFunc(f.Cleared(), func(s clearance.State) bool { return s.Person == h.Person && s.Step == h.Step })
			require.GreaterOrEqual(t, i, 0)
			assert.True(t, f.Cleared()[i].Cleared)
			step, _ := f.Catalog.Step(h.Step)
			assert.True(t, arena.Passed(f.Known, step))
		}
	})
}

// keepsOrder holds every visit against the blocks and the needs of its steps:
// met before, met by a visit before, or seen in the assessment.
func keepsOrder(t *rapid.T, f *File) {
	c := f.Catalog
	done := map[string]bool{}
	seen := map[string]bool{}
	for _, i := range f.Plan().Items {
		done[i.Step], seen[i.Step] = i.Met, i.Seen
	}
	for _, key := range f.Plan().Done {
		done[key] = true
	}
	for _, g := range f.Plan().Good {
		done[g.Step] = true
	}
	vouched := map[string]bool{} // by a kept step that stands on it
	for again := true; again; {
		again = false
		for _, l := range c.Ladders {
			for _, s := range l.Steps {
				kept := !slices.ContainsFunc(s.Asks(), func(a horse.Ask) bool { return known(f, a).State != horse.Kept })
				if s.Link != "" || !kept && !vouched[s.Key] {
					continue
				}
				for _, n := range c.Under(s.Key) {
					again = again || !vouched[n.Step]
					vouched[n.Step] = true
				}
			}
		}
	}
	stands := func(key string) string {
		for _, n := range c.Needs(key) {
			met := !slices.ContainsFunc(c.AsksOf(n), func(a horse.Ask) bool { return !known(f, a).Meets(n) })
			if !met && (n.Kept || !done[n.Step] && !seen[n.Step] && !vouched[n.Step]) {
				return n.Step
			}
		}
		return ""
	}
	for _, v := range f.Plan().Visits {
		for _, p := range v.Parts {
			for _, key := range p.Steps {
				assert.False(t, slices.ContainsFunc(f.Blocks, func(b assess.Block) bool { return b.Step == key }), "%s is blocked", key)
				assert.Empty(t, stands(key), "%s in visit %d (%s)", key, v.N, p.Kind)
				done[key] = done[key] || p.Kind == plan.Block || p.Kind == plan.TuneIn
			}
		}
	}
}

var messages = regexp.MustCompile(`\{"key":"([^"]+)",("args"|"text")`)

// hasWords holds every message against the book.
func hasWords(t *rapid.T, said ...any) {
	text, err := json.Marshal(said)
	require.NoError(t, err)
	for _, m := range messages.FindAllSubmatch(text, -1) {
		assert.True(t, phrase.English(phrase.Shipped).Has(string(m[1])), "%s has no words", m[1])
	}
}

func rehearsed(person, step string) clearance.Rehearsal {
	r := clearance.Rehearsal{Person: person, Step: step, On: "2026-06-01", Place: clearance.OnAPerson, Items: map[clearance.Item]clearance.Said{}}
	for _, item := range (clearance.Item{}).All() {
		r.Items[item] = clearance.Yes
	}
	return r
}

func TestSharedFoundationsArePlannedOnceAndProblemsInOrder(t *testing.T) {
	in := input()
	a := looked()
	a.Doc.Problems[horse.Bridling] = assess.Account{Baseline: assess.Baseline{Done: true}, Story: assess.Story{NeededBy: "2026-07-01"}}
	a.Doc.Problems[horse.Crowding] = assess.Account{Baseline: assess.Baseline{Done: true}}
	in.Assessments = []assess.Dated{a}
	order := func(in Document) []string {
		var list []string
		for _, g := range read(t, in).Plan().Forecast {
			list = append(list, g.Problem.String())
		}
		return list
	}
	f := read(t, in)
	seen := map[string]bool{}
	for _, i := range f.Plan().Items {
		assert.False(t, seen[i.Step], "%s is there once", i.Step)
		seen[i.Step] = true
		if i.Step == "head.down" {
			assert.Equal(t, []horse.Problem{horse.Bridling, horse.Loading}, i.For, "both stand on it")
		}
	}
	assert.Equal(t, []string{"bridling", "crowding", "loading"}, order(in), "the one with a date, then the easier one")
	in.NeededBy = "2026-06-25"
	assert.Equal(t, []string{"loading", "bridling", "crowding"}, order(in), "the earlier date")
	crowding := a.Doc.Problems[horse.Crowding]
	crowding.Baseline.WaysOut = []horse.WayOut{horse.Bit}
	a.Doc.Problems[horse.Crowding] = crowding
	assert.Equal(t, []string{"crowding", "loading", "bridling"}, order(in), "safety first")
	in.Choices.Goals = map[horse.Problem]plan.Wanted{horse.Bridling: {Later: true}, horse.Loading: {Until: "load.front"}}
	f = read(t, in)
	assert.Equal(t, []string{"crowding", "loading"}, order(in))
	assert.Equal(t, "load.front", f.Plan().Items[len(f.Plan().Items)-1].Step, "a smaller goal ends there")
}

func TestNobodyRidesBeforeTheBodyIsClearAndItWasSeenSafe(t *testing.T) {
	in := input()
	in.Problem, in.Ladder = horse.Problem{}, "rush"
	require.NoError(t, in.Problem.UnmarshalText([]byte("rushing")))
	why := func(in Document) string {
		for _, b := range read(t, in).Blocks {
			if b.Step == "rush.slack" {
				return b.Why.Key
			}
		}
		return ""
	}
	n := 120
	in.Record.Rides = &n
	assert.Equal(t, "block.ridden.body", why(in), "nothing was looked at")
	a := looked()
	in.Assessments = []assess.Dated{a}
	assert.Equal(t, "block.ridden.seen", why(in))
	a.Doc.Basics = map[string]assess.Basic{"ridden.halt": {Grade: horse.Accepted}}
	a.Doc.First.Mounting = still()
	in.Assessments = []assess.Dated{a}
	assert.Empty(t, why(in))
	n = 4
	assert.Equal(t, "block.ridden.young", why(in))
	in.Choices.Exception = &plan.Exception{Reason: "sold to a school rider", Until: "2026-07-01"}
	assert.Equal(t, "block.ridden.young", why(in), "not before it gives to the rein in hand")
	c := shipped(t)
	var reps []track.Rep
	for _, key := range []string{"control.flex", "control.disengage"} {
		step, _ := c.Step(key)
		for _, ask := range step.Asks() {
			for range 3 {
				reps = append(reps, track.Rep{Ask: ask, Answer: horse.Accepted, Peak: horse.LevelOf(1), Arousal: horse.ArousalOf(0)})
			}
		}
	}
	in.Days = []track.Day{day("2026-06-10", reps...)}
	assert.Empty(t, why(in))
	in.Today = "2026-07-02"
	assert.Equal(t, "block.ridden.young", why(in), "the exception has ended")
}

func TestProgressCarriesOverToAnOwnLadder(t *testing.T) {
	c := shipped(t)
	own, _ := c.Ladder("lead")
	own.Steps = slices.Clone(own.Steps)
	own.Own = &catalog.Origin{ID: "1", Version: 1}
	own.Steps[1].Pass.Level = 1
	passed := []track.Rep{good("lead.forward"), good("lead.forward"), good("lead.forward"), good("lead.halt"), good("lead.halt"), good("lead.halt")}
	in := input(day("2026-06-10", passed...))
	state := func(step string) horse.StepState { return known(read(t, in), horse.Ask{Step: step}).State }
	assert.Equal(t, horse.Met, state("lead.halt"))
	in.Used = []history.Used{{Since: in.Days[0].Started + 3_600_000, Ladders: []catalog.Ladder{own}}}
	assert.Equal(t, horse.Met, state("lead.forward"), "unchanged, it carries over")
	assert.Equal(t, horse.Tried, state("lead.halt"), "passed otherwise, it begins again")
	in.Days = append(in.Days, day("2026-06-12", good("lead.halt"), good("lead.halt"), good("lead.halt")))
	assert.Equal(t, horse.Met, state("lead.halt"))
	assert.Equal(t, shipped(t).Version+"+lead.1", read(t, in).Catalog.Version)
}

func TestAlternativesStandSideBySide(t *testing.T) {
	in := input()
	require.NoError(t, in.Problem.UnmarshalText([]byte("sour")))
	in.Ladder = ""
	a := looked()
	a.Doc.Problems[in.Problem] = assess.Account{Baseline: assess.Baseline{Done: true, Arousal: horse.ArousalOf(1), WaysOut: []horse.WayOut{horse.TurnedAway}}}
	in.Assessments = []assess.Dated{a}
	list := read(t, in).Alternatives()
	require.Len(t, list, 2)
	assert.Equal(t, []string{"home", "away"}, []string{list[0].Ladder, list[1].Ladder})
	assert.True(t, list[0].Chosen && !list[1].Chosen)
	assert.Equal(t, []string{"turned away"}, list[1].Suits, "it turns away rather than rushing back")
	for _, one := range list {
		assert.Positive(t, one.Left)
		assert.Positive(t, one.Median)
		assert.NotEmpty(t, one.Missing)
	}
	in.Choices.Goals = map[horse.Problem]plan.Wanted{in.Problem: {Ladder: "away"}}
	f := read(t, in)
	assert.Equal(t, "away", f.Plan().Ladder)
	assert.Equal(t, "away", f.Bridge.Ladder)
}

// Missing basics come first, whatever the ladder stands on; step-outs from zone
// 3 add the touch and the pad before anybody rides; a horse that can't be
// haltered begins at the pole (part 3).
func TestWhatTheAssessmentPutsFirst(t *testing.T) {
	in := input()
	in.Problem, in.Ladder = horse.Problem{}, "rush"
	require.NoError(t, in.Problem.UnmarshalText([]byte("rushing")))
	rides, outs := 120, 3
	in.Record.Rides = &rides
	a := looked()
	a.Doc.Basics = map[string]assess.Basic{"ridden.halt": {Grade: horse.Accepted}, "lead.turn near": {Level: horse.LevelOf(7), Grade: horse.Refused}}
	a.Doc.First.Mounting = still()
	in.Assessments = []assess.Dated{a}
	at := func(f *File, step string) int {
		return slices.IndexFunc(f.Plan().Items, func(i plan.Item) bool { return i.Step == step })
	}
	f := read(t, in)
	require.Contains(t, f.Result.First[0].Key, "lead.turn")
	assert.Less(t, at(f, "lead.turn"), at(f, "rush.setup"))
	assert.Equal(t, -1, at(f, "saddle.pad"))
	touch := assess.Touch{StepOuts: &outs}
	a.Doc.Zones = map[assess.Spot]assess.Touch{{Zone: (horse.Zone{}).All()[2], Side: horse.Near}: touch}
	in.Assessments = []assess.Dated{a}
	f = read(t, in)
	assert.True(t, at(f, "saddle.pad") >= 0 && at(f, "saddle.pad") < at(f, "rush.slack"))
	assert.Contains(t, f.Plan().Items[at(f, "rush.slack")].Needs, "saddle pad")

	a.Doc.NotYet = true
	in.Assessments = []assess.Dated{a}
	f = read(t, in)
	assert.Equal(t, "wild.pole", f.Plan().Items[0].Step)
	assert.Equal(t, "wild.pole", f.Plan().Next)
	assert.Less(t, at(f, "wild.halter"), at(f, "lead.forward"))
}

func known(f *File, a horse.Ask) arena.Known {
	for _, k := range f.Known {
		if k.Ask == a {
			return k
		}
	}
	return arena.Known{Ask: a}
}
