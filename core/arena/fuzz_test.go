package arena

import (
	"encoding/json"
	"testing"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Whatever text is sent as an entry: it is refused with a reason, or can be
// read, advised on and told in every school.
func FuzzEntry(f *testing.F) {
	c := shipped(f)
	s := on("load.gap going left").reps("accepted@3 refused@4", way(horse.Reared), tries(20, 5, 9)).spell("at the door", true, 35, 0)
	s.offers("left").doses("4/9/2").mark(1000, track.Mark{Stop: stop("pain"), Signs: []horse.Sign{horse.WarningLook}})
	burst(s, 10, 8).add(track.Entry{Kind: track.KindInterruption, Interruption: &track.Interruption{Behaviour: horse.TurnedAway}}).end()
	for _, e := range s.track {
		text, err := json.Marshal(e)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(text)
	}
	before := on("load.gap going left").reps("accepted@3 tolerated@4").track
	f.Fuzz(func(t *testing.T, text []byte) {
		var e track.Entry
		if json.Unmarshal(text, &e) != nil || e.Check(c) != nil {
			return
		}
		for _, school := range (horse.School{}).All() {
			in := Input{School: school, Ask: ask("load.gap going left"), Track: before}
			r, err := Run(c, c.Rules, in)
			if err != nil {
				t.Fatal(err)
			}
			r.Add(e)
			if a := r.Advise(max(e.At, 0)); a.Action.IsZero() || a.Why.Key == "" {
				t.Errorf("no advice in %s after %s", school, text)
			}
			r.Review()
		}
		ReadDay(c, track.Day{Date: "2026-06-02", Track: append(before, e)}, nil, nil)
	})
}

// Whatever is sent as readiness, the gate gives its reasons or proposes a step.
func FuzzReadiness(f *testing.F) {
	c := shipped(f)
	for _, r := range []Readiness{
		{Arousal: horse.ArousalOf(3), Handler: horse.Calm, Tack: true, Body: true, Asked: ask("load.front")},
		{Stop: stop("heat"), Settled: NotInFive, NoPen: true, Weather: "hail"},
	} {
		text, err := json.Marshal(r)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		var r Readiness
		if json.Unmarshal(text, &r) != nil {
			return
		}
		g, at := Brief{Ladder: "load", Worked: "2026-05-01"}.Gate(c, "2026-06-01", r, true)
		if !g.May && (len(g.Reasons) == 0 || !at.IsZero()) {
			t.Errorf("closed without a reason, or with a step: %s", text)
		}
		if !at.IsZero() && !c.HasAsk(at) {
			t.Errorf("%v is no ask: %s", at, text)
		}
	})
}
