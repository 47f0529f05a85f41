package trend_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"ivorybridge/core/trend"
)

func row(ys ...float64) []trend.Point {
	points := make([]trend.Point, len(ys))
	for i, y := range ys {
		points[i] = trend.Point{X: i + 1, Y: y}
	}
	return points
}

// Slopes counted by hand: of 5, 4, 3, 2 all six are −1; S has the variance 8.67, so C
// is 4.84 and the interval reaches from the first to the sixth.
func TestTheIntervalByHand(t *testing.T) {
	tr := trend.OfLevels(row(5, 4, 3, 2))
	assert.Equal(t, []any{-1.0, -1.0, -1.0, trend.Less}, []any{tr.Slope, tr.Low, tr.High, tr.Word})
	assert.InDelta(t, 5, tr.From, 1e-9)
	assert.InDelta(t, 2, tr.To, 1e-9)

	// Sorted −2, −1, −1, −0.67, 0, 0; with two pairs of ties S has the variance 6.67, and
	// the ranks are round(0.88) = 1 and round(6.12) = 6.
	tr = trend.OfLevels(row(5, 5, 3, 3))
	assert.Equal(t, []any{-2.0, 0.0, trend.NotClear}, []any{tr.Low, tr.High, tr.Word})
	assert.InDelta(t, -5.0/6, tr.Slope, 1e-9)

	// Two numbers of one session have no slope between them.
	tr = trend.OfLevels([]trend.Point{{X: 1, Y: 4}, {X: 1, Y: 6}, {X: 2, Y: 4}, {X: 2, Y: 6}})
	assert.InDelta(t, 0, tr.Slope, 1e-9)
}

func TestTheFiveWords(t *testing.T) {
	for name, c := range map[string]struct {
		trend.Trend
		want trend.Word
	}{
		"three sessions":             {trend.OfLevels(row(7, 5, 3)), trend.TooEarly},
		"none":                       {trend.OfLevels(nil), trend.TooEarly},
		"lighter":                    {trend.OfLevels(row(7, 6, 6, 4, 3, 3)), trend.Less},
		"heavier":                    {trend.OfLevels(row(2, 3, 3, 5, 6, 6)), trend.More},
		"by less than a level":       {trend.OfLevels(row(5, 4.9, 4.8, 4.7, 4.6)), trend.Same},
		"by a level":                 {trend.OfLevels(row(5, 4.75, 4.5, 4.25, 4)), trend.Less},
		"the same":                   {trend.OfLevels(row(3, 3, 3, 3, 3)), trend.Same},
		"up and down":                {trend.OfLevels(row(2, 7, 1, 8, 3)), trend.NotClear},
		"quicker":                    {trend.OfTimes(row(40, 30, 22, 15, 11)), trend.Less},
		"a quarter quicker":          {trend.OfTimes(row(10, 9.4, 8.8, 8.4, 7.9)), trend.Less},
		"not quite a quarter":        {trend.OfTimes(row(10, 9.6, 9.2, 8.8, 8.4)), trend.Same},
		"both under half a second":   {trend.OfTimes(row(0.4, 0.3, 0.2, 0.1)), trend.Same},
		"slower, from half a second": {trend.OfTimes(row(0.1, 1, 2, 4, 8)), trend.More},
	} {
		assert.Equal(t, c.want, c.Word, name)
	}
}

// The values that Wilson's formula gives at z = 1.2816.
func TestShares(t *testing.T) {
	for _, c := range []struct {
		some, of  int
		low, high float64
	}{
		{0, 0, 0, 1}, {0, 4, 0, 0.2911}, {4, 4, 0.7089, 1}, {5, 10, 0.3122, 0.6878}, {9, 10, 0.7176, 0.9696}, {90, 100, 0.8547, 0.9322},
	} {
		s := trend.ShareOf(c.some, c.of)
		assert.InDelta(t, c.low, s.Low, 0.001, "%d of %d", c.some, c.of)
		assert.InDelta(t, c.high, s.High, 0.001, "%d of %d", c.some, c.of)
	}
}

// Moving all levels by the same moves no trend; fewer than four sessions are always
// too early; a trend and its mirror image say the opposite.
func TestWhatATrendDoesNotDependOn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ys := rapid.SliceOfN(rapid.Float64Range(0, 10), 0, 12).Draw(t, "levels")
		by := rapid.Float64Range(-5, 5).Draw(t, "by")
		moved, mirrored := make([]float64, len(ys)), make([]float64, len(ys))
		for i, y := range ys {
			moved[i], mirrored[i] = y+by, -y
		}
		a, b, m := trend.OfLevels(row(ys...)), trend.OfLevels(row(moved...)), trend.OfLevels(row(mirrored...))
		if math.Abs(a.Slope-b.Slope) > 1e-9 {
			t.Fatalf("the slope moved by %g", a.Slope-b.Slope)
		}
		if (len(ys) < 4) != (a.Word == trend.TooEarly) {
			t.Fatalf("%d sessions are %s", len(ys), a.Word)
		}
		if a.Low > a.Slope+1e-9 || a.High < a.Slope-1e-9 {
			t.Fatalf("%g is not between %g and %g", a.Slope, a.Low, a.High)
		}
		opposite := map[trend.Word]trend.Word{trend.Less: trend.More, trend.More: trend.Less, trend.Same: trend.Same, trend.NotClear: trend.NotClear, trend.TooEarly: trend.TooEarly}
		if opposite[a.Word] != m.Word && math.Abs(math.Abs(a.Slope)*float64(a.Over())-1) > 1e-9 {
			t.Fatalf("%s mirrored is %s", a.Word, m.Word)
		}
	})
}

func ExampleOfLevels() {
	t := trend.OfLevels([]trend.Point{{X: 1, Y: 7}, {X: 2, Y: 6}, {X: 3, Y: 6}, {X: 5, Y: 4}, {X: 6, Y: 3}})
	fmt.Printf("%s, from %.1f to %.1f\n", t.Word, t.From, t.To)
	// Output: less, from 7.0 to 3.1
}
