package plan

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func shipped(t testing.TB) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func all(c *catalog.Catalog, state horse.StepState, level int, steps ...string) []arena.Known {
	var known []arena.Known
	for _, key := range steps {
		step, _ := c.Step(key)
		for _, a := range step.Asks() {
			known = append(known, arena.Known{Ask: a, State: state, Soft: true, Level: horse.LevelOf(level), Value: step.Last()})
		}
	}
	return known
}

var foundations = []string{
	"lead.forward", "lead.back", "lead.anytime", "head.down", "quarters.hind", "quarters.fore", "lead.past",
}

func goal(ladder, start string) []Goal {
	return []Goal{{Problem: horse.Loading, Ladder: ladder, Start: start}}
}

func steps(items []Item) []string {
	var keys []string
	for _, i := range items {
		keys = append(keys, i.Step)
	}
	return keys
}

func TestANewHorseBeginsWithTheFoundations(t *testing.T) {
	c := shipped(t)
	p, ok := Build(c, Input{Goals: goal("load", ""), Visits: 3})
	require.True(t, ok)
	assert.Equal(t, foundations[:6], steps(p.Items)[:6])
	assert.Equal(t, "lead.forward", p.Next)
	assert.Equal(t, map[string]int{"lead.forward": 1, "lead.back": 1}, p.Levels)
	assert.Len(t, p.Visits, 3)
	assert.Equal(t, Readiness, p.Visits[0].Parts[0].Kind)
	assert.Equal(t, EasyEnd, p.Visits[0].Parts[len(p.Visits[0].Parts)-1].Kind)
	assert.Contains(t, p.Visits[0].Kit, "lead rope")
	board := p.Items[len(p.Items)-1]
	assert.False(t, board.Open)
}

func TestWhatIsKeptIsDropped(t *testing.T) {
	c := shipped(t)
	p, _ := Build(c, Input{Goals: goal("load", "load.square"), Known: all(c, horse.Kept, 1, foundations...), Visits: 1})
	assert.ElementsMatch(t, foundations, p.Done)
	assert.Equal(t, "load.board", p.Items[0].Step)
	p, _ = Build(c, Input{Goals: goal("load", ""), Known: all(c, horse.Kept, 3, foundations...)})
	assert.Contains(t, steps(p.Items), "lead.back", "kept at 3, needed at 1")
	assert.NotContains(t, steps(p.Items), "lead.anytime")
}

// A plan is as small as the horse allows (part 7).
func TestAPlanIsAsSmallAsTheHorseAllows(t *testing.T) {
	c := shipped(t)
	seen := func(state horse.StepState, level int, keys ...string) []arena.Known {
		known := all(c, state, level, keys...)
		for i := range known {
			known[i].Source, known[i].Assessed, known[i].Good = horse.Seen, "2026-06-01", true
		}
		return known
	}
	isFoundation := func(key string) bool {
		step, _ := c.Step(key)
		l, _ := c.Ladder(step.Ladder)
		return l.Kind == catalog.Foundation
	}
	for _, level := range []int{1, 3, 5} {
		state := horse.Met
		if level > 3 {
			state = horse.Tried // good, and not at its pass level
		}
		p, _ := Build(c, Input{Goals: goal("load", ""), Known: seen(state, level, foundations...)})
		assert.False(t, slices.ContainsFunc(steps(p.Items), isFoundation), "basics seen good at %d: no foundation is planned", level)
		assert.Equal(t, "load.board", p.Next)
		assert.Len(t, p.Good, len(foundations))
		assert.Equal(t, Seen{Step: "lead.forward", Name: "lead forward", On: "2026-06-01"}, p.Good[0])
	}
	known := slices.Concat(all(c, horse.Kept, 1, "load.board"), all(c, horse.Slipped, 1, "quarters.hind"))
	p, _ := Build(c, Input{Goals: goal("load", ""), Known: known})
	assert.Equal(t, []string{"quarters.hind", "load.bridge"}, steps(p.Items)[:2], "a kept step vouches for all it stands on, but for what slipped")
	p, _ = Build(c, Input{Goals: goal("load", "load.square"), Known: all(c, horse.Slipped, 1, "load.bridge")})
	assert.Contains(t, steps(p.Items), "load.bridge")
	for _, i := range p.Items {
		assert.Equal(t, i.Step == "load.board" || i.Step == "load.gap", i.Seen, "%s: passed over by choice, but for what slipped", i.Step)
	}
	met := []string{}
	load, _ := c.Ladder("load")
	for _, s := range load.Steps {
		met = append(met, s.Key)
	}
	p, _ = Build(c, Input{Goals: goal("load", ""), Known: all(c, horse.Met, 1, met...)})
	assert.False(t, slices.ContainsFunc(steps(p.Items), isFoundation), "no foundation under nothing but met steps")
	crowd := []Goal{{Problem: horse.Crowding, Ladder: "crowd"}}
	p, _ = Build(c, Input{Goals: crowd})
	assert.NotContains(t, steps(p.Items), "crowd.ridden", "no ridden plank where the goal is not ridden")
	crowd[0].Ridden = true
	p, _ = Build(c, Input{Goals: crowd})
	assert.Contains(t, steps(p.Items), "crowd.ridden", "the trainer says so")
	pad := []Goal{{Problem: horse.Crowding, Ladder: "saddle", Until: "saddle.pad"}}
	p, _ = Build(c, Input{Goals: pad})
	assert.Equal(t, "saddle.pad", p.Items[len(p.Items)-1].Step, "it ends at the plank where the goal is reached")
}

func TestBlockedIsMarkedAndNotLaidOut(t *testing.T) {
	c := shipped(t)
	a := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{horse.HindLeg: {State: horse.Suspect}}}
	done := append(foundations, "load.board", "load.bridge", "load.gap", "load.square", "load.front")
	p, _ := Build(c, Input{Goals: goal("load", ""), Known: all(c, horse.Kept, 1, done...), Blocks: assess.Blocks(c, a), Visits: 2})
	require.Equal(t, "load.step", p.Items[0].Step)
	assert.NotNil(t, p.Items[0].Blocked)
	assert.NotNil(t, p.Items[0].Lifts)
	assert.Empty(t, p.Next)
}

func TestNoVisitAsksWhatIsBlockedOrNotReady(t *testing.T) {
	c := shipped(t)
	var keys []string
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Link == "" {
				keys = append(keys, s.Key)
			}
		}
	}
	rapid.Check(t, func(t *rapid.T) {
		met := rapid.SliceOfDistinct(rapid.SampledFrom(keys), func(s string) string { return s }).Draw(t, "met")
		item := rapid.SampledFrom((horse.BodyItem{}).All()).Draw(t, "item")
		state := rapid.SampledFrom((horse.BodyState{}).All()).Draw(t, "state")
		how := rapid.SampledFrom([]horse.StepState{horse.Met, horse.Kept, horse.Slipped}).Draw(t, "how")
		in := Input{
			Goals: goal("load", ""), Known: all(c, how, rapid.IntRange(1, 3).Draw(t, "level"), met...),
			Blocks: assess.Blocks(c, assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{item: {State: state}}}),
			Visits: 6, Young: rapid.Bool().Draw(t, "young"), RepSeconds: rapid.Float64Range(20, 200).Draw(t, "pace"),
		}
		p, ok := Build(c, in)
		require.True(t, ok)
		blocked := map[string]bool{}
		for _, b := range in.Blocks {
			blocked[b.Step] = true
		}
		done := map[string]bool{}
		var vouch func(key string)
		vouch = func(key string) { // a kept step vouches for all it stands on
			for _, n := range c.Under(key) {
				if !done[n.Step] {
					done[n.Step] = true
					vouch(n.Step)
				}
			}
		}
		for _, key := range met {
			done[key] = true
			if how == horse.Kept {
				vouch(key)
			}
		}
		for _, v := range p.Visits {
			limit := c.Rules.SessionCap
			if in.Young {
				limit = c.Rules.SessionCapYoung
			}
			assert.LessOrEqual(t, v.Minutes, limit)
			for _, part := range v.Parts {
				for _, key := range part.Steps {
					assert.False(t, blocked[key], "%s is blocked", key)
					for _, n := range c.Needs(key) {
						assert.True(t, done[n.Step], "%s needs %s", key, n.Step)
					}
					done[key] = true
				}
			}
		}
	})
}

func TestTheSchoolIsSuggestedChosenAndSpokenAgainst(t *testing.T) {
	c := shipped(t)
	in := Input{Goals: goal("load", ""), Facts: Facts{Against: assess.Against{FearLikely: true, Arousal: 3, DaysToDate: 10, Pushy: true, Fit: true, Throws: true, Sore: true, Unsteady: true}}}
	in.Goals[0].School = assess.School{School: horse.AskAndListen, Why: phrase.Of("school.fear", nil)}
	way := func(in Input) Way {
		p, ok := Build(c, in)
		require.True(t, ok)
		return p.Ways[len(p.Ways)-1]
	}
	w := way(in)
	assert.Equal(t, horse.AskAndListen, w.School)
	assert.Equal(t, "school.fear", w.Why.Key)
	against := map[string][]string{}
	for _, o := range w.Options {
		for _, m := range o.Avoid {
			against[o.School.String()] = append(against[o.School.String()], m.Key)
		}
	}
	assert.Equal(t, map[string][]string{
		"build and release": {"avoid.arousal", "avoid.sore", "avoid.unsteady"},
		"relief place":      {"avoid.fit", "avoid.afraid"},
		"wait it out":       {"avoid.fear", "avoid.throws"},
		"ask and listen":    {"avoid.pushy", "avoid.deadline"},
	}, against)
	in.Choices.Schools = map[string]horse.School{"load": horse.ReliefPlace}
	w = way(in)
	assert.True(t, w.Chosen)
	assert.Equal(t, horse.ReliefPlace, w.School)
	assert.Equal(t, "plan.school.own", w.Why.Key)
	p, _ := Build(c, in)
	for _, v := range p.Visits {
		for _, part := range v.Parts {
			if len(part.Steps) > 0 && part.Kind == Block {
				step, _ := c.Step(part.Steps[0])
				assert.Equal(t, step.Ladder == "load", part.School == horse.ReliefPlace)
			}
		}
	}
}

// Basics at the problem place warn and do not block, but only with a horse that
// has done it before and is not afraid.
func TestBasicsAtThePlaceOnlyWhereTheHorseAllows(t *testing.T) {
	c := shipped(t)
	in := Input{Goals: goal("load", "load.square"), Choices: Choices{Settings: map[string]string{"basics place": "at the place"}}}
	item := func(p Plan, key string) Item {
		for _, i := range p.Items {
			if i.Step == key {
				return i
			}
		}
		return Item{}
	}
	p, _ := Build(c, in)
	assert.Equal(t, "plan.note.place", p.Notes[0].Key)
	assert.Equal(t, "basics place", p.Undone[0].Choice, "said at the control too")
	assert.False(t, item(p, "load.square").Open)
	in.Facts = Facts{FearUnlikely: true, DoneBefore: true}
	p, _ = Build(c, in)
	assert.True(t, item(p, "load.square").Open)
	assert.Contains(t, item(p, "load.square").Warns, "lead back")
	in.Blocks = []assess.Block{{Step: "load.square", Why: phrase.Of("block.body", nil)}}
	p, _ = Build(c, in)
	assert.False(t, item(p, "load.square").Open, "what is blocked stays blocked")
}

func TestWhatHoldsForAHorseIsSaid(t *testing.T) {
	c := shipped(t)
	in := Input{Goals: goal("load", ""), Facts: Facts{Against: assess.Against{FearLikely: true}, NoBacking: true, Alone: "Ines"}}
	in.Choices.Aid = &Aid{What: "martingale", Reason: "braces", Until: "2026-09-01"}
	in.Goals[0].Until = "load.stand"
	p, _ := Build(c, in)
	var keys []string
	for _, n := range p.Notes {
		keys = append(keys, n.Key)
	}
	assert.Equal(t, []string{"plan.note.may_leave", "plan.note.turn_out", "plan.note.alone", "plan.note.aid"}, keys)
	in = Input{Goals: []Goal{{Problem: horse.Problem{}.All()[6], Ladder: "control"}}, Facts: Facts{Spiral: true}}
	p, _ = Build(c, in)
	assert.Equal(t, "plan.note.spiral", p.Notes[0].Key)
}

func TestKitIsTheUnionOfWhatAVisitNeeds(t *testing.T) {
	c := shipped(t)
	in := Input{Goals: []Goal{{Problem: horse.Bridling, Ladder: "bridle"}}, Visits: 9, Known: all(c, horse.Kept, 1, "head.down", "zones.hand", "bridle.nose", "bridle.zone", "bridle.ears", "bridle.lips", "bridle.mouth", "bridle.strap"), Facts: Facts{Kit: []Extra{{Item: "bit hung with no wrinkle", With: "bridle"}, {Item: "treats"}}}}
	p, _ := Build(c, in)
	seen := map[string]int{}
	for _, k := range p.Visits[0].Kit {
		seen[k]++
	}
	for k, n := range seen {
		assert.Equal(t, 1, n, "%s once", k)
	}
	assert.Contains(t, p.Visits[0].Kit, "bridle")
	assert.Contains(t, p.Visits[0].Kit, "bit hung with no wrinkle")
	in = Input{Goals: []Goal{{Problem: horse.Problem{}.All()[5], Ladder: "feet"}}, Known: all(c, horse.Kept, 1, foundations...)}
	p, _ = Build(c, in)
	assert.Contains(t, p.Visits[0].Helpers[0], "holder")
	assert.NotContains(t, p.Visits[0].Kit, "bit hung with no wrinkle")
}

func TestChoicesThatCantBeAreNamedByTheirField(t *testing.T) {
	c := shipped(t)
	many := 15
	bad := Choices{
		Goals:   map[horse.Problem]Wanted{horse.Loading: {Ladder: "feet", Until: "load.moon"}},
		Schools: map[string]horse.School{"lead": horse.Doses, "moon": horse.Doses}, Settings: map[string]string{"trailer way": "fly in"},
		PerWeek: &many, Homework: -1, By: "2026-05-01", Exception: &Exception{}, Aid: &Aid{},
	}
	var fields []string
	for _, f := range bad.Check(c, "2026-06-01") {
		fields = append(fields, f.Field)
		assert.NotEmpty(t, f.Say)
	}
	assert.Equal(t, []string{
		"goals.loading.ladder", "goals.loading.until", "schools.lead", "schools.moon", "settings.trailer way", "visits_per_week", "homework_per_week",
		"by", "exception.reason", "exception.until", "aid.reason", "aid.until",
	}, fields)
	assert.Empty(t, Choices{}.Check(c, "2026-06-01"))
	assert.Equal(t, 2, Choices{}.Visits())
}

func TestChangesTellWhatAPlanHasOtherwise(t *testing.T) {
	c := shipped(t)
	made := func(in Input) Made {
		in.Today = "2026-06-01"
		p, ok := Build(c, in)
		require.True(t, ok)
		return Made{Plan: p, Choices: in.Choices}
	}
	three := 3
	before := Input{Goals: goal("load", "")}
	before.Goals[0].By = "2026-09-01"
	after := before
	after.Goals = goal("load", "")
	after.Goals[0].By, after.Goals[0].Until = "2026-09-01", "load.stand"
	after.Choices = Choices{PerWeek: &three, Settings: map[string]string{"firm": "always gentle"}, Schools: map[string]horse.School{"load": horse.WaitItOut}}
	after.Known = all(c, horse.Kept, 1, "lead.forward")
	after.Blocks = []assess.Block{{Step: "load.front", Why: phrase.Of("block.body", nil)}}
	book := phrase.English(phrase.Shipped)
	var said []string
	for _, m := range Changes(c, made(before), made(after)) {
		said = append(said, book.Say(m))
	}
	assert.Equal(t, []string{
		"Visits a week: 2 became 3.",
		"Firm line at once or gentle for long? gentle, firm once became always gentle.",
		"trailer loading: relief place became wait it out.",
		"loading: the goal is now stand, before the whole ladder.",
		"Kept since, and left out: lead forward.",
		"Dropped: load side, load close, lead past, load send, load tie, load alone and load travel.",
		"Barred: load front.",
	}, said[:7])
	assert.Contains(t, said[7], "By the date: ")
	assert.Empty(t, Changes(c, made(before), made(before)))
}

func TestHomeworkIsPlainAndOnlyWhatIsCleared(t *testing.T) {
	c := shipped(t)
	met := []string{"lead.forward", "lead.halt", "lead.stand", "lead.back"}
	in := Input{Goals: goal("load", ""), Known: all(c, horse.Met, 1, met...)}
	for _, key := range met {
		in.Cleared = append(in.Cleared, clearance.State{Person: "ines", Step: key, Cleared: key != "lead.back"})
	}
	in.Blocks = []assess.Block{{Step: "lead.halt", Why: phrase.Of("block.body", nil)}}
	p, _ := Build(c, in)
	card := HomeworkFor(c, p, in.Choices, "ines", phrase.Args{"horse": "Plum", "he": "she", "him": "her", "his": "her"})
	phrase.English(phrase.Shipped).Tell(&card)
	require.Len(t, card.Steps, 2, "neither what is barred nor what is not cleared")
	stand := card.Steps[1]
	assert.Equal(t, "lead.stand", stand.Step)
	assert.Equal(t, "Good: 3 soft answers in a row, 45 seconds each, with a light feel, and she stays calm.", stand.Good.Text)
	assert.Equal(t, "Let go when she stands on a slack rope.", stand.LetGo.Text)
	assert.Equal(t, "If she says no, go back to halting when the person halts, take one soft answer, and stop there.", stand.Refuses.Text)
	assert.LessOrEqual(t, len(card.Remember), 2)
	assert.Len(t, card.Stop, 6)
	assert.NotEmpty(t, card.Cues)
	assert.Nil(t, card.None)
	assert.NotNil(t, HomeworkFor(c, p, in.Choices, "bram", phrase.Args{"horse": "Plum", "he": "she", "him": "her", "his": "her"}).None)
}
