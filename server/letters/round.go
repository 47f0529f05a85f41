package letters

import (
	"context"
	"errors"
	"fmt"
	"time"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// A letter that can't be sent is tried again after each of these, then given up.
var again = []time.Duration{10 * time.Minute, 30 * time.Minute, time.Hour, 3 * time.Hour, 6 * time.Hour}

// kept is how long a letter stays to be read.
const kept = 60 * 24 * time.Hour

// RefusedError is a mail server's refusal for good.
type RefusedError struct{ Err error }

func (e *RefusedError) Error() string { return e.Err.Error() }

// Unwrap is what the server said.
func (e *RefusedError) Unwrap() error { return e.Err }

// Round writes the letters of each practice whose evening has come, and sends what waits.
// A letter that can't be sent leaves the others as they are.
func (s *Service) Round(ctx context.Context) error {
	if !s.on() {
		return nil
	}
	now := s.Now()
	practices, err := s.Store.Practices(ctx)
	if err != nil {
		return err
	}
	var broken error // one practice's letters leave the others' as they are
	for _, p := range practices {
		c := api.Caller{User: store.User{Practice: p.ID, Role: store.Lead}, Home: p, Book: phrase.English(p.Words), Now: now, View: s.Store.View}
		if s.evening(p, now) {
			if err := s.write(ctx, c); err != nil {
				broken = errors.Join(broken, fmt.Errorf("writing the letters of %s: %w", p.ID, err))
			}
		}
	}
	broken = errors.Join(broken, s.Store.ForgetLetters(ctx, now.Add(-kept).UnixMilli()))
	if s.Post != nil {
		broken = errors.Join(broken, s.send(ctx, now))
	}
	return broken
}

// evening reports whether a practice's letters of the day are to be written.
func (s *Service) evening(p store.Practice, now time.Time) bool {
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		zone = time.UTC
	}
	return now.In(zone).Hour() >= s.Hour
}

func (s *Service) send(ctx context.Context, now time.Time) error {
	waiting, err := s.Store.WaitingLetters(ctx, now.UnixMilli())
	if err != nil {
		return err
	}
	for _, w := range waiting {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if err := s.try(ctx, w, now); err != nil {
			return err
		}
	}
	return nil
}

// try sends one letter, and notes how it went.
func (s *Service) try(ctx context.Context, w store.Waiting, now time.Time) error {
	if w.Stopped {
		return s.Store.LetterTried(ctx, w.PracticeID, w.ID, 0, 0, "It was stopped before it went.")
	}
	err := s.Post.Send(ctx, Mail{
		ID: w.ID, From: w.Practice, Name: w.Name, Address: w.Address, Subject: w.Subject, Body: w.Body, Calendar: w.Calendar,
		Stop: s.stopAddress(w.Stop), At: now,
	})
	if err == nil {
		return s.Store.LetterTried(ctx, w.PracticeID, w.ID, now.UnixMilli(), 0, "")
	}
	if ctx.Err() != nil {
		return ctx.Err()
	}
	s.Log.WarnContext(ctx, "a letter can't be sent", "letter", w.ID, "error", err.Error())
	next := int64(0)
	var refused *RefusedError
	if !errors.As(err, &refused) && int(w.Tries) < len(again) {
		next = now.Add(again[w.Tries]).UnixMilli()
	}
	return s.Store.LetterTried(ctx, w.PracticeID, w.ID, 0, next, api.Clip(err.Error(), 300))
}
