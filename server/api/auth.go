package api

import (
	"context"
	"crypto/sha256"
	"errors"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// SignInLasts is how long a sign-in holds.
const SignInLasts = 30 * 24 * time.Hour

// Slowly hashes, at most two at once, so that many can't fill the memory. Those who
// are known come first.
func (s *API) Slowly(ctx context.Context, known bool, f func()) error {
	done, err := s.hashing.take(ctx, known)
	if err != nil {
		return err
	}
	defer done()
	f()
	return nil
}

type (
	callerKey struct{}
	tokenKey  struct{}
	deviceKey struct{}
	placeKey  struct{}
)

// TokenOf is the token that a request came with; empty: none.
func TokenOf(ctx context.Context) string {
	token, _ := ctx.Value(tokenKey{}).(string)
	return token
}

// DeviceOf is the mark of a device that has been here before; empty: none.
func DeviceOf(ctx context.Context) string {
	device, _ := ctx.Value(deviceKey{}).(string)
	return device
}

// PlaceOf is the network address that a request came from.
func PlaceOf(ctx context.Context) string {
	place, _ := ctx.Value(placeKey{}).(string)
	return place
}

// The cookies: who is signed in, and which device this is.
const (
	signInCookie = "ivorybridge"
	deviceCookie = "ivorybridge-device"
)

// cookieName binds a cookie to this host where the connection is secure.
func (s *API) cookieName(name string) string {
	if s.Secure {
		return "__Host-" + name
	}
	return name
}

func (s *API) cookie(name, value string, lasts time.Duration) http.Cookie {
	c := http.Cookie{
		Name: s.cookieName(name), Value: value, Path: "/", HttpOnly: true, Secure: s.Secure,
		SameSite: http.SameSiteLaxMode, MaxAge: int(lasts.Seconds()),
	}
	if value == "" {
		c.MaxAge = -1 // it ends now
	}
	return c
}

// Cookie carries a token as long as the sign-in lasts; an empty one ends it.
func (s *API) Cookie(token string) http.Cookie { return s.cookie(signInCookie, token, SignInLasts) }

// DeviceCookie marks a device that somebody signed in on. It opens nothing.
func (s *API) DeviceCookie(device string) http.Cookie {
	return s.cookie(deviceCookie, device, 3*SignInLasts)
}

// TokenHash is what is kept of a token.
func TokenHash(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

// Place is the client's network address, as far as trusted proxies tell.
func Place(g *gin.Context) string {
	ip := g.ClientIP()
	if parsed := net.ParseIP(ip); parsed != nil && parsed.To4() == nil {
		return parsed.Mask(net.CIDRMask(64, 128)).String()
	}
	return ip
}

// Admit lets a request in if its caller may call the operation.
func (s *API) Admit(need Access) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		ctx = huma.WithValue(ctx, placeKey{}, Place(humagin.Unwrap(ctx)))
		c := Caller{Book: phrase.English(phrase.Shipped), Now: s.Now()}
		token := s.read(ctx, signInCookie)
		ctx = huma.WithValue(ctx, tokenKey{}, token)
		ctx = huma.WithValue(ctx, deviceKey{}, s.read(ctx, deviceCookie))
		if need == OwnersSide {
			if err := s.guest(ctx.Context(), &c, ctx.Header("Authorization")); err != nil {
				s.Refuse(ctx, s.Problem(ctx.Context(), err))
				return
			}
		} else if need != Anybody {
			if err := s.recognise(ctx.Context(), &c, token); err != nil {
				s.Refuse(ctx, s.Problem(ctx.Context(), err))
				return
			}
			if err := c.may(need); err != nil {
				s.Refuse(ctx, err)
				return
			}
			if err := c.atYard(ctx); err != nil {
				s.Refuse(ctx, s.Problem(ctx.Context(), err))
				return
			}
		}
		next(huma.WithValue(ctx, callerKey{}, c))
	}
}

// NoLink is the answer to every link that opens nothing: whether there never was one,
// it ended, or it was switched off, is told to nobody.
func NoLink() error {
	return NewProblem(http.StatusNotFound, "This link does not open. It may have ended or been switched off. Ring your trainer for a new one.")
}

// guest finds what a private link opens, and in which practice; or whose account it
// is that an owner signed in with.
func (s *API) guest(ctx context.Context, c *Caller, header string) error {
	token, brought := strings.CutPrefix(header, "Bearer ")
	if !brought {
		err := s.recognise(ctx, c, TokenOf(ctx))
		if err != nil || c.Person == "" {
			return NoLink()
		}
		c.Linked = store.Link{Person: c.Person}
		return nil
	}
	link, home, err := s.Opens(ctx, token, PlaceOf(ctx), c.Now)
	if err != nil {
		return err
	}
	c.Linked, c.Home, c.Practice = link, home, home.ID
	c.Book, c.View = phrase.English(home.Words), s.Store.View
	return nil
}

// read is the value of a cookie; empty: there is none.
func (s *API) read(ctx huma.Context, name string) string {
	cookie, err := huma.ReadCookie(ctx, s.cookieName(name))
	if err != nil {
		return ""
	}
	return cookie.Value
}

// Refuse answers a request with a problem before its operation is run.
func (s *API) Refuse(ctx huma.Context, err error) {
	p := &Problem{}
	if !errors.As(err, &p) {
		p = NewProblem(http.StatusInternalServerError, "Something went wrong on our side. Try again.")
	}
	SendProblem(humagin.Unwrap(ctx).Writer, p)
}

func (s *API) recognise(ctx context.Context, c *Caller, token string) error {
	signedOut := NewProblem(http.StatusUnauthorized, "You are not signed in, or not any more. Sign in; what you typed stays.")
	if token == "" {
		return signedOut
	}
	var err error
	c.User, c.Home, err = s.Store.SignedIn(ctx, TokenHash(token), c.Now.UnixMilli())
	if errors.Is(err, store.ErrNotFound) {
		ran, err := s.Store.RanOut(ctx, TokenHash(token), c.Now.UnixMilli())
		signedOut.Ended = err == nil && !ran
		return signedOut
	}
	if err != nil {
		return err
	}
	c.Book, c.View = phrase.English(c.Home.Words), s.Store.View
	return nil
}

// spoken is a day without its year.
func spoken(day string) string {
	at, err := time.Parse(time.DateOnly, day)
	if err != nil {
		return day
	}
	return at.Format("2 January")
}

// atYard answers a helper for what is of another yard as if it were not there: every
// path that names a horse, a case or a session is looked at here.
func (c Caller) atYard(ctx huma.Context) error {
	id := ctx.Param("id")
	if c.Role != store.Helper || id == "" {
		return nil
	}
	kind, _, _ := strings.Cut(strings.TrimPrefix(ctx.Operation().Path, "/api/"), "/")
	yard, err := c.View.YardOf(ctx.Context(), c.Practice, kind, id)
	if err == nil && yard != c.Yard {
		return store.ErrNotFound
	}
	return err
}

func (c Caller) may(need Access) error {
	switch {
	case need > Newcomer && c.MustChange:
		return NewProblem(http.StatusForbidden, "Choose a password of your own first.")
	case need >= Helpers && c.Role == store.Owner && c.Day != "":
		return NewProblem(http.StatusForbidden, "You help on one day only, "+spoken(c.Day)+". Ask the lead trainer for another.")
	case need >= Helpers && c.Role == store.Owner:
		return NewProblem(http.StatusForbidden, "This is the trainers' side. Your horses are on the owner's page.")
	case need >= Staff && c.Role == store.Helper:
		return NewProblem(http.StatusForbidden, "A helper logs, and sees no more than that takes. Ask the trainer.")
	case need == LeadsOnly && c.Role != store.Lead:
		return NewProblem(http.StatusForbidden, "Only a lead trainer can do this. Ask one.")
	}
	return nil
}
