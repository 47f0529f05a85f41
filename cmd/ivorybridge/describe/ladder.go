package describe

import (
	"encoding/json"
	"fmt"
	"io"
	"reflect"
	"strings"

	"github.com/invopop/jsonschema"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
)

// LadderSchema writes the JSON Schema of a ladder's file, from the types that read it. An
// editor that knows JSON Schema helps to write one.
func LadderSchema(w io.Writer) error {
	r := jsonschema.Reflector{FieldNameTag: "yaml", DoNotReference: true, ExpandedStruct: true, Anonymous: true, Mapper: written}
	form := yaml.Form()
	s := r.ReflectFromType(form)
	s.Title = "A ladder"
	describeFields(s, form, reflect.TypeFor[catalog.Ladder]())
	steps, _ := s.Properties.Get("steps")
	field, _ := form.FieldByName("Steps")
	describeFields(steps.Items, field.Type.Elem(), reflect.TypeFor[catalog.Step]())
	enc := json.NewEncoder(w)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	if err := enc.Encode(s); err != nil {
		return fmt.Errorf("writing the schema of a ladder: %w", err)
	}
	return nil
}

// written is how a file has what is not written as its Go type.
func written(t reflect.Type) *jsonschema.Schema {
	list := &jsonschema.Schema{Type: "array", Items: &jsonschema.Schema{Type: "string"}}
	switch t.Name() {
	case "variants":
		return &jsonschema.Schema{OneOf: []*jsonschema.Schema{{Enum: []any{"sides", "directions"}}, list}}
	case "pass":
		inner := jsonschema.Reflector{FieldNameTag: "yaml", DoNotReference: true, ExpandedStruct: true, Anonymous: true}
		whole := inner.ReflectFromType(t)
		whole.Version = ""
		describeFields(whole, t, reflect.TypeFor[catalog.Pass]())
		return &jsonschema.Schema{OneOf: []*jsonschema.Schema{{Const: "usual"}, whole}}
	case "Measure":
		return oneOf(catalog.MeasureAnswer, catalog.MeasureHold, catalog.MeasureDose, catalog.MeasureCount, catalog.MeasureDistance, catalog.MeasureSetting, catalog.MeasureTime)
	case "Kind":
		return oneOf(catalog.Foundation, catalog.Problem)
	}
	if words, ok := reflect.Zero(t).Interface().(horse.Vocabulary); ok {
		return oneOf(words.Words()...)
	}
	return nil
}

func oneOf[T ~string](words ...T) *jsonschema.Schema {
	s := &jsonschema.Schema{Type: "string"}
	for _, w := range words {
		s.Enum = append(s.Enum, string(w))
	}
	return s
}

// describeFields takes over what the catalogue's type says of its fields.
func describeFields(s *jsonschema.Schema, form, of reflect.Type) {
	for f := range form.Fields() {
		told, ok := of.FieldByName(f.Name)
		if !ok {
			told, ok = of.FieldByName(f.Name + "s")
		}
		name, _, _ := strings.Cut(f.Tag.Get("yaml"), ",")
		if p, there := s.Properties.Get(name); ok && there {
			p.Description = told.Tag.Get("doc")
		}
	}
}
