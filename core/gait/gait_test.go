package gait

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/phrase"
)

// made are the taps of a gait: the fore feet land so far after the hind feet of their
// side, the off hind so far after the near one, in strides of so many seconds.
func made(strides int, length, near, off, hinds float64) Taps {
	var t Taps
	for i := range strides + 1 {
		at := 10 + float64(i)*length
		t.Landings = append(t.Landings,
			Landing{NearHind, at}, Landing{NearFore, at + near*length}, Landing{OffHind, at + hinds*length}, Landing{OffFore, at + (hinds+off)*length})
	}
	return t
}

func timed(t *testing.T, taps Taps) Result {
	t.Helper()
	r, err := Time(taps)
	require.NoError(t, err)
	return r
}

// Each class of part 3, on both sides of each of its borders.
func TestTheClasses(t *testing.T) {
	for _, c := range []struct {
		fraction float64
		class    Class
	}{
		{-0.051, CheckTheTaps}, {-0.05, Pace}, {-0.02, Pace}, {0, Pace}, {0.049, Pace}, {0.05, SteppingPace}, {0.199, SteppingPace},
		{0.20, Walk}, {0.25, Walk}, {0.299, Walk}, {0.30, Diagonal}, {0.449, Diagonal}, {0.45, Trot}, {0.50, Trot}, {0.55, Trot}, {0.551, CheckTheTaps}, {0.75, CheckTheTaps},
	} {
		r := timed(t, made(5, 1.1, c.fraction, c.fraction, 0.5))
		assert.Equal(t, c.class, r.Class, "%.3f", c.fraction)
		require.NotNil(t, r.Fraction)
		assert.InDelta(t, wrapped(c.fraction), *r.Fraction, 1e-6, "%.3f", c.fraction)
		assert.Nil(t, r.Vet)
		assert.NotEqual(t, r.Says.Key, phrase.English(phrase.Shipped).Say(r.Says))
		assert.NotEqual(t, r.How.Key, phrase.English(phrase.Shipped).Say(*r.How))
	}
}

func TestHindFeetOfASymmetricalGait(t *testing.T) {
	for hinds, class := range map[float64]Class{0.39: NotSymmetrical, 0.40: Walk, 0.5: Walk, 0.60: Walk, 0.61: NotSymmetrical, 0.1: NotSymmetrical} {
		assert.Equal(t, class, timed(t, made(5, 1, 0.25, 0.25, hinds)).Class, "%.2f", hinds)
	}
}

// More than 0.06 between the sides is uneven, whatever the class.
func TestUneven(t *testing.T) {
	for off, vet := range map[float64]bool{0.25: false, 0.31: false, 0.312: true, 0.19: false, 0.188: true} {
		r := timed(t, made(5, 1, 0.25, off, 0.5))
		assert.Equal(t, vet, r.Vet != nil, "%.3f", off)
		assert.InDelta(t, math.Abs(off-0.25), *r.Apart, 1e-6)
	}
	r := timed(t, made(5, 1, -0.03, 0.04, 0.5))
	assert.InDelta(t, 0.07, *r.Apart, 1e-6, "the shorter way round")
	assert.Equal(t, "Uneven from side to side: have a vet look.", phrase.English(phrase.Shipped).Say(*r.Vet))
}

// Three full strides of each hind foot: four landings. What is missing is named.
func TestNotEnoughStrides(t *testing.T) {
	r := timed(t, made(3, 1, 0.25, 0.25, 0.5))
	assert.Equal(t, Walk, r.Class)
	for name, c := range map[string]struct {
		taps Taps
		says string
	}{
		"two strides":       {made(2, 1, 0.25, 0.25, 0.5), "Not enough strides: one more of the near hind and one more of the off hind."},
		"nothing":           {Taps{}, "Not enough strides: three more of the near hind and three more of the off hind."},
		"one off hind less": {Taps{Landings: made(3, 1, 0.25, 0.25, 0.5).Landings[:14]}, "Not enough strides: one more of the off hind."},
	} {
		r := timed(t, c.taps)
		assert.True(t, r.Class.IsZero(), name)
		assert.Equal(t, c.says, phrase.English(phrase.Words{Sides: "near and off"}).Say(r.Says), name)
	}
	noFore := made(5, 1, 0.25, 0.25, 0.5)
	for i := range noFore.Landings {
		if noFore.Landings[i].Hoof == OffFore {
			noFore.Landings[i].Hoof = NearFore
		}
	}
	assert.Equal(t, CheckTheTaps, timed(t, noFore).Class, "a side without a fore foot")
}

// A clip that was filmed slowed down has its steps a minute at true speed.
func TestSteps(t *testing.T) {
	taps := made(5, 1.2, 0.25, 0.25, 0.5)
	assert.InDelta(t, 200, timed(t, taps).Steps, 1e-6, "fifty strides a minute, four steps each")
	taps.Speed = 0.25
	assert.InDelta(t, 800, timed(t, taps).Steps, 1e-6)
	taps.Speed = 1
	assert.InDelta(t, 200, timed(t, taps).Steps, 1e-6)
}

// A hind foot that was not tapped makes one stride of two: it is marked, and the others
// carry the answer.
func TestATapThatWasMissed(t *testing.T) {
	taps := made(6, 1, 0.25, 0.25, 0.5)
	taps.Landings = append(taps.Landings[:12:12], taps.Landings[13:]...) // the fourth of the near hind
	r := timed(t, taps)
	assert.Equal(t, []Landing{{NearHind, 14}}, r.Odd)
	assert.Equal(t, Walk, r.Class)
	assert.Empty(t, timed(t, made(6, 1, 0.25, 0.25, 0.5)).Odd)
	assert.Equal(t, []Share{{Walk, 10}, {SteppingPace, 1}, {CheckTheTaps, 1}}, r.Shares, "both fore feet of the long stride")
}

func TestWrongTaps(t *testing.T) {
	many := make([]Landing, MostLandings+1)
	for i := range many {
		many[i] = Landing{NearHind, 1}
	}
	for want, taps := range map[string]Taps{
		"the speed of a clip":   {Speed: -1},
		"landing 1 names no":    {Landings: []Landing{{At: 1}}},
		"landing 1 is at no":    {Landings: []Landing{{NearHind, math.NaN()}}},
		"2001 landings are too": {Landings: many},
		"between 0 and 8 times": {Speed: 8.1},
	} {
		_, err := Time(taps)
		require.ErrorContains(t, err, want)
	}
	_, err := Time(Taps{Speed: 8, Landings: many[1:]})
	require.NoError(t, err)
}

func TestTheCircularMedian(t *testing.T) {
	for _, c := range []struct {
		list []float64
		want float64
	}{
		{[]float64{0.98, 0.02}, 0}, {[]float64{0.98, 0.99, 0.01}, -0.01}, {[]float64{0.2, 0.3, 0.4}, 0.3}, {[]float64{0.2, 0.3}, 0.25}, {[]float64{0.9}, 0.9}, {[]float64{0.96}, -0.04},
	} {
		got, ok := Median(c.list)
		require.True(t, ok)
		assert.InDelta(t, c.want, got, 1e-6, "%v", c.list)
	}
	for _, list := range [][]float64{nil, {0, 0.5}, {0, 0.25, 0.5, 0.75}} {
		_, ok := Median(list)
		assert.False(t, ok, "%v has no middle", list)
	}
}

// The answer is the same however late the tapping begins, in whatever order the taps are
// given, and at whatever speed the horse goes; seen from the other side, the sides change.
func TestWhatTheAnswerDoesNotDependOn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		// A fore foot that lands with its hind foot is in this stride or the one before by a
		// hair, and the first of all in none: no answer hangs on that, but the count does.
		fraction := rapid.Float64Range(-0.04, 0.54).Filter(func(x float64) bool {
			const hair = 1e-9
			return math.Abs(x) > hair && math.Abs(x+0.01) > hair
		}).Draw(t, "fraction")
		taps := made(rapid.IntRange(3, 9).Draw(t, "strides"), 1, fraction, fraction+0.01, 0.5)
		base, err := Time(taps)
		require.NoError(t, err)
		scale, shift := rapid.Float64Range(0.4, 3).Draw(t, "scale"), rapid.Float64Range(0, 100).Draw(t, "shift")
		moved := Taps{}
		for _, i := range rapid.Permutation(indexes(len(taps.Landings))).Draw(t, "order") {
			l := taps.Landings[i]
			moved.Landings = append(moved.Landings, Landing{l.Hoof, l.At*scale + shift})
		}
		r, err := Time(moved)
		require.NoError(t, err)
		assert.InDelta(t, *base.Fraction, *r.Fraction, 1e-6)
		assert.InDelta(t, *base.Near, *r.Near, 1e-6)
		assert.Len(t, r.Strides, len(base.Strides))
	})
}

func indexes(n int) []int {
	list := make([]int, n)
	for i := range list {
		list[i] = i
	}
	return list
}

// Ten thousand gaits, tapped by a hand that is up to 15 ms early or late: 99 of a hundred
// and more are classed as they were made, if made 0.02 and more from a border.
func TestTenThousandTappedGaits(t *testing.T) {
	rnd := rand.New(rand.NewPCG(3, 166))
	borders := []float64{paceFrom, steppingFrom, walkFrom, diagonalFrom, trotFrom, trotTo}
	right, n := 0, 0
	for n < 10_000 {
		fraction := paceFrom + rnd.Float64()*(trotTo-paceFrom)
		clear := true
		for _, b := range borders {
			clear = clear && math.Abs(fraction-b) >= 0.02
		}
		if !clear {
			continue
		}
		n++
		taps := made(4+rnd.IntN(8), 0.7+rnd.Float64()*0.7, fraction, fraction, 0.46+rnd.Float64()*0.08)
		for i := range taps.Landings {
			taps.Landings[i].At += (rnd.Float64()*2 - 1) * 0.015
		}
		r, err := Time(taps)
		require.NoError(t, err)
		if r.Class == classOf(fraction) {
			right++
		}
	}
	assert.GreaterOrEqual(t, right, 9_900)
}

func BenchmarkTime(b *testing.B) {
	taps := made(400, 1.1, 0.25, 0.25, 0.5)
	for b.Loop() {
		_, _ = Time(taps)
	}
}

func ExampleTime() {
	var taps Taps
	for i := range 4 {
		at := float64(i)
		taps.Landings = append(taps.Landings, Landing{NearHind, at}, Landing{NearFore, at + 0.25}, Landing{OffHind, at + 0.5}, Landing{OffFore, at + 0.75})
	}
	r, err := Time(taps)
	fmt.Println(phrase.English(phrase.Shipped).Say(r.Says), r.Steps, err)
	// Output: It walks. Four even beats. 240 <nil>
}
