package store

import (
	"context"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/core/trailer"
)

func TestTrailersAreKeptByPractice(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	mine, other := filled(t, s, "one"), filled(t, s, "two")
	one := Trailer{ID: uuid.NewString(), Name: "The green one", Record: trailer.Record{WidthMM: 800}}
	require.NoError(t, s.AddTrailer(ctx, mine.actor, one))
	one.Name, one.Version = "The blue one", 1
	require.NoError(t, s.UpdateTrailer(ctx, mine.actor, one))
	require.Error(t, s.UpdateTrailer(ctx, mine.actor, one), "of an older version")
	require.ErrorIs(t, s.UpdateTrailer(ctx, other.actor, one), ErrNotFound)
	list, err := s.Trailers(ctx, mine.actor.Practice)
	require.NoError(t, err)
	one.Version = 2
	assert.Equal(t, []Trailer{one}, list)
	list, err = s.Trailers(ctx, other.actor.Practice)
	require.NoError(t, err)
	assert.Empty(t, list)
	one.ID, one.YardID = uuid.NewString(), uuid.NewString()
	require.ErrorIs(t, s.AddTrailer(ctx, mine.actor, one), ErrNotFound, "a yard that is not there")
}

// An organisation's horse is held by those who handle it; a private owner holds it too.
func TestWhoHoldsTheRope(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	id, hand := uuid.NewString(), Person{ID: uuid.NewString(), Kind: "other", Name: "Ada"}
	further := map[horse.Problem]plan.Wanted{horse.Loading: {Until: "load.stand"}, horse.Girth: {}}
	require.NoError(t, p.TakeOn(ctx, p.actor, Intake{
		Horse: Horse{ID: id, Name: "Comet"}, NewOwner: &Person{ID: uuid.NewString(), Kind: "rescue", Name: "Far Field"}, Handlers: []Person{hand},
		Case: Case{ID: uuid.NewString(), Problem: "loading", Ladder: "load", Goal: "Loads", OpenedOn: "2026-06-01", Wanted: further, Thing: "spray"},
	}))
	names := func() (list []string) {
		h, err := p.Horse(ctx, p.actor.Practice, id)
		require.NoError(t, err)
		for _, o := range h.Holders() {
			list = append(list, o.Name)
		}
		return list
	}
	assert.Equal(t, []string{"Ada"}, names())
	require.NoError(t, p.AddHandler(ctx, p.actor, id, Person{ID: uuid.NewString(), Kind: "other", Name: "Sol"}))
	assert.Equal(t, []string{"Ada", "Sol"}, names())
	require.NoError(t, p.RemoveHandler(ctx, p.actor, id, hand.ID))
	require.ErrorIs(t, p.RemoveHandler(ctx, p.actor, id, hand.ID), ErrNotFound)
	assert.Equal(t, []string{"Sol"}, names())
	k, err := p.NewestCase(ctx, p.actor.Practice, id)
	require.NoError(t, err)
	assert.Equal(t, further, k.Wanted)
	assert.Equal(t, []horse.Problem{horse.Girth}, k.Further())
	assert.Equal(t, "spray", k.Thing)
}
