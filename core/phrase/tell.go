package phrase

import "reflect"

var (
	messageType = reflect.TypeFor[Message]()
	slottedType = reflect.TypeFor[Slotted]()
)

// Tell says every message and slotted text within an answer, given by its
// pointer, in the words of the book, and makes lists that are not there empty
// ones. The answer must own its slices.
func (b Book) Tell(answer any) { b.tell(reflect.ValueOf(answer)) }

func (b Book) tell(v reflect.Value) {
	switch v.Type() {
	case messageType:
		m := v.Addr().Interface().(*Message)
		if m.Key != "" {
			m.Text = b.Sentence(*m)
		}
		return
	case slottedType:
		v.SetString(b.Fill(v.String(), nil))
		return
	}
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			b.tell(v.Elem())
		}
	case reflect.Slice:
		if v.IsNil() && v.CanSet() {
			v.Set(reflect.MakeSlice(v.Type(), 0, 0))
		}
		for i := range v.Len() {
			b.tell(v.Index(i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				b.tell(v.Field(i))
			}
		}
	}
}
