package server

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"ivorybridge/core/alternative"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/store"
)

// Plan is the work to come as it stands today, and the plans that were made.
type Plan struct {
	Now          plan.Plan         `json:"now" doc:"computed from the choices and all that was logged since"`
	Bridges      []progress.Bridge `json:"bridges" doc:"one for each goal, in the plan's order"`
	Choices      plan.Choices      `json:"choices" doc:"of the newest plan, or as tried"`
	Settings     []Disagreement    `json:"settings" doc:"the standing disagreements that bear on it"`
	Alternatives []alternative.Way `json:"alternatives" doc:"other ways to the case's goal, side by side"`
	Owns         []OwnLadder       `json:"own_ladders" doc:"the practice's own ladders for what the plan has"`
	Problems     []ProblemInPlan   `json:"problems" doc:"the problems taken on, in the plan or left for later"`
	Mismatch     *phrase.Message   `json:"mismatch,omitempty" doc:"horse and main handler do not match"`
	Safety       phrase.Message    `json:"safety"`
	Care         horse.Care        `json:"care"`
	Made         []PlanMade        `json:"made" doc:"newest first; empty: no plan was made yet"`
	Changed      []phrase.Message  `json:"changed" doc:"what stands otherwise now than in the newest plan; of a trial, than now"`
	Assessed     bool              `json:"assessed" doc:"an assessment is there to plan from"`
	Young        bool              `json:"young" doc:"under 3 years or 10 rides"`
	Lead         bool              `json:"lead" doc:"the caller is a lead trainer"`
	By           string            `json:"by,omitempty" doc:"the date of the case"`
	Horse        HorseRef          `json:"horse"`
	Today        string            `json:"today" format:"date"`
	Handlers     []HandlerChoice   `json:"owners" doc:"who may be cleared"`
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

func (s *Server) planOperations() {
	operation(s, staff, http.MethodGet, "/api/cases/{id}/plan", "plan", "The plan of a case", atOnce(s.plan))
	operation(s, staff, http.MethodPost, "/api/cases/{id}/plan/try", "tryPlan", "The plan as it would be with other choices; nothing is kept", s.tryPlan)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/plans", "makePlan", "Make the plan anew; the older ones stay", s.makePlan)
}

func (s *Server) plan(ctx context.Context, c caller, in *caseInput) (Plan, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	return s.viewPlan(ctx, c, r)
}

func (s *Server) tryPlan(ctx context.Context, c caller, in *tryInput) (Plan, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	tried, err := s.chosen(ctx, c, r, in.Body.Choices)
	if err != nil {
		return Plan{}, err
	}
	view, err := s.viewPlan(ctx, c, tried)
	stands := plan.Made{Plan: r.file.Plan(), Choices: r.choices()}
	view.Changed = plan.Changes(tried.file.Catalog, stands, plan.Made{Plan: tried.file.Plan(), Choices: tried.choices()})
	return view, err
}

// chosen is the case with other choices, once they are found to be such as can
// be.
func (s *Server) chosen(ctx context.Context, c caller, r reading, choices plan.Choices) (reading, error) {
	if x := choices.Exception; x != nil {
		was := r.choices().Exception
		same := was != nil && was.Reason == x.Reason && was.Until == x.Until
		if !same && c.Role != store.Lead {
			return r, faulty(FieldProblem{Field: "choices.exception", Say: "Only a lead trainer can let a young horse be ridden all the same. Ask one."})
		}
		by := c.Name
		if same {
			by = was.By
		}
		choices.Exception = &plan.Exception{Reason: strings.TrimSpace(x.Reason), Until: x.Until, By: by}
	}
	wrong := faults("choices.", choices.Check(r.file.Catalog, c.today()))
	for key, u := range choices.Own {
		l, err := c.view.Ladder(ctx, c.Practice, u.ID, u.Version)
		if err != nil || l.Key != key {
			wrong = append(wrong, FieldProblem{Field: "choices.own." + key, Say: "That ladder is not here. Choose one from the list."})
		}
	}
	if len(wrong) > 0 {
		return r, faulty(wrong...)
	}
	return s.trying(ctx, c, r, choices)
}

func (s *Server) viewPlan(ctx context.Context, c caller, r reading) (Plan, error) {
	made, err := c.view.Plans(ctx, c.Practice, r.kase.ID)
	if err != nil {
		return Plan{}, err
	}
	f, choices := r.file, r.choices()
	view := Plan{
		Now: f.Plan(), Choices: choices, Settings: []Disagreement{}, Alternatives: f.Alternatives(), Bridges: []progress.Bridge{}, Owns: []OwnLadder{}, Problems: []ProblemInPlan{},
		Mismatch: f.Result.Mismatch, Safety: phrase.Of("safety.plan", nil), Care: f.Risk.Care, Made: []PlanMade{}, Changed: []phrase.Message{},
		Assessed: f.Assessed != "", Young: r.horse.Record.Young(c.today()), Lead: c.Role == store.Lead, By: r.kase.NeededBy,
		Horse: HorseRef{r.horse.ID, r.horse.Name}, Today: c.today(), Handlers: []HandlerChoice{},
	}
	var ladders []string
	for _, w := range f.Plan().Ways {
		ladders = append(ladders, w.Ladder)
		if b, ok := f.BridgeOf(w.Ladder); ok && !w.Problem.IsZero() {
			view.Bridges = append(view.Bridges, b)
		}
	}
	for _, one := range f.Catalog.Methods.Choices {
		if one.BearsOn(ladders) {
			view.Settings = append(view.Settings, Disagreement{Choice: one, Chosen: choices.Decided(one, r.horse.Record)})
		}
	}
	if view.Owns, err = s.ownLadders(ctx, c, ladders); err != nil {
		return Plan{}, err
	}
	own := f.Problem().Problem
	for _, p := range (horse.Problem{}).All() {
		if _, there := f.Assessment.Problems[p]; there {
			view.Problems = append(view.Problems, ProblemInPlan{Problem: p, Name: problemName(p), Later: choices.Goals[p].Later && p != own, Main: p == own})
		}
	}
	for _, o := range r.horse.Owners {
		view.Handlers = append(view.Handlers, HandlerChoice{ID: o.ID, Name: o.Name, Owner: true})
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

func (s *Server) makePlan(ctx context.Context, c caller, in *planInput) (Plan, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if reason == "" {
		return Plan{}, faulty(FieldProblem{Field: "reason", Say: "Say in a few words why the plan is made or changed."})
	}
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Plan{}, err
	}
	if in.Body.Choices != nil {
		if r, err = s.chosen(ctx, c, r, *in.Body.Choices); err != nil {
			return Plan{}, err
		}
	}
	school := horse.BuildAndRelease
	if i := slices.IndexFunc(r.file.Plan().Ways, func(w plan.Way) bool { return w.Ladder == r.file.Plan().Ladder }); i >= 0 {
		school = r.file.Plan().Ways[i].School
	}
	p := store.Plan{School: school.String(), Reason: reason, Catalog: r.file.Catalog.Version, Doc: r.file.Plan(), Choices: r.choices()}
	if _, err := s.Store.AddPlan(ctx, c.actor(), in.ID, p); err != nil {
		return Plan{}, fmt.Errorf("keeping the plan: %w", err)
	}
	if r, err = s.read(ctx, c, in.ID); err != nil {
		return Plan{}, err
	}
	return s.viewPlan(ctx, c, r)
}
