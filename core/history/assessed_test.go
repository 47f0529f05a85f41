package history

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// basic is an assessment in which one test was made.
func basic(key string, grade horse.Answer, level int) assess.Assessment {
	return assess.Assessment{Basics: map[string]assess.Basic{key: {Grade: grade, Level: horse.LevelOf(level), Anew: true}}}
}

// What the assessment saw counts, and later sessions and assessments judge it
// like any other met step (part 3).
func TestAnAssessmentCountsLikeASession(t *testing.T) {
	c := shipped(t)
	good := assess.Dated{On: "2026-06-01", Doc: basic("lead.halt", horse.Accepted, 2)}
	for _, test := range []struct {
		name     string
		assessed []assess.Dated
		days     []track.Day
		want     horse.StepState
		source   horse.Source
		on       string
	}{
		{"met at the assessment", []assess.Dated{good}, nil, horse.Met, horse.Seen, "2026-06-01"},
		{"worked on the same day, it stays met", []assess.Dated{good}, []track.Day{day("2026-06-01", on("lead.halt").reps("accepted@2 accepted@2"))}, horse.Met, horse.Seen, "2026-06-01"},
		{"kept on a later day", []assess.Dated{good}, []track.Day{day("2026-06-02", on("lead.halt").reps("accepted@2 accepted@2"))}, horse.Kept, horse.Source{}, ""},
		{"slipped on a later day", []assess.Dated{good}, []track.Day{day("2026-06-02", on("lead.halt").reps("refused@5 refused@5"))}, horse.Slipped, horse.Source{}, ""},
		{"seen again: kept", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Accepted, 3)}}, nil, horse.Kept, horse.Seen, "2026-06-09"},
		{"seen refused: slipped", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Refused, 3)}}, nil, horse.Slipped, horse.Seen, "2026-06-09"},
		{"seen tolerated: as it was", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Tolerated, 3)}}, nil, horse.Met, horse.Seen, "2026-06-01"},
		{"seen harder: as it was", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Accepted, 5)}}, nil, horse.Met, horse.Seen, "2026-06-01"},
		{"on video: as it was", []assess.Dated{good, {On: "2026-06-09", Doc: onVideo(basic("lead.halt", horse.Refused, 3))}}, nil, horse.Met, horse.Seen, "2026-06-01"},
		{"not seen again: as it was", []assess.Dated{good, {On: "2026-06-09", Doc: good.Doc.CarriedOver()}}, nil, horse.Met, horse.Seen, "2026-06-01"},
		{"met in a session, then seen: kept", []assess.Dated{{On: "2026-06-09", Doc: basic("lead.halt", horse.Accepted, 3)}}, []track.Day{day("2026-06-01", on("lead.halt").reps("accepted@2 accepted@2 accepted@2"))}, horse.Kept, horse.Seen, "2026-06-09"},
		{"slipped, then seen good: met", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Accepted, 3)}}, []track.Day{day("2026-06-02", on("lead.halt").reps("refused@5 refused@5"))}, horse.Met, horse.Seen, "2026-06-09"},
		{"slipped, then tolerated: slipped", []assess.Dated{good, {On: "2026-06-09", Doc: basic("lead.halt", horse.Tolerated, 3)}}, []track.Day{day("2026-06-02", on("lead.halt").reps("refused@5 refused@5"))}, horse.Slipped, horse.Source{}, ""},
		{"told", []assess.Dated{{On: "2026-06-01", Doc: told(basic("lead.halt", horse.Accepted, 2))}}, nil, horse.Untried, horse.Told, "2026-06-01"},
		{"told, then worked", []assess.Dated{{On: "2026-06-01", Doc: told(basic("lead.halt", horse.Accepted, 2))}}, []track.Day{day("2026-06-02", on("lead.halt").reps("try@2"))}, horse.Tried, horse.Source{}, ""},
	} {
		t.Run(test.name, func(t *testing.T) {
			b := Beside{Assessed: test.assessed}
			h := Fold(c, b, test.days).Until(c, b, "2026-06-30")
			known := h.Known(c)
			require.Len(t, known, 1)
			assert.Equal(t, test.want, known[0].State)
			assert.Equal(t, test.source, known[0].Source)
			assert.Equal(t, test.on, known[0].Assessed)
		})
	}
}

func onVideo(a assess.Assessment) assess.Assessment {
	a.Sources = map[string]horse.Source{"D": horse.OnVideo}
	return a
}

func told(a assess.Assessment) assess.Assessment {
	a.Sources = map[string]horse.Source{"D": horse.Told}
	return a
}

// Steps met by the assessment are neither to go nor met so far (part 7), and an
// assessment of a later day says nothing of an earlier session.
func TestAnAssessmentIsNoWork(t *testing.T) {
	c := shipped(t)
	b := Beside{Assessed: []assess.Dated{{On: "2026-06-03", Doc: basic("lead.halt", horse.Accepted, 2)}}}
	h := History{}.After(c, b, day("2026-06-01", on("lead.forward").reps("accepted@2 accepted@2 accepted@2")))
	assert.Zero(t, h.Assessments)
	h = h.Until(c, b, "2026-06-03")
	assert.Equal(t, 1, h.Assessments)
	assert.Equal(t, 1, h.Sessions())
	assert.Zero(t, h.Step("lead.halt").Met)
	assert.Equal(t, h, h.Until(c, b, "2026-06-04"), "each is read once")
	_, _, visit := h.Read(c, b, day("2026-06-04", on("lead.halt").reps("try@2")))
	assert.Contains(t, visit.Before, arena.Known{Ask: on("lead.halt").ask, State: horse.Met, Soft: true, Level: horse.LevelOf(2), Last: "2026-06-03", Understood: true, Good: true, Source: horse.Seen, Assessed: "2026-06-03"})
}

// An own ask belongs to the horse from the session on that wrote it down.
func TestAnOwnAskStaysWithTheHorse(t *testing.T) {
	c := shipped(t)
	own := catalog.OwnAsk{Key: "own.01a21c6b3bbc77ab", Name: "stands for the umbrella"}
	s := on(own.Key).add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{New: &own}}).reps("accepted@2 accepted@2 accepted@2")
	h := Fold(c, Beside{}, []track.Day{day("2026-06-01", s), day("2026-06-03", on(own.Key).reps("accepted@2 accepted@2"))})
	assert.Equal(t, []catalog.OwnAsk{own}, h.Own)
	known := h.Known(c.WithOwn(h.Own...))
	require.Len(t, known, 1)
	assert.Equal(t, horse.Kept, known[0].State, "by the usual pass mark, on a later day")
}

// One that was taken back before it was worked is none; one that was worked stays.
func TestAnOwnAskThatWasTakenBackIsNone(t *testing.T) {
	c := shipped(t)
	own := catalog.OwnAsk{Key: "own.01a21c6b3bbc77ab", Name: "stands for the umbrela"}
	added := func() *script {
		return on(own.Key).add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{New: &own}})
	}
	undo := track.Entry{Kind: track.KindUndo, Replaces: "0001"}
	assert.Empty(t, Fold(c, Beside{}, []track.Day{day("2026-06-01", added().add(undo))}).Own)
	assert.Len(t, Fold(c, Beside{}, []track.Day{day("2026-06-01", added().reps("try@2").add(undo))}).Own, 1)
}

// No entry asked early lowers a state (part 6).
func TestAskedEarlyLowersNothing(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		step := rapid.SampledFrom([]string{"load.front", "bridle.bit", "saddle.on near", "lead.stand"}).Draw(t, "step")
		a := on(step).ask
		h := History{Asks: []Ask{{Known: arena.Known{Ask: a, State: rapid.SampledFrom([]horse.StepState{horse.Tried, horse.StepTolerated, horse.Met, horse.Kept}).Draw(t, "state"), Last: "2026-06-01"}}}}
		words := rapid.SliceOfN(rapid.SampledFrom([]string{"refused@6", "refused@3", "try@4", "tolerated@3", "accepted@7", "accepted@2"}), 1, 8).Draw(t, "answers")
		after := h.After(c, Beside{}, day("2026-06-05", on(step).reps(strings.Join(words, " "))))
		for _, k := range after.Known(c) {
			if k.Ask == a && (k.State == horse.Slipped || k.State.Rank() < h.Asks[0].State.Rank()) {
				t.Fatalf("%s became %s", h.Asks[0].State, k.State)
			}
		}
	})
}
