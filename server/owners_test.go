package server

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	"image/color"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/server/horses"
	"ivorybridge/server/owners"
	"ivorybridge/server/reports"
	"ivorybridge/store"
)

// clears lets the owner rehearse a step, and do it watched, until cleared.
func (p *practice) clears(step string) (session string) {
	p.t.Helper()
	return p.clearsOn(step, "2026-06-01")
}

func (p *practice) clearsOn(step, day string) (session string) {
	p.t.Helper()
	items := map[string]string{}
	for _, item := range []string{"rope managed", "right place", "starts light", "builds evenly", "keeps raising until the partner answers", "lets go on the try", "own space kept"} {
		items[item] = "yes"
	}
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/rehearsals", map[string]any{"person": p.owner, "step": step, "on": day, "place": "person", "items": items}).into(&struct{}{})
	id := uuid.NewString()
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
		"id": id, "started_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": calm, "handler": p.owner,
	}).into(&struct{}{})
	var entries []any
	for i := range 5 {
		e := rep("accepted", 1)
		e["rep"] = map[string]any{"step": step, "answer": "accepted", "peak": 1, "arousal": 0, "release": "on the try", "handler": p.owner}
		entries = append(entries, p.timed(e, 10*i, i))
	}
	entries = append(entries, p.timed(map[string]any{"id": uuid.NewString(), "kind": "end", "device": "tablet", "note": "Stopped on a soft one"}, 100, 9))
	l := p.logs(id, entries...)
	require.Empty(p.t, l.Refused)
	return id
}

// timed sets an entry's time after now, and its place in the device's order.
func (p *practice) timed(e map[string]any, seconds, seq int) map[string]any {
	e["at"], e["seq"] = p.now.Add(time.Duration(seconds)*time.Second).UnixMilli(), seq
	return e
}

// link makes a private link and gives its token.
func (p *practice) link(of string, days int) (id, token string) {
	p.t.Helper()
	var made owners.NewLink
	p.ask(http.MethodPost, "/api/"+of+"/links", map[string]any{"days": days}).into(&made)
	token, ok := strings.CutPrefix(made.Path, "/o/#")
	require.True(p.t, ok)
	return made.ID, token
}

// opens asks with a private link and nothing else.
func (p *practice) opens(token, method, path string, body any) answer {
	p.t.Helper()
	text := ""
	if body != nil {
		j, err := json.Marshal(body)
		require.NoError(p.t, err)
		text = string(j)
	}
	r := httptest.NewRequest(method, path, strings.NewReader(text))
	r.RemoteAddr = p.from
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("Authorization", "Bearer "+token)
	w := httptest.NewRecorder()
	p.ServeHTTP(w, r)
	return answer{w, p.t}
}

func (p *practice) opened(token string) owners.Pages {
	p.t.Helper()
	var pages owners.Pages
	p.opens(token, http.MethodGet, "/api/owner", nil).into(&pages)
	return pages
}

func (p *practice) practise(token string, change map[string]any) owners.Kept {
	p.t.Helper()
	log := map[string]any{
		"id": uuid.NewString(), "person": "", "step": "lead.forward", "on": p.now.Format(time.DateOnly), "at": p.now.UnixMilli(),
		"done": true, "minutes": 10, "answers": []string{"yes", "yes"}, "arousal": 1,
	}
	for k, v := range change {
		log[k] = v
	}
	var kept owners.Kept
	p.opens(token, http.MethodPost, "/api/owner/practised", map[string]any{"horse": p.horse, "logs": []any{log}}).into(&kept)
	return kept
}

func (p *practice) later(d time.Duration) { p.now = p.now.Add(d) }

func said(pages owners.Pages, key string) string {
	all := ""
	for _, part := range pages.Horses[0].Parts {
		for _, s := range part.Says {
			if part.Key == key {
				all += s.Text + "\n"
			}
		}
	}
	return all
}

// A link tells how the horse stands and what may be practised; the page of a visit
// once it was sent; and nothing that is not the owner's to read.
func TestWhatALinkOpens(t *testing.T) {
	p := signedInPractice(t)
	session := p.clears("lead.forward")
	_, token := p.link("people/"+p.owner, 0)

	a := p.opens(token, http.MethodGet, "/api/owner", nil)
	assert.Equal(t, "no-store", a.Header().Get("Cache-Control"))
	assert.Contains(t, a.Header().Get("X-Robots-Tag"), "noindex")
	assert.Equal(t, "no-referrer", a.Header().Get("Referrer-Policy"))
	for _, never := range []string{p.actor.User, "@example.org", `"hands"`, `"delay"`, `"handler"`} {
		assert.NotContains(t, a.Body.String(), never)
	}
	pages := p.opened(token)
	require.Len(t, pages.Horses, 1)
	assert.Equal(t, "Ines", pages.For)
	assert.Contains(t, said(pages, "short"), "You may practise this, ten to fifteen minutes at a time: walking on beside a person.")
	require.NotNil(t, pages.Horses[0].Card)
	assert.Equal(t, "lead.forward", pages.Horses[0].Card.Steps[0].Step)
	assert.Nil(t, pages.Horses[0].Visit, "the page of the visit was not sent yet")

	var report reports.Report
	p.ask(http.MethodGet, "/api/sessions/"+session+"/report", nil).into(&report)
	edits := map[string]any{"one.line": map[string]any{"text": "She was a star.", "basis": ""}, "saw.arousal": map[string]any{"left_out": true, "text": "", "basis": ""}}
	p.ask(http.MethodPut, "/api/sessions/"+session+"/report", map[string]any{"version": 0, "edits": edits}).into(&report)
	assert.Contains(t, report.Message, "In short\n")
	p.ask(http.MethodPost, "/api/sessions/"+session+"/sent", nil).into(&struct{}{})
	visit := p.opened(token).Horses[0].Visit
	require.NotNil(t, visit)
	text, err := json.Marshal(visit)
	require.NoError(t, err)
	assert.Contains(t, string(text), "She was a star.")
	assert.NotContains(t, string(text), "settled", "it was left out")

	_, alone := p.link("sessions/"+session, 7)
	one := p.opened(alone)
	assert.Empty(t, one.Horses)
	assert.Equal(t, "Moth", one.Visit.Horse)
	assert.Equal(t, http.StatusNotFound, p.opens(alone, http.MethodPost, "/api/owner/practised", map[string]any{"horse": p.horse, "logs": []any{map[string]any{"id": uuid.NewString(), "person": "", "step": "lead.forward", "on": "2026-06-01", "at": 0, "done": false}}}).Code)
}

// Another owner's horse is never behind a link, nor is another practice's.
func TestALinkOpensNobodyElsesHorse(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	_, token := p.link("people/"+p.owner, 0)
	mine := p.horse
	p.takesOn(p.actor)
	pages := p.opened(token)
	require.Len(t, pages.Horses, 1)
	assert.Equal(t, mine, pages.Horses[0].ID)
	assert.Equal(t, http.StatusNotFound, p.opens(token, http.MethodPost, "/api/owner/practised", map[string]any{
		"horse": p.horse, "logs": []any{map[string]any{"id": uuid.NewString(), "person": "", "step": "lead.forward", "on": "2026-06-01", "at": 0, "done": false}},
	}).Code)
	for _, path := range []string{"/api/me", "/api/caseload", "/api/horses/" + mine, "/api/people"} {
		assert.Equal(t, http.StatusUnauthorized, p.opens(token, http.MethodGet, path, nil).Code, path)
	}
}

// Wrong, ended, switched off and guessed too often: the same words.
func TestLinksThatOpenNothingAnswerAlike(t *testing.T) {
	p := signedInPractice(t)
	off, switched := p.link("people/"+p.owner, 0)
	p.opened(switched)
	_, ended := p.link("people/"+p.owner, 1)
	p.ask(http.MethodDelete, "/api/links/"+off, nil).into(&[]owners.Link{})
	p.later(24 * time.Hour)
	p.from = "192.0.2.99:1"
	answers := map[string]string{}
	for name, token := range map[string]string{"switched off": switched, "ended": ended, "wrong": "AAAA", "none": "", "long": strings.Repeat("A", 3000)} {
		a := p.opens(token, http.MethodGet, "/api/owner", nil)
		answers[name] = fmt.Sprint(a.Code, a.Body.String(), a.Header())
	}
	took := func(token string) time.Duration {
		began := time.Now()
		a := p.opens(token, http.MethodGet, "/api/owner", nil)
		d := time.Since(began)
		answers[token] = fmt.Sprint(a.Code, a.Body.String(), a.Header())
		return d
	}
	var guessed, again []float64
	for range 10_000 {
		guessed = append(guessed, took(rand.Text()).Seconds())
	}
	for range 200 {
		again = append(again, took(switched).Seconds())
	}
	t.Logf("a random token took %.2f ms, a switched-off one %.2f ms (medians)", 1000*horse.Median(guessed), 1000*horse.Median(again))
	for name, a := range answers {
		assert.Equal(t, answers["wrong"], a, name)
	}
	assert.Contains(t, answers["wrong"], "This link does not open.")

	// From a place that guesses a link that nobody opened yet does not open either; one
	// that was opened does.
	p.from = "192.0.2.7:1000"
	p.signIn("Wren@example.org", password)
	_, known := p.link("people/"+p.owner, 0)
	_, fresh := p.link("people/"+p.owner, 0)
	p.opened(known)
	p.from = "192.0.2.99:1"
	assert.Equal(t, http.StatusNotFound, p.opens(fresh, http.MethodGet, "/api/owner", nil).Code)
	assert.Equal(t, http.StatusOK, p.opens(known, http.MethodGet, "/api/owner", nil).Code)
	p.later(time.Hour)
	assert.Equal(t, http.StatusOK, p.opens(fresh, http.MethodGet, "/api/owner", nil).Code, "it was slowed, not shut")
}

func TestTheTrainerSeesThatALinkWasOpened(t *testing.T) {
	p := signedInPractice(t)
	_, token := p.link("people/"+p.owner, 0)
	list := func() owners.Link {
		var l []owners.Link
		p.ask(http.MethodGet, "/api/people/"+p.owner+"/links", nil).into(&l)
		return l[0]
	}
	assert.Zero(t, list().Opened)
	assert.Equal(t, p.now.AddDate(0, 0, 90).UnixMilli(), list().Until)
	p.opened(token)
	p.opened(token)
	assert.Equal(t, int64(1), list().Opened, "read again at once is the same time")
	p.later(11 * time.Minute)
	p.opened(token)
	assert.Equal(t, int64(2), list().Opened)
	assert.Equal(t, p.now.UnixMilli(), list().LastAt)
}

// What an owner practised arrives once, keeps a met step, and stops it where the
// horse was over the line; the trainer hears first and lets it go on.
func TestPracticeAtHome(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	_, token := p.link("people/"+p.owner, 0)
	p.later(24 * time.Hour)
	kept := p.practise(token, nil)
	require.True(t, kept.Logs[0].Kept, kept.Logs[0].Say)
	require.Len(t, kept.Page.Logs, 1)

	id := uuid.NewString()
	assert.True(t, p.practise(token, map[string]any{"id": id}).Logs[0].Kept)
	again := p.practise(token, map[string]any{"id": id})
	assert.True(t, again.Logs[0].Kept, "it was sent twice, since nobody heard the answer")
	assert.Len(t, again.Page.Logs, 2, "and is there once")
	other := p.practise(token, map[string]any{"id": id, "minutes": 12})
	assert.False(t, other.Logs[0].Kept)
	assert.Contains(t, other.Logs[0].Say, "kept already")

	var home owners.AtHome
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/practised", nil).into(&home)
	require.Len(t, home.Days, 2)
	assert.Equal(t, "Ines", home.Days[0].Who)
	assert.Contains(t, home.Says.Text, "20 minutes")

	p.later(time.Hour)
	over := p.practise(token, map[string]any{"arousal": 3})
	require.Len(t, over.Page.Stops, 1)
	assert.Nil(t, over.Page.Card, "the only step has stopped")
	var rows []struct {
		ID        string `json:"id"`
		Attention []struct {
			Does, Say struct{ Text string }
		} `json:"attention"`
	}
	caseload := func() string {
		rows = nil
		p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
		if len(rows[0].Attention) == 0 {
			return ""
		}
		return rows[0].Attention[0].Does.Text
	}
	assert.Equal(t, "Look at the homework", caseload())
	assert.Contains(t, rows[0].Attention[0].Say.Text, "over the line at home")

	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/practised/resume", map[string]any{"log": over.Logs[0].ID, "reason": " "}).problem()
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/practised/resume", map[string]any{"log": over.Logs[0].ID, "reason": "A tractor. We spoke."}).into(&home)
	assert.Empty(t, home.Stops)
	assert.Equal(t, "A tractor. We spoke.", home.Days[0].Resumed)
	assert.NotEqual(t, "Look at the homework", caseload())
	require.NotNil(t, p.opened(token).Horses[0].Card)
}

func TestWhatAnOwnerCantWriteDown(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	link, token := p.link("people/"+p.owner, 0)
	p.later(24 * time.Hour)
	today := p.now.Format(time.DateOnly)
	first := p.practise(token, nil).Logs[0].ID
	for name, c := range map[string]struct {
		change map[string]any
		field  string
	}{
		"a step that is not cleared":     {map[string]any{"step": "lead.back"}, "step"},
		"a step that there is not":       {map[string]any{"step": "nowhere"}, "step"},
		"tomorrow":                       {map[string]any{"on": "2026-06-03"}, "on"},
		"a clock ahead":                  {map[string]any{"at": p.now.Add(time.Hour).UnixMilli()}, "on"},
		"no word of the horse":           {map[string]any{"arousal": nil}, "arousal"},
		"an id of another kind":          {map[string]any{"id": "x"}, "id"},
		"to put right what is not":       {map[string]any{"replaces": uuid.NewString()}, "replaces"},
		"to put right another day's":     {map[string]any{"replaces": first, "on": "2026-06-01"}, "replaces"},
		"to put it right after midnight": {map[string]any{"replaces": first, "at": p.now.Add(-48 * time.Hour).UnixMilli()}, "replaces"},
	} {
		kept := p.practise(token, c.change).Logs[0]
		assert.False(t, kept.Kept, name)
		assert.NotEmpty(t, kept.Say, name)
		assert.Equal(t, c.field, kept.Wrong[0].Field, name)
	}
	right := p.practise(token, map[string]any{"replaces": first, "minutes": 12})
	assert.True(t, right.Logs[0].Kept, right.Logs[0].Say)
	require.Len(t, right.Page.Logs, 1)
	assert.Equal(t, 12, right.Page.Logs[0].Minutes)

	large := p.opens(token, http.MethodPost, "/api/owner/practised", map[string]any{"horse": p.horse, "logs": []any{}, "note": strings.Repeat("x", 10<<20)})
	assert.Equal(t, http.StatusRequestEntityTooLarge, large.Code)
	p.ask(http.MethodDelete, "/api/links/"+link, nil)
	late := p.opens(token, http.MethodPost, "/api/owner/practised", map[string]any{"horse": p.horse, "logs": []any{map[string]any{"id": uuid.NewString(), "person": "", "step": "lead.forward", "on": today, "at": 0, "done": false}}})
	assert.Equal(t, http.StatusNotFound, late.Code)
	assert.Contains(t, late.problem().Detail, "This link does not open")
	logs, err := p.Store.Practised(t.Context(), p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Len(t, logs, 2, "nothing was half-kept")
	assert.True(t, slices.ContainsFunc(logs, func(l store.Practised) bool { return l.ID == first }))
}

// An incident is left out of an owner's page with a reason only, which stays.
func TestAnIncidentIsLeftOutWithAReason(t *testing.T) {
	p := signedInPractice(t)
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/incidents", map[string]any{"kind": "bit", "on": "2026-06-01", "hurt": "nobody", "what": "Bit at the gate."}).into(&struct{}{})
	session := p.clears("lead.forward")
	path := "/api/sessions/" + session + "/report"
	var r reports.Report
	p.ask(http.MethodGet, path, nil).into(&r)
	text, err := json.Marshal(r)
	require.NoError(t, err)
	assert.Contains(t, string(text), "Bit at the gate")
	leave := func(reason string) answer {
		return p.ask(http.MethodPut, path, map[string]any{"version": 0, "edits": map[string]any{"saw.danger": map[string]any{"left_out": true, "text": "", "basis": "", "reason": reason}}})
	}
	assert.Equal(t, "edits.saw.danger", leave(" ").problem().Errors[0].Field)
	leave("She was there and asked for it.").into(&r)
	p.ask(http.MethodGet, path, nil).into(&r)
	found := false
	for _, section := range r.Sections {
		for _, s := range section.Sentences {
			if s.ID == "saw.danger" {
				found = true
				assert.True(t, s.Left)
				assert.Equal(t, "She was there and asked for it.", s.Reason)
			}
		}
	}
	assert.True(t, found)
	pdf := p.ask(http.MethodGet, path+".pdf", nil)
	assert.Equal(t, "application/pdf", pdf.Header().Get("Content-Type"))
	assert.Contains(t, pdf.Header().Get("Content-Disposition"), `filename="Moth-2026-06-01.pdf"`)
}

// An owner sends a photograph of her own horse: it stands with the horse, under whose
// name it came, and sending it is agreeing.
func TestAnOwnerSendsAPhotograph(t *testing.T) {
	p := signedInPractice(t)
	_, token := p.link("people/"+p.owner, 0)
	mine := p.horse
	sends := func(horse, file string) answer {
		r := httptest.NewRequest(http.MethodPost, "/api/owner/horses/"+horse+"/photographs?caption=a+rub", strings.NewReader(file))
		r.RemoteAddr = p.from
		r.Header.Set("Content-Type", "image/jpeg")
		r.Header.Set("Authorization", "Bearer "+token)
		w := httptest.NewRecorder()
		p.ServeHTTP(w, r)
		return answer{w, p.t}
	}
	png := drawn(t, "png", color.White)
	a := sends(mine, png)
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	var photos horses.Photographs
	p.ask(http.MethodGet, "/api/horses/"+mine+"/photographs", nil).into(&photos)
	require.Len(t, photos.List, 1)
	assert.Equal(t, "from Ines: a rub", photos.List[0].Caption)
	assert.True(t, photos.Agreed)
	assert.Equal(t, http.StatusUnprocessableEntity, sends(mine, "no picture").Code)
	p.takesOn(p.actor)
	assert.Equal(t, http.StatusNotFound, sends(p.horse, png).Code, "not hers")
	held := 0
	for range 12 {
		if sends(mine, png).Code == http.StatusTooManyRequests {
			held++
		}
	}
	assert.Positive(t, held, "many at once wait")
}

// What may be practised is said of who reads it: another person's clearance opens
// nothing, and a link to one page, that may go anywhere, offers nothing.
func TestNobodyIsOfferedAnothersClearance(t *testing.T) {
	p := signedInPractice(t)
	session := p.clears("lead.forward")
	p.ask(http.MethodPost, "/api/sessions/"+session+"/sent", nil).into(&struct{}{})
	var h horses.Horse
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/handlers", map[string]any{"kind": "other", "name": "Tam"}).into(&h)
	_, cleared := p.link("people/"+p.owner, 0)
	_, not := p.link("people/"+h.Handlers[0].ID, 0)
	_, alone := p.link("sessions/"+session, 0)
	text := func(token string) string { return p.opens(token, http.MethodGet, "/api/owner", nil).Body.String() }
	assert.Contains(t, text(cleared), "You may practise")
	for _, token := range []string{not, alone} {
		assert.NotContains(t, text(token), "You may practise")
		assert.Contains(t, text(token), "You may do what the day needs")
	}
	assert.False(t, p.practise(not, nil).Logs[0].Kept)
}

// The page at the end of the work is worded as a visit's is: kept by version, told where
// somebody was sooner, marked where its numbers have changed since, and on paper.
func TestTheLastPageIsWorded(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	path := "/api/horses/" + p.horse + "/closing"
	word := func(version int, id, text string) answer {
		return p.ask(http.MethodPut, path, map[string]any{"version": version, "edits": map[string]any{id: map[string]any{"text": text, "basis": "as it was"}}})
	}
	var page reports.Paper
	p.ask(http.MethodGet, path, nil).into(&page)
	id := page.Sections[0].Sentences[0].ID
	word(0, id, "She is ready for you.").into(&page)
	assert.EqualValues(t, 1, page.Version)
	first := page.Sections[0].Sentences[0]
	assert.Equal(t, "She is ready for you.", first.Edited)
	assert.True(t, first.Changed, "it was worded of other numbers")
	assert.Contains(t, page.Message, "She is ready for you.")

	stale := word(0, id, "Another.")
	assert.Equal(t, http.StatusConflict, stale.Code)
	assert.Contains(t, stale.Body.String(), "She is ready for you.")
	assert.Equal(t, "edits."+id, word(1, id, " ").problem().Errors[0].Field)
	assert.Contains(t, word(1, "nowhere", "x").problem().Errors[0].Say, "not in the report")
	p.ask(http.MethodGet, path, nil).into(&page)
	assert.EqualValues(t, 1, page.Version, "nothing of it was kept")
}
