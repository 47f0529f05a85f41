package history

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/arena"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func TestCounts(t *testing.T) {
	told := func(a horse.Answer, peak int, counted bool) arena.Told {
		return arena.Told{Rep: track.Rep{Peak: horse.LevelOf(peak), Release: horse.OnTheTry}, Graded: a, Counted: counted, Calm: 1}
	}
	r := Count([]arena.Told{told(horse.Accepted, 2, true), told(horse.Refused, 5, true), told(horse.Refused, 9, false)}, nil)
	assert.Equal(t, Reps{N: 2, Soft: 1, Level: 3.5, Noted: true, Highest: 5, Arousal: 1, OnTry: 2}, r)
}
