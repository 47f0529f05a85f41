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
	tuneMinutes    = 10
	leastMinutes   = 5
	knownTuneIn    = 5
	mostRehearsals = 2 // steps in one visit
)

// visits lays the open items out, taking a step as met for the next visit once
// a block was given to it.
func (b *builder) visits(items []Item, n int) []Visit {
	block, capMinutes := b.cat.Rules.BlockMinutes, b.cat.Rules.SessionCap
	if b.in.Young {
		block, capMinutes = b.cat.Rules.BlockMinutesYoung, b.cat.Rules.SessionCapYoung
	}
	spent := map[string]int{}
	visits := []Visit{}
	for v := range n {
		visit := Visit{N: v + 1, Parts: []Part{{Kind: Readiness, Minutes: readyMinutes}}, Kit: []string{}, Helpers: []phrase.Slotted{}}
		owner := b.ownersPart()
		left := capMinutes - readyMinutes - easyMinutes
		if owner != nil {
			left -= owner.Minutes
		}
		today := map[string]bool{}
		blocks := 0
		for _, kind := range []PartKind{TuneIn, Block, Block} {
			part, ok := b.part(kind, items, spent, today, min(block, left))
			if !ok {
				continue
			}
			visit.Parts = append(visit.Parts, part)
			left -= part.Minutes
			blocks++
		}
		if blocks == 0 {
			break
		}
		visit.Parts = append(visit.Parts, b.easyEnd())
		if owner != nil {
			visit.Parts = append(visit.Parts, *owner)
		}
		b.equip(&visit)
		visits = append(visits, visit)
		for step, minutes := range spent {
			s, _ := b.cat.Step(step)
			if minutes >= min(b.minutes(s), block) {
				b.done[step] = true
			}
		}
	}
	return visits
}

// part fills one block: a foundation to tune in, or the next open step. Where
// no foundation is left to do, tuning in takes a step already met.
func (b *builder) part(kind PartKind, items []Item, spent map[string]int, today map[string]bool, minutes int) (Part, bool) {
	if minutes < leastMinutes {
		return Part{}, false
	}
	for _, i := range items {
		step, _ := b.cat.Step(i.Step)
		ladder, _ := b.cat.Ladder(step.Ladder)
		if b.done[i.Step] || today[i.Step] || i.Blocked != nil || b.seen(i.Step) || spent[i.Step] >= b.minutes(step) {
			continue
		}
		waits, warns := b.waitsFor(i.Step)
		if len(waits) > 0 || kind == TuneIn && ladder.Kind != catalog.Foundation {
			continue
		}
		m := min(minutes, max(b.minutes(step)-spent[i.Step], leastMinutes))
		if kind == TuneIn {
			m = min(m, tuneMinutes)
		}
		spent[i.Step] += m
		today[i.Step] = true
		return Part{Kind: kind, Steps: []string{i.Step}, Names: []string{assess.NameOf(b.cat, i.Step)}, School: b.way(ladder.Key, nil).School, Warns: warns, Minutes: m}, true
	}
	if kind != TuneIn {
		return Part{}, false
	}
	if step, ok := b.easy(); ok {
		return Part{Kind: TuneIn, Steps: []string{step.Key}, Names: []string{assess.NameOf(b.cat, step.Key)}, School: b.way(step.Ladder, nil).School, Minutes: min(minutes, knownTuneIn)}, true
	}
	return Part{}, false
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
