package yaml

import (
	"fmt"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// methods is methods.yaml: the schools, where practitioners disagree, the
// sequence cards and the cues.
type methods struct {
	Schools []struct {
		School horse.School   `yaml:"school"`
		Works  phrase.Slotted `yaml:"works"`
		Choose phrase.Slotted `yaml:"choose when"`
		Avoid  phrase.Slotted `yaml:"avoid when"`
		Earns  phrase.Slotted `yaml:"earns the release"`
		Waits  phrase.Slotted `yaml:"waits"`
	} `yaml:"schools"`
	Choices []choice `yaml:"choices"`
	Cards   []card   `yaml:"cards"`
	Cues    []struct {
		Key    string         `yaml:"cue"`
		Name   phrase.Slotted `yaml:"name"`
		Body   phrase.Slotted `yaml:"body"`
		Word   phrase.Slotted `yaml:"word"`
		InHand phrase.Slotted `yaml:"in hand"`
		Ridden phrase.Slotted `yaml:"ridden"`
		Steps  []string       `yaml:"steps"`
	} `yaml:"cues"`
}

type choice struct {
	Key     string         `yaml:"choice"`
	Asks    phrase.Slotted `yaml:"asks"`
	Ladders []string       `yaml:"ladders"`
	Default string         `yaml:"default"`
	Record  string         `yaml:"on the record"`
	Why     phrase.Slotted `yaml:"why"`
	Options []struct {
		Key   string         `yaml:"option"`
		Says  phrase.Slotted `yaml:"says"`
		Warns bool           `yaml:"needs warn only"`
		Moves []struct {
			Step    string   `yaml:"step"`
			After   string   `yaml:"after"`
			Instead []string `yaml:"needs instead"`
		} `yaml:"moves"`
	} `yaml:"options"`
}

type card struct {
	Key    string           `yaml:"card"`
	Name   phrase.Slotted   `yaml:"name"`
	Ladder string           `yaml:"ladder"`
	From   string           `yaml:"shown from"`
	Notes  []phrase.Slotted `yaml:"notes"`
	Runs   []struct {
		Key   string         `yaml:"run"`
		Name  phrase.Slotted `yaml:"name"`
		Lines []struct {
			Key   string         `yaml:"line"`
			Do    phrase.Slotted `yaml:"do"`
			Why   phrase.Slotted `yaml:"why"`
			Stops bool           `yaml:"stops"`
		} `yaml:"lines"`
	} `yaml:"runs"`
}

func (doc methods) methods() (catalog.Methods, error) {
	var m catalog.Methods
	for _, s := range doc.Schools {
		m.Schools = append(m.Schools, catalog.Method(s))
	}
	for _, c := range doc.Choices {
		one, err := c.choice()
		if err != nil {
			return m, fmt.Errorf("%s: %w", c.Key, err)
		}
		m.Choices = append(m.Choices, one)
	}
	for _, c := range doc.Cards {
		m.Cards = append(m.Cards, c.card())
	}
	for _, c := range doc.Cues {
		m.Cues = append(m.Cues, catalog.Cue(c))
	}
	return m, nil
}

func (doc choice) choice() (catalog.Choice, error) {
	c := catalog.Choice{Key: doc.Key, Asks: doc.Asks, Ladders: doc.Ladders, Default: doc.Default, Why: doc.Why, Record: doc.Record}
	for _, o := range doc.Options {
		option := catalog.Option{Key: o.Key, Says: o.Says, Warns: o.Warns}
		for _, m := range o.Moves {
			move := catalog.Move{Step: m.Step, After: m.After}
			var err error
			if move.Instead, err = needs(m.Instead); err != nil {
				return c, err
			}
			option.Moves = append(option.Moves, move)
		}
		c.Options = append(c.Options, option)
	}
	return c, nil
}

func (doc card) card() catalog.Card {
	c := catalog.Card{Key: doc.Key, Name: doc.Name, Ladder: doc.Ladder, From: doc.From, Notes: doc.Notes}
	for _, r := range doc.Runs {
		run := catalog.Run{Key: r.Key, Name: r.Name}
		for _, l := range r.Lines {
			run.Lines = append(run.Lines, catalog.Line(l))
		}
		c.Runs = append(c.Runs, run)
	}
	return c
}
