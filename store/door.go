package store

import (
	"context"
	"time"

	"ivorybridge/store/sqlc"
)

// What happens at the door.
const (
	SignedInAtDoor      = "signed in"
	WrongPassword       = "wrong password"
	HeldOff             = "held off" // too many wrong passwords: not even looked at
	KeptOut             = "kept out" // the right password of a user who is not let in any more
	PasswordChanged     = "password changed"
	EverywhereSignedOut = "signed out everywhere"
	RefusedOrigin       = "refused origin"
	RefusedHost         = "refused host"
)

// AtDoor is something that happened at the door, once or some times within a
// minute.
type AtDoor struct {
	Practice string // empty: no account that is known here
	User     string
	Name     string // of the user
	At       int64
	LastAt   int64
	Times    int64
	What     string
	Said     string // address of the account; the origin or the host that was refused
	Place    string // network address
	Device   string
}

// The list at the door goes back so far, and is so long at most.
const (
	doorLasts  = 90 * 24 * time.Hour
	mostAtDoor = 20_000
)

// KeepAtDoor notes what happened at the door. The same again within a minute is
// counted.
func (s *Store) KeepAtDoor(ctx context.Context, list []AtDoor) error {
	return s.write(ctx, "noting what happened at the door", func(q *sqlc.Queries) error {
		for _, d := range list {
			n, err := q.CountAtDoor(ctx, sqlc.CountAtDoorParams{
				Now: d.At, Since: d.At - time.Minute.Milliseconds(), What: d.What, Said: d.Said, Place: d.Place, PracticeID: null(d.Practice),
			})
			if err != nil {
				return err
			}
			if n > 0 {
				continue
			}
			if err := q.InsertAtDoor(ctx, sqlc.InsertAtDoorParams{
				PracticeID: null(d.Practice), UserID: null(d.User), At: d.At, LastAt: d.At, What: d.What, Said: d.Said, Place: d.Place, Device: d.Device,
			}); err != nil {
				return err
			}
			if err := q.DeleteOldAtDoor(ctx, d.At-doorLasts.Milliseconds()); err != nil {
				return err
			}
		}
		return q.DeleteManyAtDoor(ctx, mostAtDoor)
	})
}

// Door lists what happened at a practice's door, the newest first; what concerns
// no account that is known here stands in every practice's list.
func (v View) Door(ctx context.Context, practice string, most int64) ([]AtDoor, error) {
	rows, err := v.read.GetDoor(ctx, sqlc.GetDoorParams{PracticeID: null(practice), Limit: most})
	list := make([]AtDoor, 0, len(rows))
	for _, r := range rows {
		d := AtDoor{Name: r.Name, At: r.At, LastAt: r.LastAt, Times: r.Times, What: r.What, Said: r.Said, Place: r.Place, Device: r.Device}
		if !r.Unknown {
			d.Practice = practice
		}
		list = append(list, d)
	}
	return list, reading("what happened at the door", err)
}

// A Limit is how far a limit is used up: it is whole again at an instant, in ms.
type Limit struct {
	Key    []byte // 32 bytes
	FullAt int64
}

// Limits reads the limits that are not whole at an instant.
func (v View) Limits(ctx context.Context, now int64) ([]Limit, error) {
	rows, err := v.read.GetLimits(ctx, now)
	list := make([]Limit, 0, len(rows))
	for _, r := range rows {
		list = append(list, Limit(r))
	}
	return list, reading("the limits", err)
}

// KeepLimits keeps how far limits are used up, and drops those that are whole.
func (s *Store) KeepLimits(ctx context.Context, now int64, list ...Limit) error {
	return s.write(ctx, "keeping the limits", func(q *sqlc.Queries) error {
		if err := q.DeleteOldLimits(ctx, now); err != nil {
			return err
		}
		for _, l := range list {
			if err := q.PutLimit(ctx, sqlc.PutLimitParams(l)); err != nil {
				return err
			}
		}
		return nil
	})
}

// familiarFor is how long a device or a place stays familiar.
const familiarFor = 90 * 24 * time.Hour

// Familiar tells by which of these marks, each 32 bytes that tell a device or a
// place, a user has signed in before; nil: by none.
func (v View) Familiar(ctx context.Context, practice, user string, now int64, marks ...[]byte) ([]byte, error) {
	for _, m := range marks {
		n, err := v.read.CountFamiliar(ctx, sqlc.CountFamiliarParams{PracticeID: practice, UserID: user, Mark: m, LastAt: now - familiarFor.Milliseconds()})
		if err != nil {
			return nil, reading("the familiar devices", err)
		}
		if n > 0 {
			return m, nil
		}
	}
	return nil, nil
}
