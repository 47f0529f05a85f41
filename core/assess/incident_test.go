package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestWhatAnIncidentNeeds(t *testing.T) {
	whole := Incident{Event: Event{Kind: kind(t, "bit"), On: "2026-06-01"}, Hurt: Hurt{}.All()[0], What: "Bit at the gate."}
	for field, change := range map[string]func(*Incident){
		"":     func(*Incident) {},
		"kind": func(i *Incident) { i.Kind = EventKind{} },
		"on":   func(i *Incident) { i.On = "2026-06-02" },
		"hurt": func(i *Incident) { i.Hurt = Hurt{} },
		"what": func(i *Incident) { i.What = " " },
	} {
		i, got := whole, ""
		change(&i)
		for _, f := range i.Check("2026-06-01") {
			got = f.Field
		}
		assert.Equal(t, field, got)
	}
	assert.Equal(t, []string{"2026-05-02", "2026-06-01"}, IncidentDays([]Incident{whole, {Event: Event{On: "2026-05-02"}}}))
	assert.Empty(t, EventsOf([]Incident{whole}, "2026-05-31"), "it has not happened yet")
	assert.Len(t, EventsOf([]Incident{whole}, "2026-06-01"), 1)
}
