package e2e

import (
	"fmt"
	"io"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pull holds the rope, slides up to a level and lets go.
func (u *user) pull(level int) {
	u.t.Helper()
	u.holds(level)
	require.NoError(u.t, u.Mouse.Up(proto.InputMouseButtonLeft, 1))
	u.sees("now tap the answer")
}

// holds presses the rope and slides up to a level.
func (u *user) holds(level int) {
	u.t.Helper()
	u.taps++
	u.ropeIsStill()
	require.NoError(u.t, u.Mouse.MoveTo(u.onTheRope(1, false)))
	require.NoError(u.t, u.Mouse.Down(proto.InputMouseButtonLeft, 1))
	for l := 2; l <= level; l++ {
		require.NoError(u.t, u.Mouse.MoveTo(u.onTheRope(l, false)))
	}
	u.seesIn(".rope .level", itoa(level))
}

// ropeIsStill waits until the rope stays where it is, as an eye does before the hand
// takes it: what was chosen last may still move the page.
func (u *user) ropeIsStill() {
	u.t.Helper()
	still := rod.Eval(`() => {
		const top = document.querySelector('.rope .slack').getBoundingClientRect().top
		if (window.ropeAt?.top !== top) window.ropeAt = { top, since: performance.now() }
		return performance.now() - window.ropeAt.since > 200
	}`)
	require.NoError(u.t, u.Page.Timeout(patience).Wait(still))
}

// onTheRope is where a level is drawn: on its printed number, or on the rope
// beside it.
func (u *user) onTheRope(level int, number bool) proto.Point {
	u.t.Helper()
	box := u.MustElement(fmt.Sprintf(".rope .number[data-level='%d']", level)).MustShape().Box()
	x := box.X + box.Width/2
	if !number {
		rope := u.MustElement(".rope .slack").MustShape().Box()
		x = rope.X + rope.Width/2
	}
	return proto.NewPoint(x, box.Y+box.Height/2)
}

// answers taps an answer key, no sooner after the last than a hand can: the
// arena takes two contacts closer together for one.
func (u *user) answers(word string) {
	u.t.Helper()
	require.NoError(u.t, u.Page.Timeout(patience).Wait(rod.Eval(`() => performance.now() - (window.tapped ?? -1000) > 200`)))
	u.taps++
	u.MustElement("[data-answer=" + word + "]").MustClick()
	u.MustEval(`() => { window.tapped = performance.now() }`)
}

// The whole of the thinnest thread: a phone call, a first look, a plan, a
// session and the owner's page, and all of it still there after a restart.
func TestFromAPhoneCallToTheOwnersReport(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()

	u.presses("Take on a horse")
	u.types("Name of the horse", "Émile du Lac 🐴")
	u.presses("trailer loading")
	u.types("How will we know it's fixed.", "Loads for Odile alone within five minutes")
	u.presses("Where it stands, a date, and what is known of it")
	u.types("Needed by", time.Now().AddDate(0, 2, 0).Format(time.DateOnly))
	u.presses("A new owner")
	u.types("Owner's name", "Odile Marchetti-Brandt")
	u.types("Phone", "01632 960199")
	u.chooses("Yard", "Tarn Side Livery")
	u.presses("gelding")
	u.presses("Take it on")

	u.seesIn("h1", "Émile du Lac 🐴")
	u.sees("Not assessed yet")
	u.presses("Quick look")
	u.types("What happens", "Stops at the ramp and looks away")
	u.presses("gradually")
	u.types("Tries so far", "9")
	u.types("Went well", "2")
	u.section("B")
	u.item("hind leg")
	u.presses("suspect")
	u.item("back")
	u.presses("clear")
	u.section("E")
	u.presses("over the line")
	u.presses("turned away")
	u.seesIn("aside", "extra care")
	u.seesIn("aside", "Have the vet look")
	u.presses("To the result")
	u.presses("looks not taken, .*")
	u.sees("don't assume it's fine")

	u.presses("Plan")
	u.sees("Lifted when the vet has cleared it")
	u.presses("all steps and schools")
	u.seesIn(".step.next", "Walks on beside a person")
	u.presses("Make the plan")
	u.presses("plans made, 1")
	u.sees("First plan after the assessment")

	u.presses("Into the arena")
	u.sees("Say first")
	u.presses("attentive")
	u.presses("calm")
	u.presses("yes")
	u.sees("Begin with lead forward")
	u.sees("does not replace a vet")
	u.finds(".begin", "Into the arena").MustClick()

	u.seesIn(".what", "Begin with lead forward")
	u.pull(4)
	u.answers("accepted")
	u.seesIn(".strip", "accepted at 4")
	u.seesIn(".say", "counts towards the pass mark at 1 or less")
	u.finds(".strip button", "^late$").MustClick()
	u.seesIn(".strip", "released late")
	u.pull(6)
	u.answers("refused")
	u.seesIn(".what", "Same ask")
	u.finds(".strip button", "Undo").MustClick()
	u.seesIn(".strip", "accepted at 4")
	for n := range 3 {
		u.pull(1)
		u.answers("accepted")
		u.keeps(n + 2)
	}
	u.seesIn(".what", "Up: ")
	u.answers("try")
	u.sees("It tried. Let go, then ask the same again")
	u.presses("End session")

	u.sees("What changed on the bridge")
	u.seesIn(".changes", "untried → met")
	u.types("One line for the owner", "walked on beside me and sighed")
	u.presses("Keep the line")
	u.sees("It stands in the report")
	u.presses("The owner's report")

	u.sees("At the end: walked on beside me and sighed")
	u.sees("does not replace your vet")
	u.presses("Word it yourself")
	first := u.MustElement(".part.one textarea")
	first.MustSelectAllText().MustInput("Émile walked beside us as if he had always done it.")
	u.presses("Save the wording")
	u.sees("as if he had always done it")
	assert.Equal(t, 1, u.pages(), "the report prints on one page")

	y.stop()
	y.start()
	u.goes("/horses")
	u.finds("a", "Émile du Lac").MustClick()
	u.seesIn(".bridge", "forward: met")
	u.presses("Reports")
	u.finds("a", "Visit on").MustClick()
	u.sees("as if he had always done it")
}

// pages counts the printed pages.
func (u *user) pages() int {
	r, err := u.PDF(&proto.PagePrintToPDF{PaperWidth: inches(8.27), PaperHeight: inches(11.69)})
	require.NoError(u.t, err)
	text, err := io.ReadAll(r)
	require.NoError(u.t, err)
	return strings.Count(string(text), "/Type /Page\n") + strings.Count(string(text), "/Type /Page ")
}

func inches(n float64) *float64 { return &n }

func TestAWrongPasswordIsSaidPlainly(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).goes("/horses")
	u.types("Email address", "wren@harrow.example")
	u.types("Password", "not this one")
	u.presses("Sign in")
	u.sees("Address and password do not fit")
	assert.Equal(t, "wren@harrow.example", u.field("Email address").MustProperty("value").Str(), "what was typed stays")
	u.types("Password", "rope and ivory")
	u.presses("Sign in")
	u.seesIn("h1", "Horses")
}

// A sign-in that runs out in the middle of a form loses nothing.
func TestASignInRunsOutInMidForm(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Pepperdine")
	u.presses("Record")
	u.types("Living", "out with one old mare")
	require.NoError(t, u.Browser().SetCookies(nil))
	u.presses("Save the record")
	u.sees("Sign in again")
	u.types("Password", "rope and ivory")
	u.finds(".el-dialog button", "^\\s*Sign in\\s*$").MustClick()
	u.sees("Saved.")
	u.MustReload().MustWaitLoad()
	u.sees("out with one old mare")
}

// begins takes a horse of the demo into the arena.
func (u *user) begins(name string) {
	u.t.Helper()
	u.finds("a", "^\\s*"+name+"\\s*$").MustClick()
	u.presses("Into the arena")
	for _, tap := range []string{"attentive", "calm", "yes"} {
		u.presses(tap)
	}
	u.sees("Begin with")
	u.finds(".begin", "Into the arena").MustClick()
	u.seesIn(".what", "Begin with")
}

// Nothing is lost by a reload or a server that stops in mid-session.
func TestNothingIsLostWithoutTheServer(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".clocks", "all sent")

	y.stop()
	u.pull(4)
	u.answers("tolerated")
	u.seesIn(".strip", "tolerated at 4")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".clocks", "no signal")
	u.seesIn(".say", "A dip is usual at 3 and 4")
	u.seesIn(".strip", "accepted at 3")

	y.start()
	u.seesIn(".clocks", "all sent")
	u.MustReload().MustWaitLoad()
	u.seesIn(".what", "")
	u.keeps(3)
	u.finds(".strip button", "Undo").MustClick()
	u.keeps(2)
}

// keeps waits until the server has so many reps of the session.
func (u *user) keeps(n int) {
	u.t.Helper()
	err := u.Page.Timeout(patience).Wait(rod.Eval(`async (n) => {
		const answer = await fetch('/api/sessions/' + location.pathname.split('/').pop())
		return (await answer.json()).told.beads.length === n
	}`, n).ByPromise())
	require.NoError(u.t, err, "waiting until %d reps are kept", n)
}

// Two tabs on one horse: the stale save shows both versions and keeps what was
// typed.
func TestTwoTabsOnOneHorse(t *testing.T) {
	t.Parallel()
	one := demoYard(t).open(1280, 800).signsInDemo()
	one.presses("Pepperdine")
	one.presses("Record")
	one.sees("The horse's record")
	two := one.another()
	two.goes(path(one))
	two.types("Breed or type", "trotter, half")
	two.presses("Save the record")
	two.sees("Saved.")

	one.MustActivate()
	one.types("Breed or type", "pony of the moor")
	one.presses("Save the record")
	one.sees("Changed meanwhile")
	one.seesIn(".stale table", "pony of the moor")
	one.seesIn(".stale table", "trotter, half")
	assert.Equal(t, "pony of the moor", one.field("Breed or type").MustProperty("value").Str())
	one.presses("Save mine over it")
	one.sees("Saved.")
	two.MustActivate().MustReload().MustWaitLoad()
	assert.Equal(t, "pony of the moor", two.field("Breed or type").MustProperty("value").Str())
}

func path(u *user) string {
	at, err := url.Parse(u.MustInfo().URL)
	require.NoError(u.t, err)
	return at.Path
}

// The arena by keyboard alone, from the gate to the summary.
func TestTheArenaByKeyboardAlone(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.key('?')
	u.sees("pressure on; let go to let go")
	u.closesSheet()

	require.NoError(t, u.Keyboard.Press(input.Space))
	u.sees("held: tap the answer or let go")
	u.key(input.Digit4)
	u.seesIn(".rope .level", "4")
	u.key(input.KeyY)
	u.sees("try seen")
	require.NoError(t, u.Keyboard.Release(input.Space))
	u.key(input.KeyR)
	u.seesIn(".strip", "accepted at 4")
	u.key(input.Digit6)
	u.key(input.KeyQ)
	u.seesIn(".strip", "refused at 6")
	u.key(input.KeyL)
	u.seesIn(".strip", "released late")
	u.key(input.KeyD)
	u.seesIn("[aria-pressed=true].arousal", "tense")
	u.key(input.KeyZ)
	u.seesIn("[aria-pressed=true].arousal", "attentive")
	u.key(input.KeyZ)
	u.key(input.KeyZ)
	u.seesIn(".strip", "accepted at 4")
	u.keeps(1)
	u.key(input.Slash)
	u.sees("The last rep")
	u.closesSheet()
	u.tabsTo("End session")
	u.key(input.Enter)
	u.sees("What changed on the bridge")
}

// closesSheet closes the sheet over the arena by the keyboard.
func (u *user) closesSheet() {
	u.t.Helper()
	u.key(input.Escape)
	require.NoError(u.t, u.Page.Timeout(patience).Wait(rod.Eval(`() => !document.querySelector('dialog')`)))
}

// tabsTo moves the focus until it stands on a button of that name.
func (u *user) tabsTo(name string) {
	u.t.Helper()
	for range 60 {
		u.key(input.Tab)
		if contains(u.MustEval(`() => document.activeElement.closest('button, a')?.textContent ?? ''`).Str(), name) {
			return
		}
	}
	u.t.Fatalf("the tab key does not reach %q", name)
}

// One tap makes safe, shows whom to call, and the advice follows.
func TestDanger(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.answers("accepted")
	u.finds("button", "Danger").MustClick()
	u.sees("01632 960111")
	u.sees("Tarn Side, Upper Fallow")
	u.presses("kicked at a person")
	u.presses("Close")
	u.seesIn(".what", "Make safe")
	u.finds("button", "^attentive$").MustClick()
	u.seesIn(".what", "Down")
	u.finds("button", "End\\s+session").MustClick()
	u.sees("Dangerous: kicked at a person")
	u.sees("The grade of care is now")
}

// People and yards are looked after in one place; somebody invited signs in
// with the password that was shown once.
func TestPeopleYardsAndSignIns(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.presses("People")
	u.presses("Add a person")
	u.presses("vet")
	u.types("Name", "Night vets of the valley")
	u.types("Phone", "01632 960100")
	u.presses("Save")
	u.sees("Night vets of the valley")
	u.presses(`change\s*Tarn Side Livery`)
	u.types("Address, so that a vet finds it", "the white gate, not the blue one")
	u.presses("Save the yard")
	u.sees("the white gate, not the blue one")

	u.presses("Invite somebody")
	u.types("Name", "Rowan Pike")
	u.types("Email address", "rowan@harrow.example")
	u.presses("Invite")
	u.sees("It is shown this once")
	password := u.MustElement("code").MustText()

	rowan := y.open(412, 800).goes("/people")
	rowan.types("Email address", "rowan@harrow.example")
	rowan.types("Password", password)
	rowan.presses("Sign in")
	rowan.sees("Choose a password of your own")
	rowan.types("Password now", password)
	rowan.types("New password", "short")
	rowan.presses("Change it")
	rowan.sees("The password is too short")
	rowan.types("New password", "four words on a rope")
	rowan.presses("Change it")
	rowan.seesIn("h1", "Horses")

	u.presses(`keep out\s*Rowan Pike`)
	u.sees("kept out")
	u.presses(`keep out\s*Wren Harrow`)
	u.sees("The last lead trainer stays")
	rowan.MustActivate()
	rowan.presses("Arena")
	rowan.sees("Sign in again")
}
