package server

import (
	"context"
	"net/http"

	"github.com/google/uuid"

	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// Assessment is what was found on a day, with what follows from it.
type Assessment struct {
	ID      string            `json:"id,omitempty"`
	On      string            `json:"on" format:"date"`
	Doc     assess.Assessment `json:"doc"`
	Version int64             `json:"version"`
	Result  Result            `json:"result"`
}

// Result is what the rules make of an assessment.
type Result struct {
	Risk        assess.Risk       `json:"risk"`
	Precautions []phrase.Message  `json:"precautions"`
	Referrals   []assess.Referral `json:"referrals"`
	Blocks      []assess.Block    `json:"blocks"`
	Start       string            `json:"start,omitempty" doc:"key of the step to begin the ladder at"`
	StartName   string            `json:"start_name,omitempty"`
	StartAsk    phrase.Slotted    `json:"start_ask,omitempty"`
	Unlooked    []phrase.Message  `json:"unlooked" doc:"what was not looked at; never to be shown as clear"`
}

// Walk is the assessment of a case, with the words it is made of.
type Walk struct {
	Newest *Assessment       `json:"newest,omitempty" doc:"absent: never assessed"`
	Older  []string          `json:"older" doc:"days of older assessments"`
	Steps  []ReachedStep     `json:"steps" doc:"the ladder's steps, for how far it went"`
	Body   []horse.BodyItem  `json:"body_items"`
	States []horse.BodyState `json:"body_states"`
}

// ReachedStep is a step that the baseline may have reached.
type ReachedStep struct {
	Key  string         `json:"key"`
	Name string         `json:"name"`
	Ask  phrase.Slotted `json:"ask"`
}

type caseInput struct {
	ID string `path:"id" format:"uuid"`
}

type assessInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Doc assess.Assessment `json:"doc"`
	}
}

type assessChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Doc     assess.Assessment `json:"doc"`
		Version int64             `json:"version" minimum:"1"`
	}
}

func (s *Server) assessmentOperations() {
	operation(s, staff, http.MethodGet, "/api/cases/{id}/assessment", "assessment", "The newest assessment of a case", s.assessment)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/assessments", "addAssessment", "Keep a new assessment, of today", s.addAssessment)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/judge", "judge", "What the rules make of an assessment, without keeping it", s.judgeDraft)
	operation(s, staff, http.MethodPut, "/api/assessments/{id}", "changeAssessment", "Change an assessment", s.changeAssessment)
}

func (s *Server) result(f casefile.File) Result {
	step, _ := s.Catalog.Step(f.Start)
	r := Result{
		Risk: f.Risk, Precautions: f.Precautions, Referrals: f.Referrals, Blocks: f.Blocks,
		Start: f.Start, StartName: step.Name, StartAsk: step.Ask, Unlooked: f.Unlooked,
	}
	if f.Assessed == "" {
		r.Start, r.StartName, r.StartAsk = "", "", ""
	}
	return r
}

func (s *Server) assessment(ctx context.Context, c caller, in *caseInput) (Walk, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Walk{}, err
	}
	w := Walk{Older: []string{}, Steps: []ReachedStep{}, Body: horse.BodyItem{}.All(), States: horse.BodyState{}.All()}
	ladder, _ := s.Catalog.Ladder(r.kase.Ladder)
	for _, step := range ladder.Steps {
		w.Steps = append(w.Steps, ReachedStep{Key: step.Key, Name: step.Name, Ask: step.Ask})
	}
	for i, a := range r.assessments {
		if i < len(r.assessments)-1 {
			w.Older = append(w.Older, a.On)
			continue
		}
		w.Newest = &Assessment{ID: a.ID, On: a.On, Doc: a.Doc, Version: a.Version, Result: s.result(r.file)}
	}
	return w, nil
}

// check refuses what can't be, on its fields.
func (s *Server) check(doc assess.Assessment, ladder, today string) error {
	wrong := faults("doc.", doc.Check(today))
	if key := doc.Baseline.Reached; key != "" {
		if step, ok := s.Catalog.Step(key); !ok || step.Ladder != ladder {
			wrong = append(wrong, FieldProblem{Field: "doc.baseline.reached", Say: "That is not a step of this ladder. Choose one from the list."})
		}
	}
	if len(wrong) > 0 {
		return faulty(wrong...)
	}
	return nil
}

// with reads the case as it would be with one more assessment of today.
func (s *Server) with(c caller, r reading, a store.Assessment) (Result, error) {
	r.assessments = append(r.assessments[:len(r.assessments):len(r.assessments)], a)
	f, err := s.judge(c.today(), r, len(r.days))
	return s.result(f), err
}

func (s *Server) judgeDraft(ctx context.Context, c caller, in *assessInput) (Result, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Result{}, err
	}
	if err := s.check(in.Body.Doc, r.kase.Ladder, c.today()); err != nil {
		return Result{}, err
	}
	return s.with(c, r, store.Assessment{On: c.today(), Doc: in.Body.Doc})
}

func (s *Server) addAssessment(ctx context.Context, c caller, in *assessInput) (Assessment, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Assessment{}, err
	}
	if err := s.check(in.Body.Doc, r.kase.Ladder, c.today()); err != nil {
		return Assessment{}, err
	}
	a := store.Assessment{ID: uuid.NewString(), CaseID: in.ID, On: c.today(), Doc: in.Body.Doc, Version: 1}
	if err := s.Store.AddAssessment(ctx, c.who(), a); err != nil {
		return Assessment{}, err
	}
	s.arenas.forget() // what blocks and what the horse is may have changed
	result, err := s.with(c, r, a)
	return Assessment{ID: a.ID, On: a.On, Doc: a.Doc, Version: a.Version, Result: result}, err
}

func (s *Server) changeAssessment(ctx context.Context, c caller, in *assessChange) (Assessment, error) {
	a, err := s.Store.Assessment(ctx, c.Practice, in.ID)
	if err != nil {
		return Assessment{}, err
	}
	kase, err := s.Store.Case(ctx, c.Practice, a.CaseID)
	if err != nil {
		return Assessment{}, err
	}
	if err := s.check(in.Body.Doc, kase.Ladder, c.today()); err != nil {
		return Assessment{}, err
	}
	a.Doc, a.Version = in.Body.Doc, in.Body.Version
	if err := s.Store.UpdateAssessment(ctx, c.who(), a); err != nil {
		return Assessment{}, stale(err, func(now any) Assessment {
			n := now.(store.Assessment)
			return Assessment{ID: n.ID, On: n.On, Doc: n.Doc, Version: n.Version}
		})
	}
	s.arenas.forget() // what blocks and what the horse is may have changed
	r, err := s.read(ctx, c, a.CaseID)
	return Assessment{ID: a.ID, On: a.On, Doc: a.Doc, Version: a.Version + 1, Result: s.result(r.file)}, err
}
