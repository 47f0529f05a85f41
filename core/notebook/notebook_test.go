package notebook_test

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/notebook"
)

const today = "2026-06-01"

func guessed(header ...string) string {
	var list []string
	for _, f := range notebook.Guess(header) {
		list = append(list, f.String())
	}
	return strings.Join(list, "|")
}

func TestColumnsAreGuessed(t *testing.T) {
	for _, c := range []struct{ header, want string }{
		{"Horse,Date,Owner,Notes", "horse|date|owner|note"},
		{"when;Pony;Client;Tel.;Worked on;mins", "date|horse|owner|phone|what was done|minutes"},
		{"Name of horse;Day of visit;E-mail;Colour", "horse|date|email|"},
		{"Horse name,Horse,Date", "horse||date"},
		{"a,b,c", "||"},
	} {
		comma := ","
		if strings.Contains(c.header, ";") {
			comma = ";"
		}
		got := guessed(strings.Split(c.header, comma)...)
		if c.header == "Horse name,Horse,Date" {
			assert.Equal(t, 1, strings.Count(got, "horse"), "no field twice")
			continue
		}
		assert.Equal(t, c.want, got, c.header)
	}
}

func TestDatesAsPeopleWriteThem(t *testing.T) {
	check := func(cells ...string) (dates []string, wrong []string) {
		table, err := notebook.Read("horse;date\nMoth;" + strings.Join(cells, "\nMoth;"))
		require.NoError(t, err)
		entries, bad := notebook.Check(table, notebook.Guess(table.Header), today)
		for _, e := range entries {
			dates = append(dates, e.Date)
		}
		for _, w := range bad {
			wrong = append(wrong, fmt.Sprint(w.Line, " ", w.Say))
		}
		return dates, wrong
	}
	dates, wrong := check("2019-03-04", "4.3.2019", "04/03/19", "13-1-2020", "2024-02-29")
	assert.Equal(t, []string{"2019-03-04", "2019-03-04", "2019-03-04", "2020-01-13", "2024-02-29"}, dates)
	assert.Empty(t, wrong)
	dates, _ = check("03/04/2019", "03/24/2019")
	assert.Equal(t, []string{"2019-03-04", "2019-03-24"}, dates, "one line shows that the month is first")
	dates, wrong = check("24/03/2019", "03/24/2019")
	assert.Equal(t, []string{"2019-03-24"}, dates)
	assert.Equal(t, []string{`3 "03/24/2019" is no date. Write 2026-06-01 or 1.6.2026.`}, wrong)
	_, wrong = check("2023-02-29", "spring", "2026-06-02", "2026-06-01")
	assert.Equal(t, []string{`2 "2023-02-29" is no date. Write 2026-06-01 or 1.6.2026.`, `3 "spring" is no date. Write 2026-06-01 or 1.6.2026.`, "4 2026-06-02 has not come yet."}, wrong)
}

func TestLinesThatCantBeRead(t *testing.T) {
	table, err := notebook.Read("Horse,Date,Minutes,Note\nMoth,2020-01-01,45 min,ok\n,2020-01-01,,no horse\nMoth,,,no date\n\nMoth,2020-01-02,long,x\nMoth,2020-01-02,1441,\"two\nlines\"\nMoth,2020-01-03,1440,y")
	require.NoError(t, err)
	entries, wrong := notebook.Check(table, notebook.Guess(table.Header), today)
	require.Len(t, entries, 2)
	assert.Equal(t, 45, *entries[0].Minutes)
	var says []string
	for _, w := range wrong {
		says = append(says, fmt.Sprint(w.Line, " ", w.Field))
	}
	assert.Equal(t, []string{"3 horse", "4 date", "6 minutes", "7 minutes"}, says)
	assert.Equal(t, 9, entries[1].Line, "lines are counted as in the file")
}

func TestTablesThatAreNone(t *testing.T) {
	for want, text := range map[string]string{
		"is empty": "  \n", "no text": "horse\xff", "no line under it": "horse,date\n", "columns": strings.Repeat("a,", 60) + "a\n1\n", "lines. Take it": "h\n" + strings.Repeat("x\n", notebook.MostLines+1),
	} {
		_, err := notebook.Read(text)
		require.ErrorContains(t, err, want)
	}
	table, err := notebook.Read("\ufeffHorse\tDate\nMoth\t2020-01-01\n" + strings.Repeat("x\ty\n", notebook.MostLines-1))
	require.NoError(t, err)
	assert.Equal(t, []string{"Horse", "Date"}, table.Header)
}

// Whatever is written by a program that keeps to the form is read as it was, and every line is
// either an entry or wrong.
func TestWhatIsWrittenIsRead(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var to strings.Builder
		w := csv.NewWriter(&to)
		w.Comma = rapid.SampledFrom([]rune{',', ';', '\t'}).Draw(t, "comma")
		require.NoError(t, w.Write([]string{"horse", "date", "note"}))
		text := rapid.StringMatching(`[a-zA-Z ,;"é\n]{0,20}`)
		var notes []string
		for range rapid.IntRange(1, 20).Draw(t, "lines") {
			note := text.Draw(t, "note")
			notes = append(notes, strings.TrimSpace(note))
			require.NoError(t, w.Write([]string{"Moth", rapid.SampledFrom([]string{"2020-01-01", "1.2.2020", "soon"}).Draw(t, "date"), note}))
		}
		w.Flush()
		table, err := notebook.Read(to.String())
		require.NoError(t, err)
		entries, wrong := notebook.Check(table, notebook.Guess(table.Header), today)
		require.Equal(t, len(notes), len(entries)+len(wrong))
		for i, row := range table.Lines {
			require.Equal(t, notes[i], row.Cells[2])
		}
	})
}

func ExampleCheck() {
	table, _ := notebook.Read("Pony;Visit;Done\nMoth;3.4.2019;stood at the ramp\nMoth;some day;walked in")
	entries, wrong := notebook.Check(table, notebook.Guess(table.Header), today)
	fmt.Println(entries[0].Date, entries[0].What)
	fmt.Println(wrong[0].Line, wrong[0].Say)
	// Output:
	// 2019-04-03 stood at the ramp
	// 3 "some day" is no date. Write 2026-06-01 or 1.6.2026.
}
