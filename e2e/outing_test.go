package e2e

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/outing"
	"ivorybridge/core/track"
)

// An outing on a phone: planned, through the gate, walked without a signal, reloaded on
// the way; every button is there once, and the clock goes on where it was.
func TestAnOutingOnAPhoneWithoutASignal(t *testing.T) {
	t.Parallel()
	y := farYard(t)
	u := y.atTheYard(412, 800)
	u.goes("/outings")
	u.sees("At ease to")
	u.presses("Plan an outing")
	u.sees("of standing")
	u.types("Minutes out", "0")
	u.types("or metres out", "0")
	u.sees("A road of 0 m is no way out")
	u.types("Minutes out", "0.5")
	u.types("or metres out", "40")
	u.sees("0:30 of standing, at 1 stop.")
	u.presses("To the gate")
	u.sees("Ready? Harvest Lark")
	u.presses("settled")
	u.presses("calm")
	u.presses("yes")
	u.presses("Into the arena")
	u.sees("The road is planned")
	walk := path(u)
	y.mast.signal(false)
	u.suitsGloves("walk, before")
	u.walks("Set off")
	u.sees("out so far")
	u.walks("Turned.*")
	u.sees("Stopped")
	u.walks("Stopped.*")
	u.seesIn(".stand", "Stop 1")
	u.suitsGloves("walk")
	u.walks("Broke.*")
	u.seesIn(".keys", "stop 1, broke")
	u.presses("Undo.*")
	u.goes(walk)
	u.seesIn(".stand", "Stop 1")
	u.seesIn(".top", "no signal")
	u.presses("Trouble.*")
	u.sees("People first")
	u.presses("spun")
	u.closesSheet()
	u.walks("Stood rope slack.*")
	u.walks("Moving.*")
	u.presses("Named spot")
	require.NoError(t, u.MustElement(".which input").Input("the mill"))
	u.presses("Keep it")
	u.walks("Home")
	u.sees("Half the way next time: it was dangerous, or spun.")
	u.presses("Undo.*")
	u.sees("still owed")
	u.walks("Home")
	u.sees("Half the way next time")

	y.mast.signal(true)
	u.seesIn(".top", "all sent")
	u.presses("See the road")
	u.sees("7 outings so far")
	u.sees("Half the way next time: it was dangerous, or spun.")
	u.sees("the mill")
	session := walk[len("/arena/") : len(walk)-len("/walk")]
	assert.Equal(t, 1, y.counts(`SELECT count(*) FROM entries WHERE json_extract(body, '$.mark.walk.button') = 'set off' AND session_id = '`+session+`'`))
	assert.Equal(t, 2, y.counts(`SELECT count(*) FROM entries WHERE json_extract(body, '$.mark.walk.button') = 'home' AND session_id = '`+session+`'`), "once, and once again after it was undone")
}

// walks presses a button of a walk, once the keys have come to rest.
func (u *user) walks(name string) {
	u.t.Helper()
	require.NoError(u.t, u.click(u.finds(".walk:not(.swapped) button", "^\\s*"+name+"\\s*$")), "pressing %q", name)
}

// setOffArrives waits until the server has heard that a walk began, before the clocks
// jump: what is on its way meanwhile looks as if its device's clock were wrong.
func (u *user) setOffArrives() {
	u.t.Helper()
	id := path(u)[len("/arena/") : len(path(u))-len("/walk")]
	err := u.Page.Timeout(patience).Wait(rod.Eval(`async (id) => {
		const session = await (await fetch('/api/sessions/' + id)).json()
		return session.track.some((e) => e.mark?.walk?.button === 'set off')
	}`, id).ByPromise())
	require.NoError(u.t, err)
}

// The week of outings of the demo's barn-sour horse, on its road.
func TestTheRoadOfAWeek(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.goes("/outings")
	u.presses("Harvest Lark")
	u.sees("6 outings so far")
	u.sees("5 of 5 days in hand at twice the time")
	u.presses("The same as a table")
	u.seesIn("table", "2.17")
	u.presses("Plan the next")
	u.sees("it stood at 5 of 6 stops")
}

// An hour's walk with forty stops, far from a good signal: it is cut ten times, the page
// is reloaded twice, the server is killed once. Every button is there once, and the clock
// is right to the second.
func TestAWalkFarFromASignal(t *testing.T) {
	t.Parallel()
	y := farYard(t)
	u := y.atTheYard(412, 800)
	u.goes("/outings")
	u.sees("At ease to")
	u.presses("Plan an outing")
	u.sees("of standing")
	u.types("Minutes out", "20")
	u.types("or metres out", "1600")
	u.sees("20:00 of standing")
	u.presses("To the gate")
	u.sees("Ready? Harvest Lark")
	u.presses("settled")
	u.presses("calm")
	u.presses("yes")
	u.presses("Into the arena")
	u.walks("Set off")
	u.sees("out so far")
	session := path(u)[len("/arena/") : len(path(u))-len("/walk")]
	u.setOffArrives()
	u.passes(20 * time.Minute)
	u.walks("Turned.*")
	const stops = 40
	up := true
	for i := range stops {
		if i%4 == 0 { // ten cuts, each mended at the next
			up = !up
			y.mast.signal(up)
		}
		if i == 13 || i == 27 {
			u.MustReload()
		}
		if i == 20 {
			y.kill(t)
		}
		u.walks("Stopped.*")
		u.seesIn(".stand", fmt.Sprintf("Stop %d:", i+1))
		u.passes(15 * time.Second)
		u.walks("Stood rope slack.*")
		u.walks("Moving.*")
		u.finds(".walk button", "^\\s*Stopped")
		u.passes(29 * time.Second)
	}
	y.mast.signal(true)
	u.seesIn(".top", "all sent")
	u.MustReload()
	u.seesIn(".clock", "still owed")
	text := u.MustEval(`async (id) => JSON.stringify({ session: await (await fetch('/api/sessions/' + id)).json(), now: Date.now() })`, session).Str()
	var there struct {
		Session struct{ Track []track.Entry } `json:"session"`
		Now     int64                         `json:"now"`
	}
	require.NoError(t, json.Unmarshal([]byte(text), &there))
	entries := track.Live(there.Session.Track)
	presses := map[string]int{}
	for _, e := range entries {
		if e.Mark != nil && e.Mark.Walk != nil {
			presses[e.Mark.Walk.Button.String()]++
		}
	}
	assert.Equal(t, map[string]int{"set off": 1, "turned": 1, "stopped": stops, "stood": stops, "moving": stops}, presses)
	state, ok := outing.Live(entries, 7, there.Now)
	require.True(t, ok)
	minutes, seconds, _ := strings.Cut(u.MustElement(".clock b").MustText(), ":")
	shown := 60*number(t, minutes) + number(t, seconds)
	assert.InDelta(t, state.Owed, float64(shown), 1, "the clock on the page against the buttons that arrived")
	home := state.HomeFor + state.Share*float64(state.Plan.Moving)
	assert.InDelta(t, max(2*state.OutFor, home), home+state.Owed, 1)
	u.walks("Home")
	u.sees("See the road")
}

func number(t *testing.T, text string) int {
	n, err := strconv.Atoi(text)
	require.NoError(t, err)
	return n
}
