package horses

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"runtime/debug"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/server/people"
	"ivorybridge/server/picture"
	"ivorybridge/store"
)

const (
	MaxPicture = 12 << 20 // bytes
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
	MostMiB int          `json:"most_mib" doc:"the largest picture that is taken, MiB"`
	Room    string       `json:"room,omitempty" doc:"how much of their room the practice's photographs take, once it gets scarce"`
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
	add := s.Describe(api.Staff, http.MethodPost, "/api/horses/{id}/photographs", "addPhotograph", "Add a photograph, as the body of the request; kept is the picture alone, without what the camera wrote")
	add.Middlewares = append(add.Middlewares, s.spooled)
	add.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{"image/jpeg": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	api.Handle(s.API, add, s.addPhotograph)
	huma.Register(s.Huma, s.Describe(api.Staff, http.MethodGet, "/api/photographs/{id}", "picture", "The picture itself"),
		func(ctx context.Context, in *photographInput) (*pictureOutput, error) {
			c := api.CallerOf(ctx)
			shown, err := s.picture(ctx, c, in.ID)
			if err != nil {
				return nil, s.Problem(ctx, err)
			}
			return &pictureOutput{ContentType: "image/jpeg", CacheControl: "private, no-store", Disposition: "inline", Body: shown}, nil
		})
}

type spoolKey struct{}

// spooled lays the body of a request into a file before anything of it is looked
// at: many that are sent at once take room on the disk and none in memory.
func (s *Service) spooled(ctx huma.Context, next func(huma.Context)) {
	file, err := s.Store.Scratch()
	if err == nil {
		defer func() { _ = file.Close() }()                 // it has no name; nothing of it stays
		_ = ctx.SetReadDeadline(time.Now().Add(slowUpload)) // where the connection can't, the server's own holds
		err = spool(file, ctx.BodyReader())
	}
	if err != nil {
		s.Refuse(ctx, s.Problem(ctx.Context(), err))
		return
	}
	next(huma.WithValue(ctx, spoolKey{}, file))
}

func spool(file *os.File, body io.Reader) error {
	switch n, err := io.Copy(file, io.LimitReader(body, MaxPicture+1)); {
	case errors.Is(err, os.ErrDeadlineExceeded):
		return api.NewProblem(http.StatusRequestTimeout, "It took too long to arrive. Try again.")
	case err != nil:
		return store.Placed(fmt.Errorf("taking a picture in: %w", err))
	case n > MaxPicture:
		return api.NewProblem(http.StatusRequestEntityTooLarge, fmt.Sprintf("That is too large to be sent. Send a picture of %d MB or less.", MaxPicture>>20))
	}
	return nil
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
	taken, err := c.View.RoomTaken(ctx, c.Practice)
	if err != nil {
		return Photographs{}, err
	}
	view := Photographs{List: []Photograph{}, Owners: []Consenting{}, MostMiB: MaxPicture >> 20}
	if taken*5 >= s.room*4 {
		view.Room = fmt.Sprintf("The practice's photographs take %s of the %s there is for them.", size(taken), size(s.room))
	}
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
	file, there := ctx.Value(spoolKey{}).(*os.File)
	if !there {
		return Photographs{}, errors.New("a picture was not taken in")
	}
	plain, err := s.makePlain(ctx, file)
	if err != nil {
		return Photographs{}, err
	}
	p.MediaType, p.Width, p.Height = "image/jpeg", int64(plain.Width), int64(plain.Height)
	err = s.Store.AddPhotograph(ctx, c.Actor(), p, plain.JPEG, s.room)
	switch {
	case errors.Is(err, store.ErrNoConsent):
		return Photographs{}, api.Faulty(api.FieldProblem{Field: "picture", Say: "The owner has not agreed to photographs. Ask, and note the day they agreed; then add the picture again."})
	case errors.Is(err, store.ErrNoRoom):
		return Photographs{}, api.Faulty(api.FieldProblem{Field: "picture", Say: fmt.Sprintf(
			"The practice's photographs have all of the %s there is for them. Remove some: their room is free after %d days. Or ask whoever keeps the server for more.", size(s.room), int(store.ErasedAfter.Hours()/24))})
	case err != nil:
		return Photographs{}, err
	}
	return s.photographs(ctx, c, &api.ByID{ID: in.ID})
}

// size is a number of bytes as one says it.
func size(bytes int64) string {
	if bytes < 1<<30 {
		return fmt.Sprintf("%d MB", (bytes+1<<20-1)>>20)
	}
	return fmt.Sprintf("%.1f GB", float64(bytes)/(1<<30))
}

// makePlain makes a picture plain, one at a time: what one takes to be unpacked is
// given back before the next.
func (s *Service) makePlain(ctx context.Context, file io.ReadSeeker) (plain picture.Plain, err error) {
	select {
	case s.unpacking <- struct{}{}:
	case <-ctx.Done():
		return plain, ctx.Err()
	}
	defer func() {
		debug.FreeOSMemory()
		<-s.unpacking
	}()
	plain, err = picture.MakePlain(file)
	var wrong picture.WrongError
	if errors.As(err, &wrong) {
		return plain, api.Faulty(api.FieldProblem{Field: "picture", Say: wrong.Error()})
	}
	return plain, err
}

// picture is the picture itself. One that was kept before pictures were made plain
// is made so before it is shown.
func (s *Service) picture(ctx context.Context, c api.Caller, id string) ([]byte, error) {
	p, kept, err := c.View.Photograph(ctx, c.Practice, id)
	if err != nil || p.Plain {
		return kept, err
	}
	return s.replace(ctx, store.NotPlain{ID: p.ID, Practice: c.Practice, MediaType: p.MediaType, Hash: p.Hash}, kept)
}

// replace puts a plain picture in the place of one that was kept as it came.
func (s *Service) replace(ctx context.Context, n store.NotPlain, kept []byte) ([]byte, error) {
	plain, err := s.makePlain(ctx, bytes.NewReader(kept))
	if err != nil {
		return nil, err
	}
	return plain.JPEG, s.Store.MakePlain(ctx, n, store.Photograph{MediaType: "image/jpeg", Width: int64(plain.Width), Height: int64(plain.Height)}, plain.JPEG)
}

// Tidy makes the pictures plain that were kept before that was done as they came,
// and erases those that were taken out of sight long enough ago. One that can't be
// read is passed over; it is not shown.
func (s *Service) Tidy(ctx context.Context) error {
	if err := s.Store.EraseRemoved(ctx, s.Now().UnixMilli()); err != nil {
		return err
	}
	list, err := s.Store.NotPlain(ctx, 1_000_000)
	if err != nil {
		return err
	}
	for _, n := range list {
		kept, err := s.Store.PictureOf(n)
		if err == nil {
			_, err = s.replace(ctx, n, kept)
		}
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if err != nil {
			s.Log.WarnContext(ctx, "a photograph can't be made plain, and is not shown", "photograph", n.ID, "error", err.Error())
		}
	}
	return nil
}

func pastDay(field, date, today string) *api.FieldProblem {
	if _, err := time.Parse(time.DateOnly, date); err != nil {
		none := api.NoDate(field)
		return &none
	}
	if date > today {
		return &api.FieldProblem{Field: field, Say: "This is in the future. Give a day up to today."}
	}
	return nil
}

func (s *Service) removePhotograph(ctx context.Context, c api.Caller, in *photographInput) (Photographs, error) {
	p, err := c.View.PhotographRow(ctx, c.Practice, in.ID)
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
