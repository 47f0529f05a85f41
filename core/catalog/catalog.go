// Package catalog holds the methods as types: ladders, their steps with ask,
// measure, pass mark, release and caution (part 5), what they need and what
// blocks them, and the house rules (part 6). It checks a catalogue as a whole
// and knows no file format; package catalog/yaml reads the shipped one.
package catalog

import (
	"cmp"
	"slices"
	"strings"

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

type pasts struct{}

func (pasts) Words() []string { return []string{"already ridden", "not yet ridden"} }

// Past tells horses that are ridden already from those that are not yet.
type Past = horse.Word[pasts]

// The two pasts.
var (
	AlreadyRidden = horse.MustWord[pasts]("already ridden")
	NotYetRidden  = horse.MustWord[pasts]("not yet ridden")
)

// A Step is one rung of a ladder.
type Step struct {
	Key      string           `json:"key" doc:"its key"`
	Name     string           `json:"name" doc:"short name, on the plank"`
	Ask      phrase.Slotted   `json:"ask" doc:"what is asked of the horse"`
	Plain    phrase.Slotted   `json:"plain" doc:"the ask as an owner understands it, as what the horse is doing"`
	Release  phrase.Slotted   `json:"release,omitempty" doc:"what earns the release"`
	Watch    phrase.Slotted   `json:"watch,omitempty" doc:"mistakes and cautions"`
	Measures []Measure        `json:"measures,omitempty" doc:"what is measured"`
	Pass     Pass             `json:"pass" doc:"when it is met"`
	Variants []horse.Variant  `json:"variants,omitempty" doc:"sides, zones, directions or places, each passed apart"`
	Needs    []Need           `json:"needs,omitempty" doc:"beyond the step before it"`
	Blocked  []horse.BodyItem `json:"blocked,omitempty" doc:"body items that block it while suspect or in treatment"`
	Kit      []string         `json:"kit,omitempty" doc:"what to bring"`
	Link     string           `json:"link,omitempty" doc:"the ladder this step stands for"`
	Tied     bool             `json:"tied,omitempty" doc:"being tied is the ask"`
	Ridden   bool             `json:"ridden,omitempty" doc:"asked from the saddle"`
	Away     bool             `json:"away,omitempty" doc:"worked away from the yard"`
	Means    []string         `json:"means,omitempty" doc:"aids that escalate inside one ask"`
	Trailer  bool             `json:"trailer,omitempty" doc:"done on or in the trailer"`
	Bars     bool             `json:"bars,omitempty" doc:"a bar or divider is closed: never alone at the yard"`
	Instead  bool             `json:"instead,omitempty" doc:"its needs stand in place of the step before it"`
	Calm     bool             `json:"calm,omitempty" doc:"left out unless fear is unlikely"`
	First    bool             `json:"first_rides,omitempty" doc:"part of the first rides, no problem work"`
	Before   bool             `json:"before_foundations,omitempty" doc:"where it is worked, every foundation and every other ladder comes after it"`
	Opens    bool             `json:"opens_riding,omitempty" doc:"a horse not yet ridden is ridden on other ladders only once it is met"`
	Helper   phrase.Slotted   `json:"helper,omitempty" doc:"a second person, and what they do"`
	Roles    []Role           `json:"roles,omitempty" doc:"what it is to the rules"`
	SeenIn   string           `json:"seen_in,omitempty" doc:"the look of an assessment that shows it, where that has another name"`
	Ladder   string           `json:"ladder" doc:"key of its ladder"`
	Place    int              `json:"place" doc:"place on its ladder, from 0"`
}

// FullName names the step where steps of several ladders may stand together, as
// in "lead stand" and "mount up".
func (s Step) FullName() string {
	ladder, _, ok := strings.Cut(s.Key, ".")
	if !ok || strings.HasPrefix(s.Name, ladder) {
		return s.Name
	}
	return ladder + " " + s.Name
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
	Key        string          `json:"key" doc:"its key"`
	Name       phrase.Slotted  `json:"name" doc:"its name"`
	Kind       Kind            `json:"kind" enum:"foundation,problem" doc:"a foundation, or for a problem"`
	For        []horse.Problem `json:"for,omitempty" doc:"the problems it serves"`
	Schools    []horse.School  `json:"schools" doc:"the usual school first"`
	Where      phrase.Slotted  `json:"where" doc:"where it is worked"`
	StandsOn   []Need          `json:"stands_on,omitempty" doc:"what comes before it"`
	Narrow     bool            `json:"narrow,omitempty" doc:"a narrow place: one risk point more"`
	Care       horse.Care      `json:"care,omitzero" doc:"at least this grade of care"`
	Watch      phrase.Slotted  `json:"watch,omitempty" doc:"mistakes and cautions"`
	From       string          `json:"stands_from,omitempty" doc:"the step from which it stands on them; empty: the first"`
	Helper     phrase.Slotted  `json:"helper,omitempty" doc:"a second person at every step, and what they do"`
	Ways       []horse.WayOut  `json:"ways_out,omitempty" doc:"ways out that are usual on it: they stand first among the chips"`
	Suits      []horse.WayOut  `json:"suits,omitempty" doc:"ways out that it is made for, where a problem has several ladders"`
	AtTrailer  bool            `json:"at_trailer,omitempty" doc:"worked at the trailer, by its door"`
	AboutThing bool            `json:"about_thing,omitempty" doc:"its steps are about a thing that has a name"`
	Bumps      bool            `json:"bumps,omitempty" doc:"a knock of the bit on the teeth is logged there"`
	Rate       float64         `json:"rate" doc:"units met in a session, as expected before anything is logged (part 7)"`
	Own        *Origin         `json:"own,omitempty" doc:"a practice's own copy; absent: as shipped"`
	Steps      []Step          `json:"steps" doc:"its steps, in order"`
}

// Origin is where an own ladder comes from. Its keys are those of the ladder
// that it was copied from, so that progress carries over.
type Origin struct {
	ID      string `json:"id" doc:"the own ladder's id"`
	Version int64  `json:"version" doc:"its version, from 1"`
	From    string `json:"from" doc:"version of the catalogue it was copied from"`
}

// HouseRules are the numbers a trainer can change (part 6); the shipped ones
// come with the catalogue.
type HouseRules struct {
	Cycle             int    `json:"cycle" minimum:"3" maximum:"6" doc:"reps in a cycle of answers"`
	PassRun           int    `json:"pass_run" minimum:"1" maximum:"10" doc:"in a row for the usual pass mark"`
	PassLevel         int    `json:"pass_level" minimum:"1" maximum:"10" doc:"peak level of the usual pass mark"`
	Refusals          int    `json:"refusals" minimum:"1" maximum:"10" doc:"refusals in a row before down"`
	BlockMinutes      int    `json:"block_minutes" minimum:"1" maximum:"120" doc:"length of a block, in minutes"`
	BlockMinutesYoung int    `json:"block_minutes_young" minimum:"1" maximum:"120" doc:"under 3 years or 10 rides"`
	BlockCap          int    `json:"block_cap" minimum:"1" maximum:"180" doc:"minutes after which a block ends"`
	BlockCapYoung     int    `json:"block_cap_young" minimum:"1" maximum:"180" doc:"the same for a young horse"`
	SessionCap        int    `json:"session_cap" minimum:"1" maximum:"240" doc:"minutes after which a session ends"`
	SessionCapYoung   int    `json:"session_cap_young" minimum:"1" maximum:"240" doc:"the same for a young horse"`
	RepSeconds        int    `json:"rep_seconds" minimum:"5" maximum:"600" doc:"rep time while there are under 4 reps"`
	OpenTime          int    `json:"open_time,omitempty" minimum:"0" maximum:"240" doc:"minutes that waiting it out may take; 0: 60"`
	SwapSides         string `json:"swap_sides" enum:"after the step,after each dose" doc:"when sides are swapped"`
}

// A Catalog is a checked set of ladders with the house rules it ships.
type Catalog struct {
	Version string     `json:"version" doc:"a session pins the version that advised it"`
	Ladders []Ladder   `json:"ladders"`
	Rules   HouseRules `json:"rules"`
	Judging Judging    `json:"judging"`
	Methods Methods    `json:"methods"`

	ladders map[string]int
	steps   map[string][2]int
	past    Past   // of the horse it is fitted to
	before  string // the step that comes before every foundation
	opens   [2]string
}

// Ladder returns the ladder with that key.
func (c *Catalog) Ladder(key string) (Ladder, bool) {
	i, ok := c.ladders[key]
	if !ok {
		return Ladder{}, false
	}
	return c.Ladders[i], true
}

// LaddersFor lists the ladders that serve a problem, the usual one first.
func (c *Catalog) LaddersFor(p horse.Problem) []Ladder {
	var list []Ladder
	for _, l := range c.Ladders {
		if slices.Contains(l.For, p) {
			list = append(list, l)
		}
	}
	return list
}

// LadderFor returns the usual ladder of a problem.
func (c *Catalog) LadderFor(p horse.Problem) (Ladder, bool) {
	list := c.LaddersFor(p)
	if len(list) == 0 {
		return Ladder{}, false
	}
	return list[0], true
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
	if len(step.Variants) == 0 {
		return ok && a.Variant.IsZero()
	}
	return ok && slices.Contains(step.Variants, a.Variant)
}

// Compare orders two asks of the catalogue: by ladder, step and variant.
func (c *Catalog) Compare(a, b horse.Ask) int {
	x, y := c.steps[a.Step], c.steps[b.Step]
	if d := cmp.Or(x[0]-y[0], x[1]-y[1]); d != 0 || a.Step != b.Step {
		return d
	}
	variants := c.Ladders[x[0]].Steps[x[1]].Variants
	return slices.Index(variants, a.Variant) - slices.Index(variants, b.Variant)
}
