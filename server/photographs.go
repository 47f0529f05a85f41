package server

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

	"ivorybridge/store"
)

const (
	maxPicture = 12 << 20   // bytes
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

func (s *Server) photographOperations() {
	operation(s, staff, http.MethodGet, "/api/horses/{id}/photographs", "photographs", "A horse's photographs", atOnce(s.photographs))
	operation(s, staff, http.MethodDelete, "/api/photographs/{id}", "removePhotograph", "Take a photograph out of sight", s.removePhotograph)
	operation(s, staff, http.MethodPost, "/api/people/{id}/consents", "consent", "Note what a person agreed to, or no longer", s.consent)
	huma.Register(s.api, huma.Operation{
		OperationID: "addPhotograph", Method: http.MethodPost, Path: "/api/horses/{id}/photographs", Summary: "Add a photograph, as the body of the request",
		MaxBodyBytes: maxPicture, BodyReadTimeout: slowUpload, Middlewares: huma.Middlewares{s.admit(staff)}, Errors: []int{http.StatusUnauthorized, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, in *pictureInput) (*output[Photographs], error) {
		c, _ := ctx.Value(callerKey{}).(caller)
		out, err := s.addPhotograph(ctx, c, in)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		return &output[Photographs]{Body: out}, nil
	})
	huma.Register(s.api, huma.Operation{
		OperationID: "picture", Method: http.MethodGet, Path: "/api/photographs/{id}", Summary: "The picture itself",
		Middlewares: huma.Middlewares{s.admit(staff)}, Errors: []int{http.StatusUnauthorized, http.StatusNotFound},
	}, func(ctx context.Context, in *photographInput) (*pictureOutput, error) {
		c, _ := ctx.Value(callerKey{}).(caller)
		p, picture, err := c.view.Photograph(ctx, c.Practice, in.ID)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		return &pictureOutput{ContentType: p.MediaType, CacheControl: "private, no-store", Disposition: "inline", Body: picture}, nil
	})
}

func (s *Server) photographs(ctx context.Context, c caller, in *horseInput) (Photographs, error) {
	h, err := c.view.Horse(ctx, c.Practice, in.ID)
	if err != nil {
		return Photographs{}, err
	}
	list, err := c.view.Photographs(ctx, c.Practice, h.ID)
	if err != nil {
		return Photographs{}, err
	}
	consents, err := c.view.Consents(ctx, c.Practice)
	if err != nil {
		return Photographs{}, err
	}
	view := Photographs{List: []Photograph{}, Owners: []Consenting{}, MostMiB: maxPicture >> 20}
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

func (s *Server) addPhotograph(ctx context.Context, c caller, in *pictureInput) (Photographs, error) {
	p := store.Photograph{ID: uuid.NewString(), HorseID: in.ID, About: in.About, Caption: strings.TrimSpace(in.Caption), TakenOn: in.TakenOn}
	if p.TakenOn == "" {
		p.TakenOn = c.today()
	}
	if wrong := pastDay("taken_on", p.TakenOn, c.today()); wrong != nil {
		return Photographs{}, faulty(*wrong)
	}
	if _, err := c.view.Horse(ctx, c.Practice, in.ID); err != nil {
		return Photographs{}, err
	}
	var wrong string
	if err := s.slowly(ctx, func() { wrong = look(in.RawBody, &p) }); err != nil {
		return Photographs{}, err
	}
	if wrong != "" {
		return Photographs{}, faulty(FieldProblem{Field: "picture", Say: wrong})
	}
	err := s.Store.AddPhotograph(ctx, c.actor(), p, in.RawBody)
	if errors.Is(err, store.ErrNoConsent) {
		return Photographs{}, faulty(FieldProblem{Field: "picture", Say: "The owner has not agreed to photographs. Ask, and note the day they agreed; then add the picture again."})
	}
	if err != nil {
		return Photographs{}, err
	}
	return s.photographs(ctx, c, &horseInput{ID: in.ID})
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

func pastDay(field, date, today string) *FieldProblem {
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		return &FieldProblem{Field: field, Say: "This is not a date. Write it as year-month-day, for example 2026-05-01."}
	}
	if date > today {
		return &FieldProblem{Field: field, Say: "This is in the future. Give a day up to today."}
	}
	return nil
}

func (s *Server) removePhotograph(ctx context.Context, c caller, in *photographInput) (Photographs, error) {
	p, _, err := c.view.Photograph(ctx, c.Practice, in.ID)
	if err != nil {
		return Photographs{}, err
	}
	if err := s.Store.RemovePhotograph(ctx, c.actor(), in.ID); err != nil {
		return Photographs{}, err
	}
	return s.photographs(ctx, c, &horseInput{ID: p.HorseID})
}

func (s *Server) consent(ctx context.Context, c caller, in *consentInput) (Person, error) {
	if wrong := pastDay("on", in.Body.On, c.today()); wrong != nil {
		return Person{}, faulty(*wrong)
	}
	person, err := c.view.Person(ctx, c.Practice, in.ID)
	if err != nil {
		return Person{}, err
	}
	given := store.Consent{Person: in.ID, Kind: in.Body.Kind, GivenOn: in.Body.On, WithdrawnOn: in.Body.On}
	if in.Body.Ends {
		err = s.Store.Withdraw(ctx, c.actor(), given)
	} else {
		err = s.Store.Agree(ctx, c.actor(), given)
	}
	return Person(person), err
}
