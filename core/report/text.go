package report

import (
	"slices"
	"strings"

	"ivorybridge/core/phrase"
)

// inMessage are the sections that a message holds: enough to be understood alone.
var inMessage = []string{"first", "short", "changed", "home", "before", "up", "off", "ring", "call"}

// Text is a document as a message without any form: what is forbidden, the five
// answers, what changed, what to do at home and whom to call, as they were worded.
func (d Document) Text(book phrase.Book, title string) string {
	var b strings.Builder
	b.WriteString(title + "\n")
	for _, section := range d.Sections {
		if !slices.Contains(inMessage, section.Key) {
			continue
		}
		var said []string
		for _, s := range section.Sentences {
			if !s.Left {
				said = append(said, s.Text(book))
			}
		}
		if len(said) > 0 {
			b.WriteString("\n" + book.Say(section.Title) + "\n" + strings.Join(said, "\n") + "\n")
		}
	}
	return b.String()
}

// Text is the sentence as it is read: in the trainer's words, else in the product's.
func (s Sentence) Text(book phrase.Book) string {
	if s.Edited != "" {
		return s.Edited
	}
	return book.Sentence(s.Said)
}
