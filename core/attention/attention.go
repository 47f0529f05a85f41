// Package attention says what of a case wants attention, and how soon (part 8):
// the notes in the margin of the caseload.
package attention

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
)

// A Note is something that wants attention (part 8). The lower the rank, the
// sooner.
type Note struct {
	Rank int            `json:"rank" doc:"1 first"`
	Say  phrase.Message `json:"say"`
}

// Urgency puts a case in its place in the caseload: what wants attention first,
// and what is finished last.
func Urgency(finished bool, notes []Note) int {
	switch {
	case finished:
		return leastUrgent
	case len(notes) == 0:
		return unpressed
	}
	return notes[0].Rank
}

// The places of cases that want nothing, and of those that are finished; every
// note ranks before them.
const (
	unpressed   = 50
	leastUrgent = 100
)

// How long is too long (days): nothing logged, and a date close by.
const (
	quietDays = 14
	nearDays  = 21
)

// Facts are what is looked at.
type Facts struct {
	Today     string
	Finished  bool
	NeededBy  string      // empty: there is no date
	Assessed  bool        // an assessment is there
	Baseline  bool        // the problem itself was asked once
	Newest    history.Day // the newest session; zero: there was none
	DaysOff   int         // since any logged work; -1: never
	Referrals []assess.Referral
	Rechecks  []assess.Recheck
	Bridge    progress.Bridge
	Plan      plan.Glance
}

// Of lists what wants attention, the most pressing first. A finished case wants
// none.
func Of(f Facts) []Note {
	notes := []Note{}
	if f.Finished {
		return notes
	}
	add := func(rank int, key string, args phrase.Args) {
		notes = append(notes, Note{Rank: rank, Say: phrase.Of("attention."+key, args)})
	}
	if events := f.Newest.Dangers(); len(events) > 0 {
		add(1, "incident", phrase.Args{"what": kinds(events), "on": phrase.Date(f.Newest.On)})
	}
	for _, r := range f.Referrals {
		if r.Done {
			continue
		}
		add(2, "referral", phrase.Args{"who": r.Who, "what": r.Why})
	}
	for _, r := range f.Rechecks {
		if len(r.Found) == 0 && r.Due <= f.Today {
			notes = append(notes, Note{Rank: 2, Say: r.Reads})
		}
	}
	if !f.Assessed {
		add(3, "not_assessed", nil)
	}
	if names := names(f.Bridge, horse.Slipped); len(names) > 0 {
		add(4, "slipped", phrase.Args{"steps": names})
	}
	if f.NeededBy != "" {
		switch left, _ := horse.DaysBetween(f.Today, f.NeededBy); {
		case left < 0:
			add(5, "date_passed", phrase.Args{"date": phrase.Date(f.NeededBy)})
		case f.Plan.Doubtful() && f.Assessed: // of a horse never assessed it says too little
			add(5, "forecast", phrase.Args{"date": phrase.Date(f.Plan.By), "p": int(100*f.Plan.Done + 0.5), "word": plan.WordFor(f.Plan.Done)})
		case left <= nearDays:
			add(5, "date_near", phrase.Args{"n": left, "met": f.Bridge.Met, "of": len(f.Bridge.Planks)})
		}
	}
	if f.Assessed && f.DaysOff < 0 {
		add(6, "not_begun", nil)
	}
	if f.DaysOff >= quietDays {
		add(6, "quiet", phrase.Args{"n": f.DaysOff})
	}
	if f.Assessed && !f.Baseline {
		add(7, "no_baseline", nil)
	}
	return notes
}

func kinds(events []assess.Event) []string {
	var list []string
	for _, e := range events {
		if !slices.Contains(list, e.Kind.String()) {
			list = append(list, e.Kind.String())
		}
	}
	return list
}

// names lists the planks and piers of a state.
func names(b progress.Bridge, state horse.StepState) []string {
	var list []string
	for _, p := range slices.Concat(b.Planks, b.Piers) {
		if p.State == state {
			list = append(list, p.Name)
		}
	}
	return list
}
