package catalog

import (
	"fmt"
	"strconv"
	"strings"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Pass is a step's pass mark. Values run from the start to the last; they
// are seconds, millimetres or counts, as Unit says.
type Pass struct {
	Run         int            `json:"run" doc:"accepted or offered in a row"`
	Level       int            `json:"level" doc:"peak level at most"`
	Arousal     int            `json:"arousal" doc:"arousal after, at most"`
	Values      []int          `json:"values,omitempty" doc:"the doses, holds, counts or distances in order"`
	Unit        string         `json:"unit,omitempty" enum:"s,mm,steps,feet,holes,times" doc:"what the values count"`
	Corrections *int           `json:"corrections,omitempty" doc:"corrections at most"`
	And         string         `json:"and,omitempty" doc:"what else is asked, in words"`
	Text        phrase.Slotted `json:"text" doc:"the pass mark in words"`
}

// Climb gives the values up to the last one (part 6): from a quarter of it,
// rising by at most half; counts by one.
func Climb(last int, byOne bool) []int {
	values := []int{max(last/4, 1)}
	for v := values[0]; v < last; {
		if byOne {
			v++
		} else {
			v = min(v+max(v/2, 1), last)
		}
		values = append(values, v)
	}
	return values
}

// PassText says the step's pass mark in words, with its length where the book's units go.
func (s Step) PassText() phrase.Slotted {
	p := s.Pass
	text := fmt.Sprintf("%d in a row accepted or offered, level %d or less, settled or attentive after", p.Run, p.Level)
	if n := len(p.Values); n > 0 {
		switch p.Unit {
		case "mm":
			text += ", at {" + strconv.FormatFloat(float64(p.Values[n-1])/1000, 'f', -1, 64) + ":m}"
		case "s":
			if s.Has(MeasureTime) {
				text += fmt.Sprintf(", in %d s or less", p.Values[n-1])
			} else {
				text += fmt.Sprintf(", for %d s", p.Values[n-1])
			}
		default:
			text += fmt.Sprintf(", %d %s", p.Values[n-1], p.Unit)
		}
	}
	if p.Corrections != nil {
		switch *p.Corrections {
		case 0:
			text += ", not corrected"
		case 1:
			text += ", corrected at most once"
		default:
			text += fmt.Sprintf(", corrected at most %d times", *p.Corrections)
		}
	}
	if p.And != "" {
		text += ", " + p.And
	}
	if len(s.Variants) > 0 {
		text += "; each apart: " + join(s.Variants)
	}
	return phrase.Slotted(text)
}

func join(vs []horse.Variant) string {
	said := make([]string, len(vs))
	for i, v := range vs {
		said[i] = v.String()
	}
	return strings.Join(said, ", ")
}
