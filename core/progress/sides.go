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

// leastBoth is in how many sessions both sides must have been asked before anything
// is said of them (part 8).
const leastBoth = 4

func (r reader) sides(asks []horse.Ask) Sides {
	s := Sides{Pairs: []Pair{}}
	for _, near := range asks {
		off := near
		if off.Variant.Side = horse.Off; near.Variant.Side != horse.Near || !slices.Contains(asks, off) {
			continue
		}
		if p, ok := r.pair(near, off); ok {
			s.Pairs = append(s.Pairs, p)
		}
	}
	slices.SortStableFunc(s.Pairs, func(a, b Pair) int {
		return cmp.Or(cmp.Compare(a.How.Rank(), b.How.Rank()), cmp.Compare(math.Abs(b.Behind()), math.Abs(a.Behind())))
	})
	s.Finding = sidesSay(s.Pairs)
	return s
}

// pair compares the sides over the sessions that asked both with a level.
func (r reader) pair(near, off horse.Ask) (Pair, bool) {
	step, _ := r.c.Step(near.Step)
	p, more, less, both := Pair{Step: near.Step, Name: phrase.Slotted(step.FullName())}, 0, 0, 0
	for _, f := range r.sessions {
		a, b := levelOf(f, near), levelOf(f, off)
		if a == nil || b == nil {
			continue
		}
		if both++; both == 1 {
			p.Near.First, p.Off.First = *a, *b
		}
		p.Near.Now, p.Off.Now = *a, *b
		switch {
		case *b-*a >= 1:
			more++
		case *a-*b >= 1:
			less++
		}
	}
	p.How = TooEarly
	if both >= leastBoth {
		if p.How = NotClear; more == both || less == both || more+less == 0 {
			p.How = Sure
		}
	}
	return p, both > 0
}

func levelOf(f history.Figures, ask horse.Ask) *float64 {
	i := slices.IndexFunc(f.Asks, func(a history.Figure) bool { return a.Ask == ask })
	if i < 0 {
		return nil
	}
	return f.Asks[i].Level
}

func sidesSay(pairs []Pair) Finding {
	if len(pairs) == 0 {
		return Finding{phrase.Of("progress.sides.none", nil), TooEarly, phrase.Of("progress.sides.none.means", nil)}
	}
	p := pairs[0]
	levels := math.Round(math.Abs(p.Behind()))
	key := "alike"
	switch {
	case p.How == TooEarly:
		key = "early"
	case levels >= 1 && p.Behind() > 0:
		key = "off"
	case levels >= 1:
		key = "near"
	}
	says := phrase.Of("progress.sides."+key, phrase.Args{"step": p.Name, "n": levels})
	return Finding{says, p.How, phrase.Of("progress.sides.means."+certaintyKey(p.How), phrase.Args{"least": leastBoth})}
}

// gaps are the days between that are told apart (part 8).
var gaps = []struct {
	from int
	key  string
}{{1, "progress.gap.day"}, {2, "progress.gap.days"}, {4, "progress.gap.week"}, {14, "progress.gap.long"}}

// Of checks: fewer than so many say nothing, and an interval no wider than so leaves
// little doubt.
const (
	leastChecks = 4
	narrow      = 0.4
)

func (r reader) lasts() Lasts {
	l := Lasts{Gaps: make([]Gap, len(gaps))}
	for i, g := range gaps {
		l.Gaps[i] = Gap{Says: phrase.Of(g.key, nil), From: g.from, Checks: []Looked{}}
	}
	kept, all, longest := 0, 0, -1
	for _, f := range r.sessions {
		for _, c := range f.Checks {
			if !r.wants(c.Ask) {
				continue
			}
			i := len(gaps) - 1
			for gaps[i].from > c.Days {
				i--
			}
			g := &l.Gaps[i]
			g.Checks = append(g.Checks, Looked{Name: r.name(c.Ask), On: f.On, Session: f.Session, Kept: c.Kept})
			if all++; c.Kept {
				kept++
				g.Kept++
				longest = max(longest, i)
			}
		}
	}
	l.Share = trend.ShareOf(kept, all)
	l.Finding = lastsSay(l, longest)
	return l
}

func lastsSay(l Lasts, longest int) Finding {
	how := NotClear
	switch {
	case l.Share.Of < leastChecks:
		how = TooEarly
	case l.Share.High-l.Share.Low <= narrow:
		how = Sure
	}
	args := phrase.Args{"kept": l.Share.Some, "of": l.Share.Of, "low": int(math.Round(10 * l.Share.Low)), "high": int(math.Round(10 * l.Share.High))}
	means := phrase.Of("progress.lasts.means", args)
	switch {
	case how == TooEarly:
		means = phrase.Of("progress.lasts.means.early", args)
	case args["low"] == args["high"]:
		means = phrase.Of("progress.lasts.means.all", args)
	}
	switch {
	case l.Share.Of == 0:
		return Finding{phrase.Of("progress.lasts.none", nil), TooEarly, phrase.Of("progress.lasts.none.means", nil)}
	case longest < 0:
		return Finding{phrase.Of("progress.lasts.not", args), how, means}
	case longest == len(gaps)-1:
		return Finding{phrase.Of("progress.lasts.long", args), how, means}
	}
	args["gap"] = l.Gaps[longest].Says
	return Finding{phrase.Of("progress.lasts", args), how, means}
}
