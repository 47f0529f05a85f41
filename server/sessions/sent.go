package sessions

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"ivorybridge/core/track"
	"ivorybridge/server/api"
)

// maxTrack is the largest batch of entries in bytes, maxEntry the largest one
// that is kept, and maxEntries how many may come at once. A batch may be larger
// than what is kept of it, so that the good entries beside a far too long note
// are kept.
const (
	maxTrack   = 12 << 20
	maxEntry   = 16_000
	maxEntries = 200
)

// A sentEntry is an entry as it arrived. It is read by itself, so that one that
// can't be read is named and holds up no other.
type sentEntry struct{ text json.RawMessage }

// UnmarshalJSON keeps the text.
func (e *sentEntry) UnmarshalJSON(text []byte) error {
	e.text = append(json.RawMessage(nil), text...)
	return nil
}

// Schema is that of an entry.
func (sentEntry) Schema(r huma.Registry) *huma.Schema {
	return r.Schema(reflect.TypeFor[track.Entry](), true, "Entry")
}

// readEntry reads an entry as strictly as any body is read. What is wrong with
// it comes with its id, if that can be read.
func readEntry(schemas huma.Registry, sent sentEntry) (track.Entry, error) {
	var value any
	err := json.Unmarshal(sent.text, &value)
	nothing := track.Entry{} // what can't be read has no id
	if fields, ok := value.(map[string]any); ok {
		nothing.ID, _ = fields["id"].(string)
	}
	if len(sent.text) > maxEntry {
		return nothing, errors.New("this entry is too long to be kept: a note has 2000 characters at most")
	}
	if err != nil {
		return nothing, errors.New("this can't be read, it must be JSON")
	}
	var found huma.ValidateResult
	schema := schemas.Schema(reflect.TypeFor[track.Entry](), true, "Entry")
	huma.Validate(schemas, schema, huma.NewPathBuffer([]byte("entry"), len("entry")), huma.ModeWriteToServer, value, &found)
	if len(found.Errors) > 0 {
		said := make([]string, len(found.Errors))
		for i, err := range found.Errors {
			said[i] = err.Error()
			var d huma.ErrorDetailer
			if errors.As(err, &d) {
				said[i] = fmt.Sprintf("%s: %s", api.FieldOf(*d.ErrorDetail()), strings.TrimSuffix(d.ErrorDetail().Message, "."))
			}
		}
		return nothing, errors.New(strings.Join(said, "; "))
	}
	var e track.Entry
	if err := json.Unmarshal(sent.text, &e); err != nil {
		return nothing, errors.New(api.Readable(err.Error()))
	}
	return e, nil
}
