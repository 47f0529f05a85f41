package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A place is one main view of the demo practice.
type place struct {
	name, path, shows string
}

// places lists the main views, with ids of the demo filled in and a session of
// Moth under way.
func (u *user) places() []place {
	u.t.Helper()
	var ids map[string]string
	text := u.MustEval(`async () => {
		const rows = await (await fetch('/api/caseload')).json()
		const moth = rows.find((r) => r.name.includes('Moth'))
		const done = rows.find((r) => r.name === 'Teasel')
		const lame = rows.find((r) => r.name === 'Button')
		const away = rows.find((r) => r.name === 'Harvest Lark')
		const pepper = rows.find((r) => r.name.includes('Pepperdine'))
		const sessions = await (await fetch('/api/horses/' + moth.id + '/sessions')).json()
		const clips = await (await fetch('/api/horses/' + away.id + '/clips')).json()
		const seen = await (await fetch('/api/cases/' + moth.case.id + '/clearance')).json()
		return JSON.stringify({ horse: moth.id, kase: moth.case.id, owner: seen.persons[0].id, session: sessions.find((s) => s.ended).id, fresh: pepper.id, lame: lame.id, done: done.id, away: away.id, clip: clips.list[0].id })
	}`).Str()
	require.NoError(u.t, json.Unmarshal([]byte(text), &ids))
	return []place{
		{"caseload", "/horses", "Copperfield Moth"},
		{"horse", "/horses/" + ids["horse"], "Since the first day"},
		{"assessment", "/horses/" + ids["horse"] + "/assessment", "Look next"},
		{"walk", "/horses/" + ids["horse"] + "/assess/" + ids["kase"], "So far"},
		{"body", "/horses/" + ids["horse"] + "/assess/" + ids["kase"] + "?at=B", "Touch the horse, or an item"},
		{"basics", "/horses/" + ids["horse"] + "/assess/" + ids["kase"] + "?at=D", "light and soft"},
		{"swap", "/horses/" + ids["horse"] + "/assess/" + ids["kase"] + "?at=E2", "usual person again"},
		{"letter", "/horses/" + ids["lame"] + "/letter/hind%20leg", "Your answer"},
		{"lame", "/horses/" + ids["lame"] + "/assessment", "Ask first"},
		{"plan", "/horses/" + ids["horse"] + "/plan", "What stops us"},
		{"homework", "/horses/" + ids["horse"] + "/homework/" + ids["kase"] + "/" + ids["owner"], "Stop when"},
		{"methods", "/methods", "where practitioners disagree"},
		{"ladder", "/methods/load/load.close", "Stands on."},
		{"card", "/cards/trailer", "Check floor, hitch, ramp, rope"},
		{"progress", "/horses/" + ids["horse"] + "/progress", "Every try behind it"},
		{"more", "/horses/" + ids["horse"] + "/progress?see=more", "Side by side"},
		{"incidents", "/horses/" + ids["horse"] + "?see=incidents", "Dangerous moments of the last 12 months"},
		{"practised", "/horses/" + ids["horse"] + "/plan?see=clearance", "Practised in the last seven days"},
		{"closing", "/horses/" + ids["done"] + "/paper/closing", "When to ring"},
		{"file", "/horses/" + ids["horse"] + "/paper/file", "The sessions, the newest first"},
		{"sessions", "/horses/" + ids["horse"] + "/sessions", "What it came to"},
		{"reports", "/horses/" + ids["horse"] + "/reports", "Visit on"},
		{"record", "/horses/" + ids["horse"] + "/record", "The horse's record"},
		{"fresh", "/horses/" + ids["fresh"], "Not assessed yet"},
		{"take-on", "/horses/new", "Where it stands"},
		{"arena-door", "/arena", "Into the arena with"},
		{"ready", "/arena/ready/" + ids["kase"], "Say first"},
		{"memory", "/arena/memory/" + ids["kase"], "One line for each ask"},
		{"after", "/arena/" + ids["session"] + "/after", "How it ended"},
		{"report", "/reports/" + ids["session"], "does not replace your vet"},
		{"outings", "/outings", "At ease"},
		{"road", "/outings/" + ids["away"], "Before it is ridden"},
		{"plan-road", "/outings/" + ids["away"] + "/plan", "of standing"},
		{"day", "/day", "of driving"},
		{"diary", "/diary", "No visit waits for"},
		{"roads", "/diary/roads", "Where the yards lie"},
		{"letters", "/diary/letters", "Who gets them"},
		{"clips", "/horses/" + ids["away"] + "/clips", "Add a clip"},
		{"viewer", "/clips/" + ids["clip"], "A stepping pace"},
		{"guide", "/guide/5-arena", "Hold the rope while there is pressure"},
		{"people", "/people", "Orla Finch"},
		{"house", "/house", "pass run"},
		{"weights", "/house?see=weights", "began suddenly"},
		{"words", "/house?see=words", "Time zone"},
		{"take-ladder", "/methods?see=file", "A ladder that a colleague changed"},
		{"copies", "/house?see=copies", "One is made each night"},
		{"take-out", "/house?see=out", "One .zip that any program opens"},
		{"take-in", "/house?see=in", "The notebook of earlier years"},
		{"password", "/password", "Change your password"},
		{"nowhere", "/no/such/place", "Not here"},
	}
}

// Every view is reachable by everybody: nothing wider than the screen, nothing
// that axe finds, nothing that the security policy had to stop.
func TestEveryViewAtEveryWidth(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	text, err := os.ReadFile(filepath.Join("..", "web", "node_modules", "axe-core", "axe.min.js"))
	require.NoError(t, err)
	axe := string(text)
	first := y.open(1280, 800)
	watched := func(t *testing.T) *user {
		u := y.as(t).open(1280, 800)
		_, err := u.EvalOnNewDocument(`window.refused = []; document.addEventListener('securitypolicyviolation', (e) => window.refused.push(e.violatedDirective + ' ' + e.blockedURI))`)
		require.NoError(t, err)
		return u
	}
	places := first.signsInDemo().places()
	t.Run("sign-in", func(t *testing.T) {
		u := watched(t).goes("/sign-in")
		u.sees("Look round as Wren Harrow")
		u.looksRight(axe, "sign-in")
	})
	// A few users share the views, each in a browser of their own.
	const users = 3
	for n := range users {
		t.Run(fmt.Sprintf("user %d", n+1), func(t *testing.T) {
			t.Parallel()
			u := watched(t).signsInDemo()
			for i := n; i < len(places); i += users {
				p := places[i]
				ok := t.Run(p.name, func(t *testing.T) {
					u := u.as(t)
					u.MustSetViewport(1280, 800, 1, false)
					u.goes(p.path)
					u.sees(p.shows)
					u.looksRight(axe, p.name)
					for _, width := range []int{360, 640, 1920} { // 640: a desktop at 200 %
						u.MustSetViewport(width, 800, 1, false)
						u.fits(p.name, width)
					}
				})
				assert.True(t, ok)
			}
		})
	}
	t.Run("arena", func(t *testing.T) {
		t.Parallel()
		u := watched(t).signsInDemo()
		u.begins("Copperfield Moth")
		u.looksRight(axe, "arena")
		for _, size := range [][2]int{{412, 800}, {360, 640}, {800, 1200}, {1920, 1000}} {
			u.MustSetViewport(size[0], size[1], 1, false)
			u.fits("arena", size[0])
			u.targetsAreLarge(size[0])
		}
	})
}

// as is the user as a part of a test sees it.
func (u *user) as(t *testing.T) *user {
	part := *u
	part.t = t
	return &part
}

// looksRight runs axe, and asks what the security policy refused.
func (u *user) looksRight(axe, name string) {
	u.t.Helper()
	u.MustEval(`(code) => { if (!window.axe) (0, eval)(code) }`, axe)
	found := u.MustEval(`async () => {
		const r = await window.axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
		return JSON.stringify(r.violations.map((v) => v.id + ': ' + v.help + ' ' + v.nodes.slice(0, 3).map((n) => n.target.join(' ')).join(' | ')))
	}`).Str()
	assert.Equal(u.t, "[]", found, name)
	assert.Equal(u.t, "[]", u.MustEval(`() => JSON.stringify(window.refused)`).Str(), name)
}

func (u *user) fits(name string, width int) {
	u.t.Helper()
	err := u.Page.Timeout(patience / 3).Wait(rod.Eval(`() => document.documentElement.scrollWidth <= window.innerWidth`))
	if err != nil {
		wide := u.MustEval(`() => [...document.querySelectorAll('main *')].filter((e) => e.getBoundingClientRect().right > window.innerWidth + 1)
			.slice(0, 6).map((e) => e.tagName + '.' + e.className + ' ' + (e.textContent ?? '').trim().slice(0, 30)).join('; ')`).Str()
		assert.Fail(u.t, "wider than the screen", "%s at %d: %s", name, width, wide)
	}
}

// targetsAreLarge measures the arena's own targets: gloves on.
func (u *user) targetsAreLarge(width int) {
	u.t.Helper()
	small := u.MustEval(`() => [...document.querySelectorAll('.arena button, .arena .card-link, dialog[open] button')]
		.filter((e) => e.offsetParent && (e.offsetHeight < 64 || e.offsetWidth < 64)).map((e) => e.textContent.trim() + ' ' + e.offsetWidth + 'x' + e.offsetHeight).join(', ')`).Str()
	assert.Empty(u.t, small, "at %d", width)
}

// readsInTheSun measures the contrast of all that is said in the arena against
// what it stands on: 7 to 1 and more.
func (u *user) readsInTheSun(view string) {
	u.t.Helper()
	faint := u.MustEval(`() => {
		const rgb = (c) => (c.match(/[\d.]+/g) ?? []).map(Number)
		const light = ([r, g, b]) => [r, g, b].map((v) => v / 255).map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
			.reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0)
		const ground = (e) => {
			for (; e; e = e.parentElement) {
				const c = rgb(getComputedStyle(e).backgroundColor)
				if (c.length === 3 || c[3] > 0.99) return c
			}
			return [255, 255, 255]
		}
		const says = (e) => [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim())
		const off = (e) => e.closest(':disabled')
		return [...document.querySelectorAll('.arena *')].filter((e) => e.checkVisibility() && says(e) && !off(e)).map((e) => {
			const style = getComputedStyle(e)
			const a = light(rgb(e instanceof SVGElement ? style.fill : style.color)), b = light(ground(e))
			return [(Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05), e.textContent.trim()]
		}).filter(([ratio]) => ratio < 7).map(([ratio, text]) => text + ' ' + ratio.toFixed(1)).join('; ')
	}`).Str()
	assert.Empty(u.t, faint, view)
}

// suitsGloves measures a view of the arena at both of its usual sizes.
func (u *user) suitsGloves(view string) {
	u.t.Helper()
	for _, size := range [][2]int{{1280, 800}, {412, 800}} {
		u.MustSetViewport(size[0], size[1], 1, false)
		u.fits(view, size[0])
		u.targetsAreLarge(size[0])
		u.readsInTheSun(view)
	}
	u.MustSetViewport(1280, 800, 1, false)
}

// owners takes pictures of what an owner sees on a phone.
func (u *user) owners(keep func(string)) {
	path := u.MustEval(`async () => {
		const people = await (await fetch('/api/people')).json()
		const made = await fetch('/api/people/' + people.find((p) => p.name.includes('Ines')).id + '/links', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' })
		return (await made.json()).path
	}`).Str()
	u.goes(path)
	u.seesIn("h1", "Yes, Copperfield Moth is better.")
	keep("owner-phone")
	u.presses("Write down today")
	for _, choice := range []string{"yes", "attentive"} {
		u.presses(choice)
	}
	u.MustEval(`() => scrollTo(0, 0)`)
	keep("practice-phone")
}

// walksOut walks an outing until it stands at its first stop.
func (u *user) walksOut() *user {
	u.goes("/outings")
	u.presses("Plan an outing")
	u.sees("of standing")
	u.presses("To the gate")
	u.presses("settled")
	u.presses("calm")
	u.presses("yes")
	u.presses("Into the arena")
	u.walks("Set off")
	u.setOffArrives()
	u.passes(6 * time.Minute)
	u.walks("Turned.*")
	u.walks("Stopped.*")
	u.seesIn(".stand", "Stop 1")
	u.passes(26 * time.Second)
	u.finds(".stand", "1[0-9] s more of 45")
	return u
}

// The caseload shows after little has been loaded.
func TestTheFirstViewIsLight(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.goes("/horses")
	u.sees("Copperfield Moth")
	bytes := u.MustEval(`() => performance.getEntriesByType('resource').filter((r) => /\.(js|css)$/.test(new URL(r.name).pathname)).reduce((n, r) => n + r.encodedBodySize, 0)`).Int()
	t.Logf("scripts and styles before the caseload shows: %d bytes compressed", bytes)
	assert.Positive(t, bytes)
	assert.LessOrEqual(t, bytes, 220_000)
}

// What can't be is said next to its field, and what was typed stays.
func TestAFormThatCantBeKept(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.presses("Take on a horse")
	u.presses("trailer loading")
	u.types("Name of the horse", "<script>alert(1)</script>")
	u.presses("Where it stands, a date, and what is known of it")
	u.types("Needed by", "2020-01-01")
	u.presses("Where it stands, a date, and what is known of it")
	u.presses("Take it on")
	u.finds(".field [role=alert]", "This day has passed") // what is folded opens where it is wrong
	u.seesNextTo("Needed by", "This day has passed")
	u.seesNextTo("Owner", "Choose the owner")
	u.types("Needed by", time.Now().AddDate(0, 2, 0).Format(time.DateOnly))
	u.chooses("Owner", "Bram Ostler-Quill")
	u.presses("Take it on")
	u.seesIn("h1", "<script>alert(1)</script>")
}

func (u *user) seesNextTo(label, text string) {
	u.t.Helper()
	u.waits("to see", ".field", label+" "+text, `(css, both) => [...document.querySelectorAll(css)].some((f) => {
		const label = f.querySelector('label')?.innerText.trim()
		const wrong = f.querySelector('[role=alert]')?.innerText
		return label && wrong && both.startsWith(label) && wrong.includes(both.slice(label.length).trim())
	})`)
}

// TestScreenshots keeps one picture of each main view; make screenshots asks
// for it.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("SCREENSHOTS")
	if dir == "" {
		t.Skip("make screenshots takes these")
	}
	u := demoYard(t).open(1280, 800).signsInDemo()
	keep := func(name string) {
		shot, err := u.Screenshot(false, nil)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name+".png"), shot, 0o644))
	}
	for _, p := range u.places() {
		if strings.Contains("caseload horse assessment walk plan progress methods report day diary road viewer house", p.name) {
			u.goes(p.path)
			u.sees(p.shows)
			u.MustWaitIdle()
			keep(p.name)
		}
	}
	u.goes("/horses")
	u.presses("Harvest Lark")
	u.presses("Clips")
	u.presses("on the way home")
	u.sees("frame 1 of 360")
	u.MustEval(`() => { document.querySelector('video').currentTime = 2.2 }`)
	u.sees("frame 133 of 360")
	keep("viewer")
	u.takesIn(keep)
	u.MustSetViewport(412, 800, 1, true)
	u.owners(keep)
	u.MustSetViewport(1280, 800, 1, false)
	u.goes("/horses")
	u.begins("Copperfield Moth")
	for n, r := range []struct {
		level  int
		answer string
	}{{4, "accepted"}, {3, "accepted"}, {6, "refused"}, {4, "tolerated"}, {3, "accepted"}} {
		u.pull(r.level)
		u.answers(r.answer)
		u.keeps(n + 1)
	}
	u.seesIn(".clocks", "all sent")
	u.holds(3)
	keep("arena")
	require.NoError(t, u.Mouse.Up(proto.InputMouseButtonLeft, 1))
	u.MustSetViewport(412, 800, 1, true)
	keep("arena-phone")
	u.MustSetViewport(1280, 800, 1, false)
	u.presses("End session")
	u.sees("What happened")
	shot, err := farYard(t).atTheYard(412, 800).walksOut().Screenshot(false, nil)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "walk-phone.png"), shot, 0o644))
	fmt.Println("pictures are in", dir)
}
