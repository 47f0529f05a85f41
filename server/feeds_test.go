package server

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"strings"
	"testing"

	ics "github.com/arran4/golang-ical"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/visits"
)

// subscribed reads a calendar as another program does: nothing but its address.
func (p *practice) subscribed(path string) []*ics.VEvent {
	p.t.Helper()
	cookie := p.cookie
	p.cookie = nil
	defer func() { p.cookie = cookie }()
	a := p.ask(http.MethodGet, path, nil)
	require.Equal(p.t, http.StatusOK, a.Code, "%s", a.Body)
	assert.Equal(p.t, "text/calendar; charset=utf-8", a.Header().Get("Content-Type"))
	assert.Equal(p.t, "private, no-store", a.Header().Get("Cache-Control"))
	cal, err := ics.ParseCalendar(strings.NewReader(a.Body.String()))
	require.NoError(p.t, err)
	return cal.Events()
}

func summary(e *ics.VEvent) string { return e.GetProperty(ics.ComponentPropertySummary).Value }

// A trainer's calendar has the diary, an owner's the visits that are agreed to the
// owner's own horses; moved ones come again with a higher number, cancelled ones as
// cancelled; switched off it is not there, as one that never was.
func TestCalendars(t *testing.T) {
	p := signedInPractice(t)
	make := func(body map[string]any) string {
		var f visits.Feed
		p.ask(http.MethodPost, "/api/feeds", body).into(&f)
		require.NotEmpty(t, f.Path)
		return f.Path
	}
	mine, hers := make(map[string]any{}), make(map[string]any{"person": p.owner})
	agreed := p.books("2026-06-02", "10:00", map[string]any{"aim": "the trainer's own words"})
	p.books("2026-06-03", "", map[string]any{"agreed": false})

	events := p.subscribed(mine)
	require.Len(t, events, 2)
	assert.Equal(t, []string{"Moth", "Moth (proposed)"}, []string{summary(events[0]), summary(events[1])})
	start, err := events[0].GetStartAt()
	require.NoError(t, err)
	assert.Equal(t, "2026-06-02 09:00", start.UTC().Format("2006-01-02 15:04"), "ten by the clocks in London")

	events = p.subscribed(hers)
	require.Len(t, events, 1, "what is proposed is not hers to see")
	assert.Contains(t, summary(events[0]), "comes to Moth")
	assert.NotContains(t, fmt.Sprint(events[0].Serialize(&ics.SerializationConfiguration{MaxLength: 75, NewLine: "\n"})), "the trainer's own words")
	before := events[0].Id()

	p.ask(http.MethodPost, "/api/visits/"+agreed.Visit.ID+"/cancel", map[string]any{"reason": "Ice.", "version": 1})
	events = p.subscribed(hers)
	assert.Equal(t, []string{before, "CANCELLED", "2"}, []string{events[0].Id(), events[0].GetProperty(ics.ComponentPropertyStatus).Value, events[0].GetProperty(ics.ComponentPropertySequence).Value})

	var list []visits.Feed
	p.ask(http.MethodGet, "/api/feeds", nil).into(&list)
	require.Len(t, list, 2)
	assert.Empty(t, list[0].Path, "its address is told once")
	assert.NotZero(t, list[0].ReadAt)
	for _, f := range list {
		p.ask(http.MethodDelete, "/api/feeds/"+f.ID, nil)
	}
	off, never := p.ask(http.MethodGet, mine, nil), p.ask(http.MethodGet, "/api/calendar/"+uuid.NewString()+".ics", nil)
	assert.Equal(t, []int{http.StatusNotFound, http.StatusNotFound}, []int{off.Code, never.Code})
	assert.Equal(t, off.Body.String(), never.Body.String(), "they answer alike")

	one := p.ask(http.MethodGet, "/api/visits/"+agreed.Visit.ID+"/visit.ics", nil)
	assert.Contains(t, one.Body.String(), "comes to Moth")
}

// The address of a calendar opens it, so no log has it.
func TestTheLogHasNoCalendarsAddress(t *testing.T) {
	p := signedInPractice(t)
	var log bytes.Buffer
	p.Log = slog.New(slog.NewTextHandler(&log, nil))
	p.ask(http.MethodGet, "/api/calendar/SECRET.ics", nil)
	assert.Contains(t, log.String(), "/api/calendar/…")
	assert.NotContains(t, log.String(), "SECRET")
}

// A calendar from elsewhere is taken in as busy times, which clash; what can't be read is
// a sentence, and what was taken in before stays.
func TestBusyTimes(t *testing.T) {
	p := signedInPractice(t)
	text := "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:School run\r\nDTSTART:20260602T083000Z\r\nDTEND:20260602T091500Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
	var taken visits.BusyTaken
	p.ask(http.MethodPut, "/api/busy", map[string]any{"text": text}).into(&taken)
	assert.Equal(t, 1, taken.Times)
	kept := p.books("2026-06-02", "10:00", nil) // 09:00 UTC
	require.Len(t, kept.Clashes, 1)
	assert.Equal(t, "clash.busy", kept.Clashes[0].Says.Key)
	for _, bad := range []string{"hello", "BEGIN:VCALENDAR"} {
		assert.Equal(t, "text", p.ask(http.MethodPut, "/api/busy", map[string]any{"text": bad}).problem().Errors[0].Field)
	}
	large := p.ask(http.MethodPut, "/api/busy", map[string]any{"text": strings.Repeat("x", 50<<20)})
	assert.Equal(t, http.StatusRequestEntityTooLarge, large.Code)
	var d visits.Diary
	p.ask(http.MethodGet, "/api/diary?from=2026-06-02&days=1", nil).into(&d)
	require.Len(t, d.Days[0].Busy, 1)
	assert.Equal(t, visits.BusyTime{From: "09:30", To: "10:15", What: "School run"}, d.Days[0].Busy[0])
	assert.Len(t, d.Days[0].Clashes, 1)
	p.ask(http.MethodPut, "/api/busy", map[string]any{"text": ""}).into(&taken)
	p.ask(http.MethodGet, "/api/diary?from=2026-06-02&days=1", nil).into(&d)
	assert.Empty(t, d.Days[0].Busy)
}
