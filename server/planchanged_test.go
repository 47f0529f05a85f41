package server

import (
	"net/http"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/server/sessions"
)

// A plan that is changed while a session runs is offered to it, and followed from the
// moment it is taken up.
func TestAChangedPlanIsOfferedToARunningSession(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	p.now = p.now.Add(time.Minute)
	a := p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "wait it out", "choices": map[string]any{"schools": map[string]string{"load": "wait it out"}}})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	var view sessions.Arena
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	require.NotZero(t, view.Planned)
	assert.NotEqual(t, horse.WaitItOut, view.Brief.Input.Schools["load"], "as it began")

	entry := map[string]any{"id": uuid.NewString(), "kind": "mark", "at": p.now.UnixMilli(), "mark": map[string]any{"plan": view.Planned}}
	a = p.ask(http.MethodPost, "/api/sessions/"+id+"/entries", map[string]any{"sent_at": p.now.UnixMilli(), "entries": []any{entry}})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	view = sessions.Arena{}
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	assert.Zero(t, view.Planned)
	assert.Equal(t, horse.WaitItOut, view.Brief.Input.Schools["load"])
}
