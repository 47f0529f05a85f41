package server_test

import (
	"bytes"
	"context"
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/server"
	"ivorybridge/store"
)

// sized is a server with an invented practice of a size.
type sized struct {
	b        testing.TB
	db       *store.Store
	catalog  *catalog.Catalog
	server   *server.Server
	cookie   *http.Cookie
	now      time.Time
	practice string
	user     string
	horses   []store.Horse
	cases    map[string]store.Case // by horse
}

func invented(b testing.TB, size demo.Size) *sized {
	b.Helper()
	s := &sized{b: b, now: time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC), cases: map[string]store.Case{}}
	ctx := context.Background()
	var err error
	s.catalog, err = yaml.Shipped()
	require.NoError(b, err)
	s.db, err = store.Open(ctx, filepath.Join(b.TempDir(), "p.db"), s.now)
	require.NoError(b, err)
	b.Cleanup(func() { require.NoError(b, s.db.Close()) })
	if size.Horses > 0 {
		require.NoError(b, demo.Invent(ctx, s.db, s.catalog, s.now, size))
	} else {
		require.NoError(b, demo.Fill(ctx, s.db, s.catalog, s.now))
	}
	p, err := s.db.FirstPractice(ctx)
	require.NoError(b, err)
	s.practice = p.ID
	s.horses, err = s.db.Horses(ctx, p.ID)
	require.NoError(b, err)
	cases, err := s.db.Cases(ctx, p.ID)
	require.NoError(b, err)
	for _, k := range cases {
		s.cases[k.HorseID] = k
	}
	users, err := s.db.Users(ctx, p.ID)
	require.NoError(b, err)
	s.user = users[slices.IndexFunc(users, func(u store.User) bool { return u.Role == store.Lead })].ID
	s.restart()
	return s
}

// restart gives the practice a server that remembers nothing.
func (s *sized) restart() {
	var err error
	s.server, err = server.New(server.Config{
		Store: s.db, Catalog: s.catalog, Now: func() time.Time { return s.now }, Log: slog.New(slog.DiscardHandler), Version: "bench",
		Web: fstest.MapFS{"index.html": {Data: []byte("x")}},
	})
	require.NoError(s.b, err)
	if s.cookie == nil {
		w := s.send(http.MethodPost, "/api/sign-in", map[string]string{"email": demo.User, "password": demo.Password})
		require.Less(s.b, w.Code, 300, w.Body.String())
		s.cookie = w.Result().Cookies()[0]
	}
}

func (s *sized) send(method, path string, body any) *httptest.ResponseRecorder {
	var text bytes.Buffer
	if body != nil {
		require.NoError(s.b, json.NewEncoder(&text).Encode(body))
	}
	r := httptest.NewRequest(method, path, &text)
	r.Header.Set("Content-Type", "application/json")
	if s.cookie != nil {
		r.AddCookie(s.cookie)
	}
	w := httptest.NewRecorder()
	s.server.ServeHTTP(w, r)
	return w
}

// took is how long one request took, in microseconds.
func (s *sized) took(method, path string, body any) float64 {
	start := time.Now()
	w := s.send(method, path, body)
	took := float64(time.Since(start).Microseconds())
	require.Less(s.b, w.Code, 300, "%s %s: %s", method, path, w.Body)
	return took
}

// begin starts a session today and gives its path.
func (s *sized) begin(h store.Horse) string {
	id := uuid.NewString()
	w := s.send(http.MethodPost, "/api/cases/"+s.cases[h.ID].ID+"/sessions", map[string]any{
		"id": id, "started_at": s.now.UnixMilli(), "zone": "Europe/London", "begun": map[string]string{"step": "lead.forward"},
		"readiness": map[string]any{"arousal": 1, "handler": "calm", "tack": true, "body": true},
	})
	require.Less(s.b, w.Code, 300, w.Body.String())
	return "/api/sessions/" + id
}

func (s *sized) rep(path string, n int) float64 {
	return s.took(http.MethodPost, path+"/entries", map[string]any{"sent_at": 0, "entries": []any{map[string]any{
		"id": uuid.NewString(), "kind": "rep", "at": s.now.UnixMilli() + int64(n)*20_000, "device": "tablet", "seq": n,
		"rep": map[string]any{"step": "lead.forward", "answer": []string{"accepted", "try"}[n%2], "peak": 3},
	}}})
}
