package e2e

import (
	"testing"

	"github.com/stretchr/testify/require"

	"github.com/stretchr/testify/assert"
)

// What changed, in words first: three findings, each over what it stands on, and the
// session behind each number one tap away.
func TestProgressSaysWhatChanged(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Progress")
	u.seesIn("h2", "lighter, 10 → 2.")
	u.seesIn(".how", "Sure. 5 other lines got better too.")
	u.seesIn("h2", "It lasts over two weeks: 47 of 48 kept.")
	u.seesIn("h2", "Too early to compare the sides.")
	u.sees("slipped: head flex, near")

	heap := u.finds(".heaps button", "25 Nov|tries")
	u.click(heap)
	u.finds("a", "^What .* came to$")
	assert.NotEmpty(t, u.MustElements(".heaps .here"), "the session is marked")
	u.presses("all as tables")
	u.seesIn("caption", "The median of each session")
	u.seesIn("th", "load board")
	u.presses("timing of the hands")
	u.seesIn("h3", "Wren Harrow")
	u.seesIn("article", "releases came on the try")
	u.presses("back to what changed")

	// One task alone, and since a later day: fewer sessions, and too early to say.
	u.MustElement("select[name=step]").MustSelect("head down")
	u.seesIn(".top", "1 ask.")
	u.MustElement("select[name=since]").MustSelect(u.MustElement("select[name=since] option:last-child").MustText())
	u.seesIn(".how", "Too early to say.")
	u.goes(u.MustInfo().URL[len("http://"+u.yard.address):])
	u.seesIn(".how", "Too early to say.")

	u.presses("Horses")
	u.presses("Pepperdine")
	u.presses("Progress")
	u.sees("Nothing to compare yet")
	u.sees("from the fourth on there is a trend")
}

// What is noted beside the answers, where its mind was and in what tack, stands under the
// other measures.
func TestWhatIsNotedBesideTheAnswers(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.begins("Copperfield Moth")
	note := func(acts ...string) {
		u.presses("settings")
		for _, act := range acts {
			u.presses(act)
		}
		u.closesSheet()
	}
	note("it spooked", "the person", "home or herd")
	u.presses("settings")
	require.NoError(t, u.finds("input[aria-label='What it is now']", "").Input("new halter"))
	u.presses("Keep")
	u.closesSheet()
	u.pull(2)
	u.answers("accepted")
	u.keeps(1)
	u.presses("End session")
	u.sees("What happened")
	u.goes("/horses/" + u.horseNamed("Copperfield Moth") + "/progress?see=more")
	u.sees("on the person 1, home or herd 1, an object 0")
	u.sees("Spooks")
	u.seesIn("table", "Tack")
}
