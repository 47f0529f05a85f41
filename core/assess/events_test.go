package assess

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
)

func baseline(ways ...horse.WayOut) Assessment {
	return Assessment{Problems: map[horse.Problem]Account{horse.Loading: {Baseline: Baseline{Done: true, WaysOut: ways}}}}
}

func kind(t testing.TB, s string) (k EventKind) {
	t.Helper()
	require.NoError(t, k.UnmarshalText([]byte(s)))
	return k
}

// A dangerous way out tapped anywhere in the assessment is an event of its day.
func TestDangerSeenInTheAssessmentIsAnEvent(t *testing.T) {
	c := kept(t)
	points := func(in Case) int {
		t.Helper()
		in.Today = today
		r, err := Judge(c, in)
		require.NoError(t, err)
		n := 0
		for _, l := range r.Risk.Lines {
			if l.Why.Key == "risk.event" {
				n += l.Points
			}
		}
		return n
	}
	both := baseline(horse.Reared, horse.Struck)
	assert.Equal(t, 6, points(Case{Assessment: both}), "reared and struck at the baseline")
	assert.Equal(t, 3, points(Case{Assessment: baseline(horse.Reared, horse.Reared, horse.TurnedAway)}), "a kind once")
	assert.Equal(t, 2, points(Case{Assessment: Assessment{Ways: map[string][]horse.WayOut{"F": {horse.Bit}}}}), "bit in F")
	for _, section := range []string{"C", "D", "F"} {
		assert.Equal(t, 3, points(Case{Assessment: Assessment{Ways: map[string][]horse.WayOut{section: {horse.KickedAtPerson}}}}), section)
	}
	twice := baseline(horse.Reared)
	twice.Events = map[string]Event{"a": {Kind: kind(t, "reared"), On: today}}
	assert.Equal(t, 3, points(Case{Assessment: twice}), "tapped under A too")

	told := baseline(horse.Reared)
	told.Sources = map[string]horse.Source{"E": horse.OnVideo}
	assert.Zero(t, points(Case{Assessment: told}), "on video it is one of its own date")
	require.Len(t, told.Doubts(), 1)
	assert.Contains(t, told.Doubts()[0].Say, "on which day it reared")
	told.Events = map[string]Event{"a": {Kind: kind(t, "reared"), On: "2026-05-20"}}
	assert.Empty(t, told.Doubts())
	assert.Equal(t, 3, points(Case{Assessment: told}))

	assert.Zero(t, points(Case{Assessment: both, Before: &both}), "what stood in the one it was begun from is of an earlier day")
	assert.Equal(t, 6, points(Case{Assessment: both, Before: &both, Logged: both.Seen(Assessment{}, "2026-05-01")}))
	assert.Equal(t, []int{3, 0}, []int{
		points(Case{Assessment: baseline(horse.Reared), On: "2026-03-03"}),
		points(Case{Assessment: baseline(horse.Reared), On: "2026-03-02"}),
	}, "90 days, and 91 before "+today)
}

func TestOverBackwardsIsInHandOnly(t *testing.T) {
	c := kept(t)
	account := Account{Baseline: Baseline{Done: true}}
	once := Assessment{Problems: map[horse.Problem]Account{problem(t, "bucking"): account}}
	once.Events = map[string]Event{"a": {Kind: wentOver, On: "2019-01-01"}}
	seen := Assessment{Problems: map[horse.Problem]Account{problem(t, "bucking"): {Baseline: Baseline{WaysOut: []horse.WayOut{horse.WentOver}}}}}
	video := seen
	video.From = horse.OnVideo
	for name, a := range map[string]Assessment{"years ago": once, "at the baseline": seen, "on video": video} {
		r, err := Judge(c, Case{Today: today, Assessment: a})
		require.NoError(t, err)
		assert.True(t, r.InHand, name)
		assert.Equal(t, "stop.over", r.Stops[0].Key, name)
		assert.Equal(t, "forbid.in_hand", r.Forbidden[0].Key, name)
		barred := map[string]Block{}
		for _, b := range AllBlocks(c, a, Record{}, Barring{Today: today, InHand: true}) {
			barred[b.Step] = b
		}
		for _, l := range c.Ladders {
			for _, s := range l.Steps {
				weight := s.Ridden || l.Key == "mount" || s.Key == "zones.over"
				assert.Equal(t, weight, barred[s.Key].Never, s.Key)
			}
		}
		start := r.Problems[0].Start
		require.NotNil(t, start, name)
		step, _ := c.Step(start.Key)
		assert.False(t, step.Ridden, name)
	}
	r, err := Judge(c, Case{Today: today, Assessment: Assessment{}, Logged: []Event{{Kind: wentOver, On: "2015-01-01"}}})
	require.NoError(t, err)
	assert.True(t, r.InHand, "logged in a session")
	r, err = Judge(c, Case{Today: today, Assessment: baseline(horse.Reared)})
	require.NoError(t, err)
	assert.False(t, r.InHand, "a rear is not over backwards")
}

func TestCantBeCaughtIsHighCare(t *testing.T) {
	c := kept(t)
	for _, p := range (horse.Problem{}).All() {
		a := Assessment{NotYet: true}.About(p)
		r, err := Judge(c, Case{Today: today, Assessment: a})
		require.NoError(t, err)
		assert.GreaterOrEqual(t, r.Care.Rank(), horse.HighCare.Rank(), p)
		assert.Equal(t, horse.Doses, r.Problems[0].School.School, p)
		assert.True(t, r.Problems[0].School.Owner, p)
		assert.Equal(t, "wild.pole", r.Problems[0].Start.Key, p)
		assert.Contains(t, keysOf(r), "forbid.owner")
	}
}

func keysOf(r Result) []string {
	var keys []string
	for _, m := range r.Forbidden {
		keys = append(keys, m.Key)
	}
	return keys
}

func problem(t testing.TB, s string) (p horse.Problem) {
	t.Helper()
	require.NoError(t, p.UnmarshalText([]byte(s)))
	return p
}

// Once it shook, left or froze at the thing, waiting it out is never suggested,
// whatever else was found; nor with a horse that throws itself.
func TestWaitItOutIsNeverSuggestedToTheFrightened(t *testing.T) {
	c := kept(t)
	rapid.Check(t, func(t *rapid.T) {
		p := rapid.SampledFrom((horse.Problem{}).All()).Draw(t, "problem")
		findings := map[string]horse.Source{}
		for _, f := range rapid.SliceOfN(rapid.SampledFrom(c.Judging.Findings), 0, 8).Draw(t, "found") {
			findings[f.Key] = rapid.SampledFrom([]horse.Source{horse.Seen, horse.OnVideo, horse.Told}).Draw(t, "source")
		}
		key := rapid.SampledFrom([]string{"shakes_sweats", "freezes", "pressure_off_leaves", ""}).Draw(t, "frightened")
		base := Baseline{Arousal: horse.ArousalOf(rapid.IntRange(0, 4).Draw(t, "arousal"))}
		if key != "" {
			findings[key] = horse.Told
		} else if base.Arousal.Int() < 4 {
			base.WaysOut = []horse.WayOut{horse.WentOver}
		}
		r, err := Judge(c, Case{Today: today, Assessment: Assessment{Problems: map[horse.Problem]Account{p: {Baseline: base, Findings: findings}}}})
		require.NoError(t, err)
		school := r.Problems[0].School
		assert.NotEqual(t, horse.WaitItOut, school.School, "%s: %v", p, school.Why)
		l, _ := c.LadderFor(p)
		named := slices.Contains(l.Schools, school.School)
		assert.True(t, named || school.School == horse.Doses, "%s is not named by %s", school.School, l.Key)
	})
}

// A finding that clears all that bears on it is seen enough of; a gelding is
// looked at without a date; hands-on work is not nobody's.
func TestWhatWasSeenIsNotCalledUnseen(t *testing.T) {
	c := kept(t)
	clear := Assessment{Body: map[horse.BodyItem]BodyNote{}}
	for _, item := range c.Judging.RelevantTo(horse.Bridling) {
		clear.Body[item] = BodyNote{State: horse.Clear}
	}
	r, err := Judge(c, Case{Today: today, Assessment: clear.About(horse.Bridling), Record: Record{Sex: Sex{}.All()[1]}})
	require.NoError(t, err)
	for _, cause := range r.Problems[0].Causes {
		if cause.Cause == horse.Body {
			assert.Equal(t, unlikely, cause.Belief)
		}
	}
	for _, gap := range r.Problems[0].Unlooked {
		assert.NotEqual(t, "look.B.history", gap.Key)
	}
	handled := Assessment{Basics: map[string]Basic{"lead.back": {Grade: horse.Accepted, Level: horse.LevelOf(1)}}}
	r, err = Judge(c, Case{Today: today, Assessment: handled.About(horse.Loading)})
	require.NoError(t, err)
	assert.Equal(t, "basis.few_seen", r.Basis.Say.Key)
	handled.From = horse.OnVideo
	r, err = Judge(c, Case{Today: today, Assessment: handled.About(horse.Loading)})
	require.NoError(t, err)
	assert.Equal(t, "basis.nothing", r.Basis.Say.Key)
}
