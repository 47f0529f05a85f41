package snag_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/snag"
	"ivorybridge/core/track"
)

var book = phrase.English(phrase.Shipped)

// looked is an assessment of the trailer with a clear body, and what changes it.
func looked(change func(*assess.Assessment)) casefile.Document {
	a := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{}}.About(horse.Loading)
	for _, item := range (horse.BodyItem{}).All() {
		a.Body[item] = assess.BodyNote{State: horse.Clear}
	}
	change(&a)
	return casefile.Document{Input: casefile.Input{
		Today: "2026-06-20", Problem: horse.Loading, Assessments: []assess.Dated{{On: "2026-06-01", Doc: a}},
	}}
}

func snags(t testing.TB, d casefile.Document) []string {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	f, err := d.Read(c)
	require.NoError(t, err)
	list := f.Snags()
	require.Empty(t, aloud.Faults(book, list))
	lines := []string{}
	rank := snag.Forbidden.Rank()
	for _, s := range list {
		require.GreaterOrEqual(t, s.Kind.Rank(), rank, "the gravest first")
		rank = s.Kind.Rank()
		line := fmt.Sprintf("%s: %s. %s", s.Kind, book.Say(s.What), book.Say(s.Fact))
		if s.Does != nil {
			line += fmt.Sprintf(" [%s: %s %s]", book.Say(*s.Does), s.Act, s.Of)
		}
		lines = append(lines, line)
	}
	return lines
}

const foundation = "foundation: lead forward is missing. 6 foundations are not met. Until then load board waits. [Work on it: arena lead.forward]"

func TestWhatStopsUs(t *testing.T) {
	for _, c := range []struct {
		name string
		doc  casefile.Document
		want []string
	}{
		{
			"never looked at", casefile.Document{Input: casefile.Input{Today: "2026-06-20", Problem: horse.Loading}},
			[]string{"unlooked: Not assessed yet. The plan takes nothing as known. [Begin the assessment: look A]"},
		},
		{"a clear body, nothing met", looked(func(*assess.Assessment) {}), []string{foundation}},
		{
			"a hind leg that the vet has not seen", looked(func(a *assess.Assessment) { a.Body[horse.HindLeg] = assess.BodyNote{State: horse.Suspect} }),
			[]string{
				"barred: 8 steps barred, from load step in on. Lifted when the vet has cleared it, or a vet releases this step.",
				"unanswered: No answer from the vet, due 8 June. About: hind leg that snatches or locks. [The letter: letter hind leg]",
				foundation,
			},
		},
		{
			"eyes that nobody looked at", looked(func(a *assess.Assessment) { delete(a.Body, horse.Eyes) }),
			[]string{foundation, "unlooked: Nobody looked. Bears on this, and was not looked at: eyes. [Look now: look B]"},
		},
	} {
		assert.Equal(t, c.want, snags(t, c.doc), c.name)
	}
}

func TestAnOwnerWhoIsNearlyCleared(t *testing.T) {
	d := looked(func(*assess.Assessment) {})
	d.Owners = []string{"ines"}
	assert.NotContains(t, fmt.Sprint(snags(t, d)), "clearance", "nothing is met that could be cleared")
	d.Days = []track.Day{day("2026-06-10", "", 5), day("2026-06-12", "ines", 2)}
	assert.Contains(t, snags(t, d), "clearance: Nobody is cleared for homework. Nearest: lead forward, watched 2 of 3. [See what is missing: clear lead.forward]")
	d.Days[1] = day("2026-06-12", "ines", 3)
	items := map[clearance.Item]clearance.Said{}
	for _, i := range (clearance.Item{}).All() {
		items[i] = clearance.Yes
	}
	d.Rehearsals = []clearance.Rehearsal{{Person: "ines", Step: "lead.forward", On: "2026-06-11", Place: clearance.OnAPerson, Items: items}}
	assert.NotContains(t, fmt.Sprint(snags(t, d)), "clearance", "she is cleared")
}

// day is a session in which somebody leads it forward so many times.
func day(on, handler string, reps int) track.Day {
	start, err := time.Parse(time.DateOnly, on)
	if err != nil {
		panic(err)
	}
	d := track.Day{Date: on, Started: start.UnixMilli(), Handler: "trainer"}
	for i := range reps {
		r := track.Rep{Ask: horse.Ask{Step: "lead.forward"}, Answer: horse.Accepted, Peak: horse.LevelOf(1), Arousal: horse.ArousalOf(1), Handler: handler}
		d.Track = append(d.Track, track.Entry{ID: fmt.Sprint(on, i), Kind: track.KindRep, At: d.Started + int64(i+1)*60_000, Rep: &r})
	}
	return d
}

// A horse that nobody has looked at is not stopped by what is forbidden, but by
// that.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	f, err := casefile.Document{Input: casefile.Input{Today: "2026-06-01", Problem: horse.Loading}}.Read(c)
	if err != nil {
		panic(err)
	}
	for _, s := range f.Snags() {
		fmt.Println(book.Say(s.What) + ": " + book.Say(*s.Does))
	}
	// Output: Not assessed yet: Begin the assessment
}
