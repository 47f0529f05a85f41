package store

import (
	"context"
	"errors"

	"ivorybridge/core/homework"
	"ivorybridge/store/sqlc"
)

// A Practised is a log of practice at home, as it came.
type Practised struct {
	homework.Log
	HorseID  string
	Received int64
	Broken   bool // what it says can't be read
}

// AddPractised keeps a log; the same again is no error, another one under its id is
// ErrTaken.
func (s *Store) AddPractised(ctx context.Context, practice string, p Practised) error {
	doc := writeJSON(p.Log)
	err := s.write(ctx, "keeping a practice", func(q *sqlc.Queries) error {
		return q.InsertPractised(ctx, sqlc.InsertPractisedParams{
			ID: p.ID, PracticeID: practice, HorseID: p.HorseID, PersonID: p.Person, Step: p.Step, OnDate: p.On, Doc: doc, ReceivedAt: p.Received,
		})
	})
	if !errors.Is(err, ErrTaken) {
		return err
	}
	had, readErr := s.read.GetPractisedOne(ctx, sqlc.GetPractisedOneParams{PracticeID: practice, ID: p.ID})
	if readErr == nil && had.Doc == doc && had.HorseID == p.HorseID {
		return nil
	}
	return err
}

// Practised lists what was practised with a horse, by day.
func (v View) Practised(ctx context.Context, practice, horseID string) ([]Practised, error) {
	rows, err := v.read.GetPractised(ctx, sqlc.GetPractisedParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, reading("the practice at home", err)
	}
	list := make([]Practised, 0, len(rows))
	for _, r := range rows {
		l, err := readJSON[homework.Log]("a practice at home", r.Doc)
		if err != nil { // one broken record never takes the rest down, and is told
			list = append(list, Practised{Log: homework.Log{ID: r.ID, Person: r.PersonID, Step: r.Step, On: r.OnDate}, HorseID: horseID, Received: r.ReceivedAt, Broken: true})
			continue
		}
		list = append(list, Practised{Log: l, HorseID: horseID, Received: r.ReceivedAt})
	}
	return list, nil
}

// A Resumed is homework that may go on, by whom and since when.
type Resumed struct {
	homework.Resumed
	By string // name
	At int64
}

// Resume lets homework go on that a log stopped.
func (s *Store) Resume(ctx context.Context, actor Actor, horseID string, r homework.Resumed) error {
	return s.write(ctx, "letting homework go on", func(q *sqlc.Queries) error {
		if err := q.InsertResumed(ctx, sqlc.InsertResumedParams{
			PracticeID: actor.Practice, HorseID: horseID, LogID: r.Log, Reason: r.Reason, ResumedBy: actor.User, ResumedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "homework goes on", r.Log)
	})
}

// Resumed lists the homework of a horse that may go on in spite of a log.
func (v View) Resumed(ctx context.Context, practice, horseID string) ([]Resumed, error) {
	rows, err := v.read.GetResumed(ctx, sqlc.GetResumedParams{PracticeID: practice, HorseID: horseID})
	list := make([]Resumed, 0, len(rows))
	for _, r := range rows {
		list = append(list, Resumed{Resumed: homework.Resumed{Log: r.LogID, Reason: r.Reason}, By: r.ResumedBy, At: r.ResumedAt})
	}
	return list, reading("the homework that goes on", err)
}
