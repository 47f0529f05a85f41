package e2e

import (
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
	v.asksFor(step, ladder)
	v.does()
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

// Bridling, taken from the nose to the bit in one session on a phone, whatever
// would have come first.
func TestAVisitBridlingFromNoseToBit(t *testing.T) {
	t.Parallel()
	v := visits(t, demoYard(t), 412, 800, "Tansy", "bridling", "Takes the bit from Tilda's hand")
	v.basicsAreGood()
	v.goes("/horses")
	v.presses("Tansy")
	v.presses("Plan")
	v.sees("Seen good at the assessment, and not taught again")
	v.presses("Bridge")
	v.sees("Met at the assessment")
	v.enters("Tansy")
	v.seesIn(".what", "nose, from 1")
	for _, step := range []string{"nose", "zone", "lips", "teeth", "bit", "bit"} {
		v.works(step, "Bridling")
	}
	v.seesIn(".against", "Waits for bridle teeth")
	v.ends("It was asked early: it waited for bridle strap.", "Counted as understood, since a later step was accepted", "bridle mouth")
}

// A worked step, on its ladder.
type worked struct{ step, ladder string }

// Visits of many kinds: each horse is taken on, its basics are not looked at, and
// what is done is logged in the order in which it is done. No step is refused.
func TestVisitsOfManyKinds(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	for _, test := range []struct {
		name, problem, goal string
		width, height       int
		does                []worked
	}{
		{"Sorrel", "girth", "Stands for the girth to the second hole", 412, 800, []worked{{"girth lift", "Pad, saddle, girth"}, {"girth lift", "Pad, saddle, girth"}, {"girth hole", "Pad, saddle, girth"}, {"girth pull", "Pad, saddle, girth"}}},
		{"Bramble", "fear of a new thing", "Stands for the spray on both sides", 412, 800, []worked{{"air", "A new thing"}, {"shoulder", "A new thing"}, {"all", "A new thing"}}},
		{"Fennel", "planting", "Sets off when asked", 1280, 800, []worked{{"go", "Planting"}, {"more", "Planting"}, {"more", "Planting"}}},
		{"Rowan", "feet and farrier", "Lifts both hind feet for the farrier", 412, 800, []worked{{"rope", "Feet and farrier"}, {"rope lift", "Feet and farrier"}, {"up", "Feet and farrier"}}},
		{"Meadow", "saddle and pad", "Pad on, free", 1280, 800, []worked{{"show", "Pad, saddle, girth"}, {"pad", "Pad, saddle, girth"}, {"pad", "Pad, saddle, girth"}}},
		{"Thistle", "heavy, stiff, grabbing the bit", "Carries a soft rein", 1280, 800, []worked{{"tack", "Heavy, stiff"}, {"mix", "Hindquarters and shoulders"}}},
		{"Larch", "tension that never lets go", "Soft at the halter anywhere", 412, 800, []worked{{"down", "Poll down and flex"}, {"anywhere", "Tension"}, {"free", "Tension"}}},
		{"Aspen", "crowding", "Keeps an arm's length", 1280, 800, []worked{{"match", "Crowding"}, {"idle", "Crowding"}, {"rub", "Crowding"}}},
	} {
		t.Run(test.problem, func(t *testing.T) {
			t.Parallel()
			v := visits(t, y, test.width, test.height, test.name, test.problem, test.goal)
			v.enters(test.name)
			for _, w := range test.does {
				v.works(w.step, w.ladder)
			}
			v.ends()
		})
	}
}

// Something that no ladder names is added in the arena in one line, logged, and there
// again on the next visit.
func TestAVisitWithAnAskOfItsOwn(t *testing.T) {
	t.Parallel()
	v := visits(t, demoYard(t), 412, 800, "Clover", "crowding", "Keeps an arm's length")
	v.enters("Clover")
	v.presses("change ask")
	v.types("What is asked", "stands for the umbrella")
	v.presses("each side apart")
	v.presses("Ask it")
	v.seesIn(".ask h1", "Stands for the umbrella")
	for range 3 {
		v.does()
	}
	v.seesIn(".moved", "Now:")
	v.presses("back to .*")
	v.ends("There the pass mark was reached.")
	v.goes("/horses")
	v.presses("Clover")
	v.presses("Into the arena")
	v.answersTheGate()
	v.presses("begin with something else")
	v.seesIn("option", "stands for the umbrella")
}

// From the yard's gate on there is no signal: the session is begun, asks far from the
// plan and one of its own are logged, and the review is read on the device. All of
// it arrives once there is a signal.
func TestVisitsWithoutASignal(t *testing.T) {
	t.Parallel()
	for _, test := range []struct {
		name, problem, goal string
		does                []worked
	}{
		{"Alder", "feet and farrier", "Lifts both hind feet for the farrier", []worked{{"rope", "Feet and farrier"}, {"rope lift", "Feet and farrier"}, {"up", "Feet and farrier"}}},
		{"Saffron", "bridling", "Takes the bit", []worked{{"ears", "Bridling"}, {"teeth", "Bridling"}, {"bit", "Bridling"}}},
	} {
		t.Run(test.problem, func(t *testing.T) {
			t.Parallel()
			y := farYard(t)
			v := visits(t, y, 412, 800, test.name, test.problem, test.goal)
			v.goes("/horses")
			v.presses(test.name)
			v.presses("Into the arena")
			v.answersTheGate()
			v.seesIn(".verdict", "Begin with")
			y.mast.signal(false)
			require.NoError(t, v.click(v.finds(".begin:enabled", "Into the arena")))
			v.seesIn(".what", "Begin with")
			for _, w := range test.does {
				v.works(w.step, w.ladder)
			}
			v.seesIn(".clocks", "no signal")
			v.ends("It was asked early")
			y.mast.signal(true)
			v.sees("all sent")
			assert.Equal(t, len(test.does), y.counts(`SELECT count(*) FROM entries e JOIN sessions s ON s.id = e.session_id JOIN horses h ON h.id = s.horse_id WHERE h.name = '`+test.name+`' AND e.kind NOT IN ('mark', 'advice', 'end')`), "all of it arrived")
		})
	}
}

// A new horse of a rescue is at work within a minute and a half: its name, two
// problems and who handles it, no assessment; it stays "not assessed yet" in plain
// sight, and what was told is not asked for again.
func TestTheFirstAnswerOfANewHorse(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).as(t)
	u.signsInDemo()
	v := &visit{walker: &walker{user: u}, began: time.Now()}
	u.taps = 0
	u.presses("Take on a horse")
	u.types("Name of the horse", "Nobody's Comet")
	u.presses("fear of a new thing")
	u.presses("feet and farrier")
	u.types("What is the new thing.", "fly spray")
	u.presses("A new owner")
	u.presses("a rescue or foster home")
	u.types("Owner's name", "Far Field Rescue")
	u.presses("Somebody who handles it")
	u.types("Handler 1, name", "Ada Finch")
	u.presses("Take it on and begin work")
	u.seesIn("label", "Who holds the rope")
	u.sees("Ada Finch, handler")
	u.answersTheGate()
	require.NoError(t, u.click(u.finds(".begin:enabled", "Into the arena")))
	v.works("shoulder", "A new thing")
	assert.Equal(t, "fly spray", u.field("With").MustText())
	v.ends()
	u.goes("/horses")
	u.presses("Nobody's Comet")
	u.sees("Not assessed yet")
	u.presses("Record")
	u.sees("Things it has met: 1")
	u.sees("fly spray: first")
	u.presses("Assessment")
	u.presses("Begin the assessment")
	v.section("H")
	u.seesIn("h3", "Ada Finch")
}
