// Package history folds a horse's sessions, one after the other, into what they
// came to: how far each ask has come (part 5), who handled what and how it
// went (part 7), the horse's own cycle (part 6), its dangers (part 3), how each
// ask was on the first day (part 8). A closed session is read once, by Next; a
// correction or a late entry folds again from its session on. Everything else
// that the product says of a horse's past is read from the History.
//
// A History is a value: nothing in it is changed by Next, and it can be kept as
// a document beside the session after which it stands.
package history

import (
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Version names what a fold is made by; one of another version is made again.
const Version = arena.Version + ".5"

// A History is what a horse's sessions came to so far.
type History struct {
	Started     int64                 `json:"started,omitempty" doc:"when the newest session began, ms"`
	Days        []Day                 `json:"days,omitempty" doc:"one for each session, the oldest first"`
	Asks        []Ask                 `json:"asks,omitempty" doc:"each ask that was worked, in the order of its key"`
	Firsts      []First               `json:"firsts,omitempty" doc:"how each ask was in the first session that worked it, in the order of its key"`
	Steps       []Step                `json:"steps,omitempty" doc:"each step that was worked, in the order of its key"`
	Hands       []Hand                `json:"hands,omitempty" doc:"how each step went with each person who held the rope"`
	Answers     arena.Answers         `json:"answers,omitzero" doc:"from which the horse's own cycle is learned"`
	RepSeconds  float64               `json:"rep_seconds,omitempty" doc:"its own time for a rep: the median gap in the newest session that had four; 0: none had"`
	Bumped      bool                  `json:"bumped,omitempty" doc:"a bump in the newest session was not made good"`
	Heavy       bool                  `json:"heavy,omitempty" doc:"a session's median level was 5 or more, and none since was 4 or less with 80 % of releases on the try"`
	Own         []catalog.OwnAsk      `json:"own,omitempty" doc:"asks of its own, that no ladder names, as they were written down"`
	Things      []Thing               `json:"things,omitempty" doc:"the things that it has met, in the order in which it met them"`
	Stopped     []arena.StoppedBefore `json:"stopped,omitempty" doc:"what was stopped, as the last session that saw it had it"`
	Spots       []arena.Spot          `json:"spots,omitempty" doc:"the named places that were passed"`
	Spooks      []float64             `json:"spooks,omitempty" doc:"how often it spooked in ten minutes, of the newest sessions since it was first written down"`
	Open        string                `json:"open,omitempty" doc:"id of the newest session that nobody has ended; empty: all were"`
	Assessments int                   `json:"assessments,omitempty" doc:"how many assessments are in it, the oldest first"`
	Incidents   int                   `json:"incidents,omitempty" doc:"how many incidents that were written down after the fact are in it, the oldest first"`
	Danger      string                `json:"danger,omitempty" format:"date" doc:"newest day of a dangerous event"`
}

// A Day is one session as later ones look back on it.
type Day struct {
	On     string             `json:"on" format:"date"`
	Events []assess.EventKind `json:"events,omitempty" doc:"dangerous things that were logged, in their order"`
}

// An Ask is how far an ask has come, with what its later states are judged by.
type Ask struct {
	arena.Known
	Fair      []bool `json:"fair,omitempty" doc:"of the last three counted answers: a try or better, at level 6 or less"`
	EndedWell bool   `json:"ended_well,omitempty" doc:"the last answer of the last day it was worked, before this one, counted towards the pass mark"`
	Today     *Today `json:"today,omitempty" doc:"its newest day, while no later day was worked"`
}

// Today is what an ask has seen on a day, over all of that day's sessions.
type Today struct {
	Passed bool   `json:"passed,omitempty" doc:"it was met or kept as the day began"`
	Good   []bool `json:"good,omitempty" doc:"of the first answers: accepted at the pass level, at the last value"`
	Poor   []bool `json:"poor,omitempty" doc:"of the first answers: refused, or 3 above the pass level"`
	Last   bool   `json:"last,omitempty" doc:"the last counted towards the pass mark"`
	Counts bool   `json:"counts,omitempty" doc:"an answer was counted"`
}

// First is how an ask was in the first session that worked it.
type First struct {
	horse.Ask
	On   string         `json:"on" format:"date"`
	Reps Reps           `json:"reps"`
	Good map[string]int `json:"good,omitempty" doc:"successes by school"`
}

// In are its numbers in a school.
func (f First) In(school horse.School) Reps {
	r := f.Reps
	r.Good = f.Good[school.String()]
	return r
}

// A Step counts how often a step came to be met, whole, and was lost.
type Step struct {
	Step    string `json:"step"`
	Met     int    `json:"met,omitempty" doc:"times it came to be met or kept"`
	Lost    int    `json:"lost,omitempty" doc:"times it was met no longer"`
	Slipped string `json:"slipped,omitempty" format:"date" doc:"newest day on which one of its asks slipped"`
}

// A Hand is one step with one person who held the rope.
type Hand struct {
	Person  string `json:"person"`
	Step    string `json:"step"`
	Soft    bool   `json:"soft,omitempty" doc:"an answer was accepted or offered"`
	Refused bool   `json:"refused,omitempty" doc:"one was refused"`
	Run     int    `json:"run,omitempty" doc:"accepted or offered in a row, to the newest answer, since a clearance of the step could last lapse"`
	Best    int    `json:"best,omitempty" doc:"the longest such run"`
}

// A Visit is what one session made of the asks, in the catalogue's order.
type Visit struct {
	Before, After []arena.Known
}

// In is the visit with the asks of a catalogue, in its order.
func (v Visit) In(c *catalog.Catalog) Visit {
	order := func(known []arena.Known) []arena.Known {
		known = slices.DeleteFunc(slices.Clone(known), func(k arena.Known) bool { return !c.HasAsk(k.Ask) })
		slices.SortFunc(known, func(a, b arena.Known) int { return c.Compare(a.Ask, b.Ask) })
		return known
	}
	return Visit{Before: order(v.Before), After: order(v.After)}
}

// Sessions counts the sessions folded.
func (h History) Sessions() int { return len(h.Days) }

// LastWorked is the day of the newest session; empty: there is none.
func (h History) LastWorked() string {
	if len(h.Days) == 0 {
		return ""
	}
	return h.Days[len(h.Days)-1].On
}

// Events lists all dangerous things that were logged, the oldest first.
func (h History) Events() []assess.Event {
	var events []assess.Event
	for _, d := range h.Days {
		events = append(events, d.Dangers()...)
	}
	return events
}

// Newest lists the newest of each kind of dangerous thing that was logged, the
// oldest first.
func (h History) Newest() []assess.Event {
	seen := map[assess.EventKind]bool{}
	var events []assess.Event
	for _, d := range slices.Backward(h.Days) {
		for _, e := range slices.Backward(d.Dangers()) {
			if !seen[e.Kind] {
				seen[e.Kind] = true
				events = append(events, e)
			}
		}
	}
	slices.Reverse(events)
	return events
}

// Dangers lists the dangerous things of a session.
func (d Day) Dangers() []assess.Event {
	var events []assess.Event
	for _, k := range d.Events {
		events = append(events, assess.Event{Kind: k, On: d.On})
	}
	return events
}

// Known lists how far each ask has come, in the catalogue's order; what the
// catalogue no longer has is left out.
func (h History) Known(c *catalog.Catalog) []arena.Known {
	return known(c, h.Asks)
}

// Passed reports whether all asks of a step were met or kept at the last session's
// end.
func (h History) Passed(s catalog.Step) bool {
	return !slices.ContainsFunc(s.Asks(), func(a horse.Ask) bool {
		return !slices.ContainsFunc(h.Asks, func(k Ask) bool { return k.Ask == a && k.Passed() })
	})
}

// Again puts steps back to tried: what was known of them is of another ladder.
func Again(known []arena.Known, steps []string) []arena.Known {
	known = slices.Clone(known)
	for i, k := range known {
		if slices.Contains(steps, k.Step) {
			known[i] = arena.Known{Ask: k.Ask, State: horse.Tried, Last: k.Last, Understood: k.Understood}
		}
	}
	return known
}

func known(c *catalog.Catalog, asks []Ask) []arena.Known {
	list := make([]arena.Known, 0, len(asks))
	for _, a := range asks {
		list = append(list, a.Known)
	}
	return Visit{After: list}.In(c).After
}

// Step is how often a step was met and lost.
func (h History) Step(key string) Step {
	i, ok := slices.BinarySearchFunc(h.Steps, key, func(s Step, key string) int { return strings.Compare(s.Step, key) })
	if !ok {
		return Step{Step: key}
	}
	return h.Steps[i]
}

// Hand is how a step went with a person.
func (h History) Hand(person, step string) Hand {
	i, ok := slices.BinarySearchFunc(h.Hands, Hand{Person: person, Step: step}, Hand.compare)
	if !ok {
		return Hand{Person: person, Step: step}
	}
	return h.Hands[i]
}

func (n Hand) compare(m Hand) int {
	if c := strings.Compare(n.Person, m.Person); c != 0 {
		return c
	}
	return strings.Compare(n.Step, m.Step)
}

// Failed lists the steps that were refused with a person and never accepted.
func (h History) Failed(person string) []string {
	var steps []string
	for _, n := range h.Hands {
		if n.Person == person && n.Refused && !n.Soft {
			steps = append(steps, n.Step)
		}
	}
	return steps
}

// Lapsed is the newest day on which every clearance of a step lapsed; slipped
// tells whether it was because the step slipped, else there was an incident.
// Empty: none did.
func (h History) Lapsed(step string) (day string, slipped bool) {
	if s := h.Step(step).Slipped; s != "" && s >= h.Danger {
		return s, true
	}
	return h.Danger, false
}
