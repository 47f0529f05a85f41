// Package progress turns what was logged into what changed: the bridge of a
// ladder with its planks and piers, and the numbers of a session against the
// first one (part 8).
package progress

import (
	"fmt"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// weights of part 8 for the bridge's progress.
func weight(s horse.StepState) float64 {
	switch s {
	case horse.Tried:
		return 0.15
	case horse.StepTolerated, horse.Slipped:
		return 0.35
	case horse.Met:
		return 0.75
	case horse.Kept:
		return 1
	}
	return 0
}

// A Part of a plank is one of the step's asks.
type Part struct {
	Variant horse.Variant   `json:"variant,omitzero"`
	State   horse.StepState `json:"state"`
}

// A Plank is a step on the bridge; two parts when near and off differ.
type Plank struct {
	Step    string          `json:"step"`
	Name    string          `json:"name"`
	State   horse.StepState `json:"state" doc:"the least of its parts"`
	Says    phrase.Message  `json:"says" doc:"how far it has come, and where that is known from"`
	Beyond  bool            `json:"beyond,omitempty" doc:"it lies beyond the goal: drawn pale, and not counted"`
	Parts   []Part          `json:"parts" doc:"one for each ask of the step"`
	Blocked *phrase.Message `json:"blocked,omitempty"`
	Lifts   *phrase.Message `json:"lifts,omitempty"`
	Next    bool            `json:"next,omitempty" doc:"where the work is now"`
	Under   string          `json:"under,omitempty" doc:"of a pier: the one plank that stands on it; absent: all do"`
}

// A Bridge is a ladder drawn: planks from before to goal, piers under it.
type Bridge struct {
	Ladder   string         `json:"ladder"`
	Name     phrase.Slotted `json:"name"`
	Planks   []Plank        `json:"planks"`
	Piers    []Plank        `json:"piers" doc:"the foundations it stands on"`
	Steps    int            `json:"steps" doc:"planks up to the goal"`
	Sources  []Source       `json:"sources" doc:"what was not seen in sessions, and where it is known from"`
	Progress float64        `json:"progress" doc:"0 to 1, blocked steps left out"`
	Blocked  int            `json:"blocked" doc:"steps blocked"`
	Met      int            `json:"met" doc:"steps met or kept"`
}

// A Source says of some steps where their state is known from.
type Source struct {
	Says  phrase.Message `json:"says"`
	Steps []string       `json:"steps" doc:"names"`
}

// A Goal is where a bridge ends.
type Goal struct {
	Until  string // the plank where the goal is reached; empty: the last
	Ridden bool   // ridden planks are wanted, though that one is not
}

// BridgeOf draws a ladder up to the goal. next is the step the work is at; empty:
// none.
func BridgeOf(c *catalog.Catalog, ladder string, known []arena.Known, blocks []assess.Block, next string, goal Goal) (Bridge, bool) {
	l, ok := c.Ladder(ladder)
	if !ok {
		return Bridge{}, false
	}
	states := make(map[horse.Ask]arena.Known, len(known))
	for _, k := range known {
		states[k.Ask] = k
	}
	last, ok := c.Step(goal.Until)
	if !ok || last.Ladder != l.Key {
		last = l.Steps[len(l.Steps)-1]
	}
	b := Bridge{Ladder: l.Key, Name: l.Name, Sources: []Source{}}
	sum, parts := 0.0, 0
	of := func(a horse.Ask) arena.Known { return states[a] }
	for _, step := range l.Steps {
		far := arena.StepKnown(step, of)
		p := plank(step, states, far, blocks, next)
		p.Beyond = step.Place > last.Place || step.Ridden && !last.Ridden && !goal.Ridden
		b.Planks = append(b.Planks, p)
		b.source(far, step.Name)
		if p.Beyond {
			continue
		}
		b.Steps++
		if p.Blocked != nil {
			b.Blocked++
			continue
		}
		if p.State == horse.Met || p.State == horse.Kept {
			b.Met++
		}
		for _, part := range p.Parts {
			sum += weight(part.State)
			parts++
		}
	}
	if parts > 0 {
		b.Progress = sum / float64(parts)
	}
	add := func(need catalog.Need, under string) {
		if step, ok := c.Step(need.Step); ok {
			far := arena.StepKnown(step, of)
			pier := plank(step, states, far, blocks, next)
			pier.Name, pier.Under = step.FullName(), under // they stand together, of several ladders
			b.Piers = append(b.Piers, pier)
			b.source(far, pier.Name)
		}
	}
	for _, n := range c.Piers(l) {
		add(n, "")
	}
	for _, p := range b.Planks {
		for _, n := range c.Needs(p.Step) {
			if b.foreign(c, n.Step) {
				add(n, p.Step)
			}
		}
	}
	return b, true
}

// foreign reports whether a step is of another ladder, and no pier of the bridge
// yet.
func (b Bridge) foreign(c *catalog.Catalog, key string) bool {
	step, ok := c.Step(key)
	return ok && step.Ladder != b.Ladder && !slices.ContainsFunc(b.Piers, func(p Plank) bool { return p.Step == key })
}

// source notes where a plank's state is known from, where that is no session.
func (b *Bridge) source(known arena.Known, name string) {
	says, ok := known.Elsewhere()
	if !ok {
		return
	}
	same := func(s Source) bool { return s.Says.Key == says.Key && fmt.Sprint(s.Says.Args) == fmt.Sprint(says.Args) }
	i := slices.IndexFunc(b.Sources, same)
	if i < 0 {
		i = len(b.Sources)
		b.Sources = append(b.Sources, Source{Says: says})
	}
	b.Sources[i].Steps = append(b.Sources[i].Steps, name)
}

func plank(step catalog.Step, states map[horse.Ask]arena.Known, known arena.Known, blocks []assess.Block, next string) Plank {
	p := Plank{Step: step.Key, Name: step.Name, Says: known.Says(), Next: step.Key == next}
	for _, a := range step.Asks() {
		state := states[a].State
		if state.IsZero() {
			state = horse.Untried
		}
		p.Parts = append(p.Parts, Part{Variant: a.Variant, State: state})
	}
	p.State = least(p.Parts)
	if i := slices.IndexFunc(blocks, func(b assess.Block) bool { return b.Step == step.Key }); i >= 0 {
		p.Blocked, p.Lifts = &blocks[i].Why, &blocks[i].Lifts
	}
	return p
}

// least is the state that holds for the whole step: slipped shows first, else
// the one that has come least far; a step worked on one side only is tried.
func least(parts []Part) horse.StepState {
	if slices.ContainsFunc(parts, func(p Part) bool { return p.State == horse.Slipped }) {
		return horse.Slipped
	}
	state, worked := horse.Kept, false
	for _, p := range parts {
		worked = worked || p.State != horse.Untried
		if p.State.Rank() < state.Rank() {
			state = p.State
		}
	}
	if state == horse.Untried && worked {
		return horse.Tried
	}
	return state
}

// Feel says a level in the owner's words: none, light, medium, firm (part 2).
func Feel(level float64) phrase.Message {
	switch {
	case level <= 0:
		return phrase.Of("feel.none", nil)
	case level <= 3:
		return phrase.Of("feel.light", nil)
	case level <= 6:
		return phrase.Of("feel.medium", nil)
	}
	return phrase.Of("feel.firm", nil)
}
