package yaml

import (
	"fmt"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type findings struct {
	Bias     map[horse.Cause]float64            `yaml:"bias"`
	Weights  map[catalog.Mark]float64           `yaml:"weights"`
	Sources  map[horse.Source]float64           `yaml:"sources"`
	Likely   float64                            `yaml:"likely"`
	Possible float64                            `yaml:"possible"`
	Open     [2]float64                         `yaml:"open"`
	Relevant map[horse.BodyItem][]horse.Problem `yaml:"relevant"`
	Findings []finding                          `yaml:"findings"`
}

type finding struct {
	Key    string          `yaml:"finding"`
	Says   phrase.Slotted  `yaml:"says"`
	Look   horse.Look      `yaml:"look"`
	Speaks string          `yaml:"speaks"`
	For    []horse.Problem `yaml:"for"`
	Else   string          `yaml:"else"`
}

func (f findings) judging() (catalog.Judging, error) {
	j := catalog.Judging{
		Bias: f.Bias, Weights: f.Weights, Sources: f.Sources, Likely: f.Likely, Possible: f.Possible, Open: f.Open,
		Relevant: f.Relevant,
	}
	for _, one := range f.Findings {
		bears, err := bearings(one.Speaks)
		if err != nil {
			return j, fmt.Errorf("%s: %w", one.Key, err)
		}
		other, err := bearings(one.Else)
		if err != nil {
			return j, fmt.Errorf("%s: %w", one.Key, err)
		}
		j.Findings = append(j.Findings, catalog.Finding{Key: one.Key, Says: one.Says, Look: one.Look, Bears: bears, For: one.For, Else: other})
	}
	return j, nil
}

// bearings reads "learned_out +, body +, untaught −−".
func bearings(text string) ([]catalog.Bearing, error) {
	var list []catalog.Bearing
	for part := range strings.SplitSeq(text, ",") {
		name, mark, ok := strings.Cut(strings.TrimSpace(part), " ")
		if !ok {
			if text == "" {
				return nil, nil
			}
			return nil, fmt.Errorf("it speaks for a cause with a mark, such as \"fear ++\", not %q", part)
		}
		var cause horse.Cause
		if err := cause.UnmarshalText([]byte(name)); err != nil {
			return nil, err
		}
		list = append(list, catalog.Bearing{Cause: cause, Mark: catalog.Mark(mark)})
	}
	return list, nil
}
