package server

import (
	"context"
	"slices"

	"ivorybridge/core/history"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// edition names what folds are made by; one of another edition is made again.
func (s *Server) edition() string { return history.Version + " " + s.Catalog.Version }

// past folds what came before one of a horse's sessions, nil for all there is,
// from the newest history that is kept on. What was closed is kept in turn, so
// that it is read once. used are the own ladders of the plans; the caller's view
// is a snapshot.
func (s *Server) past(ctx context.Context, c caller, horseID string, used []history.Used, before *store.Session) (history.History, []store.Unread, error) {
	p, err := c.view.Past(ctx, c.Practice, horseID, s.edition(), before)
	if err != nil {
		return history.History{}, nil, err
	}
	var folds []store.Fold
	h, unread := p.History, p.Unread
	for _, f := range p.After {
		next, left, err := s.next(ctx, h, used, f)
		if err != nil {
			return history.History{}, nil, err
		}
		h, unread = next, append(slices.Clip(unread), left...)
		if !f.Newest || before != nil || h.Open != f.ID {
			folds = append(folds, store.Fold{Session: f.Session, History: h, Unread: unread})
		}
	}
	if len(folds) > 0 {
		if err := s.Store.KeepFolds(ctx, c.Practice, horseID, s.edition(), p.Stamp, folds); err != nil {
			s.Log.WarnContext(ctx, "histories are not kept; they are made again when they are asked for", "horse", horseID, "error", err.Error())
		}
	}
	return h, unread, nil
}

// next folds one more session. An entry over which the rules break off is left
// out, and told.
func (s *Server) next(ctx context.Context, h history.History, used []history.Used, f store.Fresh) (history.History, []store.Unread, error) {
	unread := f.Unread
	for range mostUnread {
		after, err := s.tryNext(h, used, f.Day)
		if !isBroken(err) {
			return after, unread, err
		}
		s.Log.ErrorContext(ctx, "an entry can't be read", "session", f.ID, "error", err.Error())
		i := culprit(len(f.Day.Track), func(n int) bool {
			begun := f.Day
			begun.Track = begun.Track[:n]
			_, err := s.tryNext(h, used, begun)
			return !isBroken(err)
		})
		if i < 0 {
			return h, unread, err
		}
		e := f.Day.Track[i]
		unread = append(slices.Clip(unread), store.Unread{Session: f.ID, On: f.Date, ID: e.ID, At: e.At, Kind: e.Kind.String()})
		f.Day.Track = slices.Delete(slices.Clone(f.Day.Track), i, i+1)
	}
	return h, unread, &brokenError{what: "too many entries of session " + f.ID + " can't be read"}
}

func (s *Server) tryNext(h history.History, used []history.Used, d track.Day) (after history.History, err error) {
	err = guarded(func() error {
		after = h.After(s.Catalog, used, d)
		return nil
	})
	return after, err
}

// A told session is one with what came before it and what came of it.
type told struct {
	store.Session
	before, after history.History
	day           track.Day // without what can't be read
	visit         history.Visit
}

// tell reads one session of a case; the caller's view is a snapshot.
func (s *Server) tell(ctx context.Context, c caller, r reading, n store.Session) (told, error) {
	before, unread, err := s.past(ctx, c, r.horse.ID, r.used, &n)
	if err != nil {
		return told{}, err
	}
	f, err := c.view.Fresh(ctx, c.Practice, n)
	if err != nil {
		return told{}, err
	}
	return s.tellAfter(ctx, r, before, unread, f)
}

// tellAfter reads a session after the history before it.
func (s *Server) tellAfter(ctx context.Context, r reading, before history.History, unread []store.Unread, f store.Fresh) (told, error) {
	for _, u := range append(slices.Clip(unread), r.unread...) {
		f.Day.Track = slices.DeleteFunc(slices.Clone(f.Day.Track), func(e track.Entry) bool { return e.ID == u.ID })
	}
	t := told{Session: f.Session, before: before, day: f.Day}
	err := guarded(func() error {
		t.after, _, t.visit = before.Read(s.Catalog, r.used, f.Day)
		return nil
	})
	if isBroken(err) { // it was never folded: it is the newest, and open
		var left []store.Unread
		if _, left, err = s.next(ctx, before, r.used, f); err == nil {
			return s.tellAfter(ctx, r, before, left, f)
		}
	}
	return t, err
}
