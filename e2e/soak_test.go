package e2e

import (
	"context"
	"math/rand/v2"
	"os"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/track"
	"ivorybridge/store"
)

// trial is how long the trials are: short in make test, whole in make soak.
type trial struct {
	entries, cuts, reloads, kills int
	crashes                       int
}

func size() trial {
	if os.Getenv("SOAK") != "" {
		return trial{entries: 500, cuts: 50, reloads: 5, kills: 2, crashes: 200}
	}
	return trial{entries: 60, cuts: 8, reloads: 2, kills: 1, crashes: 6}
}

// atTheYard signs in through the mast with the page's clock at the yard's, and
// waits until the product would open without a signal.
func (y *yard) atTheYard(width, height int) *user {
	y.t.Helper()
	u := y.open(width, height)
	u.MustEvalOnNewDocument(`
		const here = Date.now
		Date.now = () => here() + Number(localStorage.getItem('ahead') ?? 0)`)
	u.signsInDemo()
	u.sees("kept for the yard")
	err := u.Page.Timeout(patience).Wait(rod.Eval(`async () => (await navigator.serviceWorker.ready).active !== null`).ByPromise())
	require.NoError(y.t, err, "waiting until it opens without a signal")
	return u
}

// passes lets time pass for the server and the page.
func (u *user) passes(d time.Duration) {
	ahead := u.yard.clock.pass(u.t, d)
	u.MustEval(`(ms) => localStorage.setItem('ahead', ms)`, ahead.Milliseconds())
}

// logsByKey taps a level and an answer by the keyboard, and waits until both
// the answer and the advice on it are on the track of this device.
func (u *user) logsByKey(level, answer string) {
	u.t.Helper()
	err := u.Page.Timeout(patience).Wait(rod.Eval(`async (level, answer) => {
		const count = () => Number(document.querySelector('.arena')?.dataset.entries ?? NaN)
		if (window.began === undefined) {
			if (!document.querySelector('.what') || Number.isNaN(count())) return false
			window.began = count()
			const tapped = performance.now()
			new MutationObserver((_, watch) => {
				watch.disconnect()
				;(window.took ??= []).push(performance.now() - tapped)
			}).observe(document.querySelector('.arena'), { attributes: true, attributeFilter: ['data-entries'] })
			for (const code of [level, answer]) window.dispatchEvent(new KeyboardEvent('keydown', { code }))
		}
		if (count() < window.began + 2) return false
		delete window.began
		return true
	}`, level, answer).ByPromise())
	require.NoError(u.t, err, "waiting until a tap is kept")
}

// A whole session far from a good signal: it is cut at random, the page is
// reloaded, the server is killed. All that was tapped arrives once, in order,
// and each piece of advice is what an uninterrupted session would have said.
func TestASessionFarFromASignal(t *testing.T) {
	t.Parallel()
	trial := size()
	y := farYard(t)
	u := y.atTheYard(1280, 800)
	u.begins("Copperfield Moth")
	id := path(u)[len("/arena/"):]
	chance := rand.New(rand.NewPCG(7, 11))
	taps := trial.entries / 2
	at := func(times int) map[int]bool {
		all := map[int]bool{}
		for len(all) < times {
			all[1+chance.IntN(taps-2)] = true
		}
		return all
	}
	cuts, reloads, kills := at(2*trial.cuts/2), at(trial.reloads), at(trial.kills)
	answers := []string{"KeyQ", "KeyW", "KeyE", "KeyR", "KeyR", "KeyR", "KeyT"}
	up := true
	for i := range taps {
		u.passes(time.Duration(10+chance.IntN(38)) * time.Second)
		if cuts[i] {
			up = !up
			y.mast.signal(up)
		}
		if reloads[i] {
			u.MustReload()
		}
		if kills[i] {
			y.kill(t)
		}
		u.logsByKey("Digit"+itoa(1+chance.IntN(6)), answers[chance.IntN(len(answers))])
	}
	y.mast.signal(false)
	u.logsByKey("Digit2", "KeyR")
	u.seesIn(".clocks", "kept here")
	said := u.MustElement(".what").MustText()
	here := u.MustEval(`() => Number(document.querySelector('.arena').dataset.entries)`).Int()
	took := u.MustEval(`() => {
		const median = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]
		const rules = performance.getEntriesByName('rules add').map((m) => m.duration)
		return [median(window.took), median(rules), window.took.length]
	}`)
	y.mast.signal(true)
	u.seesIn(".clocks", "all sent")
	u.MustReload()
	u.seesIn(".what", said)
	t.Logf("%d entries; from a tap to its advice, kept on the disk first, median %.1f ms, the rules' part of it %.1f ms (%d taps)",
		here, took.Get("0").Num(), took.Get("1").Num(), took.Get("2").Int())
	would := u.MustEval(`async (id) => (await (await fetch('/api/sessions/' + id)).json()).told.would.length`, id).Int()
	assert.Zero(t, would, "advice shown is what an uninterrupted session says")

	y.stop()
	db, err := store.Open(context.Background(), y.database, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, db.Close()) }()
	p, err := db.FirstPractice(context.Background())
	require.NoError(t, err)
	entries, _, err := db.Track(context.Background(), p.ID, id)
	require.NoError(t, err)
	assert.Len(t, entries, here, "all arrived")
	assert.GreaterOrEqual(t, len(entries), trial.entries)
	seen := map[string]bool{}
	for i, e := range entries {
		assert.False(t, seen[e.ID], "once")
		assert.False(t, e.ClockOff)
		seen[e.ID] = true
		if i > 0 {
			assert.Greater(t, e.Seq, entries[i-1].Seq, "in order")
		}
	}
	shown := 0
	for _, e := range entries {
		if e.Kind == track.KindAdvice {
			shown++
		}
	}
	assert.GreaterOrEqual(t, shown, len(entries)/2-2, "each tap was advised on")
}
