package store

import (
	"context"

	"ivorybridge/store/sqlc"
)

// A Feed shows a user's own diary, or a person's own horses, to whoever has its token.
type Feed struct {
	ID     string
	User   string // whose diary; empty: it is of a person
	Person string // whose horses
	Name   string // of either
	MadeAt int64
	OffAt  int64 // when it was switched off; 0: it was not
	ReadAt int64 // when it was read last; 0: never
}

// AddFeed keeps a new feed by the hash of its token.
func (s *Store) AddFeed(ctx context.Context, actor Actor, f Feed, hash []byte) error {
	return s.write(ctx, "making a calendar", func(q *sqlc.Queries) error {
		if err := q.InsertFeed(ctx, sqlc.InsertFeedParams{
			ID: f.ID, PracticeID: actor.Practice, TokenHash: hash, UserID: null(f.User), PersonID: null(f.Person), MadeBy: actor.User, MadeAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "calendar made", f.ID)
	}, thePerson(ctx, actor, "person", f.Person))
}

// Feeds lists a practice's feeds, the newest first.
func (v View) Feeds(ctx context.Context, practice string) ([]Feed, error) {
	rows, err := v.read.GetFeeds(ctx, practice)
	list := make([]Feed, 0, len(rows))
	for _, r := range rows {
		list = append(list, Feed{ID: r.ID, User: r.UserID.String, Person: r.PersonID.String, Name: r.Name, MadeAt: r.MadeAt, OffAt: r.OffAt.Int64, ReadAt: r.ReadAt.Int64})
	}
	return list, reading("the calendars", err)
}

// FeedOf finds what a token shows, and the practice; ErrNotFound if it shows nothing, or
// nothing any more.
func (v View) FeedOf(ctx context.Context, hash []byte) (Feed, Practice, error) {
	r, err := v.read.GetFeedByToken(ctx, hash)
	return Feed{ID: r.ID, User: r.UserID.String, Person: r.PersonID.String},
		practice(r.Practice),
		reading("the calendar", err)
}

// FeedWasRead notes when a feed was read last.
func (s *Store) FeedWasRead(ctx context.Context, practice, id string, at int64) error {
	return s.write(ctx, "noting that a calendar was read", func(q *sqlc.Queries) error {
		return q.FeedWasRead(ctx, sqlc.FeedWasReadParams{ReadAt: when(at), PracticeID: practice, ID: id})
	})
}

// SwitchFeedOff ends a feed at once; ErrNotFound if it was off.
func (s *Store) SwitchFeedOff(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "switching a calendar off", func(q *sqlc.Queries) error {
		n, err := q.SwitchFeedOff(ctx, sqlc.SwitchFeedOffParams{OffAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "calendar switched off", id)
	})
}

// Busy is a time of a user that is taken otherwise.
type Busy struct {
	User     string
	From, To int64 // ms
	What     string
}

// SetBusy keeps the actor's busy times instead of those that were there.
func (s *Store) SetBusy(ctx context.Context, actor Actor, list []Busy) error {
	return s.write(ctx, "keeping busy times", func(q *sqlc.Queries) error {
		if err := q.DeleteBusy(ctx, sqlc.DeleteBusyParams{PracticeID: actor.Practice, UserID: actor.User}); err != nil {
			return err
		}
		for _, b := range list {
			if err := q.InsertBusy(ctx, sqlc.InsertBusyParams{PracticeID: actor.Practice, UserID: actor.User, FromAt: b.From, ToAt: b.To, What: b.What}); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "busy times taken in", actor.User)
	})
}

// BusyBetween lists the busy times of all users that touch a span, the earliest first.
func (v View) BusyBetween(ctx context.Context, practice string, since, until int64) ([]Busy, error) {
	rows, err := v.read.GetBusy(ctx, sqlc.GetBusyParams{PracticeID: practice, Since: since, Until: until})
	list := make([]Busy, 0, len(rows))
	for _, r := range rows {
		list = append(list, Busy{User: r.UserID, From: r.FromAt, To: r.ToAt, What: r.What})
	}
	return list, reading("the busy times", err)
}
