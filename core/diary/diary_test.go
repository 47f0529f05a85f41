package diary

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/phrase"
)

func zone(t testing.TB, name string) *time.Location {
	in, err := time.LoadLocation(name)
	require.NoError(t, err)
	return in
}

// A clock that goes forward shows no 02:30 that day; one that goes back shows it twice.
func TestTimesOnDaysOf23And25Hours(t *testing.T) {
	for _, c := range []struct {
		zone, on string
		at       Clock
		utc      string // empty: there is no such time
		then     Clock
		hours    float64
	}{
		{"Europe/London", "2026-03-29", 89, "", 120, 23}, // 01:29
		{"Europe/London", "2026-03-29", 59, "00:59", 0, 23},
		{"Europe/London", "2026-03-29", 120, "01:00", 0, 23},
		{"Europe/London", "2026-10-25", 90, "00:30", 0, 25}, // twice: the first
		{"Europe/London", "2026-10-25", 120, "02:00", 0, 25},
		{"America/Denver", "2026-03-08", 150, "", 180, 23},
		{"America/Denver", "2026-11-01", 90, "07:30", 0, 25},
		{"Australia/Lord_Howe", "2026-10-04", 130, "", 150, 23.5},
		{"Australia/Lord_Howe", "2026-04-05", 105, "14:45", 0, 24.5}, // the evening before, in UTC
		{"Asia/Kathmandu", "2026-03-29", 150, "20:45", 0, 24},
	} {
		in := zone(t, c.zone)
		got, err := Instant(c.on, c.at, in)
		assert.InDelta(t, c.hours, Hours(c.on, in), 0, c.zone)
		if c.utc == "" {
			var gap *GapError
			require.True(t, errors.As(err, &gap), "%s %s %s: %v", c.zone, c.on, c.at, got)
			assert.Equal(t, c.then, gap.Then, "%s %s", c.zone, c.at)
			continue
		}
		require.NoError(t, err)
		assert.Equal(t, c.utc, got.UTC().Format("15:04"), "%s %s %s", c.zone, c.on, c.at)
	}
	_, err := Instant("tomorrow", 60, time.UTC)
	require.ErrorContains(t, err, "not a date")
}

// Every time of every day is either there, and read back as it was, or a gap that says
// the next one.
func TestEveryTimeIsThereOrAGap(t *testing.T) {
	places := []*time.Location{zone(t, "Europe/London"), zone(t, "America/Denver"), zone(t, "Australia/Lord_Howe"), zone(t, "Africa/Casablanca"), time.UTC}
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(places).Draw(t, "in")
		on := time.Date(2026, 1, 1+rapid.IntRange(0, 729).Draw(t, "day"), 0, 0, 0, 0, time.UTC).Format(time.DateOnly)
		at := Clock(rapid.IntRange(0, MinutesOfDay-1).Draw(t, "at"))
		got, err := Instant(on, at, in)
		if err != nil {
			var gap *GapError
			require.True(t, errors.As(err, &gap))
			_, err = Instant(on, gap.Then, in)
			require.NoError(t, err)
			return
		}
		require.Equal(t, on+" "+at.String(), got.Format("2006-01-02 15:04"))
	})
}

func TestAClockIsRead(t *testing.T) {
	for text, want := range map[string]Clock{"08:40": 520, "8:40": 520, " 0:00": 0, "23:59": 1439} {
		got, err := ParseClock(text)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
	for _, text := range []string{"", "24:00", "8:60", "8.40", "8:4", "-1:00", "ab:cd"} {
		_, err := ParseClock(text)
		require.ErrorContains(t, err, "write it as 08:40", text)
	}
	assert.Equal(t, "08:05", Clock(485).String())
}

func TestAPlaceIsReadFromALinkOrNumbers(t *testing.T) {
	for _, text := range []string{"54.5, -3.1", "geo:54.5,-3.1", "geo:54.5,-3.1;u=35", "geo:54.5,-3.1,120?z=3", "54.5 -3.1"} {
		p, err := ParsePlace(text)
		require.NoError(t, err, text)
		assert.Equal(t, Place{54.5, -3.1}, p)
	}
	for _, text := range []string{"", "54.5", "91, 0", "0, 181", "NaN, 0", "by the old mill", "1,2,3,4"} {
		_, err := ParsePlace(text)
		require.ErrorContains(t, err, "paste it as", text)
	}
	// One degree north is 111.2 km: × 1.3 ÷ 45 × 60 = 192.7 minutes.
	assert.Equal(t, 193, Place{54, -3}.Minutes(Place{55, -3}))
	assert.Equal(t, 0, Place{54, -3}.Minutes(Place{54, -3}))
}

func TestADriveIsTypedElseFromPlaces(t *testing.T) {
	r := Roads{Typed: map[[2]string]int{{"a", "b"}: 12}, Places: map[string]Place{"a": {54, -3}, "c": {54.1, -3}}}
	for _, c := range []struct {
		from, to string
		minutes  int
		known    bool
	}{{"a", "a", 0, true}, {"a", "b", 12, true}, {"b", "a", 12, true}, {"a", "c", 20, true}, {"b", "c", Unknown, false}} {
		m, known := r.Drive(c.from, c.to)
		assert.Equal(t, c.minutes, m, c)
		assert.Equal(t, c.known, known, c)
	}
}

// slow tries every order of the visits, with the plainest reckoning.
func slow(base string, begins int, stops []Stop, roads Roads) (best []int, least [3]int) {
	var orders [][]int
	var build func(prefix, rest []int)
	build = func(prefix, rest []int) {
		if len(rest) == 0 {
			orders = append(orders, slices.Clone(prefix))
		}
		for i, x := range rest {
			build(append(slices.Clone(prefix), x), slices.Delete(slices.Clone(rest), i, i+1))
		}
	}
	all := make([]int, len(stops))
	for i := range all {
		all[i] = i
	}
	build(nil, all)
	for _, order := range orders {
		at, here, late, driving := begins, base, 0, 0
		for _, i := range order {
			m, _ := roads.Drive(here, stops[i].Yard)
			at, driving, here = at+m, driving+m, stops[i].Yard
			if stops[i].Fixed {
				late += max(0, at-stops[i].At)
				at = max(at, stops[i].At)
			}
			at += stops[i].Minutes
		}
		m, _ := roads.Drive(here, base)
		c := [3]int{late, driving + m, at + m}
		if best == nil || slices.Compare(c[:], least[:]) < 0 {
			best, least = order, c
		}
	}
	return best, least
}

func someDay(t *rapid.T, most int) ([]Stop, Roads) {
	n := rapid.IntRange(0, most).Draw(t, "n")
	roads := Roads{Typed: map[[2]string]int{}}
	yards := []string{"base", "a", "b", "c", "d", "e"}
	for i, x := range yards {
		for _, y := range yards[i+1:] {
			roads.Typed[[2]string{x, y}] = rapid.IntRange(1, 60).Draw(t, "drive")
		}
	}
	stops := make([]Stop, n)
	for i := range stops {
		stops[i] = Stop{Visit: fmt.Sprint(i), Yard: rapid.SampledFrom(yards).Draw(t, "yard"), Minutes: rapid.IntRange(10, 90).Draw(t, "minutes")}
		if rapid.Bool().Draw(t, "fixed") {
			stops[i].Fixed, stops[i].At = true, rapid.IntRange(480, 1000).Draw(t, "at")
		}
	}
	return stops, roads
}

// The order is the one that a slow search over all orders finds, ties included.
func TestTheOrderAgainstASlowSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		stops, roads := someDay(t, 6)
		sheet := Run("base", 480, stops, roads)
		order, least := slow("base", 480, stops, roads)
		var got []string
		for _, l := range sheet.Legs {
			got = append(got, l.Visit)
		}
		var want []string
		for _, i := range order {
			want = append(want, stops[i].Visit)
		}
		require.Equal(t, want, got)
		require.True(t, sheet.Proven)
		require.Equal(t, []int{least[0], least[1]}, []int{sheet.Late, sheet.Driving})
	})
}

// Beyond nine an order has every visit once, is no worse than the one entered, and is
// not said to be proven.
func TestALongDayIsAGoodOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		stops, roads := someDay(t, 16)
		sheet, entered := Run("base", 480, stops, roads), Kept("base", 480, stops, roads)
		require.Equal(t, len(stops) <= 9, sheet.Proven)
		seen := map[string]bool{}
		for _, l := range sheet.Legs {
			seen[l.Visit] = true
		}
		require.Len(t, seen, len(stops))
		if sheet.Proven {
			require.LessOrEqual(t, sheet.Late, entered.Late)
		}
	})
}

func TestTheRunSheetOfADay(t *testing.T) {
	roads := Roads{Typed: map[[2]string]int{{"home", "tarn"}: 24, {"tarn", "fallow"}: 38, {"fallow", "corrie"}: 17, {"corrie", "home"}: 24, {"home", "fallow"}: 50, {"tarn", "corrie"}: 30}}
	stops := []Stop{
		{Visit: "pepperdine", Yard: "corrie", Minutes: 60},
		{Visit: "moth", Yard: "tarn", Minutes: 45, Fixed: true, At: 520},
		{Visit: "juniper", Yard: "fallow", Minutes: 45, Fixed: true, At: 660},
		{Visit: "button", Yard: "tarn", Minutes: 20},
	}
	s := Run("home", 420, stops, roads)
	var told []string
	for _, l := range s.Legs {
		told = append(told, fmt.Sprintf("%s leave %s drive %d start %s spare %d", l.Visit, Clock(l.Leave), l.Drive, Clock(l.Start), l.Spare))
	}
	assert.Equal(t, []string{
		"moth leave 08:11 drive 24 start 08:40 spare 5",
		"button leave 09:25 drive 0 start 09:25 spare 0",
		"juniper leave 09:45 drive 38 start 11:00 spare 37",
		"pepperdine leave 11:45 drive 17 start 12:02 spare 0",
	}, told)
	assert.Equal(t, []int{103, 0, 24}, []int{s.Driving, s.Late, s.Home})
	assert.Equal(t, "13:26", Clock(s.Back).String())
	assert.False(t, s.Guessed)

	late := Run("home", 420, []Stop{{Visit: "a", Yard: "tarn", Minutes: 60, Fixed: true, At: 480}, {Visit: "b", Yard: "fallow", Minutes: 30, Fixed: true, At: 500}}, roads)
	assert.Equal(t, []int{0, 78}, []int{late.Legs[0].Late, late.Legs[1].Late}, "the other way round it would be 88")
	assert.True(t, Run("home", 420, []Stop{{Visit: "a", Yard: "nowhere", Minutes: 10}}, roads).Guessed)
	assert.Equal(t, Sheet{Legs: []Leg{}, Back: 420, Proven: true}, Run("home", 420, nil, roads), "a day without a visit")
}

func TestRounds(t *testing.T) {
	days := func(r Round, n int) (list []string) {
		on := r.From
		for range n {
			next, _, ok := Next([]Round{r}, "y", on)
			if !ok {
				return list
			}
			list = append(list, next)
			d, _ := time.Parse(time.DateOnly, next)
			on = d.AddDate(0, 0, 1).Format(time.DateOnly)
		}
		return list
	}
	third := Round{Name: "west", Day: 4, Nth: 3, From: "2026-01-01", Except: []string{"2026-02-19"}}
	assert.Equal(t, []string{"2026-01-15", "2026-03-19", "2026-04-16"}, days(third, 3), "every third Thursday, one left out")
	assert.Equal(t, []string{"2026-01-01", "2026-01-22", "2026-02-12"}, days(Round{Name: "n", Day: 4, Weeks: 3, From: "2026-01-01"}, 3))
	assert.Equal(t, []string{"2026-01-30", "2026-02-27"}, days(Round{Name: "n", Day: 5, Nth: -1, From: "2026-01-01"}, 2), "the last Friday")
	assert.Equal(t, []string{"2026-01-15"}, days(Round{Name: "n", Day: 4, Nth: 3, From: "2026-01-01", Until: "2026-02-01"}, 3))
	elsewhere := third
	elsewhere.Yards = []string{"z"}
	assert.Empty(t, days(elsewhere, 1))
	require.NoError(t, third.Check())
	for want, r := range map[string]Round{
		"a name":              {Day: 4, Nth: 3, From: "2026-01-01"},
		"its first day":       {Name: "n", Nth: 3, From: "soon"},
		"not before":          {Name: "n", Nth: 3, From: "2026-01-02", Until: "2026-01-01"},
		"every how many":      {Name: "n", From: "2026-01-01"},
		"every 1 to 12 weeks": {Name: "n", Weeks: 13, From: "2026-01-01"},
	} {
		require.ErrorContains(t, r.Check(), want)
	}
}

// Each line of part 7, with its reason.
func TestTheNextVisitIsProposed(t *testing.T) {
	asked := func(key string) phrase.Message { return phrase.Of("next."+key, phrase.Args{"reason": "lameness"}) }
	west := []Round{{Name: "west", Day: 4, Nth: 3, From: "2026-01-01"}} // 15 January, 19 February
	busy := func(on string, yards ...string) map[string][]Booked {
		m := map[string][]Booked{}
		for _, y := range yards {
			m[on] = append(m[on], Booked{Yard: y})
		}
		return m
	}
	for name, c := range map[string]struct {
		after    After
		on, keys string
	}{
		"danger":         {After{Asked: asked("danger"), Last: "2026-01-05", Today: "2026-01-05"}, "2026-01-06", "[propose.next.danger]"},
		"unfinished":     {After{Asked: asked("soon"), Last: "2026-01-05", Today: "2026-01-05"}, "2026-01-06", "[propose.next.soon]"},
		"well":           {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-05"}, "2026-01-07", "[propose.next.days]"},
		"pain":           {After{Asked: asked("pain"), Last: "2026-01-05", Today: "2026-01-05"}, "", "[propose.pain]"},
		"never visited":  {After{Today: "2026-01-05"}, "2026-01-05", "[propose.first]"},
		"late":           {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-20"}, "2026-01-20", "[propose.next.days propose.late]"},
		"same yard":      {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-05", Yard: "y", Busy: busy("2026-01-08", "y", "z")}, "2026-01-08", "[propose.next.days propose.same_yard]"},
		"emptiest":       {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-05", Yard: "y", Busy: busy("2026-01-07", "z")}, "2026-01-08", "[propose.next.days]"},
		"full":           {After{Asked: asked("soon"), Last: "2026-01-05", Today: "2026-01-07", Busy: busy("2026-01-07", "a", "b", "c", "d", "e")}, "2026-01-07", "[propose.next.soon propose.full]"},
		"round":          {After{Asked: asked("days"), Last: "2026-01-12", Today: "2026-01-12", Rounds: west}, "2026-01-15", "[propose.next.days propose.round]"},
		"round, alone":   {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-05", Rounds: west}, "2026-01-15", "[propose.next.days propose.round propose.round.alone]"},
		"round, at home": {After{Asked: asked("soon"), Last: "2026-01-05", Today: "2026-01-05", Rounds: west, Home: true}, "2026-01-15", "[propose.next.soon propose.round propose.round.home]"},
		"past its date":  {After{Asked: asked("days"), Last: "2026-01-05", Today: "2026-01-05", Needed: "2026-01-06"}, "2026-01-07", "[propose.next.days propose.past_date]"},
		"young":          {After{Asked: asked("soon"), Last: "2026-01-05", Today: "2026-01-05", Young: true}, "2026-01-06", "[propose.next.soon]"},
	} {
		p := Propose(c.after)
		var keys []string
		for _, m := range p.Reasons {
			keys = append(keys, m.Key)
			require.NotEqual(t, m.Key, phrase.English(phrase.Shipped).Say(m), name)
		}
		assert.Equal(t, c.on, p.On, name)
		assert.Equal(t, c.keys, fmt.Sprint(keys), name)
	}
	own := map[string][]Booked{"2026-01-06": {{Own: true}}, "2026-01-07": {{Own: true}}}
	p := Propose(After{Asked: asked("soon"), Last: "2026-01-05", Today: "2026-01-05", Busy: own})
	assert.Equal(t, "propose.taken", p.Reasons[1].Key, "it is visited on both days already")
}

func TestClashes(t *testing.T) {
	at := func(clock string) time.Time {
		c, err := ParseClock(clock)
		require.NoError(t, err)
		i, err := Instant("2026-06-01", c, time.UTC)
		require.NoError(t, err)
		return i
	}
	b := func(id, who, horse, yard, from, to string) Booking {
		return Booking{ID: id, Who: who, Horses: []string{horse}, Yard: yard, Start: at(from), End: at(to)}
	}
	roads := Roads{Typed: map[[2]string]int{{"tarn", "fallow"}: 38}}
	said := func(list ...Booking) (keys []string) {
		for _, c := range Clashes(list, roads) {
			keys = append(keys, fmt.Sprintf("%s %s %s %d", c.A, c.B, c.Says.Key, c.Short))
		}
		return keys
	}
	moth := b("1", "wren", "moth", "tarn", "10:00", "10:45")
	assert.Equal(t, []string{"1 2 clash.road 13"}, said(moth, b("2", "wren", "juniper", "fallow", "11:10", "12:00")))
	assert.Empty(t, said(moth, b("2", "wren", "juniper", "fallow", "11:23", "12:00")), "to the minute")
	assert.Equal(t, []string{"1 2 clash.road 1"}, said(moth, b("2", "wren", "juniper", "fallow", "11:22", "12:00")))
	assert.Empty(t, said(moth, b("2", "sorrel", "juniper", "fallow", "10:00", "12:00")), "somebody else")
	assert.Empty(t, said(moth, b("2", "wren", "juniper", "far", "10:45", "12:00")), "a drive that is not known is no clash")
	assert.Equal(t, []string{"1 2 clash.person 15"}, said(b("2", "wren", "juniper", "tarn", "10:30", "12:00"), moth))
	assert.Equal(t, []string{"1 2 clash.horse 15"}, said(moth, b("2", "sorrel", "moth", "tarn", "10:30", "12:00")))
	assert.Empty(t, said(moth, b("2", "sorrel", "moth", "tarn", "10:45", "12:00")))
	dentist := Booking{ID: "3", Who: "wren", Start: at("09:00"), End: at("10:10"), Busy: true}
	assert.Equal(t, []string{"3 1 clash.busy 10"}, said(moth, dentist))
	assert.Empty(t, said(dentist, Booking{ID: "4", Who: "wren", Start: at("09:00"), End: at("10:10"), Busy: true}))
}

// No clash is missed that a comparison of all with all finds.
func TestClashesAgainstAllPairs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var list []Booking
		day := time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC)
		for i := range rapid.IntRange(0, 12).Draw(t, "n") {
			start := day.Add(time.Duration(rapid.IntRange(0, 2000).Draw(t, "start")) * time.Minute)
			list = append(list, Booking{ID: fmt.Sprintf("%02d", i), Who: rapid.SampledFrom([]string{"", "wren", "sorrel"}).Draw(t, "who"), Horses: []string{rapid.SampledFrom([]string{"a", "b", "c"}).Draw(t, "horse")}, Start: start, End: start.Add(time.Duration(rapid.IntRange(1, 300).Draw(t, "for")) * time.Minute)})
		}
		want := 0
		for i, a := range list {
			for _, b := range list[i+1:] {
				over := math.Min(float64(a.End.Unix()), float64(b.End.Unix())) - math.Max(float64(a.Start.Unix()), float64(b.Start.Unix()))
				if over > 0 && (a.Who != "" && a.Who == b.Who || a.Horses[0] == b.Horses[0]) {
					want++
				}
			}
		}
		require.Len(t, Clashes(list, Roads{}), want)
	})
}

func BenchmarkTheOrderOfNineVisits(b *testing.B) {
	roads := Roads{Places: map[string]Place{"base": {54, -3}}}
	var stops []Stop
	for i := range 9 {
		yard := fmt.Sprint(i)
		roads.Places[yard] = Place{54 + float64(i*i%7)/20, -3 + float64(i*5%9)/15}
		stops = append(stops, Stop{Visit: yard, Yard: yard, Minutes: 45, Fixed: i%4 == 0, At: 500 + 60*i})
	}
	for b.Loop() {
		Run("base", 480, stops, roads)
	}
}

func Example() {
	roads := Roads{Typed: map[[2]string]int{{"base", "tarn"}: 24, {"base", "fallow"}: 50, {"tarn", "fallow"}: 38}}
	sheet := Run("base", 480, []Stop{
		{Visit: "Juniper", Yard: "fallow", Minutes: 45},
		{Visit: "Moth", Yard: "tarn", Minutes: 45, Fixed: true, At: 520},
	}, roads)
	for _, leg := range sheet.Legs {
		fmt.Println("leave", Clock(leg.Leave), "for", leg.Visit, "at", Clock(leg.Start))
	}
	fmt.Println("home at", Clock(sheet.Back), "after", sheet.Driving, "minutes of driving")
	// Output:
	// leave 08:11 for Moth at 08:40
	// leave 09:25 for Juniper at 10:03
	// home at 11:38 after 112 minutes of driving
}
