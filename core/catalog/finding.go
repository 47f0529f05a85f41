package catalog

import (
	"math"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Mark is how strongly a finding speaks, as the handbook writes it: + ++ +++
// for a cause, − −− against it.
type Mark string

// Decisive is the mark that settles a cause by itself.
const Decisive Mark = "+++"

// A Bearing is what a finding says of one cause.
type Bearing struct {
	Cause horse.Cause `json:"cause"`
	Mark  Mark        `json:"mark"`
}

// A Finding is something that an assessment may find, and what it speaks for
// (part 3).
type Finding struct {
	Key   string          `json:"key"`
	Says  phrase.Slotted  `json:"says"`
	Look  horse.Look      `json:"look" doc:"where it is seen"`
	Bears []Bearing       `json:"bears"`
	For   []horse.Problem `json:"for,omitempty" doc:"the problems it bears on so; on others as in else"`
	Else  []Bearing       `json:"else,omitempty"`
}

// On lists what the finding says where the problem is p.
func (f Finding) On(p horse.Problem) []Bearing {
	if len(f.For) > 0 && !slices.Contains(f.For, p) {
		return f.Else
	}
	return f.Bears
}

// Judging holds the numbers and the findings by which causes are judged; like
// the house rules, a trainer can change the numbers.
type Judging struct {
	Bias     map[horse.Cause]float64            `json:"bias" doc:"where a cause stands before anything is found, as log odds"`
	Weights  map[Mark]float64                   `json:"weights"`
	Sources  map[horse.Source]float64           `json:"sources" doc:"share of the weight that a source carries, 0 to 1"`
	Likely   float64                            `json:"likely" doc:"from this probability a cause is likely"`
	Possible float64                            `json:"possible" doc:"from this one it is possible"`
	Open     [2]float64                         `json:"open" doc:"between these a cause is not settled"`
	Relevant map[horse.BodyItem][]horse.Problem `json:"relevant" doc:"the problems that a body item bears on"`
	Findings []Finding                          `json:"findings"`

	at map[string]int // places of the findings
}

// indexed is j with its findings to be found by key.
func (j Judging) indexed() Judging {
	j.at = make(map[string]int, len(j.Findings))
	for i, f := range j.Findings {
		j.at[f.Key] = i
	}
	return j
}

// Finding returns the finding with that key.
func (j Judging) Finding(key string) (Finding, bool) {
	i, ok := j.at[key]
	if !ok {
		return Finding{}, false
	}
	return j.Findings[i], true
}

// RelevantTo lists the body items that bear on a problem, in their own order.
func (j Judging) RelevantTo(p horse.Problem) []horse.BodyItem {
	var items []horse.BodyItem
	for _, item := range (horse.BodyItem{}).All() {
		if slices.Contains(j.Relevant[item], p) {
			items = append(items, item)
		}
	}
	return items
}

func checkJudging(j Judging, fault func(string, string, ...any)) {
	const place = "findings"
	for _, c := range (horse.Cause{}).All() {
		if _, ok := j.Bias[c]; !ok {
			fault(place, "the bias of %s is missing", c)
		}
	}
	for _, s := range (horse.Source{}).All() {
		if w, ok := j.Sources[s]; !ok || w < 0 || w > 1 {
			fault(place, "what a source carries is from 0 to 1, given for each; %q is not", s)
		}
	}
	if !(0 < j.Possible && j.Possible < j.Likely && j.Likely < 1) || !(0 < j.Open[0] && j.Open[0] < j.Open[1] && j.Open[1] < 1) {
		fault(place, "possible is less than likely, and both, like the ends of open, lie between 0 and 1")
	}
	seen := map[string]bool{}
	for _, f := range j.Findings {
		if f.Key == "" || f.Says == "" || f.Look.IsZero() || len(f.Bears) == 0 {
			fault(place, "%q needs a key, words, a look and what it speaks for", f.Key)
		}
		if seen[f.Key] {
			fault(place, "%q is there twice", f.Key)
		}
		seen[f.Key] = true
		for _, b := range slices.Concat(f.Bears, f.Else) {
			if w, ok := j.Weights[b.Mark]; !ok || w == 0 || math.IsNaN(w) || math.IsInf(w, 0) {
				fault(place, "%s: the mark %q has no weight", f.Key, b.Mark)
			}
		}
	}
}
