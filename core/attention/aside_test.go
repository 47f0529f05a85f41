package attention

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestANoteIsSetAsideForItsFactAndItsTime(t *testing.T) {
	of := func(f Facts) Note {
		f.Assessed, f.Baseline = true, true
		return Of(f)[0]
	}
	quiet := of(Facts{Today: "2026-06-01", DaysOff: 20})
	nextDay := of(Facts{Today: "2026-06-02", DaysOff: 21})
	worked := of(Facts{Today: "2026-07-01", DaysOff: 14})
	other := Noted(3, look, "attention.not_assessed", nil)
	put := Put{Note: "attention.quiet", Basis: quiet.Basis(), Until: "2026-06-08", Reason: "away"}
	for _, c := range []struct {
		name  string
		notes []Note
		puts  []Put
		today string
		later int
	}{
		{"nothing set aside", []Note{quiet, other}, nil, "2026-06-01", 0},
		{"set aside", []Note{quiet, other}, []Put{put}, "2026-06-07", 1},
		{"the day has come", []Note{quiet, other}, []Put{put}, "2026-06-08", 0},
		{"a day more of the same", []Note{nextDay}, []Put{put}, "2026-06-02", 1},
		{"another fact of the kind", []Note{worked}, []Put{put}, "2026-06-02", 0},
		{"shown again", []Note{quiet}, []Put{put, {Note: put.Note, Basis: put.Basis, Until: "2026-06-02"}}, "2026-06-02", 0},
		{"set aside anew", []Note{quiet}, []Put{{Note: put.Note, Basis: put.Basis, Until: "2026-06-02"}, put}, "2026-06-02", 1},
	} {
		left, later := Split(c.notes, c.puts, c.today)
		assert.Len(t, later, c.later, c.name)
		assert.Len(t, left, len(c.notes)-c.later, c.name)
	}
}
