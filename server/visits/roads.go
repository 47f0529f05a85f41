package visits

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"ivorybridge/core/diary"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

func (s *Service) roadOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/roads", "roads", "The yards, the drives between them, and how the caller's day begins", api.AtOnce(s.roads))
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/roads/drive", "setDrive", "Type the drive between two yards", s.drive)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/roads/place", "placeYard", "Say where a yard lies, and by which clocks it lives", s.place)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/roads/begins", "setMyDay", "Say from where the caller's day begins, and the rounds", s.myDay)
}

// Roads are the yards with the drives between them.
type Roads struct {
	Yards  []RoadYard    `json:"yards"`
	Drives []Drive       `json:"drives" doc:"between each two yards"`
	Base   string        `json:"base,omitempty" doc:"id of the yard from which the caller's day begins"`
	At     string        `json:"at" doc:"not before when"`
	Rounds []diary.Round `json:"rounds"`
	Zone   string        `json:"zone" doc:"of the practice"`
}

// RoadYard is a yard on the road.
type RoadYard struct {
	ID    string       `json:"id"`
	Name  string       `json:"name"`
	Zone  string       `json:"zone,omitempty" doc:"of its clocks; absent: the practice's"`
	Place *diary.Place `json:"place,omitempty"`
}

// Drive is the road between two yards.
type Drive struct {
	A       string `json:"a" doc:"id"`
	B       string `json:"b" doc:"id"`
	Minutes int    `json:"minutes"`
	Typed   bool   `json:"typed" doc:"somebody typed it; else it is reckoned from the places"`
	Known   bool   `json:"known" doc:"else it is counted as half an hour"`
}

func (s *Service) roads(ctx context.Context, c api.Caller, _ *struct{}) (Roads, error) {
	yards, roads, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return Roads{}, err
	}
	begins, err := c.View.DayBegins(ctx, c.Practice, c.ID)
	if err != nil {
		return Roads{}, err
	}
	view := Roads{Yards: []RoadYard{}, Drives: []Drive{}, Base: begins.Base, At: begins.At.String(), Rounds: append([]diary.Round{}, begins.Rounds...), Zone: c.Home.Zone}
	for i, y := range yards {
		view.Yards = append(view.Yards, RoadYard{ID: y.ID, Name: y.Name, Zone: y.Zone, Place: y.Place})
		for _, o := range yards[i+1:] {
			minutes, known := roads.Drive(y.ID, o.ID)
			_, typed := roads.Typed[[2]string{min(y.ID, o.ID), max(y.ID, o.ID)}]
			view.Drives = append(view.Drives, Drive{A: y.ID, B: o.ID, Minutes: minutes, Typed: typed, Known: known})
		}
	}
	return view, nil
}

type driveInput struct {
	Body struct {
		A       string `json:"a" format:"uuid"`
		B       string `json:"b" format:"uuid"`
		Minutes *int   `json:"minutes,omitempty" minimum:"0" maximum:"720" doc:"absent: forget what was typed"`
	}
}

func (s *Service) drive(ctx context.Context, c api.Caller, in *driveInput) (Roads, error) {
	if in.Body.A == in.Body.B {
		return Roads{}, api.Faulty(api.FieldProblem{Field: "b", Say: "That is the same yard. Choose another."})
	}
	if err := s.Store.SetDrive(ctx, c.Actor(), in.Body.A, in.Body.B, in.Body.Minutes); err != nil {
		return Roads{}, err
	}
	return s.roads(ctx, c, nil)
}

type placeInput struct {
	Body struct {
		Yard  string `json:"yard" format:"uuid"`
		Place string `json:"place,omitempty" maxLength:"200" doc:"54.48, -3.12 or a geo: link; empty: not known"`
		Zone  string `json:"zone,omitempty" maxLength:"60" doc:"as Europe/London; empty: the practice's"`
	}
}

func (s *Service) place(ctx context.Context, c api.Caller, in *placeInput) (Roads, error) {
	y := store.YardPlace{Named: store.Named{ID: in.Body.Yard}, Zone: strings.TrimSpace(in.Body.Zone)}
	var wrong []api.FieldProblem
	if text := strings.TrimSpace(in.Body.Place); text != "" {
		p, err := diary.ParsePlace(text)
		if err != nil {
			wrong = append(wrong, api.FieldProblem{Field: "place", Say: "This is not a place. Paste two numbers as 54.48, -3.12, or a geo: link."})
		}
		y.Place = &p
	}
	if _, err := time.LoadLocation(y.Zone); err != nil || strings.EqualFold(y.Zone, "local") {
		wrong = append(wrong, api.FieldProblem{Field: "zone", Say: "This time zone is not known. Write it as Europe/London, or leave it empty."})
	}
	if len(wrong) > 0 {
		return Roads{}, api.Faulty(wrong...)
	}
	if err := s.Store.PlaceYard(ctx, c.Actor(), y); err != nil {
		return Roads{}, err
	}
	return s.roads(ctx, c, nil)
}

type myDayInput struct {
	Body struct {
		Base   string        `json:"base,omitempty" maxLength:"36" doc:"id of a yard; empty: none"`
		At     string        `json:"at" maxLength:"5"`
		Rounds []diary.Round `json:"rounds" maxItems:"20"`
	}
}

func (s *Service) myDay(ctx context.Context, c api.Caller, in *myDayInput) (Roads, error) {
	at, err := diary.ParseClock(in.Body.At)
	var wrong []api.FieldProblem
	if err != nil {
		wrong = append(wrong, api.FieldProblem{Field: "at", Say: "This is not a time. Write it as 07:30."})
	}
	for i, r := range in.Body.Rounds {
		if err := r.Check(); err != nil {
			wrong = append(wrong, api.FieldProblem{Field: fmt.Sprintf("rounds[%d]", i), Say: phrase.Raised(err.Error()) + "."})
		}
	}
	if len(wrong) > 0 {
		return Roads{}, api.Faulty(wrong...)
	}
	if err := s.Store.SetDayBegins(ctx, c.Actor(), store.DayBegins{Base: in.Body.Base, At: at, Rounds: in.Body.Rounds}); err != nil {
		return Roads{}, err
	}
	return s.roads(ctx, c, nil)
}
