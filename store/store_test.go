package store

import (
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/report"
	"ivorybridge/core/track"
)

var now = time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)

// practiceIn is one practice with a lead trainer and a horse on its first case.
type practiceIn struct {
	*Store
	actor   Actor
	horse   string
	kase    string
	session string
}

func open(t testing.TB, path string) *Store {
	t.Helper()
	s, err := Open(context.Background(), path, now)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, s.Close()) })
	return s
}

func filled(t testing.TB, s *Store, name string) practiceIn {
	t.Helper()
	ctx := context.Background()
	p := practiceIn{Store: s, actor: Actor{Practice: uuid.NewString(), User: uuid.NewString(), At: now.UnixMilli()}, horse: uuid.NewString(), kase: uuid.NewString(), session: uuid.NewString()}
	require.NoError(t, s.AddPractice(ctx, Practice{ID: p.actor.Practice, Name: name, Zone: "Europe/London", Words: phrase.Shipped}, p.actor.At))
	require.NoError(t, s.AddUser(ctx, p.actor, User{ID: p.actor.User, Name: "Wren Harrow", Email: name + "@example.org", Role: Lead, Hash: "x"}))
	require.NoError(t, s.TakeOn(ctx, p.actor, Intake{
		Horse:    Horse{ID: p.horse, Name: "Moth", Record: assess.Record{Born: "2017-01-01"}},
		NewOwner: &Person{ID: uuid.NewString(), Kind: "owner", Name: "Ines Calloway"},
		NewYard:  &Yard{ID: uuid.NewString(), Name: "Tarn Side"},
		Case:     Case{ID: p.kase, Problem: "loading", Ladder: "load", Goal: "Loads with Ines alone", NeededBy: "2026-09-01", OpenedOn: "2026-06-01"},
	}))
	require.NoError(t, s.StartSession(ctx, p.actor, p.aSession(p.session)))
	return p
}

func (p practiceIn) aSession(id string) Session {
	return Session{ID: id, CaseID: p.kase, HorseID: p.horse, StartedAt: p.actor.At, Zone: "Europe/London", Date: "2026-06-01", School: horse.BuildAndRelease, Begins: horse.Ask{Step: "lead.forward"}, Catalog: "t", Core: "t"}
}

func rep(seq int64, answer horse.Answer) track.Entry {
	return track.Entry{ID: uuid.NewString(), Kind: track.KindRep, At: now.UnixMilli() + seq*1000, Device: "tablet", Seq: seq, Rep: &track.Rep{Ask: horse.Ask{Step: "lead.forward"}, Answer: answer}}
}

func TestWhatIsKeptIsThereAfterAReopen(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "practice.db")
	s, err := Open(ctx, path, now)
	require.NoError(t, err)
	p := filled(t, s, "one")
	require.NoError(t, s.Close())

	again := open(t, path)
	h, err := again.Horse(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Equal(t, "Moth", h.Name)
	assert.Equal(t, "Tarn Side", h.Yard.Name)
	assert.Equal(t, "Ines Calloway", h.Owners[0].Name)
	assert.Equal(t, "2017-01-01", h.Record.Born)
	n, err := again.Session(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.Equal(t, horse.Ask{Step: "lead.forward"}, n.Begins)
}

func TestNothingOfAnotherPractice(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	mine, other := filled(t, s, "mine"), filled(t, s, "other")

	_, err := s.Horse(ctx, mine.actor.Practice, other.horse)
	require.ErrorIs(t, err, ErrNotFound)
	_, _, err = s.Append(ctx, mine.actor, other.session, 0, []track.Entry{rep(1, horse.Try)})
	require.ErrorIs(t, err, ErrNotFound)
	require.ErrorIs(t, s.UpdateHorse(ctx, mine.actor, Horse{ID: other.horse, Name: "x", Version: 1}), ErrNotFound)
	stranger := mine.aSession(uuid.NewString())
	stranger.CaseID = other.kase
	require.ErrorIs(t, s.StartSession(ctx, mine.actor, stranger), ErrNotFound)
	horses, err := s.Horses(ctx, mine.actor.Practice)
	require.NoError(t, err)
	assert.Len(t, horses, 1)
}

func TestTakingOnAHorseKeepsAllOrNothing(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	err := p.TakeOn(ctx, p.actor, Intake{
		Horse: Horse{ID: uuid.NewString(), Name: "Half"}, NewOwner: &Person{ID: uuid.NewString(), Kind: "owner", Name: "Nobody"},
		Case: Case{ID: uuid.NewString(), Problem: "loading", Ladder: "load", Goal: "", OpenedOn: "2026-06-01"},
	})
	require.Error(t, err)
	people, err := p.People(ctx, p.actor.Practice)
	require.NoError(t, err)
	assert.Len(t, people, 1, "the owner of the half horse is not kept either")
}

func TestEntriesAreKeptOnce(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	a, b := rep(1, horse.Try), rep(2, horse.Accepted)
	_, refused, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{a, b})
	require.NoError(t, err)
	assert.Equal(t, []error{nil, nil}, refused)

	changed := a
	changed.Rep = &track.Rep{Ask: a.Rep.Ask, Answer: horse.Refused}
	c := rep(3, horse.Offered)
	_, refused, err = p.Append(ctx, p.actor, p.session, 0, []track.Entry{b, changed, c})
	require.NoError(t, err)
	assert.NoError(t, refused[0], "sent twice is harmless")
	assert.ErrorIs(t, refused[1], ErrOther)
	assert.NoError(t, refused[2], "the good one beside it is kept")

	entries, _, err := p.Track(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	require.Len(t, entries, 3)
	assert.Equal(t, horse.Try, entries[0].Rep.Answer)
}

func TestEntriesCantBeChangedOrTakenAway(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	_, _, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(1, horse.Try)})
	require.NoError(t, err)
	_, err = p.writer.Exec("UPDATE entries SET at = 0")
	require.ErrorContains(t, err, "never changed")
	_, err = p.writer.Exec("DELETE FROM entries")
	require.ErrorContains(t, err, "never taken away")
}

func TestAWrongClockLosesNothing(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	day := int64(24 * 60 * 60_000)
	a, b := rep(1, horse.Try), rep(2, horse.Accepted)
	a.At, b.At = a.At-day, b.At-day
	_, _, err := p.Append(ctx, p.actor, p.session, p.actor.At-day, []track.Entry{a, b})
	require.NoError(t, err)
	entries, _, err := p.Track(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.True(t, entries[0].ClockOff)
	assert.Equal(t, a.ID, entries[0].ID, "in the device's order")
	assert.Equal(t, a.At+day, entries[0].At)
}

func TestEntriesAfterTheEndAreMarked(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	end := track.Entry{ID: uuid.NewString(), Kind: track.KindEnd, At: now.UnixMilli() + 5000, Device: "tablet", Seq: 5}
	late := rep(9, horse.Try)
	_, _, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(1, horse.Try), end, late})
	require.NoError(t, err)
	entries, _, err := p.Track(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.Equal(t, []bool{false, false, true}, []bool{entries[0].AfterEnd, entries[1].AfterEnd, entries[2].AfterEnd})
}

func TestStaleWritesShowWhatIsKept(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.UpdateHorse(ctx, p.actor, Horse{ID: p.horse, Name: "Copper", Version: 1}))
	err := p.UpdateHorse(ctx, p.actor, Horse{ID: p.horse, Name: "Moth again", Version: 1})
	stale, ok := asStale(err)
	require.True(t, ok, "%v", err)
	assert.Equal(t, "Copper", stale.Current.(Horse).Name)

	edits := func(text string, version int64) error {
		return p.SaveEdits(ctx, p.actor, p.session, Edits{Version: version, Edits: map[string]report.Edit{"one.line": {Text: text}}})
	}
	require.NoError(t, edits("first", 0))
	_, ok = asStale(edits("second", 0))
	require.True(t, ok)
	require.NoError(t, edits("second", 1))
	kept, err := p.Edits(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.Equal(t, "second", kept.Edits["one.line"].Text)
	assert.EqualValues(t, 2, kept.Version)
}

func TestTheLastLeadStays(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.ErrorIs(t, p.SetActive(ctx, p.actor, p.actor.User, false), ErrLastLead)
	second := uuid.NewString()
	require.NoError(t, p.AddUser(ctx, p.actor, User{ID: second, Name: "Ash", Email: "ash@example.org", Role: Lead, Hash: "x"}))
	require.NoError(t, p.SetActive(ctx, p.actor, p.actor.User, false))
	require.ErrorIs(t, p.SetActive(ctx, p.actor, second, false), ErrLastLead)
	require.ErrorIs(t, p.AddUser(ctx, p.actor, User{ID: uuid.NewString(), Name: "Twin", Email: "ASH@example.org", Role: Assistant, Hash: "x"}), ErrTaken)
}

func TestSignInsRunOutAndEnd(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	token := make([]byte, 32)
	require.NoError(t, p.AddSignIn(ctx, p.actor, token, "phone", "", p.actor.At+1000))
	u, practice, err := p.SignedIn(ctx, token, p.actor.At)
	require.NoError(t, err)
	assert.Equal(t, Lead, u.Role)
	assert.Equal(t, phrase.Shipped, practice.Words)
	_, _, err = p.SignedIn(ctx, token, p.actor.At+1000)
	require.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, p.SetPassword(ctx, p.actor, p.actor.User, "y", false))
	_, _, err = p.SignedIn(ctx, token, p.actor.At)
	require.ErrorIs(t, err, ErrNotFound, "a new password signs out everywhere")
}

func TestBackupWhileWritingAndRestore(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	path, copyTo := filepath.Join(dir, "p.db"), filepath.Join(dir, "copy.db")
	p := filled(t, open(t, path), "one")
	var writing sync.WaitGroup
	writing.Go(func() {
		for i := range int64(50) {
			_, _, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(i, horse.Try)})
			assert.NoError(t, err)
		}
	})
	_, err := p.Backup(ctx, copyTo)
	require.NoError(t, err)
	writing.Wait()
	_, err = p.Backup(ctx, copyTo)
	require.ErrorContains(t, err, "name another")

	to := filepath.Join(dir, "restored.db")
	put, err := Restore(ctx, copyTo, to, now)
	require.NoError(t, err)
	assert.Empty(t, put.Kept)
	restored := open(t, to)
	h, err := restored.Horse(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Equal(t, "Moth", h.Name)

	_, err = Restore(ctx, copyTo, path, now)
	var held *HeldError
	require.ErrorAs(t, err, &held, "it is in use")
	require.NoError(t, p.Close())
	put, err = Restore(ctx, copyTo, path, now)
	require.NoError(t, err)
	kept := open(t, put.Kept)
	h, err = kept.Horse(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Equal(t, "Moth", h.Name, "what was there is kept beside it, whole")
	require.NoError(t, kept.Close())

	junk := filepath.Join(dir, "junk.db")
	require.NoError(t, os.WriteFile(junk, []byte("not a database at all, but long enough to be read as one"), 0o600))
	_, err = Restore(ctx, junk, to, now)
	require.Error(t, err)
}

func TestACopyIsMadeBeforeAMigration(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "p.db")
	db, err := connect(path, "_txlock=immediate")
	require.NoError(t, err)
	defer func() { assert.NoError(t, db.Close()) }()
	step := func(n int, text string) fstest.MapFS {
		files := fstest.MapFS{"00001_a.sql": {Data: []byte("-- +goose Up\nCREATE TABLE a (x TEXT) STRICT;\n")}}
		if n > 1 {
			files["00002_b.sql"] = &fstest.MapFile{Data: []byte("-- +goose Up\n" + text)}
		}
		return files
	}
	require.NoError(t, migrateFrom(ctx, db, path, now, step(1, "")))
	_, err = db.Exec("INSERT INTO a VALUES ('kept')")
	require.NoError(t, err)
	require.NoError(t, migrateFrom(ctx, db, path, now, step(2, "DROP TABLE a;\nCREATE TABLE b (y TEXT) STRICT;\n")))

	copies, err := filepath.Glob(path + ".before-2-*")
	require.NoError(t, err)
	require.Len(t, copies, 1)
	old, err := sql.Open("sqlite", copies[0])
	require.NoError(t, err)
	defer func() { assert.NoError(t, old.Close()) }()
	var x string
	require.NoError(t, old.QueryRow("SELECT x FROM a").Scan(&x))
	assert.Equal(t, "kept", x)
	require.NoError(t, migrateFrom(ctx, db, path, now, step(2, "")), "up to date: no copy")
}

func TestPragmasHold(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	for pragma, want := range map[string]string{"journal_mode": "wal", "synchronous": "2", "foreign_keys": "1", "integrity_check": "ok"} {
		var got string
		require.NoError(t, s.writer.QueryRow(fmt.Sprintf("PRAGMA %s", pragma)).Scan(&got))
		assert.Equal(t, want, got, pragma)
	}
	_, err := s.reader.Exec("INSERT INTO practices VALUES ('x','x','x','trailer','near and off',1)")
	require.Error(t, err, "readers only read")
}
