package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// asksAboutPepperdine opens the assessment of a horse that nobody has looked at.
func (u *user) asksAboutPepperdine() {
	u.t.Helper()
	u.presses("Pepperdine")
	u.presses("Assessment")
	u.sees("leave out what you did not look at")
}

// section goes to a section of the walk.
func (u *user) section(key string) {
	u.t.Helper()
	require.NoError(u.t, u.click(u.finds(".section", "^"+key+"( |$)")))
	u.seesIn("h2", key+". ")
}

// item opens a body item from the list beside the outline.
func (u *user) item(name string) {
	u.t.Helper()
	require.NoError(u.t, u.click(u.finds("button.item", "^"+name)))
	u.finds("section[aria-label^='"+name+"']", ".")
}

// A walker taps through an assessment and counts the taps: a section, a chip, a
// level, an answer is one each, a typed field one as well.
type walker struct {
	*user
	taps int
}

func (w *walker) to(key string) {
	w.t.Helper()
	w.taps++
	w.section(key)
}

// tap taps the chip that says so within the row of a question.
func (w *walker) tap(question, chip string) {
	w.t.Helper()
	w.taps++
	require.NoError(w.t, w.click(w.finds(`[role=group][aria-label="`+question+`"] button`, "^"+chip+"$")), "tapping %q", chip)
}

func (w *walker) button(name string) {
	w.t.Helper()
	w.taps++
	w.presses(name)
}

func (w *walker) body(name, state string) {
	w.t.Helper()
	w.taps += 2
	w.item(name)
	require.NoError(w.t, w.click(w.finds(`[aria-label$=": state"] button`, "^"+state+"$")))
}

// asks notes a basic as the walk offers it, level and answer.
func (w *walker) asks(name, level, answer string) {
	w.t.Helper()
	w.seesIn(".which", name)
	w.tap("Level needed", level)
	w.tap("Answer", answer)
}

func (w *walker) light(name string) {
	w.t.Helper()
	w.seesIn(".which", name)
	w.button("light and soft: level 2, accepted.*")
}

// arrives waits until all that was tapped has arrived and counts.
func (w *walker) arrives() {
	w.t.Helper()
	w.seesIn(".state", "all sent")
	w.waits("for all taps to be counted in", ".sofar", "", `(css) => !document.querySelector(css).innerText.includes('not counted in')`)
}

// The short assessment by somebody who knows the horse: A, B, E, mostly taps.
func TestTheShortAssessment(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.asksAboutPepperdine()
	w := &walker{user: u}
	w.button("Quick look")
	w.tap("How it began", "after an event")
	w.tap("What is done when it happens", "the person gives up")
	w.tap("In the past", "did it well in the past")
	w.types("Tries so far", "12")
	w.types("Went well", "3")
	w.taps += 2
	w.to("B")
	w.body("hind leg", "suspect")
	w.button(`Looked at all the rest: clear \(9\)`)
	w.to("E")
	w.tap("The last step it accepted before its first no", "gap")
	w.tap("Peak arousal", "tense")
	w.tap("At the thing", "stops and rests beside it.*")
	w.tap("Ways out it used", "planted")
	w.arrives()
	u.seesIn(".sofar", "likely: pain or a physical limit")
	u.seesIn(".sofar", "steps blocked by the body")
	w.button("To the result")
	t.Logf("the short assessment: %d taps", w.taps)
	assert.LessOrEqual(t, w.taps, 20)

	u.sees("Trailer loading: load gap")
	u.seesIn("li", "vet, due ")
	u.seesIn(".yard-gate title, .gate", "Forbidden until it is cleared")
	u.presses("looks not taken, .*")
	u.sees("don't assume it's fine")
	u.presses("all findings, .*")
	u.seesIn("body", "Not looked at: heavy from nagging")
	u.presses("I judge otherwise")
	u.sees("gap: Walks between person and wall")
	u.presses("Bridge")
	u.seesIn(".bridge", "step in: blocked")
}

// The full walk, every section, with the server gone for the middle of it and
// the page loaded anew: nothing that was tapped is lost.
func TestTheFullAssessmentSurvivesALostConnection(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.asksAboutPepperdine()
	w := &walker{user: u}
	w.button("Begin the assessment")
	w.tap("How it began", "gradually")
	w.tap("What is done when it happens", "put away")
	w.tap("In the past", "never asked before")
	w.tap("With one person only", "the problem shows with one person only")
	w.tap("Home and companions", "happens leaving or returning home, or as companions leave")
	w.to("B")
	w.body("girth line", "in treatment")
	w.types("Its length, days", "28")
	w.taps++
	w.tap("Pressed, near", "ticklish")
	w.tap("Pressed, off", "tightens")
	w.button(`Looked at all the rest: clear \(9\)`)
	w.arrives()

	y.stop()
	w.to("C")
	w.tap("Bit", "leverage")
	w.tap("Noseband", "tight")
	w.tap("Contact", "leans")
	w.tap("First turn", "dragged")
	w.tap("The person", "person faces the horse and pulls")
	u.seesIn(".state", "no signal")
	u.sees("taps not counted in yet")
	w.to("D")
	w.asks("lead forward", "7", "try")
	w.light("lead halt")
	w.light("lead stand")
	w.asks("lead back", "8", "refused")
	for _, name := range []string{"lead any time", "head down", "head flex near"} {
		w.light(name)
	}
	w.asks("head flex off", "6", "tolerated")
	for _, name := range []string{"quarters hind near", "quarters hind off", "quarters fore near", "quarters fore off", "lead past near", "lead past off", "lead turn near", "lead turn off"} {
		w.light(name)
	}
	for _, side := range []string{"near", "off"} {
		for _, zone := range []string{"2", "3", "4"} {
			w.taps++
			require.NoError(t, w.click(w.MustElement(`g.zone[aria-label^="zone `+zone+` `+side+`"]`)))
			w.tap("Level in the zone", "3")
			w.tap("Answer in the zone", "accepted")
		}
	}
	kept := u.MustElement(".state").MustText()
	y.start()
	w.to("E")
	w.tap("Peak arousal", "over the line") // the next tap takes the others along
	w.tap("At the thing", "none of these")
	w.arrives()
	t.Logf("while the server was gone: %s", kept)

	u.MustReload()
	u.seesIn("h2", "E. The problem")
	u.seesIn(".sofar", "likely: never taught")
	w.to("E2")
	for _, run := range [][2]string{{"7", "try"}, {"4", "accepted"}, {"2", "accepted"}, {"6", "tolerated"}} {
		w.taps += 2
		require.NoError(t, w.click(w.finds(`[aria-label^="Level:"] button`, "^"+run[0]+"$")))
		require.NoError(t, w.click(w.finds(`[aria-label^="Answer:"] button`, "^"+run[1]+"$")))
	}
	w.to("F")
	w.tap("All pressure off", "pressure off: stays and rests.*")
	w.tap("Curiosity", "none of these")
	w.to("G")
	w.tap("Days off", "none of these")
	w.tap("Place and company", "worse in wind, fog or dark")
	w.tap("Stable and work", "worked regularly and turned out")
	w.to("H")
	w.seesIn("h3", "Sorrel Adeyemi-Wright") // the owner is there by herself
	w.tap("Experience", "improving")
	w.arrives()
	w.button("To the result")
	t.Logf("the full assessment: %d taps", w.taps)
	assert.LessOrEqual(t, w.taps, 110)

	u.sees("Check girth line and belly on day 14")
	u.sees("Basics first: lead forward, lead back, head flex")
	u.presses("all findings, .*")
	u.sees("How much is person, tack, horse")
	u.presses("whom to ask")
	u.sees("No reason is given for the bit")
	u.presses("Go on with it")
	u.section("B")
	u.item("girth line")
	u.seesIn("table", "day 0")
	u.seesIn("table", "tightens")
	u.section("C")
	for _, chip := range []string{"leverage", "tight", "leans", "dragged"} {
		u.finds("[aria-pressed=true]", "^"+chip+"$")
	}
}

// What can't be is said beside its field, and the rest stays.
func TestWhatCantBeIsSaidInTheWalk(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.asksAboutPepperdine()
	u.presses("Begin the assessment")
	u.types("Helpers it takes", "two")
	u.seesNextTo("Helpers it takes", "in figures")
	u.types("Since", "2031-01-01")
	u.seesNextTo("Since", "in the future")
	u.types("Went well", "9")
	u.types("Tries so far", "2")
	u.seesNextTo("Went well", "9 went well of 2 tries")
	u.types("Helpers it takes", "2")
	u.presses("suddenly")
	u.seesIn(".sofar", "It began suddenly and nothing is known")
	u.MustReload()
	u.seesNextTo("Since", "in the future")
	u.finds("[aria-pressed=true]", "^suddenly$")
	assert.Equal(t, "2", u.field("Helpers it takes").MustProperty("value").Str())
	u.seesIn(".sofar", "It began suddenly and nothing is known")
}

// A re-assessment starts from the last one and says what changed; a result can
// be judged otherwise, and both are kept.
func TestAssessingAgainAndJudgingOtherwise(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Button")
	u.presses("Assessment")
	u.presses("I judge otherwise")
	require.NoError(t, u.click(u.finds("details summary", "I judge otherwise")))
	require.NoError(t, u.click(u.finds(`[aria-label="My judgement"] button`, "^high care$")))
	u.presses("Keep both")
	u.sees("say in a few words why")
	u.types("Why", "she kicked at the farrier last year")
	u.presses("Keep both")
	u.sees("Judged otherwise by Wren Harrow")
	u.sees("she kicked at the farrier last year")
	u.presses("back to the result")
	u.sees("A second adult outside the working space.")
	u.presses("Write")
	u.seesIn("h1", "Button")
	u.sees("Please look at: hind leg that snatches or locks")
	assert.Equal(t, 1, u.pages(), "a letter is one page")
	u.presses("Back to the assessment")

	u.presses("Reassess today")
	u.section("B")
	u.item("hind leg")
	u.presses("cleared")
	u.types("Cleared by", "Orla Finch")
	u.section("F")
	require.NoError(t, u.click(u.finds(`[aria-label="All pressure off"] button`, "leaves as far as it can")))
	u.seesIn(".sofar", "fear")
	u.presses("To the result")
	u.presses("what changed")
	u.sees("What changed since")
	u.sees("suspect → cleared")
	u.sees("fear: not enough seen → possible")
	require.NoError(t, u.click(u.finds("a", `^\d+ \w+ 20\d\d$`)))
	u.sees("As it was judged on")
	u.seesIn("body", "step in")
	u.presses("looks not taken, .*")
	u.sees("Not checked, so don't assume it's fine.")
	u.sees("As it was judged on") // the leaves are of the older one
}

// From what an owner sent and told the result says how sure it is.
func TestAnAssessmentFromVideoSaysSo(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.asksAboutPepperdine()
	u.presses("Begin the assessment")
	u.section("C")
	require.NoError(t, u.click(u.finds(`[aria-label="How it is known"] button`, "^on video$")))
	require.NoError(t, u.click(u.finds(`[aria-label="The person"] button`, "never gives")))
	require.NoError(t, u.click(u.finds(`[aria-label="The person"] button`, "unintended spur")))
	u.seesIn(".sofar", "what the person does now")
	u.presses("To the result")
	u.sees("Nobody has seen this horse yet: 2 findings on video")
	u.finds("a.name", "[Ww]hat the person does now").MustClick()
	u.seesIn("details[open]", "what the person does now")
	u.sees("for 1.82")
}

// Photographs: with the owner's consent, and only what is a picture.
func TestPhotographsNeedConsentAndAPicture(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Button")
	u.presses("Assessment")
	u.presses("all findings, .*")
	u.sees("Photographs need the owner's consent")
	u.presses("Note it")
	u.sees("agreed to photographs on")
	text := filepath.Join(t.TempDir(), "notes.jpg")
	require.NoError(t, os.WriteFile(text, []byte("not a picture"), 0o600))
	u.MustElement("input[type=file]").MustSetFiles(text)
	u.sees("This is no photograph that can be kept")
	u.types("What it shows", "rub behind the elbow")
	shot, err := u.Screenshot(false, nil)
	require.NoError(t, err)
	picture := filepath.Join(t.TempDir(), "rub.png")
	require.NoError(t, os.WriteFile(picture, shot, 0o600))
	u.MustElement("input[type=file]").MustSetFiles(picture)
	u.seesIn("li", "rub behind the elbow")
	u.waits("for the picture", "img", "", `(css) => [...document.querySelectorAll(css)].some((i) => i.complete && i.naturalWidth > 100)`)
	huge := filepath.Join(t.TempDir(), "huge.png")
	f, err := os.Create(huge)
	require.NoError(t, err)
	require.NoError(t, f.Truncate(2<<30))
	require.NoError(t, f.Close())
	u.MustElement("input[type=file]").MustSetFiles(huge)
	u.sees("Send one of 12 MB or less")
	u.seesIn("li", "rub behind the elbow")
	u.presses("No longer")
	u.sees("Photographs need the owner's consent")
	u.seesIn("li", "rub behind the elbow")
}

// The swap row by row: person, then tack, changed one at a time; how much is who, and that
// nothing was done twice, is told at once.
func TestTheSwapRowByRow(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	swap := ""
	for _, p := range u.places() {
		if p.name == "walk" {
			path, _, _ := strings.Cut(p.path, "?")
			swap = path + "?at=E2"
		}
	}
	u.goes("/horses")
	u.begins("Copperfield Moth")
	u.pull(6)
	u.answers("try")
	u.presses("settings")
	require.NoError(t, u.finds("[aria-label='What it is now']", "").Input("rope halter"))
	require.NoError(t, u.click(u.finds("form.marks button", "^Keep$")))
	u.closesSheet()
	u.pull(3)
	u.answers("accepted")
	u.keeps(2)

	u.goes(swap)
	u.sees("2 goes with another person or tack.")
	row := func(n int, person, tack, level, answer string) {
		u.presses("Add a row")
		u.waits("the row", ".one", "", fmt.Sprintf(`(css) => document.querySelectorAll(css).length === %d`, n))
		one := u.MustElements(".one")[n-1]
		for i, text := range []string{person, tack} {
			one.MustElements("input")[i].MustSelectAllText().MustInput(text).MustBlur()
		}
		one.MustElements("select")[0].MustSelect(level)
		one.MustElements("select")[1].MustSelect(answer)
	}
	row(1, "Ines", "gag", "7", "try")
	row(2, "Wren", "gag", "4", "accepted")
	u.sees("Better with Wren in the same tack: accepted at level 4, with Ines try at level 7.")
	u.sees("Nothing was done twice alike, so how much is chance is not known.")
	row(3, "Wren", "snaffle", "2", "accepted")
	u.sees("Better in snaffle: accepted at level 2, in gag accepted at level 4, Wren both times.")
	u.wholeAt("the swap row by row", 1280, 412, 320)
	u.MustReload()
	u.sees("Better in snaffle")
	assert.Len(t, u.MustElements(".one"), 3)
	u.presses("Take them over")
	u.waits("the rows of the arena", ".one", "", `(css) => document.querySelectorAll(css).length === 5`)
}
