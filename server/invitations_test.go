package server

import (
	"fmt"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/accounts"
	"ivorybridge/server/horses"
	"ivorybridge/server/owners"
)

// invites makes an invitation and gives its token.
func (p *practice) invites(body map[string]any) (id, token string) {
	p.t.Helper()
	var made accounts.NewInvited
	p.ask(http.MethodPost, "/api/invitations", body).into(&made)
	return made.ID, made.Path[len("/join#"):]
}

func (p *practice) joins(token, email string) answer {
	p.cookie = nil
	a := p.ask(http.MethodPost, "/api/join", map[string]any{"token": token, "email": email, "password": "three grey mares at noon"})
	p.keepCookies(a)
	return a
}

// An owner has an account of her own, if she likes: it opens her pages and nothing of
// the trainers'.
func TestAnOwnersOwnAccount(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	_, token := p.invites(map[string]any{"person": p.owner})
	var welcome accounts.Welcome
	p.ask(http.MethodPost, "/api/join/look", map[string]any{"token": token}).into(&welcome)
	assert.Equal(t, accounts.Welcome{Practice: "Wren", Name: "Ines", Owner: true}, welcome)
	weak := p.ask(http.MethodPost, "/api/join", map[string]any{"token": token, "email": "ines@example.org", "password": "password"})
	assert.Equal(t, "password", weak.problem().Errors[0].Field)
	taken := p.ask(http.MethodPost, "/api/join", map[string]any{"token": token, "email": "Wren@example.org", "password": "three grey mares at noon"})
	assert.Equal(t, "email", taken.problem().Errors[0].Field, "the invitation is not used up by that")

	var me accounts.Me
	p.joins(token, "ines@example.org").into(&me)
	assert.True(t, me.Person)
	var pages owners.Pages
	p.ask(http.MethodGet, "/api/owner", nil).into(&pages)
	require.Len(t, pages.Horses, 1)
	assert.Equal(t, "Ines", pages.For)
	log := map[string]any{"id": uuid.NewString(), "person": "", "step": "lead.forward", "on": "2026-06-01", "at": p.now.UnixMilli(), "done": true, "minutes": 5, "arousal": 0}
	var kept owners.Kept
	p.ask(http.MethodPost, "/api/owner/practised", map[string]any{"horse": p.horse, "logs": []any{log}}).into(&kept)
	assert.True(t, kept.Logs[0].Kept)
	assert.Equal(t, http.StatusForbidden, p.ask(http.MethodGet, "/api/caseload", nil).Code)

	again := p.joins(token, "else@example.org")
	assert.Equal(t, http.StatusNotFound, again.Code, "it was used")
	assert.Equal(t, again.Body.String(), p.joins("WRONG", "else@example.org").Body.String())
}

func TestAnInvitationEndsAndIsTakenBack(t *testing.T) {
	p := signedInPractice(t)
	id, token := p.invites(map[string]any{"person": p.owner})
	_, other := p.invites(map[string]any{"person": p.owner})
	var open []accounts.Invited
	p.ask(http.MethodDelete, "/api/invitations/"+id, nil).into(&open)
	assert.Len(t, open, 1)
	assert.Equal(t, http.StatusNotFound, p.joins(token, "ines@example.org").Code)
	p.later(14*24*time.Hour - time.Millisecond)
	assert.Equal(t, http.StatusOK, p.ask(http.MethodPost, "/api/join/look", map[string]any{"token": other}).Code)
	p.later(time.Millisecond)
	assert.Equal(t, http.StatusNotFound, p.joins(other, "ines@example.org").Code)
}

// A helper logs on the one day, at the one yard, and sees no reports; the day after
// nothing opens any more.
func TestAHelperForADay(t *testing.T) {
	p := signedInPractice(t)
	var yard struct {
		ID string `json:"id"`
	}
	p.ask(http.MethodPost, "/api/yards", map[string]any{"name": "Tarn Side"}).into(&yard)
	var h horses.Horse
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&h)
	p.ask(http.MethodPut, "/api/horses/"+p.horse, map[string]any{"name": "Moth", "record": h.Record, "yard_id": yard.ID, "version": h.Version}).into(&h)
	here, kase := p.horse, p.kase
	p.takesOn(p.actor)
	elsewhere := p.horse

	for name, wrong := range map[string]map[string]any{
		"name": {"on": "2026-06-02", "yard": yard.ID}, "on": {"name": "Sol", "on": "2026-05-31", "yard": yard.ID}, "yard": {"name": "Sol", "on": "2026-06-02", "yard": uuid.NewString()},
	} {
		assert.Equal(t, name, p.ask(http.MethodPost, "/api/invitations", wrong).problem().Errors[0].Field)
	}
	_, token := p.invites(map[string]any{"name": "Sol", "on": "2026-06-02", "yard": yard.ID})
	var me accounts.Me
	p.joins(token, "sol@example.org").into(&me)
	assert.Equal(t, "owner", string(me.Role), "the day has not come")
	refused := p.ask(http.MethodGet, "/api/caseload", nil)
	assert.Equal(t, http.StatusForbidden, refused.Code)
	assert.Contains(t, refused.problem().Detail, "You help on one day only, 2 June.")

	p.later(24 * time.Hour)
	p.ask(http.MethodGet, "/api/me", nil).into(&me)
	assert.Equal(t, "helper", string(me.Role))
	var rows []struct {
		ID string `json:"id"`
	}
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	require.Len(t, rows, 1, "of the one yard alone")
	assert.Equal(t, here, rows[0].ID)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/horses/"+elsewhere, nil).Code)
	p.kase = kase
	session, _ := p.session()
	e := rep("accepted", 2)
	e["at"] = p.now.UnixMilli()
	assert.Empty(t, p.logs(session, e).Refused)
	for _, path := range []string{"/api/sessions/" + session + "/report", "/api/horses/" + here + "/reports", "/api/horses/" + here + "/progress", "/api/people", "/api/horses/" + here + "/practised"} {
		assert.Equal(t, http.StatusForbidden, p.ask(http.MethodGet, path, nil).Code, path)
	}

	p.later(24 * time.Hour)
	assert.Equal(t, http.StatusForbidden, p.ask(http.MethodGet, "/api/sessions/"+session, nil).Code)
	p.signIn("Wren@example.org", password)
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	assert.Len(t, rows, 2)
}

// The lead trainer sees who is signed in and ends one; and who changed and opened what.
func TestSignInsAreEndedAndReadingIsOnRecord(t *testing.T) {
	p := signedInPractice(t)
	p.add("ash", "assistant", false)
	lead := p.cookie
	p.cookie = nil
	p.signIn("ash@example.org", password)
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil)
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil)
	ash := p.cookie
	p.cookie = lead
	var list []accounts.SignInRow
	p.ask(http.MethodGet, "/api/sign-ins", nil).into(&list)
	i := slices.IndexFunc(list, func(r accounts.SignInRow) bool { return r.Name == "ash" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, "192.0.2.7", list[i].Place)
	var record []accounts.RecordRow
	p.ask(http.MethodGet, "/api/record", nil).into(&record)
	opened := 0
	for _, r := range record {
		if r.Name == "ash" && r.What == "opened the horse" && r.Horse == "Moth" {
			opened++
		}
	}
	assert.Equal(t, 1, opened, "once a day: %s", fmt.Sprint(record))
	p.ask(http.MethodDelete, "/api/sign-ins/"+list[i].ID, nil).into(&list)
	p.cookie = ash
	ended := p.ask(http.MethodGet, "/api/me", nil)
	assert.Equal(t, http.StatusUnauthorized, ended.Code)
	assert.True(t, ended.problem().Ended)
}
