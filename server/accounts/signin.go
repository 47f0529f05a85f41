// Package accounts answers for users: signing in and out, passwords, and who may
// use the practice.
package accounts

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// Service answers for those who sign in.
type Service struct {
	*api.API
	Config
	limits *limits.Limits
	ledger *ledger
}

// Config is what signing in needs to know.
type Config struct {
	DemoUser      string // address of the user that the sign-in page offers by one button
	PublicAddress string // where browsers reach the product; empty: the request's own host
	Version       string
}

// New registers what can be asked by and of those who sign in.
func New(a *api.API, c Config) *Service {
	s := &Service{API: a, Config: c, limits: limits.New(a.Store), ledger: &ledger{store: a.Store}}
	s.signInOperations()
	s.doorOperations()
	s.userOperations()
	s.invitationOperations()
	return s
}

// Me is the signed-in user with the practice's words.
type Me struct {
	ID         string       `json:"id"`
	Name       string       `json:"name"`
	Email      string       `json:"email"`
	Role       store.Role   `json:"role" enum:"lead trainer,assistant,helper,owner"`
	Person     bool         `json:"person,omitempty" doc:"an owner's own account: there is an owner's page for it"`
	Day        string       `json:"day,omitempty" format:"date" doc:"of a helper, the one day"`
	MustChange bool         `json:"must_change" doc:"the password was set by somebody else and must be changed first"`
	Practice   string       `json:"practice" doc:"id of the practice"`
	Named      string       `json:"practice_name"`
	Zone       string       `json:"zone" doc:"the practice's time zone, IANA"`
	Today      string       `json:"today" format:"date"`
	Words      phrase.Words `json:"words"`
}

func me(c api.Caller) Me {
	return Me{
		ID: c.ID, Name: c.Name, Email: c.Email, Role: c.Role, MustChange: c.MustChange, Person: c.Person != "", Day: c.Day,
		Practice: c.Home.ID, Named: c.Home.Name, Zone: c.Home.Zone, Today: c.Today(), Words: c.Home.Words,
	}
}

// Greeting is what the sign-in page offers.
type Greeting struct {
	Demo string `json:"demo,omitempty" doc:"name of the demo user that one button signs in"`
}

type signInInput struct {
	Device string `header:"User-Agent"`
	Body   struct {
		Email    string `json:"email" minLength:"1" maxLength:"254"`
		Password string `json:"password" minLength:"1" maxLength:"200"`
	}
}

type demoInput struct {
	Device string `header:"User-Agent"`
}

type passwordInput struct {
	Device string `header:"User-Agent"`
	Body   struct {
		Old string `json:"old" maxLength:"200"`
		New string `json:"new" maxLength:"200"`
	}
}

type signedIn struct {
	Cookies []http.Cookie `header:"Set-Cookie"`
	Body    Me
}

type signedOut struct {
	Cookie http.Cookie `header:"Set-Cookie"`
}

func (s *Service) signInOperations() {
	api.Operation(s.API, api.Anybody, http.MethodGet, "/healthz", "health", "Whether the server and its database answer", s.health)
	api.Operation(s.API, api.Anybody, http.MethodGet, "/api/sign-in", "greeting", "What the sign-in page offers", s.greeting)
	api.WithCookie(s.API, api.Anybody, "/api/sign-in", "signIn", "Sign in", s.signIn)
	api.WithCookie(s.API, api.Anybody, "/api/sign-in/demo", "signInDemo", "Sign in as the demo user, in demo mode only", s.signInDemo)
	api.WithCookie(s.API, api.Newcomer, "/api/password", "changePassword", "Change your own password; signs out everywhere else", s.changePassword)
	api.WithCookie(s.API, api.Newcomer, "/api/sign-out", "signOut", "Sign out", s.signOut)
	api.WithCookie(s.API, api.Newcomer, "/api/sign-out-everywhere", "signOutEverywhere", "Sign out on every device", s.signOutEverywhere)
	api.Operation(s.API, api.Newcomer, http.MethodGet, "/api/me", "me", "Who is signed in", func(_ context.Context, c api.Caller, _ *struct{}) (Me, error) { return me(c), nil })
}

// Health is the answer of a server that is well.
type Health struct {
	OK bool `json:"ok"`
}

func (s *Service) health(ctx context.Context, c api.Caller, _ *struct{}) (Health, error) {
	return Health{OK: true}, s.Store.Health(ctx, c.Now)
}

func (s *Service) greeting(ctx context.Context, _ api.Caller, _ *struct{}) (Greeting, error) {
	if s.DemoUser == "" {
		return Greeting{}, nil
	}
	u, err := s.Store.UserByEmail(ctx, s.DemoUser)
	return Greeting{Demo: u.Name}, err
}

// unknownHash is compared with where there is no such user, so that the time
// taken tells nothing.
var unknownHash = Hash(rand.Text())

func (s *Service) signIn(ctx context.Context, c api.Caller, in *signInInput) (signedIn, error) {
	k := knock{email: in.Body.Email, place: api.PlaceOf(ctx), device: api.DeviceOf(ctx)}
	var err error
	if k.user, err = s.Store.UserByEmail(ctx, in.Body.Email); err != nil && !errors.Is(err, store.ErrNotFound) {
		return signedIn{}, err
	}
	if k.familiar, err = s.Store.Familiar(ctx, k.user.Practice, k.user.ID, c.Now.UnixMilli(), k.marks()...); err != nil {
		return signedIn{}, err
	}
	counted, wait, err := s.admit(ctx, c.Now, k)
	if err != nil {
		return signedIn{}, err
	}
	if wait > 0 {
		s.atDoor(ctx, k.atDoor(store.HeldOff, c, in.Device))
		return signedIn{}, heldOff(wait, k.familiar == nil)
	}
	hash := k.user.Hash
	if hash == "" {
		hash = unknownHash
	}
	good := false
	if err := s.Slowly(ctx, k.familiar != nil, func() { good = matches(hash, in.Body.Password) }); err != nil {
		return signedIn{}, err
	}
	if !good || !k.user.Active || k.user.ID == "" {
		what := store.WrongPassword
		if good && k.user.ID != "" {
			what = store.KeptOut
		}
		s.atDoor(ctx, k.atDoor(what, c, in.Device))
		return signedIn{}, api.NewProblem(http.StatusUnauthorized, "Address and password do not fit. Check both, or ask a lead trainer to reset the password.")
	}
	if err := s.limits.GiveBack(ctx, c.Now, counted...); err != nil {
		return signedIn{}, err
	}
	if k.user.RunsOut > 0 && c.Now.UnixMilli() >= k.user.RunsOut {
		s.atDoor(ctx, k.atDoor(store.KeptOut, c, in.Device))
		return signedIn{}, api.NewProblem(http.StatusUnauthorized, "This one-time password has run out. Ask a lead trainer for another.")
	}
	return s.letIn(ctx, c, k.user, in.Device)
}

func (s *Service) signInDemo(ctx context.Context, c api.Caller, in *demoInput) (signedIn, error) {
	if s.DemoUser == "" {
		return signedIn{}, store.ErrNotFound
	}
	user, err := s.Store.UserByEmail(ctx, s.DemoUser)
	if err != nil {
		return signedIn{}, err
	}
	return s.letIn(ctx, c, user, in.Device)
}

// letIn makes a new token and ends the one that the browser brought. The device
// and the place are familiar from here on.
func (s *Service) letIn(ctx context.Context, c api.Caller, user store.User, device string) (signedIn, error) {
	if old := api.TokenOf(ctx); old != "" {
		if err := s.Store.SignOut(ctx, api.TokenHash(old)); err != nil {
			return signedIn{}, err
		}
	}
	token := rand.Text() + rand.Text()
	c.User = user
	k := knock{email: user.Email, place: api.PlaceOf(ctx), device: api.DeviceOf(ctx), user: user}
	if k.device == "" || len(k.device) > 60 {
		k.device = rand.Text()
	}
	if err := s.Store.AddSignIn(ctx, c.Actor(), api.TokenHash(token), api.Clip(device, 300), api.Clip(k.place, 60), c.Now.Add(api.SignInLasts).UnixMilli(), k.marks()...); err != nil {
		return signedIn{}, err
	}
	s.atDoor(ctx, k.atDoor(store.SignedInAtDoor, c, device))
	var err error
	c.User, c.Home, err = s.Store.SignedIn(ctx, api.TokenHash(token), c.Now.UnixMilli())
	return signedIn{Cookies: []http.Cookie{s.Cookie(token), s.DeviceCookie(k.device)}, Body: me(c)}, err
}

func (s *Service) signOut(ctx context.Context, _ api.Caller, _ *struct{}) (signedOut, error) {
	token := api.TokenOf(ctx)
	return signedOut{Cookie: s.Cookie("")}, s.Store.SignOut(ctx, api.TokenHash(token))
}

func (s *Service) signOutEverywhere(ctx context.Context, c api.Caller, _ *struct{}) (signedOut, error) {
	if err := s.Store.SignOutEverywhere(ctx, c.Actor()); err != nil {
		return signedOut{}, err
	}
	s.atDoor(ctx, s.knockOf(ctx, c).atDoor(store.EverywhereSignedOut, c, ""))
	return signedOut{Cookie: s.Cookie("")}, nil
}

// knockOf is somebody who is signed in.
func (s *Service) knockOf(ctx context.Context, c api.Caller) knock {
	return knock{email: c.Email, place: api.PlaceOf(ctx), device: api.DeviceOf(ctx), user: c.User}
}

func (s *Service) changePassword(ctx context.Context, c api.Caller, in *passwordInput) (signedIn, error) {
	if say := WeakPassword(in.Body.New, c.Name, c.Email, c.Home.Name); say != "" {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "new", Say: say})
	}
	user, err := c.View.User(ctx, c.Practice, c.ID)
	if err != nil {
		return signedIn{}, err
	}
	k, counted := s.knockOf(ctx, c), near.Of("change", c.ID)
	wait, err := s.limits.Take(ctx, c.Now, counted)
	if err != nil {
		return signedIn{}, err
	}
	if wait > 0 {
		s.atDoor(ctx, k.atDoor(store.HeldOff, c, in.Device))
		return signedIn{}, heldOff(wait, false)
	}
	good, hash := false, ""
	if err := s.Slowly(ctx, true, func() {
		if good = matches(user.Hash, in.Body.Old); good {
			hash = Hash(in.Body.New)
		}
	}); err != nil {
		return signedIn{}, err
	}
	if !good {
		s.atDoor(ctx, k.atDoor(store.WrongPassword, c, in.Device))
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "old", Say: "That is not your password now. Type the one you signed in with."})
	}
	if err := s.limits.GiveBack(ctx, c.Now, counted); err != nil {
		return signedIn{}, err
	}
	if in.Body.Old == in.Body.New {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "new", Say: "That is the password you have. Choose another."})
	}
	if err := s.Store.SetPassword(ctx, c.Actor(), c.ID, hash, false); err != nil {
		return signedIn{}, err
	}
	s.atDoor(ctx, k.atDoor(store.PasswordChanged, c, in.Device))
	user.MustChange = false
	return s.letIn(ctx, c, user, in.Device)
}
