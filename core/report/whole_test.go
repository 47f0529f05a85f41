package report

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
)

func readsWell(t *testing.T, d Document) {
	t.Helper()
	book := phrase.English(phrase.Shipped)
	for _, s := range d.Sections {
		require.NotEqual(t, s.Title.Key, book.Say(s.Title), "a heading that the book does not know")
		for _, one := range s.Sentences {
			said := one.Text(book)
			require.NotEqual(t, one.Said.Key, said, "a sentence that the book does not know")
			require.Empty(t, aloud.Wrong(said), "%s: %s", one.Said.Key, said)
		}
	}
}

func TestThePageAtTheEnd(t *testing.T) {
	in := input(t)
	in.bridged(t, map[string]horse.StepState{"load.front": horse.Slipped, "load.board": horse.Met, "load.bridge": horse.Kept}, "load.board")
	in.Standing.Visits, in.Standing.Who = 6, "Wren"
	in.Standing.Lines = []progress.Line{line("load.front", trend.Less, 7, 2), line("load.board", trend.More, 2, 7), line("load.gap", trend.Less, 3, 1)}
	for i := range in.Standing.Lines {
		in.Standing.Lines[i].Name = phrase.Of("report.file.told", phrase.Args{"what": in.Standing.Lines[i].Step})
	}
	d := Closing(in, progress.Lasts{Share: trend.ShareOf(7, 9)})
	readsWell(t, d)
	before := text(d, "before")
	assert.Less(t, strings.Index(before, "load.board"), strings.Index(before, "load.front"), "what got worse comes first")
	assert.NotContains(t, before, "load.gap", "the word did not change")
	assert.Contains(t, text(d, "up"), "built up again first: front feet")
	assert.Contains(t, text(d, "up"), "looked at again on another day: standing on a hollow")
	assert.Contains(t, text(d, "up"), "7 of 9 checks")
	assert.Contains(t, text(d, "off"), "go back down the steps until Plum is easy again")
	assert.Contains(t, text(d, "ring"), "Ring Wren before anything else if Plum kicks")
	assert.Contains(t, text(d, "care"), "does not replace your vet")
	assert.Contains(t, d.Text(phrase.English(phrase.Shipped), "Plum"), "After time off\n")
}

func TestTheWholeFileHasAllOfIt(t *testing.T) {
	in := input(t)
	level, answers := 4.0, [5]int{1, 0, 0, 2, 1}
	f := File{
		Input: in, Plan: plan.Plan{Items: []plan.Item{{Step: "load.front"}}},
		Sessions: []history.Figures{
			{Session: "1", On: "2026-06-02", Asks: []history.Figure{{Ask: horse.Ask{Step: "lead.back"}, Answers: answers}}},
			{Session: "2", On: "2026-06-09", Asks: []history.Figure{{Ask: horse.Ask{Step: "head.flex", Variant: horse.Variant{Side: horse.Near}}, Level: &level, Answers: answers}}},
		},
		Notes:     []string{"on a soft one", ""},
		Practised: []homework.Log{{ID: "a", Person: "ines", Step: "lead.back", On: "2026-06-03", Done: true, Minutes: 10, Arousal: horse.ArousalOf(1)}, {ID: "b", Person: "ines", Step: "lead.back", On: "2026-06-04", Note: "Rain."}},
		Cleared:   []clearance.State{{Person: "ines", Step: "lead.back", Cleared: true, Rehearsed: true}, {Person: "ines", Step: "lead.halt", Rehearsed: true}},
		Names:     map[string]string{"ines": "Ines"},
		Incidents: []FileIncident{{"2026-06-05", "bit. At the gate."}},
	}
	d := Whole(f)
	readsWell(t, d)
	sessions := text(d, "sessions")
	assert.Less(t, strings.Index(sessions, "9 June"), strings.Index(sessions, "2 June"), "the newest first")
	assert.Contains(t, sessions, "bringing the nose round softly, left: 3 of 4 soft, feel medium")
	assert.Contains(t, sessions, "At the end: on a soft one.")
	assert.Contains(t, text(d, "practised"), "Ines: softening and stepping back, not done. Rain.")
	assert.Contains(t, text(d, "cleared"), "Ines is cleared for softening")
	assert.Contains(t, text(d, "cleared"), "and is not cleared yet")
	assert.Contains(t, text(d, "incidents"), "5 June 2026: bit. At the gate.")
	assert.Contains(t, text(d, "plan"), "To do, 1: front feet on and off when asked.")
}

// Each sentence says where its fact is found, those of the log by the very reps.
func TestEachSentenceHasItsEvidence(t *testing.T) {
	in := input(t)
	in.Dangers = []string{"bit"}
	for _, s := range Visit(in).Sections {
		for _, one := range s.Sentences {
			assert.NotEmpty(t, one.Behind.Place, one.ID)
			if strings.HasPrefix(one.ID, "worked.load.front") {
				assert.Equal(t, []string{"a", "b", "c"}, one.Behind.Entries)
			}
			assert.Equal(t, one.ID == "saw.danger", one.Grave, one.ID)
		}
	}
}
