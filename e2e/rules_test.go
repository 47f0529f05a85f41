package e2e

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/desk"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// tracks draws sessions of every school with every kind of entry.
type tracks struct {
	*rand.Rand
	asks []horse.Ask
	c    *catalog.Catalog
}

func one[T any](d tracks, list []T) T { return list[d.IntN(len(list))] }

func (d tracks) some(of int) bool { return d.IntN(of) == 0 }

func (d tracks) input() arena.Input {
	in := arena.Input{
		School: one(d, horse.School{}.All()), Ask: one(d, d.asks), Handler: "h", Started: 1_760_000_000_000,
		Horse:    arena.Horse{Young: d.some(4), BodyClear: d.some(2), FearLikely: d.some(3), GuardsItself: d.some(9)},
		Handlers: map[string]arena.Handler{"h": {Owner: d.some(3), Beginner: d.some(3)}},
		Schools:  map[string]horse.School{},
	}
	for _, l := range d.c.Ladders {
		in.Schools[l.Key] = one(d, horse.School{}.All())
	}
	for range d.IntN(14) {
		in.Known = append(in.Known, arena.Known{Ask: one(d, d.asks), State: one(d, horse.StepState{}.All()), Soft: true, Level: horse.LevelOf(1 + d.IntN(3))})
	}
	for range d.IntN(3) {
		in.Blocked = append(in.Blocked, one(d, d.asks).Step)
	}
	at := in.Started
	few := []horse.Ask{in.Ask, in.Ask, in.Ask, one(d, d.asks), one(d, d.asks)}
	for i := range d.IntN(60) {
		at += int64(d.IntN(150_000))
		in.Track = append(in.Track, d.entry(i, at, one(d, few)))
	}
	in.Now = at + int64(d.IntN(900_000))
	return in
}

func (d tracks) entry(i int, at int64, a horse.Ask) track.Entry {
	e := track.Entry{ID: fmt.Sprintf("%04d", i), At: at, Device: one(d, []string{"tablet", "phone"}), Seq: int64(i)}
	arousal := horse.Arousal{}
	if d.some(3) {
		arousal = horse.ArousalOf(d.IntN(5))
	}
	var ways []horse.WayOut
	var signs []horse.Sign
	if d.some(7) {
		ways = append(ways, one(d, horse.WayOut{}.All()))
	}
	if d.some(5) {
		signs = append(signs, one(d, horse.Sign{}.All()))
	}
	rep := track.Rep{Ask: a, Answer: one(d, horse.Answer{}.All()), Peak: horse.LevelOf(d.IntN(11)), Arousal: arousal, WaysOut: ways, Signs: signs, Seconds: float64(d.IntN(90))}
	switch d.IntN(12) {
	case 0:
		e.Kind, e.Replaces = track.KindUndo, fmt.Sprintf("%04d", d.IntN(max(i, 1)))
		if i == 0 {
			e.Replaces = "none"
		}
	case 1:
		e.Kind, e.Mark = track.KindMark, &track.Mark{Arousal: arousal, Signs: signs, EasyMinutes: d.IntN(3), Bump: d.some(6)}
		if d.some(3) {
			e.Mark.Ask = &a
		}
	case 2:
		e.Kind, e.Dose = track.KindDose, &track.Dose{Rep: rep, Given: d.IntN(20), Steps: d.IntN(3)}
	case 3:
		e.Kind, e.Offer = track.KindOffer, &track.Offer{Ask: a, Answer: one(d, track.Offered{}.All()), Arousal: arousal, Signs: signs}
	case 4, 5:
		e.Kind, e.Spell = track.KindSpell, &track.Spell{Ask: a, Place: one(d, track.SpellPlace{}.All()), Rest: d.some(2), Seconds: d.IntN(200), Level: horse.LevelOf(d.IntN(6)), Arousal: arousal}
	case 6:
		asks := 1 + d.IntN(20)
		e.Kind, e.Burst = track.KindBurst, &track.Burst{Ask: a, Asks: asks, OnTouch: d.IntN(asks + 1), Last: one(d, horse.Answer{}.All()), Arousal: arousal}
	case 7:
		e.Kind, e.Interruption = track.KindInterruption, &track.Interruption{Behaviour: one(d, horse.WayOut{}.All()), Level: horse.LevelOf(d.IntN(9)), Arousal: arousal}
	default:
		e.Kind, e.Rep = track.KindRep, &rep
	}
	return e
}

// The rules say the same in the browser as natively, byte for byte.
func TestTheBrowserSaysWhatTheServerSays(t *testing.T) {
	t.Parallel()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	told, err := json.Marshal(c)
	require.NoError(t, err)
	var here desk.Desk
	_, err = here.Call("catalog", told)
	require.NoError(t, err)

	pages := http.NewServeMux()
	pages.Handle("/made/", http.StripPrefix("/made/", http.FileServer(http.Dir("../web/src/rules/made"))))
	pages.HandleFunc("/", func(w http.ResponseWriter, _ *http.Request) {
		_, _ = w.Write([]byte(`<!doctype html><title>rules</title><script src="/made/wasm_exec.js"></script>`))
	})
	site := httptest.NewServer(pages)
	defer site.Close()
	page := browser.MustIncognito().MustPage(site.URL).MustWaitLoad()
	defer func() { _ = page.Close() }()
	page.MustEval(`async (catalog) => {
		const go = new Go()
		const { instance } = await WebAssembly.instantiateStreaming(fetch('/made/core.wasm'), go.importObject)
		void go.run(instance)
		return ivorybridge('catalog', catalog)
	}`, string(told))

	d := tracks{Rand: rand.New(rand.NewPCG(1, 2)), c: c}
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			if step.Link == "" {
				d.asks = append(d.asks, step.Asks()...)
			}
		}
	}
	const all, batch = 1000, 50
	differ := 0
	for range all / batch {
		docs := make([]string, batch)
		for i := range docs {
			doc, err := json.Marshal(desk.Document{Input: d.input(), Words: phrase.Shipped})
			require.NoError(t, err)
			docs[i] = string(doc)
		}
		answers := page.MustEval(`(docs) => docs.map((doc) => ivorybridge('advise', doc))`, docs).Arr()
		for i, doc := range docs {
			want, err := here.Call("advise", []byte(doc))
			require.NoError(t, err)
			if !assert.Equal(t, string(want), answers[i].Str()) {
				differ++
			}
			require.Less(t, differ, 3, "enough to see what differs")
		}
	}
}

// A running session is told in the browser as it is told natively, tap by tap.
func TestARunningSessionInTheBrowser(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	for range 4 {
		u.pull(2)
		u.answers("accepted")
	}
	u.keeps(4)
	u.seesIn(".strip", "accepted at 2")
	said := u.MustElement(".what").MustText()
	server := u.MustEval(`async () => (await (await fetch('/api/sessions/' + location.pathname.split('/').pop())).json()).told.advice.say.text`).Str()
	assert.Equal(t, server, said)
}
