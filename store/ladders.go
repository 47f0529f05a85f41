package store

import (
	"context"
	"errors"

	"ivorybridge/core/catalog"
	"ivorybridge/core/plan"
	"ivorybridge/store/sqlc"
)

// A Ladder is a version of a practice's own copy of a ladder.
type Ladder struct {
	ID      string
	Version int64
	Key     string // of the ladder it was copied from, and its own
	Name    string
	Catalog string // version of the catalogue it was copied from
	Doc     catalog.Ladder
	Reason  string
	SavedBy string // name; a user's id when saving
	SavedAt int64
}

// Ladders lists the practice's own ladders, each in its newest version.
func (v View) Ladders(ctx context.Context, practice string) ([]Ladder, error) {
	rows, err := v.read.GetLadders(ctx, practice)
	if err != nil {
		return nil, reading("the ladders", err)
	}
	list := make([]Ladder, 0, len(rows))
	for _, r := range rows {
		l, err := ladder(sqlc.GetLadderRow(r))
		if err != nil {
			return nil, err
		}
		list = append(list, l)
	}
	return list, nil
}

// Ladder reads a version of an own ladder; version 0 is the newest.
func (v View) Ladder(ctx context.Context, practice, id string, version int64) (Ladder, error) {
	var row sqlc.GetLadderRow
	var err error
	if version == 0 {
		var newest sqlc.GetLatestLadderRow
		newest, err = v.read.GetLatestLadder(ctx, sqlc.GetLatestLadderParams{PracticeID: practice, ID: id})
		row = sqlc.GetLadderRow(newest)
	} else {
		row, err = v.read.GetLadder(ctx, sqlc.GetLadderParams{PracticeID: practice, ID: id, Version: version})
	}
	if err != nil {
		return Ladder{}, reading("the ladder", err)
	}
	return ladder(row)
}

func ladder(r sqlc.GetLadderRow) (Ladder, error) {
	d, err := readJSON[catalog.Ladder]("a ladder", r.Doc)
	d.Own = &catalog.Origin{ID: r.ID, Version: r.Version, From: r.CatalogVersion}
	return Ladder{ID: r.ID, Version: r.Version, Key: r.Ladder, Name: r.Name, Catalog: r.CatalogVersion, Doc: d, Reason: r.Reason, SavedBy: r.SavedBy, SavedAt: r.SavedAt}, err
}

// SaveLadder keeps the next version of an own ladder, the first if l.Version
// is 0; a *StaleError if somebody saved one since l.Version was read.
func (s *Store) SaveLadder(ctx context.Context, actor Actor, l Ladder) error {
	err := s.write(ctx, "saving a ladder", func(q *sqlc.Queries) error {
		now, err := q.GetLatestLadder(ctx, sqlc.GetLatestLadderParams{PracticeID: actor.Practice, ID: l.ID})
		if err != nil && (named(err) != ErrNotFound || l.Version > 0) {
			return err
		}
		if now.Version != l.Version {
			return &StaleError{}
		}
		if err := q.InsertLadder(ctx, sqlc.InsertLadderParams{
			ID: l.ID, PracticeID: actor.Practice, Version: l.Version + 1, Ladder: l.Key, Name: l.Name, CatalogVersion: l.Catalog,
			Doc: writeJSON(l.Doc), Reason: l.Reason, SavedBy: actor.User, SavedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "ladder saved", l.ID)
	})
	var stale *StaleError
	if !errors.As(err, &stale) {
		return err
	}
	current, readErr := s.Ladder(ctx, actor.Practice, l.ID, 0)
	if readErr != nil {
		return readErr
	}
	return &StaleError{Current: current}
}

// UsedSteps lists the keys of the steps that plans made with an own ladder
// have.
func (v View) UsedSteps(ctx context.Context, practice, ladderID string) ([]string, error) {
	docs, err := v.read.GetPlannedWithOwn(ctx, sqlc.GetPlannedWithOwnParams{PracticeID: practice, LadderID: ladderID})
	if err != nil {
		return nil, reading("the plans", err)
	}
	var used []string
	for _, d := range docs {
		p, err := readJSON[plan.Plan]("a plan", d)
		if err != nil {
			return nil, err
		}
		used = append(used, p.Done...)
		for _, i := range p.Items {
			used = append(used, i.Step)
		}
	}
	return used, nil
}
