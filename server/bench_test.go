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

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// reps makes the bodies of n single reps, as a device sends them.
func reps(b *testing.B, n int) [][]byte {
	b.Helper()
	bodies := make([][]byte, n)
	for i := range bodies {
		e := rep([]string{"accepted", "accepted", "try", "tolerated"}[i%4], 3)
		e["seq"], e["at"] = i, time.Date(2026, 6, 1, 9, 0, i*40, 0, time.UTC).UnixMilli()
		body, err := json.Marshal(map[string]any{"sent_at": 0, "quiet": true, "entries": []any{e}})
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
		p.takesOn(p.actor)
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

// BenchmarkLogBatch sends a hundred entries at once, as an outbox does after a
// session without a signal, in turn through the product and through the bare
// handler with the same checks.
func BenchmarkLogBatch(b *testing.B) {
	const size = 100
	p := signedInPractice(b)
	bare, _ := bareServer(b, p)
	first := *p // the bare copy knows no later horses
	ours, theirs := make([]float64, b.N), make([]float64, b.N)
	b.ResetTimer()
	for i := range b.N {
		b.StopTimer()
		p.takesOn(p.actor)
		id, _ := p.session()
		entries := make([]any, size)
		for n := range entries {
			e := rep([]string{"accepted", "try"}[n%2], 3)
			e["seq"], e["at"] = n, p.now.UnixMilli()+int64(n)*20_000
			entries[n] = e
		}
		body, err := json.Marshal(map[string]any{"sent_at": 0, "quiet": true, "entries": entries})
		require.NoError(b, err)
		session := uuid.NewString()
		require.NoError(b, bare.begin(&first, session))
		b.StartTimer()
		start := time.Now()
		post(b, p, "/api/sessions/"+id+"/entries", p.cookie, body)
		middle := time.Now()
		post(b, bare, "/log/"+session, p.cookie, body)
		ours[i], theirs[i] = float64(middle.Sub(start).Microseconds()), float64(time.Since(middle).Microseconds())
	}
	slices.Sort(ours)
	slices.Sort(theirs)
	b.ReportMetric(ours[b.N/2], "µs/batch")
	b.ReportMetric(theirs[b.N/2], "µs/bare")
	b.ReportMetric(ours[b.N/2]/theirs[b.N/2], "ratio")
}

// BenchmarkOpenArena opens a running session of a horse with a short and with
// a long history, in turn, and reports the medians and their ratio.
func BenchmarkOpenArena(b *testing.B) {
	open := func(entries int) (*practice, string) {
		p := signedInPractice(b)
		p.history(b, entries)
		id, _ := p.session()
		return p, "/api/sessions/" + id
	}
	short, shortPath := open(200)
	long, longPath := open(20_000)
	get := func(p *practice, path string) float64 {
		start := time.Now()
		r := httptest.NewRequest(http.MethodGet, path, nil)
		r.AddCookie(p.cookie)
		w := httptest.NewRecorder()
		p.ServeHTTP(w, r)
		require.Equal(b, http.StatusOK, w.Code)
		return float64(time.Since(start).Microseconds())
	}
	few, many := make([]float64, b.N), make([]float64, b.N)
	b.ResetTimer()
	for i := range b.N {
		few[i], many[i] = get(short, shortPath), get(long, longPath)
	}
	slices.Sort(few)
	slices.Sort(many)
	b.ReportMetric(few[b.N/2], "µs/200")
	b.ReportMetric(many[b.N/2], "µs/20000")
	b.ReportMetric(many[b.N/2]/few[b.N/2], "ratio")
}

// history logs sessions of two hundred entries, on days before today.
func (p *practice) history(b *testing.B, entries int) {
	const each = 200
	sessions := entries / each
	for s := range sessions {
		start := p.now.AddDate(0, 0, s-sessions)
		n := store.Session{
			ID: uuid.NewString(), CaseID: p.kase, HorseID: p.horse, StartedAt: start.UnixMilli(), Zone: "UTC", Date: start.Format(time.DateOnly),
			School: horse.BuildAndRelease, Begins: horse.Ask{Step: "lead.forward"}, Handler: p.actor.User, Rules: p.Catalog.Rules,
		}
		require.NoError(b, p.Store.StartSession(context.Background(), p.actor, n))
		entries := make([]track.Entry, each)
		for i := range entries {
			r := track.Rep{Ask: horse.Ask{Step: []string{"lead.forward", "lead.halt", "head.down"}[i/70]}, Answer: []horse.Answer{horse.Accepted, horse.Try}[i%2], Peak: horse.LevelOf(1 + i%4)}
			entries[i] = track.Entry{ID: uuid.NewString(), Kind: track.KindRep, At: start.UnixMilli() + int64(i)*10_000, Device: "tablet", Seq: int64(i), Rep: &r}
		}
		_, _, err := p.Store.Append(context.Background(), p.actor, n.ID, 0, entries)
		require.NoError(b, err)
	}
}

func sessionsFor(n int) int { return (n + sessionLength - 1) / sessionLength }

// bareServer is the bare handler on a database of its own, with the path of
// each session.
func bareServer(b *testing.B, p *practice) (*bareHandler, []string) {
	path := filepath.Join(b.TempDir(), "bare.db")
	_, err := p.Store.Backup(context.Background(), path)
	require.NoError(b, err)
	dsn := "file:" + path + "?_pragma=busy_timeout(5000)&_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&"
	writer, err := sql.Open("sqlite", dsn+"_txlock=immediate")
	require.NoError(b, err)
	writer.SetMaxOpenConns(1)
	reader, err := sql.Open("sqlite", dsn+"_pragma=query_only(1)")
	require.NoError(b, err)
	b.Cleanup(func() { _, _ = writer.Close(), reader.Close() })
	bare := &bareHandler{writer: writer}
	var paths []string
	for range sessionsFor(b.N) {
		session := uuid.NewString()
		require.NoError(b, bare.begin(p, session))
		paths = append(paths, "/log/"+session)
	}
	bare.Handler = bareLog(b, p, writer, reader)
	return bare, paths
}

// bareHandler is the least that could keep entries.
type bareHandler struct {
	http.Handler
	writer *sql.DB
}

func (h *bareHandler) begin(p *practice, session string) error {
	_, err := h.writer.Exec(`INSERT INTO sessions (id, practice_id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version)
			VALUES (?, ?, ?, ?, ?, 0, 'UTC', '2026-06-01', 's', '{}', '', '{}', '', '{}', '')`, session, p.actor.Practice, p.kase, p.horse, p.actor.User)
	return err
}

func bareLog(b *testing.B, p *practice, writer, reader *sql.DB) http.Handler {
	engine := gin.New()
	engine.POST("/log/:id", func(g *gin.Context) {
		var in struct {
			Entries []json.RawMessage `json:"entries"`
		}
		var practice, user string
		token, err := g.Cookie(p.cookie.Name)
		if err == nil {
			err = reader.QueryRow(`SELECT s.practice_id, s.user_id FROM sign_ins AS s JOIN users AS u ON u.practice_id = s.practice_id AND u.id = s.user_id
				WHERE s.token_hash = ? AND s.expires_at > ? AND u.active = 1`, api.TokenHash(token), 0).Scan(&practice, &user)
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
			var e track.Entry
			if err == nil {
				err = json.Unmarshal(raw, &e)
			}
			if err == nil {
				err = e.Check(p.Catalog)
			}
			owned := false
			if err == nil {
				err = tx.QueryRow("SELECT EXISTS (SELECT 1 FROM sessions WHERE practice_id = ? AND id = ?)", practice, g.Param("id")).Scan(&owned)
			}
			if err == nil && owned {
				_, err = tx.Exec(`INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, clock_off, after_end, kind, written_by, body)
					VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0, 0, ?, ?, ?)`, e.ID, practice, g.Param("id"), e.Device, e.Seq, e.At, e.At, e.At, e.Kind.String(), user, string(raw))
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
