package server

import (
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/horses"
)

// An incident that is written down after the fact counts like one that was logged: the
// grade rises, what the owner was cleared for lapses and has to be watched again, and
// it stands on the horse's page for 12 months.
func TestAnIncidentAfterTheFact(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	_, token := p.link("people/"+p.owner, 0)
	require.NotNil(t, p.opened(token).Horses[0].Card)
	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	before := file.Risk.Points

	path := "/api/horses/" + p.horse + "/incidents"
	for _, field := range []string{"kind", "on", "hurt", "what"} {
		body := map[string]any{"kind": "kicked at a person", "on": "2026-06-01", "hurt": "nobody", "what": "Kicked at the farrier."}
		body[field] = map[string]string{"kind": "", "on": "2026-06-02", "hurt": "", "what": " "}[field]
		a := p.ask(http.MethodPost, path, body)
		assert.Equal(t, field, a.problem().Errors[0].Field, field)
	}
	var list horses.Incidents
	p.ask(http.MethodPost, path, map[string]any{"kind": "kicked at a person", "on": "2026-06-01", "hurt": "a person", "who": "Tamsin", "what": "Kicked at the farrier.", "did": "Sent the farrier home."}).into(&list)
	require.Len(t, list.List, 1)
	assert.Equal(t, "Wren", list.List[0].By)

	file = horses.File{}
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	assert.Greater(t, file.Risk.Points, before)
	assert.Equal(t, "Read the incident", file.Attention[0].Does.Text)
	assert.Nil(t, p.opened(token).Horses[0].Card, "it lapsed, though it was watched on that very day")

	p.later(24 * time.Hour)
	p.clearsOn("lead.forward", "2026-06-02")
	require.NotNil(t, p.opened(token).Horses[0].Card, "rehearsed and watched again")

	p.now = p.now.AddDate(1, 0, -1)
	p.signIn("Wren@example.org", password)
	p.ask(http.MethodGet, path, nil).into(&list)
	assert.Len(t, list.List, 1)
	p.now = p.now.AddDate(0, 0, 1)
	list = horses.Incidents{}
	p.ask(http.MethodGet, path, nil).into(&list)
	assert.Empty(t, list.List)
}
