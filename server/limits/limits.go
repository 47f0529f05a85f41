// Package limits counts tries and says how long the next one has to wait. What is
// used up is kept, so that a restart forgives nothing.
package limits

import (
	"context"
	"crypto/sha256"
	"errors"
	"strings"
	"sync"
	"time"

	"ivorybridge/store"
)

// A Limit lets so many tries through at once, and one more after each period.
type Limit struct {
	Burst  int64
	Period time.Duration
}

// A Use is one try counted on one limit.
type Use struct {
	Limit
	key [sha256.Size]byte
}

// Of is a use of the limit by what the parts name.
func (l Limit) Of(what string, parts ...string) Use {
	return Use{l, sha256.Sum256([]byte(strings.Join(append([]string{what}, parts...), "\n")))}
}

// Limits knows of each limit that is used up at all when it is whole again, in ms.
// They are kept, so that a restart forgives nothing.
type Limits struct {
	mu    sync.Mutex
	full  map[[sha256.Size]byte]int64 // nil: not read yet
	store *store.Store
}

// New keeps limits in a store.
func New(s *store.Store) *Limits { return &Limits{store: s} }

// Take counts one try on each of the limits, or on none: then it tells how long
// to wait.
func (l *Limits) Take(ctx context.Context, now time.Time, uses ...Use) (wait time.Duration, err error) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if err := l.read(ctx, now.UnixMilli()); err != nil {
		return 0, err
	}
	list := make([]store.Limit, len(uses))
	for i, u := range uses {
		period := u.Period.Milliseconds()
		most := now.UnixMilli() + u.Burst*period
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

// GiveBack takes back the count of a try that was right.
func (l *Limits) GiveBack(ctx context.Context, now time.Time, uses ...Use) error {
	l.mu.Lock()
	defer l.mu.Unlock()
	list := make([]store.Limit, len(uses))
	for i, u := range uses {
		list[i] = store.Limit{Key: u.key[:], FullAt: l.full[u.key] - u.Period.Milliseconds()}
	}
	return l.keep(ctx, now.UnixMilli(), list)
}

func (l *Limits) keep(ctx context.Context, now int64, list []store.Limit) error {
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

func (l *Limits) read(ctx context.Context, now int64) error {
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

// Find looks for what a token opens. A place that tried too many that open nothing is
// answered as if there were nothing, whatever it brings: with store.ErrNotFound. What is
// found counts as no try.
func Find[T any](ctx context.Context, l *Limits, now time.Time, count Use, look func() (T, error)) (T, error) {
	var none T
	wait, err := l.Take(ctx, now, count)
	if err != nil {
		return none, err
	}
	found, err := look()
	switch {
	case err != nil && !errors.Is(err, store.ErrNotFound):
		return none, err
	case err != nil || wait > 0:
		return none, store.ErrNotFound
	}
	return found, l.GiveBack(ctx, now, count)
}
