package store

import (
	"context"

	"ivorybridge/store/sqlc"
)

// A Reader gets a letter in the evening: a user who wants it, or a person who agreed.
type Reader struct {
	ID       string
	User     string // id; empty: it is a person
	Person   string
	Stop     string // token of the address that stops the letters, and does nothing else
	AgreedAt int64
	NotedBy  string // name
	Name     string
	Email    string
}

// AddReader notes that somebody gets letters; ErrDuplicate if they do already.
func (s *Store) AddReader(ctx context.Context, actor Actor, r Reader) error {
	return s.write(ctx, "noting who gets letters", func(q *sqlc.Queries) error {
		if err := q.InsertReader(ctx, sqlc.InsertReaderParams{
			ID: r.ID, PracticeID: actor.Practice, UserID: null(r.User), PersonID: null(r.Person), StopToken: r.Stop, AgreedAt: actor.At, NotedBy: actor.User,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "letters agreed", r.ID)
	}, thePerson(ctx, actor, "person", r.Person))
}

// Readers lists who gets letters, by name.
func (v View) Readers(ctx context.Context, practice string) ([]Reader, error) {
	rows, err := v.read.GetReaders(ctx, practice)
	list := make([]Reader, 0, len(rows))
	for _, r := range rows {
		list = append(list, Reader{ID: r.ID, User: r.UserID.String, Person: r.PersonID.String, Stop: r.StopToken, AgreedAt: r.AgreedAt, NotedBy: r.NotedBy, Name: r.Name, Email: r.Email})
	}
	return list, reading("who gets letters", err)
}

// StopReader ends somebody's letters; ErrNotFound if they get none.
func (s *Store) StopReader(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "stopping letters", func(q *sqlc.Queries) error {
		n, err := q.StopReader(ctx, sqlc.StopReaderParams{StoppedAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "letters stopped", id)
	})
}

// A Stopping is whose letters a token stops.
type Stopping struct {
	Reader, PracticeID, Practice string
	Stopped                      bool // already
}

// StoppedBy finds whose letters a token stops; ErrNotFound if nobody's.
func (v View) StoppedBy(ctx context.Context, token string) (Stopping, error) {
	r, err := v.read.GetReaderByStop(ctx, token)
	return Stopping{r.ID, r.PracticeID, r.Practice, r.StoppedAt.Valid}, reading("whose letters these are", err)
}

// A Letter was made for a reader one evening. Times are in ms; 0 stands for none.
type Letter struct {
	ID       string
	Reader   string // id
	On       string // date of the evening
	Name     string
	Address  string
	Subject  string
	Body     string
	Calendar string // the visits it tells of, as a calendar; empty: none
	MadeAt   int64
	Tries    int64
	NextAt   int64 // when it is tried next
	SentAt   int64
	Failed   string // why the newest try failed
}

// AddLetters keeps the letters of an evening. A reader who has one of that evening gets
// no other.
func (s *Store) AddLetters(ctx context.Context, practice string, list []Letter) error {
	return s.write(ctx, "keeping letters", func(q *sqlc.Queries) error {
		for _, l := range list {
			next := when(l.NextAt)
			next.Valid = l.NextAt != 0
			if _, err := q.InsertLetter(ctx, sqlc.InsertLetterParams{
				ID: l.ID, PracticeID: practice, ReaderID: l.Reader, OnDate: l.On, Name: l.Name, Address: l.Address, Subject: l.Subject, Body: l.Body,
				Calendar: l.Calendar, MadeAt: l.MadeAt, NextAt: next,
			}); err != nil {
				return err
			}
		}
		return nil
	})
}

// Letters lists the newest letters of a practice.
func (v View) Letters(ctx context.Context, practice string) ([]Letter, error) {
	rows, err := v.read.GetLetters(ctx, practice)
	list := make([]Letter, 0, len(rows))
	for _, r := range rows {
		list = append(list, Letter{r.ID, r.ReaderID, r.OnDate, r.Name, r.Address, r.Subject, r.Body, r.Calendar, r.MadeAt, r.Tries, r.NextAt.Int64, r.SentAt.Int64, r.Failed})
	}
	return list, reading("the letters", err)
}

// ReadersTold are the ids of who has a letter of that evening.
func (v View) ReadersTold(ctx context.Context, practice, on string) ([]string, error) {
	list, err := v.read.GetReadersTold(ctx, sqlc.GetReadersToldParams{PracticeID: practice, OnDate: on})
	return list, reading("the letters of the evening", err)
}

// A Waiting letter is one that is to be sent.
type Waiting struct {
	Letter
	PracticeID, Practice string
	Stop                 string // token
	Stopped              bool   // its reader wants none any more
}

// WaitingLetters lists what is to be sent by now, the longest waiting first.
func (v View) WaitingLetters(ctx context.Context, now int64) ([]Waiting, error) {
	rows, err := v.read.GetWaitingLetters(ctx, when(now))
	list := make([]Waiting, 0, len(rows))
	for _, r := range rows {
		list = append(list, Waiting{
			Letter{r.ID, r.ReaderID, r.OnDate, r.Name, r.Address, r.Subject, r.Body, r.Calendar, r.MadeAt, r.Tries, r.NextAt.Int64, r.SentAt.Int64, r.Failed},
			r.PracticeID, r.Practice, r.StopToken, r.StoppedAt.Valid,
		})
	}
	return list, reading("the letters that wait", err)
}

// LetterTried notes how a try to send a letter went: it was sent, or failed and is tried
// again, or is given up.
func (s *Store) LetterTried(ctx context.Context, practice, id string, sent, next int64, failed string) error {
	sentAt, nextAt := when(sent), when(next)
	sentAt.Valid, nextAt.Valid = sent != 0, next != 0
	return s.write(ctx, "noting that a letter was sent", func(q *sqlc.Queries) error {
		return q.LetterTried(ctx, sqlc.LetterTriedParams{NextAt: nextAt, SentAt: sentAt, Failed: failed, PracticeID: practice, ID: id})
	})
}

// ForgetLetters removes the letters that were made before a time.
func (s *Store) ForgetLetters(ctx context.Context, before int64) error {
	return s.write(ctx, "removing old letters", func(q *sqlc.Queries) error { return q.DeleteOldLetters(ctx, before) })
}
