package store

import (
	"context"
	"database/sql"
	"time"

	"ivorybridge/store/sqlc"
)

// An Invitation makes an account, once: of an owner, or of a helper for one day at
// one yard.
type Invitation struct {
	ID     string
	Name   string
	Person string // whose account it will be; empty: a helper's
	On     string // the helper's day
	Yard   string // name; the yard's id when adding
	YardID string
	Until  int64 // ms
	MadeBy string
	MadeAt int64
}

// AddInvitation keeps an invitation by the hash of its token.
func (s *Store) AddInvitation(ctx context.Context, actor Actor, i Invitation, hash []byte) error {
	return s.write(ctx, "inviting somebody", func(q *sqlc.Queries) error {
		if err := q.InsertInvitation(ctx, sqlc.InsertInvitationParams{
			ID: i.ID, PracticeID: actor.Practice, TokenHash: hash, Name: i.Name, PersonID: null(i.Person), OnDate: null(i.On), YardID: null(i.YardID),
			Until: i.Until, MadeBy: actor.User, MadeAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "somebody invited", i.ID)
	}, thePerson(ctx, actor, "person", i.Person), theYard(ctx, actor, i.YardID))
}

// Invited finds the invitation behind a token's hash; ErrNotFound if there is none, it
// ended, was used or was taken back.
func (v View) Invited(ctx context.Context, hash []byte, now int64) (Invitation, Practice, error) {
	r, err := v.read.GetInvitationByToken(ctx, sqlc.GetInvitationByTokenParams{TokenHash: hash, Until: now})
	return Invitation{ID: r.ID, Name: r.Name, Person: r.PersonID.String, On: r.OnDate.String, Yard: r.Yard.String, YardID: r.YardID.String, Until: r.Until},
		practice(r.Practice),
		reading("the invitation", err)
}

// Invitations lists those that are open.
func (v View) Invitations(ctx context.Context, practice string, now int64) ([]Invitation, error) {
	rows, err := v.read.GetInvitations(ctx, sqlc.GetInvitationsParams{PracticeID: practice, Until: now})
	list := make([]Invitation, 0, len(rows))
	for _, r := range rows {
		list = append(list, Invitation{ID: r.ID, Name: r.Name, Person: r.PersonID.String, On: r.OnDate.String, Yard: r.Yard.String, Until: r.Until, MadeBy: r.MadeBy, MadeAt: r.MadeAt})
	}
	return list, reading("the invitations", err)
}

// TakeBack takes an invitation back; ErrNotFound if it was used, or was taken back.
func (s *Store) TakeBack(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "taking an invitation back", func(q *sqlc.Queries) error {
		n, err := q.WithdrawInvitation(ctx, sqlc.WithdrawInvitationParams{OffAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "invitation taken back", id)
	})
}

// Accept makes the account of an invitation, which is used up with that; ErrTaken if
// the address has a sign-in.
func (s *Store) Accept(ctx context.Context, i Invitation, practice string, u User, now int64) error {
	actor := Actor{Practice: practice, User: u.ID, At: now}
	return s.write(ctx, "accepting an invitation", func(q *sqlc.Queries) error {
		n, err := q.UseInvitation(ctx, sqlc.UseInvitationParams{Now: when(now), PracticeID: practice, ID: i.ID})
		if err := one(n, err); err != nil {
			return err
		}
		if err := q.InsertUser(ctx, sqlc.InsertUserParams{
			ID: u.ID, PracticeID: practice, Name: i.Name, Email: u.Email, Role: string(Owner), PasswordHash: u.Hash, CreatedAt: now,
		}); err != nil {
			return err
		}
		if i.Person != "" {
			err = q.SetUserPerson(ctx, sqlc.SetUserPersonParams{PersonID: null(i.Person), PracticeID: practice, ID: u.ID})
		} else {
			err = q.InsertHelper(ctx, sqlc.InsertHelperParams{PracticeID: practice, UserID: u.ID, OnDate: i.On, YardID: i.YardID})
		}
		if err != nil {
			return err
		}
		return actor.changed(ctx, q, "invitation accepted", i.ID)
	})
}

// A SignIn is somebody signed in on a device.
type SignIn struct {
	ID     string
	User   string // id
	Name   string // of the user
	Device string
	Place  string
	At     int64
	Until  int64
}

// SignIns lists who is signed in, the newest first.
func (v View) SignIns(ctx context.Context, practice string, now int64) ([]SignIn, error) {
	rows, err := v.read.GetSignIns(ctx, sqlc.GetSignInsParams{PracticeID: practice, ExpiresAt: now})
	list := make([]SignIn, 0, len(rows))
	for _, r := range rows {
		list = append(list, SignIn{ID: r.ID, User: r.UserID, Name: r.Name, Device: r.Device, Place: r.Place, At: r.CreatedAt, Until: r.ExpiresAt})
	}
	return list, reading("the sign-ins", err)
}

// EndSignIn ends one sign-in; ErrNotFound if there is none.
func (s *Store) EndSignIn(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "ending a sign-in", func(q *sqlc.Queries) error {
		n, err := q.EndSignIn(ctx, sqlc.EndSignInParams{PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "sign-in ended", id)
	})
}

// YardOf is the yard of what a path names: a horse, a case or a session.
func (v View) YardOf(ctx context.Context, practice, kind, id string) (string, error) {
	var yard sql.NullString
	var err error
	switch kind {
	case "horses":
		yard, err = v.read.GetYardOfHorse(ctx, sqlc.GetYardOfHorseParams{PracticeID: practice, ID: id})
	case "cases":
		yard, err = v.read.GetYardOfCase(ctx, sqlc.GetYardOfCaseParams{PracticeID: practice, ID: id})
	case "sessions":
		yard, err = v.read.GetYardOfSession(ctx, sqlc.GetYardOfSessionParams{PracticeID: practice, ID: id})
	default:
		err = sql.ErrNoRows
	}
	return yard.String, reading("the yard", err)
}

// A Recorded is who changed or opened what.
type Recorded struct {
	At    int64
	Name  string // of the user
	What  string
	Horse string // name; empty: it is of no horse
}

// KeepOpened notes that a user opened a horse's pages, once a day.
func (s *Store) KeepOpened(ctx context.Context, actor Actor, horseID, day, what string) error {
	return s.write(ctx, "noting what was opened", func(q *sqlc.Queries) error {
		return q.PutOpened(ctx, sqlc.PutOpenedParams{PracticeID: actor.Practice, UserID: actor.User, HorseID: horseID, OnDate: day, What: what, At: actor.At})
	})
}

// Record lists who changed and opened what, the newest first.
func (v View) Record(ctx context.Context, practice string, most int64) ([]Recorded, error) {
	rows, err := v.read.GetRecord(ctx, sqlc.GetRecordParams{PracticeID: practice, Most: most})
	list := make([]Recorded, 0, len(rows))
	for _, r := range rows {
		list = append(list, Recorded{At: r.At, Name: r.Name, What: r.What, Horse: r.Horse})
	}
	return list, reading("the record of changes", err)
}

// helperRole is the role of a helper on their day; before and after it the account
// may do nothing.
func helperRole(role Role, day string, now time.Time, zone string) Role {
	if role != Owner || day == "" {
		return role
	}
	at, err := time.LoadLocation(zone)
	if err != nil {
		at = time.UTC
	}
	if now.In(at).Format(time.DateOnly) == day {
		return Helper
	}
	return Owner
}
