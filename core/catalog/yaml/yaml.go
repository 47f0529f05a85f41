// Package yaml reads a catalogue from the YAML that a trainer could read
// (part 5) and carries the shipped one. The browser never needs it: it gets
// the checked catalogue as JSON.
package yaml

import (
	"bytes"
	"cmp"
	"embed"
	"fmt"
	"io/fs"
	"strings"

	"go.yaml.in/yaml/v3"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

//go:embed shipped/*.yaml
var shipped embed.FS

// Version names the shipped catalogue; a session pins it.
const Version = "2026.1"

// Shipped reads and checks the catalogue that comes with the product.
func Shipped() (*catalog.Catalog, error) {
	files, err := fs.Sub(shipped, "shipped")
	if err != nil {
		return nil, fmt.Errorf("reading the shipped catalogue: %w", err)
	}
	return Read(Version, files)
}

// Read reads house-rules.yaml, findings.yaml and every other .yaml file at the
// top of files, a ladder each, in the order of their names, and checks them
// together.
func Read(version string, files fs.FS) (*catalog.Catalog, error) {
	names, err := fs.Glob(files, "*.yaml")
	if err != nil {
		return nil, fmt.Errorf("reading the catalogue: %w", err)
	}
	var rules houseRules
	if err := strict(files, rulesFile, &rules); err != nil {
		return nil, err
	}
	var found findings
	if err := strict(files, findingsFile, &found); err != nil {
		return nil, err
	}
	judging, err := found.judging()
	if err != nil {
		return nil, fmt.Errorf("%s: %w", findingsFile, err)
	}
	var ladders []catalog.Ladder
	for _, name := range names {
		if name == rulesFile || name == findingsFile {
			continue
		}
		var doc ladder
		if err := strict(files, name, &doc); err != nil {
			return nil, err
		}
		l, err := doc.ladder(catalog.HouseRules(rules))
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		ladders = append(ladders, l)
	}
	return catalog.New(version, catalog.HouseRules(rules), judging, ladders)
}

const (
	rulesFile    = "house-rules.yaml"
	findingsFile = "findings.yaml"
)

// strict reads one file and refuses keys it does not know.
func strict(files fs.FS, name string, into any) error {
	text, err := fs.ReadFile(files, name)
	if err != nil {
		return fmt.Errorf("reading the catalogue: %w", err)
	}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(into); err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	return nil
}

type houseRules struct {
	Cycle             int    `yaml:"cycle"`
	PassRun           int    `yaml:"pass run"`
	PassLevel         int    `yaml:"pass level"`
	Refusals          int    `yaml:"refusals"`
	BlockMinutes      int    `yaml:"block minutes"`
	BlockMinutesYoung int    `yaml:"block minutes young"`
	BlockCap          int    `yaml:"block cap"`
	BlockCapYoung     int    `yaml:"block cap young"`
	SessionCap        int    `yaml:"session cap"`
	SessionCapYoung   int    `yaml:"session cap young"`
	RepSeconds        int    `yaml:"rep seconds"`
	SwapSides         string `yaml:"swap sides"`
}

type ladder struct {
	Key      string          `yaml:"ladder"`
	Name     phrase.Slotted  `yaml:"name"`
	Kind     catalog.Kind    `yaml:"kind"`
	For      []horse.Problem `yaml:"for"`
	Schools  []horse.School  `yaml:"schools"`
	Where    phrase.Slotted  `yaml:"where"`
	StandsOn []string        `yaml:"stands on"`
	Narrow   bool            `yaml:"narrow"`
	Care     horse.Care      `yaml:"care"`
	Watch    phrase.Slotted  `yaml:"watch"`
	Steps    []step          `yaml:"steps"`
}

type step struct {
	Key      string            `yaml:"step"`
	Name     string            `yaml:"name"`
	Ask      phrase.Slotted    `yaml:"ask"`
	Plain    phrase.Slotted    `yaml:"plain"`
	Release  phrase.Slotted    `yaml:"release"`
	Watch    phrase.Slotted    `yaml:"watch"`
	Measure  []catalog.Measure `yaml:"measure"`
	Pass     *pass             `yaml:"pass"`
	Variants variants          `yaml:"variants"`
	Needs    []string          `yaml:"needs"`
	Blocked  []horse.BodyItem  `yaml:"blocked"`
	Kit      []string          `yaml:"kit"`
	Link     string            `yaml:"link"`
	Tied     bool              `yaml:"tied"`
	Ridden   bool              `yaml:"ridden"`
	Means    []string          `yaml:"means"`
	Trailer  bool              `yaml:"trailer"`
	Bars     bool              `yaml:"bars"`
}

// pass is a written pass mark; what it leaves out is the usual one.
type pass struct {
	Run         int    `yaml:"run"`
	Level       int    `yaml:"level"`
	Last        int    `yaml:"last"`
	Values      []int  `yaml:"values"`
	Unit        string `yaml:"unit"`
	Corrections *int   `yaml:"corrections"`
	And         string `yaml:"and"`
}

// UnmarshalYAML reads the word "usual" or a written pass mark.
func (p *pass) UnmarshalYAML(n *yaml.Node) error {
	if n.Kind == yaml.ScalarNode {
		if n.Value != "usual" {
			return fmt.Errorf("line %d: a pass mark is \"usual\" or written out, not %q", n.Line, n.Value)
		}
		return nil
	}
	type written pass
	return n.Decode((*written)(p))
}

type variants []horse.Variant

// UnmarshalYAML reads "sides", "directions", or a list of variants.
func (v *variants) UnmarshalYAML(n *yaml.Node) error {
	var list []string
	switch {
	case n.Kind == yaml.ScalarNode && n.Value == "sides":
		list = []string{"near", "off"}
	case n.Kind == yaml.ScalarNode && n.Value == "directions":
		list = []string{"going left", "going right"}
	default:
		if err := n.Decode(&list); err != nil {
			return err
		}
	}
	for _, s := range list {
		parsed, err := horse.ParseVariant(s)
		if err != nil {
			return fmt.Errorf("line %d: %w", n.Line, err)
		}
		*v = append(*v, parsed)
	}
	return nil
}

func (doc ladder) ladder(rules catalog.HouseRules) (catalog.Ladder, error) {
	l := catalog.Ladder{
		Key: doc.Key, Name: doc.Name, Kind: doc.Kind, For: doc.For, Schools: doc.Schools, Where: doc.Where,
		Narrow: doc.Narrow, Care: doc.Care, Watch: doc.Watch,
	}
	var err error
	if l.StandsOn, err = needs(doc.StandsOn); err != nil {
		return l, fmt.Errorf("%s: %w", doc.Key, err)
	}
	for _, s := range doc.Steps {
		step, err := s.step(rules)
		if err != nil {
			return l, fmt.Errorf("%s: %w", s.Key, err)
		}
		l.Steps = append(l.Steps, step)
	}
	return l, nil
}

func (doc step) step(rules catalog.HouseRules) (catalog.Step, error) {
	s := catalog.Step{
		Key: doc.Key, Name: doc.Name, Ask: doc.Ask, Plain: doc.Plain, Release: doc.Release, Watch: doc.Watch,
		Measures: doc.Measure, Variants: doc.Variants, Blocked: doc.Blocked, Kit: doc.Kit,
		Link: doc.Link, Tied: doc.Tied, Ridden: doc.Ridden, Means: doc.Means, Trailer: doc.Trailer, Bars: doc.Bars,
	}
	if doc.Pass != nil {
		s.Pass = doc.Pass.pass(s, rules)
	}
	var err error
	s.Needs, err = needs(doc.Needs)
	return s, err
}

// needs reads "lead.back", "lead.back at level 1" and "load.stand kept".
func needs(texts []string) ([]catalog.Need, error) {
	var list []catalog.Need
	for _, text := range texts {
		key, rest, _ := strings.Cut(text, " ")
		n := catalog.Need{Step: key}
		switch {
		case rest == "kept":
			n.Kept = true
		case rest != "":
			if _, err := fmt.Sscanf(rest, "at level %d", &n.Level); err != nil {
				return nil, fmt.Errorf("a need is a step, \"… at level 3\" or \"… kept\", not %q", text)
			}
		}
		list = append(list, n)
	}
	return list, nil
}

// pass fills the usual pass mark (part 5) and the values up to the last one
// (part 6): from a quarter of it, rising by at most half; counts by one.
func (p pass) pass(s catalog.Step, rules catalog.HouseRules) catalog.Pass {
	mark := catalog.Pass{
		Run: cmp.Or(p.Run, rules.PassRun), Level: cmp.Or(p.Level, rules.PassLevel), Arousal: 1,
		Values: p.Values, Unit: p.Unit, Corrections: p.Corrections,
	}
	if p.Last > 0 {
		byOne := s.Has(catalog.MeasureCount) || s.Has(catalog.MeasureSetting)
		mark.Values = climb(p.Last, byOne)
	}
	mark.Text = words(mark, s, p.And)
	return mark
}

func climb(last int, byOne bool) []int {
	values := []int{max(last/4, 1)}
	for v := values[0]; v < last; {
		if byOne {
			v++
		} else {
			v = min(v+max(v/2, 1), last)
		}
		values = append(values, v)
	}
	return values
}

func words(p catalog.Pass, s catalog.Step, and string) string {
	text := fmt.Sprintf("%d in a row accepted or offered, level %d or less, settled or attentive after", p.Run, p.Level)
	if n := len(p.Values); n > 0 {
		switch p.Unit {
		case "mm":
			text += fmt.Sprintf(", at %.3g m", float64(p.Values[n-1])/1000)
		case "s":
			if s.Has(catalog.MeasureTime) {
				text += fmt.Sprintf(", in %d s or less", p.Values[n-1])
			} else {
				text += fmt.Sprintf(", for %d s", p.Values[n-1])
			}
		default:
			text += fmt.Sprintf(", %d %s", p.Values[n-1], p.Unit)
		}
	}
	if p.Corrections != nil {
		switch *p.Corrections {
		case 0:
			text += ", not corrected"
		case 1:
			text += ", corrected at most once"
		default:
			text += fmt.Sprintf(", corrected at most %d times", *p.Corrections)
		}
	}
	if and != "" {
		text += ", " + and
	}
	if len(s.Variants) > 0 {
		text += "; each apart: " + join(s.Variants)
	}
	return text
}

func join(vs []horse.Variant) string {
	said := make([]string, len(vs))
	for i, v := range vs {
		said[i] = v.String()
	}
	return strings.Join(said, ", ")
}
