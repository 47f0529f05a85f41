// Package trailer is the record of a trailer (part 5, "Trailer loading"): what a
// horse meets there, kept once for each trailer of a yard or an owner, and what the
// trainer is to mind because of it.
package trailer

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type (
	loads   struct{}
	ways    struct{}
	yes     struct{}
	lights  struct{}
	sounds  struct{}
	gives   struct{}
	hitches struct{}
)

func (loads) Words() []string   { return []string{"straight load", "angle load"} }
func (ways) Words() []string    { return []string{"ramp", "step-up"} }
func (yes) Words() []string     { return []string{"yes", "no"} }
func (lights) Words() []string  { return []string{"light", "dim", "dark"} }
func (sounds) Words() []string  { return []string{"quiet", "hollow"} }
func (gives) Words() []string   { return []string{"firm", "springs"} }
func (hitches) Words() []string { return []string{"hitched", "free"} }

// YesNo is a thing that is there or not, or that nobody looked at.
type YesNo = horse.Word[yes]

// No is that it is not there.
var No = horse.MustWord[yes]("no")

// A Record is what a trailer is like; what nobody looked at is empty.
type Record struct {
	Load    horse.Word[loads]   `json:"load,omitzero" doc:"how a horse stands in it"`
	Way     horse.Word[ways]    `json:"way,omitzero" doc:"how it gets in"`
	Divider YesNo               `json:"divider,omitzero" doc:"there is a divider"`
	Bar     YesNo               `json:"bar,omitzero" doc:"there is a bar behind"`
	WidthMM int                 `json:"width_mm,omitempty" doc:"width of the place for one horse, in millimetres"`
	Light   horse.Word[lights]  `json:"light,omitzero" doc:"how light it is inside"`
	Floor   horse.Word[sounds]  `json:"floor,omitzero" doc:"how the floor sounds"`
	Give    horse.Word[gives]   `json:"give,omitzero" doc:"how the floor gives"`
	Hitch   horse.Word[hitches] `json:"hitch,omitzero" doc:"hitched, or standing free"`
	Rings   *int                `json:"rings,omitempty" minimum:"0" maximum:"12" doc:"how many tie rings"`
	RingsAt string              `json:"rings_at,omitempty" maxLength:"120" doc:"where they are"`
	Outside YesNo               `json:"untied_from_outside,omitzero" doc:"a horse can be untied from outside"`
}

// How wide a place for one horse can be, in millimetres.
const (
	narrowest = 400
	widest    = 3000
)

// A Fault is a value that can't be, with the field it stands in.
type Fault struct{ Field, Say string }

// Check lists what can't be.
func (r Record) Check() []Fault {
	var faults []Fault
	if r.WidthMM != 0 && (r.WidthMM < narrowest || r.WidthMM > widest) {
		faults = append(faults, Fault{"width_mm", fmt.Sprintf("%d cm can't be the width for one horse. Give %d to %d cm, which is 16 to 118 inches.", r.WidthMM/10, narrowest/10, widest/10)})
	}
	if r.Rings != nil && (*r.Rings < 0 || *r.Rings > 12) {
		faults = append(faults, Fault{"rings", "Give the number of tie rings, from 0 to 12."})
	}
	if utf8.RuneCountInString(r.RingsAt) > 120 {
		faults = append(faults, Fault{"rings_at", "Say in 120 characters at most where they are."})
	}
	return faults
}

// Says tells what it is like in one line, then what to mind, each from a fact of
// the record.
func (r Record) Says() (like phrase.Message, mind []phrase.Message) {
	var parts []string
	add := func(text string) {
		if text != "" {
			parts = append(parts, text)
		}
	}
	there := func(is YesNo, what string) {
		switch {
		case is == No:
			add("no " + what)
		case !is.IsZero():
			add(what)
		}
	}
	add(r.Load.String())
	add(r.Way.String())
	there(r.Divider, "divider")
	there(r.Bar, "bar")
	if r.WidthMM > 0 {
		add(fmt.Sprintf("%d cm wide", r.WidthMM/10))
	}
	if !r.Light.IsZero() {
		add(r.Light.String() + " inside")
	}
	if r.Rings != nil {
		add(strings.TrimSpace(plural(*r.Rings, "tie ring", "tie rings") + " " + r.RingsAt))
	}
	say := func(key string) { mind = append(mind, phrase.Of("trailer."+key, nil)) }
	if r.Floor.String() == "hollow" {
		say("hollow")
	}
	if r.Give.String() == "springs" {
		say("springs")
	}
	if r.Hitch.String() == "free" {
		say("free")
	}
	if r.Light.String() == "dark" {
		say("dark")
	}
	if r.Outside == No {
		say("inside_only")
	}
	if r.Bar == No && r.Divider == No {
		say("nothing_behind")
	}
	if len(parts) == 0 {
		return phrase.Of("trailer.unknown", nil), mind
	}
	like = phrase.Of("trailer.like", phrase.Args{"like": phrase.Raised(strings.Join(parts, ", "))})
	return like, mind
}

func plural(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprint(n) + " " + many
}
