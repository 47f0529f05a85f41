package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

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

// The roles. A helper is an account that may do something on one day, at one yard.
const (
	Helper    Role = "helper"
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
	RunsOut    int64  // when a password that somebody else set runs out, in ms; 0: never
	Active     bool
	Person     string // whose account it is, of an owner's; empty: nobody's
	Day        string // of a helper, the one day
	Yard       string // of a helper, the id of the one yard
	YardName   string // its name, in lists
}

// oneTimeFor is how long a password that somebody else set can be used.
const oneTimeFor = 7 * 24 * time.Hour

// runsOut is when a password that was set at an instant runs out.
func runsOut(mustChange bool, at int64) sql.NullInt64 {
	return sql.NullInt64{Int64: at + oneTimeFor.Milliseconds(), Valid: mustChange}
}

// AddPractice keeps a new practice.
func (s *Store) AddPractice(ctx context.Context, p Practice, now int64) error {
	return s.write(ctx, "adding a practice", func(q *sqlc.Queries) error {
		return q.InsertPractice(ctx, sqlc.InsertPracticeParams{ID: p.ID, Name: p.Name, Zone: p.Zone, Vehicle: p.Words.Vehicle, Sides: p.Words.Sides, Units: p.Words.Units, Phone: p.Phone, CreatedAt: now})
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
	return Practice{ID: p.ID, Name: p.Name, Zone: p.Zone, Words: phrase.Words{Vehicle: p.Vehicle, Sides: p.Sides, Units: p.Units}, Phone: p.Phone}
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

// PracticeNamed finds the practice of that name.
func (v View) PracticeNamed(ctx context.Context, name string) (Practice, error) {
	all, err := v.Practices(ctx)
	if err != nil {
		return Practice{}, err
	}
	for _, p := range all {
		if strings.EqualFold(p.Name, name) {
			return p, nil
		}
	}
	return Practice{}, fmt.Errorf("reading the practice: %w", ErrNotFound)
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
			PasswordHash: u.Hash, MustChange: bit(u.MustChange), OneTimeUntil: runsOut(u.MustChange, actor.At), CreatedAt: actor.At,
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
	return User{ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: Role(u.Role), Hash: u.PasswordHash, MustChange: u.MustChange == 1, RunsOut: u.OneTimeUntil.Int64, Active: u.Active == 1, Person: u.PersonID.String}
}

// Users lists the practice's users, active ones first; without their hashes.
func (v View) Users(ctx context.Context, practice string) ([]User, error) {
	rows, err := v.read.GetUsers(ctx, practice)
	users := make([]User, 0, len(rows))
	for _, u := range rows {
		users = append(users, User{ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: Role(u.Role), MustChange: u.MustChange == 1, Active: u.Active == 1, Person: u.PersonID.String, Day: u.OnDate, Yard: u.YardID, YardName: u.Yard})
	}
	return users, reading("the users", err)
}

// SetPassword changes a password and signs the user out everywhere.
func (s *Store) SetPassword(ctx context.Context, actor Actor, id, hash string, mustChange bool) error {
	return s.write(ctx, "setting a password", func(q *sqlc.Queries) error {
		n, err := q.SetPassword(ctx, sqlc.SetPasswordParams{PasswordHash: hash, MustChange: bit(mustChange), OneTimeUntil: runsOut(mustChange, actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		if err := ended(ctx, q, actor.Practice, id); err != nil {
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
			if err := ended(ctx, q, actor.Practice, id); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "user changed", id)
	})
}

// ended ends all sign-ins of a user; no device or place is familiar any more: one
// of them may be why.
func ended(ctx context.Context, q *sqlc.Queries, practice, user string) error {
	if err := q.DeleteSignInsOf(ctx, sqlc.DeleteSignInsOfParams{PracticeID: practice, UserID: user}); err != nil {
		return err
	}
	return q.DeleteFamiliarOf(ctx, sqlc.DeleteFamiliarOfParams{PracticeID: practice, UserID: user})
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

// AddSignIn keeps a sign-in by the hash of its token, makes the device and the
// place it is from familiar, and drops sign-ins that ran out long ago.
func (s *Store) AddSignIn(ctx context.Context, actor Actor, hash []byte, device, place string, expires int64, familiar ...[]byte) error {
	return s.write(ctx, "signing in", func(q *sqlc.Queries) error {
		if err := q.DeleteExpiredSignIns(ctx, actor.At-familiarFor.Milliseconds()); err != nil {
			return err
		}
		if err := q.DeleteOldFamiliar(ctx, actor.At-familiarFor.Milliseconds()); err != nil {
			return err
		}
		for _, m := range familiar {
			if err := q.PutFamiliar(ctx, sqlc.PutFamiliarParams{PracticeID: actor.Practice, UserID: actor.User, Mark: m, LastAt: actor.At}); err != nil {
				return err
			}
		}
		return q.InsertSignIn(ctx, sqlc.InsertSignInParams{TokenHash: hash, PracticeID: actor.Practice, UserID: actor.User, Device: device, CreatedAt: actor.At, ExpiresAt: expires, ID: uuid.NewString(), Place: place})
	})
}

// RanOut reports whether a token's sign-in has run out, and was not ended.
func (v View) RanOut(ctx context.Context, hash []byte, now int64) (bool, error) {
	n, err := v.read.CountRunOut(ctx, sqlc.CountRunOutParams{TokenHash: hash, ExpiresAt: now})
	return n > 0, reading("the sign-in", err)
}

// SignedIn finds the active user behind a token's hash, and the practice;
// ErrNotFound if there is none or it has run out.
func (v View) SignedIn(ctx context.Context, hash []byte, now int64) (User, Practice, error) {
	u, err := v.read.GetSignedIn(ctx, sqlc.GetSignedInParams{TokenHash: hash, ExpiresAt: now})
	role := helperRole(Role(u.Role), u.HelpsOn, time.UnixMilli(now), u.Practice.Zone)
	return User{
			ID: u.ID, Practice: u.PracticeID, Name: u.Name, Email: u.Email, Role: role, MustChange: u.MustChange == 1, Active: true,
			Person: u.PersonID.String, Day: u.HelpsOn, Yard: u.HelpsAt,
		},
		practice(u.Practice),
		reading("the sign-in", err)
}

// SignOut ends one sign-in.
func (s *Store) SignOut(ctx context.Context, hash []byte) error {
	return s.write(ctx, "signing out", func(q *sqlc.Queries) error { return q.DeleteSignIn(ctx, hash) })
}

// SignOutEverywhere ends all sign-ins of a user.
func (s *Store) SignOutEverywhere(ctx context.Context, actor Actor) error {
	return s.write(ctx, "signing out everywhere", func(q *sqlc.Queries) error {
		return ended(ctx, q, actor.Practice, actor.User)
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
