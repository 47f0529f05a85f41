package plan

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func (b *builder) asks(key string) []horse.Ask {
	step, _ := b.cat.Step(key)
	return step.Asks()
}

func (b *builder) met(key string) bool {
	level := b.levels[key]
	return !slices.ContainsFunc(b.asks(key), func(a horse.Ask) bool {
		return !b.known[a].Meets(catalog.Need{Step: key, Level: level})
	})
}

// never reports whether a step is barred for good: it is not planned, and
// nothing waits for it.
func (b *builder) never(key string) bool { bl := b.blocks[key]; return bl != nil && bl.Never }

func (b *builder) kept(key string) bool {
	return b.met(key) && !slices.ContainsFunc(b.asks(key), func(a horse.Ask) bool { return b.known[a].State != horse.Kept })
}

// meets reports whether a need is met: by what is known, by the layout so far, by
// a kept step that vouches for it, or on a ladder of the goals by lying below where
// the work starts.
func (b *builder) meets(n catalog.Need) bool {
	if !slices.ContainsFunc(b.cat.AsksOf(n), func(a horse.Ask) bool { return !b.known[a].Meets(n) }) {
		return true
	}
	return !n.Kept && (b.done[n.Step] || b.seen(n.Step) || b.vouches(n))
}

// seenGood reports whether a foundation is good as an assessment saw it in person,
// and on which day: it is not taught again.
func (b *builder) seenGood(key string) (string, bool) {
	step, _ := b.cat.Step(key)
	on := ""
	if l, _ := b.cat.Ladder(step.Ladder); l.Kind != catalog.Foundation || !b.met(key) {
		return "", false
	}
	for _, a := range b.asks(key) {
		if k := b.known[a]; k.Source == horse.Seen {
			on = max(on, k.Assessed)
		}
	}
	return on, on != ""
}

// seen reports whether a step lies below where the work on its ladder starts. One
// that slipped is work all the same.
func (b *builder) seen(key string) bool {
	step, _ := b.cat.Step(key)
	start, ok := b.starts[step.Ladder]
	return ok && step.Place < start && !b.slipped(key)
}

func (b *builder) slipped(key string) bool {
	return slices.ContainsFunc(b.asks(key), func(a horse.Ask) bool { return b.known[a].State == horse.Slipped })
}

// below says why a step lies below where the work on its ladder starts: it was
// found accepted, and how that is known, or the start was chosen so.
func (b *builder) below(step catalog.Step) phrase.Message {
	for _, g := range b.goals {
		last, ok := b.cat.Step(g.Last)
		if g.Ladder == step.Ladder && ok && step.Place <= last.Place {
			return phrase.Of("plan.below."+g.Source.String(), nil)
		}
	}
	return phrase.Of("plan.below.chosen", nil)
}

// waitsFor lists the steps an item needs that are not met, and the foundations
// that are missing where that only warns.
func (b *builder) waitsFor(key string) (names, warns []string) {
	step, _ := b.cat.Step(key)
	own, _ := b.cat.Ladder(step.Ladder)
	for _, n := range b.missing(key) {
		needed, _ := b.cat.Step(n.Step)
		ladder, _ := b.cat.Ladder(needed.Ladder)
		name := assess.NameOf(b.cat, n.Step)
		if b.soft && ladder.Kind == catalog.Foundation && own.Kind == catalog.Problem {
			warns = append(warns, name)
			continue
		}
		names = append(names, name)
	}
	return names, warns
}

// needs lists all that a step stands on with this horse.
func (b *builder) needs(key string) []catalog.Need {
	needs := b.cat.Under(key)
	if step, _ := b.cat.Step(key); step.Ridden {
		for _, first := range b.in.Mounting {
			needs = append(needs, catalog.Need{Step: first})
		}
	}
	return slices.DeleteFunc(slices.Clone(needs), func(n catalog.Need) bool { return b.never(n.Step) })
}

// missing lists the needs of a step that are not met.
func (b *builder) missing(key string) []catalog.Need {
	return slices.DeleteFunc(b.needs(key), b.meets)
}
