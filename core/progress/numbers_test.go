package progress

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/track"
	"ivorybridge/core/trend"
)

var hindquarters = horse.Ask{Step: "control.disengage", Variant: horse.Variant{Side: horse.Near}}

// at is an ask in one session, at a level.
func at(a horse.Ask, l float64) history.Figure {
	return history.Figure{Ask: a, Answers: [5]int{1, 0, 0, 3, 0}, Leveled: 4, Level: &l}
}

// sessions are one a week, each with these asks.
func sessions(each ...[]history.Figure) []history.Figures {
	var list []history.Figures
	for i, asks := range each {
		list = append(list, history.Figures{Session: fmt.Sprint("s", i+1), On: fmt.Sprintf("2026-%02d-%02d", 6+i/4, 1+7*(i%4)), Asks: asks})
	}
	return list
}

func levels(a horse.Ask, ls ...float64) []history.Figures {
	var each [][]history.Figure
	for _, l := range ls {
		each = append(each, []history.Figure{at(a, l)})
	}
	return sessions(each...)
}

func of(t testing.TB, all []history.Figures, by Choice) Numbers {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	n := NumbersOf(c, all, by)
	assert.Empty(t, aloud.Faults(phrase.English(phrase.Shipped), n))
	return n
}

func said(m phrase.Message) string { return phrase.English(phrase.Shipped).Say(m) }

func TestWhatGotLighter(t *testing.T) {
	n := of(t, levels(hindquarters, 5, 5, 4, 3, 2, 2), Choice{})
	assert.Equal(t, "Since 1 June: 6 sessions, 24 tries, 1 ask.", said(n.Says))
	require.Len(t, n.Feel.Lines, 1)
	assert.Contains(t, said(n.Feel.Says), ", near: lighter, 5 → 2.")
	assert.Equal(t, Sure, n.Feel.How)
	assert.Equal(t, "Over 6 sessions.", said(n.Feel.Means))
	assert.Equal(t, []string{"s1", "s2", "s3", "s4", "s5", "s6"}, n.Feel.Lines[0].Sessions)
	assert.Equal(t, "3 of 4 soft, at 5", said(n.Before[0].Before))
	assert.Equal(t, [5]int{1, 0, 0, 3, 0}, n.Heaps[0].Answers)
	assert.Equal(t, "Only one side was asked.", said(n.Sides.Says))
	assert.Equal(t, "Nothing was looked at again yet.", said(n.Lasts.Says))
}

// What got worse comes first, though something else got better by more.
func TestWhatGotHeavierComesFirst(t *testing.T) {
	back := horse.Ask{Step: "lead.back"}
	var each [][]history.Figure
	for i := range 5 {
		each = append(each, []history.Figure{at(hindquarters, float64(8-i)), at(back, float64(2+i))})
	}
	n := of(t, sessions(each...), Choice{})
	assert.Contains(t, said(n.Feel.Says), "heavier, 2 → 6")
	assert.Equal(t, "1 other line got better.", said(n.Feel.Means))
	assert.Equal(t, []trend.Word{trend.More, trend.Less}, []trend.Word{n.Feel.Lines[0].Trend.Word, n.Feel.Lines[1].Trend.Word})
	n = of(t, sessions(each...), Choice{Step: "lead.back"})
	assert.Len(t, n.Feel.Lines, 1)
	assert.Equal(t, 20, n.Tries, "of the step alone")
	n = of(t, sessions(each...), Choice{Since: "2026-06-15"})
	assert.Equal(t, trend.TooEarly, n.Feel.Lines[0].Trend.Word, "three sessions since then")
}

func TestTheSides(t *testing.T) {
	off := hindquarters
	off.Variant.Side = horse.Off
	both := func(pairs ...[2]float64) []history.Figures {
		var each [][]history.Figure
		for _, p := range pairs {
			each = append(each, []history.Figure{at(hindquarters, p[0]), at(off, p[1])})
		}
		return sessions(each...)
	}
	for name, c := range map[string]struct {
		all []history.Figures
		say string
		how Certainty
	}{
		"off behind":             {both([2]float64{3, 6}, [2]float64{3, 5}, [2]float64{2, 4}, [2]float64{2, 4}), "The off side takes more: 2 levels at ", Sure},
		"near behind":            {both([2]float64{6, 3}, [2]float64{5, 3}, [2]float64{4, 2}, [2]float64{3, 2}), "The near side takes more: 1 level at ", Sure},
		"alike":                  {both([2]float64{3, 3}, [2]float64{3, 3.5}, [2]float64{2, 2}, [2]float64{2, 2}), "Both sides take the same feel.", Sure},
		"now one, now other":     {both([2]float64{3, 6}, [2]float64{5, 3}, [2]float64{2, 4}, [2]float64{2, 4}), "The off side takes more", NotClear},
		"three sessions of both": {both([2]float64{3, 6}, [2]float64{3, 6}, [2]float64{3, 6}), "Too early to compare the sides.", TooEarly},
	} {
		n := of(t, c.all, Choice{})
		assert.Contains(t, said(n.Sides.Says), c.say, name)
		assert.Equal(t, c.how, n.Sides.How, name)
	}
}

func TestWhatLasts(t *testing.T) {
	look := func(days int, kept bool) history.Figures {
		return history.Figures{Session: "s", On: "2026-06-01", Checks: []history.Check{{Ask: hindquarters, Days: days, Kept: kept}}}
	}
	many := func(n int, one history.Figures) (list []history.Figures) {
		for range n {
			list = append(list, one)
		}
		return list
	}
	for name, c := range map[string]struct {
		all []history.Figures
		say string
		how Certainty
	}{
		"a look":    {many(1, look(2, true)), "It lasts: 1 of 1 kept, the longest 2 to 3 days.", TooEarly},
		"none kept": {many(4, look(1, false)), "It did not last: 0 of 4 kept.", Sure},
		"a week":    {append(many(3, look(3, false)), many(3, look(4, true))...), "It lasts: 3 of 6 kept, the longest 4 to 13 days.", NotClear},
		"two weeks": {append(many(9, look(13, true)), look(14, true)), "It lasts over two weeks: 10 of 10 kept.", Sure},
	} {
		n := of(t, c.all, Choice{})
		assert.Equal(t, c.say, said(n.Lasts.Says), name)
		assert.Equal(t, c.how, n.Lasts.How, name)
	}
	n := of(t, []history.Figures{look(1, true), look(2, true), look(3, false), look(4, true), look(13, true), look(14, false)}, Choice{})
	var in []int
	for _, g := range n.Lasts.Gaps {
		in = append(in, len(g.Checks))
	}
	assert.Equal(t, []int{1, 2, 2, 1}, in)
}

// Of ten releases eight on the try are well; under that it is said what to practise.
func TestHowReleasesCame(t *testing.T) {
	hand := func(person string, on, late, wrong int) []history.Figures {
		f := at(hindquarters, 3)
		f.Hands = []history.Timing{{Person: person, Of: on + late + wrong, OnTry: on, Late: late, Wrong: wrong, Starts: on, FromOne: on}}
		return sessions([]history.Figure{f}, []history.Figure{f})
	}
	for name, c := range map[string]struct {
		all []history.Figures
		say string
	}{
		"well":     {hand("wren", 4, 1, 0), "8 of 10 releases came on the try."},
		"late":     {hand("wren", 3, 2, 0), "6 of 10 releases came on the try, 4 late: let go sooner."},
		"wrong":    {hand("wren", 3, 1, 1), "6 of 10 releases came on the try: wait for it."},
		"too few":  {hand("wren", 4, 0, 0), "8 releases so far: too early to say."},
		"just ten": {hand("wren", 5, 0, 0), "10 of 10 releases came on the try."},
	} {
		n := of(t, c.all, Choice{})
		require.Len(t, n.Hands, 1, name)
		assert.Equal(t, c.say, said(n.Hands[0].Says), name)
		assert.Len(t, n.Hands[0].Points, 2, name)
	}
	n := of(t, append(hand("ines", 1, 0, 0), hand("wren", 2, 0, 0)...), Choice{})
	assert.Equal(t, []string{"wren", "ines"}, []string{n.Hands[0].Person, n.Hands[1].Person}, "who held most comes first")
}

func TestNothingLoggedSaysNothing(t *testing.T) {
	n := of(t, nil, Choice{})
	assert.Equal(t, "No session has counted a try yet.", said(n.Says))
	assert.Equal(t, "Nothing to compare yet.", said(n.Feel.Says))
	assert.Equal(t, TooEarly, n.Feel.How)
	text, err := json.Marshal(n)
	require.NoError(t, err)
	assert.NotContains(t, string(text), "null")
}

// Whatever was logged, all of it can be said aloud, and fewer than four sessions are
// always too early.
func TestWhateverWasLoggedCanBeSaid(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	steps := []string{"control.disengage", "lead.back", "lead.forward", "load.first"}
	rapid.Check(t, func(t *rapid.T) {
		var each [][]history.Figure
		for range rapid.IntRange(0, 8).Draw(t, "sessions") {
			var asks []history.Figure
			for _, key := range steps {
				step, _ := c.Step(key)
				for _, a := range step.Asks() {
					if rapid.Bool().Draw(t, "worked") {
						f := at(a, float64(rapid.IntRange(0, 10).Draw(t, "level")))
						if rapid.Bool().Draw(t, "timed") {
							s := rapid.Float64Range(0, 300).Draw(t, "seconds")
							f.ToTry = &s
						}
						asks = append(asks, f)
					}
				}
			}
			each = append(each, asks)
		}
		n := NumbersOf(c, sessions(each...), Choice{})
		if faults := aloud.Faults(phrase.English(phrase.Shipped), n); len(faults) > 0 {
			t.Fatal(faults)
		}
		for _, l := range n.Feel.Lines {
			if (len(l.Sessions) < 4) != (l.Trend.Word == trend.TooEarly) {
				t.Fatalf("%d sessions are %s", len(l.Sessions), l.Trend.Word)
			}
		}
	})
}

// The figures of a session are those of its counted reps; one that was not noticed
// changes nothing, nor does the order in which they stand.
func TestFiguresOfASession(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	rep := func(i int, answer horse.Answer, peak int, flags ...horse.Flag) track.Entry {
		return track.Entry{ID: fmt.Sprint("e", i), Kind: track.KindRep, At: int64(i) * 30_000, Rep: &track.Rep{Ask: hindquarters, Answer: answer, Peak: horse.LevelOf(peak), Start: horse.LevelOf(1), Arousal: horse.ArousalOf(1), Flags: flags}}
	}
	figures := func(entries ...track.Entry) history.Figure {
		d := track.Day{ID: "s", Date: "2026-06-01", Handler: "wren", Track: entries}
		_, reps, visit := history.History{}.Read(c, history.Beside{}, d)
		f := history.FiguresOf(c, d, reps, visit)
		require.Len(t, f.Asks, 1)
		return f.Asks[0]
	}
	one := figures(rep(1, horse.Refused, 6), rep(2, horse.Try, 4), rep(3, horse.Accepted, 2), rep(4, horse.Accepted, 3))
	assert.Equal(t, [5]int{1, 1, 0, 2, 0}, one.Answers)
	assert.Equal(t, []any{3.5, 4, 2, 2}, []any{*one.Level, one.Leveled, one.Light, one.Soft()})
	assert.Equal(t, []history.Timing{{Person: "wren", Of: 4, OnTry: 4, Starts: 4, FromOne: 4}}, one.Hands)
	unseen := rep(5, horse.Refused, 9, horse.NotNoticed)
	assert.Equal(t, one, figures(rep(1, horse.Refused, 6), rep(2, horse.Try, 4), unseen, rep(3, horse.Accepted, 2), rep(4, horse.Accepted, 3)))
}
