package arena

import (
	"slices"

	"ivorybridge/core/horse"
)

// ending is what ends the session, or has: stop reasons, an end that stands, and
// what is still asked for. A bump is made good by two accepted answers.
type ending struct {
	stops          []horse.Stop
	over           *decision // that ended the session for good
	ended          bool
	incidentWanted bool
	bumped         bool // a bump, and not two accepted answers since
	afterBump      int
}

func (e *ending) clone() ending {
	c := *e
	c.stops = slices.Clip(e.stops)
	return c
}

// afterABump counts accepted answers after a bump: two of them make it good.
func (e *ending) afterABump(t told) {
	if e.bumped && t.counted && t.soft() {
		e.afterBump++
		e.bumped = e.afterBump < 2
	}
}
