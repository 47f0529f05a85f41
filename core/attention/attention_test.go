package attention

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
)

func TestWhatACaseNeeds(t *testing.T) {
	built := func(met, steps int) progress.Bridge { return progress.Bridge{Met: met, Steps: steps} }
	for _, c := range []struct {
		name     string
		finished bool
		ranks    []int
		bridge   progress.Bridge
		need     Need
	}{
		{"finished, whatever else", true, []int{1}, built(1, 8), finished},
		{"danger", false, []int{1, 5}, built(1, 8), First},
		{"overdue", false, []int{2}, built(1, 8), First},
		{"not assessed", false, []int{3}, built(0, 8), decide},
		{"too quiet, nearly done", false, []int{6}, built(8, 8), decide},
		{"two planks to go", false, nil, built(6, 8), onCourse},
		{"one plank to go", false, nil, built(7, 8), nearlyDone},
		{"all met", false, nil, built(8, 8), nearlyDone},
		{"a bridge of one plank, not met", false, nil, built(0, 1), onCourse},
	} {
		notes := []Note{}
		for _, r := range c.ranks {
			notes = append(notes, Note{Rank: r})
		}
		assert.Equal(t, c.need, NeedOf(c.finished, notes, c.bridge), c.name)
	}
}

func TestTheQuietMargin(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	says := func(need Need, b progress.Bridge, g plan.Glance) string {
		m, ok := Aside(need, b, g)
		if !ok {
			return ""
		}
		return book.Say(m)
	}
	dated := plan.Glance{By: "2026-12-20", Done: 0.875}
	assert.Equal(t, "88 % by 20 December", says(onCourse, progress.Bridge{}, dated))
	assert.Empty(t, says(onCourse, progress.Bridge{}, plan.Glance{}))
	assert.Empty(t, says(decide, progress.Bridge{}, dated), "a note stands there")
	assert.Equal(t, "every plank met: see what is kept", says(nearlyDone, progress.Bridge{Met: 3, Steps: 3}, dated))
	assert.Equal(t, "1 plank to go", says(nearlyDone, progress.Bridge{Met: 2, Steps: 3}, plan.Glance{}))
}

func TestEachNoteHasASignAVerbAndAFact(t *testing.T) {
	facts := Facts{
		Today: "2026-06-20", NeededBy: "2026-06-25", Running: true, DaysOff: 16, Assessed: true,
		Newest: history.Day{On: "2026-06-01", Events: []assess.EventKind{assess.EventKind{}.All()[0]}},
		Referrals: []assess.Referral{
			{Item: horse.Belly, Who: "vet", Due: "2026-06-20"}, {Item: horse.Belly, Who: "vet", Due: "2026-06-19"},
			{Who: "vet", Why: phrase.Of("referral.sudden", phrase.Args{"who": "vet"}), Due: "2026-06-19"}, {Item: horse.Back, Who: "vet", Done: true},
		},
		Rechecks: []assess.Recheck{{Due: "2026-06-20", Reads: phrase.Of("recheck.due", phrase.Args{"item": "back", "day": 14, "due": "now"})}, {Due: "2026-06-21"}},
		Rounds: []assess.Round{
			{Due: "2026-06-20", Says: phrase.Of("round.teeth", phrase.Args{"last": phrase.Date("2025-06-20")})},
			{Due: "2026-06-19", Says: phrase.Of("round.hooves", phrase.Args{"last": phrase.Date("2026-04-24")})},
		},
		Bridge: progress.Bridge{Steps: 3, Planks: []progress.Plank{{Name: "board", State: horse.Slipped}, {Name: "gap", State: horse.Met}}},
		Plan:   plan.Glance{By: "2026-06-25", Done: 0.41},
	}
	book := phrase.English(phrase.Shipped)
	lines := func(f Facts) []string {
		notes := Of(f)
		require.Empty(t, aloud.Faults(book, notes))
		var list []string
		for i, n := range notes {
			require.False(t, n.Sign.IsZero())
			if i > 0 {
				require.GreaterOrEqual(t, n.Rank, notes[i-1].Rank)
			}
			list = append(list, fmt.Sprintf("%s: %s. %s", n.Sign, book.Say(n.Does), book.Say(n.Say)))
		}
		return list
	}
	assert.Equal(t, []string{
		"rope: Go on. A session is still open.",
		"alarm: Read the incident. kicked at a person on 1 June.",
		"ring: Ask the vet. girth line and belly. Due 20 June.",
		"ring: Ask the vet. girth line and belly. Due since 19 June.",
		"ring: Ask the vet. It began suddenly and nothing is known that set it off. Have the vet look before training goes on.",
		"look: Look again. Check back on day 14, due now.",
		"down: Step back. board slipped.",
		"fork: Decide. 41 % by 25 June, in doubt.",
		"begin: Go again. Nothing logged for 16 days.",
		"look: Ask it once, low. The problem itself was not looked at yet.",
		"look: Have it seen to. Feet to be seen to again: they were last on 24 April.",
	}, lines(facts))
	facts.DaysOff, facts.Plan.Done, facts.Referrals, facts.Rechecks, facts.Rounds, facts.Running, facts.Baseline = 13, 0.6, nil, nil, nil, false, true
	facts.Newest = history.Day{}
	assert.Equal(t, []string{"down: Step back. board slipped.", "fork: Mind the date. 5 days to it, 0 of 3 planks met."}, lines(facts))
	facts.NeededBy, facts.Bridge = "2026-06-19", progress.Bridge{Steps: 3, Met: 1}
	assert.Equal(t, []string{"fork: Agree a new date. 19 June has passed."}, lines(facts))
	facts.NeededBy = "2026-07-12"
	assert.Empty(t, lines(facts), "22 days are not near")
	facts.NeededBy = "2026-07-11"
	assert.Len(t, lines(facts), 1, "21 are")
	facts.Finished = true
	assert.Empty(t, lines(facts))
}
