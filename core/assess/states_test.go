package assess

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
)

// seenOn is a document with one place marked, as on the day.
func seenOn(t testing.TB, marks ...any) Assessment {
	t.Helper()
	var list []Mark
	for i := 0; i < len(marks); i += 2 {
		list = append(list, mark(int64(i), marks[i].(string), marks[i+1]))
	}
	a, err := Fold(Assessment{}, list)
	require.NoError(t, err)
	return a
}

// shows spells what an assessment shows of an ask: state, understood, level.
func shows(t testing.TB, a, before Assessment, ask string) string {
	t.Helper()
	for _, s := range a.Shows(kept(t), before) {
		if s.String() != ask {
			continue
		}
		said := fmt.Sprint(s.Source, " ", s.State)
		if s.Understood {
			said += " understood"
		}
		if s.Level.Noted() {
			said += fmt.Sprint(" at ", s.Level.Int())
		}
		return said
	}
	return "nothing"
}

// The table of part 3, "What the assessment saw counts".
func TestWhatTheAssessmentSawCounts(t *testing.T) {
	basic := func(key, grade string, more ...any) []any {
		list := []any{"basics/" + key + "/grade", grade}
		for i := 0; i < len(more); i += 2 {
			list = append(list, "basics/"+key+"/"+more[i].(string), more[i+1])
		}
		return list
	}
	for _, test := range []struct {
		name  string
		marks []any
		ask   string
		want  string
	}{
		{"light and soft", basic("lead.forward", "accepted", "level", 2), "lead.forward", "seen met understood at 2"},
		{"at the pass level", basic("lead.halt", "accepted", "level", 3), "lead.halt", "seen met understood at 3"},
		{"above it", basic("lead.halt", "accepted", "level", 4), "lead.halt", "seen tried understood"},
		{"at 6", basic("lead.forward", "accepted", "level", 6), "lead.forward", "seen tried understood"},
		{"at 7", basic("lead.forward", "accepted", "level", 7), "lead.forward", "seen tried"},
		{"head down passes at 2", basic("head.down", "accepted", "level", 3), "head.down", "seen tried understood"},
		{"no level said", basic("lead.forward", "accepted"), "lead.forward", "seen tried"},
		{"offered is at 1", basic("lead.forward", "offered"), "lead.forward", "seen met understood at 1"},
		{"a try", basic("lead.forward", "try", "level", 3), "lead.forward", "seen tried understood"},
		{"tolerated", basic("lead.forward", "tolerated", "level", 3), "lead.forward", "seen tolerated understood"},
		{"refused", basic("lead.forward", "refused", "level", 3), "lead.forward", "seen tried"},
		{"stood 45 s", basic("lead.stand", "accepted", "seconds", 45, "level", 1), "lead.stand", "seen met understood at 1"},
		{"stood 44 s", basic("lead.stand", "accepted", "seconds", 44, "level", 1), "lead.stand", "seen tried understood"},
		{"backed 4", basic("lead.back", "accepted", "count", 4, "level", 2), "lead.back", "seen met understood at 2"},
		{"backed 3", basic("lead.back", "accepted", "count", 3, "level", 2), "lead.back", "seen tried understood"},
		{"one side only", basic("head.flex near", "accepted", "level", 2), "head.flex off", "nothing"},
		{"that side", basic("head.flex near", "accepted", "level", 2), "head.flex near", "seen met understood at 2"},
		{"by hand", []any{"zones/zone 2 off hand/grade", "accepted"}, "zones.hand zone 2 off", "seen met understood"},
		{"leaned over", []any{"zones/zone 3 near over/grade", "accepted"}, "zones.over near", "seen met understood"},
		{"over zone 2 says nothing of leaning over", []any{"zones/zone 2 near over/grade", "accepted"}, "zones.over near", "nothing"},
		{"ridden flex", basic("ridden.flex off", "accepted", "level", 2), "control.flex off", "seen met understood at 2"},
		{"ridden flex gives the halt", basic("ridden.flex off", "accepted", "level", 2), "soft.halt off", "seen met understood at 2"},
		{"ridden halt", basic("ridden.halt", "accepted", "level", 2), "rush.halt", "seen met understood at 2"},
		{"ridden back", basic("ridden.back", "accepted", "level", 2), "soft.back", "seen met understood at 2"},
		{"ridden back, rushing", basic("ridden.back", "accepted", "level", 2), "rush.back", "seen met understood at 2"},
		{"sideways", basic("ridden.sideways near", "accepted", "level", 2), "soft.leg near", "seen met understood at 2"},
		{"walks off when asked", basic("ridden.off", "accepted", "level", 2), "mount.off", "seen met understood at 2"},
		{"on video", append(basic("lead.forward", "accepted", "level", 2), "sources/D", "video"), "lead.forward", "video tried understood"},
		{"tolerated on video", append(basic("lead.forward", "tolerated", "level", 2), "sources/D", "video"), "lead.forward", "video tried"},
		{"tried on video", append(basic("lead.forward", "try", "level", 2), "sources/D", "video"), "lead.forward", "nothing"},
		{"told", append(basic("lead.forward", "accepted", "level", 2), "sources/D", "told"), "lead.forward", "told untried"},
		{"told to be bad", append(basic("lead.forward", "refused", "level", 2), "sources/D", "told"), "lead.forward", "nothing"},
		{"the problem itself", []any{"problems/loading/baseline/reached", "load.gap"}, "load.gap going left", "seen met understood"},
		{"the problem itself, below", []any{"problems/loading/baseline/reached", "load.gap"}, "load.board", "seen met understood"},
		{"the problem itself, above", []any{"problems/loading/baseline/reached", "load.gap"}, "load.square", "nothing"},
		{"arousal 1", []any{"problems/loading/baseline/reached", "load.gap", "problems/loading/baseline/arousal", 1}, "load.gap going left", "seen met understood"},
		{"arousal 2", []any{"problems/loading/baseline/reached", "load.gap", "problems/loading/baseline/arousal", 2}, "load.gap going left", "nothing"},
		{"arousal 2, one lower", []any{"problems/loading/baseline/reached", "load.gap", "problems/loading/baseline/arousal", 2}, "load.bridge", "seen met understood"},
		{"arousal 3", []any{"problems/loading/baseline/reached", "load.gap", "problems/loading/baseline/arousal", 3}, "load.bridge", "nothing"},
		{"arousal 3, two lower", []any{"problems/loading/baseline/reached", "load.gap", "problems/loading/baseline/arousal", 3}, "load.board", "seen met understood"},
	} {
		t.Run(test.name, func(t *testing.T) {
			assert.Equal(t, test.want, shows(t, seenOn(t, test.marks...), Assessment{}, test.ask))
		})
	}
}

// Part 9: where a hind leg allows one step back, one step is met.
func TestOneStepBackIsMetWhereOnlyOneIsAllowed(t *testing.T) {
	one := []any{"basics/lead.back/grade", "accepted", "basics/lead.back/level", 2, "basics/lead.back/count", 1}
	assert.Equal(t, "seen tried understood", shows(t, seenOn(t, one...), Assessment{}, "lead.back"))
	locks := append(one, "body/hind leg/state", "suspect", "body/hind leg/since", "2026-06-01")
	assert.Equal(t, "seen met understood at 2", shows(t, seenOn(t, locks...), Assessment{}, "lead.back"))
}

// What only stands there from the assessment before was not seen again.
func TestWhatIsCarriedOverWasNotSeenAgain(t *testing.T) {
	first := seenOn(t, "basics/lead.forward/grade", "accepted", "basics/lead.forward/level", 2, "zones/zone 3 near hand/grade", "accepted", "problems/loading/baseline/reached", "load.gap")
	again := func(marks ...Mark) Assessment {
		a, err := Fold(first.CarriedOver(), marks)
		require.NoError(t, err)
		return a
	}
	assert.Empty(t, again().Shows(kept(t), first))
	same := again(mark(1, "basics/lead.forward/level", 2))
	assert.Equal(t, "seen met understood at 2", shows(t, same, first, "lead.forward"), "tapped once more, it was seen once more")
	assert.Equal(t, "nothing", shows(t, same, first, "zones.hand zone 3 near"))
	worse := again(mark(1, "basics/lead.forward/grade", "refused"))
	assert.Equal(t, "seen tried", shows(t, worse, first, "lead.forward"))
	gone := again(mark(1, "basics/lead.forward", nil))
	assert.NotContains(t, gone.Basics, "lead.forward")
}

// States from an assessment never exceed what was seen.
func TestStatesNeverExceedWhatWasSeen(t *testing.T) {
	c := kept(t)
	rapid.Check(t, func(t *rapid.T) {
		a, err := Fold(Assessment{}, drawMarks(t, c.Judging))
		if err != nil {
			return
		}
		for key := range a.Basics {
			if rapid.Bool().Draw(t, "graded "+key) {
				b := a.Basics[key]
				b.Grade = rapid.SampledFrom(horse.Answer{}.All()).Draw(t, "grade")
				a.Basics[key] = b
			}
		}
		for _, s := range a.Shows(c, Assessment{}) {
			if s.State == horse.Met && s.Source != horse.Seen {
				t.Fatalf("%v is met, which nobody saw in person", s.Ask)
			}
			if step, _ := c.Step(s.Step); s.State == horse.Met && s.Level.Int() > step.Pass.Level {
				t.Fatalf("%v is met at %d", s.Ask, s.Level.Int())
			}
			if s.Refused && s.State.Rank() > horse.Tried.Rank() {
				t.Fatalf("%v was refused and is %s", s.Ask, s.State)
			}
		}
	})
}
