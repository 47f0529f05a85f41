package store

import (
	"context"

	"ivorybridge/core/clearance"
	"ivorybridge/store/sqlc"
)

// A Rehearsal as it was written down.
type Rehearsal struct {
	ID      string
	HorseID string
	Doc     clearance.Rehearsal
	NotedBy string // name; a user's id when adding
	At      int64
}

// AddRehearsal keeps what a person practised; nothing changes it after.
func (s *Store) AddRehearsal(ctx context.Context, actor Actor, r Rehearsal) error {
	return s.write(ctx, "keeping a rehearsal", func(q *sqlc.Queries) error {
		if err := q.InsertRehearsal(ctx, sqlc.InsertRehearsalParams{
			ID: r.ID, PracticeID: actor.Practice, HorseID: r.HorseID, PersonID: r.Doc.Person, Step: r.Doc.Step, OnDate: r.Doc.On,
			Doc: writeJSON(r.Doc), NotedBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "rehearsal kept", r.ID)
	}, theHorse(ctx, actor, r.HorseID), thePerson(ctx, actor, "person", r.Doc.Person))
}

// Rehearsals lists what was practised with a horse, the oldest first.
func (v View) Rehearsals(ctx context.Context, practice, horseID string) ([]Rehearsal, error) {
	rows, err := v.read.GetRehearsals(ctx, sqlc.GetRehearsalsParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, reading("the rehearsals", err)
	}
	list := make([]Rehearsal, 0, len(rows))
	for _, r := range rows {
		d, err := readJSON[clearance.Rehearsal]("a rehearsal", r.Doc)
		if err != nil {
			return nil, err
		}
		list = append(list, Rehearsal{ID: r.ID, HorseID: horseID, Doc: d, NotedBy: r.NotedBy, At: r.CreatedAt})
	}
	return list, nil
}
