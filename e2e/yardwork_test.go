package e2e

import (
	"database/sql"
	"os/exec"
	"path/filepath"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // to look at what is kept
)

// ownYard is a practice of one's own, empty, whose lead trainer is signed in.
func ownYard(t *testing.T) *user {
	t.Helper()
	y := &yard{t: t, address: freeAddress(t), database: filepath.Join(t.TempDir(), "own.db"), serve: true}
	out, err := exec.Command(program, "user", "add", "rae@own.example", "--name", "Rae Linden", "--practice", "Linden", "--vehicle", "float", "--database", y.database).Output()
	require.NoError(t, err)
	password := regexp.MustCompile(`: (\S+)\n`).FindSubmatch(out)
	require.NotNil(t, password)
	t.Cleanup(y.stop)
	y.start()
	u := y.open(1280, 800).goes("/")
	u.types("Email address", "rae@own.example")
	u.types("Password", string(password[1]))
	u.presses("Sign in")
	u.sees("Choose a password of your own")
	u.types("Password now", string(password[1]))
	u.types("New password", "long enough to keep")
	u.presses("Change it")
	return u
}

// A practice of one's own begins empty: every place says what to do first.
func TestAnEmptyPracticeSaysWhatToDoFirst(t *testing.T) {
	t.Parallel()
	u := ownYard(t)
	u.sees("No horses yet")
	u.presses("People")
	u.sees("Write down the vet first")
	u.sees("No yards yet")
	u.presses("Arena")
	u.sees("No horse is waiting")
	u.goes("/horses/new")
	u.presses("float loading")
	u.types("Name of the horse", "Bracken")
	u.types("How will we know it's fixed.", "Walks in")
	u.types("Owner's name", "Rae's neighbour")
	u.presses("Take it on")
	u.seesIn("h1", "Bracken")
	u.presses("Sessions")
	u.sees("No sessions yet")
	u.presses("Reports")
	u.sees("No reports yet")
	u.presses("Plan")
	u.sees("Look before you plan")
}

// A suspect leg bars the steps that load it, until the vet has cleared it.
func TestWhatIsBarredAndWhatLiftsIt(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Button")
	u.seesIn(".bridge", "step in: blocked. Blocked: hind leg that snatches or locks, suspect.")
	u.presses("Assessment")
	u.presses("Go on with it")
	u.section("B")
	u.item("hind leg")
	u.presses("cleared")
	u.presses("To the result")
	u.seesIn("h1", "Button")
	u.presses("Plan")
	u.presses("Since the plan was made.*")
	u.seesIn("li", "No longer barred: load step in")
	u.presses("Make the plan anew")
	u.presses("Make the plan anew")
	u.sees("too short")
	u.types("Why make it anew", "the vet has cleared the leg")
	u.presses("Make the plan anew")
	u.presses("plans made, 2")
	u.sees("the vet has cleared the leg")
	u.seesIn("li", "No longer barred: load step in")
	u.presses("Bridge")
	u.seesIn(".bridge", "step in: untried")
}

// The gate says why not, and nothing begins.
func TestTheGateSaysWhyNot(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Into the arena")
	u.presses("explosive")
	u.presses("calm")
	u.presses("yes")
	u.sees("Not now")
	u.sees("Explosive at the gate")
	assert.True(t, u.MustElement(".begin").MustProperty("disabled").Bool())
	u.presses("over the line")
	u.sees("foundations only")
	u.presses("settled")
	u.presses("no")
	u.sees("The body is not as last time")
	u.presses("yes")
	u.presses("Nobody else is at the yard")
	u.sees("no bar or divider is closed")
	u.presses("scared")
	u.sees("A handler who is scared asks nothing")
}

// Tapped levels, in the left hand: rope and keys change sides, near and off do
// not.
func TestTheLeftHandTapsLevels(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.finds("button", "^change\\s+ask$").MustClick()
	u.finds("dialog button", "^\\s*hind").MustClick()
	u.seesIn(".ask", "near")
	side := func(css string) float64 { return u.MustElement(css).MustShape().Box().X }
	assert.Less(t, side("button[data-answer=refused]"), side("button[data-answer=accepted]"))
	u.presses("settings")
	u.presses("tap levels")
	u.presses("left hand")
	u.presses("Close")
	assert.Greater(t, side("button[data-answer=refused]"), side("button[data-answer=accepted]"))
	assert.Less(t, u.finds(".variants button", "near").MustShape().Box().X, u.finds(".variants button", "off").MustShape().Box().X, "near stays left")
	u.finds(".variants button", "off").MustClick()
	u.finds(".pad button", "^\\s*2\\s*$").MustClick()
	u.answers("accepted")
	u.seesIn(".strip", "accepted at 2, off")
	u.MustReload().MustWaitLoad()
	u.seesIn(".strip", "accepted at 2, off")
	u.MustElement(".pad")
}

// Two people log one session: what one ends, the other still keeps.
func TestTwoDevicesInOneSession(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.pull(2)
	u.answers("accepted")
	u.keeps(1)
	arena := path(u)

	helper := y.open(412, 800).goes(arena)
	helper.types("Email address", "ash@harrow.example")
	helper.types("Password", "rope and ivory")
	helper.presses("Sign in")
	helper.seesIn(".strip", "accepted at 2")
	u.MustActivate()
	u.presses("End session")
	u.sees("What changed on the bridge")
	helper.MustActivate()
	helper.answers("try")
	helper.keeps(2)
	helper.seesIn(".what", "End the session here")
	u.MustActivate().MustReload().MustWaitLoad()
	u.sees("1 entry arrived from another device after this session had ended")
}

// What the trainer does otherwise is kept, and the owner's first good one ends
// the session on a high note.
func TestTheOwnerHoldsTheRopeAndTheTrainerDisagrees(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Into the arena")
	for _, tap := range []string{"attentive", "Ines Calloway, owner", "calm", "yes"} {
		u.presses(tap)
	}
	u.sees("Begin with")
	u.finds(".begin", "Into the arena").MustClick()
	u.seesIn(".top", "rope: Ines Calloway")
	u.pull(4)
	u.answers("refused")
	u.seesIn(".tell", "One no is not yet an answer")
	u.presses("I do otherwise")
	u.sees("Ask something else")
	u.presses("Close")
	u.sees("You do otherwise, and that is kept. It had said")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".tell", "The first good answer with its owner")
	u.finds(".tell", "the numbers").MustClick()
	u.sees("Reps that count here")
	u.presses("End the session")
	u.sees("What changed on the bridge")
	assert.Equal(t, 1, y.counts(`SELECT count(*) FROM entries WHERE kind = 'advice' AND json_extract(body, '$.shown.otherwise')`), "the disagreement is kept")
}

// counts asks the database, as it is on the disk.
func (y *yard) counts(query string) int {
	y.t.Helper()
	db, err := sql.Open("sqlite", "file:"+y.database+"?_pragma=query_only(1)")
	require.NoError(y.t, err)
	defer func() { assert.NoError(y.t, db.Close()) }()
	n := 0
	require.NoError(y.t, db.QueryRow(query).Scan(&n))
	return n
}

// Two people word one report: both versions are shown, and safety stays.
func TestTwoPeopleWordOneReport(t *testing.T) {
	t.Parallel()
	one := demoYard(t).open(1280, 800).signsInDemo()
	one.presses("Copperfield Moth")
	one.presses("Reports")
	one.MustElement(".line a").MustClick()
	one.presses("Word it yourself")
	two := one.another()
	two.goes(path(one))
	two.presses("Word it yourself")
	two.MustElement(".part.one textarea").MustSelectAllText().MustInput("A quiet morning.")
	two.presses("Save the wording")
	two.sees("A quiet morning.")

	one.MustActivate()
	one.MustElement(".part.one textarea").MustSelectAllText().MustInput("A good morning.")
	one.finds(".part.changed label", "leave it out").MustClick()
	assert.Empty(t, one.MustElements(".part.care textarea"), "safety is not reworded")
	one.presses("Save the wording")
	one.sees("Changed meanwhile by Wren Harrow")
	one.seesIn(".stale", "A quiet morning.")
	one.seesIn(".stale", "A good morning.")
	one.presses("Save mine over it")
	one.sees("A good morning.")
	one.sees("does not replace your vet")
	one.presses("Word it yourself")
	one.finds("button", "back to the product's words").MustClick()
	one.presses("Save the wording")
	one.seesIn(".part.one", "New for Copperfield Moth")
}
