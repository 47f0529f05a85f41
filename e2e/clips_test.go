package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tapsAt lets the film stand at a moment and presses a hoof's key.
func (u *user) tapsAt(at float64, key rune) {
	u.t.Helper()
	u.MustEval(`(at) => new Promise((done) => {
		const v = document.querySelector('video')
		v.addEventListener('seeked', () => done(), { once: true })
		v.currentTime = at
	})`, at)
	u.MustElement("body").MustEval(`() => document.activeElement?.blur()`)
	require.NoError(u.t, u.Keyboard.Press(input.Key(key)))
	require.NoError(u.t, u.Keyboard.Release(input.Key(key)))
}

// "Is that a walk or a pace?" A clip is stepped frame by frame and its hooves tapped as they
// land: the answer stands beside what the rider calls it, and is there when the page is
// opened again.
func TestIsThatAWalkOrAPace(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 900).signsInDemo()
	u.goes("/horses")
	u.presses("Pepperdine")
	u.presses("Clips")
	u.sees("Nothing tapped on it yet. The rider calls it pace.")
	u.presses("walks past, from the off side")
	u.sees("Is it a pace?")
	u.sees("Tap each foot as it lands, three strides.")
	u.sees("frame 1 of 270")
	u.presses("one on .*")
	u.sees("frame 2 of 270")
	u.presses("ten on .*")
	u.sees("frame 12 of 270")
	u.presses("one back .*")
	u.sees("frame 11 of 270")

	// It was drawn with a stride of 1.1 s, the fore foot landing 0.24 of it after the hind.
	for i := range 4 {
		for n, key := range "askl" {
			u.tapsAt(1.1*float64(i+1)+1.1*[]float64{0, 0.24, 0.5, 0.74}[n], key)
		}
		if i == 1 {
			u.sees("Not enough strides: two more of the near hind and two more of the off hind.")
		}
	}
	u.sees("It walks. Four even beats.")
	u.sees("218, at true speed")
	u.seesIn(".foot", "kept")
	require.NoError(t, u.Keyboard.Type(input.KeyZ, input.KeyZ)) // the last of the off fore and of the off hind
	u.sees("Not enough strides: one more of the off hind.")
}

// A clip goes to the server in pieces from the chosen file, is marked, and taken out again.
func TestAClipIsAddedAndMarked(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 900).signsInDemo()
	u.goes("/horses")
	u.presses("Pepperdine")
	u.presses("Clips")
	u.types("What it shows", "comes back, slow")
	u.MustElement("input[type=file]").MustSetFiles("../demo/films/stepping.mp4")
	u.presses("comes back, slow")
	u.sees("of 360")
	assert.Equal(t, 3, y.counts("SELECT count(*) FROM clips"))
	require.NoError(t, u.Keyboard.Type(input.KeyM))
	u.sees("At 0.00 s")
	u.presses("Mark it")
	u.sees("Say in a word what is seen there.")
	require.NoError(t, u.MustElement("form input").Input("rope slack"))
	u.presses("Mark it")
	u.seesIn("section", "rope slack")
	u.field("Beside it").MustSelect("walks past, from the off side")
	u.sees("Beside it: walks past, from the off side")
	u.sees("frame 1 of 270")
	u.presses("Both one on")
	u.sees("frame 2 of 270")
	u.sees("frame 2 of 360")
	u.wholeAt("two clips side by side", 1280, 412, 320)
	u.presses("All clips")
	u.presses("take out comes back, slow")
	u.waits("the clip to go", "main", "comes back, slow", `(css, text) => ![...document.querySelectorAll('a')].some((e) => e.innerText.includes(text))`)
	u.MustElement("input[type=file]").MustSetFiles("../demo/films/draw.js")
	u.sees("This is no film that can be taken")
}

// A film list goes to an owner far away; the owner sends a film of it through the private
// link, and the trainer finds it ticked, steps it, and the frame counter is right.
func TestAFilmFromFarAway(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	trainer := y.open(1280, 900).signsInDemo()
	trainer.presses("Copperfield Moth")
	trainer.presses("Clips")
	trainer.sees("From the near side: led at a walk, past the camera and back. has not come yet")
	trainer.sees("No film is worth a kick")
	assert.NotContains(t, trainer.MustElement("main").MustText(), "Mounting", "nobody gets on until the girth line is clear")
	link := trainer.MustEval(`async () => {
		const people = await (await fetch('/api/people')).json()
		const made = await fetch('/api/people/' + people.find((p) => p.name.includes('Ines')).id + '/links', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' })
		return (await made.json()).path
	}`).Str()

	owner := y.open(412, 800)
	owner.goes(link)
	owner.sees("Films for Harrow Groundwork")
	owner.presses("What to film")
	owner.sees("Sound on. Slow motion if the phone has it.")
	owner.MustElement("input[accept='video/*']").MustSetFiles("../demo/films/walk.mp4")
	owner.sees("Sending it is agreeing that it is kept")
	owner.MustElement("select").MustSelect("From the near side: led at a walk, past the camera and back.")
	owner.presses("Send the film")
	owner.seesIn("[role=status]", "It arrived. Harrow Groundwork sees it with the horse.")
	owner.wholeAt("films on the owner's page", 412, 320)

	trainer.MustReload()
	trainer.sees("From the near side: led at a walk, past the camera and back. 1 clip, the newest of")
	trainer.presses("From the near side")
	trainer.sees("from Ines Calloway")
	trainer.sees("frame 1 of 270")

	// What it shows becomes a finding, seen on video.
	require.NoError(t, trainer.Keyboard.Type(input.KeyM))
	trainer.sees("as seen on video.")
	trainer.field("Finding").MustSelect("person starts strong")
	trainer.field("Step").MustSelect("lead forward")
	trainer.presses("Mark it")
	trainer.seesIn("section", "person starts strong finding, seen on video · step lead forward")
	trainer.presses("Copperfield Moth")
	trainer.presses("Assessment")
	trainer.sees("See in person first: person starts strong")
}

// tapsLive presses the hooves' keys for three strides and one landing more, each fore foot
// so far after the hind foot of its side. The page's clock is the test's.
func (u *user) tapsLive(fraction float64) {
	u.t.Helper()
	u.MustEval(`() => { window.at ??= 1000; performance.now = () => window.at }`)
	key := func(after float64, k rune) {
		u.MustEval(`(by) => { window.at += by }`, after*1000)
		require.NoError(u.t, u.Keyboard.Press(input.Key(k)))
		require.NoError(u.t, u.Keyboard.Release(input.Key(k)))
	}
	for i := range 4 {
		key(float64(min(i, 1))*(0.5-fraction), 'a')
		key(fraction, 's')
		key(0.5-fraction, 'k')
		key(fraction, 'l')
	}
	u.MustEval(`() => { window.at += 10_000 }`) // it is past
}

// The footfall is timed while the horse goes, in the arena and in the assessment: a walk
// that is asked for is met once it was timed as one.
func TestAWalkIsTimedWhileItGoes(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 900).signsInDemo()
	u.goes("/horses")
	u.begins("Vesper")
	u.asksFor("walk", "rushing")
	u.seesIn(".ask h1", "Walk")
	for range 3 {
		u.pull(2)
		u.answers("accepted")
	}
	u.seesIn(".say", "Time the footfall, or say what you see: it is met once that is an even walk.")
	u.presses("four even beats, by eye")
	u.sees("Four even beats, by eye: nothing was timed.")
	u.seesIn(".what", "Up")
	u.presses("Undo.*")
	u.seesIn(".say", "Time the footfall, or say what you see")
	u.presses("time the footfall")
	u.sees("three strides and more")
	u.tapsLive(0.1)
	u.sees("A stepping pace.")
	u.presses("Keep it")
	u.seesIn(".say", "but timed: A stepping pace.")
	u.presses("time the footfall")
	u.sees("three strides and more")
	u.tapsLive(0.25)
	u.sees("It walks. Four even beats.")
	u.wholeAt("the footfall timer over the arena", 1280, 412, 320)
	u.presses("Keep it")
	u.seesIn(".what", "Up")
	u.sees("Timed: It walks.")
	assert.Equal(t, 3, y.counts(`SELECT count(*) FROM entries WHERE body LIKE '%"footfall":{"step":"rush.walk"%' AND device <> 'demo'`))

	u.goes("/horses")
	u.asksAboutPepperdine()
	u.presses("Begin the assessment")
	u.section("C")
	u.presses("Time it while it goes")
	u.sees("three strides and more")
	u.tapsLive(0.02)
	u.sees("It paces.")
	u.presses("Keep it")
	u.presses("Take the timing off")
	u.presses("Time it while it goes")
	u.sees("three strides and more")
	u.tapsLive(0.02)
	u.presses("Keep it")
	u.waits("what was timed kept", "button", "Take the timing off", "() => true")
	u.MustReload().MustWaitLoad()
	u.sees("It paces.")
}
