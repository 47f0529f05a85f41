package store

import (
	"context"
	"path/filepath"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// A reader sees each session with its own entries, while another device starts
// sessions and logs in them.
func TestDaysAreOfOneMoment(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	done := make(chan struct{})
	var writing sync.WaitGroup
	writing.Go(func() {
		defer close(done)
		for i := range 40 {
			n := p.aSession(uuid.NewString())
			n.StartedAt += int64(i) * 60_000
			assert.NoError(t, p.StartSession(ctx, p.actor, n))
			for k := range 3 {
				e := rep(int64(k), horse.Accepted)
				e.Note = n.ID
				_, _, err := p.Append(ctx, p.actor, n.ID, 0, []track.Entry{e})
				assert.NoError(t, err)
			}
		}
	})
	for reading := true; reading; {
		select {
		case <-done:
			reading = false
		default:
		}
		sessions, days, unread, err := p.Days(ctx, p.actor.Practice, p.horse)
		require.NoError(t, err)
		assert.Empty(t, unread)
		for i, d := range days {
			for _, e := range d.Track {
				require.Equal(t, sessions[i].ID, e.Note, "an entry stands in its own session")
			}
		}
	}
	writing.Wait()
}

// All that is read in a snapshot is of the moment it began.
func TestASnapshotStands(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.Snapshot(ctx, func(v View) error {
		before, err := v.SessionsOf(ctx, p.actor.Practice, p.horse)
		require.NoError(t, err)
		require.NoError(t, p.StartSession(ctx, p.actor, p.aSession(uuid.NewString())))
		within, err := v.SessionsOf(ctx, p.actor.Practice, p.horse)
		require.NoError(t, err)
		assert.Len(t, within, len(before))
		return v.Snapshot(ctx, func(same View) error {
			again, err := same.SessionsOf(ctx, p.actor.Practice, p.horse)
			assert.Len(t, again, len(before), "a snapshot within one is the same")
			return err
		})
	}))
	after, err := p.SessionsOf(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Len(t, after, 2)
}

func TestOneEntryThatCantBeReadTakesNoOtherDown(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	good := rep(1, horse.Accepted)
	_, _, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{good})
	require.NoError(t, err)
	bad := uuid.NewString()
	_, err = p.writer.ExecContext(ctx, `INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, kind, written_by, body)
		VALUES (?, ?, ?, 'tablet', 2, 1, 2, 3, 'rep', ?, '{"kind":"a word of another year"}')`, bad, p.actor.Practice, p.session, p.actor.User)
	require.NoError(t, err)

	_, days, unread, err := p.Days(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Len(t, days[0].Track, 1)
	require.Len(t, unread, 1)
	assert.Equal(t, bad, unread[0].ID)
	assert.Equal(t, p.session, unread[0].Session)
	entries, unread, err := p.Track(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.Len(t, entries, 1)
	assert.Len(t, unread, 1)

	aside := track.Entry{ID: uuid.NewString(), Kind: track.KindUndo, Device: "tablet", Replaces: bad}
	_, _, err = p.Append(ctx, p.actor, p.session, 0, []track.Entry{aside})
	require.NoError(t, err)
	_, _, unread, err = p.Days(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Empty(t, unread, "it is set aside")
}

func TestAnEmptySessionCanBeThrownAway(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.DropSession(ctx, p.actor, p.session))
	_, err := p.Session(ctx, p.actor.Practice, p.session)
	require.ErrorIs(t, err, ErrNotFound)
	require.ErrorIs(t, p.DropSession(ctx, p.actor, p.session), ErrNotFound)

	n := p.aSession(uuid.NewString())
	require.NoError(t, p.StartSession(ctx, p.actor, n))
	_, _, err = p.Append(ctx, p.actor, n.ID, 0, []track.Entry{rep(1, horse.Try)})
	require.NoError(t, err)
	require.ErrorIs(t, p.DropSession(ctx, p.actor, n.ID), ErrHasEntries)
	_, err = p.Session(ctx, p.actor.Practice, n.ID)
	require.NoError(t, err)
}

// What the schema refuses is named by what was refused.
func TestConstraintsAreNamed(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	h, err := p.Horse(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	h.YardID = uuid.NewString()
	intake := Intake{Horse: Horse{ID: uuid.NewString(), Name: "Fern"}, OwnerID: uuid.NewString(), Case: Case{ID: uuid.NewString(), Problem: "loading", Ladder: "load", Goal: "Loads", OpenedOn: "2026-06-01"}}
	stranger := p.aSession(uuid.NewString())
	stranger.CaseID = uuid.NewString()
	_, err = p.AddPlan(ctx, p.actor, uuid.NewString(), Plan{School: "doses", Reason: "first", Catalog: "t"})
	for what, err := range map[string]error{
		"yard":  p.UpdateHorse(ctx, p.actor, h),
		"owner": p.TakeOn(ctx, p.actor, intake),
		"case":  p.StartSession(ctx, p.actor, stranger),
		"case ": err,
		"horse": p.AddAssessment(ctx, p.actor, Assessment{ID: uuid.NewString(), HorseID: uuid.NewString(), On: "2026-06-01"}),
	} {
		var gone *MissingError
		require.ErrorAs(t, err, &gone, what)
		assert.Equal(t, what[:min(len(what), len(gone.What))], gone.What)
		assert.ErrorIs(t, err, ErrNotFound)
	}
	for statement, is := range map[string]error{
		"UPDATE entries SET at = 1":              ErrStays,
		"DELETE FROM entries":                    ErrStays,
		"UPDATE users SET active = 0":            ErrLastLead,
		"UPDATE sessions SET horse_id = 'other'": errReference,
	} {
		_, _, err := p.Append(ctx, p.actor, p.session, 0, []track.Entry{rep(1, horse.Try)})
		require.NoError(t, err)
		_, err = p.writer.ExecContext(ctx, statement)
		require.ErrorIs(t, named(err), is, statement)
	}
	assert.NotErrorIs(t, errReference, ErrNotFound, "an unnamed reference is our own fault, and not the user's")
}
