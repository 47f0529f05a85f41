package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/track"
)

// Whatever is logged in whatever school, all that is said after it can be read
// aloud.
func TestAllThatTheArenaSaysReadsWell(t *testing.T) {
	c := shipped(t)
	book := phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		input := anyInput(t, c)
		input.School = rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")
		for i, e := range input.Track {
			if e.Rep != nil && rapid.Bool().Draw(t, "of another kind") {
				input.Track[i] = other(t, e)
			}
		}
		r, err := Run(c, c.Rules, input)
		require.NoError(t, err)
		for _, e := range input.Track {
			a := r.Advise(e.At)
			require.Empty(t, aloud.Faults(book, a))
			require.Empty(t, aloud.Faults(book, a.Then))
		}
		require.Empty(t, aloud.Faults(book, r.Advise(input.Now)))
		require.Empty(t, aloud.Faults(book, r.Review()))
	})
}

// Every rule, warning and action has words.
func TestEveryRuleWarningAndActionHasWords(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	for _, w := range warningsInOrder {
		assert.True(t, book.Has("warn."+w.name), w.name)
	}
	assert.True(t, book.Has("warn.nagging.smaller"))
	for _, a := range (track.Action{}).All() {
		assert.True(t, book.Has("say."+keyOf(a)), a)
	}
	for _, a := range []track.Action{track.ChangeAsk, track.EndAsk, track.EndSession} {
		assert.True(t, book.Has("say."+keyOf(a)+".easy"), a)
	}
	for _, s := range (horse.School{}).All() {
		assert.True(t, book.Has("why.begin."+keyOf(s)), s)
		assert.True(t, book.Has("story."+keyOf(s)), s)
	}
	for _, l := range shipped(t).Ladders {
		for _, s := range l.Steps {
			for _, v := range append([]int{0, 1, 2}, s.Pass.Values...) {
				m := targetText(s, v)
				assert.True(t, book.Has(m.Key), "%s has no words for its unit", s.Key)
				assert.Empty(t, aloud.Wrong("up to "+book.Say(m)), s.Key)
			}
		}
	}
}
