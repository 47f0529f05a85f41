package progress

import (
	"cmp"
	"math"
	"slices"

	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trend"
)

// line is one measure of an ask; false where no session noted it.
func (r reader) line(ask horse.Ask, m Measure, of func(history.Figure) *float64, as func([]trend.Point) trend.Trend) (Line, bool) {
	l := Line{Ask: ask, Name: r.name(ask), Measure: m, Sessions: []string{}}
	var points []trend.Point
	r.each(ask, func(x int, f history.Figures, a history.Figure) {
		if v := of(a); v != nil {
			points, l.Sessions = append(points, trend.Point{X: x, Y: *v}), append(l.Sessions, f.Session)
		}
	})
	if len(points) == 0 {
		return l, false
	}
	l.Trend = as(points)
	l.Says = phrase.Of("progress.word."+wordKey(l), phrase.Args{"n": len(points)})
	return l, true
}

// wordKey is the key of a line's word: less of a level is lighter, of a time quicker.
func wordKey(l Line) string {
	kind := "time"
	if l.Measure == Level {
		kind = "level"
	}
	switch l.Trend.Word {
	case trend.Less:
		return kind + ".less"
	case trend.More:
		return kind + ".more"
	case trend.Same:
		return "same"
	case trend.NotClear:
		return "unclear"
	}
	return "early"
}

// certainty is how sure a trend's word is.
func certainty(t trend.Trend) Certainty {
	switch {
	case t.Sure():
		return Sure
	case t.Word == trend.NotClear:
		return NotClear
	}
	return TooEarly
}

// place orders lines: worse, better, the same, not clear, too early.
var place = map[trend.Word]int{trend.More: 0, trend.Less: 1, trend.Same: 2, trend.NotClear: 3, trend.TooEarly: 4}

func (r reader) feel(asks []horse.Ask) Felt {
	f := Felt{Lines: []Line{}}
	for _, ask := range asks {
		for _, m := range []struct {
			Measure
			of func(history.Figure) *float64
			as func([]trend.Point) trend.Trend
		}{
			{Level, func(a history.Figure) *float64 { return a.Level }, trend.OfLevels},
			{toTry, func(a history.Figure) *float64 { return a.ToTry }, trend.OfTimes},
			{letDown, func(a history.Figure) *float64 { return a.LetDown }, trend.OfTimes},
		} {
			if l, ok := r.line(ask, m.Measure, m.of, m.as); ok {
				f.Lines = append(f.Lines, l)
			}
		}
	}
	slices.SortStableFunc(f.Lines, func(a, b Line) int {
		return cmp.Or(
			cmp.Compare(place[a.Trend.Word], place[b.Trend.Word]),
			cmp.Compare(a.Measure.Rank(), b.Measure.Rank()),
			cmp.Compare(math.Abs(b.Trend.To-b.Trend.From), math.Abs(a.Trend.To-a.Trend.From)),
			cmp.Compare(len(b.Sessions), len(a.Sessions)),
		)
	})
	f.Finding = feelSays(f.Lines)
	return f
}

// feelSays is what the first line says.
func feelSays(lines []Line) Finding {
	if len(lines) == 0 {
		return Finding{phrase.Of("progress.feel.none", nil), TooEarly, phrase.Of("progress.none.means", nil)}
	}
	l := lines[0]
	of := func(w trend.Word) (n int) {
		for _, one := range lines {
			if one.Trend.Word == w {
				n++
			}
		}
		return n
	}
	ends := l.Trend.Points
	args := phrase.Args{"ask": l.Name, "from": shown(l, ends[0].Y), "to": shown(l, ends[len(ends)-1].Y), "sessions": len(l.Sessions), "least": 4}
	means := phrase.Of("progress.means."+certaintyKey(certainty(l.Trend)), args)
	switch n := of(trend.Less); {
	case l.Trend.Word == trend.More && n > 0:
		means = phrase.Of("progress.means.some_better", phrase.Args{"n": n})
	case l.Trend.Word == trend.Less && n > 1:
		means = phrase.Of("progress.means.all_better", phrase.Args{"n": n - 1})
	}
	return Finding{phrase.Of("progress.feel."+wordKey(l), args), certainty(l.Trend), means}
}

func certaintyKey(c Certainty) string {
	return map[Certainty]string{Sure: "sure", NotClear: "unclear", TooEarly: "early"}[c]
}

// shown is a line's number as it is said: a level whole, seconds from ten on whole.
func shown(l Line, v float64) float64 {
	if l.Measure == Level || v >= 10 {
		return math.Round(v)
	}
	return math.Round(v*10) / 10
}
