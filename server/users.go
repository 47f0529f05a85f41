package server

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/google/uuid"

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

func (s *Server) userOperations() {
	operation(s, leadsOnly, http.MethodGet, "/api/users", "users", "The practice's sign-ins", s.users)
	operation(s, leadsOnly, http.MethodPost, "/api/users", "invite", "Invite somebody; answers with a one-time password", s.invite)
	operation(s, leadsOnly, http.MethodPost, "/api/users/{id}/reset", "resetUser", "Reset a password; answers with a one-time password", s.reset)
	operation(s, leadsOnly, http.MethodPut, "/api/users/{id}/active", "activateUser", "Let a user in, or keep one out", s.activate)
}

func viewUser(u store.User) User {
	return User{ID: u.ID, Name: u.Name, Email: u.Email, Role: u.Role, Active: u.Active, MustChange: u.MustChange}
}

func (s *Server) users(ctx context.Context, c caller, _ *struct{}) ([]User, error) {
	list, err := c.view.Users(ctx, c.Practice)
	users := make([]User, 0, len(list))
	for _, u := range list {
		users = append(users, viewUser(u))
	}
	return users, err
}

func (s *Server) invite(ctx context.Context, c caller, in *inviteInput) (Invitation, error) {
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return Invitation{}, faulty(FieldProblem{Field: "name", Say: "Give the person's name."})
	}
	password, hash := OneTimePassword(), ""
	if err := s.slowly(ctx, func() { hash = Hash(password) }); err != nil {
		return Invitation{}, err
	}
	u := store.User{ID: uuid.NewString(), Name: name, Email: strings.TrimSpace(in.Body.Email), Role: in.Body.Role, Hash: hash, MustChange: true, Active: true}
	err := s.Store.AddUser(ctx, c.actor(), u)
	if errors.Is(err, store.ErrTaken) {
		return Invitation{}, faulty(FieldProblem{Field: "email", Say: "This address has a sign-in already. Use another, or reset that one."})
	}
	return Invitation{User: viewUser(u), Password: password}, err
}

func (s *Server) reset(ctx context.Context, c caller, in *userInput) (Invitation, error) {
	u, err := c.view.User(ctx, c.Practice, in.ID)
	if err != nil {
		return Invitation{}, err
	}
	password, hash := OneTimePassword(), ""
	if err := s.slowly(ctx, func() { hash = Hash(password) }); err != nil {
		return Invitation{}, err
	}
	u.MustChange = true
	return Invitation{User: viewUser(u), Password: password}, s.Store.SetPassword(ctx, c.actor(), u.ID, hash, true)
}

func (s *Server) activate(ctx context.Context, c caller, in *activeInput) (User, error) {
	if err := s.Store.SetActive(ctx, c.actor(), in.ID, in.Body.Active); err != nil {
		return User{}, err
	}
	u, err := c.view.User(ctx, c.Practice, in.ID)
	return viewUser(u), err
}
