package arena

import (
	"slices"

	"ivorybridge/core/horse"
)

// line is how calm the horse is, and what it has been over: a danger, a moment
// over the line, a warning look (rules 2, 3 and 8).
type line struct {
	arousal   int
	arousalBy int   // arousal before the last rep
	overSince int64 // of the first entry at 3 since it was back at 1; none: it is not over
	waitSince int64 // since nothing was to be asked; none: something may be
	warned    bool  // a warning look, and nothing soft since
	warnedOn  bool  // something was on as it looked

	dangers, overs int
	afoot          bool                // it was dangerous ridden: the rest of the session is in hand
	overAt         map[horse.Ask][]int // n of the entries at arousal 3
	bad            *bad                // what is not over yet
}

// bad is a danger or an "over the line" that is not over yet.
type bad struct {
	danger bool
	noted  bool // how it is was noted since
	since  int64
	from   horse.Ask
	target int
	whole  bool // a whole step down, for the rest of the session
	onEasy bool
	ridden bool
	fear   bool // a sign of fear was seen
}

func (l *line) clone() line {
	c := *l
	c.overAt = make(map[horse.Ask][]int, len(l.overAt))
	for a, n := range l.overAt {
		c.overAt[a] = slices.Clip(n)
	}
	if l.bad != nil {
		b := *l.bad
		c.bad = &b
	}
	return c
}

// felt notes arousal, filled in or tapped.
func (l *line) felt(level int, now int64) {
	l.arousal = level
	switch {
	case level <= 1:
		l.overSince, l.waitSince = none, none
	case level >= 3 && l.overSince < 0:
		l.overSince = now
	}
}

// How long what is to bring a horse down may take, in minutes (rule 3).
const (
	minutesTo2 = 10
	minutesTo1 = 20
)

// lasts reports whether a horse has been over the line, or something has had to
// be waited for, too long (rule 3).
func (l *line) lasts(now int64) (int, bool) {
	since := l.overSince
	if since < 0 {
		since = l.waitSince
	}
	minutes := float64(now-since) / minute
	switch {
	case since < 0:
		return 0, false
	case minutes >= minutesTo1 && l.arousal >= 2:
		return minutesTo1, true
	case minutes >= minutesTo2 && l.arousal >= 3:
		return minutesTo2, true
	}
	return 0, false
}

// gaze notes a warning look; a soft sign, or a later answer without one, is its
// end. on tells whether something was on as it looked.
func (l *line) gaze(signs []horse.Sign, on, guards bool) {
	switch looks := slices.Contains(signs, horse.WarningLook); {
	case slices.ContainsFunc(signs, horse.SoftSign):
		l.warned = false // what is on softened it
	case looks && !guards:
		l.warned, l.warnedOn = true, on
	case on:
		l.warned = false
	}
}

// overTheLine takes in a moment at arousal 3, at the nth counted rep of its ask.
func (l *line) overTheLine(b bad, n int) {
	l.overs++
	seen := append(l.overAt[b.from], n)
	l.overAt[b.from] = seen
	if k := len(seen); k > 1 && seen[k-1]-seen[k-2] < closeTogether {
		b.whole = true
	}
	l.bad = &b
}

// closeTogether is within how many entries of an ask a second arousal 3 means a
// whole step lower.
const closeTogether = 4
