package arena

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

const golden = "testdata/advice.txt"

// The rules are named by their version, which sessions pin: where the advice over
// a thousand tracks changes, the version does. make golden writes it anew.
func TestAdviceChangesWithTheVersion(t *testing.T) {
	c := shipped(t)
	now := "rules " + Version + "\n"
	for seed := range uint64(1000) {
		now += said(c, seed) + "\n"
	}
	if os.Getenv("GOLDEN") != "" {
		require.NoError(t, os.WriteFile(golden, []byte(now), 0o600))
	}
	kept, err := os.ReadFile(golden)
	require.NoError(t, err)
	was, is := strings.Split(string(kept), "\n"), strings.Split(now, "\n")
	require.Len(t, is, len(was))
	changed := 0
	for i := range is[1:] {
		if is[i+1] != was[i+1] {
			changed++
		}
	}
	switch {
	case changed > 0 && was[0] == is[0]:
		t.Errorf("the advice over %d of 1000 tracks has changed: give the rules another version (arena.Version), then run make golden", changed)
	case changed > 0 || was[0] != is[0]:
		t.Errorf("%s is of another version than %s: run make golden", golden, is[0])
	}
}

// said is what is advised along one made-up track: the rule after each entry, and
// a sum of all that was said.
func said(c *catalog.Catalog, seed uint64) string {
	d := dice{rand.New(rand.NewPCG(seed, 4))}
	ladder := c.Ladders[d.IntN(len(c.Ladders))]
	in := Input{School: ladder.Schools[d.IntN(len(ladder.Schools))], Handler: "h", Horse: Horse{Young: d.one(5), BodyClear: d.one(2), FearLikely: d.one(3), GuardsItself: d.one(8)}}
	var asks []horse.Ask
	for _, s := range ladder.Steps {
		if s.Link == "" {
			asks = append(asks, s.Asks()...)
		}
	}
	for _, n := range ladder.StandsOn {
		asks = append(asks, c.AsksOf(n)...)
	}
	states := horse.StepState{}.All()
	for _, a := range asks {
		if d.one(2) {
			in.Known = append(in.Known, Known{Ask: a, State: states[d.IntN(len(states))], Soft: true, Level: horse.LevelOf(1 + d.IntN(3))})
		}
	}
	in.Ask = asks[d.IntN(len(asks))]
	r, err := Run(c, c.Rules, in)
	if err != nil {
		panic(err)
	}
	rules := []string{in.School.String()}
	sum := fnv.New64a()
	at, ask := int64(0), in.Ask
	for i := range 24 {
		at += int64(10+d.IntN(120)) * 1000
		if d.one(12) {
			ask = asks[d.IntN(len(asks))]
		}
		e := d.entry(c, ask)
		e.ID, e.At = fmt.Sprintf("%02d", i), at
		if i > 0 && d.one(20) {
			e = track.Entry{ID: e.ID, At: at, Kind: track.KindUndo, Replaces: fmt.Sprintf("%02d", d.IntN(i))}
		}
		for _, err := range r.Add(e) {
			if err != nil {
				panic(err)
			}
		}
		a := r.Advise(at)
		next := ""
		if a.Next != nil {
			next = fmt.Sprint(a.Next.Ask, " ", a.Next.Target)
			ask = a.Next.Ask
		}
		rules = append(rules, a.Rule)
		_, _ = fmt.Fprintln(sum, a.Rule, a.Action, next, a.Release, a.Rest, a.Why.Key, a.Warnings) // a hash takes all
	}
	return fmt.Sprintf("%016x %s", sum.Sum64(), strings.Join(rules, " "))
}

// dice throws for a made-up track.
type dice struct{ *rand.Rand }

func (d dice) one(of int) bool { return d.IntN(of) == 0 }

func roll[T any](d dice, list []T) T { return list[d.IntN(len(list))] }

func (d dice) entry(c *catalog.Catalog, a horse.Ask) track.Entry {
	step, _ := c.Step(a.Step)
	r := track.Rep{Ask: a, Answer: roll(d, horse.Answer{}.All()), Peak: horse.LevelOf(d.IntN(9)), Arousal: horse.ArousalOf(d.IntN(8) / 2), Release: roll(d, horse.Release{}.All()), EndedBy: roll(d, horse.EndedBy{}.All())}
	if d.one(6) {
		r.WaysOut = []horse.WayOut{roll(d, horse.WayOut{}.All())}
	}
	if d.one(6) {
		r.Signs = []horse.Sign{roll(d, horse.Sign{}.All())}
	}
	if d.one(15) {
		r.Flags = []horse.Flag{roll(d, horse.Flag{}.All())}
	}
	if len(step.Pass.Values) > 0 {
		r.Target = roll(d, step.Pass.Values)
		if reached := r.Target; d.one(2) {
			r.Reached = &reached
		}
	}
	switch d.IntN(14) {
	case 0:
		return track.Entry{Kind: track.KindMark, Mark: &track.Mark{Arousal: r.Arousal, Signs: r.Signs, WaysOut: r.WaysOut, EasyMinutes: d.IntN(4)}}
	case 1:
		return track.Entry{Kind: track.KindOffer, Offer: &track.Offer{Ask: a, Answer: roll(d, track.Offered{}.All()), Arousal: r.Arousal}}
	case 2:
		return track.Entry{Kind: track.KindSpell, Spell: &track.Spell{Ask: a, Place: roll(d, track.SpellPlace{}.All()), Rest: d.one(2), Level: r.Peak, Seconds: d.IntN(90), Came: roll(d, track.Coming{}.All()), Arousal: r.Arousal}}
	case 3:
		return track.Entry{Kind: track.KindDose, Dose: &track.Dose{Rep: r, Given: r.Target + d.IntN(4), Steps: d.IntN(3)}}
	case 4:
		return track.Entry{Kind: track.KindBurst, Burst: &track.Burst{Ask: a, Asks: 10, OnTouch: d.IntN(11), Last: r.Answer, Arousal: r.Arousal}}
	}
	return track.Entry{Kind: track.KindRep, Rep: &r}
}

// A changed rule is told from one that was only moved: the same tracks give the
// same lines, whatever ran before.
func TestTheThousandTracksAreTheSameEachTime(t *testing.T) {
	c := shipped(t)
	for seed := range uint64(20) {
		assert.Equal(t, said(c, seed), said(c, seed))
	}
	assert.NotEqual(t, said(c, 1), said(c, 2))
}
