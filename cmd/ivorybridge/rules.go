package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/clearance"
	"ivorybridge/core/desk"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// rulebook holds what can be asked with rules NAME.
var rulebook = map[string]func(*catalog.Catalog, *json.Decoder) (any, error){
	"advise":   adviseRules,
	"assess":   assessRules,
	"plan":     planRules,
	"forecast": forecastRules,
}

func rulesCommand() *cobra.Command {
	return &cobra.Command{
		Use: "rules NAME", Short: "Read one JSON document and print what the rules answer (docs/rules.md)", Args: cobra.ExactArgs(1),
		ValidArgs: slices.Sorted(maps.Keys(rulebook)),
		RunE: func(cmd *cobra.Command, args []string) error {
			return askRules(args[0], cmd.InOrStdin(), cmd.OutOrStdout())
		},
	}
}

func askRules(name string, in io.Reader, out io.Writer) error {
	ask, ok := rulebook[name]
	if !ok {
		return fmt.Errorf("there are no rules %q; there are: %s", name, strings.Join(slices.Sorted(maps.Keys(rulebook)), ", "))
	}
	c, err := yaml.Shipped()
	if err != nil {
		return err
	}
	dec := json.NewDecoder(in)
	dec.DisallowUnknownFields()
	answer, err := ask(c, dec)
	if err != nil {
		return err
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	return enc.Encode(answer)
}

// decode reads the one document there must be.
func decode(dec *json.Decoder, doc any) error {
	if err := dec.Decode(doc); err != nil {
		return fmt.Errorf("reading the document: %w", explain(err))
	}
	if dec.More() {
		return errors.New("there is more than one document: give one")
	}
	return nil
}

func adviseRules(c *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc desk.Document
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	return desk.Advise(c, doc)
}

// assessDocument is the input of rules assess.
type assessDocument struct {
	assess.Case
	Words phrase.Words `json:"words"`
}

func assessRules(c *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc assessDocument
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	if faults := append(doc.Record.Check(doc.Today), doc.Assessment.Check(c, doc.Today)...); len(faults) > 0 {
		said := make([]error, len(faults))
		for i, f := range faults {
			said[i] = f
		}
		return nil, errors.Join(said...)
	}
	result, err := assess.Judge(c, doc.Case)
	if err != nil {
		return nil, err
	}
	phrase.English(doc.Words).Tell(&result)
	return result, nil
}

// planDocument is the input of rules plan: all that is known of a case.
type planDocument struct {
	casefile.Document
	Words phrase.Words `json:"words"`
}

// planned is what rules plan answers.
type planned struct {
	plan.Plan
	Alternatives []casefile.Alternative `json:"alternatives"`
	Clearance    []clearance.State      `json:"clearance"`
}

func planRules(c *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc planDocument
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	if err := doc.check(c); err != nil {
		return nil, err
	}
	f, err := doc.Read(c)
	if err != nil {
		return nil, err
	}
	answer := planned{Plan: f.Plan(), Alternatives: f.Alternatives(), Clearance: f.Cleared()}
	phrase.English(doc.Words).Tell(&answer)
	return answer, nil
}

func (doc planDocument) check(c *catalog.Catalog) error {
	var said []error
	for _, f := range doc.Record.Check(doc.Today) {
		said = append(said, f)
	}
	for _, a := range doc.Assessments {
		for _, f := range a.Doc.Check(c, doc.Today) {
			said = append(said, f)
		}
	}
	for _, f := range doc.Choices.Check(c, doc.Today) {
		said = append(said, fmt.Errorf("choices.%s: %s", f.Field, f.Say))
	}
	for _, r := range doc.Rehearsals {
		for _, f := range r.Check(c, doc.Today) {
			said = append(said, fmt.Errorf("rehearsals.%s: %s", f.Field, f.Say))
		}
	}
	for _, d := range doc.Days {
		for _, e := range d.Track {
			if err := e.Check(c); err != nil {
				said = append(said, fmt.Errorf("days, entry %s: %w", e.ID, err))
			}
		}
	}
	return errors.Join(said...)
}

// forecastDocument is the input of rules forecast.
type forecastDocument struct {
	plan.Work
	Words phrase.Words `json:"words"`
}

func forecastRules(_ *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc forecastDocument
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	if err := doc.Work.Check(); err != nil {
		return nil, err
	}
	answer := plan.Foresee(doc.Work)
	phrase.English(doc.Words).Tell(&answer)
	return answer, nil
}

// explain names the place where a document can't be read.
func explain(err error) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fmt.Errorf("it is not JSON at byte %d: %w", syntax.Offset, err)
	case errors.As(err, &kind):
		return fmt.Errorf("%q can't be a %s (byte %d)", kind.Field, kind.Value, kind.Offset)
	}
	return err
}
