package track_test

import (
	"fmt"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// A wrong answer is corrected and another undone: what stands of the track has
// the correction in its original's place.
func Example() {
	rep := func(id string, at int64, a horse.Answer, replaces string) track.Entry {
		return track.Entry{ID: id, Kind: track.KindRep, At: at, Replaces: replaces, Rep: &track.Rep{Ask: horse.Ask{Step: "lead.halt"}, Answer: a}}
	}
	entries := []track.Entry{
		rep("c", 30, horse.Accepted, "a"),
		rep("a", 10, horse.Refused, ""),
		rep("b", 20, horse.Try, ""),
		{ID: "d", Kind: track.KindUndo, At: 40, Replaces: "b"},
	}
	track.Order(entries)
	for _, e := range track.Live(entries) {
		fmt.Println(e.ID, e.Rep.Answer)
	}
	// Output: a accepted
}
