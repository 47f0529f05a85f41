package copies

import (
	"slices"
	"time"
)

// Kept says how many copies stay.
type Kept struct {
	Days   int // one of each of the last days
	Weeks  int // one of each of the last weeks, from Monday
	Months int // one of each of the last months
}

// Shipped is how many stay where nothing else is said.
var Shipped = Kept{Days: 7, Weeks: 4, Months: 12}

// Stays lists which of the copies made at these moments stay: of each of the last days,
// weeks and months that have one the newest, today's counted. The newest of all always stays.
func (k Kept) Stays(made []time.Time) []time.Time {
	made = slices.SortedFunc(slices.Values(made), func(a, b time.Time) int { return b.Compare(a) })
	stays := map[time.Time]bool{}
	if len(made) > 0 {
		stays[made[0]] = true
	}
	for _, span := range []struct {
		most int
		of   func(time.Time) string
	}{
		{k.Days, func(t time.Time) string { return t.Format(time.DateOnly) }},
		{k.Weeks, func(t time.Time) string {
			return t.AddDate(0, 0, -(int(t.Weekday())+6)%7).Format(time.DateOnly)
		}},
		{k.Months, func(t time.Time) string { return t.Format("2006-01") }},
	} {
		seen := map[string]bool{}
		for _, t := range made {
			if name := span.of(t); !seen[name] && len(seen) < span.most {
				seen[name] = true
				stays[t] = true
			}
		}
	}
	return slices.DeleteFunc(made, func(t time.Time) bool { return !stays[t] })
}
