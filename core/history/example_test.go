package history_test

import (
	"fmt"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Two sessions on two days, folded one after the other: backing is met on the
// first and kept on the second.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	session := func(date string, n int) track.Day {
		d := track.Day{Date: date, Handler: "wren"}
		for i := range n {
			r := track.Rep{Ask: horse.Ask{Step: "lead.halt"}, Answer: horse.Accepted, Peak: horse.LevelOf(2), Arousal: horse.ArousalOf(1)}
			d.Track = append(d.Track, track.Entry{ID: fmt.Sprint(date, i), Kind: track.KindRep, At: int64(i) * 30_000, Rep: &r})
		}
		return d
	}
	var h history.History
	for _, d := range []track.Day{session("2026-06-01", 3), session("2026-06-03", 2)} {
		h = h.After(c, history.Beside{}, d)
		fmt.Println(h.LastWorked(), h.Known(c)[0].State)
	}
	// Output:
	// 2026-06-01 met
	// 2026-06-03 kept
}
