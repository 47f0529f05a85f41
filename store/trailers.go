package store

import (
	"context"

	"ivorybridge/core/trailer"
	"ivorybridge/store/sqlc"
)

// A Trailer of a yard or of an owner, with its record.
type Trailer struct {
	ID       string
	Name     string
	YardID   string // empty: of no yard
	PersonID string // empty: of no owner
	Record   trailer.Record
	Version  int64
}

func trailerOf(t sqlc.GetTrailerRow) (Trailer, error) {
	record, err := readJSON[trailer.Record]("the trailer's record", t.Record)
	return Trailer{ID: t.ID, Name: t.Name, YardID: t.YardID.String, PersonID: t.PersonID.String, Record: record, Version: t.Version}, err
}

// Trailers lists the practice's trailers by name. One whose record can't be read has
// none: nothing is said of it, and the others stay.
func (v View) Trailers(ctx context.Context, practice string) ([]Trailer, error) {
	rows, err := v.read.GetTrailers(ctx, practice)
	if err != nil {
		return nil, reading("the trailers", err)
	}
	trailers := make([]Trailer, 0, len(rows))
	for _, row := range rows {
		t, err := trailerOf(sqlc.GetTrailerRow(row))
		if err != nil {
			t.Record = trailer.Record{}
		}
		trailers = append(trailers, t)
	}
	return trailers, nil
}

// Trailer reads one trailer.
func (v View) Trailer(ctx context.Context, practice, id string) (Trailer, error) {
	row, err := v.read.GetTrailer(ctx, sqlc.GetTrailerParams{PracticeID: practice, ID: id})
	if err != nil {
		return Trailer{}, reading("the trailer", err)
	}
	return trailerOf(row)
}

// AddTrailer keeps a new trailer.
func (s *Store) AddTrailer(ctx context.Context, actor Actor, t Trailer) error {
	return s.write(ctx, "adding a trailer", func(q *sqlc.Queries) error {
		if err := q.InsertTrailer(ctx, sqlc.InsertTrailerParams{
			ID: t.ID, PracticeID: actor.Practice, Name: t.Name, YardID: null(t.YardID), PersonID: null(t.PersonID), Record: writeJSON(t.Record), CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "trailer added", t.ID)
	}, theYard(ctx, actor, t.YardID), thePerson(ctx, actor, "owner", t.PersonID))
}

// UpdateTrailer keeps a changed trailer; a *StaleError if it was changed since the
// version it was read at.
func (s *Store) UpdateTrailer(ctx context.Context, actor Actor, t Trailer) error {
	err := s.write(ctx, "changing a trailer", func(q *sqlc.Queries) error {
		n, err := q.UpdateTrailer(ctx, sqlc.UpdateTrailerParams{
			Name: t.Name, YardID: null(t.YardID), PersonID: null(t.PersonID), Record: writeJSON(t.Record), PracticeID: actor.Practice, ID: t.ID, Version: t.Version,
		})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "trailer changed", t.ID)
	}, theYard(ctx, actor, t.YardID), thePerson(ctx, actor, "owner", t.PersonID))
	return stale(err, func() (any, error) { return s.Trailer(ctx, actor.Practice, t.ID) })
}
