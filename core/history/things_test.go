package history

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Each thing is counted once, however its name is written, with its first and last
// day and how it went.
func TestThingsMetAreCounted(t *testing.T) {
	with := func(id, thing string, answer horse.Answer) track.Entry {
		return track.Entry{ID: id, Kind: track.KindRep, Rep: &track.Rep{Ask: horse.Ask{Step: "new.next"}, Answer: answer, Thing: thing}}
	}
	days := []track.Day{
		{ID: "1", Date: "2026-06-01", Track: []track.Entry{with("a", "Fly spray", horse.Try), with("b", "tarpaulin", horse.Refused), with("c", "", horse.Accepted)}},
		{ID: "2", Date: "2026-06-03", Track: []track.Entry{
			with("d", " fly SPRAY ", horse.Accepted), with("e", "bicycle", horse.Accepted), {ID: "f", Kind: track.KindUndo, Replaces: "e"},
		}},
	}
	assert.Equal(t, []Thing{
		{Name: "Fly spray", First: "2026-06-01", Last: "2026-06-03", Asks: 2, How: horse.Accepted},
		{Name: "tarpaulin", First: "2026-06-01", Last: "2026-06-01", Asks: 1, How: horse.Refused},
	}, Fold(shipped(t), Beside{}, days).Things)
}
