package server

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/visits"
)

// books puts a visit in the diary.
func (p *practice) books(on, at string, change map[string]any) visits.VisitKept {
	p.t.Helper()
	body := map[string]any{"horses": []string{p.horse}, "on": on, "at": at, "minutes": 45, "agreed": true}
	for k, v := range change {
		body[k] = v
	}
	var kept visits.VisitKept
	p.ask(http.MethodPost, "/api/visits", body).into(&kept)
	return kept
}

// A visit is put in the diary, moved, shown as a clash, cancelled with a reason; who
// is to be told is said, with the message.
func TestAVisitInTheDiary(t *testing.T) {
	p := signedInPractice(t)
	first := p.books("2026-06-02", "10:00", map[string]any{"aim": "stand in the trailer"})
	assert.Empty(t, first.Clashes)
	second := p.books("2026-06-02", "10:30", nil)
	require.Len(t, second.Clashes, 1)
	assert.Equal(t, 15, second.Clashes[0].Short)

	change := func(v visits.Booked, body map[string]any) answer {
		whole := map[string]any{"horses": []string{p.horse}, "on": v.On, "at": v.At, "minutes": v.Minutes, "agreed": v.Agreed, "version": v.Version}
		for k, x := range body {
			whole[k] = x
		}
		return p.ask(http.MethodPut, "/api/visits/"+v.ID, whole)
	}
	var moved visits.VisitKept
	change(second.Visit, map[string]any{"on": "2026-06-03"}).into(&moved)
	assert.Empty(t, moved.Clashes)
	assert.EqualValues(t, 2, moved.Visit.Version)
	stale := change(second.Visit, map[string]any{"on": "2026-06-05"})
	assert.Equal(t, http.StatusConflict, stale.Code)
	assert.Contains(t, stale.Body.String(), "2026-06-03", "theirs is shown")

	var d visits.Diary
	p.ask(http.MethodGet, "/api/diary?from=2026-06-01&days=7", nil).into(&d)
	require.Len(t, d.Days, 7)
	assert.Equal(t, []int{0, 1, 1, 0}, []int{len(d.Days[0].Visits), len(d.Days[1].Visits), len(d.Days[2].Visits), len(d.Days[3].Visits)})
	assert.Equal(t, "stand in the trailer", d.Days[1].Visits[0].Aim)
	assert.True(t, d.Horses[0].Planned, "a visit waits for it")
	assert.Len(t, d.Horses, 1)

	cancel := func(reason string, version int64) answer {
		return p.ask(http.MethodPost, "/api/visits/"+first.Visit.ID+"/cancel", map[string]any{"reason": reason, "version": version})
	}
	assert.Equal(t, "reason", cancel(" ", 1).problem().Errors[0].Field)
	var gone visits.Cancelled
	cancel("Ice on the hill.", 1).into(&gone)
	require.NotEmpty(t, gone.Tell)
	assert.Contains(t, gone.Tell[0].Message, "the visit on 2 June does not take place. Ice on the hill.")
	assert.Equal(t, http.StatusConflict, cancel("again", 1).Code)
	p.ask(http.MethodGet, "/api/diary?from=2026-06-02&days=1", nil).into(&d)
	assert.Equal(t, "Ice on the hill.", d.Days[0].Visits[0].Cancelled, "it stays, struck through")
}

// What can't be is a sentence beside its field, and nothing is kept.
func TestABadVisit(t *testing.T) {
	p := signedInPractice(t)
	for name, c := range map[string]struct {
		change     map[string]any
		field, say string
	}{
		"an hour that does not exist": {map[string]any{"on": "2026-03-29", "at": "01:30"}, "at", "There is no 01:30 that day: the clocks go forward. Take 02:00."},
		"no time":                     {map[string]any{"at": "25:00"}, "at", "This is not a time"},
		"no date":                     {map[string]any{"on": "2026-02-30"}, "on", "This is not a date"},
		"it ends before it begins":    {map[string]any{"minutes": -10}, "minutes", "5"},
		"no horse":                    {map[string]any{"horses": []string{}}, "horses", "1"},
		"a horse of nobody":           {map[string]any{"horses": []string{uuid.NewString()}}, "horses", "is not here"},
		"somebody unknown":            {map[string]any{"who": uuid.NewString()}, "who", "Choose another"},
	} {
		body := map[string]any{"horses": []string{p.horse}, "on": "2026-06-02", "at": "10:00", "minutes": 45, "agreed": true}
		for k, v := range c.change {
			body[k] = v
		}
		problem := p.ask(http.MethodPost, "/api/visits", body).problem()
		require.NotEmpty(t, problem.Errors, name)
		assert.Equal(t, c.field, problem.Errors[0].Field, name)
		assert.Contains(t, problem.Errors[0].Say, c.say, name)
	}
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPost, "/api/visits", map[string]any{"horses": []string{p.horse}, "yard": uuid.NewString(), "on": "2026-06-02", "minutes": 45, "agreed": true}).Code)
	var d visits.Diary
	p.ask(http.MethodGet, "/api/diary?from=2026-01-01&days=372", nil).into(&d)
	for _, day := range d.Days {
		assert.Empty(t, day.Visits)
	}
	assert.Equal(t, "from", p.ask(http.MethodGet, "/api/diary?from=soon", nil).problem().Errors[0].Field)
	assert.Equal(t, "place", p.ask(http.MethodPut, "/api/roads/place", map[string]any{"yard": uuid.NewString(), "place": "by the mill"}).problem().Errors[0].Field)
	assert.Equal(t, "zone", p.ask(http.MethodPut, "/api/roads/place", map[string]any{"yard": uuid.NewString(), "zone": "Tarn/Side"}).problem().Errors[0].Field)
	assert.Equal(t, "rounds[0]", p.ask(http.MethodPut, "/api/roads/begins", map[string]any{"at": "07:30", "rounds": []any{map[string]any{"name": "west", "day": 4, "from": "2026-01-01"}}}).problem().Errors[0].Field)
}

// A day's visits stand in driving order with the times to leave, from the base and back;
// an order by hand stands until it is given back.
func TestTheRunSheet(t *testing.T) {
	p := signedInPractice(t)
	yard := func(name string) string {
		var y struct{ ID string }
		p.ask(http.MethodPost, "/api/yards", map[string]any{"name": name}).into(&y)
		return y.ID
	}
	base, tarn, fallow := yard("Home"), yard("Tarn Side"), yard("Lower Fallow")
	var roads visits.Roads
	for way, minutes := range map[[2]string]int{{base, tarn}: 24, {tarn, fallow}: 38, {fallow, base}: 50} {
		p.ask(http.MethodPut, "/api/roads/drive", map[string]any{"a": way[0], "b": way[1], "minutes": minutes}).into(&roads)
	}
	p.ask(http.MethodPut, "/api/roads/begins", map[string]any{"base": base, "at": "07:00", "rounds": []any{}}).into(&roads)
	assert.Equal(t, []any{base, "07:00"}, []any{roads.Base, roads.At})
	p.books("2026-06-01", "11:00", map[string]any{"yard": fallow})
	p.books("2026-06-01", "", map[string]any{"yard": tarn})

	var s visits.Sheet
	told := func() (list []string) {
		for _, stop := range s.Stops {
			list = append(list, fmt.Sprintf("%s leave %s start %s spare %d", stop.Visit.YardName, stop.Leave, stop.Start, stop.Spare))
		}
		return list
	}
	p.ask(http.MethodGet, "/api/day", nil).into(&s)
	assert.Equal(t, []string{"Tarn Side leave 07:00 start 07:24 spare 0", "Lower Fallow leave 08:09 start 11:00 spare 133"}, told())
	assert.Equal(t, []any{112, "12:35", "Home", true, false}, []any{s.Driving, s.Back, s.Base, s.Proven, s.Guessed})
	require.NotEmpty(t, s.Stops[0].Horses)

	fresh := func() *visits.Sheet { s = visits.Sheet{}; return &s }
	ids := []string{s.Stops[1].Visit.ID, s.Stops[0].Visit.ID}
	p.ask(http.MethodPut, "/api/day/order", map[string]any{"on": "2026-06-01", "visits": ids, "by_hand": true}).into(&s)
	assert.Equal(t, []string{"Lower Fallow leave 10:05 start 11:00 spare 5", "Tarn Side leave 11:45 start 12:23 spare 0"}, told())
	assert.True(t, s.ByHand)
	p.ask(http.MethodPut, "/api/day/order", map[string]any{"on": "2026-06-01", "visits": ids, "by_hand": false}).into(fresh())
	assert.False(t, s.ByHand)
	assert.Equal(t, "Tarn Side", s.Stops[0].Visit.YardName)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPut, "/api/day/order", map[string]any{"on": "2026-06-02", "visits": ids, "by_hand": true}).Code, "they are of another day")
}

// The next visit is proposed from the newest session, and a horse that no visit waits
// for is said.
func TestTheNextVisitIsProposedAndTaken(t *testing.T) {
	p := signedInPractice(t)
	p.clears("lead.forward")
	var h visits.OfHorse
	path := "/api/horses/" + p.horse + "/visits"
	p.ask(http.MethodGet, path, nil).into(&h)
	assert.Equal(t, "2026-06-03", h.Proposal.On, "two days after the first of June")
	require.NotEmpty(t, h.Proposal.Reasons)
	var d visits.Diary
	p.ask(http.MethodGet, "/api/diary?from=2026-06-01&days=7", nil).into(&d)
	assert.False(t, d.Horses[0].Planned)
	assert.Len(t, d.Days[0].Worked, 1, "a session that no visit stood for")

	p.books(h.Proposal.On, "", map[string]any{"aim": h.Aim, "agreed": false})
	p.ask(http.MethodGet, path, nil).into(&h)
	require.Len(t, h.Visits, 1)
	assert.Equal(t, "2026-06-04", h.Proposal.On, "it is visited on the third already")
	p.books("2026-06-01", "", nil)
	p.ask(http.MethodGet, "/api/diary?from=2026-06-01&days=7", nil).into(&d)
	assert.True(t, d.Horses[0].Planned)
	assert.Len(t, d.Days[0].Done, 1, "its horse was worked that day")
	assert.Empty(t, d.Days[0].Worked)
}

// A yard and an owner have the diary of what is theirs, with the clashes that it has with
// others.
func TestTheDiaryOfAYardAndOfAnOwner(t *testing.T) {
	p := signedInPractice(t)
	var yard struct {
		ID string `json:"id"`
	}
	p.ask(http.MethodPost, "/api/yards", map[string]any{"name": "Tarn Side"}).into(&yard)
	p.books("2026-06-02", "10:00", map[string]any{"yard": yard.ID})
	hers := p.owner
	p.takesOn(p.actor)
	p.books("2026-06-02", "10:30", nil)
	counts := func(query string) (name string, n, clashes int) {
		var d visits.Diary
		p.ask(http.MethodGet, "/api/diary?from=2026-06-01"+query, nil).into(&d)
		for _, day := range d.Days {
			n, clashes = n+len(day.Visits), clashes+len(day.Clashes)
		}
		return d.Only, n, clashes
	}
	for query, want := range map[string][]any{"": {"", 2, 1}, "&yard=" + yard.ID: {"Tarn Side", 1, 1}, "&person=" + hers: {"Ines", 1, 1}, "&person=" + p.owner: {"Ines", 1, 1}} {
		name, n, clashes := counts(query)
		assert.Equal(t, want, []any{name, n, clashes}, query)
	}
	for _, query := range []string{"?yard=", "?person="} {
		assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/diary"+query+uuid.NewString(), nil).Code)
	}
}

// Who is to be told of a visit is told as it stands: agreed, proposed or cancelled.
func TestWhoIsToldOfAVisit(t *testing.T) {
	p := signedInPractice(t)
	for want, change := range map[string]map[string]any{
		"Moth: the next visit is on 2 June at 10:00. Wren":         nil,
		"Moth: would 2 June at 10:00 do for the next visit? Wren":  {"agreed": false},
		"Moth: the visit on 2 June does not take place. Ice. Wren": {"aim": "x"},
	} {
		v := p.books("2026-06-02", "10:00", change)
		if change["aim"] != nil {
			p.ask(http.MethodPost, "/api/visits/"+v.Visit.ID+"/cancel", map[string]any{"reason": "Ice.", "version": 1})
		}
		var tell []visits.Tell
		p.ask(http.MethodGet, "/api/visits/"+v.Visit.ID+"/tell", nil).into(&tell)
		require.Len(t, tell, 1)
		assert.Equal(t, want, tell[0].Message)
	}
}
