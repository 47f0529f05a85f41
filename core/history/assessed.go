package history

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Assessed is the history with the assessments of days up to one day, which
// count as what was seen in a session does (part 3). They stand oldest first;
// those that were read are not read again. An assessment comes before the
// sessions of its day.
func (h History) Assessed(c *catalog.Catalog, all []assess.Dated, until string) History {
	for h.Assessments < len(all) && all[h.Assessments].On <= until {
		var before assess.Assessment
		if h.Assessments > 0 {
			before = all[h.Assessments-1].Doc
		}
		now := all[h.Assessments]
		h.Asks = looked(h.Asks, now.On, now.Doc.Shows(c, before))
		h.Assessments++
	}
	return h
}

func looked(had []Ask, on string, shown []assess.Shown) []Ask {
	asks := make(map[horse.Ask]Ask, len(had)+len(shown))
	for _, a := range had {
		asks[a.Ask] = a
	}
	for _, s := range shown {
		asks[s.Ask] = asks[s.Ask].looked(on, s)
	}
	return sorted(asks)
}

// looked is an ask after an assessment looked at it. For what was met or kept it
// counts as a later day: accepted again at the pass level, it is kept, refused it
// has slipped, and anything else, or on video, leaves it as it was.
func (a Ask) looked(on string, s assess.Shown) Ask {
	a = a.morning(on, nil)
	a.Ask = s.Ask
	if s.Source == horse.Told {
		if a.State.IsZero() || a.State == horse.Untried {
			a.State, a.Source, a.Assessed = horse.Untried, s.Source, on
		}
		return a
	}
	passed := a.Passed()
	later := a.Last < on
	state := a.State
	switch {
	case passed && later && s.Source == horse.Seen && s.State == horse.Met:
		state = horse.Kept
	case passed && later && s.Source == horse.Seen && s.Refused:
		state = horse.Slipped
	case !passed && (s.State == horse.Met || s.State.Rank() > a.State.Rank()):
		state = s.State
	}
	if state != a.State || a.Source == horse.Told {
		a.State, a.Source, a.Assessed = state, s.Source, on
	}
	switch {
	case s.Understood:
		a.Fair, a.Understood, a.Concluded = []bool{true, true}, true, false
	case s.Refused:
		a.Fair = append(slices.Clip(a.Fair), false)
		a.Fair = a.Fair[max(len(a.Fair)-3, 0):]
		a.Understood = arena.Understood(a.Fair)
	}
	if s.State == horse.Met {
		if s.Level.Noted() && (!a.Level.Noted() || s.Level.Int() < a.Level.Int()) {
			a.Level = s.Level
		}
		a.Soft = true
	}
	if s.Source == horse.Seen {
		a.Good = s.Good
	}
	a.Last, a.Today = on, &Today{Passed: passed}
	return a
}
