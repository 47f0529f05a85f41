package diary

import (
	"fmt"
	"slices"
	"time"

	"ivorybridge/core/horse"
)

// A Round is when a trainer who travels comes by: a weekday, every so many weeks or
// the so-manieth of a month, with the days left out on which it is not so.
type Round struct {
	Name   string   `json:"name" maxLength:"80" doc:"for example the west round"`
	Day    int      `json:"day" minimum:"0" maximum:"6" doc:"weekday, 0 is Sunday"`
	Weeks  int      `json:"weeks,omitempty" minimum:"0" maximum:"12" doc:"every so many weeks from its first day; 0: by the month"`
	Nth    int      `json:"nth,omitempty" minimum:"-1" maximum:"4" doc:"by the month: the first to the fourth of that weekday, -1 the last"`
	From   string   `json:"from" maxLength:"10" doc:"its first day, or a day before it"`
	Until  string   `json:"until,omitempty" maxLength:"10" doc:"its last day; empty: it goes on"`
	Except []string `json:"except,omitempty" maxItems:"200" doc:"days on which it is not driven"`
	Yards  []string `json:"yards,omitempty" maxItems:"200" doc:"yards that lie on it; none: all"`
}

// Check says what is wrong with a round, or nil.
func (r Round) Check() error {
	_, from := horse.DayNumber(r.From)
	_, until := horse.DayNumber(r.Until)
	switch {
	case r.Name == "":
		return fmt.Errorf("give the round a name")
	case !from:
		return fmt.Errorf("a round needs its first day")
	case r.Until != "" && (!until || r.Until < r.From):
		return fmt.Errorf("a round's last day is not before its first")
	case (r.Weeks == 0) == (r.Nth == 0):
		return fmt.Errorf("say every how many weeks it is, or which one of the month")
	case r.Day < 0 || r.Day > 6 || r.Weeks < 0 || r.Weeks > 12 || r.Nth < -1 || r.Nth > 4:
		return fmt.Errorf("a round is on a weekday, every 1 to 12 weeks, or on the first to the fourth or the last of a month")
	}
	return nil
}

// On reports whether the round is driven on a day.
func (r Round) On(day string) bool {
	d, err := time.Parse(time.DateOnly, day)
	if err != nil || day < r.From || r.Until != "" && day > r.Until || int(d.Weekday()) != r.Day || slices.Contains(r.Except, day) {
		return false
	}
	switch {
	case r.Weeks > 0:
		first, ok := r.first()
		days, counted := horse.DaysBetween(first, day)
		return ok && counted && days%(7*r.Weeks) == 0
	case r.Nth > 0:
		return (d.Day()-1)/7 == r.Nth-1
	}
	return d.AddDate(0, 0, 7).Month() != d.Month()
}

// first is its weekday on or after the day from which it counts.
func (r Round) first() (string, bool) {
	d, err := time.Parse(time.DateOnly, r.From)
	if err != nil {
		return "", false
	}
	return d.AddDate(0, 0, (r.Day-int(d.Weekday())+7)%7).Format(time.DateOnly), true
}

// far is how many days ahead a round's next day is looked for.
const far = 400

// Next is the first of the rounds' days on or after a day that lead to a yard; false:
// none does in a year.
func Next(rounds []Round, yard, day string) (string, Round, bool) {
	for n := range far {
		on := horse.DayAfter(day, n)
		for _, r := range rounds {
			if (len(r.Yards) == 0 || slices.Contains(r.Yards, yard)) && r.On(on) {
				return on, r, true
			}
		}
	}
	return "", Round{}, false
}
