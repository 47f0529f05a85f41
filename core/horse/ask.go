package horse

import (
	"fmt"
	"strings"
)

type sides struct{}

func (sides) Words() []string { return []string{"near", "off"} }

// Side is near (left) or off (right).
type Side = Word[sides]

// The two sides.
var (
	Near = MustWord[sides]("near")
	Off  = MustWord[sides]("off")
)

type directions struct{}

func (directions) Words() []string { return []string{"going left", "going right"} }

// Direction is the way the horse goes through a gap or past a spot.
type Direction = Word[directions]

type feet struct{}

func (feet) Words() []string { return []string{"left fore", "right fore", "left hind", "right hind"} }

// Foot is one of the four feet.
type Foot = Word[feet]

type zones struct{}

func (zones) Words() []string { return []string{"zone 1", "zone 2", "zone 3", "zone 4", "zone 5"} }

// Zone counts from in front of the nose to behind (part 2).
type Zone = Word[zones]

// The zones that rules name: those that are touched, from the neck to the
// quarters.
var (
	Zone2 = MustWord[zones]("zone 2")
	Zone3 = MustWord[zones]("zone 3")
	Zone4 = MustWord[zones]("zone 4")
)

// A Variant is what makes two asks of one step different: a side, a zone, a
// foot, a direction or a place. Most steps have none or a side. It is spelled
// as its words in that order, a place as "at …".
type Variant struct {
	Zone      Zone
	Foot      Foot
	Direction Direction
	Side      Side
	Place     string
}

// IsZero reports whether the step is asked in one way only.
func (v Variant) IsZero() bool { return v == Variant{} }

func (v Variant) String() string {
	var parts []string
	for _, p := range []string{v.Zone.String(), v.Foot.String(), v.Direction.String(), v.Side.String()} {
		if p != "" {
			parts = append(parts, p)
		}
	}
	if v.Place != "" {
		parts = append(parts, "at "+v.Place)
	}
	return strings.Join(parts, " ")
}

// MarshalText spells the variant.
func (v Variant) MarshalText() ([]byte, error) { return []byte(v.String()), nil }

// UnmarshalText reads a spelling made by MarshalText.
func (v *Variant) UnmarshalText(b []byte) error {
	parsed, err := ParseVariant(string(b))
	if err != nil {
		return err
	}
	*v = parsed
	return nil
}

// ParseVariant reads a spelling such as "near", "zone 2 off", "going left" or
// "at the sill".
func ParseVariant(s string) (Variant, error) {
	var v Variant
	rest := take(s, &v.Zone)
	rest = take(rest, &v.Foot)
	rest = take(rest, &v.Direction)
	rest = take(rest, &v.Side)
	if place, ok := strings.CutPrefix(rest, "at "); ok {
		v.Place, rest = strings.TrimSpace(place), ""
	}
	if rest != "" {
		return Variant{}, &ValueError{Got: s, Want: "a variant is a zone, a foot, a direction, a side (near, off) or a place (at …), in that order"}
	}
	return v, nil
}

// take reads one word of a vocabulary from the front of s, if one is there.
func take[V Vocabulary](s string, into *Word[V]) string {
	for _, w := range into.All() {
		if rest, ok := strings.CutPrefix(s, w.String()); ok && (rest == "" || rest[0] == ' ') {
			*into = w
			return strings.TrimPrefix(rest, " ")
		}
	}
	return s
}

// An Ask is a step plus its variant, if it has one.
type Ask struct {
	Step    string  `json:"step" maxLength:"60" doc:"key of a step of the catalogue"`
	Variant Variant `json:"variant,omitzero" maxLength:"60" doc:"which one: near or off, a zone, a foot, a direction or a place"`
}

// IsZero reports whether there is no ask.
func (a Ask) IsZero() bool { return a.Step == "" }

func (a Ask) String() string {
	if a.Variant.IsZero() {
		return a.Step
	}
	return fmt.Sprintf("%s %s", a.Step, a.Variant)
}
