package server

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/google/uuid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/attention"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/store"
)

// ProblemChoice is a problem that can be taken on, with its ladder.
type ProblemChoice struct {
	Problem horse.Problem  `json:"problem"`
	Ladder  string         `json:"ladder"`
	Name    phrase.Message `json:"name"`
}

// Owner is who owns a horse now.
type Owner struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Phone string `json:"phone"`
}

// Case is a horse's problem with its goal and date.
type Case struct {
	ID         string `json:"id"`
	Problem    string `json:"problem"`
	Ladder     string `json:"ladder"`
	Goal       string `json:"goal"`
	NeededBy   string `json:"needed_by,omitempty" format:"date"`
	OpenedOn   string `json:"opened_on" format:"date"`
	FinishedOn string `json:"finished_on,omitempty" format:"date"`
	Version    int64  `json:"version"`
}

// Horse is what is written down of a horse.
type Horse struct {
	ID      string        `json:"id"`
	Name    string        `json:"name"`
	YardID  string        `json:"yard_id,omitempty"`
	Yard    string        `json:"yard"`
	Record  assess.Record `json:"record"`
	Owners  []Owner       `json:"owners"`
	Version int64         `json:"version"`
}

// File is a horse's file on its newest case.
type File struct {
	Horse
	Case        Case              `json:"case"`
	Bridge      progress.Bridge   `json:"bridge"`
	Risk        assess.Risk       `json:"risk"`
	Precautions []phrase.Message  `json:"precautions"`
	Referrals   []assess.Referral `json:"referrals"`
	Unlooked    []phrase.Message  `json:"unlooked" doc:"what was not looked at; never to be shown as clear"`
	Attention   []attention.Note  `json:"attention"`
	Forbidden   []phrase.Message  `json:"forbidden" doc:"what leads every page of this horse until it is lifted"`
	Unread      []UnreadEntry     `json:"unread" doc:"entries that can't be read and are left out"`
	Assessed    string            `json:"assessed,omitempty" format:"date" doc:"day of the newest assessment; empty: never"`
	LastWorked  string            `json:"last_worked,omitempty" format:"date"`
	DaysOff     int               `json:"days_off"`
	Sessions    int               `json:"sessions"`
	Open        string            `json:"open_session,omitempty"`
	Since       []report.Figure   `json:"since" doc:"the last session against the first"`
	Beads       []arena.Told      `json:"beads" doc:"the last session's reps"`
	Planned     bool              `json:"planned" doc:"a plan was made"`
	Others      []progress.Bridge `json:"others" doc:"the bridges of the other problems in the plan"`
	Before      string            `json:"before" doc:"the problem as it was, in a few words; empty: not written down"`
}

// Intake is a horse to be taken on, with its owner and problem.
type Intake struct {
	Name     string        `json:"name" minLength:"1" maxLength:"120"`
	Record   assess.Record `json:"record"`
	OwnerID  string        `json:"owner_id,omitempty" maxLength:"36" doc:"an owner already known, or else owner"`
	Owner    *PersonText   `json:"owner,omitempty"`
	YardID   string        `json:"yard_id,omitempty" maxLength:"36" doc:"a yard already known, or else yard"`
	Yard     *YardText     `json:"yard,omitempty"`
	Problem  horse.Problem `json:"problem"`
	Goal     string        `json:"goal" minLength:"1" maxLength:"300" doc:"one checkable sentence"`
	NeededBy string        `json:"needed_by,omitempty" maxLength:"10"`
}

type intakeInput struct{ Body Intake }

type horseInput struct {
	ID string `path:"id" format:"uuid"`
}

type horseChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Name    string        `json:"name" minLength:"1" maxLength:"120"`
		YardID  string        `json:"yard_id,omitempty" maxLength:"36"`
		Record  assess.Record `json:"record"`
		Version int64         `json:"version" minimum:"1"`
	}
}

type caseChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Goal     string `json:"goal" minLength:"1" maxLength:"300"`
		NeededBy string `json:"needed_by,omitempty" maxLength:"10"`
		Finished bool   `json:"finished"`
		Version  int64  `json:"version" minimum:"1"`
	}
}

func (s *Server) horseOperations() {
	s.caseloadOperation()
	operation(s, staff, http.MethodGet, "/api/problems", "problems", "The problems that can be taken on", s.problems)
	operation(s, staff, http.MethodPost, "/api/horses", "takeOn", "Take on a horse: all of it is kept, or nothing", s.takeOn)
	operation(s, staff, http.MethodGet, "/api/horses/{id}", "horse", "A horse's file", atOnce(s.horse))
	operation(s, staff, http.MethodPut, "/api/horses/{id}", "changeHorse", "Change a horse's name, yard and record", s.changeHorse)
	operation(s, staff, http.MethodPut, "/api/cases/{id}", "changeCase", "Change a case's goal, date or end", s.changeCase)
}

func viewCase(k store.Case) Case {
	return Case{ID: k.ID, Problem: k.Problem, Ladder: k.Ladder, Goal: k.Goal, NeededBy: k.NeededBy, OpenedOn: k.OpenedOn, FinishedOn: k.FinishedOn, Version: k.Version}
}

func viewHorse(h store.Horse) Horse {
	view := Horse{ID: h.ID, Name: h.Name, YardID: h.YardID, Yard: h.Yard.Name, Record: h.Record, Owners: []Owner{}, Version: h.Version}
	for _, o := range h.Owners {
		view.Owners = append(view.Owners, Owner(o))
	}
	return view
}

func (s *Server) newest(ctx context.Context, c caller, horseID string) (r reading, err error) {
	err = c.atOneMoment(ctx, func(c caller) error {
		h, kase, err := s.newestCase(ctx, c, horseID)
		if err != nil {
			return err
		}
		r, err = s.readOf(ctx, c, h, kase)
		return err
	})
	return r, err
}

func (s *Server) newestCase(ctx context.Context, c caller, horseID string) (store.Horse, store.Case, error) {
	h, err := c.view.Horse(ctx, c.Practice, horseID)
	if err != nil {
		return store.Horse{}, store.Case{}, err
	}
	kase, err := c.view.NewestCase(ctx, c.Practice, horseID)
	return h, kase, err
}

func (s *Server) horse(ctx context.Context, c caller, in *horseInput) (File, error) {
	r, err := s.newest(ctx, c, in.ID)
	if err != nil {
		return File{}, err
	}
	return s.viewFile(ctx, c, r)
}

func (s *Server) viewFile(ctx context.Context, c caller, r reading) (File, error) {
	f := r.file
	plans, err := c.view.Plans(ctx, c.Practice, r.kase.ID)
	view := File{
		Horse: viewHorse(r.horse), Case: viewCase(r.kase), Bridge: f.Bridge, Risk: f.Risk, Precautions: f.Result.Precautions,
		Referrals: f.Result.Referrals, Unlooked: f.Problem().Unlooked, Attention: f.Attention(), Forbidden: f.Result.Forbidden, Unread: r.left(), Assessed: f.Assessed,
		LastWorked: f.LastWorked(), DaysOff: f.DaysOff, Sessions: r.history.Sessions(), Open: r.history.Open,
		Since: []report.Figure{}, Beads: []arena.Told{}, Planned: len(plans) > 0,
		Before: cmp.Or(f.Account().Baseline.Note, f.Account().Story.Description),
	}
	for _, w := range f.Plan().Ways {
		if b, ok := f.BridgeOf(w.Ladder); ok && !w.Problem.IsZero() && w.Ladder != f.Bridge.Ladder {
			view.Others = append(view.Others, b)
		}
	}
	if err != nil {
		return File{}, err
	}
	newest := store.Session{}
	for len(view.Since) == 0 { // the newest that can be compared
		n, err := c.view.SessionBefore(ctx, c.Practice, r.horse.ID, newest)
		if errors.Is(err, store.ErrNotFound) {
			break
		}
		if err != nil {
			return File{}, err
		}
		t, err := s.tell(ctx, c, r, n)
		if err != nil {
			return File{}, err
		}
		if newest.ID == "" {
			view.Beads = append(view.Beads, t.beads(f)...)
		}
		doc, err := s.document(ctx, c, r, t)
		if err != nil {
			return File{}, err
		}
		view.Since, newest = doc.Figures, n
	}
	return view, nil
}

func (s *Server) takeOn(ctx context.Context, c caller, in *intakeInput) (Horse, error) {
	b, today := in.Body, c.today()
	wrong := faults("record.", b.Record.Check(today))
	need := func(field, text, say string) string {
		text = strings.TrimSpace(text)
		if text == "" {
			wrong = append(wrong, FieldProblem{Field: field, Say: say})
		}
		return text
	}
	intake := store.Intake{
		Horse:   store.Horse{ID: uuid.NewString(), Name: need("name", b.Name, "Give the horse's name."), YardID: b.YardID, Record: b.Record},
		OwnerID: b.OwnerID,
		Case: store.Case{
			ID: uuid.NewString(), Problem: b.Problem.String(), Goal: need("goal", b.Goal, "Say in one sentence how we will know it's fixed."),
			NeededBy: b.NeededBy, OpenedOn: today,
		},
	}
	wrong = append(wrong, neededBy(b.NeededBy, today)...)
	ladder, ok := s.Catalog.LadderFor(b.Problem)
	intake.Case.Ladder = ladder.Key
	if !ok {
		wrong = append(wrong, FieldProblem{Field: "problem", Say: "Choose the problem."})
	}
	switch {
	case b.Owner != nil:
		p, bad := b.Owner.person("owner.")
		p.ID = uuid.NewString()
		intake.NewOwner, wrong = &p, append(wrong, bad...)
	case b.OwnerID == "":
		wrong = append(wrong, FieldProblem{Field: "owner_id", Say: "Choose the owner, or write down a new one."})
	}
	if b.Yard != nil {
		y, bad := b.Yard.yard("yard.")
		y.ID = uuid.NewString()
		intake.NewYard, wrong = &y, append(wrong, bad...)
	}
	if len(wrong) > 0 {
		return Horse{}, faulty(wrong...)
	}
	if err := s.Store.TakeOn(ctx, c.actor(), intake); err != nil {
		return Horse{}, err
	}
	h, err := c.view.Horse(ctx, c.Practice, intake.Horse.ID)
	return viewHorse(h), err
}

func neededBy(date, today string) []FieldProblem {
	if date == "" {
		return nil
	}
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		return []FieldProblem{{Field: "needed_by", Say: "This is not a date. Write it as year-month-day, for example 2026-05-01."}}
	}
	if date < today {
		return []FieldProblem{{Field: "needed_by", Say: "This day has passed. Give a day to come, or leave it empty."}}
	}
	return nil
}

func (s *Server) changeHorse(ctx context.Context, c caller, in *horseChange) (Horse, error) {
	wrong := faults("record.", in.Body.Record.Check(c.today()))
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		wrong = append(wrong, FieldProblem{Field: "name", Say: "Give the horse's name."})
	}
	if len(wrong) > 0 {
		return Horse{}, faulty(wrong...)
	}
	err := s.Store.UpdateHorse(ctx, c.actor(), store.Horse{ID: in.ID, Name: name, YardID: in.Body.YardID, Record: in.Body.Record, Version: in.Body.Version})
	if err != nil {
		return Horse{}, stale(err, func(now any) Horse { return viewHorse(now.(store.Horse)) })
	}
	s.arenas.forget() // young or guarding horses are advised otherwise
	h, err := c.view.Horse(ctx, c.Practice, in.ID)
	return viewHorse(h), err
}

func (s *Server) changeCase(ctx context.Context, c caller, in *caseChange) (Case, error) {
	k, err := c.view.Case(ctx, c.Practice, in.ID)
	if err != nil {
		return Case{}, err
	}
	goal := strings.TrimSpace(in.Body.Goal)
	var wrong []FieldProblem
	if goal == "" {
		wrong = append(wrong, FieldProblem{Field: "goal", Say: "Say in one sentence how we will know it's fixed."})
	}
	if in.Body.NeededBy != k.NeededBy {
		wrong = append(wrong, neededBy(in.Body.NeededBy, c.today())...)
	}
	if len(wrong) > 0 {
		return Case{}, faulty(wrong...)
	}
	k.Goal, k.NeededBy, k.Version = goal, in.Body.NeededBy, in.Body.Version
	switch {
	case !in.Body.Finished:
		k.FinishedOn = ""
	case k.FinishedOn == "":
		k.FinishedOn = c.today()
	}
	if err := s.Store.UpdateCase(ctx, c.actor(), k); err != nil {
		return Case{}, stale(err, func(now any) Case { return viewCase(now.(store.Case)) })
	}
	k.Version++
	return viewCase(k), nil
}
