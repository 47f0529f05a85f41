package server

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"

	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

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

func (c caller) me() Me {
	return Me{
		ID: c.ID, Name: c.Name, Email: c.Email, Role: c.Role, MustChange: c.MustChange,
		Practice: c.practice.ID, Named: c.practice.Name, Zone: c.practice.Zone, Today: c.today(), Words: c.practice.Words,
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

func (s *Server) signInOperations() {
	operation(s, anybody, http.MethodGet, "/healthz", "health", "Whether the server and its database answer", s.health)
	operation(s, anybody, http.MethodGet, "/api/sign-in", "greeting", "What the sign-in page offers", s.greeting)
	withCookie(s, anybody, "/api/sign-in", "signIn", "Sign in", s.signIn)
	withCookie(s, anybody, "/api/sign-in/demo", "signInDemo", "Sign in as the demo user, in demo mode only", s.signInDemo)
	withCookie(s, newcomer, "/api/password", "changePassword", "Change your own password; signs out everywhere else", s.changePassword)
	withCookie(s, newcomer, "/api/sign-out", "signOut", "Sign out", s.signOut)
	withCookie(s, newcomer, "/api/sign-out-everywhere", "signOutEverywhere", "Sign out on every device", s.signOutEverywhere)
	operation(s, newcomer, http.MethodGet, "/api/me", "me", "Who is signed in", func(_ context.Context, c caller, _ *struct{}) (Me, error) { return c.me(), nil })
}

// Health is the answer of a server that is well.
type Health struct {
	OK bool `json:"ok"`
}

func (s *Server) health(ctx context.Context, _ caller, _ *struct{}) (Health, error) {
	return Health{OK: true}, s.Store.Ping(ctx)
}

func (s *Server) greeting(ctx context.Context, _ caller, _ *struct{}) (Greeting, error) {
	if s.DemoUser == "" {
		return Greeting{}, nil
	}
	u, err := s.Store.UserByEmail(ctx, s.DemoUser)
	return Greeting{Demo: u.Name}, err
}

// unknownHash is compared with where there is no such user, so that the time
// taken tells nothing.
var unknownHash = Hash(rand.Text())

func (s *Server) signIn(ctx context.Context, c caller, in *signInInput) (signedIn, error) {
	from, _ := ctx.Value(placeKey{}).(string)
	if !s.failures.open(in.Body.Email, from, c.now) {
		return signedIn{}, newProblem(http.StatusTooManyRequests, "Too many wrong passwords from here. Wait half a minute and try again.")
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
	if err := s.slowly(ctx, func() { good = matches(hash, in.Body.Password) }); err != nil {
		return signedIn{}, err
	}
	if !good || !user.Active || user.ID == "" {
		s.failures.failed(in.Body.Email, from, c.now)
		return signedIn{}, newProblem(http.StatusUnauthorized, "Address and password do not fit. Check both, or ask a lead trainer to reset the password.")
	}
	return s.letIn(ctx, c, user, in.Device)
}

func (s *Server) signInDemo(ctx context.Context, c caller, in *demoInput) (signedIn, error) {
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
func (s *Server) letIn(ctx context.Context, c caller, user store.User, device string) (signedIn, error) {
	if old, _ := ctx.Value(tokenKey{}).(string); old != "" {
		if err := s.Store.SignOut(ctx, tokenHash(old)); err != nil {
			return signedIn{}, err
		}
	}
	token := rand.Text() + rand.Text()
	c.User = user
	if err := s.Store.AddSignIn(ctx, c.actor(), tokenHash(token), clip(device, 300), c.now.Add(signInLasts).UnixMilli()); err != nil {
		return signedIn{}, err
	}
	var err error
	c.practice, err = s.Store.Practice(ctx, user.Practice)
	return signedIn{Cookie: s.cookie(token, signInLasts), Body: c.me()}, err
}

func clip(text string, n int) string {
	runes := []rune(text)
	return string(runes[:min(n, len(runes))])
}

func (s *Server) signOut(ctx context.Context, _ caller, _ *struct{}) (signedOut, error) {
	token, _ := ctx.Value(tokenKey{}).(string)
	return signedOut{Cookie: s.cookie("", -1)}, s.Store.SignOut(ctx, tokenHash(token))
}

func (s *Server) signOutEverywhere(ctx context.Context, c caller, _ *struct{}) (signedOut, error) {
	return signedOut{Cookie: s.cookie("", -1)}, s.Store.SignOutEverywhere(ctx, c.actor())
}

func (s *Server) changePassword(ctx context.Context, c caller, in *passwordInput) (signedIn, error) {
	if say := WeakPassword(in.Body.New); say != "" {
		return signedIn{}, faulty(FieldProblem{Field: "new", Say: say})
	}
	user, err := c.view.User(ctx, c.Practice, c.ID)
	if err != nil {
		return signedIn{}, err
	}
	good, hash := false, ""
	if err := s.slowly(ctx, func() {
		if good = matches(user.Hash, in.Body.Old); good {
			hash = Hash(in.Body.New)
		}
	}); err != nil {
		return signedIn{}, err
	}
	if !good {
		return signedIn{}, faulty(FieldProblem{Field: "old", Say: "That is not your password now. Type the one you signed in with."})
	}
	if in.Body.Old == in.Body.New {
		return signedIn{}, faulty(FieldProblem{Field: "new", Say: "That is the password you have. Choose another."})
	}
	if err := s.Store.SetPassword(ctx, c.actor(), c.ID, hash, false); err != nil {
		return signedIn{}, err
	}
	user.MustChange = false
	return s.letIn(ctx, c, user, in.Device)
}
