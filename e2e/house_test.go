package e2e

import (
	"encoding/base64"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fetches reads what an address of the signed-in user answers.
func (u *user) fetches(path string) []byte {
	u.t.Helper()
	text := u.MustEval(`async (path) => {
		const bytes = new Uint8Array(await (await fetch(path)).arrayBuffer())
		let text = ''
		for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768))
		return btoa(text)
	}`, path).Str()
	whole, err := base64.StdEncoding.DecodeString(text)
	require.NoError(u.t, err)
	return whole
}

// A house rule is changed: what it does is said before it is kept, it stands beside what
// ships with who and why, and is put back.
func TestAHouseRuleIsChangedAndPutBack(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.presses("House rules")
	u.sees("Nobody yet: all is as it ships.")
	field := func() {
		u.MustElement("[aria-label='pass run, in a row']").MustSelectAllText().MustInput("2").MustBlur()
	}
	field()
	u.sees("pass run 2 instead of 3.")
	u.sees("pass by another mark.")
	u.presses("Keep it")
	u.sees("Say in a few words why.")
	u.types("Why", "two are enough for us")
	u.presses("Keep it")
	u.sees("Kept. Sessions that were begun keep the rules they were begun with.")
	u.sees("two are enough for us")
	u.presses("put back pass run")
	u.sees("All is put back as it ships.")
	u.types("Why", "three after all")
	u.presses("Keep it")
	u.sees("three after all As it ships.")

	u.MustElement("[aria-label='block cap, young, min']").MustSelectAllText().MustInput("40").MustBlur()
	u.sees("Give a whole number from 1 to 15.")
	u.presses("Leave it as it was")
	u.presses("What findings say")
	u.types("Look for a finding", "pulls")
	u.presses("argue person faces the horse and pulls")
	u.MustElementR("label.mark", "fear").MustElement("select").MustSelect("+++")
	u.sees("says +++ of fear, instead of nothing.")
	u.presses("Leave it as it was")
	u.wholeAt("what findings say", 1280, 412, 320)
}

// A practice is taken out, wiped and taken in again: its horses tell the same report.
func TestOutWipedAndInAgain(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Reports")
	u.sees("as written from the log")
	report := u.MustElement("main").MustText()
	u.presses("House rules")
	u.presses("Take out")
	u.sees("One .zip that any program opens")
	u.wholeAt("what is taken out", 1280, 412, 320)
	whole := filepath.Join(t.TempDir(), "practice.zip")
	require.NoError(t, os.WriteFile(whole, u.fetches("/api/house/archive"), 0o600))

	v := ownYard(t)
	v.presses("House rules")
	v.presses("Take in")
	v.sees("A whole practice comes into an empty one.")
	v.MustElement("input[type=file]").MustSetFiles("../demo/films/draw.js")
	v.sees("This is no archive of a practice")
	v.MustElement("input[type=file]").MustSetFiles(whole)
	v.sees("The practice is in")
	assert.Equal(t, y.counts("SELECT count(*) FROM entries"), v.yard.counts("SELECT count(*) FROM entries"))
	v.presses("To the horses")
	v.presses("Copperfield Moth")
	v.presses("Reports")
	v.sees(report[len(report)-60:])
	v.presses("House rules")
	v.presses("Take in")
	v.MustElement("input[type=file]").MustSetFiles(whole)
	v.sees("There are horses, people or yards in this practice already.")
}

// takesIn keeps a picture of a notebook before it is taken in.
func (u *user) takesIn(keep func(name string)) {
	table := filepath.Join(u.t.TempDir(), "2019.csv")
	text := "Pony;Visit;Client;Worked on;mins;How it went\nPepperdine;3.4.2019;;led past the ramp;20;stood twice\nBracken;12.4.2019;Rae Linden;first saddle;35;blew, then chewed\nBracken;;Rae Linden;girth;15;no date here\n"
	require.NoError(u.t, os.WriteFile(table, []byte(text), 0o600))
	u.goes("/house?see=in")
	u.MustElement("input[accept*='csv']").MustSetFiles(table)
	u.sees("Not here yet: Bracken.")
	keep("take-in")
}

// A notebook of 300 lines is taken in with two wrong ones: its columns are guessed and put
// right, the wrong lines said and left out, each line stands with its horse, and all of it is
// undone as one.
func TestTheNotebookOfEarlierYears(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 900).signsInDemo()
	var text strings.Builder
	text.WriteString("Pony;Visit;Client;Worked on;How it went\n")
	for i := range 300 {
		on := time.Date(2019, 1, 1+i, 0, 0, 0, 0, time.UTC).Format("2.1.2006")
		switch i {
		case 17:
			on = "in spring"
		case 230:
			on = ""
		}
		fmt.Fprintf(&text, "%s;%s;%s;led past the ramp;stood %d times\n", []string{"Pepperdine", "Bracken"}[i%2], on, []string{"", "Rae Linden"}[i%2], i)
	}
	table := filepath.Join(t.TempDir(), "2019.csv")
	require.NoError(t, os.WriteFile(table, []byte(text.String()), 0o600))
	u.presses("House rules")
	u.presses("Take in")
	u.MustElement("input[accept*='csv']").MustSetFiles(table)
	u.sees("300 lines, 298 can be read.")
	u.sees("Line 19: \"in spring\" is no date. Write 2026-06-01 or 1.6.2026.")
	u.sees("Line 232: No date stands in this line.")
	u.sees("Here already: Pepperdine.")
	u.sees("Not here yet: Bracken.")
	u.MustElement("[aria-label='What is How it went']").MustSelect("note")
	u.MustElementR("label", "Leave these out").MustClick()
	u.field("What they came for").MustSelect("trailer loading")
	u.wholeAt("a notebook before it is taken in", 1280, 412, 320)
	u.presses("Take 298 lines in")
	u.sees("298 lines are in, with 1 new horse and 1 new owner.")
	u.goes("/horses")
	u.presses("Pepperdine")
	u.presses("Sessions")
	u.sees("From the notebook")
	u.sees("led past the ramp · stood 298 times")
	u.presses("House rules")
	u.presses("Take in")
	u.presses("undo it 2019.csv")
	u.sees("It is undone: all that it brought is gone.")
	assert.Zero(t, y.counts("SELECT count(*) FROM notebook_lines"))
	assert.Zero(t, y.counts("SELECT count(*) FROM horses WHERE name = 'Bracken'"))
}

// How do I: the page of the guide for the place, behind one sign.
func TestTheGuideIsOneSignAway(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Diary")
	u.seesIn("h1", "Diary")
	u.presses("How do I …")
	u.seesIn("h1", "The diary")
	u.sees("Pencil is proposed, ink is agreed.")
	u.waits("the picture", "article img", "", `(css) => document.querySelector(css)?.naturalWidth > 300`)
	u.presses("House rules")
	u.sees("What holds in this practice, beside what ships.")
	u.presses("How do I …")
	u.sees("How do I change a number?")
	u.MustElementR("nav[aria-label='Pages of the guide'] a", "The arena").MustClick()
	u.sees("Hold the rope while there is pressure")
	u.goes("/guide/no-such-page")
	u.sees("That is not here")
}

// A bridling ladder goes out as a file, is changed in an editor and comes in as one of the
// practice's own; a slip is said with its line, and a colleague's practice takes it in too.
func TestALadderIsChangedInAnEditor(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.goes("/methods/bridle?see=change")
	u.sees("Its form, as a JSON Schema")
	saved := u.Browser().MustWaitDownload()
	u.presses("Take it out as a file")
	text := string(saved())
	require.Contains(t, text, "ladder: bridle\n")
	file := filepath.Join(t.TempDir(), "bridle.yaml")
	chosen := func(text string) {
		require.NoError(t, os.WriteFile(file, []byte(text), 0o600))
		u.MustElement("input[type=file]").MustSetFiles(file)
	}
	chosen(strings.Replace(text, "    ask:", "    asks:", 1))
	u.sees(`There is no "asks" in a step. Look for its spelling, or leave it out.`)
	chosen(strings.Replace(text, "run: 3", "run: 4", 1))
	u.sees("your copy of")
	u.sees("version 1, Wren Harrow")
	u.sees("so that progress on them begins again")
	chosen(strings.Replace(text, "run: 3", "run: 5", 1))
	u.sees("Taken in:")
	u.sees("version 2")
	u.sees("version 2, Wren Harrow")
	u.wholeAt("an own ladder with its file", 1280, 412, 320)

	v := ownYard(t)
	v.presses("Methods")
	v.presses("take in a ladder's file")
	v.sees("A ladder that a colleague changed")
	v.MustElement("input[type=file]").MustSetFiles(file)
	v.sees("Taken in:")
	v.presses("Bridling, version 1")
	v.sees("your copy of")
}

// The words of the practice are changed, and everything speaks in them at once, also what
// was written before.
func TestThePracticeSpeaksInOtherWords(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.sees("trailer loading")
	u.presses("House rules")
	u.presses("Words and zone")
	u.sees("As it was made.")
	u.field("What a horse travels in").MustSelect("float")
	u.field("Lengths are said in").MustSelect("feet")
	u.types("Time zone", "Europe/Nowhere")
	u.presses("Keep it")
	u.sees("This time zone is not known. Write it as Europe/London.")
	u.types("Time zone", "Europe/Dublin")
	u.presses("Keep it")
	u.sees("Changed by Wren Harrow")
	u.presses("Horses")
	u.sees("float loading")
	u.presses("Methods")
	u.sees("Float loading")
	u.goes("/outings")
	u.sees("At ease to 1230 ft.")
}
