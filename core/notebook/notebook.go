// Package notebook reads the notebook of earlier years: a table that somebody kept in a
// spreadsheet. It guesses what its columns are, and says line by line what can't be read
// (part 1: memory and paper).
package notebook

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"ivorybridge/core/horse"
)

type fields struct{}

func (fields) Words() []string {
	return []string{"horse", "date", "owner", "phone", "email", "what was done", "minutes", "note"}
}

// Field is what a column may hold.
type Field = horse.Word[fields]

// The fields.
var (
	Horse   = horse.MustWord[fields]("horse")
	Date    = horse.MustWord[fields]("date")
	Owner   = horse.MustWord[fields]("owner")
	Phone   = horse.MustWord[fields]("phone")
	Email   = horse.MustWord[fields]("email")
	What    = horse.MustWord[fields]("what was done")
	Minutes = horse.MustWord[fields]("minutes")
	Note    = horse.MustWord[fields]("note")
)

// Limits of a table.
const (
	MostLines   = 20_000
	MostColumns = 60
)

// A Table is what was read: a header, and the lines under it.
type Table struct {
	Header []string
	Lines  []Row
}

// A Row is a line of the table, by its number in the file, the header's being 1.
type Row struct {
	Line  int
	Cells []string
}

// Unread says in a sentence why a table can't be read, and what to do.
type Unread string

func (u Unread) Error() string { return string(u) }

func unread(format string, args ...any) Unread { return Unread(fmt.Sprintf(format, args...)) }

// Read reads a table of values that are separated by commas, semicolons or tabs. The error is
// an Unread.
func Read(text string) (Table, error) {
	text = strings.TrimPrefix(text, "\ufeff")
	switch {
	case strings.TrimSpace(text) == "":
		return Table{}, Unread("This file is empty. Choose another.")
	case !utf8.ValidString(text):
		return Table{}, Unread("This file is no text. Save it from the spreadsheet as CSV, UTF-8, and choose that.")
	}
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes = separator(text), -1, true
	var t Table
	for {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Table{}, unread("Line %d can't be read. Save the table as CSV once more.", len(t.Lines)+2)
		}
		line, _ := r.FieldPos(0)
		for i := range cells {
			cells[i] = strings.TrimSpace(cells[i])
		}
		switch {
		case t.Header == nil:
			t.Header = cells
		case slices.ContainsFunc(cells, func(c string) bool { return c != "" }):
			t.Lines = append(t.Lines, Row{line, cells})
		}
	}
	switch {
	case len(t.Header) > MostColumns:
		return Table{}, unread("This table has %d columns. Keep those that matter, %d at most.", len(t.Header), MostColumns)
	case len(t.Lines) > MostLines:
		return Table{}, unread("This table has %d lines. Take it in by parts of %d at most.", len(t.Lines), MostLines)
	case len(t.Lines) == 0:
		return Table{}, Unread("There is a header and no line under it. Choose another file.")
	}
	return t, nil
}

// separator is the one that the header has most of.
func separator(text string) rune {
	header, _, _ := strings.Cut(text, "\n")
	best, most := ',', 0
	for _, r := range []rune{',', ';', '\t'} {
		if n := strings.Count(header, string(r)); n > most {
			best, most = r, n
		}
	}
	return best
}

// names are what people call a column, in small letters.
var names = []struct {
	field Field
	words []string
}{
	{Horse, []string{"horse", "pony", "animal", "name of horse", "horse name", "mare", "gelding"}},
	{Date, []string{"date", "day", "when", "visit", "on"}},
	{Owner, []string{"owner", "client", "customer", "owner name", "contact"}},
	{Phone, []string{"phone", "telephone", "mobile", "tel", "number"}},
	{Email, []string{"email", "e-mail", "mail"}},
	{What, []string{"what", "work", "task", "done", "worked on", "exercise", "session", "lesson"}},
	{Minutes, []string{"minutes", "min", "mins", "duration", "time", "length"}},
	{Note, []string{"note", "notes", "remarks", "comment", "comments", "text", "went"}},
}

// Guess guesses which field each column of a header is; the zero field: none. No field is
// guessed twice.
func Guess(header []string) []Field {
	guessed := make([]Field, len(header))
	taken := map[Field]bool{}
	for _, sure := range []func(head, word string) bool{
		func(head, word string) bool { return head == word },
		func(head, word string) bool { return slices.Contains(strings.Fields(head), word) },
	} {
		for i, head := range header {
			head = strings.ToLower(strings.Trim(head, " .:()"))
			for _, n := range names {
				if guessed[i].IsZero() && !taken[n.field] && slices.ContainsFunc(n.words, func(w string) bool { return sure(head, w) }) {
					guessed[i], taken[n.field] = n.field, true
				}
			}
		}
	}
	return guessed
}

// An Entry is what a line comes to.
type Entry struct {
	Line    int
	Horse   string
	Date    string // YYYY-MM-DD
	Owner   string
	Phone   string
	Email   string
	What    string
	Minutes *int
	Note    string
}

// Wrong says what is wrong with a line.
type Wrong struct {
	Line  int    `json:"line" doc:"of the file, the header being 1"`
	Field Field  `json:"field" doc:"which"`
	Say   string `json:"say" doc:"what is wrong and what to do"`
}

// Check reads the lines by the fields of the columns, as of today. Days are read day first
// unless a line shows that they are month first.
func Check(t Table, columns []Field, today string) ([]Entry, []Wrong) {
	monthFirst := monthFirst(t, columns)
	var entries []Entry
	var wrong []Wrong
	for _, row := range t.Lines {
		e := Entry{Line: row.Line}
		bad := len(wrong)
		say := func(f Field, format string, args ...any) {
			wrong = append(wrong, Wrong{row.Line, f, fmt.Sprintf(format, args...)})
		}
		for i, f := range columns {
			if i < len(row.Cells) && !f.IsZero() {
				e.put(f, row.Cells[i], monthFirst, today, say)
			}
		}
		if e.Horse == "" {
			say(Horse, "No horse stands in this line.")
		}
		if e.Date == "" && !slices.ContainsFunc(wrong[bad:], func(w Wrong) bool { return w.Field == Date }) {
			say(Date, "No date stands in this line.")
		}
		if len(wrong) == bad {
			entries = append(entries, e)
		}
	}
	return entries, wrong
}

// longest is how many characters a field holds.
var longest = map[Field]int{Horse: 120, Owner: 120, Phone: 60, Email: 254, What: 200, Note: 4000}

func (e *Entry) put(f Field, cell string, monthFirst bool, today string, say func(Field, string, ...any)) {
	if most := longest[f]; most > 0 && utf8.RuneCountInString(cell) > most {
		say(f, "This is too long: %d characters, %d at most.", utf8.RuneCountInString(cell), most)
		return
	}
	switch f {
	case Horse:
		e.Horse = cell
	case Owner:
		e.Owner = cell
	case Phone:
		e.Phone = cell
	case Email:
		e.Email = cell
	case What:
		e.What = cell
	case Note:
		e.Note = cell
	case Date:
		on, ok := dateOf(cell, monthFirst)
		switch {
		case cell == "":
		case !ok:
			say(Date, "%.40q is no date. Write 2026-06-01 or 1.6.2026.", cell)
		case on > today:
			say(Date, "%s has not come yet.", on)
		default:
			e.Date = on
		}
	case Minutes:
		if cell == "" {
			return
		}
		n, err := strconv.Atoi(strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(cell, "min"), "minutes")))
		if err != nil || n < 0 || n > 1440 {
			say(Minutes, "%.40q is no number of minutes. Write a whole number.", cell)
			return
		}
		e.Minutes = &n
	}
}

var (
	isISO = regexp.MustCompile(`^(\d{4})-(\d{1,2})-(\d{1,2})`)
	isDay = regexp.MustCompile(`^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})$`)
)

// inThis is the century of a year of two figures.
const inThis = 2000

// dateOf reads a date as people write it.
func dateOf(cell string, monthFirst bool) (string, bool) {
	if m := isISO.FindStringSubmatch(cell); m != nil {
		return dated(m[1], m[2], m[3])
	}
	m := isDay.FindStringSubmatch(cell)
	if m == nil {
		return "", false
	}
	if monthFirst {
		m[1], m[2] = m[2], m[1]
	}
	return dated(m[3], m[2], m[1])
}

func dated(year, month, day string) (string, bool) {
	y, _ := strconv.Atoi(year) // figures, as matched
	m, _ := strconv.Atoi(month)
	d, _ := strconv.Atoi(day)
	if y < 100 {
		y += inThis
	}
	on := fmt.Sprintf("%04d-%02d-%02d", y, m, d)
	_, ok := horse.DayNumber(on)
	return on, ok
}

// monthFirst reports whether the dates of a table are month first: some line can only be
// read so, and none only the other way.
func monthFirst(t Table, columns []Field) bool {
	month, day := false, false
	for _, row := range t.Lines {
		for i, f := range columns {
			if f != Date || i >= len(row.Cells) {
				continue
			}
			if m := isDay.FindStringSubmatch(row.Cells[i]); m != nil {
				first, _ := strconv.Atoi(m[1])
				second, _ := strconv.Atoi(m[2])
				day, month = day || first > 12, month || second > 12
			}
		}
	}
	return month && !day
}
