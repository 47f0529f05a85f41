package server

import (
	"context"
	"net/http"

	"github.com/google/uuid"

	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/store"
)

// Clearances are who may do which step, and what was rehearsed.
type Clearances struct {
	Horse      HorseRef          `json:"horse"`
	Persons    []HandlerChoice   `json:"persons"`
	Steps      []ClearStep       `json:"steps" doc:"steps that are met, or were rehearsed"`
	States     []clearance.State `json:"states"`
	Held       []phrase.Message  `json:"held" doc:"why nobody is cleared at all, if so"`
	Items      []clearance.Item  `json:"items" doc:"the seven things to look at"`
	Saids      []clearance.Said  `json:"saids"`
	Places     []clearance.Place `json:"places"`
	Answers    []horse.Answer    `json:"answers"`
	Rehearsals []Rehearsed       `json:"rehearsals" doc:"newest first"`
	Today      string            `json:"today" format:"date"`
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
	Horse    HorseRef  `json:"horse"`
	Name     string    `json:"name" doc:"for whom"`
	Date     string    `json:"date" format:"date"`
	By       string    `json:"by" doc:"the trainer who prints it"`
	Practice string    `json:"practice"`
	Contacts []Contact `json:"contacts" doc:"whom to call, those with a number"`
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

func (s *Server) clearanceOperations() {
	operation(s, staff, http.MethodGet, "/api/cases/{id}/clearance", "clearance", "Who may do which step, and what is missing", atOnce(s.clearance))
	operation(s, staff, http.MethodPost, "/api/cases/{id}/rehearsals", "rehearse", "Write down a rehearsal, or what a clip shows", s.rehearse)
	operation(s, staff, http.MethodGet, "/api/cases/{id}/homework/{of}", "homework", "The homework card of a person", atOnce(s.homework))
	operation(s, staff, http.MethodGet, "/api/practice", "practice", "The practice", s.viewPractice)
	operation(s, leadsOnly, http.MethodPut, "/api/practice", "setPhone", "Change the number that owners call", s.setPhone)
}

func (s *Server) clearance(ctx context.Context, c caller, in *caseInput) (Clearances, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Clearances{}, err
	}
	kept, err := c.view.Rehearsals(ctx, c.Practice, r.horse.ID)
	if err != nil {
		return Clearances{}, err
	}
	view := Clearances{
		Horse: HorseRef{r.horse.ID, r.horse.Name}, Persons: []HandlerChoice{}, Steps: []ClearStep{}, States: r.file.Cleared(), Held: r.file.NobodyCleared(),
		Items: clearance.Item{}.All(), Saids: clearance.Said{}.All(), Places: clearance.Place{}.All(), Answers: horse.Answer{}.All(),
		Rehearsals: []Rehearsed{}, Today: c.today(),
	}
	for _, o := range r.horse.Owners {
		view.Persons = append(view.Persons, HandlerChoice{ID: o.ID, Name: o.Name, Owner: true})
	}
	seen := map[string]bool{}
	for _, st := range r.file.Cleared() {
		if seen[st.Step] {
			continue
		}
		seen[st.Step] = true
		step, _ := r.file.Catalog.Step(st.Step)
		ladder, _ := r.file.Catalog.Ladder(step.Ladder)
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

func (s *Server) rehearse(ctx context.Context, c caller, in *rehearsalInput) (Clearances, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Clearances{}, err
	}
	wrong := faults("", in.Body.Check(r.file.Catalog, c.today()))
	if !owns(r, in.Body.Person) {
		wrong = append(wrong, FieldProblem{Field: "person", Say: "This person does not handle this horse. Choose somebody from the list."})
	}
	if len(wrong) > 0 {
		return Clearances{}, faulty(wrong...)
	}
	if err := s.Store.AddRehearsal(ctx, c.actor(), store.Rehearsal{ID: uuid.NewString(), HorseID: r.horse.ID, Doc: in.Body}); err != nil {
		return Clearances{}, err
	}
	return s.clearance(ctx, c, &caseInput{ID: in.ID})
}

func owns(r reading, person string) bool {
	for _, o := range r.horse.Owners {
		if o.ID == person {
			return true
		}
	}
	return false
}

func (s *Server) homework(ctx context.Context, c caller, in *homeworkInput) (HomeworkPage, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return HomeworkPage{}, err
	}
	if !owns(r, in.Person) {
		return HomeworkPage{}, store.ErrNotFound
	}
	page := HomeworkPage{
		HomeworkCard: plan.HomeworkFor(r.file.Catalog, r.file.Plan(), r.choices(), in.Person, r.horse.Record.Called(r.horse.Name)), Horse: HorseRef{r.horse.ID, r.horse.Name},
		Date: c.today(), By: c.Name, Practice: c.practice.Name, Contacts: []Contact{},
	}
	for _, o := range r.horse.Owners {
		if o.ID == in.Person {
			page.Name = o.Name
		}
	}
	if c.practice.Phone != "" {
		page.Contacts = append(page.Contacts, Contact{What: "trainer", Name: c.practice.Name, Phone: c.practice.Phone})
	}
	others, err := s.contacts(ctx, c, r)
	for _, o := range others {
		if o.What != "owner" {
			page.Contacts = append(page.Contacts, o)
		}
	}
	return page, err
}

func (s *Server) viewPractice(_ context.Context, c caller, _ *struct{}) (PracticeView, error) {
	return PracticeView{Name: c.practice.Name, Phone: c.practice.Phone}, nil
}

func (s *Server) setPhone(ctx context.Context, c caller, in *phoneInput) (PracticeView, error) {
	if err := s.Store.SetPhone(ctx, c.actor(), in.Body.Phone); err != nil {
		return PracticeView{}, err
	}
	return PracticeView{Name: c.practice.Name, Phone: in.Body.Phone}, nil
}
