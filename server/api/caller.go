package api

import (
	"context"
	"time"

	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// Access says who may call an operation.
type Access int

// Each may do what those before it may, but for the owners' side, which is apart.
const (
	Anybody    Access = iota // no sign-in
	Newcomer                 // signed in, perhaps with a password that must be changed
	Helpers                  // staff, and a helper on the one day at the one yard
	Staff                    // lead trainers and assistants
	LeadsOnly                // lead trainers
	OwnersSide               // whoever has a private link, or an owner's account
)

// Caller is who called, in which practice, and when.
type Caller struct {
	store.User
	Home store.Practice // the practice itself
	Book phrase.Book
	Now  time.Time
	View store.View // what is kept; within one answer a snapshot

	Linked store.Link // what a private link opens; of an owner's account the person
}

// Actor is the caller as the one who changes something.
func (c Caller) Actor() store.Actor {
	return store.Actor{Practice: c.Practice, User: c.ID, At: c.Now.UnixMilli()}
}

// Today is the practice's date, YYYY-MM-DD.
func (c Caller) Today() string {
	zone, err := time.LoadLocation(c.Home.Zone)
	if err != nil {
		zone = time.UTC
	}
	return c.Now.In(zone).Format(time.DateOnly)
}

// CallerOf is who called; of an operation for anybody, nobody.
func CallerOf(ctx context.Context) Caller {
	c, _ := ctx.Value(callerKey{}).(Caller)
	return c
}

// AtOneMoment gives the caller a view of all as it is at one moment.
func (c Caller) AtOneMoment(ctx context.Context, f func(Caller) error) error {
	return c.View.Snapshot(ctx, func(v store.View) error {
		c.View = v
		return f(c)
	})
}

// Clip is a text of so many letters at most.
func Clip(text string, n int) string {
	runes := []rune(text)
	return string(runes[:min(n, len(runes))])
}
