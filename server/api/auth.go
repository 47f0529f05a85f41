package api

import (
	"context"
	"crypto/sha256"
	"errors"
	"net"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// SignInLasts is how long a sign-in holds.
const SignInLasts = 30 * 24 * time.Hour

// Slowly runs at most two hashes, or pictures unpacked, at once, so that many
// can't fill the memory.
func (s *API) Slowly(ctx context.Context, f func()) error {
	select {
	case s.hashing <- struct{}{}:
		defer func() { <-s.hashing }()
		f()
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

type (
	callerKey struct{}
	tokenKey  struct{}
	placeKey  struct{}
)

// TokenOf is the token that a request came with; empty: none.
func TokenOf(ctx context.Context) string {
	token, _ := ctx.Value(tokenKey{}).(string)
	return token
}

// PlaceOf is the network address that a request came from.
func PlaceOf(ctx context.Context) string {
	place, _ := ctx.Value(placeKey{}).(string)
	return place
}

// cookieName binds the cookie to this host where the connection is secure.
func (s *API) cookieName() string {
	if s.Secure {
		return "__Host-ivorybridge"
	}
	return "ivorybridge"
}

// Cookie carries a token as long as the sign-in lasts.
func (s *API) Cookie(token string, lasts time.Duration) http.Cookie {
	return http.Cookie{
		Name: s.cookieName(), Value: token, Path: "/", HttpOnly: true, Secure: s.Secure,
		SameSite: http.SameSiteLaxMode, MaxAge: int(lasts.Seconds()),
	}
}

// TokenHash is what is kept of a token.
func TokenHash(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

// place is the client's network address, as far as trusted proxies tell.
func place(ctx huma.Context) string {
	ip := humagin.Unwrap(ctx).ClientIP()
	if parsed := net.ParseIP(ip); parsed != nil && parsed.To4() == nil {
		return parsed.Mask(net.CIDRMask(64, 128)).String()
	}
	return ip
}

// Admit lets a request in if its caller may call the operation.
func (s *API) Admit(need Access) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		ctx = huma.WithValue(ctx, placeKey{}, place(ctx))
		c := Caller{Book: phrase.English(phrase.Shipped), Now: s.Now()}
		token := ""
		if cookie, err := huma.ReadCookie(ctx, s.cookieName()); err == nil {
			token = cookie.Value
		}
		ctx = huma.WithValue(ctx, tokenKey{}, token)
		if need != Anybody {
			if err := s.recognise(ctx.Context(), &c, token); err != nil {
				s.refuse(ctx, s.Problem(ctx.Context(), err))
				return
			}
			if err := c.may(need); err != nil {
				s.refuse(ctx, err)
				return
			}
		}
		next(huma.WithValue(ctx, callerKey{}, c))
	}
}

func (s *API) refuse(ctx huma.Context, err error) {
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
		return signedOut
	}
	if err != nil {
		return err
	}
	c.Book, c.View = phrase.English(c.Home.Words), s.Store.View
	return nil
}

func (c Caller) may(need Access) error {
	switch {
	case need > Newcomer && c.MustChange:
		return NewProblem(http.StatusForbidden, "Choose a password of your own first.")
	case need >= Staff && c.Role == store.Owner:
		return NewProblem(http.StatusForbidden, "Owners have no screens here yet. Ask your trainer for the report.")
	case need == LeadsOnly && c.Role != store.Lead:
		return NewProblem(http.StatusForbidden, "Only a lead trainer can do this. Ask one.")
	}
	return nil
}
