// Package plan lays out the work (part 7): the ladder of the goal with the
// foundations it stands on, in the order of their needs, what is blocked and
// what lifts it, and the visits to come with their minutes and kit.
package plan

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Input is what a plan is built from.
type Input struct {
	Ladder     string
	Start      string // step of the problem ladder to begin at, from the assessment
	Known      []arena.Known
	Blocks     []assess.Block
	RepSeconds float64 // this horse's own time for a rep; 0: the house rule's
	Young      bool
	Visits     int // how many to lay out
}

// An Item is a step to do, in the plan's order.
type Item struct {
	Step    string          `json:"step"`
	Ladder  string          `json:"ladder"`
	Name    string          `json:"name"`
	Ask     phrase.Slotted  `json:"ask"`
	State   horse.StepState `json:"state"`
	Level   int             `json:"level,omitempty" doc:"the level it is needed at, where lighter than its own pass mark"`
	Open    bool            `json:"open" doc:"all it stands on is met and nothing blocks it"`
	Needs   []string        `json:"needs,omitempty" doc:"names of the steps it waits for"`
	Blocked *phrase.Message `json:"blocked,omitempty"`
	Lifts   *phrase.Message `json:"lifts,omitempty"`
	Minutes int             `json:"minutes" doc:"about how long until the pass mark, at this horse's pace"`
}

// PartKind says what a part of a visit is.
type PartKind string

// The parts of a visit.
const (
	Readiness  PartKind = "readiness"
	TuneIn     PartKind = "foundation block"
	Block      PartKind = "ladder block"
	EasyEnd    PartKind = "easy end"
	OwnersTurn PartKind = "owner's turn"
)

// A Part of a visit.
type Part struct {
	Kind    PartKind `json:"kind"`
	Steps   []string `json:"steps,omitempty" doc:"keys"`
	Names   []string `json:"names,omitempty"`
	Minutes int      `json:"minutes"`
}

// A Visit is laid out, not dated.
type Visit struct {
	N       int      `json:"n"`
	Parts   []Part   `json:"parts"`
	Minutes int      `json:"minutes"`
	Kit     []string `json:"kit"`
}

// A Plan is the work to come.
type Plan struct {
	Ladder string         `json:"ladder"`
	Name   phrase.Slotted `json:"name"`
	Items  []Item         `json:"items" doc:"steps to do; what is kept is left out"`
	Done   []string       `json:"done,omitempty" doc:"keys of the steps already kept"`
	Next   string         `json:"next,omitempty" doc:"the step the work begins at"`
	Levels map[string]int `json:"levels,omitempty" doc:"pass level by step, where lighter is needed"`
	Visits []Visit        `json:"visits"`
}

// builder keeps what the questions of one build need.
type builder struct {
	cat    *catalog.Catalog
	in     Input
	known  map[horse.Ask]arena.Known
	done   map[string]bool // met, or taken as met further on in the layout
	levels map[string]int
	start  int
}

// Build makes the plan for a ladder.
func Build(c *catalog.Catalog, in Input) (Plan, bool) {
	l, ok := c.Ladder(in.Ladder)
	if !ok {
		return Plan{}, false
	}
	b := &builder{cat: c, in: in, known: map[horse.Ask]arena.Known{}, done: map[string]bool{}, levels: map[string]int{}}
	for _, k := range in.Known {
		b.known[k.Ask] = k
	}
	if s, ok := c.Step(in.Start); ok && s.Ladder == l.Key {
		b.start = s.Place
	}
	p := Plan{Ladder: l.Key, Name: l.Name, Items: []Item{}, Visits: []Visit{}}
	order := b.order(l)
	for _, key := range order {
		b.done[key] = b.met(key)
	}
	for _, key := range order {
		if b.kept(key) {
			p.Done = append(p.Done, key)
			continue
		}
		p.Items = append(p.Items, b.item(key))
	}
	for _, i := range p.Items {
		if i.Open && !b.met(i.Step) {
			p.Next = i.Step
			break
		}
	}
	p.Levels = b.levels
	p.Visits = b.visits(p.Items, max(in.Visits, 1))
	return p, true
}

// order walks the needs of the ladder's steps, each after what it stands on.
func (b *builder) order(l catalog.Ladder) []string {
	var order []string
	seen := map[string]bool{}
	var walk func(key string)
	walk = func(key string) {
		if seen[key] {
			return
		}
		seen[key] = true
		for _, n := range b.cat.Needs(key) {
			if step, _ := b.cat.Step(n.Step); n.Level > 0 && n.Level < step.Pass.Level {
				b.levels[n.Step] = n.Level
			}
			walk(n.Step)
		}
		if step, ok := b.cat.Step(key); ok && step.Link == "" {
			order = append(order, key)
		}
	}
	for _, step := range l.Steps {
		walk(step.Key)
	}
	return order
}

func (b *builder) asks(key string) []horse.Ask {
	step, _ := b.cat.Step(key)
	return step.Asks()
}

func (b *builder) met(key string) bool {
	level := b.levels[key]
	return !slices.ContainsFunc(b.asks(key), func(a horse.Ask) bool {
		k := b.known[a]
		return !k.Passed() || level > 0 && (!k.Level.Noted() || k.Level.Int() > level)
	})
}

func (b *builder) kept(key string) bool {
	return b.met(key) && !slices.ContainsFunc(b.asks(key), func(a horse.Ask) bool { return b.known[a].State != horse.Kept })
}

func (b *builder) block(key string) *assess.Block {
	for i := range b.in.Blocks {
		if b.in.Blocks[i].Step == key {
			return &b.in.Blocks[i]
		}
	}
	return nil
}

// waitsFor lists the steps an item needs that are not done. The steps of the
// problem ladder below the start were seen accepted in the assessment.
func (b *builder) waitsFor(key string) []string {
	var names []string
	for _, n := range b.cat.Needs(key) {
		step, _ := b.cat.Step(n.Step)
		assessed := step.Ladder == b.in.Ladder && step.Place < b.start && !n.Kept
		keptToo := !n.Kept || b.kept(n.Step)
		if !b.done[n.Step] && !assessed || !keptToo {
			names = append(names, step.Name)
		}
	}
	return names
}

func (b *builder) item(key string) Item {
	step, _ := b.cat.Step(key)
	i := Item{Step: key, Ladder: step.Ladder, Name: step.Name, Ask: step.Ask, State: horse.Untried, Level: b.levels[key], Needs: b.waitsFor(key), Minutes: b.minutes(step)}
	for n, a := range step.Asks() {
		if state := b.known[a].State; n == 0 || state.Rank() < i.State.Rank() {
			i.State = state
		}
	}
	if i.State.IsZero() {
		i.State = horse.Untried
	}
	if bl := b.block(key); bl != nil {
		i.Blocked, i.Lifts = &bl.Why, &bl.Lifts
	}
	i.Open = i.Blocked == nil && len(i.Needs) == 0
	return i
}

// minutes estimates the time to the pass mark: its run at each value and
// variant, two reps more to find it, at this horse's pace.
func (b *builder) minutes(step catalog.Step) int {
	seconds := b.in.RepSeconds
	if seconds <= 0 {
		seconds = float64(b.cat.Rules.RepSeconds)
	}
	reps := (step.Pass.Run*max(len(step.Pass.Values), 1) + 2) * max(len(step.Variants), 1)
	return int(float64(reps)*seconds/60 + 0.5)
}

// visits lays the open items out, taking a step as met for the next visit once
// a block was given to it.
func (b *builder) visits(items []Item, n int) []Visit {
	block, capMinutes := b.cat.Rules.BlockMinutes, b.cat.Rules.SessionCap
	if b.in.Young {
		block, capMinutes = b.cat.Rules.BlockMinutesYoung, b.cat.Rules.SessionCapYoung
	}
	spent := map[string]int{}
	var visits []Visit
	for v := range n {
		visit := Visit{N: v + 1, Parts: []Part{{Kind: Readiness, Minutes: 1}}, Minutes: 1, Kit: []string{}}
		left := capMinutes - 1 - easyMinutes
		blocks := 0
		for _, kind := range []PartKind{TuneIn, Block, Block} {
			part, ok := b.part(kind, items, spent, min(block, left))
			if !ok {
				continue
			}
			visit.Parts = append(visit.Parts, part)
			visit.Minutes += part.Minutes
			left -= part.Minutes
			blocks++
		}
		if blocks == 0 {
			break
		}
		visit.Parts = append(visit.Parts, Part{Kind: EasyEnd, Minutes: easyMinutes})
		visit.Minutes += easyMinutes
		visit.Kit = b.kit(visit)
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

const easyMinutes = 3

// part fills one block: a foundation to tune in, or the next open step. Where
// no foundation is left to do, tuning in takes a step already met.
func (b *builder) part(kind PartKind, items []Item, spent map[string]int, minutes int) (Part, bool) {
	if minutes < 5 {
		return Part{}, false
	}
	for _, i := range items {
		step, _ := b.cat.Step(i.Step)
		ladder, _ := b.cat.Ladder(step.Ladder)
		foundation := ladder.Kind == catalog.Foundation
		belowStart := !foundation && step.Place < b.start
		if b.done[i.Step] || i.Blocked != nil || belowStart || len(b.waitsFor(i.Step)) > 0 || spent[i.Step] >= b.minutes(step) {
			continue
		}
		if kind == TuneIn && !foundation {
			continue
		}
		m := min(minutes, max(b.minutes(step)-spent[i.Step], 5))
		if kind == TuneIn {
			m = min(m, 10)
		}
		spent[i.Step] += m
		return Part{Kind: kind, Steps: []string{i.Step}, Names: []string{i.Name}, Minutes: m}, true
	}
	if kind != TuneIn {
		return Part{}, false
	}
	for _, l := range b.cat.Ladders {
		for _, step := range l.Steps {
			if l.Kind == catalog.Foundation && b.done[step.Key] && b.block(step.Key) == nil {
				return Part{Kind: TuneIn, Steps: []string{step.Key}, Names: []string{step.Name}, Minutes: min(minutes, 5)}, true
			}
		}
	}
	return Part{}, false
}

func (b *builder) kit(v Visit) []string {
	kit := []string{}
	for _, p := range v.Parts {
		for _, key := range p.Steps {
			step, _ := b.cat.Step(key)
			for _, k := range step.Kit {
				if !slices.Contains(kit, k) {
					kit = append(kit, k)
				}
			}
		}
	}
	return kit
}

// LevelsFor gives the pass levels that a ladder asks of its foundations where
// they are lighter than the steps' own.
func LevelsFor(c *catalog.Catalog, ladder string) map[string]int {
	p, ok := Build(c, Input{Ladder: ladder})
	if !ok {
		return nil
	}
	return p.Levels
}
