package history

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func shipped(t testing.TB) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

// script writes a track, half a minute from answer to answer.
type script struct {
	ask    horse.Ask
	target int
	track  []track.Entry
}

func on(a string) *script {
	key, variant, _ := strings.Cut(a, " ")
	ask := horse.Ask{Step: key}
	if err := ask.Variant.UnmarshalText([]byte(variant)); err != nil {
		panic(err)
	}
	return &script{ask: ask}
}

func (s *script) value(v int) *script { s.target = v; return s }

func (s *script) add(e track.Entry) *script {
	e.ID, e.At = fmt.Sprintf("%04d", len(s.track)+1), int64(len(s.track)+1)*30_000
	s.track = append(s.track, e)
	return s
}

// reps adds "accepted@3" words; edits change each rep of the call.
func (s *script) reps(words string, edits ...func(*track.Rep)) *script {
	for _, w := range strings.Fields(words) {
		name, peak, _ := strings.Cut(w, "@")
		r := track.Rep{Ask: s.ask, Arousal: horse.ArousalOf(1), Target: s.target, Release: horse.OnTheTry}
		n := 0
		if _, err := fmt.Sscan(peak, &n); err != nil {
			panic(err)
		}
		r.Peak = horse.LevelOf(n)
		if err := r.Answer.UnmarshalText([]byte(name)); err != nil {
			panic(err)
		}
		for _, edit := range edits {
			edit(&r)
		}
		s.add(track.Entry{Kind: track.KindRep, Rep: &r})
	}
	return s
}

func (s *script) end() *script { return s.add(track.Entry{Kind: track.KindEnd}) }

func day(date string, s *script) track.Day {
	return track.Day{ID: date, Date: date, Handler: "wren", Track: s.track}
}

func by(person string) func(*track.Rep) { return func(r *track.Rep) { r.Handler = person } }

func TestStates(t *testing.T) {
	c := shipped(t)
	hind := "quarters.hind near"
	met := func() *script { return on(hind).reps("accepted@3 accepted@3 accepted@2") }
	for name, test := range map[string]struct {
		days []track.Day
		want horse.StepState
	}{
		"tried":                                  {[]track.Day{day("2026-01-01", on(hind).reps("refused@4 try@4"))}, horse.Tried},
		"tolerated":                              {[]track.Day{day("2026-01-01", on(hind).reps("refused@4 tolerated@4"))}, horse.StepTolerated},
		"not yet three in a row":                 {[]track.Day{day("2026-01-01", on(hind).reps("accepted@3 accepted@3 accepted@4 accepted@3"))}, horse.StepTolerated},
		"met":                                    {[]track.Day{day("2026-01-01", met())}, horse.Met},
		"the same day does not keep":             {[]track.Day{day("2026-01-01", met()), day("2026-01-01", on(hind).reps("accepted@2 accepted@2"))}, horse.Met},
		"kept on a later day":                    {[]track.Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("accepted@2 accepted@3"))}, horse.Kept},
		"warmed up is not kept":                  {[]track.Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("accepted@4 accepted@3 accepted@3"))}, horse.Met},
		"two noes after a good end: four decide": {[]track.Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("refused@4 refused@4 accepted@3 accepted@3"))}, horse.Met},
		"four bad ones slip":                     {[]track.Day{day("2026-01-01", met()), day("2026-01-03", on(hind).reps("refused@4 refused@4 accepted@6 refused@4"))}, horse.Slipped},
		"two bad ones slip after a poor end":     {[]track.Day{day("2026-01-01", met().reps("try@4")), day("2026-01-03", on(hind).reps("refused@4 accepted@6"))}, horse.Slipped},
		"slipped and met again": {[]track.Day{
			day("2026-01-01", met().reps("try@4")), day("2026-01-03", on(hind).reps("refused@4 refused@6")), day("2026-01-05", met()),
		}, horse.Met},
	} {
		t.Run(name, func(t *testing.T) {
			known := known(c, Fold(c, Beside{}, test.days).Asks)
			require.Len(t, known, 1)
			assert.Equal(t, test.want.String(), known[0].State.String())
		})
	}
}

func TestStatesTellLevelAndValue(t *testing.T) {
	c := shipped(t)
	days := []track.Day{day("2026-01-01", on("lead.back").value(3).reps("accepted@1 accepted@1 accepted@1").value(4).reps("accepted@1 accepted@1 accepted@1"))}
	k := Fold(c, Beside{}, days).Known(c)[0]
	assert.Equal(t, 4, k.Value)
	assert.Equal(t, 1, k.Level.Int())
	assert.Equal(t, horse.Met, k.State)
	assert.Equal(t, "2026-01-01", k.Last)

	_, reps, visit := History{}.Read(c, Beside{}, days[0])
	assert.Len(t, reps, 6)
	assert.Empty(t, visit.Before)
	assert.Len(t, visit.After, 1)
}

func TestNumbersOfStates(t *testing.T) {
	c := shipped(t)
	hind := "quarters.hind near"
	state := func(days ...track.Day) arena.Known {
		all := Fold(c, Beside{}, days).Known(c)
		require.Len(t, all, 1)
		return all[0]
	}
	met := day("2026-01-01", on(hind).reps("accepted@3 accepted@3 accepted@2"))
	later := func(words string) horse.StepState { return state(met, day("2026-01-03", on(hind).reps(words))).State }
	assert.Equal(t, horse.Met, later("accepted@2"), "one is not enough to keep it")
	assert.Equal(t, horse.Kept, later("accepted@2 accepted@2 refused@4"), "the first two tell")
	assert.Equal(t, horse.Met, later("refused@4 refused@4 refused@4"), "three noes do not slip it")
	assert.Equal(t, horse.Slipped, later("refused@4 refused@4 refused@4 refused@4"))
	assert.Equal(t, horse.Slipped, later("refused@4 refused@4 refused@4 refused@4 accepted@3"), "the first four tell")
	assert.Equal(t, horse.Met, later("refused@4 refused@4 refused@4 accepted@5"), "two over the pass level is no slip")
	assert.Equal(t, horse.Slipped, later("refused@4 refused@4 refused@4 accepted@6"), "three over it is")

	assert.Equal(t, horse.Met, later("accepted@2 accepted@4"), "both of the first two")
	poor := day("2026-01-01", on(hind).reps("accepted@3 accepted@3 accepted@2 try@4"))
	assert.Equal(t, horse.Met, state(poor, day("2026-01-03", on(hind).reps("refused@4"))).State, "one no is no slip")
	assert.Equal(t, horse.Slipped, state(poor, day("2026-01-03", on(hind).reps("refused@4 refused@4"))).State)

	understands := func(words string) bool { return state(day("2026-01-01", on(hind).reps(words))).Understood }
	assert.True(t, understands("refused@4 try@6 try@6"))
	assert.False(t, understands("refused@4 try@7 try@6"), "at 6 or less")
	assert.False(t, understands("try@4 refused@4 refused@4 try@4"), "of the last three")
	assert.True(t, understands("refused@4 refused@4 refused@4 try@4 try@4"))
	over := []track.Day{day("2026-01-01", on(hind).reps("try@4")), day("2026-01-03", on(hind).reps("refused@4 refused@4"))}
	assert.False(t, state(over...).Understood)
	over[1] = day("2026-01-03", on(hind).reps("refused@4 try@4"))
	assert.True(t, state(over...).Understood, "the last three over two days")
}

// What is remembered tells how far an ask came; it is never met by it.
func TestFromMemory(t *testing.T) {
	c := shipped(t)
	of := func(last horse.Answer) arena.Known {
		m := track.Memory{Ask: horse.Ask{Step: "lead.halt"}, Tries: 6, Last: last}
		return Fold(c, Beside{}, []track.Day{day("2026-06-01", on("lead.halt").add(track.Entry{Kind: track.KindMemory, Memory: &m}))}).Known(c)[0]
	}
	assert.Equal(t, horse.StepTolerated, of(horse.Offered).State)
	assert.Equal(t, horse.Tried, of(horse.Refused).State)
	assert.Equal(t, "2026-06-01", of(horse.Refused).Last)
}

// The gap that is told is that of the newest session with four reps.
func TestItsOwnTimeForARep(t *testing.T) {
	c := shipped(t)
	three, four := on("lead.halt").reps("accepted@2 accepted@2 accepted@2"), on("lead.halt").reps("accepted@2 accepted@2 accepted@2 accepted@2")
	assert.Zero(t, Fold(c, Beside{}, []track.Day{day("2026-06-01", three)}).RepSeconds)
	assert.Equal(t, 30.0, Fold(c, Beside{}, []track.Day{day("2026-06-01", four), day("2026-06-02", three)}).RepSeconds)
}

func TestHowAStepWentWithAPerson(t *testing.T) {
	c := shipped(t)
	d := on("lead.back").reps("accepted@2 accepted@2 refused@4 offered@1", by("ines")).reps("refused@4")
	h := Fold(c, Beside{}, []track.Day{day("2026-06-01", d)})
	assert.Equal(t, Hand{Person: "ines", Step: "lead.back", Soft: true, Refused: true, Run: 1, Best: 2}, h.Hand("ines", "lead.back"))
	assert.Equal(t, []string{"lead.back"}, h.Failed("wren"), "the trainer holds the rope where nobody is named")
	assert.Empty(t, h.Failed("ines"), "it was accepted once")
	assert.Equal(t, Hand{Person: "ines", Step: "lead.halt"}, h.Hand("ines", "lead.halt"))
}

// A danger, or the slip of the step, takes what was watched; a later day of the
// same date does not count either.
func TestWhatWasWatchedLapses(t *testing.T) {
	c := shipped(t)
	good := func() *script { return on("lead.back").reps("accepted@2 accepted@2 accepted@2", by("ines")) }
	kick := func() *script {
		return good().reps("refused@4", func(r *track.Rep) { r.WaysOut = []horse.WayOut{horse.KickedAtPerson} })
	}
	days := []track.Day{day("2026-06-01", good()), day("2026-06-02", kick())}
	h := Fold(c, Beside{}, days)
	assert.Zero(t, h.Hand("ines", "lead.back").Best)
	assert.Equal(t, "2026-06-02", h.Danger)
	on, slipped := h.Lapsed("lead.back")
	assert.Equal(t, []any{"2026-06-02", false}, []any{on, slipped})
	kicked, ok := assess.EventOf(horse.KickedAtPerson)
	require.True(t, ok)
	assert.Equal(t, []assess.Event{{Kind: kicked, On: "2026-06-02"}}, h.Events())

	again := day("2026-06-02", good())
	again.Started = 1
	assert.Zero(t, Fold(c, Beside{}, append(days, again)).Hand("ines", "lead.back").Best, "on the day it lapsed")
	assert.Equal(t, 3, Fold(c, Beside{}, append(days, day("2026-06-03", good()))).Hand("ines", "lead.back").Best)
}

func TestHeavyAndLightAgain(t *testing.T) {
	c := shipped(t)
	late := func(r *track.Rep) { r.Release = horse.Late }
	h := Fold(c, Beside{}, []track.Day{day("2026-06-01", on("lead.halt").reps("try@5 try@5"))})
	assert.True(t, h.Heavy)
	assert.False(t, Fold(c, Beside{}, []track.Day{day("2026-06-01", on("lead.halt").reps("try@5 try@4"))}).Heavy)
	five := func(n int, edit func(*track.Rep)) *script {
		return on("lead.halt").reps(strings.Repeat("try@4 ", 5-n)).reps(strings.Repeat("try@4 ", n), edit)
	}
	assert.False(t, h.After(c, Beside{}, day("2026-06-02", five(1, late))).Heavy, "four of five on the try")
	assert.True(t, h.After(c, Beside{}, day("2026-06-02", five(2, late))).Heavy)
}

func TestWhoHasNotEnded(t *testing.T) {
	c := shipped(t)
	open, ended := day("2026-06-01", on("lead.halt").reps("try@4")), day("2026-06-02", on("lead.halt").reps("try@4").end())
	assert.Equal(t, "2026-06-01", Fold(c, Beside{}, []track.Day{open, ended}).Open)
	undone := ended
	undone.Track = append(undone.Track, track.Entry{ID: "u", At: 90_000, Kind: track.KindUndo, Replaces: ended.Track[1].ID})
	assert.Equal(t, "2026-06-02", Fold(c, Beside{}, []track.Day{undone}).Open, "the end was undone")
}

// The first day of an ask is told in the school that its ladder is worked in.
func TestTheFirstDayOfAnAsk(t *testing.T) {
	c := shipped(t)
	d := on("lead.halt").reps("accepted@3 try@5 refused@6")
	h := Fold(c, Beside{}, []track.Day{day("2026-06-01", d), day("2026-06-03", on("lead.halt").reps("accepted@1"))})
	require.Len(t, h.Firsts, 1)
	assert.Equal(t, "2026-06-01", h.Firsts[0].On)
	assert.Equal(t, 1, h.Firsts[0].In(horse.BuildAndRelease).Good)
	assert.Equal(t, 2, h.Firsts[0].In(horse.WaitItOut).Good, "a released try is a success there")
	assert.Equal(t, Reps{N: 3, Soft: 1, Good: 1, Level: 5, Noted: true, Highest: 6, Arousal: 1, OnTry: 3}, h.Firsts[0].Reps)
}

// A step whose measure or pass mark was changed begins again at tried.
func TestAChangedStepBeginsAgain(t *testing.T) {
	c := shipped(t)
	own, ok := c.Ladder("lead")
	require.True(t, ok)
	own.Steps = append([]catalog.Step{}, own.Steps...)
	own.Own = &catalog.Origin{ID: "own", Version: 1}
	for i := range own.Steps {
		if own.Steps[i].Key == "lead.halt" {
			own.Steps[i].Pass.Run = 5
		}
	}
	used := Beside{Used: []Used{{Since: 2000, Ladders: []catalog.Ladder{own}}}}
	met := day("2026-06-01", on("lead.halt").reps("accepted@1 accepted@1 accepted@1"))
	met.Started = 1000
	h := Fold(c, used, []track.Day{met})
	require.Equal(t, horse.Met, h.Known(c)[0].State)
	assert.Equal(t, []string{"lead.halt"}, h.Since(c, used.Used))
	later := day("2026-06-03", on("lead.back").reps("try@2"))
	later.Started = 3000
	h = h.After(c, used, later)
	assert.Equal(t, horse.Tried, h.Known(c)[0].State)
	assert.Empty(t, h.Since(c, used.Used))
	assert.Equal(t, 1, h.Step("lead.halt").Met)
	assert.Zero(t, h.Step("lead.halt").Lost, "it was not lost, it was measured otherwise")
}

// Next changes nothing of what was known: a history can be gone back to.
func TestNothingIsChanged(t *testing.T) {
	c := shipped(t)
	d := day("2026-06-01", on("lead.halt").reps("accepted@1 accepted@1 accepted@1"))
	h := Fold(c, Beside{}, []track.Day{d})
	was, err := json.Marshal(h)
	require.NoError(t, err)
	for _, words := range []string{"refused@5 refused@5 refused@5 refused@5", "accepted@1"} {
		h.After(c, Beside{}, day("2026-06-02", on("lead.halt").reps(words)))
		h.After(c, Beside{}, day("2026-06-01", on("lead.halt").reps(words)))
	}
	is, err := json.Marshal(h)
	require.NoError(t, err)
	assert.JSONEq(t, string(was), string(is))
}
