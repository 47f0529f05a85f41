package server

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/letters"
)

// postbox is a mail server that takes letters, or fails.
type postbox struct {
	got  []letters.Mail
	fail error
}

func (b *postbox) Send(_ context.Context, m letters.Mail) error {
	if b.fail == nil {
		b.got = append(b.got, m)
	}
	return b.fail
}

// writesLetters is a practice in which the owner has an address and agreed, and a visit
// stands on the next day.
func writesLetters(t *testing.T) (*practice, *postbox) {
	p := signedInPractice(t)
	box := &postbox{}
	p.letters.Config = letters.Config{Post: box, Hour: 18, Public: "https://yard.example"}
	var people []struct {
		ID      string `json:"id"`
		Version int64  `json:"version"`
	}
	p.ask(http.MethodGet, "/api/people", nil).into(&people)
	p.ask(http.MethodPut, "/api/people/"+p.owner, map[string]any{"kind": "owner", "name": "Ines", "email": "ines@example.org", "version": people[0].Version})
	p.books("2026-06-02", "10:00", map[string]any{"aim": "the trainer's own words"})
	return p, box
}

func (p *practice) asksLetters(method, path string, body any) (view letters.EveningLetters) {
	p.t.Helper()
	p.ask(method, path, body).into(&view)
	return view
}

// Letters go once an evening, from their hour by the practice's clocks, only to who
// agreed, with the visits for a calendar and the address that stops them.
func TestLettersOfAnEvening(t *testing.T) {
	p, box := writesLetters(t)
	ctx := context.Background()
	wrong := p.ask(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": false}).problem()
	assert.Equal(t, "agreed", wrong.Errors[0].Field)
	view := p.asksLetters(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": true})
	require.Len(t, view.Tonight, 1)
	assert.Equal(t, "Wren, 2 June: 1 visit", view.Tonight[0].Subject)
	assert.Equal(t, http.StatusConflict, p.ask(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": true}).Code, "once is enough")

	p.now = time.Date(2026, 6, 1, 16, 59, 0, 0, time.UTC) // 17:59 in London
	require.NoError(t, p.letters.Round(ctx))
	assert.Empty(t, box.got, "it is not evening")
	p.now = p.now.Add(time.Minute)
	for range 3 {
		require.NoError(t, p.letters.Round(ctx))
	}
	require.Len(t, box.got, 1, "one an evening")
	m := box.got[0]
	assert.Equal(t, []string{"Wren", "Ines", "ines@example.org"}, []string{m.From, m.Name, m.Address})
	assert.Contains(t, m.Body, "10:00: Moth, 45 minutes.")
	assert.NotContains(t, m.Body, "the trainer's own words")
	assert.Contains(t, m.Body, m.Stop)
	cal, err := ics.ParseCalendar(strings.NewReader(m.Calendar))
	require.NoError(t, err)
	assert.Len(t, cal.Events(), 1)
	view = p.asksLetters(http.MethodGet, "/api/letters", nil)
	assert.NotZero(t, view.Written[0].SentAt)
	assert.Empty(t, view.Tonight, "it was told")

	p.now = p.now.Add(24 * time.Hour) // nothing stands on the day after
	require.NoError(t, p.letters.Round(ctx))
	assert.Len(t, box.got, 1, "nothing to tell, no letter")

	for _, after := range []struct {
		wait  time.Duration
		there int
	}{{60 * 24 * time.Hour, 1}, {60*24*time.Hour + time.Millisecond, 0}} {
		p.now = time.Date(2026, 6, 1, 17, 0, 0, 0, time.UTC).Add(after.wait)
		require.NoError(t, p.letters.Round(ctx))
		written, err := p.Store.Letters(ctx, p.actor.Practice)
		require.NoError(t, err)
		assert.Len(t, written, after.there, "letters are kept for sixty days")
	}
}

// What can't be sent is tried again, later each time, and given up in the end; a refusal
// for good at once. It says so.
func TestALetterThatCantBeSent(t *testing.T) {
	p, box := writesLetters(t)
	ctx := context.Background()
	p.asksLetters(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": true})
	box.fail = errors.New("the line is down")
	newest := func() letters.EveningLetter { return p.asksLetters(http.MethodGet, "/api/letters", nil).Written[0] }
	p.asksLetters(http.MethodPost, "/api/letters/tonight", nil)
	for _, wait := range []time.Duration{10 * time.Minute, 30 * time.Minute, time.Hour, 3 * time.Hour, 6 * time.Hour} {
		require.NoError(t, p.letters.Round(ctx))
		l := newest()
		assert.Equal(t, "the line is down", l.Failed)
		require.Equal(t, p.now.Add(wait).UnixMilli(), l.NextAt)
		p.now = p.now.Add(wait - time.Millisecond)
		require.NoError(t, p.letters.Round(ctx))
		assert.Equal(t, l.Tries, newest().Tries, "not yet")
		p.now = p.now.Add(time.Millisecond)
	}
	box.fail = nil
	require.NoError(t, p.letters.Round(ctx))
	assert.NotZero(t, newest().SentAt)
	assert.Empty(t, newest().Failed)

	p.now = p.now.Add(24 * time.Hour)
	p.books("2026-06-03", "10:00", nil)
	box.fail = &letters.RefusedError{Err: errors.New("nobody of that name")}
	p.asksLetters(http.MethodPost, "/api/letters/tonight", nil)
	require.NoError(t, p.letters.Round(ctx))
	l := newest()
	assert.Equal(t, []any{int64(0), int64(1), "nobody of that name"}, []any{l.NextAt, l.Tries, l.Failed})
}

// The address in a letter stops these letters and nothing else; opening it stops nothing.
func TestAReaderStopsTheLetters(t *testing.T) {
	p, box := writesLetters(t)
	p.asksLetters(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": true})
	p.asksLetters(http.MethodPost, "/api/letters/readers", map[string]any{})
	p.now = time.Date(2026, 6, 1, 18, 0, 0, 0, time.UTC)
	require.NoError(t, p.letters.Round(context.Background()))
	require.Len(t, box.got, 2)
	at := ""
	for _, m := range box.got {
		if m.Name == "Ines" {
			at = strings.TrimPrefix(m.Stop, "https://yard.example")
		} else {
			assert.Contains(t, m.Body, "switch them off under Letters")
		}
	}
	cookie := p.cookie
	p.cookie = nil
	a := p.ask(http.MethodGet, at, nil)
	assert.Equal(t, "text/html; charset=utf-8", a.Header().Get("Content-Type"))
	assert.Contains(t, a.Body.String(), "Send me no more of them")
	for range 2 { // pressed twice it says the same
		a = p.ask(http.MethodPost, at, nil)
		assert.Contains(t, a.Body.String(), "You get no more of these letters.")
	}
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPost, "/api/letters/stop/SOMETHING", nil).Code)
	p.cookie = cookie
	view := p.asksLetters(http.MethodGet, "/api/letters", nil)
	require.Len(t, view.Readers, 1)
	assert.True(t, view.Me)
	view = p.asksLetters(http.MethodDelete, "/api/letters/readers/"+view.Readers[0].ID, nil)
	assert.Empty(t, view.Readers)
}

// Without a mail server nothing is written, but where letters are kept to be looked at.
func TestLettersWithoutAMailServer(t *testing.T) {
	p, _ := writesLetters(t)
	p.letters.Config = letters.Config{Hour: 0}
	p.asksLetters(http.MethodPost, "/api/letters/readers", map[string]any{"person": p.owner, "agreed": true})
	require.NoError(t, p.letters.Round(context.Background()))
	view := p.asksLetters(http.MethodGet, "/api/letters", nil)
	assert.False(t, view.On)
	assert.Empty(t, view.Written)
	assert.Equal(t, http.StatusUnprocessableEntity, p.ask(http.MethodPost, "/api/letters/tonight", nil).Code)

	p.letters.Tray = true
	require.NoError(t, p.letters.Round(context.Background()))
	view = p.asksLetters(http.MethodGet, "/api/letters", nil)
	require.Len(t, view.Written, 1)
	assert.Equal(t, []int64{0, 0, 0}, []int64{view.Written[0].SentAt, view.Written[0].NextAt, view.Written[0].Tries}, "it waits for nothing")
}
