package phrase

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
		"by {day:day}":            "by 26 December",
		"{told}":                  "Begin with hind, left, from 1.",
	} {
		assert.Equal(t, want, b.Fill(text, Args{
			"n": 1, "m": 3, "v": Sided("zone 2 near"), "half": 2.5, "list": []string{"a", "b", "c"}, "day": Date("2026-12-26"),
			"told": Of("say.same.begin", Args{"ask": Of("ask.variant", Args{"step": "hind", "variant": Of("side.near", nil)})}),
		}))
	}
	assert.Equal(t, "no.such.key", b.Say(Of("no.such.key", nil)), "a gap shows")
}

// A length is said in the book's units: of feet the half ones under ten, whole ones under
// fifty, then each fifth. lengths.test.ts has this table too.
func TestLengths(t *testing.T) {
	feet := English(Words{Units: "feet"})
	for m, want := range map[float64]string{
		0.5: "1.5 ft", 1: "3.5 ft", 1.5: "5 ft", 3: "10 ft", 3.05: "10 ft", 6: "20 ft", 15.2: "50 ft", 80: "260 ft", 305: "1000 ft",
	} {
		assert.Equal(t, want, feet.Fill("{n:m}", Args{"n": m}), m)
	}
	assert.Equal(t, "at 1.5 m, then 380 m, no {length}", English(Shipped).Fill("at {1.5:m}, then {n:m}, no {length}", Args{"n": 380}))
	assert.Equal(t, "at 5 ft, somewhere", feet.Fill("at {1.5:m}, {n:m}", Args{"n": "somewhere"}))
	assert.Equal(t, []string{"5 ft", "Then 255 ft, and stand."}, []string{feet.Say(Of("target.mm", Args{"n": 1.5})), feet.Say(Of("outing.says.next_metres", Args{"n": 78}))})
	assert.Equal(t, "5 ft", feet.Say(Of("target.mm", Args{"n": 1.524})), "as it was typed")
}

// A message that was kept or sent says the same afterwards.
func TestAMessageSaysTheSameAfterItWasKept(t *testing.T) {
	b := English(Words{Vehicle: "float", Sides: "left and right"})
	was := Of("say.down", Args{
		"ask": Of("ask.variant", Args{"step": "hind", "variant": Of("variant", Args{"words": Sided("zone 2 near")})}), "target": Of("target.steps", Args{"n": 4}),
		"when": Date("2026-12-26"), "where": Slotted("at the {trailer}"), "list": []string{"a", "b"}, "steps": []Slotted{"the {off} side", "b"}, "said": []Message{Of("side.near", nil), Of("side.off", nil)}, "half": 2.5, "none": nil,
	})
	text, err := json.Marshal(was)
	require.NoError(t, err)
	var is Message
	require.NoError(t, json.Unmarshal(text, &is))
	line := "{ask} {target} {when} {where} {list} {steps} {said} {half}"
	assert.Equal(t, b.Fill(line, was.Args), b.Fill(line, is.Args))
	assert.Equal(t, "hind, zone 2 left 4 steps 26 December 2026 at the float a and b the right side and b left and right 2.5", b.Fill(line, is.Args))
	assert.Equal(t, b.Say(was), b.Say(is))
	var none Message
	require.NoError(t, json.Unmarshal([]byte(`{"key":"target.none","args":null}`), &none))
	assert.Nil(t, none.Args)
	assert.Empty(t, b.Say(none))
}

func TestCountsInWords(t *testing.T) {
	b := English(Shipped)
	for n, want := range map[int][3]string{0: {"no steps", "never", "0 steps"}, 1: {"one step", "once", "1 step"}, 2: {"two steps", "twice", "2 steps"}, 10: {"ten steps", "ten times", "10 steps"}, 11: {"11 steps", "11 times", "11 steps"}} {
		args := Args{"n": n}
		assert.Equal(t, want, [3]string{b.Fill("{n:words|step|steps}", args), b.Fill("{n:times}", args), b.Fill("{n|step|steps}", args)})
	}
	assert.Equal(t, "one of ten", b.Fill("{n:words} of {m:words}", Args{"n": 1, "m": 10}))
}
