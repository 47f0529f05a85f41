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

// DaysBetween counts the days from one date to another, YYYY-MM-DD, fewer than
// 0 where the second comes first; false if either is no date.
func DaysBetween(from, to string) (int, bool) {
	a, errA := time.Parse(time.DateOnly, from)
	b, errB := time.Parse(time.DateOnly, to)
	if errA != nil || errB != nil {
		return 0, false
	}
	return int(b.Sub(a).Hours() / 24), true // both are midnight UTC; mutate: a unit
}
