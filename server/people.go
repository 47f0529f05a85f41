package server

import (
	"context"
	"net/http"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/store"
)

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

func (s *Server) peopleOperations() {
	operation(s, staff, http.MethodGet, "/api/people", "people", "Owners, vets and others", s.people)
	operation(s, staff, http.MethodPost, "/api/people", "addPerson", "Add a person", s.addPerson)
	operation(s, staff, http.MethodPut, "/api/people/{id}", "changePerson", "Change a person", s.changePerson)
	operation(s, staff, http.MethodGet, "/api/yards", "yards", "The yards", s.yards)
	operation(s, staff, http.MethodPost, "/api/yards", "addYard", "Add a yard", s.addYard)
	operation(s, staff, http.MethodPut, "/api/yards/{id}", "changeYard", "Change a yard", s.changeYard)
}

func (s *Server) people(ctx context.Context, c caller, _ *struct{}) ([]Person, error) {
	list, err := c.view.People(ctx, c.Practice)
	people := make([]Person, 0, len(list))
	for _, p := range list {
		people = append(people, Person(p))
	}
	return people, err
}

func (s *Server) yards(ctx context.Context, c caller, _ *struct{}) ([]Yard, error) {
	list, err := c.view.Yards(ctx, c.Practice)
	yards := make([]Yard, 0, len(list))
	for _, y := range list {
		yards = append(yards, Yard(y))
	}
	return yards, err
}

// person checks what was written and makes a person of it.
func (t PersonText) person(prefix string) (store.Person, []FieldProblem) {
	p := store.Person{
		Kind: t.Kind, Name: strings.TrimSpace(t.Name), Phone: strings.TrimSpace(t.Phone),
		Email: strings.TrimSpace(t.Email), Note: strings.TrimSpace(t.Note),
	}
	var wrong []FieldProblem
	if p.Name == "" {
		wrong = append(wrong, FieldProblem{Field: prefix + "name", Say: "Give the person's name."})
	}
	if p.Email != "" && (!strings.Contains(p.Email, "@") || strings.ContainsAny(p.Email, " \t\n")) {
		wrong = append(wrong, FieldProblem{Field: prefix + "email", Say: "This is not an email address. It needs a name, an @ and a place."})
	}
	return p, wrong
}

func (s *Server) addPerson(ctx context.Context, c caller, in *personInput) (Person, error) {
	p, wrong := in.Body.person("")
	if len(wrong) > 0 {
		return Person{}, faulty(wrong...)
	}
	p.ID, p.Version = uuid.NewString(), 1
	return Person(p), s.Store.AddPerson(ctx, c.actor(), p)
}

func (s *Server) changePerson(ctx context.Context, c caller, in *personChange) (Person, error) {
	p, wrong := in.Body.person("")
	if len(wrong) > 0 {
		return Person{}, faulty(wrong...)
	}
	p.ID, p.Version = in.ID, in.Body.Version
	if err := s.Store.UpdatePerson(ctx, c.actor(), p); err != nil {
		return Person{}, stale(err, func(now any) Person { return Person(now.(store.Person)) })
	}
	p.Version++
	return Person(p), nil
}

// yard checks what was written and makes a yard of it.
func (t YardText) yard(prefix string) (store.Yard, []FieldProblem) {
	y := store.Yard{Name: strings.TrimSpace(t.Name), Address: strings.TrimSpace(t.Address), Phone: strings.TrimSpace(t.Phone)}
	if y.Name == "" {
		return y, []FieldProblem{{Field: prefix + "name", Say: "Give the yard's name."}}
	}
	return y, nil
}

func (s *Server) addYard(ctx context.Context, c caller, in *yardInput) (Yard, error) {
	y, wrong := in.Body.yard("")
	if len(wrong) > 0 {
		return Yard{}, faulty(wrong...)
	}
	y.ID, y.Version = uuid.NewString(), 1
	return Yard(y), s.Store.AddYard(ctx, c.actor(), y)
}

func (s *Server) changeYard(ctx context.Context, c caller, in *yardChange) (Yard, error) {
	y, wrong := in.Body.yard("")
	if len(wrong) > 0 {
		return Yard{}, faulty(wrong...)
	}
	y.ID, y.Version = in.ID, in.Body.Version
	if err := s.Store.UpdateYard(ctx, c.actor(), y); err != nil {
		return Yard{}, stale(err, func(now any) Yard { return Yard(now.(store.Yard)) })
	}
	y.Version++
	return Yard(y), nil
}
