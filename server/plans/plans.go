// Package plans answers for the plan of a case and what it may be, and for who is
// cleared to do what alone.
package plans

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"ivorybridge/core/alternative"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/headline"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/snag"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Service answers for plans, and for who may do what alone.
type Service struct{ *cases.Reader }

// New registers what can be asked of plans.
func New(r *cases.Reader) *Service {
	s := &Service{r}
	s.planOperations()
	s.clearanceOperations()
	return s
}

// Plan is the work to come as it stands today, and the plans that were made.
type Plan struct {
	Headline     headline.Headline     `json:"headline" doc:"what is next"`
	Snags        []snag.Snag           `json:"snags" doc:"what stops the work, the gravest first"`
	Now          plan.Plan             `json:"now" doc:"computed from the choices and all that was logged since"`
	Bridges      []progress.Bridge     `json:"bridges" doc:"one for each goal, in the plan's order"`
	Choices      plan.Choices          `json:"choices" doc:"of the newest plan, or as tried"`
	Settings     []Disagreement        `json:"settings" doc:"the standing disagreements that bear on it"`
	Alternatives []alternative.Way     `json:"alternatives" doc:"other ways to the case's goal, side by side"`
	Owns         []cases.OwnLadder     `json:"own_ladders" doc:"the practice's own ladders for what the plan has"`
	Problems     []ProblemInPlan       `json:"problems" doc:"the problems taken on, in the plan or left for later"`
	Mismatch     *phrase.Message       `json:"mismatch,omitempty" doc:"horse and main handler do not match"`
	Safety       phrase.Message        `json:"safety"`
	Care         horse.Care            `json:"care"`
	Made         []PlanMade            `json:"made" doc:"newest first; empty: no plan was made yet"`
	Changed      []phrase.Message      `json:"changed" doc:"what stands otherwise now than in the newest plan; of a trial, than now"`
	Assessed     bool                  `json:"assessed" doc:"an assessment is there to plan from"`
	Young        bool                  `json:"young" doc:"under 3 years or 10 rides"`
	Lead         bool                  `json:"lead" doc:"the caller is a lead trainer"`
	By           string                `json:"by,omitempty" doc:"the date of the case"`
	Horse        cases.HorseRef        `json:"horse"`
	Today        string                `json:"today" format:"date"`
	Handlers     []cases.HandlerChoice `json:"owners" doc:"who may be cleared"`
}

// Disagreement is a standing one (part 4) with what is chosen.
type Disagreement struct {
	catalog.Choice
	Chosen string `json:"chosen"`
}

// ProblemInPlan is a problem that was taken on.
type ProblemInPlan struct {
	Problem horse.Problem  `json:"problem"`
	Name    phrase.Message `json:"name"`
	Later   bool           `json:"later"`
	Main    bool           `json:"main" doc:"the case's own"`
}

// PlanMade is one version of the plan.
type PlanMade struct {
	Number  int64            `json:"number"`
	On      int64            `json:"on" doc:"ms"`
	By      string           `json:"by"`
	Reason  string           `json:"reason"`
	Changes []phrase.Message `json:"changes" doc:"against the version before"`
	Steps   []string         `json:"steps" doc:"names of the steps it had to do"`
}

type planInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Reason  string        `json:"reason" minLength:"1" maxLength:"500"`
		Choices *plan.Choices `json:"choices,omitempty" doc:"absent: as they were"`
	}
}

type tryInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Choices plan.Choices `json:"choices"`
	}
}

func (s *Service) planOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/cases/{id}/plan", "plan", "The plan of a case", api.AtOnce(s.plan))
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/cases/{id}/plan/try", "tryPlan", "The plan as it would be with other choices; nothing is kept", s.tryPlan)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/cases/{id}/plans", "makePlan", "Make the plan anew; the older ones stay", s.makePlan)
}

func (s *Service) plan(ctx context.Context, c api.Caller, in *api.ByID) (Plan, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	return s.viewPlan(ctx, c, r)
}

func (s *Service) tryPlan(ctx context.Context, c api.Caller, in *tryInput) (Plan, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	tried, err := s.chosen(ctx, c, r, in.Body.Choices)
	if err != nil {
		return Plan{}, err
	}
	view, err := s.viewPlan(ctx, c, tried)
	stands := plan.Made{Plan: r.File.Plan(), Choices: r.Choices()}
	view.Changed = plan.Changes(tried.File.Catalog, stands, plan.Made{Plan: tried.File.Plan(), Choices: tried.Choices()})
	return view, err
}

// chosen is the case with other choices, once they are found to be such as can
// be.
func (s *Service) chosen(ctx context.Context, c api.Caller, r cases.Reading, choices plan.Choices) (cases.Reading, error) {
	if x := choices.Exception; x != nil {
		was := r.Choices().Exception
		same := was != nil && was.Reason == x.Reason && was.Until == x.Until
		if !same && c.Role != store.Lead {
			return r, api.Faulty(api.FieldProblem{Field: "choices.exception", Say: "Only a lead trainer can let a young horse be ridden all the same. Ask one."})
		}
		by := c.Name
		if same {
			by = was.By
		}
		choices.Exception = &plan.Exception{Reason: strings.TrimSpace(x.Reason), Until: x.Until, By: by}
	}
	wrong := api.Faults("choices.", choices.Check(r.File.Catalog, c.Today()))
	for key, u := range choices.Own {
		l, err := c.View.Ladder(ctx, c.Practice, u.ID, u.Version)
		if err != nil || l.Key != key {
			wrong = append(wrong, api.FieldProblem{Field: "choices.own." + key, Say: "That ladder is not here. Choose one from the list."})
		}
	}
	if len(wrong) > 0 {
		return r, api.Faulty(wrong...)
	}
	return s.Trying(ctx, c, r, choices)
}

func (s *Service) viewPlan(ctx context.Context, c api.Caller, r cases.Reading) (Plan, error) {
	made, err := c.View.Plans(ctx, c.Practice, r.Case.ID)
	if err != nil {
		return Plan{}, err
	}
	f, choices := r.File, r.Choices()
	view := Plan{
		Headline: f.Headline(), Snags: f.Snags(), Now: f.Plan(), Choices: choices, Settings: []Disagreement{}, Alternatives: f.Alternatives(), Bridges: f.Bridges(), Owns: []cases.OwnLadder{}, Problems: []ProblemInPlan{},
		Mismatch: f.Result.Mismatch, Safety: phrase.Of("safety.plan", nil), Care: f.Risk.Care, Made: []PlanMade{}, Changed: []phrase.Message{},
		Assessed: f.Assessed != "", Young: r.Horse.Record.Young(c.Today()), Lead: c.Role == store.Lead, By: r.Case.NeededBy,
		Horse: cases.RefOf(r.Horse), Today: c.Today(), Handlers: cases.OwnersSide(r.Horse),
	}
	var ladders []string
	for _, w := range f.Plan().Ways {
		ladders = append(ladders, w.Ladder)
	}
	for _, one := range f.Catalog.Methods.Choices {
		if one.BearsOn(ladders) {
			view.Settings = append(view.Settings, Disagreement{Choice: one, Chosen: choices.Decided(one, r.Horse.Record)})
		}
	}
	if view.Owns, err = s.OwnLadders(ctx, c, ladders); err != nil {
		return Plan{}, err
	}
	own := f.Problem().Problem
	for _, p := range (horse.Problem{}).All() {
		if _, there := f.Assessment.Problems[p]; there {
			view.Problems = append(view.Problems, ProblemInPlan{Problem: p, Name: cases.ProblemName(p), Later: choices.Goals[p].Later && p != own, Main: p == own})
		}
	}
	for i, p := range made {
		m := PlanMade{Number: p.Number, On: p.MadeAt, By: p.MadeBy, Reason: p.Reason, Changes: []phrase.Message{}, Steps: []string{}}
		if i+1 < len(made) {
			m.Changes = plan.Changes(f.Catalog, madeOf(made[i+1]), madeOf(p))
		}
		for _, item := range p.Doc.Items {
			m.Steps = append(m.Steps, assess.NameOf(f.Catalog, item.Step))
		}
		view.Made = append(view.Made, m)
	}
	if len(made) > 0 {
		view.Changed = plan.Changes(f.Catalog, madeOf(made[0]), plan.Made{Plan: f.Plan(), Choices: choices})
	}
	return view, nil
}

func madeOf(p store.Plan) plan.Made { return plan.Made{Plan: p.Doc, Choices: p.Choices} }

func (s *Service) makePlan(ctx context.Context, c api.Caller, in *planInput) (Plan, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if reason == "" {
		return Plan{}, api.Faulty(api.FieldProblem{Field: "reason", Say: "Say in a few words why the plan is made or changed."})
	}
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	if in.Body.Choices != nil {
		if r, err = s.chosen(ctx, c, r, *in.Body.Choices); err != nil {
			return Plan{}, err
		}
	}
	school := horse.BuildAndRelease
	if i := slices.IndexFunc(r.File.Plan().Ways, func(w plan.Way) bool { return w.Ladder == r.File.Plan().Ladder }); i >= 0 {
		school = r.File.Plan().Ways[i].School
	}
	p := store.Plan{School: school.String(), Reason: reason, Catalog: r.File.Catalog.Version, Doc: r.File.Plan(), Choices: r.Choices()}
	if _, err := s.Store.AddPlan(ctx, c.Actor(), in.ID, p); err != nil {
		return Plan{}, fmt.Errorf("keeping the plan: %w", err)
	}
	if r, err = s.Read(ctx, c, in.ID); err != nil {
		return Plan{}, err
	}
	return s.viewPlan(ctx, c, r)
}
