package server

import (
	"context"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/report"
	"ivorybridge/core/track"
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

// document writes the report of a session.
func (s *Server) document(ctx context.Context, c caller, r reading, t told) (report.Document, error) {
	next, err := c.view.NextStart(ctx, c.Practice, r.horse.ID, t.Session)
	if err != nil {
		return report.Document{}, err
	}
	now := r.file
	if t.after.Sessions() < r.history.Sessions() {
		if now, err = s.judge(t.Date, r.asOf(next), t.after); err != nil {
			return report.Document{}, err
		}
	}
	visit := t.visit.In(now.Catalog)
	review, err := arena.ReviewOf(now.Catalog, arena.Input{
		School: t.School, Schools: now.Schools(), Ask: t.Begins, Started: t.day.Started, Handler: t.day.Handler, Known: visit.Before, Track: t.day.Track,
	})
	if err != nil {
		return report.Document{}, err
	}
	in := report.Input{
		Catalog: now.Catalog, Horse: r.horse.Name, Record: r.horse.Record, Ladder: r.kase.Ladder, Goal: r.kase.Goal, NeededBy: r.kase.NeededBy,
		Story: now.Account().Story, Forbidden: now.Result.Forbidden, Rechecks: now.Result.Rechecks, Referrals: now.Result.Referrals, Care: now.Risk.Care, NotCaught: now.Assessment.NotYet,
		Visit: visit, Review: review, Beads: arena.Beads(now.Catalog, t.day, visit.Before, now.Schools()), Then: then(now, t.before), Baseline: now.Account().Baseline,
		Bridge: now.Bridge, Next: now.Plan().Next, FirstVisit: t.before.Sessions() == 0,
	}
	if now.Assessed != "" && now.Assessed >= t.before.LastWorked() {
		judged := now.Problem()
		in.Judged, in.Basis = &judged, now.Result.Basis
	}
	for _, h := range now.Plan().Homework {
		if !slices.Contains(in.Cleared, h.Step) {
			in.Cleared = append(in.Cleared, h.Step)
		}
	}
	events := t.events()
	if t.before.Sessions() == 0 || now.Assessed == t.Date {
		events = append(events, now.SeenOn(t.Date)...)
	}
	for _, e := range events {
		if k := e.Kind.String(); !slices.Contains(in.Dangers, k) {
			in.Dangers = append(in.Dangers, k)
		}
	}
	for _, e := range track.Live(t.day.Track) {
		if e.Mark != nil && e.Mark.Incident && e.Note != "" {
			in.Incidents = append(in.Incidents, e.Note)
		}
	}
	if end := endedBy(t.day.Track); end != nil {
		in.Ended = end.Note
	}
	return report.Visit(in), nil
}

// then is how each ask was on the first day it was asked: in the assessment, else
// in the first session of those that came before.
func then(now *casefile.File, before history.History) map[horse.Ask]report.Then {
	first, schools := map[horse.Ask]report.Then{}, now.Schools()
	for _, f := range before.Firsts {
		step, _ := now.Catalog.Step(f.Step)
		first[f.Ask] = report.Then{On: f.On, Reps: f.In(schools[step.Ladder])}
	}
	for ask, level := range now.Levels() {
		first[ask] = report.Then{On: now.Assessed, FirstDay: true, Reps: history.Reps{Level: float64(level), Noted: true}}
	}
	return first
}

// readSession reads a session of a case with what came before it.
func (s *Server) readSession(ctx context.Context, c caller, id string) (r reading, t told, err error) {
	err = c.atOneMoment(ctx, func(c caller) error {
		n, err := c.view.Session(ctx, c.Practice, id)
		if err != nil {
			return err
		}
		if r, err = s.read(ctx, c, n.CaseID); err != nil {
			return err
		}
		t, err = s.tell(ctx, c, r, n)
		return err
	})
	return r, t, err
}

func (s *Server) report(ctx context.Context, c caller, in *sessionInput) (Report, error) {
	r, t, err := s.readSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc, err := s.document(ctx, c, r, t)
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
		By: names[t.StartedBy], Date: t.Date, Ended: endedBy(t.day.Track) != nil,
		Version: edits.Version, SavedBy: edits.By, SavedAt: edits.At,
	}
	for _, o := range r.horse.Owners {
		view.For = append(view.For, o.Name)
	}
	return view, err
}

func (s *Server) wordReport(ctx context.Context, c caller, in *wordingInput) (Report, error) {
	r, t, err := s.readSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc, err := s.document(ctx, c, r, t)
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
	err = s.Store.SaveEdits(ctx, c.actor(), in.ID, store.Edits{Version: in.Body.Version, Edits: in.Body.Edits})
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
	list, err := c.view.SessionsOf(ctx, c.Practice, r.horse.ID)
	if err != nil {
		return nil, err
	}
	for _, n := range slices.Backward(list) {
		edits, err := c.view.Edits(ctx, c.Practice, n.ID)
		if err != nil {
			return nil, err
		}
		ended, err := c.view.Ended(ctx, c.Practice, n.ID)
		if err != nil {
			return nil, err
		}
		rows = append(rows, ReportRow{Session: n.ID, Date: n.Date, Version: edits.Version, SavedBy: edits.By, Ended: ended})
	}
	return rows, nil
}
