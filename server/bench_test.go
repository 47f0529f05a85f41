package server

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
)

// reps makes the bodies of n single reps, a minute apart.
func reps(b *testing.B, n int) [][]byte {
	b.Helper()
	bodies := make([][]byte, n)
	for i := range bodies {
		e := rep([]string{"accepted", "accepted", "try", "tolerated"}[i%4], 3)
		e["seq"], e["at"] = i, time.Date(2026, 6, 1, 9, 0, i*40, 0, time.UTC).UnixMilli()
		body, err := json.Marshal(map[string]any{"sent_at": 0, "entries": []any{e}})
		require.NoError(b, err)
		bodies[i] = body
	}
	return bodies
}

func post(b *testing.B, h http.Handler, path string, cookie *http.Cookie, body []byte) {
	r := httptest.NewRequest(http.MethodPost, path, bytes.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	if cookie != nil {
		r.AddCookie(cookie)
	}
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	if w.Code != http.StatusOK {
		b.Fatalf("%d: %s", w.Code, w.Body)
	}
}

// sessionLength is how many reps one benchmark session has, as in the yard;
// the next is another horse's.
const sessionLength = 40

// BenchmarkLogRep logs reps through the product (sign-in, checks, durable
// insert, advice) and, in turn with it, through a bare Gin handler with the
// same table, indexes, pragmas and ownership check. It reports the median of
// both in microseconds, and their ratio.
func BenchmarkLogRep(b *testing.B) {
	p := signedInPractice(b)
	bare, barePaths := bareServer(b, p)
	var paths []string
	for range sessionsFor(b.N) {
		p.takesOn(p.who)
		id, _ := p.session()
		paths = append(paths, "/api/sessions/"+id+"/entries")
	}
	bodies := reps(b, b.N)
	ours, theirs := make([]float64, b.N), make([]float64, b.N)
	b.ResetTimer()
	for i := range b.N {
		start := time.Now()
		post(b, p, paths[i/sessionLength], p.cookie, bodies[i])
		middle := time.Now()
		post(b, bare, barePaths[i/sessionLength], p.cookie, bodies[i])
		ours[i], theirs[i] = float64(middle.Sub(start).Microseconds()), float64(time.Since(middle).Microseconds())
	}
	slices.Sort(ours)
	slices.Sort(theirs)
	b.ReportMetric(ours[b.N/2], "µs/rep")
	b.ReportMetric(theirs[b.N/2], "µs/bare")
	b.ReportMetric(ours[b.N/2]/theirs[b.N/2], "ratio")
}

func sessionsFor(n int) int { return (n + sessionLength - 1) / sessionLength }

// bareServer is the bare handler on a database of its own, with the path of
// each session.
func bareServer(b *testing.B, p *practice) (http.Handler, []string) {
	path := filepath.Join(b.TempDir(), "bare.db")
	require.NoError(b, p.Store.Backup(context.Background(), path))
	dsn := "file:" + path + "?_pragma=busy_timeout(5000)&_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&"
	writer, err := sql.Open("sqlite", dsn+"_txlock=immediate")
	require.NoError(b, err)
	writer.SetMaxOpenConns(1)
	reader, err := sql.Open("sqlite", dsn+"_pragma=query_only(1)")
	require.NoError(b, err)
	b.Cleanup(func() { _, _ = writer.Close(), reader.Close() })
	var paths []string
	for range sessionsFor(b.N) {
		session := uuid.NewString()
		_, err := writer.Exec(`INSERT INTO sessions (id, practice_id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version)
			VALUES (?, ?, ?, ?, ?, 0, 'UTC', '2026-06-01', 's', '{}', '', '{}', '', '{}', '')`, session, p.who.Practice, p.kase, p.horse, p.who.User)
		require.NoError(b, err)
		paths = append(paths, "/log/"+session)
	}
	return bareLog(b, p, writer, reader), paths
}

func bareLog(b *testing.B, p *practice, writer, reader *sql.DB) http.Handler {
	type entry struct {
		ID     string `json:"id"`
		Kind   string `json:"kind"`
		At     int64  `json:"at"`
		Device string `json:"device"`
		Seq    int64  `json:"seq"`
	}
	engine := gin.New()
	engine.POST("/log/:id", func(g *gin.Context) {
		var in struct {
			Entries []json.RawMessage `json:"entries"`
		}
		var practice, user string
		token, err := g.Cookie(p.cookieName())
		if err == nil {
			err = reader.QueryRow(`SELECT s.practice_id, s.user_id FROM sign_ins AS s JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.user_id
				WHERE s.token_hash = ? AND s.expires_at > ? AND u.active = 1`, tokenHash(token), 0).Scan(&practice, &user)
		}
		if err == nil {
			err = g.ShouldBindJSON(&in)
		}
		if err != nil {
			g.AbortWithStatus(http.StatusBadRequest)
			return
		}
		tx, err := writer.Begin()
		for _, raw := range in.Entries {
			var e entry
			if err == nil {
				err = json.Unmarshal(raw, &e)
			}
			owned := false
			if err == nil {
				err = tx.QueryRow("SELECT EXISTS (SELECT 1 FROM sessions WHERE practice_id = ? AND id = ?)", practice, g.Param("id")).Scan(&owned)
			}
			if err == nil && owned {
				_, err = tx.Exec(`INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body)
					VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0, 0, ?, ?, ?)`, e.ID, practice, g.Param("id"), e.Device, e.Seq, e.At, e.At, e.At, e.Kind, user, string(raw))
			}
		}
		if err == nil {
			err = tx.Commit()
		}
		if err != nil {
			b.Error(err)
			g.AbortWithStatus(http.StatusInternalServerError)
			return
		}
		g.JSON(http.StatusOK, gin.H{"kept": len(in.Entries)})
	})
	return engine
}
