package visits

import (
	"context"
	"strings"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

type cancelInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Reason  string `json:"reason" maxLength:"300"`
		Version int64  `json:"version" minimum:"1"`
	}
}

// Cancelled is a visit that does not take place, and who is to be told.
type Cancelled struct {
	Visit Booked `json:"visit"`
	Tell  []Tell `json:"tell"`
}

// Tell is somebody to be told, with the message.
type Tell struct {
	Name    string `json:"name"`
	Phone   string `json:"phone,omitempty"`
	Message string `json:"message"`
}

func (s *Service) cancel(ctx context.Context, c api.Caller, in *cancelInput) (Cancelled, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if reason == "" {
		return Cancelled{}, api.Faulty(api.FieldProblem{Field: "reason", Say: "Say why it is cancelled. The owner reads it."})
	}
	v, err := c.View.Visit(ctx, c.Practice, in.ID)
	if err != nil {
		return Cancelled{}, err
	}
	v.Cancelled, v.Version = reason, in.Body.Version
	if err := s.Store.ChangeVisit(ctx, c.Actor(), v); err != nil {
		return Cancelled{}, api.Stale(err, func(now any) Booked { return told(now.(store.Visit)) })
	}
	list := Cancelled{Visit: told(v), Tell: []Tell{}}
	list.Visit.Version++
	list.Tell, err = tells(ctx, c, v)
	return list, err
}

func (s *Service) tell(ctx context.Context, c api.Caller, in *api.ByID) ([]Tell, error) {
	v, err := c.View.Visit(ctx, c.Practice, in.ID)
	if err != nil {
		return nil, err
	}
	return tells(ctx, c, v)
}

// tells is who is to be told of a visit, the owners of its horses, each with the message
// as the visit stands now.
func tells(ctx context.Context, c api.Caller, v store.Visit) ([]Tell, error) {
	list := []Tell{}
	args := phrase.Args{"on": phrase.Date(v.On), "reason": v.Cancelled, "who": c.Home.Name, "at": ""}
	key := "visit.stands"
	switch {
	case v.Cancelled != "":
		key = "visit.cancelled"
	case !v.Agreed:
		key = "visit.asked"
	}
	if v.At != nil {
		args["at"] = phrase.Of("visit.at", phrase.Args{"at": v.At.String()})
	}
	for _, ref := range v.Horses {
		h, err := c.View.HorseAsKept(ctx, c.Practice, ref.ID)
		if err != nil {
			return nil, err
		}
		args["horse"] = h.Name
		for _, o := range h.Owners {
			list = append(list, Tell{Name: o.Name, Phone: o.Phone, Message: c.Book.Say(phrase.Of(key, args))})
		}
	}
	return list, nil
}
