package server

import (
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/outings"
)

// pressed is a button of an outing, so many seconds after nine.
func pressed(n, seconds int, walk map[string]any) map[string]any {
	return map[string]any{
		"id": uuid.NewString(), "kind": "mark", "at": time.Date(2026, 6, 1, 9, 0, seconds, 0, time.UTC).UnixMilli(), "device": "phone", "seq": n, "mark": map[string]any{"walk": walk},
	}
}

// An outing goes through the outbox like any entry; what it came to, the next one and
// the spots stand on its page. A road of 0 m, 300 stops or an unknown button is a
// sentence.
func TestAnOuting(t *testing.T) {
	p := signedInPractice(t)
	session, _ := p.session()
	post := func(entries ...map[string]any) answer {
		return p.ask(http.MethodPost, "/api/sessions/"+session+"/entries", map[string]any{"sent_at": p.now.UnixMilli(), "entries": entries})
	}
	a := post(
		pressed(100, 10, map[string]any{"button": "set off", "road": map[string]any{"minutes": 1, "metres": 80, "moving": 1}}),
		pressed(101, 60, map[string]any{"button": "spot", "spot": "mill turn-off", "tries": 3, "heading": "away"}),
		pressed(102, 70, map[string]any{"button": "turned"}), pressed(103, 70, map[string]any{"button": "stopped"}), pressed(104, 90, map[string]any{"button": "broke"}),
		pressed(105, 150, map[string]any{"button": "stood"}), pressed(106, 150, map[string]any{"button": "moving"}), pressed(107, 210, map[string]any{"button": "home"}),
	)
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	var o outings.Outings
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/outings", nil).into(&o)
	require.Len(t, o.List, 1)
	one := o.List[0]
	assert.Equal(t, "2.33 1 60 20 true", fmt.Sprintf("%.2f %d %.0f %.0f %v", one.Ratio, one.Broken, one.Longest, *one.Fidget, one.Whole))
	require.Len(t, o.Spots, 1)
	assert.Equal(t, 3, o.Spots[0].Passes[0].Tries)
	assert.Equal(t, "half", o.Next.Next.String(), "its one stop broke")
	assert.Equal(t, 1, o.Riding.Days)
	assert.Equal(t, 60, o.Balance.RestAway)

	assert.Contains(t, p.ask(http.MethodGet, "/api/sessions/"+session+"/report", nil).Body.String(), "We walked one minute out and two minutes home; Moth stood at none of one stop.")
	assert.Contains(t, p.ask(http.MethodGet, "/api/sessions/"+session+"/summary", nil).Body.String(), "Walked 1 minute out and 2 minutes home, and stood at 0 of 1 stop.")

	for say, walk := range map[string]map[string]any{
		"0 m":         {"button": "set off", "road": map[string]any{}},
		"100":         {"button": "set off", "road": map[string]any{"minutes": 5, "plain": 300}},
		"set off":     {"button": "galloped"},
		"its name":    {"button": "spot"},
		"the road th": {"button": "set off"},
	} {
		a := post(pressed(200, 300, walk))
		assert.Contains(t, a.Body.String(), say)
		assert.Less(t, a.Code, 500)
	}
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/outings", nil).into(&o)
	assert.Len(t, o.List, 1, "nothing of it was kept")
	var all []outings.OutingHorse
	p.ask(http.MethodGet, "/api/outings", nil).into(&all)
	assert.Empty(t, all, "no case is worked away from the yard")
}
