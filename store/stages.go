package store

import (
	"context"

	"ivorybridge/store/sqlc"
)

// A Stage is what the arena needs to know of all that came before a session,
// as an edition of the rules read it; the words of it are the caller's.
type Stage struct {
	Session string
	Edition string
	Change  int64 // newest change of the practice when it was read
	Body    string
}

// NewestChange numbers what was changed in a practice; tracks and marks are not
// counted, they drop the stages that they bear on.
func (v View) NewestChange(ctx context.Context, practice string) (int64, error) {
	n, err := v.read.GetNewestChange(ctx, practice)
	return n, reading("the changes", err)
}

// StageBody reads a stage as it was kept, or ErrNotFound if there is none that
// holds: of that edition, after that change.
func (v View) StageBody(ctx context.Context, practice string, g Stage) (string, error) {
	body, err := v.read.GetStage(ctx, sqlc.GetStageParams{PracticeID: practice, SessionID: g.Session, Edition: g.Edition, ChangeID: g.Change})
	return body, reading("the stage", err)
}

// KeepStage keeps a stage in place of an older one.
func (s *Store) KeepStage(ctx context.Context, practice string, g Stage) error {
	return s.write(ctx, "keeping the stage", func(q *sqlc.Queries) error {
		return q.KeepStage(ctx, sqlc.KeepStageParams{PracticeID: practice, SessionID: g.Session, Edition: g.Edition, ChangeID: g.Change, Body: g.Body})
	}, theSession(ctx, Who{Practice: practice}, g.Session))
}
