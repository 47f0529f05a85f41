package report

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
)

// asked gives the five answers by their id.
func asked(d Document) map[string]string {
	book, said := phrase.English(phrase.Shipped), map[string]string{}
	for _, s := range d.Sections {
		if s.Key == "short" {
			for _, one := range s.Sentences {
				said[one.ID] = book.Say(one.Said)
			}
		}
	}
	return said
}

// bridged draws the bridge of loading with steps in a state, and says which of them
// the work brought.
func (in *Input) bridged(t *testing.T, states map[string]horse.StepState, worked ...string) {
	t.Helper()
	var known []arena.Known
	for key, state := range states {
		step, ok := in.Catalog.Step(key)
		require.True(t, ok, key)
		for _, a := range step.Asks() {
			known = append(known, arena.Known{Ask: a, State: state})
		}
	}
	in.Bridge, _ = progress.BridgeOf(in.Catalog, "load", known, nil, "", progress.Goal{})
	in.Standing.Steps = nil
	for _, key := range worked {
		in.Standing.Steps = append(in.Standing.Steps, history.Step{Step: key, Met: 1})
	}
}

func line(step string, word trend.Word, from, to float64) progress.Line {
	return progress.Line{Ask: horse.Ask{Step: step}, Measure: progress.Level, Trend: trend.Trend{Word: word, Points: []trend.Point{{X: 1, Y: from}, {X: 5, Y: to}}}}
}

func TestIsItBetterAndByWhat(t *testing.T) {
	met, slipped := horse.Met, horse.Slipped
	for _, c := range []struct {
		name   string
		states map[string]horse.StepState
		worked []string
		visits int
		lines  []progress.Line
		says   string
	}{
		{"nothing worked", nil, nil, 0, nil, "This is where Plum starts: the work has not begun yet."},
		{"gained", map[string]horse.StepState{"load.front": met, "load.board": met}, []string{"load.front", "load.board"}, 2, nil, "Yes, Plum is better. Steps that hold: two of 13, on the first day none."},
		{"gained beside what was there", map[string]horse.StepState{"load.front": met, "load.board": met}, []string{"load.front"}, 2, nil, "Yes, Plum is better. Steps that hold: two of 13, on the first day one."},
		{"gained, and one slipped", map[string]horse.StepState{"load.front": slipped, "load.board": met}, []string{"load.board"}, 2, nil, "Partly. Steps that hold: one of 13. This slipped: front feet on and off when asked."},
		{"only slipped", map[string]horse.StepState{"load.front": slipped}, nil, 3, nil, "No, not now: this slipped and is being built up again: front feet on and off when asked."},
		{"heavier", nil, nil, 5, []progress.Line{line("load.front", trend.More, 2, 7)}, "No, not yet: front feet on and off when asked needs more than at first, light then, firm now."},
		{"lighter", nil, nil, 5, []progress.Line{line("load.front", trend.Less, 7, 2)}, "Yes, a little: front feet on and off when asked needs less, firm at first, light now."},
		{"lighter within one word", nil, nil, 5, []progress.Line{line("load.front", trend.Less, 3, 1)}, "Not yet: after five visits no new step holds."},
		{"another ladder lighter", nil, nil, 5, []progress.Line{line("bridle.nose", trend.Less, 7, 2)}, "Not yet: after five visits no new step holds."},
		{"three visits", nil, nil, 3, nil, "Too early to say: three visits so far, and no new step holds yet."},
		{"four visits", nil, nil, 4, nil, "Not yet: after four visits no new step holds."},
		{"the first day's steps alone", map[string]horse.StepState{"load.front": met}, nil, 4, nil, "Not yet: after four visits no new step holds."},
	} {
		in := input(t)
		in.bridged(t, c.states, c.worked...)
		in.Standing.Visits, in.Standing.Lines = c.visits, c.lines
		assert.Equal(t, c.says, asked(Visit(in))["short.better"], c.name)
	}
}

func TestWhatMayIDoAndWhatNot(t *testing.T) {
	in := input(t)
	assert.Equal(t, "You may do what the day needs, no more: feed her, lead her, and give her room.", asked(Visit(in))["short.may"])
	assert.Equal(t, "Don't try the trailer yet, not even once to see.", asked(Visit(in))["short.must_not"])

	in.Cleared = []string{"lead.back", "load.front", "load.board"}
	assert.Contains(t, asked(Visit(in))["short.may"], "You may practise this, ten to fifteen minutes at a time: ")
	in.Cleared, in.Standing.Stopped = nil, []string{"load.board"}
	assert.Contains(t, asked(Visit(in))["short.may"], "Leave practice alone for now")

	in.Care = horse.HighCare
	in.Forbidden = []phrase.Message{phrase.Of("forbid.bit", nil), phrase.Of("forbid.owner", nil)}
	said := asked(Visit(in))
	assert.Contains(t, said["short.may"], "The trainer does all else")
	assert.Equal(t, "Don't handle Plum yourself for now.", said["short.must_not"], "the gravest")

	in.NotCaught = true
	assert.Contains(t, asked(Visit(in))["short.may"], "can't be led yet")

	in = input(t)
	in.Ladder, in.Problem = "girth", horse.Problem{}
	require.NoError(t, in.Problem.UnmarshalText([]byte("girth")))
	assert.Equal(t, "Leave this to the trainer for now: girth.", asked(Visit(in))["short.must_not"])
}

func TestWhenTheNextVisitIs(t *testing.T) {
	for _, c := range []struct {
		name, proposed, last, today string
		done                        bool
		says                        string
	}{
		{"unfinished: the next day or the day after", "next.soon", "2026-06-16", "2026-06-16", false, "The next visit is best between 17 June and 18 June; Wren agrees the day with you."},
		{"danger", "next.danger", "2026-06-16", "2026-06-18", false, "The next visit is best between 17 June and 18 June; Wren agrees the day with you."},
		{"well: two to four days", "next.days", "2026-06-16", "2026-06-20", false, "The next visit is best between 18 June and 20 June; Wren agrees the day with you."},
		{"a day late", "next.days", "2026-06-16", "2026-06-21", false, "The next visit was best by 20 June. Ring Wren and agree a day."},
		{"pain", "next.pain", "2026-06-16", "2026-06-21", false, "The next visit waits until the vet has looked. Wren agrees a day after that."},
		{"no visit yet", "", "", "2026-06-21", false, "No visit is agreed yet. Ring Wren for a day."},
		{"finished", "next.days", "2026-06-16", "2026-06-21", true, "No more visits are planned. Ring Wren after time off, or if anything slips."},
	} {
		in := input(t)
		in.Standing = Standing{Today: c.today, Last: c.last, Proposed: phrase.Of(c.proposed, nil), Done: c.done, Who: "Wren", Visits: 1}
		assert.Equal(t, c.says, asked(Visit(in))["short.next"], c.name)
	}
}
