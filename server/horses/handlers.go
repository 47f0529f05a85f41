package horses

import (
	"context"
	"net/http"

	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/server/people"
)

type handlerInput struct {
	ID   string `path:"id" format:"uuid"`
	Body people.PersonText
}

type handlerOut struct {
	ID     string `path:"id" format:"uuid"`
	Person string `path:"person" format:"uuid"`
}

func (s *Service) handlerOperations() {
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/horses/{id}/handlers", "addHandler", "Add a person who handles the horse for its owner", s.addHandler)
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/horses/{id}/handlers/{person}", "removeHandler", "Say that a person no longer handles the horse", s.removeHandler)
}

func (s *Service) addHandler(ctx context.Context, c api.Caller, in *handlerInput) (Horse, error) {
	p, wrong := in.Body.Person("")
	if len(wrong) > 0 {
		return Horse{}, api.Faulty(wrong...)
	}
	p.ID = uuid.NewString()
	if err := s.Store.AddHandler(ctx, c.Actor(), in.ID, p); err != nil {
		return Horse{}, err
	}
	return s.changedHorse(ctx, c, in.ID)
}

func (s *Service) removeHandler(ctx context.Context, c api.Caller, in *handlerOut) (Horse, error) {
	if err := s.Store.RemoveHandler(ctx, c.Actor(), in.ID, in.Person); err != nil {
		return Horse{}, err
	}
	return s.changedHorse(ctx, c, in.ID)
}

// changedHorse reads a horse that was just changed: its sessions are advised anew.
func (s *Service) changedHorse(ctx context.Context, c api.Caller, id string) (Horse, error) {
	s.changed()
	h, err := c.View.Horse(ctx, c.Practice, id)
	return viewHorse(h), err
}
