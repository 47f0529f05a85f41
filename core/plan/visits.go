package plan

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// PartKind says what a part of a visit is.
type PartKind string

// The parts of a visit.
const (
	Readiness  PartKind = "readiness"
	TuneIn     PartKind = "foundation block"
	Block      PartKind = "ladder block"
	EasyEnd    PartKind = "easy end"
	OwnersTurn PartKind = "owner's turn"
	Rehearse   PartKind = "rehearsal on a person"
)

// A Part of a visit.
type Part struct {
	Kind    PartKind     `json:"kind" doc:"what kind of part"`
	Steps   []string     `json:"steps,omitempty" doc:"keys"`
	Names   []string     `json:"names,omitempty" doc:"names of its steps"`
	School  horse.School `json:"school,omitzero" doc:"the way of working"`
	Warns   []string     `json:"warns,omitempty" doc:"foundations that are missing"`
	Minutes int          `json:"minutes" doc:"how long it takes"`
}

// A Visit is laid out, not dated.
type Visit struct {
	N       int              `json:"n" doc:"number of the visit, from 1"`
	Parts   []Part           `json:"parts" doc:"what is done, in order"`
	Minutes int              `json:"minutes" doc:"how long it takes"`
	Kit     []string         `json:"kit" doc:"what to bring"`
	Helpers []phrase.Slotted `json:"helpers" doc:"second persons that its steps need, and what they do"`
}

const (
	readyMinutes   = 1
	easyMinutes    = 3
	ownerMinutes   = 5
	leastMinutes   = 5
	knownTuneIn    = 5
	mostRehearsals = 2 // steps in one visit
)

// visits lays the open items out, each filled to the length that the trainer drives
// for: foundations to tune in, then one or two blocks on a ladder. A step is taken
// as met by what follows once its time was given to it.
func (b *builder) visits(items []Item, n int) []Visit {
	block, most := b.cat.Rules.BlockMinutes, b.cat.Rules.SessionCap
	if b.in.Young {
		block, most = b.cat.Rules.BlockMinutesYoung, b.cat.Rules.SessionCapYoung
	}
	most = min(most, b.in.Choices.Length())
	spent := map[string]int{}
	visits := []Visit{}
	for v := range n {
		visit := Visit{N: v + 1, Parts: []Part{{Kind: Readiness, Minutes: readyMinutes}}, Kit: []string{}, Helpers: []phrase.Slotted{}}
		owner := b.ownersPart()
		left := most - readyMinutes - easyMinutes
		if owner != nil {
			left -= owner.Minutes
		}
		today := map[string]bool{}
		add := func(kind PartKind, keep int) bool {
			part, ok := b.part(kind, items, spent, today, min(block, left-keep))
			if ok {
				visit.Parts = append(visit.Parts, part)
				left -= part.Minutes
			}
			return ok
		}
		work := 0
		keep := 0 // for the ladder, where a step of it can be worked
		if b.climbs(items) {
			keep = block
		}
		for add(TuneIn, keep) {
			work++
		}
		if work == 0 && b.tunesIn(&visit, left) {
			left -= visit.Parts[len(visit.Parts)-1].Minutes
		}
		for range mostBlocks {
			if add(Block, 0) {
				work++
			}
		}
		if work == 0 {
			break
		}
		visit.Parts = append(visit.Parts, b.easyEnd())
		if owner != nil {
			visit.Parts = append(visit.Parts, *owner)
		}
		b.equip(&visit)
		visits = append(visits, visit)
	}
	return visits
}

// climbs reports whether a step of a problem ladder can be worked as things stand.
func (b *builder) climbs(items []Item) bool {
	return slices.ContainsFunc(items, func(i Item) bool {
		ladder, _ := b.cat.Ladder(i.Ladder)
		if ladder.Kind == catalog.Foundation || b.done[i.Step] || i.Blocked != nil || b.seen(i.Step) {
			return false
		}
		waits, _ := b.waitsFor(i.Step)
		return len(waits) == 0
	})
}

// mostBlocks are the blocks on a ladder in one visit.
const mostBlocks = 2

// part fills one part of a visit: the foundation that comes next, or the open steps
// of one ladder, until its minutes are used.
func (b *builder) part(kind PartKind, items []Item, spent map[string]int, today map[string]bool, minutes int) (Part, bool) {
	part, on := Part{Kind: kind}, ""
	for _, i := range items {
		left := minutes - part.Minutes
		if left < leastMinutes {
			break
		}
		step, _ := b.cat.Step(i.Step)
		ladder, _ := b.cat.Ladder(step.Ladder)
		if b.done[i.Step] || today[i.Step] || i.Blocked != nil || b.seen(i.Step) || spent[i.Step] >= b.minutes(step) {
			continue
		}
		waits, warns := b.waitsFor(i.Step)
		if len(waits) > 0 || (kind == TuneIn) != (ladder.Kind == catalog.Foundation) || on != "" && on != ladder.Key {
			continue
		}
		m := min(left, max(b.minutes(step)-spent[i.Step], 1))
		spent[i.Step] += m
		today[i.Step] = true
		on = ladder.Key
		b.done[i.Step] = spent[i.Step] >= b.minutes(step)
		part.Steps, part.Names = append(part.Steps, i.Step), append(part.Names, assess.NameOf(b.cat, i.Step))
		part.School, part.Minutes, part.Warns = b.way(ladder.Key, nil).School, part.Minutes+m, append(part.Warns, warns...)
	}
	return part, len(part.Steps) > 0
}

// tunesIn begins a visit with a foundation that is met, where none is left to do.
func (b *builder) tunesIn(v *Visit, minutes int) bool {
	step, ok := b.easy()
	if !ok || minutes < leastMinutes {
		return false
	}
	v.Parts = append(v.Parts, Part{
		Kind: TuneIn, Steps: []string{step.Key}, Names: []string{assess.NameOf(b.cat, step.Key)}, School: b.way(step.Ladder, nil).School, Minutes: min(minutes, knownTuneIn),
	})
	return true
}

// easy is a foundation that is met and open: the first of the catalogue.
func (b *builder) easy() (catalog.Step, bool) {
	for _, l := range b.cat.Ladders {
		for _, step := range l.Steps {
			if l.Kind != catalog.Foundation || !b.done[step.Key] || b.blocks[step.Key] != nil {
				continue
			}
			if waits, _ := b.waitsFor(step.Key); len(waits) == 0 {
				return step, true
			}
		}
	}
	return catalog.Step{}, false
}

// easyEnd is one easy known thing to end on; which one is left open where
// nothing is known yet.
func (b *builder) easyEnd() Part {
	p := Part{Kind: EasyEnd, Minutes: easyMinutes}
	if step, ok := b.easy(); ok && b.met(step.Key) {
		p.Steps, p.Names = []string{step.Key}, []string{assess.NameOf(b.cat, step.Key)}
	}
	return p
}

// ownersPart gives the owner a turn: with a step that they have rehearsed, on
// the horse, or else a rehearsal of a step that is met; nil where nobody may.
func (b *builder) ownersPart() *Part {
	var turn, rehearse []string
	for _, s := range b.in.Cleared {
		step, ok := b.cat.Step(s.Step)
		waits, _ := b.waitsFor(s.Step)
		if !b.in.Facts.OwnerMay || !ok || !b.met(s.Step) || b.blocks[s.Step] != nil || len(waits) > 0 {
			continue
		}
		switch {
		case s.Rehearsed && !slices.Contains(turn, s.Step):
			turn = append(turn, s.Step)
		case !s.Rehearsed && !step.Ridden && !slices.Contains(rehearse, s.Step):
			rehearse = append(rehearse, s.Step)
		}
	}
	p := Part{Kind: OwnersTurn, Minutes: ownerMinutes, Steps: turn}
	if len(turn) == 0 {
		p.Kind, p.Steps = Rehearse, rehearse
	}
	if len(p.Steps) == 0 {
		return nil
	}
	p.Steps = p.Steps[:min(len(p.Steps), mostRehearsals)]
	for _, key := range p.Steps {
		p.Names = append(p.Names, assess.NameOf(b.cat, key))
	}
	return &p
}

// equip adds up the minutes, and unites the kit and the helpers of a visit's
// steps.
func (b *builder) equip(v *Visit) {
	for _, p := range v.Parts {
		v.Minutes += p.Minutes
		for _, key := range p.Steps {
			step, _ := b.cat.Step(key)
			ladder, _ := b.cat.Ladder(step.Ladder)
			for _, k := range step.Kit {
				if !slices.Contains(v.Kit, k) {
					v.Kit = append(v.Kit, k)
				}
			}
			for _, h := range []phrase.Slotted{ladder.Helper, step.Helper} {
				if h != "" && !slices.Contains(v.Helpers, h) {
					v.Helpers = append(v.Helpers, h)
				}
			}
			if step.Trailer && b.in.Choices.Vehicle != "" && !slices.Contains(v.Kit, b.in.Choices.Vehicle) {
				v.Kit = append(v.Kit, b.in.Choices.Vehicle)
			}
		}
	}
	for _, extra := range b.in.Facts.Kit {
		if !slices.Contains(v.Kit, extra.With) && extra.With != "" {
			continue
		}
		v.Kit = append(v.Kit, extra.Item)
	}
}

// OnTrailer reports whether the visit works on the trailer.
func (v Visit) OnTrailer(c *catalog.Catalog) bool {
	return slices.ContainsFunc(v.Parts, func(p Part) bool {
		return slices.ContainsFunc(p.Steps, func(key string) bool {
			step, _ := c.Step(key)
			return step.Trailer
		})
	})
}
