// Package phrase keeps the product's words in one place. The rules answer
// with messages, a key and its arguments; a Book turns them into sentences in
// the words of a practice or an owner (trailer, float or box; near or left; metres
// or feet).
package phrase

import (
	"bufio"
	_ "embed"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"
)

//go:embed en.txt
var english string

// Args are the arguments of a message: numbers, strings, or messages.
type Args map[string]any

// A Message is a sentence before it has words.
type Message struct {
	Key  string `json:"key" doc:"the phrase's key"`
	Args Args   `json:"args,omitempty" doc:"what the phrase is filled with"`
	Text string `json:"text" doc:"the sentence in the reader's words; empty until a book has said it"`
}

// Fingerprint tells whether two messages say the same: the same key with the same
// arguments.
func (m Message) Fingerprint() string {
	m.Text = ""
	text, err := json.Marshal(m) // keys are sorted
	if err != nil {
		return m.Key
	}
	h := fnv.New64a()
	_, _ = h.Write(text) // a hash never fails
	return fmt.Sprintf("%016x", h.Sum64())
}

// Of returns a message.
func Of(key string, args Args) Message { return Message{Key: key, Args: args} }

// Words are the choices that a practice, or one owner's report, makes.
type Words struct {
	Vehicle string `json:"vehicle" enum:"trailer,float,box" doc:"what the horse travels in"`
	Sides   string `json:"sides" enum:"near and off,left and right" doc:"how sides are called"`
	Units   string `json:"units" enum:"metres,feet" doc:"what lengths are said in"`
}

// Shipped are the words a new practice starts with.
var Shipped = Words{Vehicle: "trailer", Sides: "near and off", Units: "metres"}

// Sided is a text whose side words are said in the book's choice.
type Sided string

// Slotted is a text of the catalogue, with {trailer}, {near}, {off} and lengths in
// metres, {1.5:m}, where the book's choice goes.
type Slotted string

// Lowered puts a text's first letter small, to stand within a sentence.
func Lowered(s Slotted) Slotted {
	first, size := utf8.DecodeRuneInString(string(s))
	return Slotted(string(unicode.ToLower(first)) + string(s)[size:])
}

// Raised is a text with a capital, to begin a sentence with.
func Raised(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(first)) + s[size:]
}

// Date is a day, YYYY-MM-DD, said as one writes it.
type Date string

// inYear is the day without its year: 2 January.
func (d Date) inYear() string {
	day, err := time.Parse(time.DateOnly, string(d))
	if err != nil {
		return string(d)
	}
	return day.Format("2 January")
}

// A Book says messages in one language and one choice of words.
type Book struct {
	lines map[string]string
	words Words
}

// English returns the English book in the given words; empty choices are the
// shipped ones.
func English(w Words) Book {
	if w.Vehicle == "" {
		w.Vehicle = Shipped.Vehicle
	}
	if w.Sides == "" {
		w.Sides = Shipped.Sides
	}
	if w.Units == "" {
		w.Units = Shipped.Units
	}
	return Book{lines: lines, words: w}
}

var lines = read(english)

func read(text string) map[string]string {
	book := map[string]string{}
	for scan := bufio.NewScanner(strings.NewReader(text)); scan.Scan(); {
		line := strings.TrimSpace(scan.Text())
		if key, say, ok := strings.Cut(line, " ="); ok && !strings.HasPrefix(line, "#") {
			book[strings.TrimSpace(key)] = strings.TrimSpace(say)
		}
	}
	return book
}

// Has reports whether the book knows a key.
func (b Book) Has(key string) bool { _, ok := b.lines[key]; return ok }

// Say returns the message as a sentence. A key the book does not know is said
// as itself, so that a gap shows.
func (b Book) Say(m Message) string {
	line, ok := b.lines[m.Key]
	if !ok {
		return m.Key
	}
	return tidy(b.Fill(line, m.Args))
}

// tidy closes what an empty argument left open: a space before a full stop, or
// two in a row.
func tidy(said string) string {
	said = strings.Join(strings.Fields(said), " ")
	for _, mark := range []string{".", ",", ":", ";", "?"} {
		said = strings.ReplaceAll(said, " "+mark, mark)
	}
	return strings.ReplaceAll(said, ",.", ".")
}

// Sentence says a message that stands by itself: one that begins with a slot
// and ends with a full stop begins with a capital.
func (b Book) Sentence(m Message) string {
	said := b.Say(m)
	if !strings.HasPrefix(b.lines[m.Key], "{") || !strings.HasSuffix(said, ".") {
		return said
	}
	return Raised(said)
}

// Fill puts arguments into a text: {name} is the argument, {n|step|steps} the
// number with its noun, {n:words|step|steps} the same in words up to ten,
// {n:times} once, twice, three times, {d:day} a date without its year, {n:m} so many
// metres, {1.5:m} one and a half of them; {trailer}, {near} and {off} are the chosen
// words, lengths are in the chosen units. A list in an argument is said as one.
func (b Book) Fill(text string, args Args) string {
	var out strings.Builder
	for {
		before, rest, found := strings.Cut(text, "{")
		out.WriteString(before)
		if !found {
			return out.String()
		}
		slot, after, closed := strings.Cut(rest, "}")
		if !closed {
			out.WriteString("{" + rest)
			return out.String()
		}
		out.WriteString(b.slot(slot, args))
		text = after
	}
}

// inWords are the counts that are said in words.
var inWords = []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}

// count says a number in words up to ten; times says how often, as in once and
// twice.
func count(n string, times bool) string {
	i, err := strconv.Atoi(n)
	switch {
	case err != nil || i < 0:
		return n
	case times && i == 0:
		return "never"
	case times && i == 1:
		return "once"
	case times && i == 2:
		return "twice"
	case i < len(inWords):
		n = inWords[i]
	}
	if times {
		n += " times"
	}
	return n
}

func (b Book) slot(slot string, args Args) string {
	name, nouns, counted := strings.Cut(slot, "|")
	name, form, _ := strings.Cut(name, ":")
	value, ok := args[name]
	if !ok {
		switch name {
		case "trailer":
			return b.words.Vehicle
		case "near", "off":
			return b.Side(name)
		}
		if form != "m" {
			return "{" + slot + "}"
		}
		value = name // the length itself
	}
	if day, ok := value.(Date); ok && form == "day" {
		return day.inYear()
	}
	said := b.value(value)
	one, many, _ := strings.Cut(nouns, "|")
	noun := many
	if said == "1" {
		noun = one
	}
	switch {
	case form == "m":
		return b.length(said)
	case form == "times":
		return count(said, true)
	case form == "words" && counted && said == "0":
		return "no " + noun
	case form == "words":
		said = count(said, false)
	}
	if counted {
		said += " " + noun
	}
	return said
}

func (b Book) value(v any) string {
	switch v := v.(type) {
	case Message:
		return b.Say(v)
	case []Message:
		said := make([]string, len(v))
		for i, m := range v {
			said[i] = b.Say(m)
		}
		return b.List(said)
	case Sided:
		return b.Side(string(v))
	case Date:
		day, err := time.Parse(time.DateOnly, string(v))
		if err != nil {
			return string(v)
		}
		return day.Format("2 January 2006")
	case Slotted:
		return b.Fill(string(v), nil)
	case []Slotted:
		said := make([]string, len(v))
		for i, text := range v {
			said[i] = b.Fill(string(text), nil)
		}
		return b.List(said)
	case []string:
		return b.List(v)
	case float64:
		return strings.TrimSuffix(fmt.Sprintf("%.1f", v), ".0")
	case nil:
		return ""
	default:
		return fmt.Sprint(v)
	}
}

// List joins words as one says them: a, b and c.
func (b Book) List(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}

// Side says a variant's side words in the book's choice; other words stay.
func (b Book) Side(variant string) string {
	if b.words.Sides != "left and right" {
		return variant
	}
	said := strings.Fields(variant)
	for i, w := range said {
		switch w {
		case "near":
			said[i] = "left"
		case "off":
			said[i] = "right"
		}
	}
	return strings.Join(said, " ")
}
