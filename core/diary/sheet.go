package diary

import (
	"cmp"
	"slices"
)

// A Stop is a visit as a day's driving sees it. Times are minutes since the day's
// midnight.
type Stop struct {
	Visit   string // id
	Yard    string // id; empty: at the base
	Minutes int    // how long it takes
	Fixed   bool   // it begins at a time that was agreed
	At      int    // when, if it is fixed
}

// A Sheet is a day's visits in driving order (part 7).
type Sheet struct {
	Legs    []Leg `json:"legs" doc:"in driving order"`
	Driving int   `json:"driving" doc:"minutes on the road, the way home included"`
	Late    int   `json:"late,omitempty" doc:"minutes, over all fixed times that can't be kept"`
	Back    int   `json:"back" doc:"minutes since midnight at which the day is home"`
	Home    int   `json:"home" doc:"minutes of the way home"`
	Guessed bool  `json:"guessed,omitempty" doc:"a drive of which nothing is known is counted as half an hour"`
	Proven  bool  `json:"proven" doc:"there is no better order; beyond nine visits it is a good one only"`
}

// A Leg is the way to one stop, and the stop. Times are minutes since midnight.
type Leg struct {
	Visit string `json:"visit" doc:"id"`
	Leave int    `json:"leave" doc:"when to leave for it"`
	Drive int    `json:"drive" doc:"minutes of the way"`
	Start int    `json:"start" doc:"when it begins"`
	Spare int    `json:"spare" doc:"minutes between arriving and beginning"`
	Late  int    `json:"late,omitempty" doc:"minutes after its fixed time"`
	End   int    `json:"end" doc:"when it is over"`
	Known bool   `json:"known" doc:"the drive is known, not counted as half an hour"`
}

// mostExact is up to how many visits every order is tried.
const mostExact = 9

// spareAtFirst is how early one is at a day's first fixed time, in minutes.
const spareAtFirst = 5

// Run puts a day's visits, in the order entered, into the order in which driving is
// least and fixed times are kept, from the base at begins and back. Where no order
// keeps all fixed times, it is the one with the least lateness. Of equal ones the one
// that is home first, then the one nearest to the order entered.
func Run(base string, begins int, stops []Stop, roads Roads) Sheet {
	s := search{base: base, begins: begins, stops: stops, roads: newTable(base, stops, roads)}
	proven := len(stops) <= mostExact
	if proven {
		s.all(nil, make([]bool, len(stops)), state{at: begins})
	} else {
		s.good()
	}
	sheet := s.told(s.best)
	sheet.Proven = proven
	return sheet
}

// Kept is the sheet of an order that the trainer chose.
func Kept(base string, begins int, stops []Stop, roads Roads) Sheet {
	s := search{base: base, begins: begins, stops: stops, roads: newTable(base, stops, roads)}
	order := make([]int, len(stops))
	for i := range order {
		order[i] = i
	}
	return s.told(order)
}

// A table has the drive between any two stops; the last place is the base.
type table struct {
	minutes [][]int
	known   [][]bool
}

func newTable(base string, stops []Stop, roads Roads) table {
	places := make([]string, 0, len(stops)+1)
	for _, s := range stops {
		places = append(places, cmp.Or(s.Yard, base))
	}
	places = append(places, base)
	t := table{}
	for _, a := range places {
		minutes, known := make([]int, len(places)), make([]bool, len(places))
		for j, b := range places {
			minutes[j], known[j] = roads.Drive(a, b)
		}
		t.minutes, t.known = append(t.minutes, minutes), append(t.known, known)
	}
	return t
}

// search looks for the best order.
type search struct {
	base   string
	begins int
	stops  []Stop
	roads  table
	best   []int
	cost   cost
}

// state is where a day stands after some stops.
type state struct{ at, late, driving int }

// cost is what an order is judged by, in this order.
type cost struct{ late, driving, back int }

func (c cost) compare(o cost) int {
	return cmp.Or(cmp.Compare(c.late, o.late), cmp.Compare(c.driving, o.driving), cmp.Compare(c.back, o.back))
}

// next is the state after one more stop, driven to from another place.
func (s *search) next(now state, from, to int) state {
	drive, stop := s.roads.minutes[from][to], s.stops[to]
	start := now.at + drive
	if stop.Fixed {
		now.late += max(start-stop.At, 0)
		start = max(start, stop.At)
	}
	return state{at: start + stop.Minutes, late: now.late, driving: now.driving + drive}
}

// home is the whole cost, with the way back from the last stop.
func (s *search) home(now state, last int) cost {
	drive := s.roads.minutes[last][len(s.stops)]
	return cost{late: now.late, driving: now.driving + drive, back: now.at + drive}
}

// all tries every order, nearest to the one entered first; what is already worse than
// the best is not followed.
func (s *search) all(order []int, used []bool, now state) {
	last := len(s.stops)
	if len(order) > 0 {
		last = order[len(order)-1]
	}
	if len(order) == len(s.stops) {
		if c := s.home(now, last); s.best == nil || c.compare(s.cost) < 0 {
			s.best, s.cost = slices.Clone(order), c
		}
		return
	}
	if s.best != nil && (cost{now.late, now.driving, now.at}).compare(s.cost) > 0 {
		return
	}
	for i := range s.stops {
		if !used[i] {
			used[i] = true
			s.all(append(order, i), used, s.next(now, last, i))
			used[i] = false
		}
	}
}

// good builds an order by putting each visit where it costs least, then moves single
// visits as long as that is better.
func (s *search) good() {
	for i := range s.stops {
		s.best, s.cost = s.inserted(s.best, i)
	}
	for better := true; better; {
		better = false
		for i := range s.stops {
			rest := slices.DeleteFunc(slices.Clone(s.best), func(x int) bool { return x == i })
			if order, c := s.inserted(rest, i); c.compare(s.cost) < 0 {
				s.best, s.cost, better = order, c, true
			}
		}
	}
}

// inserted is an order with one more visit, where it costs least.
func (s *search) inserted(order []int, visit int) (best []int, least cost) {
	for at := range len(order) + 1 {
		one := slices.Insert(slices.Clone(order), at, visit)
		if c := s.costOf(one); best == nil || c.compare(least) < 0 {
			best, least = one, c
		}
	}
	return best, least
}

func (s *search) costOf(order []int) cost {
	now, last := state{at: s.begins}, len(s.stops)
	for _, i := range order {
		now, last = s.next(now, last, i), i
	}
	return s.home(now, last)
}

// told is an order with its times. One leaves as soon as the visit before is over, but
// no earlier than a first fixed time asks.
func (s *search) told(order []int) Sheet {
	sheet := Sheet{Legs: []Leg{}, Back: s.begins}
	at, last := s.begins, len(s.stops)
	for n, i := range order {
		stop, drive := s.stops[i], s.roads.minutes[last][i]
		if n == 0 && stop.Fixed {
			at = max(at, stop.At-drive-spareAtFirst)
		}
		leg := Leg{Visit: stop.Visit, Leave: at, Drive: drive, Start: at + drive, Known: s.roads.known[last][i]}
		if stop.Fixed {
			leg.Late, leg.Spare = max(leg.Start-stop.At, 0), max(stop.At-leg.Start, 0)
			leg.Start += leg.Spare
		}
		leg.End = leg.Start + stop.Minutes
		sheet.Legs = append(sheet.Legs, leg)
		sheet.Late, sheet.Driving, sheet.Guessed = sheet.Late+leg.Late, sheet.Driving+drive, sheet.Guessed || !leg.Known
		at, last = leg.End, i
	}
	if len(order) > 0 {
		sheet.Home = s.roads.minutes[last][len(s.stops)]
		sheet.Guessed = sheet.Guessed || !s.roads.known[last][len(s.stops)]
		sheet.Driving, sheet.Back = sheet.Driving+sheet.Home, at+sheet.Home
	}
	return sheet
}
