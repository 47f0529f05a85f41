package store

import (
	"context"

	"ivorybridge/core/assess"
	"ivorybridge/store/sqlc"
)

// An Incident that was written down after the fact.
type Incident struct {
	assess.Incident
	ID string
	By string // name
	At int64  // when it was written down
}

// AddIncident keeps an incident; what the sessions of its day and later came to is
// folded again.
func (s *Store) AddIncident(ctx context.Context, actor Actor, horseID, id string, i assess.Incident) error {
	return s.write(ctx, "keeping an incident", func(q *sqlc.Queries) error {
		if err := q.InsertIncident(ctx, sqlc.InsertIncidentParams{
			ID: id, PracticeID: actor.Practice, HorseID: horseID, OnDate: i.On, Doc: writeJSON(i), NotedBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		if err := q.DropHistoriesFrom(ctx, sqlc.DropHistoriesFromParams{PracticeID: actor.Practice, HorseID: horseID, LocalDate: i.On}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "incident written down", horseID)
	}, theHorse(ctx, actor, horseID))
}

// Incidents lists those of a horse that were written down after the fact, by day.
func (v View) Incidents(ctx context.Context, practice, horseID string) ([]Incident, error) {
	rows, err := v.read.GetIncidents(ctx, sqlc.GetIncidentsParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, reading("the incidents", err)
	}
	list := make([]Incident, 0, len(rows))
	for _, r := range rows {
		i, err := readJSON[assess.Incident]("an incident", r.Doc)
		if err != nil {
			return nil, err
		}
		list = append(list, Incident{Incident: i, ID: r.ID, By: r.NotedBy, At: r.CreatedAt})
	}
	return list, nil
}
