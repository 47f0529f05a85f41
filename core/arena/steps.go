package arena

import (
	"cmp"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// close closes a step and those above it for the session, on both sides; a
// foundation closes the ladders that stand on it too.
func (s *session) close(key string) {
	step, ok := s.cat.Step(key)
	if !ok {
		return
	}
	ladder, _ := s.cat.Ladder(step.Ladder)
	for _, above := range ladder.Steps[step.Place:] {
		if s.closed[above.Key] {
			continue
		}
		s.closed[above.Key] = true
		for _, l := range s.cat.StandingOn(above.Key) {
			if standing, ok := s.cat.Ladder(l); ok && len(standing.Steps) > 0 {
				s.close(standing.Steps[0].Key)
			}
		}
	}
}

// shut reports whether the advice may not name a step: it is closed for the session
// or a fact speaks against it, and nobody answers for it; or it is only a link.
func (s *session) shut(key string) bool {
	step, ok := s.cat.Step(key)
	_, answered := s.answered[key]
	return !ok || step.Link != "" || !answered && s.forbids(step) != nil
}

// passedAsk reports whether an ask is met or kept, before or today, at the
// level wanted (0: its own).
func (s *session) passedAsk(a horse.Ask, level int) bool {
	k := s.known[a]
	if k.Passed() && (level == 0 || k.Level.Noted() && k.Level.Int() <= level) {
		return true
	}
	got, today := s.passed[a]
	return today && (level == 0 || got <= level)
}

// openAsk is the step's ask nearest to a variant that waits for nothing; false where
// each does, or the step is shut.
func (s *session) openAsk(step catalog.Step, like horse.Variant) (horse.Ask, bool) {
	if s.shut(step.Key) {
		return horse.Ask{}, false
	}
	asks := append([]horse.Ask{{Step: step.Key, Variant: s.variantFor(step, like)}}, step.Asks()...)
	i := slices.IndexFunc(asks, func(a horse.Ask) bool { return len(s.waits(a)) == 0 })
	if i < 0 {
		return horse.Ask{}, false
	}
	return asks[i], true
}

// has reports whether a need is met, by what was known or by today's work.
func (s *session) has(n catalog.Need) bool {
	return !slices.ContainsFunc(s.cat.AsksOf(n), func(a horse.Ask) bool {
		if s.known[a].Meets(n) {
			return false
		}
		if n.Understood && (s.concluded[a] || understood(s.repsOf(a))) {
			return false
		}
		return n.Kept || !s.passedAsk(a, n.Level)
	})
}

// understood: 2 of the last 3 answers a try or better, at level 6 or less
// (part 5).
func understood(reps []told) bool {
	seen := make([]bool, 0, 3)
	for _, t := range reps[max(len(reps)-3, 0):] {
		seen = append(seen, fair(t.answer, t.Peak))
	}
	return Understood(seen)
}

// Understood reports whether two of the last three answers, which are given as
// fair or not, make an ask understood.
func Understood(fair []bool) bool {
	n := 0
	for _, f := range fair {
		n += btoi(f)
	}
	return n >= 2
}

func (s *session) lastVariant() horse.Variant {
	if n := len(s.reps); n > 0 {
		return s.reps[n-1].Variant
	}
	return s.in.Ask.Variant
}

// variantFor chooses the step's variant nearest to one worked before: the
// same, else the same side, else the first that is not passed.
func (s *session) variantFor(step catalog.Step, like horse.Variant) horse.Variant {
	if len(step.Variants) == 0 {
		return horse.Variant{}
	}
	if slices.Contains(step.Variants, like) {
		return like
	}
	for _, v := range step.Variants {
		if !like.Side.IsZero() && v.Side == like.Side {
			return v
		}
	}
	for _, v := range step.Variants {
		if !s.passedAsk(horse.Ask{Step: step.Key, Variant: v}, 0) {
			return v
		}
	}
	return step.Variants[0]
}

// startFor is the value an ask begins at today: the start, or the last value
// where it is already passed.
func (s *session) startFor(a horse.Ask, step catalog.Step) int {
	if s.known[a].Passed() {
		return s.lastValue(step)
	}
	return step.Start()
}

// valueNow is the value the ask stands at: as last worked today, else where
// it starts.
func (s *session) valueNow(a horse.Ask, step catalog.Step) int {
	for i := len(s.reps) - 1; i >= 0; i-- {
		if s.reps[i].Ask == a {
			return s.reps[i].Target
		}
	}
	return s.startFor(a, step)
}

// lower finds the ask n steps below: further down the ladder, then the last
// foundation the ladder stands on; shut steps are passed over.
func (s *session) lower(from horse.Ask, n int) (horse.Ask, bool) {
	step, ok := s.cat.Step(from.Step)
	if !ok {
		return horse.Ask{}, false
	}
	found, any := from, false
	for ; n > 0; n-- {
		next, ok := s.oneLower(found)
		if !ok {
			break
		}
		found, any = next, true
	}
	if !any {
		return horse.Ask{}, false
	}
	if found.Step == step.Key {
		return horse.Ask{}, false
	}
	return found, true
}

func (s *session) oneLower(from horse.Ask) (horse.Ask, bool) {
	step, _ := s.cat.Step(from.Step)
	ladder, _ := s.cat.Ladder(step.Ladder)
	ask := func(key string) (horse.Ask, bool) {
		if s.shut(key) {
			return horse.Ask{}, false
		}
		lower, _ := s.cat.Step(key)
		a := horse.Ask{Step: key, Variant: s.variantFor(lower, from.Variant)}
		return a, !s.spoiltEasy[a]
	}
	for i := step.Place - 1; i >= 0; i-- {
		if a, ok := ask(ladder.Steps[i].Key); ok {
			return a, true
		}
	}
	for _, n := range slices.Backward(s.cat.Piers(ladder)) {
		if a, ok := ask(n.Step); ok {
			return a, true
		}
	}
	return horse.Ask{}, false
}

// easyKnown is an ask that is met, light and near at hand, to finish on: a
// kept one before a met one, the lightest first, in the catalogue's order.
func (s *session) easyKnown(not horse.Ask) *horse.Ask {
	var best *horse.Ask
	bestRank := [2]int{}
	try := func(a horse.Ask) {
		step, ok := s.cat.Step(a.Step)
		if !ok || a.Step == not.Step || s.shut(a.Step) || s.spoiltEasy[a] || !s.passedAsk(a, easyLevel) || !s.cat.HasAsk(a) {
			return
		}
		if ladder, _ := s.cat.Ladder(step.Ladder); ladder.Kind != catalog.Foundation {
			return
		}
		rank := [2]int{1, s.known[a].Level.Int()}
		if s.known[a].State == horse.Kept {
			rank[0] = 0
		}
		if best == nil || cmp.Or(slices.Compare(rank[:], bestRank[:]), s.cat.Compare(a, *best)) < 0 {
			best, bestRank = &a, rank
		}
	}
	for a := range s.known {
		try(a)
	}
	for a := range s.passed {
		try(a)
	}
	return best
}

// refocus is the ask that brings a horse's mind back before anything else; where
// there is none, the same again.
func (s *session) refocus(same horse.Ask) horse.Ask {
	for _, step := range s.cat.With(catalog.Refocuses) {
		return step.Asks()[0]
	}
	return same
}

// easyLevel is the level up to which a known ask is easy to finish on.
const easyLevel = 3

// unpassedVariant is another side, zone, direction or place of the step that
// is not passed yet. Of zones, all of one side come first, the nearest first
// (rule 12).
func (s *session) unpassedVariant(a horse.Ask, level int) (horse.Ask, bool) {
	step, _ := s.cat.Step(a.Step)
	var found []horse.Ask
	for _, b := range step.Asks() {
		if b != a && !s.passedAsk(b, level) {
			found = append(found, b)
		}
	}
	if len(found) == 0 {
		return horse.Ask{}, false
	}
	if a.Variant.Zone.IsZero() {
		return found[0], true
	}
	away := func(b horse.Ask) [2]int {
		zones := b.Variant.Zone.Rank() - a.Variant.Zone.Rank()
		return [2]int{btoi(b.Variant.Side != a.Variant.Side), max(zones, -zones)}
	}
	return slices.MinFunc(found, func(b, c horse.Ask) int {
		x, y := away(b), away(c)
		return slices.Compare(x[:], y[:])
	}), true
}

// nextOpen is the next step up the ladder that is open.
func (s *session) nextOpen(from horse.Ask) (horse.Ask, bool) {
	step, _ := s.cat.Step(from.Step)
	ladder, _ := s.cat.Ladder(step.Ladder)
	for _, above := range ladder.Steps[step.Place+1:] {
		if a, ok := s.openAsk(above, from.Variant); ok {
			return a, true
		}
	}
	return horse.Ask{}, false
}
