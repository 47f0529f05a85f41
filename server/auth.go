package server

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"golang.org/x/crypto/argon2"
	"golang.org/x/time/rate"

	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// The cost of a password's hash: 19 MiB, two passes.
const (
	hashMemory = 19 << 10 // KiB
	hashTime   = 2
	hashKey    = 32
)

// signInLasts is how long a sign-in holds.
const signInLasts = 30 * 24 * time.Hour

// Hash hashes a password with argon2id and a salt of its own.
func Hash(password string) string {
	salt := make([]byte, 16)
	_, _ = rand.Read(salt) // never fails
	key := argon2.IDKey([]byte(password), salt, hashTime, hashMemory, 1, hashKey)
	enc := base64.RawStdEncoding
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=1$%s$%s", argon2.Version, hashMemory, hashTime, enc.EncodeToString(salt), enc.EncodeToString(key))
}

// matches reports whether a password gives the hash.
func matches(hash, password string) bool {
	parts := strings.Split(hash, "$")
	if len(parts) != 6 {
		return false
	}
	var memory, passes uint32
	var lanes uint8
	if _, err := fmt.Sscanf(parts[3], "m=%d,t=%d,p=%d", &memory, &passes, &lanes); err != nil {
		return false
	}
	salt, errSalt := base64.RawStdEncoding.DecodeString(parts[4])
	want, errKey := base64.RawStdEncoding.DecodeString(parts[5])
	if errSalt != nil || errKey != nil {
		return false
	}
	got := argon2.IDKey([]byte(password), salt, passes, memory, lanes, uint32(len(want)))
	return subtle.ConstantTimeCompare(got, want) == 1
}

// slowly runs at most two hashes, or pictures unpacked, at once, so that many
// can't fill the memory.
func (s *Server) slowly(ctx context.Context, f func()) error {
	select {
	case s.hashing <- struct{}{}:
		defer func() { <-s.hashing }()
		f()
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

// WeakPassword says what is wrong with a new password, or nothing.
func WeakPassword(password string) string {
	switch n := utf8.RuneCountInString(password); {
	case n < 10:
		return "The password is too short. Use 10 characters or more; a few words are good."
	case n > 200:
		return "The password is too long. Use 200 characters or fewer."
	}
	return ""
}

// OneTimePassword makes a password that must be changed at the first sign-in.
func OneTimePassword() string { return strings.ToLower(rand.Text()[:16]) }

// failures limits wrong passwords: by address and place together, so that
// somebody at another place can't lock out the yard; and, widely, by address.
type failures struct {
	mu   sync.Mutex
	seen map[string]*rate.Limiter
}

const maxFailureKeys = 4096

func newFailures() *failures { return &failures{seen: map[string]*rate.Limiter{}} }

func (f *failures) limiter(key string, burst int) *rate.Limiter {
	if l := f.seen[key]; l != nil {
		return l
	}
	if len(f.seen) >= maxFailureKeys {
		f.seen = map[string]*rate.Limiter{}
	}
	l := rate.NewLimiter(rate.Every(30*time.Second), burst)
	f.seen[key] = l
	return l
}

func (f *failures) each(email, place string, do func(*rate.Limiter) bool) bool {
	f.mu.Lock()
	defer f.mu.Unlock()
	email = strings.ToLower(email)
	near, wide := f.limiter(email+"\n"+place, 6), f.limiter(email, 60)
	a, b := do(near), do(wide)
	return a && b
}

// open reports whether another try may be made.
func (f *failures) open(email, place string, now time.Time) bool {
	return f.each(email, place, func(l *rate.Limiter) bool { return l.TokensAt(now) >= 1 })
}

// failed counts a wrong password.
func (f *failures) failed(email, place string, now time.Time) {
	f.each(email, place, func(l *rate.Limiter) bool { return l.AllowN(now, 1) })
}

type (
	callerKey struct{}
	tokenKey  struct{}
	placeKey  struct{}
)

// cookieName binds the cookie to this host where the connection is secure.
func (s *Server) cookieName() string {
	if s.Secure {
		return "__Host-ivorybridge"
	}
	return "ivorybridge"
}

func (s *Server) cookie(token string, lasts time.Duration) http.Cookie {
	return http.Cookie{
		Name: s.cookieName(), Value: token, Path: "/", HttpOnly: true, Secure: s.Secure,
		SameSite: http.SameSiteLaxMode, MaxAge: int(lasts.Seconds()),
	}
}

func tokenHash(token string) []byte {
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

// admit lets a request in if its caller may call the operation.
func (s *Server) admit(need access) func(huma.Context, func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		ctx = huma.WithValue(ctx, placeKey{}, place(ctx))
		c := caller{book: phrase.English(phrase.Shipped), now: s.Now()}
		token := ""
		if cookie, err := huma.ReadCookie(ctx, s.cookieName()); err == nil {
			token = cookie.Value
		}
		ctx = huma.WithValue(ctx, tokenKey{}, token)
		if need != anybody {
			if err := s.recognise(ctx.Context(), &c, token); err != nil {
				s.refuse(ctx, s.problem(ctx.Context(), err))
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

func (s *Server) refuse(ctx huma.Context, err error) {
	p := &Problem{}
	if !errors.As(err, &p) {
		p = newProblem(http.StatusInternalServerError, "Something went wrong on our side. Try again.")
	}
	sendProblem(humagin.Unwrap(ctx).Writer, p)
}

func (s *Server) recognise(ctx context.Context, c *caller, token string) error {
	signedOut := newProblem(http.StatusUnauthorized, "You are not signed in, or not any more. Sign in; what you typed stays.")
	if token == "" {
		return signedOut
	}
	var err error
	c.User, c.practice, err = s.Store.SignedIn(ctx, tokenHash(token), c.now.UnixMilli())
	if errors.Is(err, store.ErrNotFound) {
		return signedOut
	}
	if err != nil {
		return err
	}
	c.book, c.view = phrase.English(c.practice.Words), s.Store.View
	return nil
}

func (c caller) may(need access) error {
	switch {
	case need > newcomer && c.MustChange:
		return newProblem(http.StatusForbidden, "Choose a password of your own first.")
	case need >= staff && c.Role == store.Owner:
		return newProblem(http.StatusForbidden, "Owners have no screens here yet. Ask your trainer for the report.")
	case need == leadsOnly && c.Role != store.Lead:
		return newProblem(http.StatusForbidden, "Only a lead trainer can do this. Ask one.")
	}
	return nil
}
