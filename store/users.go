package store

import (
	"context"
	"errors"
	"fmt"

	"ivorybridge/core/phrase"
	"ivorybridge/store/sqlc"
)

// A Practice is one business; all else belongs to one.
type Practice struct {
	ID    string
	Name  string
	Zone  string // IANA time zone
	Words phrase.Words
	Phone string // the number that owners call; may be empty
}

// Role of a user.
type Role string

// The three roles. Owners have no screens yet.
const (
	Lead      Role = "lead trainer"
	Assistant Role = "assistant"
	Owner     Role = "owner"
)

// A User is one person's sign-in in one practice.
type User struct {
	ID         string
	Practice   string
	Name       string
	Email      string
	Role       Role
	Hash       string // of the password
	MustChange bool   // a password somebody else set
	Active     bool
}

// AddPractice keeps a new practice.
func (s *Store) AddPractice(ctx context.Context, p Practice, now int64) error {
	return s.write(ctx, "adding a practice", func(q *sqlc.Queries) error {
		return q.InsertPractice(ctx, sqlc.InsertPracticeParams{ID: p.ID, Name: p.Name, Zone: p.Zone, Vehicle: p.Words.Vehicle, Sides: p.Words.Sides, Phone: p.Phone, CreatedAt: now})
	})
}

// SetPhone changes the number that owners call.
func (s *Store) SetPhone(ctx context.Context, actor Actor, phone string) error {
	return s.write(ctx, "changing the practice's number", func(q *sqlc.Queries) error {
		if err := q.UpdatePracticePhone(ctx, sqlc.UpdatePracticePhoneParams{Phone: phone, ID: actor.Practice}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "number changed", actor.Practice)
	})
}

func practice(p sqlc.Practice) Practice {
	return Practice{ID: p.ID, Name: p.Name, Zone: p.Zone, Words: phrase.Words{Vehicle: p.Vehicle, Sides: p.Sides}, Phone: p.Phone}
}

// Practice reads a practice.
func (v View) Practice(ctx context.Context, id string) (Practice, error) {
	p, err := v.read.GetPractice(ctx, id)
	return practice(p), reading("the practice", err)
}

// FirstPractice reads the oldest practice; ErrNotFound in an empty database.
func (v View) FirstPractice(ctx context.Context) (Practice, error) {
	p, err := v.read.GetFirstPractice(ctx)
	return practice(p), reading("the practice", err)
}

// Practices lists the practices, the oldest first.
func (v View) Practices(ctx context.Context) ([]Practice, error) {
	rows, err := v.read.GetPractices(ctx)
	list := make([]Practice, 0, len(rows))
	for _, p := range rows {
		list = append(list, practice(sqlc.Practice(p)))
	}
	return list, reading("the practices", err)
}

// AddUser keeps a new user; ErrTaken if the address has a sign-in already.
func (s *Store) AddUser(ctx context.Context, actor Actor, u User) error {
	return s.write(ctx, "adding a user", func(q *sqlc.Queries) error {
		err := q.InsertUser(ctx, sqlc.InsertUserParams{
			ID: u.ID, PracticeID: actor.Practice, Name: u.Name, Email: u.Email, Role: string(u.Role),
			PasswordHash: u.Hash, MustChange: bit(u.MustChange), CreatedAt: actor.At,
		})
		if err != nil {
			return err
		}
		return actor.changed(ctx, q, "user added", u.ID)
	})
}

func bit(b bool) int64 {
	if b {
		return 1
	}
	return 0
}

// UserByEmail finds a sign-in by its address, in whatever practice.
func (v View) UserByEmail(ctx context.Context, email string) (User, error) {
	u, err := v.read.GetUserByEmail(ctx, email)
	return user(sqlc.GetUserRow(u)), reading("the user", err)
}

// User reads a user of a practice.
func (v View) User(ctx context.Context, practice, id string) (User, error) {
	u, err := v.read.GetUser(ctx, sqlc.GetUserParams{PracticeID: practice, ID: id})
	return user(u), reading("the user", err)
}

func user(u sqlc.GetUserRow) User {
	return User{ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: Role(u.Role), Hash: u.PasswordHash, MustChange: u.MustChange == 1, Active: u.Active == 1}
}

// Users lists the practice's users, active ones first; without their hashes.
func (v View) Users(ctx context.Context, practice string) ([]User, error) {
	rows, err := v.read.GetUsers(ctx, practice)
	users := make([]User, 0, len(rows))
	for _, u := range rows {
		users = append(users, User{ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: Role(u.Role), MustChange: u.MustChange == 1, Active: u.Active == 1})
	}
	return users, reading("the users", err)
}

// SetPassword changes a password and signs the user out everywhere.
func (s *Store) SetPassword(ctx context.Context, actor Actor, id, hash string, mustChange bool) error {
	return s.write(ctx, "setting a password", func(q *sqlc.Queries) error {
		n, err := q.SetPassword(ctx, sqlc.SetPasswordParams{PasswordHash: hash, MustChange: bit(mustChange), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		if err := q.DeleteSignInsOf(ctx, sqlc.DeleteSignInsOfParams{PracticeID: actor.Practice, UserID: id}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "password set", id)
	})
}

// SetActive lets a user in or keeps a user out, who is then signed out
// everywhere; ErrLastLead for the last lead trainer.
func (s *Store) SetActive(ctx context.Context, actor Actor, id string, active bool) error {
	return s.write(ctx, "changing a user", func(q *sqlc.Queries) error {
		n, err := q.SetUserActive(ctx, sqlc.SetUserActiveParams{Active: bit(active), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		if !active {
			if err := q.DeleteSignInsOf(ctx, sqlc.DeleteSignInsOfParams{PracticeID: actor.Practice, UserID: id}); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "user changed", id)
	})
}

// errNoRow is a change that found no row, apart from a reference to something
// that is not there.
var errNoRow = fmt.Errorf("no such row: %w", ErrNotFound)

func one(n int64, err error) error {
	if err == nil && n == 0 {
		return errNoRow
	}
	return err
}

// AddSignIn keeps a sign-in by the hash of its token and drops those that have
// run out.
func (s *Store) AddSignIn(ctx context.Context, actor Actor, hash []byte, device string, expires int64) error {
	return s.write(ctx, "signing in", func(q *sqlc.Queries) error {
		if err := q.DeleteExpiredSignIns(ctx, actor.At); err != nil {
			return err
		}
		return q.InsertSignIn(ctx, sqlc.InsertSignInParams{TokenHash: hash, PracticeID: actor.Practice, UserID: actor.User, Device: device, CreatedAt: actor.At, ExpiresAt: expires})
	})
}

// SignedIn finds the active user behind a token's hash, and the practice;
// ErrNotFound if there is none or it has run out.
func (v View) SignedIn(ctx context.Context, hash []byte, now int64) (User, Practice, error) {
	u, err := v.read.GetSignedIn(ctx, sqlc.GetSignedInParams{TokenHash: hash, ExpiresAt: now})
	return User{ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: Role(u.Role), MustChange: u.MustChange == 1, Active: true},
		Practice{ID: u.PracticeID, Name: u.PracticeName, Zone: u.Zone, Words: phrase.Words{Vehicle: u.Vehicle, Sides: u.Sides}, Phone: u.Phone},
		reading("the sign-in", err)
}

// SignOut ends one sign-in.
func (s *Store) SignOut(ctx context.Context, hash []byte) error {
	return s.write(ctx, "signing out", func(q *sqlc.Queries) error { return q.DeleteSignIn(ctx, hash) })
}

// SignOutEverywhere ends all sign-ins of a user.
func (s *Store) SignOutEverywhere(ctx context.Context, actor Actor) error {
	return s.write(ctx, "signing out everywhere", func(q *sqlc.Queries) error {
		return q.DeleteSignInsOf(ctx, sqlc.DeleteSignInsOfParams{PracticeID: actor.Practice, UserID: actor.User})
	})
}

// Empty reports whether nobody has been set up yet.
func (s *Store) Empty(ctx context.Context) (bool, error) {
	_, err := s.FirstPractice(ctx)
	if errors.Is(err, ErrNotFound) {
		return true, nil
	}
	return false, err
}
