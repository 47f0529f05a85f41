package progress

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func TestBridgeProgress(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	known := []arena.Known{
		{Ask: horse.Ask{Step: "quarters.hind", Variant: horse.Variant{Side: horse.Near}}, State: horse.Kept},
		{Ask: horse.Ask{Step: "quarters.hind", Variant: horse.Variant{Side: horse.Off}}, State: horse.Met},
		{Ask: horse.Ask{Step: "quarters.fore", Variant: horse.Variant{Side: horse.Near}}, State: horse.StepTolerated},
		{Ask: horse.Ask{Step: "quarters.mix"}, State: horse.Slipped},
	}
	b, ok := BridgeOf(c, "quarters", known, nil, "quarters.fore", Goal{})
	require.True(t, ok)
	assert.InDelta(t, (1+0.75+0.35+0+0.35)/5, b.Progress, 1e-9, "the mean over step-sides")
	assert.Equal(t, []string{"met", "tried", "slipped"}, []string{b.Planks[0].State.String(), b.Planks[1].State.String(), b.Planks[2].State.String()})
	assert.Equal(t, 1, b.Met)
	assert.True(t, b.Planks[1].Next)
}

func TestBlockedIsLeftOutAndCountedApart(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	known := []arena.Known{{Ask: horse.Ask{Step: "load.board"}, State: horse.Kept}, {Ask: horse.Ask{Step: "load.step"}, State: horse.Kept}}
	blocks := assess.Blocks(c, assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{horse.HindLeg: {State: horse.Suspect}}})
	b, ok := BridgeOf(c, "load", known, blocks, "", Goal{})
	require.True(t, ok)
	assert.Equal(t, 8, b.Blocked)
	assert.InDelta(t, 1.0/8, b.Progress, 1e-9, "board of board, bridge, gap twice, square thrice, front")
	assert.Equal(t, horse.Kept, b.Planks[5].State, "kept underneath")
	var all, under []string
	for _, p := range b.Piers {
		if p.Under == "" {
			all = append(all, p.Step)
		} else {
			under = append(under, p.Step+" under "+p.Under)
		}
	}
	assert.Len(t, all, 6, "the foundations of the whole ladder")
	assert.Equal(t, []string{"lead.past under load.send"}, under, "and the one that a single plank stands on")
}

func TestWordsOfALevel(t *testing.T) {
	assert.Equal(t, []string{"feel.none", "feel.light", "feel.medium", "feel.firm"}, []string{Feel(0).Key, Feel(3).Key, Feel(5.5).Key, Feel(7).Key})
}

// The bridge ends at the goal's plank; what lies beyond is pale and not counted, and
// ridden planks are there only for ridden goals. What no session saw says where it
// is known from.
func TestTheBridgeEndsAtTheGoal(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	met := func(key string) []arena.Known {
		step, _ := c.Step(key)
		var list []arena.Known
		for _, a := range step.Asks() {
			list = append(list, arena.Known{Ask: a, State: horse.Met, Source: horse.Seen, Assessed: "2026-11-12", Good: true})
		}
		return list
	}
	known := append(met("saddle.show"), met("saddle.pad")...)
	b, ok := BridgeOf(c, "saddle", known, nil, "", Goal{Until: "saddle.pad"})
	require.True(t, ok)
	assert.Equal(t, []int{2, 2}, []int{b.Steps, b.Met})
	assert.InDelta(t, 0.75, b.Progress, 1e-9, "all of it is met")
	for i, p := range b.Planks {
		assert.Equal(t, i >= 2, p.Beyond, p.Name)
	}
	require.Len(t, b.Sources, 1)
	assert.Equal(t, []string{"show", "pad"}, b.Sources[0].Steps)
	assert.Equal(t, "met at the assessment, 12 November 2026", phrase.English(phrase.Shipped).Say(b.Sources[0].Says))
	crowd := func(g Goal) (beyond []string) {
		b, _ := BridgeOf(c, "crowd", nil, nil, "", g)
		for _, p := range b.Planks {
			if p.Beyond {
				beyond = append(beyond, p.Step)
			}
		}
		return beyond
	}
	assert.Equal(t, []string{"crowd.ridden"}, crowd(Goal{}))
	assert.Empty(t, crowd(Goal{Ridden: true}))
	assert.Equal(t, []string{"crowd.rub"}, crowd(Goal{Until: "crowd.ridden"}))
}
