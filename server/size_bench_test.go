package server_test

import (
	"context"
	"fmt"
	"net/http"
	"runtime"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/diary"
	"ivorybridge/demo"
	"ivorybridge/store"
)

func quantile(took []float64, q float64) float64 {
	took = slices.Sorted(slices.Values(took))
	return took[min(int(q*float64(len(took))), len(took)-1)]
}

// sides reports the medians of two sizes and their ratio.
func sides(b *testing.B, what string, large, small []float64) {
	b.Helper()
	b.ReportMetric(quantile(large, 0.5), "µs/"+what+"-large")
	b.ReportMetric(quantile(small, 0.5), "µs/"+what+"-small")
	b.ReportMetric(quantile(large, 0.5)/quantile(small, 0.5), what+"-ratio")
}

// The caseload of 200 horses and of five, in turn: as it is opened again, after
// a rep was logged on one horse, and by a server that has just begun.
func BenchmarkCaseload(b *testing.B) {
	large := invented(b, demo.Size{Horses: 200, Sessions: 40, Entries: 60, Seed: 1})
	small := invented(b, demo.Size{Horses: 5, Sessions: 40, Entries: 60, Seed: 1})
	const path = "/api/caseload"
	start := time.Now()
	large.took(http.MethodGet, path, nil)
	b.Logf("the first ever, all histories folded: %v", time.Since(start))
	small.took(http.MethodGet, path, nil)
	sessions := []string{large.begin(large.horses[0]), small.begin(small.horses[0])}
	var took [3][2][]float64
	b.ResetTimer()
	for i := range b.N {
		for k, s := range []*sized{large, small} {
			if i < 5 {
				s.restart()
				took[2][k] = append(took[2][k], s.took(http.MethodGet, path, nil))
			}
			took[0][k] = append(took[0][k], s.took(http.MethodGet, path, nil))
			s.rep(sessions[k], i+1)
			took[1][k] = append(took[1][k], s.took(http.MethodGet, path, nil))
		}
	}
	sides(b, "again", took[0][0], took[0][1])
	sides(b, "changed", took[1][0], took[1][1])
	sides(b, "cold", took[2][0], took[2][1])

	for _, h := range large.horses {
		for _, page := range []string{"/api/horses/" + h.ID, "/api/cases/" + large.cases[h.ID].ID + "/plan", "/api/horses/" + h.ID + "/sessions"} {
			large.took(http.MethodGet, page, nil)
		}
	}
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	b.ReportMetric(float64(m.HeapInuse)/(1<<20), "MB/heap")
}

// The pages of a horse of three years' work and of one of five sessions, in
// turn, the assessment's marks, and the arena opened cold.
func BenchmarkPages(b *testing.B) {
	large := invented(b, demo.Size{Horses: 1, Sessions: 200, Entries: 100, Seed: 3})
	small := invented(b, demo.Size{Horses: 1, Sessions: 5, Entries: 100, Seed: 3})
	took := map[string]*[2][]float64{}
	add := func(what string, k int, us float64) {
		if took[what] == nil {
			took[what] = &[2][]float64{}
		}
		took[what][k] = append(took[what][k], us)
	}
	assessment := []string{uuid.NewString(), uuid.NewString()}
	running := make([]string, 2)
	for k, s := range []*sized{large, small} {
		s.took(http.MethodGet, "/api/horses/"+s.horses[0].ID, nil)
		running[k] = s.begin(s.horses[0])
	}
	b.ResetTimer()
	for i := range b.N {
		for k, s := range []*sized{large, small} {
			h := s.horses[0]
			last, err := s.db.SessionsOf(context.Background(), s.practice, h.ID)
			require.NoError(b, err)
			after := "/api/sessions/" + last[len(last)-2].ID
			add("horse", k, s.took(http.MethodGet, "/api/horses/"+h.ID, nil))
			add("plan", k, s.took(http.MethodGet, "/api/cases/"+s.cases[h.ID].ID+"/plan", nil))
			add("after", k, s.took(http.MethodGet, after+"/summary", nil))
			add("mark", k, s.took(http.MethodPost, "/api/horses/"+h.ID+"/assessments/"+assessment[k]+"/marks", map[string]any{"sent_at": 0, "marks": []any{map[string]any{
				"id": uuid.NewString(), "device": "tablet", "seq": i + 1, "at": s.now.UnixMilli(), "path": "body/hind leg", "value": map[string]string{"state": []string{"clear", "suspect"}[i%2]},
			}}}))
			require.NoError(b, s.db.AddPerson(context.Background(), store.Actor{Practice: s.practice, User: s.user, At: s.now.UnixMilli()}, store.Person{ID: uuid.NewString(), Kind: "other", Name: fmt.Sprint("person ", i)}))
			s.restart()
			add("arena", k, s.took(http.MethodGet, running[k], nil))
		}
	}
	for _, what := range []string{"horse", "plan", "after", "mark", "arena"} {
		sides(b, what, took[what][0], took[what][1])
	}
}

// A rep while another device opens the caseload of 200 horses, over and over,
// against a rep alone.
func BenchmarkRepBesideTheCaseload(b *testing.B) {
	s := invented(b, demo.Size{Horses: 200, Sessions: 40, Entries: 60, Seed: 1})
	s.took(http.MethodGet, "/api/caseload", nil)
	path := s.begin(s.horses[0])
	var alone, beside []float64
	n := 0
	b.ResetTimer()
	for range b.N {
		n++
		alone = append(alone, s.rep(path, n))
	}
	var opening sync.WaitGroup
	stop := make(chan struct{})
	opening.Go(func() {
		for {
			select {
			case <-stop:
				return
			default:
				s.took(http.MethodGet, "/api/caseload", nil)
			}
		}
	})
	for range b.N {
		n++
		beside = append(beside, s.rep(path, n))
	}
	close(stop)
	opening.Wait()
	b.ReportMetric(quantile(alone, 0.95), "µs/alone-p95")
	b.ReportMetric(quantile(beside, 0.95), "µs/beside-p95")
	b.ReportMetric(quantile(beside, 0.95)/quantile(alone, 0.95), "ratio")
}

// What changed over a horse with 500 sessions and 20,000 entries, as the page asks.
func BenchmarkProgress(b *testing.B) {
	s := invented(b, demo.Size{Horses: 1, Sessions: 500, Entries: 40, Seed: 1})
	path := "/api/horses/" + s.horses[0].ID + "/progress"
	start := time.Now()
	s.took(http.MethodGet, path, nil)
	b.Logf("the first ever, the history folded: %v", time.Since(start))
	b.ResetTimer()
	var took []float64
	for range b.N {
		took = append(took, s.took(http.MethodGet, path, nil))
	}
	b.ReportMetric(quantile(took, 0.5)/1000, "ms/progress")
}

// The papers of a horse with 500 sessions and 20,000 entries, and the page that its
// owner opens.
func BenchmarkPapers(b *testing.B) {
	s := invented(b, demo.Size{Horses: 1, Sessions: 500, Entries: 40, Seed: 1})
	h := s.horses[0]
	sessions, err := s.db.SessionsOf(context.Background(), s.practice, h.ID)
	require.NoError(b, err)
	last := "/api/sessions/" + sessions[len(sessions)-1].ID
	paths := map[string]string{
		"report": last + "/report", "report-pdf": last + "/report.pdf", "closing": "/api/horses/" + h.ID + "/closing", "file": "/api/horses/" + h.ID + "/file",
	}
	took := map[string][]float64{}
	for _, path := range paths {
		s.took(http.MethodGet, path, nil)
	}
	b.ResetTimer()
	for range b.N {
		for what, path := range paths {
			took[what] = append(took[what], s.took(http.MethodGet, path, nil))
		}
	}
	for what, list := range took {
		b.ReportMetric(quantile(list, 0.5)/1000, "ms/"+what)
	}
}

// A year of the diary, of a practice of two hundred horses and of one of five: it is to
// open as fast, by half and more.
func BenchmarkDiary(b *testing.B) {
	for _, horses := range []int{5, 200} {
		s := invented(b, demo.Size{Horses: horses, Sessions: 4, Entries: 20, Seed: 1})
		s.booked(b)
		path := "/api/diary?from=2026-01-01&days=21"
		start := time.Now()
		s.took(http.MethodGet, path, nil)
		b.Logf("%d horses, the first ever: %v", horses, time.Since(start))
		b.Run(fmt.Sprintf("%d horses", horses), func(b *testing.B) {
			var took []float64
			for range b.N {
				took = append(took, s.took(http.MethodGet, path, nil))
			}
			b.ReportMetric(quantile(took, 0.5)/1000, "ms/diary")
		})
	}
}

// booked puts three visits on each day of a year, whatever horses there are.
func (s *sized) booked(b *testing.B) {
	users, err := s.db.Users(context.Background(), s.practice)
	require.NoError(b, err)
	actor := store.Actor{Practice: s.practice, User: users[0].ID, At: time.Now().UnixMilli()}
	day := time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)
	for n := range 3 * 365 {
		h := s.horses[n%len(s.horses)]
		at := diary.Clock(480 + 120*(n%3))
		v := store.Visit{ID: uuid.NewString(), Yard: store.Named{ID: h.YardID}, Who: store.Named{ID: users[0].ID}, On: day.AddDate(0, 0, n/3).Format(time.DateOnly), At: &at, Minutes: 45, Zone: "Europe/London", Agreed: true, Horses: []store.Named{{ID: h.ID}}}
		require.NoError(b, s.db.AddVisit(context.Background(), actor, v))
	}
}
