package store

import (
	"context"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// keeps sends an entry as a device does: what came back without an error is
// acknowledged.
func (p practiceIn) keeps(seq int64) error {
	_, refused, err := p.Append(context.Background(), p.actor, p.session, 0, []track.Entry{rep(seq, horse.Try)})
	if err == nil {
		err = refused[0]
	}
	return err
}

func (p practiceIn) entries(t *testing.T) int {
	t.Helper()
	kept, _, err := p.Track(context.Background(), p.actor.Practice, p.session)
	require.NoError(t, err)
	return len(kept)
}

// A database that has no room says so, keeps what it acknowledged and nothing
// half, and goes on by itself once there is room.
func TestAFullDisk(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	_, err := p.writer.Exec("PRAGMA max_page_count = 1") // no more than it has
	require.NoError(t, err)
	acknowledged := 0
	for seq := int64(1); ; seq++ {
		if err = p.keeps(seq); err != nil {
			break
		}
		acknowledged++
	}
	require.ErrorIs(t, err, ErrFull)
	assert.Equal(t, acknowledged, p.entries(t))
	p.Note(err)
	_, err = p.writer.Exec("PRAGMA max_page_count = 100000")
	require.NoError(t, err)
	require.NoError(t, p.keeps(99_999), "the writer is free")
	assert.Equal(t, acknowledged+1, p.entries(t))
	assert.NoError(t, p.Health(ctx, now), "it has looked again")
}

// What was found wrong is told until a look, at most every few seconds, finds it
// gone.
func TestHealthLooksAgain(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.Health(ctx, now))
	p.Note(ErrNotFound)
	require.NoError(t, p.Health(ctx, now), "that is no ailment")
	p.Note(ErrDamaged)
	require.NoError(t, p.Health(ctx, now), "it is whole")
	p.Note(ErrDamaged)
	require.ErrorIs(t, p.Health(ctx, now.Add(lookAgain-1)), ErrDamaged, "too soon to look again")
	require.NoError(t, p.Health(ctx, now.Add(lookAgain)))
}

// A folder that went away while the server runs takes its files with it: nothing
// that is written to them is acknowledged. Once it is back, work goes on.
func TestAMissingFolder(t *testing.T) {
	ctx, dir := context.Background(), filepath.Join(t.TempDir(), "data")
	p := filled(t, open(t, filepath.Join(dir, "p.db")), "one")
	require.NoError(t, p.keeps(1))
	require.NoError(t, os.Rename(dir, dir+".away"))
	require.ErrorIs(t, p.keeps(2), ErrGone)
	require.ErrorIs(t, p.Health(ctx, now), ErrGone)

	require.NoError(t, os.MkdirAll(dir, 0o700))
	require.NoError(t, os.WriteFile(p.path, []byte("another"), 0o600))
	require.ErrorIs(t, p.keeps(2), ErrGone, "another file in its place is not it")
	require.NoError(t, os.RemoveAll(dir))

	require.NoError(t, os.Rename(dir+".away", dir))
	require.NoError(t, p.keeps(2))
	require.NoError(t, p.Health(ctx, now))
	assert.Equal(t, 2, p.entries(t))
}

// A page that went bad is told by a look at the whole file, and a database that
// is damaged is set aside as it is when a copy is put in its place.
func TestACorruptPage(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	path, copied := filepath.Join(dir, "p.db"), filepath.Join(dir, "copy.db")
	p := filled(t, open(t, path), "one")
	for seq := range int64(200) {
		require.NoError(t, p.keeps(seq))
	}
	_, err := p.Backup(ctx, copied)
	require.NoError(t, err)
	require.NoError(t, p.Close())

	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	pages := len(whole) / 4096
	for page := pages - 12; page < pages; page++ { // those that the track grew into
		for i := range 400 {
			whole[page*4096+i] = 0xA5
		}
	}
	require.NoError(t, os.WriteFile(path, whole, 0o600))
	s := open(t, path)
	require.ErrorIs(t, s.Whole(ctx), ErrDamaged)
	_, _, err = s.Track(ctx, p.actor.Practice, p.session)
	require.ErrorIs(t, err, ErrDamaged)
	s.Note(err)
	require.ErrorIs(t, s.Health(ctx, now), ErrDamaged)
	_, err = s.Backup(ctx, filepath.Join(dir, "second.db"))
	require.Error(t, err, "it is no copy")
	left, err := filepath.Glob(filepath.Join(dir, "second.db*"))
	require.NoError(t, err)
	assert.Empty(t, left, "and leaves nothing behind")
	require.NoError(t, s.Close())

	put, err := Restore(ctx, copied, path, now)
	require.NoError(t, err)
	aside, err := os.ReadFile(put.Kept)
	require.NoError(t, err)
	assert.Equal(t, whole, aside, "as it was")
	p.Store = open(t, path)
	assert.Equal(t, 200, p.entries(t))
	require.NoError(t, p.keeps(999))
}

// One server at a time has a database, and says who it is; short commands share
// it, and nobody puts another in its place.
func TestADatabaseIsHeld(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	path, copied := filepath.Join(dir, "p.db"), filepath.Join(dir, "copy.db")
	serving, err := Serve(path, "the first server", now)
	require.NoError(t, err)
	p := filled(t, open(t, path), "one")
	_, err = Serve(path, "the second", now)
	require.ErrorContains(t, err, "the first server (process ")
	require.ErrorContains(t, err, "since 2026-06-01 09:00 UTC) has the database")
	require.ErrorContains(t, err, "stop it first")

	_, err = p.Backup(ctx, copied)
	require.NoError(t, err, "a copy is made while it runs")
	_, err = Restore(ctx, copied, path, now)
	require.ErrorContains(t, err, "the first server")
	require.NoError(t, serving.End())
	_, err = Restore(ctx, copied, path, now)
	require.ErrorContains(t, err, "another command has the database", "it is still open")
	require.NoError(t, p.Close())
	_, err = Restore(ctx, copied, path, now)
	require.NoError(t, err)
	serving, err = Serve(path, "the second", now.Add(time.Hour))
	require.NoError(t, err)
	require.NoError(t, serving.End())
}

// What happens at the door within a minute is counted, and is told to the practice
// that it concerns.
func TestTheDoor(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	note := func(d AtDoor, at time.Duration) {
		t.Helper()
		d.At = p.actor.At + at.Milliseconds()
		require.NoError(t, s.KeepAtDoor(ctx, []AtDoor{d}))
	}
	wrong := AtDoor{Practice: p.actor.Practice, User: p.actor.User, What: WrongPassword, Said: "one@example.org", Place: "192.0.2.7"}
	note(wrong, 0)
	note(wrong, time.Minute)
	note(wrong, time.Minute+time.Millisecond)
	note(AtDoor{What: WrongPassword, Place: "192.0.2.8"}, 2*time.Minute)
	note(AtDoor{Practice: other.actor.Practice, User: other.actor.User, What: SignedInAtDoor, Said: "other@example.org"}, 0)

	list, err := s.Door(ctx, p.actor.Practice, 10)
	require.NoError(t, err)
	require.Len(t, list, 3)
	assert.Equal(t, []any{"", "192.0.2.8", ""}, []any{list[0].Said, list[0].Place, list[0].Practice}, "no account that is known here")
	assert.Equal(t, []any{int64(1), int64(2), "Wren Harrow", "one@example.org"}, []any{list[1].Times, list[2].Times, list[2].Name, list[2].Said})
	note(wrong, doorLasts+time.Hour)
	list, err = s.Door(ctx, p.actor.Practice, 10)
	require.NoError(t, err)
	assert.Len(t, list, 1, "what is older than three months is gone")
}

func TestLimitsAndFamiliarDevicesStay(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "p.db")
	p := filled(t, open(t, path), "one")
	key, mark := make([]byte, 32), append(make([]byte, 31), 1)
	require.NoError(t, p.KeepLimits(ctx, 0, Limit{key, 1000}))
	require.NoError(t, p.KeepLimits(ctx, 0, Limit{key, 2000}))
	require.NoError(t, p.AddSignIn(ctx, p.actor, key, "phone", "", p.actor.At+1, mark))
	require.NoError(t, p.Close())
	p.Store = open(t, path)
	list, err := p.Limits(ctx, 1999)
	require.NoError(t, err)
	assert.Equal(t, []Limit{{key, 2000}}, list)
	list, err = p.Limits(ctx, 2000)
	require.NoError(t, err)
	assert.Empty(t, list)

	known := func(at int64) bool {
		is, err := p.Familiar(ctx, p.actor.Practice, p.actor.User, at, key, mark)
		require.NoError(t, err)
		return is != nil
	}
	assert.True(t, known(p.actor.At+familiarFor.Milliseconds()-1))
	assert.False(t, known(p.actor.At+familiarFor.Milliseconds()))
	ran, err := p.RanOut(ctx, key, p.actor.At+1)
	require.NoError(t, err)
	assert.True(t, ran)
	require.NoError(t, p.SignOutEverywhere(ctx, p.actor))
	assert.False(t, known(p.actor.At), "a lost phone is not familiar any more")
	ran, err = p.RanOut(ctx, key, p.actor.At+1)
	require.NoError(t, err)
	assert.False(t, ran, "it was ended")
}

// What the schema does not take is refused for itself; the good entry beside it is
// kept.
func TestAnEntryThatTheSchemaRefuses(t *testing.T) {
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	bad, good := rep(1, horse.Try), rep(2, horse.Accepted)
	bad.ID = "urn:uuid:" + bad.ID
	_, refused, err := p.Append(context.Background(), p.actor, p.session, 0, []track.Entry{bad, good})
	require.NoError(t, err)
	require.ErrorIs(t, refused[0], ErrRefused)
	require.NoError(t, refused[1])
	assert.Equal(t, 1, p.entries(t))
}
