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
	"ivorybridge/core/track"
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
		assert.Equal(t, 2, finished)
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

// The demo shows the whole job: horses of every kind of problem, every school at work,
// and every state of a case.
func TestTheDemoShowsTheWholeJob(t *testing.T) {
	ctx := context.Background()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	now := time.Date(2026, 3, 1, 7, 0, 0, 0, time.UTC)
	db, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), now)
	require.NoError(t, err)
	defer func() { assert.NoError(t, db.Close()) }()
	require.NoError(t, Fill(ctx, db, c, now))
	p, err := db.FirstPractice(ctx)
	require.NoError(t, err)
	horses, err := db.Horses(ctx, p.ID)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(horses), 10)
	problems, kinds, early := map[string]bool{}, map[track.Kind]int{}, 0
	last := map[string]string{}
	for _, h := range horses {
		k, err := db.NewestCase(ctx, p.ID, h.ID)
		require.NoError(t, err)
		problems[k.Problem] = true
		_, days, _, err := db.Days(ctx, p.ID, h.ID)
		require.NoError(t, err)
		for _, d := range days {
			last[h.Name] = d.Date
			for _, e := range d.Track {
				kinds[e.Kind]++
				if e.Mark != nil && e.Mark.Why != "" {
					early++
				}
			}
		}
	}
	assert.GreaterOrEqual(t, len(problems), 12)
	for _, kind := range []track.Kind{track.KindRep, track.KindDose, track.KindOffer, track.KindSpell} {
		assert.NotZero(t, kinds[kind], "%s: a school that nobody works in", kind)
	}
	assert.NotZero(t, early, "something is asked before its time")
	assert.Less(t, last["Dumpling"], now.AddDate(0, 0, -30).Format(time.DateOnly), "back after time off")
	assert.Empty(t, last["Pepperdine"], "just taken on")
	var rescue store.Horse
	for _, h := range horses {
		if h.Name == "Nettle" {
			rescue = h
		}
	}
	assert.Len(t, rescue.Handlers, 2)
}
