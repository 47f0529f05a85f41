// Package yaml reads a catalogue from the YAML that a trainer could read
// (part 5) and carries the shipped one. The browser never needs it: it gets
// the checked catalogue as JSON.
package yaml

import (
	"bytes"
	"cmp"
	"embed"
	"errors"
	"fmt"
	"hash/fnv"
	"io/fs"
	"strings"

	"go.yaml.in/yaml/v3"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

//go:embed shipped/*.yaml
var shipped embed.FS

// year names the shipped catalogue's edition; the rest of its version is made
// from its content.
const year = "2026"

// Shipped reads and checks the catalogue that comes with the product. A session
// pins its version, which is another whenever a word of the catalogue is.
func Shipped() (*catalog.Catalog, error) {
	files, err := fs.Sub(shipped, "shipped")
	if err != nil {
		return nil, fmt.Errorf("reading the shipped catalogue: %w", err)
	}
	version, err := versionOf(files)
	if err != nil {
		return nil, err
	}
	return Read(version, files)
}

// versionOf is made from the names and contents of a catalogue's files.
func versionOf(files fs.FS) (string, error) {
	sum := fnv.New32a()
	err := fs.WalkDir(files, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		text, err := fs.ReadFile(files, name)
		_, _ = fmt.Fprintf(sum, "%s %d\n%s", name, len(text), text) // a hash takes all
		return err
	})
	if err != nil {
		return "", fmt.Errorf("reading the shipped catalogue: %w", err)
	}
	return fmt.Sprintf("%s.%08x", year, sum.Sum32()), nil
}

// Read reads house-rules.yaml, findings.yaml, methods.yaml and every other
// .yaml file at the top of files, a ladder each, in the order of their names,
// and checks them together.
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
	var written methods
	if err := strict(files, methodsFile, &written); err != nil {
		return nil, err
	}
	beside, err := written.methods()
	if err != nil {
		return nil, fmt.Errorf("%s: %w", methodsFile, err)
	}
	var ladders []catalog.Ladder
	for _, name := range names {
		if name == rulesFile || name == findingsFile || name == methodsFile {
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
	return catalog.New(version, catalog.HouseRules(rules), judging, beside, ladders)
}

const (
	rulesFile    = "house-rules.yaml"
	findingsFile = "findings.yaml"
	methodsFile  = "methods.yaml"
)

// nominalRate is the units met in a session where a ladder says no other (part
// 7).
const nominalRate = 1.5

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
	OpenTime          int    `yaml:"open time"`
	SwapSides         string `yaml:"swap sides"`
}

type ladder struct {
	Key        string          `yaml:"ladder"`
	Name       phrase.Slotted  `yaml:"name"`
	Kind       catalog.Kind    `yaml:"kind,omitempty"`
	For        []horse.Problem `yaml:"for,flow,omitempty"`
	Schools    []horse.School  `yaml:"schools,flow,omitempty"`
	Where      phrase.Slotted  `yaml:"where,omitempty"`
	StandsOn   []string        `yaml:"stands on,flow,omitempty"`
	Narrow     bool            `yaml:"narrow,omitempty"`
	Care       horse.Care      `yaml:"care,omitempty"`
	Watch      phrase.Slotted  `yaml:"watch,omitempty"`
	From       string          `yaml:"stands from,omitempty"`
	Helper     phrase.Slotted  `yaml:"helper,omitempty"`
	Suits      []horse.WayOut  `yaml:"suits,flow,omitempty"`
	Ways       []horse.WayOut  `yaml:"ways out,flow,omitempty"`
	Rate       float64         `yaml:"rate,omitempty"`
	Steps      []step          `yaml:"steps"`
	AtTrailer  bool            `yaml:"at the trailer,omitempty"`
	Bumps      bool            `yaml:"bit on the teeth,omitempty"`
	AboutThing bool            `yaml:"about a thing,omitempty"`
	Away       bool            `yaml:"away from the yard,omitempty"`
}

type step struct {
	Key      string            `yaml:"step"`
	Name     string            `yaml:"name"`
	Ask      phrase.Slotted    `yaml:"ask,omitempty"`
	Plain    phrase.Slotted    `yaml:"plain,omitempty"`
	Release  phrase.Slotted    `yaml:"release,omitempty"`
	Watch    phrase.Slotted    `yaml:"watch,omitempty"`
	Measure  []catalog.Measure `yaml:"measure,flow,omitempty"`
	Pass     *pass             `yaml:"pass,omitempty"`
	Variants variants          `yaml:"variants,flow,omitempty"`
	Needs    []string          `yaml:"needs,flow,omitempty"`
	Blocked  []horse.BodyItem  `yaml:"blocked,flow,omitempty"`
	Kit      []string          `yaml:"kit,flow,omitempty"`
	Link     string            `yaml:"link,omitempty"`
	Tied     bool              `yaml:"tied,omitempty"`
	Ridden   bool              `yaml:"ridden,omitempty"`
	Away     bool              `yaml:"away from the yard,omitempty"`
	Means    []string          `yaml:"means,flow,omitempty"`
	Trailer  bool              `yaml:"trailer,omitempty"`
	Bars     bool              `yaml:"bars,omitempty"`
	Instead  bool              `yaml:"needs instead of the step before,omitempty"`
	Calm     bool              `yaml:"only if fear is unlikely,omitempty"`
	First    bool              `yaml:"first rides,omitempty"`
	Opens    bool              `yaml:"opens riding,omitempty"`
	Before   bool              `yaml:"before every foundation,omitempty"`
	Helper   phrase.Slotted    `yaml:"helper,omitempty"`
	Roles    []catalog.Role    `yaml:"is,flow,omitempty"`
	SeenIn   string            `yaml:"seen in,omitempty"`
}

// pass is a written pass mark; what it leaves out is the usual one.
type pass struct {
	Run         int    `yaml:"run,omitempty"`
	Level       int    `yaml:"level,omitempty"`
	Last        int    `yaml:"last,omitempty"`
	Values      []int  `yaml:"values,flow,omitempty"`
	Unit        string `yaml:"unit,omitempty"`
	Corrections *int   `yaml:"corrections,omitempty"`
	And         string `yaml:"and,omitempty"`
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
	for i := 0; i+1 < len(n.Content); i += 2 { // a node's own decoding takes any key
		if key := n.Content[i]; !passKeys[key.Value] {
			return &yaml.TypeError{Errors: []string{fmt.Sprintf("line %d: field %s not found in type yaml.written", key.Line, key.Value)}}
		}
	}
	return n.Decode((*written)(p))
}

// passKeys are the parts of a written pass mark.
var passKeys = map[string]bool{"run": true, "level": true, "last": true, "values": true, "unit": true, "corrections": true, "and": true}

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
		From: doc.From, Helper: doc.Helper, Suits: doc.Suits, Ways: doc.Ways, AtTrailer: doc.AtTrailer, Bumps: doc.Bumps, AboutThing: doc.AboutThing, Rate: cmp.Or(doc.Rate, nominalRate),
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
		step.Away = step.Away || doc.Away
		l.Steps = append(l.Steps, step)
	}
	return l, nil
}

func (doc step) step(rules catalog.HouseRules) (catalog.Step, error) {
	s := catalog.Step{
		Key: doc.Key, Name: doc.Name, Ask: doc.Ask, Plain: doc.Plain, Release: doc.Release, Watch: doc.Watch,
		Measures: doc.Measure, Variants: doc.Variants, Blocked: doc.Blocked, Kit: doc.Kit,
		Link: doc.Link, Tied: doc.Tied, Ridden: doc.Ridden, Away: doc.Away, Means: doc.Means, Trailer: doc.Trailer, Bars: doc.Bars,
		Instead: doc.Instead, Calm: doc.Calm, First: doc.First, Opens: doc.Opens, Before: doc.Before, Helper: doc.Helper, Roles: doc.Roles, SeenIn: doc.SeenIn,
	}
	if doc.Pass != nil {
		s.Pass = doc.Pass.pass(s, rules)
	}
	var err error
	s.Needs, err = needs(doc.Needs)
	return s, err
}

// needs reads "lead.back", "lead.back at level 1", "load.stand kept",
// "lead.back understood" and "zones.hand in zone 2", each perhaps "on that side",
// and "when already ridden" or "when not yet ridden".
func needs(texts []string) ([]catalog.Need, error) {
	var list []catalog.Need
	for _, text := range texts {
		said, when, _ := strings.Cut(text, " when ")
		key, rest, _ := strings.Cut(said, " ")
		n := catalog.Need{Step: key}
		rest, n.Same = strings.CutSuffix(" "+rest, " on that side")
		rest = strings.TrimSpace(rest)
		err := n.When.UnmarshalText([]byte(when))
		switch zone, inZone := strings.CutPrefix(rest, "in "); {
		case rest == "kept":
			n.Kept = true
		case rest == "understood":
			n.Understood = true
		case inZone:
			err = errors.Join(err, n.Zone.UnmarshalText([]byte(zone)))
		case rest != "":
			_, scanned := fmt.Sscanf(rest, "at level %d", &n.Level)
			err = errors.Join(err, scanned)
		}
		if err != nil {
			return nil, fmt.Errorf("a need is a step, \"… at level 3\", \"… kept\", \"… understood\" or \"… in zone 2\", perhaps \"on that side\" or \"when not yet ridden\", not %q", text)
		}
		list = append(list, n)
	}
	return list, nil
}

// pass fills the usual pass mark (part 5) and the values up to the last one.
func (p pass) pass(s catalog.Step, rules catalog.HouseRules) catalog.Pass {
	mark := catalog.Pass{
		Run: cmp.Or(p.Run, rules.PassRun), Level: cmp.Or(p.Level, rules.PassLevel), Arousal: 1,
		Values: p.Values, Unit: p.Unit, Corrections: p.Corrections, And: p.And,
	}
	if p.Last > 0 {
		mark.Values = catalog.Climb(p.Last, s.Has(catalog.MeasureCount) || s.Has(catalog.MeasureSetting))
	}
	s.Pass = mark
	mark.Text = s.PassText()
	return mark
}
