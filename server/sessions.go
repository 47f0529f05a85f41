package server

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/store"
)

// arousals are the words for arousal 0 to 4.
func arousals() []phrase.Message { return scaleWords("arousal.%d", 5) }

func scaleWords(key string, n int) []phrase.Message {
	words := make([]phrase.Message, n)
	for i := range words {
		words[i] = phrase.Of(fmt.Sprintf(key, i), nil)
	}
	return words
}

// HorseRef names a horse.
type HorseRef struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// HandlerChoice is somebody who may hold the rope.
type HandlerChoice struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Owner bool   `json:"owner"`
}

// AskChoice is an ask that may be chosen by hand.
type AskChoice struct {
	Ask     horse.Ask       `json:"ask"`
	Name    string          `json:"name"`
	Ladder  phrase.Slotted  `json:"ladder"`
	State   horse.StepState `json:"state"`
	Open    bool            `json:"open"`
	Needs   []string        `json:"needs,omitempty"`
	Blocked *phrase.Message `json:"blocked,omitempty"`
	Lifts   *phrase.Message `json:"lifts,omitempty"`
}

type sessionInput struct {
	ID string `path:"id" format:"uuid"`
}

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
	Horse  HorseRef          `json:"horse"`
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

func (s *Server) sessionOperations() {
	operation(s, staff, http.MethodGet, "/api/horses/{id}/sessions", "sessions", "A horse's sessions, newest first", atOnce(s.sessions))
	operation(s, staff, http.MethodGet, "/api/cases/{id}/session-start", "sessionStart", "What is looked at before a session", atOnce(s.sessionStart))
	operation(s, staff, http.MethodPost, "/api/cases/{id}/gate", "gate", "Whether and where a session may begin, without beginning one", s.gate)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/sessions", "startSession", "Begin a session", s.start)
	operation(s, staff, http.MethodGet, "/api/catalog", "catalog", "The shipped catalogue whole, for the rules that run in the browser", s.wholeCatalog)
	operation(s, staff, http.MethodGet, "/api/sessions/{id}", "session", "The arena of a session", s.arena)
	log := s.describe(staff, http.MethodPost, "/api/sessions/{id}/entries", "log", "Keep entries of the track and be advised")
	log.MaxBodyBytes, log.SkipValidateBody = maxTrack, true // each entry is checked by itself
	handle(s, log, s.log)
	operation(s, staff, http.MethodDelete, "/api/sessions/{id}", "dropSession", "Throw away a session on whose track nothing stands", s.drop)
	operation(s, staff, http.MethodGet, "/api/sessions/{id}/summary", "summary", "What a session came to", s.summary)
}

// Dropped is the answer to a session that was thrown away.
type Dropped struct {
	HorseID string `json:"horse_id"`
}

func (s *Server) drop(ctx context.Context, c caller, in *sessionInput) (Dropped, error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	n, err := c.view.Session(ctx, c.Practice, in.ID)
	if err != nil {
		return Dropped{}, err
	}
	l.running = nil
	return Dropped{n.HorseID}, s.Store.DropSession(ctx, c.actor(), in.ID)
}

// holders lists who may hold the rope: the signed-in user, and those owners.
func holders(c caller, owners []HandlerChoice) []HandlerChoice {
	return append([]HandlerChoice{{ID: c.ID, Name: c.Name}}, owners...)
}

// owners lists the owners who may hold the rope: none where the grade of care
// does not let them.
func owners(h store.Horse, f *casefile.File) []HandlerChoice {
	list := []HandlerChoice{}
	if !f.OwnerHandles() {
		return list
	}
	for _, o := range h.Owners {
		list = append(list, HandlerChoice{ID: o.ID, Name: o.Name, Owner: true})
	}
	return list
}

func askChoices(f *casefile.File) []AskChoice {
	list := []AskChoice{}
	add := func(key string, item plan.Item) {
		step, _ := f.Catalog.Step(key)
		ladder, _ := f.Catalog.Ladder(step.Ladder)
		list = append(list, AskChoice{
			Ask: step.Asks()[0], Name: step.Name, Ladder: ladder.Name, State: item.State, Open: item.Open,
			Needs: item.Needs, Blocked: item.Blocked, Lifts: item.Lifts,
		})
	}
	for _, item := range f.Plan().Items {
		add(item.Step, item)
	}
	for _, key := range f.Plan().Done {
		add(key, plan.Item{State: horse.Kept, Open: !slices.ContainsFunc(f.Blocks, func(b assess.Block) bool { return b.Step == key })})
	}
	return list
}

func (s *Server) sessions(ctx context.Context, c caller, in *horseInput) ([]SessionRow, error) {
	r, err := s.newest(ctx, c, in.ID)
	if err != nil {
		return nil, err
	}
	names, err := s.userNames(ctx, c)
	if err != nil {
		return nil, err
	}
	list, err := c.view.SessionsOf(ctx, c.Practice, r.horse.ID)
	if err != nil {
		return nil, err
	}
	rows := make([]SessionRow, len(list))
	past := history.History{} // each bead is drawn, so each track is read
	for i, n := range list {
		f, err := c.view.Fresh(ctx, c.Practice, n)
		if err != nil {
			return nil, err
		}
		t, err := s.tellAfter(ctx, r, past, r.unread, f)
		if err != nil {
			return nil, err
		}
		rows[len(list)-1-i], past = sessionRow(r, t, names), t.after
	}
	return rows, nil
}

func (s *Server) userNames(ctx context.Context, c caller) (map[string]string, error) {
	users, err := c.view.Users(ctx, c.Practice)
	names := map[string]string{}
	for _, u := range users {
		names[u.ID] = u.Name
	}
	return names, err
}

// beads are the session's reps, by the schools that the case is worked in.
func (t told) beads(f *casefile.File) []arena.Told {
	return arena.Beads(f.Catalog, t.day, t.visit.Before, f.Schools())
}

func sessionRow(r reading, t told, names map[string]string) SessionRow {
	beads := t.beads(r.file)
	row := SessionRow{
		ID: t.ID, Date: t.Date, By: names[t.StartedBy], Reps: history.Count(beads, nil),
		Asks: []string{}, Changes: progress.Changes(r.file.Catalog, t.visit), Events: []assess.Event{}, Beads: beads,
	}
	if beads == nil {
		row.Beads = []arena.Told{}
	}
	row.Events = append(row.Events, t.events()...)
	for _, b := range beads {
		if !slices.Contains(row.Asks, b.Name) {
			row.Asks = append(row.Asks, b.Name)
		}
	}
	if n := len(t.day.Track); n > 0 {
		row.Minutes = int((t.day.Track[n-1].At - t.day.Started + 30_000) / 60_000)
	}
	if end := endedBy(t.day.Track); end != nil {
		row.Ended, row.Note = true, end.Note
	}
	return row
}

// events are the dangerous things that the session logged.
func (t told) events() []assess.Event { return t.after.Days[len(t.after.Days)-1].Dangers() }

func (s *Server) summary(ctx context.Context, c caller, in *sessionInput) (sum Summary, err error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	l.running = nil
	err = c.atOneMoment(ctx, func(c caller) error {
		sum, err = s.summaryOf(ctx, c, l, in.ID)
		return err
	})
	return sum, err
}

func (s *Server) summaryOf(ctx context.Context, c caller, l *liveArena, id string) (Summary, error) {
	r, t, err := s.readSession(ctx, c, id)
	if err != nil {
		return Summary{}, err
	}
	names, err := s.userNames(ctx, c)
	if err != nil {
		return Summary{}, err
	}
	then := r.asOf(t.StartedAt)
	before, err := s.judge(t.Date, then, t.before)
	if err != nil {
		return Summary{}, err
	}
	next, err := c.view.NextStart(ctx, c.Practice, r.horse.ID, t.Session)
	if err != nil {
		return Summary{}, err
	}
	after, err := s.judge(t.Date, r.asOf(next), t.after)
	if err != nil {
		return Summary{}, err
	}
	sum := Summary{
		SessionRow: sessionRow(r, t, names), Horse: HorseRef{r.horse.ID, r.horse.Name},
		Bridge: after.Bridge, Care: after.Risk.Care, Was: before.Risk.Care,
	}
	if end := endedBy(t.day.Track); end != nil {
		sum.EndID = end.ID
	}
	if err := s.fill(ctx, c, l, id); err != nil {
		return Summary{}, err
	}
	sum.Review, sum.Names = l.running.Review(), names
	for _, o := range r.horse.Owners {
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
