package history

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/track"
)

// Used are the own ladders that a plan brought into use.
type Used struct {
	Since   int64            `json:"since" doc:"ms; a session begun later is worked by them"`
	Ladders []catalog.Ladder `json:"ladders" doc:"the practice's own ladders"`
}

// Beside is what a horse's sessions are read beside: the own ladders of its plans,
// and its assessments. Both stand oldest first.
type Beside struct {
	Used      []Used
	Assessed  []assess.Dated
	Incidents []string // days of those written down after the fact
}

// After is the history after one more session, which is read by the ladders that
// were in use as it began.
func (h History) After(c *catalog.Catalog, b Beside, d track.Day) History {
	n, _, _ := h.Read(c, b, d)
	return n
}

// Read reads one more session by the ladders that were in use as it began: the
// history after it, its reps, and what it made of the asks.
func (h History) Read(c *catalog.Catalog, b Beside, d track.Day) (History, []arena.Told, Visit) {
	at := c
	was := c
	for _, u := range b.Used {
		if u.Since > d.Started {
			break
		}
		now := with(c, u)
		if now == nil {
			continue
		}
		if h.Sessions() == 0 || u.Since > h.Started {
			d.Fresh = append(d.Fresh[:len(d.Fresh):len(d.Fresh)], catalog.Changed(was, now)...)
		}
		was, at = now, now
	}
	h = h.Assessed(at, b.Assessed, d.Date).after(b.Incidents, d.Date)
	return read(at.WithOwn(h.ownWith(d.Track)...), h, d)
}

// ownWith are the horse's own asks with those that a track brings.
func (h History) ownWith(entries []track.Entry) []catalog.OwnAsk {
	own := slices.Clip(h.Own)
	for _, o := range track.Own(entries) {
		if !slices.ContainsFunc(own, func(had catalog.OwnAsk) bool { return had.Key == o.Key }) {
			own = append(own, o)
		}
	}
	return own
}

// ownAfter are the own asks after a session; one that was taken back, and not worked,
// is none.
func (h History) ownAfter(out arena.Outcome) []catalog.OwnAsk {
	return slices.DeleteFunc(h.ownWith(out.All), func(o catalog.OwnAsk) bool {
		had := func(k catalog.OwnAsk) bool { return k.Key == o.Key }
		worked := func(t arena.Told) bool { return t.Step == o.Key }
		return !slices.ContainsFunc(h.Own, had) && !slices.ContainsFunc(track.Own(out.Live), had) && !slices.ContainsFunc(out.Reps, worked)
	})
}

// Until is the history with all assessments up to a day, by the ladders that are
// in use now.
func (h History) Until(c *catalog.Catalog, b Beside, day string) History {
	if n := len(b.Used); n > 0 {
		if now := with(c, b.Used[n-1]); now != nil {
			c = now
		}
	}
	return h.Assessed(c, b.Assessed, day).after(b.Incidents, day)
}

// after is the history with the incidents of days up to one day: every clearance
// lapses with one, and what was watched before it counts no more (part 7).
func (h History) after(days []string, until string) History {
	for h.Incidents < len(days) && days[h.Incidents] <= until {
		if day := days[h.Incidents]; day >= h.Danger {
			h.Danger = day
			h.Hands = slices.Clone(h.Hands)
			for i := range h.Hands {
				h.Hands[i].Run, h.Hands[i].Best = 0, 0
			}
		}
		h.Incidents++
	}
	return h
}

// Since lists the steps that are measured or passed otherwise since the newest
// session: they are at tried until they are worked again.
func (h History) Since(c *catalog.Catalog, used []Used) []string {
	n := len(used)
	if n == 0 || h.Sessions() > 0 && used[n-1].Since <= h.Started {
		return nil
	}
	was := c
	for _, u := range used[:n-1] {
		if before := with(c, u); h.Sessions() > 0 && u.Since <= h.Started && before != nil {
			was = before
		}
	}
	now := with(c, used[n-1])
	if now == nil {
		return nil
	}
	return catalog.Changed(was, now)
}

// with is the catalogue with own ladders; nil where they don't go together.
func with(c *catalog.Catalog, u Used) *catalog.Catalog {
	if len(u.Ladders) == 0 {
		return c
	}
	fitted, err := c.Fit(catalog.Fitting{Own: u.Ladders})
	if err != nil {
		return nil
	}
	return fitted
}
