// Package methods answers for the ladders, schools and cards, the practice's own
// ladders, and the handbook's pages.
package methods

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Service answers for the methods.
type Service struct{ *cases.Reader }

// New registers what can be asked of the methods.
func New(r *cases.Reader) *Service {
	s := &Service{r}
	s.methodOperations()
	s.fileOperations()
	s.handbookOperations()
	return s
}

// Handbook is the whole catalogue, to be read.
type Handbook struct {
	Version string            `json:"version"`
	Ladders []catalog.Ladder  `json:"ladders"`
	Piers   map[string][]Pier `json:"piers" doc:"what each ladder stands on, by its key"`
	Needs   map[string][]Pier `json:"needs" doc:"what each step needs, by its key"`
	Schools []catalog.Method  `json:"schools"`
	Choices []catalog.Choice  `json:"choices"`
	Cards   []catalog.Card    `json:"cards"`
	Cues    []catalog.Cue     `json:"cues"`
	Owns    []cases.OwnLadder `json:"own_ladders"`
	Lead    bool              `json:"lead" doc:"the caller may change own ladders"`
}

// Pier is a need in words.
type Pier struct {
	Step   string         `json:"step"`
	Ladder string         `json:"ladder"`
	Name   string         `json:"name"`
	Says   phrase.Message `json:"says"`
}

// LadderText is what can be changed of an own ladder.
type LadderText struct {
	Version  int64      `json:"version" minimum:"0" doc:"that was read; 0 for a new copy"`
	Ladder   string     `json:"ladder,omitempty" maxLength:"60" doc:"key of the ladder to copy, for a new copy"`
	Name     string     `json:"name" maxLength:"120"`
	Reason   string     `json:"reason,omitempty" maxLength:"500"`
	Where    string     `json:"where,omitempty" maxLength:"500"`
	Watch    string     `json:"watch,omitempty" maxLength:"1000"`
	StandsOn []string   `json:"stands_on,omitempty" maxItems:"20" doc:"keys of the steps that it stands on; absent: as before"`
	Steps    []StepText `json:"steps,omitempty" maxItems:"60" doc:"none: a copy as shipped"`
}

// StepText is what can be changed of a step; the rest stays as it was shipped.
type StepText struct {
	Key         string            `json:"key" maxLength:"60"`
	Name        string            `json:"name" maxLength:"40"`
	Ask         string            `json:"ask" maxLength:"500"`
	Plain       string            `json:"plain" maxLength:"200"`
	Release     string            `json:"release,omitempty" maxLength:"500"`
	Watch       string            `json:"watch,omitempty" maxLength:"1000"`
	Measures    []catalog.Measure `json:"measures,omitempty" maxItems:"3"`
	Run         int               `json:"run"`
	Level       int               `json:"level"`
	Values      []int             `json:"values,omitempty" maxItems:"20"`
	Unit        string            `json:"unit,omitempty" maxLength:"10"`
	Corrections *int              `json:"corrections,omitempty"`
	And         string            `json:"and,omitempty" maxLength:"200"`
	Needs       []string          `json:"needs,omitempty" maxItems:"10" doc:"further steps it needs, by key"`
	Kit         []string          `json:"kit,omitempty" maxItems:"20"`
	Sides       bool              `json:"sides,omitempty" doc:"of a step of your own: near and off are passed apart"`
	Ridden      bool              `json:"ridden,omitempty" doc:"of a step of your own: asked from the saddle"`
}

type ladderInput struct{ Body LadderText }

type ladderChange struct {
	ID   string `path:"id" format:"uuid"`
	Body LadderText
}

type tickInput struct {
	Key  string `path:"key" maxLength:"60"`
	Body catalog.Tick
}

func (s *Service) methodOperations() {
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/methods", "methods", "The catalogue of methods", api.AtOnce(s.methods))
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/ladders", "copyLadder", "Copy a ladder, to change it", s.copyLadder)
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/ladders/{id}", "changeLadder", "Keep the next version of an own ladder; plans that use an older one keep it", s.changeLadder)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/asks/own", "ownAsks", "What horses were asked that no ladder names", s.ownAsks)
	api.Operation(s.API, api.Helpers, http.MethodPost, "/api/sequence-cards/{key}/ticks", "tick", "Tick a line of a sequence card; a wrong order is refused with why", s.tick)
}

func (s *Service) methods(ctx context.Context, c api.Caller, _ *struct{}) (Handbook, error) {
	house, err := s.CatalogOf(ctx, c)
	if err != nil {
		return Handbook{}, err
	}
	cat, err := house.Fit(catalog.Fitting{}) // a copy: answers are said in the practice's words in place
	if err != nil {
		return Handbook{}, err
	}
	m := cat.Methods
	h := Handbook{
		Version: cat.Version, Ladders: cat.Ladders, Piers: map[string][]Pier{}, Needs: map[string][]Pier{}, Schools: slices.Clone(m.Schools),
		Cues: slices.Clone(m.Cues), Lead: c.Role == store.Lead,
	}
	for _, one := range m.Choices {
		one.Options = slices.Clone(one.Options)
		h.Choices = append(h.Choices, one)
	}
	for _, card := range m.Cards {
		card.Notes, card.Runs = slices.Clone(card.Notes), slices.Clone(card.Runs)
		for i := range card.Runs {
			card.Runs[i].Lines = slices.Clone(card.Runs[i].Lines)
		}
		h.Cards = append(h.Cards, card)
	}
	for _, l := range cat.Ladders {
		h.Piers[l.Key] = piers(c.Book, s.Catalog, l.StandsOn)
		for _, step := range l.Steps {
			h.Needs[step.Key] = piers(c.Book, s.Catalog, step.Needs)
		}
	}
	h.Owns, err = s.OwnLadders(ctx, c, nil)
	return h, err
}

// piers says needs in words. They stand in a map, which the book does not reach
// into, so they are said here.
func piers(book phrase.Book, c *catalog.Catalog, needs []catalog.Need) []Pier {
	list := []Pier{}
	for _, n := range needs {
		step, _ := c.Step(n.Step)
		key := "met"
		switch {
		case n.Kept:
			key = "kept"
		case n.Understood:
			key = "understood"
		case n.Level > 0:
			key = "level"
		}
		says := phrase.Of("need."+key, phrase.Args{"step": step.FullName(), "level": n.Level})
		if !n.Zone.IsZero() {
			says = phrase.Of("need.in", phrase.Args{"need": says, "zone": n.Zone.String()})
		}
		if !n.When.IsZero() {
			says = phrase.Of("need.when."+n.When.String(), phrase.Args{"need": says})
		}
		p := Pier{Step: n.Step, Ladder: step.Ladder, Name: step.FullName(), Says: says}
		book.Tell(&p)
		list = append(list, p)
	}
	return list
}

func (s *Service) copyLadder(ctx context.Context, c api.Caller, in *ladderInput) (cases.OwnLadder, error) {
	in.Body.Version = 0
	return s.saveLadder(ctx, c, store.Ladder{ID: uuid.NewString(), Key: in.Body.Ladder, Catalog: s.Catalog.Version}, in.Body)
}

func (s *Service) changeLadder(ctx context.Context, c api.Caller, in *ladderChange) (cases.OwnLadder, error) {
	kept, err := c.View.Ladder(ctx, c.Practice, in.ID, 0)
	if err != nil {
		return cases.OwnLadder{}, err
	}
	return s.saveLadder(ctx, c, kept, in.Body)
}

func (s *Service) saveLadder(ctx context.Context, c api.Caller, kept store.Ladder, text LadderText) (cases.OwnLadder, error) {
	if _, ok := s.Catalog.Ladder(kept.Key); !ok {
		return cases.OwnLadder{}, api.Faulty(api.FieldProblem{Field: "ladder", Say: "There is no such ladder. Choose one from the list."})
	}
	return s.keepLadder(ctx, c, kept, text, func(shipped, before catalog.Ladder, used []string) (catalog.Ladder, error) {
		next, wrong := checked(s.Catalog, shipped, before, text, used)
		if len(wrong) > 0 {
			return next, api.Faulty(wrong...)
		}
		return next, nil
	})
}

// check makes the next version of a ladder from what is shipped and from the version
// before, or refuses it with what is wrong. Steps that are in use can't be left out.
type check func(shipped, before catalog.Ladder, used []string) (catalog.Ladder, error)

// keepLadder keeps the next version of a ladder, once it is checked.
func (s *Service) keepLadder(ctx context.Context, c api.Caller, kept store.Ladder, text LadderText, check check) (cases.OwnLadder, error) {
	shipped, _ := s.Catalog.Ladder(kept.Key)
	name := strings.TrimSpace(text.Name)
	if name == "" {
		return cases.OwnLadder{}, api.Faulty(api.FieldProblem{Field: "name", Say: "Give your ladder a name."})
	}
	before := shipped
	if kept.Version > 0 {
		before = kept.Doc
	}
	used, err := c.View.UsedSteps(ctx, c.Practice, kept.ID)
	if err != nil {
		return cases.OwnLadder{}, err
	}
	next, err := check(shipped, before, used)
	if err != nil {
		return cases.OwnLadder{}, err
	}
	kept.Version, kept.Name, kept.Reason, kept.SavedBy = text.Version, name, strings.TrimSpace(text.Reason), c.ID
	kept.Doc = next
	if err := s.Store.SaveLadder(ctx, c.Actor(), kept); err != nil {
		return cases.OwnLadder{}, api.Stale(err, func(now any) cases.OwnLadder { return s.OwnLadder(now.(store.Ladder)) })
	}
	saved, err := c.View.Ladder(ctx, c.Practice, kept.ID, text.Version+1)
	return s.OwnLadder(saved), err
}

// OwnAsk is something that one horse was asked beside all ladders: it can be made a
// step of an own ladder, and keeps its history there.
type OwnAsk struct {
	Horse cases.HorseRef `json:"horse"`
	Ask   catalog.OwnAsk `json:"ask"`
}

func (s *Service) ownAsks(ctx context.Context, c api.Caller, _ *struct{}) ([]OwnAsk, error) {
	kept, err := c.View.OwnAsks(ctx, c.Practice)
	list := make([]OwnAsk, 0, len(kept))
	for _, o := range kept {
		list = append(list, OwnAsk{Horse: cases.HorseRef{ID: o.HorseID, Name: o.Horse}, Ask: o.Ask})
	}
	return list, err
}

// checked is the ladder as the text has it, and what is wrong with it.
func checked(c *catalog.Catalog, shipped, before catalog.Ladder, text LadderText, used []string) (catalog.Ladder, []api.FieldProblem) {
	next, wrong := edited(shipped, before, text)
	for _, f := range c.CheckOwn(next, used) {
		wrong = append(wrong, placed(c, next, f))
	}
	return next, wrong
}

// placed puts a fault of the catalogue's check at the step it speaks of.
func placed(c *catalog.Catalog, l catalog.Ladder, f catalog.Fault) api.FieldProblem {
	say := phrase.Raised(f.Say) + "."
	for i, s := range l.Steps {
		if s.Key == f.Place {
			return api.FieldProblem{Field: "steps." + strconv.Itoa(i), Say: stepName(s.Name) + ": " + say}
		}
	}
	of := f.Place
	if step, ok := c.Step(f.Place); ok {
		of = stepName(step.Name)
	}
	return api.FieldProblem{Field: "steps", Say: of + ": " + say}
}

// stepName is what an own ladder's step is called where something is wrong
// with it.
func stepName(name string) string { return phrase.Raised(cmp.Or(name, "a new step")) }

// edited is the ladder as the text has it: each step keeps what the text can't
// change from the version before.
func edited(shipped, before catalog.Ladder, text LadderText) (catalog.Ladder, []api.FieldProblem) {
	next := before
	next.Name, next.Own = shipped.Name, nil
	if text.Steps == nil {
		return next, nil
	}
	if text.StandsOn != nil {
		next.StandsOn = needsOf(next.StandsOn, text.StandsOn)
	}
	next.Where, next.Watch = phrase.Slotted(text.Where), phrase.Slotted(text.Watch)
	next.Steps = nil
	var wrong []api.FieldProblem
	for i, t := range text.Steps {
		step := earlier(shipped, before, t)
		if !slices.ContainsFunc(shipped.Steps, func(s catalog.Step) bool { return s.Key == t.Key }) && len(next.Steps) > 0 {
			below := next.Steps[len(next.Steps)-1]
			step.Blocked, step.Trailer, step.Ridden = below.Blocked, below.Trailer, t.Ridden || below.Ridden
		}
		if step.Link != "" {
			next.Steps = append(next.Steps, step)
			continue
		}
		step.Name, step.Ask, step.Plain = strings.TrimSpace(t.Name), phrase.Slotted(strings.TrimSpace(t.Ask)), phrase.Slotted(strings.TrimSpace(t.Plain))
		step.Release, step.Watch = phrase.Slotted(t.Release), phrase.Slotted(t.Watch)
		step.Measures, step.Kit = t.Measures, t.Kit
		step.Pass = catalog.Pass{Run: t.Run, Level: t.Level, Arousal: 1, Values: t.Values, Unit: t.Unit, Corrections: t.Corrections, And: t.And}
		if t.Run < 1 || t.Run > 20 || t.Level < 1 || t.Level > 10 {
			step.Pass.Run = 0 // no pass mark: the check says so
		} else {
			step.Pass.Text = step.PassText()
		}
		step.Needs = needsOf(step.Needs, t.Needs)
		if say := doubtful(t); say != "" {
			wrong = append(wrong, api.FieldProblem{Field: "steps." + strconv.Itoa(i), Say: stepName(t.Name) + ": " + say})
		}
		next.Steps = append(next.Steps, step)
	}
	return next, wrong
}

// earlier is the step as it was: in the version before, else as shipped; or a
// new one. What bars the step below a new one bars it too.
func earlier(shipped, before catalog.Ladder, t StepText) catalog.Step {
	for _, known := range slices.Concat(before.Steps, shipped.Steps) {
		if known.Key == t.Key {
			return known
		}
	}
	step := catalog.Step{Key: t.Key, Ridden: t.Ridden}
	if t.Sides {
		step.Variants = catalog.BothSides()
	}
	return step
}

// doubtful says what is wrong with the numbers of a step; empty: nothing.
func doubtful(t StepText) string {
	falling := len(t.Values) > 1 && t.Values[len(t.Values)-1] < t.Values[0]
	for i, v := range t.Values {
		if v < 1 || v > 100_000 {
			return "Give values from 1 to 100000."
		}
		if i > 0 && (!falling && v <= t.Values[i-1] || falling && v >= t.Values[i-1]) {
			return "The values go up, or for a distance down, one after the other."
		}
	}
	if len(t.Values) > 0 && !slices.Contains([]string{"s", "mm", "steps", "feet", "holes", "times"}, t.Unit) {
		return "Say what the values count: seconds, steps, hooves, holes, times or a length."
	}
	for _, m := range t.Measures {
		if !slices.Contains([]catalog.Measure{catalog.MeasureAnswer, catalog.MeasureHold, catalog.MeasureDose, catalog.MeasureCount, catalog.MeasureDistance, catalog.MeasureSetting, catalog.MeasureTime}, m) {
			return "Choose the measure from the list."
		}
	}
	return ""
}

// needsOf keeps what is known of needs that stay, and adds plain ones.
func needsOf(before []catalog.Need, keys []string) []catalog.Need {
	var list []catalog.Need
	for _, n := range before {
		if slices.Contains(keys, n.Step) {
			list = append(list, n)
		}
	}
	for _, key := range keys {
		if key = strings.TrimSpace(key); key != "" && !slices.ContainsFunc(list, func(n catalog.Need) bool { return n.Step == key }) {
			list = append(list, catalog.Need{Step: key})
		}
	}
	return list
}

func (s *Service) tick(_ context.Context, _ api.Caller, in *tickInput) (catalog.Now, error) {
	now, ok := s.Catalog.Methods.Tick(in.Key, in.Body)
	if !ok {
		return catalog.Now{}, store.ErrNotFound
	}
	return now, nil
}
