// Package api is what every subject of the server stands on: who calls and what
// they may, an operation as it is registered and answered in the practice's
// words, and what goes wrong as a sentence for people.
package api

import (
	"context"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"ivorybridge/store"
)

// API is what every operation stands on.
type API struct {
	Huma   huma.API
	Store  *store.Store
	Now    func() time.Time // the clock
	Log    *slog.Logger
	Secure bool // cookies only over TLS

	// Opens finds what a private link's token opens, asked from a place.
	Opens func(ctx context.Context, token, place string, now time.Time) (store.Link, store.Practice, error)

	hashing *turns
	told    *told
}

// New describes an API on an engine; its operations are registered by others.
func New(engine *gin.Engine, version string, a API) *API {
	speakPlainly()
	a.Huma, a.hashing, a.told = humagin.New(engine, config(version)), &turns{free: 2}, &told{at: map[error]time.Time{}}
	return &a
}

// RefusedEntry says why an entry can't be kept.
type RefusedEntry struct {
	ID  string `json:"id"`
	Say string `json:"say"`
}

// MaxBody is the largest request body, in bytes.
const MaxBody = 256 << 10

// ByID asks for something by its id.
type ByID struct {
	ID string `path:"id" format:"uuid"`
}

// Output is an answer with nothing beside it.
type Output[O any] struct{ Body O }

// Operation registers one typed operation. What it answers is said in the
// practice's words; what it fails with becomes a problem.
func Operation[I, O any](s *API, need Access, method, path, id, summary string, run func(context.Context, Caller, *I) (O, error)) {
	Handle(s, s.Describe(need, method, path, id, summary), run)
}

// AtOnce lets an operation read all that makes its answer as it was at one
// moment. It may not wait for a session's lock.
func AtOnce[I, O any](run func(context.Context, Caller, *I) (O, error)) func(context.Context, Caller, *I) (O, error) {
	return func(ctx context.Context, c Caller, in *I) (out O, err error) {
		err = c.AtOneMoment(ctx, func(c Caller) error {
			out, err = run(ctx, c, in)
			return err
		})
		return out, err
	}
}

// Describe is an operation as it is told to the library and in the API's
// description.
func (s *API) Describe(need Access, method, path, id, summary string) huma.Operation {
	return huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: MaxBody,
		Middlewares: huma.Middlewares{s.Admit(need)}, Errors: []int{http.StatusUnauthorized, http.StatusUnprocessableEntity},
	}
}

// Handle is Operation for one that was described otherwise than usual.
func Handle[I, O any](s *API, op huma.Operation, run func(context.Context, Caller, *I) (O, error)) {
	huma.Register(s.Huma, op, func(ctx context.Context, in *I) (*Output[O], error) {
		c := CallerOf(ctx)
		out, err := run(ctx, c, in)
		if err != nil {
			return nil, s.Problem(ctx, err)
		}
		c.Book.Tell(&out)
		return &Output[O]{Body: out}, nil
	})
}

// WithCookie registers an operation that answers with a cookie as well.
func WithCookie[I, O any](s *API, need Access, path, id, summary string, run func(context.Context, Caller, *I) (O, error)) {
	huma.Register(s.Huma, s.Describe(need, http.MethodPost, path, id, summary), func(ctx context.Context, in *I) (*O, error) {
		c := CallerOf(ctx)
		out, err := run(ctx, c, in)
		if err != nil {
			return nil, s.Problem(ctx, err)
		}
		return &out, nil
	})
}
