package letters

import (
	"bytes"
	"context"
	_ "embed"
	"errors"
	"html/template"
	"time"

	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

//go:embed stop.html
var html string

// asks is the page that asks a reader whether the letters are to stop, or says that they
// have. Opening it stops nothing: mail programs open what they show.
var asks = template.Must(template.New("stop").Parse(html))

// Page is a page that is no part of the front end.
type Page struct {
	Type   string `header:"Content-Type"`
	Cache  string `header:"Cache-Control"`
	Robots string `header:"X-Robots-Tag"`
	Refers string `header:"Referrer-Policy"`
	Body   []byte
}

type stopInput struct {
	Token string `path:"token" maxLength:"80"`
}

// Of one place so many addresses that stop nothing are looked at, and one more after each
// period.
var wrongTokens = limits.Limit{Burst: 30, Period: 10 * time.Second}

func (s *Service) stopPage(ctx context.Context, in *stopInput) (*Page, error) {
	found, err := s.stopping(ctx, in.Token)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	return s.page(ctx, found)
}

func (s *Service) stopByToken(ctx context.Context, in *stopInput) (*Page, error) {
	found, err := s.stopping(ctx, in.Token)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	err = s.Store.StopReader(ctx, store.Actor{Practice: found.PracticeID, At: s.Now().UnixMilli()}, found.Reader)
	if err != nil && !errors.Is(err, store.ErrNotFound) { // it was stopped before
		return nil, s.Problem(ctx, err)
	}
	found.Stopped = true
	return s.page(ctx, found)
}

func (s *Service) stopping(ctx context.Context, token string) (store.Stopping, error) {
	return limits.Find(ctx, s.limits, s.Now(), wrongTokens.Of("letters", api.PlaceOf(ctx)), func() (store.Stopping, error) {
		return s.Store.StoppedBy(ctx, token)
	})
}

func (s *Service) page(ctx context.Context, found store.Stopping) (*Page, error) {
	var out bytes.Buffer
	if err := asks.Execute(&out, found); err != nil {
		return nil, s.Problem(ctx, err)
	}
	return &Page{Type: "text/html; charset=utf-8", Cache: "private, no-store", Robots: "noindex, nofollow", Refers: "no-referrer", Body: out.Bytes()}, nil
}
