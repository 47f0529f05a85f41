package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func TestTheGateOfAResult(t *testing.T) {
	c := kept(t)
	clear := func(a *Assessment) {
		a.Body = map[horse.BodyItem]BodyNote{}
		for _, item := range (horse.BodyItem{}).All() {
			a.Body[item] = BodyNote{State: horse.Clear}
		}
	}
	for _, one := range []struct {
		name    string
		problem horse.Problem
		with    func(a *Assessment)
		state   string
		says    []string
		until   []string
		open    []string
	}{
		{
			"nobody looked", horse.Girth, func(*Assessment) {}, "not looked at",
			[]string{"Nobody looked at girth line and belly and skin, rubs and spur marks."}, nil, nil,
		},
		{"all clear", horse.Girth, clear, "open", []string{"Of what was seen, nothing is forbidden."}, nil, nil},
		{
			"a belly that nobody has cleared", horse.Girth, func(a *Assessment) {
				clear(a)
				a.Body[horse.Belly] = BodyNote{State: horse.Suspect}
			}, "tied",
			[]string{"Nobody gets on until this is looked at and clear: girth line and belly.", "girth lift, girth hole, girth pull and girth walk wait for the girth line and belly."},
			[]string{"The vet looks by 8 June."}, []string{"Pad, saddle, girth up to saddle on"},
		},
		{
			"a leg that bars most of a ladder", horse.Loading, func(a *Assessment) {
				clear(a)
				a.Body[horse.HindLeg] = BodyNote{State: horse.Suspect}
			}, "tied",
			[]string{"8 steps wait for the hind leg that snatches or locks, from load step in on."},
			[]string{"The vet looks by 8 June."}, []string{"{trailer} loading up to front"},
		},
		{
			"over backwards bars nothing in hand", mustProblem("bucking"), func(a *Assessment) {
				clear(a)
				a.Events = map[string]Event{"1": event("went over backwards", "2026-05-20")}
			}, "tied", []string{"In hand only: it went over backwards. Nobody gets on."}, nil, []string{"Control before riding up to saddle"},
		},
	} {
		a := Assessment{}.About(one.problem)
		one.with(&a)
		r, err := Judge(c, Case{Today: today, Assessment: a})
		require.NoError(t, err)
		assert.Equal(t, one.state, r.Gate.State.String(), one.name)
		assert.Subset(t, sentences(r.Gate.Says), one.says, one.name)
		assert.ElementsMatch(t, sentences(r.Gate.Until), one.until, one.name)
		for _, o := range one.open {
			assert.Contains(t, sentences(r.Gate.Open), phrase.English(phrase.Shipped).Fill(o, nil), one.name)
		}
	}
}

func sentences(list []phrase.Message) []string {
	texts := []string{}
	for _, m := range list {
		texts = append(texts, phrase.English(phrase.Shipped).Say(m))
	}
	return texts
}

// A gate never stands open while something is closed or not looked at.
func TestTheGateIsOpenOnlyWhereAllWasLookedAt(t *testing.T) {
	c := kept(t)
	rapid.Check(t, func(t *rapid.T) {
		problem := rapid.SampledFrom((horse.Problem{}).All()).Draw(t, "problem")
		a := Assessment{Body: map[horse.BodyItem]BodyNote{}}.About(problem)
		for _, item := range (horse.BodyItem{}).All() {
			a.Body[item] = BodyNote{State: rapid.SampledFrom((horse.BodyState{}).All()).Draw(t, item.String())}
			if rapid.Bool().Draw(t, "skipped") {
				delete(a.Body, item)
			}
		}
		r, err := Judge(c, Case{Today: today, Assessment: a})
		require.NoError(t, err)
		require.NotEmpty(t, r.Gate.Says)
		if r.Gate.State == standing {
			assert.Empty(t, r.Forbidden)
			assert.Empty(t, r.Blocks)
			for _, item := range c.Judging.RelevantTo(problem) {
				assert.NotEqual(t, horse.NotLookedAt, a.BodyOf(item), item.String())
			}
		}
		assert.Equal(t, len(r.Forbidden)+len(r.Blocks) > 0, r.Gate.State == tied)
	})
}

// What is drawn of a cause adds up to its score: the doubt it begins with, and the
// weights for and against.
func TestTheDrawnWeightsComeToTheScore(t *testing.T) {
	c := kept(t)
	keys := make([]string, len(c.Judging.Findings))
	for i, f := range c.Judging.Findings {
		keys[i] = f.Key
	}
	rapid.Check(t, func(t *rapid.T) {
		in := Input{Today: today, Problem: rapid.SampledFrom((horse.Problem{}).All()).Draw(t, "problem")}
		in.Assessment.Findings = map[string]horse.Source{}
		for _, key := range rapid.SliceOfN(rapid.SampledFrom(keys), 0, 12).Draw(t, "found") {
			in.Assessment.Findings[key] = rapid.SampledFrom((horse.Source{}).All()).Draw(t, key)
		}
		for _, cause := range Causes(c.Judging, in) {
			if cause.Score == nil {
				continue
			}
			sum := -cause.Doubt
			for _, e := range append(cause.For, cause.Against...) {
				sum += e.Weight
			}
			assert.InDelta(t, *cause.Score, logistic(sum), 1e-9, cause.Cause.String())
		}
	})
}

// Each look that may be asked for has its question.
func TestTheTellingLookIsAQuestion(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	for _, l := range (horse.Look{}).All() {
		assert.True(t, book.Has("ask."+l.String()), l.String())
		assert.Regexp(t, `\?$`, book.Say(phrase.Of("ask."+l.String(), nil)))
	}
	first := MostTelling(kept(t).Judging, Input{Today: today, Problem: horse.Loading})
	require.NotNil(t, first)
	assert.Equal(t, "B", first.Section)
	assert.Equal(t, "Nobody looked. It would show whether something hurts.", book.Say(first.Gain))
	some := Assessment{Body: body(kept(t).Judging.RelevantTo(horse.Loading)[0], horse.Clear)}
	first = MostTelling(kept(t).Judging, Input{Today: today, Problem: horse.Loading, Assessment: some})
	require.NotNil(t, first)
	assert.Equal(t, "B", first.Section)
	assert.Equal(t, "Not all of it was seen. It would show whether something hurts.", book.Say(first.Gain))
}

func mustProblem(word string) horse.Problem {
	for _, p := range (horse.Problem{}).All() {
		if p.String() == word {
			return p
		}
	}
	panic(word)
}
