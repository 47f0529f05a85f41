package store

import (
	"context"

	"ivorybridge/core/plan"
	"ivorybridge/store/sqlc"
)

// A Plan as it was made: its number counts the versions of the case's plan.
type Plan struct {
	Number  int64
	School  string
	Reason  string
	Catalog string
	Doc     plan.Plan
	Choices plan.Choices
	MadeBy  string // name; a user's id when adding
	MadeAt  int64
}

// AddPlan keeps the next version of a case's plan; the older ones stay.
func (s *Store) AddPlan(ctx context.Context, actor Actor, caseID string, p Plan) (int64, error) {
	number := int64(1)
	err := s.write(ctx, "making a plan", func(q *sqlc.Queries) error {
		rows, err := q.GetPlans(ctx, sqlc.GetPlansParams{PracticeID: actor.Practice, CaseID: caseID})
		if err != nil {
			return err
		}
		if len(rows) > 0 {
			number = rows[0].Number + 1
		}
		if err := q.InsertPlan(ctx, sqlc.InsertPlanParams{
			PracticeID: actor.Practice, CaseID: caseID, Number: number, School: p.School, Reason: p.Reason,
			CatalogVersion: p.Catalog, Doc: writeJSON(p.Doc), Choices: writeJSON(p.Choices), MadeBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		// a session is folded by the own ladders in use as it began
		if err := q.DropHistoriesSince(ctx, sqlc.DropHistoriesSinceParams{PracticeID: actor.Practice, StartedAt: actor.At, CaseID: caseID}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "plan made", caseID)
	}, theCase(ctx, actor, caseID))
	return number, err
}

// Plans lists the versions of a case's plan, the newest first.
func (v View) Plans(ctx context.Context, practice, caseID string) ([]Plan, error) {
	rows, err := v.read.GetPlans(ctx, sqlc.GetPlansParams{PracticeID: practice, CaseID: caseID})
	if err != nil {
		return nil, reading("the plans", err)
	}
	plans := make([]Plan, 0, len(rows))
	for _, r := range rows {
		d, err := readJSON[plan.Plan]("a plan", r.Doc)
		if err != nil {
			return nil, err
		}
		c, err := readJSON[plan.Choices]("a plan's choices", r.Choices)
		if err != nil {
			return nil, err
		}
		plans = append(plans, Plan{Number: r.Number, School: r.School, Reason: r.Reason, Catalog: r.CatalogVersion, Doc: d, Choices: c, MadeBy: r.MadeBy, MadeAt: r.CreatedAt})
	}
	return plans, nil
}

// Chosen is what a plan chose, and when it was made (ms).
type Chosen struct {
	At      int64
	Choices plan.Choices
}

// Choices lists what a case's plans chose, the oldest first.
func (v View) Choices(ctx context.Context, practice, caseID string) ([]Chosen, error) {
	rows, err := v.read.GetChoices(ctx, sqlc.GetChoicesParams{PracticeID: practice, CaseID: caseID})
	if err != nil {
		return nil, reading("the plans' choices", err)
	}
	list := make([]Chosen, 0, len(rows))
	for _, r := range rows {
		c, err := readJSON[plan.Choices]("a plan's choices", r.Choices)
		if err != nil {
			return nil, err
		}
		list = append(list, Chosen{At: r.CreatedAt, Choices: c})
	}
	return list, nil
}
