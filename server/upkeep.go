package server

import (
	"context"
	"errors"
	"fmt"
	"time"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/horses"
	"ivorybridge/store"
)

// Fold folds the sessions of every horse that are not folded yet, or were by
// another edition of the rules, and keeps what came of them. told is called after
// each horse. What can't be read is passed over: its horse says so where it is
// shown.
func (s *Server) Fold(ctx context.Context, told func(done, all int)) error {
	horses, err := s.Store.Everyone(ctx)
	if err != nil {
		return err
	}
	for i, h := range horses {
		c := api.Caller{User: store.User{Practice: h.Practice}, Now: s.Now(), View: s.Store.View}
		err := api.Guarded(func() error { return s.foldOne(ctx, c, h.Horse) })
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if api.Advice(err) != "" {
			return err // it is not this horse
		}
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			s.Log.ErrorContext(ctx, "a horse can't be folded", "horse", h.Horse, "error", err.Error())
		}
		told(i+1, len(horses))
	}
	return nil
}

func (s *Server) foldOne(ctx context.Context, c api.Caller, horse string) error {
	return c.AtOneMoment(ctx, func(c api.Caller) error {
		kase, err := c.View.NewestCase(ctx, c.Practice, horse)
		if err != nil {
			return err
		}
		r, err := s.cases.Gather(ctx, c, store.Horse{ID: horse}, kase)
		if err == nil {
			_, _, err = s.cases.Past(ctx, c, horse, r.Beside(), nil)
		}
		return err
	})
}

// LookAfter does what is better done before somebody waits for it, until the
// context ends: it folds what an upgrade or a crash left unfolded, looks whether the
// database is whole, tidies the photographs, reads the caseloads again as each day begins, and
// writes and sends the letters of the evening, and makes the day's copy. What does not succeed is tried again in the next round.
func (s *Server) LookAfter(ctx context.Context) {
	const toTell = 50 // horses
	fold := func(ctx context.Context) error {
		return s.Fold(ctx, func(done, all int) {
			if done%toTell == 0 || done == all {
				s.Log.DebugContext(ctx, "histories are folded", "horses", done, "of", all)
			}
		})
	}
	once := []upkeep{{"folding the histories", fold}, {"looking whether the database is whole", s.Store.Whole}}
	again := []upkeep{{"tidying the photographs", s.horses.Tidy}, {"tidying the clips", s.clips.Tidy}, {"reading the caseloads", s.readCaseloads}, {"writing the letters", s.letters.Round}, {"making the day's copy", s.house.Round}, {"taking away what was left", s.house.Tidy}}
	for {
		once = s.look(ctx, once)
		s.look(ctx, again)
		select {
		case <-ctx.Done():
			return
		case <-time.After(soon):
		}
	}
}

// An upkeep is something that is looked after.
type upkeep struct {
	what string
	do   func(context.Context) error
}

// look does some upkeep, and tells what did not succeed.
func (s *Server) look(ctx context.Context, list []upkeep) (left []upkeep) {
	for _, u := range list {
		err := u.do(ctx)
		if err == nil || ctx.Err() != nil {
			continue
		}
		left = append(left, u)
		s.Store.Note(err)
		s.Log.ErrorContext(ctx, u.what+" broke off; it is tried again", "error", err.Error(), "advice", api.Advice(err))
	}
	return left
}

// soon is how long it is until the next round.
const soon = 10 * time.Minute

func (s *Server) readCaseloads(ctx context.Context) error {
	practices, err := s.Store.Practices(ctx)
	if err != nil {
		return err
	}
	for _, p := range practices[:min(len(practices), horses.MaxCaseloads)] {
		c := api.Caller{User: store.User{Practice: p.ID}, Home: p, Book: phrase.English(p.Words), Now: s.Now(), View: s.Store.View}
		if _, _, err := s.horses.Caseload(ctx, c); err != nil {
			return fmt.Errorf("reading the caseload of %s: %w", p.ID, err)
		}
	}
	return nil
}
