package store

import (
	"context"
	"database/sql"
	"errors"

	"ivorybridge/core/catalog"
	"ivorybridge/store/sqlc"
)

// HouseRules are what a practice does otherwise than shipped, as kept at a moment.
type HouseRules struct {
	Version int64 // from 1
	Doc     catalog.House
	Reason  string
	SavedBy string // name
	SavedAt int64
}

// HouseVersion is the newest version of a practice's house rules; 0: as shipped.
func (v View) HouseVersion(ctx context.Context, practice string) (int64, error) {
	n, err := v.read.GetHouseVersion(ctx, practice)
	return n, reading("the house rules", err)
}

// House lists the versions of a practice's house rules, the newest first.
func (v View) House(ctx context.Context, practice string) ([]HouseRules, error) {
	rows, err := v.read.GetHouseRules(ctx, practice)
	if err != nil {
		return nil, reading("the house rules", err)
	}
	list := make([]HouseRules, 0, len(rows))
	for _, r := range rows {
		doc, err := readJSON[catalog.House]("the house rules", r.Doc)
		if err != nil {
			return nil, err
		}
		list = append(list, HouseRules{r.Version, doc, r.Reason, r.SavedBy, r.SavedAt})
	}
	return list, nil
}

// SaveHouse keeps house rules as the version after the one they were read at; a *StaleError
// if there is a newer one.
func (s *Store) SaveHouse(ctx context.Context, actor Actor, doc catalog.House, reason string, after int64) error {
	err := s.write(ctx, "keeping the house rules", func(q *sqlc.Queries) error {
		now, err := q.GetHouseVersion(ctx, actor.Practice)
		if err != nil {
			return err
		}
		if now != after {
			return errNoRow
		}
		if err := q.InsertHouseRules(ctx, sqlc.InsertHouseRulesParams{
			PracticeID: actor.Practice, Version: after + 1, Doc: writeJSON(doc), Reason: reason, SavedBy: actor.User, SavedAt: actor.At,
		}); err != nil {
			return err
		}
		if err := q.TouchAll(ctx, actor.Practice); err != nil {
			return err
		}
		return actor.changed(ctx, q, "house rules changed", actor.Practice)
	})
	return stale(err, func() (any, error) { return s.House(ctx, actor.Practice) })
}

// homeChanged is how a change of the practice itself is called in the record of changes.
const homeChanged = "practice changed"

// ChangeHome changes what the practice is called, its words and its zone, where they are
// still as they were read.
func (s *Store) ChangeHome(ctx context.Context, actor Actor, was, now Practice) error {
	err := s.write(ctx, "changing the practice", func(q *sqlc.Queries) error {
		n, err := q.UpdateHome(ctx, sqlc.UpdateHomeParams{
			ID: actor.Practice, Name: now.Name, Zone: now.Zone, Vehicle: now.Words.Vehicle, Sides: now.Words.Sides, Units: now.Words.Units,
			WasName: was.Name, WasZone: was.Zone, WasVehicle: was.Words.Vehicle, WasSides: was.Words.Sides, WasUnits: was.Words.Units,
		})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, homeChanged, actor.Practice)
	})
	return stale(err, func() (any, error) { return s.Practice(ctx, actor.Practice) })
}

// HomeChanged tells who changed the practice last, and when, in ms; nobody where it is as it
// was made.
func (v View) HomeChanged(ctx context.Context, practice string) (by string, at int64, err error) {
	r, err := v.read.GetLastChange(ctx, sqlc.GetLastChangeParams{PracticeID: practice, What: homeChanged, Subject: practice})
	if errors.Is(err, sql.ErrNoRows) {
		return "", 0, nil
	}
	if err != nil {
		return "", 0, reading("the record of changes", err)
	}
	return r.Name, r.At, nil
}
