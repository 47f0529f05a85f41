package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A demoHorse is one of the practice's, with its newest session.
type demoHorse struct {
	ID, Name, Case, Session string
	Finished, Assessed      bool
	Shape                   string // of what its pages show
}

func (u *user) demoHorses() []demoHorse {
	u.t.Helper()
	text := u.MustEval(`async () => {
		const rows = await (await fetch('/api/caseload')).json()
		return JSON.stringify(await Promise.all(rows.map(async (r) => {
			const sessions = await (await fetch('/api/horses/' + r.id + '/sessions')).json()
			return { ID: r.id, Name: r.name, Case: r.case.id, Session: sessions.find((s) => s.ended)?.id ?? '', Finished: !!r.case.finished_on, Assessed: r.assessed }
		})))
	}`).Str()
	var list []demoHorse
	require.NoError(u.t, json.Unmarshal([]byte(text), &list))
	return list
}

// inView waits until an element that is named so lies within the window as it was
// opened, with nothing over it, and begins in it.
func (u *user) inView(what, css, name string) {
	u.t.Helper()
	err := u.Page.Timeout(patience).Wait(rod.Eval(`(css, name) => {
		const says = new RegExp(name)
		const named = (e) => (e.getAttribute('aria-label') ?? e.innerText ?? e.textContent ?? '').replace(/\s+/g, ' ').trim()
		return window.scrollY === 0 && [...document.querySelectorAll(css)].some((e) => {
			if (!e.checkVisibility() || !says.test(named(e))) return false
			const r = e.getBoundingClientRect()
			const x = Math.min(Math.max(r.left + r.width / 2, 0), innerWidth - 1), y = r.top + Math.min(r.height / 2, 20)
			if (r.width === 0 || r.top < 0 || y > innerHeight || r.left < -1 || r.left >= innerWidth) return false
			const top = document.elementFromPoint(x, y)
			return !!top && (e.contains(top) || top.contains(e) && top.closest('main') !== null)
		})
	}`, css, name))
	if err != nil {
		u.keepPicture()
		there := u.MustEval(`(css) => [...document.querySelectorAll(css)].map((e) => (e.getAttribute('aria-label') ?? e.innerText ?? '').slice(0, 80) + ' ' + JSON.stringify(e.getBoundingClientRect())).join('; ')`, css).Str()
		assert.Fail(u.t, "not in the first view", "%s: %s named %q; there: %s", what, css, name, there)
	}
}

// moved is how much of the page has shifted since it was first painted, as browsers
// measure it.
func (u *user) moved() float64 {
	return u.MustEval(`() => new Promise((done) => {
		let sum = 0
		const watch = new PerformanceObserver((l) => { for (const e of l.getEntries()) if (!e.hadRecentInput) sum += e.value })
		watch.observe({ type: 'layout-shift', buffered: true })
		requestAnimationFrame(() => requestAnimationFrame(() => { watch.disconnect(); done(sum) }))
	})`).Num()
}

// On each page of each horse the first view answers what one came for: the
// sentence, the drawing by its name, and the act; and nothing moves while it comes.
func TestTheFirstViewAnswers(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	for _, size := range [][2]int{{1280, 800}, {412, 800}} {
		t.Run(fmt.Sprint(size[0]), func(t *testing.T) {
			t.Parallel()
			u := y.as(t).open(size[0], size[1]).signsInDemo()
			phone := size[0] < 700
			still := func(what string) {
				u.t.Helper()
				if moved := u.moved(); moved > 0.02 {
					assert.Fail(t, "the page moved", "%s by %.3f", what, moved)
				}
			}
			u.goes("/horses")
			u.inView("caseload", ".facts", `come first, .* want a decision`)
			u.inView("caseload", "a.does", "Ask the vet")
			if !phone {
				u.inView("caseload", ".strip", "board: ")
			}
			u.inView("caseload", "a.button", "Take on a horse")
			still("caseload")
			for _, h := range u.demoHorses() {
				into := func(what string) {
					if !h.Finished {
						u.inView(what, "a.button", "(Into|Back into) the arena")
					}
				}
				u.goes("/horses/" + h.ID)
				u.inView(h.Name, "p.lead", `\.$`)
				u.inView(h.Name, ".bridge svg", `(steps? secure|no step secure yet)`)
				into(h.Name)
				still(h.Name)

				u.goes("/horses/" + h.ID + "/plan")
				u.inView(h.Name+"'s plan", "p.lead", `\.$`)
				u.inView(h.Name+"'s plan", ".bridge svg", `(steps? secure|no step secure yet)`)
				u.inView(h.Name+"'s plan", "h2", "Next visit")
				if !phone {
					u.inView(h.Name+"'s plan", "h2", "(Ready by|When will it be ready)")
					u.inView(h.Name+"'s plan", "h2", "What stops us")
				}
				into(h.Name + "'s plan")
				still(h.Name + "'s plan")

				u.goes("/horses/" + h.ID + "/assessment")
				what := h.Name + "'s result"
				if !h.Assessed {
					u.inView(what, "p.lead", "Begin with the owner's story")
					u.inView(what, "a.button", "Begin the assessment")
				} else {
					u.inView(what, "p.lead", `\.$`)
					u.inView(what, ".yard-gate", "The gate is (tied|open|not looked at)")
					u.inView(what, ".trestle", "(likely|possible|unlikely|not enough seen)")
					if !phone {
						u.inView(what, "a.button", "Look now")
						u.inView(what, "h2", "Begin here")
					}
				}
				into(what)
				still(what)

				if h.Session == "" {
					continue
				}
				u.goes("/arena/" + h.Session + "/after")
				u.inView(h.Name+", after", "p.lead", `\.$`)
				u.inView(h.Name+", after", ".bridge svg", `(steps? secure|no step secure yet)`)
				u.inView(h.Name+", after", "a.button", "The owner's report")
				still(h.Name + ", after")
			}
		})
	}
}

// What is behind a page is one tap away and back again, in the same place; the
// address keeps it, and so does going back.
func TestWhatIsBehindIsOneTapAway(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	for _, p := range []struct {
		tab    string
		leaves [][2]string // what is tapped, and what is then seen
		front  string
	}{
		{"Plan", [][2]string{
			{"all steps and schools", "The order of work"}, {"visits ahead, .*", "The next visits"}, {"homework and clearance", "Homework card"},
			{"cue card", "The same in hand and ridden"}, {"the numbers", "Homework a week"}, {"plans made, 1", "First plan after the assessment"},
		}, "What stops us"},
		{"Assessment", [][2]string{
			{"all findings, .*", "What is probably behind all of it"}, {"looks not taken, .*", "Not checked, so don't assume it's fine."},
			{"whom to ask", "Rechecks"}, {"I judge otherwise", "Where to begin"},
		}, "Look next"},
		{"Bridge", [][2]string{{"the last session", "A bead for each rep"}, {"not looked at, .*", "What was not looked at is not clear."}, {"what the planks mean", "slipped"}}, "Wants attention"},
	} {
		u.presses(p.tab)
		u.sees(p.front)
		foot := u.MustEval(`() => document.querySelector('.onetap').getBoundingClientRect().top`).Num()
		for _, leaf := range p.leaves {
			u.presses(leaf[0])
			u.sees(leaf[1])
			now := u.MustEval(`() => document.querySelector('.onetap').getBoundingClientRect().top`).Num()
			assert.InDelta(t, foot, now, 1, "%s: the last line stays where it was", leaf[0])
		}
		u.MustReload()
		u.sees(p.leaves[len(p.leaves)-1][1])
		u.presses("back to .*")
		u.sees(p.front)
	}
	u.MustNavigateBack()
	u.sees("slipped")
}

// The desk by keyboard: places, a horse's pages, rows, levers; ? names them all,
// and they can be put off.
func TestTheDeskByKeys(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	press := func(keys ...input.Key) {
		for _, k := range keys {
			u.key(k)
		}
	}
	at := func(path string) {
		t.Helper()
		u.waits("to be at", "body", path, `(css, path) => location.pathname.endsWith(path) || (location.pathname + location.search).endsWith(path)`)
	}
	press(input.KeyG, input.KeyM)
	at("/methods")
	press(input.KeyG, input.KeyH)
	at("/horses")
	u.sees("Bilberry")
	press(input.KeyJ, input.KeyJ)
	assert.Equal(t, "Bilberry", u.MustEval(`() => document.activeElement.innerText`).Str())
	press(input.KeyK)
	assert.Equal(t, "Marl", u.MustEval(`() => document.activeElement.innerText`).Str())
	press(input.KeyN)
	assert.Equal(t, "Look at the homework", u.MustEval(`() => document.activeElement.innerText`).Str())
	press(input.Slash)
	u.MustElement("input.filter").MustInput("moth")
	press(input.Tab)
	u.presses("Copperfield Moth")
	u.sees("Wants attention")
	press(input.BracketRight)
	at("/assessment")
	u.sees("Look next")
	press(input.Digit1)
	at("see=causes&cause=learned_out")
	u.sees("person gives when the horse resists")
	press(input.BracketRight)
	at("/plan")
	u.sees("36 %")
	press(input.Digit1)
	u.seesIn(".tried", "Visits a week: 2 became 4")
	press(input.Escape)
	u.waits("until it is left", ".bar.tried", "", `(css) => !document.querySelector(css)`)
	press(input.KeyB)
	at("see=steps")
	press(input.KeyV)
	at("see=visits")
	press(input.Key('?'))
	for _, says := range []string{"g then m", "Methods", "try lever 1", "the steps as a list", "the keys of the place"} {
		u.seesIn("dialog.keys", says)
	}
	u.presses("Letters are keys here. Put it off if you dictate.")
	u.presses("Close")
	press(input.KeyG, input.KeyH)
	u.sees("The next visits")
	at("see=visits")
}

// Names of 48 letters, written from the right, three problems, a practice of thirty
// horses, no colours of our own, and a window at 200 %: each page stays whole.
func TestPagesHoldWhatIsUnusual(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	long := "Bartholomew-Featherstonehaugh of the Upper Fallow"
	require.Len(t, []rune(long), 49)
	u.takesItOn(long[:48], "trailer loading", "Loads and travels the long way to the Upper Fallow and back again without her friend")
	u.presses("Plan")
	u.sees("Look before you plan")
	u.wholeAt("a long name", 1280, 640, 412, 360)
	u.goes("/horses").takesItOn("مهرة الريح الشمالية", "girth", "Stands for the girth")
	u.wholeAt("a name from the right", 1280, 412)
	u.goes("/horses")
	u.sees("مهرة الريح الشمالية")
	u.wholeAt("the caseload with them", 1280, 640, 412, 360)

	t.Run("thirty horses", func(t *testing.T) {
		u := u.as(t)
		u.MustEval(`async () => {
			const owner = (await (await fetch('/api/people')).json()).find((p) => p.kind === 'owner').id
			for (let i = 0; i < 13; i++) await fetch('/api/horses', { method: 'POST', headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify({ name: 'Foal ' + i, record: {}, owner_id: owner, problem: 'feet', goal: 'Lifts its feet' }) })
		}`)
		u.goes("/horses")
		u.sees("Foal 12")
		assert.Equal(t, 30+2, u.MustEval(`async () => (await (await fetch('/api/caseload')).json()).length`).Int())
		u.finds("button.fold", "Six need nothing today")
		assert.False(t, u.MustElementR("a.name", "Harvest Lark").MustVisible(), "who needs nothing is folded on a long page")
		u.presses("Six need nothing today show them")
		u.seesIn(".calm .name", "Harvest Lark")
		u.wholeAt("thirty horses", 1280, 412)
		u.MustElement("input.filter").MustInput("Nobody")
		u.sees("No Nobody here.")
		u.presses("Take on Nobody")
		u.waits("to be taken over", "input", "Nobody", `(css, name) => [...document.querySelectorAll(css)].some((i) => i.value === name)`)
	})
	t.Run("forced colours", func(t *testing.T) {
		u := u.as(t)
		u.MustSetViewport(1280, 800, 1, false)
		forced := proto.EmulationSetEmulatedMedia{Features: []*proto.EmulationMediaFeature{{Name: "forced-colors", Value: "active"}, {Name: "prefers-reduced-motion", Value: "reduce"}}}
		require.NoError(t, forced.Call(u.Page))
		u.goes("/horses")
		u.presses("Copperfield Moth")
		u.presses("Plan")
		u.sees("What would help")
		faint := u.MustEval(`() => [...document.querySelectorAll('.bridge .kept .board, .line .fill:not(.late)')].filter((e) => getComputedStyle(e).fill === getComputedStyle(document.body).backgroundColor).length`).Int()
		assert.Zero(t, faint, "a kept plank and a filled board are seen")
		moving := u.MustEval(`() => document.getAnimations().length`).Int()
		assert.Zero(t, moving)
	})
}

// wholeAt holds a page to be no wider than the window, at each width.
func (u *user) wholeAt(what string, widths ...int) {
	u.t.Helper()
	for _, w := range widths {
		u.MustSetViewport(w, 800, 1, false)
		u.fits(what, w)
	}
	u.MustSetViewport(1280, 800, 1, false)
}

// A horse with three problems has a column for each, and in the hand one at a time.
func TestThreeProblemsStandSideBySide(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Assessment")
	u.presses("Go on with it")
	u.presses("another problem as well")
	u.presses("planting")
	u.seesIn(".problem", "planting")
	u.presses("To the result")
	u.sees("Look next")
	heads := func() string {
		return u.MustEval(`() => [...document.querySelectorAll('.causes h3')].filter((h) => h.checkVisibility()).map((h) => h.innerText.toLowerCase()).join(', ')`).Str()
	}
	u.seesIn(".causes h3", "lanting")
	assert.Equal(t, "trailer loading, planting, crowding", heads())
	u.fits("three problems", 1280)
	u.MustSetViewport(412, 800, 1, false)
	u.finds(".pick button", "lanting").MustClick()
	u.seesIn(".pick [aria-pressed=true]", "lanting")
	assert.Equal(t, 5, u.MustEval(`() => [...document.querySelectorAll('.causes .trestle')].filter((e) => e.checkVisibility()).length`).Int())
	u.fits("three problems", 412)
}

// Without a signal a page says from when it is; where it can't be read at all it says
// so in one line, and what was there stays.
func TestAPageThatCantBeReadAgain(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	u.presses("Plan")
	u.sees("What would help")
	y.stop()
	u.presses("Try it: 4 visits a week.*")
	u.sees("The server does not answer")
	u.sees("36 %")
	y.start()
	u.presses("Bridge")
	u.sees("Since the first day")
}

// On paper the plan and the result are what is on the screen, without its tabs.
func TestPagesOnPaper(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Copperfield Moth")
	for _, p := range [][2]string{{"Plan", "What stops us"}, {"Assessment", "Look next"}} {
		u.presses(p[0])
		u.sees(p[1])
		require.NoError(t, proto.EmulationSetEmulatedMedia{Media: "print"}.Call(u.Page))
		shown := u.MustEval(`() => [...document.querySelectorAll('.edge, .onetap, .pages, .thumb, .button')].filter((e) => e.checkVisibility()).map((e) => e.className).join(' ')`).Str()
		assert.Empty(t, strings.TrimSpace(shown), p[0])
		u.seesIn("h1", "Copperfield Moth")
		assert.LessOrEqual(t, u.pages(), 2, p[0])
		require.NoError(t, proto.EmulationSetEmulatedMedia{Media: ""}.Call(u.Page))
	}
}
