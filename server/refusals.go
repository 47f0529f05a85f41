package server

import (
	"cmp"
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"strings"

	"github.com/gin-gonic/gin"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// policy lets the front end run its own files and nothing else.
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' blob: data:; media-src 'self' blob:; " +
	"object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"

// headers are set on every answer, whatever it is.
func (s *Server) headers(h http.Header, r *http.Request) {
	h.Set("Content-Security-Policy", policy)
	h.Set("X-Content-Type-Options", "nosniff")
	if s.Secure {
		h.Set("Strict-Transport-Security", "max-age=31536000")
	}
	if isAsset(strings.TrimPrefix(r.URL.Path, "/")) {
		return // the rest is said of pages, and would only weigh on a weak signal
	}
	h.Set("Referrer-Policy", "same-origin")
	if strings.HasPrefix(r.URL.Path, "/o/") || r.URL.Path == "/o" || strings.HasPrefix(r.URL.Path, "/api/owner") {
		h.Set("Referrer-Policy", "no-referrer") // what a private link opens is nobody else's business
		h.Set("X-Robots-Tag", "noindex, nofollow, noarchive")
	}
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Permissions-Policy", "geolocation=(), microphone=(), camera=()")
	if strings.HasPrefix(r.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
	}
}

// A request's headers have maxHeader bytes at most. The library cuts a connection
// off at mostHeaders, with an answer of its own.
const (
	maxHeader   = 32 << 10
	mostHeaders = 1 << 20
)

func headerSize(r *http.Request) int {
	n := len(r.RequestURI) + len(r.Host)
	for name, values := range r.Header {
		for _, v := range values {
			n += len(name) + len(v) + len(": \r\n")
		}
	}
	return n
}

// The widest nets of proxies that are believed: one that is wider believes
// strangers.
const (
	widest4 = 8
	widest6 = 32
)

// trust lets the engine believe what proxies say of who asks, in one header.
func (s *Server) trust(engine *gin.Engine) error {
	for _, p := range s.TrustedProxies {
		prefix, err := netip.ParsePrefix(p)
		if err != nil {
			continue // an address, or nothing the engine takes
		}
		widest := widest6
		switch {
		case prefix.Addr().Is4():
			widest = widest4
		case prefix.Addr().Is4In6():
			widest = 96 + widest4
		}
		if prefix.Bits() < widest {
			return fmt.Errorf("--trusted-proxies %s believes strangers what they say of where they are: name the proxy's own address", p)
		}
	}
	engine.RemoteIPHeaders = []string{cmp.Or(s.ProxyHeader, "X-Forwarded-For")}
	if err := engine.SetTrustedProxies(s.TrustedProxies); err != nil {
		return fmt.Errorf("reading --trusted-proxies: %w", err)
	}
	return nil
}

// refusals answers what is asked in another's name, or by another's, or at too
// great length, before anybody looks at what it asks.
func (s *Server) refusals() (gin.HandlerFunc, error) {
	origins := http.NewCrossOriginProtection()
	host := ""
	if s.PublicAddress != "" {
		if err := origins.AddTrustedOrigin(s.PublicAddress); err != nil {
			return nil, fmt.Errorf("reading --public-address: %w", err)
		}
		at, err := url.Parse(s.PublicAddress)
		if err != nil {
			return nil, fmt.Errorf("reading --public-address: %w", err)
		}
		host = plainHost(at.Host, at.Scheme)
	}
	return func(g *gin.Context) {
		r := g.Request
		switch {
		case headerSize(r) > maxHeader:
			api.WriteProblem(g, http.StatusRequestHeaderFieldsTooLarge, "The browser sent too much along. Remove this site's cookies and try again.")
		case strings.Contains(r.URL.RawQuery, "%00") || strings.ContainsRune(r.URL.Path, 0):
			api.WriteProblem(g, http.StatusUnprocessableEntity, "This address holds a character that can't be. Go back to the list and choose again.")
		case host != "" && r.URL.Path != "/healthz" && plainHost(r.Host, g.GetHeader("X-Forwarded-Proto")) != host && plainHost(r.Host, "https") != host:
			s.door.Refused(g, store.RefusedHost, r.Host, api.Place(g), r.UserAgent())
			api.WriteProblem(g, http.StatusMisdirectedRequest, "This is not the address of Ivory Bridge. Open "+s.PublicAddress+".")
		case origins.Check(r) != nil:
			s.door.Refused(g, store.RefusedOrigin, r.Header.Get("Origin"), api.Place(g), r.UserAgent())
			api.WriteProblem(g, http.StatusForbidden, "This was asked from another site. Open Ivory Bridge itself and try again.")
		}
	}, nil
}

// plainHost is a host with its port, unless that is the usual one.
func plainHost(host, scheme string) string {
	host = strings.ToLower(strings.TrimSuffix(host, "."))
	name, port, err := net.SplitHostPort(host)
	if err == nil && (scheme == "https" && port == "443" || scheme != "https" && port == "80") {
		return name
	}
	return host
}
