package accounts

import (
	"context"
	"crypto/sha256"
	"fmt"
	"net/http"
	"strings"
	"time"

	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// A try with a password counts before the password is looked at. One from a device
// or a place that the user has signed in from before counts for itself alone: what
// strangers try elsewhere never holds it off. A stranger's counts for the address
// and the place together and, but for the first one from a place, for the address,
// for the place and for all strangers. The first ones have a limit of their own, so
// that one storm does not keep out somebody who comes from a new place meanwhile.
var (
	near    = limits.Limit{Burst: 6, Period: 30 * time.Second}  // one address from one place or device; changing one's own password
	account = limits.Limit{Burst: 10, Period: time.Minute}      // one address from anywhere
	place   = limits.Limit{Burst: 20, Period: 10 * time.Second} // one place, whatever the address
	all     = limits.Limit{Burst: 20, Period: time.Second}      // all strangers
	first   = limits.Limit{Burst: 1, Period: 10 * time.Minute}  // one place that was quiet
	firsts  = limits.Limit{Burst: 60, Period: time.Second}      // all such places
)

// MostHashed is how many wrong passwords of strangers are looked at in one storm,
// before time lets more through.
const MostHashed = 20 + 60

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
func (s *Service) admit(ctx context.Context, now time.Time, k knock) (counted []limits.Use, wait time.Duration, err error) {
	email := strings.ToLower(k.email)
	if k.familiar != nil {
		own := []limits.Use{near.Of("familiar", email, string(k.familiar))}
		wait, err := s.limits.Take(ctx, now, own...)
		return own, wait, err
	}
	both := near.Of("near", email, k.place)
	quiet := []limits.Use{both, first.Of("first", k.place), firsts.Of("firsts")}
	if wait, err := s.limits.Take(ctx, now, quiet...); err != nil || wait == 0 {
		return quiet, 0, err
	}
	strange := []limits.Use{both, account.Of("account", email), place.Of("place", k.place), all.Of("all")}
	wait, err = s.limits.Take(ctx, now, strange...)
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
