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

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/phrase"
)

// rulebook holds what can be asked with rules NAME.
var rulebook = map[string]func(*catalog.Catalog, *json.Decoder) (any, error){
	"advise": adviseRules,
	"assess": assessRules,
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

// adviseDocument is the input of rules advise: the advisor's, and the house
// rules where they are not the shipped ones.
type adviseDocument struct {
	arena.Input
	Rules *catalog.HouseRules `json:"rules,omitempty"`
	Words phrase.Words        `json:"words"`
}

func adviseRules(c *catalog.Catalog, dec *json.Decoder) (any, error) {
	rules := c.Rules
	doc := adviseDocument{Rules: &rules}
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	if doc.Rules == nil {
		doc.Rules = &c.Rules
	}
	advice, err := arena.Advise(c, *doc.Rules, doc.Input)
	if err != nil {
		return nil, err
	}
	phrase.English(doc.Words).Tell(&advice)
	return advice, nil
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
