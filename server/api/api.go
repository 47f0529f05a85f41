package api

import (
	"path"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/attention"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/snag"
	"ivorybridge/core/track"
	"ivorybridge/core/trend"
)

// Schemas is a registry that knows the handbook's words and scales.
func Schemas() huma.Registry {
	registry := huma.NewMapRegistry("#/components/schemas/", schemaName)
	vocabulary(registry)
	return registry
}

// config describes the API: one format, no pages of its own.
func config(version string) huma.Config {
	return huma.Config{
		OpenAPI: &huma.OpenAPI{
			OpenAPI:    "3.1.0",
			Info:       &huma.Info{Title: "Ivory Bridge", Version: version},
			Components: &huma.Components{Schemas: Schemas()},
		},
		OpenAPIPath:   "/api/openapi",
		Formats:       map[string]huma.Format{"application/json": huma.DefaultJSONFormat, "json": huma.DefaultJSONFormat},
		DefaultFormat: "application/json",
	}
}

// schemaName puts the package's name before types of the core, since one word
// may be a type in several rooms.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	room := path.Base(t.PkgPath())
	if !strings.Contains(t.PkgPath(), "/core/") {
		return name
	}
	return strings.ToUpper(room[:1]) + room[1:] + name
}

// wordSchema lists a vocabulary's words, the empty one for nothing said.
type wordSchema[V horse.Vocabulary] string

func (wordSchema[V]) Schema(huma.Registry) *huma.Schema {
	var v V
	words := []any{""}
	for _, w := range v.Words() {
		words = append(words, w)
	}
	return &huma.Schema{Type: huma.TypeString, Enum: words}
}

// scaleSchema gives a scale's ends; null is not noted.
type scaleSchema[R horse.Range] int

func (scaleSchema[R]) Schema(huma.Registry) *huma.Schema {
	var r R
	_, lo, hi := r.Bounds()
	low, high := float64(lo), float64(hi)
	return &huma.Schema{Type: huma.TypeInteger, Minimum: &low, Maximum: &high, Nullable: true}
}

func word[V horse.Vocabulary](r huma.Registry, _ horse.Word[V]) {
	r.RegisterTypeAlias(reflect.TypeFor[horse.Word[V]](), reflect.TypeFor[wordSchema[V]]())
}

func scale[R horse.Range](r huma.Registry, _ horse.Scale[R]) {
	r.RegisterTypeAlias(reflect.TypeFor[horse.Scale[R]](), reflect.TypeFor[scaleSchema[R]]())
}

// vocabulary describes the handbook's words and scales to the registry.
func vocabulary(r huma.Registry) {
	word(r, horse.Answer{})
	word(r, horse.Manner{})
	word(r, horse.Release{})
	word(r, horse.ReleaseSize{})
	word(r, horse.Form{})
	word(r, horse.Aid{})
	word(r, horse.Held{})
	word(r, horse.CameFrom{})
	word(r, horse.EndedBy{})
	word(r, horse.Flag{})
	word(r, horse.Sign{})
	word(r, horse.Attention{})
	word(r, track.Button{})
	word(r, outing.Phase{})
	word(r, outing.Next{})
	word(r, horse.WayOut{})
	word(r, horse.BodyItem{})
	word(r, horse.BodyState{})
	word(r, horse.School{})
	word(r, horse.Problem{})
	word(r, horse.Care{})
	word(r, horse.StepState{})
	word(r, horse.Mind{})
	word(r, catalog.Role{})
	word(r, horse.Stop{})
	word(r, track.Kind{})
	word(r, track.Action{})
	word(r, track.Offered{})
	word(r, arena.Pad{})
	word(r, track.SpellPlace{})
	word(r, track.Coming{})
	word(r, arena.Settling{})
	word(r, assess.Sex{})
	word(r, assess.Past{})
	word(r, assess.Energy{})
	word(r, assess.Food{})
	word(r, assess.Began{})
	word(r, assess.Done{})
	word(r, assess.EventKind{})
	word(r, assess.Hurt{})
	word(r, horse.Cause{})
	word(r, horse.Source{})
	word(r, horse.Look{})
	word(r, horse.Side{})
	word(r, horse.Experience{})
	word(r, assess.Hung{})
	word(r, assess.Belief{})
	word(r, assess.LookGiven{})
	word(r, assess.Still{})
	word(r, assess.Pull{})
	word(r, assess.Floor{})
	word(r, assess.Steadiness{})
	word(r, assess.Pressing{})
	word(r, assess.Prompt{})
	word(r, assess.Bit{})
	word(r, assess.Noseband{})
	word(r, assess.RunningAid{})
	word(r, assess.Extra{})
	word(r, assess.Fit{})
	word(r, assess.Setting{})
	word(r, assess.Strap{})
	word(r, assess.Verdict{})
	word(r, assess.Professional{})
	word(r, assess.SwapRun{})
	word(r, assess.Head{})
	word(r, assess.Ears{})
	word(r, assess.Mouth{})
	word(r, assess.Nose{})
	word(r, assess.Contact{})
	word(r, assess.Turn{})
	word(r, assess.Leg{})
	word(r, assess.Attention{})
	word(r, assess.Mounting{})
	word(r, assess.RiderLeg{})
	word(r, horse.Zone{})
	word(r, catalog.Past{})
	word(r, plan.HelpKind{})
	word(r, clearance.Item{})
	word(r, clearance.Said{})
	word(r, clearance.Place{})
	word(r, homework.End{})
	word(r, homework.Feel{})
	word(r, assess.GateState{})
	word(r, attention.Sign{})
	word(r, attention.Place{})
	word(r, attention.Need{})
	word(r, progress.Certainty{})
	word(r, progress.Measure{})
	word(r, trend.Word{})
	word(r, snag.Kind{})
	word(r, snag.Act{})
	scale(r, horse.Level{})
	scale(r, horse.Arousal{})
	scale(r, horse.Face{})
	scale(r, horse.Pulses{})
}

// speakPlainly puts the library's messages into the words of the yard. They
// are variables of that package; this sets them to the same values each time.
func speakPlainly() {
	validation.MsgUnexpectedProperty = "This is not known here. Check how it is spelled."
	validation.MsgExpectedRFC3339Date = notADate
	validation.MsgExpectedRFC4122UUID = "This is not an id of this product. Go back to the list and choose again.%.0s"
	validation.MsgExpectedRFC5322Email = "This is not an email address. It needs a name, an @ and a place.%.0s"
	validation.MsgExpectedBoolean = "This is yes or no (true or false)."
	validation.MsgExpectedNumber = "This is a number."
	validation.MsgExpectedInteger = "This is a whole number."
	validation.MsgExpectedString = "This is a text."
	validation.MsgExpectedArray = "This is a list."
	validation.MsgExpectedObject = "This is a group of values."
	validation.MsgExpectedOneOf = `Choose one of these: %s`
	validation.MsgExpectedMinimumNumber = "This is too little. Give %v or more."
	validation.MsgExpectedMaximumNumber = "This is too much. Give %v or less."
	validation.MsgExpectedMinLength = "This is too short. It needs %d characters or more."
	validation.MsgExpectedMaxLength = "This is too long. Shorten it to %d characters or fewer."
	validation.MsgExpectedMinItems = "There are too few. Give %d or more."
	validation.MsgExpectedMaxItems = "There are too many. Give %d or fewer."
	validation.MsgExpectedRequiredProperty = "The field %s is missing. Fill it in."
	huma.DefaultArrayNullable = false
	huma.NewError = newStatusError
	huma.NewErrorWithContext = func(_ huma.Context, status int, msg string, errs ...error) huma.StatusError {
		return newStatusError(status, msg, errs...)
	}
}
