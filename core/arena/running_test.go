package arena

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// What a running session says after each tap is what a fresh reading of its
// track would say, whatever came late, was undone or was sent twice.
func TestARunningSessionSaysWhatAFreshReadingSays(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		in := anyInput(t, c)
		in.School = rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")
		entries := in.Track
		in.Track = nil
		running, err := Run(c, c.Rules, in)
		require.NoError(t, err)
		order := rapid.Permutation(entries).Draw(t, "order of arrival")
		if rapid.Bool().Draw(t, "in order") {
			order = entries
		}
		var beads []Told
		for i, e := range order {
			now := e.At + int64(rapid.IntRange(0, 900).Draw(t, "later"))*1000
			running.Add(e)
			running.Add(e)
			p := running.Since(now)
			beads = append(beads[:p.From:p.From], p.Beads...)

			in.Track, in.Now = order[:i+1], now
			fresh, err := Run(c, c.Rules, in)
			require.NoError(t, err)
			want := fresh.Picture(now)
			assert.Equal(t, want.Advice, p.Advice)
			assert.Len(t, beads, len(want.Beads))
			assert.ElementsMatch(t, want.Beads, beads)
			assert.Equal(t, want.Recent, p.Recent)
			assert.Equal(t, want.Would, p.Would)
			assert.Equal(t, want.Count, p.Count)
		}
	})
}

// An undo may arrive before what it undoes: nothing of it is ever told.
func TestAnUndoBeforeWhatItUndoes(t *testing.T) {
	c := shipped(t)
	s := on("head.flex near").mark(1000, track.Mark{Arousal: horse.ArousalOf(2), EasyMinutes: 3}).reps("offered@10", way(horse.Bucked))
	undo := track.Entry{ID: "undo", Kind: track.KindUndo, At: s.at + 1000, Replaces: s.track[1].ID}
	r, err := Run(c, c.Rules, on("head.flex near").input(in("doses")))
	require.NoError(t, err)
	for _, e := range []track.Entry{s.track[0], undo, s.track[1]} {
		r.Add(e)
		assert.Empty(t, r.Since(s.at+300_000).Beads)
		assert.Zero(t, r.Advise(s.at+300_000).Numbers.N)
	}
	assert.NotEqual(t, track.MakeSafe, r.Advise(s.at).Action, "what was undone was no danger")
}

func TestAnEntryThatCantBeIsNamedAndTheOthersStand(t *testing.T) {
	r, err := Run(shipped(t), shipped(t).Rules, on("quarters.hind near").input())
	require.NoError(t, err)
	good := on("quarters.hind near").reps("accepted@3").track[0]
	refused := r.Add(track.Entry{ID: "a", Kind: track.KindRep}, good, track.Entry{ID: "b", Kind: track.KindSpell})
	assert.ErrorContains(t, refused[0], "entry a: a rep entry needs its rep")
	assert.NoError(t, refused[1])
	assert.ErrorContains(t, refused[2], "a spell entry needs its spell")
	assert.Len(t, r.Beads(), 1)
}

// Advice that was shown stands; when another device's entries arrive before it,
// what would be said now is told beside it.
func TestWhatWouldBeSaidAfterTwoDevicesMet(t *testing.T) {
	c := shipped(t)
	s := on("quarters.fore near").reps("refused@4 refused@5")
	r, err := Run(c, c.Rules, s.input())
	require.NoError(t, err)
	before := r.Advise(s.at)
	require.Equal(t, track.Same, before.Action)
	shown := track.Entry{ID: "shown", Kind: track.KindAdvice, At: s.at + 5, Device: "tablet", Shown: &track.Shown{After: s.track[1].ID, Action: before.Action, Rule: before.Rule, Next: before.Next.Ask}}
	r.Add(shown)
	assert.Empty(t, r.Picture(s.at+10).Would)

	late := s.track[0]
	late.ID, late.Device, late.At = "helper", "phone", s.at-1
	r.Add(late)
	would := r.Picture(s.at + 10).Would
	require.Len(t, would, 1)
	assert.Equal(t, "shown", would[0].ID)
	assert.Equal(t, track.Same, would[0].Shown)
	assert.Equal(t, track.Down, would[0].Now, "three refusals")
}

func TestASessionInTheSaddleGoesOnInHandAfterADanger(t *testing.T) {
	c := shipped(t)
	in := on("soft.halt near").reps("accepted@3").input()
	bucked := track.Rep{Ask: ask("soft.halt near"), Answer: horse.Refused, WaysOut: []horse.WayOut{horse.Bucked}, Arousal: horse.ArousalOf(3)}
	in.Track = append(in.Track, track.Entry{ID: "buck", Kind: track.KindRep, At: in.Track[0].At + 1000, Rep: &bucked})
	r, err := Run(c, c.Rules, in)
	require.NoError(t, err)
	a := r.Advise(in.Track[1].At)
	assert.Equal(t, track.MakeSafe, a.Action)
	assert.Equal(t, "why.danger.ridden", a.Why.Key)
	r.Add(track.Entry{ID: "calm", Kind: track.KindMark, At: in.Track[1].At + 60_000, Mark: &track.Mark{Arousal: horse.ArousalOf(1)}})
	a = r.Advise(in.Track[1].At + 60_000)
	require.NotNil(t, a.Next)
	step, _ := c.Step(a.Next.Step)
	assert.False(t, step.Ridden, "%s is asked in hand", a.Next.Step)
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			_, open := r.now.s.openAsk(step, horse.Variant{})
			assert.False(t, step.Ridden && open, "%s stays shut", step.Key)
		}
	}
}

func TestOpenTimeIsAHouseRule(t *testing.T) {
	c := shipped(t)
	rules := c.Rules
	assert.Equal(t, 60, rules.OpenTime)
	rules.OpenTime = 10
	s := on("bridle.zone").every(120).reps("refused@5 refused@5 refused@5 refused@5 refused@5 refused@5")
	in := s.input()
	in.School = horse.WaitItOut
	a, err := Advise(c, rules, in)
	require.NoError(t, err)
	assert.NotEqual(t, track.Same, a.Action, "ten minutes are over")
	a, err = Advise(c, c.Rules, in)
	require.NoError(t, err)
	assert.Equal(t, track.Same, a.Action)
}

// longTrack is a session of n entries: reps with corrections of the newest.
func longTrack(n int) []track.Entry {
	var entries []track.Entry
	for i := range n {
		at := int64(i) * 14_000
		r := track.Rep{Ask: ask("quarters.hind near"), Answer: []horse.Answer{horse.Accepted, horse.Accepted, horse.Try, horse.Tolerated}[i%4], Peak: horse.LevelOf(2 + i%3), Arousal: horse.ArousalOf(1)}
		e := track.Entry{ID: fmt.Sprintf("%05d", i), Kind: track.KindRep, At: at, Rep: &r}
		if i%5 == 4 {
			e.Replaces = fmt.Sprintf("%05d", i-1)
		}
		entries = append(entries, e)
	}
	return entries
}

func BenchmarkAdviceAfterATap(b *testing.B) {
	for _, n := range []int{50, 500} {
		for _, way := range []string{"next", "correction"} {
			b.Run(fmt.Sprintf("%s/%d", way, n), func(b *testing.B) {
				c := shipped(b)
				in := Input{School: horse.BuildAndRelease, Ask: ask("quarters.hind near"), Track: longTrack(n)}
				r, err := Run(c, c.Rules, in)
				require.NoError(b, err)
				at := in.Track[n-1].At
				for i := 0; b.Loop(); i++ {
					if i%20 == 19 { // no longer than it is meant to be
						b.StopTimer()
						r, err = Run(c, c.Rules, in)
						require.NoError(b, err)
						b.StartTimer()
					}
					e := in.Track[n-2]
					e.ID, e.At, e.Replaces = fmt.Sprint("tap", i), at+int64(i)+1, ""
					if way == "correction" {
						e.Replaces = in.Track[n-3].ID
					}
					r.Add(e)
					told, err := json.Marshal(r.Since(at + 1))
					require.NoError(b, err)
					require.NotEmpty(b, told)
				}
			})
		}
	}
}

// Asking for advice, however often and whenever, changes nothing of what is said
// later.
func TestAskingChangesNothing(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		in := anyInput(t, c)
		in.School = rapid.SampledFrom(horse.School{}.All()).Draw(t, "school")
		entries := in.Track
		in.Track = nil
		quiet, err := Run(c, c.Rules, in)
		require.NoError(t, err)
		asked, err := Run(c, c.Rules, in)
		require.NoError(t, err)
		for _, e := range entries {
			quiet.Add(e)
			asked.Add(e)
			for range rapid.IntRange(0, 2).Draw(t, "asks") {
				asked.Advise(e.At + int64(rapid.IntRange(0, 4000).Draw(t, "later"))*1000)
				asked.Review()
			}
		}
		assert.Equal(t, quiet.Picture(in.Now), asked.Picture(in.Now))
	})
}
