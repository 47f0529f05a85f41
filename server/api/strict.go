package api

import (
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"

	"ivorybridge/core/track"
)

// What every id and every text must be beyond what the library looks at: an id is
// written in one way only, and no text holds the character that ends one.
const (
	idPattern   = "^[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}$"
	textPattern = `^[^\x00]*$`

	notAnID   = "This is not an id of this product. Go back to the list and choose again."
	notAText  = "This text holds a character that can't be kept. Type it again."
	notATime  = "This is no time that can be. Set the clock of the device, and send it again."
	isPattern = "%s" // the description is the whole sentence
)

// Strictly makes all that was described so far refuse what the library lets
// through. It is called once, when every operation is described.
func (s *API) Strictly() {
	said := validation.MsgExpectedMaximumNumber
	validation.MsgExpectedBePattern = isPattern
	validation.MsgExpectedMaximumNumber = notATime + "%.0v"
	defer func() { validation.MsgExpectedMaximumNumber = said }()

	doc := s.Huma.OpenAPI()
	for _, schema := range doc.Components.Schemas.Map() {
		strictly(schema)
	}
	for _, item := range doc.Paths {
		for _, op := range []*huma.Operation{item.Get, item.Put, item.Post, item.Delete} {
			if op == nil {
				continue
			}
			for _, p := range op.Parameters {
				strictly(p.Schema)
			}
			if op.RequestBody != nil {
				for _, content := range op.RequestBody.Content {
					strictly(content.Schema)
				}
			}
		}
	}
}

func strictly(s *huma.Schema) {
	if s == nil {
		return
	}
	switch {
	case s.Type == huma.TypeInteger && s.Maximum != nil && int64(*s.Maximum) == track.LastInstant:
		s.PrecomputeMessages()
	case s.Type != huma.TypeString || len(s.Enum) > 0 || s.Pattern != "" || s.Format == "binary":
	case s.Format == "uuid":
		s.Pattern, s.PatternDescription = idPattern, notAnID
		s.PrecomputeMessages()
	default:
		s.Pattern, s.PatternDescription = textPattern, notAText
		s.PrecomputeMessages()
	}
	for _, p := range s.Properties {
		strictly(p)
	}
	strictly(s.Items)
	if more, ok := s.AdditionalProperties.(*huma.Schema); ok {
		strictly(more)
	}
	for _, some := range slices.Concat(s.OneOf, s.AnyOf, s.AllOf) {
		strictly(some)
	}
}

// NotAText says what is wrong with a value that is no text that can be kept, or
// holds one, or nothing: for those whose form no schema tells.
func NotAText(value any) string {
	wrong := false
	switch v := value.(type) {
	case string:
		wrong = strings.ContainsRune(v, 0)
	case []any:
		wrong = slices.ContainsFunc(v, func(one any) bool { return NotAText(one) != "" })
	case map[string]any:
		for key, one := range v {
			wrong = wrong || strings.ContainsRune(key, 0) || NotAText(one) != ""
		}
	}
	if wrong {
		return notAText
	}
	return ""
}
