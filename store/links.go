package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"ivorybridge/store/sqlc"
)

// A Link opens one owner's horses, or one report, to whoever has its token.
type Link struct {
	ID      string
	Person  string // whose horses; empty: it is of one report
	Session string // whose report; empty: it is of a person
	Until   int64  // when it ends, ms
	MadeBy  string // name; of one that a token opened, the user's id
	MadeAt  int64
	OffAt   int64 // when it was switched off; 0: it was not
	Opened  int64 // how often
	FirstAt int64 // when it was opened first; 0: never
	LastAt  int64
}

// openedWithin is the time within which opening a link again counts as the same.
const openedWithin = 10 * time.Minute

// AddLink keeps a new link by the hash of its token.
func (s *Store) AddLink(ctx context.Context, actor Actor, l Link, hash []byte) error {
	return s.write(ctx, "making a link", func(q *sqlc.Queries) error {
		if err := q.InsertLink(ctx, sqlc.InsertLinkParams{
			ID: l.ID, PracticeID: actor.Practice, TokenHash: hash, PersonID: null(l.Person), SessionID: null(l.Session), Until: l.Until, MadeBy: actor.User, MadeAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "link made", l.ID)
	}, thePerson(ctx, actor, "person", l.Person))
}

// Links lists the links of a person, or of a session's report, the newest first.
func (v View) Links(ctx context.Context, practice, person, session string) ([]Link, error) {
	rows, err := v.read.GetLinks(ctx, sqlc.GetLinksParams{PracticeID: practice, PersonID: null(person), SessionID: null(session)})
	list := make([]Link, 0, len(rows))
	for _, r := range rows {
		list = append(list, Link{
			ID: r.ID, Person: r.PersonID.String, Session: r.SessionID.String, Until: r.Until, MadeBy: r.MadeBy, MadeAt: r.MadeAt,
			OffAt: r.OffAt.Int64, Opened: r.Opened, FirstAt: r.FirstAt.Int64, LastAt: r.LastAt.Int64,
		})
	}
	return list, reading("the links", err)
}

// Link reads one link of a practice.
func (v View) Link(ctx context.Context, practice, id string) (Link, error) {
	r, err := v.read.GetLink(ctx, sqlc.GetLinkParams{PracticeID: practice, ID: id})
	return Link{ID: r.ID, Person: r.PersonID.String, Session: r.SessionID.String, Until: r.Until, MadeAt: r.MadeAt, OffAt: r.OffAt.Int64}, reading("the link", err)
}

// SwitchOff ends a link at once; ErrNotFound if it was off.
func (s *Store) SwitchOff(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "switching a link off", func(q *sqlc.Queries) error {
		n, err := q.SwitchLinkOff(ctx, sqlc.SwitchLinkOffParams{OffAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "link switched off", id)
	})
}

// Linked finds what a token opens, and the practice; ErrNotFound if it opens
// nothing, or nothing any more: the link ended, was switched off, or its person is
// not there any more.
func (v View) Linked(ctx context.Context, hash []byte, now int64) (Link, Practice, error) {
	r, err := v.read.GetLinkByToken(ctx, sqlc.GetLinkByTokenParams{TokenHash: hash, Until: now})
	return Link{ID: r.ID, Person: r.PersonID.String, Session: r.SessionID.String, Until: r.Until, Opened: r.Opened, MadeBy: r.MadeBy},
		practice(r.Practice),
		reading("the link", err)
}

// CountOpened counts that a link was opened, not by whom; again within a few
// minutes is the same time.
func (s *Store) CountOpened(ctx context.Context, practice, id string, now int64) error {
	return s.write(ctx, "counting that a link was opened", func(q *sqlc.Queries) error {
		return q.CountLinkOpened(ctx, sqlc.CountLinkOpenedParams{Now: when(now), PracticeID: practice, ID: id, Since: when(now - openedWithin.Milliseconds())})
	})
}

// HorsesOf lists the ids of the horses that a person owns or handles, by name.
func (v View) HorsesOf(ctx context.Context, practice, person string) ([]string, error) {
	list, err := v.read.GetHorsesOfPerson(ctx, sqlc.GetHorsesOfPersonParams{PracticeID: practice, PersonID: person})
	return list, reading("a person's horses", err)
}

// A Sent is a visit's page that was sent to the owners.
type Sent struct {
	Session string
	By      string // name
	At      int64  // 0: it was not
}

// Send lets the owners' links show a visit's page from now on.
func (s *Store) Send(ctx context.Context, actor Actor, session string) error {
	return s.write(ctx, "sending a page", func(q *sqlc.Queries) error {
		if err := q.PutSent(ctx, sqlc.PutSentParams{PracticeID: actor.Practice, SessionID: session, SentBy: actor.User, SentAt: actor.At}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "report sent", session)
	})
}

// Sent tells when a visit's page was sent, and by whom.
func (v View) Sent(ctx context.Context, practice, session string) (Sent, error) {
	r, err := v.read.GetSent(ctx, sqlc.GetSentParams{PracticeID: practice, SessionID: session})
	if errors.Is(err, sql.ErrNoRows) {
		return Sent{}, nil
	}
	return Sent{Session: session, By: r.SentBy, At: r.SentAt}, reading("what was sent", err)
}

// NewestSent is the newest visit of a horse whose page was sent; ErrNotFound: none
// was.
func (v View) NewestSent(ctx context.Context, practice, horseID string) (Sent, error) {
	r, err := v.read.GetNewestSent(ctx, sqlc.GetNewestSentParams{PracticeID: practice, HorseID: horseID})
	return Sent{Session: r.SessionID, At: r.SentAt}, reading("what was sent", err)
}
