package arena

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

const umbrella = "own.01a21c6b3bbc77ab"

// A step that no ladder names is added in the session, logged, counted by the usual
// pass mark, and can be chosen again.
func TestAnOwnAskIsAddedAndCounted(t *testing.T) {
	own := catalog.OwnAsk{Key: umbrella, Name: "stands for the umbrella", Sides: true}
	s := on(umbrella + " near")
	in := s.input()
	in.Ask = ask("lead.forward")
	r := opened(t, in)
	s.mark(1000, track.Mark{New: &own, Ask: ptr(ask(umbrella + " near"))}).reps("accepted@2 accepted@2 accepted@2")
	for i, err := range r.Add(s.track...) {
		require.NoError(t, err, "entry %d", i)
	}
	a := r.Advise(s.at)
	assert.Equal(t, track.OtherSide, a.Action, "passed on that side")
	assert.Equal(t, ask(umbrella+" off"), a.Next.Ask)
	assert.Nil(t, a.Against)
	choices := r.Choices(nil)
	assert.Equal(t, ItsOwn, choices[0].Group, "it stands first")
	assert.Equal(t, "stands for the umbrella", choices[0].Name)
	_, answerable := r.Catalog().Step(umbrella)
	assert.True(t, answerable)
	late := s.track[1]
	late.ID, late.At = "late", 500
	require.NoError(t, r.Add(late)[0], "an entry out of its turn is read again with it")
	assert.Len(t, r.Beads(), 4)
	_, shippedHas := shipped(t).Step(umbrella)
	assert.False(t, shippedHas)
}

func TestWhatCantBeAnOwnAsk(t *testing.T) {
	for name, o := range map[string]catalog.OwnAsk{
		"another ladder's key": {Key: "lead.own", Name: "x"}, "no name": {Key: umbrella, Name: "  "},
		"too long": {Key: umbrella, Name: strings.Repeat("x", 61)}, "too long a hold": {Key: umbrella, Name: "x", Holds: 3601}, "less than none": {Key: umbrella, Name: "x", Holds: -1},
	} {
		e := track.Entry{ID: "1", Kind: track.KindMark, Mark: &track.Mark{New: &o}}
		assert.Error(t, e.Check(shipped(t)), name)
	}
	holds := catalog.OwnAsk{Key: umbrella, Name: strings.Repeat("x", 60), Holds: 3600}
	assert.NoError(t, holds.Check())
	step, _ := shipped(t).WithOwn(holds).Step(umbrella)
	assert.Equal(t, 3600, step.Last())
	assert.Equal(t, []horse.Ask{{Step: umbrella}}, step.Asks())
}
