package yaml

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"reflect"
	"regexp"
	"slices"
	"strings"

	"go.yaml.in/yaml/v3"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Write gives a ladder in the form in which the shipped ones are written, with every
// pass mark in numbers. Read back, it is the same ladder.
func Write(l catalog.Ladder) ([]byte, error) {
	var text bytes.Buffer
	enc := yaml.NewEncoder(&text)
	enc.SetIndent(2)
	if err := errors.Join(enc.Encode(written(l)), enc.Close()); err != nil {
		return nil, fmt.Errorf("writing the ladder %s: %w", l.Key, err)
	}
	return text.Bytes(), nil
}

func written(l catalog.Ladder) ladder {
	doc := ladder{
		Key: l.Key, Name: l.Name, Kind: l.Kind, For: l.For, Schools: l.Schools, Where: l.Where, StandsOn: needTexts(l.StandsOn),
		Narrow: l.Narrow, Care: l.Care, Watch: l.Watch, From: l.From, Helper: l.Helper, Suits: l.Suits, Ways: l.Ways, Rate: l.Rate,
		AtTrailer: l.AtTrailer, Bumps: l.Bumps, AboutThing: l.AboutThing, Steps: []step{},
	}
	for _, s := range l.Steps {
		doc.Steps = append(doc.Steps, writtenStep(s))
	}
	return doc
}

func writtenStep(s catalog.Step) step {
	doc := step{
		Key: s.Key, Name: s.Name, Ask: s.Ask, Plain: s.Plain, Release: s.Release, Watch: s.Watch, Measure: s.Measures, Variants: s.Variants,
		Needs: needTexts(s.Needs), Blocked: s.Blocked, Kit: s.Kit, Link: s.Link, Tied: s.Tied, Ridden: s.Ridden, Away: s.Away, Means: s.Means,
		Trailer: s.Trailer, Bars: s.Bars, Instead: s.Instead, Calm: s.Calm, First: s.First, Opens: s.Opens, Before: s.Before, Helper: s.Helper,
		Roles: s.Roles, SeenIn: s.SeenIn,
	}
	if s.Link == "" {
		doc.Pass = &pass{Run: s.Pass.Run, Level: s.Pass.Level, Values: s.Pass.Values, Unit: s.Pass.Unit, Corrections: s.Pass.Corrections, And: s.Pass.And}
	}
	return doc
}

// MarshalYAML writes the variants one by one.
func (v variants) MarshalYAML() (any, error) {
	list := &yaml.Node{Kind: yaml.SequenceNode, Style: yaml.FlowStyle}
	for _, one := range v {
		list.Content = append(list.Content, &yaml.Node{Kind: yaml.ScalarNode, Value: one.String()})
	}
	return list, nil
}

func needTexts(needs []catalog.Need) []string {
	var texts []string
	for _, n := range needs {
		text := n.Step
		switch {
		case n.Kept:
			text += " kept"
		case n.Understood:
			text += " understood"
		case !n.Zone.IsZero():
			text += " in " + n.Zone.String()
		case n.Level > 0:
			text += fmt.Sprintf(" at level %d", n.Level)
		}
		if n.Same {
			text += " on that side"
		}
		if !n.When.IsZero() {
			text += " when " + n.When.String()
		}
		texts = append(texts, text)
	}
	return texts
}

// A Written is a ladder as somebody wrote it down, not checked yet.
type Written struct {
	catalog.Ladder
	lines map[string]int // of each step, by its key
}

// A Fault is something in a file that can't be read, or can't be. Line is 0 where it
// is of the whole.
type Fault struct {
	Line int
	Say  string // a sentence
}

// ReadLadder reads one ladder. What it can't read it says line by line, and then
// gives none. The ladder still has to be checked against a catalogue.
func ReadLadder(text []byte, rules catalog.HouseRules) (Written, []Fault) {
	var doc ladder
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(&doc); err != nil {
		return Written{}, said(err, text)
	}
	var more yaml.Node
	if dec.Decode(&more) == nil {
		return Written{}, []Fault{{Line: more.Line, Say: "There is more than one ladder in this file. Give each a file of its own."}}
	}
	w := Written{lines: linesOf(text)}
	var faults []Fault
	for _, s := range doc.Steps {
		if _, err := s.step(rules); err != nil {
			faults = append(faults, Fault{w.lines[s.Key], phrase.Raised(err.Error()) + "."})
		}
	}
	if _, err := needs(doc.StandsOn); err != nil {
		faults = append(faults, Fault{Say: "Stands on: " + err.Error() + "."})
	}
	if len(faults) > 0 {
		return Written{}, faults
	}
	w.Ladder, _ = doc.ladder(rules) // every part was read above
	return w, nil
}

// Line is where the step with that key begins in the file, 0 for another.
func (w Written) Line(key string) int { return w.lines[key] }

// linesOf finds where each step of a ladder's file begins.
func linesOf(text []byte) map[string]int {
	lines := map[string]int{}
	var whole struct {
		Steps []yaml.Node `yaml:"steps"`
	}
	if yaml.Unmarshal(text, &whole) != nil {
		return lines
	}
	for _, n := range whole.Steps {
		var named struct {
			Key string `yaml:"step"`
		}
		if n.Decode(&named) == nil {
			lines[named.Key] = n.Line
		}
	}
	return lines
}

var (
	atLine   = regexp.MustCompile(`^(?:yaml: )?line (\d+): (.*)$`)
	unknown  = regexp.MustCompile(`^field (.+) not found in type yaml\.(\w+)$`)
	twice    = regexp.MustCompile(`^mapping key (".+") already defined at line (\d+)$`)
	notANumb = regexp.MustCompile("^cannot unmarshal !!\\w+ (?:`(.*)` )?into (?:int|float64)$")
	notAWord = regexp.MustCompile("^cannot unmarshal !!\\w+ (?:`(.*)` )?into .*$")
)

// said turns what the reader of YAML says of a text into sentences, each with its line.
func said(err error, text []byte) []Fault {
	if errors.Is(err, io.EOF) {
		return []Fault{{Say: "There is nothing in this file."}}
	}
	if word := new(horse.ValueError); errors.As(err, &word) {
		return []Fault{{lineOf(word.Got, text), sentence(word.Error())}}
	}
	texts := []string{err.Error()}
	if types := new(yaml.TypeError); errors.As(err, &types) {
		texts = types.Errors
	}
	var faults []Fault
	for _, text := range texts {
		var f Fault
		if m := atLine.FindStringSubmatch(text); m != nil {
			_, _ = fmt.Sscan(m[1], &f.Line) // digits
			text = m[2]
		}
		f.Say = sentence(text)
		faults = append(faults, f)
	}
	return faults
}

// lineOf finds where a word stands that can't be there. The same word may well stand where
// it can: each place is tried with the others left empty.
func lineOf(word string, text []byte) int {
	var root yaml.Node
	if yaml.Unmarshal(text, &root) != nil {
		return 0
	}
	var places []*yaml.Node
	var walk func(n *yaml.Node)
	walk = func(n *yaml.Node) {
		if n.Kind == yaml.ScalarNode && n.Value == word {
			places = append(places, n)
			n.Value = ""
		}
		for _, part := range n.Content {
			walk(part)
		}
	}
	walk(&root)
	for _, n := range places {
		n.Value = word
		var wrong *horse.ValueError
		if errors.As(root.Decode(new(ladder)), &wrong) && wrong.Got == word {
			return n.Line
		}
		n.Value = ""
	}
	return 0
}

func sentence(text string) string {
	if m := unknown.FindStringSubmatch(text); m != nil {
		of := map[string]string{"ladder": "a ladder", "step": "a step", "written": "a pass mark"}[m[2]]
		return fmt.Sprintf("There is no %q in %s. Look for its spelling, or leave it out.", m[1], of)
	}
	if m := twice.FindStringSubmatch(text); m != nil {
		return fmt.Sprintf("%s is there twice, first in line %s. Leave one.", m[1], m[2])
	}
	if m := notANumb.FindStringSubmatch(text); m != nil {
		return fmt.Sprintf("A whole number belongs here, not %q.", m[1])
	}
	if notAWord.MatchString(text) {
		return "This is not of the right kind. Look how a ladder that was taken out has it."
	}
	if strings.HasPrefix(text, "yaml: ") || strings.Contains(text, "did not find") || strings.Contains(text, "not allowed") || strings.Contains(text, "could not find") {
		return "About here it can't be read as YAML. Look at the spaces before the line, the colon after the word, and the brackets."
	}
	return phrase.Raised(text) + "."
}

// changeable is what a practice can change of a ladder's step. All else tells the
// rules what the step is, or keeps people and horses safe.
var changeable = []string{"step", "name", "ask", "plain", "release", "watch", "measure", "pass", "needs", "kit"}

// of a ladder, the same.
var changeableOfLadder = []string{"ladder", "name", "where", "watch", "stands on", "steps"}

// Differs lists what a written ladder has otherwise than the one that it would be kept
// as, of what can't be changed.
func (w Written) Differs(kept catalog.Ladder) []Fault {
	faults := differs(written(kept), written(w.Ladder), changeableOfLadder, 0)
	for _, s := range w.Steps {
		if i := slices.IndexFunc(kept.Steps, func(k catalog.Step) bool { return k.Key == s.Key }); i >= 0 {
			faults = append(faults, differs(writtenStep(kept.Steps[i]), writtenStep(s), changeable, w.lines[s.Key])...)
		}
	}
	return faults
}

func differs(kept, given any, free []string, line int) []Fault {
	var faults []Fault
	a, b := reflect.ValueOf(kept), reflect.ValueOf(given)
	for i := range a.NumField() {
		tag, _, _ := strings.Cut(a.Type().Field(i).Tag.Get("yaml"), ",")
		was, now := a.Field(i), b.Field(i)
		empty := func(v reflect.Value) bool { return v.IsZero() || v.Kind() == reflect.Slice && v.Len() == 0 }
		if slices.Contains(free, tag) || empty(was) && empty(now) || reflect.DeepEqual(was.Interface(), now.Interface()) {
			continue
		}
		say := fmt.Sprintf("%q can't be changed here. ", tag)
		if empty(was) {
			say += "Leave it out."
		} else {
			say += "Write: " + oneLine(tag, was.Interface())
		}
		faults = append(faults, Fault{line, say})
	}
	return faults
}

// oneLine is a part of a ladder as it stands in a file, on one line.
func oneLine(tag string, value any) string {
	var n yaml.Node
	if err := n.Encode(map[string]any{tag: value}); err != nil {
		return tag
	}
	for _, part := range n.Content {
		part.Style |= yaml.FlowStyle
	}
	text, err := yaml.Marshal(&n)
	if err != nil {
		return tag
	}
	return strings.Join(strings.Fields(string(text)), " ")
}

// Form is the type of a ladder's file, for its schema.
func Form() reflect.Type { return reflect.TypeFor[ladder]() }
