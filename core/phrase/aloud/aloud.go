// Package aloud reads messages as a person would hear them and names what is
// wrong with them: a key that has no words, an empty place, a bracket, a count
// that does not fit its noun. Tests hold everything that the rules say to it.
package aloud

import (
	"fmt"
	"reflect"
	"regexp"
	"strings"

	"ivorybridge/core/phrase"
)

// faults are what no sentence may have.
var faults = []struct {
	what string
	is   *regexp.Regexp
}{
	{"a key", regexp.MustCompile(`\b(say|why|warn|story|target|gate|block|report|item|risk|school|forbid|stop|plan|cause)\.[a-z_]+`)},
	{"a brace", regexp.MustCompile(`[{}]`)},
	{"a bracket", regexp.MustCompile(`\[|\]|map\[|<nil>|%!`)},
	{"a doubled space", regexp.MustCompile(`  `)},
	{"an empty place", regexp.MustCompile(`(^|\s)[,.:;]|: *\.|: *$|, *[.,:;]|\(\)| (at|from|of|and)\.`)},
	{"nothing of nothing", regexp.MustCompile(`\b0 of 0\b`)},
	{"one of many", regexp.MustCompile(`\b(1|one) (times|asks|answers|steps|minutes|sessions|findings|noes|visits|days|feet|doses|offers)\b`)},
	{"many of one", regexp.MustCompile(`\b(0|[2-9]|\d\d+|two|three|four|five|six|seven|eight|nine|ten) (time|ask|answer|step|minute|session|finding|visit|day|foot|dose|offer)\b`)},
}

var fromTo = regexp.MustCompile(`from (?:level )?(\w+) to (\w+)\b`)

// Wrong says what is wrong with a sentence as it is heard, or nothing.
func Wrong(said string) string {
	for _, f := range faults {
		if f.is.MatchString(said) {
			return f.what
		}
	}
	for _, m := range fromTo.FindAllStringSubmatch(said, -1) {
		if m[1] == m[2] {
			return "no change told as one"
		}
	}
	return ""
}

// Faults reads every message within a value aloud, and lists what is wrong.
func Faults(book phrase.Book, v any) []string {
	var list []string
	walk(reflect.ValueOf(v), func(m phrase.Message) {
		if m.Key == "" {
			return
		}
		said := book.Say(m)
		switch wrong := Wrong(said); {
		case !book.Has(m.Key):
			list = append(list, fmt.Sprintf("%s has no words", m.Key))
		case strings.TrimSpace(said) == "" && !strings.HasPrefix(m.Key, "target.none"):
			list = append(list, fmt.Sprintf("%s says nothing", m.Key))
		case wrong != "" && !part(said):
			list = append(list, fmt.Sprintf("%s: %s in %q", m.Key, wrong, said))
		}
	})
	return list
}

// part reports whether a phrase is a part of a sentence, told with what comes
// before it.
func part(said string) bool { return strings.HasPrefix(said, ",") }

var messageType = reflect.TypeFor[phrase.Message]()

func walk(v reflect.Value, see func(phrase.Message)) {
	if !v.IsValid() {
		return
	}
	if v.Type() == messageType {
		see(v.Interface().(phrase.Message))
		return
	}
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			walk(v.Elem(), see)
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			walk(v.Index(i), see)
		}
	case reflect.Map:
		for _, key := range v.MapKeys() {
			walk(v.MapIndex(key), see)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				walk(v.Field(i), see)
			}
		}
	}
}
