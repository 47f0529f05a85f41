// Package server carries the product over HTTP: sign-in, roles, the typed
// operations of the API, and the front end. It translates between what was
// asked and what the rules and the store answer, and decides nothing of the
// job itself.
package server

import (
	"context"
	"io/fs"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"ivorybridge/core/catalog"
	"ivorybridge/core/phrase"
	"ivorybridge/store"
)

// Config is what a server is made of.
type Config struct {
	Store   *store.Store
	Catalog *catalog.Catalog
	Web     fs.FS            // the built front end, index.html at its root
	Now     func() time.Time // the clock
	Log     *slog.Logger
	Version string

	Secure         bool     // cookies only over TLS
	TrustedProxies []string // addresses whose forwarding headers are believed
	PublicAddress  string   // where browsers reach the product, https://…; empty: the request's own host
	DemoUser       string   // address of the user that the sign-in page offers by one button
}

// Server answers requests.
type Server struct {
	Config
	api       huma.API
	handler   http.Handler
	arenas    *arenas
	caseloads *caseloads
	failures  *failures
	hashing   chan struct{}
}

// maxBody is the largest request body in bytes, and maxHeader that of headers.
const (
	maxBody   = 256 << 10
	maxHeader = 32 << 10
)

// New builds the server and all its operations.
func New(c Config) (*Server, error) {
	s := &Server{Config: c, arenas: newArenas(), caseloads: newCaseloads(), failures: newFailures(), hashing: make(chan struct{}, 2)}
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	if err := engine.SetTrustedProxies(c.TrustedProxies); err != nil {
		return nil, err
	}
	engine.HandleMethodNotAllowed = true
	engine.Use(s.logging, s.recovery, s.headers, gzip.Gzip(gzip.DefaultCompression, gzip.WithCustomShouldCompressFn(compresses)))
	engine.NoMethod(func(g *gin.Context) { writeProblem(g, http.StatusMethodNotAllowed, "That can't be done here.") })
	speakPlainly()
	s.api = humagin.New(engine, apiConfig(c.Version))
	s.register()
	engine.NoRoute(s.files())
	protected := http.NewCrossOriginProtection()
	if c.PublicAddress != "" {
		if err := protected.AddTrustedOrigin(c.PublicAddress); err != nil {
			return nil, err
		}
	}
	protected.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		sendProblem(w, newProblem(http.StatusForbidden, "This was asked from another site. Open Ivory Bridge itself and try again."))
	}))
	s.handler = protected.Handler(engine)
	return s, nil
}

// compresses reports whether an answer is compressed as it is sent: those of the
// API, but for the caseload, which is kept compressed. The front end's files were
// compressed when they were built.
func compresses(g *gin.Context) bool {
	at := g.Request.URL.Path
	return strings.HasPrefix(at, "/api/") && at != "/api/caseload" && strings.Contains(g.GetHeader("Accept-Encoding"), "gzip")
}

// ServeHTTP answers one request.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.handler.ServeHTTP(w, r) }

// HTTP returns a server for an address, with limits on size and time.
func (s *Server) HTTP(address string) *http.Server {
	return &http.Server{
		Addr: address, Handler: s, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 30 * time.Second,
		WriteTimeout: 60 * time.Second, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: maxHeader,
		ErrorLog: slog.NewLogLogger(s.Log.Handler(), slog.LevelWarn),
	}
}

// OpenAPI is the description of all operations, as JSON.
func (s *Server) OpenAPI() ([]byte, error) { return s.api.OpenAPI().MarshalJSON() }

func (s *Server) register() {
	s.signInOperations()
	s.userOperations()
	s.peopleOperations()
	s.horseOperations()
	s.assessmentOperations()
	s.planOperations()
	s.methodOperations()
	s.handbookOperations()
	s.clearanceOperations()
	s.sessionOperations()
	s.reportOperations()
	s.letterOperations()
	s.photographOperations()
}

// access says who may call an operation.
type access int

const (
	anybody   access = iota // no sign-in
	newcomer                // signed in, perhaps with a password that must be changed
	staff                   // lead trainers and assistants
	leadsOnly               // lead trainers
)

// caller is who called, in which practice, and when.
type caller struct {
	store.User
	practice store.Practice
	book     phrase.Book
	now      time.Time
	view     store.View // what is kept; within one answer a snapshot
}

func (c caller) actor() store.Actor {
	return store.Actor{Practice: c.Practice, User: c.ID, At: c.now.UnixMilli()}
}

// today is the practice's date, YYYY-MM-DD.
func (c caller) today() string {
	zone, err := time.LoadLocation(c.practice.Zone)
	if err != nil {
		zone = time.UTC
	}
	return c.now.In(zone).Format(time.DateOnly)
}

type output[O any] struct{ Body O }

// operation registers one typed operation. What it answers is said in the
// practice's words; what it fails with becomes a problem.
func operation[I, O any](s *Server, need access, method, path, id, summary string, run func(context.Context, caller, *I) (O, error)) {
	handle(s, s.describe(need, method, path, id, summary), run)
}

// atOneMoment gives the caller a view of all as it is at one moment.
func (c caller) atOneMoment(ctx context.Context, f func(caller) error) error {
	return c.view.Snapshot(ctx, func(v store.View) error {
		c.view = v
		return f(c)
	})
}

// atOnce lets an operation read all that makes its answer as it was at one
// moment. It may not wait for a session's lock.
func atOnce[I, O any](run func(context.Context, caller, *I) (O, error)) func(context.Context, caller, *I) (O, error) {
	return func(ctx context.Context, c caller, in *I) (out O, err error) {
		err = c.atOneMoment(ctx, func(c caller) error {
			out, err = run(ctx, c, in)
			return err
		})
		return out, err
	}
}

// describe is an operation as it is told to the library and in the API's
// description.
func (s *Server) describe(need access, method, path, id, summary string) huma.Operation {
	return huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: maxBody,
		Middlewares: huma.Middlewares{s.admit(need)}, Errors: []int{http.StatusUnauthorized, http.StatusUnprocessableEntity},
	}
}

func handle[I, O any](s *Server, op huma.Operation, run func(context.Context, caller, *I) (O, error)) {
	huma.Register(s.api, op, func(ctx context.Context, in *I) (*output[O], error) {
		c, _ := ctx.Value(callerKey{}).(caller)
		out, err := run(ctx, c, in)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		c.book.Tell(&out)
		return &output[O]{Body: out}, nil
	})
}

// withCookie registers an operation that answers with a cookie as well.
func withCookie[I, O any](s *Server, need access, path, id, summary string, run func(context.Context, caller, *I) (O, error)) {
	huma.Register(s.api, s.describe(need, http.MethodPost, path, id, summary), func(ctx context.Context, in *I) (*O, error) {
		c, _ := ctx.Value(callerKey{}).(caller)
		out, err := run(ctx, c, in)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		return &out, nil
	})
}
