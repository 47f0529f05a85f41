package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// What two problems have alike is said once: causes by the same findings to the same
// score, and looks that were taken for neither.
func TestWhatTwoProblemsShare(t *testing.T) {
	score := func(f float64) *float64 { return &f }
	cause := func(c horse.Cause, s float64) Cause { return Cause{Cause: c, Score: score(s)} }
	look := func(key string) phrase.Message { return phrase.Of(key, nil) }
	one := ProblemResult{Problem: horse.Loading, Causes: []Cause{cause(horse.Dulled, 0.7), cause(horse.Fear, 0.3)}, Unlooked: []phrase.Message{look("look.A"), look("look.B")}}
	two := ProblemResult{Problem: horse.Girth, Causes: []Cause{cause(horse.Fear, 0.4), cause(horse.Dulled, 0.7)}, Unlooked: []phrase.Message{look("look.B"), look("look.C")}}
	s := sharedOf([]ProblemResult{one, two})
	assert.Equal(t, []horse.Cause{horse.Dulled}, s.Causes)
	assert.Equal(t, []phrase.Message{look("look.B")}, s.Unlooked)
	alone := sharedOf([]ProblemResult{one})
	assert.Empty(t, alone.Causes, "one problem shares with none")
	assert.Equal(t, one.Unlooked, alone.Unlooked)
	assert.Nil(t, sharedOf([]ProblemResult{one, {Causes: []Cause{}, Telling: &Telling{}}}).Telling)
	assert.Empty(t, sharedOf(nil).Unlooked)
}

// What is likely for either problem comes first, and what nobody looked at last.
func TestCausesOfTwoProblemsStandInOneOrder(t *testing.T) {
	score := func(p float64) *float64 { return &p }
	one := ProblemResult{Causes: []Cause{
		{Cause: horse.Body, Belief: likely, Score: score(0.8)}, {Cause: horse.Fear, Belief: unlikely, Score: score(0.1)}, {Cause: horse.Dulled, Belief: notLookedAt},
	}}
	other := ProblemResult{Causes: []Cause{
		{Cause: horse.Fear, Belief: likely, Score: score(0.9)}, {Cause: horse.Body, Belief: possible, Score: score(0.4)}, {Cause: horse.Dulled, Belief: notLookedAt},
	}}
	order := []horse.Cause{horse.Fear, horse.Body, horse.Dulled}
	assert.Equal(t, order, sharedOf([]ProblemResult{one, other}).Order)
	assert.Equal(t, order, sharedOf([]ProblemResult{other, one}).Order)
	assert.Equal(t, []horse.Cause{horse.Body, horse.Fear, horse.Dulled}, sharedOf([]ProblemResult{one}).Order)
}
