package demo

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/store"
)

// The same seed and day make the same practice; another seed makes another.
func TestAnInventedPracticeIsMadeFromItsSeed(t *testing.T) {
	ctx := context.Background()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	now := time.Date(2026, 3, 1, 7, 0, 0, 0, time.UTC)
	invent := func(seed uint64) (horses []store.Horse, entries int, kinds map[string]bool) {
		db, err := store.Open(ctx, filepath.Join(t.TempDir(), "d.db"), now)
		require.NoError(t, err)
		defer func() { assert.NoError(t, db.Close()) }()
		require.NoError(t, Invent(ctx, db, c, now, Size{Horses: 17, Sessions: 3, Entries: 20, Seed: seed}))
		p, err := db.FirstPractice(ctx)
		require.NoError(t, err)
		horses, err = db.Horses(ctx, p.ID)
		require.NoError(t, err)
		kinds = map[string]bool{}
		for _, h := range horses {
			_, days, unread, err := db.Days(ctx, p.ID, h.ID)
			require.NoError(t, err)
			require.Empty(t, unread)
			require.Len(t, days, 3)
			for _, d := range days {
				entries += len(d.Track)
				for _, e := range d.Track {
					kinds[e.Kind.String()] = true
				}
			}
		}
		return horses, entries, kinds
	}
	first, n, kinds := invent(1)
	require.Len(t, first, 17)
	assert.GreaterOrEqual(t, n, 17*3*20*2/3)
	for _, k := range []string{"rep", "dose", "offer", "spell", "mark", "undo", "end"} {
		assert.Contains(t, kinds, k)
	}
	again, m, _ := invent(1)
	assert.Equal(t, first, again)
	assert.Equal(t, n, m)
	other, _, _ := invent(2)
	assert.NotEqual(t, first, other)
}
