package server

import (
	"reflect"

	"ivorybridge/core/phrase"
)

var (
	messageType = reflect.TypeFor[phrase.Message]()
	slottedType = reflect.TypeFor[phrase.Slotted]()
)

// tell says every message and slotted text within an answer in the words of
// the book, and makes lists that are not there empty ones. The answer must own
// its slices.
func tell(b phrase.Book, answer any) { tellValue(b, reflect.ValueOf(answer)) }

func tellValue(b phrase.Book, v reflect.Value) {
	switch v.Type() {
	case messageType:
		m := v.Addr().Interface().(*phrase.Message)
		if m.Key != "" {
			m.Text = b.Say(*m)
		}
		return
	case slottedType:
		v.SetString(b.Fill(v.String(), nil))
		return
	}
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			tellValue(b, v.Elem())
		}
	case reflect.Slice:
		if v.IsNil() && v.CanSet() {
			v.Set(reflect.MakeSlice(v.Type(), 0, 0))
		}
		for i := range v.Len() {
			tellValue(b, v.Index(i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				tellValue(b, v.Field(i))
			}
		}
	}
}
