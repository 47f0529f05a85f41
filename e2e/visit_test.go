package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

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
			v.seesIn(".where", "wait it out")
			v.finds(".pad button", "^a try")
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
	u.presses("all steps and schools")
	u.types("Why it is ridden all the same", "Light and well grown, and needed for the drive")
	u.types("Until", time.Now().AddDate(0, 1, 0).Format(time.DateOnly))
	u.presses("Try the exception")
	u.sees("by Wren Harrow")
	u.presses("Make the plan")
	u.presses("plans made, 1")
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
	v.presses("all steps and schools")
	ladder := v.finds("article", "^Trailer loading")
	require.NoError(t, v.click(ladder.MustElementR("button", "^wait it out")))
	v.seesIn(".tried", "Trailer loading: relief place became wait it out")
	v.presses("Make the plan")
	v.presses("plans made, 1")
	v.finds("li", "^1\\. ")
	v.MustNavigate(arena)
	v.sees("The plan was changed since this session began.")
	v.seesIn(".where", "relief place")
	v.presses("work by it from now on")
	v.seesIn(".where", "wait it out")
}
