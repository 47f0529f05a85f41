package server

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/horses"
	"ivorybridge/server/people"
	"ivorybridge/server/sessions"
)

// A trailer is written down once, stands first at the gate of its owner's horses, and
// goes with the session that is worked at it.
func TestATrailerIsKeptAndStandsAtTheGate(t *testing.T) {
	p := signedInPractice(t)
	var other, its people.Trailer
	var h horses.TakenOn
	p.ask(http.MethodPost, "/api/horses", intake(nil)).into(&h)
	p.ask(http.MethodPost, "/api/trailers", map[string]any{"name": "A hired one", "record": map[string]any{}}).into(&other)
	p.ask(http.MethodPost, "/api/trailers", map[string]any{
		"name": "The green one", "person_id": h.Owners[0].ID, "record": map[string]any{"load": "angle load", "floor": "hollow"},
	}).into(&its)
	assert.Equal(t, "Angle load.", its.Like.Text)
	var start sessions.SessionStart
	p.ask(http.MethodGet, "/api/cases/"+h.CaseID+"/session-start", nil).into(&start)
	require.Len(t, start.Trailers, 2)
	assert.True(t, start.Trailer, "the ladder is worked at a trailer")
	assert.Equal(t, "The green one", start.Trailers[0].Name)
	assert.Contains(t, start.Trailers[0].Mind[0].Text, "hollow")
	assert.Len(t, start.Body, 4, "what bears on loading and nobody looked at")

	a := p.ask(http.MethodPut, "/api/trailers/"+its.ID, map[string]any{"name": "The green one", "record": map[string]any{"width_mm": 20}, "version": 1})
	assert.Equal(t, "record.width_mm", a.problem().Errors[0].Field)
	p.ask(http.MethodPut, "/api/trailers/"+its.ID, map[string]any{"name": "The green one", "record": map[string]any{"width_mm": 800}, "version": 1}).into(&its)
	assert.Equal(t, "80 cm wide.", its.Like.Text)
	a = p.ask(http.MethodPut, "/api/trailers/"+its.ID, map[string]any{"name": "x", "record": map[string]any{}, "version": 1})
	assert.Equal(t, http.StatusConflict, a.Code)
	a = p.ask(http.MethodPost, "/api/trailers", map[string]any{"name": " ", "record": map[string]any{}})
	assert.Contains(t, a.problem().Errors[0].Say, "Give it a name")
}
