package arena

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
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
	s := on("quarters.hind near").reps("accepted@5 accepted@3 accepted@3 accepted@2").to("quarters.hind off").reps("refused@6", arousal(3)).mark(240_000, track.Mark{Arousal: horse.ArousalOf(1)}).reps("accepted@4")
	in := s.input()
	in.Track = append(in.Track,
		track.Entry{ID: "x", Kind: track.KindInterruption, At: s.at + 1, Interruption: &track.Interruption{Behaviour: horse.Planted}},
		track.Entry{ID: "z", Kind: track.KindEnd, At: s.at + 2})
	v, said := review(t, in)
	assert.Equal(t, []string{
		"First quarters hind, near: 4 asks, 4 soft, from level 5 to 2.",
		"There the pass mark was reached.",
		"Then quarters hind, off: 2 asks, 1 soft, from level 6 to 4.",
		"Stopped once: planted, 1.4 in ten minutes.",
		"It went over the line once.",
		"Coming back took 4 minutes at the longest.",
		"It ended on a good answer.",
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
		"next.pain":   on("quarters.hind near").reps("accepted@3").mark(1000, track.Mark{Stop: stop("pain")}).input(),
		"next.danger": on("quarters.hind near").reps("refused@4", way(horse.Reared)).mark(1000, track.Mark{Arousal: horse.ArousalOf(1)}).reps("refused@4", way(horse.Reared)).input(),
	} {
		v, _ := review(t, in)
		assert.Equal(t, want, v.Next.Key)
	}
	v, _ := review(t, on("quarters.hind near").reps("accepted@3").mark(1000, track.Mark{Stop: stop("storm")}).input())
	assert.Equal(t, "next.days", v.Next.Key, "a storm refers nobody")
}

func TestTheHandlersTimingIsTold(t *testing.T) {
	timed := func(seconds, toTry float64) func(*track.Rep) {
		return func(r *track.Rep) { r.Seconds, r.ToTry, r.Start = seconds, &toTry, horse.LevelOf(1) }
	}
	s := on("quarters.hind near").reps("accepted@3", timed(5, 4.5)).reps("accepted@3", timed(8, 5)).reps("accepted@3", released(horse.WrongMoment))
	s.reps("accepted@2", func(r *track.Rep) { r.Handler, r.Start = "owner", horse.LevelOf(4) })
	in := s.input()
	in.Handler = "trainer"
	v, _ := review(t, in)
	assert.Equal(t, []Timing{
		{Handler: "trainer", Releases: 3, OnTheTry: 1, Late: 1, Wrong: 1, Starts: 2, FromOne: 2, Delay: 1.75},
		{Handler: "owner", Releases: 1, OnTheTry: 1, Starts: 1},
	}, v.Handlers)
}

// shown is advice as a device logged it, a second after the last entry.
func (s *script) shown(a track.Action, next string, edits ...func(*track.Shown)) *script {
	after := ""
	for _, e := range s.track {
		if e.Kind != track.KindAdvice {
			after = e.ID
		}
	}
	sh := track.Shown{After: after, Action: a, Rule: "15", Next: ask(next)}
	for _, edit := range edits {
		edit(&sh)
	}
	s.at += 1000
	s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindAdvice, At: s.at, Shown: &sh})
	return s
}

func otherwiseBecause(reason string) func(*track.Shown) {
	return func(s *track.Shown) { s.Otherwise, s.Reason = true, reason }
}

func TestWhatWasOverruledIsTold(t *testing.T) {
	s := on("quarters.hind near").reps("accepted@3").shown(track.Same, "quarters.hind near").shown(track.Same, "quarters.hind near", otherwiseBecause("the farrier waits")).to("quarters.fore near").reps("accepted@3")
	v, said := review(t, s.input())
	require.Len(t, v.Said, 1)
	assert.True(t, v.Said[0].Otherwise)
	assert.Equal(t, "the farrier waits", v.Said[0].Reason)
	assert.Contains(t, said, "What was advised was done in 0 of 1 case.")
}

// An advice counts once, and as followed only when the next thing done is what
// it said.
func TestAdviceFollowedIsCounted(t *testing.T) {
	hind, fore := "quarters.hind near", "quarters.fore near"
	five := func() *script {
		s := on(hind)
		for range 5 {
			s.reps("accepted@3").shown(track.Same, hind).shown(track.Same, hind).shown(track.Same, hind)
		}
		return s
	}
	chosen := ask(fore)
	for name, test := range map[string]struct {
		in    Input
		n, of int
	}{
		"five answers, advice shown three times each": {five().input(), 4, 4},
		"another ask was answered":                    {on(hind).reps("accepted@3").shown(track.Same, hind).to(fore).reps("accepted@3").input(), 0, 1},
		"another ask was chosen":                      {on(hind).reps("accepted@3").shown(track.Same, hind).mark(0, track.Mark{Ask: &chosen}).to(fore).reps("accepted@3").input(), 0, 1},
		"the ask was chosen as advised":               {on(hind).reps("accepted@3").shown(track.Up, fore).mark(0, track.Mark{Ask: &chosen}).to(fore).reps("accepted@3").input(), 1, 1},
		"a mark answers nothing":                      {on(hind).reps("accepted@3").shown(track.Same, hind).mark(0, track.Mark{Halter: true}).input(), 0, 0},
		"waited, and it was noted":                    {on(hind).reps("try@3", arousal(3)).shown(track.Wait, hind).mark(0, felt(1)).input(), 1, 1},
		"asked while it was to be waited":             {on(hind).reps("try@3", arousal(3)).shown(track.Wait, hind).reps("try@3").input(), 0, 1},
		"ended as advised":                            {on(hind).reps("accepted@3").shown(track.EndSession, "").end().input(), 1, 1},
		"went on all the same":                        {on(hind).reps("accepted@3").shown(track.EndSession, "").reps("accepted@3").input(), 0, 1},
		"ended an ask, and chose another":             {on(hind).reps("accepted@3").shown(track.EndAsk, hind).mark(0, track.Mark{Ask: &chosen}).input(), 1, 1},
		"ended where it was to go on":                 {on(hind).reps("accepted@3").shown(track.Same, hind).end().input(), 0, 1},
	} {
		v, _ := review(t, test.in)
		assert.Equal(t, Followed{test.n, test.of}, v.Followed, name)
	}
}

// Each school is told in its own success.
func TestEachSchoolIsToldInItsOwnSuccess(t *testing.T) {
	rests := on("load.step").spell("away", false, 60, 4).spell("in", true, 70, 0).spell("away", false, 30, 4).spell("in", true, 90, 0).spell("in", true, 20, 0).end()
	rests.track[3].Spell.FeetIn = 4
	soft := func(seconds float64) func(*track.Rep) {
		return func(r *track.Rep) { r.Seconds = seconds }
	}
	for school, test := range map[string]struct {
		s    *script
		want []string
	}{
		"relief place":      {rests, []string{"First load step in: it came and chose to rest three times, 90 s the longest, with 4 feet in.", "It ended in a rest that it chose."}},
		"doses":             {on("new.shoulder near").doses("4 6 9/14/3 4", kicks(6)).doses("4", kicks(2)).end(), []string{"First new shoulder, near: it stood for 4 of 5 doses, up to 6.", "Kicks at the tool: 6 in ten touches at first, 2 at the end.", "It ended on a good answer."}},
		"ask and listen":    {on("saddle.show").offers("came came left stayed").end(), []string{"First saddle show: yes to 3 of 4 offers.", "There the pass mark was reached.", "It ended on a yes."}},
		"wait it out":       {on("head.flex near").reps("refused@4").reps("accepted@4", soft(80)).reps("try@4").reps("accepted@4", soft(25)).end(), []string{"First head flex, near: 3 of 4 answers let go on a try or better, soft after 80 s at first and 25 s at the end.", "It ended on a good answer."}},
		"build and release": {on("head.flex near").reps("accepted@4").end(), []string{"First head flex, near: 1 ask, 1 soft, at level 4.", "It ended on a good answer."}},
	} {
		input := test.s.input(in(school))
		input.Ask = test.s.ask
		v, said := review(t, input)
		if school == "ask and listen" {
			said = append(said[:1:1], said[len(said)-1])
			test.want = []string{test.want[0], test.want[2]}
		}
		assert.Equal(t, test.want, said, school)
		assert.Equal(t, "next.days", v.Next.Key, "%s ended well", school)
	}
	_, said := review(t, on("load.step").spell("away", false, 60, 4).spell("in", true, 70, 0).input(in("relief place")))
	assert.NotContains(t, said[0], "level 0")
	for _, b := range Beads(shipped(t), track.Day{Track: rests.track}, nil, map[string]horse.School{"load": horse.ReliefPlace}) {
		assert.False(t, b.Dip, "spells have no cycle")
	}
}

func TestInterruptionsAreCounted(t *testing.T) {
	s := on("home.near")
	stop := func(after int64, level int, seconds float64) {
		s.at += after
		s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindInterruption, At: s.at, Interruption: &track.Interruption{Behaviour: horse.TurnedAway, Heading: "home", Level: horse.LevelOf(level), Seconds: seconds}})
	}
	stop(minute, 4, 6)
	stop(minute, 2, 3)
	stop(minute, 2, 2)
	s.mark(17*minute, felt(1))
	v, said := review(t, s.input())
	require.Len(t, v.Stopped, 1)
	assert.Equal(t, Behaviour{What: horse.TurnedAway, Heading: "home", N: 3, PerTen: 1.5, Level: horse.LevelOf(2), Seconds: 3, All: 11, AllPerTen: 5.5, Quiet: 17}, v.Stopped[0])
	assert.Equal(t, []string{"Stopped three times: turned away, heading home, 1.5 in ten minutes, with level 2, in 3 s.", "None of it in the last 17 minutes."}, said)
}

// What is written down from memory tells how far an ask came, and no more.
func TestFromMemory(t *testing.T) {
	c := shipped(t)
	line := func(last horse.Answer) track.Entry {
		return track.Entry{ID: "m", Kind: track.KindMemory, Memory: &track.Memory{Ask: ask("lead.halt"), Tries: 6, Worst: horse.Refused, Last: last}}
	}
	assert.Equal(t, horse.Offered, ReadDay(c, track.Day{Track: []track.Entry{line(horse.Offered)}}, nil, nil).Memory[ask("lead.halt")])
	assert.Zero(t, learn(c, []track.Day{{Track: []track.Entry{line(horse.Offered)}}}).Reps)
	_, said := review(t, Input{School: horse.BuildAndRelease, Ask: ask("lead.halt"), Track: []track.Entry{line(horse.Accepted)}})
	assert.Equal(t, []string{"From memory, lead halt: 6 tries, the last one good."}, said)

	bad := line(horse.Accepted)
	bad.Memory.Tries = 0
	assert.ErrorContains(t, bad.Check(c), "how many tries")
	bad.Memory = &track.Memory{Ask: ask("lead.nowhere"), Tries: 1, Last: horse.Try}
	assert.ErrorContains(t, bad.Check(c), "not an ask")
}

// An outing is told as it was walked; the answer that it counts as is not told again, and
// one that was not walked to its end says so.
func TestAnOutingIsToldInTheReview(t *testing.T) {
	c := shipped(t)
	press := func(at int64, w track.Walk) track.Entry {
		return track.Entry{ID: w.Button.String(), Kind: track.KindMark, At: at * 1000, Mark: &track.Mark{Walk: &w}}
	}
	near := horse.Ask{Step: "home.near"}
	out := []track.Entry{press(60, track.Walk{Button: track.SetOff, Road: &track.Road{Minutes: 3, Metres: 240}})}
	whole := append(out, press(240, track.Walk{Button: track.Turned}), press(240, track.Walk{Button: track.StoppedAt}), press(420, track.Walk{Button: track.Stood}),
		press(600, track.Walk{Button: track.AtHome}), track.Entry{ID: "r", Kind: track.KindRep, At: 601_000, Rep: &track.Rep{Ask: near, Answer: horse.Accepted}})
	told := func(entries []track.Entry) string {
		r, err := ReviewOf(c, Input{School: horse.ReliefPlace, Ask: near, Started: 1000, Track: entries})
		require.NoError(t, err)
		text := ""
		for _, m := range r.Story {
			text += phrase.English(phrase.Shipped).Say(m) + " "
		}
		return text
	}
	assert.Contains(t, told(whole), "Walked 3 minutes out and 6 minutes home, and stood at 1 of 1 stop.")
	assert.NotContains(t, told(whole), "did not choose to rest")
	assert.Contains(t, told(out), "the way home was not walked to its end.")
}

func TestHowMuchInTenMinutes(t *testing.T) {
	assert.InDelta(t, 5, PerTen(10, 20), 0)
	assert.InDelta(t, 30, PerTen(3, 0.5), 0, "less than a minute counts as one")
	assert.InDelta(t, 2, Minutes([]track.Entry{{At: 60_000}, {At: 180_000}}, 60_000), 0)
	assert.Zero(t, Minutes(nil, 5))
	assert.Zero(t, Minutes([]track.Entry{{At: 5}}, 10), "a clock that was set back")
	assert.Equal(t, 1, Spooks([]track.Entry{{Mark: &track.Mark{Spooked: true}}, {Mark: &track.Mark{}}, {}}))
}
