// Package clearance says who may do which step alone (part 7): per person and
// step, on two legs: rehearsed on a person who plays the horse, and watched on
// the horse; what is still missing, and why a clearance lapsed.
package clearance

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type items struct{}

func (items) Words() []string {
	return []string{
		"rope managed", "right place", "starts light", "builds evenly",
		"keeps raising until the partner answers", "lets go on the try", "own space kept",
	}
}

// Item is one of the seven things that a rehearsal looks at.
type Item = horse.Word[items]

type saids struct{}

func (saids) Words() []string { return []string{"yes", "nearly", "no"} }

// Said is how an item went.
type Said = horse.Word[saids]

// The words for how an item went.
var (
	Yes = horse.MustWord[saids]("yes")
	No  = horse.MustWord[saids]("no")
)

type places struct{}

func (places) Words() []string { return []string{"person", "practice pen", "clip"} }

// Place is where it was practised: on a person who plays the horse, in the
// practice pen, or with the horse on an uncut clip that shows person, rope and
// the whole horse (ground steps only).
type Place = horse.Word[places]

// The places.
var (
	OnAPerson = horse.MustWord[places]("person")
	OnClip    = horse.MustWord[places]("clip")
)

// A Try is one pull of the rope: the level that was meant, and the level that
// the partner felt.
type Try struct {
	Meant horse.Level `json:"meant" doc:"level the person meant to give"`
	Felt  horse.Level `json:"felt" doc:"level the partner felt"`
}

// Fainter reports whether the partner felt two levels less, or more, than was
// meant.
func (t Try) Fainter() bool {
	return t.Meant.Noted() && t.Felt.Noted() && t.Felt.Int() <= t.Meant.Int()-2
}

// A Rehearsal of a step by a person. A clip holds the answers seen on it in
// place of the items.
type Rehearsal struct {
	Person  string         `json:"person" maxLength:"60" doc:"who"`
	Step    string         `json:"step" maxLength:"60" doc:"key of the step"`
	On      string         `json:"on" format:"date" doc:"day"`
	Place   Place          `json:"place" doc:"with what it was rehearsed"`
	Items   map[Item]Said  `json:"items,omitempty" doc:"what was looked at, and how it went"`
	Tries   []Try          `json:"tries,omitempty" maxItems:"20" doc:"levels meant and felt"`
	Answers []horse.Answer `json:"answers,omitempty" maxItems:"20" doc:"of a clip: the horse's answers, in order"`
	Note    string         `json:"note,omitempty" maxLength:"500" doc:"anything else"`
}

// Cleared reports whether the rehearsal clears its leg: 6 yes and none no.
func (r Rehearsal) Cleared() bool {
	yes := 0
	for _, said := range r.Items {
		switch said {
		case Yes:
			yes++
		case No:
			return false
		}
	}
	return r.Place != OnClip && yes >= 6
}

// A Fault is a value that can't be, with its field.
type Fault struct{ Field, Say string }

// Check lists what can't be in a rehearsal.
func (r Rehearsal) Check(c *catalog.Catalog, today string) []Fault {
	var faults []Fault
	add := func(field, say string) { faults = append(faults, Fault{field, say}) }
	step, ok := c.Step(r.Step)
	if !ok || step.Link != "" {
		add("step", "That is not a step of the catalogue. Choose one from the list.")
	}
	if r.On == "" || r.On > today {
		add("on", "Give the day it was done, not one to come.")
	}
	switch {
	case r.Place.IsZero():
		add("place", "Say where it was done: on a person, in the practice pen, or with the horse on a clip.")
	case r.Place == OnClip && step.Ridden:
		add("place", "A clip counts for ground steps only. Watch a ridden step yourself.")
	case r.Place == OnClip && len(r.Answers) == 0:
		add("answers", "Note the horse's answers on the clip, in their order.")
	case r.Place != OnClip && len(r.Items) < len(items{}.Words()):
		add("items", "Say yes, nearly or no for each of the seven.")
	}
	return faults
}

// Input is what clearance is judged from.
type Input struct {
	Persons    []string
	History    history.History
	Rehearsals []Rehearsal // the oldest first
	Points     int         // of risk
	Waits      bool        // the grade of care says that owners do not handle
	Dulled     bool        // dulled is likely
	Steps      []string
	Stopped    map[string]phrase.Message // steps whose homework was stopped, and why
}

// State is how far a person is with a step.
type State struct {
	Person    string           `json:"person" doc:"who"`
	Step      string           `json:"step" doc:"key of the step"`
	Rehearsed bool             `json:"rehearsed" doc:"the first leg: on a person or in the practice pen"`
	Watched   int              `json:"watched" doc:"the second leg: accepted or offered in a row on the horse; 3 clear it"`
	Cleared   bool             `json:"cleared" doc:"they may do it alone"`
	Why       []phrase.Message `json:"why" doc:"what is missing, or why it lapsed"`
	Earned    bool             `json:"earned,omitempty" doc:"both legs stand, whatever holds it off now"`
	Lapsed    string           `json:"lapsed,omitempty" format:"date" doc:"newest day on which clearance of the step lapsed"`
	Fainter   bool             `json:"fainter,omitempty" doc:"at the last rehearsal the partner felt 2 or more lower than was meant"`
}

// WatchedRun is how many accepted or offered in a row clear the second leg.
const WatchedRun = 3

const (
	noOwner = 6 // risk points from which nobody is cleared
)

// Of tells the state of every person and step.
func Of(in Input) []State {
	var states []State
	held := in.Held()
	for _, p := range in.Persons {
		for _, step := range in.Steps {
			states = append(states, in.state(p, step, held))
		}
	}
	return states
}

// Possible reports whether there is an owner who is cleared for homework, or can
// be.
func (in Input) Possible() bool { return len(in.Persons) > 0 && len(in.Held()) == 0 }

// Steps lists the steps that owners can be cleared for: those that the horse has
// met, and those that were rehearsed.
func Steps(c *catalog.Catalog, known []arena.Known, rehearsals []Rehearsal) []string {
	var steps []string
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			rehearsed := slices.ContainsFunc(rehearsals, func(r Rehearsal) bool { return r.Step == s.Key })
			if s.Link == "" && (rehearsed || arena.Passed(known, s)) {
				steps = append(steps, s.Key)
			}
		}
	}
	return steps
}

// Held says why no owner is cleared at all, if so: risk, or a horse that
// first has to be made light again.
func (in Input) Held() []phrase.Message {
	var why []phrase.Message
	if in.Points >= noOwner || in.Waits {
		why = append(why, phrase.Of("clearance.risk", phrase.Args{"n": in.Points}))
	}
	// Until it is light again it is the trainer's only.
	if in.Dulled && in.History.Heavy {
		why = append(why, phrase.Of("clearance.dulled", nil))
	}
	return why
}

func (in Input) state(person, step string, held []phrase.Message) State {
	s := State{Person: person, Step: step, Why: slices.Clone(held)}
	lapsed, why := in.lapsed(step)
	had := false
	for _, r := range in.Rehearsals {
		if r.Person != person || r.Step != step {
			continue
		}
		if r.On <= lapsed {
			had = had || r.Cleared()
			continue
		}
		if r.Place != OnClip {
			s.Rehearsed = s.Rehearsed || r.Cleared()
			s.Fainter = slices.ContainsFunc(r.Tries, Try.Fainter)
		}
	}
	s.Watched = in.watched(person, step, lapsed)
	if had && why != nil {
		s.Why = append(s.Why, *why)
	}
	if !s.Rehearsed {
		s.Why = append(s.Why, phrase.Of("clearance.rehearse", nil))
	}
	if s.Watched < WatchedRun {
		s.Why = append(s.Why, phrase.Of("clearance.watch", phrase.Args{"n": WatchedRun - s.Watched}))
	}
	if had {
		s.Lapsed = lapsed
	}
	stopped, stops := in.Stopped[step]
	if stops {
		s.Why = append(s.Why, stopped)
	}
	s.Earned = s.Rehearsed && s.Watched >= WatchedRun
	s.Cleared = s.Earned && len(held) == 0 && !stops
	return s
}

// watched is the best run of accepted or offered answers that a person had on
// a step after a day, on the horse or on a clip; 3 at most.
func (in Input) watched(person, step, lapsed string) int {
	best := in.History.Hand(person, step).Best
	for _, r := range in.Rehearsals {
		if r.Person != person || r.Step != step || r.Place != OnClip || r.On <= lapsed {
			continue
		}
		run := 0
		for _, a := range r.Answers {
			if run++; !horse.Soft(a) {
				run = 0
			}
			best = max(best, run)
		}
	}
	return min(best, WatchedRun)
}

// lapsed is the newest day on which every clearance of the step lapsed, with
// the reason; empty: none.
func (in Input) lapsed(step string) (string, *phrase.Message) {
	day, slipped := in.History.Lapsed(step)
	if day == "" {
		return "", nil
	}
	key := "clearance.incident"
	if slipped {
		key = "clearance.slipped"
	}
	m := phrase.Of(key, phrase.Args{"on": phrase.Date(day)})
	return day, &m
}
