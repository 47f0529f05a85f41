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
	"ivorybridge/store"
)

// Service answers for those who sign in.
type Service struct {
	*api.API
	Config
	failures *failures
}

// Config is what signing in needs to know.
type Config struct {
	DemoUser      string // address of the user that the sign-in page offers by one button
	PublicAddress string // where browsers reach the product; empty: the request's own host
	Version       string
}

// New registers what can be asked by and of those who sign in.
func New(a *api.API, c Config) *Service {
	s := &Service{API: a, Config: c, failures: newFailures()}
	s.signInOperations()
	s.userOperations()
	return s
}

// Me is the signed-in user with the practice's words.
type Me struct {
	ID         string       `json:"id"`
	Name       string       `json:"name"`
	Email      string       `json:"email"`
	Role       store.Role   `json:"role" enum:"lead trainer,assistant,owner"`
	MustChange bool         `json:"must_change" doc:"the password was set by somebody else and must be changed first"`
	Practice   string       `json:"practice" doc:"id of the practice"`
	Named      string       `json:"practice_name"`
	Zone       string       `json:"zone" doc:"the practice's time zone, IANA"`
	Today      string       `json:"today" format:"date"`
	Words      phrase.Words `json:"words"`
}

func me(c api.Caller) Me {
	return Me{
		ID: c.ID, Name: c.Name, Email: c.Email, Role: c.Role, MustChange: c.MustChange,
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
	Cookie http.Cookie `header:"Set-Cookie"`
	Body   Me
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

func (s *Service) health(ctx context.Context, _ api.Caller, _ *struct{}) (Health, error) {
	return Health{OK: true}, s.Store.Ping(ctx)
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
	from := api.PlaceOf(ctx)
	if !s.failures.open(in.Body.Email, from, c.Now) {
		return signedIn{}, api.NewProblem(http.StatusTooManyRequests, "Too many wrong passwords from here. Wait half a minute and try again.")
	}
	user, err := s.Store.UserByEmail(ctx, in.Body.Email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return signedIn{}, err
	}
	hash := user.Hash
	if hash == "" {
		hash = unknownHash
	}
	good := false
	if err := s.Slowly(ctx, func() { good = matches(hash, in.Body.Password) }); err != nil {
		return signedIn{}, err
	}
	if !good || !user.Active || user.ID == "" {
		s.failures.failed(in.Body.Email, from, c.Now)
		return signedIn{}, api.NewProblem(http.StatusUnauthorized, "Address and password do not fit. Check both, or ask a lead trainer to reset the password.")
	}
	return s.letIn(ctx, c, user, in.Device)
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

// letIn makes a new token and ends the one that the browser brought.
func (s *Service) letIn(ctx context.Context, c api.Caller, user store.User, device string) (signedIn, error) {
	if old := api.TokenOf(ctx); old != "" {
		if err := s.Store.SignOut(ctx, api.TokenHash(old)); err != nil {
			return signedIn{}, err
		}
	}
	token := rand.Text() + rand.Text()
	c.User = user
	if err := s.Store.AddSignIn(ctx, c.Actor(), api.TokenHash(token), clip(device, 300), c.Now.Add(api.SignInLasts).UnixMilli()); err != nil {
		return signedIn{}, err
	}
	var err error
	c.Home, err = s.Store.Practice(ctx, user.Practice)
	return signedIn{Cookie: s.Cookie(token, api.SignInLasts), Body: me(c)}, err
}

func clip(text string, n int) string {
	runes := []rune(text)
	return string(runes[:min(n, len(runes))])
}

func (s *Service) signOut(ctx context.Context, _ api.Caller, _ *struct{}) (signedOut, error) {
	token := api.TokenOf(ctx)
	return signedOut{Cookie: s.Cookie("", -1)}, s.Store.SignOut(ctx, api.TokenHash(token))
}

func (s *Service) signOutEverywhere(ctx context.Context, c api.Caller, _ *struct{}) (signedOut, error) {
	return signedOut{Cookie: s.Cookie("", -1)}, s.Store.SignOutEverywhere(ctx, c.Actor())
}

func (s *Service) changePassword(ctx context.Context, c api.Caller, in *passwordInput) (signedIn, error) {
	if say := WeakPassword(in.Body.New); say != "" {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "new", Say: say})
	}
	user, err := c.View.User(ctx, c.Practice, c.ID)
	if err != nil {
		return signedIn{}, err
	}
	good, hash := false, ""
	if err := s.Slowly(ctx, func() {
		if good = matches(user.Hash, in.Body.Old); good {
			hash = Hash(in.Body.New)
		}
	}); err != nil {
		return signedIn{}, err
	}
	if !good {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "old", Say: "That is not your password now. Type the one you signed in with."})
	}
	if in.Body.Old == in.Body.New {
		return signedIn{}, api.Faulty(api.FieldProblem{Field: "new", Say: "That is the password you have. Choose another."})
	}
	if err := s.Store.SetPassword(ctx, c.Actor(), c.ID, hash, false); err != nil {
		return signedIn{}, err
	}
	user.MustChange = false
	return s.letIn(ctx, c, user, in.Device)
}
