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
// context ends: it folds what an upgrade or a crash left unfolded, and reads the
// caseloads, again as each day begins.
func (s *Server) LookAfter(ctx context.Context) {
	const toTell = 50 // horses
	err := s.Fold(ctx, func(done, all int) {
		if done%toTell == 0 || done == all {
			s.Log.DebugContext(ctx, "histories are folded", "horses", done, "of", all)
		}
	})
	for err == nil {
		err = s.readCaseloads(ctx)
		select {
		case <-ctx.Done():
			return
		case <-time.After(soon):
		}
	}
	if ctx.Err() == nil {
		s.Log.ErrorContext(ctx, "looking after the histories broke off; they are made as they are asked for", "error", err.Error())
	}
}

// soon is how often it is looked whether a day has begun somewhere.
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
