package catalog

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Methods are the parts of the catalogue beside the ladders: the schools, where
// practitioners disagree (part 4), the sequence cards (part 5) and the cues
// that a cue card begins with (part 7).
type Methods struct {
	Schools []Method `json:"schools"`
	Choices []Choice `json:"choices"`
	Cards   []Card   `json:"cards"`
	Cues    []Cue    `json:"cues"`
}

// A Method is a school in words.
type Method struct {
	School horse.School   `json:"school"`
	Works  phrase.Slotted `json:"works" doc:"how it works"`
	Choose phrase.Slotted `json:"choose" doc:"when to choose it"`
	Avoid  phrase.Slotted `json:"avoid" doc:"when to avoid it"`
	Earns  phrase.Slotted `json:"earns" doc:"what earns the release"`
	Waits  phrase.Slotted `json:"waits" doc:"how long one waits"`
}

// A Choice is a standing disagreement: what the product does by default, why,
// and what a plan may choose instead.
type Choice struct {
	Key     string         `json:"key"`
	Asks    phrase.Slotted `json:"asks" doc:"the question"`
	Ladders []string       `json:"ladders,omitempty" doc:"the ladders it bears on; none: every one"`
	Default string         `json:"default"`
	Record  string         `json:"record,omitempty" enum:"bit_hung,food" doc:"it is decided for each horse, on its record, and not in a plan"`
	Why     phrase.Slotted `json:"why"`
	Options []Option       `json:"options"`
}

// An Option is one answer to a choice.
type Option struct {
	Key   string         `json:"key"`
	Says  phrase.Slotted `json:"says"`
	Moves []Move         `json:"moves,omitempty" doc:"what it changes on a ladder"`
	Warns bool           `json:"warns,omitempty" doc:"missing foundations warn and do not block, where the horse allows it"`
}

// A Move puts a step elsewhere on its ladder, or gives it other needs.
type Move struct {
	Step    string `json:"step"`
	After   string `json:"after,omitempty" doc:"the step that it follows; empty: it stays; \"start\": the first"`
	Instead []Need `json:"instead,omitempty" doc:"what it needs, in place of the step before it and its own needs"`
}

// Option returns the choice's option with that key.
func (c Choice) Option(key string) (Option, bool) {
	i := slices.IndexFunc(c.Options, func(o Option) bool { return o.Key == key })
	if i < 0 {
		return Option{}, false
	}
	return c.Options[i], true
}

// BearsOn reports whether the choice bears on any of the ladders.
func (c Choice) BearsOn(ladders []string) bool {
	return len(c.Ladders) == 0 || slices.ContainsFunc(c.Ladders, func(key string) bool { return slices.Contains(ladders, key) })
}

// Choice returns the choice with that key.
func (m Methods) Choice(key string) (Choice, bool) {
	i := slices.IndexFunc(m.Choices, func(c Choice) bool { return c.Key == key })
	if i < 0 {
		return Choice{}, false
	}
	return m.Choices[i], true
}

// Method returns a school in words.
func (m Methods) Method(s horse.School) (Method, bool) {
	i := slices.IndexFunc(m.Schools, func(one Method) bool { return one.School == s })
	if i < 0 {
		return Method{}, false
	}
	return m.Schools[i], true
}

// A Cue is how one ask is given: body, word and aid, the same in hand and
// ridden.
type Cue struct {
	Key    string         `json:"key" doc:"its key"`
	Name   phrase.Slotted `json:"name" doc:"what is asked"`
	Body   phrase.Slotted `json:"body" doc:"what the body does"`
	Word   phrase.Slotted `json:"word" doc:"what is said"`
	InHand phrase.Slotted `json:"in_hand" doc:"what the hands do on the ground"`
	Ridden phrase.Slotted `json:"ridden,omitempty" doc:"what the rider does"`
	Steps  []string       `json:"steps" doc:"the steps that ask for it"`
}

func checkMethods(c *Catalog, fault func(string, string, ...any)) {
	for _, s := range (horse.School{}).All() {
		if m, ok := c.Methods.Method(s); !ok || m.Works == "" || m.Choose == "" || m.Avoid == "" || m.Earns == "" || m.Waits == "" {
			fault("schools", "%s needs to say how it works, when to choose and when to avoid it, what earns the release and how long one waits", s)
		}
	}
	for _, one := range c.Methods.Choices {
		if one.Asks == "" || one.Why == "" {
			fault("choices", "%q needs a question and a reason", one.Key)
		}
		if _, ok := one.Option(one.Default); !ok {
			fault("choices", "%q has the default %q, which is not one of its options", one.Key, one.Default)
		}
		for _, key := range one.Ladders {
			if _, ok := c.ladders[key]; !ok {
				fault("choices", "%q bears on the ladder %q, which is not there", one.Key, key)
			}
		}
		for _, o := range one.Options {
			for _, m := range o.Moves {
				checkMove(c, one.Key, m, fault)
			}
		}
	}
	for _, cue := range c.Methods.Cues {
		if cue.Key == "" || cue.Name == "" || cue.Body == "" || cue.InHand == "" || len(cue.Steps) == 0 {
			fault("cues", "%q needs a key, a name, body, an aid in hand, and the steps that ask for it", cue.Key)
		}
		for _, key := range cue.Steps {
			if _, ok := c.steps[key]; !ok {
				fault("cues", "%q is for the step %q, which is not there", cue.Key, key)
			}
		}
	}
	for _, card := range c.Methods.Cards {
		card.check(c, fault)
	}
}

func checkMove(c *Catalog, choice string, m Move, fault func(string, string, ...any)) {
	step, ok := c.Step(m.Step)
	if !ok {
		fault("choices", "%q moves the step %q, which is not there", choice, m.Step)
		return
	}
	if after, ok := c.Step(m.After); m.After != "" && m.After != atStart && (!ok || after.Ladder != step.Ladder) {
		fault("choices", "%q puts %s after %q, which is not on its ladder", choice, m.Step, m.After)
	}
	for _, n := range m.Instead {
		checkNeed(c, "choices", n, fault)
	}
}
