package demo

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/progress"
	"ivorybridge/store"
)

// The demo tells what it says it tells, on whatever day it is made.
func TestTheDemoTellsItsStory(t *testing.T) {
	ctx := context.Background()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	for _, now := range []time.Time{time.Date(2026, 3, 1, 7, 0, 0, 0, time.UTC), time.Date(2028, 2, 29, 22, 0, 0, 0, time.UTC)} {
		db, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), now)
		require.NoError(t, err)
		require.NoError(t, Fill(ctx, db, c, now))
		p, err := db.FirstPractice(ctx)
		require.NoError(t, err)
		horses, err := db.Horses(ctx, p.ID)
		require.NoError(t, err)
		yards, err := db.Yards(ctx, p.ID)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, len(horses), 5)
		assert.GreaterOrEqual(t, len(yards), 2)
		owners, finished := map[string]bool{}, 0
		cases, err := db.Cases(ctx, p.ID)
		require.NoError(t, err)
		for _, k := range cases {
			if k.FinishedOn != "" {
				finished++
			}
		}
		assert.Equal(t, 1, finished)
		for _, h := range horses {
			owners[h.Owners[0].ID] = true
			_, days, _, err := db.Days(ctx, p.ID, h.ID)
			require.NoError(t, err)
			reps := 0
			for _, d := range days {
				reps += len(arena.Beads(c, d, nil, nil))
				require.LessOrEqual(t, d.Date, now.Format(time.DateOnly))
			}
			bridge, _ := progress.BridgeOf(c, "load", history.Fold(c, history.Beside{}, days).Known(c), nil, "", progress.Goal{})
			switch h.Name {
			case "Copperfield Moth":
				assert.GreaterOrEqual(t, len(days), 5)
				assert.GreaterOrEqual(t, reps, 80)
				assert.InDelta(t, 0.5, bridge.Progress, 0.25, "half-way over the bridge")
			case "Pepperdine":
				assert.Empty(t, days, "just taken on")
			case "Teasel":
				assert.InDelta(t, 1, bridge.Progress, 0, "finished")
			case "Juniper Lantern":
				slipped := false
				for _, p := range bridge.Planks {
					slipped = slipped || p.State == horse.Slipped
				}
				assert.True(t, slipped)
			}
		}
		assert.GreaterOrEqual(t, len(owners), 3)
		require.NoError(t, db.Close())
	}
}
