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

// basicsMet is a horse that stands at the foot of a ladder: what it stands on is met.
func basicsMet(t testing.TB, ladder string) func(*Input) {
	c := shipped(t)
	l, _ := c.Ladder(ladder)
	return func(in *Input) {
		for _, n := range c.Piers(l) {
			for _, a := range c.AsksOf(n) {
				in.Known = append(in.Known, Known{Ask: a, State: horse.Met, Level: horse.LevelOf(1), Soft: true})
			}
		}
	}
}

// stepsMet are steps met whole.
func stepsMet(t testing.TB, steps ...string) func(*Input) {
	c := shipped(t)
	return func(in *Input) {
		for _, key := range steps {
			step, _ := c.Step(key)
			for _, a := range step.Asks() {
				in.Known = append(in.Known, Known{Ask: a, State: horse.Met, Level: horse.LevelOf(1), Soft: true})
			}
		}
	}
}

func opened(t testing.TB, in Input) *Running {
	t.Helper()
	c := shipped(t)
	r, err := Run(c, c.Rules, in)
	require.NoError(t, err)
	return r
}

func keys(asks []horse.Ask) []string {
	var list []string
	for _, a := range asks {
		if !slices.Contains(list, a.Step) {
			list = append(list, a.Step)
		}
	}
	return list
}

// Case 31.
func TestAnAskThatIsNotOpenIsLoggedAndAdvisedOn(t *testing.T) {
	basics := basicsMet(t, "bridle")
	skipped := []string{"bridle.nose", "bridle.zone", "bridle.ears", "bridle.lips", "bridle.mouth", "bridle.strap", "bridle.teeth"}
	s := on("bridle.bit").early().mark(0, track.Mark{Ask: ptr(ask("bridle.bit")), Why: "did it before"}).reps("accepted@2")
	r := opened(t, s.input(basics))
	assert.Equal(t, Early, r.Beads()[0].Against)
	assert.Empty(t, r.now.s.concluded, "once is not twice")
	require.NotNil(t, r.Advise(s.at).Against)
	assert.Equal(t, []string{"bridle teeth"}, r.Advise(s.at).Against.Waits)

	s.reps("accepted@2")
	r = opened(t, s.input(basics))
	var concluded []horse.Ask
	for a := range r.now.s.concluded {
		concluded = append(concluded, a)
	}
	assert.ElementsMatch(t, skipped, keys(concluded))
	assert.Equal(t, 2, r.Beads()[1].N, "it counts in full")

	s.reps("accepted@2 accepted@2 accepted@2")
	a := opened(t, s.input(basics)).Advise(s.at)
	assert.Equal(t, track.Up, a.Action)
	assert.Equal(t, "bridle.crown", a.Next.Step, "what is met opens what stands on it at once")

	no := on("bridle.bit").early().reps("refused@3 refused@3 refused@3")
	a = opened(t, no.input(basics)).Advise(no.at)
	assert.Equal(t, track.Down, a.Action)
	assert.Equal(t, "bridle.nose", a.Next.Step, "down to the first of them")
	a = opened(t, no.input()).Advise(no.at)
	assert.Equal(t, "head.down", a.Next.Step, "the first thing it waits for is a foundation")
}

// After a danger an early ask goes to the first thing it waits for, or two steps
// lower, whichever is lower.
func TestDownAfterADangerOnAnEarlyAsk(t *testing.T) {
	s := on("load.stand").early().reps("refused@3", way(horse.Struck)).mark(60_000, track.Mark{Arousal: horse.ArousalOf(1)})
	ladder := basicsMet(t, "load")
	a := opened(t, s.input(ladder)).Advise(s.at)
	assert.Equal(t, "load.board", a.Next.Step, "the first it waits for is lower than two steps")
	done := stepsMet(t, "load.board", "load.bridge", "load.gap", "load.square", "load.front")
	a = opened(t, s.input(ladder, done)).Advise(s.at)
	assert.Equal(t, "load.front", a.Next.Step, "it waits for load.step, two lower is load.front")
}

// What a lead trainer answers for may be advised; without it the advice goes to the
// nearest open step, and the entries are kept all the same.
func TestWhatIsForbiddenNeedsSomebodyWhoAnswersForIt(t *testing.T) {
	blocked := func(in *Input) {
		in.Blocked = []string{"load.step"}
		in.Barred = map[string]Barred{"load.step": {Why: phrase.Of("block.body", nil), Lifts: phrase.Of("block.body.lifts", nil)}}
	}
	ladder := basicsMet(t, "load")
	done := stepsMet(t, "load.board", "load.bridge", "load.gap", "load.square", "load.front")
	s := on("load.step").early().reps("accepted@2")
	r := opened(t, s.input(ladder, done, blocked))
	a := r.Advise(s.at)
	assert.Equal(t, track.Down, a.Action)
	assert.Equal(t, "load.front", a.Next.Step)
	assert.Equal(t, Forbidden, r.Beads()[0].Against)
	assert.Equal(t, Forbidden, a.Against.Kind)
	assert.Equal(t, "block.body", a.Against.Why.Key)
	assert.Equal(t, 1, r.Beads()[0].N, "kept and counted")

	s = on("load.step").early().mark(0, track.Mark{Ask: ptr(ask("load.step")), Despite: &track.Despite{Reason: "the vet was here", Answers: "vet"}}).reps("accepted@2")
	a = opened(t, s.input(ladder, done, blocked)).Advise(s.at)
	assert.Equal(t, track.Same, a.Action, "somebody answers for it")
	assert.Equal(t, "load.step", a.Next.Step)

	for _, bad := range []track.Mark{{Despite: &track.Despite{Reason: "x", Answers: "y"}}, {Ask: ptr(ask("load.step")), Despite: &track.Despite{Reason: " ", Answers: "y"}}, {Ask: ptr(ask("load.step")), Despite: &track.Despite{Reason: "x"}}} {
		e := track.Entry{ID: "1", Kind: track.KindMark, Mark: &bad}
		assert.Error(t, e.Check(shipped(t)), "%+v", bad)
	}
}

// What stands against an ask, of each kind.
func TestWhatStandsAgainstAnAsk(t *testing.T) {
	ladder := basicsMet(t, "load")
	standing := func(a string, edits ...func(*Input)) string {
		s := on("lead.forward").early()
		in := s.input(edits...)
		by := opened(t, in).now.s.against(ask(a))
		if by == nil {
			return ""
		}
		return by.Kind.String() + " " + by.Why.Key
	}
	assert.Empty(t, standing("lead.back"), "foundations are open from the first day")
	assert.Equal(t, "early against.early", standing("lead.stand"))
	assert.Equal(t, "early against.early", standing("load.square"))
	assert.Equal(t, "forbidden against.bars", standing("load.close", ladder), "no bar before it stands in by choice")
	assert.Equal(t, "forbidden against.bars", standing("load.tie", ladder))
	assert.Empty(t, standing("load.tie", ladder, known(horse.Met, 1, "load.stand")))
	assert.Equal(t, "early against.early", standing("load.close", known(horse.Met, 1, "load.stand")))
	assert.Equal(t, "forbidden against.ridden", standing("rush.slack"))
	assert.Empty(t, standing("soft.tack"), "a review needs nothing")
	assert.Equal(t, "early against.early", standing("zones.tool zone 4 off"))
	assert.Empty(t, standing("zones.tool zone 4 off", known(horse.Met, 1, "zones.hand zone 4 off")), "that zone and side are enough")
}

// A danger closes a step for the session; a lead trainer may answer for it, and the
// next danger ends the session.
// What steps of today lift is judged anew after each entry.
func TestABlockThatStepsOfTodayLift(t *testing.T) {
	s := on("control.flex near")
	in := func() Input {
		in := s.input()
		in.Blocked = []string{"control.trot"}
		in.Barred = map[string]Barred{"control.trot": {Why: phrase.Of("block.ridden.young", nil), Lifts: phrase.Of("block.ridden.young.lifts", nil), Until: []string{"control.flex"}}}
		return in
	}
	kind := func() Standing {
		r, err := Run(shipped(t), shipped(t).Rules, in())
		require.NoError(t, err)
		step, _ := shipped(t).Step("control.trot")
		return r.now.s.forbids(step).kind()
	}
	s.reps("accepted@2 accepted@2 accepted@2")
	assert.Equal(t, Forbidden, kind(), "one side is not the step")
	s.to("control.flex off").reps("accepted@2 accepted@2 accepted@2")
	assert.NotEqual(t, "block.ridden.young", func() string {
		r, _ := Run(shipped(t), shipped(t).Rules, in())
		step, _ := shipped(t).Step("control.trot")
		if a := r.now.s.forbids(step); a != nil {
			return a.Why.Key
		}
		return ""
	}())
}

func TestClosedByADanger(t *testing.T) {
	s := on("quarters.hind near").early().reps("refused@3", way(horse.Struck)).mark(60_000, track.Mark{Arousal: horse.ArousalOf(1)})
	r := opened(t, s.input())
	assert.Equal(t, Closed, r.now.s.against(ask("quarters.hind near")).Kind)
	s.mark(1000, track.Mark{Ask: ptr(ask("quarters.hind near")), Despite: &track.Despite{Reason: "it was a fly", Answers: "my decision"}}).reps("accepted@2")
	a := opened(t, s.input()).Advise(s.at)
	assert.Equal(t, "quarters.hind", a.Next.Step)
	s.reps("refused@3", way(horse.Struck)).mark(60_000, track.Mark{Arousal: horse.ArousalOf(1)})
	assert.Equal(t, track.EndSession, opened(t, s.input()).Advise(s.at).Action)
}

// The picker shows all asks: the horse's ladders, the foundations, then all others.
func TestEveryAskCanBeChosen(t *testing.T) {
	c := shipped(t)
	r := opened(t, on("bridle.bit").early().reps("accepted@2 accepted@2").input())
	choices := r.Choices([]string{"bridle"})
	n := 0
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			n += btoi(step.Link == "")
		}
	}
	assert.Len(t, choices, n)
	assert.Len(t, r.Cards(), n, "each can be answered")
	assert.Equal(t, "bridle.nose", choices[0].Ask.Step)
	assert.Equal(t, "known.concluded", choices[0].Says.Key)
	assert.True(t, slices.IsSortedFunc(choices, func(a, b Choice) int { return a.Group.Rank() - b.Group.Rank() }))
	for _, ch := range choices {
		assert.True(t, c.HasAsk(ch.Ask), "%v", ch.Ask)
		if ch.Ask.Step == "bridle.bit" {
			assert.Equal(t, horse.Tried, ch.State)
			assert.Equal(t, Early, ch.Against.Kind)
		}
	}
}

// The review tells what was asked early or against the advice, what is concluded,
// and who answers for it.
func TestTheReviewTellsWhatWasAskedAgainstTheAdvice(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	said := func(s *script, edits ...func(*Input)) []string {
		var list []string
		for _, m := range opened(t, s.input(edits...)).Review().Story {
			list = append(list, book.Say(m))
		}
		return list
	}
	early := said(on("bridle.teeth").early().reps("accepted@2 accepted@2"), basicsMet(t, "bridle"), stepsMet(t, "bridle.nose", "bridle.zone", "bridle.ears", "bridle.lips"))
	assert.Contains(t, early, "It was asked early: it waited for bridle strap.")
	assert.Contains(t, early, "Counted as understood, since a later step was accepted; nobody saw it: bridle mouth and bridle strap.")
	why := said(on("bridle.bit").early().mark(0, track.Mark{Ask: ptr(ask("bridle.bit"))}).mark(1000, track.Mark{Why: "did it before"}).reps("accepted@2"), basicsMet(t, "bridle"))
	assert.Contains(t, why, "It was asked early, since: did it before. It waited for bridle teeth.")
	tie := ask("load.tie")
	lead := said(on("load.tie").early().mark(0, track.Mark{Ask: &tie, Despite: &track.Despite{Reason: "ties daily at home", Answers: "my decision"}}).reps("accepted@2"))
	assert.Contains(t, lead, "It was asked against the advice: No bar is shut and nothing is tied before it stands in by choice.")
	assert.Contains(t, lead, "It was asked all the same (my decision): ties daily at home.")
	assert.Contains(t, said(on("load.tie").early().reps("accepted@2")), "Nobody has said yet who answers for it.")
}

// drawEarly draws a track of asks from anywhere in the catalogue.
func drawEarly(t *rapid.T, c *catalog.Catalog) []track.Entry {
	var asks []horse.Ask
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			if step.Link == "" {
				asks = append(asks, step.Asks()...)
			}
		}
	}
	var entries []track.Entry
	at := int64(0)
	a := rapid.SampledFrom(asks).Draw(t, "ask")
	for i := range rapid.IntRange(1, 25).Draw(t, "entries") {
		at += rapid.Int64Range(5_000, 120_000).Draw(t, "gap")
		e := track.Entry{ID: fmt.Sprintf("%03d", i), At: at}
		switch rapid.IntRange(0, 6).Draw(t, "kind") {
		case 0:
			a = rapid.SampledFrom(asks).Draw(t, "ask")
			e.Kind, e.Mark = track.KindMark, &track.Mark{Ask: &a}
			if rapid.Bool().Draw(t, "despite") {
				e.Mark.Despite = &track.Despite{Reason: "seen", Answers: "wren"}
			}
		case 1:
			e.Kind, e.Mark = track.KindMark, &track.Mark{Arousal: horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "arousal"))}
		default:
			e.Kind = track.KindRep
			e.Rep = &track.Rep{Ask: a, Answer: rapid.SampledFrom(horse.Answer{}.All()).Draw(t, "answer"), Peak: horse.LevelOf(rapid.IntRange(1, 9).Draw(t, "peak"))}
			if rapid.IntRange(0, 15).Draw(t, "struck") == 0 {
				e.Rep.WaysOut = []horse.WayOut{horse.Struck}
			}
		}
		entries = append(entries, e)
	}
	return entries
}

// Whatever is logged is kept and told; the advice stays one action with one reason
// on any track of early asks, and never names what is forbidden and unanswered.
func TestAnyAskCanBeLogged(t *testing.T) {
	c := shipped(t)
	book := phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		in := Input{School: rapid.SampledFrom(horse.School{}.All()).Draw(t, "school"), Ask: ask("lead.forward"), Track: drawEarly(t, c), Blocked: []string{"lead.back", "load.step"}}
		in.Now = in.Track[len(in.Track)-1].At
		r, err := Run(c, c.Rules, in)
		require.NoError(t, err)
		reps := 0
		for _, e := range in.Track {
			reps += btoi(e.Kind == track.KindRep)
		}
		require.Len(t, r.Beads(), reps, "each answer is told")
		a := r.Advise(in.Now)
		require.False(t, a.Action.IsZero())
		require.True(t, book.Has(a.Why.Key), a.Why.Key)
		if a.Next != nil && a.Action != track.Wait && a.Action != track.MakeSafe && a.Action != track.Hold {
			require.False(t, r.now.s.shut(a.Next.Step), "%s %s", a.Action, a.Next.Ask)
		}
		for _, ch := range r.Choices(nil) {
			require.True(t, book.Has(ch.Says.Key), ch.Says.Key)
			if ch.Against != nil {
				require.True(t, book.Has(ch.Against.Why.Key), ch.Against.Why.Key)
			}
		}
	})
}
