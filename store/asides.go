package store

import (
	"context"

	"ivorybridge/core/attention"
	"ivorybridge/store/sqlc"
)

// SetAside keeps that a note of a horse was set aside.
func (s *Store) SetAside(ctx context.Context, actor Actor, horseID string, p attention.Put) error {
	return s.write(ctx, "setting a note aside", func(q *sqlc.Queries) error {
		if err := q.InsertSetAside(ctx, sqlc.InsertSetAsideParams{
			PracticeID: actor.Practice, HorseID: horseID, Note: p.Note, Basis: p.Basis, Until: p.Until, Reason: p.Reason, SetBy: actor.User, SetAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "note set aside", horseID)
	}, theHorse(ctx, actor, horseID))
}

// Asides lists the notes of a horse that were set aside, the oldest first.
func (v View) Asides(ctx context.Context, practice, horseID string) ([]attention.Put, error) {
	rows, err := v.read.GetSetAside(ctx, sqlc.GetSetAsideParams{PracticeID: practice, HorseID: horseID})
	list := make([]attention.Put, 0, len(rows))
	for _, r := range rows {
		list = append(list, attention.Put{Note: r.Note, Basis: r.Basis, Until: r.Until, Reason: r.Reason, By: r.SetBy})
	}
	return list, reading("what was set aside", err)
}
