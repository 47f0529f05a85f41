package assess

import (
	"maps"
	"slices"

	"ivorybridge/core/horse"
)

// WaysSeen are the sections in which a way out can be tapped, beside the
// baseline of a problem (part 3).
var WaysSeen = []string{"C", "D", "F"}

// dangersOf lists the dangerous ways out that a section saw, each once: those of
// E stand with the problems.
func (a Assessment) dangersOf(section string) []horse.WayOut {
	var ways []horse.WayOut
	if section == "E" {
		for _, account := range a.Problems {
			ways = append(ways, account.Baseline.WaysOut...)
		}
	} else {
		ways = a.Ways[section]
	}
	return slices.DeleteFunc(slices.Clone(ways), func(w horse.WayOut) bool { return !horse.Dangerous(w) })
}

// Seen lists the events that an assessment saw on its day: the dangerous ways
// out tapped in C, D, E and F whose source is seen in person, each kind once,
// but for those that stood in the assessment it was begun from. What was told
// or shown on video is an event of its own date, written down under A.
func (a Assessment) Seen(before Assessment, on string) []Event {
	var events []Event
	for _, section := range slices.Concat([]string{"E"}, WaysSeen) {
		if a.SourceIn(section) != horse.Seen {
			continue
		}
		carried := before.dangersOf(section)
		for _, w := range a.dangersOf(section) {
			kind, ok := EventOf(w)
			e := Event{Kind: kind, On: on}
			if ok && !slices.Contains(carried, w) && !slices.Contains(events, e) {
				events = append(events, e)
			}
		}
	}
	return events
}

// undated lists the kinds of events that were tapped in a section whose source
// is told or video, and are not written down with their day.
func (a Assessment) undated() map[string][]EventKind {
	written := map[EventKind]bool{}
	for _, e := range a.Events {
		written[e.Kind] = e.On != ""
	}
	list := map[string][]EventKind{}
	for _, section := range slices.Concat([]string{"E"}, WaysSeen) {
		if a.SourceIn(section) == horse.Seen {
			continue
		}
		for _, w := range a.dangersOf(section) {
			if k, ok := EventOf(w); ok && !written[k] && !slices.Contains(list[section], k) {
				list[section] = append(list[section], k)
			}
		}
	}
	return list
}

// events are those written down, those seen, and those that came before.
func (a Assessment) events(seen []Event) []Event {
	all := slices.Collect(maps.Values(a.Events))
	return append(all, seen...)
}

var wentOver = func() EventKind { k, _ := EventOf(horse.WentOver); return k }()

// InHandOnly reports whether the horse has ever gone over backwards: nobody
// gets on, for good (parts 3 and 9).
func InHandOnly(a Assessment, logged []Event) bool {
	went := func(e Event) bool { return e.Kind == wentOver }
	if slices.ContainsFunc(a.events(logged), went) {
		return true
	}
	for _, section := range slices.Concat([]string{"E"}, WaysSeen) {
		if slices.Contains(a.dangersOf(section), horse.WentOver) {
			return true // whenever it was, and whoever said so
		}
	}
	return false
}
