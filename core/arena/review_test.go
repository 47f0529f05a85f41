package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func review(t *testing.T, in Input) (Review, []string) {
	t.Helper()
	r, err := Run(shipped(t), shipped(t).Rules, in)
	require.NoError(t, err)
	v := r.Review()
	book := phrase.English(phrase.Shipped)
	var said []string
	for _, m := range v.Story {
		said = append(said, book.Say(m))
	}
	return v, said
}

func TestASessionIsToldAsAStory(t *testing.T) {
	s := on("quarters.hind near").reps("accepted@5 accepted@3 accepted@3 accepted@2").to("quarters.hind off").reps("refused@6", arousal(3)).mark(240_000, Mark{Arousal: horse.ArousalOf(1)}).reps("accepted@4")
	in := s.input()
	in.Track = append(in.Track,
		Entry{ID: "x", Kind: KindInterruption, At: s.at + 1, Interruption: &Interruption{Behaviour: horse.Planted}},
		Entry{ID: "z", Kind: KindEnd, At: s.at + 2})
	v, said := review(t, in)
	assert.Equal(t, []string{
		"It began with hind, near: 4 answers, 4 of them soft, from level 5 to 2.",
		"There the pass mark was reached.",
		"Then hind, off: 2 answers, 1 of them soft, from level 6 to 4.",
		"Something unasked was stopped 1 time.",
		"It went over the line 1 time.",
		"Coming back took 4 minutes at the longest.",
		"It ended on an answer that was accepted.",
	}, said)
	assert.Equal(t, "next.days", v.Next.Key)
	assert.Equal(t, 7, v.Minutes)
	require.Len(t, v.Asks, 2)
	assert.True(t, v.Asks[0].Passed)
	assert.False(t, v.Asks[1].Passed)
}

func TestTheNextVisitFollowsHowTheSessionEnded(t *testing.T) {
	for want, in := range map[string]Input{
		"next.days":   on("quarters.hind near").reps("refused@4 accepted@3").input(),
		"next.soon":   on("quarters.hind near").reps("accepted@3 refused@4").input(),
		"next.pain":   on("quarters.hind near").reps("accepted@3").mark(1000, Mark{Stop: stop("pain")}).input(),
		"next.danger": on("quarters.hind near").reps("refused@4", way(horse.Reared)).mark(1000, Mark{Arousal: horse.ArousalOf(1)}).reps("refused@4", way(horse.Reared)).input(),
	} {
		v, _ := review(t, in)
		assert.Equal(t, want, v.Next.Key)
	}
	v, _ := review(t, on("quarters.hind near").reps("accepted@3").mark(1000, Mark{Stop: stop("storm")}).input())
	assert.Equal(t, "next.days", v.Next.Key, "a storm refers nobody")
}

func TestTheHandlersTimingIsTold(t *testing.T) {
	timed := func(seconds, toTry float64) func(*Rep) {
		return func(r *Rep) { r.Seconds, r.ToTry, r.Start = seconds, &toTry, horse.LevelOf(1) }
	}
	s := on("quarters.hind near").reps("accepted@3", timed(5, 4.5)).reps("accepted@3", timed(8, 5)).reps("accepted@3", released(horse.WrongMoment))
	s.reps("accepted@2", func(r *Rep) { r.Handler, r.Start = "owner", horse.LevelOf(4) })
	in := s.input()
	in.Handler = "trainer"
	v, _ := review(t, in)
	assert.Equal(t, []Timing{
		{Handler: "trainer", Releases: 3, OnTheTry: 1, Late: 1, Wrong: 1, Starts: 2, FromOne: 2, Delay: 1.75},
		{Handler: "owner", Releases: 1, OnTheTry: 1, Starts: 1},
	}, v.Handlers)
}

func TestWhatWasOverruledIsTold(t *testing.T) {
	s := on("quarters.hind near").reps("accepted@3")
	in := s.input()
	shown := Shown{After: "0001", Action: Same, Rule: "15", Next: ask("quarters.hind near")}
	otherwise := shown
	otherwise.Otherwise, otherwise.Reason = true, "the farrier waits"
	in.Track = append(in.Track, Entry{ID: "a", Kind: KindAdvice, At: s.at + 1, Shown: &shown}, Entry{ID: "b", Kind: KindAdvice, At: s.at + 2, Shown: &otherwise})
	v, said := review(t, in)
	require.Len(t, v.Said, 1)
	assert.True(t, v.Said[0].Otherwise)
	assert.Equal(t, "the farrier waits", v.Said[0].Reason)
	assert.Contains(t, said, "The advice was followed 0 of 1 times.")
}

// What is written down from memory tells how far an ask came, and no more.
func TestFromMemory(t *testing.T) {
	c := shipped(t)
	line := func(last horse.Answer) Entry {
		return Entry{ID: "m", Kind: KindMemory, Memory: &Memory{Ask: ask("lead.halt"), Tries: 6, Worst: horse.Refused, Last: last}}
	}
	states := func(e Entry) []Known { return States(c, []Day{{Date: "2026-06-01", Track: []Entry{e}}}) }
	assert.Equal(t, horse.StepTolerated, states(line(horse.Offered))[0].State, "never met from memory")
	assert.Equal(t, horse.Tried, states(line(horse.Refused))[0].State)
	assert.Equal(t, "2026-06-01", states(line(horse.Refused))[0].Last)
	assert.Zero(t, LearnCycle(c, []Day{{Track: []Entry{line(horse.Offered)}}}, 4).Reps)
	_, said := review(t, Input{School: horse.BuildAndRelease, Ask: ask("lead.halt"), Track: []Entry{line(horse.Accepted)}})
	assert.Equal(t, []string{"From memory, halt: 6 tries, the last one accepted."}, said)

	bad := line(horse.Accepted)
	bad.Memory.Tries = 0
	assert.ErrorContains(t, bad.Check(c), "how many tries")
	bad.Memory = &Memory{Ask: ask("lead.nowhere"), Tries: 1, Last: horse.Try}
	assert.ErrorContains(t, bad.Check(c), "not an ask")
}
