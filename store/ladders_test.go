package store

import (
	"context"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/plan"
)

func TestOwnLaddersKeepEveryVersion(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	l := Ladder{ID: uuid.NewString(), Key: "load", Name: "Ours", Catalog: "2026.1", SavedBy: p.actor.User, Doc: catalog.Ladder{Key: "load", Steps: []catalog.Step{{Key: "load.board"}}}}
	require.NoError(t, p.SaveLadder(ctx, p.actor, l))
	l.Version, l.Name = 1, "Ours, again"
	require.NoError(t, p.SaveLadder(ctx, p.actor, l))
	stale, ok := asStale(p.SaveLadder(ctx, p.actor, l))
	require.True(t, ok)
	assert.EqualValues(t, 2, stale.Current.(Ladder).Version)

	list, err := p.Ladders(ctx, p.actor.Practice)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, catalog.Origin{ID: l.ID, Version: 2, From: "2026.1"}, *list[0].Doc.Own)
	first, err := p.Ladder(ctx, p.actor.Practice, l.ID, 1)
	require.NoError(t, err)
	assert.Equal(t, "Ours", first.Name)
	_, err = p.Ladder(ctx, uuid.NewString(), l.ID, 1)
	require.ErrorIs(t, err, ErrNotFound)
	for _, sql := range []string{"UPDATE ladders SET name = 'x'", "DELETE FROM ladders"} {
		_, err := p.writer.Exec(sql)
		assert.ErrorContains(t, err, "version of a ladder", sql)
	}

	used, err := p.UsedSteps(ctx, p.actor.Practice, l.ID)
	require.NoError(t, err)
	assert.Empty(t, used)
	choices := plan.Choices{Own: map[string]plan.Used{"load": {ID: l.ID, Version: 2}}}
	_, err = p.AddPlan(ctx, p.actor, p.kase, Plan{School: "doses", Reason: "r", Catalog: "t", Choices: choices, Doc: plan.Plan{Done: []string{"load.board"}, Items: []plan.Item{{Step: "load.gap"}}}})
	require.NoError(t, err)
	used, err = p.UsedSteps(ctx, p.actor.Practice, l.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{"load.board", "load.gap"}, used)
	chosen, err := p.Choices(ctx, p.actor.Practice, p.kase)
	require.NoError(t, err)
	assert.Equal(t, choices, chosen[0].Choices)
}

func TestRehearsalsAreKeptWithTheirHorse(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	people, err := p.People(ctx, p.actor.Practice)
	require.NoError(t, err)
	r := Rehearsal{ID: uuid.NewString(), HorseID: p.horse, Doc: clearance.Rehearsal{Person: people[0].ID, Step: "lead.back", On: "2026-06-01", Place: clearance.OnAPerson}}
	require.NoError(t, p.AddRehearsal(ctx, p.actor, r))
	list, err := p.Rehearsals(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, r.Doc, list[0].Doc)
	r.ID, r.HorseID = uuid.NewString(), other.horse
	require.ErrorIs(t, p.AddRehearsal(ctx, p.actor, r), ErrNotFound, "not of another practice's horse")
	r.ID, r.HorseID, r.Doc.On = uuid.NewString(), p.horse, "someday"
	require.Error(t, p.AddRehearsal(ctx, p.actor, r))
}
