package api

import (
	"context"
	"slices"
	"sync"
)

// turns lets so many work at once. Those who are known come first; among the
// others the newest, since in a storm those who came before have mostly gone.
type turns struct {
	mu     sync.Mutex
	free   int
	known  []chan struct{}
	others []chan struct{}
}

// take waits for a turn; done ends it.
func (t *turns) take(ctx context.Context, known bool) (done func(), err error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	t.mu.Lock()
	if t.free > 0 {
		t.free--
		t.mu.Unlock()
		return t.next, nil
	}
	mine, line := make(chan struct{}), &t.others
	if known {
		line = &t.known
	}
	*line = append(*line, mine)
	t.mu.Unlock()
	select {
	case <-mine:
		return t.next, nil
	case <-ctx.Done():
		t.mu.Lock()
		i := slices.Index(*line, mine)
		if i >= 0 {
			*line = slices.Delete(*line, i, i+1)
		}
		t.mu.Unlock()
		if i < 0 {
			t.next() // it was given the turn meanwhile
		}
		return nil, ctx.Err()
	}
}

// next gives the turn to whoever is next.
func (t *turns) next() {
	t.mu.Lock()
	defer t.mu.Unlock()
	for _, line := range []*[]chan struct{}{&t.known, &t.others} {
		if n := len(*line); n > 0 {
			close((*line)[n-1])
			*line = (*line)[:n-1]
			return
		}
	}
	t.free++
}
