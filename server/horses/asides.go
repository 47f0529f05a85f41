package horses

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"ivorybridge/core/attention"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
)

type asideInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Note   string `json:"note" minLength:"1" maxLength:"60" doc:"key of the fact"`
		Until  string `json:"until,omitempty" maxLength:"10" doc:"the day from which it shows again"`
		Reason string `json:"reason,omitempty" maxLength:"500"`
		Again  bool   `json:"again,omitempty" doc:"it shows again from now on"`
	}
}

// setAside lets a note wait until a day. It holds for the fact as it is now.
func (s *Service) setAside(ctx context.Context, c api.Caller, in *asideInput) (File, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return File{}, err
	}
	put := attention.Put{Note: in.Body.Note, Until: in.Body.Until, Reason: strings.TrimSpace(in.Body.Reason)}
	notes := r.File.Attention()
	for _, later := range r.File.Later() {
		notes = append(notes, later.Note)
	}
	i := slices.IndexFunc(notes, func(n attention.Note) bool { return n.Say.Key == put.Note })
	if i < 0 {
		return File{}, api.Faulty(api.FieldProblem{Field: "note", Say: "That does not want attention any more. Reload the page."})
	}
	put.Basis = notes[i].Basis()
	if in.Body.Again {
		put.Until, put.Reason = c.Today(), "shown again"
	} else if days, ok := horse.DaysBetween(c.Today(), put.Until); !ok || days < 1 || days > attention.MostDays {
		return File{}, api.Faulty(api.FieldProblem{Field: "until", Say: fmt.Sprintf("Choose a day to come, within %d days.", attention.MostDays)})
	}
	if put.Reason == "" {
		return File{}, api.Faulty(api.FieldProblem{Field: "reason", Say: "Say why it can wait. Whoever takes over will ask."})
	}
	if err := s.Store.SetAside(ctx, c.Actor(), in.ID, put); err != nil {
		return File{}, err
	}
	return s.horse(ctx, c, &api.ByID{ID: in.ID})
}
