package store

import (
	"context"
	"database/sql"
	"errors"

	"ivorybridge/store/sqlc"
)

// ErrWorkedWith says that what a notebook brought was worked with since.
var ErrWorkedWith = errors.New("it was worked with since")

// A Notebook is a table of earlier years that was taken in.
type Notebook struct {
	ID      string
	Name    string
	Brought Brought
	TakenBy string // name
	TakenAt int64
	Undone  bool
	Lines   int
}

// Brought are the ids of what a notebook brought that was not here.
type Brought struct {
	Horses []string `json:"horses,omitempty"`
	People []string `json:"people,omitempty"`
}

// NotebookLine is what was written of a horse on a day.
type NotebookLine struct {
	Line     int
	HorseID  string
	On       string
	What     string
	Minutes  *int
	Note     string
	Notebook string // name, as it is read
}

// NotebookTaken is all that a notebook brings.
type NotebookTaken struct {
	Notebook
	People []Person
	Horses []Intake // each with its case, which is finished
	Lines  []NotebookLine
}

// TakeNotebook takes a notebook in: all of it, or nothing.
func (s *Store) TakeNotebook(ctx context.Context, actor Actor, n NotebookTaken) error {
	return s.write(ctx, "taking a notebook in", func(q *sqlc.Queries) error {
		for _, p := range n.People {
			if err := addPerson(ctx, q, actor, p); err != nil {
				return err
			}
			n.Brought.People = append(n.Brought.People, p.ID)
		}
		for _, h := range n.Horses {
			if err := takeOn(ctx, q, actor, h); err != nil {
				return err
			}
			if err := q.FinishCase(ctx, sqlc.FinishCaseParams{FinishedOn: null(h.Case.FinishedOn), PracticeID: actor.Practice, ID: h.Case.ID}); err != nil {
				return err
			}
			n.Brought.Horses = append(n.Brought.Horses, h.Horse.ID)
		}
		if err := q.InsertNotebook(ctx, sqlc.InsertNotebookParams{
			ID: n.ID, PracticeID: actor.Practice, Name: n.Name, Brought: writeJSON(n.Brought), TakenBy: actor.User, TakenAt: actor.At,
		}); err != nil {
			return err
		}
		for _, l := range n.Lines {
			var minutes sql.NullInt64
			if l.Minutes != nil {
				minutes = sql.NullInt64{Int64: int64(*l.Minutes), Valid: true}
			}
			if err := q.InsertNotebookLine(ctx, sqlc.InsertNotebookLineParams{
				PracticeID: actor.Practice, NotebookID: n.ID, Line: int64(l.Line), HorseID: l.HorseID, OnDate: l.On, What: l.What, Minutes: minutes, Note: l.Note,
			}); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "notebook taken in", n.ID)
	})
}

// Notebooks lists the notebooks that were taken in, the newest first.
func (v View) Notebooks(ctx context.Context, practice string) ([]Notebook, error) {
	rows, err := v.read.GetNotebooks(ctx, practice)
	if err != nil {
		return nil, reading("the notebooks", err)
	}
	list := make([]Notebook, 0, len(rows))
	for _, r := range rows {
		brought, err := readJSON[Brought]("what a notebook brought", r.Brought)
		if err != nil {
			return nil, err
		}
		list = append(list, Notebook{r.ID, r.Name, brought, r.TakenBy, r.TakenAt, r.UndoneAt.Valid, int(r.Lines)})
	}
	return list, nil
}

// NotebookLines lists what notebooks say of a horse, the newest first.
func (v View) NotebookLines(ctx context.Context, practice, horseID string) ([]NotebookLine, error) {
	rows, err := v.read.GetNotebookLines(ctx, sqlc.GetNotebookLinesParams{PracticeID: practice, HorseID: horseID})
	list := make([]NotebookLine, 0, len(rows))
	for _, r := range rows {
		l := NotebookLine{HorseID: horseID, On: r.OnDate, What: r.What, Note: r.Note, Notebook: r.Notebook}
		if r.Minutes.Valid {
			n := int(r.Minutes.Int64)
			l.Minutes = &n
		}
		list = append(list, l)
	}
	return list, reading("the notebooks", err)
}

// UndoNotebook takes back all that a notebook brought; ErrWorkedWith, and nothing is taken
// back, where somebody worked with any of it since.
func (s *Store) UndoNotebook(ctx context.Context, actor Actor, id string) error {
	err := s.write(ctx, "undoing a notebook", func(q *sqlc.Queries) error {
		row, err := q.GetNotebook(ctx, sqlc.GetNotebookParams{PracticeID: actor.Practice, ID: id})
		if err != nil {
			return err
		}
		if row.UndoneAt.Valid {
			return nil
		}
		brought, err := readJSON[Brought]("what a notebook brought", row.Brought)
		if err != nil {
			return err
		}
		if err := q.DeleteNotebookLines(ctx, sqlc.DeleteNotebookLinesParams{PracticeID: actor.Practice, NotebookID: id}); err != nil {
			return err
		}
		for _, h := range brought.Horses {
			err := errors.Join(
				q.DeleteOpened(ctx, sqlc.DeleteOpenedParams{PracticeID: actor.Practice, HorseID: h}), q.DeleteStamp(ctx, sqlc.DeleteStampParams{PracticeID: actor.Practice, HorseID: h}),
				q.DeleteCases(ctx, sqlc.DeleteCasesParams{PracticeID: actor.Practice, HorseID: h}), q.DeleteOwnerships(ctx, sqlc.DeleteOwnershipsParams{PracticeID: actor.Practice, HorseID: h}),
				q.DeleteHorse(ctx, sqlc.DeleteHorseParams{PracticeID: actor.Practice, ID: h}))
			if err != nil {
				return err
			}
		}
		for _, p := range brought.People {
			if err := q.DeletePerson(ctx, sqlc.DeletePersonParams{PracticeID: actor.Practice, ID: p}); err != nil {
				return err
			}
		}
		if err := q.UndoNotebook(ctx, sqlc.UndoNotebookParams{UndoneAt: when(actor.At), PracticeID: actor.Practice, ID: id}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "notebook undone", id)
	})
	if errors.Is(err, errReference) {
		return ErrWorkedWith
	}
	return err
}
