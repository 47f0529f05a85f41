package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The page at the end of the work and the whole file are written, and printed by the
// server; a sentence of a visit's page shows the reps that it stands on.
func TestPapersAndWhatTheyStandOn(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("finished, 2")
	u.presses("Teasel")
	u.presses("Reports")
	u.presses("Before and after, the page at the end of the work")
	u.seesIn("h1", "Teasel, before and after")
	u.seesIn("section", "Yes, Teasel is better: all 13 steps hold.")
	u.seesIn("section", "After days off or one bad bump, go back down the steps until Teasel is easy again.")
	pdf := u.MustEval(`async () => {
		const answer = await fetch(document.querySelector('a[download]').href)
		return [answer.headers.get('content-type'), (await answer.text()).slice(0, 5)]
	}`)
	assert.Equal(t, []string{"application/pdf", "%PDF-"}, []string{pdf.Get("0").Str(), pdf.Get("1").Str()})
	u.presses("Teasel, all reports")
	u.presses("The whole file, for whoever takes over")
	u.seesIn("h2", "The sessions, the newest first")
	u.presses("Teasel, all reports")
	require.NoError(t, u.click(u.finds("a", "^Visit on")))
	u.seesIn("h2", "In short")
	require.NoError(t, u.click(u.MustElement(".part.worked .why")))
	u.seesIn(".behind", "level")
	u.seesIn(".behind", "It stands on the session.")
}

// An incident is written down after the fact: what is missing is said by its field; the
// grade rises at once, and the caseload says so. A note can wait, with its reason.
func TestAnIncidentAndANoteThatWaits(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Wick")
	u.presses("dangerous moments")
	u.sees("None was written down.")
	u.presses("Write one down")
	u.presses("Keep it")
	u.seesNextTo("What happened", "Say in a sentence what happened.")
	u.presses("kicked at a person")
	u.presses("a person")
	u.types("What happened", "Kicked at the farrier and caught his arm.")
	u.types("What was done", "Sent him to be looked at, put Wick away.")
	u.presses("Keep it")
	u.seesIn("li", "kicked at a person, hurt: a person")
	u.presses("back to the bridge")
	u.seesIn(".note", "Read the incident")
	assert.NotContains(t, u.MustElement(".horse").MustText(), "ordinary care", "the grade rose")
	u.presses("Set aside")
	require.NoError(t, u.click(u.finds("form button", "Set aside")))
	u.seesNextTo("Until", "Choose a day to come")
	u.types("Until", time.Now().AddDate(0, 0, 3).Format(time.DateOnly))
	u.types("Why it can wait", "We spoke; the farrier comes again on Monday.")
	require.NoError(t, u.click(u.finds("form button", "Set aside")))
	u.presses("Set aside: 1")
	u.sees("Wren Harrow: We spoke; the farrier comes again on Monday.")
	u.presses("Show it again")
	u.seesIn(".one .note", "Read the incident")
}

// The page at the end of the work is worded by the trainer, and says so to who opens it
// next.
func TestTheLastPageIsWordedInTheBrowser(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/horses/" + u.horseNamed("Dumpling") + "/paper/closing")
	u.sees("When to ring")
	u.presses("Word it yourself")
	first := u.finds("textarea", "")
	require.NoError(t, first.SelectAllText())
	require.NoError(t, first.Input("Not yet, and here is what we do about it."))
	u.presses("Save the wording")
	u.sees("Saved.")
	u.MustReload()
	u.sees("Not yet, and here is what we do about it.")
}

// horseNamed is the id of a horse of the caseload.
func (u *user) horseNamed(name string) string {
	return u.MustEval(`async (name) => (await (await fetch('/api/caseload')).json()).find((h) => h.name === name).id`, name).Str()
}
