package store

import (
	"context"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Who agreed, stopped and agreed again has two consents; of letters there is one for a
// reader and an evening, whoever writes it.
func TestReadersAndTheirLetters(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	practice := p.actor.Practice
	reads := func() Reader {
		r := Reader{ID: uuid.NewString(), User: p.actor.User, Stop: uuid.NewString()}
		require.NoError(t, p.AddReader(ctx, p.actor, r))
		return r
	}
	first := reads()
	require.ErrorIs(t, p.AddReader(ctx, p.actor, Reader{ID: uuid.NewString(), User: p.actor.User, Stop: uuid.NewString()}), ErrTaken)
	require.ErrorIs(t, p.StopReader(ctx, other.actor, first.ID), ErrNotFound, "of another practice")
	require.NoError(t, p.StopReader(ctx, p.actor, first.ID))
	require.ErrorIs(t, p.StopReader(ctx, p.actor, first.ID), ErrNotFound)
	found, err := p.StoppedBy(ctx, first.Stop)
	require.NoError(t, err)
	assert.Equal(t, Stopping{first.ID, practice, "one", true}, found)
	second := reads()
	list, err := p.Readers(ctx, practice)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, second.ID, list[0].ID)

	letter := Letter{ID: uuid.NewString(), Reader: second.ID, On: "2026-06-01", Name: "Wren", Address: "w@example.org", Subject: "s", Body: "b", MadeAt: 1000, NextAt: 1000}
	require.NoError(t, p.AddLetters(ctx, practice, []Letter{letter}))
	again := letter
	again.ID, again.Body = uuid.NewString(), "another"
	require.NoError(t, p.AddLetters(ctx, practice, []Letter{again}))
	letters, err := p.Letters(ctx, practice)
	require.NoError(t, err)
	assert.Equal(t, []Letter{letter}, letters)
	told, err := p.ReadersTold(ctx, practice, "2026-06-01")
	require.NoError(t, err)
	assert.Equal(t, []string{second.ID}, told)

	for now, n := range map[int64]int{999: 0, 1000: 1} {
		waiting, err := p.WaitingLetters(ctx, now)
		require.NoError(t, err)
		assert.Len(t, waiting, n, "at %d", now)
	}
	require.NoError(t, p.LetterTried(ctx, practice, letter.ID, 0, 5000, "the line is down"))
	require.NoError(t, p.LetterTried(ctx, practice, letter.ID, 5001, 0, ""))
	letters, err = p.Letters(ctx, practice)
	require.NoError(t, err)
	assert.Equal(t, []int64{2, 5001, 0}, []int64{letters[0].Tries, letters[0].SentAt, letters[0].NextAt})
	require.NoError(t, p.ForgetLetters(ctx, 1000))
	require.NoError(t, p.ForgetLetters(ctx, 1001))
	letters, err = p.Letters(ctx, practice)
	require.NoError(t, err)
	assert.Empty(t, letters)
}
