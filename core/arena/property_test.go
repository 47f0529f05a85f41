package arena

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// anyInput draws a session in building and releasing: any track, any horse,
// any state of the steps.
func anyInput(t *rapid.T, c *catalog.Catalog) Input {
	var asks []horse.Ask
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			if step.Link == "" {
				asks = append(asks, step.Asks()...)
			}
		}
	}
	in := Input{
		School: horse.BuildAndRelease, Ask: rapid.SampledFrom(asks).Draw(t, "ask"), Handler: "h",
		Horse:    Horse{Young: rapid.Bool().Draw(t, "young"), BodyClear: rapid.Bool().Draw(t, "clear"), FearLikely: rapid.Bool().Draw(t, "fear")},
		Handlers: map[string]Handler{"h": {Owner: rapid.Bool().Draw(t, "owner"), Beginner: rapid.Bool().Draw(t, "beginner")}},
	}
	for _, a := range rapid.SliceOfNDistinct(rapid.SampledFrom(asks), 0, 12, horse.Ask.String).Draw(t, "known") {
		in.Known = append(in.Known, Known{Ask: a, State: rapid.SampledFrom((horse.StepState{}).All()).Draw(t, "state"), Soft: true, Level: horse.LevelOf(rapid.IntRange(1, 3).Draw(t, "level"))})
	}
	for _, a := range rapid.SliceOfN(rapid.SampledFrom(asks), 0, 3).Draw(t, "blocked") {
		in.Blocked = append(in.Blocked, a.Step)
	}
	near := rapid.SampledFrom(asks[:12])
	at := int64(0)
	n := rapid.IntRange(0, 40).Draw(t, "entries")
	for i := range n {
		at += int64(rapid.IntRange(0, 200).Draw(t, "gap")) * 1000
		in.Track = append(in.Track, anyEntry(t, i, at, in, near))
	}
	in.Now = at + int64(rapid.IntRange(0, 1_500).Draw(t, "since"))*1000
	return in
}

func anyEntry(t *rapid.T, i int, at int64, in Input, asks *rapid.Generator[horse.Ask]) track.Entry {
	e := track.Entry{ID: fmt.Sprintf("%03d", i), At: at}
	some := func(name string, of int) bool { return rapid.IntRange(1, of).Draw(t, name) == 1 }
	switch k := rapid.IntRange(0, 19).Draw(t, "kind"); {
	case k == 0 && i > 0:
		e.Kind, e.Replaces = track.KindUndo, fmt.Sprintf("%03d", rapid.IntRange(0, i-1).Draw(t, "undone"))
	case k <= 3:
		e.Kind, e.Mark = track.KindMark, &track.Mark{Arousal: horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "arousal")), EasyMinutes: rapid.IntRange(0, 5).Draw(t, "easy")}
		if some("choose", 3) {
			a := asks.Draw(t, "chosen")
			e.Mark.Ask = &a
		}
	default:
		r := track.Rep{Ask: in.Ask, Answer: rapid.SampledFrom((horse.Answer{}).All()).Draw(t, "answer"), Peak: horse.LevelOf(rapid.IntRange(0, 10).Draw(t, "peak"))}
		if some("elsewhere", 6) {
			r.Ask = asks.Draw(t, "other ask")
		}
		if some("arousal said", 4) {
			r.Arousal = horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "rep arousal"))
		}
		if some("way out", 8) {
			r.WaysOut = []horse.WayOut{rapid.SampledFrom((horse.WayOut{}).All()).Draw(t, "way")}
		}
		if some("flagged", 10) {
			r.Flags = []horse.Flag{rapid.SampledFrom((horse.Flag{}).All()).Draw(t, "flag")}
		}
		if some("release said", 6) {
			r.Release = rapid.SampledFrom((horse.Release{}).All()).Draw(t, "release")
		}
		e.Kind, e.Rep = track.KindRep, &r
	}
	return e
}

// last replays the track and gives the last live rep as the rules read it.
func last(c *catalog.Catalog, in Input) *session {
	s := newSession(c, c.Rules, in)
	for _, e := range track.Live(in.Track) {
		s.absorb(e)
		s.note(s.decide(max(e.At, s.now)))
	}
	return s
}

func TestAdvisorProperties(t *testing.T) {
	c := shipped(t)
	book := phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		in := anyInput(t, c)
		a, err := Advise(c, c.Rules, in)
		require.NoError(t, err)

		again, err := Advise(c, c.Rules, in)
		require.NoError(t, err)
		assert.Equal(t, a, again, "same input, same output")
		assert.False(t, a.Action.IsZero(), "exactly one action")
		assert.NotEmpty(t, a.Rule)
		assert.NotEqual(t, a.Say.Key, book.Say(a.Say), "the book has words for %s", a.Say.Key)
		assert.NotEqual(t, a.Why.Key, book.Say(a.Why), "the book has words for %s", a.Why.Key)
		assert.NotContains(t, book.Say(a.Say)+book.Say(a.Why), "{", "every argument is there")
		for _, w := range a.Warnings {
			assert.NotEqual(t, w.Why.Key, book.Say(w.Why), "the book has words for %s", w.Why.Key)
		}

		s := last(c, in)
		r := s.lastRep()
		if a.Action == track.Up {
			assert.Less(t, s.arousal, 3, "never up over the line")
			assert.True(t, r.soft(), "never up after a refusal")
		}
		if s.arousal >= 3 {
			assert.NotContains(t, []track.Action{track.Up, track.OtherSide, track.Down, track.Refocus}, a.Action, "nothing is asked over the line")
		}
		bad := r != nil && r.counted && (r.refused() || r.answer == horse.Tolerated)
		if a.Action == track.EndAsk && bad && s.asked == nil {
			endOfADown := a.Why.Key == "why.nothing_lower"
			assert.True(t, endOfADown || slices.Contains([]string{"2", "3", "4", "5", "6"}, a.Rule), "rule %s ended an ask on %s", a.Rule, r.answer)
		}
		if a.Next != nil && a.Action != track.Refocus {
			assert.False(t, s.shut(a.Next.Step), "a closed or blocked step is never asked: %s", a.Next.Step)
			assert.Equal(t, 1, a.Next.StartLevel)
			assert.LessOrEqual(t, a.Next.BuildTo, 8)
		}
	})
}

func TestAHorseThatOnlyRefusesComesToAnEnd(t *testing.T) {
	c := shipped(t)
	for _, answer := range []string{"refused@5", "tolerated@4", "try@4", "accepted@5", "accepted@2", "offered@1"} {
		s := on("quarters.fore near").every(60)
		in := s.input()
		ended := 0
		for range 60 {
			a, err := Advise(c, c.Rules, in)
			require.NoError(t, err)
			if a.Action == track.EndSession && a.Easy == nil {
				break
			}
			if a.Action == track.EndAsk || a.Action == track.EndSession {
				ended++
			}
			if a.Next != nil {
				s.ask = a.Next.Ask
				s.target = a.Next.Target
			}
			s.reps(answer)
			in.Track, in.Now = s.track, s.at
		}
		a, err := Advise(c, c.Rules, in)
		require.NoError(t, err)
		assert.Equal(t, track.EndSession, a.Action, "%s comes to an end", answer)
		assert.LessOrEqual(t, s.at, int64(45*minute), "%s within the session cap and two easy tries", answer)
		assert.LessOrEqual(t, ended, 40)
	}
}

func TestVoidedEntriesLeaveNoTrace(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		in := anyInput(t, c)
		want, err := Advise(c, c.Rules, in)
		require.NoError(t, err)
		at := int64(0)
		if n := len(in.Track); n > 0 {
			at = in.Track[n-1].At
		}
		if at > in.Now {
			in.Now = at
		}
		slip := track.Rep{Ask: in.Ask, Answer: horse.Refused, Peak: horse.LevelOf(9), WaysOut: []horse.WayOut{horse.Reared}}
		in.Track = append(in.Track,
			track.Entry{ID: "slip", Kind: track.KindRep, At: at, Device: "z", Rep: &slip},
			track.Entry{ID: "undo", Kind: track.KindUndo, At: at, Device: "z", Seq: 1, Replaces: "slip"})
		got, err := Advise(c, c.Rules, in)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	})
}

func TestUndoAndCorrection(t *testing.T) {
	entries := on("quarters.hind near").reps("accepted@3 refused@5").track
	fixed := track.Rep{Ask: ask("quarters.hind near"), Answer: horse.Accepted, Peak: horse.LevelOf(2)}
	fix := track.Entry{ID: "fix", Kind: track.KindRep, At: entries[1].At + 1, Replaces: entries[1].ID, Rep: &fixed}
	undoFix := track.Entry{ID: "undo", Kind: track.KindUndo, At: entries[1].At + 2, Replaces: "fix"}
	back := track.Entry{ID: "back", Kind: track.KindUndo, At: entries[1].At + 3, Replaces: "undo"}

	live := track.Live(append(entries, fix))
	require.Len(t, live, 2)
	assert.Equal(t, horse.Accepted, live[1].Rep.Answer)
	assert.Equal(t, entries[1].At, live[1].At, "a correction stands at the original's place")
	assert.Equal(t, horse.Refused, track.Live(append(entries, fix, undoFix))[1].Rep.Answer)
	assert.Equal(t, horse.Accepted, track.Live(append(entries, fix, undoFix, back))[1].Rep.Answer)
	assert.Len(t, track.Live([]track.Entry{fix}), 0, "a correction waits for its original")

	a := track.Entry{ID: "a", Kind: track.KindUndo, Replaces: "b"}
	b := track.Entry{ID: "b", Kind: track.KindUndo, Replaces: "a"}
	assert.NotPanics(t, func() { track.Live([]track.Entry{a, b}) }, "two that undo each other")
}
