package arena

import "ivorybridge/core/horse"

// clock is the time of a session and of its block: time on one ladder. Caps count
// schooling minutes; easy riding and handling does not count (part 6).
type clock struct {
	started, now int64 // ms
	easyMinutes  int

	blockStart  int64 // ms
	blockEasy   int
	blockLadder string
	askEnded    bool    // the ask at work was ended: another begins a new block
	finish      *finish // an easy known ask was wanted, to end on
}

// none is the time of what has not been.
const none = -1

// Units of the clock.
const (
	second = 1000   // ms; mutate: a unit
	minute = 60_000 // ms; mutate: a unit
)

func (c *clock) schooling() float64 {
	return float64(c.now-c.started)/minute - float64(c.easyMinutes)
}

func (c *clock) blockMinutes() float64 {
	return float64(c.now-c.blockStart)/minute - float64(c.blockEasy)
}

// begins begins a block of work on a ladder.
func (c *clock) begins(ladder string, at int64) {
	if c.blockLadder != "" {
		c.blockStart, c.blockEasy = max(at, c.blockStart), 0
	}
	c.blockLadder, c.askEnded, c.finish = ladder, false, nil
}

// finish is an easy known ask that something ends on, at most two tries of it.
type finish struct {
	easy  horse.Ask
	since int // reps logged when it was first wanted
	end   decision
}
