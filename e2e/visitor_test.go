package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A visit is the first one to a horse, in one sitting: from take-on to the owner's
// page, by the trainer's own order. It prints its taps and seconds.
type visit struct {
	*walker
	began time.Time
	asked int
}

// visits takes a horse on, and opens its assessment.
func visits(t *testing.T, y *yard, width, height int, name, problem, goal string) *visit {
	var u *user
	if y.mast != nil {
		u = y.atTheYard(width, height).as(t)
	} else {
		u = y.open(width, height).as(t)
		u.signsInDemo()
	}
	v := &visit{walker: &walker{user: u}, began: time.Now()}
	u.taps = 0
	u.takesItOn(name, problem, goal)
	return v
}

// basicsAreGood feels all that part 3 looks at by hand: light and soft.
func (v *visit) basicsAreGood() {
	v.t.Helper()
	v.presses("Begin the assessment")
	v.feels()
}

func (v *visit) feels() {
	v.t.Helper()
	v.section("D")
	for _, name := range []string{
		"lead forward", "lead halt", "lead stand", "lead back", "lead any time", "head down", "head flex near", "head flex off", "quarters hind near", "quarters hind off",
		"quarters fore near", "quarters fore off", "lead past near", "lead past off", "lead turn near", "lead turn off",
	} {
		v.light(name)
	}
	for _, side := range []string{"near", "off"} {
		for _, zone := range []string{"2", "3", "4"} {
			require.NoError(v.t, v.click(v.MustElement(`g.zone[aria-label^="zone `+zone+` `+side+`"]`)))
			v.tap("Level in the zone", "1")
			v.tap("Answer in the zone", "accepted")
			v.MustElement(`g.zone[aria-label^="zone ` + zone + ` ` + side + `"][aria-label*="accepted"]`) // it is kept
		}
	}
	v.arrives()
}

// enters goes through the gate.
func (v *visit) enters(horse string) {
	v.t.Helper()
	v.goes("/horses").begins(horse)
}

// works chooses a step, and logs a good answer to it by whatever keys its school has.
func (v *visit) works(step, ladder string) {
	v.t.Helper()
	v.asks(step, ladder)
	v.does()
}

// asks chooses a step, and waits until it is advised on.
func (v *visit) asks(step, ladder string) {
	v.t.Helper()
	v.asksFor(step, ladder)
	v.finds(".what", "Begin with .*"+step)
}

// does logs a good answer to the ask on the card.
func (v *visit) does() {
	v.t.Helper()
	v.asked++
	before := v.entries()
	switch pad := v.pad(); pad {
	case "dose":
		require.NoError(v.t, v.click(v.finds(".pad button", "Begin the dose")))
		require.NoError(v.t, v.click(v.finds(".pad button", "stands, soft")))
	case "offer":
		require.NoError(v.t, v.click(v.finds(".pad button", "^stayed")))
	case "places":
		require.NoError(v.t, v.click(v.finds(".plan button", ".")))
		require.NoError(v.t, v.click(v.finds(".modes button", "End the")))
	default:
		v.holds(2)
		require.NoError(v.t, v.Mouse.Up(proto.InputMouseButtonLeft, 1))
		v.answers("accepted")
	}
	logged := rod.Eval(`(n) => document.querySelector('dialog[open]') !== null || Number(document.querySelector('.arena').dataset.entries) > n`, before)
	require.NoError(v.t, v.Page.Timeout(patience).Wait(logged), "nothing was logged")
	if sheet, _, _ := v.Page.Has("dialog[open]"); sheet { // a hold asks how long it stood
		require.NoError(v.t, v.click(v.finds("dialog button", "not timed")))
	}
	require.NoError(v.t, v.Page.Timeout(patience).Wait(rod.Eval(`(n) => Number(document.querySelector('.arena').dataset.entries) > n`, before)), "nothing was logged")
}

func (v *visit) entries() int {
	return v.MustEval(`() => Number(document.querySelector('.arena').dataset.entries)`).Int()
}

// pad tells by which keys the ask on the card is answered.
func (v *visit) pad() string {
	return v.MustEval(`() => {
		if (document.querySelector('.spells')) return 'places'
		if (document.querySelector('[aria-label=Offer]')) return 'offer'
		if (document.querySelector('[aria-label=Burst]')) return 'burst'
		return [...document.querySelectorAll('.pad button')].some((b) => b.innerText.includes('Begin the dose')) ? 'dose' : 'answers'
	}`).Str()
}

// ends ends the session, and tells what the visit cost.
func (v *visit) ends(says ...string) {
	v.t.Helper()
	v.presses("End session")
	v.sees("What happened")
	for _, s := range says {
		v.sees(s)
	}
	v.t.Logf("%s: %d answers, %d taps in all, %.0f s", v.t.Name(), v.asked, v.user.taps, time.Since(v.began).Seconds())
}

// plans reads on the plan how many visits the horse needs: a handful where it knows
// most of it, and why.
func (v *visit) plans(name string) {
	v.t.Helper()
	v.goes("/horses")
	v.presses(name)
	v.presses("Plan")
	v.presses("the numbers")
	says := v.finds("p, strong, b, li", `about \d+ sessions?`).MustText()
	var n int
	_, err := fmt.Sscanf(says[strings.Index(says, "about "):], "about %d", &n)
	require.NoError(v.t, err, says)
	assert.LessOrEqual(v.t, n, 12, says)
	v.t.Logf("%s: %s", v.t.Name(), says)
}

// reports reads the owner's page.
func (v *visit) reports(says ...string) {
	v.t.Helper()
	v.presses("The owner's report")
	for _, s := range says {
		v.sees(s)
	}
}

// side goes to a side, zone or place of the ask on the card.
func (v *visit) side(name string) {
	v.t.Helper()
	require.NoError(v.t, v.click(v.finds(".ask .variants button", name+"$")))
}

// settles taps something in the settings: who holds the rope, in which school.
func (v *visit) settles(what string) {
	v.t.Helper()
	v.presses("settings")
	v.presses(what)
	v.presses("Close")
}

// letsDown notes that the whole body lets down.
func (v *visit) letsDown() {
	v.t.Helper()
	require.NoError(v.t, v.click(v.finds(".school button", "since the release")))
	v.seesIn(".live", "Let down after")
}

// holdsWithTries holds the rope, lets small tries go, and ends on an answer.
func (v *visit) holdsWithTries(tries int, answer string) {
	v.t.Helper()
	v.asked++
	before := v.entries()
	v.holds(3)
	require.NoError(v.t, v.Mouse.Up(proto.InputMouseButtonLeft, 1)) // it stays as it is
	for range tries {
		require.NoError(v.t, v.click(v.finds(".pad button:enabled", "^a try")))
	}
	v.answers(answer)
	v.logs(before)
}

// logs waits until something more is on the track.
func (v *visit) logs(before int) {
	v.t.Helper()
	require.NoError(v.t, v.Page.Timeout(patience).Wait(rod.Eval(`(n) => Number(document.querySelector('.arena').dataset.entries) > n`, before)), "nothing was logged")
}

// Each horse of its own kind, on its first visit, in one sitting: taken on, its basics
// felt, its plan a handful of visits, worked as its trainer would, and told to its
// owner. No step is refused.
// A young horse is ridden in bursts: the lead trainer makes the exception, with reason
// and end, and the controls in hand that it waits for are met in the same session.
// Something that no ladder names is added in the arena in one line, logged, and there
// again on the next visit.
// places has a spell in a place: what is said of it meanwhile, and by which key it ends.
func (v *visit) places(place string, taps ...string) {
	v.t.Helper()
	v.asked++
	before := v.entries()
	require.NoError(v.t, v.click(v.finds(".plan button", "^"+place)))
	for _, tap := range taps {
		if feet := v.MustElements("[aria-label='" + tap + "']"); len(feet) > 0 {
			require.NoError(v.t, v.click(feet.First()))
			continue
		}
		require.NoError(v.t, v.click(v.finds(".spells button", "^"+tap)))
	}
	v.logs(before)
}

// reviews looks over one thing: right as it is, or changed, tried and better.
func (v *visit) reviews(what, was, changed string) {
	v.t.Helper()
	v.asked++
	before := v.entries()
	v.presses(what)
	if changed == "" {
		v.presses("right as it is")
	} else {
		v.MustElement("[aria-label='What is on']").MustInput(was)
		v.MustElement("[aria-label='Changed to']").MustInput(changed)
		require.NoError(v.t, v.click(v.finds(".pad button", "^try it milder")))
		v.presses("better")
	}
	v.logs(before)
}

// A worked step, on its ladder.
type worked struct{ step, ladder string }

// From the yard's gate on there is no signal: the session is begun, asks far from the
// plan and one of its own are logged, and the review is read on the device. All of
// it arrives once there is a signal.
// A new horse of a rescue is at work within a minute and a half: its name, two
// problems and who handles it, no assessment; it stays "not assessed yet" in plain
// sight, and what was told is not asked for again.
// The plan is changed while a session runs: the session is offered it, and goes on by it.
