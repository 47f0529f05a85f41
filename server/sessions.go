package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/desk"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/store"
)

// Readying is what the page before a session needs, and what the arena needs
// to begin one without a signal.
type Readying struct {
	Stage    Stage              `json:"stage"`
	Case     Case               `json:"case"`
	Points   int                `json:"points"`
	Safety   phrase.Message     `json:"safety" doc:"what this product does not replace"`
	Handlers []HandlerChoice    `json:"handlers"`
	Kit      []string           `json:"kit"`
	Trailer  bool               `json:"trailer" doc:"the next visit works on the trailer: the sequence card goes along"`
	DaysOff  int                `json:"days_off"`
	Open     string             `json:"open_session,omitempty"`
	Cycle    *phrase.Message    `json:"cycle,omitempty" doc:"this horse's own cycle, where one was learned"`
	Rules    catalog.HouseRules `json:"rules" doc:"that a session begun now would pin"`
	Words    phrase.Words       `json:"words"`
}

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
		StartedAt int64           `json:"started_at" minimum:"0" doc:"the device's clock, ms"`
		Zone      string          `json:"zone" minLength:"1" maxLength:"60" doc:"the device's time zone, IANA"`
		Handler   string          `json:"handler,omitempty" maxLength:"60" doc:"who holds the rope"`
		Readiness arena.Readiness `json:"readiness"`
		Begun     *horse.Ask      `json:"begun,omitempty" doc:"the ask it was begun with where there was no signal; the session is kept whatever the gate says now"`
		SentAt    int64           `json:"sent_at,omitempty" minimum:"0" doc:"the device's clock as it sends, ms"`
	}
}

type sessionInput struct {
	ID string `path:"id" format:"uuid"`
}

// SessionRow is one session of a horse.
type SessionRow struct {
	ID      string         `json:"id"`
	Date    string         `json:"date" format:"date"`
	By      string         `json:"by"`
	Minutes int            `json:"minutes"`
	Reps    progress.Reps  `json:"reps"`
	Asks    []string       `json:"asks" doc:"names of the steps worked"`
	Changes []StateChange  `json:"changes"`
	Events  []assess.Event `json:"events"`
	Ended   bool           `json:"ended"`
	Note    string         `json:"note" doc:"how it ended"`
	Beads   []arena.Told   `json:"beads"`
}

// StateChange is an ask that came to another state.
type StateChange struct {
	Name    string          `json:"name"`
	Variant phrase.Message  `json:"variant"`
	From    horse.StepState `json:"from"`
	To      horse.StepState `json:"to"`
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
	operation(s, staff, http.MethodGet, "/api/horses/{id}/sessions", "sessions", "A horse's sessions, newest first", s.sessions)
	operation(s, staff, http.MethodGet, "/api/cases/{id}/readying", "readying", "What is looked at before a session", s.readying)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/gate", "gate", "Whether and where a session may begin, without beginning one", s.gate)
	operation(s, staff, http.MethodPost, "/api/cases/{id}/sessions", "startSession", "Begin a session", s.start)
	operation(s, staff, http.MethodGet, "/api/catalog", "catalog", "The shipped catalogue whole, for the rules that run in the browser", s.wholeCatalog)
	operation(s, staff, http.MethodGet, "/api/sessions/{id}", "session", "The arena of a session", s.arena)
	log := s.describe(staff, http.MethodPost, "/api/sessions/{id}/entries", "log", "Keep entries of the track and be advised")
	log.MaxBodyBytes, log.SkipValidateBody = maxTrack, true // each entry is checked by itself
	handle(s, log, s.log)
	operation(s, staff, http.MethodGet, "/api/sessions/{id}/summary", "summary", "What a session came to", s.summary)
}

// owners lists the owners who may hold the rope: none where the grade of care
// does not let them.
func owners(h store.Horse, f casefile.File) []HandlerChoice {
	list := []HandlerChoice{}
	if !f.OwnerHandles() {
		return list
	}
	for _, o := range h.Owners {
		list = append(list, HandlerChoice{ID: o.ID, Name: o.Name, Owner: true})
	}
	return list
}

func askChoices(f casefile.File) []AskChoice {
	list := []AskChoice{}
	add := func(key string, item plan.Item) {
		step, _ := f.Catalog().Step(key)
		ladder, _ := f.Catalog().Ladder(step.Ladder)
		list = append(list, AskChoice{
			Ask: step.Asks()[0], Name: step.Name, Ladder: ladder.Name, State: item.State, Open: item.Open,
			Needs: item.Needs, Blocked: item.Blocked, Lifts: item.Lifts,
		})
	}
	for _, item := range f.Plan.Items {
		add(item.Step, item)
	}
	for _, key := range f.Plan.Done {
		add(key, plan.Item{State: horse.Kept, Open: !slices.ContainsFunc(f.Blocks, func(b assess.Block) bool { return b.Step == key })})
	}
	return list
}

func (s *Server) readying(ctx context.Context, c caller, in *caseInput) (Readying, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Readying{}, err
	}
	stage, err := s.stage(ctx, c, r, r.file)
	if err != nil {
		return Readying{}, err
	}
	view := Readying{
		Stage: stage, Case: viewCase(r.kase), Points: r.file.Risk.Points, Safety: phrase.Of("safety.session", nil),
		Handlers: append([]HandlerChoice{{ID: c.ID, Name: c.Name}}, stage.Owners...), DaysOff: r.file.DaysOff, Open: r.open(), Kit: []string{},
		Rules: s.pinned(r.file), Words: c.practice.Words,
	}
	if cy := r.file.Cycle; cy.Learned {
		m := phrase.Of("cycle.learned", phrase.Args{"a": cy.Cycle - 1, "b": cy.Cycle, "reps": cy.Reps, "in": int(100*cy.Dip + 0.5), "out": int(100*cy.Outside + 0.5)})
		view.Cycle = &m
	}
	if len(r.file.Plan.Visits) > 0 {
		view.Kit = r.file.Plan.Visits[0].Kit
		view.Trailer = onTrailer(r.file)
	}
	return view, nil
}

// onTrailer reports whether the next visit works on the trailer.
func onTrailer(f casefile.File) bool {
	return slices.ContainsFunc(f.Plan.Visits[0].Parts, func(p plan.Part) bool {
		return slices.ContainsFunc(p.Steps, func(key string) bool {
			step, _ := f.Catalog().Step(key)
			return step.Trailer
		})
	})
}

// Methods is the shipped catalogue as the rules read it, for those that run in
// the browser.
type Methods struct {
	Version string           `json:"version"`
	Catalog *json.RawMessage `json:"catalog"`
}

func (s *Server) wholeCatalog(context.Context, caller, *struct{}) (Methods, error) {
	text, err := json.Marshal(s.Catalog)
	raw := json.RawMessage(text)
	return Methods{Version: s.Catalog.Version, Catalog: &raw}, err
}

// pinned are the house rules that a session begun now is advised by.
func (s *Server) pinned(f casefile.File) catalog.HouseRules {
	rules := s.Catalog.Rules
	rules.Cycle = f.Cycle.Cycle
	return rules
}

// verdict asks the gate.
func (s *Server) verdict(c caller, r reading, ready arena.Readiness) (desk.Verdict, error) {
	if a := ready.Asked; !a.IsZero() && !r.file.Catalog().HasAsk(a) {
		return desk.Verdict{}, faulty(FieldProblem{Field: "readiness.ask", Say: "That is not an ask of the catalogue. Choose one from the list."})
	}
	return desk.VerdictOf(r.file.Catalog(), r.file.Brief(), c.today(), ready, c.Role == store.Lead), nil
}

func (s *Server) gate(ctx context.Context, c caller, in *gateInput) (desk.Verdict, error) {
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return desk.Verdict{}, err
	}
	return s.verdict(c, r, in.Body.Readiness)
}

func (s *Server) start(ctx context.Context, c caller, in *startInput) (Arena, error) {
	b := in.Body
	r, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Arena{}, err
	}
	if r.before(b.ID) < len(r.sessions) { // sent twice
		return s.arena(ctx, c, &sessionInput{ID: b.ID})
	}
	zone, err := time.LoadLocation(b.Zone)
	if err != nil || b.Zone == "Local" {
		return Arena{}, faulty(FieldProblem{Field: "zone", Say: "This time zone is not known. Set the clock of the device."})
	}
	n := store.Session{
		ID: b.ID, CaseID: in.ID, HorseID: r.horse.ID, StartedAt: startedAt(c, b.StartedAt, b.SentAt), Zone: b.Zone, School: horse.BuildAndRelease,
		Handler: b.Handler, Readiness: b.Readiness, Catalog: r.file.Catalog().Version, Rules: s.pinned(r.file), Core: arena.Version,
	}
	n.Date = time.UnixMilli(n.StartedAt).In(zone).Format(time.DateOnly)
	holds := append([]HandlerChoice{{ID: c.ID}}, owners(r.horse, r.file)...)
	switch known := slices.ContainsFunc(r.horse.Owners, func(o store.OwnerOf) bool { return o.ID == b.Handler }); {
	case b.Begun != nil && !r.file.Catalog().HasAsk(*b.Begun):
		return Arena{}, faulty(FieldProblem{Field: "begun", Say: "That is not an ask of the catalogue. Choose one from the list."})
	case b.Begun != nil && known: // it has happened
	case !slices.ContainsFunc(holds, func(h HandlerChoice) bool { return h.ID == b.Handler || b.Handler == "" }):
		return Arena{}, faulty(FieldProblem{Field: "handler", Say: "This person may not hold the rope now. Choose somebody from the list."})
	}
	if b.Begun != nil {
		n.Begins = *b.Begun
	} else {
		v, err := s.verdict(c, r, b.Readiness)
		if err != nil {
			return Arena{}, err
		}
		if !v.May || v.Ask.IsZero() {
			return Arena{}, newProblem(http.StatusUnprocessableEntity, "No session now: "+reasons(c.book, v.Reasons))
		}
		n.Begins = v.Ask
	}
	if err := s.Store.StartSession(ctx, c.who(), n); err != nil {
		return Arena{}, err
	}
	return s.arena(ctx, c, &sessionInput{ID: b.ID})
}

// startedAt is when a session began, by the device's clock; by the server's
// where that clock is wrong.
func startedAt(c caller, started, sent int64) int64 {
	const slack = 5 * 60_000
	off := c.now.UnixMilli() - sent
	switch {
	case sent > 0 && (off > slack || off < -slack):
		return started + off
	case sent == 0 && (c.now.UnixMilli()-started > 12*3_600_000 || started-c.now.UnixMilli() > 3_600_000):
		return c.now.UnixMilli()
	}
	return started
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

func (s *Server) sessions(ctx context.Context, c caller, in *horseInput) ([]SessionRow, error) {
	r, err := s.newest(ctx, c, in.ID)
	if err != nil {
		return nil, err
	}
	names, err := s.userNames(ctx, c)
	rows := []SessionRow{}
	for i := range slices.Backward(r.sessions) {
		rows = append(rows, s.sessionRow(r, i, names))
	}
	return rows, err
}

func (s *Server) userNames(ctx context.Context, c caller) (map[string]string, error) {
	users, err := s.Store.Users(ctx, c.Practice)
	names := map[string]string{}
	for _, u := range users {
		names[u.ID] = u.Name
	}
	return names, err
}

func (s *Server) sessionRow(r reading, i int, names map[string]string) SessionRow {
	day, visit := r.days[i], r.file.Visits[i]
	beads := arena.Beads(r.file.Catalog(), day, visit.Before)
	row := SessionRow{
		ID: r.sessions[i].ID, Date: day.Date, By: names[r.sessions[i].StartedBy], Reps: progress.Count(beads, nil),
		Asks: []string{}, Changes: changes(r.file.Catalog(), visit), Events: []assess.Event{}, Beads: beads,
	}
	if beads == nil {
		row.Beads = []arena.Told{}
	}
	row.Events = append(row.Events, casefile.Events(day)...)
	for _, b := range beads {
		if !slices.Contains(row.Asks, b.Name) {
			row.Asks = append(row.Asks, b.Name)
		}
	}
	if n := len(day.Track); n > 0 {
		row.Minutes = int((day.Track[n-1].At - day.Started + 30_000) / 60_000)
	}
	if end := endedBy(day.Track); end != nil {
		row.Ended, row.Note = true, end.Note
	}
	return row
}

// changes lists the asks that a session brought to another state.
func changes(c *catalog.Catalog, v arena.Visit) []StateChange {
	was := map[horse.Ask]horse.StepState{}
	for _, k := range v.Before {
		was[k.Ask] = k.State
	}
	list := []StateChange{}
	for _, k := range v.After {
		if was[k.Ask] == k.State {
			continue
		}
		step, _ := c.Step(k.Step)
		ch := StateChange{Name: step.Name, From: was[k.Ask], To: k.State}
		if ch.From.IsZero() {
			ch.From = horse.Untried
		}
		if !k.Variant.IsZero() {
			ch.Variant = phrase.Of("variant", phrase.Args{"words": phrase.Sided(k.Variant.String())})
		}
		list = append(list, ch)
	}
	return list
}

func (s *Server) summary(ctx context.Context, c caller, in *sessionInput) (Summary, error) {
	n, err := s.Store.Session(ctx, c.Practice, in.ID)
	if err != nil {
		return Summary{}, err
	}
	r, err := s.read(ctx, c, n.CaseID)
	if err != nil {
		return Summary{}, err
	}
	names, err := s.userNames(ctx, c)
	if err != nil {
		return Summary{}, err
	}
	i := r.before(in.ID)
	before, err := s.judge(n.Date, r, i)
	if err != nil {
		return Summary{}, err
	}
	after, err := s.judge(n.Date, r, i+1)
	sum := Summary{
		SessionRow: s.sessionRow(r, i, names), Horse: HorseRef{r.horse.ID, r.horse.Name},
		Bridge: after.Bridge, Care: after.Risk.Care, Was: before.Risk.Care,
	}
	if end := endedBy(r.days[i].Track); end != nil {
		sum.EndID = end.ID
	}
	if err != nil {
		return Summary{}, err
	}
	l := s.arenas.of(c.Practice, in.ID)
	l.mu.Lock()
	defer l.mu.Unlock()
	l.running = nil
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return Summary{}, err
	}
	sum.Review, sum.Names = l.running.Review(), names
	for _, o := range r.horse.Owners {
		sum.Names[o.ID] = o.Name
	}
	if g, _ := l.stage.Brief.Gate(l.cat, n.Date, n.Readiness, true); !g.May {
		sum.Gate = g.Reasons
	}
	track := l.track
	for _, k := range track {
		sum.Clock = sum.Clock || k.ClockOff
		if k.AfterEnd && k.Replaces == "" && k.Kind != arena.KindUndo && k.Kind != arena.KindAdvice && k.Kind != arena.KindEnd {
			sum.Late++
		}
	}
	return sum, err
}
