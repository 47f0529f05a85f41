package plan

import (
	"fmt"
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
)

// The worked cases of part 7, to three decimals.
func TestForecastCases(t *testing.T) {
	one := Work{Today: "2026-06-01", Remaining: 7, Sessions: 4, Met: 5, Slips: 1, PerWeek: 2, By: "2026-06-22", Rate: 0.8}
	f := Foresee(one)
	assert.Equal(t, []float64{7.4, 7}, []float64{f.A, f.B})
	assert.InDelta(t, 2.0/15, f.Slip, 1e-12)
	assert.Equal(t, 8, f.Steps)
	for n, p := range map[float64]string{4: "0.109", 8: "0.540", 15: "0.902", 6: "0.325"} {
		assert.Equal(t, p, fmt.Sprintf("%.3f", one.atLeast(f.Steps, n)), "P(%v)", n)
	}
	assert.Equal(t, []int{8, 4, 15}, []int{f.Median, f.Low, f.High})
	assert.Equal(t, 6, f.Visits)
	assert.Equal(t, "0.325", fmt.Sprintf("%.3f", f.Done))
	assert.Equal(t, "in doubt", f.Word)

	two := Work{Today: "2026-06-01", Remaining: 11, Rate: 0.8}
	f = Foresee(two)
	assert.InDelta(t, 2.4, f.A, 1e-9)
	assert.Equal(t, []float64{3, 0.1}, []float64{f.B, f.Slip})
	assert.Equal(t, 13, f.Steps)
	assert.Equal(t, 19, f.Median)
	assert.Equal(t, "0.274", fmt.Sprintf("%.3f", two.atLeast(f.Steps, 12)))
}

func TestTheHabitsAgeSlowsTheRate(t *testing.T) {
	for since, want := range map[string]float64{
		"": 1.5, "2026-05-01": 1.5, "2026-02-01": 1.275, "2024-05-01": 1.125, "2020-01-01": 0.75,
	} {
		assert.InDelta(t, want, Work{Today: "2026-06-01", Since: since}.rate(), 1e-9, since)
		assert.InDelta(t, want*1.5, Work{Today: "2026-06-01", Since: since, DidWell: true}.rate(), 1e-9, "it did it well in the past, and fear is unlikely")
	}
}

// A foundation step counts 0.25, one in hand 1, one ridden or away from the yard
// 1.5 (part 7).
func TestWorkIsCountedInUnits(t *testing.T) {
	c := shipped(t)
	for key, want := range map[string]float64{"lead.back": 0.25, "zones.hand": 0.25, "load.board": 1, "bridle.bit": 1, "soft.tack": 1, "soft.halt": 1.5, "home.near": 1.5, "away.spot": 1.5, "load.travel": 1.5, "load.alone": 1} {
		step, ok := c.Step(key)
		require.True(t, ok, key)
		assert.Equal(t, want, UnitsOf(c, step), key)
	}
	w := Work{Today: "2026-06-01", Remaining: 3, StepsToGo: []Step{{Units: 0.25}, {Units: 1}, {Units: 1.5}}, Met: 4, Earned: 1}
	f := Foresee(w)
	assert.Equal(t, 2.75, f.Units)
	assert.Equal(t, 3, f.Steps, "⌈2.75 × (1 + 1 ÷ 14)⌉")
	assert.InDelta(t, 3*1.5+1, f.A, 1e-9, "units met so far")
	w.Held = []Held{{Place: 2, Lifts: "2026-06-01"}}
	w.By, w.PerWeek = "2026-06-15", 2
	assert.InDelta(t, w.atLeast(3, 4), w.doneBy(w.By, 3, 2, 0), 1e-9, "all of it is more than the blocked 1.5")
}

func TestStepsToGoAreExact(t *testing.T) {
	assert.Equal(t, 11, Work{}.toGo(big.NewRat(10, 1)), "10 × 1.1 is 11, not a hair above it")
	assert.Equal(t, 0, Work{}.toGo(big.NewRat(0, 1)))
	assert.Equal(t, 2, Work{Met: 89}.toGo(big.NewRat(1, 1)), "a slip is never ruled out")
}

func TestHomeworkCountsForPartOfASession(t *testing.T) {
	w := Work{Today: "2026-06-01", Remaining: 7, Met: 5, Sessions: 4, Slips: 1, PerWeek: 2, Homework: 5, By: "2026-06-22", Practised: 5}
	f := Foresee(w)
	assert.InDelta(t, 9, f.B, 1e-9, "5 practised at 0.4")
	assert.InDelta(t, 6+0.4*15, f.Sessions, 1e-9)
}

func TestBlockedStepsOnlyHoldThemselves(t *testing.T) {
	w := Work{Today: "2026-06-01", Remaining: 7, Sessions: 4, Met: 5, Slips: 1, PerWeek: 7, By: "2026-07-01", Held: []Held{{Place: 6, Lifts: "2026-06-03"}}}
	free := w
	free.Held = nil
	assert.InDelta(t, Foresee(free).Done, Foresee(w).Done, 1e-9, "one step that is lifted early is done on time")
	w.Held[0].Lifts = "2026-06-28"
	late := Foresee(w)
	assert.Less(t, late.Done, Foresee(free).Done)
	assert.InDelta(t, w.atLeast(w.toGo(big.NewRat(1, 1)), 3), late.Done, 1e-9, "three visits after it lifts")
	w.Held[0].Lifts = "2026-07-02"
	never := Foresee(w)
	assert.Zero(t, never.Done)
	assert.Equal(t, "forecast.blocked", never.Says.Key)
	assert.Equal(t, "2026-07-02", never.Until)
}

func drawWork(t *rapid.T) Work {
	w := Work{
		Today: "2026-06-01", Remaining: rapid.IntRange(1, 60).Draw(t, "remaining"), Met: rapid.IntRange(0, 40).Draw(t, "met"),
		Slips: rapid.IntRange(0, 10).Draw(t, "slips"), Sessions: rapid.IntRange(0, 40).Draw(t, "sessions"),
		PerWeek: rapid.IntRange(0, 7).Draw(t, "visits"), CanClear: rapid.Bool().Draw(t, "clear"),
		By: horse.DayAfter("2026-06-01", rapid.IntRange(0, 200).Draw(t, "days")),
	}
	for place := range w.Remaining {
		if rapid.IntRange(0, 9).Draw(t, "held") == 0 {
			w.Held = append(w.Held, Held{Place: place, Lifts: horse.DayAfter(w.Today, rapid.IntRange(0, 60).Draw(t, "lifts"))})
		}
	}
	return w
}

// No smaller goal and no later date that is listed misses 0.85, and the next
// better one was not to be had.
func TestHelpIsTrueAndTheBestOfItsKind(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := drawWork(t)
		f := Foresee(w)
		if f.Done >= 0.6 {
			require.Empty(t, f.Help)
			return
		}
		seen := map[HelpKind]bool{}
		for _, h := range f.Help {
			seen[h.Kind] = true
			switch h.Kind {
			case MoreVisits:
				assert.True(t, h.PerWeek > w.PerWeek && h.PerWeek <= 7)
				more := w
				more.PerWeek = h.PerWeek
				assert.InDelta(t, Foresee(more).Done, h.Done, 1e-12)
			case OwnerHomework:
				assert.True(t, w.CanClear && h.Homework == 7-w.PerWeek)
				practised := w
				practised.Homework = h.Homework
				assert.InDelta(t, Foresee(practised).Done, h.Done, 1e-12)
			case SmallerGoal:
				assert.GreaterOrEqual(t, h.Done, 0.85)
				assert.Less(t, w.doneBy(w.By, h.Steps+1, w.PerWeek, 0), 0.85)
			case LaterDate:
				assert.GreaterOrEqual(t, h.Done, 0.85)
				assert.Greater(t, h.By, w.By)
				assert.Less(t, w.doneBy(horse.DayAfter(h.By, -1), w.Remaining, w.PerWeek, 0), 0.85)
			}
		}
		if !seen[SmallerGoal] {
			assert.Less(t, w.doneBy(w.By, 1, w.PerWeek, 0), 0.85)
		}
		if !seen[LaterDate] {
			assert.Less(t, w.doneBy(horse.DayAfter(w.By, farthest), w.Remaining, w.PerWeek, 0), 0.85)
		}
		assert.Equal(t, w.CanClear && w.PerWeek < 7, seen[OwnerHomework])
	})
}

// More of anything that helps never lowers the chance, and the interval holds
// the median.
func TestMoreHelpNeverHurts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := drawWork(t)
		p := w.doneBy(w.By, w.Remaining, w.PerWeek, 0)
		assert.GreaterOrEqual(t, w.doneBy(w.By, w.Remaining, w.PerWeek+1, 0), p)
		assert.GreaterOrEqual(t, w.doneBy(w.By, w.Remaining, w.PerWeek, 2), p)
		assert.GreaterOrEqual(t, w.doneBy(horse.DayAfter(w.By, 1), w.Remaining, w.PerWeek, 0), p)
		assert.GreaterOrEqual(t, w.doneBy(w.By, w.Remaining-1, w.PerWeek, 0), p)
		f := Foresee(w)
		assert.True(t, f.Low <= f.Median && f.Median <= f.High)
		for i := 1; i < len(f.Curve); i++ {
			assert.GreaterOrEqual(t, f.Curve[i].Done, f.Curve[i-1].Done)
		}
	})
}

// The boards are the same chances as the forecast's own, one a visit, up to the end
// of a line that holds the date and each rope.
func TestBoardsAndRopesStandOnOneLine(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := drawWork(t)
		f := Foresee(w)
		if f.Days == nil {
			require.Empty(t, f.Boards)
			return
		}
		require.Greater(t, f.Till, max(w.By, f.Days.High))
		assert.LessOrEqual(t, len(f.Boards), mostBoards)
		for i, b := range f.Boards {
			assert.InDelta(t, w.doneBy(b.On, w.Remaining, w.PerWeek, w.Homework), b.Done, 1e-12)
			assert.Greater(t, visitsIn(between(w.Today, b.On), w.PerWeek), visitsIn(between(w.Today, horse.DayAfter(b.On, -1)), w.PerWeek), "a visit is on that day")
			assert.LessOrEqual(t, b.On, f.Till)
			if i > 0 {
				assert.Greater(t, b.On, f.Boards[i-1].On)
			}
		}
		best := map[HelpKind]int{}
		for _, h := range f.Help {
			if h.Best {
				best[h.Kind]++
				if h.Days != nil {
					assert.Greater(t, f.Till, h.Days.High)
				}
			}
			assert.Equal(t, h.Kind == OwnerHomework && !w.Cleared, h.Waits != nil)
		}
		for kind, n := range best {
			assert.Equal(t, 1, n, kind.String())
		}
	})
}

// Of the visits a week the fewest that are on course stand first; where none are,
// the most that there may be.
func TestTheBestNumberOfVisits(t *testing.T) {
	best := func(w Work) (n int) {
		for _, h := range Foresee(w).Help {
			if h.Kind == MoreVisits && h.Best {
				n = h.PerWeek
			}
		}
		return n
	}
	w := Work{Today: "2026-06-01", By: "2026-06-22", Remaining: 7, Met: 5, Slips: 1, Sessions: 4, Rate: 0.8, PerWeek: 2}
	n := best(w)
	w.PerWeek = n
	assert.GreaterOrEqual(t, Foresee(w).Done, enough)
	w.PerWeek = n - 1
	assert.Less(t, Foresee(w).Done, enough)
	w.PerWeek, w.By = 2, "2026-06-03"
	assert.Equal(t, mostVisits, best(w))
}

func BenchmarkForecastWithAllHelp(b *testing.B) {
	w := Work{Today: "2026-06-01", Remaining: 40, Met: 5, Slips: 1, Sessions: 4, PerWeek: 2, By: "2026-07-01", CanClear: true, Held: []Held{{Place: 30, Lifts: "2026-06-10"}}}
	for b.Loop() {
		if f := Foresee(w); len(f.Help) < 4 {
			b.Fatal(f.Help)
		}
	}
}
