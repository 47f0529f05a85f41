package accounts

import (
	"context"
	"crypto/sha256"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"time"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// A limit lets so many tries through at once, and one more after each period.
type limit struct {
	burst  int64
	period time.Duration
}

// A try with a password counts before the password is looked at. One from a device
// or a place that the user has signed in from before counts for itself alone: what
// strangers try elsewhere never holds it off. A stranger's counts for the address
// and the place together and, but for the first one from a place, for the address,
// for the place and for all strangers. The first ones have a limit of their own, so
// that one storm does not keep out somebody who comes from a new place meanwhile.
var (
	near    = limit{6, 30 * time.Second}  // one address from one place or device; changing one's own password
	account = limit{10, time.Minute}      // one address from anywhere
	place   = limit{20, 10 * time.Second} // one place, whatever the address
	all     = limit{20, time.Second}      // all strangers
	first   = limit{1, 10 * time.Minute}  // one place that was quiet
	firsts  = limit{60, time.Second}      // all such places
)

// MostHashed is how many wrong passwords of strangers are looked at in one storm,
// before time lets more through.
const MostHashed = 20 + 60

// A use is one try counted on one limit.
type use struct {
	limit
	key [sha256.Size]byte
}

func (l limit) of(what string, parts ...string) use {
	return use{l, sha256.Sum256([]byte(strings.Join(append([]string{what}, parts...), "\n")))}
}

// limits knows of each limit that is used up at all when it is whole again, in ms.
// They are kept, so that a restart forgives nothing.
type limits struct {
	mu    sync.Mutex
	full  map[[sha256.Size]byte]int64 // nil: not read yet
	store *store.Store
}

// take counts one try on each of the limits, or on none: then it tells how long
// to wait.
func (l *limits) take(ctx context.Context, now time.Time, uses ...use) (wait time.Duration, err error) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if err := l.read(ctx, now.UnixMilli()); err != nil {
		return 0, err
	}
	list := make([]store.Limit, len(uses))
	for i, u := range uses {
		period := u.period.Milliseconds()
		most := now.UnixMilli() + u.burst*period
		if l.full[u.key] > most {
			l.full[u.key] = most // later it can only be by a clock that was set back
		}
		full := max(l.full[u.key], now.UnixMilli()) + period
		if over := full - most; over > 0 {
			wait = max(wait, time.Duration(over)*time.Millisecond)
		}
		list[i] = store.Limit{Key: u.key[:], FullAt: full}
	}
	if wait > 0 {
		return wait, nil
	}
	return 0, l.keep(ctx, now.UnixMilli(), list)
}

// giveBack takes back the count of a try that was right.
func (l *limits) giveBack(ctx context.Context, now time.Time, uses ...use) error {
	l.mu.Lock()
	defer l.mu.Unlock()
	list := make([]store.Limit, len(uses))
	for i, u := range uses {
		list[i] = store.Limit{Key: u.key[:], FullAt: l.full[u.key] - u.period.Milliseconds()}
	}
	return l.keep(ctx, now.UnixMilli(), list)
}

func (l *limits) keep(ctx context.Context, now int64, list []store.Limit) error {
	if err := l.store.KeepLimits(context.WithoutCancel(ctx), now, list...); err != nil {
		return err
	}
	for key, full := range l.full {
		if full <= now {
			delete(l.full, key)
		}
	}
	for _, one := range list {
		l.full[[sha256.Size]byte(one.Key)] = one.FullAt
	}
	return nil
}

func (l *limits) read(ctx context.Context, now int64) error {
	if l.full != nil {
		return nil
	}
	list, err := l.store.Limits(ctx, now)
	if err != nil {
		return err
	}
	l.full = map[[sha256.Size]byte]int64{}
	for _, one := range list {
		l.full[[sha256.Size]byte(one.Key)] = one.FullAt
	}
	return nil
}

// A knock is somebody at the door: who they say they are, and from where.
type knock struct {
	email, place, device string
	user                 store.User // empty: no such account
	familiar             []byte     // the mark by which the user was here before; nil: a stranger
}

// marks are what makes the caller familiar the next time.
func (k knock) marks() [][]byte {
	if k.device == "" {
		return [][]byte{mark("place", k.place)}
	}
	return [][]byte{mark("device", k.device), mark("place", k.place)}
}

func mark(what, of string) []byte {
	sum := sha256.Sum256([]byte(what + "\n" + of))
	return sum[:]
}

// admit counts a try; or says how long it has to wait. It tells what to give back
// if the password is right.
func (s *Service) admit(ctx context.Context, now time.Time, k knock) (counted []use, wait time.Duration, err error) {
	email := strings.ToLower(k.email)
	if k.familiar != nil {
		own := []use{near.of("familiar", email, string(k.familiar))}
		wait, err := s.limits.take(ctx, now, own...)
		return own, wait, err
	}
	both := near.of("near", email, k.place)
	quiet := []use{both, first.of("first", k.place), firsts.of("firsts")}
	if wait, err := s.limits.take(ctx, now, quiet...); err != nil || wait == 0 {
		return quiet, 0, err
	}
	strange := []use{both, account.of("account", email), place.of("place", k.place), all.of("all")}
	wait, err = s.limits.take(ctx, now, strange...)
	return strange, wait, err
}

// heldOff says how long to wait, and to a stranger what holds nobody off.
func heldOff(wait time.Duration, stranger bool) error {
	say := "Too many wrong passwords. Wait " + inWords(wait) + " and try again."
	if stranger {
		say += " A device you have signed in on before gets in meanwhile."
	}
	return api.NewProblem(http.StatusTooManyRequests, say)
}

// inWords is a wait as one would say it, never too short.
func inWords(wait time.Duration) string {
	seconds := int64((wait + time.Second - 1) / time.Second)
	switch {
	case seconds <= 1:
		return "a second"
	case seconds < 90:
		return fmt.Sprintf("%d seconds", seconds)
	}
	return fmt.Sprintf("%d minutes", (seconds+59)/60)
}
