package limits

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/store"
)

var noon = time.Date(2026, 6, 1, 12, 0, 0, 0, time.UTC)

func kept(t testing.TB, path string) *store.Store {
	s, err := store.Open(context.Background(), path, noon)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() }) // closed twice where a test reopens it
	return s
}

// So many at once, then one after each period; what is used up outlives a restart, and
// another key has its own.
func TestATryWaitsAndARestartForgivesNothing(t *testing.T) {
	ctx, path := context.Background(), filepath.Join(t.TempDir(), "p.db")
	s := kept(t, path)
	l, two := New(s), Limit{Burst: 2, Period: 10 * time.Second}
	take := func(at time.Time, key string) time.Duration {
		wait, err := l.Take(ctx, at, two.Of("door", key))
		require.NoError(t, err)
		return wait
	}
	assert.Equal(t, []time.Duration{0, 0, 10 * time.Second}, []time.Duration{take(noon, "a"), take(noon, "a"), take(noon, "a")})
	assert.Zero(t, take(noon, "b"))
	assert.Equal(t, time.Second, take(noon.Add(9*time.Second), "a"))
	require.NoError(t, s.Close())
	l = New(kept(t, path))
	assert.Equal(t, 10*time.Second, take(noon, "a"), "after a restart")
	assert.Zero(t, take(noon.Add(10*time.Second), "a"))
}

// What is found costs nothing; what is not does, and then even what is there is not
// found; what fails otherwise says so.
func TestFindingByAToken(t *testing.T) {
	ctx := context.Background()
	l, count := New(kept(t, filepath.Join(t.TempDir(), "p.db"))), Limit{Burst: 3, Period: time.Minute}.Of("link", "192.0.2.7")
	find := func(err error) (string, error) {
		return Find(ctx, l, noon, count, func() (string, error) { return "a page", err })
	}
	for range 10 {
		page, err := find(nil)
		require.NoError(t, err)
		assert.Equal(t, "a page", page)
	}
	broken := errors.New("the disk is full")
	_, err := find(broken)
	require.ErrorIs(t, err, broken)
	for range 3 {
		_, err := find(store.ErrNotFound)
		require.ErrorIs(t, err, store.ErrNotFound)
	}
	page, err := find(nil)
	require.ErrorIs(t, err, store.ErrNotFound, "after so many guesses nothing opens from there")
	assert.Empty(t, page)
}

func Example() {
	two := Limit{Burst: 2, Period: time.Minute}
	first, again, other := two.Of("sign-in", "a"), two.Of("sign-in", "a"), two.Of("sign-in", "b")
	fmt.Println(first == again, first == other)
	// Output: true false
}
