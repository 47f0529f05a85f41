package store

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ownerOf is an owner of the practice's horse.
func (p practiceIn) ownerOf(t *testing.T) string {
	t.Helper()
	h, err := p.Horse(context.Background(), p.actor.Practice, p.horse)
	require.NoError(t, err)
	return h.Owners[0].ID
}

func TestPhotographsAreInTheBackup(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	path, copied, back := filepath.Join(dir, "p.db"), filepath.Join(dir, "copy.db"), filepath.Join(dir, "back.db")
	p := filled(t, open(t, path), "one")
	photo := Photograph{ID: uuid.NewString(), HorseID: p.horse, About: "mark", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3}
	require.ErrorIs(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture")), ErrNoConsent)
	assert.NoDirExists(t, folder(path), "what was refused leaves no file")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	require.NoError(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture")))
	require.NoError(t, os.WriteFile(filepath.Join(folder(path), "part-7"), []byte("half"), 0o600))

	require.NoError(t, p.Backup(ctx, copied))
	_, err := Restore(ctx, copied, back, now)
	require.NoError(t, err)
	restored := open(t, back)
	kept, picture, err := restored.Photograph(ctx, p.actor.Practice, photo.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"a picture", int64(9)}, []any{string(picture), kept.Bytes})
	assert.NoFileExists(t, filepath.Join(folder(back), "part-7"))
	assert.NoDirExists(t, folder(back+".part"))

	require.NoError(t, os.WriteFile(filepath.Join(folder(copied), kept.Hash), []byte("another"), 0o600))
	_, err = Restore(ctx, copied, filepath.Join(dir, "third.db"), now)
	require.ErrorContains(t, err, "is not what was kept")
}

func TestPhotographsAreRemovedFromSight(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	photo := Photograph{ID: uuid.NewString(), HorseID: p.horse, About: "tack", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3}
	require.NoError(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture")))
	list, err := p.Photographs(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "Wren Harrow", list[0].AddedBy)
	_, _, err = s.Photograph(ctx, other.actor.Practice, photo.ID)
	require.ErrorIs(t, err, ErrNotFound, "another practice's picture")
	require.ErrorIs(t, s.RemovePhotograph(ctx, other.actor, photo.ID), ErrNotFound)
	require.NoError(t, s.RemovePhotograph(ctx, p.actor, photo.ID))
	require.ErrorIs(t, s.RemovePhotograph(ctx, p.actor, photo.ID), ErrNotFound)

	require.NoError(t, p.Withdraw(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, WithdrawnOn: "2026-06-02"}))
	require.ErrorIs(t, p.Withdraw(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Sharing, WithdrawnOn: "2026-06-02"}), ErrNotFound)
	consents, err := p.Consents(ctx, p.actor.Practice)
	require.NoError(t, err)
	assert.Equal(t, []Consent{{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20", WithdrawnOn: "2026-06-02"}}, consents)
	require.ErrorIs(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture")), ErrNoConsent)
}
