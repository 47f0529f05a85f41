package desk

import (
	"encoding/json"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

func shipped(t *testing.T) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func asJSON(t *testing.T, v any) []byte {
	t.Helper()
	text, err := json.Marshal(v)
	require.NoError(t, err)
	return text
}

// opened is a desk with the catalogue and a session of a case open.
func opened(t *testing.T) (*Desk, arena.Brief) {
	t.Helper()
	c := shipped(t)
	f, err := casefile.Read(c, casefile.Input{Today: "2026-06-01", Problem: horse.Loading})
	require.NoError(t, err)
	var d Desk
	_, err = d.Call("catalog", asJSON(t, c))
	require.NoError(t, err)
	brief := f.Brief()
	told, err := d.Call("open", asJSON(t, Opening{Brief: brief, Beginning: arena.Beginning{Ask: horse.Ask{Step: "lead.forward"}, Started: 1000}, Rules: c.Rules}))
	require.NoError(t, err)
	var p arena.Picture
	require.NoError(t, json.Unmarshal(told, &p))
	assert.Equal(t, "lead.forward", p.Advice.Next.Step)
	assert.NotEmpty(t, p.Advice.Say.Text)
	return &d, brief
}

// The catalogue comes back from its JSON as it was: the same needs, steps and
// values for every horse.
func TestTheCatalogueIsTheSameAfterItWasTold(t *testing.T) {
	c := shipped(t)
	again, err := catalog.Decode(asJSON(t, c))
	require.NoError(t, err)
	assert.Equal(t, asJSON(t, c), asJSON(t, again))
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			assert.Equal(t, c.Needs(s.Key), again.Needs(s.Key), s.Key)
			got, _ := again.Step(s.Key)
			assert.Equal(t, s.Asks(), got.Asks())
		}
	}
	_, err = catalog.Decode([]byte(`{"version":"x"}`))
	assert.Error(t, err, "a catalogue without schools is none")
}

func TestADeskOpensASessionAndAdvises(t *testing.T) {
	d, _ := opened(t)
	rep := track.Rep{Ask: horse.Ask{Step: "lead.forward"}, Answer: horse.Accepted, Peak: horse.LevelOf(2)}
	told, err := d.Call("add", asJSON(t, Added{Now: 62_000, Entries: []track.Entry{
		{ID: "a", Kind: track.KindRep, At: 61_000, Rep: &rep}, {ID: "b", Kind: track.KindRep, At: 62_000},
	}}))
	require.NoError(t, err)
	var a Answered
	require.NoError(t, json.Unmarshal(told, &a))
	require.Len(t, a.Refused, 1)
	assert.Equal(t, "b", a.Refused[0].ID)
	assert.Contains(t, a.Refused[0].Say, "needs its rep")
	assert.Len(t, a.Told.Beads, 1)
	assert.Equal(t, "a", a.Told.Last.ID)
	assert.Equal(t, 1, a.Told.Count)

	told, err = d.Call("tell", []byte(`{"now":90000}`))
	require.NoError(t, err)
	var p arena.Picture
	require.NoError(t, json.Unmarshal(told, &p))
	assert.Empty(t, p.Beads, "told before")
	assert.Equal(t, 1, p.From)
}

func TestTheGateAnswersWithoutAServer(t *testing.T) {
	d, brief := opened(t)
	gate := func(r arena.Readiness) Verdict {
		told, err := d.Call("gate", asJSON(t, Asking{Brief: brief, Today: "2026-06-01", Readiness: r}))
		require.NoError(t, err)
		var v Verdict
		require.NoError(t, json.Unmarshal(told, &v))
		return v
	}
	calm := arena.Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}
	v := gate(calm)
	assert.True(t, v.May)
	assert.Equal(t, "lead.forward", v.Ask.Step)
	assert.NotEmpty(t, v.Name)
	calm.Arousal = horse.ArousalOf(4)
	v = gate(calm)
	assert.False(t, v.May)
	assert.Contains(t, v.Reasons[0].Text, "Explosive at the gate")
}

// The sequence card refuses a wrong order where there is no server, too.
func TestTheSequenceCardIsTickedAtTheDesk(t *testing.T) {
	d, _ := opened(t)
	card, ok := shipped(t).Methods.Card("trailer")
	require.True(t, ok)
	run := card.Runs[0]
	tick := func(done []string, line string) catalog.Now {
		told, err := d.Call("card", asJSON(t, CardAsked{Key: "trailer", Tick: catalog.Tick{Run: run.Key, Done: done, Tick: line}}))
		require.NoError(t, err)
		var now catalog.Now
		require.NoError(t, json.Unmarshal(told, &now))
		return now
	}
	now := tick([]string{}, run.Lines[0].Key)
	assert.Equal(t, run.Lines[1].Key, now.Next)
	now = tick(now.Done, run.Lines[3].Key)
	require.NotNil(t, now.Refused)
	assert.NotEmpty(t, now.Refused.Text)
	_, err := d.Call("card", []byte(`{"key":"none"}`))
	assert.ErrorContains(t, err, "no card")
}

// What a session came to is read where there is no server, too.
func TestASessionIsReviewedAtTheDesk(t *testing.T) {
	d, _ := opened(t)
	rep := track.Rep{Ask: horse.Ask{Step: "lead.forward"}, Answer: horse.Accepted, Peak: horse.LevelOf(2)}
	_, err := d.Call("add", asJSON(t, Added{Now: 62_000, Entries: []track.Entry{{ID: "a", Kind: track.KindRep, At: 61_000, Rep: &rep}}}))
	require.NoError(t, err)
	told, err := d.Call("review", []byte("{}"))
	require.NoError(t, err)
	var r Reviewed
	require.NoError(t, json.Unmarshal(told, &r))
	assert.Contains(t, r.Story[0].Text, "First lead forward: 1 ask, 1 soft")
	assert.Len(t, r.Beads, 1)
}

func TestADeskSaysWhatItCantDo(t *testing.T) {
	var d Desk
	for name, asked := range map[string]string{"tell": "{}", "catalog": "[", "nonsense": "{}"} {
		_, err := d.Call(name, []byte(asked))
		assert.Error(t, err, name)
	}
	_, err := d.Call("catalog", asJSON(t, shipped(t)))
	require.NoError(t, err)
	for name, want := range map[string]string{"tell": "no session is open", "add": "no session is open", "nonsense": `"nonsense"`} {
		_, err := d.Call(name, []byte("{}"))
		assert.ErrorContains(t, err, want)
	}
	_, err = d.Call("open", []byte(`{"brief":3}`))
	assert.ErrorContains(t, err, "reading what was asked")
}

// An outing is laid out and walked at the desk, as it is without a signal: what is owed,
// and at home what it counts as and what comes next.
func TestAnOutingAtTheDesk(t *testing.T) {
	c := shipped(t)
	f, err := casefile.Read(c, casefile.Input{Today: "2026-06-01", Problem: horse.Problem{}.All()[1]})
	require.NoError(t, err)
	var d Desk
	call := func(name string, in, out any) {
		t.Helper()
		told, err := d.Call(name, asJSON(t, in))
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(told, out))
	}
	call("catalog", c, &struct{}{})
	_, err = d.Call("walk", asJSON(t, WalkAsked{}))
	require.ErrorIs(t, err, errNothingOpen)

	var timed Timed
	call("footfall", TapsAsked{Words: phrase.Shipped}, &timed)
	assert.Equal(t, "Not enough strides: three more of the near hind and three more of the off hind.", timed.Result.Says.Text)
	timed = Timed{}
	call("footfall", TapsAsked{Taps: gait.Taps{Speed: 9}, Words: phrase.Shipped}, &timed)
	assert.Equal(t, "The speed of a clip is between 0 and 8 times the true one.", timed.Wrong)

	var laid Laid
	call("road", Laying{Road: track.Road{Minutes: 12, Metres: 900, Moving: 10}, Before: 1, Words: phrase.Shipped}, &laid)
	assert.Len(t, laid.Plan.Stops, 15)
	laid = Laid{}
	call("road", Laying{Road: track.Road{}, Words: phrase.Shipped}, &laid)
	assert.Equal(t, "A road of 0 m is no way out: give its minutes, or how far it is and the pace.", laid.Wrong)

	call("open", Opening{Brief: f.Brief(), Beginning: arena.Beginning{Ask: horse.Ask{Step: "home.near"}, Started: 1000}, Rules: c.Rules, Words: phrase.Shipped}, &arena.Picture{})
	var w Walked
	call("walk", WalkAsked{Before: 1, Now: 2000}, &w)
	assert.Nil(t, w.State, "nobody has set off")
	n := 0
	press := func(at int64, b track.Button, r *track.Road) {
		n++
		e := track.Entry{ID: uuid.NewString(), Kind: track.KindMark, At: at * 1000, Device: "d", Seq: int64(n), Mark: &track.Mark{Walk: &track.Walk{Button: b, Road: r}}}
		var told Answered
		call("add", Added{Entries: []track.Entry{e}, Now: at * 1000}, &told)
		require.Empty(t, told.Refused)
	}
	press(10, track.SetOff, &track.Road{Minutes: 1, Metres: 80, Moving: 1})
	press(70, track.Turned, nil)
	press(70, track.StoppedAt, nil)
	call("walk", WalkAsked{Before: 1, Now: 80_000}, &w)
	assert.InDelta(t, 50, w.State.Owed, 0.001)
	assert.Equal(t, "Stand on a slack rope.", w.State.Says[0].Text)
	press(130, track.Stood, nil)
	press(130, track.Moving, nil)
	press(190, track.AtHome, nil)
	call("walk", WalkAsked{Before: 1, Now: 500_000}, &w)
	require.Len(t, w.Reps, 1)
	assert.Equal(t, horse.Accepted, w.Reps[0].Answer)
	assert.Equal(t, "home.near", w.Reps[0].Step)
	assert.Contains(t, w.Next.Why.Text, "A quarter further")
}
