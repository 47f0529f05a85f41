package accounts

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// How long an invitation is open, and how far ahead a helper's day may lie, in days.
const (
	invitationLasts = 14
	helperAhead     = 60
)

// Invited is an invitation by link: an owner's own account, or a helper's for a day.
type Invited struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Owner  bool   `json:"owner" doc:"an owner's own account; else a helper's for one day"`
	On     string `json:"on,omitempty" format:"date" doc:"the helper's day"`
	Yard   string `json:"yard,omitempty" doc:"the helper's yard"`
	Until  int64  `json:"until" doc:"up to when it is open, ms"`
	MadeBy string `json:"made_by,omitempty"`
}

// NewInvited is an invitation that was made just now.
type NewInvited struct {
	Invited
	Path string `json:"path" doc:"where it opens, from the product's address on; told this once"`
}

// Welcome is what an invitation says to whoever opens it.
type Welcome struct {
	Practice string `json:"practice"`
	Name     string `json:"name"`
	Owner    bool   `json:"owner"`
	On       string `json:"on,omitempty" format:"date"`
	Yard     string `json:"yard,omitempty"`
}

type inviteByLinkInput struct {
	Body struct {
		Person string `json:"person,omitempty" maxLength:"36" doc:"an owner's: the id of the person"`
		Name   string `json:"name,omitempty" maxLength:"120" doc:"a helper's"`
		On     string `json:"on,omitempty" maxLength:"10" doc:"a helper's day"`
		Yard   string `json:"yard,omitempty" maxLength:"36" doc:"a helper's yard"`
	}
}

type tokenInput struct {
	Body struct {
		Token string `json:"token" maxLength:"60"`
	}
}

type acceptInput struct {
	Device string `header:"User-Agent"`
	Body   struct {
		Token    string `json:"token" maxLength:"60"`
		Email    string `json:"email" format:"email" maxLength:"254"`
		Password string `json:"password" maxLength:"200"`
	}
}

// SignInRow is somebody signed in on a device.
type SignInRow struct {
	ID     string `json:"id"`
	Name   string `json:"name" doc:"of the user"`
	Device string `json:"device" doc:"what the browser says it is"`
	Place  string `json:"place" doc:"network address"`
	At     int64  `json:"at" doc:"ms"`
	Until  int64  `json:"until" doc:"ms"`
}

// RecordRow is who changed or opened what.
type RecordRow struct {
	At    int64  `json:"at" doc:"ms"`
	Name  string `json:"name" doc:"of the user; empty: the product itself"`
	What  string `json:"what"`
	Horse string `json:"horse,omitempty"`
}

const recordShown = 300

func (s *Service) invitationOperations() {
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/invitations", "invitations", "The open invitations", s.invitations)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/invitations", "inviteByLink", "Invite an owner to an account, or a helper for a day, by a link", s.inviteByLink)
	api.Operation(s.API, api.LeadsOnly, http.MethodDelete, "/api/invitations/{id}", "takeBackInvitation", "Take an invitation back", s.takeBack)
	api.Operation(s.API, api.Anybody, http.MethodPost, "/api/join/look", "welcome", "What an invitation is for", s.welcome)
	api.WithCookie(s.API, api.Anybody, "/api/join", "join", "Accept an invitation: an account is made and signed in", s.join)
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/sign-ins", "signIns", "Who is signed in, on which device and from where", s.signIns)
	api.Operation(s.API, api.LeadsOnly, http.MethodDelete, "/api/sign-ins/{id}", "endSignIn", "End one sign-in", s.endSignIn)
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/record", "record", "Who changed and who opened what, the newest first", s.record)
}

func viewInvited(i store.Invitation) Invited {
	return Invited{ID: i.ID, Name: i.Name, Owner: i.Person != "", On: i.On, Yard: i.Yard, Until: i.Until, MadeBy: i.MadeBy}
}

func (s *Service) invitations(ctx context.Context, c api.Caller, _ *struct{}) ([]Invited, error) {
	kept, err := c.View.Invitations(ctx, c.Practice, c.Now.UnixMilli())
	list := make([]Invited, 0, len(kept))
	for _, i := range kept {
		list = append(list, viewInvited(i))
	}
	return list, err
}

func (s *Service) inviteByLink(ctx context.Context, c api.Caller, in *inviteByLinkInput) (NewInvited, error) {
	i := store.Invitation{ID: uuid.NewString(), MadeBy: c.Name, MadeAt: c.Now.UnixMilli(), Until: c.Now.AddDate(0, 0, invitationLasts).UnixMilli()}
	if in.Body.Person != "" {
		person, err := c.View.Person(ctx, c.Practice, in.Body.Person)
		if err != nil {
			return NewInvited{}, err
		}
		i.Person, i.Name = person.ID, person.Name
	} else if err := s.helper(ctx, c, in, &i); err != nil {
		return NewInvited{}, err
	}
	token := rand.Text()
	if err := s.Store.AddInvitation(ctx, c.Actor(), i, api.TokenHash(token)); err != nil {
		return NewInvited{}, err
	}
	return NewInvited{Invited: viewInvited(i), Path: "/join#" + token}, nil
}

// helper reads an invitation for one day at one yard. It is open to the end of that
// day.
func (s *Service) helper(ctx context.Context, c api.Caller, in *inviteByLinkInput, i *store.Invitation) error {
	var wrong []api.FieldProblem
	if i.Name = strings.TrimSpace(in.Body.Name); i.Name == "" {
		wrong = append(wrong, api.FieldProblem{Field: "name", Say: "Give the helper's name."})
	}
	zone, err := time.LoadLocation(c.Home.Zone)
	if err != nil {
		zone = time.UTC
	}
	day, err := time.ParseInLocation(time.DateOnly, in.Body.On, zone)
	if err != nil || in.Body.On < c.Today() || day.After(c.Now.AddDate(0, 0, helperAhead)) {
		wrong = append(wrong, api.FieldProblem{Field: "on", Say: "Choose today or a day within two months."})
	}
	yards, err := c.View.Yards(ctx, c.Practice)
	if err != nil {
		return err
	}
	for _, y := range yards {
		if y.ID == in.Body.Yard {
			i.YardID, i.Yard = y.ID, y.Name
		}
	}
	if i.YardID == "" {
		wrong = append(wrong, api.FieldProblem{Field: "yard", Say: "Choose the yard where they help."})
	}
	if len(wrong) > 0 {
		return api.Faulty(wrong...)
	}
	i.On, i.Until = in.Body.On, day.AddDate(0, 0, 1).UnixMilli()
	return nil
}

func (s *Service) takeBack(ctx context.Context, c api.Caller, in *api.ByID) ([]Invited, error) {
	if err := s.Store.TakeBack(ctx, c.Actor(), in.ID); err != nil {
		return nil, err
	}
	return s.invitations(ctx, c, nil)
}

// noInvitation is the answer to every token that opens nothing.
func noInvitation() error {
	return api.NewProblem(http.StatusNotFound, "This invitation does not open. It may have ended, been used, or been taken back. Ask your trainer for another.")
}

// invited finds an invitation by its token. Those from a place that tries many are not
// looked at.
func (s *Service) invited(ctx context.Context, c api.Caller, token string) (store.Invitation, store.Practice, error) {
	var home store.Practice
	i, err := limits.Find(ctx, s.limits, c.Now, place.Of("invitation", api.PlaceOf(ctx)), func() (i store.Invitation, err error) {
		i, home, err = s.Store.Invited(ctx, api.TokenHash(token), c.Now.UnixMilli())
		return i, err
	})
	if errors.Is(err, store.ErrNotFound) {
		err = noInvitation()
	}
	return i, home, err
}

func (s *Service) welcome(ctx context.Context, c api.Caller, in *tokenInput) (Welcome, error) {
	i, home, err := s.invited(ctx, c, in.Body.Token)
	if err != nil {
		return Welcome{}, err
	}
	return Welcome{Practice: home.Name, Name: i.Name, Owner: i.Person != "", On: i.On, Yard: i.Yard}, nil
}

func (s *Service) join(ctx context.Context, c api.Caller, in *acceptInput) (signedIn, error) {
	i, home, err := s.invited(ctx, c, in.Body.Token)
	if err != nil {
		return signedIn{}, err
	}
	email := strings.TrimSpace(in.Body.Email)
	if say := WeakPassword(in.Body.Password, i.Name, email, home.Name); say != "" {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "password", Say: say})
	}
	u := store.User{ID: uuid.NewString(), Practice: home.ID, Name: i.Name, Email: email, Role: store.Owner, Active: true, Person: i.Person, Day: i.On, Yard: i.YardID}
	if err := s.Slowly(ctx, true, func() { u.Hash = Hash(in.Body.Password) }); err != nil {
		return signedIn{}, err
	}
	switch err := s.Store.Accept(ctx, i, home.ID, u, c.Now.UnixMilli()); {
	case errors.Is(err, store.ErrTaken):
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "email", Say: "This address has a sign-in already. Use another."})
	case errors.Is(err, store.ErrNotFound):
		return signedIn{}, noInvitation()
	case err != nil:
		return signedIn{}, err
	}
	return s.letIn(ctx, c, u, in.Device)
}

func (s *Service) signIns(ctx context.Context, c api.Caller, _ *struct{}) ([]SignInRow, error) {
	kept, err := c.View.SignIns(ctx, c.Practice, c.Now.UnixMilli())
	list := make([]SignInRow, 0, len(kept))
	for _, i := range kept {
		list = append(list, SignInRow{ID: i.ID, Name: i.Name, Device: i.Device, Place: i.Place, At: i.At, Until: i.Until})
	}
	return list, err
}

func (s *Service) endSignIn(ctx context.Context, c api.Caller, in *api.ByID) ([]SignInRow, error) {
	if err := s.Store.EndSignIn(ctx, c.Actor(), in.ID); err != nil {
		return nil, err
	}
	return s.signIns(ctx, c, nil)
}

func (s *Service) record(ctx context.Context, c api.Caller, _ *struct{}) ([]RecordRow, error) {
	kept, err := c.View.Record(ctx, c.Practice, recordShown)
	list := make([]RecordRow, 0, len(kept))
	for _, r := range kept {
		list = append(list, RecordRow(r))
	}
	return list, err
}
