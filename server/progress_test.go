package server

import (
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
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
