package server

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/assessments"
	"ivorybridge/server/horses"
	"ivorybridge/server/plans"
	"ivorybridge/server/sessions"
)

// A rescue's horse comes with two problems, three people who handle it, and a goal
// that ends before the ladders do: nothing of it is asked for again.
func TestARescuesHorseWithTwoProblemsAndItsHandlers(t *testing.T) {
	p := signedInPractice(t)
	var h horses.TakenOn
	p.ask(http.MethodPost, "/api/horses", intake(map[string]any{
		"owner":   map[string]any{"kind": "rescue", "name": "Far Field Rescue"},
		"problem": "feet", "also": []string{"new thing"}, "until": map[string]string{"feet": "feet.up"}, "thing": "fly spray",
		"handlers": []any{map[string]any{"kind": "other", "name": "Ada"}, map[string]any{"kind": "other", "name": "Sol"}},
	})).into(&h)
	assert.Equal(t, "rescue", h.Owners[0].Kind)
	require.Len(t, h.Handlers, 2)

	var pl plans.Plan
	p.ask(http.MethodGet, "/api/cases/"+h.CaseID+"/plan", nil).into(&pl)
	named := []string{}
	for _, w := range pl.Now.Ways {
		named = append(named, w.Ladder+" until "+w.Until)
	}
	assert.Contains(t, named, "feet until feet.up")
	assert.Contains(t, named, "new until ")
	handlers := []string{}
	for _, one := range pl.Handlers {
		handlers = append(handlers, one.Name)
	}
	assert.Equal(t, []string{"Ada", "Sol"}, handlers, "a rescue holds no rope; its people do")

	var walk assessments.Walk
	p.ask(http.MethodGet, "/api/cases/"+h.CaseID+"/assessment", nil).into(&walk)
	assert.Len(t, walk.Problems, 2)
	assert.Equal(t, "Ada", walk.People[0].Name)

	var start sessions.SessionStart
	p.ask(http.MethodGet, "/api/cases/"+h.CaseID+"/session-start", nil).into(&start)
	assert.Equal(t, "fly spray", start.Stage.Brief.Thing)
	assert.Contains(t, start.Handlers[1].Name, "Ada")

	var now horses.Horse
	p.ask(http.MethodDelete, "/api/horses/"+h.ID+"/handlers/"+h.Handlers[0].ID, nil).into(&now)
	assert.Len(t, now.Handlers, 1)
	p.ask(http.MethodPost, "/api/horses/"+h.ID+"/handlers", map[string]any{"kind": "other", "name": "Ida"}).into(&now)
	assert.Equal(t, "Ida", now.Handlers[0].Name)
}

// A further problem that the assessment takes out again stays out.
func TestAProblemTakenOutInTheAssessmentStaysOut(t *testing.T) {
	p := signedInPractice(t)
	var h horses.TakenOn
	p.ask(http.MethodPost, "/api/horses", intake(map[string]any{"also": []string{"girth"}})).into(&h)
	path := "/api/horses/" + h.ID + "/assessments/019e0000-0000-7000-8000-000000000001/marks"
	a := p.ask(http.MethodPost, path, map[string]any{"sent_at": 0, "marks": []any{aMark("problems/girth", nil)}})
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	var walk assessments.Walk
	p.ask(http.MethodGet, "/api/cases/"+h.CaseID+"/assessment", nil).into(&walk)
	assert.Len(t, walk.Problems, 1)
}
