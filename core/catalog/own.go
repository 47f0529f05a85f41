package catalog

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// An OwnAsk is something asked of one horse that no ladder names (part 5): written
// down in one line where it is asked, it counts by the usual pass mark.
type OwnAsk struct {
	Key   string `json:"key" maxLength:"60" doc:"own. and an id of the device"`
	Name  string `json:"name" minLength:"1" maxLength:"60" doc:"what is asked, in the trainer's words"`
	Sides bool   `json:"sides,omitempty" doc:"near and off are passed apart"`
	Holds int    `json:"holds,omitempty" minimum:"0" maximum:"3600" doc:"seconds that it is to last; 0: its answer alone"`
}

// OwnLadder is the key of the ladder on which a horse's own asks stand.
const OwnLadder = "own"

var ownKey = regexp.MustCompile(`^own\.[0-9a-f-]{8,40}$`)

// Check says what can't be in an own ask, or nil.
func (o OwnAsk) Check() error {
	switch n := utf8.RuneCountInString(strings.TrimSpace(o.Name)); {
	case !ownKey.MatchString(o.Key):
		return fmt.Errorf("the key of an own ask is own. and an id, not %q", o.Key)
	case n == 0 || n > 60:
		return fmt.Errorf("an own ask needs a name of 1 to 60 characters")
	case o.Holds < 0 || o.Holds > 3600:
		return fmt.Errorf("an own ask lasts from 0 to 3600 seconds, not %d", o.Holds)
	}
	return nil
}

// BothSides are the variants of a step that is asked near and off.
func BothSides() []horse.Variant {
	var variants []horse.Variant
	for _, side := range (horse.Side{}).All() {
		variants = append(variants, horse.Variant{Side: side})
	}
	return variants
}

// step is the ask as a step; it waits for nothing.
func (o OwnAsk) step(rules HouseRules) Step {
	name := strings.NewReplacer("{", "(", "}", ")").Replace(strings.TrimSpace(o.Name))
	s := Step{Key: o.Key, Name: name, Ask: phrase.Slotted(name), Plain: phrase.Slotted(name), Measures: []Measure{MeasureAnswer}, Instead: true}
	s.Pass = Pass{Run: rules.PassRun, Level: rules.PassLevel, Arousal: 1}
	if o.Holds > 0 {
		s.Measures, s.Pass.Values, s.Pass.Unit = []Measure{MeasureHold}, Climb(o.Holds, false), "s"
	}
	if o.Sides {
		s.Variants = BothSides()
	}
	s.Pass.Text = s.PassText()
	return s
}

// WithOwn is the catalogue with a horse's own asks, those that it has already left
// as they are. The catalogue itself stays as it is.
func (c *Catalog) WithOwn(asks ...OwnAsk) *Catalog {
	own := Ladder{Key: OwnLadder, Name: "Own asks", Kind: Problem, Schools: []horse.School{horse.BuildAndRelease}, Where: "Where it is asked", Rate: 1}
	at, had := c.ladders[OwnLadder]
	if had {
		own = c.Ladders[at]
		own.Steps = slices.Clone(own.Steps)
	}
	n := len(own.Steps)
	for _, o := range asks {
		if _, there := c.Step(o.Key); !there && !slices.ContainsFunc(own.Steps, func(s Step) bool { return s.Key == o.Key }) {
			own.Steps = append(own.Steps, o.step(c.Rules))
		}
	}
	if len(own.Steps) == n {
		return c
	}
	with := *c
	with.Ladders = slices.Clone(c.Ladders)
	if had {
		with.Ladders[at] = own
	} else {
		with.Ladders = append(with.Ladders, own)
	}
	with.index(func(string, string, ...any) {})
	return &with
}
