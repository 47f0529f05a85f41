package arena

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// liveOf are the live lines of a session as one reads them.
func liveOf(t *testing.T, in Input) (Live, []string) {
	t.Helper()
	r, err := Run(shipped(t), shipped(t).Rules, in)
	require.NoError(t, err)
	live := r.Picture(in.Now).Live
	book := phrase.English(phrase.Shipped)
	said := []string{}
	for _, m := range live.Lines {
		said = append(said, book.Say(m))
	}
	return live, said
}

func seconds(s float64) func(*track.Rep) { return func(r *track.Rep) { r.Seconds = s } }

// Wait it out: seconds to soft, and whether they fall; one quarter is the line.
func TestSecondsToSoftAreToldAsTheyCome(t *testing.T) {
	of := func(each ...float64) []string {
		s := on("bridle.nose")
		for _, one := range each {
			s.reps("accepted@4", seconds(one))
		}
		in := s.input(in("wait it out"))
		in.Known = []Known{{Ask: ask("bridle.nose"), SoftAfter: 120}}
		_, said := liveOf(t, in)
		return said
	}
	assert.Equal(t, []string{"Soft after 120 s in the middle, last time."}, of())
	assert.Equal(t, []string{"Soft after 95 and 51 s; last time 120 s."}, of(95, 51))
	assert.Equal(t, []string{"Soft after 100, 90 and 75 s: falling; last time 120 s."}, of(100, 90, 75))
	assert.Equal(t, []string{"Soft after 100, 90 and 76 s: not falling; last time 120 s."}, of(100, 90, 76))
	assert.Equal(t, []string{"Soft after 100, 90 and 125 s: rising; last time 120 s."}, of(100, 90, 125))
	assert.Equal(t, []string{"Soft after 100, 90 and 124 s: not falling; last time 120 s."}, of(100, 90, 124))
}

// The clock to the let-down runs from the release until it is noted, on the asks
// that are measured by it and in wait it out; not after a no.
func TestTheClockToTheLetDown(t *testing.T) {
	s := on("head.down").reps("accepted@3")
	live, said := liveOf(t, s.input())
	assert.Equal(t, s.at, live.Released)
	assert.Empty(t, said)
	down := 35.4
	live, said = liveOf(t, on("head.down").reps("accepted@3", func(r *track.Rep) { r.LetDown = &down }).input())
	assert.Zero(t, live.Released)
	assert.Equal(t, []string{"Let down after 35 s."}, said)
	for name, in := range map[string]Input{
		"a no":           on("head.down").reps("refused@3").input(),
		"not let go":     on("head.down").reps("try@3", released(horse.NotReleased)).input(),
		"another ladder": on("quarters.hind near").reps("accepted@3").input(),
	} {
		live, _ = liveOf(t, in)
		assert.Zero(t, live.Released, name)
	}
	live, _ = liveOf(t, on("bridle.nose").reps("try@4").input(in("wait it out")))
	assert.NotZero(t, live.Released)
}

// Doses: kicks in ten against the last set and the last session's first, and after
// how long it stood.
func TestKicksAreSetAgainstTheLastSetAndSession(t *testing.T) {
	s := on("wild.pole near")
	dose := func(kicks int, seconds float64) {
		s.at += minute
		s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindDose, At: s.at, Dose: &track.Dose{Rep: track.Rep{Ask: ask("wild.pole near"), Kicks: &kicks, Seconds: seconds}, Given: 5, Stood: horse.Accepted}})
	}
	seven := 7
	known := []Known{{Ask: ask("wild.pole near"), Kicks: &seven, StoodAfter: 40}}
	lines := func() []string {
		in := s.input(in("doses"))
		in.Known = known
		_, said := liveOf(t, in)
		return said
	}
	assert.Equal(t, []string{"Kicks in ten, last session's first: 7."}, lines())
	dose(6, 30)
	assert.Equal(t, []string{"Kicks in ten: 6, last session's first 7.", "It stood after 30 s; last time 40 s."}, lines())
	dose(3, 12)
	assert.Equal(t, []string{"Kicks in ten: 3, the set before 6, last session's first 7.", "It stood after 12 s; last time 40 s."}, lines())
}

// Relief place: the nearest place today, a chosen one before one it was led to, and
// the slope of the work.
func TestTheNearestPlaceToday(t *testing.T) {
	spell := func(place string, seconds, feet int, came string) func(*track.Spell) {
		return func(p *track.Spell) {
			p.Seconds, p.FeetIn, p.Rest = seconds, feet, true
			require.NoError(t, p.Place.UnmarshalText([]byte(place)))
			require.NoError(t, p.Came.UnmarshalText([]byte(came)))
		}
	}
	of := func(edits ...func(*track.Spell)) []string {
		s := on("load.step")
		for _, edit := range edits {
			p := track.Spell{Ask: ask("load.step")}
			edit(&p)
			s.at += minute
			s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindSpell, At: s.at, Spell: &p})
		}
		_, said := liveOf(t, s.input(in("relief place")))
		return said
	}
	door, asked := spell("at the door", 20, 0, "by itself"), spell("at the door", 60, 0, "asked")
	assert.Equal(t, []string{"Nearest today: at the door, by itself, 20 s."}, of(door, asked))
	assert.Equal(t, []string{"Nearest today: in, asked, 5 s."}, of(door, spell("in", 5, 4, "asked")))
	assert.Equal(t, []string{"Nearest today: at the door, by itself, 35 s."}, of(door, spell("at the door", 35, 0, "by itself")))
	assert.Empty(t, of(spell("away", 90, 0, "by itself")), "rest away from it is no nearness")
}

// Interruptions by their rate against the last session's; a jog by its seconds.
func TestWhatIsStoppedIsSetAgainstTheLastSession(t *testing.T) {
	s := on("rush.hill")
	stop := func(i track.Interruption) {
		s.at += 2 * minute
		s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindInterruption, At: s.at, Interruption: &i})
	}
	stop(track.Interruption{Behaviour: horse.TurnedAway, Heading: "home"})
	stop(track.Interruption{Hurry: horse.Hurry{}.All()[0], Slope: horse.Slope{}.All()[2], Seconds: 20})
	stop(track.Interruption{Hurry: horse.Hurry{}.All()[0], Slope: horse.Slope{}.All()[2], Seconds: 10})
	s.mark(4*minute, felt(1))
	in := s.input()
	_, said := liveOf(t, in)
	assert.Equal(t, []string{"Stopped once: turned away, 1 in ten minutes.", "jog, downhill: 2 spells, 30 s in ten minutes."}, said)
	in.Before = []StoppedBefore{{What: "turned away", Heading: "home", On: "2026-06-01", PerTen: 4.5}, {What: "jog, downhill", On: "2026-06-01", PerTen: 3, All: 80}}
	_, said = liveOf(t, in)
	assert.Equal(t, []string{
		"Stopped once: turned away, 1 in ten minutes; last session 4.5.", "It was stopped on 1 June 2026 too. Gone within a day, or think again.",
		"jog, downhill: 2 spells, 30 s in ten minutes; last time 80 s.",
	}, said)
}

// A named place is passed in each direction: tries to turn, and passes without one.
func TestNamedPlacesArePassed(t *testing.T) {
	s := on("away.far")
	home := horse.Heading{}.All()[0]
	pass := func(drawn int) func(*track.Rep) {
		return func(r *track.Rep) { r.Spot, r.Heading, r.Drawn = "the barn turn", home, drawn }
	}
	s.reps("accepted@3", pass(2)).reps("accepted@2", pass(0)).reps("accepted@2", pass(0))
	_, said := liveOf(t, s.input())
	assert.Equal(t, []string{"the barn turn, heading home: 0 tries to turn there; 2 in a row without one."}, said)
	s.reps("accepted@2", pass(1))
	spots := SpotsAfter(shipped(t), []Spot{{Name: "the ford", Clean: 2}}, s.input().Track)
	assert.Equal(t, []Spot{{Name: "the ford", Clean: 2}, {Name: "the barn turn", Heading: home, Drawn: 1}}, spots)
}

// A review is answered by its trials: one change at a time, told as they went; five
// of one thing in a row are enough.
func TestAReviewIsAnsweredByItsTrials(t *testing.T) {
	trial := func(what, changed, verdict string, milder bool) *track.Trial {
		t := &track.Trial{Changed: changed, Milder: milder, Seconds: 240, Was: "single joint"}
		if err := t.What.UnmarshalText([]byte(what)); err != nil {
			panic(err)
		}
		if err := t.Verdict.UnmarshalText([]byte(verdict)); err != nil {
			panic(err)
		}
		return t
	}
	for want, one := range map[horse.Answer]*track.Trial{
		horse.Refused: trial("mouthpiece", "lozenge", "worse", true), horse.Try: trial("mouthpiece", "lozenge", "the same", false),
	} {
		rep, _ := track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: ask("soft.tack"), Trial: one}}.AsRep(shipped(t))
		assert.Equal(t, want, rep.Answer)
	}
	s := on("soft.tack")
	try := func(one *track.Trial) {
		s.at += 5 * minute
		s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindRep, At: s.at, Rep: &track.Rep{Ask: s.ask, Trial: one}})
	}
	a := advise(t, s.input())
	assert.Equal(t, "say.same.review.begin", a.Say.Key)
	try(trial("spurs", "", "", false))
	a = advise(t, s.input())
	assert.Equal(t, "say.same.review", a.Say.Key)
	assert.True(t, a.Release.IsZero(), "a trial is let go of by nobody")
	try(trial("mouthpiece", "lozenge", "the same", true))
	_, said := liveOf(t, s.input())
	assert.Equal(t, []string{"mouthpiece, was single joint: lozenge, 4 min, the same."}, said)
	try(trial("mouthpiece", "straight bar", "better", false))
	v, story := review(t, s.input())
	assert.True(t, v.Asks[0].Passed, "three looked at, each right or better")
	assert.Contains(t, story, "First soft tack: 3 things looked at, 3 right or better.")
	assert.Contains(t, story, "spurs, was single joint: right as it is.")
	for range 3 {
		_, said = liveOf(t, s.input())
		assert.NotContains(t, said, "5 of mouthpiece in a row. Leave the best one on and give it a session.")
		try(trial("mouthpiece", "rubber", "worse", false))
	}
	_, said = liveOf(t, s.input())
	assert.Contains(t, said, "5 of mouthpiece in a row. Leave the best one on and give it a session.")
}

// An owner who is not cleared for the step is watched; cleared for it, or the trainer,
// is not.
func TestAnOwnerWhoIsNotClearedIsWatched(t *testing.T) {
	warned := func(handler string, cleared ...string) bool {
		in := on("lead.back").reps("accepted@2").input()
		in.Handler = handler
		in.Handlers = map[string]Handler{"owner": {Owner: true, Cleared: cleared}}
		return slices.ContainsFunc(advise(t, in).Warnings, func(f Fired) bool { return f.Rule == "watched" })
	}
	assert.True(t, warned("owner"))
	assert.True(t, warned("owner", "lead.halt"))
	assert.False(t, warned("owner", "lead.halt", "lead.back"))
	assert.False(t, warned("trainer"))
}

// Part 6: more than twice its usual spooks in ten minutes is unlike itself; on both sides
// of twice, of three sessions, and of a single one.
func TestUnlikeItself(t *testing.T) {
	c := shipped(t)
	for _, tc := range []struct {
		before  []float64
		spooks  int
		minutes int64
		key     string
	}{
		{[]float64{1, 1, 1}, 2, 10, "live.spooked_usual"}, {[]float64{1, 1, 1}, 3, 10, "live.unlike"},
		{[]float64{1, 1, 1}, 3, 15, "live.spooked_usual"}, {[]float64{1, 1}, 9, 10, "live.spooked"}, {nil, 1, 10, "live.spooked"},
		{[]float64{0, 0, 0}, 1, 10, "live.spooked_usual"}, {[]float64{0, 0, 0}, 2, 10, "live.unlike"}, {[]float64{1, 1, 9}, 3, 2, "live.unlike"},
		{[]float64{1, 1, 1}, 0, 10, ""},
	} {
		in := Input{School: horse.BuildAndRelease, Ask: horse.Ask{Step: "lead.forward"}, Started: 1, Spooks: tc.before}
		for i := range tc.spooks {
			in.Track = append(in.Track, track.Entry{ID: fmt.Sprint(i), Kind: track.KindMark, At: 2, Seq: int64(i), Mark: &track.Mark{Spooked: true}})
		}
		in.Track = append(in.Track, track.Entry{ID: "last", Kind: track.KindMark, At: 1 + tc.minutes*60_000, Mark: &track.Mark{EasyMinutes: 1}})
		r, err := Run(c, c.Rules, in)
		require.NoError(t, err)
		key := ""
		for _, line := range r.Picture(1 + tc.minutes*60_000).Live.Lines {
			if strings.HasPrefix(line.Key, "live.spook") || line.Key == "live.unlike" {
				key = line.Key
			}
		}
		assert.Equal(t, tc.key, key, "%v %d in %d minutes", tc.before, tc.spooks, tc.minutes)
	}
}
