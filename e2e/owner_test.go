package e2e

import (
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The trainer words the page of a visit and sends it; the owner reads it on a phone,
// practises without a signal, and it arrives once there is one. Over the line stops
// practice on the page itself, and stands first in the trainer's attention. A link
// that is switched off while it is open closes the page.
func TestAnOwnerReadsPractisesAndStops(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	trainer := y.open(1280, 800).signsInDemo()
	trainer.presses("Copperfield Moth")
	trainer.presses("Reports")
	require.NoError(t, trainer.click(trainer.finds("a", "^Visit on")))
	trainer.presses("Word it yourself")
	ends := trainer.MustElement("textarea:not([disabled])")
	require.NoError(t, ends.SelectAllText())
	require.NoError(t, ends.Input("She looked for the trailer herself today."))
	trainer.presses("Save the wording")
	trainer.seesIn("[role=status]", "Saved.")
	trainer.presses("Send")
	trainer.sees("the owners’ links show this page")
	trainer.presses("Make a link for Ines Calloway")
	link := strings.TrimSpace(trainer.finds(".address", "/o/#").MustText())
	assert.Regexp(t, regexp.MustCompile(`/o/#[A-Z2-7]{26}$`), link)

	owner := y.open(412, 800)
	owner.MustNavigate(link)
	owner.seesIn("h1", "Yes, Copperfield Moth is better. Steps that hold: six of 13, on the first day one.")
	for _, answer := range []string{"You may practise this", "Don't get on Copperfield Moth", "The next visit is on", "Ring Harrow Groundwork, 01632 960150"} {
		owner.seesIn(".answers li", answer)
	}
	owner.presses("The page of the visit on .*")
	owner.sees("She looked for the trailer herself today.")
	owner.wholeAt("the owner's page", 412, 320)
	owner.MustSetViewport(412, 800, 1, false)
	owner.MustWait(`() => navigator.serviceWorker.controller !== null`)

	// No signal: the page stands, and practice is kept.
	y.stop()
	owner.MustReload()
	owner.seesIn("[role=status]", "No signal: this is as of")
	owner.seesIn("h1", "Yes, Copperfield Moth is better.")
	owner.presses("Write down today")
	owner.presses("Keep it no signal: sent later")
	owner.seesIn("[role=alert]", "Say how it was, mostly")
	for row, choice := range map[string]string{"First ask": "yes", "Second ask": "nearly", "Lightest feel": "light", "You ended": "on a good one"} {
		owner.MustElement(`[aria-label="` + row + `"]`)
		require.NoError(t, owner.click(owner.MustElementR(`[aria-label="`+row+`"] button`, "^\\s*"+choice+"\\s*$")))
	}
	owner.presses("attentive")
	owner.presses("Keep it no signal: sent later")
	owner.sees("1 kept here, sent later")
	owner.seesIn("li", "Today · standing on a slack rope: 10 minutes, attentive, yes, then nearly, ended on a good one · not sent yet")

	y.start()
	owner.MustReload()
	owner.seesIn("li", "Today · standing on a slack rope: 10 minutes, attentive, yes, then nearly, ended on a good one")
	owner.waits("that it was sent", "main", "", `() => !document.body.innerText.includes('not sent yet')`)
	trainer.goes("/horses")
	trainer.presses("Copperfield Moth")
	trainer.presses("Plan")
	trainer.presses("homework and clearance")
	trainer.seesIn("li.day", "Ines Calloway: standing on a slack rope. 10 minutes; attentive; first answers yes, nearly; feel light; ended on a good one.")

	// Over the line: stopped on the page at once, and first in the caseload.
	owner.presses("Write down today")
	owner.presses("explosive")
	owner.sees("Stop here for today. Practice of this waits until Harrow Groundwork has rung you.")
	owner.presses("Keep it, and tell")
	owner.seesIn(".not", "practice of it has stopped")
	owner.waits("that it is not offered", "main", "", `() => ![...document.querySelectorAll('h3')].some((h) => h.innerText.toLowerCase() === 'standing on a slack rope')`)
	trainer.goes("/horses")
	trainer.seesIn("li, tr, article", "Look at the homework")
	trainer.presses("Copperfield Moth")
	trainer.presses("Plan")
	trainer.presses("homework and clearance")
	trainer.seesIn("li.day", "Practice of it has stopped, on the owner’s page too.")
	trainer.presses("Let it go on")
	require.NoError(t, trainer.finds("input[aria-label='Why it may go on']", "").Input("A tractor. We spoke."))
	trainer.presses("Let it go on")
	trainer.seesIn("li.day", "It goes on, Wren Harrow: A tractor. We spoke.")

	// Switched off while it is open.
	trainer.goes("/horses")
	trainer.presses("Copperfield Moth")
	trainer.presses("Reports")
	require.NoError(t, trainer.click(trainer.finds("a", "^Visit on")))
	trainer.presses("Send")
	trainer.seesIn("li", "opened 1 time")
	trainer.presses("Switch off")
	trainer.sees("1 link that ended")
	owner.MustReload()
	owner.seesIn("h1", "This page has closed.")
	owner.sees("Ring Harrow Groundwork, 01632 960150")
	owner.waits("that nothing is left", "main", "", `() => !document.body.innerText.includes('Copperfield')`)
}

// What an owner's first visit brings over the wire: at most 60 kB, and nothing of the
// trainer's screens.
func TestTheOwnersPagesAreSmall(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(412, 800)
	u.MustNavigate("http://" + y.address + "/o/#NOTHING")
	u.seesIn("h1", "This page has closed.")
	u.MustWait(`() => navigator.serviceWorker.controller !== null`)
	sizes := u.MustEval(`() => performance.getEntriesByType('resource').map((e) => [e.name, e.transferSize]).concat([['page', performance.getEntriesByType('navigation')[0].transferSize]])`)
	sum := 0
	for _, e := range sizes.Arr() {
		sum += e.Arr()[1].Int()
		assert.NotContains(t, e.Arr()[0].Str(), "wasm")
	}
	for _, file := range []string{"/o/sw.js"} {
		r, err := http.NewRequestWithContext(t.Context(), http.MethodGet, "http://"+y.address+file, nil)
		require.NoError(t, err)
		a, err := http.DefaultClient.Do(r)
		require.NoError(t, err)
		assert.Equal(t, http.StatusOK, a.StatusCode)
		require.NoError(t, a.Body.Close())
	}
	t.Logf("%d bytes", sum)
	assert.Less(t, sum, 60_000)
	assert.Greater(t, sum, 10_000, "something was counted")
}
