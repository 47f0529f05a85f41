package horses

import (
	"context"
	"net/http"

	"ivorybridge/core/report"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Letter is the one page to a professional.
type Letter struct {
	report.Letter
	Horse    cases.HorseRef `json:"horse"`
	Yard     string         `json:"yard"`
	Address  string         `json:"address"`
	Owners   []Owner        `json:"owners"`
	Practice string         `json:"practice"`
	By       string         `json:"by"`
	Date     string         `json:"date" format:"date"`
}

type letterInput struct {
	ID  string `path:"id" format:"uuid"`
	Key string `path:"key" maxLength:"60"`
}

func (s *Service) letterOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/letters/{key}", "letter", "The letter of a referral", api.AtOnce(s.letter))
}

func (s *Service) letter(ctx context.Context, c api.Caller, in *letterInput) (Letter, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return Letter{}, err
	}
	for _, ref := range r.File.Result.Referrals {
		if ref.Key != in.Key {
			continue
		}
		problem := r.File.Problem().Problem
		return Letter{
			Letter: report.LetterTo(report.LetterInput{
				Today: c.Today(), Horse: r.Horse.Name, Record: r.Horse.Record, Problem: problem, Goal: r.Case.Goal,
				Assessment: r.File.Assessment, Referral: ref, Blocks: r.File.Result.Blocks, Forbidden: r.File.Result.Forbidden,
			}),
			Horse: cases.RefOf(r.Horse), Yard: r.Horse.Yard.Name, Address: r.Horse.Yard.Address, Owners: viewHorse(r.Horse).Owners,
			Practice: c.Home.Name, By: c.Name, Date: c.Today(),
		}, nil
	}
	return Letter{}, store.ErrNotFound
}
