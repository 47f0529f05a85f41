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
	"ivorybridge/server/horses"
	"ivorybridge/server/sessions"
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

	var rows []horses.Row
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	require.Len(t, rows, 3)
	byID := map[string]horses.Row{}
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

	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+first, nil).into(&file)
	require.Len(t, file.Unread, 1)
	assert.Len(t, file.Beads, 1, "the rest is there")
	var view sessions.Arena
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	assert.Len(t, view.Track, 1)

	p.logs(id, at(map[string]any{"id": uuid.NewString(), "kind": "undo", "device": "tablet", "replaces": file.Unread[0].ID}, 90, 3))
	p.ask(http.MethodGet, "/api/horses/"+first, nil).into(&file)
	assert.Empty(t, file.Unread, "it is set aside")
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

// A log of practice that can't be read takes nothing else down, and is told.
func TestABrokenPracticeIsTold(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	_, token := p.link("people/"+p.owner, 0)
	p.now = p.now.AddDate(0, 0, 1)
	p.practise(token, nil)
	p.tamper(`DROP TRIGGER practised_stay`)
	p.tamper(`UPDATE practised SET doc = '{"minutes":"many"}'`)
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/set-aside", map[string]any{"note": "attention.not_assessed", "until": "2026-06-20", "reason": "later"})
	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	require.NotEmpty(t, file.Attention)
	assert.Contains(t, file.Attention[0].Say.Text, "What was practised at home on 2 June can't be read.")
	assert.True(t, p.practise(token, nil).Logs[0].Kept)
}
