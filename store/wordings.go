package store

import (
	"cmp"
	"context"

	"ivorybridge/core/report"
	"ivorybridge/store/sqlc"
)

// Edits are the trainer's wording of a session's report, or of the page at the end of
// a case's work, at a version; none yet is version 0.
type Edits struct {
	Version int64
	By      string // name; a user's id when saving
	At      int64
	Edits   map[string]report.Edit
}

// Edits reads the newest wording of a session's report.
func (v View) Edits(ctx context.Context, practice, session string) (Edits, error) {
	r, err := v.read.GetLatestReport(ctx, sqlc.GetLatestReportParams{PracticeID: practice, SessionID: session})
	return wording(r, err)
}

// ClosingEdits reads the newest wording of the page at the end of a case's work.
func (v View) ClosingEdits(ctx context.Context, practice, kase string) (Edits, error) {
	r, err := v.read.GetLatestClosing(ctx, sqlc.GetLatestClosingParams{PracticeID: practice, CaseID: kase})
	return wording(sqlc.GetLatestReportRow(r), err)
}

func wording(r sqlc.GetLatestReportRow, err error) (Edits, error) {
	if named(err) == ErrNotFound {
		return Edits{Edits: map[string]report.Edit{}}, nil
	}
	if err != nil {
		return Edits{}, reading("the report", err)
	}
	edits, err := readJSON[map[string]report.Edit]("the report", r.Edits)
	return Edits{Version: r.Version, By: r.SavedBy, At: r.SavedAt, Edits: edits}, err
}

// SaveEdits keeps the next version of a report's wording; a *StaleError if
// somebody saved one since e.Version was read.
func (s *Store) SaveEdits(ctx context.Context, actor Actor, session string, e Edits) error {
	read := func(v View) (Edits, error) { return v.Edits(ctx, actor.Practice, session) }
	return s.saveWording(ctx, e.Version, read, func(q *sqlc.Queries) error {
		if err := q.InsertReport(ctx, sqlc.InsertReportParams{
			PracticeID: actor.Practice, SessionID: session, Version: e.Version + 1, Edits: writeJSON(e.Edits), SavedBy: actor.User, SavedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "report saved", session)
	}, theSession(ctx, actor, session))
}

// SaveClosing keeps the next version of the wording of a case's last page; a
// *StaleError if somebody saved one since e.Version was read.
func (s *Store) SaveClosing(ctx context.Context, actor Actor, kase string, e Edits) error {
	read := func(v View) (Edits, error) { return v.ClosingEdits(ctx, actor.Practice, kase) }
	return s.saveWording(ctx, e.Version, read, func(q *sqlc.Queries) error {
		if err := q.InsertClosing(ctx, sqlc.InsertClosingParams{
			PracticeID: actor.Practice, CaseID: kase, Version: e.Version + 1, Edits: writeJSON(e.Edits), SavedBy: actor.User, SavedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "closing page saved", kase)
	}, theCase(ctx, actor, kase))
}

// saveWording inserts the version after the one that was read, if that is the newest.
func (s *Store) saveWording(ctx context.Context, version int64, read func(View) (Edits, error), insert func(*sqlc.Queries) error, about reference) error {
	err := s.write(ctx, "saving a report", func(q *sqlc.Queries) error {
		if now, err := read(View{path: s.path, read: q}); err != nil || now.Version != version {
			return cmp.Or(err, error(&StaleError{}))
		}
		return insert(q)
	}, about)
	if _, ok := asStale(err); !ok {
		return err
	}
	now, readErr := read(s.View)
	if readErr != nil {
		return readErr
	}
	return &StaleError{Current: now}
}
