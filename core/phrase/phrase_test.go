package phrase

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestFill(t *testing.T) {
	b := English(Words{Vehicle: "float", Sides: "left and right"})
	for text, want := range map[string]string{
		"into the {trailer}":      "into the float",
		"the {off} side":          "the right side",
		"{n|step|steps}":          "1 step",
		"{m|step|steps} on {v}":   "3 steps on zone 2 left",
		"{half} of {list}":        "2.5 of a, b and c",
		"{nobody} said {unclosed": "{nobody} said {unclosed",
		"by {day}":                "by 26 December 2026",
		"{told}":                  "Begin with hind, left, from 1.",
	} {
		assert.Equal(t, want, b.Fill(text, Args{
			"n": 1, "m": 3, "v": Sided("zone 2 near"), "half": 2.5, "list": []string{"a", "b", "c"}, "day": Date("2026-12-26"),
			"told": Of("say.same.begin", Args{"ask": Of("ask.variant", Args{"step": "hind", "variant": Of("side.near", nil)})}),
		}))
	}
	assert.Equal(t, "no.such.key", b.Say(Of("no.such.key", nil)), "a gap shows")
}
