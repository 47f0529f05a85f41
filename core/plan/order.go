package plan

import (
	"cmp"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// settings reads the choices that change how the plan is built.
func (b *builder) settings() {
	choice, ok := b.cat.Methods.Choice("basics place")
	if !ok || !b.in.Choices.Setting(choice).Warns {
		return
	}
	if b.soft = b.in.Facts.FearUnlikely && b.in.Facts.DoneBefore; !b.soft {
		b.note("place", nil)
		b.undone = append(b.undone, Undone{Choice: choice.Key, Why: phrase.Of("plan.note.place", nil)})
	}
}

func (b *builder) note(key string, args phrase.Args) {
	b.notes = append(b.notes, phrase.Of("plan.note."+key, args))
}

// remarks says what holds for this horse whatever was chosen (parts 4 and 9).
func (b *builder) remarks(order []string) {
	f := b.in.Facts
	has := func(when func(catalog.Step) bool) bool {
		return slices.ContainsFunc(order, func(key string) bool {
			step, _ := b.cat.Step(key)
			return when(step)
		})
	}
	if f.InHand {
		b.note("in_hand", nil)
	}
	trailer := has(func(s catalog.Step) bool { return s.Trailer })
	if trailer && f.FearLikely {
		b.note("may_leave", nil)
	}
	if trailer && f.NoBacking {
		b.note("turn_out", nil)
	}
	if f.Spiral && has(func(s catalog.Step) bool { return s.Ridden }) {
		b.note("spiral", nil)
	}
	alone := has(func(s catalog.Step) bool { return s.Is(catalog.OwnerAlone) })
	if f.Alone != "" && trailer && !alone {
		b.note("alone", phrase.Args{"who": f.Alone})
	}
	if b.in.Choices.Homework > 0 && !b.in.Work.CanClear {
		b.note("homework", nil)
	}
	if a := b.in.Choices.Aid; a != nil {
		b.note("aid", phrase.Args{"what": a.What, "reason": a.Reason, "until": phrase.Date(a.Until)})
	}
}

// ordered puts the goals by safety, then date, then ease (the fewest steps to
// go first).
func (b *builder) ordered() []Goal {
	left := func(g Goal) int {
		n := 0
		b.walk(g, map[string]bool{}, func(key string) {
			if !b.met(key) && !b.seen(key) && !b.never(key) {
				n++
			}
		})
		return n
	}
	goals := slices.Clone(b.in.Goals)
	ease := map[horse.Problem]int{}
	for _, g := range goals {
		ease[g.Problem] = left(g)
	}
	b.levels = map[string]int{}
	const noDate = "9999"
	slices.SortStableFunc(goals, func(x, y Goal) int {
		return cmp.Or(
			cmp.Compare(y.Danger, x.Danger),
			cmp.Compare(cmp.Or(x.By, noDate), cmp.Or(y.By, noDate)),
			cmp.Compare(ease[x.Problem], ease[y.Problem]),
		)
	})
	return goals
}

// order lists the steps of all goals, each after what it stands on, once; and
// which problems each of them serves.
func (b *builder) order() ([]string, map[string][]horse.Problem) {
	var order []string
	serves := map[string][]horse.Problem{}
	all := map[string]bool{}
	for _, key := range b.in.First {
		b.walk(Goal{Until: key}, all, func(key string) {
			order = append(order, key)
			for _, g := range b.goals {
				serves[key] = append(serves[key], g.Problem)
			}
		})
	}
	for _, g := range b.goals {
		b.walk(g, map[string]bool{}, func(key string) {
			if !slices.Contains(serves[key], g.Problem) {
				serves[key] = append(serves[key], g.Problem)
			}
			if !all[key] {
				all[key] = true
				order = append(order, key)
			}
		})
	}
	return order, serves
}

// walk visits the steps of a goal's ladder up to the plank where the goal is
// reached, each after what it stands on. Under a step that is met, or lies below
// where the work starts, nothing is looked for; nor for what a kept step vouches
// for, unless it slipped (part 7).
func (b *builder) walk(g Goal, seen map[string]bool, visit func(key string)) {
	var climb func(key string)
	climb = func(key string) {
		if seen[key] {
			return
		}
		seen[key] = true
		needs := b.needs(key)
		for _, n := range needs {
			step, _ := b.cat.Step(n.Step)
			if n.Level > 0 && n.Level < step.Pass.Level && (b.levels[n.Step] == 0 || n.Level < b.levels[n.Step]) {
				b.levels[n.Step] = n.Level
			}
		}
		settled := b.met(key) || b.seen(key)
		for _, n := range needs {
			if b.slipped(n.Step) || !settled && (!b.vouches(n) || b.kept(n.Step)) {
				climb(n.Step)
			}
		}
		if step, ok := b.cat.Step(key); ok && step.Link == "" {
			visit(key)
		}
	}
	ladder, _ := b.cat.Ladder(g.Ladder)
	last, ok := b.cat.Step(g.Until)
	if ok && last.Ladder != ladder.Key || len(ladder.Steps) == 0 {
		climb(g.Until)
		return
	}
	if !ok {
		last = ladder.Steps[len(ladder.Steps)-1]
	}
	for _, step := range ladder.Steps[:last.Place+1] {
		if linked, ok := b.cat.Ladder(step.Link); ok {
			for _, s := range linked.Steps {
				climb(s.Key)
			}
			continue
		}
		if !step.Ridden || last.Ridden || g.Ridden {
			climb(step.Key)
		}
	}
}

// vouched lists the needs that a kept step vouches for, by step: all that it stands
// on (part 7).
func (b *builder) vouched() map[string][]catalog.Need {
	all := map[string][]catalog.Need{}
	var under func(key string)
	under = func(key string) {
		for _, n := range b.cat.Under(key) {
			had := len(all[n.Step]) > 0
			all[n.Step] = append(all[n.Step], n)
			if !had {
				under(n.Step)
			}
		}
	}
	for _, l := range b.cat.Ladders {
		for _, s := range l.Steps {
			if s.Link == "" && b.kept(s.Key) {
				under(s.Key)
			}
		}
	}
	return all
}

// vouches reports whether a kept step vouches for a need, at its level: one that
// needed no more than an understood step says no more of it.
func (b *builder) vouches(n catalog.Need) bool {
	return !b.slipped(n.Step) && slices.ContainsFunc(b.vouch[n.Step], func(v catalog.Need) bool {
		return (n.Understood || !v.Understood) && (n.Level == 0 || v.Level > 0 && v.Level <= n.Level) && (v.Zone.IsZero() || v.Zone == n.Zone)
	})
}
