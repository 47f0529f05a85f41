package outing

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Part 7's case: out 12 min, moving home 10 min, stands of 45 s.
func TestThePlanOfPart7(t *testing.T) {
	p := PlanOf(track.Road{Minutes: 12, Metres: 900, Moving: 10}, 3)
	assert.Equal(t, []int{840, 19, 15}, []int{p.Owed, p.Needed, len(p.Stops)})
	assert.InDelta(t, 60, p.Every, 1e-9)
	assert.InDelta(t, 900, p.Stops[0].Metres, 1e-9, "the first at the turning point")
	assert.InDelta(t, 60, p.Stops[14].Metres, 1e-9)
	var backUps []int
	for _, s := range p.Stops {
		if s.BackUp {
			backUps = append(backUps, s.N)
			assert.Equal(t, 90, s.Stand)
		}
	}
	assert.Equal(t, []int{3, 6, 9, 12, 15}, backUps)
	assert.Empty(t, p.Warns)

	plain := PlanOf(track.Road{Minutes: 12, Metres: 900, Moving: 10, NoBack: true}, 3)
	assert.Len(t, plain.Stops, 19)
	assert.Equal(t, 47, int(plain.Every))
	eight := PlanOf(track.Road{Minutes: 12, Metres: 900, Moving: 10, Plain: 8}, 3)
	assert.Equal(t, []int{8, 105}, []int{len(eight.Stops), eight.Stand})
	assert.Equal(t, 14+14/3, 18, "is not enough")
}

func TestAPlanFromMetresAndPace(t *testing.T) {
	p := PlanOf(track.Road{Metres: 400, Pace: 80}, 0)
	assert.Equal(t, []int{300, 300, 300, 400}, []int{p.Out, p.Moving, p.Owed, p.Metres})
	assert.Empty(t, p.Warns, "five minutes are just right for a first outing")
	assert.Equal(t, "outing.first", PlanOf(track.Road{Minutes: 5.1}, 0).Warns[0].Key)
	assert.Empty(t, PlanOf(track.Road{Minutes: 5.1}, 1).Warns)
	assert.Equal(t, 400, PlanOf(track.Road{Minutes: 5, Pace: 80}, 1).Metres)
	none := PlanOf(track.Road{Minutes: 5, Moving: 10}, 1)
	assert.Equal(t, "outing.slow", none.Warns[0].Key)
	assert.Empty(t, none.Stops)
	for want, r := range map[string]track.Road{
		"0 m":          {},
		"a pace":       {Metres: 400},
		"too far":      {Minutes: 301},
		"0 or more":    {Minutes: -1},
		"5 seconds":    {Minutes: 5, Stand: 4},
		"100 at most":  {Minutes: 5, Plain: 300},
		"30 km, 18 mi": {Metres: 30_001, Pace: 80},
	} {
		require.ErrorContains(t, r.Check(), want)
	}
	require.NoError(t, track.Road{Minutes: 12}.Check())
}

// The stops are the fewest that come to the stands, evenly laid over the way home.
func TestStopsAreTheFewest(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := track.Road{Minutes: float64(rapid.IntRange(1, 120).Draw(t, "out")), Moving: float64(rapid.IntRange(0, 240).Draw(t, "home")), NoBack: rapid.Bool().Draw(t, "plain"), Stand: rapid.IntRange(5, 300).Draw(t, "stand"), Metres: 1000}
		require.NoError(t, r.Check())
		p := PlanOf(r, 1)
		stands := func(s int) int {
			if r.NoBack {
				return s
			}
			return s + s/3
		}
		n := len(p.Stops)
		require.GreaterOrEqual(t, stands(n), p.Needed)
		if n > 0 {
			require.Less(t, stands(n-1), p.Needed)
			total := 0
			for i, s := range p.Stops {
				total += s.Stand
				require.InDelta(t, 1000*(1-float64(i)/float64(n)), s.Metres, 1e-6)
			}
			require.GreaterOrEqual(t, total, p.Owed)
		}
	})
}

// press is a button at so many seconds.
func press(at float64, b track.Button, change ...func(*track.Mark)) track.Entry {
	m := &track.Mark{Walk: &track.Walk{Button: b}}
	for _, c := range change {
		c(m)
	}
	return track.Entry{ID: fmt.Sprintf("%v %s", at, b), Kind: track.KindMark, At: int64(math.Round(at * 1000)), Mark: m}
}

func on(r track.Road) func(*track.Mark) { return func(m *track.Mark) { m.Walk.Road = &r } }

func felt(level int) func(*track.Mark) {
	return func(m *track.Mark) { m.Arousal = horse.ArousalOf(level) }
}

// The clock of what is owed: it stands while the horse walks as fast as planned, falls
// while it stands, and is counted again after every stop.
func TestTheClockOfAWalk(t *testing.T) {
	road := on(track.Road{Minutes: 10, Moving: 10, Metres: 800})
	entries := []track.Entry{press(0, track.SetOff, road), press(600, track.Turned), press(600, track.StoppedAt)}
	at := func(seconds float64) State {
		s, ok := Live(entries, 1, int64(seconds*1000))
		require.True(t, ok)
		return s
	}
	owed := func(want float64, seconds float64) {
		t.Helper()
		assert.InDelta(t, want, at(seconds).Owed, 0.001)
	}
	owed(600, 600)
	owed(580, 620)
	s := at(620)
	assert.Equal(t, []any{Standing, true, 1}, []any{s.Phase, s.Falls, s.Stop})
	assert.InDelta(t, 25, s.Stand, 0.001)
	assert.InDelta(t, 800, s.Metres, 0.001)

	entries = append(entries, press(630, track.Broke))
	assert.InDelta(t, 45, at(630).Stand, 0.001, "the count-down begins again")
	entries = append(entries, press(675, track.Stood), press(680, track.Moving))
	owed(520, 680)
	owed(520, 740)
	assert.False(t, at(740).Falls, "it walks")
	assert.InDelta(t, 720, at(740).Metres, 0.001, "a tenth of the moving is done")
	entries = append(entries, press(740, track.StoppedAt, felt(2)), press(800, track.Elsewhere), press(800, track.Moving), press(900, track.PassedBy, func(m *track.Mark) { m.Walk.Spot, m.Walk.Tries = "mill", 2 }))
	owed(460, 800)
	entries = append(entries, press(1340, track.AtHome, felt(1)))
	s = at(9999)
	assert.Equal(t, Home, s.Phase)
	assert.InDelta(t, 740, s.HomeFor, 0.001)
	r := s.Result()
	assert.InDelta(t, 1.2333, r.Ratio(), 0.001)
	assert.Equal(t, []Stood{
		{N: 1, Metres: 800, Share: 1, Stood: false, Broke: 1, Seconds: 45, Fidget: 30},
		{N: 2, Metres: 720, Share: 0.9, Stood: true, Mind: true, Seconds: 60, Arousal: 2},
	}, r.Stops)
	assert.Equal(t, []Spot{{Name: "mill", Tries: 2}}, r.Spots)
	fidget, broke := r.Fidget()
	assert.True(t, broke)
	assert.InDelta(t, 30, fidget, 0)
	assert.InDelta(t, 60, r.Longest(), 0)
	assert.Equal(t, 2, r.Highest)
}

// Turned well before the place that was planned, the way home is as much shorter; turned
// near it, it is as planned.
func TestAWalkThatTurnsEarly(t *testing.T) {
	for _, c := range []struct {
		turned        float64
		moving, metre int
	}{{600, 600, 800}, {481, 600, 800}, {479, 479, 639}, {300, 300, 400}, {719, 600, 800}, {900, 900, 1200}} {
		s, ok := Live([]track.Entry{press(0, track.SetOff, on(track.Road{Minutes: 10, Moving: 10, Metres: 800})), press(c.turned, track.Turned)}, 1, int64(c.turned*1000))
		require.True(t, ok)
		assert.Equal(t, []int{c.moving, c.metre}, []int{s.Plan.Moving, s.Plan.Metres}, "%v", c.turned)
		assert.InDelta(t, 2*c.turned-float64(c.moving), s.Owed, 0.01)
		assert.Equal(t, "turned", phrase.English(phrase.Shipped).Say(s.Undoes))
	}
}

// Undone buttons are not in what stands; a button that means nothing where the walk is
// changes nothing; a walk that was not set off is none.
func TestButtonsThatMeanNothing(t *testing.T) {
	_, ok := Live([]track.Entry{press(5, track.StoppedAt)}, 1, 10_000)
	assert.False(t, ok)
	road := on(track.Road{Minutes: 10, Moving: 10})
	s, ok := Live([]track.Entry{press(0, track.SetOff, road), press(5, track.StoppedAt), press(6, track.Broke), press(7, track.Moving), press(8, track.AtHome)}, 1, 20_000)
	require.True(t, ok)
	assert.Equal(t, []any{Out, 0}, []any{s.Phase, s.Stop})
	assert.InDelta(t, 20, s.OutFor, 0)
	assert.Len(t, Results([]track.Entry{press(0, track.SetOff, road), press(5, track.Turned), press(10, track.AtHome), press(100, track.SetOff, road)}), 2)
}

// However a walk is pressed, what is owed and the way home add up: a walk that goes on
// until nothing is owed took twice the way out.
func TestNothingOwedIsTwiceTheWayOut(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		out := float64(rapid.IntRange(60, 1500).Draw(t, "out"))
		moving := float64(rapid.IntRange(1, 40).Draw(t, "moving"))
		entries := []track.Entry{press(0, track.SetOff, on(track.Road{Minutes: out / 60, Moving: moving})), press(out, track.Turned)}
		now := out
		for range rapid.IntRange(0, 30).Draw(t, "stops") {
			now += float64(rapid.IntRange(0, 90).Draw(t, "walks"))
			entries = append(entries, press(now, track.StoppedAt))
			now += float64(rapid.IntRange(0, 120).Draw(t, "stands"))
			b := rapid.SampledFrom([]track.Button{track.Stood, track.Broke, track.Elsewhere}).Draw(t, "button")
			entries = append(entries, press(now, b), press(now, track.Moving))
		}
		s, ok := Live(entries, 1, int64(now*1000))
		require.True(t, ok)
		left := math.Max(0, float64(s.Plan.Moving)-(s.HomeFor-stoodFor(s)))
		require.GreaterOrEqual(t, s.Owed, 0.0)
		if s.Owed > 0 {
			require.InDelta(t, 2*s.OutFor, s.HomeFor+left+s.Owed, 0.01)
		} else {
			require.GreaterOrEqual(t, s.HomeFor+left, 2*s.OutFor-0.01)
		}
		later, _ := Live(entries, 1, int64(now*1000)+5000)
		require.InDelta(t, s.Owed, later.Owed, 5.01, "between buttons the clock runs evenly")
	})
}

// stoodFor is the time between stopping and moving on, of a walk in which each stand is
// as long as its longest time, but for those that broke.
func stoodFor(s State) float64 {
	sum := 0.0
	for _, x := range s.Stops {
		sum += x.Seconds
	}
	return sum
}

func stops(stood, broken int) (list []Stood) {
	for i := range stood + broken {
		list = append(list, Stood{N: i + 1, Stood: i < stood, Metres: float64(100 * (i + 1))})
	}
	return list
}

// Both sides of every number of part 7's next outing.
func TestTheNextOuting(t *testing.T) {
	walked := func(stood, broken, highest int, ratio float64, ways ...horse.WayOut) Result {
		return Result{Out: 600, Home: 600 * ratio, Metres: 900, Stops: stops(stood, broken), Highest: highest, Ways: ways, Whole: true}
	}
	for name, c := range map[string]struct {
		r    Result
		next Next
	}{
		"all stood":              {walked(15, 0, 1, 2), Further},
		"all but one":            {walked(14, 1, 1, 2), Further},
		"two broke":              {walked(13, 2, 1, 2), Same},
		"tense":                  {walked(15, 0, 2, 2), Same},
		"over the line":          {walked(15, 0, 3, 2), Half},
		"too quick home":         {walked(15, 0, 1, 1.99), Same},
		"three broke":            {walked(12, 3, 1, 2), Same},
		"four broke":             {walked(11, 4, 1, 2), Half},
		"half broke":             {walked(3, 3, 1, 2), Half},
		"fewer than half":        {walked(4, 3, 1, 2), Same},
		"it spun":                {walked(15, 0, 1, 2, horse.Spun), Half},
		"it reared":              {walked(15, 0, 1, 2, horse.Reared), Half},
		"it leaned":              {walked(15, 0, 1, 2, horse.Leaned), Further},
		"not walked to its end":  {Result{Out: 600, Stops: stops(5, 0)}, Same},
		"no stop at all":         {walked(0, 0, 0, 3), Same},
		"one stop, and it broke": {walked(0, 1, 0, 2), Half},
	} {
		a := After(c.r)
		assert.Equal(t, c.next, a.Next, name)
		require.NotEqual(t, a.Why.Key, phrase.English(phrase.Shipped).Say(a.Why), name)
	}
	assert.Equal(t, []int{750, 1125}, []int{After(walked(15, 0, 1, 2)).Out, After(walked(15, 0, 1, 2)).Metres})
	assert.Equal(t, 450, After(walked(15, 0, 3, 2)).Metres)
}

func TestComfort(t *testing.T) {
	day := func(list ...Stood) Result { return Result{Metres: 1000, Stops: list, Whole: true} }
	at := func(metres float64, ease bool) Stood { return Stood{Metres: metres, Stood: ease} }
	assert.Zero(t, Comfort(nil))
	assert.Zero(t, Comfort([]Result{day(at(100, false))}))
	assert.InDelta(t, 500, Comfort([]Result{day(at(100, true), at(200, true), at(300, true), at(400, false), at(500, true))}), 0, "four of five")
	assert.InDelta(t, 300, Comfort([]Result{day(at(100, true), at(200, true), at(300, true), at(400, false), at(500, false))}), 0)
	assert.InDelta(t, 100, Comfort([]Result{day(at(100, true), Stood{Metres: 200, Stood: true, Arousal: 2})}), 0, "stood, but tense")
	assert.InDelta(t, 100, Comfort([]Result{day(at(100, true), Stood{Metres: 200, Stood: true, Mind: true})}), 0, "stood, its mind elsewhere")
	bad := day(at(50, false), at(60, false), at(70, false))
	good := day(at(900, true))
	assert.InDelta(t, 900, Comfort([]Result{bad, good, good, good, good, good}), 0, "only the last five count")
	assert.Zero(t, Comfort([]Result{{Stops: []Stood{{Stood: true}}}}), "the metres were not known")
}

func TestBeforeRiding(t *testing.T) {
	var list []Result
	for i := range 5 {
		list = append(list, Result{On: fmt.Sprintf("2026-06-0%d", i+1), Out: 300, Home: 600, Whole: true, Stops: stops(4, 0)})
	}
	assert.True(t, Ridable(list).May)
	assert.False(t, Ridable(list[:4]).May)
	same := append([]Result{}, list...)
	same[1].On = same[0].On
	assert.Equal(t, 4, Ridable(same).Days, "on different days")
	quick := append([]Result{}, list...)
	quick[0].Home = 599
	assert.False(t, Ridable(quick).May)
	broke := append([]Result{}, list...)
	broke[3].Stops = stops(3, 1)
	assert.Equal(t, []any{1, false}, []any{Ridable(broke).Stood, Ridable(broke).May}, "the last two with every stop stood")
	ridden := append(append([]Result{}, list...), Result{Ridden: true, On: "2026-06-09", Whole: true, Stops: stops(0, 4)})
	assert.True(t, Ridable(ridden).May, "in hand")
}

func TestAnOutingCountsAsAnAnswer(t *testing.T) {
	ask := horse.Ask{Step: "home.near"}
	walked := func(stood, broken, highest int, home float64) Result {
		return Result{Out: 300, Home: home, Metres: 400, Stops: stops(stood, broken), Highest: highest, Whole: true}
	}
	for _, c := range []struct {
		r    Result
		calm bool
		want horse.Answer
	}{
		{walked(5, 0, 2, 600), false, horse.Accepted},
		{walked(5, 0, 2, 600), true, horse.Tolerated},
		{walked(5, 0, 1, 600), true, horse.Accepted},
		{walked(4, 1, 1, 600), false, horse.Tolerated},
		{walked(5, 0, 1, 599), false, horse.Try},
		{walked(2, 2, 1, 600), false, horse.Refused},
	} {
		rep := c.r.Rep(ask, c.calm)
		assert.Equal(t, c.want, rep.Answer)
		require.NotNil(t, rep.Reached)
		assert.Equal(t, 400_000, *rep.Reached)
	}
}

// On a step of named places each pass is an answer, by its direction.
func TestPassesAreAnswers(t *testing.T) {
	ask := horse.Ask{Step: "away.far"}
	out, home := horse.Heading{}.All()[0], horse.Heading{}.All()[1]
	r := Result{Highest: 1, Whole: true, Spots: []Spot{{Name: "the mill", Heading: out}, {Name: "the mill", Heading: home, Tries: 2}}}
	reps := r.Passed(ask)
	require.Len(t, reps, 2)
	assert.Equal(t, []any{horse.Accepted, "the mill", out, 0}, []any{reps[0].Answer, reps[0].Spot, reps[0].Heading, reps[0].Drawn})
	assert.Equal(t, []any{horse.Try, home, 2}, []any{reps[1].Answer, reps[1].Heading, reps[1].Drawn})
	r.Ways = []horse.WayOut{horse.Reared}
	assert.Equal(t, horse.Refused, r.Passed(ask)[0].Answer)
	assert.Empty(t, Result{Whole: true}.Passed(ask), "what was not passed is no answer")
}

func BenchmarkThePlanOfAnOuting(b *testing.B) {
	for b.Loop() {
		PlanOf(track.Road{Minutes: 12, Metres: 900, Moving: 10}, 3)
	}
}

func BenchmarkAWalkOfAnHour(b *testing.B) {
	entries := []track.Entry{press(0, track.SetOff, on(track.Road{Minutes: 20, Moving: 20})), press(1200, track.Turned)}
	for i := range 40 {
		at := 1200 + 60*float64(i)
		entries = append(entries, press(at, track.StoppedAt), press(at+45, track.Stood), press(at+46, track.Moving))
	}
	for b.Loop() {
		Live(entries, 1, 4_000_000)
	}
}

func Example() {
	p := PlanOf(track.Road{Minutes: 12, Metres: 900, Moving: 10}, 3)
	fmt.Printf("%d s of standing at %d stops, one every %.0f m\n", p.Owed, len(p.Stops), p.Every)
	// Output: 840 s of standing at 15 stops, one every 60 m
}

func TestHomeIsWhereRestIs(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	b := Balance{RestNear: 240, RestAway: 120, WorkNear: 600}.Plus(Result{Stops: []Stood{{Seconds: 60}, {Seconds: 59}}}.Stood())
	assert.Equal(t, 239, b.RestAway)
	require.NotNil(t, b.Judged().Warns)
	assert.Equal(t, "Home is where rest is: 4 minutes of rest at home, 4 away. Let it rest away and work at home.", book.Say(*b.Judged().Warns))
	b.RestAway++
	assert.Nil(t, b.Judged().Warns, "as long away as at home")
	b.WorkAway = 601
	assert.Equal(t, "Hard work happens away: 10 minutes of work away, 10 at home. Let it work at home and rest away.", book.Say(*b.Judged().Warns))
}

// The first outing goes as far as a first one may, the next as far as the newest asks for.
func TestTheRoadThatIsProposed(t *testing.T) {
	road, why := Proposed(nil)
	require.NoError(t, road.Check())
	assert.Equal(t, "outing.next.first", why.Key)
	p := PlanOf(road, 0)
	assert.Equal(t, []int{300, 400, 45}, []int{p.Out, p.Metres, p.Stand})
	assert.Empty(t, p.Warns)
	road, why = Proposed([]Result{{Out: 300}, {Out: 300, Home: 640, Metres: 400, Stops: stops(5, 0), Highest: 1, Whole: true}})
	assert.Equal(t, "outing.next.further", why.Key)
	assert.InDelta(t, 6.3, road.Minutes, 0, "to a tenth of a minute")
	assert.Equal(t, 500, road.Metres)
	require.NoError(t, road.Check())
}
