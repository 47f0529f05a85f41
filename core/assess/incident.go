package assess

import (
	"slices"
	"strings"

	"ivorybridge/core/horse"
)

type hurts struct{}

func (hurts) Words() []string { return []string{"nobody", "the horse", "a person", "both"} }

// Hurt is who was hurt.
type Hurt = horse.Word[hurts]

// An Incident is a dangerous thing that was written down after the fact (part 9): it
// counts towards the grade as one that was logged does.
type Incident struct {
	Event
	Hurt       Hurt   `json:"hurt" doc:"who was hurt"`
	Who        string `json:"who,omitempty" maxLength:"120" doc:"who was there"`
	What       string `json:"what" maxLength:"1000" doc:"what happened"`
	Did        string `json:"did,omitempty" maxLength:"1000" doc:"what was done"`
	Photograph string `json:"photograph,omitempty" maxLength:"36" doc:"id of a photograph of the horse"`
}

// Check lists what can't be in an incident.
func (i Incident) Check(today string) []Fault {
	var faults []Fault
	add := func(field, say string) { faults = append(faults, Fault{field, say}) }
	if i.Kind.IsZero() {
		add("kind", "Say what the horse did.")
	}
	if i.On == "" || i.On > today {
		add("on", "Give the day it happened, not one to come.")
	}
	if i.Hurt.IsZero() {
		add("hurt", "Say whether anybody was hurt, even if nobody was.")
	}
	if strings.TrimSpace(i.What) == "" {
		add("what", "Say in a sentence what happened.")
	}
	return faults
}

// IncidentDays are the days of incidents, the oldest first.
func IncidentDays(list []Incident) []string {
	days := make([]string, 0, len(list))
	for _, i := range list {
		days = append(days, i.On)
	}
	slices.Sort(days)
	return days
}

// EventsOf are the incidents as events, up to a day.
func EventsOf(list []Incident, until string) []Event {
	var events []Event
	for _, i := range list {
		if i.On <= until {
			events = append(events, i.Event)
		}
	}
	return events
}
