package track

// clockSlack is how far a device's clock may be off before its times are
// corrected, in milliseconds.
const clockSlack = 5 * 60_000

// ClockOff is how far a device's clock is behind, in milliseconds, by when it
// says that it sent something; 0 where it did not say, or is near enough.
func ClockOff(now, sentAt int64) int64 {
	off := now - sentAt
	if sentAt == 0 || off <= clockSlack && off >= -clockSlack {
		return 0
	}
	return off
}

// LastInstant is the last time that is taken from a device, in milliseconds since
// 1970: the end of the year 2199. No clock is that wrong.
const LastInstant = 7_258_118_400_000

// How far the start of a session may lie from now, in milliseconds: where the
// device did not say when it sent it, and where it did, and kept it that long.
const (
	longestBack  = 12 * 3_600_000
	longestAhead = 3_600_000
	longestKept  = 60 * 24 * 3_600_000
)

// Began is when a session began, by the device's clock; by now, where that clock
// can't have been right. sentAt is the device's clock as it sent it; 0: it did not
// say.
func Began(now, started, sentAt int64) int64 {
	began := started + ClockOff(now, sentAt)
	switch {
	case sentAt == 0 && (now-started > longestBack || started-now > longestAhead), now-began > longestKept:
		return now
	}
	return began
}

// BeganLater reports whether a session is said to have begun after it was sent,
// which no clock explains.
func BeganLater(started, sentAt int64) bool { return sentAt > 0 && started-sentAt > clockSlack }

// Late reports whether an entry that arrived after the end of its session is one
// to be told of: an answer or a mark of its own.
func (e Entry) Late() bool {
	return e.Replaces == "" && e.Kind != KindUndo && e.Kind != KindAdvice && e.Kind != KindEnd
}
