package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/horse"
)

// Mounting and halting are seen safe in D2, or the mounting at the first look; told or
// on video they are not seen, and what speaks against mounting stands against it.
func TestMountingAndHaltingSeenSafe(t *testing.T) {
	accepted := Basic{Level: horse.LevelOf(1), Grade: horse.Accepted}
	of := func(edit func(*Assessment)) bool {
		a := Assessment{Basics: map[string]Basic{"ridden.mount": accepted, "ridden.halt": accepted}, Sources: map[string]horse.Source{}}
		edit(&a)
		return a.seenSafe()
	}
	assert.True(t, of(func(*Assessment) {}))
	assert.False(t, of(func(a *Assessment) { a.Basics["ridden.halt"] = Basic{Grade: horse.Tolerated} }))
	assert.False(t, of(func(a *Assessment) { delete(a.Basics, "ridden.mount") }))
	assert.True(t, of(func(a *Assessment) {
		delete(a.Basics, "ridden.mount")
		a.First.Mounting = []Mounting{Mounting{}.All()[0]}
	}))
	assert.False(t, of(func(a *Assessment) { a.Sources["D2"] = horse.Told }))
	assert.False(t, of(func(a *Assessment) { a.Sources["D2"] = horse.OnVideo }))
	assert.False(t, of(func(a *Assessment) { a.First.Mounting = []Mounting{Mounting{}.All()[6]} }))
}
