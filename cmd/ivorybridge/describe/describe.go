// Package describe writes down, for people, what a JSON document holds: a table
// for each Go type that it is made of, from the types and their tags, so that
// the text can't say anything else than the code.
package describe

import (
	"encoding"
	"encoding/json"
	"fmt"
	"io"
	"reflect"
	"slices"
	"strings"
	"unicode"
)

// A Part is one document with its title.
type Part struct {
	Title string
	Of    reflect.Type // a struct
}

// Markdown writes the parts one after another: each document's own keys, and
// under it the types it is made of that were not told before.
func Markdown(w io.Writer, parts ...Part) error {
	d := describerOf(parts)
	for _, t := range d.order {
		if _, err := io.WriteString(w, d.section(t)); err != nil {
			return fmt.Errorf("writing %s: %w", d.titles[t], err)
		}
	}
	return nil
}

// Undescribed lists the keys that no text tells of, as type.Field.
func Undescribed(parts ...Part) []string {
	d := describerOf(parts)
	var keys []string
	for _, t := range d.order {
		for _, f := range fields(t) {
			if f.Tag.Get("doc") == "" {
				keys = append(keys, t.String()+"."+f.Name)
			}
		}
	}
	return keys
}

type describer struct {
	order  []reflect.Type
	titles map[reflect.Type]string
}

func describerOf(parts []Part) describer {
	d := describer{titles: map[reflect.Type]string{}}
	for _, p := range parts {
		d.titles[p.Of] = p.Title
	}
	for _, p := range parts {
		d.order = append(d.order, p.Of)
		d.reach(p.Of)
	}
	d.tellApart()
	return d
}

// reach adds what a type's fields are made of.
func (d *describer) reach(of reflect.Type) {
	for _, f := range fields(of) {
		for _, t := range inner(f.Type) {
			if _, known := d.titles[t]; known || len(spelled(t)) <= inline && !isObject(t) {
				continue
			}
			d.titles[t] = spaced(bare(t))
			d.order = append(d.order, t)
			if isObject(t) {
				d.reach(t)
			}
		}
	}
}

// tellApart puts the package before the titles that two types have.
func (d *describer) tellApart() {
	count := map[string]int{}
	for _, title := range d.titles {
		count[title]++
	}
	for t, title := range d.titles {
		if count[title] > 1 {
			d.titles[t] = packageOf(t) + " " + title
		}
	}
}

func (d *describer) section(t reflect.Type) string {
	var b strings.Builder
	if list := spelled(t); list != "" {
		fmt.Fprintf(&b, "\n### %s\n\nOne of %s.\n", d.titles[t], list)
		return b.String()
	}
	level := "###"
	if unicode.IsUpper([]rune(d.titles[t])[0]) {
		level = "##"
	}
	fmt.Fprintf(&b, "\n%s %s\n\n| key | holds | what it is |\n|---|---|---|\n", level, d.titles[t])
	for _, f := range fields(t) {
		fmt.Fprintf(&b, "| `%s` | %s | %s |\n", keyOf(f), d.holds(f.Type)+limits(f.Tag), told(f))
	}
	return b.String()
}

// told is a field's text, safe within a table.
func told(f reflect.StructField) string { return strings.ReplaceAll(f.Tag.Get("doc"), "|", "\\|") }

// holds tells a type in words, with a link where a section tells more.
func (d *describer) holds(t reflect.Type) string {
	if title, ok := d.titles[t]; ok {
		return fmt.Sprintf("[%s](#%s)", title, anchor.Replace(strings.ToLower(title)))
	}
	if list := spelled(t); list != "" {
		return "one of " + list
	}
	if lo, hi, ok := scale(t); ok {
		return fmt.Sprintf("%d to %d, or null", lo, hi)
	}
	if isText(t) {
		return "text"
	}
	switch t.Kind() {
	case reflect.Pointer:
		return d.holds(t.Elem())
	case reflect.Slice, reflect.Array:
		return "list of " + d.holds(t.Elem())
	case reflect.Map:
		if by := d.holds(t.Key()); by != "text" {
			return d.holds(t.Elem()) + ", for each of " + strings.TrimPrefix(by, "one of ")
		}
		return d.holds(t.Elem()) + ", for each key"
	case reflect.Bool:
		return "true or false"
	case reflect.Float64, reflect.Float32:
		return "number"
	case reflect.String:
		return "text"
	case reflect.Interface:
		return "anything"
	}
	return "whole number"
}

// anchor makes a title what a link to it says.
var anchor = strings.NewReplacer(" ", "-", "`", "")

// limits tells what the tags allow.
func limits(tag reflect.StructTag) string {
	var said []string
	if enum := tag.Get("enum"); enum != "" {
		said = append(said, strings.ReplaceAll(enum, ",", " · "))
	}
	if tag.Get("format") == "date" {
		said = append(said, "year-month-day")
	}
	lo, hi := tag.Get("minimum"), tag.Get("maximum")
	switch {
	case lo != "" && hi != "":
		said = append(said, lo+" to "+hi)
	case lo != "":
		said = append(said, lo+" or more")
	case hi != "":
		said = append(said, "at most "+hi)
	}
	if n := tag.Get("maxLength"); n != "" {
		said = append(said, n+" characters at most")
	}
	if n := tag.Get("maxItems"); n != "" {
		said = append(said, n+" at most")
	}
	if len(said) == 0 {
		return ""
	}
	return ": " + strings.Join(said, ", ")
}

// fields lists what encoding/json sees of a struct, embedded structs unfolded; a
// key said outside stands for the same key inside.
func fields(t reflect.Type) []reflect.StructField {
	var own, embedded []reflect.StructField
	for i := range t.NumField() {
		f := t.Field(i)
		switch key := keyOf(f); {
		case key == "-":
		case key == "" && f.Anonymous && f.Type.Kind() == reflect.Struct:
			embedded = append(embedded, fields(f.Type)...)
		case key != "":
			own = append(own, f)
		}
	}
	list := slices.DeleteFunc(embedded, func(e reflect.StructField) bool {
		return slices.ContainsFunc(own, func(o reflect.StructField) bool { return keyOf(o) == keyOf(e) })
	})
	return append(list, own...)
}

func keyOf(f reflect.StructField) string {
	key, _, _ := strings.Cut(f.Tag.Get("json"), ",")
	return key
}

// inner lists the types a value is made of: a map's keys too.
func inner(t reflect.Type) []reflect.Type {
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Array:
		return inner(t.Elem())
	case reflect.Map:
		return append(inner(t.Elem()), inner(t.Key())...)
	}
	return []reflect.Type{t}
}

// isObject reports whether a type is written as a JSON object with keys.
func isObject(t reflect.Type) bool {
	return t.Kind() == reflect.Struct && !isText(t) && len(fields(t)) > 0
}

func isText(t reflect.Type) bool {
	if _, _, ok := scale(t); ok {
		return false
	}
	return t.Implements(reflect.TypeFor[encoding.TextMarshaler]()) || t.Implements(reflect.TypeFor[json.Marshaler]())
}

// inline is the length up to which a vocabulary is told where it is used; a
// longer one has a section.
const inline = 80

// spelled lists a vocabulary's words; empty for any other type.
func spelled(t reflect.Type) string {
	if v, ok := reflect.Zero(t).Interface().(interface{ Words() []string }); ok {
		return strings.Join(v.Words(), " · ")
	}
	return ""
}

// scale gives a scale's ends.
func scale(t reflect.Type) (lo, hi int, ok bool) {
	if v, is := reflect.Zero(t).Interface().(interface{ Bounds() (string, int, int) }); is {
		_, lo, hi = v.Bounds()
		return lo, hi, true
	}
	return 0, 0, false
}

// bare is a type's name; of a word, that of its vocabulary.
func bare(t reflect.Type) string {
	name := t.Name()
	if _, of, generic := strings.Cut(name, "["); generic {
		name = strings.TrimSuffix(of, "]")
	}
	return name[strings.LastIndexByte(name, '.')+1:]
}

// packageOf is the package a type's bare name is from.
func packageOf(t reflect.Type) string {
	path := t.PkgPath()
	if _, of, generic := strings.Cut(t.Name(), "["); generic {
		path = of[:strings.LastIndexByte(of, '.')]
	}
	return path[strings.LastIndexByte(path, '/')+1:]
}

// spaced is a Go name as small words: WaysOut is ways out.
func spaced(name string) string {
	var b strings.Builder
	for i, r := range name {
		if unicode.IsUpper(r) && i > 0 {
			b.WriteByte(' ')
		}
		b.WriteRune(unicode.ToLower(r))
	}
	return b.String()
}
