// Package catalog holds the methods as types: ladders, their steps with ask,
// measure, pass mark, release and caution (part 5), what they need and what
// blocks them, and the house rules (part 6). It checks a catalogue as a whole
// and knows no file format; package catalog/yaml reads the shipped one.
package catalog

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Kind tells foundations from the ladders of a problem.
type Kind string

// The two kinds of ladder. Progress on a foundation belongs to the horse, on a
// problem ladder to the horse and the ladder.
const (
	Foundation Kind = "foundation"
	Problem    Kind = "problem"
)

// A Measure is what is measured on a step (part 5).
type Measure string

// The measures. Time is a hold turned round: the less the better.
const (
	MeasureAnswer   Measure = "answer"
	MeasureHold     Measure = "hold"
	MeasureDose     Measure = "dose"
	MeasureCount    Measure = "count"
	MeasureDistance Measure = "distance"
	MeasureSetting  Measure = "setting"
	MeasureTime     Measure = "time"
)

// A Need is what a step or ladder stands on: a step that is met, perhaps at a
// level, or kept.
type Need struct {
	Step  string `json:"step" doc:"key of the step needed"`
	Level int    `json:"level,omitempty" doc:"met at this level or less; 0: the step's own pass level"`
	Kept  bool   `json:"kept,omitempty" doc:"kept on a later day, not only met"`
}

// A Pass is a step's pass mark. Values run from the start to the last; they
// are seconds, millimetres or counts, as Unit says.
type Pass struct {
	Run         int    `json:"run" doc:"accepted or offered in a row"`
	Level       int    `json:"level" doc:"peak level at most"`
	Arousal     int    `json:"arousal" doc:"arousal after, at most"`
	Values      []int  `json:"values,omitempty" doc:"the doses, holds, counts or distances in order"`
	Unit        string `json:"unit,omitempty" enum:"s,mm,steps,feet,holes,times" doc:"what the values count"`
	Corrections *int   `json:"corrections,omitempty" doc:"corrections at most"`
	Text        string `json:"text" doc:"the pass mark in words"`
}

// A Step is one rung of a ladder.
type Step struct {
	Key      string           `json:"key"`
	Name     string           `json:"name" doc:"short name, on the plank"`
	Ask      phrase.Slotted   `json:"ask"`
	Plain    phrase.Slotted   `json:"plain" doc:"the ask as an owner understands it, as what the horse is doing"`
	Release  phrase.Slotted   `json:"release,omitempty" doc:"what earns the release"`
	Watch    phrase.Slotted   `json:"watch,omitempty" doc:"mistakes and cautions"`
	Measures []Measure        `json:"measures,omitempty"`
	Pass     Pass             `json:"pass"`
	Variants []horse.Variant  `json:"variants,omitempty" doc:"sides, zones, directions or places, each passed apart"`
	Needs    []Need           `json:"needs,omitempty" doc:"beyond the step before it"`
	Blocked  []horse.BodyItem `json:"blocked,omitempty" doc:"body items that block it while suspect or in treatment"`
	Kit      []string         `json:"kit,omitempty"`
	Link     string           `json:"link,omitempty" doc:"the ladder this step stands for"`
	Tied     bool             `json:"tied,omitempty" doc:"being tied is the ask"`
	Ridden   bool             `json:"ridden,omitempty" doc:"asked from the saddle"`
	Means    []string         `json:"means,omitempty" doc:"aids that escalate inside one ask"`
	Trailer  bool             `json:"trailer,omitempty" doc:"done on or in the trailer"`
	Bars     bool             `json:"bars,omitempty" doc:"a bar or divider is closed: never alone at the yard"`
	Ladder   string           `json:"ladder" doc:"key of its ladder"`
	Place    int              `json:"place" doc:"place on its ladder, from 0"`
}

// Start is the first value, 0 for a step measured by its answer alone.
func (s Step) Start() int {
	if len(s.Pass.Values) == 0 {
		return 0
	}
	return s.Pass.Values[0]
}

// Last is the value the pass mark asks for in the end.
func (s Step) Last() int {
	if len(s.Pass.Values) == 0 {
		return 0
	}
	return s.Pass.Values[len(s.Pass.Values)-1]
}

// After is the value that follows v, or the last.
func (s Step) After(v int) int {
	falling := len(s.Pass.Values) > 1 && s.Last() < s.Start()
	for _, next := range s.Pass.Values {
		if (!falling && next > v) || (falling && next < v) {
			return next
		}
	}
	return s.Last()
}

// Reaches reports whether a value asked or held is at least as hard as v:
// longer or more, or nearer where the values fall.
func (s Step) Reaches(got, v int) bool {
	if len(s.Pass.Values) > 1 && s.Last() < s.Start() || slices.Contains(s.Measures, MeasureTime) {
		return got <= v
	}
	return got >= v
}

// Has reports whether the step is measured so.
func (s Step) Has(m Measure) bool { return slices.Contains(s.Measures, m) }

// Asks lists the step's asks: one for each variant, or the one.
func (s Step) Asks() []horse.Ask {
	if len(s.Variants) == 0 {
		return []horse.Ask{{Step: s.Key}}
	}
	asks := make([]horse.Ask, len(s.Variants))
	for i, v := range s.Variants {
		asks[i] = horse.Ask{Step: s.Key, Variant: v}
	}
	return asks
}

// A Ladder is an ordered list of steps.
type Ladder struct {
	Key      string          `json:"key"`
	Name     phrase.Slotted  `json:"name"`
	Kind     Kind            `json:"kind" enum:"foundation,problem"`
	For      []horse.Problem `json:"for,omitempty" doc:"the problems it serves"`
	Schools  []horse.School  `json:"schools" doc:"the usual school first"`
	Where    phrase.Slotted  `json:"where"`
	StandsOn []Need          `json:"stands_on,omitempty"`
	Narrow   bool            `json:"narrow,omitempty" doc:"a narrow place: one risk point more"`
	Care     horse.Care      `json:"care,omitzero" doc:"at least this grade of care"`
	Watch    phrase.Slotted  `json:"watch,omitempty"`
	Steps    []Step          `json:"steps"`
}

// HouseRules are the numbers a trainer can change (part 6); the shipped ones
// come with the catalogue.
type HouseRules struct {
	Cycle             int    `json:"cycle" minimum:"3" maximum:"6" doc:"reps in a cycle of answers"`
	PassRun           int    `json:"pass_run" minimum:"1" maximum:"10" doc:"in a row for the usual pass mark"`
	PassLevel         int    `json:"pass_level" minimum:"1" maximum:"10" doc:"peak level of the usual pass mark"`
	Refusals          int    `json:"refusals" minimum:"1" maximum:"10" doc:"refusals in a row before down"`
	BlockMinutes      int    `json:"block_minutes" minimum:"1" maximum:"120"`
	BlockMinutesYoung int    `json:"block_minutes_young" minimum:"1" maximum:"120" doc:"under 3 years or 10 rides"`
	BlockCap          int    `json:"block_cap" minimum:"1" maximum:"180"`
	BlockCapYoung     int    `json:"block_cap_young" minimum:"1" maximum:"180"`
	SessionCap        int    `json:"session_cap" minimum:"1" maximum:"240"`
	SessionCapYoung   int    `json:"session_cap_young" minimum:"1" maximum:"240"`
	RepSeconds        int    `json:"rep_seconds" minimum:"5" maximum:"600" doc:"rep time while there are under 4 reps"`
	SwapSides         string `json:"swap_sides" enum:"after the step,after each dose"`
}

// A Catalog is a checked set of ladders with the house rules it ships.
type Catalog struct {
	Version string     `json:"version" doc:"a session pins the version that advised it"`
	Ladders []Ladder   `json:"ladders"`
	Rules   HouseRules `json:"rules"`
	Judging Judging    `json:"judging"`

	ladders map[string]int
	steps   map[string][2]int
}

// Ladder returns the ladder with that key.
func (c *Catalog) Ladder(key string) (Ladder, bool) {
	i, ok := c.ladders[key]
	if !ok {
		return Ladder{}, false
	}
	return c.Ladders[i], true
}

// LadderFor returns the ladder that serves a problem.
func (c *Catalog) LadderFor(p horse.Problem) (Ladder, bool) {
	i := slices.IndexFunc(c.Ladders, func(l Ladder) bool { return slices.Contains(l.For, p) })
	if i < 0 {
		return Ladder{}, false
	}
	return c.Ladders[i], true
}

// Step returns the step with that key.
func (c *Catalog) Step(key string) (Step, bool) {
	at, ok := c.steps[key]
	if !ok {
		return Step{}, false
	}
	return c.Ladders[at[0]].Steps[at[1]], true
}

// HasAsk reports whether the ask's step is there and has that variant.
func (c *Catalog) HasAsk(a horse.Ask) bool {
	step, ok := c.Step(a.Step)
	return ok && slices.Contains(step.Asks(), a)
}

// Needs lists all that a step stands on: the step before it, or for a first
// step what its ladder stands on, and its own needs.
func (c *Catalog) Needs(key string) []Need {
	at, ok := c.steps[key]
	if !ok {
		return nil
	}
	ladder := c.Ladders[at[0]]
	step := ladder.Steps[at[1]]
	needs := slices.Clone(step.Needs)
	if at[1] > 0 {
		return append([]Need{{Step: ladder.Steps[at[1]-1].Key}}, needs...)
	}
	return append(needs, ladder.StandsOn...)
}

// StandingOn lists the ladders that stand on the step, directly or through a
// need of one of their steps.
func (c *Catalog) StandingOn(step string) []string {
	var keys []string
	for _, l := range c.Ladders {
		on := func(n Need) bool { return n.Step == step }
		if slices.ContainsFunc(l.StandsOn, on) {
			keys = append(keys, l.Key)
		}
	}
	return keys
}
