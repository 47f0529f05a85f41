package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"ivorybridge/cmd/ivorybridge/describe"
	"ivorybridge/core/alternative"
	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/clearance"
	"ivorybridge/core/desk"
	"ivorybridge/core/gait"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/track"
)

// A question is what can be asked with rules NAME.
type question struct {
	ask     func(*catalog.Catalog, *json.Decoder) (any, error)
	in, out reflect.Type
}

func rulebook() map[string]question {
	return map[string]question{
		"advise":   {adviseRules, reflect.TypeFor[desk.Document](), reflect.TypeFor[arena.Advice]()},
		"assess":   {assessRules, reflect.TypeFor[assessDocument](), reflect.TypeFor[assess.Result]()},
		"plan":     {planRules, reflect.TypeFor[planDocument](), reflect.TypeFor[planned]()},
		"progress": {progressRules, reflect.TypeFor[progressDocument](), reflect.TypeFor[progress.Numbers]()},
		"footfall": {footfallRules, reflect.TypeFor[footfallDocument](), reflect.TypeFor[gait.Result]()},
		"forecast": {forecastRules, reflect.TypeFor[forecastDocument](), reflect.TypeFor[plan.Forecast]()},
	}
}

func rulesCommand() *cobra.Command {
	var tell bool
	book := rulebook()
	names := slices.Sorted(maps.Keys(book))
	c := &cobra.Command{
		Use: "rules NAME", Short: "Read one JSON document and print what the rules answer (docs/rules.md)", Args: cobra.MaximumNArgs(1),
		ValidArgs: names,
		RunE: func(cmd *cobra.Command, args []string) error {
			if len(args) == 0 && tell {
				return describeRules(names, cmd.OutOrStdout())
			}
			name := strings.Join(args, "")
			q, ok := book[name]
			switch {
			case !ok:
				return fmt.Errorf("there are no rules %q; there are: %s", name, strings.Join(names, ", "))
			case tell:
				return describeRules(args, cmd.OutOrStdout())
			}
			return askRules(q, cmd.InOrStdin(), cmd.OutOrStdout())
		},
	}
	c.Flags().BoolVar(&tell, "describe", false, "tell what goes in and what comes out, as Markdown; without NAME, of all")
	return c
}

// parts are the documents of the rules named, in their order.
func parts(names []string) []describe.Part {
	var list []describe.Part
	for _, name := range names {
		q := rulebook()[name]
		list = append(list,
			describe.Part{Title: "What `" + name + "` reads", Of: q.in},
			describe.Part{Title: "What `" + name + "` answers", Of: q.out})
	}
	return list
}

func describeRules(names []string, out io.Writer) error {
	if _, err := fmt.Fprintln(out, "# Keys of the rules"); err != nil {
		return fmt.Errorf("writing the title: %w", err)
	}
	return describe.Markdown(out, parts(names)...)
}

func askRules(q question, in io.Reader, out io.Writer) error {
	c, err := yaml.Shipped()
	if err != nil {
		return err
	}
	dec := json.NewDecoder(in)
	dec.DisallowUnknownFields()
	answer, err := q.ask(c, dec)
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

// progressDocument is what rules progress reads.
type progressDocument struct {
	Sessions []track.Day `json:"sessions" doc:"the horse's sessions with their tracks"`
	Since    string      `json:"since,omitempty" format:"date" doc:"sessions of this day and later; empty: all"`
	Step     string      `json:"step,omitempty" doc:"one step; empty: all that were worked"`
}

func progressRules(c *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc progressDocument
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	for _, d := range doc.Sessions {
		if _, dated := horse.DayNumber(d.Date); !dated {
			return nil, fmt.Errorf("session %q: %q is not a date: write it as 2026-05-01", d.ID, d.Date)
		}
		for _, e := range d.Track {
			if err := e.Check(c); err != nil {
				return nil, fmt.Errorf("session %q: entry %s: %w", d.ID, e.ID, err)
			}
		}
	}
	past, figures := history.Figured(c, history.Beside{}, doc.Sessions)
	answer := progress.NumbersOf(c, figures, progress.Choice{Since: doc.Since, Step: doc.Step, Cycle: past.Answers.Learn(c.Rules.Cycle)})
	phrase.English(phrase.Shipped).Tell(&answer)
	return answer, nil
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
	Words phrase.Words `json:"words" doc:"the reader's words"`
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
	Words phrase.Words `json:"words" doc:"the reader's words"`
}

// planned is what rules plan answers.
type planned struct {
	plan.Plan
	Alternatives []alternative.Way `json:"alternatives" doc:"other ladders for the same problem"`
	Clearance    []clearance.State `json:"clearance" doc:"who may do which step alone"`
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
	Words phrase.Words `json:"words" doc:"the reader's words"`
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

// footfallDocument is the input of rules footfall.
type footfallDocument struct {
	gait.Taps
	Words phrase.Words `json:"words,omitzero" doc:"the reader's words"`
}

func footfallRules(_ *catalog.Catalog, dec *json.Decoder) (any, error) {
	var doc footfallDocument
	if err := decode(dec, &doc); err != nil {
		return nil, err
	}
	answer, err := gait.Time(doc.Taps)
	if err != nil {
		return nil, err
	}
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
