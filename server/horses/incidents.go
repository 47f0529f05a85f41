package horses

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Incidents are the dangerous things of a horse's last 12 months, the newest first.
type Incidents struct {
	List  []IncidentRow      `json:"list"`
	Kinds []assess.EventKind `json:"kinds" doc:"what a horse can do"`
	Hurts []assess.Hurt      `json:"hurts" doc:"who can be hurt"`
	Today string             `json:"today" format:"date"`
}

// IncidentRow is one of them: written down after the fact, or logged in a session.
type IncidentRow struct {
	ID         string           `json:"id,omitempty" doc:"absent: it was logged in a session"`
	Session    string           `json:"session,omitempty" doc:"in which it was logged"`
	Kind       assess.EventKind `json:"kind"`
	On         string           `json:"on" format:"date"`
	Hurt       assess.Hurt      `json:"hurt,omitzero"`
	Who        string           `json:"who,omitempty"`
	What       string           `json:"what,omitempty"`
	Did        string           `json:"did,omitempty"`
	Photograph string           `json:"photograph,omitempty" doc:"id"`
	By         string           `json:"by,omitempty"`
}

type incidentInput struct {
	ID   string `path:"id" format:"uuid"`
	Body assess.Incident
}

// shownFor is how many days an incident is shown (part 9).
const shownFor = 365

func (s *Service) incidentOperations() {
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/horses/{id}/incidents", "incidents", "The dangerous things of a horse's last 12 months", api.AtOnce(s.incidents))
	api.Operation(s.API, api.Helpers, http.MethodPost, "/api/horses/{id}/incidents", "addIncident", "Write down an incident after the fact", s.addIncident)
}

func (s *Service) incidents(ctx context.Context, c api.Caller, in *api.ByID) (Incidents, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return Incidents{}, err
	}
	view := Incidents{List: []IncidentRow{}, Kinds: assess.EventKind{}.All(), Hurts: assess.Hurt{}.All(), Today: c.Today()}
	recent := func(on string) bool {
		days, ok := horse.DaysBetween(on, c.Today())
		return ok && days <= shownFor
	}
	for _, i := range r.Incidents {
		if recent(i.On) {
			view.List = append(view.List, IncidentRow{ID: i.ID, Kind: i.Kind, On: i.On, Hurt: i.Hurt, Who: i.Who, What: i.What, Did: i.Did, Photograph: i.Photograph, By: i.By})
		}
	}
	sessions, err := c.View.SessionsOf(ctx, c.Practice, in.ID)
	if err != nil {
		return Incidents{}, err
	}
	for n, day := range r.History.Days {
		for _, kind := range day.Events {
			if !recent(day.On) || n >= len(sessions) {
				continue
			}
			view.List = append(view.List, IncidentRow{Session: sessions[n].ID, Kind: kind, On: day.On})
		}
	}
	slices.SortStableFunc(view.List, func(a, b IncidentRow) int { return cmp.Compare(b.On, a.On) })
	return view, nil
}

func (s *Service) addIncident(ctx context.Context, c api.Caller, in *incidentInput) (Incidents, error) {
	i := in.Body
	i.What, i.Did, i.Who = strings.TrimSpace(i.What), strings.TrimSpace(i.Did), strings.TrimSpace(i.Who)
	wrong := api.Faults("", i.Check(c.Today()))
	if i.Photograph != "" {
		photos, err := c.View.Photographs(ctx, c.Practice, in.ID)
		if err != nil {
			return Incidents{}, err
		}
		if !slices.ContainsFunc(photos, func(p store.Photograph) bool { return p.ID == i.Photograph }) {
			wrong = append(wrong, api.FieldProblem{Field: "photograph", Say: "That photograph is not here any more. Choose another, or none."})
		}
	}
	if len(wrong) > 0 {
		return Incidents{}, api.Faulty(wrong...)
	}
	if err := s.Store.AddIncident(ctx, c.Actor(), in.ID, uuid.NewString(), i); err != nil {
		return Incidents{}, err
	}
	return s.incidents(ctx, c, &api.ByID{ID: in.ID})
}
