package plan

import (
	"maps"
	"slices"
	"strings"

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
// and that are met and open, the newest of the plan last; the rest waits. called
// is how the horse is spoken of.
func HomeworkFor(c *catalog.Catalog, p Plan, choices Choices, person string, called phrase.Args) HomeworkCard {
	card := HomeworkCard{
		Person: person, Steps: []HomeworkStep{}, Remember: []phrase.Slotted{}, Time: phrase.Of("homework.time", nil),
		Call: phrase.Of("homework.call", nil), Safety: phrase.Of("homework.safety", nil), Cues: []catalog.Cue{},
	}
	for _, key := range []string{"twice", "arousal", "danger", "pain", "you", "weather"} {
		card.Stop = append(card.Stop, phrase.Of("homework.stop."+key, called))
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
		card.Steps = append(card.Steps, homeworkStep(c, key, called))
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

func homeworkStep(c *catalog.Catalog, key string, called phrase.Args) HomeworkStep {
	step, _ := c.Step(key)
	ladder, _ := c.Ladder(step.Ladder)
	h := HomeworkStep{
		Step: key, Name: step.FullName(), Plain: step.Plain, Ask: step.Ask,
		Good:    good(step, called),
		Refuses: phrase.Of("homework.refuses.first", called),
	}
	if step.Release != "" {
		m := phrase.Of("homework.let_go", phrase.Args{"release": spoken(step.Release, called)})
		h.LetGo = &m
	}
	if step.Place > 0 {
		below := ladder.Steps[step.Place-1]
		args := maps.Clone(called)
		args["lower"] = below.Plain
		h.Refuses = phrase.Of("homework.refuses", args)
	}
	for _, v := range step.Variants {
		h.Sides = append(h.Sides, v.String())
	}
	return h
}

// good says a pass mark as an owner understands it.
func good(s catalog.Step, called phrase.Args) phrase.Message {
	feel := "firm"
	switch {
	case s.Pass.Level <= 3:
		feel = "light"
	case s.Pass.Level <= 6:
		feel = "medium"
	}
	args := maps.Clone(called)
	args["n"], args["feel"], args["value"] = s.Pass.Run, phrase.Of("feel."+feel, nil), s.Last()
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

// spoken is a text that begins with the horse, said of this one.
func spoken(s phrase.Slotted, called phrase.Args) phrase.Slotted {
	for word, say := range map[string]string{"It ": "he", "Its ": "his"} {
		if rest, ok := strings.CutPrefix(string(s), word); ok {
			who, _ := called[say].(string)
			return phrase.Slotted(who + " " + rest)
		}
	}
	return phrase.Lowered(s)
}

func firstSentence(s phrase.Slotted) phrase.Slotted {
	first, _, _ := strings.Cut(string(s), ". ")
	return phrase.Slotted(first)
}
