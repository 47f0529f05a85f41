package desk

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
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
