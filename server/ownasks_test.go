package server

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/cases"
	"ivorybridge/server/horses"
	"ivorybridge/server/methods"
)

// What one horse was asked beside all ladders becomes a step of an own ladder, by its
// own key: what the horse has done there stands on the bridge from the first day.
func TestAnOwnAskBecomesAStepWithItsHistory(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	key := "own." + uuid.NewString()
	at := p.now.UnixMilli()
	entries := []any{map[string]any{"id": uuid.NewString(), "kind": "mark", "at": at, "mark": map[string]any{"new": map[string]any{"key": key, "name": "stands for the umbrella", "sides": true}, "ask": map[string]any{"step": key, "variant": "near"}}}}
	for _, side := range []string{"near", "off"} {
		for range 3 {
			at += 60_000
			entries = append(entries, map[string]any{"id": uuid.NewString(), "kind": "rep", "at": at, "rep": map[string]any{"step": key, "variant": side, "answer": "accepted", "peak": 2, "arousal": 1}})
		}
	}
	entries = append(entries, map[string]any{"id": uuid.NewString(), "kind": "end", "at": at + 1000})
	a := p.ask(http.MethodPost, "/api/sessions/"+id+"/entries", map[string]any{"sent_at": at + 2000, "entries": entries})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	require.NotContains(t, a.Body.String(), `"say":"`)

	var asked []methods.OwnAsk
	p.ask(http.MethodGet, "/api/asks/own", nil).into(&asked)
	require.Len(t, asked, 1)
	assert.Equal(t, key, asked[0].Ask.Key)

	var own cases.OwnLadder
	p.ask(http.MethodPost, "/api/ladders", map[string]any{"ladder": "load", "name": "Ours", "version": 0}).into(&own)
	steps := []any{}
	for _, s := range own.Doc.Steps {
		steps = append(steps, map[string]any{
			"key": s.Key, "name": s.Name, "ask": s.Ask, "plain": s.Plain, "release": s.Release, "watch": s.Watch, "measures": s.Measures,
			"run": s.Pass.Run, "level": s.Pass.Level, "values": s.Pass.Values, "unit": s.Pass.Unit, "corrections": s.Pass.Corrections, "and": s.Pass.And, "kit": s.Kit,
		})
	}
	steps = append(steps, map[string]any{"key": key, "name": "umbrella", "ask": "stands for the umbrella", "plain": "standing for the umbrella", "measures": []string{"answer"}, "run": 3, "level": 3, "sides": true})
	a = p.ask(http.MethodPut, "/api/ladders/"+own.ID, map[string]any{"name": "Ours", "where": "At the trailer", "version": 1, "stands_on": []string{"lead.back"}, "steps": steps})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	own = cases.OwnLadder{}
	a.into(&own)
	require.Len(t, own.Doc.StandsOn, 1)
	assert.Equal(t, "lead.back", own.Doc.StandsOn[0].Step)

	a = p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "ours", "choices": map[string]any{"own": map[string]any{"load": map[string]any{"id": own.ID, "version": own.Version}}}})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	last := file.Bridge.Planks[len(file.Bridge.Planks)-1]
	assert.Equal(t, key, last.Step)
	assert.Equal(t, "met", last.State.String(), "with its history")
}
