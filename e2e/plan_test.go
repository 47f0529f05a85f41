package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mothsPlan opens the plan of the horse that is half-way over.
func mothsPlan(t *testing.T, width, height int) *user {
	u := demoYard(t).open(width, height).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Plan")
	u.sees("What would help")
	return u
}

// The date is in doubt; a lever is tried and undone, tried again and kept with
// a reason, on a phone; the older plan stays, with what changed.
func TestALeverIsTriedUndoneAndKept(t *testing.T) {
	t.Parallel()
	u := mothsPlan(t, 412, 800)
	u.presses("What would help .*")
	u.sees("36 %, in doubt.")
	u.sees("6 visits before")
	u.presses("Try it: 3 visits a week: .*")
	u.seesIn(".tried", "By the date: 36 % became 79 %")
	u.sees("79 %, likely.")
	u.presses("Leave it")
	u.sees("36 %, in doubt.")

	u.presses("Try it ?: A smaller goal.*")
	u.seesIn(".tried", "the goal is now close, before the whole ladder")
	u.sees("3 steps to go")
	u.presses("The whole ladder again")
	u.sees("7 steps to go")
	u.presses("Leave it")
	u.presses(".*One more: Visits a week")
	u.seesIn(".tried", "Visits a week: 2 became 3")
	u.presses("Keep it")
	u.presses("Make the plan anew")
	u.sees("too short")
	u.types("Why make it anew", "Ines wants to travel at New Year")
	u.presses("Make the plan anew")
	u.presses("plans made, 2")
	u.sees("2. Ines wants to travel at New Year")
	u.seesIn("li", "Visits a week: 2 became 3")
	u.MustReload()
	u.presses("back to the plan")
	u.sees("79 %")
	u.sees("likely")
}

// School, order, place in the plan and the standing disagreements are the
// trainer's: what speaks against each is said, and nothing barred comes open.
func TestThePlanIsTheTrainersToChange(t *testing.T) {
	t.Parallel()
	u := mothsPlan(t, 1280, 800)
	u.presses("all steps and schools")
	u.seesIn("article", "Build and release: a way out was rewarded or it is heavy")
	u.presses("relief place the usual way")
	u.seesIn(".tried", "Trailer loading: build and release became relief place")
	u.seesIn("article", "Relief place, as you chose. The assessment would take build and release.")
	u.presses("Leave it for later")
	u.sees("Take it into this plan")
	u.presses("Try it ?: Sent in first.*")
	u.seesIn(".tried", "lead in first became send in first")
	u.presses("Lead in or send in .trailer.. .*")
	u.sees("A sent horse can leap in, turn and frighten itself")
	u.presses("Leave it")
	u.sees("Since the plan was made")

	u.goes("/horses")
	u.presses("Button")
	u.presses("Plan")
	u.presses("all steps and schools")
	u.seesIn("article", "Relief place: the body comes first")
	u.seesIn("article", "A body item that bears on it is suspect or in treatment.")
	u.sees("Blocked: hind leg that snatches or locks, suspect.")
	u.presses("visits ahead, .*")
	u.seesIn(".visit", "Visit 1")
	assert.NotContains(t, u.MustElement(".visit").MustText(), "step in")
}

// An own ladder is checked as the shipped ones: what can't be is refused at its
// place and nothing changes; what can be is kept as a version that plans use.
func TestAnOwnLadderCantBeBroken(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Methods")
	u.types("Look for a step", "hollow")
	u.presses("[Tt]railer loading: board")
	u.seesIn("details[open]", "Steps on a hollow-sounding board")
	u.presses("change it: a copy of your own")
	u.presses("Copy this ladder")
	u.sees("Give your ladder a name")
	u.types("Name of your copy", "Trailer, with a mat first")
	u.presses("Copy this ladder")
	u.seesIn("h1", "Trailer, with a mat first")

	u.presses("board")
	u.chooses("Needs further", "^trailer loading: stand$")
	u.key(input.Escape)
	u.presses("Keep it as the next version")
	u.seesIn(".bad", "Board: Its needs go in a circle")
	u.chooses("Needs further", "^trailer loading: stand$")
	u.key(input.Escape)
	u.types("In a row", "0")
	u.presses("Keep it as the next version")
	u.seesIn(".bad", "Board: A step needs a measure and a pass mark")
	u.types("In a row", "4")
	u.presses("Add a step")
	u.presses("Keep it as the next version")
	u.seesIn(".bad", "A new step: A step needs a name, an ask")
	u.MustReload()
	u.sees("version 1")
	assert.NotContains(t, u.MustElement("form").MustText(), "a new step", "nothing was kept")

	u.presses("board")
	u.types("In a row", "4")
	u.presses("Keep it as the next version")
	u.sees("Kept as version 2.")
	u.sees("progress on them begins again: board")

	u.goes("/horses")
	u.presses("Copperfield Moth")
	u.presses("Plan")
	u.presses("all steps and schools")
	u.finds("select", "as shipped").MustSelect("Trailer, with a mat first, version 2")
	u.seesIn(".tried", "Trailer loading: your own, version 2.")
	u.seesIn(".step", "Steps on a hollow-sounding board")
	u.presses("Keep it")
	u.types("Why make it anew", "our own way of the board")
	u.presses("Make the plan anew")
	u.presses("plans made, 2")
	u.sees("2. our own way of the board")
	u.presses("Bridge")
	u.seesIn(".bridge", "board: tried")

	u.presses("Methods")
	u.presses("Trailer, with a mat first")
	u.presses("Take out ?: gap")
	u.presses("Keep it as the next version")
	u.sees("Gap: It is in use: a plan or a session has it")
}

// A handler is cleared on two legs, and gets one page of homework that fits on
// paper.
func TestRehearsalAndHomework(t *testing.T) {
	t.Parallel()
	u := mothsPlan(t, 1280, 800)
	u.presses("homework and clearance")
	u.seesIn("li", "Lead: back rehearsed · watched 2 of 3")
	u.seesIn("li", "1 more accepted or offered in a row")
	u.presses("\\d+ met steps nobody rehearsed with Ines Calloway yet")
	u.presses("Rehearse Lead: any time with Ines Calloway")
	for _, item := range []string{"rope managed", "right place", "starts light", "builds evenly", "keeps raising until the partner answers", "lets go on the try"} {
		require.NoError(t, u.click(u.finds("[aria-label='"+item+"'] button", "^yes$")))
	}
	u.presses("Keep the rehearsal")
	u.sees("Say yes, nearly or no for each of the seven")
	require.NoError(t, u.click(u.finds("[aria-label='own space kept'] button", "^nearly$")))
	u.types("Try 1: level meant", "6")
	u.types("level felt", "4")
	u.sees("the hand is lighter than it means to be")
	u.presses("Keep the rehearsal")
	u.seesIn("li", "Lead: any time rehearsed · watched 0 of 3")

	u.presses("Homework card")
	u.seesIn("h1", "Homework with Copperfield Moth")
	u.sees("for Ines Calloway")
	u.sees("says no")
	u.sees("kicks, strikes, bites")
	u.sees("trainer Harrow Groundwork 01632 960150")
	u.sees("does not replace a vet")
	assert.NotContains(t, u.MustElement("article").MustText(), "Lead: any time", "not cleared, not homework")
	assert.Equal(t, 1, u.pages(), "one page on paper")
}

// The card of the trailer is ticked in its order only, survives a reload, and
// draws the stops.
func TestTheSequenceCardIsTickedInOrder(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.goes("/cards/trailer")
	u.presses("1. Check floor.*")
	u.seesIn(".next", "Horse in")
	u.presses("4. Then tie")
	u.sees("Not yet: Then tie. First: Horse in.")
	u.presses("2. Horse in.*")
	u.seesIn(".next", "Bar or divider closed")
	u.MustReload()
	u.seesIn(".next", "Bar or divider closed")
	u.presses("Take the last back")
	u.seesIn(".next", "Horse in")
	u.presses("Unloading")
	u.seesIn(".next", "Ramp down")
	u.sees("drawn anew each time")
	u.presses("4. Bar or divider opened")
	u.sees("Not yet: Bar or divider opened. First: Ramp down.")
	for _, line := range []string{"Ramp down", "Untie first", "Check that nobody", "Bar or divider opened", "Horse waits 15 s", "You go to the safe spot", "Forward one", "Back one"} {
		u.seesIn(".next", line)
		require.NoError(t, u.click(u.finds(".next", line)))
	}
	u.seesIn(".next", "9. Forward one")
	u.presses("9. Forward one.*")
	u.presses("10. Back out.*")
	u.sees("All done, in order.")
}

// A ladder that the plan works by places is logged by spells: work and rest run
// until another is tapped, over a reload, and the rules answer each.
func TestAPlaceIsWorkedBySpells(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.plansTheTrailer("relief place the usual way", "he would rather choose")
	u.seesIn(".where", "relief place")
	goes := func(place string) { require.NoError(t, u.click(u.finds(".plan button", "^"+place))) }
	goes("away")
	u.seesIn(".plan [aria-pressed=true]", "away work 0:")
	goes("at the door")
	u.seesIn(".plan [aria-pressed=true]", "at the door rest ")
	u.suitsGloves("places")
	u.MustSetViewport(412, 800, 1, false)
	u.MustReload()
	u.seesIn(".plan [aria-pressed=true]", "at the door rest ")
	u.presses("End the rest")
	u.sees("It is a beginning")
	u.sees("Nothing runs")
	goes("beside left")
	u.finds(".modes button", "^work").MustClick()
	u.seesIn(".plan [aria-pressed=true]", "beside left work 0:")
	goes("away")
	u.presses("End the work")
	u.sees("The work begins where it went")
}

// Held ropes and offers: the other two ways of the trailer.
func TestTheTrailerHeldAndOffered(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.plansTheTrailer("wait it out", "he has learned a way out")
	u.seesIn(".where", "wait it out")
	u.suitsGloves("held")
	u.holds(4)
	require.NoError(t, u.Mouse.Up(proto.InputMouseButtonLeft, 1))
	u.sees("held: press again to let go")
	u.finds(".pad button", "a try: small release").MustClick()
	u.seesIn(".pad", "1 so far")
	u.MustReload()
	u.seesIn(".pad", "1 so far")
	u.answers("accepted")
	u.seesIn(".strip", "accepted at 4")
	u.presses("End session")
	u.sees("What happened")

	u.plansTheTrailer("ask and listen.*", "there is time, he may say no")
	u.seesIn(".where", "ask and listen")
	u.suitsGloves("offers")
	u.finds(".pad button", "^left").MustClick()
	u.seesIn(".say", "no")
	u.seesIn(".what", "Go back to what it last accepted")
	u.finds(".pad button", "^came").MustClick()
	u.seesIn(".strip", "accepted")
}

// plansTheTrailer plans the trailer of Juniper Lantern another way, and takes
// him into the arena.
func (u *user) plansTheTrailer(way, reason string) {
	u.t.Helper()
	u.goes("/horses")
	u.presses("Juniper Lantern")
	u.presses("Plan")
	u.presses("all steps and schools")
	u.presses(way)
	u.seesIn(".tried", "became")
	u.presses("Keep it")
	u.types("Why make it anew", reason)
	u.presses("Make the plan anew")
	u.waits("until it is kept", ".bar.tried", "", `(css) => !document.querySelector(css)`)
	u.presses("plans made, .*")
	u.sees(reason)
	u.goes("/horses")
	u.begins("Juniper Lantern")
}
