package store

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/track"
	"ivorybridge/store/sqlc"
)

// An Assessment of a horse as it was kept: the document, and the one it
// started from.
type Assessment struct {
	ID      string
	HorseID string
	On      string
	Base    assess.Assessment
	Doc     assess.Assessment
	Version int64
}

// KeptMark is a mark with who made it.
type KeptMark struct {
	assess.Mark
	By string // name
}

// AddAssessment keeps a whole assessment at once; marks go on from it.
func (s *Store) AddAssessment(ctx context.Context, actor Actor, a Assessment) error {
	a.Base = a.Doc
	return s.write(ctx, "adding an assessment", func(q *sqlc.Queries) error { return insertAssessment(ctx, q, actor, a) }, theHorse(ctx, actor, a.HorseID))
}

func insertAssessment(ctx context.Context, q *sqlc.Queries, actor Actor, a Assessment) error {
	if err := q.InsertAssessment(ctx, sqlc.InsertAssessmentParams{
		ID: a.ID, PracticeID: actor.Practice, HorseID: a.HorseID, OnDate: a.On, Base: writeJSON(a.Base), Doc: writeJSON(a.Doc), CreatedAt: actor.At,
	}); err != nil {
		return err
	}
	if err := foldAgain(ctx, q, actor, a.HorseID, place{date: a.On}); err != nil {
		return err
	}
	return actor.changed(ctx, q, "assessment added", a.ID)
}

func assessment(a sqlc.GetAssessmentRow) (Assessment, error) {
	base, err := readJSON[assess.Assessment]("an assessment", a.Base)
	if err != nil {
		return Assessment{}, err
	}
	d, err := readJSON[assess.Assessment]("an assessment", a.Doc)
	return Assessment{ID: a.ID, HorseID: a.HorseID, On: a.OnDate, Base: base, Doc: d, Version: a.Version}, err
}

// Assessment reads one assessment.
func (v View) Assessment(ctx context.Context, practice, id string) (Assessment, error) {
	a, err := v.read.GetAssessment(ctx, sqlc.GetAssessmentParams{PracticeID: practice, ID: id})
	if err != nil {
		return Assessment{}, reading("the assessment", err)
	}
	return assessment(a)
}

// Assessments lists the assessments of a horse, the oldest first.
func (v View) Assessments(ctx context.Context, practice, horseID string) ([]Assessment, error) {
	rows, err := v.read.GetAssessments(ctx, sqlc.GetAssessmentsParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, reading("the assessments", err)
	}
	list := make([]Assessment, 0, len(rows))
	for _, row := range rows {
		a, err := assessment(sqlc.GetAssessmentRow(row))
		if err != nil {
			return nil, err
		}
		list = append(list, a)
	}
	return list, nil
}

// Marks lists the marks of an assessment in their order, at their corrected
// times.
func (v View) Marks(ctx context.Context, practice, assessmentID string) ([]KeptMark, error) {
	rows, err := v.read.GetMarks(ctx, sqlc.GetMarksParams{PracticeID: practice, AssessmentID: assessmentID})
	if err != nil {
		return nil, reading("the marks", err)
	}
	return marks(rows)
}

func marks(rows []sqlc.GetMarksRow) ([]KeptMark, error) {
	list := make([]KeptMark, 0, len(rows))
	for _, r := range rows {
		value, err := readJSON[any]("a mark", r.Value)
		if err != nil {
			return nil, err
		}
		list = append(list, KeptMark{assess.Mark{ID: r.ID, At: r.At, Device: r.Device, Seq: r.Seq, Path: r.Path, Value: value}, r.WrittenBy})
	}
	return list, nil
}

// Mark keeps marks of an assessment in one transaction and makes its document
// anew. An assessment that is not there yet is begun as given. It tells for
// each mark why it was refused, or nil; a mark kept before with the same
// content is accepted silently. sentAt is the device's clock as it sent them:
// if that is off, times are corrected.
func (s *Store) Mark(ctx context.Context, actor Actor, begun Assessment, sentAt int64, list []assess.Mark) (kept Assessment, refused []error, err error) {
	err = s.write(ctx, "keeping marks", func(q *sqlc.Queries) error {
		kept, refused, err = s.mark(ctx, q, actor, begun, sentAt, list)
		return err
	}, theHorse(ctx, actor, begun.HorseID))
	return kept, refused, err
}

// mark keeps marks in a transaction that may hold more.
func (s *Store) mark(ctx context.Context, q *sqlc.Queries, actor Actor, begun Assessment, sentAt int64, list []assess.Mark) (kept Assessment, refused []error, err error) {
	refused = make([]error, len(list))
	off := track.ClockOff(actor.At, sentAt)
	row, err := q.GetAssessment(ctx, sqlc.GetAssessmentParams{PracticeID: actor.Practice, ID: begun.ID})
	switch {
	case named(err) == ErrNotFound:
		begun.Doc = begun.Base
		if err := insertAssessment(ctx, q, actor, begun); err != nil {
			return kept, nil, err
		}
		kept = begun
	case err != nil:
		return kept, nil, err
	default:
		if kept, err = assessment(row); err != nil {
			return kept, nil, err
		}
		if kept.HorseID != begun.HorseID {
			return kept, nil, ErrNotFound
		}
	}
	for i, m := range list {
		if refused[i], err = insertMark(ctx, q, actor, begun.ID, m, off); err != nil {
			return kept, nil, err
		}
	}
	return kept, refused, s.fold(ctx, q, actor, &kept)
}

func insertMark(ctx context.Context, q *sqlc.Queries, actor Actor, assessmentID string, m assess.Mark, off int64) (refused, err error) {
	row := sqlc.InsertMarkParams{
		ID: m.ID, PracticeID: actor.Practice, AssessmentID: assessmentID, Device: m.Device, Seq: m.Seq, DeviceAt: m.At, At: m.At + off,
		ReceivedAt: actor.At, Path: m.Path, Value: writeJSON(m.Value), WrittenBy: actor.User,
	}
	switch err := named(q.InsertMark(ctx, row)); {
	case errors.Is(err, ErrRefused):
		return err, nil
	case !errors.Is(err, ErrTaken):
		return nil, err
	}
	kept, err := q.GetMark(ctx, sqlc.GetMarkParams{PracticeID: actor.Practice, ID: m.ID})
	if err != nil {
		return nil, err
	}
	same := sqlc.GetMarkRow{AssessmentID: assessmentID, Device: m.Device, Seq: m.Seq, DeviceAt: m.At, Path: m.Path, Value: row.Value}
	if kept != same {
		return ErrOther, nil
	}
	return nil, nil
}

// fold makes the document of an assessment from its base and its marks.
func (s *Store) fold(ctx context.Context, q *sqlc.Queries, actor Actor, a *Assessment) error {
	rows, err := q.GetMarks(ctx, sqlc.GetMarksParams{PracticeID: actor.Practice, AssessmentID: a.ID})
	if err != nil {
		return err
	}
	all, err := marks(rows)
	if err != nil {
		return err
	}
	plain := slices.Collect(func(yield func(assess.Mark) bool) {
		for _, m := range all {
			if !yield(m.Mark) {
				return
			}
		}
	})
	if err := foldAgain(ctx, q, actor, a.HorseID, place{date: a.On}); err != nil { // what it saw counts in what came after it
		return err
	}
	if a.Doc, err = assess.Fold(a.Base, plain); err != nil {
		return fmt.Errorf("making the assessment from its marks: %w", err)
	}
	a.Version++
	return q.UpdateAssessment(ctx, sqlc.UpdateAssessmentParams{Doc: writeJSON(a.Doc), PracticeID: actor.Practice, ID: a.ID})
}
