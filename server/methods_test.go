package server

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/cases"
	"ivorybridge/server/methods"
)

// A ladder goes out as a file, is changed in an editor, comes in as one of the practice's
// own, and goes on from there; what is wrong is said line by line and changes nothing.
func TestALadderGoesOutAndInAsAFile(t *testing.T) {
	p := signedInPractice(t)
	var file methods.LadderFile
	p.ask(http.MethodGet, "/api/methods/bridle/file", nil).into(&file)
	assert.Equal(t, "bridle.yaml", file.Name)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/methods/moon/file", nil).Code)
	var form methods.LadderFile
	p.ask(http.MethodGet, "/api/ladders/schema", nil).into(&form)
	assert.Contains(t, form.Text, "json-schema.org")

	take := func(text string) answer {
		return p.ask(http.MethodPost, "/api/ladders/file", map[string]any{"version": 0, "text": text, "reason": "From Ash"})
	}
	swap := func(old, now string) string {
		require.Contains(t, file.Text, old)
		return strings.Replace(file.Text, old, now, 1)
	}
	for name, test := range map[string]struct{ text, say string }{
		"not YAML":          {"once upon a time: [", "About here it can't be read as YAML."},
		"a slip":            {swap("where:", "were:"), `There is no "were" in a ladder.`},
		"not one of ours":   {swap("ladder: bridle", "ladder: moon"), `There is no ladder "moon".`},
		"safety":            {swap("    blocked: [mouth", "    blocked: [skin, mouth"), `"blocked" can't be changed here. Write: blocked: [mouth`},
		"no such item":      {swap("    blocked: [mouth", "    blocked: [elbow, mouth"), `"elbow" can't be: one of mouth, back`},
		"no such need":      {swap("stands on: [", "stands on: [lead.moon, "), "lead.moon"},
		"a key of another":  {swap("step: bridle.nose", "step: lead.nose"), `begins with "bridle."`},
		"too many in a row": {swap("run: 3", "run: 300"), "pass mark"},
		"no name":           {swap("name: ", "name: '' # "), "name"},
		"a name too long":   {swap("    name: nose", "    name: "+strings.Repeat("nose ", 20)), "Name: "},
		"longer than any":   {strings.Repeat("x", 200_001), "200"},
	} {
		a := take(test.text)
		require.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s: %s", name, a.Body)
		assert.Contains(t, a.Body.String(), strings.ReplaceAll(test.say, `"`, `\"`), name)
		if name == "safety" || name == "no such item" || name == "a slip" || name == "a name too long" {
			assert.Regexp(t, `Line \d+: `, a.problem().Errors[0].Say)
		}
	}
	assert.Len(t, take(swap("stands on: [", "stands on: [lead.moon, ")).problem().Errors, 1, "one slip is said once")
	var h methods.Handbook
	p.ask(http.MethodGet, "/api/methods", nil).into(&h)
	require.Empty(t, h.Owns, "nothing was kept")

	var own cases.OwnLadder
	text := strings.Replace(swap("run: 3", "run: 5"), "name: ", "name: Ears last # ", 1)
	take(text).into(&own)
	assert.Equal(t, "Ears last", own.Name)
	assert.Equal(t, "From Ash", own.Reason)
	assert.Len(t, own.Changed, 1)
	shipped, _ := p.Catalog.Ladder("bridle")
	assert.Equal(t, shipped.Name, own.Doc.Name)
	assert.Equal(t, shipped.StandsOn, own.Doc.StandsOn, "with all that the needs say")
	for i, s := range shipped.Steps {
		assert.Equal(t, s.Blocked, own.Doc.Steps[i].Blocked, s.Key)
		assert.Equal(t, s.Needs, own.Doc.Steps[i].Needs, s.Key)
	}

	var out methods.LadderFile
	p.ask(http.MethodGet, "/api/ladders/"+own.ID+"/file", nil).into(&out)
	assert.Equal(t, "bridle-1.yaml", out.Name)
	assert.Contains(t, out.Text, "name: Ears last\n")
	again := func(version int, text string) answer {
		return p.ask(http.MethodPut, "/api/ladders/"+own.ID+"/file", map[string]any{"version": version, "text": text})
	}
	var next cases.OwnLadder
	again(1, strings.Replace(out.Text, "run: 5", "run: 4", 1)).into(&next)
	assert.EqualValues(t, 2, next.Version)
	assert.Equal(t, http.StatusConflict, again(1, out.Text).Code, "somebody kept another meanwhile")
	var lead methods.LadderFile
	p.ask(http.MethodGet, "/api/methods/lead/file", nil).into(&lead)
	assert.Contains(t, again(2, lead.Text).Body.String(), "Take it in as a ladder of its own")
}
