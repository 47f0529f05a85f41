package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/store/sqlc"
)

// A Session pins what advised it: catalogue, house rules and core.
type Session struct {
	ID        string
	CaseID    string
	HorseID   string
	StartedBy string
	StartedAt int64
	Zone      string
	Date      string // local date at the start
	School    horse.School
	Begins    horse.Ask
	Handler   string // who holds the rope
	Readiness arena.Readiness
	Catalog   string
	Rules     catalog.HouseRules
	Core      string
}

// Kept is an entry with what the server knows of it.
type Kept struct {
	arena.Entry
	ReceivedAt int64
	ClockOff   bool // the device's clock was wrong; At is corrected
	AfterEnd   bool
}

// ErrOther is returned for an id that is kept already with other content.
var ErrOther = errors.New("this id is kept already with other content")

// StartSession keeps a new session. The same session sent again is accepted
// silently.
func (s *Store) StartSession(ctx context.Context, who Who, n Session) error {
	err := s.write(ctx, "starting a session", func(q *sqlc.Queries) error {
		if err := q.InsertSession(ctx, sqlc.InsertSessionParams{
			ID: n.ID, PracticeID: who.Practice, CaseID: n.CaseID, HorseID: n.HorseID, StartedBy: who.User, StartedAt: n.StartedAt,
			Zone: n.Zone, LocalDate: n.Date, School: n.School.String(), Begins: doc(n.Begins), Handler: n.Handler, Readiness: doc(n.Readiness),
			CatalogVersion: n.Catalog, Rules: doc(n.Rules), CoreVersion: n.Core,
		}); err != nil {
			return err
		}
		return q.DropStagesAfter(ctx, sqlc.DropStagesAfterParams{PracticeID: who.Practice, SessionID: n.ID})
	})
	if !errors.Is(err, ErrTaken) {
		return err
	}
	kept, readErr := s.Session(ctx, who.Practice, n.ID)
	if readErr == nil && kept.CaseID == n.CaseID && kept.StartedAt == n.StartedAt {
		return nil
	}
	return fmt.Errorf("starting a session: %w", ErrOther)
}

// Session reads one session.
func (s *Store) Session(ctx context.Context, practice, id string) (Session, error) {
	r, err := s.read.GetSession(ctx, sqlc.GetSessionParams{PracticeID: practice, ID: id})
	if err != nil {
		return Session{}, reading("the session", err)
	}
	return session(r)
}

func session(r sqlc.GetSessionRow) (Session, error) {
	n := Session{ID: r.ID, CaseID: r.CaseID, HorseID: r.HorseID, StartedBy: r.StartedBy, StartedAt: r.StartedAt, Zone: r.Zone, Date: r.LocalDate, Handler: r.Handler, Catalog: r.CatalogVersion, Core: r.CoreVersion}
	return n, errors.Join(
		n.School.UnmarshalText([]byte(r.School)),
		json.Unmarshal([]byte(r.Begins), &n.Begins),
		json.Unmarshal([]byte(r.Readiness), &n.Readiness),
		json.Unmarshal([]byte(r.Rules), &n.Rules),
	)
}

// SessionsOf lists a horse's sessions, the oldest first.
func (s *Store) SessionsOf(ctx context.Context, practice, horseID string) ([]Session, error) {
	rows, err := s.read.GetSessionsOfHorse(ctx, sqlc.GetSessionsOfHorseParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, reading("the sessions", err)
	}
	list := make([]Session, 0, len(rows))
	for _, r := range rows {
		n, err := session(sqlc.GetSessionRow(r))
		if err != nil {
			return nil, fmt.Errorf("reading a session as it was kept: %w", err)
		}
		list = append(list, n)
	}
	return list, nil
}

// clockSlack is how far a device's clock may be off before its times are
// corrected, in milliseconds.
const clockSlack = 5 * 60_000

// ClockOff is how far a device's clock is behind, in milliseconds, by when it
// says that it sent something; 0 where it did not say, or is near enough.
func ClockOff(now, sentAt int64) int64 {
	off := now - sentAt
	if sentAt == 0 || off <= clockSlack && off >= -clockSlack {
		return 0
	}
	return off
}

// Append keeps entries of a session in one transaction, durably, and tells for
// each why it was refused, or nil. sentAt is the device's clock as it sent
// them: if that is off, times are corrected and the entries marked. An entry
// kept before with the same content is accepted silently; nothing good is lost
// for a bad one beside it. The entries come back at their corrected times.
func (s *Store) Append(ctx context.Context, who Who, sessionID string, sentAt int64, entries []arena.Entry) (kept []arena.Entry, refused []error, err error) {
	refused, kept = make([]error, len(entries)), slices.Clone(entries)
	off := ClockOff(who.At, sentAt)
	err = s.write(ctx, "keeping entries", func(q *sqlc.Queries) error {
		ended, err := q.GetSessionEnded(ctx, sqlc.GetSessionEndedParams{PracticeID: who.Practice, SessionID: sessionID})
		if err != nil {
			return err
		}
		for i, e := range entries {
			at := e.At + off
			kept[i].At = at
			row := sqlc.InsertEntryParams{
				ID: e.ID, PracticeID: who.Practice, SessionID: sessionID, Device: e.Device, Seq: e.Seq, DeviceAt: e.At, At: at,
				ReceivedAt: who.At, ClockOff: bit(off != 0), AfterEnd: bit(ended), Kind: e.Kind.String(), WrittenBy: who.User, Body: doc(e),
			}
			switch err := named(q.InsertEntry(ctx, row)); {
			case errors.Is(err, ErrTaken):
				refused[i] = sameAsKept(ctx, q, row)
			case err != nil:
				return err
			case e.Kind == arena.KindEnd:
				ended = true
			}
		}
		return q.DropStagesAfter(ctx, sqlc.DropStagesAfterParams{PracticeID: who.Practice, SessionID: sessionID})
	})
	return kept, refused, err
}

func sameAsKept(ctx context.Context, q *sqlc.Queries, row sqlc.InsertEntryParams) error {
	kept, err := q.GetEntryKept(ctx, sqlc.GetEntryKeptParams{PracticeID: row.PracticeID, ID: row.ID})
	if err != nil {
		return reading("the entry", err)
	}
	if kept.SessionID != row.SessionID || kept.Body != row.Body {
		return ErrOther
	}
	return nil
}

// Track reads a session's entries in track order, each at its corrected time.
func (s *Store) Track(ctx context.Context, practice, sessionID string) ([]Kept, error) {
	rows, err := s.read.GetEntriesOfSession(ctx, sqlc.GetEntriesOfSessionParams{PracticeID: practice, SessionID: sessionID})
	if err != nil {
		return nil, reading("the track", err)
	}
	track := make([]Kept, 0, len(rows))
	for _, r := range rows {
		e, err := undoc[arena.Entry]("an entry", r.Body)
		if err != nil {
			return nil, err
		}
		e.At = r.At
		track = append(track, Kept{Entry: e, ReceivedAt: r.ReceivedAt, ClockOff: r.ClockOff == 1, AfterEnd: r.AfterEnd == 1})
	}
	return track, nil
}

// Entries gives the plain entries of a track.
func Entries(track []Kept) []arena.Entry {
	entries := make([]arena.Entry, len(track))
	for i, k := range track {
		entries[i] = k.Entry
	}
	return entries
}

// Days reads a horse's sessions with their tracks, for the states of its
// steps; advice entries are left out.
func (s *Store) Days(ctx context.Context, practice, horseID string) ([]Session, []arena.Day, error) {
	sessions, err := s.SessionsOf(ctx, practice, horseID)
	if err != nil {
		return nil, nil, err
	}
	rows, err := s.read.GetEntriesOfHorse(ctx, sqlc.GetEntriesOfHorseParams{PracticeID: practice, HorseID: horseID})
	if err != nil {
		return nil, nil, reading("the tracks", err)
	}
	days := make([]arena.Day, len(sessions))
	for i, n := range sessions {
		days[i] = arena.Day{Date: n.Date, Started: n.StartedAt, Handler: cmp.Or(n.Handler, n.StartedBy)}
	}
	for _, r := range rows {
		e, err := undoc[arena.Entry]("an entry", r.Body)
		if err != nil {
			return nil, nil, err
		}
		e.At = r.At
		i := slices.IndexFunc(sessions, func(n Session) bool { return n.ID == r.SessionID })
		days[i].Track = append(days[i].Track, e)
	}
	return sessions, days, nil
}
