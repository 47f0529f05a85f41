// Package people answers for people and yards.
package people

import (
	"context"
	"net/http"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Service answers for people and yards.
type Service struct{ *api.API }

// New registers what can be asked of people and yards.
func New(a *api.API) *Service {
	s := &Service{a}
	s.peopleOperations()
	s.trailerOperations()
	return s
}

// Person is an owner, a vet or another who must be asked.
type Person struct {
	ID      string `json:"id"`
	Kind    string `json:"kind"`
	Name    string `json:"name"`
	Phone   string `json:"phone"`
	Email   string `json:"email"`
	Note    string `json:"note"`
	Version int64  `json:"version"`
}

// PersonText is what is written down of a person.
type PersonText struct {
	Kind  string `json:"kind" enum:"owner,yard,rescue,vet,dentist,farrier,other"`
	Name  string `json:"name" minLength:"1" maxLength:"120"`
	Phone string `json:"phone,omitempty" maxLength:"60"`
	Email string `json:"email,omitempty" maxLength:"254"`
	Note  string `json:"note,omitempty" maxLength:"2000"`
}

// Yard is where horses stand.
type Yard struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Address string `json:"address"`
	Phone   string `json:"phone"`
	Version int64  `json:"version"`
}

// YardText is what is written down of a yard.
type YardText struct {
	Name    string `json:"name" minLength:"1" maxLength:"120"`
	Address string `json:"address,omitempty" maxLength:"400"`
	Phone   string `json:"phone,omitempty" maxLength:"60"`
}

type personInput struct{ Body PersonText }

type personChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		PersonText
		Version int64 `json:"version" minimum:"1"`
	}
}

type yardInput struct{ Body YardText }

type yardChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		YardText
		Version int64 `json:"version" minimum:"1"`
	}
}

func (s *Service) peopleOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/people", "people", "Owners, vets and others", s.people)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/people", "addPerson", "Add a person", s.addPerson)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/people/{id}", "changePerson", "Change a person", s.changePerson)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/yards", "yards", "The yards", s.yards)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/yards", "addYard", "Add a yard", s.addYard)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/yards/{id}", "changeYard", "Change a yard", s.changeYard)
}

func (s *Service) people(ctx context.Context, c api.Caller, _ *struct{}) ([]Person, error) {
	list, err := c.View.People(ctx, c.Practice)
	people := make([]Person, 0, len(list))
	for _, p := range list {
		people = append(people, Person(p))
	}
	return people, err
}

func (s *Service) yards(ctx context.Context, c api.Caller, _ *struct{}) ([]Yard, error) {
	list, err := c.View.Yards(ctx, c.Practice)
	yards := make([]Yard, 0, len(list))
	for _, y := range list {
		yards = append(yards, Yard(y))
	}
	return yards, err
}

// Person checks what was written and makes a person of it.
func (t PersonText) Person(prefix string) (store.Person, []api.FieldProblem) {
	p := store.Person{
		Kind: t.Kind, Name: strings.TrimSpace(t.Name), Phone: strings.TrimSpace(t.Phone),
		Email: strings.TrimSpace(t.Email), Note: strings.TrimSpace(t.Note),
	}
	var wrong []api.FieldProblem
	if p.Name == "" {
		wrong = append(wrong, api.FieldProblem{Field: prefix + "name", Say: "Give the person's name."})
	}
	if p.Email != "" && (!strings.Contains(p.Email, "@") || strings.ContainsAny(p.Email, " \t\n")) {
		wrong = append(wrong, api.FieldProblem{Field: prefix + "email", Say: "This is not an email address. It needs a name, an @ and a place."})
	}
	return p, wrong
}

func (s *Service) addPerson(ctx context.Context, c api.Caller, in *personInput) (Person, error) {
	p, wrong := in.Body.Person("")
	if len(wrong) > 0 {
		return Person{}, api.Faulty(wrong...)
	}
	p.ID, p.Version = uuid.NewString(), 1
	return Person(p), s.Store.AddPerson(ctx, c.Actor(), p)
}

func (s *Service) changePerson(ctx context.Context, c api.Caller, in *personChange) (Person, error) {
	p, wrong := in.Body.Person("")
	if len(wrong) > 0 {
		return Person{}, api.Faulty(wrong...)
	}
	p.ID, p.Version = in.ID, in.Body.Version
	if err := s.Store.UpdatePerson(ctx, c.Actor(), p); err != nil {
		return Person{}, api.Stale(err, func(now any) Person { return Person(now.(store.Person)) })
	}
	p.Version++
	return Person(p), nil
}

// Yard checks what was written and makes a yard of it.
func (t YardText) Yard(prefix string) (store.Yard, []api.FieldProblem) {
	y := store.Yard{Name: strings.TrimSpace(t.Name), Address: strings.TrimSpace(t.Address), Phone: strings.TrimSpace(t.Phone)}
	if y.Name == "" {
		return y, []api.FieldProblem{{Field: prefix + "name", Say: "Give the yard's name."}}
	}
	return y, nil
}

func (s *Service) addYard(ctx context.Context, c api.Caller, in *yardInput) (Yard, error) {
	y, wrong := in.Body.Yard("")
	if len(wrong) > 0 {
		return Yard{}, api.Faulty(wrong...)
	}
	y.ID, y.Version = uuid.NewString(), 1
	return Yard(y), s.Store.AddYard(ctx, c.Actor(), y)
}

func (s *Service) changeYard(ctx context.Context, c api.Caller, in *yardChange) (Yard, error) {
	y, wrong := in.Body.Yard("")
	if len(wrong) > 0 {
		return Yard{}, api.Faulty(wrong...)
	}
	y.ID, y.Version = in.ID, in.Body.Version
	if err := s.Store.UpdateYard(ctx, c.Actor(), y); err != nil {
		return Yard{}, api.Stale(err, func(now any) Yard { return Yard(now.(store.Yard)) })
	}
	y.Version++
	return Yard(y), nil
}
