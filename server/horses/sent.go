package horses

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// An owner sends so many photographs at once, and one more after each period.
var sentPhotographs = limits.Limit{Burst: 12, Period: 10 * time.Minute}

// SentPhotograph says that a photograph arrived.
type SentPhotograph struct {
	Say string `json:"say"`
}

type sentInput struct {
	ID      string `path:"id" format:"uuid"`
	Caption string `query:"caption" maxLength:"150"`
}

func (s *Service) sentOperations() {
	op := s.Describe(api.OwnersSide, http.MethodPost, "/api/owner/horses/{id}/photographs", "sendPhotograph", "An owner sends a photograph of their own horse, as the body of the request, and agrees that it is kept")
	op.Middlewares = append(op.Middlewares, s.spooled)
	op.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{"image/jpeg": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	api.Handle(s.API, op, s.sendPhotograph)
}

// sendPhotograph keeps a picture that an owner sent. Sending it is agreeing: that is
// said beside the button.
func (s *Service) sendPhotograph(ctx context.Context, c api.Caller, in *sentInput) (SentPhotograph, error) {
	ids, err := c.View.HorsesOf(ctx, c.Practice, c.Linked.Person)
	if err != nil {
		return SentPhotograph{}, err
	}
	if c.Linked.Person == "" || !slices.Contains(ids, in.ID) {
		return SentPhotograph{}, api.NewProblem(http.StatusNotFound, "This link does not open that horse. Ring your trainer.")
	}
	wait, err := s.sent.Take(ctx, c.Now, sentPhotographs.Of("photograph", c.Practice, c.Linked.Person))
	if err != nil {
		return SentPhotograph{}, err
	}
	if wait > 0 {
		return SentPhotograph{}, api.NewProblem(http.StatusTooManyRequests, "That is many photographs at once. Wait some minutes, and send the next.")
	}
	if c.Linked.MadeBy != "" {
		c.ID = c.Linked.MadeBy // it stands under whoever gave the link
	}
	consents, err := c.View.Consents(ctx, c.Practice)
	if err != nil {
		return SentPhotograph{}, err
	}
	if !store.Agreed(consents, c.Linked.Person, store.Photographs) {
		if err := s.Store.Agree(ctx, c.Actor(), store.Consent{Person: c.Linked.Person, Kind: store.Photographs, GivenOn: c.Today()}); err != nil {
			return SentPhotograph{}, err
		}
	}
	person, err := c.View.Person(ctx, c.Practice, c.Linked.Person)
	if err != nil {
		return SentPhotograph{}, err
	}
	caption := fmt.Sprintf("from %s: %s", person.Name, strings.TrimSpace(in.Caption))
	if _, err := s.addPhotograph(ctx, c, &pictureInput{ID: in.ID, About: "horse", Caption: api.Clip(strings.TrimSuffix(caption, ": "), 200)}); err != nil {
		return SentPhotograph{}, err
	}
	return SentPhotograph{Say: "It arrived. " + c.Home.Name + " sees it with the horse."}, nil
}
