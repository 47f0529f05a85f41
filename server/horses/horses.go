// Package horses answers for the caseload, a horse's file, its photographs and
// the letters about it.
package horses

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/attention"
	"ivorybridge/core/headline"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/server/limits"
	"ivorybridge/server/people"
	"ivorybridge/store"
)

// Service answers for horses.
type Service struct {
	*cases.Reader
	caseloads *caseloads
	changed   func()
	room      int64         // for a practice's photographs, in bytes
	unpacking chan struct{} // one picture at a time
	sent      *limits.Limits
}

// New registers what can be asked of horses. changed is called when a horse was
// changed: what its sessions are advised by must be read again. room is for the
// photographs of one practice, in bytes.
func New(r *cases.Reader, room int64, changed func()) *Service {
	s := &Service{Reader: r, caseloads: newCaseloads(), changed: changed, room: room, unpacking: make(chan struct{}, 1), sent: limits.New(r.Store)}
	s.horseOperations()
	s.handlerOperations()
	s.letterOperations()
	s.photographOperations()
	return s
}

// problems lists the problem behaviours that have a ladder.
func (s *Service) problems(context.Context, api.Caller, *struct{}) ([]cases.ProblemChoice, error) {
	choices := []cases.ProblemChoice{}
	for _, p := range (horse.Problem{}).All() {
		if l, ok := s.Catalog.LadderFor(p); ok {
			choices = append(choices, cases.ChoiceOf(p, l))
		}
	}
	return choices, nil
}

// Owner is who owns a horse now.
type Owner struct {
	ID    string `json:"id"`
	Kind  string `json:"kind" enum:"owner,yard,rescue,vet,dentist,farrier,other"`
	Name  string `json:"name"`
	Phone string `json:"phone"`
}

// Horse is what is written down of a horse.
type Horse struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	YardID   string        `json:"yard_id,omitempty"`
	Yard     string        `json:"yard"`
	Record   assess.Record `json:"record"`
	Owners   []Owner       `json:"owners"`
	Handlers []Owner       `json:"handlers" doc:"those who handle it for the owner"`
	Version  int64         `json:"version"`
}

// File is a horse's file on its newest case.
type File struct {
	Horse
	Case        cases.Case          `json:"case"`
	Headline    headline.Headline   `json:"headline" doc:"what is next"`
	Bridge      progress.Bridge     `json:"bridge"`
	Risk        assess.Risk         `json:"risk"`
	Precautions []phrase.Message    `json:"precautions"`
	Referrals   []assess.Referral   `json:"referrals"`
	Unlooked    []phrase.Message    `json:"unlooked" doc:"what was not looked at; never to be shown as clear"`
	Attention   []attention.Note    `json:"attention"`
	Later       []attention.Later   `json:"later" doc:"what wants attention and is set aside"`
	Forbidden   []phrase.Message    `json:"forbidden" doc:"what leads every page of this horse until it is lifted"`
	Unread      []cases.UnreadEntry `json:"unread" doc:"entries that can't be read and are left out"`
	Assessed    string              `json:"assessed,omitempty" format:"date" doc:"day of the newest assessment; empty: never"`
	LastWorked  string              `json:"last_worked,omitempty" format:"date"`
	DaysOff     int                 `json:"days_off"`
	Sessions    int                 `json:"sessions"`
	Open        string              `json:"open_session,omitempty"`
	Since       []report.Figure     `json:"since" doc:"the last session against the first"`
	Beads       []arena.Told        `json:"beads" doc:"the last session's reps"`
	Planned     bool                `json:"planned" doc:"a plan was made"`
	Others      []progress.Bridge   `json:"others" doc:"the bridges of the other problems in the plan"`
	Things      []history.Thing     `json:"things" doc:"the things that it has met in its sessions"`
	Before      string              `json:"before" doc:"the problem as it was, in a few words; empty: not written down"`
}

// Intake is a horse to be taken on, with its owner and problem.
type Intake struct {
	Name     string                   `json:"name" minLength:"1" maxLength:"120"`
	Record   assess.Record            `json:"record"`
	OwnerID  string                   `json:"owner_id,omitempty" maxLength:"36" doc:"an owner already known, or else owner"`
	Owner    *people.PersonText       `json:"owner,omitempty" doc:"a person, a yard or a rescue"`
	Handlers []people.PersonText      `json:"handlers,omitempty" maxItems:"12" doc:"new people who handle it for the owner"`
	YardID   string                   `json:"yard_id,omitempty" maxLength:"36" doc:"a yard already known, or else yard"`
	Yard     *people.YardText         `json:"yard,omitempty"`
	Problem  horse.Problem            `json:"problem" doc:"the one that the case is named for"`
	Also     []horse.Problem          `json:"also,omitempty" maxItems:"6" doc:"further problems that it comes with"`
	Until    map[horse.Problem]string `json:"until,omitempty" doc:"by problem, the plank on which its goal lies; absent: the ladder's last"`
	Thing    string                   `json:"thing,omitempty" maxLength:"60" doc:"what a case of a new thing is about"`
	Goal     string                   `json:"goal" minLength:"1" maxLength:"300" doc:"one checkable sentence"`
	NeededBy string                   `json:"needed_by,omitempty" maxLength:"10"`
}

// TakenOn is a horse with the case that was opened for it.
type TakenOn struct {
	Horse
	CaseID string `json:"case_id"`
}

type intakeInput struct{ Body Intake }

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
		Thing    string `json:"thing,omitempty" maxLength:"60"`
		Finished bool   `json:"finished"`
		Version  int64  `json:"version" minimum:"1"`
	}
}

func (s *Service) horseOperations() {
	s.caseloadOperation()
	s.incidentOperations()
	s.sentOperations()
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/problems", "problems", "The problems that can be taken on", s.problems)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/horses", "takeOn", "Take on a horse: all of it is kept, or nothing", s.takeOn)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/horses/{id}/set-aside", "setAside", "Set a note of a horse aside until a day, or show it again", s.setAside)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/horses/{id}", "horse", "A horse's file", api.AtOnce(s.horse))
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/horses/{id}", "changeHorse", "Change a horse's name, yard and record", s.changeHorse)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/cases/{id}", "changeCase", "Change a case's goal, date or end", s.changeCase)
}

func viewHorse(h store.Horse) Horse {
	view := Horse{ID: h.ID, Name: h.Name, YardID: h.YardID, Yard: h.Yard.Name, Record: h.Record, Owners: []Owner{}, Handlers: []Owner{}, Version: h.Version}
	for _, o := range h.Owners {
		view.Owners = append(view.Owners, Owner(o))
	}
	for _, o := range h.Handlers {
		view.Handlers = append(view.Handlers, Owner(o))
	}
	return view
}

func (s *Service) horse(ctx context.Context, c api.Caller, in *api.ByID) (File, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return File{}, err
	}
	s.Opened(ctx, c, r.Horse.ID, cases.OpenedHorse)
	return s.viewFile(ctx, c, r)
}

func (s *Service) viewFile(ctx context.Context, c api.Caller, r cases.Reading) (File, error) {
	f := r.File
	plans, err := c.View.Plans(ctx, c.Practice, r.Case.ID)
	view := File{
		Horse: viewHorse(r.Horse), Case: cases.CaseOf(r.Case), Headline: f.Headline(), Bridge: f.Bridge, Risk: f.Risk, Precautions: f.Result.Precautions,
		Referrals: f.Result.Referrals, Unlooked: f.Problem().Unlooked, Attention: slices.Concat(r.LeftAtHome(), f.Attention()), Later: f.Later(), Forbidden: f.Result.Forbidden, Unread: r.Left(), Assessed: f.Assessed,
		LastWorked: f.LastWorked(), DaysOff: f.DaysOff, Sessions: r.History.Sessions(), Open: r.History.Open,
		Since: []report.Figure{}, Beads: []arena.Told{}, Planned: len(plans) > 0,
		Things: append([]history.Thing{}, r.History.Things...),
		Before: cmp.Or(f.Account().Baseline.Note, f.Account().Story.Description),
	}
	view.Others = f.Beside()
	if err != nil {
		return File{}, err
	}
	newest := store.Session{}
	for len(view.Since) == 0 { // the newest that can be compared
		n, err := c.View.SessionBefore(ctx, c.Practice, r.Horse.ID, newest)
		if errors.Is(err, store.ErrNotFound) {
			break
		}
		if err != nil {
			return File{}, err
		}
		t, err := s.Tell(ctx, c, r, n)
		if err != nil {
			return File{}, err
		}
		if newest.ID == "" {
			view.Beads = append(view.Beads, t.Beads(f)...)
		}
		doc, err := s.Document(ctx, c, r, t, cases.OwnersAll)
		if err != nil {
			return File{}, err
		}
		view.Since, newest = doc.Figures, n
	}
	return view, nil
}

func (s *Service) takeOn(ctx context.Context, c api.Caller, in *intakeInput) (TakenOn, error) {
	b, today := in.Body, c.Today()
	wrong := api.Faults("record.", b.Record.Check(today))
	need := func(field, text, say string) string {
		text = strings.TrimSpace(text)
		if text == "" {
			wrong = append(wrong, api.FieldProblem{Field: field, Say: say})
		}
		return text
	}
	intake := store.Intake{
		Horse:   store.Horse{ID: uuid.NewString(), Name: need("name", b.Name, "Give the horse's name."), YardID: b.YardID, Record: b.Record},
		OwnerID: b.OwnerID,
		Case: store.Case{
			ID: uuid.NewString(), Problem: b.Problem.String(), Goal: need("goal", b.Goal, "Say in one sentence how we will know it's fixed."),
			NeededBy: b.NeededBy, OpenedOn: today, Thing: strings.TrimSpace(b.Thing),
		},
	}
	wrong = append(wrong, neededBy(b.NeededBy, today)...)
	var bad []api.FieldProblem
	intake.Case.Wanted, bad = s.wanted(b)
	wrong = append(wrong, bad...)
	ladder, ok := s.Catalog.LadderFor(b.Problem)
	intake.Case.Ladder = ladder.Key
	if !ok {
		wrong = append(wrong, api.FieldProblem{Field: "problem", Say: "Choose the problem."})
	}
	switch {
	case b.Owner != nil:
		p, bad := b.Owner.Person("owner.")
		p.ID = uuid.NewString()
		intake.NewOwner, wrong = &p, append(wrong, bad...)
	case b.OwnerID == "":
		wrong = append(wrong, api.FieldProblem{Field: "owner_id", Say: "Choose the owner, or write down a new one."})
	}
	if b.Yard != nil {
		y, bad := b.Yard.Yard("yard.")
		y.ID = uuid.NewString()
		intake.NewYard, wrong = &y, append(wrong, bad...)
	}
	for i, h := range b.Handlers {
		p, bad := h.Person(fmt.Sprintf("handlers.%d.", i))
		p.ID = uuid.NewString()
		intake.Handlers, wrong = append(intake.Handlers, p), append(wrong, bad...)
	}
	if len(wrong) > 0 {
		return TakenOn{}, api.Faulty(wrong...)
	}
	if err := s.Store.TakeOn(ctx, c.Actor(), intake); err != nil {
		return TakenOn{}, err
	}
	h, err := c.View.Horse(ctx, c.Practice, intake.Horse.ID)
	return TakenOn{viewHorse(h), intake.Case.ID}, err
}

// wanted is what an intake wants of each of its problems, with what can't be.
func (s *Service) wanted(b Intake) (map[horse.Problem]plan.Wanted, []api.FieldProblem) {
	goals := map[horse.Problem]plan.Wanted{}
	for _, p := range append(slices.Clone(b.Also), b.Problem) {
		if !p.IsZero() {
			goals[p] = plan.Wanted{Until: b.Until[p]}
		}
	}
	var wrong []api.FieldProblem
	for p, w := range goals {
		ladder, ok := s.Catalog.LadderFor(p)
		if p != b.Problem && !ok {
			wrong = append(wrong, api.FieldProblem{Field: "also", Say: "Choose the problems from the list."})
		}
		if step, there := s.Catalog.Step(w.Until); w.Until != "" && (!there || step.Link != "" || step.Ladder != ladder.Key) {
			wrong = append(wrong, api.FieldProblem{Field: "until." + p.String(), Say: "That is not a plank of this problem's bridge. Choose one of them."})
		}
	}
	for p := range b.Until {
		if _, ok := goals[p]; !ok {
			wrong = append(wrong, api.FieldProblem{Field: "until." + p.String(), Say: "Choose the problem first, then where its goal lies."})
		}
	}
	return goals, wrong
}

func neededBy(date, today string) []api.FieldProblem {
	if date == "" {
		return nil
	}
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		return []api.FieldProblem{api.NoDate("needed_by")}
	}
	if date < today {
		return []api.FieldProblem{{Field: "needed_by", Say: "This day has passed. Give a day to come, or leave it empty."}}
	}
	return nil
}

func (s *Service) changeHorse(ctx context.Context, c api.Caller, in *horseChange) (Horse, error) {
	wrong := api.Faults("record.", in.Body.Record.Check(c.Today()))
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		wrong = append(wrong, api.FieldProblem{Field: "name", Say: "Give the horse's name."})
	}
	if len(wrong) > 0 {
		return Horse{}, api.Faulty(wrong...)
	}
	err := s.Store.UpdateHorse(ctx, c.Actor(), store.Horse{ID: in.ID, Name: name, YardID: in.Body.YardID, Record: in.Body.Record, Version: in.Body.Version})
	if err != nil {
		return Horse{}, api.Stale(err, func(now any) Horse { return viewHorse(now.(store.Horse)) })
	}
	return s.changedHorse(ctx, c, in.ID) // young or guarding horses are advised otherwise
}

func (s *Service) changeCase(ctx context.Context, c api.Caller, in *caseChange) (cases.Case, error) {
	k, err := c.View.Case(ctx, c.Practice, in.ID)
	if err != nil {
		return cases.Case{}, err
	}
	goal := strings.TrimSpace(in.Body.Goal)
	var wrong []api.FieldProblem
	if goal == "" {
		wrong = append(wrong, api.FieldProblem{Field: "goal", Say: "Say in one sentence how we will know it's fixed."})
	}
	if in.Body.NeededBy != k.NeededBy {
		wrong = append(wrong, neededBy(in.Body.NeededBy, c.Today())...)
	}
	if len(wrong) > 0 {
		return cases.Case{}, api.Faulty(wrong...)
	}
	k.Goal, k.NeededBy, k.Thing, k.Version = goal, in.Body.NeededBy, strings.TrimSpace(in.Body.Thing), in.Body.Version
	switch {
	case !in.Body.Finished:
		k.FinishedOn = ""
	case k.FinishedOn == "":
		k.FinishedOn = c.Today()
	}
	if err := s.Store.UpdateCase(ctx, c.Actor(), k); err != nil {
		return cases.Case{}, api.Stale(err, func(now any) cases.Case { return cases.CaseOf(now.(store.Case)) })
	}
	k.Version++
	return cases.CaseOf(k), nil
}
