package server

import (
	"context"
	"errors"
	"fmt"
	"runtime/debug"
	"sort"

	"ivorybridge/core/attention"
	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// UnreadEntry is an entry that can't be read. It is left out until it is put
// right or set aside by an entry that undoes it.
type UnreadEntry struct {
	Session string         `json:"session"`
	ID      string         `json:"id"`
	Say     phrase.Message `json:"say"`
}

// A brokenError says that the rules broke off over what was kept.
type brokenError struct {
	what  any
	stack []byte
}

func (e *brokenError) Error() string {
	return fmt.Sprintf("the rules broke off: %v\n%s", e.what, e.stack)
}

// guarded turns a panic into an error, so that one record that the rules can't
// read takes nothing else down.
func guarded(f func() error) (err error) {
	defer func() {
		if what := recover(); what != nil {
			err = &brokenError{what, debug.Stack()}
		}
	}()
	return f()
}

// culprit is the place of the entry at which reading breaks off: the newest of
// the shortest beginning that can't be read. It is -1 where no entry is to
// blame. reads tells whether the first n entries can be read.
func culprit(n int, reads func(n int) bool) int {
	if n == 0 || !reads(0) {
		return -1
	}
	return sort.Search(n-1, func(i int) bool { return !reads(i + 1) })
}

// mostUnread is how many entries are left out before it is the rules that are
// to blame.
const mostUnread = 8

func isBroken(err error) bool { return errors.As(err, new(*brokenError)) }

// left says which entries are left out of what is shown.
func (r reading) left() []UnreadEntry {
	list := []UnreadEntry{}
	for _, u := range r.unread {
		list = append(list, UnreadEntry{Session: u.Session, ID: u.ID, Say: phrase.Of("unread.entry", phrase.Args{"kind": phrase.Of("kind."+u.Kind, nil), "on": phrase.Date(u.On)})})
	}
	return list
}

// unreadRow is the caseload's row of a horse that can't be read: its name, and
// that all of it is kept.
func (s *Server) unreadRow(ctx context.Context, h store.Horse, kase store.Case, err error) Row {
	s.Log.ErrorContext(ctx, "a horse can't be read", "horse", h.ID, "error", err.Error())
	row := Row{ID: h.ID, Name: h.Name, Yard: h.Yard.Name, Owners: []string{}, Case: viewCase(kase), Unread: true, Attention: []attention.Note{{Rank: 1, Say: phrase.Of("unread.horse", nil)}}}
	for _, o := range h.Owners {
		row.Owners = append(row.Owners, o.Name)
	}
	return row
}
