package sessions

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/desk"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/server/people"
	"ivorybridge/store"
)

// SessionStart is what the page before a session needs, and what the arena needs
// to begin one without a signal.
type SessionStart struct {
	Stage    Stage                 `json:"stage"`
	Case     cases.Case            `json:"case"`
	Points   int                   `json:"points"`
	Safety   phrase.Message        `json:"safety" doc:"what this product does not replace"`
	Handlers []cases.HandlerChoice `json:"handlers"`
	Kit      []string              `json:"kit"`
	Trailer  bool                  `json:"trailer" doc:"the next visit works at the trailer: the sequence card goes along"`
	Trailers []people.Trailer      `json:"trailers" doc:"those of the yard and the owner first"`
	Body     []phrase.Message      `json:"body" doc:"what is open on the body, to be looked over; empty: nothing is"`
	DaysOff  int                   `json:"days_off"`
	Open     string                `json:"open_session,omitempty"`
	Cycle    *phrase.Message       `json:"cycle,omitempty" doc:"this horse's own cycle, where one was learned"`
	Rules    catalog.HouseRules    `json:"rules" doc:"that a session begun now would pin"`
	Words    phrase.Words          `json:"words"`
}

type gateInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Readiness arena.Readiness `json:"readiness"`
		Handler   string          `json:"handler,omitempty" maxLength:"60"`
	}
}

type startInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		ID        string          `json:"id" format:"uuid" doc:"made by the device, so that sending twice is harmless"`
		StartedAt int64           `json:"started_at" minimum:"0" maximum:"7258118400000" doc:"the device's clock, ms"`
		Zone      string          `json:"zone" minLength:"1" maxLength:"60" doc:"the device's time zone, IANA"`
		Handler   string          `json:"handler,omitempty" maxLength:"60" doc:"who holds the rope"`
		Readiness arena.Readiness `json:"readiness"`
		Begun     *horse.Ask      `json:"begun,omitempty" doc:"the ask it was begun with where there was no signal; the session is kept whatever the gate says now"`
		SentAt    int64           `json:"sent_at,omitempty" minimum:"0" maximum:"7258118400000" doc:"the device's clock as it sends, ms"`
	}
}

func (s *Service) sessionStart(ctx context.Context, c api.Caller, in *api.ByID) (SessionStart, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return SessionStart{}, err
	}
	stage, err := s.stage(ctx, c, r, r.File)
	if err != nil {
		return SessionStart{}, err
	}
	view := SessionStart{
		Stage: stage, Case: cases.CaseOf(r.Case), Points: r.File.Risk.Points, Safety: phrase.Of("safety.session", nil),
		Handlers: cases.Holders(c, stage.Owners), DaysOff: r.File.DaysOff, Open: r.History.Open, Kit: []string{},
		Rules: s.pinned(r.File), Words: c.Home.Words,
	}
	if cy := r.File.Cycle; cy.Learned {
		m := cy.Says()
		view.Cycle = &m
	}
	if len(r.File.Plan().Visits) > 0 {
		view.Kit = r.File.Plan().Visits[0].Kit
		view.Trailer = r.File.Plan().Visits[0].OnTrailer(r.File.Catalog)
	}
	if ladder, _ := r.File.Catalog.Ladder(r.File.Bridge.Ladder); ladder.AtTrailer {
		view.Trailer = true
	}
	view.Body = r.File.OpenOnBody()
	view.Trailers, err = s.trailersFor(ctx, c, r.Horse)
	return view, err
}

// trailersFor lists the trailers, those of the horse's yard and owner first.
func (s *Service) trailersFor(ctx context.Context, c api.Caller, h store.Horse) ([]people.Trailer, error) {
	all, err := c.View.Trailers(ctx, c.Practice)
	if err != nil {
		return nil, err
	}
	its := func(t store.Trailer) bool {
		return t.YardID != "" && t.YardID == h.YardID || slices.ContainsFunc(h.Owners, func(o store.OwnerOf) bool { return o.ID == t.PersonID })
	}
	slices.SortStableFunc(all, func(a, b store.Trailer) int {
		switch {
		case its(a) == its(b):
			return 0
		case its(a):
			return -1
		}
		return 1
	})
	list := make([]people.Trailer, 0, len(all))
	for _, t := range all {
		list = append(list, people.TrailerOf(t))
	}
	return list, nil
}

// Methods is the catalogue under the practice's house rules, as the rules read it, for those that run in
// the browser.
type Methods struct {
	Version string           `json:"version"`
	Catalog *json.RawMessage `json:"catalog"`
}

func (s *Service) wholeCatalog(ctx context.Context, c api.Caller, _ *struct{}) (Methods, error) {
	cat, err := s.CatalogOf(ctx, c)
	if err != nil {
		return Methods{}, err
	}
	text, err := json.Marshal(cat)
	raw := json.RawMessage(text)
	return Methods{Version: cat.Version, Catalog: &raw}, err
}

// pinned are the house rules that a session begun now is advised by.
func (s *Service) pinned(f *casefile.File) catalog.HouseRules {
	rules := f.Catalog.Rules
	rules.Cycle = f.Cycle.Cycle
	return rules
}

// verdict asks the gate.
func (s *Service) verdict(c api.Caller, r cases.Reading, ready arena.Readiness) (desk.Verdict, error) {
	if a := ready.Asked; !a.IsZero() && !r.File.Catalog.HasAsk(a) {
		return desk.Verdict{}, api.Faulty(api.FieldProblem{Field: "readiness.ask", Say: "That is not an ask of the catalogue. Choose one from the list."})
	}
	return desk.VerdictOf(r.File.Catalog, r.File.Brief(), c.Today(), ready, c.Role == store.Lead), nil
}

func (s *Service) gate(ctx context.Context, c api.Caller, in *gateInput) (desk.Verdict, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return desk.Verdict{}, err
	}
	return s.verdict(c, r, in.Body.Readiness)
}

func (s *Service) start(ctx context.Context, c api.Caller, in *startInput) (Arena, error) {
	b := in.Body
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Arena{}, err
	}
	switch n, err := c.View.Session(ctx, c.Practice, b.ID); {
	case err == nil && n.HorseID == r.Horse.ID: // sent twice
		return s.arena(ctx, c, &api.ByID{ID: b.ID})
	case err != nil && !errors.Is(err, store.ErrNotFound):
		return Arena{}, err
	}
	if track.BeganLater(b.StartedAt, b.SentAt) {
		return Arena{}, api.Faulty(api.FieldProblem{Field: "started_at", Say: "This session is said to begin after it was sent. Set the clock of the device, and begin it again."})
	}
	zone, err := time.LoadLocation(b.Zone)
	if err != nil || b.Zone == "Local" {
		return Arena{}, api.Faulty(api.FieldProblem{Field: "zone", Say: "This time zone is not known. Set the clock of the device."})
	}
	n := store.Session{
		ID: b.ID, CaseID: in.ID, HorseID: r.Horse.ID, StartedAt: track.Began(c.Now.UnixMilli(), b.StartedAt, b.SentAt), Zone: b.Zone, School: horse.BuildAndRelease,
		Handler: b.Handler, Readiness: b.Readiness, Catalog: r.File.Catalog.Version, Rules: s.pinned(r.File), Core: arena.Version,
	}
	n.Date = time.UnixMilli(n.StartedAt).In(zone).Format(time.DateOnly)
	holds := cases.Holders(c, cases.Owners(r.Horse, r.File))
	switch known := slices.ContainsFunc(r.Horse.Holders(), func(o store.OwnerOf) bool { return o.ID == b.Handler }); {
	case b.Begun != nil && !r.File.Catalog.HasAsk(*b.Begun):
		return Arena{}, api.Faulty(api.FieldProblem{Field: "begun", Say: "That is not an ask of the catalogue. Choose one from the list."})
	case b.Begun != nil && known: // it has happened
	case !slices.ContainsFunc(holds, func(h cases.HandlerChoice) bool { return h.ID == b.Handler || b.Handler == "" }):
		return Arena{}, api.Faulty(api.FieldProblem{Field: "handler", Say: "This person may not hold the rope now. Choose somebody from the list."})
	}
	if b.Begun != nil {
		n.Begins = *b.Begun
	} else {
		v, err := s.verdict(c, r, b.Readiness)
		if err != nil {
			return Arena{}, err
		}
		if !v.May || v.Ask.IsZero() {
			return Arena{}, api.NewProblem(http.StatusUnprocessableEntity, "No session now: "+reasons(c.Book, v.Reasons))
		}
		n.Begins = v.Ask
	}
	if err := s.Store.StartSession(ctx, c.Actor(), n); err != nil {
		return Arena{}, err
	}
	return s.arena(ctx, c, &api.ByID{ID: b.ID})
}

func reasons(book phrase.Book, list []phrase.Message) string {
	if len(list) == 0 {
		return "no step is open. Look at what is blocked, and what lifts it."
	}
	said := make([]string, len(list))
	for i, m := range list {
		said[i] = book.Say(m)
	}
	return strings.Join(said, " ")
}
