package clearance_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func said(nearly, no int) map[clearance.Item]clearance.Said {
	items := map[clearance.Item]clearance.Said{}
	for i, item := range (clearance.Item{}).All() {
		items[item] = clearance.Yes
		switch {
		case i < nearly:
			items[item] = clearance.Said{}.All()[1]
		case i < nearly+no:
			items[item] = clearance.No
		}
	}
	return items
}

func rehearsal(on string, nearly, no int) clearance.Rehearsal {
	return clearance.Rehearsal{Person: "ines", Step: "lead.back", On: on, Place: clearance.OnAPerson, Items: said(nearly, no)}
}

// day is a session with answers to lead.back by somebody, at level 2.
func day(date, by string, answers ...horse.Answer) track.Day {
	start, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	d := track.Day{Date: date, Started: start.UnixMilli(), Handler: by}
	for i, a := range answers {
		d.Track = append(d.Track, track.Entry{ID: fmt.Sprint(date, i), Kind: track.KindRep, At: d.Started + int64(i+1)*60_000, Rep: &track.Rep{
			Ask: horse.Ask{Step: "lead.back"}, Answer: a, Peak: horse.LevelOf(2), Arousal: horse.ArousalOf(1), Release: horse.OnTheTry, Target: 4,
		}})
	}
	return d
}

// known is a horse with its sessions.
type known struct {
	clearance.Input
	days []track.Day
}

func of(t *testing.T, in known) clearance.State {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	in.Persons, in.Steps, in.History = []string{"ines"}, []string{"lead.back"}, history.Fold(c, history.Beside{}, in.days)
	return clearance.Of(in.Input)[0]
}

func keys(s clearance.State) []string {
	var list []string
	for _, m := range s.Why {
		list = append(list, m.Key)
	}
	return list
}

var three = []horse.Answer{horse.Accepted, horse.Offered, horse.Accepted}

// Cleared with 6 yes and none no (part 7).
func TestTheRehearsalIsSixYesAndNoNo(t *testing.T) {
	for _, test := range []struct {
		nearly, no int
		want       bool
	}{{0, 0, true}, {1, 0, true}, {2, 0, false}, {0, 1, false}, {1, 1, false}} {
		assert.Equal(t, test.want, rehearsal("2026-06-01", test.nearly, test.no).Cleared(), "%+v", test)
	}
	assert.True(t, clearance.Try{Meant: horse.LevelOf(5), Felt: horse.LevelOf(3)}.Fainter())
	assert.False(t, clearance.Try{Meant: horse.LevelOf(5), Felt: horse.LevelOf(4)}.Fainter())
	assert.False(t, clearance.Try{Meant: horse.LevelOf(5)}.Fainter(), "not noted is not none")
}

func TestClearedOnTwoLegs(t *testing.T) {
	both := known{Input: clearance.Input{Rehearsals: []clearance.Rehearsal{rehearsal("2026-06-01", 1, 0)}}, days: []track.Day{day("2026-06-02", "ines", three...)}}
	assert.True(t, of(t, both).Cleared)
	one := both
	one.days = nil
	s := of(t, one)
	assert.True(t, s.Rehearsed && !s.Cleared)
	assert.Equal(t, []string{"clearance.watch"}, keys(s))
	one = both
	one.Rehearsals = nil
	assert.Equal(t, []string{"clearance.rehearse"}, keys(of(t, one)))
	one = both
	one.days = []track.Day{day("2026-06-02", "wren", three...)}
	assert.Zero(t, of(t, one).Watched, "the trainer's answers do not count")
	one.days = []track.Day{day("2026-06-02", "ines", horse.Accepted, horse.Accepted, horse.Refused), day("2026-06-03", "ines", horse.Accepted, horse.Accepted)}
	assert.Equal(t, 2, of(t, one).Watched, "in a row")
	one.days = []track.Day{day("2026-06-02", "ines", horse.Accepted), day("2026-06-03", "ines", horse.Accepted, horse.Accepted)}
	assert.True(t, of(t, one).Cleared, "on one day or several")

	clip := rehearsal("2026-06-02", 0, 0)
	clip.Place, clip.Answers = clearance.OnClip, three
	one.days, one.Rehearsals = nil, append(both.Rehearsals, clip)
	assert.True(t, of(t, one).Cleared, "an uncut clip stands for watching")
	one.Rehearsals = []clearance.Rehearsal{clip}
	assert.False(t, of(t, one).Rehearsed, "and not for the rehearsal")
}

func TestClearanceLapses(t *testing.T) {
	kicked := day("2026-06-05", "wren", horse.Refused)
	kicked.Track[0].Rep.WaysOut = []horse.WayOut{horse.KickedAtPerson}
	in := known{Input: clearance.Input{Rehearsals: []clearance.Rehearsal{rehearsal("2026-06-01", 0, 0)}}, days: []track.Day{day("2026-06-02", "ines", three...), kicked}}
	s := of(t, in)
	assert.False(t, s.Cleared || s.Rehearsed)
	assert.Contains(t, keys(s), "clearance.incident")
	in.Rehearsals = append(in.Rehearsals, rehearsal("2026-06-06", 0, 0))
	in.days = append(in.days, day("2026-06-07", "ines", three...))
	assert.True(t, of(t, in).Cleared, "both legs again, after it")

	in = known{Input: clearance.Input{Rehearsals: []clearance.Rehearsal{rehearsal("2026-06-01", 0, 0)}}, days: []track.Day{
		day("2026-06-02", "ines", three...), day("2026-06-04", "wren", horse.Refused, horse.Refused, horse.Refused, horse.Refused),
	}}
	s = of(t, in)
	assert.False(t, s.Cleared)
	assert.Contains(t, keys(s), "clearance.slipped")
}

func TestNobodyIsClearedWhereItIsDangerousOrHeavy(t *testing.T) {
	in := known{Input: clearance.Input{Rehearsals: []clearance.Rehearsal{rehearsal("2026-06-01", 0, 0)}}, days: []track.Day{day("2026-06-02", "ines", three...)}}
	in.Points = 6
	assert.False(t, of(t, in).Cleared)
	in.Points, in.Dulled = 5, true
	assert.True(t, of(t, in).Cleared, "dulled, and light all the same")
	heavy := day("2026-06-03", "wren", horse.Try, horse.Try, horse.Try)
	for i := range heavy.Track {
		heavy.Track[i].Rep.Peak = horse.LevelOf(5)
	}
	in.days = append(in.days, heavy)
	s := of(t, in)
	assert.False(t, s.Cleared)
	assert.Contains(t, keys(s), "clearance.dulled")
	late := day("2026-06-04", "wren", three...)
	for i := range late.Track {
		late.Track[i].Rep.Release = horse.Late
	}
	in.days = append(in.days, late)
	assert.False(t, of(t, in).Cleared, "light, but let go of late")
	in.days = append(in.days, day("2026-06-05", "wren", three...))
	assert.True(t, of(t, in).Cleared, "light, and on the try")
}

func TestWhatCantBeIsSaidAtItsField(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	fields := func(r clearance.Rehearsal) []string {
		var list []string
		for _, f := range r.Check(c, "2026-06-10") {
			list = append(list, f.Field)
		}
		return list
	}
	assert.Empty(t, fields(rehearsal("2026-06-01", 0, 0)))
	half := rehearsal("2026-07-01", 0, 0)
	half.Items, half.Step = map[clearance.Item]clearance.Said{}, "lead.moon"
	assert.Equal(t, []string{"step", "on", "items"}, fields(half))
	clip := clearance.Rehearsal{Person: "ines", Step: "rush.slack", On: "2026-06-01", Place: clearance.OnClip}
	assert.Equal(t, []string{"place"}, fields(clip), "a ridden step is not cleared by a clip")
	clip.Step = "lead.back"
	assert.Equal(t, []string{"answers"}, fields(clip))
}
