package store

import (
	"context"
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/store/sqlc"
)

// A Horse with its yard, its owners and those who handle it for them.
type Horse struct {
	ID       string
	Name     string
	YardID   string
	Yard     Yard
	Record   assess.Record
	Owners   []OwnerOf
	Handlers []OwnerOf
	Version  int64
	Damaged  error // its record can't be read
}

// OwnerOf is a person or an organisation that owns a horse now, or somebody who
// handles it for them.
type OwnerOf struct{ ID, Kind, Name, Phone string }

// Holders are the people of the owner's side who hold the rope: the owner, but
// for an organisation whose handlers are named, and the handlers.
func (h Horse) Holders() []OwnerOf {
	var holders []OwnerOf
	for _, o := range h.Owners {
		if o.Kind == "owner" || len(h.Handlers) == 0 {
			holders = append(holders, o)
		}
	}
	return append(holders, h.Handlers...)
}

// A Case is a horse's problem with its goal and date.
type Case struct {
	ID         string
	HorseID    string
	Problem    string
	Ladder     string
	Goal       string
	NeededBy   string // YYYY-MM-DD or empty
	OpenedOn   string
	FinishedOn string
	Wanted     map[horse.Problem]plan.Wanted // as it was taken on: its problems, and how far
	Thing      string                        // that a case of a new thing is about
	Version    int64
}

// Further lists the problems beside its own that a case was taken on with.
func (c Case) Further() []horse.Problem {
	var further []horse.Problem
	for p := range c.Wanted {
		if p.String() != c.Problem {
			further = append(further, p)
		}
	}
	slices.SortFunc(further, func(a, b horse.Problem) int { return a.Rank() - b.Rank() })
	return further
}

// Intake is a horse taken on: all of it is kept, or nothing.
type Intake struct {
	Horse    Horse
	OwnerID  string
	NewOwner *Person  // instead of OwnerID
	NewYard  *Yard    // instead of Horse.YardID
	Handlers []Person // new people who handle it for the owner
	Case     Case
}

// TakeOn keeps a new horse with its owner, yard and first case.
func (s *Store) TakeOn(ctx context.Context, actor Actor, in Intake) error {
	return s.write(ctx, "taking on a horse", func(q *sqlc.Queries) error { return takeOn(ctx, q, actor, in) },
		thePerson(ctx, actor, "owner", in.OwnerID), theYard(ctx, actor, in.Horse.YardID))
}

func takeOn(ctx context.Context, q *sqlc.Queries, actor Actor, in Intake) error {
	if in.NewOwner != nil {
		if err := addPerson(ctx, q, actor, *in.NewOwner); err != nil {
			return err
		}
		in.OwnerID = in.NewOwner.ID
	}
	if in.NewYard != nil {
		if err := addYard(ctx, q, actor, *in.NewYard); err != nil {
			return err
		}
		in.Horse.YardID = in.NewYard.ID
	}
	h := in.Horse
	if err := q.InsertHorse(ctx, sqlc.InsertHorseParams{ID: h.ID, PracticeID: actor.Practice, Name: h.Name, YardID: null(h.YardID), Record: writeJSON(h.Record), CreatedAt: actor.At}); err != nil {
		return err
	}
	if err := q.InsertOwnership(ctx, sqlc.InsertOwnershipParams{PracticeID: actor.Practice, HorseID: h.ID, PersonID: in.OwnerID, FromDate: in.Case.OpenedOn}); err != nil {
		return err
	}
	for _, p := range in.Handlers {
		if err := addHandler(ctx, q, actor, h.ID, p); err != nil {
			return err
		}
	}
	c := in.Case
	if err := q.InsertCase(ctx, sqlc.InsertCaseParams{
		ID: c.ID, PracticeID: actor.Practice, HorseID: h.ID, Problem: c.Problem, Ladder: c.Ladder, Goal: c.Goal,
		NeededBy: null(c.NeededBy), OpenedOn: c.OpenedOn, Wanted: writeJSON(c.Wanted), Thing: c.Thing, CreatedAt: actor.At,
	}); err != nil {
		return err
	}
	return actor.changed(ctx, q, "horse taken on", h.ID)
}

// addHandler keeps a new person who handles a horse for its owner.
func addHandler(ctx context.Context, q *sqlc.Queries, actor Actor, horseID string, p Person) error {
	if err := addPerson(ctx, q, actor, p); err != nil {
		return err
	}
	return q.InsertHandler(ctx, sqlc.InsertHandlerParams{PracticeID: actor.Practice, HorseID: horseID, PersonID: p.ID})
}

// AddHandler keeps a new person who handles a horse for its owner.
func (s *Store) AddHandler(ctx context.Context, actor Actor, horseID string, p Person) error {
	return s.write(ctx, "adding a handler", func(q *sqlc.Queries) error { return addHandler(ctx, q, actor, horseID, p) }, theHorse(ctx, actor, horseID))
}

// RemoveHandler says that a person no longer handles a horse; what they did stays.
func (s *Store) RemoveHandler(ctx context.Context, actor Actor, horseID, personID string) error {
	return s.write(ctx, "taking out a handler", func(q *sqlc.Queries) error {
		n, err := q.DeleteHandler(ctx, sqlc.DeleteHandlerParams{PracticeID: actor.Practice, HorseID: horseID, PersonID: personID})
		if err != nil {
			return err
		}
		if n == 0 {
			return ErrNotFound
		}
		return actor.changed(ctx, q, "handler taken out", horseID)
	})
}

func theHorse(ctx context.Context, actor Actor, id string) reference {
	return reference{"horse", func(q *sqlc.Queries) error {
		_, err := q.GetHorse(ctx, sqlc.GetHorseParams{PracticeID: actor.Practice, ID: id})
		return err
	}}
}

func theCase(ctx context.Context, actor Actor, id string) reference {
	return reference{"case", func(q *sqlc.Queries) error {
		_, err := q.GetCase(ctx, sqlc.GetCaseParams{PracticeID: actor.Practice, ID: id})
		return err
	}}
}

// Horse reads one horse.
func (v View) Horse(ctx context.Context, practice, id string) (Horse, error) {
	h, err := v.HorseAsKept(ctx, practice, id)
	if err == nil && h.Damaged != nil {
		return Horse{}, h.Damaged
	}
	return h, err
}

// HorseAsKept reads one horse, also where its record can't be read.
func (v View) HorseAsKept(ctx context.Context, practice, id string) (Horse, error) {
	h, err := v.read.GetHorse(ctx, sqlc.GetHorseParams{PracticeID: practice, ID: id})
	if err != nil {
		return Horse{}, reading("the horse", err)
	}
	record, damaged := readJSON[assess.Record]("the horse's record", h.Record)
	rows, err := v.read.GetOwnersOfHorse(ctx, sqlc.GetOwnersOfHorseParams{PracticeID: practice, HorseID: id})
	var owners []OwnerOf
	for _, o := range rows {
		owners = append(owners, OwnerOf{ID: o.PersonID, Kind: o.Kind, Name: o.Name, Phone: o.Phone})
	}
	if err != nil {
		return Horse{}, reading("the owners", err)
	}
	hands, err := v.read.GetHandlersOfHorse(ctx, sqlc.GetHandlersOfHorseParams{PracticeID: practice, HorseID: id})
	var handlers []OwnerOf
	for _, o := range hands {
		handlers = append(handlers, OwnerOf{ID: o.PersonID, Kind: o.Kind, Name: o.Name, Phone: o.Phone})
	}
	return Horse{
		ID: h.ID, Name: h.Name, YardID: h.YardID.String, Record: record, Version: h.Version, Owners: owners, Handlers: handlers, Damaged: damaged,
		Yard: Yard{ID: h.YardID.String, Name: h.YardName.String, Address: h.YardAddress.String, Phone: h.YardPhone.String},
	}, reading("the handlers", err)
}

// Horses lists the caseload by name.
func (v View) Horses(ctx context.Context, practice string) ([]Horse, error) {
	rows, err := v.read.GetHorses(ctx, practice)
	if err != nil {
		return nil, reading("the horses", err)
	}
	owners, err := v.owners(ctx, practice)
	if err != nil {
		return nil, err
	}
	handlers, err := v.handlers(ctx, practice)
	if err != nil {
		return nil, err
	}
	horses := make([]Horse, 0, len(rows))
	for _, h := range rows {
		record, err := readJSON[assess.Record]("the horse's record", h.Record)
		horses = append(horses, Horse{Damaged: err, ID: h.ID, Name: h.Name, YardID: h.YardID.String, Yard: Yard{ID: h.YardID.String, Name: h.YardName.String}, Record: record, Version: h.Version, Owners: owners[h.ID], Handlers: handlers[h.ID]})
	}
	return horses, nil
}

func (v View) owners(ctx context.Context, practice string) (map[string][]OwnerOf, error) {
	rows, err := v.read.GetOwners(ctx, practice)
	byHorse := map[string][]OwnerOf{}
	for _, o := range rows {
		byHorse[o.HorseID] = append(byHorse[o.HorseID], OwnerOf{ID: o.PersonID, Kind: o.Kind, Name: o.Name, Phone: o.Phone})
	}
	return byHorse, reading("the owners", err)
}

func (v View) handlers(ctx context.Context, practice string) (map[string][]OwnerOf, error) {
	rows, err := v.read.GetHandlers(ctx, practice)
	byHorse := map[string][]OwnerOf{}
	for _, o := range rows {
		byHorse[o.HorseID] = append(byHorse[o.HorseID], OwnerOf{ID: o.PersonID, Kind: o.Kind, Name: o.Name, Phone: o.Phone})
	}
	return byHorse, reading("the handlers", err)
}

// UpdateHorse keeps a changed name, yard and record; a *StaleError if the
// horse was changed since the version it was read at.
func (s *Store) UpdateHorse(ctx context.Context, actor Actor, h Horse) error {
	err := s.write(ctx, "changing a horse", func(q *sqlc.Queries) error {
		n, err := q.UpdateHorse(ctx, sqlc.UpdateHorseParams{Name: h.Name, YardID: null(h.YardID), Record: writeJSON(h.Record), PracticeID: actor.Practice, ID: h.ID, Version: h.Version})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "horse changed", h.ID)
	}, theYard(ctx, actor, h.YardID))
	return stale(err, func() (any, error) { return s.Horse(ctx, actor.Practice, h.ID) })
}

func caseOf(c sqlc.GetCaseRow) (Case, error) {
	wanted, err := readJSON[map[horse.Problem]plan.Wanted]("what was wanted of the case", c.Wanted)
	return Case{
		ID: c.ID, HorseID: c.HorseID, Problem: c.Problem, Ladder: c.Ladder, Goal: c.Goal, NeededBy: c.NeededBy.String, OpenedOn: c.OpenedOn,
		FinishedOn: c.FinishedOn.String, Wanted: wanted, Thing: c.Thing, Version: c.Version,
	}, err
}

// Case reads one case.
func (v View) Case(ctx context.Context, practice, id string) (Case, error) {
	c, err := v.read.GetCase(ctx, sqlc.GetCaseParams{PracticeID: practice, ID: id})
	if err != nil {
		return Case{}, reading("the case", err)
	}
	return caseOf(c)
}

// NewestCase reads the newest case of a horse.
func (v View) NewestCase(ctx context.Context, practice, horseID string) (Case, error) {
	c, err := v.read.GetNewestCase(ctx, sqlc.GetNewestCaseParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return Case{}, reading("the case", err)
	}
	return caseOf(sqlc.GetCaseRow(c))
}

// Cases lists the practice's cases, the newest first.
func (v View) Cases(ctx context.Context, practice string) ([]Case, error) {
	rows, err := v.read.GetCases(ctx, practice)
	if err != nil {
		return nil, reading("the cases", err)
	}
	cases := make([]Case, 0, len(rows))
	for _, c := range rows {
		k, err := caseOf(sqlc.GetCaseRow(c))
		if err != nil {
			return nil, err
		}
		cases = append(cases, k)
	}
	return cases, nil
}

// UpdateCase keeps a changed goal, date or end.
func (s *Store) UpdateCase(ctx context.Context, actor Actor, c Case) error {
	err := s.write(ctx, "changing a case", func(q *sqlc.Queries) error {
		n, err := q.UpdateCase(ctx, sqlc.UpdateCaseParams{Goal: c.Goal, NeededBy: null(c.NeededBy), FinishedOn: null(c.FinishedOn), Thing: c.Thing, PracticeID: actor.Practice, ID: c.ID, Version: c.Version})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "case changed", c.ID)
	})
	return stale(err, func() (any, error) { return s.Case(ctx, actor.Practice, c.ID) })
}
