package store

import (
	"context"
	"errors"

	"ivorybridge/store/sqlc"
)

// A Person is an owner, a yard, a rescue, a vet or another who must be asked.
type Person struct {
	ID      string
	Kind    string
	Name    string
	Phone   string
	Email   string
	Note    string
	Version int64
}

// A Yard is where horses stand.
type Yard struct {
	ID      string
	Name    string
	Address string
	Phone   string
	Version int64
}

// AddPerson keeps a new person.
func (s *Store) AddPerson(ctx context.Context, actor Actor, p Person) error {
	return s.write(ctx, "adding a person", func(q *sqlc.Queries) error { return addPerson(ctx, q, actor, p) })
}

func addPerson(ctx context.Context, q *sqlc.Queries, actor Actor, p Person) error {
	err := q.InsertPerson(ctx, sqlc.InsertPersonParams{
		ID: p.ID, PracticeID: actor.Practice, Kind: p.Kind, Name: p.Name, Phone: p.Phone, Email: p.Email, Note: p.Note, CreatedAt: actor.At,
	})
	if err != nil {
		return err
	}
	return actor.changed(ctx, q, "person added", p.ID)
}

// People lists the practice's people by name.
func (v View) People(ctx context.Context, practice string) ([]Person, error) {
	rows, err := v.read.GetPeople(ctx, practice)
	people := make([]Person, 0, len(rows))
	for _, p := range rows {
		people = append(people, Person(p))
	}
	return people, reading("the people", err)
}

// Person reads one person.
func (v View) Person(ctx context.Context, practice, id string) (Person, error) {
	p, err := v.read.GetPerson(ctx, sqlc.GetPersonParams{PracticeID: practice, ID: id})
	return Person(p), reading("the person", err)
}

// UpdatePerson keeps a changed person; a *StaleError if it was changed since
// the version it was read at.
func (s *Store) UpdatePerson(ctx context.Context, actor Actor, p Person) error {
	err := s.write(ctx, "changing a person", func(q *sqlc.Queries) error {
		n, err := q.UpdatePerson(ctx, sqlc.UpdatePersonParams{
			Kind: p.Kind, Name: p.Name, Phone: p.Phone, Email: p.Email, Note: p.Note, PracticeID: actor.Practice, ID: p.ID, Version: p.Version,
		})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "person changed", p.ID)
	})
	return stale(err, func() (any, error) { return s.Person(ctx, actor.Practice, p.ID) })
}

// stale tells a write that found no row of its version from one that found no
// row at all.
func stale(err error, current func() (any, error)) error {
	if !errors.Is(err, errNoRow) {
		return err
	}
	now, gone := current()
	if gone != nil {
		return gone
	}
	return &StaleError{Current: now}
}

// AddYard keeps a new yard.
func (s *Store) AddYard(ctx context.Context, actor Actor, y Yard) error {
	return s.write(ctx, "adding a yard", func(q *sqlc.Queries) error { return addYard(ctx, q, actor, y) })
}

func addYard(ctx context.Context, q *sqlc.Queries, actor Actor, y Yard) error {
	err := q.InsertYard(ctx, sqlc.InsertYardParams{ID: y.ID, PracticeID: actor.Practice, Name: y.Name, Address: y.Address, Phone: y.Phone, CreatedAt: actor.At})
	if err != nil {
		return err
	}
	return actor.changed(ctx, q, "yard added", y.ID)
}

// Yards lists the practice's yards by name.
func (v View) Yards(ctx context.Context, practice string) ([]Yard, error) {
	rows, err := v.read.GetYards(ctx, practice)
	yards := make([]Yard, 0, len(rows))
	for _, y := range rows {
		yards = append(yards, Yard(y))
	}
	return yards, reading("the yards", err)
}

// UpdateYard keeps a changed yard; a *StaleError if it was changed since the
// version it was read at.
func (s *Store) UpdateYard(ctx context.Context, actor Actor, y Yard) error {
	err := s.write(ctx, "changing a yard", func(q *sqlc.Queries) error {
		n, err := q.UpdateYard(ctx, sqlc.UpdateYardParams{Name: y.Name, Address: y.Address, Phone: y.Phone, PracticeID: actor.Practice, ID: y.ID, Version: y.Version})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "yard changed", y.ID)
	})
	return stale(err, func() (any, error) {
		now, err := s.read.GetYard(ctx, sqlc.GetYardParams{PracticeID: actor.Practice, ID: y.ID})
		return Yard(now), reading("the yard", err)
	})
}

func asStale(err error) (*StaleError, bool) {
	var stale *StaleError
	ok := errors.As(err, &stale)
	return stale, ok
}

func thePerson(ctx context.Context, actor Actor, what, id string) reference {
	return reference{what, func(q *sqlc.Queries) error {
		if id == "" {
			return nil
		}
		_, err := q.GetPerson(ctx, sqlc.GetPersonParams{PracticeID: actor.Practice, ID: id})
		return err
	}}
}

func theYard(ctx context.Context, actor Actor, id string) reference {
	return reference{"yard", func(q *sqlc.Queries) error {
		if id == "" {
			return nil
		}
		_, err := q.GetYard(ctx, sqlc.GetYardParams{PracticeID: actor.Practice, ID: id})
		return err
	}}
}
