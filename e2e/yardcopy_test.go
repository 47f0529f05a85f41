package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A day at a yard with no signal at all: the product opens cold, the horse's
// pages are there, a session is begun at the gate, worked, ended and read; and
// when there is a signal again it is all on the server, once.
func TestAWholeSessionWithoutASignal(t *testing.T) {
	t.Parallel()
	y := farYard(t)
	u := y.atTheYard(412, 800)
	y.mast.signal(false)

	u.goes("/horses")
	u.sees("No signal. What you see was kept here at")
	u.begins("Copperfield Moth")
	u.seesIn(".clocks", "no signal")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".strip", "accepted at 3")
	u.seesIn(".say", "Good: 1 of 3 in a row")
	u.finds(".arousal", "tense").MustClick()
	u.seesIn("[aria-pressed=true].arousal", "tense")
	u.finds(".strip button", "Undo").MustClick()
	u.seesIn("[aria-pressed=true].arousal", "attentive")
	arena := path(u)
	u.goes("/cards/trailer")
	u.presses("1. Check floor.*")
	u.seesIn(".next", "Horse in")
	u.presses("4. Then tie")
	u.sees("Not yet")
	u.goes(arena)
	u.seesIn(".strip", "accepted at 3")
	u.presses("End session")
	u.sees("It ended on a good answer")
	u.sees("The bridge follows when there is a signal")
	u.types("One line for the owner", "stood and looked, and came")
	u.presses("Keep the line")
	u.sees("It stands in the report")
	u.goes("/horses")
	u.sees("Copperfield Moth")
	u.presses("Sign out")
	u.sees("They stay on this device")

	y.mast.signal(true)
	u.goes("/arena")
	u.sees("all sent")
	assert.Equal(t, 1, y.counts(`SELECT count(*) FROM entries WHERE kind = 'rep' AND json_extract(body, '$.replaces') IS NULL AND session_id = '`+arena[len("/arena/"):]+`'`))
	u.goes("/horses")
	u.presses("Copperfield Moth")
	u.finds("a", "^Sessions").MustClick()
	u.sees("stood and looked, and came")
}

// A session that was worked on paper is written down afterwards.
func TestASessionFromMemory(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Into the arena")
	u.presses("It was worked already: from memory")
	u.presses("Keep it")
	u.sees("Write down one ask at least")
	u.MustElement("fieldset select").MustSelect("halt")
	u.presses("Keep it")
	u.sees("Still missing: how many tries, the last answer")
	u.types("Tries", "7")
	u.finds("[aria-label='The last answer'] button", "accepted").MustClick()
	u.types("What worked", "standing a little ahead of it")
	u.presses("Keep it")
	u.finds("a", "^Sessions").MustClick()
	u.sees("all sent")
	assert.Equal(t, 1, y.counts(`SELECT count(*) FROM entries WHERE kind = 'memory' AND json_extract(body, '$.memory.tries') = 7`))
}

// Each school has its pad, and what it logs is advised on.
func TestEverySchoolHasItsPad(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.takesOn("Wintergreen", "saddle and pad", "Stands for pad and saddle, untied")
	u.asksFor("hand")
	u.seesIn(".where", "doses")
	u.suitsGloves("doses, before")
	u.finds(".pad button", "Begin the dose").MustClick()
	u.finds(".pad button", "step it took").MustClick()
	u.suitsGloves("doses")
	u.finds(".pad button", "stands, soft").MustClick()
	u.seesIn(".say", "It moved: that does not end it")
	u.finds(".pad button", "Begin the dose").MustClick()
	u.finds(".pad button", "stands, soft").MustClick()
	u.seesIn(".strip", "accepted")

	u.finds(".strip button", "^more$").MustClick()
	u.suitsGloves("more")
	u.presses("Close")
	u.finds("button", "^change\\s+ask$").MustClick()
	u.suitsGloves("asks")
	u.presses("Close")
	u.presses("it did something")
	u.suitsGloves("it did something")
	u.finds("dialog [role=group] button, dialog [role=radio], dialog label, dialog button", "^\\s*crowded in").MustClick()
	u.finds("dialog button", "It has stopped").MustClick()
	u.seesIn(".strip", "interruption")
	u.presses("settings")
	u.suitsGloves("settings")
	u.presses("halter refitted")
	u.presses("Close")
	u.seesIn(".strip", "mark")
	u.presses("Danger make safe")
	u.suitsGloves("danger")
	u.presses("Close")
	u.sees("all sent")
	assert.Equal(t, 2, y.counts(`SELECT count(*) FROM entries AS e JOIN sessions AS s ON s.id = e.session_id JOIN horses AS h ON h.id = s.horse_id WHERE h.name = 'Wintergreen' AND e.kind = 'dose'`))
	u.goes("/horses")
	u.begins("Copperfield Moth")
	u.suitsGloves("rope")
}

// asksFor changes the ask by hand.
func (u *user) asksFor(name string, ladder ...string) {
	u.t.Helper()
	require.NoError(u.t, u.click(u.finds("button", "^change\\s+ask$")))
	for _, l := range ladder {
		u.types("Look for an ask, on any ladder", l+" "+name)
	}
	require.NoError(u.t, u.click(u.finds("dialog button", "^\\s*"+name)))
}

// takesOn takes on a horse with an owner, and into the arena.
func (u *user) takesOn(name, problem, goal string) {
	u.t.Helper()
	u.takesItOn(name, problem, goal)
	u.goes("/horses")
	u.begins(name)
}

// takesItOn takes on a horse with an owner.
func (u *user) takesItOn(name, problem, goal string) {
	u.t.Helper()
	u.presses("Take on a horse")
	u.types("Name of the horse", name)
	u.presses(problem)
	u.types("How will we know it's fixed.", goal)
	u.presses("A new owner")
	u.types("Owner's name", "Tilda Marsh")
	u.presses("Take it on")
	u.sees("Not assessed yet")
}
