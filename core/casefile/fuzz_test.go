package casefile

import (
	"encoding/json"
	"testing"

	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
)

// Whatever is sent as a plan's choices: each fault has its field and a
// sentence, or the case can be read with them.
func FuzzChoices(f *testing.F) {
	c := shipped(f)
	for _, text := range []string{
		`{"goals":{"loading":{"ladder":"load","until":"load.square"}},"schools":{"load":"relief place"},"visits_per_week":3}`,
		`{"homework_per_week":4,"by":"2026-08-01","aid":{"what":"a tie-down","reason":"it throws its head","until":"2026-07-01"}}`,
		`{"settings":{"trailer way":"fly in"},"cues":{"walk on":{"voice":"on"}},"vehicle":"the box"}`,
	} {
		f.Add([]byte(text))
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		var choices plan.Choices
		if json.Unmarshal(text, &choices) != nil {
			return
		}
		faults := choices.Check(c, "2026-06-20")
		for _, fault := range faults {
			if fault.Field == "" || fault.Say == "" {
				t.Errorf("refused without a place or a sentence: %s", text)
			}
		}
		if len(faults) > 0 {
			return
		}
		in := input(day("2026-06-02", good("lead.forward")))
		in.Problem, in.Choices = horse.Loading, choices
		file, err := in.Read(c)
		if err != nil {
			t.Fatalf("%s: %v", text, err)
		}
		file.Attention()
	})
}
