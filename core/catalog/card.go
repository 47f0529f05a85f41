package catalog

import (
	"math/rand/v2"
	"slices"

	"ivorybridge/core/phrase"
)

// A Card is a sequence that must be done in its order, such as the trailer's
// (part 5): ticked line by line, and refused in a wrong order.
type Card struct {
	Key    string           `json:"key"`
	Name   phrase.Slotted   `json:"name"`
	Ladder string           `json:"ladder" doc:"the ladder it belongs to"`
	From   string           `json:"from" doc:"the step from which it is shown"`
	Runs   []Run            `json:"runs"`
	Notes  []phrase.Slotted `json:"notes,omitempty"`
}

// A Run is one way through: loading, or unloading.
type Run struct {
	Key   string         `json:"key"`
	Name  phrase.Slotted `json:"name"`
	Lines []Line         `json:"lines"`
}

// A Line is one thing to do, with why nothing after it comes first.
type Line struct {
	Key   string         `json:"key"`
	Do    phrase.Slotted `json:"do"`
	Why   phrase.Slotted `json:"why" doc:"why it comes before what follows"`
	Stops bool           `json:"stops,omitempty" doc:"done with stops whose number and places are drawn anew each time"`
}

func (card Card) check(c *Catalog, fault func(string, string, ...any)) {
	place := "card " + card.Key
	if _, ok := c.ladders[card.Ladder]; !ok {
		fault(place, "it belongs to the ladder %q, which is not there", card.Ladder)
	}
	if _, ok := c.steps[card.From]; !ok {
		fault(place, "it is shown from the step %q, which is not there", card.From)
	}
	seen := map[string]bool{}
	for _, r := range card.Runs {
		if len(r.Lines) < 2 || r.Name == "" {
			fault(place, "%q needs a name and at least two lines", r.Key)
		}
		for _, l := range r.Lines {
			if l.Key == "" || l.Do == "" || l.Why == "" || seen[l.Key] {
				fault(place, "the line %q needs a key of its own, what to do, and why it comes before what follows", l.Key)
			}
			seen[l.Key] = true
		}
	}
}

// Card returns the card with that key.
func (m Methods) Card(key string) (Card, bool) {
	i := slices.IndexFunc(m.Cards, func(c Card) bool { return c.Key == key })
	if i < 0 {
		return Card{}, false
	}
	return m.Cards[i], true
}

// Run returns the card's run with that key.
func (card Card) Run(key string) (Run, bool) {
	i := slices.IndexFunc(card.Runs, func(r Run) bool { return r.Key == key })
	if i < 0 {
		return Run{}, false
	}
	return card.Runs[i], true
}

// A Ticked run is where somebody stands in it.
type Ticked struct {
	Done    []string        `json:"done" doc:"keys of the lines ticked, in order"`
	Next    string          `json:"next,omitempty" doc:"the line to do now; empty: all are done"`
	Refused *phrase.Message `json:"refused,omitempty" doc:"why the last tick did not count"`
}

// Tick ticks one line more. A line out of its order is refused, with the line
// that comes first and why; ticks that do not follow the order are dropped
// with what comes after them, so that a card put together by hand can't skip.
// An empty key ticks nothing.
func (r Run) Tick(done []string, key string) Ticked {
	t := Ticked{Done: []string{}}
	for i, l := range r.Lines {
		if i >= len(done) || done[i] != l.Key {
			break
		}
		t.Done = append(t.Done, l.Key)
	}
	at := slices.IndexFunc(r.Lines, func(l Line) bool { return l.Key == key })
	n := len(t.Done)
	switch {
	case key == "" || at >= 0 && at < n:
	case at < 0:
		m := phrase.Of("card.unknown", nil)
		t.Refused = &m
	case at == n:
		t.Done = append(t.Done, key)
	default:
		m := phrase.Of("card.refused", phrase.Args{"wanted": r.Lines[at].Do, "first": r.Lines[n].Do, "why": r.Lines[n].Why})
		t.Refused = &m
	}
	if len(t.Done) < len(r.Lines) {
		t.Next = r.Lines[len(t.Done)].Key
	}
	return t
}

// Untick takes back the last tick.
func (r Run) Untick(done []string) Ticked {
	t := r.Tick(done, "")
	return r.Tick(t.Done[:max(len(t.Done)-1, 0)], "")
}

// wayOut is how many steps a horse backs from the front wall to the ground, as
// stops are drawn for it.
const wayOut = 6

// Stops draws where to stop on the way out, so that the horse does not learn to
// unload itself: one to three stops, each after another number of steps back.
func Stops(draw *rand.Rand) []int {
	places := draw.Perm(wayOut)[:1+draw.IntN(3)]
	for i := range places {
		places[i]++
	}
	slices.Sort(places)
	return places
}

// A Tick is what is done on a run of a card.
type Tick struct {
	Run  string   `json:"run" maxLength:"60"`
	Done []string `json:"done" maxItems:"30" doc:"keys ticked so far, in order"`
	Tick string   `json:"tick,omitempty" maxLength:"60" doc:"the line to tick; empty: none"`
	Undo bool     `json:"undo,omitempty" doc:"take the last tick back"`
	Seed uint64   `json:"seed" doc:"drawn by the device for this run: it draws the stops"`
}

// Now is where a run of a sequence card stands.
type Now struct {
	Ticked
	Stops []int `json:"stops" doc:"steps back after which to stop on the way out, drawn anew each time"`
}

// Tick ticks a line of a card, or takes one back; false if there is no such
// card or run.
func (m Methods) Tick(key string, t Tick) (Now, bool) {
	card, ok := m.Card(key)
	run, known := card.Run(t.Run)
	if !ok || !known {
		return Now{}, false
	}
	now := Now{Stops: []int{}}
	if t.Undo {
		now.Ticked = run.Untick(t.Done)
	} else {
		now.Ticked = run.Tick(t.Done, t.Tick)
	}
	if slices.ContainsFunc(run.Lines, func(l Line) bool { return l.Stops }) {
		now.Stops = Stops(rand.New(rand.NewPCG(t.Seed, 1)))
	}
	return now, true
}
