package server

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/phrase"
	"ivorybridge/server/accounts"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

const password = "a rope of words"

// hash is made once: hashing is slow on purpose.
var hash = accounts.Hash(password)

// A practice is a server with one practice in it, and a clock that tests turn.
type practice struct {
	*Server
	t      testing.TB
	actor  store.Actor
	now    time.Time
	horse  string
	kase   string
	owner  string
	cookie *http.Cookie
	device *http.Cookie // marks the device; as a browser keeps it
	from   string       // network address
	taps   int
	folder string // of the photographs
	words  phrase.Words
}

func newPractice(t testing.TB) *practice {
	t.Helper()
	p := &practice{t: t, words: phrase.Shipped, now: time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC), from: "192.0.2.7:1000"}
	catalog, err := yaml.Shipped()
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "p.db")
	p.folder = path + ".photographs"
	db, err := store.Open(context.Background(), path, p.now)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, db.Close()) })
	p.Server, err = New(Config{
		Store: db, Catalog: catalog, Now: func() time.Time { return p.now }, Log: slog.New(slog.DiscardHandler), Version: "test",
		Web: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}, "assets/a.js": {Data: []byte("1")}},
	})
	require.NoError(t, err)
	p.actor = p.fill("Wren")
	return p
}

// fill adds a practice with a lead trainer and a horse.
func (p *practice) fill(name string) store.Actor {
	ctx := context.Background()
	actor := store.Actor{Practice: uuid.NewString(), User: uuid.NewString(), At: p.now.UnixMilli()}
	require.NoError(p.t, p.Store.AddPractice(ctx, store.Practice{ID: actor.Practice, Name: name, Zone: "Europe/London", Words: p.words}, actor.At))
	require.NoError(p.t, p.Store.AddUser(ctx, actor, store.User{ID: actor.User, Name: name, Email: name + "@example.org", Role: store.Lead, Hash: hash}))
	p.takesOn(actor)
	return actor
}

// takesOn takes on another horse, which is the one that tests then speak of.
func (p *practice) takesOn(actor store.Actor) {
	p.horse, p.kase, p.owner = uuid.NewString(), uuid.NewString(), uuid.NewString()
	require.NoError(p.t, p.Store.TakeOn(context.Background(), actor, store.Intake{
		Horse: store.Horse{ID: p.horse, Name: "Moth"}, NewOwner: &store.Person{ID: p.owner, Kind: "owner", Name: "Ines", Phone: "1"},
		Case: store.Case{ID: p.kase, Problem: "loading", Ladder: "load", Goal: "Loads", OpenedOn: "2026-06-01"},
	}))
}

func (p *practice) add(name string, role store.Role, mustChange bool) {
	err := p.Store.AddUser(context.Background(), p.actor, store.User{ID: uuid.NewString(), Name: name, Email: name + "@example.org", Role: role, Hash: hash, MustChange: mustChange})
	require.NoError(p.t, err)
}

type answer struct {
	*httptest.ResponseRecorder
	t testing.TB
}

func (a answer) problem() api.Problem {
	a.t.Helper()
	var p api.Problem
	require.NoError(a.t, json.Unmarshal(a.Body.Bytes(), &p), "%s", a.Body)
	assert.Equal(a.t, "application/problem+json", a.Header().Get("Content-Type"))
	return p
}

func (a answer) into(v any) {
	a.t.Helper()
	require.Less(a.t, a.Code, 300, "%s", a.Body)
	require.NoError(a.t, json.Unmarshal(a.Body.Bytes(), v), "%s", a.Body)
}

// ask sends one request with the practice's cookie.
func (p *practice) ask(method, path string, body any) answer {
	p.t.Helper()
	var text io.Reader
	switch b := body.(type) {
	case nil:
	case string:
		text = strings.NewReader(b)
	default:
		j, err := json.Marshal(b)
		require.NoError(p.t, err)
		text = bytes.NewReader(j)
	}
	r := httptest.NewRequest(method, path, text)
	r.RemoteAddr = p.from
	r.Header.Set("Content-Type", "application/json")
	if p.cookie != nil {
		r.AddCookie(p.cookie)
	}
	if p.device != nil {
		r.AddCookie(p.device)
	}
	w := httptest.NewRecorder()
	p.ServeHTTP(w, r)
	return answer{w, p.t}
}

func (p *practice) signIn(email, password string) answer {
	p.t.Helper()
	a := p.ask(http.MethodPost, "/api/sign-in", map[string]string{"email": email, "password": password})
	p.keepCookies(a)
	return a
}

// keepCookies keeps who is signed in, and which device this is.
func (p *practice) keepCookies(a answer) {
	for _, c := range a.Result().Cookies() {
		if strings.HasSuffix(c.Name, "-device") {
			p.device = c
		} else {
			p.cookie = c
		}
	}
}

func signedInPractice(t testing.TB) *practice {
	p := newPractice(t)
	require.Equal(t, http.StatusOK, p.signIn("Wren@example.org", password).Code)
	return p
}

// operations lists all operations with their ids filled in.
func (p *practice) operations(id string) [][2]string {
	text, err := p.OpenAPI()
	require.NoError(p.t, err)
	var doc struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	require.NoError(p.t, json.Unmarshal(text, &doc))
	var list [][2]string
	for path, methods := range doc.Paths {
		for method := range methods {
			list = append(list, [2]string{strings.ToUpper(method), strings.NewReplacer("{id}", id, "{of}", uuid.NewString(), "{key}", "back", "{person}", uuid.NewString(), "{mark}", uuid.NewString()).Replace(path)})
		}
	}
	return list
}

// validBody is a body that an operation would accept.
func validBody(op [2]string) any {
	last := op[1][strings.LastIndex(op[1], "/")+1:]
	ready := map[string]any{"arousal": 1, "handler": "calm", "tack": true, "body": true}
	switch {
	case op[0] == http.MethodGet:
		return nil
	case last == "active":
		return map[string]any{"active": true}
	case last == "gate":
		return map[string]any{"readiness": ready}
	case last == "sessions":
		return map[string]any{"id": uuid.NewString(), "started_at": 0, "zone": "Europe/London", "readiness": ready}
	case last == "entries":
		return map[string]any{"sent_at": 0, "entries": []any{rep("accepted", 3)}}
	case last == "handlers":
		return map[string]any{"kind": "other", "name": "x"}
	case last == "plans":
		return map[string]any{"reason": "why"}
	case last == "try":
		return map[string]any{"choices": map[string]any{}}
	case last == "rehearsals":
		return map[string]any{"person": uuid.NewString(), "step": "lead.back", "on": "2026-06-01", "place": "person"}
	case last == "ticks":
		return map[string]any{"run": "loading", "done": []any{}, "seed": 1}
	case last == "report", last == "closing" && op[0] == http.MethodPut:
		return map[string]any{"version": 0, "edits": map[string]any{}}
	case last == "reset" || op[0] == http.MethodDelete:
		return nil
	case last == "links":
		return map[string]any{"days": 3}
	case last == "set-aside":
		return map[string]any{"note": "x", "until": "2026-06-08", "reason": "x"}
	case last == "resume":
		return map[string]any{"log": uuid.NewString(), "reason": "x"}
	case last == "incidents":
		return map[string]any{"kind": "bit", "on": "2026-06-01", "hurt": "nobody", "what": "x"}
	case last == "visits":
		return map[string]any{"horses": []string{uuid.NewString()}, "on": "2026-06-02", "minutes": 45, "agreed": true}
	case last == "cancel":
		return map[string]any{"reason": "ice", "version": 1}
	case strings.HasSuffix(op[1], "/marks") && strings.Contains(op[1], "/clips/"):
		return map[string]any{"at": 1, "says": "x"}
	case strings.Contains(op[1], "/arriving"):
		return nil
	case strings.Contains(op[1], "/clips/"):
		return map[string]any{"on": "2026-06-01", "speed": 1, "landings": []any{}, "version": 1}
	case last == "readers":
		return map[string]any{"agreed": true}
	case last == "notebooks", last == "look":
		return map[string]any{"name": "x", "text": "horse,date\nMoth,2020-01-01"}
	case last == "undo":
		return nil
	case last == "copies", last == "erase", last == "taking":
		return nil
	case last == "rules":
		return map[string]any{"doc": map[string]any{}, "reason": "why", "version": 0}
	case last == "home":
		home := map[string]any{"name": "Fell End", "vehicle": "trailer", "sides": "near and off", "zone": "Europe/London"}
		return map[string]any{"name": "Fell End", "vehicle": "trailer", "sides": "near and off", "zone": "Europe/London", "was": home}
	case last == "trial":
		return map[string]any{}
	case last == "tonight", strings.Contains(op[1], "/letters/stop/"):
		return nil
	case last == "feeds":
		return map[string]any{}
	case last == "busy":
		return map[string]any{"text": ""}
	case last == "order":
		return map[string]any{"on": "2026-06-02", "visits": []string{uuid.NewString()}, "by_hand": true}
	case last == "drive":
		return map[string]any{"a": uuid.NewString(), "b": uuid.NewString(), "minutes": 12}
	case last == "place":
		return map[string]any{"yard": uuid.NewString(), "place": "54.5, -3.1"}
	case last == "begins":
		return map[string]any{"at": "07:30", "rounds": []any{}}
	case strings.Contains(op[1], "/visits/"):
		return map[string]any{"horses": []string{uuid.NewString()}, "on": "2026-06-02", "minutes": 45, "agreed": true, "version": 1}
	case last == "consents":
		return map[string]any{"kind": "photographs", "on": "2026-06-01"}
	}
	switch {
	case last == "marks":
		return map[string]any{"sent_at": 0, "marks": []any{aMark("tack/bit", "gag")}}
	case strings.Contains(op[1], "/trailers"):
		return map[string]any{"version": 1, "name": "x", "record": map[string]any{}}
	case last == "file":
		return map[string]any{"version": 1, "text": "ladder: moon"}
	case strings.Contains(op[1], "/ladders/"):
		return map[string]any{"version": 1, "name": "x"}
	case strings.Contains(op[1], "/people/"):
		return map[string]any{"version": 1, "name": "x", "kind": "owner"}
	case strings.Contains(op[1], "/yards/"):
		return map[string]any{"version": 1, "name": "x"}
	case strings.Contains(op[1], "/cases/"):
		return map[string]any{"version": 1, "goal": "x", "finished": false}
	}
	return map[string]any{"version": 1, "name": "x", "record": map[string]any{}}
}

func aMark(path string, value any) map[string]any {
	return map[string]any{
		"id": uuid.NewString(), "at": time.Date(2026, 6, 1, 9, 5, 0, 0, time.UTC).UnixMilli(), "device": "tablet", "seq": 1,
		"path": path, "value": value,
	}
}

func rep(answer string, peak int) map[string]any {
	return map[string]any{
		"id": uuid.NewString(), "kind": "rep", "at": time.Date(2026, 6, 1, 9, 5, 0, 0, time.UTC).UnixMilli(), "device": "tablet", "seq": 1,
		"rep": map[string]any{"step": "lead.forward", "answer": answer, "peak": peak, "arousal": 1},
	}
}

func TestSignInIsCareful(t *testing.T) {
	p := newPractice(t)
	a := p.signIn("Wren@example.org", "wrong")
	assert.Equal(t, http.StatusUnauthorized, a.Code)
	assert.Equal(t, a.problem().Detail, p.signIn("nobody@example.org", "wrong").problem().Detail, "it does not tell who has a sign-in")

	a = p.signIn("Wren@example.org", password)
	c := a.Result().Cookies()[0]
	assert.True(t, c.HttpOnly)
	assert.Equal(t, http.SameSiteLaxMode, c.SameSite)
	assert.NotContains(t, a.Body.String(), "argon2")
	first := p.cookie
	p.signIn("Wren@example.org", password)
	assert.NotEqual(t, first.Value, p.cookie.Value, "a new token each time")
	p.cookie = first
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/me", nil).Code, "the old one is over")

	p.signIn("Wren@example.org", password)
	p.now = p.now.Add(31 * 24 * time.Hour)
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/me", nil).Code, "a sign-in runs out")
}

func TestSecureCookies(t *testing.T) {
	p := newPractice(t)
	p.Secure, p.cases.Secure = true, true
	c := p.signIn("Wren@example.org", password).Result().Cookies()[0]
	assert.True(t, c.Secure)
	assert.True(t, strings.HasPrefix(c.Name, "__Host-"))
	assert.NotEmpty(t, p.ask(http.MethodGet, "/", nil).Header().Get("Strict-Transport-Security"))
}

func TestSignOutEverywhere(t *testing.T) {
	p := signedInPractice(t)
	phone := p.cookie
	p.cookie = nil
	p.signIn("Wren@example.org", password)
	require.Equal(t, http.StatusNoContent, p.ask(http.MethodPost, "/api/sign-out-everywhere", nil).Code)
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/me", nil).Code)
	p.cookie = phone
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/me", nil).Code)
}

func TestHeadersAndFiles(t *testing.T) {
	p := newPractice(t)
	a := p.ask(http.MethodGet, "/horses/abc", nil)
	assert.Equal(t, http.StatusOK, a.Code, "a place of the front end")
	csp := a.Header().Get("Content-Security-Policy")
	assert.Contains(t, csp, "script-src 'self'")
	assert.NotContains(t, csp, "unsafe-inline")
	assert.Equal(t, "nosniff", a.Header().Get("X-Content-Type-Options"))
	assert.Contains(t, p.ask(http.MethodGet, "/assets/a.js", nil).Header().Get("Cache-Control"), "immutable")
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/assets/gone.js", nil).Code)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/nothing", nil).Code)
	assert.Equal(t, http.StatusMethodNotAllowed, p.ask(http.MethodPost, "/horses", nil).Code)
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/openapi.json", nil).Code)
}

func TestUsersAreLookedAfterByLeads(t *testing.T) {
	p := signedInPractice(t)
	var in accounts.Invitation
	p.ask(http.MethodPost, "/api/users", map[string]any{"name": " Ash ", "email": "ash@example.org", "role": "assistant"}).into(&in)
	assert.Equal(t, "Ash", in.User.Name)
	assert.True(t, in.User.MustChange)
	twice := p.ask(http.MethodPost, "/api/users", map[string]any{"name": "Ash", "email": "ASH@example.org", "role": "assistant"})
	assert.Equal(t, "email", twice.problem().Errors[0].Field)

	lead := p.cookie
	p.cookie = nil
	assert.Equal(t, http.StatusOK, p.signIn("ash@example.org", in.Password).Code)
	ash := p.cookie
	p.cookie = lead
	var reset accounts.Invitation
	p.ask(http.MethodPost, "/api/users/"+in.User.ID+"/reset", nil).into(&reset)
	assert.NotEqual(t, in.Password, reset.Password)
	p.cookie = ash
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/me", nil).Code, "a reset signs out")

	p.cookie = lead
	last := p.ask(http.MethodPut, "/api/users/"+p.actor.User+"/active", map[string]any{"active": false})
	assert.Equal(t, http.StatusConflict, last.Code)
	assert.Contains(t, last.problem().Detail, "last lead trainer")
	require.Equal(t, http.StatusOK, p.ask(http.MethodPut, "/api/users/"+in.User.ID+"/active", map[string]any{"active": false}).Code)
	assert.Equal(t, http.StatusUnauthorized, p.signIn("ash@example.org", reset.Password).Code, "who is let out can't sign in")
}
