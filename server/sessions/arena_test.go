package sessions

import (
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
)

// An arena that is no longer kept still orders the writes to its track.
func TestALockOutlivesWhatIsKept(t *testing.T) {
	a := newArenas()
	first, unlock := a.of("p", "s")
	var wait sync.WaitGroup
	var second *liveArena
	in := make(chan struct{})
	wait.Go(func() {
		close(in)
		l, unlock := a.of("p", "s")
		second = l
		unlock()
	})
	<-in
	a.forget()
	assert.Nil(t, second, "it waits for the first to be done")
	unlock()
	wait.Wait()
	assert.NotSame(t, first, second)

	for i := range maxArenas + 1 {
		_, unlock := a.of("p", string(rune('a'+i)))
		unlock()
	}
	assert.Equal(t, maxArenas, a.live.Len(), "only the oldest went")
	_, there := a.live.Get("p" + string(rune('a'+1)))
	assert.True(t, there)
}
