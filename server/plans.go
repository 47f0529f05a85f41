package server

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/store"
)

// Plan is the work to come as it stands today, and the plans that were made.
type Plan struct {
	Now       plan.Plan       `json:"now" doc:"computed from the newest plan's choices and all that was logged since"`
	School    horse.School    `json:"school"`
	Why       phrase.Message  `json:"why" doc:"why this school"`
	Suggested *assess.School  `json:"suggested,omitempty" doc:"the school that the assessment suggests, where it is another"`
	Mismatch  *phrase.Message `json:"mismatch,omitempty" doc:"horse and main handler do not match"`
	Where     phrase.Slotted  `json:"where" doc:"where the ladder is worked"`
	Watch     phrase.Slotted  `json:"watch,omitempty"`
	Made      []PlanMade      `json:"made" doc:"newest first; empty: no plan was made yet"`
	Advised   bool            `json:"assessed" doc:"an assessment is there to plan from"`
}

// PlanMade is one version of the plan.
type PlanMade struct {
	Number  int64    `json:"number"`
	On      int64    `json:"on" doc:"ms"`
	By      string   `json:"by"`
	Reason  string   `json:"reason"`
	Added   []string `json:"added" doc:"steps that came in against the version before"`
	Dropped []string `json:"dropped" doc:"steps that went out"`
	Blocked []string `json:"blocked" doc:"steps that became blocked"`
	Lifted  []string `json:"lifted" doc:"steps no longer blocked"`
}

type planInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Reason string `json:"reason" minLength:"1" maxLength:"500"`
	}
}

func (s *Server) planOperations() {
	operation(s, staff, http.MethodGet, "/api/cases/{id}/plan", "plan", "The plan of a case", s.plan)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/plans", "makePlan", "Make the plan anew; the older ones stay", s.makePlan)
}

func (s *Server) plan(ctx context.Context, c caller, in *caseInput) (Plan, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	return s.viewPlan(ctx, c, r)
}

func (s *Server) viewPlan(ctx context.Context, c caller, r reading) (Plan, error) {
	made, err := s.Store.Plans(ctx, c.Practice, r.kase.ID)
	if err != nil {
		return Plan{}, err
	}
	ladder, _ := s.Catalog.Ladder(r.kase.Ladder)
	view := Plan{
		Now: r.file.Plan, School: horse.BuildAndRelease, Why: phrase.Of("plan.school.chosen", nil),
		Where: ladder.Where, Watch: ladder.Watch, Made: []PlanMade{}, Advised: r.file.Assessed != "", Mismatch: r.file.Result.Mismatch,
	}
	if suggested := r.file.Problem().School; r.file.Assessed != "" && suggested.School != view.School {
		view.Suggested = &suggested
	}
	for i, p := range made {
		m := PlanMade{Number: p.Number, On: p.MadeAt, By: p.MadeBy, Reason: p.Reason, Added: []string{}, Dropped: []string{}, Blocked: []string{}, Lifted: []string{}}
		if i+1 < len(made) {
			m.against(made[i+1].Doc, p.Doc)
		}
		view.Made = append(view.Made, m)
	}
	return view, nil
}

// against notes what changed from one version to the next, by step names.
func (m *PlanMade) against(before, now plan.Plan) {
	m.Added, m.Dropped = less(now, before, all), less(before, now, all)
	m.Blocked, m.Lifted = less(now, before, blocked), less(before, now, blocked)
}

func all(plan.Item) bool       { return true }
func blocked(i plan.Item) bool { return i.Blocked != nil }

// less names the items of a that are so, and are not so in b.
func less(a, b plan.Plan, so func(plan.Item) bool) []string {
	names := []string{}
	for _, i := range a.Items {
		same := func(j plan.Item) bool { return j.Step == i.Step && so(j) }
		if so(i) && !slices.ContainsFunc(b.Items, same) {
			names = append(names, i.Name)
		}
	}
	return names
}

func (s *Server) makePlan(ctx context.Context, c caller, in *planInput) (Plan, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if reason == "" {
		return Plan{}, faulty(FieldProblem{Field: "reason", Say: "Say in a few words why the plan is made or changed."})
	}
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	p := store.Plan{School: horse.BuildAndRelease.String(), Reason: reason, Catalog: s.Catalog.Version, Doc: r.file.Plan}
	if _, err := s.Store.AddPlan(ctx, c.who(), in.ID, p); err != nil {
		return Plan{}, fmt.Errorf("keeping the plan: %w", err)
	}
	return s.viewPlan(ctx, c, r)
}
