package server

import (
	"context"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
	"ivorybridge/store"
)

// What changed is read from the sessions as they are logged, the one at work among
// them, and can be narrowed to a step and a day.
func TestProgressFollowsTheSessions(t *testing.T) {
	p := signedInPractice(t)
	p.takesOn(p.actor)
	numbers := func(query string) (n progress.Numbers) {
		p.ask(http.MethodGet, "/api/horses/"+p.horse+"/progress"+query, nil).into(&n)
		return n
	}
	assert.Equal(t, "No session has counted a try yet.", numbers("").Says.Text)
	for i, peak := range []int{7, 6, 4, 3, 2} {
		session, _ := p.session()
		for k := range 3 {
			e := rep("accepted", peak)
			e["at"], e["seq"] = p.now.UnixMilli()+int64(k)*30_000, k+1
			p.logs(session, e)
		}
		n := numbers("")
		require.Equal(t, i+1, n.Sessions, "also the one that is at work")
		assert.Equal(t, 3*(i+1), n.Tries)
		end := rep("accepted", 1)
		delete(end, "rep")
		end["kind"], end["at"], end["seq"] = "end", p.now.UnixMilli()+100_000, 9
		p.logs(session, end)
		p.now = p.now.Add(72 * time.Hour)
	}
	n := numbers("")
	require.Len(t, n.Feel.Lines, 1)
	assert.Equal(t, []any{trend.Less, progress.Sure, "Lead forward: lighter, 7 → 2."}, []any{n.Feel.Lines[0].Trend.Word, n.Feel.How, n.Feel.Says.Text})
	assert.Equal(t, trend.TooEarly, numbers("?since=2026-06-10").Feel.Lines[0].Trend.Word)
	assert.Empty(t, numbers("?step=lead.back").Feel.Lines)
	assert.Equal(t, "since", p.ask(http.MethodGet, "/api/horses/"+p.horse+"/progress?since=spring", nil).problem().Errors[0].Field)
}

// How somebody's releases came is shown to that person and to the lead trainer.
func TestTimingIsShownToItsPersonAndTheLead(t *testing.T) {
	p := signedInPractice(t)
	p.add("ash", store.Assistant, false)
	p.add("beck", store.Assistant, false)
	users, err := p.Store.Users(context.Background(), p.actor.Practice)
	require.NoError(t, err)
	user := func(name string) string {
		return users[slices.IndexFunc(users, func(u store.User) bool { return u.Name == name })].ID
	}
	session, _ := p.session()
	for i, who := range []string{p.actor.User, user("ash"), user("ash")} {
		e := rep("accepted", 2)
		e["at"], e["seq"] = p.now.UnixMilli()+int64(i)*30_000, i+1
		e["rep"].(map[string]any)["handler"] = who
		p.logs(session, e)
	}
	seen := func() (names []string) {
		var n progress.Numbers
		p.ask(http.MethodGet, "/api/horses/"+p.horse+"/progress", nil).into(&n)
		for _, h := range n.Hands {
			names = append(names, h.Name+": "+h.Says.Text)
		}
		return names
	}
	assert.Equal(t, []string{"ash: 2 releases so far: too early to say.", "Wren: 1 release so far: too early to say."}, seen())
	p.comesAs(p.actor.Practice, user("ash"))
	assert.Equal(t, []string{"ash: 2 releases so far: too early to say."}, seen())
	p.comesAs(p.actor.Practice, user("beck"))
	assert.Empty(t, seen())
}
