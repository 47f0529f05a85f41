// Package outing is the slow way home (part 7): how an outing is planned, how much
// standing is still owed while it is walked, what it came to, how far the next one
// goes, how far away the horse is at ease, and when it may be ridden. A walk is the
// buttons that were pressed, with their times; nothing here knows a clock.
package outing

import (
	"math"

	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Numbers of part 7.
const (
	homeTimes = 2    // the way home takes at least so many times the way out
	usual     = 45   // seconds of a stand
	third     = 3    // each so many-th stop is a back-up stop
	firstOut  = 5    // minutes out, at most, the first time
	further   = 1.25 // of the metres, when it went well
	half      = 0.5
)

// A Plan is an outing as it is laid out.
type Plan struct {
	Out    int              `json:"out" doc:"seconds of the way out"`
	Moving int              `json:"moving" doc:"seconds of moving on the way home"`
	Owed   int              `json:"owed" doc:"seconds of standing that the way home needs"`
	Stand  int              `json:"stand" doc:"seconds of one stand"`
	Needed int              `json:"needed" doc:"stands that are needed"`
	Metres int              `json:"metres,omitempty" doc:"of the way out; absent: not known"`
	Stops  []Stop           `json:"stops" doc:"on the way home, the first at the turning point"`
	Every  float64          `json:"every,omitempty" doc:"metres from one stop to the next; absent: not known"`
	Warns  []phrase.Message `json:"warns" doc:"what speaks against it"`
	Safety phrase.Message   `json:"safety" doc:"what always holds (part 9)"`
}

// A Stop is where the horse stands.
type Stop struct {
	N      int     `json:"n" doc:"from 1"`
	Metres float64 `json:"metres,omitempty" doc:"from the yard"`
	Share  float64 `json:"share" doc:"of the way home that is left there"`
	BackUp bool    `json:"back_up,omitempty" doc:"stand, two steps back, straight, stand again"`
	Stand  int     `json:"stand" doc:"seconds, over both stands of a back-up stop"`
}

// PlanOf lays an outing out; before is how many outings the horse had. The road is
// checked before (track.Road.Check).
func PlanOf(r track.Road, before int) Plan {
	p := Plan{Stand: usual, Metres: r.Metres, Stops: []Stop{}, Warns: []phrase.Message{}, Safety: phrase.Of("outing.safety", nil)}
	if r.Stand > 0 {
		p.Stand = r.Stand
	}
	minutes := r.Minutes
	switch {
	case minutes == 0 && r.Pace > 0:
		minutes = float64(r.Metres) / r.Pace
	case r.Metres == 0 && r.Pace > 0:
		p.Metres = int(math.Round(minutes * r.Pace))
	}
	p.Out, p.Moving = int(math.Round(minutes*60)), int(math.Round(r.Moving*60))
	if p.Moving == 0 {
		p.Moving = p.Out
	}
	p.Owed = max(0, homeTimes*p.Out-p.Moving)
	p.Needed = ceil(p.Owed, p.Stand)
	n := stopsFor(p.Needed, r.NoBack)
	if r.Plain > 0 {
		n = r.Plain
		p.Stand = int(math.Ceil(float64(p.Owed)/float64(n) - 1e-9))
	}
	for i := range n {
		left := 1 - float64(i)/float64(n)
		s := Stop{N: i + 1, Metres: left * float64(p.Metres), Share: left, Stand: p.Stand, BackUp: r.Plain == 0 && !r.NoBack && (i+1)%third == 0}
		if s.BackUp {
			s.Stand *= 2
		}
		p.Stops = append(p.Stops, s)
	}
	if n > 0 && p.Metres > 0 {
		p.Every = float64(p.Metres) / float64(n)
	}
	if before == 0 && minutes > firstOut {
		p.Warns = append(p.Warns, phrase.Of("outing.first", phrase.Args{"most": firstOut}))
	}
	if p.Owed == 0 {
		p.Warns = append(p.Warns, phrase.Of("outing.slow", nil))
	}
	return p
}

// stopsFor is the smallest number of stops that come to so many stands, where each
// third counts two.
func stopsFor(stands int, noBack bool) int {
	if noBack {
		return stands
	}
	s := stands * third / (third + 1)
	for s+s/third < stands {
		s++
	}
	return s
}

func ceil(a, b int) int { return (a + b - 1) / b }
