package cases

import (
	"context"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Edition names what folds are made by: the rules, the catalogue and the build. One
// of another edition is made again.
func (s *Reader) Edition() string { return history.Version + " " + s.Catalog.Version + " " + s.Build }

// Past folds what came before one of a horse's sessions, nil for all there is,
// from the newest history that is kept on. What was closed is kept in turn, so
// that it is read once. used are the own ladders of the plans; the caller's view
// is a snapshot.
func (s *Reader) Past(ctx context.Context, c api.Caller, horseID string, beside history.Beside, before *store.Session) (history.History, []store.Unread, error) {
	h, unread, _, err := s.past(ctx, c, horseID, beside, before)
	return h, unread, err
}

// pastFigures are what sessions came to in numbers that nobody had folded yet, the
// horse's stamp as that was read, and whether some of them were kept since.
type pastFigures struct {
	stamp int64
	fresh []history.Figures
	kept  bool
}

// past gives as well what the sessions came to in numbers that were folded just now.
func (s *Reader) past(ctx context.Context, c api.Caller, horseID string, beside history.Beside, before *store.Session) (history.History, []store.Unread, pastFigures, error) {
	p, err := c.View.Past(ctx, c.Practice, horseID, s.Edition(), before)
	if err != nil {
		return history.History{}, nil, pastFigures{}, err
	}
	var folds []store.Fold
	var figures []history.Figures
	h, unread := p.History, p.Unread
	for _, f := range p.After {
		next, left, err := s.next(ctx, h, beside, f)
		if err != nil {
			return history.History{}, nil, pastFigures{}, err
		}
		h, unread, figures = next.after, append(slices.Clip(unread), left...), append(figures, next.figures)
		if !f.Newest || before != nil || h.Open != f.ID {
			folds = append(folds, store.Fold{Session: f.Session, History: h, Figures: next.figures, Unread: unread})
		}
	}
	if len(folds) > 0 {
		if err := s.Store.KeepFolds(ctx, c.Practice, horseID, s.Edition(), p.Stamp, folds); err != nil {
			s.Log.WarnContext(ctx, "histories are not kept; they are made again when they are asked for", "horse", horseID, "error", err.Error())
		}
	}
	return h, unread, pastFigures{p.Stamp, figures, len(folds) > 0}, nil
}

// Figures are what each of a horse's sessions came to in numbers, the oldest first:
// those that were kept as the reading was made, which are remembered while nothing
// of the horse changes, and those that it folded. The caller's view is the reading's
// snapshot.
func (s *Reader) Figures(ctx context.Context, c api.Caller, r Reading) ([]history.Figures, error) {
	key := figuresKey{c.Practice, r.Horse.ID, s.Edition()}
	list, there := s.figures.Get(key)
	if !there || list.stamp != r.past.stamp || r.past.kept {
		kept, err := c.View.Figures(ctx, c.Practice, r.Horse.ID, s.Edition())
		if err != nil {
			return nil, err
		}
		list = stampedFigures{r.past.stamp, kept}
		if !r.past.kept {
			s.figures.Add(key, list)
		}
	}
	return append(slices.Clip(list.kept), r.past.fresh...), nil
}

type figuresKey struct{ practice, horse, edition string }

// stampedFigures are those that were kept when the horse had that stamp.
type stampedFigures struct {
	stamp int64
	kept  []history.Figures
}

// mostFigures is of how many horses they are remembered.
const mostFigures = 64

// A folded session is the history after it, and what it alone came to.
type folded struct {
	after   history.History
	figures history.Figures
}

// next folds one more session. An entry over which the rules break off is left
// out, and told.
func (s *Reader) next(ctx context.Context, h history.History, beside history.Beside, f store.Fresh) (folded, []store.Unread, error) {
	unread := f.Unread
	for range MostUnread {
		next, err := s.tryNext(h, beside, f.Rules, f.Day)
		if !api.IsBroken(err) {
			return next, unread, err
		}
		s.Log.ErrorContext(ctx, "an entry can't be read", "session", f.ID, "error", err.Error())
		i := Culprit(len(f.Day.Track), func(n int) bool {
			begun := f.Day
			begun.Track = begun.Track[:n]
			_, err := s.tryNext(h, beside, f.Rules, begun)
			return !api.IsBroken(err)
		})
		if i < 0 {
			return folded{after: h}, unread, err
		}
		e := f.Day.Track[i]
		unread = append(slices.Clip(unread), store.Unread{Session: f.ID, On: f.Date, ID: e.ID, At: e.At, Kind: e.Kind.String()})
		f.Day.Track = slices.Delete(slices.Clone(f.Day.Track), i, i+1)
	}
	return folded{after: h}, unread, &api.BrokenError{What: "too many entries of session " + f.ID + " can't be read"}
}

func (s *Reader) tryNext(h history.History, beside history.Beside, rules catalog.HouseRules, d track.Day) (next folded, err error) {
	err = api.Guarded(func() error {
		cat := s.Pinned(rules)
		after, reps, visit := h.Read(cat, beside, d)
		next = folded{after, history.FiguresOf(cat, d, reps, visit)}
		return nil
	})
	return next, err
}

// A Told session is one with what came before it and what came of it.
type Told struct {
	store.Session
	Before, After history.History
	Day           track.Day // without what can't be read
	Visit         history.Visit
}

// Tell reads one session of a case; the caller's view is a snapshot.
func (s *Reader) Tell(ctx context.Context, c api.Caller, r Reading, n store.Session) (Told, error) {
	before, unread, err := s.Past(ctx, c, r.Horse.ID, r.Beside(), &n)
	if err != nil {
		return Told{}, err
	}
	f, err := c.View.Fresh(ctx, c.Practice, n)
	if err != nil {
		return Told{}, err
	}
	return s.TellAfter(ctx, r, before, unread, f)
}

// TellAfter reads a session after the history before it.
func (s *Reader) TellAfter(ctx context.Context, r Reading, before history.History, unread []store.Unread, f store.Fresh) (Told, error) {
	for _, u := range append(slices.Clip(unread), r.Unread...) {
		f.Day.Track = slices.DeleteFunc(slices.Clone(f.Day.Track), func(e track.Entry) bool { return e.ID == u.ID })
	}
	t := Told{Session: f.Session, Before: before, Day: f.Day}
	err := api.Guarded(func() error {
		t.After, _, t.Visit = before.Read(s.Pinned(f.Rules), r.Beside(), f.Day)
		return nil
	})
	if api.IsBroken(err) { // it was never folded: it is the newest, and open
		var left []store.Unread
		if _, left, err = s.next(ctx, before, r.Beside(), f); err == nil {
			return s.TellAfter(ctx, r, before, left, f)
		}
	}
	return t, err
}

// ReadSession reads a session of a case with what came before it.
func (s *Reader) ReadSession(ctx context.Context, c api.Caller, id string) (r Reading, t Told, err error) {
	err = c.AtOneMoment(ctx, func(c api.Caller) error {
		n, err := c.View.Session(ctx, c.Practice, id)
		if err != nil {
			return err
		}
		if r, err = s.Read(ctx, c, n.CaseID); err != nil {
			return err
		}
		t, err = s.Tell(ctx, c, r, n)
		return err
	})
	return r, t, err
}

// Beads are the session's reps, by the schools that the case is worked in.
func (t Told) Beads(f *casefile.File) []arena.Told {
	return arena.Beads(f.Catalog, t.Day, t.Visit.Before, f.Schools())
}

// Events are the dangerous things that the session logged.
func (t Told) Events() []assess.Event { return t.After.Days[len(t.After.Days)-1].Dangers() }
