package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
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
	"lead.forward", "lead.halt", "lead.stand", "lead.back", "lead.turn", "lead.anytime", "lead.past",
	"head.down", "quarters.hind", "quarters.fore",
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
	assert.NotContains(t, steps(p.Items), "lead.halt")
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
		in := Input{
			Goals: goal("load", ""), Known: all(c, rapid.SampledFrom([]horse.StepState{horse.Met, horse.Kept, horse.Slipped}).Draw(t, "how"), rapid.IntRange(1, 3).Draw(t, "level"), met...),
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
		for _, key := range met {
			done[key] = true
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
				}
			}
			for _, part := range v.Parts {
				for _, key := range part.Steps {
					done[key] = true
				}
			}
		}
	})
}
