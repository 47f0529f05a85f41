package cases

import (
	"sort"

	"ivorybridge/core/attention"
	"ivorybridge/core/phrase"
)

// UnreadEntry is an entry that can't be read. It is left out until it is put
// right or set aside by an entry that undoes it.
type UnreadEntry struct {
	Session string         `json:"session"`
	ID      string         `json:"id"`
	Say     phrase.Message `json:"say"`
}

// Culprit is the place of the entry at which reading breaks off: the newest of
// the shortest beginning that can't be read. It is -1 where no entry is to
// blame. reads tells whether the first n entries can be read.
func Culprit(n int, reads func(n int) bool) int {
	if n == 0 || !reads(0) {
		return -1
	}
	return sort.Search(n-1, func(i int) bool { return !reads(i + 1) })
}

// MostUnread is how many entries are left out before it is the rules that are
// to blame.
const MostUnread = 8

// Left says which entries are left out of what is shown.
func (r Reading) Left() []UnreadEntry {
	list := []UnreadEntry{}
	for _, u := range r.Unread {
		list = append(list, UnreadEntry{Session: u.Session, ID: u.ID, Say: phrase.Of("unread.entry", phrase.Args{"kind": phrase.Of("kind."+u.Kind, nil), "on": phrase.Date(u.On)})})
	}
	return list
}

// LeftAtHome says which practice at home can't be read and is left out.
func (r Reading) LeftAtHome() []attention.Note {
	var notes []attention.Note
	for _, p := range r.Practised {
		if p.Broken {
			notes = append(notes, attention.Noted(1, attention.Alarm, "unread.practice", phrase.Args{"on": phrase.Date(p.On)}))
		}
	}
	return notes
}
