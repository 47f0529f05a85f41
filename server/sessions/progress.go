package sessions

import (
	"context"
	"time"

	"ivorybridge/core/progress"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
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
			return progress.Numbers{}, api.Faulty(api.NoDate("since"))
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
	n := progress.NumbersOf(r.File.Catalog, figures, cases.ProblemIn(r, progress.Choice{Since: in.Since, Step: in.Step}))
	names, err := s.UserNames(ctx, c)
	if err != nil {
		return progress.Numbers{}, err
	}
	for _, o := range r.Horse.Holders() {
		names[o.ID] = o.Name
	}
	for _, b := range n.Beside {
		for i := range b.By {
			if who := b.By[i].Person; who != "" {
				b.By[i].Name = names[who]
			}
		}
	}
	n.Hands = handsFor(c, names, n.Hands)
	return n, nil
}

// handsFor are the hands that a caller may see, with their names: all to the lead
// trainer, to anybody else their own.
func handsFor(c api.Caller, names map[string]string, all []progress.Hand) []progress.Hand {
	shown := []progress.Hand{}
	for _, h := range all {
		if c.Role == store.Lead || h.Person == c.ID {
			h.Name = names[h.Person]
			shown = append(shown, h)
		}
	}
	return shown
}
