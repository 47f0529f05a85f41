package people

import (
	"context"
	"net/http"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/core/phrase"
	"ivorybridge/core/trailer"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Trailer is one of a yard or an owner, with what is said of it.
type Trailer struct {
	ID      string           `json:"id"`
	Version int64            `json:"version"`
	Like    phrase.Message   `json:"like" doc:"what it is like, in one line"`
	Mind    []phrase.Message `json:"mind" doc:"what to mind because of it"`
	TrailerText
}

// TrailerText is what is written down of a trailer.
type TrailerText struct {
	Name     string         `json:"name" minLength:"1" maxLength:"60"`
	YardID   string         `json:"yard_id,omitempty" maxLength:"36" doc:"the yard where it stands"`
	PersonID string         `json:"person_id,omitempty" maxLength:"36" doc:"the owner whose it is"`
	Record   trailer.Record `json:"record"`
}

type trailerInput struct{ Body TrailerText }

type trailerChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		TrailerText
		Version int64 `json:"version" minimum:"1"`
	}
}

func (s *Service) trailerOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/trailers", "trailers", "The trailers of yards and owners", s.trailers)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/trailers", "addTrailer", "Add a trailer", s.addTrailer)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/trailers/{id}", "changeTrailer", "Change a trailer", s.changeTrailer)
}

// TrailerOf shows a trailer.
func TrailerOf(t store.Trailer) Trailer {
	view := Trailer{ID: t.ID, Version: t.Version, TrailerText: TrailerText{Name: t.Name, YardID: t.YardID, PersonID: t.PersonID, Record: t.Record}}
	view.Like, view.Mind = t.Record.Says()
	return view
}

func (s *Service) trailers(ctx context.Context, c api.Caller, _ *struct{}) ([]Trailer, error) {
	list, err := c.View.Trailers(ctx, c.Practice)
	trailers := make([]Trailer, 0, len(list))
	for _, t := range list {
		trailers = append(trailers, TrailerOf(t))
	}
	return trailers, err
}

// trailer checks what was written and makes a trailer of it.
func (t TrailerText) trailer() (store.Trailer, error) {
	made := store.Trailer{Name: strings.TrimSpace(t.Name), YardID: t.YardID, PersonID: t.PersonID, Record: t.Record}
	var wrong []api.FieldProblem
	if made.Name == "" {
		wrong = append(wrong, api.FieldProblem{Field: "name", Say: "Give it a name that you know it by."})
	}
	for _, f := range t.Record.Check() {
		wrong = append(wrong, api.FieldProblem{Field: "record." + f.Field, Say: f.Say})
	}
	if len(wrong) > 0 {
		return made, api.Faulty(wrong...)
	}
	return made, nil
}

func (s *Service) addTrailer(ctx context.Context, c api.Caller, in *trailerInput) (Trailer, error) {
	t, err := in.Body.trailer()
	if err != nil {
		return Trailer{}, err
	}
	t.ID, t.Version = uuid.NewString(), 1
	return TrailerOf(t), s.Store.AddTrailer(ctx, c.Actor(), t)
}

func (s *Service) changeTrailer(ctx context.Context, c api.Caller, in *trailerChange) (Trailer, error) {
	t, err := in.Body.trailer()
	if err != nil {
		return Trailer{}, err
	}
	t.ID, t.Version = in.ID, in.Body.Version
	if err := s.Store.UpdateTrailer(ctx, c.Actor(), t); err != nil {
		return Trailer{}, api.Stale(err, func(now any) Trailer { return TrailerOf(now.(store.Trailer)) })
	}
	t.Version++
	return TrailerOf(t), nil
}
