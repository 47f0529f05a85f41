package arena

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// dips are sessions of one ask, in which a horse says no in the dip of a cycle
// with one chance, and else with another.
func dips(sessions, cycle int, in, out float64) []track.Day {
	draw := rand.New(rand.NewPCG(uint64(cycle), 7))
	var days []track.Day
	for d := range sessions {
		day := track.Day{Date: fmt.Sprintf("2026-06-%02d", d+1)}
		for n := 1; n <= 24; n++ {
			chance := out
			if n%cycle == cycle-1 || n%cycle == 0 {
				chance = in
			}
			r := track.Rep{Ask: ask("lead.forward"), Answer: horse.Accepted, Peak: horse.LevelOf(4), Arousal: horse.ArousalOf(1)}
			if draw.Float64() < chance {
				r.Answer = horse.Refused
			}
			day.Track = append(day.Track, track.Entry{ID: fmt.Sprint(d, n), Kind: track.KindRep, At: int64(n) * 30_000, Rep: &r})
		}
		days = append(days, day)
	}
	return days
}

// answers are those of some sessions.
func answers(c *catalog.Catalog, days []track.Day) Answers {
	var n Answers
	for _, d := range days {
		n = n.With(Beads(c, d, nil, nil))
	}
	return n
}

func learn(c *catalog.Catalog, days []track.Day) Cycle { return answers(c, days).Learn(4) }

func TestTheCycleIsLearnedPerHorse(t *testing.T) {
	c := shipped(t)
	for _, cycle := range []int{3, 5, 6} {
		got := learn(c, dips(6, cycle, 0.8, 0.05))
		assert.Equal(t, cycle, got.Cycle)
		assert.True(t, got.Learned)
		assert.Greater(t, got.Dip, got.Outside)
		assert.Equal(t, 6*24, got.Reps)
	}
	four := learn(c, dips(6, 4, 0.8, 0.05))
	assert.Equal(t, 4, four.Cycle)
	assert.False(t, four.Learned)
	assert.Equal(t, 4, learn(c, dips(3, 5, 0.8, 0.05)).Cycle, "72 reps are too few")
	assert.Equal(t, 4, learn(c, dips(6, 5, 0, 0)).Cycle, "no noes, no other cycle")
	assert.NotEqual(t, 5, learn(c, dips(6, 5, 0.02, 0.7)).Cycle, "fewer noes in it is no dip")
	assert.Equal(t, Cycle{Cycle: 4, Dip: 0.5, Outside: 0.5}, learn(c, nil))
}

func TestOnlyAsksWithSixRepsTeachTheCycle(t *testing.T) {
	days := dips(6, 5, 0.8, 0.05)
	for i := range days {
		days[i].Track = days[i].Track[:5]
	}
	assert.Zero(t, learn(shipped(t), days).Reps)
}

// The sentence on both sides of 96 answers, and for a cycle that was learned.
func TestACycleInWords(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	assert.Equal(t, "Too early to say whether it has a cycle of its own: 96 answers are needed, and there are 95.", book.Say(Cycle{Reps: 95}.Says()))
	assert.Equal(t, "No cycle of its own shows in its 96 answers.", book.Say(Cycle{Reps: 96}.Says()))
	assert.Equal(t, "Its noes come at answers 4 and 5 of 5: 60 % there, 5 % elsewhere, learned from 120 answers.", book.Say(Cycle{Cycle: 5, Reps: 120, Dip: 0.6, Outside: 0.05, Learned: true}.Says()))
}
