package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"

	"ivorybridge/core/history"
	"ivorybridge/core/track"
	"ivorybridge/store/sqlc"
)

// A Past is what is known of a horse's sessions up to a point: the newest
// history that is kept, and the sessions after it, which nobody has folded yet.
type Past struct {
	Stamp   int64 // the horse's, as it was read
	History history.History
	Unread  []Unread // entries of the sessions folded that can't be read
	After   []Fresh
}

// Fresh is a session that is not folded yet.
type Fresh struct {
	Session
	Day    track.Day // its track without what was shown
	Unread []Unread
	Newest bool // of the horse, or of those before the point
}

// A Fold is a history to be kept beside the session after which it stands.
type Fold struct {
	Session Session
	History history.History
	Figures history.Figures // of this session alone
	Unread  []Unread        // of all sessions so far
}

// unread is an entry that can't be read, as it is kept beside a history.
type unread struct {
	Session string `json:"session"`
	On      string `json:"on"`
	ID      string `json:"id"`
	At      int64  `json:"at"`
	Kind    string `json:"kind"`
}

// place is a session's place among those of its horse.
type place struct {
	date  string
	start int64
	id    string
}

// The ends of a horse's sessions.
var (
	first = place{}
	last  = place{date: "9999-99-99", start: math.MaxInt64}
)

func placeOf(n Session) place { return place{n.Date, n.StartedAt, n.ID} }

// Past reads what came before one of a horse's sessions; nil: all there is. An
// edition names what folds are made by; others are passed over.
func (v View) Past(ctx context.Context, practice, horseID, edition string, before *Session) (Past, error) {
	until := last
	if before != nil {
		until = placeOf(*before)
	}
	stamp, err := v.read.GetStamp(ctx, sqlc.GetStampParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return Past{}, reading("the horse's stamp", err)
	}
	p, from := Past{Stamp: stamp}, first
	kept, err := v.read.GetNewestHistory(ctx, sqlc.GetNewestHistoryParams{
		PracticeID: practice, HorseID: horseID, Edition: edition, BeforeDate: until.date, BeforeStart: until.start, BeforeID: until.id,
	})
	switch err = named(err); {
	case err == nil:
		from = place{kept.LocalDate, kept.StartedAt, kept.SessionID}
		if err := errors.Join(json.Unmarshal([]byte(kept.Body), &p.History), readUnread(kept.Unread, &p.Unread)); err != nil {
			p.History, p.Unread, from = history.History{}, nil, first // it is made again
		}
	case !errors.Is(err, ErrNotFound):
		return Past{}, reading("the history", err)
	}
	rows, err := v.read.GetSessionsBetween(ctx, sqlc.GetSessionsBetweenParams{
		PracticeID: practice, HorseID: horseID, AfterDate: from.date, AfterStart: from.start, AfterID: from.id,
		BeforeDate: until.date, BeforeStart: until.start, BeforeID: until.id,
	})
	if err != nil {
		return Past{}, reading("the sessions", err)
	}
	for i, r := range rows {
		n, err := session(sqlc.GetSessionRow(r))
		if err != nil {
			return Past{}, fmt.Errorf("reading a session as it was kept: %w", err)
		}
		f, err := v.Fresh(ctx, practice, n)
		if err != nil {
			return Past{}, err
		}
		f.Newest = i == len(rows)-1
		p.After = append(p.After, f)
	}
	return p, nil
}

// Fresh reads a session's track as it is folded: without what was shown.
func (v View) Fresh(ctx context.Context, practice string, n Session) (Fresh, error) {
	rows, err := v.read.GetTrackOfSession(ctx, sqlc.GetTrackOfSessionParams{PracticeID: practice, SessionID: n.ID})
	if err != nil {
		return Fresh{}, reading("the track", err)
	}
	f := Fresh{Session: n, Day: day(n)}
	undone := map[string]bool{}
	for _, r := range rows {
		e, err := readJSON[track.Entry]("an entry", r.Body)
		if err != nil {
			f.Unread = append(f.Unread, Unread{Session: n.ID, On: n.Date, ID: r.ID, At: r.At, Kind: r.Kind, Why: err})
			continue
		}
		if e.Kind == track.KindUndo {
			undone[e.Replaces] = true
		}
		e.At = r.At
		f.Day.Track = append(f.Day.Track, e)
	}
	f.Unread = setAside(f.Unread, undone)
	return f, nil
}

// day is a session without its track.
func day(n Session) track.Day {
	return track.Day{ID: n.ID, Date: n.Date, Started: n.StartedAt, Handler: cmp.Or(n.Handler, n.StartedBy), Core: n.Core}
}

// foldAgain drops the histories from a place on; they are folded again when they
// are asked for.
func foldAgain(ctx context.Context, q *sqlc.Queries, actor Actor, horseID string, from place) error {
	return q.DropHistoriesFrom(ctx, sqlc.DropHistoriesFromParams{PracticeID: actor.Practice, HorseID: horseID, LocalDate: from.date, StartedAt: from.start, SessionID: from.id})
}

// KeepFolds keeps histories of a horse, unless the horse has changed since its
// stamp was read; then they are left for the next reading.
func (s *Store) KeepFolds(ctx context.Context, practice, horseID, edition string, stamp int64, folds []Fold) error {
	return s.write(ctx, "keeping histories", func(q *sqlc.Queries) error {
		now, err := q.GetStamp(ctx, sqlc.GetStampParams{PracticeID: practice, HorseID: horseID})
		if err != nil || now != stamp {
			return err
		}
		for _, f := range folds {
			list := make([]unread, 0, len(f.Unread))
			for _, u := range f.Unread {
				list = append(list, unread{u.Session, u.On, u.ID, u.At, u.Kind})
			}
			if err := q.KeepHistory(ctx, sqlc.KeepHistoryParams{
				PracticeID: practice, HorseID: horseID, SessionID: f.Session.ID, LocalDate: f.Session.Date, StartedAt: f.Session.StartedAt,
				Edition: edition, Body: writeJSON(f.History), Unread: writeJSON(list), Figures: writeJSON(f.Figures),
			}); err != nil {
				return err
			}
		}
		return nil
	})
}

func readUnread(text string, into *[]Unread) error {
	var list []unread
	err := json.Unmarshal([]byte(text), &list)
	for _, u := range list {
		*into = append(*into, Unread{Session: u.Session, On: u.On, ID: u.ID, At: u.At, Kind: u.Kind})
	}
	return err
}

// DropFolds throws away every history of every practice; they are made again
// from the tracks as they are asked for.
func (s *Store) DropFolds(ctx context.Context) error {
	return s.write(ctx, "throwing away the histories", func(q *sqlc.Queries) error { return q.DropHistories(ctx) })
}

// Figures reads what each of a horse's folded sessions came to in numbers, the
// oldest first.
func (v View) Figures(ctx context.Context, practice, horseID, edition string) ([]history.Figures, error) {
	rows, err := v.read.GetFigures(ctx, sqlc.GetFiguresParams{PracticeID: practice, HorseID: horseID, Edition: edition})
	if err != nil {
		return nil, reading("the figures", err)
	}
	list := make([]history.Figures, 0, len(rows))
	for _, r := range rows {
		f, err := readJSON[history.Figures]("a session's figures", r.Figures)
		if err != nil {
			return nil, err
		}
		list = append(list, f)
	}
	return list, nil
}

// Folds gives the kept histories of a horse as they stand in the database, by
// session and edition.
func (v View) Folds(ctx context.Context, practice, horseID string) (map[string]string, error) {
	rows, err := v.read.GetHistories(ctx, sqlc.GetHistoriesParams{PracticeID: practice, HorseID: horseID})
	all := make(map[string]string, len(rows))
	for _, r := range rows {
		all[r.SessionID] = r.Edition + " " + r.Body + " " + r.Unread
	}
	return all, reading("the histories", err)
}

// A Stabled horse is one of a practice.
type Stabled struct{ Practice, Horse string }

// Everyone lists the horses of all practices.
func (v View) Everyone(ctx context.Context) ([]Stabled, error) {
	rows, err := v.read.GetHorsesOfAll(ctx)
	list := make([]Stabled, 0, len(rows))
	for _, r := range rows {
		list = append(list, Stabled{r.PracticeID, r.ID})
	}
	return list, reading("the horses", err)
}

// NewestStamp moves with each change that any page of a practice's horses is
// made from.
func (v View) NewestStamp(ctx context.Context, practice string) (int64, error) {
	n, err := v.read.GetNewestStamp(ctx, practice)
	return n, reading("the stamps", err)
}

// Stamps gives the stamp of each horse of a practice; it moves on with each
// change that the horse's pages are made from.
func (v View) Stamps(ctx context.Context, practice string) (map[string]int64, error) {
	rows, err := v.read.GetStamps(ctx, practice)
	all := make(map[string]int64, len(rows))
	for _, r := range rows {
		all[r.HorseID] = r.N
	}
	return all, reading("the stamps", err)
}
