package accounts

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// User is a sign-in of the practice.
type User struct {
	ID         string     `json:"id"`
	Name       string     `json:"name"`
	Email      string     `json:"email"`
	Role       store.Role `json:"role" enum:"lead trainer,assistant,owner"`
	Active     bool       `json:"active"`
	MustChange bool       `json:"must_change" doc:"has not chosen a password yet"`
	Day        string     `json:"day,omitempty" format:"date" doc:"of a helper, the one day"`
	Yard       string     `json:"yard,omitempty" doc:"of a helper, the one yard"`
}

// Invitation carries the one-time password to be handed over by voice or on
// paper; it is shown once.
type Invitation struct {
	User     User   `json:"user"`
	Password string `json:"password"`
}

type inviteInput struct {
	Body struct {
		Name  string     `json:"name" minLength:"1" maxLength:"120"`
		Email string     `json:"email" format:"email" maxLength:"254"`
		Role  store.Role `json:"role" enum:"lead trainer,assistant,owner"`
	}
}

type userInput struct {
	ID string `path:"id" format:"uuid"`
}

type activeInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Active bool `json:"active"`
	}
}

func (s *Service) userOperations() {
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/users", "users", "The practice's sign-ins", s.users)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/users", "invite", "Invite somebody; answers with a one-time password", s.invite)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/users/{id}/reset", "resetUser", "Reset a password; answers with a one-time password", s.reset)
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/users/{id}/active", "activateUser", "Let a user in, or keep one out", s.activate)
}

func viewUser(u store.User) User {
	return User{ID: u.ID, Name: u.Name, Email: u.Email, Role: u.Role, Active: u.Active, MustChange: u.MustChange, Day: u.Day, Yard: u.YardName}
}

func (s *Service) users(ctx context.Context, c api.Caller, _ *struct{}) ([]User, error) {
	list, err := c.View.Users(ctx, c.Practice)
	users := make([]User, 0, len(list))
	for _, u := range list {
		users = append(users, viewUser(u))
	}
	return users, err
}

func (s *Service) invite(ctx context.Context, c api.Caller, in *inviteInput) (Invitation, error) {
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return Invitation{}, api.Faulty(api.FieldProblem{Field: "name", Say: "Give the person's name."})
	}
	password, hash := OneTimePassword(), ""
	if err := s.Slowly(ctx, true, func() { hash = Hash(password) }); err != nil {
		return Invitation{}, err
	}
	u := store.User{ID: uuid.NewString(), Name: name, Email: strings.TrimSpace(in.Body.Email), Role: in.Body.Role, Hash: hash, MustChange: true, Active: true}
	err := s.Store.AddUser(ctx, c.Actor(), u)
	if errors.Is(err, store.ErrTaken) {
		return Invitation{}, api.Faulty(api.FieldProblem{Field: "email", Say: "This address has a sign-in already. Use another, or reset that one."})
	}
	return Invitation{User: viewUser(u), Password: password}, err
}

func (s *Service) reset(ctx context.Context, c api.Caller, in *userInput) (Invitation, error) {
	u, err := c.View.User(ctx, c.Practice, in.ID)
	if err != nil {
		return Invitation{}, err
	}
	password, hash := OneTimePassword(), ""
	if err := s.Slowly(ctx, true, func() { hash = Hash(password) }); err != nil {
		return Invitation{}, err
	}
	u.MustChange = true
	return Invitation{User: viewUser(u), Password: password}, s.Store.SetPassword(ctx, c.Actor(), u.ID, hash, true)
}

func (s *Service) activate(ctx context.Context, c api.Caller, in *activeInput) (User, error) {
	if err := s.Store.SetActive(ctx, c.Actor(), in.ID, in.Body.Active); err != nil {
		return User{}, err
	}
	u, err := c.View.User(ctx, c.Practice, in.ID)
	return viewUser(u), err
}
