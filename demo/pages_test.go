package demo_test

import (
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/server"
	"ivorybridge/store"
)

// A worried owner's five questions are answered by each page, near its top, by one
// plain sentence each; also for the horses that do not go well.
func TestEveryPageAnswersFiveQuestions(t *testing.T) {
	now := time.Date(2026, 6, 20, 12, 0, 0, 0, time.UTC)
	c, err := yaml.Shipped()
	require.NoError(t, err)
	db, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"), now)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, db.Close()) })
	require.NoError(t, demo.Fill(t.Context(), db, c, now))
	s, err := server.New(server.Config{
		Store: db, Catalog: c, Now: func() time.Time { return now }, Log: slog.New(slog.DiscardHandler), Version: "test", DemoUser: demo.User, Web: fstest.MapFS{},
	})
	require.NoError(t, err)
	ask := func(method, path string, cookies []*http.Cookie, into any) []*http.Cookie {
		r := httptest.NewRequest(method, path, nil)
		for _, one := range cookies {
			r.AddCookie(one)
		}
		w := httptest.NewRecorder()
		s.ServeHTTP(w, r)
		require.Less(t, w.Code, 300, "%s: %s", path, w.Body)
		require.NoError(t, json.Unmarshal(w.Body.Bytes(), into))
		return w.Result().Cookies()
	}
	cookies := ask(http.MethodPost, "/api/sign-in/demo", nil, &struct{}{})
	var rows []struct{ ID, Name string }
	ask(http.MethodGet, "/api/caseload", cookies, &rows)
	require.Greater(t, len(rows), 10)
	type document struct {
		Sections []struct {
			Key       string
			Sentences []struct {
				ID   string
				Said struct{ Text string }
			}
		}
	}
	kinds := map[string]bool{}
	for _, row := range rows {
		paths := []string{"/api/horses/" + row.ID + "/closing"}
		var reports []struct{ Session string }
		ask(http.MethodGet, "/api/horses/"+row.ID+"/reports", cookies, &reports)
		if len(reports) > 0 {
			paths = append(paths, "/api/sessions/"+reports[0].Session+"/report")
		}
		for _, path := range paths {
			var d document
			ask(http.MethodGet, path, cookies, &d)
			asked := map[string]string{}
			for i, section := range d.Sections {
				if section.Key == "short" {
					assert.LessOrEqual(t, i, 1, "near the top of %s", row.Name)
					for _, one := range section.Sentences {
						asked[one.ID] = one.Said.Text
					}
				}
			}
			for _, question := range []string{"short.better", "short.may", "short.must_not", "short.next", "short.ring"} {
				said := asked[question]
				assert.True(t, strings.HasSuffix(said, "."), "%s: %s %q", row.Name, question, said)
				assert.NotContains(t, said, "short.", row.Name)
			}
			assert.Regexp(t, `^(Yes|No|Not yet|Partly|Too early|This is where)`, asked["short.better"], row.Name)
			assert.Contains(t, asked["short.ring"], "01632 960150")
			kinds[strings.Fields(asked["short.better"])[0]] = true
		}
	}
	assert.Greater(t, len(kinds), 3, "the demo has horses that do well and that do not: %v", kinds)
}
