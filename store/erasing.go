package store

import (
	"context"
	"fmt"

	"ivorybridge/store/sqlc"
)

// Bare reports whether a practice has no horses, people or yards.
func (v View) Bare(ctx context.Context, practice string) (bool, error) {
	something, err := v.read.HasSomething(ctx, practice)
	return something == 0, reading("the practice", err)
}

// ErasePerson takes away all that is known of a person: name, number, address, notes,
// agreements, links, letters, sign-in, and the films they sent. Rows that refer to them stay,
// without a name. It tells in how many texts that others typed the name still stands.
func (s *Store) ErasePerson(ctx context.Context, actor Actor, id string) (left int, err error) {
	err = s.write(ctx, "erasing a person", func(q *sqlc.Queries) error {
		p, err := q.GetPerson(ctx, sqlc.GetPersonParams{PracticeID: actor.Practice, ID: id})
		if err != nil {
			return err
		}
		n, err := q.CountNamed(ctx, sqlc.CountNamedParams{PracticeID: actor.Practice, Name: p.Name})
		if err != nil {
			return err
		}
		left = int(n)
		for _, erase := range []func() error{
			func() error {
				return q.ErasePerson(ctx, sqlc.ErasePersonParams{PracticeID: actor.Practice, ID: id, ArchivedAt: when(actor.At)})
			},
			func() error {
				return q.EraseConsents(ctx, sqlc.EraseConsentsParams{PracticeID: actor.Practice, PersonID: id})
			},
			func() error {
				return q.EraseLetters(ctx, sqlc.EraseLettersParams{PracticeID: actor.Practice, PersonID: null(id)})
			},
			func() error {
				return q.EraseReaders(ctx, sqlc.EraseReadersParams{PracticeID: actor.Practice, PersonID: null(id), StoppedAt: when(actor.At)})
			},
			func() error {
				return q.EraseLinks(ctx, sqlc.EraseLinksParams{PracticeID: actor.Practice, PersonID: null(id), OffAt: when(actor.At)})
			},
			func() error {
				return q.EraseFeeds(ctx, sqlc.EraseFeedsParams{PracticeID: actor.Practice, PersonID: null(id), OffAt: when(actor.At)})
			},
			func() error {
				return q.EraseInvitations(ctx, sqlc.EraseInvitationsParams{PracticeID: actor.Practice, PersonID: null(id), OffAt: when(actor.At)})
			},
			func() error {
				return q.EraseSignIns(ctx, sqlc.EraseSignInsParams{PracticeID: actor.Practice, PersonID: null(id)})
			},
			func() error {
				return q.EraseAccount(ctx, sqlc.EraseAccountParams{PracticeID: actor.Practice, PersonID: null(id)})
			},
			func() error {
				return q.EraseFilms(ctx, sqlc.EraseFilmsParams{PracticeID: actor.Practice, SentBy: null(id), RemovedAt: when(actor.At)})
			},
		} {
			if err := erase(); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "person erased", id)
	})
	if err != nil {
		return 0, fmt.Errorf("erasing a person: %w", err)
	}
	return left, nil
}
