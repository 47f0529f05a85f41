package server

import (
	"context"
	"net/http"

	"ivorybridge/core/report"
	"ivorybridge/store"
)

// Letter is the one page to a professional.
type Letter struct {
	report.Letter
	Horse    HorseRef `json:"horse"`
	Yard     string   `json:"yard"`
	Address  string   `json:"address"`
	Owners   []Owner  `json:"owners"`
	Practice string   `json:"practice"`
	By       string   `json:"by"`
	Date     string   `json:"date" format:"date"`
}

type letterInput struct {
	ID  string `path:"id" format:"uuid"`
	Key string `path:"key" maxLength:"60"`
}

func (s *Server) letterOperations() {
	operation(s, staff, http.MethodGet, "/api/horses/{id}/letters/{key}", "letter", "The letter of a referral", atOnce(s.letter))
}

func (s *Server) letter(ctx context.Context, c caller, in *letterInput) (Letter, error) {
	r, err := s.newest(ctx, c, in.ID)
	if err != nil {
		return Letter{}, err
	}
	for _, ref := range r.file.Result.Referrals {
		if ref.Key != in.Key {
			continue
		}
		problem := r.file.Problem().Problem
		return Letter{
			Letter: report.LetterTo(report.LetterInput{
				Today: c.today(), Horse: r.horse.Name, Record: r.horse.Record, Problem: problem, Goal: r.kase.Goal,
				Assessment: r.file.Assessment, Referral: ref, Blocks: r.file.Result.Blocks, Forbidden: r.file.Result.Forbidden,
			}),
			Horse: HorseRef{r.horse.ID, r.horse.Name}, Yard: r.horse.Yard.Name, Address: r.horse.Yard.Address, Owners: viewHorse(r.horse).Owners,
			Practice: c.practice.Name, By: c.Name, Date: c.today(),
		}, nil
	}
	return Letter{}, store.ErrNotFound
}
