package server

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/horses"
)

// A note waits until its day, with a reason that whoever takes over reads; then it is
// there again. Another fact of its kind is never hidden by it.
func TestANoteIsSetAside(t *testing.T) {
	p := signedInPractice(t)
	path := "/api/horses/" + p.horse + "/set-aside"
	var f horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&f)
	require.NotEmpty(t, f.Attention)
	key, before := f.Attention[0].Say.Key, len(f.Attention)
	for until, field := range map[string]string{"2026-06-01": "until", "2026-08-31": "until", "soon": "until", "": "until"} {
		a := p.ask(http.MethodPost, path, map[string]any{"note": key, "until": until, "reason": "away"})
		assert.Equal(t, field, a.problem().Errors[0].Field, until)
	}
	assert.Equal(t, "reason", p.ask(http.MethodPost, path, map[string]any{"note": key, "until": "2026-06-08", "reason": " "}).problem().Errors[0].Field)
	assert.Equal(t, "note", p.ask(http.MethodPost, path, map[string]any{"note": "attention.none", "until": "2026-06-08", "reason": "away"}).problem().Errors[0].Field)

	p.ask(http.MethodPost, path, map[string]any{"note": key, "until": "2026-06-08", "reason": "The owner is away."}).into(&f)
	assert.Len(t, f.Attention, before-1)
	require.Len(t, f.Later, 1)
	assert.Equal(t, "Wren", f.Later[0].By)
	assert.Equal(t, "The owner is away.", f.Later[0].Reason)

	p.ask(http.MethodPost, path, map[string]any{"note": key, "again": true}).into(&f)
	assert.Len(t, f.Attention, before)

	p.later(1)
	p.ask(http.MethodPost, path, map[string]any{"note": key, "until": "2026-06-08", "reason": "away"}).into(&f)
	p.now = p.now.AddDate(0, 0, 7)
	p.signIn("Wren@example.org", password)
	f = horses.File{}
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&f)
	assert.Empty(t, f.Later, "the day has come")
}
