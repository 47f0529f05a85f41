package server

import (
	"context"
	"database/sql"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// tamper writes into the database past the store.
func (p *practice) tamper(statement string, args ...any) {
	p.t.Helper()
	db, err := sql.Open("sqlite", "file:"+strings.TrimSuffix(p.folder, ".photographs"))
	require.NoError(p.t, err)
	_, err = db.ExecContext(context.Background(), statement, args...)
	require.NoError(p.t, err)
	require.NoError(p.t, db.Close())
}

// An ask known only from memory, and a session on a later day: everything is
// there, for everybody.
func TestAnAskKnownOnlyFromMemoryLocksNothing(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	p.logs(id, at(map[string]any{"id": uuid.NewString(), "kind": "memory", "device": "tablet", "memory": map[string]any{"step": "lead.halt", "tries": 3, "last": "accepted"}}, 60, 1))
	p.now = p.now.AddDate(0, 0, 1)
	next, _ := p.session()
	for _, path := range []string{"/api/caseload", "/api/horses/" + p.horse, "/api/sessions/" + next, "/api/cases/" + p.kase + "/plan", "/api/cases/" + p.kase + "/session-start"} {
		assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, path, nil).Code, path)
	}
}

func TestABrokenRecordTakesNoOtherDown(t *testing.T) {
	p := signedInPractice(t)
	first := p.horse
	id, _ := p.session()
	p.logs(id, at(rep("accepted", 3), 60, 1))
	bad := uuid.NewString()
	p.tamper(`INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, kind, written_by, body)
		VALUES (?, ?, ?, 'tablet', 2, 1, 2, 3, 'rep', ?, '{"kind":"a word of another year"}')`, bad, p.actor.Practice, id, p.actor.User)
	p.takesOn(p.actor)
	damaged := p.horse
	p.tamper(`UPDATE horses SET record = '{"born":7}' WHERE id = ?`, damaged)
	p.takesOn(p.actor)

	var rows []Row
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	require.Len(t, rows, 3)
	byID := map[string]Row{}
	for _, r := range rows {
		byID[r.ID] = r
	}
	assert.False(t, byID[p.horse].Unread)
	assert.True(t, byID[damaged].Unread)
	assert.Contains(t, byID[damaged].Attention[0].Say.Text, "can't be read")
	assert.Contains(t, byID[first].Attention[0].Say.Text, "An answer of 1 June 2026 can't be read")

	said := p.ask(http.MethodGet, "/api/horses/"+damaged, nil)
	assert.Equal(t, http.StatusUnprocessableEntity, said.Code)
	assert.Contains(t, said.problem().Detail, "the horse's record")

	var file File
	p.ask(http.MethodGet, "/api/horses/"+first, nil).into(&file)
	require.Len(t, file.Unread, 1)
	assert.Len(t, file.Beads, 1, "the rest is there")
	var view Arena
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	assert.Len(t, view.Track, 1)

	p.logs(id, at(map[string]any{"id": uuid.NewString(), "kind": "undo", "device": "tablet", "replaces": file.Unread[0].ID}, 90, 3))
	p.ask(http.MethodGet, "/api/horses/"+first, nil).into(&file)
	assert.Empty(t, file.Unread, "it is set aside")
}

// The newest entry of the shortest beginning that can't be read is to blame.
func TestTheCulpritIsFound(t *testing.T) {
	for n := range 20 {
		for at := range n {
			assert.Equal(t, at, culprit(n, func(k int) bool { return k <= at }), "%d of %d", at, n)
		}
		assert.Equal(t, -1, culprit(n, func(int) bool { return false }), "no entry is to blame")
	}
}

func TestAPanicOfTheRulesIsAnError(t *testing.T) {
	err := guarded(func() error { panic("no words") })
	assert.True(t, isBroken(err))
	assert.ErrorContains(t, err, "no words")
	assert.NoError(t, guarded(func() error { return nil }))
}

// An arena that is no longer kept still orders the writes to its track.
func TestALockOutlivesWhatIsKept(t *testing.T) {
	a := newArenas()
	first, unlock := a.of("p", "s")
	var wait sync.WaitGroup
	var second *liveArena
	in := make(chan struct{})
	wait.Go(func() {
		close(in)
		l, unlock := a.of("p", "s")
		second = l
		unlock()
	})
	<-in
	a.forget()
	assert.Nil(t, second, "it waits for the first to be done")
	unlock()
	wait.Wait()
	assert.NotSame(t, first, second)

	for i := range maxArenas + 1 {
		_, unlock := a.of("p", string(rune('a'+i)))
		unlock()
	}
	assert.Equal(t, maxArenas, a.live.Len(), "only the oldest went")
	_, there := a.live.Get("p" + string(rune('a'+1)))
	assert.True(t, there)
}

func TestAnEmptySessionIsThrownAway(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	assert.Equal(t, http.StatusOK, p.ask(http.MethodDelete, "/api/sessions/"+id, nil).Code)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/sessions/"+id, nil).Code)
	id, _ = p.session()
	p.logs(id, at(rep("accepted", 3), 60, 1))
	said := p.ask(http.MethodDelete, "/api/sessions/"+id, nil)
	assert.Equal(t, http.StatusConflict, said.Code)
	assert.Contains(t, said.problem().Detail, "it stays")
}

// Pages are read while another device starts sessions.
func TestPagesAreReadWhileSessionsStart(t *testing.T) {
	p := signedInPractice(t)
	var writing sync.WaitGroup
	done := make(chan struct{})
	writing.Go(func() {
		defer close(done)
		for range 12 {
			n := store.Session{ID: uuid.NewString(), CaseID: p.kase, HorseID: p.horse, StartedAt: p.now.UnixMilli(), Zone: "UTC", Date: "2026-06-01", Catalog: "t", Core: "t"}
			n.School, n.Begins = arena.Input{}.School, arena.Input{}.Ask
			assert.NoError(t, n.School.UnmarshalText([]byte("build and release")))
			n.Begins.Step = "lead.forward"
			assert.NoError(t, p.Store.StartSession(context.Background(), p.actor, n))
			e := track.Entry{ID: uuid.NewString(), Kind: track.KindMark, Device: "d", Mark: &track.Mark{}}
			_, _, err := p.Store.Append(context.Background(), p.actor, n.ID, 0, []track.Entry{e})
			assert.NoError(t, err)
		}
	})
	for reading := true; reading; {
		select {
		case <-done:
			reading = false
		default:
		}
		require.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/horses/"+p.horse+"/sessions", nil).Code)
	}
	writing.Wait()
}
