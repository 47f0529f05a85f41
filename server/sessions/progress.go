package sessions

import (
	"context"
	"time"

	"ivorybridge/core/progress"
	"ivorybridge/server/api"
)

type progressInput struct {
	ID    string `path:"id" format:"uuid"`
	Since string `query:"since" maxLength:"10" doc:"sessions of this day and later; empty: all"`
	Step  string `query:"step" maxLength:"60" doc:"key of one step; empty: all that were worked"`
}

// progress is what changed over a horse's sessions, the one at work among them.
func (s *Service) progress(ctx context.Context, c api.Caller, in *progressInput) (progress.Numbers, error) {
	if in.Since != "" {
		if _, err := time.Parse(time.DateOnly, in.Since); err != nil {
			return progress.Numbers{}, api.Faulty(api.FieldProblem{Field: "since", Say: "This is not a date. Write it as year-month-day, for example 2026-05-01."})
		}
	}
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return progress.Numbers{}, err
	}
	figures, err := s.Figures(ctx, c, r)
	if err != nil {
		return progress.Numbers{}, err
	}
	return progress.NumbersOf(r.File.Catalog, figures, progress.Choice{Since: in.Since, Step: in.Step}), nil
}
