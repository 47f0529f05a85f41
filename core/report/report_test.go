package report

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
)

func bead(step string, answer horse.Answer, peak, calm int) arena.Told {
	return arena.Told{Rep: arena.Rep{Ask: horse.Ask{Step: step}, Peak: horse.LevelOf(peak), Release: horse.OnTheTry}, Graded: answer, Calm: calm, Counted: true}
}

func input(t *testing.T) Input {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	bridge, ok := progress.BridgeOf(c, "load", nil, nil, "load.front")
	require.True(t, ok)
	front := horse.Ask{Step: "load.front"}
	return Input{
		Catalog: c, Horse: "Plum", Ladder: "load", Goal: "Loads with Ines alone.", Care: horse.ExtraCare, Bridge: bridge, Next: "load.step",
		Visit: arena.Visit{Before: []arena.Known{{Ask: front, State: horse.Tried}}, After: []arena.Known{{Ask: front, State: horse.Met}}},
		Beads: []arena.Told{bead("load.front", horse.Accepted, 2, 1), bead("load.front", horse.Accepted, 3, 1), bead("load.front", horse.Refused, 4, 2)},
		First: []arena.Told{bead("load.board", horse.Refused, 7, 3), bead("load.board", horse.Accepted, 6, 2)},
	}
}

func text(d Document, section string) string {
	book, all := phrase.English(phrase.Words{Vehicle: "float", Sides: "left and right"}), ""
	for _, s := range d.Sections {
		for _, sentence := range s.Sentences {
			if s.Key == section {
				all += book.Say(sentence.Said) + " "
			}
		}
	}
	return all
}

func TestTheReportSaysWhatTheLogSays(t *testing.T) {
	d := Visit(input(t))
	assert.Contains(t, text(d, "one"), "New for Plum: front feet on and off when asked")
	assert.Contains(t, text(d, "worked"), "Of 3 answers, 2 soft")
	assert.Contains(t, text(d, "saw"), "tense at times")
	assert.Contains(t, text(d, "home"), "do not practise with the float")
	assert.Contains(t, text(d, "care"), "does not replace your vet")
	require.Len(t, d.Figures, 3)
	book := phrase.English(phrase.Shipped)
	assert.Equal(t, "1 of 2", book.Say(d.Figures[0].Before))
	assert.Equal(t, "2 of 3", book.Say(d.Figures[0].After))
	assert.Equal(t, []string{"firm", "light"}, []string{book.Say(d.Figures[1].Before), book.Say(d.Figures[1].After)})
	for _, s := range d.Sections {
		assert.True(t, book.Has(s.Title.Key), s.Title.Key)
		for _, sentence := range s.Sentences {
			assert.True(t, book.Has(sentence.Said.Key), sentence.Said.Key)
			assert.NotContains(t, book.Say(sentence.Said), "{")
		}
	}
}

func TestWhatGotWorseIsSaidPlainly(t *testing.T) {
	in := input(t)
	in.Visit.After[0].State = horse.Slipped
	in.Visit.Before[0].State = horse.Met
	in.First, in.Beads = in.Beads, in.First
	in.Dangers = []string{"reared"}
	d := Visit(in)
	assert.Contains(t, text(d, "one"), "harder today")
	assert.Contains(t, text(d, "changed"), "Lost since last time")
	assert.Contains(t, text(d, "changed"), "more than on the first day")
	assert.Contains(t, text(d, "saw"), "reared")
}

func TestEditsSurviveAndAreMarkedWhenNumbersChange(t *testing.T) {
	in := input(t)
	d := Visit(in)
	one := d.Sections[0].Sentences[0]
	edits := map[string]Edit{
		one.ID:     {Text: "Plum was lovely.", Basis: one.Basis},
		"care.vet": {Text: "No vet needed.", Left: true},
	}
	d = Visit(in).With(edits)
	assert.Equal(t, "Plum was lovely.", d.Sections[0].Sentences[0].Edited)
	assert.False(t, d.Sections[0].Sentences[0].Changed)

	in.Visit.After[0].State = horse.Slipped
	d = Visit(in).With(edits)
	assert.True(t, d.Sections[0].Sentences[0].Changed, "its numbers changed")
	last := d.Sections[len(d.Sections)-1]
	assert.Equal(t, "care", last.Key)
	assert.Empty(t, last.Sentences[1].Edited, "safety can't be reworded")
	assert.False(t, last.Sentences[1].Left)
}

func TestReferralsAreNamed(t *testing.T) {
	in := input(t)
	a := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{horse.HindLeg: {State: horse.Suspect}}, Problems: map[horse.Problem]assess.Account{horse.Loading: {}}}
	account := a.Problems[horse.Loading]
	require.NoError(t, account.Story.Began.UnmarshalText([]byte("suddenly")))
	a.Problems[horse.Loading] = account
	in.Referrals = assess.Referrals(a, "2026-06-01")
	assert.Contains(t, text(Visit(in), "call"), "vet look by 8 June 2026, before the work that loads it goes on: hind leg")
	assert.Contains(t, text(Visit(in), "call"), "It began suddenly")
	in.Referrals[0].Done = true
	assert.NotContains(t, text(Visit(in), "call"), "hind leg")
}

func TestWhatIsBehindItIsSaidKindly(t *testing.T) {
	in := input(t)
	assert.Empty(t, text(Visit(in), "behind"), "nothing new was judged")
	a := assess.Assessment{
		Problems: map[horse.Problem]assess.Account{horse.Loading: {}},
		Findings: map[string]horse.Source{"faces_and_pulls": horse.Told, "never_gives": horse.Told, "curious": horse.Told},
	}
	r, err := assess.Judge(in.Catalog, assess.Case{Today: "2026-06-01", Assessment: a})
	require.NoError(t, err)
	in.Judged, in.Basis = &r.Problems[0], r.Basis
	said := text(Visit(in), "behind")
	assert.Contains(t, said, "it can be practised, first without the horse")
	assert.Contains(t, said, "Open is not the same as clear")
	assert.Contains(t, said, "nobody has seen Plum yet")
	book := phrase.English(phrase.Shipped)
	for _, c := range r.Problems[0].Causes {
		for _, belief := range []string{"likely", "possible"} {
			assert.True(t, book.Has("report.behind."+belief+"."+c.Cause.String()), c.Cause)
		}
	}
}
