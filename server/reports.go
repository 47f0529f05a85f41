package server

import (
	"context"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/horse"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/store"
)

// Report is the page for the owner after one visit.
type Report struct {
	report.Document
	Session string   `json:"session"`
	Horse   HorseRef `json:"horse"`
	Yard    string   `json:"yard"`
	For     []string `json:"for" doc:"the owners"`
	By      string   `json:"by"`
	Date    string   `json:"date" format:"date"`
	Ended   bool     `json:"ended"`
	Version int64    `json:"version" doc:"of the trainer's wording; 0: none yet"`
	SavedBy string   `json:"saved_by,omitempty"`
	SavedAt int64    `json:"saved_at,omitempty"`
}

// Wording is the trainer's wording as it is kept, for a stale save.
type Wording struct {
	Version int64                  `json:"version"`
	SavedBy string                 `json:"saved_by"`
	Edits   map[string]report.Edit `json:"edits"`
}

// ReportRow is one report of a horse.
type ReportRow struct {
	Session string `json:"session"`
	Date    string `json:"date" format:"date"`
	Version int64  `json:"version"`
	SavedBy string `json:"saved_by,omitempty"`
	Ended   bool   `json:"ended"`
}

type wordingInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Version int64                  `json:"version" minimum:"0"`
		Edits   map[string]report.Edit `json:"edits" maxProperties:"80"`
	}
}

func (s *Server) reportOperations() {
	s.api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[Wording](), true, "")
	operation(s, staff, http.MethodGet, "/api/horses/{id}/reports", "reports", "A horse's reports, newest first", atOnce(s.reports))
	operation(s, staff, http.MethodGet, "/api/sessions/{id}/report", "report", "The owner's page of one visit", atOnce(s.report))
	operation(s, staff, http.MethodPut, "/api/sessions/{id}/report", "wordReport", "Keep the trainer's wording of a report", s.wordReport)
}

// document writes the report of the i-th session.
func (s *Server) document(r reading, i int) (report.Document, error) {
	day, visit := r.days[i], r.file.Visits[i]
	now := r.file
	var err error
	if i < len(r.days)-1 {
		if now, err = s.judge(r.sessions[i].Date, r, i+1); err != nil {
			return report.Document{}, err
		}
	}
	known := visit.Before
	review, err := arena.ReviewOf(now.Catalog(), arena.Input{
		School: r.sessions[i].School, Schools: now.Schools(), Ask: r.sessions[i].Begins, Started: day.Started, Handler: day.Handler, Known: known, Track: day.Track,
	})
	if err != nil {
		return report.Document{}, err
	}
	in := report.Input{
		Catalog: now.Catalog(), Horse: r.horse.Name, Record: r.horse.Record, Ladder: r.kase.Ladder, Goal: r.kase.Goal, NeededBy: r.kase.NeededBy,
		Story: now.Account().Story, Forbidden: now.Result.Forbidden, Rechecks: now.Result.Rechecks, Referrals: now.Referrals, Care: now.Risk.Care, NotCaught: now.Assessment.NotYet,
		Visit: visit, Review: review, Beads: arena.Beads(now.Catalog(), day, known, now.Schools()), Then: s.then(r, now, i), Baseline: now.Account().Baseline,
		Bridge: now.Bridge, Next: now.Plan.Next, FirstVisit: i == 0,
	}
	if now.Assessed != "" && (i == 0 || now.Assessed >= r.sessions[i-1].Date) {
		judged := now.Problem()
		in.Judged, in.Basis = &judged, now.Result.Basis
	}
	for _, h := range now.Plan.Homework {
		if !slices.Contains(in.Cleared, h.Step) {
			in.Cleared = append(in.Cleared, h.Step)
		}
	}
	events := casefile.Events(day)
	if i == 0 || now.Assessed == day.Date {
		events = append(events, now.SeenOn(day.Date)...)
	}
	for _, e := range events {
		if k := e.Kind.String(); !slices.Contains(in.Dangers, k) {
			in.Dangers = append(in.Dangers, k)
		}
	}
	for _, e := range arena.Live(day.Track) {
		if e.Mark != nil && e.Mark.Incident && e.Note != "" {
			in.Incidents = append(in.Incidents, e.Note)
		}
	}
	if end := endedBy(day.Track); end != nil {
		in.Ended = end.Note
	}
	return report.Visit(in), nil
}

// then is how each ask of a session was on the first day it was asked: in the
// assessment, else in the first session before this one.
func (s *Server) then(r reading, now casefile.File, n int) map[horse.Ask]report.Then {
	first := map[horse.Ask]report.Then{}
	for i := range n {
		beads := arena.Beads(now.Catalog(), r.days[i], r.file.Visits[i].Before, now.Schools())
		for _, b := range beads {
			if _, there := first[b.Ask]; !there {
				first[b.Ask] = report.Then{On: r.days[i].Date, Reps: progress.Count(beads, func(o arena.Told) bool { return o.Ask == b.Ask })}
			}
		}
	}
	for ask, level := range now.FeltFirst() {
		first[ask] = report.Then{On: now.Assessed, FirstDay: true, Reps: progress.Reps{Level: float64(level), Noted: true}}
	}
	return first
}

func (s *Server) readSession(ctx context.Context, c caller, id string) (reading, int, error) {
	n, err := c.view.Session(ctx, c.Practice, id)
	if err != nil {
		return reading{}, 0, err
	}
	r, err := s.read(ctx, c, n.CaseID)
	return r, r.before(id), err
}

func (s *Server) report(ctx context.Context, c caller, in *sessionInput) (Report, error) {
	r, i, err := s.readSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc, err := s.document(r, i)
	if err != nil {
		return Report{}, err
	}
	edits, err := c.view.Edits(ctx, c.Practice, in.ID)
	if err != nil {
		return Report{}, err
	}
	names, err := s.userNames(ctx, c)
	view := Report{
		Document: doc.With(edits.Edits), Session: in.ID, Horse: HorseRef{r.horse.ID, r.horse.Name}, Yard: r.horse.Yard.Name, For: []string{},
		By: names[r.sessions[i].StartedBy], Date: r.sessions[i].Date, Ended: ended(r.days[i].Track),
		Version: edits.Version, SavedBy: edits.By, SavedAt: edits.At,
	}
	for _, o := range r.horse.Owners {
		view.For = append(view.For, o.Name)
	}
	return view, err
}

func (s *Server) wordReport(ctx context.Context, c caller, in *wordingInput) (Report, error) {
	r, i, err := s.readSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc, err := s.document(r, i)
	if err != nil {
		return Report{}, err
	}
	known := map[string]bool{}
	for _, section := range doc.Sections {
		for _, sentence := range section.Sentences {
			known[sentence.ID] = true
		}
	}
	earlier, err := c.view.Edits(ctx, c.Practice, in.ID)
	if err != nil {
		return Report{}, err
	}
	var wrong []FieldProblem
	for id, e := range in.Body.Edits {
		if _, before := earlier.Edits[id]; !known[id] && !before {
			wrong = append(wrong, FieldProblem{Field: "edits." + id, Say: "This sentence is not in the report. Reload the page."})
		}
		if !e.Left && strings.TrimSpace(e.Text) == "" {
			wrong = append(wrong, FieldProblem{Field: "edits." + id, Say: "This sentence is empty. Write it, or leave it out."})
		}
	}
	if len(wrong) > 0 {
		return Report{}, faulty(wrong...)
	}
	err = s.Store.SaveEdits(ctx, c.who(), in.ID, store.Edits{Version: in.Body.Version, Edits: in.Body.Edits})
	if err != nil {
		return Report{}, stale(err, func(now any) Wording {
			e := now.(store.Edits)
			return Wording{Version: e.Version, SavedBy: e.By, Edits: e.Edits}
		})
	}
	return s.report(ctx, c, &sessionInput{ID: in.ID})
}

func (s *Server) reports(ctx context.Context, c caller, in *horseInput) ([]ReportRow, error) {
	r, err := s.newest(ctx, c, in.ID)
	if err != nil {
		return nil, err
	}
	rows := []ReportRow{}
	for i := len(r.sessions) - 1; i >= 0; i-- {
		edits, err := c.view.Edits(ctx, c.Practice, r.sessions[i].ID)
		if err != nil {
			return nil, err
		}
		rows = append(rows, ReportRow{Session: r.sessions[i].ID, Date: r.sessions[i].Date, Version: edits.Version, SavedBy: edits.By, Ended: ended(r.days[i].Track)})
	}
	return rows, nil
}
