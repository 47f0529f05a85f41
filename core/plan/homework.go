package plan

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"ivorybridge/core/catalog"
	"ivorybridge/core/phrase"
)

// A HomeworkCard is one page in plain words for a person who is cleared (part
// 7). Who is to be called is added by whoever knows the numbers.
type HomeworkCard struct {
	Person   string           `json:"person"`
	Steps    []HomeworkStep   `json:"steps"`
	Time     phrase.Message   `json:"time"`
	Remember []phrase.Slotted `json:"remember" doc:"two points at most"`
	Stop     []phrase.Message `json:"stop" doc:"when to stop"`
	Call     phrase.Message   `json:"call" doc:"when to phone"`
	Safety   phrase.Message   `json:"safety"`
	Cues     []catalog.Cue    `json:"cues"`
	None     *phrase.Message  `json:"none,omitempty" doc:"why there is nothing to do; absent: there is"`
}

// HomeworkStep is one step on the card.
type HomeworkStep struct {
	Step    string          `json:"step"`
	Name    string          `json:"name"`
	Plain   phrase.Slotted  `json:"plain"`
	Ask     phrase.Slotted  `json:"ask"`
	LetGo   *phrase.Message `json:"let_go,omitempty"`
	Good    phrase.Message  `json:"good"`
	Refuses phrase.Message  `json:"refuses"`
	Sides   []string        `json:"sides,omitempty"`
}

const (
	mostHomework = 3 // steps on a card: ten to fifteen minutes
	mostPoints   = 2 // to remember
)

// HomeworkFor writes the card of a person: the steps that they are cleared for
// and that are met and open, the newest of the plan last; the rest waits.
func HomeworkFor(c *catalog.Catalog, p Plan, choices Choices, person string) HomeworkCard {
	card := HomeworkCard{
		Person: person, Steps: []HomeworkStep{}, Remember: []phrase.Slotted{}, Time: phrase.Of("homework.time", nil),
		Call: phrase.Of("homework.call", nil), Safety: phrase.Of("homework.safety", nil), Cues: []catalog.Cue{},
	}
	for _, key := range []string{"twice", "arousal", "danger", "pain", "you", "weather"} {
		card.Stop = append(card.Stop, phrase.Of("homework.stop."+key, nil))
	}
	var keys []string
	for _, h := range p.Homework {
		if h.Person == person {
			keys = append(keys, h.Step)
		}
	}
	if len(keys) == 0 {
		none := phrase.Of("homework.none", nil)
		card.None = &none
		return card
	}
	keys = keys[max(len(keys)-mostHomework, 0):]
	for _, key := range keys {
		card.Steps = append(card.Steps, homeworkStep(c, key))
	}
	for _, key := range slices.Backward(keys) {
		step, _ := c.Step(key)
		if point := firstSentence(step.Watch); point != "" && len(card.Remember) < mostPoints {
			card.Remember = append(card.Remember, point)
		}
	}
	card.Cues = choices.CueCard(c, keys)
	return card
}

func homeworkStep(c *catalog.Catalog, key string) HomeworkStep {
	step, _ := c.Step(key)
	ladder, _ := c.Ladder(step.Ladder)
	h := HomeworkStep{
		Step: key, Name: step.Name, Plain: step.Plain, Ask: step.Ask,
		Good:    good(step),
		Refuses: phrase.Of("homework.refuses.first", nil),
	}
	if step.Release != "" {
		m := phrase.Of("homework.let_go", phrase.Args{"release": lowered(step.Release)})
		h.LetGo = &m
	}
	if step.Place > 0 {
		below := ladder.Steps[step.Place-1]
		h.Refuses = phrase.Of("homework.refuses", phrase.Args{"lower": below.Plain})
	}
	for _, v := range step.Variants {
		h.Sides = append(h.Sides, v.String())
	}
	return h
}

// good says a pass mark as an owner understands it.
func good(s catalog.Step) phrase.Message {
	feel := "firm"
	switch {
	case s.Pass.Level <= 3:
		feel = "light"
	case s.Pass.Level <= 6:
		feel = "medium"
	}
	args := phrase.Args{"n": s.Pass.Run, "feel": phrase.Of("feel."+feel, nil), "value": s.Last()}
	key := "homework.good"
	switch unit := s.Pass.Unit; {
	case len(s.Pass.Values) == 0 || unit == "mm":
	case s.Has(catalog.MeasureTime):
		key += ".within"
	default:
		key += "." + unit
	}
	return phrase.Of(key, args)
}

// lowered puts a text's first letter small, to stand within a sentence.
func lowered(s phrase.Slotted) phrase.Slotted {
	first, size := utf8.DecodeRuneInString(string(s))
	return phrase.Slotted(string(unicode.ToLower(first)) + string(s)[size:])
}

func firstSentence(s phrase.Slotted) phrase.Slotted {
	first, _, _ := strings.Cut(string(s), ". ")
	return phrase.Slotted(first)
}
