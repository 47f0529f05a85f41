package history

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

const golden = "testdata/histories.txt"

// What is kept of past sessions is named by the version that made it: where the
// folds of two hundred made-up horses change, the version does. make golden writes
// it anew.
func TestHistoriesChangeWithTheVersion(t *testing.T) {
	c := shipped(t)
	now := "histories " + Version + "\n"
	for seed := range uint64(200) {
		text, err := json.Marshal(Fold(c, Beside{}, past(c, seed)))
		require.NoError(t, err)
		sum := fnv.New64a()
		_, _ = sum.Write(text) // a hash takes all
		now += fmt.Sprintf("%016x %d\n", sum.Sum64(), len(text))
	}
	if os.Getenv("GOLDEN") != "" {
		require.NoError(t, os.WriteFile(golden, []byte(now), 0o600))
	}
	kept, err := os.ReadFile(golden)
	require.NoError(t, err)
	was, is := strings.SplitN(string(kept), "\n", 2), strings.SplitN(now, "\n", 2)
	switch {
	case was[1] != is[1] && was[0] == is[0]:
		t.Error("what the sessions come to has changed: give the folds another version (history.Version), then run make golden")
	case was[0] != is[0] || was[1] != is[1]:
		t.Errorf("%s is of another version than %s: run make golden", golden, is[0])
	}
}

// past makes up a horse's sessions.
func past(c *catalog.Catalog, seed uint64) []track.Day {
	d := rand.New(rand.NewPCG(seed, 6))
	ladder := c.Ladders[d.IntN(len(c.Ladders))]
	var asks []horse.Ask
	for _, s := range ladder.Steps[:min(len(ladder.Steps), 4)] {
		if s.Link == "" {
			asks = append(asks, s.Asks()...)
		}
	}
	var days []track.Day
	on, at := 0, int64(0)
	for n := range 2 + d.IntN(6) {
		on += d.IntN(4)
		day := track.Day{ID: fmt.Sprint(n), Date: fmt.Sprintf("2026-%02d-%02d", 1+on/28, 1+on%28), Started: at, Handler: "wren"}
		for i := range 6 + d.IntN(20) {
			at += 20_000 + d.Int64N(40_000)
			r := track.Rep{
				Ask: asks[d.IntN(len(asks))], Answer: horse.Answer{}.All()[d.IntN(5)], Peak: horse.LevelOf(d.IntN(8)), Arousal: horse.ArousalOf(d.IntN(5) / 2),
				Release: horse.Release{}.All()[d.IntN(len(horse.Release{}.All()))], Handler: []string{"", "", "ines"}[d.IntN(3)],
			}
			if step, _ := c.Step(r.Step); len(step.Pass.Values) > 0 {
				r.Target = step.Last()
				r.Reached = &r.Target
			}
			if d.IntN(12) == 0 {
				r.WaysOut = []horse.WayOut{horse.WayOut{}.All()[d.IntN(len(horse.WayOut{}.All()))]}
			}
			day.Track = append(day.Track, track.Entry{ID: fmt.Sprint(n, "-", i), Kind: track.KindRep, At: at, Rep: &r})
		}
		if d.IntN(5) > 0 {
			day.Track = append(day.Track, track.Entry{ID: fmt.Sprint(n, "-end"), Kind: track.KindEnd, At: at})
		}
		days = append(days, day)
	}
	return days
}
