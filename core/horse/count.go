package horse

import (
	"slices"
	"time"
)

// Median is the middle of some numbers, or half-way between the two in the
// middle; 0 of none. The list stays as it is.
func Median(of []float64) float64 {
	n := len(of)
	if n == 0 {
		return 0
	}
	v := slices.Sorted(slices.Values(of))
	return (v[(n-1)/2] + v[n/2]) / 2
}

// DayNumber counts the days of a date, YYYY-MM-DD, from 1970; false if it is none.
func DayNumber(date string) (int, bool) {
	at, err := time.Parse(time.DateOnly, date)
	if err != nil {
		return 0, false
	}
	return int(at.Unix() / (24 * 60 * 60)), true // midnight UTC; mutate: a unit
}

// DaysBetween counts the days from one date to another, YYYY-MM-DD, fewer than
// 0 where the second comes first; false if either is no date.
func DaysBetween(from, to string) (int, bool) {
	a, okA := DayNumber(from)
	b, okB := DayNumber(to)
	if !okA || !okB {
		return 0, false
	}
	return b - a, true
}

// DayAfter is the date so many days after another, YYYY-MM-DD; what is no date stays
// as it is.
func DayAfter(day string, days int) string {
	from, err := time.Parse(time.DateOnly, day)
	if err != nil {
		return day
	}
	return from.AddDate(0, 0, days).Format(time.DateOnly)
}

// Weekday is that of a date, YYYY-MM-DD; of what is no date it is Thursday.
func Weekday(date string) time.Weekday {
	n, _ := DayNumber(date)
	return time.Unix(int64(n)*24*60*60, 0).UTC().Weekday()
}
