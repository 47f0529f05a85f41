package store

import (
	"context"
	"database/sql"
	"io/fs"
	"path/filepath"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Every kind of entry is kept and read back as it was sent.
func TestEveryKindOfEntryIsKept(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	ask := horse.Ask{Step: "lead.back"}
	sent := []track.Entry{
		{Kind: track.KindDose, Dose: &track.Dose{Rep: track.Rep{Ask: ask, Target: 9}, Given: 14, Steps: 3}},
		{Kind: track.KindOffer, Offer: &track.Offer{Ask: ask, Answer: track.Left}},
		{Kind: track.KindSpell, Spell: &track.Spell{Ask: ask, Place: track.Away, Seconds: 40, Level: horse.LevelOf(4)}},
		{Kind: track.KindBurst, Burst: &track.Burst{Ask: ask, Asks: 10, OnTouch: 8, Last: horse.Accepted}},
		{Kind: track.KindInterruption, Interruption: &track.Interruption{Behaviour: horse.TurnedAway}},
	}
	for i := range sent {
		sent[i].ID, sent[i].Device, sent[i].Seq, sent[i].At = uuid.NewString(), "tablet", int64(i+1), p.actor.At+int64(i)
	}
	_, refused, err := p.Append(ctx, p.actor, p.session, 0, sent)
	require.NoError(t, err)
	for _, r := range refused {
		require.NoError(t, r)
	}
	_, days, _, err := p.Days(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	kept := days[0].Track[len(days[0].Track)-len(sent):]
	assert.Equal(t, sent, kept)
}

// A track written before there were other kinds is there after, and is still
// never changed.
func TestOldTracksAreCarriedOver(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "p.db")
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	files := fstest.MapFS{}
	for _, name := range []string{"00001_first.sql", "00002_assessments.sql", "00003_plans.sql"} {
		text, err := fs.ReadFile(migrations, "migrations/"+name)
		require.NoError(t, err)
		files[name] = &fstest.MapFile{Data: text}
	}
	require.NoError(t, migrateFrom(ctx, db, path, time.Now(), files))
	practice, user, h, k, session, entry := uuid.NewString(), uuid.NewString(), uuid.NewString(), uuid.NewString(), uuid.NewString(), uuid.NewString()
	for _, q := range []struct {
		sql  string
		args []any
	}{
		{"INSERT INTO practices (id, name, zone, vehicle, sides, created_at) VALUES (?, 'Harrow', 'Europe/London', 'trailer', 'near and off', 0)", []any{practice}},
		{"INSERT INTO users (id, practice_id, name, email, role, password_hash, created_at) VALUES (?, ?, 'Wren', 'w@example.org', 'lead trainer', 'x', 0)", []any{user, practice}},
		{"INSERT INTO horses (id, practice_id, name, record, created_at) VALUES (?, ?, 'Moth', '{}', 0)", []any{h, practice}},
		{"INSERT INTO cases (id, practice_id, horse_id, problem, ladder, goal, opened_on, created_at) VALUES (?, ?, ?, 'loading', 'load', 'g', '2026-06-01', 0)", []any{k, practice, h}},
		{"INSERT INTO sessions VALUES (?, ?, ?, ?, ?, 0, 'Europe/London', '2026-06-01', 'build and release', '{\"step\":\"lead.back\"}', ?, '{}', 't', '{}', 't')", []any{session, practice, k, h, user, user}},
		{"INSERT INTO entries VALUES (?, ?, ?, 'tablet', 1, 5, 5, 5, 0, 0, 'rep', ?, ?)", []any{entry, practice, session, user, `{"id":"` + entry + `","kind":"rep","at":5,"rep":{"step":"lead.back","answer":"accepted"}}`}},
	} {
		_, err := db.ExecContext(ctx, q.sql, q.args...)
		require.NoError(t, err, q.sql)
	}
	require.NoError(t, db.Close())
	s, err := Open(ctx, path, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, s.Close()) }()
	_, days, _, err := s.Days(ctx, practice, h)
	require.NoError(t, err)
	require.Len(t, days[0].Track, 1)
	assert.Equal(t, horse.Accepted, days[0].Track[0].Rep.Answer)
	for _, text := range []string{"UPDATE entries SET kind = 'mark'", "DELETE FROM entries"} {
		_, err := s.writer.Exec(text)
		assert.ErrorContains(t, err, "an entry is never")
	}
}

// A history that was folded from what has changed since is not kept.
func TestAFoldOfWhatHasChangedIsNotKept(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	past, err := p.Past(ctx, p.actor.Practice, p.horse, "e", nil)
	require.NoError(t, err)
	require.Len(t, past.After, 1)
	folds := []Fold{{Session: past.After[0].Session, History: history.History{Started: 1}, Unread: []Unread{{ID: "x", On: "2026-06-01", Kind: "rep"}}}}
	_, _, err = p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(1, horse.Try)})
	require.NoError(t, err)
	require.NoError(t, p.KeepFolds(ctx, p.actor.Practice, p.horse, "e", past.Stamp, folds))
	kept, err := p.Folds(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Empty(t, kept)

	past, err = p.Past(ctx, p.actor.Practice, p.horse, "e", nil)
	require.NoError(t, err)
	require.NoError(t, p.KeepFolds(ctx, p.actor.Practice, p.horse, "e", past.Stamp, folds))
	now, err := p.Past(ctx, p.actor.Practice, p.horse, "e", nil)
	require.NoError(t, err)
	assert.Empty(t, now.After, "it is read no more")
	assert.Equal(t, folds[0].History, now.History)
	assert.Equal(t, folds[0].Unread, now.Unread)
	other, err := p.Past(ctx, p.actor.Practice, p.horse, "another edition", nil)
	require.NoError(t, err)
	assert.Len(t, other.After, 1, "made by other rules it is made again")
	before, err := p.Past(ctx, p.actor.Practice, p.horse, "e", &folds[0].Session)
	require.NoError(t, err)
	assert.Zero(t, before.History.Sessions(), "before the first there is nothing")
	_, _, err = p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(2, horse.Try)})
	require.NoError(t, err)
	late, err := p.Past(ctx, p.actor.Practice, p.horse, "e", nil)
	require.NoError(t, err)
	assert.Len(t, late.After, 1, "a late entry folds again from its session on")
}
