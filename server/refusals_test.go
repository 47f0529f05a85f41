package server

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/store"
)

// set makes the practice's server anew with another setting.
func (p *practice) set(change func(*Config)) {
	p.t.Helper()
	c := p.Config
	change(&c)
	s, err := New(c)
	require.NoError(p.t, err)
	p.Server = s
}

// gets asks with more said than a browser says.
func (p *practice) gets(method, path string, change func(*http.Request)) answer {
	r := httptest.NewRequest(method, path, nil)
	r.RemoteAddr = p.from
	change(r)
	w := httptest.NewRecorder()
	p.ServeHTTP(w, r)
	return answer{w, p.t}
}

func TestEveryAnswerCarriesTheHeaders(t *testing.T) {
	p := newPractice(t)
	p.set(func(c *Config) { c.PublicAddress = "https://yard.example" })
	at := func(r *http.Request) { r.Host = "yard.example" }
	for name, c := range map[string]struct {
		code int
		a    answer
	}{
		"a page":         {200, p.gets(http.MethodGet, "/horses/abc", at)},
		"not signed in":  {401, p.gets(http.MethodGet, "/api/me", at)},
		"another origin": {403, p.gets(http.MethodPost, "/api/sign-out", func(r *http.Request) { at(r); r.Header.Set("Sec-Fetch-Site", "cross-site") })},
		"another host":   {421, p.gets(http.MethodGet, "/api/me", func(r *http.Request) { r.Host = "elsewhere.example" })},
		"too much":       {431, p.gets(http.MethodGet, "/api/me", func(r *http.Request) { at(r); r.Header.Set("X-Long", strings.Repeat("x", maxHeader)) })},
		"nowhere":        {404, p.gets(http.MethodGet, "/api/nothing", at)},
		"another method": {405, p.gets(http.MethodPatch, "/api/me", at)},
		"a bad address":  {422, p.gets(http.MethodGet, "/api/horses/%00", at)},
		"with a slash":   {404, p.gets(http.MethodGet, "/api/me/", at)},
	} {
		assert.Equal(t, c.code, c.a.Code, "%s: %s", name, c.a.Body)
		assert.Equal(t, policy, c.a.Header().Get("Content-Security-Policy"), name)
		assert.Equal(t, "nosniff", c.a.Header().Get("X-Content-Type-Options"), name)
		if c.code >= 400 {
			assert.NotEmpty(t, c.a.problem().Detail, name)
		}
	}
	p.set(func(c *Config) { c.PublicAddress = "" })
	list := p.doorList()
	assert.Equal(t, []int64{1, 1}, []int64{times(list, store.RefusedOrigin), times(list, store.RefusedHost)})
}

// What is no request, or far too long a one, is answered by the library, with the
// same headers.
func TestTheLibrarysOwnAnswersCarryTheHeaders(t *testing.T) {
	p := newPractice(t)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	web := p.HTTP("")
	go func() { _ = web.Serve(WithHeaders(l)) }() // it ends with the test
	defer func() { assert.NoError(t, web.Close()) }()
	for asked, code := range map[string]int{
		"GARBAGE\r\n\r\n":        http.StatusBadRequest,
		"GET / HTTP/1.1\r\n\r\n": http.StatusBadRequest, // no host
		"GET / HTTP/1.1\r\nHost: x\r\nX: " + strings.Repeat("x", 2*mostHeaders) + "\r\n\r\n": http.StatusRequestHeaderFieldsTooLarge,
		"GET /healthz HTTP/1.1\r\nHost: x\r\n\r\n":                                           http.StatusOK,
	} {
		c, err := net.Dial("tcp", l.Addr().String())
		require.NoError(t, err)
		_, _ = io.WriteString(c, asked) // it may be cut off while it writes
		a, err := http.ReadResponse(bufio.NewReader(c), nil)
		require.NoError(t, err)
		assert.Equal(t, code, a.StatusCode)
		assert.Equal(t, []string{policy, "nosniff"}, []string{a.Header.Get("Content-Security-Policy"), a.Header.Get("X-Content-Type-Options")}, "%d", code)
		require.NoError(t, c.Close())
	}
}

func TestTheHostIsThePublicAddress(t *testing.T) {
	p := newPractice(t)
	for _, c := range []struct {
		public, host, path string
		code               int
	}{
		{"", "anything.example", "/api/sign-in", 200},
		{"https://yard.example", "yard.example", "/api/sign-in", 200},
		{"https://yard.example", "YARD.example:443", "/api/sign-in", 200},
		{"https://yard.example", "yard.example.", "/api/sign-in", 200},
		{"https://yard.example:8443", "yard.example:8443", "/", 200},
		{"https://yard.example:8443", "yard.example", "/", 421},
		{"https://yard.example", "yard.example.evil.example", "/api/sign-in", 421},
		{"https://yard.example", "192.0.2.1", "/", 421},
		{"https://yard.example", "127.0.0.1:8080", "/healthz", 200},
	} {
		p.set(func(cfg *Config) { cfg.PublicAddress = c.public })
		a := p.gets(http.MethodGet, c.path, func(r *http.Request) { r.Host = c.host })
		assert.Equal(t, c.code, a.Code, "%s at %s", c.host, c.public)
		if c.code == 421 {
			assert.Contains(t, a.problem().Detail, "Open "+c.public)
		}
	}
}

// Who asks is told by a proxy that is trusted, in the one header it is set to send.
func TestWhoAsksIsToldByTheProxy(t *testing.T) {
	p := newPractice(t)
	place := func(header string, proxies ...string) string {
		p.set(func(c *Config) { c.ProxyHeader, c.TrustedProxies = header, proxies })
		p.gets(http.MethodPost, "/api/sign-out", func(r *http.Request) {
			r.Header.Set("Sec-Fetch-Site", "cross-site")
			r.Header.Set("X-Real-IP", "203.0.113.1")
			r.Header.Set("X-Forwarded-For", "203.0.113.2")
		})
		list := p.doorList()
		p.now = p.now.Add(2 * time.Minute)
		return list[0].Place
	}
	assert.Equal(t, "192.0.2.7", place(""), "nobody is trusted")
	assert.Equal(t, "192.0.2.7", place("X-Real-IP", "192.0.2.8"), "another is")
	assert.Equal(t, "203.0.113.2", place("", "192.0.2.7"))
	assert.Equal(t, "203.0.113.2", place("X-Forwarded-For", "192.0.2.0/24"))
	assert.Equal(t, "203.0.113.1", place("X-Real-IP", "192.0.2.7"))
	for _, wide := range []string{"0.0.0.0/0", "::/0", "0.0.0.0/7", "2000::/3", "::ffff:0.0.0.0/96"} {
		c := p.Config
		c.TrustedProxies = []string{wide}
		_, err := New(c)
		assert.Error(t, err, wide)
	}
	for _, narrow := range []string{"10.0.0.0/8", "fd00::/32", "127.0.0.1", "::1"} {
		p.set(func(c *Config) { c.TrustedProxies = []string{narrow} })
	}
}

func TestTheManifestHasItsType(t *testing.T) {
	p := newPractice(t)
	p.set(func(c *Config) {
		c.Web = fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}, "manifest.webmanifest": {Data: []byte("{}")}}
	})
	assert.Equal(t, "application/manifest+json", p.ask(http.MethodGet, "/manifest.webmanifest", nil).Header().Get("Content-Type"))
}

// What befalls the place of the database is said on the screen and in the log, and
// the server's health tells it.
func TestWhatBefallsTheServerIsSaid(t *testing.T) {
	for _, c := range []struct {
		err    error
		code   int
		say    string
		logged string
	}{
		{store.ErrFull, 507, "The server's disk is full", "make room on it"},
		{store.ErrReadOnly, 503, "may not write to its folder", "let the server's user write there"},
		{store.ErrGone, 503, "not where it was", "put its folder back"},
		{store.ErrDamaged, 503, "database is damaged", "ivorybridge restore"},
		{store.ErrDisk, 503, "can't be read or written", "look at the disk"},
		{store.ErrBusy, 503, "Something else is writing", "another program holds the database"},
	} {
		p := newPractice(t)
		var log strings.Builder
		p.set(func(cfg *Config) { cfg.Log = logTo(&log) })
		err := p.cases.Problem(context.Background(), fmt.Errorf("keeping entries: %w", c.err))
		assert.Contains(t, err.Error(), c.say)
		assert.Contains(t, log.String(), c.logged)
	}
}

func logTo(w io.Writer) *slog.Logger { return slog.New(slog.NewTextHandler(w, nil)) }
