package house

import (
	"context"
	"net/http"
	"strings"
	"time"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

func (s *Service) homeOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/house/home", "houseHome", "What the practice is called, its words and its zone", api.AtOnce(s.home))
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/house/home", "changeHome", "Change what the practice is called, its words and its zone", s.changeHome)
}

// HomeText is what can be changed of the practice itself.
type HomeText struct {
	Name    string `json:"name" maxLength:"120"`
	Vehicle string `json:"vehicle" enum:"trailer,float,box" doc:"what the horse travels in"`
	Sides   string `json:"sides" enum:"near and off,left and right" doc:"how sides are called"`
	Units   string `json:"units" enum:"metres,feet" doc:"what lengths are said in"`
	Zone    string `json:"zone" maxLength:"60" doc:"time zone, IANA"`
}

// HouseHome is the practice itself, beside the words that ship.
type HouseHome struct {
	HomeText
	Shipped phrase.Words `json:"shipped"`
	By      string       `json:"by,omitempty" doc:"who changed it last; absent: it is as it was made"`
	At      int64        `json:"at,omitempty" doc:"when, ms"`
}

type homeInput struct {
	Body struct {
		HomeText
		Was HomeText `json:"was" doc:"as it was read"`
	}
}

func homeText(p store.Practice) HomeText {
	return HomeText{Name: p.Name, Vehicle: p.Words.Vehicle, Sides: p.Words.Sides, Units: p.Words.Units, Zone: p.Zone}
}

func (t HomeText) practice() store.Practice {
	return store.Practice{Name: t.Name, Zone: t.Zone, Words: phrase.Words{Vehicle: t.Vehicle, Sides: t.Sides, Units: t.Units}}
}

func (s *Service) home(ctx context.Context, c api.Caller, _ *struct{}) (HouseHome, error) {
	p, err := c.View.Practice(ctx, c.Practice)
	if err != nil {
		return HouseHome{}, err
	}
	view := HouseHome{HomeText: homeText(p), Shipped: phrase.Shipped}
	view.By, view.At, err = c.View.HomeChanged(ctx, c.Practice)
	return view, err
}

func (s *Service) changeHome(ctx context.Context, c api.Caller, in *homeInput) (HouseHome, error) {
	now := in.Body.HomeText
	now.Name, now.Zone = strings.TrimSpace(now.Name), strings.TrimSpace(now.Zone)
	var wrong []api.FieldProblem
	if now.Name == "" {
		wrong = append(wrong, api.FieldProblem{Field: "name", Say: "Give the practice a name."})
	}
	if _, err := time.LoadLocation(now.Zone); err != nil || now.Zone == "" || strings.EqualFold(now.Zone, "local") {
		wrong = append(wrong, api.FieldProblem{Field: "zone", Say: "This time zone is not known. Write it as Europe/London."})
	}
	if len(wrong) > 0 {
		return HouseHome{}, api.Faulty(wrong...)
	}
	if err := s.Store.ChangeHome(ctx, c.Actor(), in.Body.Was.practice(), now.practice()); err != nil {
		return HouseHome{}, api.Stale(err, func(current any) HomeText { return homeText(current.(store.Practice)) })
	}
	s.changed()
	return s.home(ctx, c, nil)
}
