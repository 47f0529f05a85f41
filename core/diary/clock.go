// Package diary is when the work is done (part 7): which day is proposed for the
// next visit, what clashes, in which order a day's visits are driven, and the rounds
// of a trainer who travels. It knows no clock: today, and where the sun stands, are
// given to it.
package diary

import (
	"fmt"
	"strconv"
	"strings"
	"time"
)

// Clock is a time of day as a clock on the wall shows it, in minutes after midnight,
// 0 to 1439.
type Clock int

// MinutesOfDay is how many a clock has.
const MinutesOfDay = 24 * 60

// String is 08:40.
func (c Clock) String() string { return fmt.Sprintf("%02d:%02d", int(c)/60, int(c)%60) }

// ParseClock reads 8:40 or 08:40.
func ParseClock(text string) (Clock, error) {
	h, m, found := strings.Cut(strings.TrimSpace(text), ":")
	hour, hourErr := strconv.Atoi(h)
	minute, minuteErr := strconv.Atoi(m)
	if !found || hourErr != nil || minuteErr != nil || len(m) != 2 || hour < 0 || hour > 23 || minute < 0 || minute > 59 {
		return 0, fmt.Errorf("%q is not a time: write it as 08:40", text)
	}
	return Clock(60*hour + minute), nil
}

// A GapError is a time that no clock shows on that day, since the clocks go forward.
type GapError struct {
	On   string // date
	At   Clock
	Then Clock // the next time that there is
}

func (e *GapError) Error() string {
	return fmt.Sprintf("there is no %s on %s: the clocks go forward. The next time is %s", e.At, e.On, e.Then)
}

// Instant is when a clock in that place shows that time on that day. Where it shows it
// twice, as the clocks go back, it is the first. A *GapError where it never does.
func Instant(on string, at Clock, in *time.Location) (time.Time, error) {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		return time.Time{}, fmt.Errorf("%q is not a date: write it as 2026-05-01", on)
	}
	y, m, d := day.Date()
	t := time.Date(y, m, d, int(at)/60, int(at)%60, 0, 0, in)
	start, end := t.ZoneBounds()
	if wall(t) != at {
		change := start
		if !end.IsZero() && end.Sub(t) < t.Sub(start) {
			change = end
		}
		return time.Time{}, &GapError{On: on, At: at, Then: wall(change.In(in))}
	}
	if !start.IsZero() {
		_, now := t.Zone()
		_, before := start.Add(-time.Second).In(in).Zone()
		if earlier := t.Add(-time.Duration(before-now) * time.Second); earlier.Before(start) {
			return earlier, nil
		}
	}
	return t, nil
}

// wall is what a clock on the wall shows.
func wall(t time.Time) Clock { return Clock(60*t.Hour() + t.Minute()) }

// Hours is how long a day is there: 24, or 23 and 25 where the clocks change.
func Hours(on string, in *time.Location) float64 {
	day, err := time.Parse(time.DateOnly, on)
	if err != nil {
		return 24
	}
	y, m, d := day.Date()
	return time.Date(y, m, d+1, 0, 0, 0, 0, in).Sub(time.Date(y, m, d, 0, 0, 0, 0, in)).Hours()
}
