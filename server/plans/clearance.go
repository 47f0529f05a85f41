package plans

import (
	"context"
	"net/http"

	"github.com/google/uuid"

	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Clearances are who may do which step, and what was rehearsed.
type Clearances struct {
	Horse      cases.HorseRef        `json:"horse"`
	Persons    []cases.HandlerChoice `json:"persons"`
	Steps      []ClearStep           `json:"steps" doc:"steps that are met, or were rehearsed"`
	States     []clearance.State     `json:"states"`
	Held       []phrase.Message      `json:"held" doc:"why nobody is cleared at all, if so"`
	Items      []clearance.Item      `json:"items" doc:"the seven things to look at"`
	Saids      []clearance.Said      `json:"saids"`
	Places     []clearance.Place     `json:"places"`
	Answers    []horse.Answer        `json:"answers"`
	Rehearsals []Rehearsed           `json:"rehearsals" doc:"newest first"`
	Today      string                `json:"today" format:"date"`
	Run        int                   `json:"watched_run" doc:"how many in a row on the horse clear the second leg"`
}

// ClearStep is a step to be cleared for.
type ClearStep struct {
	Step   string         `json:"step"`
	Name   string         `json:"name"`
	Ladder phrase.Slotted `json:"ladder"`
	Ask    phrase.Slotted `json:"ask"`
	Ridden bool           `json:"ridden"`
}

// Rehearsed is one rehearsal as it was written down.
type Rehearsed struct {
	clearance.Rehearsal
	ID      string `json:"id"`
	Cleared bool   `json:"cleared" doc:"it cleared the first leg"`
	Fainter []bool `json:"fainter" doc:"for each try: felt 2 or more lower than was meant"`
	By      string `json:"by"`
}

// HomeworkPage is the one page for an owner.
type HomeworkPage struct {
	plan.HomeworkCard
	Horse    cases.HorseRef  `json:"horse"`
	Name     string          `json:"name" doc:"for whom"`
	Date     string          `json:"date" format:"date"`
	By       string          `json:"by" doc:"the trainer who prints it"`
	Practice string          `json:"practice"`
	Contacts []cases.Contact `json:"contacts" doc:"whom to call, those with a number"`
}

type rehearsalInput struct {
	ID   string `path:"id" format:"uuid"`
	Body clearance.Rehearsal
}

type homeworkInput struct {
	ID     string `path:"id" format:"uuid"`
	Person string `path:"of" format:"uuid"`
}

type phoneInput struct {
	Body struct {
		Phone string `json:"phone" maxLength:"60"`
	}
}

// PracticeView is what a practice says of itself.
type PracticeView struct {
	Name  string `json:"name"`
	Phone string `json:"phone" doc:"the number that owners call"`
}

func (s *Service) clearanceOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/cases/{id}/clearance", "clearance", "Who may do which step, and what is missing", api.AtOnce(s.clearance))
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/cases/{id}/rehearsals", "rehearse", "Write down a rehearsal, or what a clip shows", s.rehearse)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/cases/{id}/homework/{of}", "homework", "The homework card of a person", api.AtOnce(s.homework))
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/practice", "practice", "The practice", s.viewPractice)
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/practice", "setPhone", "Change the number that owners call", s.setPhone)
}

func (s *Service) clearance(ctx context.Context, c api.Caller, in *api.ByID) (Clearances, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Clearances{}, err
	}
	kept, err := c.View.Rehearsals(ctx, c.Practice, r.Horse.ID)
	if err != nil {
		return Clearances{}, err
	}
	view := Clearances{
		Horse: cases.RefOf(r.Horse), Persons: cases.OwnersSide(r.Horse), Steps: []ClearStep{}, States: r.File.Cleared(), Held: r.File.NobodyCleared(),
		Items: clearance.Item{}.All(), Saids: clearance.Said{}.All(), Places: clearance.Place{}.All(), Answers: horse.Answer{}.All(),
		Rehearsals: []Rehearsed{}, Today: c.Today(), Run: clearance.WatchedRun,
	}
	seen := map[string]bool{}
	for _, st := range r.File.Cleared() {
		if seen[st.Step] {
			continue
		}
		seen[st.Step] = true
		step, _ := r.File.Catalog.Step(st.Step)
		ladder, _ := r.File.Catalog.Ladder(step.Ladder)
		view.Steps = append(view.Steps, ClearStep{Step: st.Step, Name: step.Name, Ladder: ladder.Name, Ask: step.Ask, Ridden: step.Ridden})
	}
	for i := range kept {
		one := kept[len(kept)-1-i]
		row := Rehearsed{Rehearsal: one.Doc, ID: one.ID, Cleared: one.Doc.Cleared(), Fainter: []bool{}, By: one.NotedBy}
		for _, t := range one.Doc.Tries {
			row.Fainter = append(row.Fainter, t.Fainter())
		}
		view.Rehearsals = append(view.Rehearsals, row)
	}
	return view, nil
}

func (s *Service) rehearse(ctx context.Context, c api.Caller, in *rehearsalInput) (Clearances, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Clearances{}, err
	}
	wrong := api.Faults("", in.Body.Check(r.File.Catalog, c.Today()))
	if !owns(r, in.Body.Person) {
		wrong = append(wrong, api.FieldProblem{Field: "person", Say: "This person does not handle this horse. Choose somebody from the list."})
	}
	if len(wrong) > 0 {
		return Clearances{}, api.Faulty(wrong...)
	}
	if err := s.Store.AddRehearsal(ctx, c.Actor(), store.Rehearsal{ID: uuid.NewString(), HorseID: r.Horse.ID, Doc: in.Body}); err != nil {
		return Clearances{}, err
	}
	return s.clearance(ctx, c, &api.ByID{ID: in.ID})
}

func owns(r cases.Reading, person string) bool {
	for _, o := range r.Horse.Holders() {
		if o.ID == person {
			return true
		}
	}
	return false
}

func (s *Service) homework(ctx context.Context, c api.Caller, in *homeworkInput) (HomeworkPage, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return HomeworkPage{}, err
	}
	if !owns(r, in.Person) {
		return HomeworkPage{}, store.ErrNotFound
	}
	page := HomeworkPage{
		HomeworkCard: plan.HomeworkFor(r.File.Catalog, r.File.Plan(), r.Choices(), in.Person, r.Horse.Record.Called(r.Horse.Name)), Horse: cases.RefOf(r.Horse),
		Date: c.Today(), By: c.Name, Practice: c.Home.Name, Contacts: []cases.Contact{},
	}
	for _, o := range r.Horse.Holders() {
		if o.ID == in.Person {
			page.Name = o.Name
		}
	}
	if c.Home.Phone != "" {
		page.Contacts = append(page.Contacts, cases.Contact{What: "trainer", Name: c.Home.Name, Phone: c.Home.Phone})
	}
	others, err := s.Contacts(ctx, c, r)
	for _, o := range others {
		if o.What != "owner" {
			page.Contacts = append(page.Contacts, o)
		}
	}
	return page, err
}

func (s *Service) viewPractice(_ context.Context, c api.Caller, _ *struct{}) (PracticeView, error) {
	return PracticeView{Name: c.Home.Name, Phone: c.Home.Phone}, nil
}

func (s *Service) setPhone(ctx context.Context, c api.Caller, in *phoneInput) (PracticeView, error) {
	if err := s.Store.SetPhone(ctx, c.Actor(), in.Body.Phone); err != nil {
		return PracticeView{}, err
	}
	return PracticeView{Name: c.Home.Name, Phone: in.Body.Phone}, nil
}
