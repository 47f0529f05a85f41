package server

import (
	"net/http"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/server/assessments"
	"ivorybridge/server/cases"
	"ivorybridge/server/horses"
	"ivorybridge/server/people"
)

func intake(change map[string]any) map[string]any {
	body := map[string]any{
		"name": "Plum", "record": map[string]any{"born": "2018-01-01"}, "owner": map[string]any{"kind": "owner", "name": "Bram"},
		"problem": "loading", "goal": "Loads", "yard": map[string]any{"name": "Tarn Side"},
	}
	for k, v := range change {
		if v == nil {
			delete(body, k)
			continue
		}
		body[k] = v
	}
	return body
}

func TestBadInputIsRefusedWithASentence(t *testing.T) {
	p := signedInPractice(t)
	long := strings.Repeat("x", 121)
	for name, c := range map[string]struct {
		change map[string]any
		field  string
		says   string
	}{
		"no name":               {map[string]any{"name": ""}, "name", "too short"},
		"a missing name":        {map[string]any{"name": nil}, "name", "missing"},
		"a blank name":          {map[string]any{"name": "  \t "}, "name", "Give the horse's name"},
		"far too long":          {map[string]any{"name": long}, "name", "Shorten it to 120"},
		"a number for a name":   {map[string]any{"name": 7}, "name", "text"},
		"no goal":               {map[string]any{"goal": " "}, "goal", "how we will know it"},
		"an unknown problem":    {map[string]any{"problem": "flying"}, "problem", "Choose one of these"},
		"another's plank":       {map[string]any{"until": map[string]string{"loading": "feet.up"}}, "until.loading", "not a plank"},
		"a goal of no problem":  {map[string]any{"until": map[string]string{"feet": "feet.up"}}, "until.feet", "Choose the problem first"},
		"a handler of no name":  {map[string]any{"handlers": []any{map[string]any{"kind": "other", "name": " "}}}, "handlers.0.name", "name"},
		"a long thing":          {map[string]any{"thing": long}, "thing", "Shorten it to 60"},
		"no problem":            {map[string]any{"problem": ""}, "problem", "Choose the problem"},
		"a date that is none":   {map[string]any{"needed_by": "2026-13-40"}, "needed_by", "not a date"},
		"a date gone by":        {map[string]any{"needed_by": "2026-05-01"}, "needed_by", "has passed"},
		"born tomorrow":         {map[string]any{"record": map[string]any{"born": "2026-06-02"}}, "record.born", "future"},
		"gelded before birth":   {map[string]any{"record": map[string]any{"born": "2018-01-01", "gelded": "2017-01-01"}}, "record.gelded", "before the horse was born"},
		"arrived before birth":  {map[string]any{"record": map[string]any{"born": "2018-01-01", "arrived": "2016-01-01"}}, "record.arrived", "before the horse was born"},
		"14 cm":                 {map[string]any{"record": map[string]any{"height_mm": 140}}, "record.height_mm", "If you mean 14 hands, that is 142 cm"},
		"a heavy horse":         {map[string]any{"record": map[string]any{"weight_g": 2_000_000_000}}, "record.weight_g", "from 30 to 1500"},
		"half a ride":           {map[string]any{"record": map[string]any{"rides": 1.5}}, "record.rides", "whole number"},
		"an unknown key":        {map[string]any{"colour": "bay"}, "colour", "not known"},
		"nobody to own it":      {map[string]any{"owner": nil}, "owner_id", "Choose the owner"},
		"an owner with no name": {map[string]any{"owner": map[string]any{"kind": "owner", "name": " "}}, "owner.name", "name"},
		"an address that's no address": {
			map[string]any{"owner": map[string]any{"kind": "owner", "name": "B", "email": "nowhere"}}, "owner.email", "not an email",
		},
		"a yard with no name": {map[string]any{"yard": map[string]any{"name": " "}}, "yard.name", "yard's name"},
	} {
		a := p.ask(http.MethodPost, "/api/horses", intake(c.change))
		assert.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s: %s", name, a.Body)
		says := ""
		for _, e := range a.problem().Errors {
			if e.Field == c.field {
				says += e.Say
			}
		}
		assert.Contains(t, says, c.says, "%s: %s", name, a.Body)
	}
	for _, body := range []string{"", "{", "[]", "null", `"x"`, "\x00"} {
		a := p.ask(http.MethodPost, "/api/horses", body)
		assert.GreaterOrEqual(t, a.Code, 400, "%q", body)
		assert.Less(t, a.Code, 500, "%q: %s", body, a.Body)
	}
	assert.Equal(t, http.StatusRequestEntityTooLarge, p.ask(http.MethodPost, "/api/horses", strings.Repeat(" ", api.MaxBody+1)).Code)
	var people []people.Person
	p.ask(http.MethodGet, "/api/people", nil).into(&people)
	assert.Len(t, people, 1, "nothing was half-saved")
}

func TestUnknownIDsAreNotFound(t *testing.T) {
	p := signedInPractice(t)
	for _, owner := range []map[string]any{{"owner": nil, "owner_id": uuid.NewString()}, {"yard": nil, "yard_id": uuid.NewString()}} {
		a := p.ask(http.MethodPost, "/api/horses", intake(owner))
		assert.Equal(t, http.StatusNotFound, a.Code, "%s", a.Body)
	}
	for _, op := range p.operations(uuid.NewString()) {
		if !strings.Contains(op[1], "-") || strings.Contains(op[1], "sign-") {
			continue
		}
		assert.Equal(t, http.StatusNotFound, p.ask(op[0], op[1], validBody(op)).Code, op)
	}
	for _, op := range p.operations("no-id") {
		if strings.Contains(op[1], "no-id") && !strings.HasPrefix(op[1], "/api/owner/") { // where without a link nothing is looked at
			a := p.ask(op[0], op[1], validBody(op))
			assert.Equal(t, http.StatusUnprocessableEntity, a.Code, op)
			assert.Contains(t, a.problem().Errors[0].Say, "not an id")
		}
	}
}

func TestAnyNameIsKeptAsItIs(t *testing.T) {
	p := signedInPractice(t)
	for _, name := range []string{"<script>alert(1)</script>", "Émile 🐴", "نجمة الصباح", "O'Leary; DROP TABLE horses", strings.Repeat("长", 120), "{trailer}"} {
		var h horses.Horse
		p.ask(http.MethodPost, "/api/horses", intake(map[string]any{"name": name})).into(&h)
		assert.Equal(t, name, h.Name)
		var f horses.File
		p.ask(http.MethodGet, "/api/horses/"+h.ID, nil).into(&f)
		assert.Equal(t, name, f.Name)
	}
}

func TestStaleSavesShowBothVersions(t *testing.T) {
	p := signedInPractice(t)
	save := func(name string, version int) answer {
		return p.ask(http.MethodPut, "/api/horses/"+p.horse, map[string]any{"name": name, "record": map[string]any{}, "version": version})
	}
	require.Equal(t, http.StatusOK, save("Copper", 1).Code)
	a := save("Moth again", 1)
	assert.Equal(t, http.StatusConflict, a.Code)
	assert.Equal(t, "Copper", a.problem().Current.(map[string]any)["name"])
	require.Equal(t, http.StatusOK, save("Moth again", 2).Code)

	a = p.ask(http.MethodPut, "/api/horses/"+p.horse, map[string]any{"name": "x", "record": map[string]any{}, "version": 3, "yard_id": uuid.NewString()})
	assert.Equal(t, http.StatusNotFound, a.Code, "an unknown yard is no conflict")
}

func TestACaseIsFinishedAndTakenUpAgain(t *testing.T) {
	p := signedInPractice(t)
	ask := func(version int, more map[string]any) answer {
		body := map[string]any{"goal": "Loads alone", "finished": false, "version": version}
		for k, v := range more {
			body[k] = v
		}
		return p.ask(http.MethodPut, "/api/cases/"+p.kase, body)
	}
	change := func(version int, more map[string]any) (k cases.Case) {
		ask(version, more).into(&k)
		return k
	}
	assert.Equal(t, "2026-06-01", change(1, map[string]any{"finished": true}).FinishedOn)
	var rows []horses.Row
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	assert.Empty(t, rows[0].Attention, "what is finished wants nothing")
	assert.Equal(t, http.StatusConflict, ask(1, nil).Code)
	assert.Empty(t, change(2, map[string]any{"needed_by": "2026-09-01"}).FinishedOn)
	assert.Equal(t, "needed_by", ask(3, map[string]any{"needed_by": "2026-05-31"}).problem().Errors[0].Field)
	p.now = p.now.AddDate(0, 4, 0)
	p.signIn("Wren@example.org", password)
	assert.Equal(t, "2026-09-01", change(3, map[string]any{"needed_by": "2026-09-01"}).NeededBy, "a date that has passed since may stay")
}

func TestTheCaseloadPutsWhatPressesFirst(t *testing.T) {
	p := signedInPractice(t)
	assess := func(more ...any) {
		p.marks(uuid.NewString(), append([]any{"problems/loading/baseline/done", true}, more...)...)
	}
	unlooked := p.horse
	p.takesOn(p.actor)
	assess()
	begun := p.horse
	p.takesOn(p.actor)
	assess("body/hind leg/state", "suspect")
	lame := p.horse
	var rows []horses.Row
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	var order []string
	for _, r := range rows {
		order = append(order, r.ID)
	}
	assert.Equal(t, []string{lame, unlooked, begun}, order, "a referral, then what was not looked at, then what has not begun")
	assert.Equal(t, "Ask the vet", rows[0].Attention[0].Does.Text)
	assert.Contains(t, rows[0].Attention[0].Say.Text, "Hind leg that snatches or locks. Due")
	assert.Equal(t, []string{"first", "decide", "decide"}, []string{rows[0].Need.String(), rows[1].Need.String(), rows[2].Need.String()})
	assert.Positive(t, rows[0].Bridge.Blocked)
}

func TestPeopleAreCheckedToo(t *testing.T) {
	p := signedInPractice(t)
	var person people.Person
	p.ask(http.MethodPost, "/api/people", map[string]any{"kind": "vet", "name": " Orla ", "phone": "1"}).into(&person)
	assert.Equal(t, "Orla", person.Name)
	for field, body := range map[string]map[string]any{
		"kind": {"kind": "ghost", "name": "x"}, "name": {"kind": "vet", "name": "  "}, "email": {"kind": "vet", "name": "x", "email": "a b@c"},
		"phone": {"kind": "vet", "name": "x", "phone": strings.Repeat("1", 61)},
	} {
		a := p.ask(http.MethodPut, "/api/people/"+person.ID, merged(body, "version", 1))
		assert.Equal(t, http.StatusUnprocessableEntity, a.Code, field)
		assert.Equal(t, field, a.problem().Errors[0].Field)
	}
	var yard people.Yard
	p.ask(http.MethodPost, "/api/yards", map[string]any{"name": "Tarn Side"}).into(&yard)
	a := p.ask(http.MethodPut, "/api/yards/"+yard.ID, map[string]any{"name": " ", "version": 1})
	assert.Equal(t, "name", a.problem().Errors[0].Field)
	p.ask(http.MethodPut, "/api/yards/"+yard.ID, map[string]any{"name": "Tarn Side", "phone": "2", "version": 1}).into(&yard)
	assert.EqualValues(t, 2, yard.Version)
	assert.Equal(t, http.StatusConflict, p.ask(http.MethodPut, "/api/yards/"+yard.ID, map[string]any{"name": "x", "version": 1}).Code)
}

func merged(body map[string]any, key string, value any) map[string]any {
	body[key] = value
	return body
}

func TestPasswordsAreNotEchoed(t *testing.T) {
	p := newPractice(t)
	secret := strings.Repeat("s3cret", 50)
	a := p.signIn("Wren@example.org", secret)
	assert.Equal(t, http.StatusUnprocessableEntity, a.Code)
	assert.NotContains(t, a.Body.String(), "s3cret")
}

// What once broke the server off, and so an outbox for ever: all of it is answered
// with a sentence, and what is good beside it is kept.
func TestWhatCanNotBeIsAnsweredWithASentence(t *testing.T) {
	p := signedInPractice(t)
	session, _ := p.session()
	fine, urn := rep("accepted", 2), rep("try", 3)
	id := urn["id"].(string)
	urn["id"] = "urn:uuid:" + id
	braces, late, long, nul := rep("try", 3), rep("try", 3), rep("try", 3), rep("try", 3)
	braces["id"] = "{" + braces["id"].(string) + "}"
	late["at"], long["at"] = 7_258_118_400_001, 9e18
	nul["note"] = "a\x00b"
	fine["at"] = at(fine, 0, 2)["at"]
	logged := p.logs(session, urn, fine, braces, late, long, nul)
	said := map[string]string{}
	for _, r := range logged.Refused {
		said[r.ID] = r.Say
	}
	require.Len(t, said, 5)
	assert.Contains(t, said[urn["id"].(string)], "not an id of this product")
	assert.Contains(t, said[braces["id"].(string)], "not an id of this product")
	assert.Contains(t, said[late["id"].(string)], "no time that can be")
	assert.Contains(t, said[long["id"].(string)], "no time that can be")
	assert.Contains(t, said[nul["id"].(string)], "can't be kept")
	require.Len(t, logged.Told.Beads, 1, "the good one is kept")

	now := p.now.UnixMilli()
	const day = 24 * 3_600_000
	begin := func(started, sent int64) map[string]any {
		return map[string]any{"id": uuid.NewString(), "started_at": started, "sent_at": sent, "zone": "Europe/London", "readiness": calm}
	}
	entries := func(sent any) map[string]any {
		return map[string]any{"sent_at": sent, "entries": []any{rep("try", 1)}}
	}
	for name, c := range map[string]struct {
		path  string
		body  any
		field string
	}{
		"begun two days ahead":      {"/api/cases/" + p.kase + "/sessions", begin(now+2*day, now), "started_at"},
		"begun in another age":      {"/api/cases/" + p.kase + "/sessions", begin(9e15, now), "started_at"},
		"sent in another age":       {"/api/cases/" + p.kase + "/sessions", begin(now, 9e15), "sent_at"},
		"sent before all time":      {"/api/sessions/" + session + "/entries", entries(-9e18), "entries"},
		"sent after all time":       {"/api/sessions/" + session + "/entries", entries(9e18), "entries"},
		"a session of an urn":       {"/api/cases/" + p.kase + "/sessions", merged(begin(now, now), "id", "urn:uuid:"+uuid.NewString()), "id"},
		"a horse by an urn":         {"/api/horses/urn:uuid:" + p.horse + "/assessments/" + uuid.NewString() + "/marks", map[string]any{"sent_at": 0, "marks": []any{aMark("tack/bit", "gag")}}, "path.id"},
		"a name with an end in it":  {"/api/horses", intake(map[string]any{"name": "Mo\x00th"}), "name"},
		"a mark of another age":     {"/api/horses/" + p.horse + "/assessments/" + uuid.NewString() + "/marks", map[string]any{"sent_at": 0, "marks": []any{merged(aMark("tack/bit", "gag"), "at", 9e18)}}, "marks[0].at"},
		"an assessment by its dash": {"/api/horses/" + p.horse + "/assessments/" + strings.ReplaceAll(uuid.NewString(), "-", "") + "/marks", map[string]any{"sent_at": 0, "marks": []any{aMark("tack/bit", "gag")}}, "path.of"},
	} {
		a := p.ask(http.MethodPost, c.path, c.body)
		assert.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s: %s", name, a.Body)
		if errs := a.problem().Errors; assert.NotEmpty(t, errs, "%s: %s", name, a.Body) {
			assert.Equal(t, c.field, errs[0].Field, name)
			assert.NotEmpty(t, errs[0].Say, name)
		}
	}
	of := uuid.NewString()
	var marked assessments.Marked
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", map[string]any{"sent_at": 0, "marks": []any{
		aMark("body/back/note", "flin\x00ches"), aMark("body/back/state", "suspect"),
	}}).into(&marked)
	require.Len(t, marked.Refused, 1)
	assert.Contains(t, marked.Refused[0].Say, "can't be kept")
	assert.Equal(t, "suspect", marked.Assessment.Doc.Body[horse.Back].State.String(), "the good mark beside it is kept")
}
