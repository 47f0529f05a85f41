package diary

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

const evening = "2026-11-27"

func due(kind DueKind, days int) Due {
	if kind == Deadline {
		return Due{Kind: kind, Name: "Moth", On: horse.DayAfter(evening, days), Says: phrase.Of("due.deadline", phrase.Args{"goal": "Loads alone"})}
	}
	return Due{Kind: kind, Name: "Moth", On: horse.DayAfter(evening, days), Says: phrase.Of("due.referral", phrase.Args{"who": "dentist", "item": "teeth"})}
}

// A letter is written as a date comes into view, the day before it, the day after it, and
// each week from then; for the day by which a horse is needed twice.
func TestWhatIsWorthALetter(t *testing.T) {
	for _, c := range []struct {
		kind  DueKind
		days  int
		calls bool
	}{
		{DueRecheck, 8, false}, {DueRecheck, 7, true}, {DueRecheck, 6, false}, {DueRecheck, 2, false}, {DueRecheck, 1, true}, {DueRecheck, 0, false},
		{DueRecheck, -1, true}, {DueRecheck, -2, false}, {DueRecheck, -7, false}, {DueRecheck, -8, true}, {DueRecheck, -9, false}, {DueRecheck, -15, true},
		{DueRound, 7, true}, {DueRound, -2, false}, {DueReferral, 7, true}, {DueReferral, -8, true}, {DueReferral, 14, false},
		{Deadline, 15, false}, {Deadline, 14, true}, {Deadline, 13, false}, {Deadline, 7, false}, {Deadline, 1, true}, {Deadline, 0, false}, {Deadline, -1, false}, {Deadline, -8, false},
	} {
		d := due(c.kind, c.days)
		assert.Equal(t, c.calls, Reminds(d, evening), "%s in %d days", c.kind, c.days)
		_, written := Evening(evening, nil, []Due{d})
		assert.Equal(t, c.calls, written, "%s in %d days", c.kind, c.days)
	}
	_, written := Evening(evening, nil, []Due{{Kind: DueRecheck, On: "soon"}})
	assert.False(t, written)
}

// Once written, it tells all that is late or in view, and nothing else.
func TestWhatALetterTells(t *testing.T) {
	next := []Coming{
		{Horses: []string{"Harvest Lark", "Moth"}, Yard: "Tarn Side", At: "09:00", Leave: "08:35", Mins: 45},
		{Horses: []string{"Flint"}, Mins: 30, Pencil: true},
	}
	l, written := Evening(evening, next, []Due{due(DueReferral, 7), due(DueReferral, 8), due(DueReferral, 0), due(DueReferral, -3), due(Deadline, 14), due(Deadline, 15), due(Deadline, -1)})
	require.True(t, written)
	book := phrase.English(phrase.Words{})
	assert.Equal(t, "28 November: 2 visits, and 4 things fall due", book.Say(l.Subject))
	var said []string
	for _, p := range l.Parts {
		said = append(said, "# "+book.Say(p.Head))
		for _, m := range p.Lines {
			said = append(said, book.Say(m))
		}
	}
	assert.Equal(t, []string{
		"# Tomorrow, 28 November",
		"09:00: Harvest Lark and Moth at Tarn Side, 45 minutes. Leave at 08:35.",
		"No time yet: Flint, 30 minutes. Proposed, not agreed yet.",
		"# Late", "24 November. Moth: Ask the dentist: teeth.",
		"# Within a week", "27 November. Moth: Ask the dentist: teeth.", "4 December. Moth: Ask the dentist: teeth.",
		"# Needed soon", "11 December. Moth: Loads alone",
	}, said)

	l, _ = Evening(evening, next[:1], nil)
	assert.Equal(t, "28 November: 1 visit", book.Say(l.Subject))
	l, _ = Evening(evening, nil, []Due{due(DueRecheck, 1)})
	assert.Equal(t, "1 thing falls due", book.Say(l.Subject))
	assert.Len(t, l.Parts, 1)
}

// Of one thing that is not done, no more than one evening in a week brings a letter once
// it has passed, and no evening is left without one for longer than a week.
func TestALetterIsNoNagging(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		days := rapid.IntRange(-400, -1).Draw(t, "days")
		n := 0
		for i := range 7 {
			if Reminds(due(DueRecheck, days-i), evening) {
				n++
			}
		}
		assert.Equal(t, 1, n)
	})
}
