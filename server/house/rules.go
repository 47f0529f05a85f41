package house

import (
	"cmp"
	"context"
	"net/http"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

func (s *Service) ruleOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/house/rules", "houseRules", "The house rules beside the shipped ones, and who changed them", api.AtOnce(s.rules))
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/house/rules/trial", "tryHouseRules", "What other house rules would change; nothing is kept", api.AtOnce(s.tryRules))
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/house/rules", "changeHouseRules", "Keep other house rules", s.changeRules)
}

// HouseRules are the rules of the practice.
type HouseRules struct {
	Version  int64          `json:"version" doc:"0: as shipped, never changed"`
	Doc      catalog.House  `json:"doc" doc:"what is otherwise than shipped"`
	Rules    []HouseRule    `json:"rules"`
	Swap     HouseSwap      `json:"swap"`
	Likely   HouseNumber    `json:"likely"`
	Possible HouseNumber    `json:"possible"`
	Findings []HouseFinding `json:"findings"`
	Causes   []HouseCause   `json:"causes"`
	Marks    []catalog.Mark `json:"marks" doc:"weights that a finding may bear"`
	Made     []HouseMade    `json:"made" doc:"who changed them when, the newest first"`
}

// HouseRule is a number with what ships.
type HouseRule struct {
	catalog.Rule
	Shipped int `json:"shipped"`
	Now     int `json:"now"`
}

// HouseNumber is a probability with what ships.
type HouseNumber struct {
	Shipped float64 `json:"shipped"`
	Now     float64 `json:"now"`
}

// HouseSwap is when sides are swapped.
type HouseSwap struct {
	Shipped string   `json:"shipped"`
	Now     string   `json:"now"`
	Choices []string `json:"choices"`
}

// HouseFinding is what a finding says of causes.
type HouseFinding struct {
	Key     string                       `json:"key"`
	Says    phrase.Slotted               `json:"says"`
	Seen    phrase.Message               `json:"seen" doc:"where it is seen"`
	Shipped map[horse.Cause]catalog.Mark `json:"shipped"`
	Now     map[horse.Cause]catalog.Mark `json:"now"`
}

// HouseCause names a cause.
type HouseCause struct {
	Cause horse.Cause    `json:"cause"`
	Says  phrase.Message `json:"says"`
}

// HouseMade is a version of the house rules.
type HouseMade struct {
	Version int64    `json:"version"`
	By      string   `json:"by"`
	At      int64    `json:"at" doc:"ms"`
	Reason  string   `json:"reason"`
	Differs []string `json:"differs" doc:"from shipped, as sentences"`
}

func (s *Service) rules(ctx context.Context, c api.Caller, _ *struct{}) (HouseRules, error) {
	made, err := c.View.House(ctx, c.Practice)
	if err != nil {
		return HouseRules{}, err
	}
	shipped := s.Catalog
	view := HouseRules{Doc: catalog.House{}, Marks: catalog.Marks(), Made: []HouseMade{}}
	if len(made) > 0 {
		view.Version, view.Doc = made[0].Version, made[0].Doc
	}
	now := shipped.ByHouse(view.Doc, view.Version)
	for _, r := range catalog.Rules() {
		view.Rules = append(view.Rules, HouseRule{Rule: r, Shipped: r.Of(shipped.Rules), Now: r.Of(now.Rules)})
	}
	view.Swap = HouseSwap{shipped.Rules.SwapSides, now.Rules.SwapSides, []string{"after the step", "after each dose"}}
	view.Likely = HouseNumber{shipped.Judging.Likely, now.Judging.Likely}
	view.Possible = HouseNumber{shipped.Judging.Possible, now.Judging.Possible}
	for i, f := range shipped.Judging.Findings {
		view.Findings = append(view.Findings, HouseFinding{Key: f.Key, Says: f.Says, Seen: phrase.Of("section."+section(f.Look), nil), Shipped: marksOf(f.Bears), Now: marksOf(now.Judging.Findings[i].Bears)})
	}
	for _, cause := range (horse.Cause{}).All() {
		view.Causes = append(view.Causes, HouseCause{cause, phrase.Of("cause."+cause.String(), nil)})
	}
	for _, m := range made {
		view.Made = append(view.Made, HouseMade{m.Version, m.SavedBy, m.SavedAt, m.Reason, s.differs(c, m.Doc)})
	}
	return view, nil
}

// section is where a look is taken.
func section(l horse.Look) string {
	letter, _, _ := strings.Cut(l.String(), ".")
	return letter
}

func marksOf(bears []catalog.Bearing) map[horse.Cause]catalog.Mark {
	marks := map[horse.Cause]catalog.Mark{}
	for _, b := range bears {
		marks[b.Cause] = b.Mark
	}
	return marks
}

// differs says what house rules have otherwise than shipped.
func (s *Service) differs(c api.Caller, h catalog.House) []string {
	list := []string{}
	say := func(key string, args phrase.Args) { list = append(list, c.Book.Say(phrase.Of("house."+key, args))) }
	for _, r := range catalog.Rules() {
		if n, there := h.Rules[r.Key]; there {
			say("rule", phrase.Args{"name": r.Name, "now": n, "shipped": r.Of(s.Catalog.Rules)})
		}
	}
	if h.Swap != "" {
		say("swap", phrase.Args{"now": h.Swap})
	}
	if h.Likely != 0 {
		say("likely", phrase.Args{"now": percent(h.Likely), "shipped": percent(s.Catalog.Judging.Likely)})
	}
	if h.Possible != 0 {
		say("possible", phrase.Args{"now": percent(h.Possible), "shipped": percent(s.Catalog.Judging.Possible)})
	}
	for _, f := range s.Catalog.Judging.Findings {
		for _, cause := range (horse.Cause{}).All() {
			if mark, there := h.Bears[f.Key][cause]; there {
				was := marksOf(f.Bears)[cause]
				say("bears", phrase.Args{"finding": string(f.Says), "cause": phrase.Of("cause."+cause.String(), nil), "now": weight(mark), "shipped": weight(was)})
			}
		}
	}
	return list
}

func weight(m catalog.Mark) string {
	if m == "" {
		return "nothing"
	}
	return string(m)
}

func percent(p float64) int { return int(p*100 + 0.5) }

type houseTrial struct{ Body catalog.House }

// HouseEffect is what other house rules change for a horse.
type HouseEffect struct {
	Horse cases.HorseRef `json:"horse"`
	Says  []string       `json:"says"`
}

// HouseTrial is what other house rules would change.
type HouseTrial struct {
	Differs []string      `json:"differs" doc:"from shipped, as sentences"`
	Effects []HouseEffect `json:"effects" doc:"on the judgement and the plan of horses in work"`
	Looked  int           `json:"looked" doc:"at so many horses"`
	All     int           `json:"all" doc:"of so many in work"`
}

func (s *Service) tryRules(ctx context.Context, c api.Caller, in *houseTrial) (HouseTrial, error) {
	if err := faulty(in.Body, s.Catalog); err != nil {
		return HouseTrial{}, err
	}
	return s.trial(ctx, c, in.Body.Plain(s.Catalog))
}

func faulty(h catalog.House, shipped *catalog.Catalog) error {
	var wrong []api.FieldProblem
	for _, f := range h.Check(shipped) {
		wrong = append(wrong, api.FieldProblem{Field: f.Place, Say: f.Say})
	}
	if len(wrong) > 0 {
		return api.Faulty(wrong...)
	}
	return nil
}

// mostTried is at how many horses is looked before a change is kept.
const mostTried = 60

func (s *Service) trial(ctx context.Context, c api.Caller, h catalog.House) (HouseTrial, error) {
	view := HouseTrial{Differs: s.differs(c, h), Effects: []HouseEffect{}}
	by := s.Catalog.ByHouse(h, -1)
	all, err := c.View.Cases(ctx, c.Practice)
	if err != nil {
		return view, err
	}
	seen := map[string]bool{}
	for _, k := range all {
		if k.FinishedOn != "" || seen[k.HorseID] {
			continue
		}
		seen[k.HorseID] = true
		if view.All++; view.Looked >= mostTried {
			continue
		}
		view.Looked++
		effect, err := s.effect(ctx, c, k.HorseID, by)
		if err != nil {
			return view, err
		}
		if len(effect.Says) > 0 {
			view.Effects = append(view.Effects, effect)
		}
	}
	return view, nil
}

func (s *Service) effect(ctx context.Context, c api.Caller, id string, by *catalog.Catalog) (HouseEffect, error) {
	r, err := s.Newest(ctx, c, id)
	if api.IsBroken(err) { // it says so where it is shown
		return HouseEffect{}, nil
	}
	if err != nil {
		return HouseEffect{}, err
	}
	effect := HouseEffect{Horse: cases.RefOf(r.Horse)}
	var trial cases.Reading
	if err := api.Guarded(func() (err error) {
		trial, err = s.By(r, by)
		return err
	}); err != nil {
		return effect, err
	}
	for _, change := range assess.Changes(r.File.Result, trial.File.Result) {
		effect.Says = append(effect.Says, c.Book.Say(change.What)+": "+cmp.Or(change.Before, "none")+" → "+cmp.Or(change.After, "none")+".")
	}
	was, is := plan.Made{Plan: r.File.Plan(), Choices: r.Choices()}, plan.Made{Plan: trial.File.Plan(), Choices: r.Choices()}
	for _, m := range plan.Changes(r.File.Catalog, was, is) {
		effect.Says = append(effect.Says, c.Book.Say(m))
	}
	if n := passes(r.File.Plan(), r.Catalog(), by); n > 0 {
		effect.Says = append(effect.Says, c.Book.Say(phrase.Of("house.passes", phrase.Args{"n": n})))
	}
	return effect, nil
}

// passes counts the steps of a plan that would be passed by another mark.
func passes(p plan.Plan, was, is *catalog.Catalog) (n int) {
	seen := map[string]bool{}
	for _, item := range p.Items {
		before, _ := was.Step(item.Step)
		after, _ := is.Step(item.Step)
		if !seen[item.Step] && before.Pass.Text != after.Pass.Text {
			n++
		}
		seen[item.Step] = true
	}
	return n
}

type houseChange struct {
	Body struct {
		Doc     catalog.House `json:"doc"`
		Reason  string        `json:"reason" maxLength:"1000"`
		Version int64         `json:"version" minimum:"0" doc:"that it was read at"`
	}
}

func (s *Service) changeRules(ctx context.Context, c api.Caller, in *houseChange) (HouseRules, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if err := faulty(in.Body.Doc, s.Catalog); err != nil {
		return HouseRules{}, err
	}
	if reason == "" {
		return HouseRules{}, api.Faulty(api.FieldProblem{Field: "reason", Say: "Say in a few words why. Who reads it later wants to know."})
	}
	err := s.Store.SaveHouse(ctx, c.Actor(), in.Body.Doc.Plain(s.Catalog), reason, in.Body.Version)
	if err != nil {
		return HouseRules{}, api.Stale(err, func(now any) int64 { return int64(len(now.([]store.HouseRules))) }) // they are numbered on
	}
	s.changed()
	return s.rules(ctx, c, nil)
}
