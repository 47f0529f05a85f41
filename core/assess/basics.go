package assess

import (
	"fmt"
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

type prompts struct{}

func (prompts) Words() []string { return []string{"at once", "in a moment", "slow"} }

// Prompt is how promptly an answer came.
type Prompt = horse.Word[prompts]

// Basic is one test of section D or D2 on one side.
type Basic struct {
	Level   horse.Level  `json:"level,omitzero" doc:"level needed"`
	Seconds *float64     `json:"seconds,omitempty" doc:"seconds to answer; stood, for a stand"`
	Count   *int         `json:"count,omitempty" doc:"steps back, for backing"`
	Grade   horse.Answer `json:"grade,omitzero" doc:"the horse's answer"`
	Prompt  Prompt       `json:"prompt,omitzero" doc:"how soon it answered"`
	Anew    bool         `json:"anew,omitempty" doc:"noted in this assessment, not only carried over from the one before"`
}

// noted reports whether the test was made.
func (b Basic) noted() bool { return b.Level.Noted() || !b.Grade.IsZero() }

// missing: grade under accepted, or level over 5 (part 3).
func (b Basic) missing() bool {
	return b.noted() && (!b.Grade.IsZero() && !horse.Soft(b.Grade) || b.Level.Int() > GoodTo)
}

// GoodTo is the level up to which a basic is not missing (part 3).
const GoodTo = 5

// A Test is one of the basics, or one ridden.
type Test struct {
	Key    string       `json:"key" doc:"a step of the catalogue, or ridden.…"`
	Sides  []horse.Side `json:"sides" doc:"empty: it has none"`
	Holds  bool         `json:"holds,omitempty" doc:"seconds are how long it stood"`
	Counts bool         `json:"counts,omitempty" doc:"steps are counted"`
	Ridden bool         `json:"ridden,omitempty" doc:"D2"`
}

// Asks spells the test's keys in the document, one for each side it has.
func (t Test) Asks() []string {
	if len(t.Sides) == 0 {
		return []string{t.Key}
	}
	keys := make([]string, len(t.Sides))
	for i, s := range t.Sides {
		keys[i] = t.Key + " " + s.String()
	}
	return keys
}

// Tests lists the basics of section D in order, then those of D2.
func Tests() []Test {
	both := horse.Side{}.All()
	return []Test{
		{Key: "lead.forward"}, {Key: "lead.halt"}, {Key: "lead.stand", Holds: true}, {Key: "lead.back", Counts: true}, {Key: "lead.anytime"},
		{Key: "head.down"}, {Key: "head.flex", Sides: both}, {Key: "quarters.hind", Sides: both},
		{Key: "quarters.fore", Sides: both}, {Key: "lead.past", Sides: both}, {Key: "lead.turn", Sides: both},
		{Key: "ridden.mount", Ridden: true}, {Key: "ridden.contact", Ridden: true}, {Key: "ridden.flex", Sides: both, Ridden: true},
		{Key: "ridden.turn", Sides: both, Ridden: true}, {Key: "ridden.sideways", Sides: both, Ridden: true},
		{Key: "ridden.halt", Ridden: true}, {Key: "ridden.back", Ridden: true}, {Key: "ridden.off", Ridden: true},
	}
}

// Spot is a zone on a side, touched by hand, by a tool, or from over it.
type Spot struct {
	Zone horse.Zone
	Side horse.Side
	With With
}

type withs struct{}

func (withs) Words() []string { return []string{"hand", "tool", "over"} }

// With is what a zone is touched with.
type With = horse.Word[withs]

func (s Spot) String() string {
	return strings.Join([]string{s.Zone.String(), s.Side.String(), s.With.String()}, " ")
}

// MarshalText spells the spot, as in "zone 3 near hand".
func (s Spot) MarshalText() ([]byte, error) { return []byte(s.String()), nil }

// UnmarshalText reads a spelling made by MarshalText.
func (s *Spot) UnmarshalText(b []byte) error {
	for _, zone := range (horse.Zone{}).All() {
		for _, side := range (horse.Side{}).All() {
			for _, with := range (With{}).All() {
				if spot := (Spot{zone, side, with}); spot.String() == string(b) {
					*s = spot
					return nil
				}
			}
		}
	}
	return &horse.ValueError{Got: string(b), Want: "a zone from 1 to 5, near or off, and hand, tool or over, as in zone 3 near hand"}
}

// Touch is what touching a spot took, and how often the horse stepped out.
type Touch struct {
	Level    horse.Level  `json:"level,omitzero" doc:"level it took"`
	Grade    horse.Answer `json:"grade,omitzero" doc:"the horse's answer"`
	StepOuts *int         `json:"step_outs,omitempty" doc:"how often it stepped out"`
	Anew     bool         `json:"anew,omitempty" doc:"noted in this assessment, not only carried over from the one before"`
}

// Missing lists the steps that teach the basics that are missing, in ladder
// order; touching all over counts as one, a test with two sides as well.
func (a Assessment) Missing(c *catalog.Catalog) []string {
	keys := a.failed()
	if a.flinched() {
		for _, s := range c.With(catalog.TouchedAllOver) {
			keys = append(keys, s.Key)
		}
	}
	return keys
}

// lacking counts the basics that are missing.
func (a Assessment) lacking() int {
	n := len(a.failed())
	if a.flinched() {
		n++
	}
	return n
}

// failed lists the tests from the ground that show a basic missing.
func (a Assessment) failed() []string {
	var keys []string
	for _, t := range Tests() {
		if !t.Ridden && slices.ContainsFunc(t.Asks(), func(k string) bool { return a.Basics[k].missing() }) {
			keys = append(keys, t.Key)
		}
	}
	return keys
}

// flinched reports whether a touch anywhere shows that being touched is missing.
func (a Assessment) flinched() bool {
	for _, touch := range a.Zones {
		if (Basic{Level: touch.Level, Grade: touch.Grade}).missing() {
			return true
		}
	}
	return false
}

// allGood reports whether every basic was looked at on every side, zones 2 to
// 4 by hand too, and none is missing.
func (a Assessment) allGood() bool {
	if a.lacking() > 0 {
		return false
	}
	for _, t := range Tests() {
		if !t.Ridden && slices.ContainsFunc(t.Asks(), func(k string) bool { return a.Basics[k].Grade.IsZero() }) {
			return false
		}
	}
	hand := horse.MustWord[withs]("hand")
	for _, zone := range []horse.Zone{horse.Zone2, horse.Zone3, horse.Zone4} {
		for _, side := range (horse.Side{}).All() {
			if a.Zones[Spot{zone, side, hand}].Grade.IsZero() {
				return false
			}
		}
	}
	return true
}

// oneSideWorse: 3 levels or 2 grades between near and off on any test.
func (a Assessment) oneSideWorse() bool {
	for _, t := range Tests() {
		if len(t.Sides) < 2 {
			continue
		}
		near, off := a.Basics[t.Asks()[0]], a.Basics[t.Asks()[1]]
		if near.Level.Noted() && off.Level.Noted() && apart(near.Level.Int(), off.Level.Int()) >= 3 {
			return true
		}
		if !near.Grade.IsZero() && !off.Grade.IsZero() && apart(near.Grade.Rank(), off.Grade.Rank()) >= 2 {
			return true
		}
	}
	return false
}

func apart(a, b int) int { return max(a-b, b-a) }

// stepOuts counts how often the horse stepped out of zone 3 on a side.
func (a Assessment) stepOuts(side horse.Side) int {
	n := 0
	for spot, touch := range a.Zones {
		if spot.Zone == horse.Zone3 && spot.Side == side && touch.StepOuts != nil {
			n += *touch.StepOuts
		}
	}
	return n
}

func (a Assessment) checkBasics(f *faults) {
	known := map[string]bool{}
	for _, t := range Tests() {
		for _, k := range t.Asks() {
			known[k] = true
		}
	}
	for k, b := range a.Basics {
		if !known[k] {
			f.add("basics/"+k, "This is not one of the basics. Choose one from the list.")
		}
		if b.Seconds != nil && (*b.Seconds < 0 || *b.Seconds > 3600) {
			f.add(fmt.Sprintf("basics/%s/seconds", k), "Give seconds from 0 to 3600.")
		}
		f.within(fmt.Sprintf("basics/%s/count", k), b.Count, 0, 50, "steps")
	}
	for spot, t := range a.Zones {
		f.within(fmt.Sprintf("zones/%s/step_outs", spot), t.StepOuts, 0, 50, "times")
	}
}

// Levels gives the level that each basic took, by its ask, where it was seen in
// person and a level was noted.
func (a Assessment) Levels(c *catalog.Catalog) map[horse.Ask]int {
	levels := map[horse.Ask]int{}
	if a.SourceIn("D") != horse.Seen {
		return levels
	}
	for _, t := range Tests() {
		for i, key := range t.Asks() {
			ask := horse.Ask{Step: t.Key}
			if len(t.Sides) > 0 {
				ask.Variant.Side = t.Sides[i]
			}
			if b := a.Basics[key]; b.Level.Noted() && c.HasAsk(ask) {
				levels[ask] = b.Level.Int()
			}
		}
	}
	return levels
}
