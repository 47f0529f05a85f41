package horses

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	_ "image/jpeg" // the two kinds that are kept
	_ "image/png"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/server/people"
	"ivorybridge/store"
)

const (
	MaxPicture = 12 << 20   // bytes
	maxPixels  = 40_000_000 // what may be unpacked
	slowUpload = 3 * time.Minute
)

// Photograph is a picture of a horse, its tack, or marks on it.
type Photograph struct {
	ID      string `json:"id"`
	About   string `json:"about" enum:"horse,tack,mark"`
	Caption string `json:"caption"`
	TakenOn string `json:"taken_on" format:"date"`
	Width   int64  `json:"width"`
	Height  int64  `json:"height"`
	AddedBy string `json:"added_by"`
}

// Photographs are the pictures of a horse, and whether its owner has agreed.
type Photographs struct {
	List    []Photograph `json:"list"`
	Owners  []Consenting `json:"owners"`
	Agreed  bool         `json:"agreed" doc:"an owner has agreed, so that pictures may be added"`
	MostMiB int          `json:"most_mib" doc:"the largest picture that is kept, MiB"`
}

// Consenting is a person with what they agreed to.
type Consenting struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	GivenOn string `json:"given_on,omitempty" format:"date" doc:"empty: not agreed, or not any more"`
}

type pictureInput struct {
	ID      string `path:"id" format:"uuid"`
	About   string `query:"about" enum:"horse,tack,mark" default:"horse"`
	Caption string `query:"caption" maxLength:"200"`
	TakenOn string `query:"taken_on" maxLength:"10" doc:"empty: today"`
	RawBody []byte `contentType:"image/jpeg"`
}

type photographInput struct {
	ID string `path:"id" format:"uuid"`
}

type pictureOutput struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Disposition  string `header:"Content-Disposition"`
	Body         []byte
}

type consentInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Kind string `json:"kind" enum:"photographs,sharing"`
		On   string `json:"on" maxLength:"10"`
		Ends bool   `json:"ends,omitempty" doc:"the consent is withdrawn on that day"`
	}
}

func (s *Service) photographOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/photographs", "photographs", "A horse's photographs", api.AtOnce(s.photographs))
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/photographs/{id}", "removePhotograph", "Take a photograph out of sight", s.removePhotograph)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/people/{id}/consents", "consent", "Note what a person agreed to, or no longer", s.consent)
	huma.Register(s.Huma, huma.Operation{
		OperationID: "addPhotograph", Method: http.MethodPost, Path: "/api/horses/{id}/photographs", Summary: "Add a photograph, as the body of the request",
		MaxBodyBytes: MaxPicture, BodyReadTimeout: slowUpload, Middlewares: huma.Middlewares{s.Admit(api.Staff)}, Errors: []int{http.StatusUnauthorized, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *pictureInput) (*api.Output[Photographs], error) {
		c := api.CallerOf(ctx)
		out, err := s.addPhotograph(ctx, c, in)
		if err != nil {
			return nil, s.Problem(ctx, err)
		}
		return &api.Output[Photographs]{Body: out}, nil
	})
	huma.Register(s.Huma, huma.Operation{
		OperationID: "picture", Method: http.MethodGet, Path: "/api/photographs/{id}", Summary: "The picture itself",
		Middlewares: huma.Middlewares{s.Admit(api.Staff)}, Errors: []int{http.StatusUnauthorized, http.StatusNotFound},
	}, func(ctx context.Context, in *photographInput) (*pictureOutput, error) {
		c := api.CallerOf(ctx)
		p, picture, err := c.View.Photograph(ctx, c.Practice, in.ID)
		if err != nil {
			return nil, s.Problem(ctx, err)
		}
		return &pictureOutput{ContentType: p.MediaType, CacheControl: "private, no-store", Disposition: "inline", Body: picture}, nil
	})
}

func (s *Service) photographs(ctx context.Context, c api.Caller, in *api.ByID) (Photographs, error) {
	h, err := c.View.Horse(ctx, c.Practice, in.ID)
	if err != nil {
		return Photographs{}, err
	}
	list, err := c.View.Photographs(ctx, c.Practice, h.ID)
	if err != nil {
		return Photographs{}, err
	}
	consents, err := c.View.Consents(ctx, c.Practice)
	if err != nil {
		return Photographs{}, err
	}
	view := Photographs{List: []Photograph{}, Owners: []Consenting{}, MostMiB: MaxPicture >> 20}
	for _, p := range list {
		view.List = append(view.List, Photograph{ID: p.ID, About: p.About, Caption: p.Caption, TakenOn: p.TakenOn, Width: p.Width, Height: p.Height, AddedBy: p.AddedBy})
	}
	for _, o := range h.Owners {
		one := Consenting{ID: o.ID, Name: o.Name}
		for _, given := range consents {
			if given.Person == o.ID && given.Kind == store.Photographs && given.WithdrawnOn == "" {
				one.GivenOn, view.Agreed = given.GivenOn, true
			}
		}
		view.Owners = append(view.Owners, one)
	}
	return view, nil
}

func (s *Service) addPhotograph(ctx context.Context, c api.Caller, in *pictureInput) (Photographs, error) {
	p := store.Photograph{ID: uuid.NewString(), HorseID: in.ID, About: in.About, Caption: strings.TrimSpace(in.Caption), TakenOn: in.TakenOn}
	if p.TakenOn == "" {
		p.TakenOn = c.Today()
	}
	if wrong := pastDay("taken_on", p.TakenOn, c.Today()); wrong != nil {
		return Photographs{}, api.Faulty(*wrong)
	}
	if _, err := c.View.Horse(ctx, c.Practice, in.ID); err != nil {
		return Photographs{}, err
	}
	var wrong string
	if err := s.Slowly(ctx, func() { wrong = look(in.RawBody, &p) }); err != nil {
		return Photographs{}, err
	}
	if wrong != "" {
		return Photographs{}, api.Faulty(api.FieldProblem{Field: "picture", Say: wrong})
	}
	err := s.Store.AddPhotograph(ctx, c.Actor(), p, in.RawBody)
	if errors.Is(err, store.ErrNoConsent) {
		return Photographs{}, api.Faulty(api.FieldProblem{Field: "picture", Say: "The owner has not agreed to photographs. Ask, and note the day they agreed; then add the picture again."})
	}
	if err != nil {
		return Photographs{}, err
	}
	return s.photographs(ctx, c, &api.ByID{ID: in.ID})
}

// look unpacks a picture to be sure that it is one: its name and type are not
// believed. It says what is wrong, or nothing.
func look(picture []byte, p *store.Photograph) string {
	size, kind, err := image.DecodeConfig(bytes.NewReader(picture))
	if err != nil {
		return "This is no photograph that can be kept. Take a JPEG or a PNG."
	}
	if size.Width*size.Height > maxPixels {
		return fmt.Sprintf("This picture has %d million pixels. Take one with %d million or fewer.", size.Width*size.Height/1_000_000, maxPixels/1_000_000)
	}
	if _, _, err := image.Decode(bytes.NewReader(picture)); err != nil {
		return "This picture is damaged and can't be shown. Take it again, or choose another."
	}
	p.MediaType, p.Width, p.Height = "image/"+kind, int64(size.Width), int64(size.Height)
	return ""
}

func pastDay(field, date, today string) *api.FieldProblem {
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		return &api.FieldProblem{Field: field, Say: "This is not a date. Write it as year-month-day, for example 2026-05-01."}
	}
	if date > today {
		return &api.FieldProblem{Field: field, Say: "This is in the future. Give a day up to today."}
	}
	return nil
}

func (s *Service) removePhotograph(ctx context.Context, c api.Caller, in *photographInput) (Photographs, error) {
	p, _, err := c.View.Photograph(ctx, c.Practice, in.ID)
	if err != nil {
		return Photographs{}, err
	}
	if err := s.Store.RemovePhotograph(ctx, c.Actor(), in.ID); err != nil {
		return Photographs{}, err
	}
	return s.photographs(ctx, c, &api.ByID{ID: p.HorseID})
}

func (s *Service) consent(ctx context.Context, c api.Caller, in *consentInput) (people.Person, error) {
	if wrong := pastDay("on", in.Body.On, c.Today()); wrong != nil {
		return people.Person{}, api.Faulty(*wrong)
	}
	person, err := c.View.Person(ctx, c.Practice, in.ID)
	if err != nil {
		return people.Person{}, err
	}
	given := store.Consent{Person: in.ID, Kind: in.Body.Kind, GivenOn: in.Body.On, WithdrawnOn: in.Body.On}
	if in.Body.Ends {
		err = s.Store.Withdraw(ctx, c.Actor(), given)
	} else {
		err = s.Store.Agree(ctx, c.Actor(), given)
	}
	return people.Person(person), err
}
