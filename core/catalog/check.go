package catalog

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"ivorybridge/core/horse"
)

// New checks ladders, findings and rules and returns the catalogue, or every
// fault found, each with its place: keys twice, needs that lead nowhere or in
// a circle, a step without ask, measure or pass mark, a finding without weight.
func New(version string, rules HouseRules, judging Judging, methods Methods, ladders []Ladder) (*Catalog, error) {
	c := &Catalog{Version: version, Ladders: ladders, Rules: rules, Judging: judging.indexed(), Methods: methods}
	faults := c.check()
	checkMethods(c, func(place, format string, args ...any) {
		faults = append(faults, Fault{place, fmt.Sprintf(format, args...)})
	})
	if len(faults) > 0 {
		said := make([]error, len(faults))
		for i, f := range faults {
			said[i] = f
		}
		return nil, fmt.Errorf("checking the catalogue: %w", errors.Join(said...))
	}
	return c, nil
}

// Decode reads a catalogue that was told as JSON, and checks it.
func Decode(told []byte) (*Catalog, error) {
	var c Catalog
	if err := json.Unmarshal(told, &c); err != nil {
		return nil, fmt.Errorf("reading the catalogue: %w", err)
	}
	return New(c.Version, c.Rules, c.Judging, c.Methods, c.Ladders)
}

// A Fault is something that can't be in a catalogue, with its place: the key of
// a ladder or step, or the name of a part.
type Fault struct{ Place, Say string }

func (f Fault) Error() string { return f.Place + ": " + f.Say }

// check indexes the catalogue and lists its faults.
func (c *Catalog) check() []Fault {
	var faults []Fault
	fault := func(place, format string, args ...any) {
		faults = append(faults, Fault{place, fmt.Sprintf(format, args...)})
	}
	c.index(fault)
	for _, l := range c.Ladders {
		checkLadder(c, l, fault)
	}
	checkJudging(c.Judging, fault)
	if len(faults) > 0 {
		return faults
	}
	for _, past := range (Past{}).All() {
		fitted := *c
		fitted.past = past
		if checkCircles(&fitted, fault); len(faults) > 0 {
			return faults
		}
	}
	return nil
}

// index makes ladders and steps to be found by key.
func (c *Catalog) index(fault func(string, string, ...any)) {
	c.ladders, c.steps = map[string]int{}, map[string][2]int{}
	for i := range c.Ladders {
		l := &c.Ladders[i]
		if _, twice := c.ladders[l.Key]; twice {
			fault(l.Key, "there are two ladders with this key")
		}
		c.ladders[l.Key] = i
		for j := range l.Steps {
			s := &l.Steps[j]
			if _, twice := c.steps[s.Key]; twice {
				fault(s.Key, "there are two steps with this key")
			}
			if !strings.HasPrefix(s.Key, l.Key+".") && l.Kind == Foundation {
				fault(s.Key, "its key does not begin with %q", l.Key+".")
			}
			s.Ladder, s.Place = l.Key, j
			c.steps[s.Key] = [2]int{i, j}
			if s.Opens {
				c.opens = [2]string{s.Key, l.Key}
			}
		}
	}
}

func checkLadder(c *Catalog, l Ladder, fault func(string, string, ...any)) {
	if l.Name == "" || l.Where == "" || len(l.Schools) == 0 || len(l.Steps) == 0 {
		fault(l.Key, "a ladder needs a name, a place (where), a school and steps")
	}
	if l.Kind != Foundation && l.Kind != Problem {
		fault(l.Key, "kind is foundation or problem, not %q", l.Kind)
	}
	if l.Kind == Problem && len(l.For) == 0 {
		fault(l.Key, "a problem ladder says which problem it is for")
	}
	if l.Rate <= 0 || l.Rate > 10 {
		fault(l.Key, "rate is the units met in a session, more than 0 and at most 10")
	}
	if l.From != "" && !slices.ContainsFunc(l.Steps, func(s Step) bool { return s.Key == l.From }) {
		fault(l.Key, "it stands on its foundations from %q, which is not one of its steps", l.From)
	}
	for _, n := range l.StandsOn {
		checkNeed(c, l.Key, n, fault)
	}
	for _, s := range l.Steps {
		if s.Link != "" {
			if _, ok := c.ladders[s.Link]; !ok {
				fault(s.Key, "it links to the ladder %q, which is not there", s.Link)
			}
			continue
		}
		if s.Ask == "" || s.Plain == "" || s.Name == "" {
			fault(s.Key, "a step needs a name, an ask, and plain words for it")
		}
		if len(s.Measures) == 0 || s.Pass.Text == "" || s.Pass.Run < 1 || s.Pass.Level < 1 {
			fault(s.Key, "a step needs a measure and a pass mark: how many in a row, and the level at most")
		}
		for _, n := range s.Needs {
			checkNeed(c, s.Key, n, fault)
		}
		seen := map[horse.Variant]bool{}
		for _, v := range s.Variants {
			if v.IsZero() || seen[v] {
				fault(s.Key, "the variant %q is empty or there twice", v)
			}
			seen[v] = true
		}
	}
}

func checkNeed(c *Catalog, place string, n Need, fault func(string, string, ...any)) {
	if s, ok := c.Step(n.Step); !ok || s.Link != "" {
		fault(place, "it needs %q, which is not a step", n.Step)
		return
	}
	if n.Level < 0 || n.Level > 10 {
		fault(place, "it needs %q at level %d, which is not from 1 to 10", n.Step, n.Level)
	}
	if len(c.AsksOf(n)) == 0 {
		fault(place, "it needs %q in %s, where that step is not asked", n.Step, n.Zone)
	}
}

// checkCircles walks the needs; a step met again on the way back to itself is
// a circle.
func checkCircles(c *Catalog, fault func(string, string, ...any)) {
	const walking, done = 1, 2
	mark := map[string]int{}
	var walk func(key string, path []string) bool
	walk = func(key string, path []string) bool {
		switch mark[key] {
		case done:
			return true
		case walking:
			fault(key, "its needs go in a circle: %s", strings.Join(append(path, key), " → "))
			return false
		}
		mark[key] = walking
		for _, n := range c.Needs(key) {
			if !walk(n.Step, append(path, key)) {
				return false
			}
		}
		mark[key] = done
		return true
	}
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if !walk(s.Key, nil) {
				return
			}
		}
	}
}

// Check says what can't be in house rules, or nil. A trainer can change every
// number within these bounds (part 6).
func (r HouseRules) Check() error {
	for _, n := range []struct {
		name        string
		got, lo, hi int
	}{
		{"cycle", r.Cycle, 3, 6},
		{"open_time", r.OpenTime, 0, 240},
		{"pass_run", r.PassRun, 1, 10},
		{"pass_level", r.PassLevel, 1, 10},
		{"refusals", r.Refusals, 1, 10},
		{"block_minutes", r.BlockMinutes, 1, 120},
		{"block_minutes_young", r.BlockMinutesYoung, 1, 120},
		{"block_cap", r.BlockCap, 1, 180},
		{"block_cap_young", r.BlockCapYoung, 1, 180},
		{"session_cap", r.SessionCap, 1, 240},
		{"session_cap_young", r.SessionCapYoung, 1, 240},
		{"rep_seconds", r.RepSeconds, 5, 600},
	} {
		if n.got < n.lo || n.got > n.hi {
			return fmt.Errorf("%s is a whole number from %d to %d, not %d", n.name, n.lo, n.hi, n.got)
		}
	}
	if r.SwapSides != "after the step" && r.SwapSides != "after each dose" {
		return fmt.Errorf("swap_sides is \"after the step\" or \"after each dose\", not %q", r.SwapSides)
	}
	return nil
}
