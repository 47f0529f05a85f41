package history

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// gone is a session told in turns: who holds the rope, in what, and what the horse answered.
type gone struct{ day track.Day }

func (g *gone) add(e track.Entry) *gone {
	n := len(g.day.Track) + 1
	e.ID, e.At, e.Seq = strconv.Itoa(n), int64(n)*30_000, int64(n)
	g.day.Track = append(g.day.Track, e)
	return g
}

func (g *gone) in(who, tack string) *gone {
	return g.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Turn: who, Tack: tack}})
}

func (g *gone) does(step string, answer horse.Answer, levels ...int) *gone {
	for _, l := range levels {
		g.add(track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: horse.Ask{Step: step}, Answer: answer, Peak: horse.LevelOf(l), Arousal: horse.ArousalOf(1)}})
	}
	return g
}

func row(person, tack string, level int, grade horse.Answer) assess.SwapRow {
	return assess.SwapRow{Person: person, Tack: tack, Run: assess.Run{Level: horse.LevelOf(level), Grade: grade}}
}

func TestASwapIsReadFromASession(t *testing.T) {
	c := shipped(t)
	names := map[string]string{"i": "Ines", "w": "Wren"}
	for name, test := range map[string]struct {
		gone *gone
		step string
		rows []assess.SwapRow
	}{
		"nobody changed": {(&gone{}).in("i", "").does("lead.halt", horse.Try, 6, 7), "", nil},
		"the person, and again": {
			(&gone{}).in("i", "").does("lead.halt", horse.Try, 6, 8, 7).in("w", "").does("lead.halt", horse.Accepted, 3, 2).in("i", "").does("lead.halt", horse.Accepted, 5),
			"lead.halt", []assess.SwapRow{row("Ines", UsualTack, 7, horse.Try), row("Wren", UsualTack, 3, horse.Accepted), row("Ines", UsualTack, 5, horse.Accepted)},
		},
		"the tack too, and the ask with most": {
			(&gone{}).in("w", "gag").does("soft.halt", horse.Try, 7).does("lead.halt", horse.Accepted, 2).in("i", "").does("soft.halt", horse.Try, 8).does("lead.halt", horse.Accepted, 3).in("", "snaffle").does("soft.halt", horse.Accepted, 3),
			"soft.halt", []assess.SwapRow{row("Wren", "gag", 7, horse.Try), row("Ines", "gag", 8, horse.Try), row("Ines", "snaffle", 3, horse.Accepted)},
		},
		"of two answers the poorer": {
			(&gone{}).in("w", "").does("lead.halt", horse.Accepted, 2).does("lead.halt", horse.Refused, 4).in("x", "").does("lead.halt", horse.Accepted, 2),
			"lead.halt", []assess.SwapRow{row("Wren", UsualTack, 3, horse.Refused), row("x", UsualTack, 2, horse.Accepted)},
		},
	} {
		t.Run(name, func(t *testing.T) {
			test.gone.day.Date = "2026-06-01"
			ask, rows := Swapped(c, test.gone.day, names)
			assert.Equal(t, test.step, ask.Step)
			assert.Equal(t, test.rows, rows)
		})
	}
	long := &gone{}
	for i := range 9 {
		long.in([]string{"i", "w"}[i%2], "").does("lead.halt", horse.Accepted, 2)
	}
	_, rows := Swapped(c, long.day, names)
	assert.Len(t, rows, assess.MostSwapRows)
}
