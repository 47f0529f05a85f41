package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
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
	track.Entry
	ReceivedAt int64
	ClockOff   bool // the device's clock was wrong; At is corrected
	AfterEnd   bool
}

// ErrOther is returned for an id that is kept already with other content.
var ErrOther = errors.New("this id is kept already with other content")

// StartSession keeps a new session. The same session sent again is accepted
// silently.
func (s *Store) StartSession(ctx context.Context, actor Actor, n Session) error {
	err := s.write(ctx, "starting a session", func(q *sqlc.Queries) error {
		if err := q.InsertSession(ctx, sqlc.InsertSessionParams{
			ID: n.ID, PracticeID: actor.Practice, CaseID: n.CaseID, HorseID: n.HorseID, StartedBy: actor.User, StartedAt: n.StartedAt,
			Zone: n.Zone, LocalDate: n.Date, School: n.School.String(), Begins: writeJSON(n.Begins), Handler: n.Handler, Readiness: writeJSON(n.Readiness),
			CatalogVersion: n.Catalog, Rules: writeJSON(n.Rules), CoreVersion: n.Core,
		}); err != nil {
			return err
		}
		return foldAgain(ctx, q, actor, n.HorseID, placeOf(n))
	}, theCase(ctx, actor, n.CaseID), theHorse(ctx, actor, n.HorseID))
	if !errors.Is(err, ErrTaken) {
		return err
	}
	kept, readErr := s.Session(ctx, actor.Practice, n.ID)
	if readErr == nil && kept.CaseID == n.CaseID && kept.StartedAt == n.StartedAt {
		return nil
	}
	return fmt.Errorf("starting a session: %w", ErrOther)
}

func theSession(ctx context.Context, actor Actor, id string) reference {
	return reference{"session", func(q *sqlc.Queries) error {
		_, err := q.GetSession(ctx, sqlc.GetSessionParams{PracticeID: actor.Practice, ID: id})
		return err
	}}
}

// Session reads one session.
func (v View) Session(ctx context.Context, practice, id string) (Session, error) {
	r, err := v.read.GetSession(ctx, sqlc.GetSessionParams{PracticeID: practice, ID: id})
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
func (v View) SessionsOf(ctx context.Context, practice, horseID string) ([]Session, error) {
	rows, err := v.read.GetSessionsOfHorse(ctx, sqlc.GetSessionsOfHorseParams{PracticeID: practice, HorseID: horseID})
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

// SessionsOn lists the ids of a horse's sessions of a day, the oldest first.
func (v View) SessionsOn(ctx context.Context, practice, horseID, date string) ([]string, error) {
	ids, err := v.read.GetSessionsOn(ctx, sqlc.GetSessionsOnParams{PracticeID: practice, HorseID: horseID, LocalDate: date})
	if err != nil {
		return nil, reading("the sessions", err)
	}
	return ids, nil
}

// SessionPlace is a session by when and with whom at the rope it began.
type SessionPlace struct {
	ID, Date, Handler string
	StartedAt         int64
}

// NewestSessions lists so many of a horse's sessions, the newest first.
func (v View) NewestSessions(ctx context.Context, practice, horseID string, most int) ([]SessionPlace, error) {
	rows, err := v.read.GetNewestSessions(ctx, sqlc.GetNewestSessionsParams{PracticeID: practice, HorseID: horseID, Limit: int64(most)})
	if err != nil {
		return nil, reading("the sessions", err)
	}
	list := make([]SessionPlace, 0, len(rows))
	for _, r := range rows {
		list = append(list, SessionPlace{ID: r.ID, Date: r.LocalDate, Handler: cmp.Or(r.Handler, r.StartedBy), StartedAt: r.StartedAt})
	}
	return list, nil
}

// SessionBefore reads the newest of a horse's sessions, or with one given the
// newest before that.
func (v View) SessionBefore(ctx context.Context, practice, horseID string, n Session) (Session, error) {
	until := last
	if n.ID != "" {
		until = placeOf(n)
	}
	r, err := v.read.GetSessionBefore(ctx, sqlc.GetSessionBeforeParams{PracticeID: practice, HorseID: horseID, BeforeDate: until.date, BeforeStart: until.start, BeforeID: until.id})
	if err != nil {
		return Session{}, reading("the session", err)
	}
	return session(sqlc.GetSessionRow(r))
}

// Ended reports whether somebody ended a session, and that stands.
func (v View) Ended(ctx context.Context, practice, sessionID string) (bool, error) {
	end, err := v.end(ctx, practice, sessionID)
	return end != nil, err
}

// EndNote is how a session ended, in the trainer's words; empty: nobody said.
func (v View) EndNote(ctx context.Context, practice, sessionID string) (string, error) {
	end, err := v.end(ctx, practice, sessionID)
	if end == nil {
		return "", err
	}
	return end.Note, err
}

// end is the entry that ended a session and stands; nil: none.
func (v View) end(ctx context.Context, practice, sessionID string) (*track.Entry, error) {
	rows, err := v.read.GetEnds(ctx, sqlc.GetEndsParams{PracticeID: practice, SessionID: sessionID})
	if err != nil {
		return nil, reading("the track", err)
	}
	var ends []track.Entry
	for _, r := range rows {
		if e, err := readJSON[track.Entry]("an entry", r.Body); err == nil {
			e.At = r.At
			ends = append(ends, e)
		}
	}
	for _, e := range track.Live(ends) {
		if e.Kind == track.KindEnd {
			return &e, nil
		}
	}
	return nil, nil
}

// NextStart is when the horse's next session after one began, in ms; the end of
// time where there is none yet.
func (v View) NextStart(ctx context.Context, practice, horseID string, n Session) (int64, error) {
	at, err := v.read.GetStartAfter(ctx, sqlc.GetStartAfterParams{PracticeID: practice, HorseID: horseID, AfterDate: n.Date, AfterStart: n.StartedAt, AfterID: n.ID})
	if errors.Is(err, sql.ErrNoRows) {
		return last.start, nil
	}
	return at, reading("the sessions", err)
}

// Append keeps entries of a session in one transaction, durably, and tells for
// each why it was refused, or nil. sentAt is the device's clock as it sent
// them: if that is off, times are corrected and the entries marked. An entry
// kept before with the same content is accepted silently; nothing good is lost
// for a bad one beside it. The entries come back at their corrected times.
func (s *Store) Append(ctx context.Context, actor Actor, sessionID string, sentAt int64, entries []track.Entry) (kept []track.Entry, refused []error, err error) {
	refused, kept = make([]error, len(entries)), slices.Clone(entries)
	off := track.ClockOff(actor.At, sentAt)
	err = s.write(ctx, "keeping entries", func(q *sqlc.Queries) error {
		at, err := q.GetPlaceOfSession(ctx, sqlc.GetPlaceOfSessionParams{PracticeID: actor.Practice, ID: sessionID})
		if errors.Is(err, sql.ErrNoRows) {
			return errReference
		}
		if err != nil {
			return err
		}
		ended := at.Ended
		for i, e := range entries {
			kept[i].At = e.At + off
			row := sqlc.InsertEntryParams{
				ID: e.ID, PracticeID: actor.Practice, SessionID: sessionID, Device: e.Device, Seq: e.Seq, DeviceAt: e.At, At: kept[i].At,
				ReceivedAt: actor.At, ClockOff: bit(off != 0), AfterEnd: bit(ended), Kind: e.Kind.String(), WrittenBy: actor.User, Body: writeJSON(e),
			}
			switch err := named(q.InsertEntry(ctx, row)); {
			case errors.Is(err, ErrTaken):
				refused[i] = sameAsKept(ctx, q, row)
			case errors.Is(err, ErrRefused):
				refused[i] = err // nothing good is lost for it
			case err != nil:
				return err
			case e.Kind == track.KindEnd:
				ended = true
			}
		}
		if err := q.Touch(ctx, sqlc.TouchParams{PracticeID: actor.Practice, HorseID: at.HorseID}); err != nil {
			return err
		}
		return foldAgain(ctx, q, actor, at.HorseID, place{at.LocalDate, at.StartedAt, sessionID})
	}, theSession(ctx, actor, sessionID))
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

// An Unread entry is one that can't be read; all others of its track can. An
// entry that undoes it sets it aside.
type Unread struct {
	Session string
	On      string // the session's day
	ID      string
	At      int64
	Kind    string
	Why     error
}

// setAside drops the unread entries that an undo of their own track names.
func setAside(unread []Unread, undone map[string]bool) []Unread {
	return slices.DeleteFunc(unread, func(u Unread) bool { return undone[u.ID] })
}

// Track reads a session's entries in track order, each at its corrected time,
// and tells which can't be read.
func (v View) Track(ctx context.Context, practice, sessionID string) ([]Kept, []Unread, error) {
	rows, err := v.read.GetEntriesOfSession(ctx, sqlc.GetEntriesOfSessionParams{PracticeID: practice, SessionID: sessionID})
	if err != nil {
		return nil, nil, reading("the track", err)
	}
	kept, unread, undone := make([]Kept, 0, len(rows)), []Unread(nil), map[string]bool{}
	for _, r := range rows {
		e, err := readJSON[track.Entry]("an entry", r.Body)
		if err != nil {
			unread = append(unread, Unread{Session: sessionID, ID: r.ID, At: r.At, Kind: r.Kind, Why: err})
			continue
		}
		if e.Kind == track.KindUndo {
			undone[e.Replaces] = true
		}
		e.At = r.At
		kept = append(kept, Kept{Entry: e, ReceivedAt: r.ReceivedAt, ClockOff: r.ClockOff == 1, AfterEnd: r.AfterEnd == 1})
	}
	return kept, setAside(unread, undone), nil
}

// Entries gives the plain entries of a track.
func Entries(kept []Kept) []track.Entry {
	entries := make([]track.Entry, len(kept))
	for i, k := range kept {
		entries[i] = k.Entry
	}
	return entries
}

// Days reads a horse's sessions with their tracks, for the states of its
// steps, and tells which entries can't be read; advice entries are left out.
func (v View) Days(ctx context.Context, practice, horseID string) (sessions []Session, days []track.Day, unread []Unread, err error) {
	err = v.Snapshot(ctx, func(v View) error {
		if sessions, err = v.SessionsOf(ctx, practice, horseID); err != nil {
			return err
		}
		rows, err := v.read.GetEntriesOfHorse(ctx, sqlc.GetEntriesOfHorseParams{PracticeID: practice, HorseID: horseID})
		if err != nil {
			return reading("the tracks", err)
		}
		place := make(map[string]int, len(sessions))
		days = make([]track.Day, len(sessions))
		for i, n := range sessions {
			place[n.ID] = i
			days[i] = day(n)
		}
		undone := map[string]bool{}
		for _, r := range rows {
			e, err := readJSON[track.Entry]("an entry", r.Body)
			if err != nil {
				unread = append(unread, Unread{Session: r.SessionID, On: days[place[r.SessionID]].Date, ID: r.ID, At: r.At, Kind: r.Kind, Why: err})
				continue
			}
			if e.Kind == track.KindUndo {
				undone[e.Replaces] = true
			}
			e.At = r.At
			day := &days[place[r.SessionID]]
			day.Track = append(day.Track, e)
		}
		unread = setAside(unread, undone)
		return nil
	})
	return sessions, days, unread, err
}

// DropSession takes back a session on whose track nothing stands, not even
// advice (part 6, case 33); ErrHasEntries if something does.
func (s *Store) DropSession(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "throwing away a session", func(q *sqlc.Queries) error {
		n, err := q.CountEntries(ctx, sqlc.CountEntriesParams{PracticeID: actor.Practice, SessionID: id})
		if err != nil {
			return err
		}
		if n > 0 {
			return ErrHasEntries
		}
		at, err := q.GetPlaceOfSession(ctx, sqlc.GetPlaceOfSessionParams{PracticeID: actor.Practice, ID: id})
		if err != nil {
			return err
		}
		if err := foldAgain(ctx, q, actor, at.HorseID, place{at.LocalDate, at.StartedAt, id}); err != nil {
			return err
		}
		if err := one(q.DeleteSession(ctx, sqlc.DeleteSessionParams{PracticeID: actor.Practice, ID: id})); err != nil {
			return err
		}
		return actor.changed(ctx, q, "empty session thrown away", id)
	})
}

// ErrHasEntries is returned for a session that can't be thrown away.
var ErrHasEntries = errors.New("something stands on the track of this session")

// An OwnAsk is something asked of one horse that no ladder names, with the horse.
type OwnAsk struct {
	HorseID string
	Horse   string
	Ask     catalog.OwnAsk
}

// OwnAsks lists what the practice's horses were asked beside all ladders, by horse.
// One that can't be read is left out.
func (v View) OwnAsks(ctx context.Context, practice string) ([]OwnAsk, error) {
	rows, err := v.read.GetOwnAsks(ctx, practice)
	asks := make([]OwnAsk, 0, len(rows))
	for _, r := range rows {
		if ask, err := readJSON[catalog.OwnAsk]("the own ask", r.Ask); err == nil && ask.Check() == nil {
			asks = append(asks, OwnAsk{HorseID: r.HorseID, Horse: r.Horse, Ask: ask})
		}
	}
	return asks, reading("the own asks", err)
}
