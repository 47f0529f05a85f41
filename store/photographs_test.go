package store

import (
	"context"
	"os"
	"path/filepath"
	"testing"
	"time"

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
	require.ErrorIs(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture"), 1<<20), ErrNoConsent)
	assert.NoDirExists(t, folder(path), "what was refused leaves no file")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	require.NoError(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture"), 1<<20))
	require.NoError(t, os.WriteFile(filepath.Join(folder(path), "part-7"), []byte("half"), 0o600))

	copy, err := p.Backup(ctx, copied)
	require.NoError(t, err)
	assert.Equal(t, Pictures{All: 1}, copy)
	put, err := Restore(ctx, copied, back, now)
	require.NoError(t, err)
	assert.Equal(t, Restored{Pictures: Pictures{All: 1}}, put)
	restored := open(t, back)
	kept, picture, err := restored.Photograph(ctx, p.actor.Practice, photo.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"a picture", int64(9)}, []any{string(picture), kept.Bytes})
	assert.NoFileExists(t, filepath.Join(folder(back), "part-7"))
	assert.NoDirExists(t, folder(back+".part"))

	for _, there := range []string{copied, back, filepath.Join(folder(copied), kept.Hash), path + ".lock"} {
		file, err := os.Stat(there)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), file.Mode().Perm(), "nobody else reads it: %s", there)
	}
}

// A picture that is missing, or is not what was kept, is counted in the copy and
// where the copy is put back; all else is there.
func TestMissingPhotographsAreCounted(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	path, copied, back := filepath.Join(dir, "p.db"), filepath.Join(dir, "copy.db"), filepath.Join(dir, "back.db")
	p := filled(t, open(t, path), "one")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	for _, of := range []string{"one", "two", "three"} {
		require.NoError(t, p.AddPhotograph(ctx, p.actor, Photograph{
			ID: uuid.NewString(), HorseID: p.horse, About: "mark", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3,
		}, []byte(of), 1<<20))
	}
	require.NoError(t, os.Remove(filepath.Join(folder(path), hashOf([]byte("one")))))
	require.NoError(t, os.WriteFile(filepath.Join(folder(path), hashOf([]byte("two"))), []byte("another"), 0o600))
	copy, err := p.Backup(ctx, copied)
	require.NoError(t, err)
	assert.Equal(t, Pictures{All: 3, Missing: 2}, copy)
	put, err := Restore(ctx, copied, back, now)
	require.NoError(t, err)
	assert.Equal(t, Pictures{All: 3, Missing: 2}, put.Pictures)
	assert.FileExists(t, filepath.Join(folder(back), hashOf([]byte("three"))))

	// One that is found again is put back with the next copy.
	require.NoError(t, os.WriteFile(filepath.Join(folder(copied), hashOf([]byte("one"))), []byte("one"), 0o600))
	put, err = Restore(ctx, copied, back, now.Add(time.Second))
	require.NoError(t, err)
	assert.Equal(t, Pictures{All: 3, Missing: 1}, put.Pictures)
	assert.FileExists(t, filepath.Join(folder(put.Kept), hashOf([]byte("three"))), "what was there keeps its pictures")
}

// A practice's pictures have so much room; those out of sight give theirs back
// once they are erased.
func TestRoomForPhotographs(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	add := func(id, of string) error {
		return p.AddPhotograph(ctx, p.actor, Photograph{ID: id, HorseID: p.horse, About: "mark", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3}, []byte(of), 10)
	}
	first := uuid.NewString()
	require.NoError(t, add(first, "12345"))
	require.NoError(t, add(uuid.NewString(), "54321"), "to the last byte")
	require.ErrorIs(t, add(uuid.NewString(), "1"), ErrNoRoom)
	assert.NoFileExists(t, filepath.Join(folder(p.path), hashOf([]byte("1"))))

	require.NoError(t, p.RemovePhotograph(ctx, p.actor, first))
	file := filepath.Join(folder(p.path), hashOf([]byte("12345")))
	require.NoError(t, p.EraseRemoved(ctx, p.actor.At+ErasedAfter.Milliseconds()))
	assert.FileExists(t, file, "not yet")
	require.ErrorIs(t, add(uuid.NewString(), "1"), ErrNoRoom)
	require.NoError(t, p.EraseRemoved(ctx, p.actor.At+ErasedAfter.Milliseconds()+1))
	assert.NoFileExists(t, file)
	taken, err := p.RoomTaken(ctx, p.actor.Practice)
	require.NoError(t, err)
	assert.EqualValues(t, 5, taken)
	require.NoError(t, add(uuid.NewString(), "1"))
}

// What was kept before pictures were made plain is replaced by its plain picture.
func TestPicturesBecomePlain(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	id := uuid.NewString()
	require.NoError(t, p.AddPhotograph(ctx, p.actor, Photograph{ID: id, HorseID: p.horse, About: "mark", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3}, []byte("with its place"), 100))
	_, err := p.writer.Exec("UPDATE photographs SET plain = 0")
	require.NoError(t, err)
	list, err := p.NotPlain(ctx, 10)
	require.NoError(t, err)
	require.Len(t, list, 1)
	before, err := p.PictureOf(list[0])
	require.NoError(t, err)
	assert.Equal(t, "with its place", string(before))
	require.NoError(t, p.MakePlain(ctx, list[0], Photograph{MediaType: "image/jpeg", Width: 2, Height: 2}, []byte("plain")))
	kept, picture, err := p.Photograph(ctx, p.actor.Practice, id)
	require.NoError(t, err)
	assert.Equal(t, []any{"plain", true, "image/jpeg", int64(5)}, []any{string(picture), kept.Plain, kept.MediaType, kept.Bytes})
	assert.NoFileExists(t, filepath.Join(folder(p.path), list[0].Hash))
	list, err = p.NotPlain(ctx, 10)
	require.NoError(t, err)
	assert.Empty(t, list)
}

func TestPhotographsAreRemovedFromSight(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	require.NoError(t, p.Agree(ctx, p.actor, Consent{Person: p.ownerOf(t), Kind: Photographs, GivenOn: "2026-05-20"}))
	photo := Photograph{ID: uuid.NewString(), HorseID: p.horse, About: "tack", TakenOn: "2026-06-01", MediaType: "image/png", Width: 4, Height: 3}
	require.NoError(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture"), 1<<20))
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
	require.ErrorIs(t, p.AddPhotograph(ctx, p.actor, photo, []byte("a picture"), 1<<20), ErrNoConsent)
}
