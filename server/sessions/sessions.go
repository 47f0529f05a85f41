// Package sessions answers for sessions: their start, the arena while they run,
// and what they came to.
package sessions

import (
	"context"
	"net/http"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
)

// Service answers for sessions.
type Service struct {
	*cases.Reader
	arenas *arenas
}

// New registers what can be asked of sessions.
func New(r *cases.Reader) *Service {
	s := &Service{Reader: r, arenas: newArenas()}
	s.sessionOperations()
	return s
}

// Forget drops what is kept of running sessions; it is read again.
func (s *Service) Forget() { s.arenas.forget() }

// SessionRow is one session of a horse.
type SessionRow struct {
	ID      string            `json:"id"`
	Date    string            `json:"date" format:"date"`
	By      string            `json:"by"`
	Minutes int               `json:"minutes"`
	Reps    history.Reps      `json:"reps"`
	Asks    []string          `json:"asks" doc:"names of the steps worked"`
	Changes []progress.Change `json:"changes"`
	Events  []assess.Event    `json:"events"`
	Ended   bool              `json:"ended"`
	Note    string            `json:"note" doc:"how it ended"`
	Beads   []arena.Told      `json:"beads"`
}

// Summary is what a session came to.
type Summary struct {
	SessionRow
	Horse  cases.HorseRef    `json:"horse"`
	Bridge progress.Bridge   `json:"bridge" doc:"as it stood after this session"`
	Care   horse.Care        `json:"care"`
	Was    horse.Care        `json:"care_before"`
	EndID  string            `json:"end_id,omitempty" doc:"id of the entry that ended it"`
	Names  map[string]string `json:"names" doc:"of those who held the rope"`
	Review arena.Review      `json:"review"`
	Gate   []phrase.Message  `json:"gate" doc:"what the gate says against a session that was begun without a signal"`
	Late   int               `json:"late" doc:"reps and marks that arrived after the session had ended"`
	Clock  bool              `json:"clock_off" doc:"a device's clock was wrong; its times were corrected"`
}

func (s *Service) sessionOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/sessions", "sessions", "A horse's sessions, newest first", api.AtOnce(s.sessions))
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/progress", "progress", "What changed over a horse's sessions", api.AtOnce(s.progress))
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/cases/{id}/session-start", "sessionStart", "What is looked at before a session", api.AtOnce(s.sessionStart))
	api.Operation(s.API, api.Helpers, http.MethodPost, "/api/cases/{id}/gate", "gate", "Whether and where a session may begin, without beginning one", s.gate)
	api.Operation(s.API, api.Helpers, http.MethodPost, "/api/cases/{id}/sessions", "startSession", "Begin a session", s.start)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/catalog", "catalog", "The catalogue whole, under the house rules, for the rules that run in the browser", api.AtOnce(s.wholeCatalog))
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/sessions/{id}", "session", "The arena of a session", s.arena)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/sessions/{id}/asks", "asks", "All asks that can be chosen in a session now, and the cards that answer them", s.asks)
	log := s.Describe(api.Helpers, http.MethodPost, "/api/sessions/{id}/entries", "log", "Keep entries of the track and be advised")
	log.MaxBodyBytes, log.SkipValidateBody = maxTrack, true // each entry is checked by itself
	api.Handle(s.API, log, s.log)
	api.Operation(s.API, api.Helpers, http.MethodDelete, "/api/sessions/{id}", "dropSession", "Throw away a session on whose track nothing stands", s.drop)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/sessions/{id}/summary", "summary", "What a session came to", s.summary)
}

// Dropped is the answer to a session that was thrown away.
type Dropped struct {
	HorseID string `json:"horse_id"`
}

func (s *Service) drop(ctx context.Context, c api.Caller, in *api.ByID) (Dropped, error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	n, err := c.View.Session(ctx, c.Practice, in.ID)
	if err != nil {
		return Dropped{}, err
	}
	l.running = nil
	return Dropped{n.HorseID}, s.Store.DropSession(ctx, c.Actor(), in.ID)
}

func (s *Service) sessions(ctx context.Context, c api.Caller, in *api.ByID) ([]SessionRow, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return nil, err
	}
	names, err := s.UserNames(ctx, c)
	if err != nil {
		return nil, err
	}
	list, err := c.View.SessionsOf(ctx, c.Practice, r.Horse.ID)
	if err != nil {
		return nil, err
	}
	rows := make([]SessionRow, len(list))
	past := history.History{} // each bead is drawn, so each track is read
	for i, n := range list {
		f, err := c.View.Fresh(ctx, c.Practice, n)
		if err != nil {
			return nil, err
		}
		t, err := s.TellAfter(ctx, r, past, r.Unread, f)
		if err != nil {
			return nil, err
		}
		rows[len(list)-1-i], past = sessionRow(r, t, names), t.After
	}
	return rows, nil
}

func sessionRow(r cases.Reading, t cases.Told, names map[string]string) SessionRow {
	beads := t.Beads(r.File)
	row := SessionRow{
		ID: t.ID, Date: t.Date, By: names[t.StartedBy], Reps: history.Count(beads, nil),
		Asks: []string{}, Changes: progress.Changes(r.File.Catalog, t.Visit), Events: []assess.Event{}, Beads: beads,
	}
	if beads == nil {
		row.Beads = []arena.Told{}
	}
	row.Events = append(row.Events, t.Events()...)
	for _, b := range beads {
		if !slices.Contains(row.Asks, b.Name) {
			row.Asks = append(row.Asks, b.Name)
		}
	}
	if n := len(t.Day.Track); n > 0 {
		row.Minutes = int((t.Day.Track[n-1].At - t.Day.Started + 30_000) / 60_000)
	}
	if end := cases.EndedBy(t.Day.Track); end != nil {
		row.Ended, row.Note = true, end.Note
	}
	return row
}

func (s *Service) summary(ctx context.Context, c api.Caller, in *api.ByID) (sum Summary, err error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	l.running = nil
	err = c.AtOneMoment(ctx, func(c api.Caller) error {
		sum, err = s.summaryOf(ctx, c, l, in.ID)
		return err
	})
	return sum, err
}

func (s *Service) summaryOf(ctx context.Context, c api.Caller, l *liveArena, id string) (Summary, error) {
	r, t, err := s.ReadSession(ctx, c, id)
	if err != nil {
		return Summary{}, err
	}
	names, err := s.UserNames(ctx, c)
	if err != nil {
		return Summary{}, err
	}
	then := r.AsOf(t.StartedAt)
	before, err := s.Judge(t.Date, then, t.Before)
	if err != nil {
		return Summary{}, err
	}
	next, err := c.View.NextStart(ctx, c.Practice, r.Horse.ID, t.Session)
	if err != nil {
		return Summary{}, err
	}
	after, err := s.Judge(t.Date, r.AsOf(next), t.After)
	if err != nil {
		return Summary{}, err
	}
	sum := Summary{
		SessionRow: sessionRow(r, t, names), Horse: cases.RefOf(r.Horse),
		Bridge: after.Bridge, Care: after.Risk.Care, Was: before.Risk.Care,
	}
	if end := cases.EndedBy(t.Day.Track); end != nil {
		sum.EndID = end.ID
	}
	if err := s.fill(ctx, c, l, id); err != nil {
		return Summary{}, err
	}
	sum.Review, sum.Names = l.running.Review(), names
	for _, o := range r.Horse.Holders() {
		sum.Names[o.ID] = o.Name
	}
	if g, _ := l.stage.Brief.Gate(l.cat, t.Date, t.Readiness, true); !g.May {
		sum.Gate = g.Reasons
	}
	for _, k := range l.track {
		sum.Clock = sum.Clock || k.ClockOff
		if k.AfterEnd && k.Late() {
			sum.Late++
		}
	}
	return sum, nil
}
