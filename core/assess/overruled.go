package assess

import (
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// What can be overruled is keyed so: "risk", "cause.loading.fear",
// "start.loading", "school.loading". A cause is a word of belief, the risk a
// grade of care, a start a step, a school a school.
func (a Assessment) checkOverruled(c *catalog.Catalog, f *faults) {
	f.few("overruled", len(a.Overruled), 200)
	for key, o := range a.Overruled {
		path := "overruled/" + key
		if strings.TrimSpace(o.Reason) == "" {
			f.add(path+"/reason", "Say in a few words why; both judgements are kept.")
		}
		f.short(path+"/reason", o.Reason, 500)
		if !mayBe(c, key, o.To) {
			f.add(path+"/to", "That is not a judgement of this kind. Choose one from the list.")
		}
	}
}

func mayBe(c *catalog.Catalog, key, to string) bool {
	what, rest, _ := strings.Cut(key, ".")
	reads := func(v interface{ UnmarshalText([]byte) error }, text string) bool {
		return text != "" && v.UnmarshalText([]byte(text)) == nil
	}
	problem, cause, _ := strings.Cut(rest, ".")
	switch what {
	case "risk":
		return rest == "" && reads(new(horse.Care), to)
	case "cause":
		return reads(new(horse.Problem), problem) && reads(new(horse.Cause), cause) && reads(new(Belief), to)
	case "school":
		return reads(new(horse.Problem), rest) && reads(new(horse.School), to)
	case "start":
		_, ok := c.Step(to)
		return ok && reads(new(horse.Problem), rest)
	}
	return false
}

// startOf is the step to begin at as the trainer has it: an overruled one only
// if nothing blocks it.
func (a Assessment) startOf(problem horse.Problem, computed string, blocks []Block) string {
	o, ok := a.Overruled["start."+problem.String()]
	if !ok {
		return computed
	}
	for _, b := range blocks {
		if b.Step == o.To {
			return computed
		}
	}
	return o.To
}

// careOf is the grade that precautions follow: the trainer may raise it; a
// lower one is kept beside, but the precautions of the computed grade stay
// (part 9: safety is never configured away).
func (a Assessment) careOf(computed horse.Care) horse.Care {
	var care horse.Care
	if o, ok := a.Overruled["risk"]; ok && care.UnmarshalText([]byte(o.To)) == nil {
		return max2(computed, care)
	}
	return computed
}
