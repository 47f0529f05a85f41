package diary

import (
	"cmp"
	"slices"
	"time"

	"ivorybridge/core/phrase"
)

// A Booking is a visit, or a time that is taken otherwise, as clashes see it.
type Booking struct {
	ID     string
	Who    string   // person who does it; empty: nobody yet
	Horses []string // ids
	Yard   string   // id; empty: unknown
	Start  time.Time
	End    time.Time
	Busy   bool // not a visit: a time that is taken
}

// A Clash is two bookings that can't both be kept.
type Clash struct {
	A     string         `json:"a" doc:"id of the earlier"`
	B     string         `json:"b" doc:"id of the later"`
	Short int            `json:"short" doc:"minutes missing"`
	Says  phrase.Message `json:"says" doc:"what is wrong"`
}

// Clashes lists what can't be kept both (part 7): the same person in two places, or
// with too little time for the road between; the same horse twice at a time. Nothing
// is moved.
func Clashes(bookings []Booking, roads Roads) []Clash {
	list := []Clash{}
	sorted := slices.SortedStableFunc(slices.Values(bookings), func(a, b Booking) int {
		return cmp.Or(a.Start.Compare(b.Start), cmp.Compare(a.ID, b.ID))
	})
	for i, a := range sorted {
		for _, b := range sorted[i+1:] {
			if b.Start.Sub(a.End) > longest {
				break // those after it begin later still
			}
			if c, ok := clash(a, b, roads); ok {
				list = append(list, c)
			}
		}
	}
	return list
}

// longest is the longest drive that is looked at.
const longest = 12 * time.Hour

func clash(a, b Booking, roads Roads) (Clash, bool) {
	between := int(b.Start.Sub(a.End).Minutes())
	c := Clash{A: a.ID, B: b.ID}
	same := a.Who != "" && a.Who == b.Who
	shared := slices.ContainsFunc(a.Horses, func(h string) bool { return slices.Contains(b.Horses, h) })
	switch {
	case a.Busy && b.Busy:
		return c, false
	case same && between < 0:
		c.Short, c.Says = -between, phrase.Of("clash.person", phrase.Args{"n": -between})
		if a.Busy || b.Busy {
			c.Says = phrase.Of("clash.busy", phrase.Args{"n": -between})
		}
		return c, true
	case shared && between < 0:
		c.Short, c.Says = -between, phrase.Of("clash.horse", phrase.Args{"n": -between})
		return c, true
	case !same || a.Yard == "" || b.Yard == "":
		return c, false
	}
	drive, known := roads.Drive(a.Yard, b.Yard)
	if !known || drive <= between {
		return c, false
	}
	c.Short, c.Says = drive-between, phrase.Of("clash.road", phrase.Args{"short": drive - between, "drive": drive})
	return c, true
}
