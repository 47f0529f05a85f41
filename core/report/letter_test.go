package report

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func TestALetterAsksOneQuestion(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	a := assess.Assessment{
		Problems: map[horse.Problem]assess.Account{horse.Girth: {Story: assess.Story{Began: assess.Began{}.All()[1], Since: "2026-03-01"}}},
		Body: map[horse.BodyItem]assess.BodyNote{horse.Belly: {
			State: horse.Suspect, Note: "turns to bite",
			Checks: map[string]assess.Pressed{"1": {On: "2026-06-01", Side: horse.Near, Answer: assess.Pressing{}.All()[2]}},
		}},
	}
	r, err := assess.Judge(c, assess.Case{Today: "2026-06-01", Assessment: a})
	require.NoError(t, err)
	in := LetterInput{
		Today: "2026-06-01", Horse: "Plum", Record: assess.Record{Born: "2015-05-01", HeightMM: 1480, Breed: "cob", Sex: assess.Sex{}.All()[0]},
		Problem: horse.Girth, Goal: "Stands to be girthed.", Assessment: a, Referral: r.Referrals[0], Blocks: r.Blocks,
	}
	said := func(l Letter) string {
		book := phrase.English(phrase.Words{Sides: "left and right"})
		book.Tell(&l)
		all := l.Question.Text + " "
		for _, list := range [][]phrase.Message{l.About, l.Saw, l.Waits, l.Answer} {
			for _, m := range list {
				assert.True(t, book.Has(m.Key), m.Key)
				all += m.Text + " "
			}
		}
		return all
	}
	l := LetterTo(in)
	assert.Equal(t, []string{"vet", "2026-06-08"}, []string{l.Who, l.Due})
	text := said(l)
	for _, want := range []string{
		"Please look at: girth line and belly", "mare", "148 cm", "It began: gradually", "turns to bite", "Pressed on 1 June 2026, left: tightens",
		"girth lift, girth hole, girth pull and girth walk", "Treatment, from when and how long",
	} {
		assert.Contains(t, text, want)
	}
	in.Referral = assess.Referral{Key: "sudden", Who: "vet", Asked: assess.Asked{Name: "Orla Finch", Question: "Could it be the gut?"}}
	l = LetterTo(in)
	assert.Equal(t, []string{"Orla Finch", "Could it be the gut?"}, []string{l.Name, l.Own})
	assert.Contains(t, said(l), "Training of the problem waits")
	assert.NotContains(t, said(l), "turns to bite")
}
