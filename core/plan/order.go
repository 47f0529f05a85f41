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

// walk visits the steps of a goal's ladder up to the last one wanted, each
// after what it stands on.
func (b *builder) walk(g Goal, seen map[string]bool, visit func(key string)) {
	var climb func(key string)
	climb = func(key string) {
		if seen[key] {
			return
		}
		seen[key] = true
		for _, n := range b.needs(key) {
			step, _ := b.cat.Step(n.Step)
			if n.Level > 0 && n.Level < step.Pass.Level && (b.levels[n.Step] == 0 || n.Level < b.levels[n.Step]) {
				b.levels[n.Step] = n.Level
			}
			climb(n.Step)
		}
		if step, ok := b.cat.Step(key); ok && step.Link == "" {
			visit(key)
		}
	}
	if _, ok := b.cat.Step(g.Until); ok {
		climb(g.Until)
		return
	}
	ladder, _ := b.cat.Ladder(g.Ladder)
	for _, step := range ladder.Steps {
		if linked, ok := b.cat.Ladder(step.Link); ok {
			for _, s := range linked.Steps {
				climb(s.Key)
			}
			continue
		}
		climb(step.Key)
	}
}
