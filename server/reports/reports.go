// Package reports answers for the owner's pages and the trainer's wording of them.
package reports

import (
	"context"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/report"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Service answers for reports.
type Service struct{ *cases.Reader }

// New registers what can be asked of reports.
func New(r *cases.Reader) *Service {
	s := &Service{r}
	s.reportOperations()
	s.wholeOperations()
	return s
}

// Report is the page for the owner after one visit.
type Report struct {
	report.Document
	Session string         `json:"session"`
	Horse   cases.HorseRef `json:"horse"`
	Yard    string         `json:"yard"`
	For     []string       `json:"for" doc:"the owners"`
	By      string         `json:"by"`
	Date    string         `json:"date" format:"date"`
	Ended   bool           `json:"ended"`
	Version int64          `json:"version" doc:"of the trainer's wording; 0: none yet"`
	SavedBy string         `json:"saved_by,omitempty"`
	SavedAt int64          `json:"saved_at,omitempty"`
	Owners  []Receiver     `json:"owners" doc:"whom it is for, with what they are here under"`
	Reps    []RepBehind    `json:"reps" doc:"what was logged, that sentences stand on"`
	Message string         `json:"message" doc:"as plain text, for a message"`
	SentAt  int64          `json:"sent_at,omitempty" doc:"since when the owners' links show it, ms; absent: it was not sent"`
	SentBy  string         `json:"sent_by,omitempty"`
}

// RepBehind is one rep that a sentence stands on.
type RepBehind struct {
	ID    string       `json:"id"`
	At    int64        `json:"at" doc:"ms"`
	Ask   string       `json:"ask" doc:"its name"`
	Says  horse.Answer `json:"answer"`
	Level horse.Level  `json:"level,omitzero"`
	Ways  []string     `json:"ways,omitempty"`
}

// Receiver is an owner that a page is for.
type Receiver struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Phone string `json:"phone"`
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

func (s *Service) reportOperations() {
	s.Huma.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[Wording](), true, "")
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/reports", "reports", "A horse's reports, newest first", api.AtOnce(s.reports))
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/sessions/{id}/report", "report", "The owner's page of one visit", api.AtOnce(s.report))
	huma.Register(s.Huma, s.Describe(api.Staff, http.MethodGet, "/api/sessions/{id}/report.pdf", "reportPDF", "The owner's page of one visit, to print or to send"), s.reportPDF)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/sessions/{id}/report", "wordReport", "Keep the trainer's wording of a report", s.wordReport)
}

func (s *Service) report(ctx context.Context, c api.Caller, in *api.ByID) (Report, error) {
	r, t, err := s.ReadSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	s.Opened(ctx, c, r.Horse.ID, cases.OpenedReport)
	doc, err := s.Document(ctx, c, r, t, cases.OwnersAll)
	if err != nil {
		return Report{}, err
	}
	edits, err := c.View.Edits(ctx, c.Practice, in.ID)
	if err != nil {
		return Report{}, err
	}
	names, err := s.UserNames(ctx, c)
	if err != nil {
		return Report{}, err
	}
	sent, err := c.View.Sent(ctx, c.Practice, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc = doc.With(edits.Edits)
	title := c.Book.Say(phrase.Of("report.message.title", phrase.Args{"horse": r.Horse.Name, "on": phrase.Date(t.Date), "who": c.Home.Name}))
	view := Report{
		Document: doc, Owners: []Receiver{}, Reps: []RepBehind{}, Message: doc.Text(c.Book, title), SentAt: sent.At, SentBy: sent.By, Session: in.ID, Horse: cases.RefOf(r.Horse), Yard: r.Horse.Yard.Name, For: []string{},
		By: names[t.StartedBy], Date: t.Date, Ended: cases.EndedBy(t.Day.Track) != nil,
		Version: edits.Version, SavedBy: edits.By, SavedAt: edits.At,
	}
	for _, o := range r.Horse.Owners {
		view.For = append(view.For, o.Name)
	}
	for _, o := range r.Horse.Holders() {
		view.Owners = append(view.Owners, Receiver{ID: o.ID, Name: o.Name, Phone: o.Phone})
	}
	for _, b := range t.Beads(r.File) {
		one := RepBehind{ID: b.ID, At: b.At, Ask: assess.NameOf(r.File.Catalog, b.Step), Says: b.Answer, Level: b.Peak}
		for _, way := range b.WaysOut {
			one.Ways = append(one.Ways, way.String())
		}
		view.Reps = append(view.Reps, one)
	}
	return view, nil
}

func (s *Service) wordReport(ctx context.Context, c api.Caller, in *wordingInput) (Report, error) {
	r, t, err := s.ReadSession(ctx, c, in.ID)
	if err != nil {
		return Report{}, err
	}
	doc, err := s.Document(ctx, c, r, t, cases.OwnersAll)
	if err != nil {
		return Report{}, err
	}
	earlier, err := c.View.Edits(ctx, c.Practice, in.ID)
	if err != nil {
		return Report{}, err
	}
	if err := unworded(doc, earlier.Edits, in.Body.Edits); err != nil {
		return Report{}, err
	}
	err = s.Store.SaveEdits(ctx, c.Actor(), in.ID, store.Edits{Version: in.Body.Version, Edits: in.Body.Edits})
	if err != nil {
		return Report{}, staleWording(err)
	}
	return s.report(ctx, c, &api.ByID{ID: in.ID})
}

// unworded says which of the trainer's sentences can't be kept: those of another page,
// empty ones, and an incident that is left out without a reason.
func unworded(doc report.Document, earlier, edits map[string]report.Edit) error {
	sentences := map[string]report.Sentence{}
	for _, section := range doc.Sections {
		for _, sentence := range section.Sentences {
			sentences[sentence.ID] = sentence
		}
	}
	var wrong []api.FieldProblem
	for id, e := range edits {
		now, known := sentences[id]
		if _, before := earlier[id]; !known && !before {
			wrong = append(wrong, api.FieldProblem{Field: "edits." + id, Say: "This sentence is not in the report. Reload the page."})
		}
		if e.Left && now.Grave && strings.TrimSpace(e.Reason) == "" {
			wrong = append(wrong, api.FieldProblem{Field: "edits." + id, Say: "An incident is left out with a reason only. It stays on record."})
		}
		if !e.Left && strings.TrimSpace(e.Text) == "" {
			wrong = append(wrong, api.FieldProblem{Field: "edits." + id, Say: "This sentence is empty. Write it, or leave it out."})
		}
	}
	if len(wrong) > 0 {
		return api.Faulty(wrong...)
	}
	return nil
}

// staleWording is what a save came to where somebody else saved one in between.
func staleWording(err error) error {
	return api.Stale(err, func(now any) Wording {
		e := now.(store.Edits)
		return Wording{Version: e.Version, SavedBy: e.By, Edits: e.Edits}
	})
}

func (s *Service) reports(ctx context.Context, c api.Caller, in *api.ByID) ([]ReportRow, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return nil, err
	}
	rows := []ReportRow{}
	list, err := c.View.SessionsOf(ctx, c.Practice, r.Horse.ID)
	if err != nil {
		return nil, err
	}
	for _, n := range slices.Backward(list) {
		edits, err := c.View.Edits(ctx, c.Practice, n.ID)
		if err != nil {
			return nil, err
		}
		ended, err := c.View.Ended(ctx, c.Practice, n.ID)
		if err != nil {
			return nil, err
		}
		rows = append(rows, ReportRow{Session: n.ID, Date: n.Date, Version: edits.Version, SavedBy: edits.By, Ended: ended})
	}
	return rows, nil
}
