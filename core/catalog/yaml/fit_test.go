package yaml

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

func fit(t *testing.T, f catalog.Fitting) *catalog.Catalog {
	t.Helper()
	c, err := shippedCatalog(t).Fit(f)
	require.NoError(t, err)
	return c
}

func needed(c *catalog.Catalog, key string) []string {
	var keys []string
	for _, n := range c.Needs(key) {
		keys = append(keys, n.Step)
	}
	return keys
}

// What part 5 says of needs beyond the step before.
func TestConditionsOfNeeds(t *testing.T) {
	ridden, fresh := fit(t, catalog.Fitting{}), fit(t, catalog.Fitting{Past: catalog.NotYetRidden})
	for _, test := range []struct {
		c    *catalog.Catalog
		step string
		want []string
	}{
		{ridden, "home.ridden", []string{"home.alone", "control.flex", "control.disengage"}},
		{fresh, "home.ridden", []string{"home.alone", "control.walk", "mount.off"}},
		{ridden, "control.flex", []string{"head.flex", "quarters.hind"}},
		{fresh, "control.flex", []string{"head.flex", "quarters.hind", "girth.walk"}},
		{ridden, "control.walk", []string{"control.saddle"}},
		{fresh, "control.walk", []string{"control.saddle", "mount.up", "mount.off"}},
		{ridden, "track.check", []string{"control.flex", "control.disengage"}},
		{fresh, "track.check", []string{"control.walk", "mount.off"}},
		{ridden, "mount.weight", []string{"mount.person", "girth.walk"}},
		{fresh, "mount.up", []string{"mount.weight", "control.flex", "control.disengage", "bridle.wear"}},
		{ridden, "rush.back", []string{"rush.halt", "lead.back"}},
		{ridden, "feet.near", nil},
		{ridden, "feet.lighten", []string{"feet.ropelift", "zones.tool", "head.flex"}},
		{ridden, "load.send", []string{"load.stand", "lead.past"}},
		{ridden, "load.tie", []string{"load.stand"}},
		{ridden, "load.close", []string{"load.side"}},
		{ridden, "load.alone", []string{"load.close", "load.send", "load.tie"}},
		{ridden, "crowd.rub", []string{"crowd.idle"}}, // in hand: it never waits for the ridden one between
		{ridden, "crowd.ridden", []string{"crowd.idle"}},
		{ridden, "away.far", []string{"away.off"}},
		{ridden, "soft.tack", nil},
		{ridden, "soft.halt", []string{"soft.tack", "head.flex", "quarters.mix"}},
		{ridden, "rush.setup", nil},
		{ridden, "rush.slack", []string{"rush.setup", "soft.tack", "head.flex"}},
		{ridden, "lead.forward", nil},
		{ridden, "lead.back", nil},
		{ridden, "lead.space", nil},
		{ridden, "lead.stand", []string{"lead.halt"}},
		{ridden, "lead.anytime", []string{"lead.forward", "lead.back"}},
		{ridden, "lead.past", []string{"lead.forward"}},
		{ridden, "head.flex", nil},
		{ridden, "head.adjust", []string{"head.down"}},
		{ridden, "quarters.mix", []string{"quarters.hind", "quarters.fore"}},
		{ridden, "zones.pole", []string{"lead.halt"}},
	} {
		assert.Equal(t, test.want, needed(test.c, test.step), test.step)
	}
	for _, n := range ridden.Needs("new.near") {
		assert.True(t, n.Understood, n.Step)
	}
	zone := ridden.Needs("bridle.nose")[1]
	assert.Len(t, ridden.AsksOf(zone), 2, "zone 2, both sides")
	wild := fit(t, catalog.Fitting{Ladders: []string{"wild"}})
	for _, key := range []string{"lead.forward", "lead.space", "head.flex", "load.board", "saddle.show"} {
		assert.Contains(t, needed(wild, key), "wild.halter", "before every foundation and every other ladder: %s", key)
	}
	assert.NotContains(t, needed(wild, "wild.over"), "wild.halter")
	assert.NotContains(t, needed(ridden, "lead.forward"), "wild.halter")
}

// zones.tool and zones.over need the hand in that zone and on that side.
func TestANeedOfThatSide(t *testing.T) {
	c := shippedCatalog(t)
	for _, test := range []struct{ step, variant, want string }{
		{"zones.tool", "zone 4 off", "zones.hand zone 4 off"},
		{"zones.over", "near", "zones.hand zone 3 near"},
	} {
		v, err := horse.ParseVariant(test.variant)
		require.NoError(t, err)
		needs := c.NeedsOf(horse.Ask{Step: test.step, Variant: v})
		require.Len(t, needs, 1)
		under := c.AsksOf(needs[0])
		require.Len(t, under, 1)
		assert.Equal(t, test.want, under[0].String())
	}
}

func TestStandingDisagreementsChangeLadders(t *testing.T) {
	keys := func(c *catalog.Catalog, ladder string) []string {
		l, _ := c.Ladder(ladder)
		var list []string
		for _, s := range l.Steps {
			list = append(list, s.Key)
		}
		return list
	}
	sent := fit(t, catalog.Fitting{Settings: map[string]string{"trailer way": "send in first"}})
	assert.Equal(t, []string{"load.square", "load.send", "load.front"}, keys(sent, "load")[3:6])
	assert.Equal(t, []string{"load.square", "load.gap", "quarters.hind", "quarters.fore", "lead.past"}, needed(sent, "load.send"))
	assert.Equal(t, []string{"load.square"}, needed(sent, "load.front"))
	side := fit(t, catalog.Fitting{Settings: map[string]string{"head order": "sideways first"}})
	assert.Equal(t, []string{"head.flex", "head.down", "head.adjust"}, keys(side, "head"))
	assert.Empty(t, needed(side, "head.down"), "the order is of the plan: foundations are open from the first day")
	afraid := fit(t, catalog.Fitting{Afraid: true})
	assert.Equal(t, []string{"away.spot", "away.off", "away.far"}, keys(afraid, "away"), "no work near home where fear is possible")
	assert.Equal(t, []string{"away.spot"}, needed(afraid, "away.off"))
	assert.Equal(t, keys(shippedCatalog(t), "load")[4:6], []string{"load.front", "load.step"}, "the shipped one stays as it is")
	for _, choice := range sent.Methods.Choices {
		for _, o := range choice.Options {
			_, err := shippedCatalog(t).Fit(catalog.Fitting{Settings: map[string]string{choice.Key: o.Key}})
			assert.NoError(t, err, "%s: %s", choice.Key, o.Key)
		}
	}
}

func TestSchoolsAreAllThereInWords(t *testing.T) {
	m := shippedCatalog(t).Methods
	require.Len(t, m.Schools, 5)
	wait, _ := m.Method(horse.WaitItOut)
	assert.Contains(t, string(wait.Avoid), "throws itself")
	assert.Len(t, m.Choices, 16)
}

// copied is the trailer's ladder as a practice's own.
func copied(t *testing.T) catalog.Ladder {
	l, _ := fit(t, catalog.Fitting{}).Ladder("load")
	l.Own = &catalog.Origin{ID: "1", Version: 2, From: shippedCatalog(t).Version}
	return l
}

func at(l catalog.Ladder, key string) *catalog.Step {
	for i := range l.Steps {
		if l.Steps[i].Key == key {
			return &l.Steps[i]
		}
	}
	return nil
}

func TestAnOwnLadderIsCheckedAsAtLoad(t *testing.T) {
	c := shippedCatalog(t)
	assert.Empty(t, c.CheckOwn(copied(t), nil))
	for name, test := range map[string]struct {
		change func(*catalog.Ladder)
		used   []string
		place  string
		says   string
	}{
		"a circle": {func(l *catalog.Ladder) {
			at(*l, "load.board").Needs = []catalog.Need{{Step: "load.stand"}}
		}, nil, "load.board", "circle"},
		"no pass mark":          {func(l *catalog.Ladder) { at(*l, "load.gap").Pass = catalog.Pass{} }, nil, "load.gap", "pass mark"},
		"a deleted step in use": {func(l *catalog.Ladder) { l.Steps = l.Steps[1:] }, []string{"load.board"}, "load.board", "in use"},
		"another ladder's key":  {func(l *catalog.Ladder) { l.Steps[0].Key = "lead.back" }, nil, "lead.back", "belongs to the ladder"},
		"a key of no ladder":    {func(l *catalog.Ladder) { l.Steps[0].Key = "mat" }, nil, "mat", `begins with "load."`},
		"a key twice":           {func(l *catalog.Ladder) { l.Steps[1].Key = "load.board" }, nil, "load.board", "two steps"},
		"no words":              {func(l *catalog.Ladder) { l.Steps[2].Ask = "" }, nil, "load.gap", "an ask"},
		"a need that is nowhere": {func(l *catalog.Ladder) {
			l.Steps[2].Needs = []catalog.Need{{Step: "load.moon"}}
		}, nil, "load.gap", "not a step"},
	} {
		l := copied(t)
		test.change(&l)
		faults := c.CheckOwn(l, test.used)
		require.NotEmpty(t, faults, name)
		found := false
		for _, f := range faults {
			found = found || f.Place == test.place
			if f.Place == test.place {
				assert.Contains(t, f.Say, test.says, name)
				break
			}
		}
		assert.True(t, found, "%s: %v", name, faults)
	}
	foundation, _ := fit(t, catalog.Fitting{}).Ladder("lead")
	foundation.Steps = foundation.Steps[:3]
	faults := c.CheckOwn(foundation, nil)
	require.NotEmpty(t, faults)
	assert.Contains(t, faults[0].Error(), `"lead.back", which is not a step`, "other ladders stand on it")
}

func TestProgressBeginsAgainWhereThePassMarkChanged(t *testing.T) {
	l := copied(t)
	at(l, "load.stand").Pass.Values = []int{30, 45, 90}
	at(l, "load.close").Watch = "Quietly"
	c := fit(t, catalog.Fitting{Own: []catalog.Ladder{l}})
	assert.Equal(t, []string{"load.stand"}, catalog.Changed(shippedCatalog(t), c))
	assert.Equal(t, shippedCatalog(t).Version+"+load.2", c.Version)
}

// The card is ticked in its order only, whatever is tapped.
func TestTheSequenceCardRefusesAWrongOrder(t *testing.T) {
	card, ok := shippedCatalog(t).Methods.Card("trailer")
	require.True(t, ok)
	loading, _ := card.Run("loading")
	unloading, _ := card.Run("unloading")
	assert.Equal(t, []string{"check", "in", "bar", "tie", "ramp up"}, keysOf(loading))
	assert.Equal(t, []string{"ramp down", "untie", "behind", "open", "wait", "safe spot", "forward one", "back one", "forward again", "back out"}, keysOf(unloading))

	tied := loading.Tick([]string{"check", "in"}, "tie")
	require.NotNil(t, tied.Refused)
	assert.Equal(t, []string{"check", "in"}, tied.Done)
	assert.Equal(t, "bar", tied.Next)
	assert.Equal(t, []string{"ramp down"}, unloading.Tick([]string{"ramp down"}, "open").Done, "never the bar before it is untied")
	assert.NotNil(t, unloading.Tick(nil, "nothing").Refused)
	assert.Equal(t, []string{"check"}, loading.Tick([]string{"check", "tie"}, "").Done, "what was skipped does not stand")
	assert.Empty(t, loading.Tick(keysOf(loading), "").Next)
	assert.Equal(t, []string{"check"}, loading.Untick([]string{"check", "in"}).Done)

	rapid.Check(t, func(t *rapid.T) {
		run := rapid.SampledFrom(card.Runs).Draw(t, "run")
		order := keysOf(run)
		var done []string
		for range rapid.IntRange(0, 40).Draw(t, "taps") {
			key := rapid.SampledFrom(order).Draw(t, "key")
			now := run.Tick(done, key)
			assert.Equal(t, order[:len(now.Done)], now.Done)
			assert.GreaterOrEqual(t, len(now.Done), len(done))
			assert.Equal(t, now.Refused == nil, len(now.Done) > len(done) || len(done) > 0 && contains(done, key))
			done = now.Done
		}
	})
}

func keysOf(r catalog.Run) []string {
	var keys []string
	for _, l := range r.Lines {
		keys = append(keys, l.Key)
	}
	return keys
}

func contains(list []string, key string) bool {
	for _, k := range list {
		if k == key {
			return true
		}
	}
	return false
}

func TestStopsAreDrawnAnew(t *testing.T) {
	drawn := map[string]bool{}
	for seed := range uint64(200) {
		stops := catalog.Stops(rand.New(rand.NewPCG(seed, 1)))
		require.NotEmpty(t, stops)
		require.LessOrEqual(t, len(stops), 3)
		text := ""
		for i, s := range stops {
			require.True(t, s >= 1 && s <= 6 && (i == 0 || s > stops[i-1]))
			text += string(rune('0' + s))
		}
		drawn[text] = true
	}
	assert.Greater(t, len(drawn), 20, "it does not learn to unload itself")
}

// What a step is to the rules is not the practice's to change: an own copy made
// before a role was given, or without it, has it all the same.
func TestAnOwnLadderKeepsTheRolesOfItsSteps(t *testing.T) {
	load := copied(t)
	load.AtTrailer = false
	for i := range load.Steps {
		load.Steps[i].Roles = nil
	}
	load.Steps[0].Roles = []catalog.Role{catalog.Backs}
	c := fit(t, catalog.Fitting{Own: []catalog.Ladder{load}})
	require.Len(t, c.With(catalog.OwnerAlone), 1)
	assert.Equal(t, "load.alone", c.With(catalog.OwnerAlone)[0].Key)
	assert.Len(t, c.With(catalog.Backs), 1, "and none that it took for itself")
	fitted, _ := c.Ladder("load")
	assert.True(t, fitted.AtTrailer)
	assert.Equal(t, catalog.Backs, load.Steps[0].Roles[0], "the practice's copy is left as it is")

	mount, _ := fit(t, catalog.Fitting{}).Ladder("mount")
	mount.Own = &catalog.Origin{ID: "2", Version: 1}
	added := mount.Steps[0]
	added.Key, added.Roles = "mount.bale", nil
	mount.Steps = append([]catalog.Step{added}, mount.Steps...)
	bale, _ := fit(t, catalog.Fitting{Own: []catalog.Ladder{mount}}).Step("mount.bale")
	assert.True(t, bale.Is(catalog.BearsWeight), "where every step puts weight on the back, an added one does")
}
