package accounts

import (
	"strings"
	"sync"
	"time"

	"golang.org/x/time/rate"
)

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
