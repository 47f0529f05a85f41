package house

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"ivorybridge/server/api"
	"ivorybridge/store"
	"ivorybridge/store/archive"
)

// MostArchive is the largest archive that is taken in by a browser, in bytes.
const MostArchive = 2 << 30

// arriving is how the file is called that an archive arrives in.
const arriving = ".arriving-"

// slowly is how long an archive may take on its way.
const slowly = 2 * time.Hour

func (s *Service) archives() {
	for at, op := range map[string]struct {
		id, summary string
		scope       func(ctx context.Context, c api.Caller, id string) (archive.Scope, string, error)
	}{
		"/api/horses/{id}/archive": {"horseArchive", "One horse, taken out whole", s.oneHorse},
		"/api/people/{id}/archive": {"personArchive", "What is kept of an owner's horses, taken out", s.ofOwner},
	} {
		huma.Register(s.Huma, s.Describe(api.LeadsOnly, http.MethodGet, at, op.id, op.summary), func(ctx context.Context, in *api.ByID) (*huma.StreamResponse, error) {
			c := api.CallerOf(ctx)
			scope, name, err := op.scope(ctx, c, in.ID)
			if err != nil {
				return nil, s.Problem(ctx, err)
			}
			return s.out(c, scope, name), nil
		})
	}
	huma.Register(s.Huma, s.Describe(api.LeadsOnly, http.MethodGet, "/api/house/archive", "practiceArchive", "The whole practice, taken out"), func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		c := api.CallerOf(ctx)
		return s.out(c, archive.Scope{}, c.Home.Name), nil
	})
	huma.Register(s.Huma, s.Describe(api.LeadsOnly, http.MethodPost, "/api/house/taking", "takeIn", "Take in a practice or a horse that was taken out: the .zip as it is"), s.in)
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/house/taking", "takingIn", "How far what comes in has come", api.AtOnce(func(_ context.Context, c api.Caller, _ *struct{}) (TakingIn, error) {
		if t := s.taking(c.Practice); t != nil {
			return *t, nil
		}
		return TakingIn{State: "none"}, nil
	}))
}

func (s *Service) oneHorse(ctx context.Context, c api.Caller, id string) (archive.Scope, string, error) {
	h, err := c.View.Horse(ctx, c.Practice, id)
	return archive.Scope{Horses: []string{id}}, h.Name, err
}

func (s *Service) ofOwner(ctx context.Context, c api.Caller, id string) (archive.Scope, string, error) {
	p, err := c.View.Person(ctx, c.Practice, id)
	if err != nil {
		return archive.Scope{}, "", err
	}
	horses, err := c.View.HorsesOf(ctx, c.Practice, id)
	if err == nil && len(horses) == 0 {
		err = api.NewProblem(http.StatusConflict, p.Name+" has no horse here. What is kept of them stands in People.")
	}
	return archive.Scope{Horses: horses}, p.Name, err
}

var notPlain = regexp.MustCompile(`[^a-z0-9]+`)

// fileName is plain, so that every disk takes it.
func fileName(name, on string) string {
	plain := strings.Trim(notPlain.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if plain == "" {
		plain = "practice"
	}
	return plain + "-" + on + ".zip"
}

// out sends an archive as it is made. One that breaks off is cut, so that nobody takes it for
// whole.
func (s *Service) out(c api.Caller, scope archive.Scope, name string) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(hctx huma.Context) {
		g := humagin.Unwrap(hctx)
		_ = http.NewResponseController(g.Writer).SetWriteDeadline(time.Now().Add(slowly)) // where it can't, the server's own holds
		h := g.Writer.Header()
		h.Set("Content-Type", "application/zip")
		h.Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", fileName(name, c.Today())))
		h.Set("Cache-Control", "private, no-store")
		done, err := archive.Write(hctx.Context(), s.Store.Path(), c.Practice, scope, c.Now, g.Writer)
		if err != nil {
			s.Log.ErrorContext(hctx.Context(), "an archive broke off", "error", err.Error())
			if conn, _, err := g.Writer.Hijack(); err == nil {
				_ = conn.Close()
			}
			return
		}
		s.Log.InfoContext(hctx.Context(), "an archive was taken out", "rows", done.Rows, "files", done.Files, "missing", done.Missing)
	}}
}

// TakingIn is how far what comes in has come.
type TakingIn struct {
	State string `json:"state" enum:"none,arriving,taking,done,refused"`
	Done  int    `json:"done" doc:"rows that were read"`
	Rows  int64  `json:"rows" doc:"that were not there yet"`
	Files int    `json:"files"`
	Whole bool   `json:"whole" doc:"a practice; else horses"`
	Say   string `json:"say,omitempty" doc:"why it was refused"`
}

func (s *Service) taking(practice string) *TakingIn {
	s.mu.Lock()
	defer s.mu.Unlock()
	if t := s.arrival[practice]; t != nil {
		now := *t
		return &now
	}
	return nil
}

func (s *Service) set(practice string, change func(t *TakingIn)) {
	s.mu.Lock()
	defer s.mu.Unlock()
	t := s.arrival[practice]
	if t == nil {
		t = &TakingIn{}
		s.arrival[practice] = t
	}
	change(t)
}

// begin says that an archive arrives; false while another does.
func (s *Service) begin(practice string) bool {
	begun := true
	s.set(practice, func(t *TakingIn) {
		if t.State == "arriving" || t.State == "taking" {
			begun = false
			return
		}
		*t = TakingIn{State: "arriving"}
	})
	return begun
}

// in receives an archive, and takes it in once it is whole: the answer says that it has begun.
func (s *Service) in(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
	c := api.CallerOf(ctx)
	return &huma.StreamResponse{Body: func(hctx huma.Context) {
		g := humagin.Unwrap(hctx)
		if !s.begin(c.Practice) {
			api.WriteProblem(g, http.StatusConflict, "Something is coming in already. Wait until it is there.")
			return
		}
		path, err := s.receive(g.Writer, g.Request)
		if err != nil {
			s.set(c.Practice, func(t *TakingIn) { *t = TakingIn{State: "refused", Say: sentence(err)} })
			code := http.StatusUnprocessableEntity
			var large *http.MaxBytesError
			if errors.As(err, &large) {
				code = http.StatusRequestEntityTooLarge
			}
			api.WriteProblem(g, code, sentence(err))
			return
		}
		s.set(c.Practice, func(t *TakingIn) { t.State = "taking" })
		go s.takeIn(context.WithoutCancel(hctx.Context()), c, path)
		g.JSON(http.StatusAccepted, *s.taking(c.Practice))
	}}, nil
}

// receive keeps what is sent beside the database, whole or not at all.
func (s *Service) receive(w http.ResponseWriter, r *http.Request) (path string, err error) {
	control := http.NewResponseController(w)
	_ = control.SetReadDeadline(time.Now().Add(slowly)) // where it can't, the server's own holds
	_ = control.SetWriteDeadline(time.Now().Add(slowly))
	f, err := os.CreateTemp(filepath.Dir(s.Store.Path()), arriving+"*.zip")
	if err != nil {
		return "", fmt.Errorf("making room for what comes in: %w", store.Placed(err))
	}
	_, err = io.Copy(f, http.MaxBytesReader(w, r.Body, MostArchive))
	if err = errors.Join(err, f.Close()); err != nil {
		return "", errors.Join(err, os.Remove(f.Name()))
	}
	return f.Name(), nil
}

func (s *Service) takeIn(ctx context.Context, c api.Caller, path string) {
	taken, err := s.read(ctx, c, path)
	if err != nil {
		s.Log.WarnContext(ctx, "an archive was not taken in", "error", err.Error())
		s.set(c.Practice, func(t *TakingIn) { *t = TakingIn{State: "refused", Say: sentence(err)} })
		return
	}
	s.changed()
	s.set(c.Practice, func(t *TakingIn) {
		*t = TakingIn{State: "done", Done: t.Done, Rows: taken.Rows, Files: taken.Files, Whole: taken.Whole}
	})
}

func (s *Service) read(ctx context.Context, c api.Caller, path string) (taken archive.Taken, err error) {
	defer func() { err = errors.Join(err, os.Remove(path)) }()
	f, err := os.Open(path)
	if err != nil {
		return taken, fmt.Errorf("reading what came in: %w", store.Placed(err))
	}
	defer func() { _ = f.Close() }() // only read from
	info, err := f.Stat()
	if err != nil {
		return taken, fmt.Errorf("reading what came in: %w", store.Placed(err))
	}
	tell := func(done int) { s.set(c.Practice, func(t *TakingIn) { t.Done = done }) }
	guarded := api.Guarded(func() error {
		taken, err = archive.Read(ctx, f, info.Size(), archive.Into{Store: s.Store, Practice: c.Practice, Tell: tell, Look: LookAt})
		return err
	})
	return taken, guarded
}

// sentence says why something did not come in.
func sentence(err error) string {
	var refused *archive.RefusedError
	var large *http.MaxBytesError
	switch {
	case errors.As(err, &refused):
		return refused.Say
	case errors.Is(err, store.ErrNotEmpty):
		return "There are horses, people or yards in this practice already. A whole practice comes into an empty one; nothing was changed. One horse's file comes into any."
	case errors.As(err, &large):
		return fmt.Sprintf("This file has more than %d MB. Ask whoever keeps the server to take it in there, with ivorybridge import.", MostArchive>>20)
	case errors.Is(err, store.ErrFull):
		return "The server's disk is full. Nothing was taken in. Ask whoever keeps the server."
	}
	return "It broke off on its way. Nothing was taken in. Send it again."
}

func count(n int) string {
	if n == 1 {
		return "one place"
	}
	return fmt.Sprintf("%d places", n)
}
