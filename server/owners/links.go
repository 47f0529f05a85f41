// Package owners answers for what leaves the practice: the private links with which
// owners read of their horses, the pages that they open, and what owners write down
// of their practice at home.
package owners

import (
	"context"
	"crypto/rand"
	"errors"
	"net/http"
	"time"

	"github.com/google/uuid"

	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// Service answers for links, owners' pages and practice at home.
type Service struct {
	*cases.Reader
	limits *limits.Limits
}

// New registers what can be asked of links, and by those who have one.
func New(r *cases.Reader) *Service {
	s := &Service{r, limits.New(r.Store)}
	s.API.Opens = s.opens
	s.linkOperations()
	s.pageOperations()
	s.practiceOperations()
	return s
}

// Of one place so many tokens that open nothing are looked at, and one more after
// each period. A link that was opened before opens all the same.
var wrongTokens = limits.Limit{Burst: 30, Period: 10 * time.Second}

// linkLasts is how many days a link opens, where nobody says otherwise.
const linkLasts = 90

// opens finds what a token opens. One that opens nothing is answered in the same
// words whatever the reason, and so is every new one from a place that guesses.
func (s *Service) opens(ctx context.Context, token, place string, now time.Time) (store.Link, store.Practice, error) {
	link, home, err := s.Store.Linked(ctx, api.TokenHash(token), now.UnixMilli())
	if err == nil && link.Opened > 0 {
		return link, home, nil
	}
	found, err := limits.Find(ctx, s.limits, now, wrongTokens.Of("link", place), func() (store.Link, error) { return link, err })
	if errors.Is(err, store.ErrNotFound) {
		return store.Link{}, store.Practice{}, api.NoLink()
	}
	return found, home, err
}

// Link is a private link as the trainer sees it; its address is told once, when it is
// made.
type Link struct {
	ID      string `json:"id"`
	MadeAt  int64  `json:"made_at" doc:"ms"`
	MadeBy  string `json:"made_by"`
	Until   int64  `json:"until" doc:"when it ends, ms"`
	OffAt   int64  `json:"off_at,omitempty" doc:"when it was switched off, ms"`
	Open    bool   `json:"open" doc:"it opens now"`
	Opened  int64  `json:"opened" doc:"how often it was opened; not by whom"`
	FirstAt int64  `json:"first_at,omitempty" doc:"ms"`
	LastAt  int64  `json:"last_at,omitempty" doc:"ms"`
}

// NewLink is a link that was made just now.
type NewLink struct {
	Link
	Path string `json:"path" doc:"where it opens, from the product's address on; only its hash is kept, so it is told this once"`
}

type makeInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Days int `json:"days,omitempty" minimum:"0" maximum:"365" doc:"how long it opens; 0: 90"`
	}
}

// SentView says when a visit's page was sent.
type SentView struct {
	At int64  `json:"at" doc:"ms; 0: it was not"`
	By string `json:"by,omitempty"`
}

func (s *Service) linkOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/people/{id}/links", "linksOfPerson", "The private links to a person's horses", s.linksOfPerson)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/people/{id}/links", "linkPerson", "Make a private link to a person's horses", s.linkPerson)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/sessions/{id}/links", "linksOfReport", "The private links to one report", s.linksOfReport)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/sessions/{id}/links", "linkReport", "Make a private link to one report", s.linkReport)
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/links/{id}", "switchLinkOff", "Switch a private link off", s.switchOff)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/sessions/{id}/sent", "sendReport", "Let the owners' links show a visit's page from now on", s.send)
}

func viewOf(l store.Link, now time.Time) Link {
	return Link{
		ID: l.ID, MadeAt: l.MadeAt, MadeBy: l.MadeBy, Until: l.Until, OffAt: l.OffAt, Open: l.OffAt == 0 && l.Until > now.UnixMilli(),
		Opened: l.Opened, FirstAt: l.FirstAt, LastAt: l.LastAt,
	}
}

func (s *Service) links(ctx context.Context, c api.Caller, person, session string) ([]Link, error) {
	kept, err := c.View.Links(ctx, c.Practice, person, session)
	list := make([]Link, 0, len(kept))
	for _, l := range kept {
		list = append(list, viewOf(l, c.Now))
	}
	return list, err
}

func (s *Service) linksOfPerson(ctx context.Context, c api.Caller, in *api.ByID) ([]Link, error) {
	if _, err := c.View.Person(ctx, c.Practice, in.ID); err != nil {
		return nil, err
	}
	return s.links(ctx, c, in.ID, "")
}

func (s *Service) linksOfReport(ctx context.Context, c api.Caller, in *api.ByID) ([]Link, error) {
	if _, err := c.View.Session(ctx, c.Practice, in.ID); err != nil {
		return nil, err
	}
	return s.links(ctx, c, "", in.ID)
}

// linkPerson makes a link to all horses that a person owns or handles.
func (s *Service) linkPerson(ctx context.Context, c api.Caller, in *makeInput) (NewLink, error) {
	if _, err := c.View.Person(ctx, c.Practice, in.ID); err != nil {
		return NewLink{}, err
	}
	return s.made(ctx, c, store.Link{Person: in.ID}, in.Body.Days)
}

// linkReport makes a link to one visit's page, and sends it with that.
func (s *Service) linkReport(ctx context.Context, c api.Caller, in *makeInput) (NewLink, error) {
	if _, err := c.View.Session(ctx, c.Practice, in.ID); err != nil {
		return NewLink{}, err
	}
	return s.made(ctx, c, store.Link{Session: in.ID}, in.Body.Days)
}

func (s *Service) made(ctx context.Context, c api.Caller, l store.Link, days int) (NewLink, error) {
	if days == 0 {
		days = linkLasts
	}
	token := rand.Text() // 130 bits
	l.ID, l.MadeAt, l.MadeBy, l.Until = uuid.NewString(), c.Now.UnixMilli(), c.Name, c.Now.AddDate(0, 0, days).UnixMilli()
	if err := s.Store.AddLink(ctx, c.Actor(), l, api.TokenHash(token)); err != nil {
		return NewLink{}, err
	}
	// What stands behind # never leaves the browser: no log and no other site sees it.
	return NewLink{Link: viewOf(l, c.Now), Path: "/o/#" + token}, nil
}

func (s *Service) switchOff(ctx context.Context, c api.Caller, in *api.ByID) ([]Link, error) {
	l, err := c.View.Link(ctx, c.Practice, in.ID)
	if err != nil {
		return nil, err
	}
	if l.OffAt == 0 {
		if err := s.Store.SwitchOff(ctx, c.Actor(), l.ID); err != nil && !errors.Is(err, store.ErrNotFound) {
			return nil, err
		}
	}
	return s.links(ctx, c, l.Person, l.Session)
}

func (s *Service) send(ctx context.Context, c api.Caller, in *api.ByID) (SentView, error) {
	if _, err := c.View.Session(ctx, c.Practice, in.ID); err != nil {
		return SentView{}, err
	}
	if err := s.Store.Send(ctx, c.Actor(), in.ID); err != nil {
		return SentView{}, err
	}
	sent, err := c.View.Sent(ctx, c.Practice, in.ID)
	return SentView{At: sent.At, By: sent.By}, err
}
