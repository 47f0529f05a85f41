package track

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestAClockIsOffOnlyByMoreThanItMayBe(t *testing.T) {
	const now = 1_800_000_000_000
	for sent, off := range map[int64]int64{
		0: 0, now: 0, now - clockSlack: 0, now + clockSlack: 0,
		now - clockSlack - 1: clockSlack + 1, now + 86_400_000: -86_400_000,
	} {
		assert.Equal(t, off, ClockOff(now, sent), "sent at %d", sent)
	}
}

// A session that is sent without a word of the device's clock is believed within
// half a day back, and an hour ahead.
func TestWhenASessionBegan(t *testing.T) {
	const now, hour = int64(1_000_000_000_000), int64(3_600_000)
	assert.Equal(t, now-12*hour, Began(now, now-12*hour, 0))
	assert.Equal(t, now, Began(now, now-12*hour-1, 0))
	assert.Equal(t, now+hour, Began(now, now+hour, 0))
	assert.Equal(t, now, Began(now, now+hour+1, 0))
	assert.Equal(t, now-20*hour, Began(now, now-20*hour, now), "it said when it sent it")
	assert.Equal(t, now-hour, Began(now, now-3*hour, now-2*hour), "its clock is two hours behind")
	assert.Equal(t, now-longestKept, Began(now, now-longestKept, now), "kept for two months")
	assert.Equal(t, now, Began(now, now-longestKept-1, now), "its clock was set only after it began")
	assert.Equal(t, now, Began(now, 0, now))

	assert.False(t, BeganLater(now+clockSlack, now))
	assert.True(t, BeganLater(now+clockSlack+1, now))
	assert.False(t, BeganLater(now+48*hour, 0), "it did not say when it sent it")
}
