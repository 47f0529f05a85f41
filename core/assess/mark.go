package assess

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"

	"ivorybridge/core/catalog"
)

// A Mark puts one value in its place in an assessment: a tap. The place is a
// path of the document's keys, as in "problems/loading/story/began"; null
// takes the value away. Marks are ordered by time, device and sequence, so
// that two devices on one assessment come to the same document.
type Mark struct {
	ID     string `json:"id" format:"uuid"`
	At     int64  `json:"at" minimum:"0" maximum:"7258118400000" doc:"when, ms since 1970 by the device's clock"`
	Device string `json:"device" minLength:"1" maxLength:"60"`
	Seq    int64  `json:"seq" minimum:"0"`
	Path   string `json:"path" minLength:"1" maxLength:"200"`
	Value  any    `json:"value" doc:"what stands there; null: nothing"`
}

const deepest = 8 // keys in a path; mutate: deeper than any place

// Check says what is wrong with one mark by itself, or nil. It reads the value
// in its place as strictly as the document is read.
func (m Mark) Check(c *catalog.Catalog, today string) []Fault {
	doc, err := Fold(Assessment{}, []Mark{m})
	if err != nil {
		return []Fault{{m.Path, sentence(err)}}
	}
	return doc.Check(c, today)
}

// On puts the mark on a document and gives the new one, or what is wrong with
// it there: more of something than there may be.
func (m Mark) On(doc Assessment, c *catalog.Catalog, today string) (Assessment, []Fault) {
	next, err := Fold(doc, []Mark{m})
	if err != nil {
		return doc, []Fault{{m.Path, sentence(err)}}
	}
	before := map[Fault]bool{}
	for _, f := range doc.Check(c, today) {
		before[f] = true
	}
	faults := slices.DeleteFunc(next.Check(c, today), func(f Fault) bool { return before[f] })
	if len(faults) > 0 {
		return doc, faults
	}
	return next, nil
}

// Fold makes the document that marks make of a base, in the order of their
// times. It fails where a value can't stand in its place.
func Fold(base Assessment, marks []Mark) (Assessment, error) {
	text, err := json.Marshal(base)
	if err != nil {
		return Assessment{}, fmt.Errorf("writing the assessment: %w", err)
	}
	tree := map[string]any{}
	if err := json.Unmarshal(text, &tree); err != nil {
		return Assessment{}, fmt.Errorf("reading the assessment: %w", err)
	}
	marks = slices.Clone(marks)
	slices.SortStableFunc(marks, func(a, b Mark) int {
		return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Device, b.Device), cmp.Compare(a.Seq, b.Seq), cmp.Compare(a.ID, b.ID))
	})
	for _, m := range marks {
		keys := strings.Split(m.Path, "/")
		if len(keys) > deepest || slices.Contains(keys, "") {
			return Assessment{}, errNoPlace
		}
		if err := put(tree, keys, own(m.Value)); err != nil {
			return Assessment{}, err
		}
		anew(tree, keys)
		if keys[0] == "problems" && len(keys) > 2 { // a problem stays taken on when its last answer is taken back
			if err := keep(tree, keys[:2]); err != nil {
				return Assessment{}, err
			}
		}
	}
	return read(tree)
}

// seenAnew is the key that says of something looked at that it was noted in this
// assessment (part 3: what is only carried over was not seen again).
const seenAnew = "anew"

// CarriedOver is an assessment as the next one begins from it: nothing in it was
// noted anew.
func (a Assessment) CarriedOver() Assessment {
	a.Basics, a.Zones, a.Problems = maps.Clone(a.Basics), maps.Clone(a.Zones), maps.Clone(a.Problems)
	a.First.Timed = nil // a gait is of its day
	for key, b := range a.Basics {
		b.Anew = false
		a.Basics[key] = b
	}
	for spot, t := range a.Zones {
		t.Anew = false
		a.Zones[spot] = t
	}
	for p, account := range a.Problems {
		account.Baseline.Anew = false
		a.Problems[p] = account
	}
	return a
}

// anew says of the branch that a mark was put into that it was noted now; one in
// which nothing else is left goes.
func anew(tree map[string]any, keys []string) {
	at := 2
	if keys[0] == "problems" {
		at = 3
	}
	if len(keys) < at || keys[0] != "basics" && keys[0] != "zones" && (keys[0] != "problems" || keys[2] != "baseline") {
		return
	}
	holder := tree
	for _, key := range keys[:at-1] {
		if holder, _ = holder[key].(map[string]any); holder == nil {
			return
		}
	}
	b, ok := holder[keys[at-1]].(map[string]any)
	if !ok {
		return
	}
	delete(b, seenAnew)
	if len(b) == 0 {
		delete(holder, keys[at-1])
		return
	}
	b[seenAnew] = true
}

var errNoPlace = errors.New("there is no such place in an assessment")

// own is a value that later marks may write into without touching the mark.
func own(value any) any {
	branch, ok := value.(map[string]any)
	if !ok {
		return value // only branches are written into
	}
	copied := make(map[string]any, len(branch))
	for key, v := range branch {
		copied[key] = own(v)
	}
	return copied
}

// put sets a value deep in a tree, making what is missing on the way; null
// takes it out, and what is left empty on the way too.
func put(tree map[string]any, keys []string, value any) error {
	key := keys[0]
	if len(keys) == 1 {
		if value == nil {
			delete(tree, key)
		} else {
			tree[key] = value
		}
		return nil
	}
	branch, ok := tree[key].(map[string]any)
	if !ok {
		switch {
		case value == nil:
			return nil // there is nothing to take away
		case tree[key] != nil:
			return errNoPlace
		}
		branch = map[string]any{}
	}
	if err := put(branch, keys[1:], value); err != nil {
		return err
	}
	if len(branch) == 0 {
		delete(tree, key)
	} else {
		tree[key] = branch
	}
	return nil
}

// keep makes sure that a branch is there, even an empty one.
func keep(tree map[string]any, keys []string) error {
	at := tree
	for _, key := range keys {
		branch, ok := at[key].(map[string]any)
		if !ok {
			if at[key] != nil {
				return errNoPlace
			}
			branch = map[string]any{}
			at[key] = branch
		}
		at = branch
	}
	return nil
}

func read(tree map[string]any) (Assessment, error) {
	text, err := json.Marshal(tree)
	if err != nil {
		return Assessment{}, fmt.Errorf("writing the assessment: %w", err)
	}
	dec := json.NewDecoder(bytes.NewReader(text))
	dec.DisallowUnknownFields()
	var a Assessment
	if err := dec.Decode(&a); err != nil {
		return Assessment{}, err
	}
	return a, nil
}

// sentence says of a value that can't stand in its place what could.
func sentence(err error) string {
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &kind):
		switch kind.Type.Kind() {
		case reflect.Int, reflect.Float64:
			return "Write a number in figures, a whole one where it counts something."
		}
		return fmt.Sprintf("A %s can't stand here.", kind.Value)
	case errors.Is(err, errNoPlace), strings.Contains(err.Error(), "unknown field"):
		return "There is no such place in an assessment. Reload the page."
	}
	return "This can't be: " + strings.TrimPrefix(err.Error(), "json: ") + "."
}
