package report

import (
	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// LetterInput is what a letter to a professional is written from.
type LetterInput struct {
	Today      string
	Horse      string
	Record     assess.Record
	Problem    horse.Problem
	Goal       string
	Assessment assess.Assessment
	Referral   assess.Referral
	Blocks     []assess.Block
	Forbidden  []phrase.Message // what leads every page of this horse
}

// A Letter asks a professional one question, on one page.
type Letter struct {
	Who       string           `json:"who" doc:"what they are"`
	Name      string           `json:"name,omitempty" doc:"who they are, if written down"`
	Due       string           `json:"due" format:"date"`
	Forbidden []phrase.Message `json:"forbidden" doc:"what nobody does until it is lifted"`
	Question  phrase.Message   `json:"question"`
	Own       string           `json:"own,omitempty" doc:"the trainer's own question, instead"`
	About     []phrase.Message `json:"about" doc:"the horse"`
	Saw       []phrase.Message `json:"saw" doc:"what was seen, and what was told"`
	Waits     []phrase.Message `json:"waits" doc:"what waits for the answer"`
	Answer    []phrase.Message `json:"answer" doc:"lines to be filled in"`
}

// LetterTo writes the letter of a referral (part 9): what was seen, what was
// told, what is asked, and what waits for the answer.
func LetterTo(in LetterInput) Letter {
	r := in.Referral
	l := Letter{Forbidden: append([]phrase.Message{}, in.Forbidden...), Who: r.Who, Name: r.Asked.Name, Due: r.Due, Question: r.Question, Own: r.Asked.Question}
	say := func(into *[]phrase.Message, key string, args phrase.Args) {
		*into = append(*into, phrase.Of("letter."+key, args))
	}
	record := in.Record
	if !record.Sex.IsZero() {
		say(&l.About, "sex", phrase.Args{"sex": record.Sex.String()})
	}
	if record.Born != "" {
		say(&l.About, "born", phrase.Args{"year": record.Born[:4]})
	}
	if record.Breed != "" {
		say(&l.About, "breed", phrase.Args{"breed": record.Breed})
	}
	if record.HeightMM > 0 {
		say(&l.About, "height", phrase.Args{"cm": record.HeightMM / 10})
	}
	say(&l.Saw, "problem", phrase.Args{"problem": phrase.Of("problem."+in.Problem.String(), nil), "goal": in.Goal})
	story := in.Assessment.Problems[in.Problem].Story
	if !story.Began.IsZero() {
		say(&l.Saw, "began", phrase.Args{"how": story.Began.String()})
	}
	if story.Since != "" {
		say(&l.Saw, "since", phrase.Args{"on": phrase.Date(story.Since)})
	}
	l.item(in, say)
	for _, e := range in.Assessment.Events {
		if e.Kind.String() == "fell with a rider" {
			say(&l.Saw, "fell", phrase.Args{"on": phrase.Date(e.On)})
		}
	}
	var blocked []string
	for _, b := range in.Blocks {
		if b.Item == r.Item {
			blocked = append(blocked, b.Name)
		}
	}
	if len(blocked) > 0 {
		say(&l.Waits, "blocked", phrase.Args{"steps": blocked})
	} else {
		say(&l.Waits, "training", nil)
	}
	for _, line := range []string{"found", "treatment", "may", "again"} {
		say(&l.Answer, line, nil)
	}
	return l
}

// item tells what is known of the body item that the letter asks about.
func (l *Letter) item(in LetterInput, say func(*[]phrase.Message, string, phrase.Args)) {
	if in.Referral.Item.IsZero() {
		return
	}
	note := in.Assessment.Body[in.Referral.Item]
	if note.Note != "" {
		say(&l.Saw, "note", phrase.Args{"item": assess.Named(in.Referral.Item), "note": note.Note})
	}
	for _, day := range note.SideBySide() {
		for _, c := range day.Found {
			say(&l.Saw, "check", phrase.Args{"on": phrase.Date(c.On), "side": phrase.Sided(c.Side.String()), "answer": c.Answer.String()})
		}
	}
	if note.Locked {
		say(&l.Saw, "locked", nil)
	}
}
