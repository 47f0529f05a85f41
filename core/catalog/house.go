package catalog

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"ivorybridge/core/horse"
)

// House is what a practice does otherwise than shipped: its house rules, and what it thinks
// findings say (parts 3 and 6).
type House struct {
	Rules    map[string]int                  `json:"rules,omitempty" doc:"numbers, by the key of the rule"`
	Swap     string                          `json:"swap_sides,omitempty" enum:"after the step,after each dose,"`
	Likely   float64                         `json:"likely,omitempty" doc:"from this probability a cause is likely, 0 to 1; 0: as shipped"`
	Possible float64                         `json:"possible,omitempty" doc:"from this one it is possible"`
	Bears    map[string]map[horse.Cause]Mark `json:"bears,omitempty" doc:"what a finding says of a cause, by the finding's key; empty: nothing"`
}

// A Rule is a number of the house rules.
type Rule struct {
	Key  string `json:"key" doc:"name in the house rules"`
	Name string `json:"name" doc:"in words"`
	Unit string `json:"unit" doc:"what it counts"`
	Min  int    `json:"min"`
	Max  int    `json:"max"`
	Why  string `json:"why" doc:"what it does"`
	Part int    `json:"part" doc:"of the handbook, where it is explained"`
	at   func(*HouseRules) *int
}

// Of is the rule's number in house rules.
func (r Rule) Of(rules HouseRules) int { return *r.at(&rules) }

// Rules lists the numbers of the house rules, in the handbook's order.
func Rules() []Rule {
	return []Rule{
		{"pass_run", "pass run", "in a row", 1, 10, "So many accepted or offered in a row pass a step, where the step does not say otherwise.", 6, func(h *HouseRules) *int { return &h.PassRun }},
		{"pass_level", "pass level", "at most", 1, 10, "An answer counts towards the pass mark up to this peak level, where the step does not say otherwise.", 6, func(h *HouseRules) *int { return &h.PassLevel }},
		{"refusals", "refusals", "in a row", 1, 10, "So many refusals in a row before the advice is to go down.", 6, func(h *HouseRules) *int { return &h.Refusals }},
		{"cycle", "cycle", "asks", 3, 6, "Answers come in cycles. So many asks are one, until a horse has shown its own.", 6, func(h *HouseRules) *int { return &h.Cycle }},
		{"block_minutes", "block minutes", "min", 1, 120, "After so long the advice is to end the ask on a good answer.", 6, func(h *HouseRules) *int { return &h.BlockMinutes }},
		{"block_cap", "block cap", "min", 1, 180, "After so long an ask ends, on one easy known answer.", 6, func(h *HouseRules) *int { return &h.BlockCap }},
		{"session_cap", "session cap", "min", 1, 240, "After so long the session ends.", 6, func(h *HouseRules) *int { return &h.SessionCap }},
		{"block_minutes_young", "block minutes, young", "min", 1, 120, "The same for a horse under 3 years or 10 rides.", 6, func(h *HouseRules) *int { return &h.BlockMinutesYoung }},
		{"block_cap_young", "block cap, young", "min", 1, 15, "The same for a horse under 3 years or 10 rides: never more than 15 (part 9).", 9, func(h *HouseRules) *int { return &h.BlockCapYoung }},
		{"session_cap_young", "session cap, young", "min", 1, 240, "The same for a horse under 3 years or 10 rides.", 6, func(h *HouseRules) *int { return &h.SessionCapYoung }},
		{"rep_seconds", "rep time", "s", 5, 600, "How long an ask takes, while a session has under four.", 6, func(h *HouseRules) *int { return &h.RepSeconds }},
		{"open_time", "open time", "min", 1, 240, "How long wait it out may take.", 6, func(h *HouseRules) *int { return &h.OpenTime }},
	}
}

// Marks are those that a finding may bear, from most for to most against.
func Marks() []Mark { return []Mark{"+++", "++", "+", "−", "−−"} }

// Empty reports whether nothing is otherwise than shipped.
func (h House) Empty() bool {
	return len(h.Rules) == 0 && h.Swap == "" && h.Likely == 0 && h.Possible == 0 && len(h.Bears) == 0
}

// Plain leaves out what is as shipped.
func (h House) Plain(c *Catalog) House {
	plain := House{Rules: map[string]int{}, Bears: map[string]map[horse.Cause]Mark{}}
	for _, r := range Rules() {
		if n, there := h.Rules[r.Key]; there && n != r.Of(c.Rules) {
			plain.Rules[r.Key] = n
		}
	}
	if h.Swap != c.Rules.SwapSides {
		plain.Swap = h.Swap
	}
	if h.Likely != c.Judging.Likely {
		plain.Likely = h.Likely
	}
	if h.Possible != c.Judging.Possible {
		plain.Possible = h.Possible
	}
	for key, bears := range h.Bears {
		known, _ := c.Judging.Finding(key)
		for cause, mark := range bears {
			if mark != markOf(known.Bears, cause) {
				if plain.Bears[key] == nil {
					plain.Bears[key] = map[horse.Cause]Mark{}
				}
				plain.Bears[key][cause] = mark
			}
		}
	}
	return plain
}

func markOf(bears []Bearing, cause horse.Cause) Mark {
	for _, b := range bears {
		if b.Cause == cause {
			return b.Mark
		}
	}
	return ""
}

// Check says what can't be in house rules, by field.
func (h House) Check(c *Catalog) []Fault {
	var faults []Fault
	wrong := func(field, format string, args ...any) {
		faults = append(faults, Fault{Place: field, Say: fmt.Sprintf(format, args...)})
	}
	known := map[string]Rule{}
	for _, r := range Rules() {
		known[r.Key] = r
	}
	for _, key := range slices.Sorted(maps.Keys(h.Rules)) {
		n := h.Rules[key]
		r, ok := known[key]
		switch {
		case !ok:
			wrong("rules."+key, "This is no house rule. Reload the page.")
		case n < r.Min || n > r.Max:
			wrong("rules."+key, "Give a whole number from %d to %d.", r.Min, r.Max)
		}
	}
	if len(faults) == 0 {
		rules := h.rules(c.Rules)
		for _, pair := range [][3]any{
			{"block_cap", rules.BlockMinutes, rules.BlockCap}, {"session_cap", rules.BlockCap, rules.SessionCap},
			{"block_cap_young", rules.BlockMinutesYoung, rules.BlockCapYoung}, {"session_cap_young", rules.BlockCapYoung, rules.SessionCapYoung},
		} {
			if pair[1].(int) > pair[2].(int) {
				wrong("rules."+pair[0].(string), "This is less than what it caps, %d. Raise it, or lower that.", pair[1])
			}
		}
	}
	if h.Swap != "" && h.Swap != "after the step" && h.Swap != "after each dose" {
		wrong("swap_sides", "Choose after the step, or after each dose.")
	}
	likely, possible := cmp.Or(h.Likely, c.Judging.Likely), cmp.Or(h.Possible, c.Judging.Possible)
	if likely <= 0 || likely >= 1 || possible <= 0 || possible >= likely {
		wrong("likely", "Likely lies under 1, and possible under likely.")
	}
	for _, key := range slices.Sorted(maps.Keys(h.Bears)) {
		f, ok := c.Judging.Finding(key)
		switch {
		case !ok:
			wrong("bears."+key, "This is no finding of the handbook. Reload the page.")
		case len(bearing(f.Bears, h.Bears[key])) == 0:
			wrong("bears."+key, "A finding says something of one cause at least. Give it a small weight.")
		}
		for cause, mark := range h.Bears[key] {
			if mark != "" && !slices.Contains(Marks(), mark) {
				wrong("bears."+key, "%q is no weight for %s. Choose one of the list.", mark, cause)
			}
		}
	}
	return faults
}

func (h House) rules(shipped HouseRules) HouseRules {
	rules := shipped
	for _, r := range Rules() {
		if n, there := h.Rules[r.Key]; there {
			*r.at(&rules) = n
		}
	}
	rules.SwapSides = cmp.Or(h.Swap, shipped.SwapSides)
	return rules
}

// Filled are house rules that were kept before some of them were there: those take what ships.
func (c *Catalog) Filled(rules HouseRules) HouseRules {
	for _, r := range Rules() {
		if *r.at(&rules) == 0 {
			*r.at(&rules) = r.Of(c.Rules)
		}
	}
	rules.SwapSides = cmp.Or(rules.SwapSides, c.Rules.SwapSides)
	return rules
}

// ByHouse returns the catalogue under house rules of a practice, of this version of theirs.
func (c *Catalog) ByHouse(h House, version int64) *Catalog {
	if h.Empty() {
		return c
	}
	own := c.ByRules(h.rules(c.Rules))
	copied := *own
	copied.Version = fmt.Sprintf("%s~%d", c.Version, version)
	copied.Judging.Likely, copied.Judging.Possible = cmp.Or(h.Likely, c.Judging.Likely), cmp.Or(h.Possible, c.Judging.Possible)
	copied.Judging.Findings = slices.Clone(c.Judging.Findings)
	for i, f := range copied.Judging.Findings {
		if bears, otherwise := h.Bears[f.Key]; otherwise {
			copied.Judging.Findings[i].Bears = bearing(f.Bears, bears)
		}
	}
	return &copied
}

// bearing is what a finding says once some causes are said otherwise: the shipped ones where
// they stood, then those that are new.
func bearing(shipped []Bearing, otherwise map[horse.Cause]Mark) []Bearing {
	var list []Bearing
	for _, b := range shipped {
		if mark, said := otherwise[b.Cause]; said {
			b.Mark = mark
		}
		if b.Mark != "" {
			list = append(list, b)
		}
	}
	for _, cause := range (horse.Cause{}).All() {
		if mark := otherwise[cause]; mark != "" && markOf(shipped, cause) == "" {
			list = append(list, Bearing{cause, mark})
		}
	}
	return list
}

// ByRules returns the catalogue under these house rules: what a step takes from them follows.
// A step whose own mark is just the usual one goes with it.
func (c *Catalog) ByRules(rules HouseRules) *Catalog {
	if rules == c.Rules {
		return c
	}
	copied := *c
	copied.Rules = rules
	copied.Ladders = slices.Clone(c.Ladders)
	for i := range copied.Ladders {
		steps := slices.Clone(c.Ladders[i].Steps)
		for n, s := range steps {
			if s.Pass.Run == c.Rules.PassRun {
				s.Pass.Run = rules.PassRun
			}
			if s.Pass.Level == c.Rules.PassLevel {
				s.Pass.Level = rules.PassLevel
			}
			if s.Pass.Run != steps[n].Pass.Run || s.Pass.Level != steps[n].Pass.Level {
				s.Pass.Text = s.PassText()
			}
			steps[n] = s
		}
		copied.Ladders[i].Steps = steps
	}
	return &copied
}
