package e2e

import (
	"database/sql"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
)

// One level of travel is one level as it is drawn, at every size, and a press
// on a printed number means that number.
func TestTheRopeMeansWhatItShows(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	for _, size := range [][2]int{{1280, 800}, {412, 800}, {360, 640}} {
		u.MustSetViewport(size[0], size[1], 1, false)
		for level := 1; level <= 10; level++ {
			for _, number := range []bool{false, true} {
				if number {
					require.NoError(t, u.Mouse.MoveTo(u.onTheRope(level, true)))
					require.NoError(t, u.Mouse.Down(proto.InputMouseButtonLeft, 1))
				} else {
					u.holds(level)
				}
				u.seesIn(".rope .level b", itoa(level))
				read := u.MustElement(".rope .level b").MustText()
				assert.Equal(t, itoa(level), read, "at %dx%d", size[0], size[1])
				require.NoError(t, u.Mouse.Up(proto.InputMouseButtonLeft, 1))
			}
		}
	}
}

// longest fills the advice with the longest sentences that it may have, and two
// warnings, so that what is measured is the worst a trainer meets.
const longest = `() => {
	const fill = (e, text) => e && (e.textContent = text)
	fill(document.querySelector('.what'), 'Finish on one easy answer: zones hand, zone 3 near. Then end the session.')
	fill(document.querySelector('.tell .why'), 'It is over the line and not afraid. Keep the feel, let the rope slide or walk back with it, and let go at the first softening or hind foot forward. Rest 120 s first. A medium release.')
	const say = document.querySelector('.say')
	say.querySelectorAll('.note').forEach((n) => n.remove())
	for (const text of ['Five times firm and no lighter. Ask once clearly, at most 8, then begin at 1.', 'That was a warning look. No release for it: hold what is on, out of reach, until it softens.']) {
		const note = document.createElement('p')
		note.className = 'note'
		note.textContent = text
		say.append(note)
	}
}`

// keysAreWhole measures what a gloved hand must reach whatever is said: the
// words for the horse, the answers, the rope, danger and undo.
func (u *user) keysAreWhole(view string, answers string, rope bool) {
	u.t.Helper()
	for _, size := range [][2]int{{360, 640}, {412, 800}, {1280, 800}} {
		u.MustSetViewport(size[0], size[1], 1, false)
		u.MustEval(longest)
		wrong := u.MustEval(`(answers) => {
			const out = []
			const all = (css) => [...document.querySelectorAll(css)].filter((e) => e.checkVisibility())
			const check = (css, least) => {
				const found = all(css)
				if (found.length < least) out.push(css + ': ' + found.length + ' of ' + least)
				for (const e of found) {
					const r = e.getBoundingClientRect()
					const name = css + ' ' + e.textContent.trim().slice(0, 20)
					if (r.width < 64 || r.height < 64) out.push(name + ' is ' + r.width.toFixed(0) + 'x' + r.height.toFixed(0))
					if (r.left < 0 || r.top < 0 || r.right > innerWidth + 0.5 || r.bottom > innerHeight + 0.5) out.push(name + ' is cut off')
					const at = document.elementFromPoint(r.left + r.width / 2, r.top + r.height / 2)
					if (at && !e.contains(at) && !at.contains(e)) out.push(name + ' is covered by ' + at.className)
				}
			}
			check('.arousal', 5)
			check(answers, 1)
			check('.danger', 1)
			check('.undo', 1)
			for (const e of all('.arena button')) if (e.scrollWidth > e.clientWidth + 1) out.push(e.textContent.trim() + ' does not fit its key')
			return out.join('; ')
		}`, answers).Str()
		assert.Empty(u.t, wrong, "%s at %dx%d", view, size[0], size[1])
		if rope {
			tall := u.MustEval(`() => {
				const [a, b] = [1, 10].map((l) => document.querySelector('.rope .number[data-level="' + l + '"]').getBoundingClientRect())
				return [(a.top - b.top) / 9, b.top, innerHeight - a.bottom]
			}`).Arr()
			assert.GreaterOrEqual(u.t, tall[0].Num(), 11.0, "%s: a level of the rope at %dx%d", view, size[0], size[1])
			assert.Positive(u.t, tall[1].Num())
			assert.Positive(u.t, tall[2].Num())
		}
	}
	u.MustSetViewport(1280, 800, 1, false)
	u.MustReload() // what was filled in is not the page's own
	u.seesIn(".what", "")
}

// In every school, bursts included, with the longest advice and two warnings.
func TestAllKeysAreInSight(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	away := func() {
		u.presses("End session")
		u.presses("Throw it away")
		u.sees("Into the arena")
	}
	u.begins("Copperfield Moth")
	u.keysAreWhole("build and release", ".answers button", true)
	away()
	for _, school := range []struct {
		option, reason, keys string
		rope                 bool
	}{
		{"wait it out.*", "there is all day", ".answers button, .pad button", true},
		{"ask and listen.*", "there is time", ".pad button", false},
		{"relief place.*", "he would rather choose", ".plan button, .modes button", true},
	} {
		u.plansTheTrailer(school.option, school.reason)
		u.keysAreWhole(school.option, school.keys, school.rope)
		away()
	}
	u.goes("/horses").takesOn("Wintergreen", "saddle and pad", "Stands for pad and saddle, untied")
	u.asksFor("hand")
	u.keysAreWhole("doses, before", ".pad button", false)
	u.finds(".pad button", "Begin the dose").MustClick()
	u.keysAreWhole("doses, running", ".pad button", false)
	u.finds(".pad button", "stands, soft").MustClick()
	u.presses("End session")
	u.sees("What happened")

	u.goes("/horses").takesOn("Sallow", "heavy, stiff, grabbing the bit", "Carries a soft rein")
	u.mayBeRidden("Sallow")
	u.goes("/horses").begins("Sallow")
	u.asksFor("halt")
	u.seesIn(".ask h1", "Halt")
	u.keysAreWhole("ridden, one at a time", ".answers button", true)
	u.presses("asks in a burst")
	u.keysAreWhole("bursts", ".pad button", false)
}

// mayBeRidden writes down what opens ridden work, and the work before it, past
// the pages.
func (u *user) mayBeRidden(name string) {
	u.t.Helper()
	c, err := yaml.Shipped()
	require.NoError(u.t, err)
	var entries []map[string]any
	for _, key := range []string{"soft.tack", "head.down", "head.flex", "quarters.hind", "quarters.fore", "quarters.mix"} {
		step, _ := c.Step(key)
		for _, a := range step.Asks() {
			for range max(step.Pass.Run, 3) {
				n := len(entries)
				rep := map[string]any{"step": a.Step, "variant": a.Variant.String(), "answer": "accepted", "peak": 1, "target": step.Last(), "reached": step.Last(), "arousal": 1}
				entries = append(entries, map[string]any{"id": uuid.NewString(), "kind": "rep", "at": time.Now().UnixMilli() + int64(n), "seq": n + 1, "device": "paper", "rep": rep})
			}
		}
	}
	marks := []map[string]any{}
	for path, value := range map[string]any{
		"body/mouth/state": "clear", "body/back/state": "clear", "body/belly/state": "clear", "body/saddle fit/state": "clear",
		"first_look/mounting": []string{"still"}, "basics/ridden.halt/grade": "accepted",
	} {
		marks = append(marks, map[string]any{"id": uuid.NewString(), "at": time.Now().UnixMilli(), "device": "paper", "seq": len(marks), "path": path, "value": value})
	}
	session := path(u)[len("/arena/"):]
	u.MustEval(`async (name, session, entries, marks, assessment) => {
		const post = async (path, body) => {
			const r = await fetch(path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) })
			if (!r.ok) throw new Error(path + ' ' + (await r.text()))
			const told = await r.json()
			if (told.refused?.length) throw new Error(JSON.stringify(told.refused))
		}
		const horse = (await (await fetch('/api/caseload')).json()).find((r) => r.name === name).id
		await post('/api/horses/' + horse + '/assessments/' + assessment + '/marks', { sent_at: 0, marks })
		const end = { id: crypto.randomUUID(), kind: 'end', at: Date.now() + 1000, seq: 999, device: 'paper' }
		await post('/api/sessions/' + session + '/entries', { sent_at: 0, entries: [...entries, end], quiet: true })
	}`, name, session, entries, marks, uuid.NewString())
}

// breaks puts an entry into the database that no version of the rules can read.
func (y *yard) breaks(name string) {
	y.t.Helper()
	db, err := sql.Open("sqlite", "file:"+y.database+"?_pragma=busy_timeout(5000)")
	require.NoError(y.t, err)
	defer func() { assert.NoError(y.t, db.Close()) }()
	_, err = db.Exec(`INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, kind, written_by, body)
		SELECT ?, s.practice_id, s.id, 'tablet', 900, s.started_at, s.started_at + 1, s.started_at, 'rep', s.started_by, '{"kind":"a word of another year"}'
		FROM sessions AS s JOIN horses AS h ON h.id = s.horse_id WHERE h.name = ? ORDER BY s.started_at LIMIT 1`, uuid.NewString(), name)
	require.NoError(y.t, err)
	// as an earlier version left it: nothing of it was folded
	_, err = db.Exec(`DELETE FROM histories`)
	require.NoError(y.t, err)
	_, err = db.Exec(`UPDATE stamps SET n = n + 1000`)
	require.NoError(y.t, err)
}

// A hold passes only with its clock: a tap without it asks how long.
func TestAHoldIsTimed(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(412, 800).signsInDemo()
	reps := `SELECT count(*) FROM entries WHERE kind = 'rep' AND json_extract(body, '$.rep.answer') = 'accepted'`
	before := y.counts(reps)
	u.begins("Copperfield Moth")
	u.asksFor("stand", "Trailer loading")
	u.answers("accepted")
	u.sees("How long did it stand?")
	u.finds("dialog button", "^\\s*22 s").MustClick()
	u.seesIn(".strip", "reached 22")
	u.finds(".measure button", "it stands").MustClick()
	u.finds(".measure button", "I end it")
	u.MustReload()
	u.finds(".measure button", "I end it")
	u.answers("accepted")
	u.finds(".strip .last", "reached \\d\\d?$")
	u.keeps(2)
	u.answers("refused")
	u.seesIn(".strip", "refused")
	u.answers("accepted")
	u.finds("dialog button", "not timed").MustClick()
	u.keeps(4)
	assert.Equal(t, before+3, y.counts(reps))
}

// A session with nothing on its track can be thrown away; one with entries
// is ended.
func TestNothingLoggedCanBeThrownAway(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	before := y.counts(`SELECT count(*) FROM sessions`)
	u.begins("Copperfield Moth")
	u.presses("End session")
	u.sees("Nothing was logged")
	u.presses("Throw it away")
	u.sees("Into the arena")
	assert.Equal(t, before, y.counts(`SELECT count(*) FROM sessions`))
	u.goes("/horses")
	u.begins("Copperfield Moth")
	u.pull(2)
	u.answers("accepted")
	u.keeps(1)
	u.presses("End session")
	u.sees("What happened")
	assert.Equal(t, before+1, y.counts(`SELECT count(*) FROM sessions`))
}

// An entry that can't be read is said, on the caseload and on the horse, and
// can be set aside; everything else is there.
func TestOneEntryThatCantBeRead(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	y.breaks("Copperfield Moth")
	u := y.open(1280, 800).signsInDemo()
	u.sees("can't be read, and is left out")
	u.sees("Pepperdine")
	u.presses("Copperfield Moth")
	u.seesIn(".unread", "An answer of")
	require.NoError(t, u.click(u.finds(".unread button", "Set it aside")))
	u.waits("to be rid of", "body", "can't be read", `(css, text) => !document.querySelector(css).innerText.includes(text)`)
	u.goes("/horses")
	u.sees("Copperfield Moth")
	u.waits("to be rid of", "body", "can't be read", `(css, text) => !document.querySelector(css).innerText.includes(text)`)
}

// What is forbidden leads every page of the horse.
func TestOverBackwardsIsSaidEverywhere(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.asksAboutPepperdine()
	u.presses("Begin the assessment")
	u.section("D")
	require.NoError(t, u.click(u.finds(`[aria-label="Ways out seen"] button`, "fell or went over backwards")))
	u.seesIn(".sofar", "It went over backwards")
	u.presses("To the result")
	u.seesIn(".gate", "In hand only: it went over backwards")
	u.presses("Bridge")
	u.seesIn(".forbidden", "In hand only: it went over backwards")
	u.presses("Plan")
	u.seesIn("[aria-labelledby=snags]", "Nobody gets on")
	u.presses("all steps and schools")
	u.seesIn(".forbidden", "Nobody gets on")
	u.sees("No ridden step is planned")
	u.presses("Into the arena")
	u.answersTheGate()
	u.sees("In hand only: it went over backwards")
}

// answersTheGate says at the gate that all is as it should be.
func (u *user) answersTheGate() {
	u.t.Helper()
	require.NoError(u.t, u.click(u.finds("[aria-label=Arousal] button", "attentive")))
	require.NoError(u.t, u.click(u.finds("[aria-label=\"Handler's mind\"] button", "calm")))
	require.NoError(u.t, u.click(u.finds("[aria-label='Body as last time'] button", "yes")))
	require.NoError(u.t, u.Page.Timeout(patience).Wait(rod.Eval(`() => document.querySelector('.verdict p') !== null`)), "the gate says nothing")
}
