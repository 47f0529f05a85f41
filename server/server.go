// Package server carries the product over HTTP: sign-in, roles, the typed
// operations of the API, and the front end. It translates between what was
// asked and what the rules and the store answer, and decides nothing of the
// job itself. Each subject has a package below this one; here they are joined.
package server

import (
	"cmp"
	"io/fs"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"ivorybridge/core/catalog"
	"ivorybridge/server/accounts"
	"ivorybridge/server/api"
	"ivorybridge/server/assessments"
	"ivorybridge/server/cases"
	"ivorybridge/server/clips"
	"ivorybridge/server/horses"
	"ivorybridge/server/house"
	"ivorybridge/server/letters"
	"ivorybridge/server/methods"
	"ivorybridge/server/outings"
	"ivorybridge/server/owners"
	"ivorybridge/server/people"
	"ivorybridge/server/plans"
	"ivorybridge/server/reports"
	"ivorybridge/server/sessions"
	"ivorybridge/server/visits"
	"ivorybridge/store"
)

// Config is what a server is made of.
type Config struct {
	Store   *store.Store
	Catalog *catalog.Catalog
	Web     fs.FS            // the built front end, index.html at its root
	Now     func() time.Time // the clock
	Log     *slog.Logger
	Version string // of the build: what one build folded, another folds anew

	Secure         bool     // cookies only over TLS
	TrustedProxies []string // addresses whose forwarding header is believed
	ProxyHeader    string   // the header in which they tell who asks; empty: X-Forwarded-For
	PublicAddress  string   // where browsers reach the product, https://…; empty: any host
	DemoUser       string   // address of the user that the sign-in page offers by one button
	PhotographRoom int64    // for a practice's photographs, in bytes; 0: RoomForPhotographs

	ClipRoom int64 // for a practice's clips, in bytes; 0: clips.RoomForClips

	Letters letters.Config // of an evening, by mail
	House   house.Config   // copies, each night
}

// RoomForPhotographs is the room that the photographs of a practice have, in bytes,
// where nothing else is said: some three thousand pictures.
const RoomForPhotographs = 2 << 30

// Server answers requests.
type Server struct {
	Config
	handler http.Handler
	door    *accounts.Service
	cases   *cases.Reader
	horses  *horses.Service
	letters *letters.Service
	clips   *clips.Service
	house   *house.Service
}

// New builds the server and all its operations.
func New(c Config) (*Server, error) {
	s := &Server{Config: c}
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	if err := s.trust(engine); err != nil {
		return nil, err
	}
	refuses, err := s.refusals()
	if err != nil {
		return nil, err
	}
	engine.HandleMethodNotAllowed, engine.RedirectTrailingSlash = true, false
	engine.Use(s.logging, s.recovery, refuses, gzip.Gzip(gzip.DefaultCompression, gzip.WithCustomShouldCompressFn(compresses)))
	engine.NoMethod(func(g *gin.Context) { api.WriteProblem(g, http.StatusMethodNotAllowed, "That can't be done here.") })
	a := api.New(engine, c.Version, api.API{Store: c.Store, Now: c.Now, Log: c.Log, Secure: c.Secure})
	s.cases = cases.NewReader(a, c.Catalog, c.Version)
	if err := s.register(a); err != nil {
		return nil, err
	}
	a.Strictly()
	engine.NoRoute(s.files())
	s.handler = http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		s.headers(w.Header(), r)
		engine.ServeHTTP(w, r)
	})
	return s, nil
}

// compresses reports whether an answer is compressed as it is sent: those of the
// API, but for the caseload, which is kept compressed, and for films and archives, coming and going. The
// front end's files were compressed when they were built.
func compresses(g *gin.Context) bool {
	at := g.Request.URL.Path
	return strings.HasPrefix(at, "/api/") && at != "/api/caseload" && !strings.HasSuffix(at, "/film") && !strings.HasSuffix(at, "/archive") && !strings.Contains(at, "/arriving") && strings.Contains(g.GetHeader("Accept-Encoding"), "gzip")
}

// ServeHTTP answers one request.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.handler.ServeHTTP(w, r) }

// HTTP returns a server for an address, with limits on size and time.
func (s *Server) HTTP(address string) *http.Server {
	return &http.Server{
		Addr: address, Handler: s, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 30 * time.Second,
		WriteTimeout: 60 * time.Second, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: mostHeaders,
		ErrorLog: slog.NewLogLogger(s.Log.Handler(), slog.LevelWarn),
	}
}

// OpenAPI is the description of all operations, as JSON.
func (s *Server) OpenAPI() ([]byte, error) { return s.cases.Huma.OpenAPI().MarshalJSON() }

// register lets each subject say what can be asked of it.
func (s *Server) register(a *api.API) (err error) {
	s.door = accounts.New(a, accounts.Config{DemoUser: s.DemoUser, PublicAddress: s.PublicAddress, Version: s.Version})
	people.New(a)
	running := sessions.New(s.cases)
	s.horses = horses.New(s.cases, cmp.Or(s.PhotographRoom, RoomForPhotographs), running.Forget)
	assessments.New(s.cases, running.Forget)
	plans.New(s.cases)
	methods.New(s.cases)
	reports.New(s.cases)
	owners.New(s.cases)
	diary := visits.New(s.cases)
	s.letters = letters.New(a, diary, s.Letters)
	outings.New(s.cases)
	s.house = house.New(s.cases, s.House, running.Forget)
	s.clips, err = clips.New(s.cases, cmp.Or(s.ClipRoom, clips.RoomForClips), running.Forget)
	return err
}
