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
func TestVisitsOfManyKinds(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	for _, test := range []struct {
		kind, name, problem, goal string
		width                     int
		works                     func(*visit)
		review, report            string
	}{
		{"bridling from nose to bit", "Tansy", "bridling", "Takes the bit from Tilda's hand", 412, func(v *visit) {
			v.seesIn(".what", "nose")
			for _, step := range []string{"nose", "zone", "lips", "teeth", "bit", "bit"} {
				v.works(step, "Bridling")
			}
			v.seesIn(".against", "Waits for bridle teeth")
		}, "Counted as understood, since a later step was accepted", "bit"},
		{"trailer by a held rope, with tries", "Jasper", "trailer loading", "Walks in and stands", 1280, func(v *visit) {
			v.asks("front", "Trailer loading")
			v.settles("wait it out")
			v.holdsWithTries(2, "try")
			v.holdsWithTries(1, "accepted")
			v.asks("step", "Trailer loading")
			v.holdsWithTries(3, "accepted")
		}, "small tries let go", ""},
		{"trailer by places, and the owner's turn", "Mabel", "trailer loading", "Stands in by choice", 412, func(v *visit) {
			v.asks("stand", "Trailer loading")
			v.places("at the door", "it left")
			v.places("away", "hind", "End the work")
			v.places("front feet in", "End the rest")
			v.seesIn(".live", "Nearest today: front feet in, by itself")
			v.settles("Tilda Marsh")
			v.places("in", "3 feet in", "End the rest")
			v.seesIn(".live", "Nearest today: in, by itself")
		}, "The work away from it: hind.", ""},
		{"spray on both sides", "Bramble", "fear of a new thing", "Stands for the spray on both sides", 412, func(v *visit) {
			v.works("air", "A new thing")
			v.works("shoulder", "A new thing")
			v.side("near")
			v.does()
			v.side("off")
			v.does()
		}, "it stood for", "spray"},
		{"girth to the second hole", "Sorrel", "girth", "Stands for the girth to the second hole", 412, func(v *visit) {
			v.works("girth lift", "Pad, saddle, girth")
			v.does()
			v.asks("girth hole", "Pad, saddle, girth")
			v.presses("one ask at a time")
			v.presses("2 holes")
			v.does()
		}, "girth hole", "girth"},
		{"planting, with its means", "Fennel", "planting", "Sets off when asked", 1280, func(v *visit) {
			v.asks("go", "Planting")
			require.NoError(v.t, v.click(v.finds("[aria-label='Means reached'] button", "head")))
			v.presses("light")
			v.answers("accepted")
			v.asked++
			v.works("more", "Planting")
			v.works("more", "Planting")
		}, "plant go", ""},
		{"hind foot by rope to hand", "Rowan", "feet and farrier", "Lifts both hind feet for the farrier", 412, func(v *visit) {
			v.works("rope", "Feet and farrier")
			v.works("rope lift", "Feet and farrier")
			v.works("up", "Feet and farrier")
		}, "It was asked early", "foot"},
		{"first pad, loose", "Meadow", "saddle and pad", "Pad on, free", 1280, func(v *visit) {
			v.works("show", "Pad, saddle, girth")
			v.works("pad", "Pad, saddle, girth")
			v.works("pad", "Pad, saddle, girth")
		}, "saddle pad", "pad"},
		{"tack review and rider swap", "Thistle", "heavy, stiff, grabbing the bit", "Carries a soft rein", 1280, func(v *visit) {
			v.asks("tack", "Heavy, stiff")
			v.reviews("spurs", "", "")
			v.reviews("mouthpiece", "single joint", "lozenge")
			v.works("mix", "Hindquarters and shoulders")
			v.settles("Tilda Marsh")
			v.works("mix", "Hindquarters and shoulders")
		}, "Mouthpiece, was single joint: lozenge", "Tilda Marsh"},
		{"poll softening, with let-down times", "Larch", "tension that never lets go", "Soft at the halter anywhere", 412, func(v *visit) {
			v.works("down", "Poll down and flex")
			v.letsDown()
			v.works("anywhere", "Tension")
			v.letsDown()
			v.does()
			v.letsDown()
		}, "The whole body let down", ""},
		{"body control on both sides", "Aspen", "crowding", "Keeps an arm's length", 1280, func(v *visit) {
			for _, ask := range []string{"hind", "fore"} {
				v.asks(ask, "Hindquarters and shoulders")
				v.side("near")
				v.does()
				v.side("off")
				v.does()
			}
			v.works("match", "Crowding")
		}, "quarters fore, off", ""},
	} {
		t.Run(test.kind, func(t *testing.T) {
			t.Parallel()
			v := visits(t, y, test.width, 800, test.name, test.problem, test.goal)
			v.basicsAreGood()
			v.plans(test.name)
			v.enters(test.name)
			test.works(v)
			v.ends(test.review)
			v.reports(test.report)
		})
	}
}

// A young horse is ridden in bursts: the lead trainer makes the exception, with reason
// and end, and the controls in hand that it waits for are met in the same session.
func TestAVisitToAYoungHorseInBursts(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).as(t)
	u.signsInDemo()
	v := &visit{walker: &walker{user: u}, began: time.Now()}
	u.taps = 0
	u.presses("Take on a horse")
	u.types("Name of the horse", "Quill")
	u.presses("bucking or bolting")
	u.presses("A new owner")
	u.types("Owner's name", "Tilda Marsh")
	u.presses("Where it stands, a date, and what is known of it")
	u.types("Rides so far", "5")
	u.presses("Take it on")
	u.sees("Not assessed yet")
	v.basicsAreGood()
	v.section("B")
	u.presses("Looked at all the rest: clear .*")
	v.section("D2")
	for _, look := range []string{"ridden.mount", "ridden.halt"} {
		require.NoError(t, u.click(u.finds("td button", "^"+look+":")))
		v.button("light and soft: level 2, accepted.*")
		u.finds("td button", "^"+look+": accepted") // it is kept
	}
	v.arrives()
	v.plans("Quill")
	u.types("Why it is ridden all the same", "Light and well grown, and needed for the drive")
	u.types("Until", time.Now().AddDate(0, 1, 0).Format(time.DateOnly))
	u.presses("Try the exception")
	u.sees("by Wren Harrow")
	u.presses("Make the plan")
	u.finds("li", "^1\\. ")
	v.enters("Quill")
	for _, ask := range []string{"flex", "disengage", "saddle"} {
		v.asks(ask, "Control before riding")
		for _, side := range []string{"near", "off"} {
			v.side(side)
			for range 3 {
				v.does()
				if here := v.Page.MustEval(`() => document.querySelector('.moved .back') !== null`).Bool(); here {
					v.presses("back to .*")
				}
			}
		}
	}
	for _, ask := range []string{"walk", "walk", "walk", "trot"} {
		v.asks(ask, "Control before riding")
		if v.pad() != "burst" {
			v.presses("asks in a burst")
		}
		for range 5 {
			v.presses("on the touch")
		}
		before := v.entries()
		v.presses("5 of 5 on the touch: end of the burst")
		v.logs(before)
	}
	v.ends("control trot")
	v.reports("trot")
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

// The plan is changed while a session runs: the session is offered it, and goes on by it.
func TestAChangedPlanIsTakenUp(t *testing.T) {
	t.Parallel()
	v := visits(t, demoYard(t), 1280, 800, "Juniper", "trailer loading", "Stands in by choice")
	v.enters("Juniper")
	v.asks("front", "Trailer loading")
	v.seesIn(".where", "relief place")
	arena := v.MustInfo().URL
	v.goes("/horses")
	v.presses("Juniper")
	v.presses("Plan")
	ladder := v.finds("article", "^Trailer loading")
	require.NoError(t, v.click(ladder.MustElementR("button", "^wait it out")))
	v.seesIn(".tried", "Trailer loading: relief place became wait it out")
	v.presses("Make the plan")
	v.finds("li", "^1\\. ")
	v.MustNavigate(arena)
	v.sees("The plan was changed since this session began.")
	v.seesIn(".where", "relief place")
	v.presses("work by it from now on")
	v.seesIn(".where", "wait it out")
}
