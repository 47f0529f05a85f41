package assess

import (
	"fmt"

	"ivorybridge/core/horse"
)

// Graded tells what the grade of care was on the days that a horse was worked.
// Assessments stand oldest first; the first also counts for days before it.
type Graded struct {
	Record      Record
	Assessments []Assessment
	On          []string   // the day of each assessment
	Floor       horse.Care // the ladder's least care
	Narrow      bool       // the ladder works in a narrow place
}

// A WorkedDay is a day with the dangerous things that were logged on it.
type WorkedDay struct {
	On     string
	Events []EventKind
}

// newest is the day number of the newest event of each kind, by rank.
type newest [eventsKnown + 1]int

const (
	eventsKnown = 10
	never       = -1 << 40
)

func (n *newest) add(k EventKind, day int, ok bool) {
	if ok {
		n[k.Rank()] = max(n[k.Rank()], day)
	}
}

// Over gives the grade of care on each of some days, the oldest first, as RiskOf
// gives it for one of them with all that was logged up to it.
func (g Graded) Over(days []WorkedDay) ([]SessionRisk, error) {
	var logged newest
	for i := range logged {
		logged[i] = never
	}
	standing, seen := g.standing(), g.seen()
	list := make([]SessionRisk, 0, len(days))
	for _, d := range days {
		day, ok := horse.DayNumber(d.On)
		if !ok {
			return nil, fmt.Errorf("%q is not a date: write it as year-month-day", d.On)
		}
		for _, k := range d.Events {
			logged.add(k, day, true)
		}
		at, events := 0, logged
		for i, on := range g.On {
			if i > 0 && on > d.On {
				continue
			}
			at = i
			for _, e := range seen[i] {
				n, ok := horse.DayNumber(e.On)
				events.add(e.Kind, n, ok)
			}
		}
		if len(g.Assessments) > 0 {
			for _, e := range g.Assessments[at].Events {
				n, ok := horse.DayNumber(e.On)
				events.add(e.Kind, n, ok)
			}
		}
		list = append(list, SessionRisk{Care: g.care(standing[at], events, day, d.On), Event: len(d.Events) > 0})
	}
	return list, nil
}

// standing is what each assessment says that does not depend on the day.
func (g Graded) standing() []Risk {
	all := make([]Risk, max(len(g.Assessments), 1))
	for i := range all {
		in := RiskInput{Record: g.Record, Narrow: g.Narrow, Floor: g.Floor}
		if i < len(g.Assessments) {
			in.Assessment = g.Assessments[i]
		}
		all[i] = in.standing("")
	}
	return all
}

// seen lists what each assessment saw.
func (g Graded) seen() [][]Event {
	all := make([][]Event, len(g.Assessments))
	var before Assessment
	for i, a := range g.Assessments {
		all[i], before = a.Seen(before, g.On[i]), a
	}
	return all
}

func (g Graded) care(standing Risk, events newest, day int, on string) horse.Care {
	points, floor := standing.Points, standing.Care
	for _, k := range (EventKind{}).All() {
		weight, lasts := Event{Kind: k}.weighs()
		if events[k.Rank()] == never || lasts > 0 && day-events[k.Rank()] > lasts {
			continue
		}
		points += weight
		floor = max2(floor, leastCare(k))
	}
	points += g.Record.risesOn(on)
	return max2(grade(points), floor)
}
