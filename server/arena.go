package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/store"
)

// Arena is all that the arena shows of a session.
type Arena struct {
	ID          string           `json:"id"`
	CaseID      string           `json:"case_id"`
	Horse       HorseRef         `json:"horse"`
	Yard        string           `json:"yard"`
	Weather     string           `json:"weather,omitempty"`
	DaysOff     int              `json:"days_off"`
	Date        string           `json:"date" format:"date"`
	StartedAt   int64            `json:"started_at"`
	Handler     string           `json:"handler" doc:"who holds the rope unless a rep says"`
	Handlers    []HandlerChoice  `json:"handlers"`
	School      horse.School     `json:"school"`
	Care        horse.Care       `json:"care"`
	Precautions []phrase.Message `json:"precautions"`
	Cards       []Card           `json:"cards" doc:"the steps that may be asked"`
	Asks        []AskChoice      `json:"asks"`
	Contacts    []Contact        `json:"contacts" doc:"whom to call; kept on the device"`
	Address     string           `json:"address" doc:"the yard's"`
	Arousals    []phrase.Message `json:"arousals" doc:"the words for arousal 0 to 4"`
	Feels       []phrase.Message `json:"feels" doc:"one word for each level 0 to 10"`
	WaysOut     []WayOut         `json:"ways_out"`
	Signs       []horse.Sign     `json:"signs"`
	Stops       []horse.Stop     `json:"stops" doc:"reasons that end a session"`
	Told        Told             `json:"told"`
}

// feels are the words for levels 0 to 10.
func feels() []phrase.Message {
	words := make([]phrase.Message, 11)
	for level := range words {
		words[level] = progress.Feel(float64(level))
	}
	return words
}

// WayOut is a way out as a chip.
type WayOut struct {
	Word   horse.WayOut `json:"word"`
	Danger bool         `json:"danger"`
}

// Card is a step as the arena shows it.
type Card struct {
	Key        string             `json:"key"`
	Name       string             `json:"name"`
	Ladder     phrase.Slotted     `json:"ladder"`
	School     horse.School       `json:"school" doc:"in which it is advised"`
	Works      phrase.Slotted     `json:"works" doc:"how that school works"`
	Places     []arena.SpellPlace `json:"places" doc:"where spells are, for a school of places"`
	Foundation bool               `json:"foundation"`
	Ask        phrase.Slotted     `json:"ask"`
	Release    phrase.Slotted     `json:"release"`
	Watch      phrase.Slotted     `json:"watch"`
	Pass       string             `json:"pass" doc:"the pass mark in words"`
	Measures   []catalog.Measure  `json:"measures"`
	Unit       string             `json:"unit"`
	Values     []int              `json:"values"`
	Variants   []CardVariant      `json:"variants"`
}

// CardVariant is one way a step is asked.
type CardVariant struct {
	Variant horse.Variant  `json:"variant"`
	Side    horse.Side     `json:"side,omitzero"`
	Name    phrase.Message `json:"name"`
}

// Contact is somebody to call.
type Contact struct {
	What  string `json:"what" enum:"vet,owner,yard"`
	Name  string `json:"name"`
	Phone string `json:"phone"`
}

// Told is what the rules say of the track as it is kept now.
type Told struct {
	Advice arena.Advice `json:"advice"`
	Beads  []arena.Told `json:"beads"`
	Recent []Standing   `json:"recent" doc:"the newest entries that stand, newest first"`
	Count  int          `json:"count" doc:"entries kept"`
	Ended  bool         `json:"ended"`
}

// Standing is an entry that was not undone.
type Standing struct {
	ID   string     `json:"id"`
	Kind arena.Kind `json:"kind"`
}

// recentEntries is how many standing entries are told, for undo.
const recentEntries = 12

// Logged is the answer to entries that were sent.
type Logged struct {
	Refused []RefusedEntry `json:"refused" doc:"entries that can't be kept, and why; all others are kept"`
	Told    Told           `json:"told"`
}

// RefusedEntry says why an entry can't be kept.
type RefusedEntry struct {
	ID  string `json:"id"`
	Say string `json:"say"`
}

type logInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		SentAt  int64         `json:"sent_at" minimum:"0" doc:"the device's clock as it sends, ms"`
		Entries []arena.Entry `json:"entries" minItems:"1" maxItems:"200"`
	}
}

// arenas keeps what advising the running sessions needs, so that one more rep
// costs one more insert. All of it can be read again from the store.
type arenas struct {
	mu   sync.Mutex
	live map[string]*liveArena
}

// liveArena is one session in work; its lock orders the writes to its track.
type liveArena struct {
	mu    sync.Mutex
	ready bool
	day   arena.Day
	input arena.Input
	rules catalog.HouseRules // as the session pinned them
	cat   *catalog.Catalog   // fitted to the horse and its plan
	have  map[string]bool
}

const maxArenas = 64

func newArenas() *arenas { return &arenas{live: map[string]*liveArena{}} }

func (a *arenas) of(practice, session string) *liveArena {
	a.mu.Lock()
	defer a.mu.Unlock()
	key := practice + session
	l := a.live[key]
	if l == nil {
		if len(a.live) >= maxArenas {
			a.live = map[string]*liveArena{}
		}
		l = &liveArena{}
		a.live[key] = l
	}
	return l
}

func (a *arenas) forget() {
	a.mu.Lock()
	defer a.mu.Unlock()
	a.live = map[string]*liveArena{}
}

// fill reads what the session's advice needs, once.
func (s *Server) fill(ctx context.Context, c caller, l *liveArena, session string) error {
	if l.ready {
		return nil
	}
	n, err := s.Store.Session(ctx, c.Practice, session)
	if err != nil {
		return err
	}
	r, err := s.read(ctx, c, n.CaseID)
	if err != nil {
		return err
	}
	i := r.before(session)
	f, err := s.judge(n.Date, r, i)
	if err != nil {
		return err
	}
	l.day, l.rules, l.cat = r.days[i], n.Rules, f.Catalog()
	l.input = f.Advice(casefile.Begins{
		Ask: n.Begins, School: n.School, Started: n.StartedAt, Handler: l.day.Handler,
		Mind: n.Readiness.Handler, Alone: n.Readiness.Alone,
	})
	l.have = map[string]bool{}
	for _, e := range l.day.Track {
		l.have[e.ID] = true
	}
	l.ready = true
	return nil
}

// tellArena advises on the track as it stands.
func (s *Server) tellArena(c caller, l *liveArena) (Told, error) {
	in := l.input
	in.Track, in.Now = l.day.Track, c.now.UnixMilli()
	advice, beads, err := arena.Watch(l.cat, l.rules, in)
	if err != nil {
		return Told{}, fmt.Errorf("advising: %w", err)
	}
	told := Told{Advice: advice, Beads: beads, Count: len(l.day.Track)}
	track := slices.Clone(l.day.Track)
	arena.Order(track)
	for _, e := range arena.Recent(track, recentEntries) {
		told.Recent = append(told.Recent, Standing{ID: e.ID, Kind: e.Kind})
	}
	told.Ended = ended(track)
	return told, nil
}

func (s *Server) log(ctx context.Context, c caller, in *logInput) (Logged, error) {
	l := s.arenas.of(c.Practice, in.ID)
	l.mu.Lock()
	defer l.mu.Unlock()
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return Logged{}, err
	}
	out := Logged{Refused: []RefusedEntry{}}
	good := make([]arena.Entry, 0, len(in.Body.Entries))
	for _, e := range in.Body.Entries {
		if err := e.Check(l.cat); err != nil {
			out.Refused = append(out.Refused, RefusedEntry{ID: e.ID, Say: err.Error() + "."})
			continue
		}
		e.Device = cmp.Or(e.Device, "unnamed")
		good = append(good, e)
	}
	kept, refused, err := s.Store.Append(ctx, c.who(), in.ID, in.Body.SentAt, good)
	if err != nil {
		l.ready = false
		return Logged{}, err
	}
	for i, e := range kept {
		switch {
		case errors.Is(refused[i], store.ErrOther):
			out.Refused = append(out.Refused, RefusedEntry{ID: e.ID, Say: "This id is kept already with other content. Both stay; reload to see what is kept."})
		case refused[i] != nil:
			l.ready = false
			return Logged{}, refused[i]
		case !l.have[e.ID]:
			l.have[e.ID] = true
			l.day.Track = append(l.day.Track, e)
		}
	}
	out.Told, err = s.tellArena(c, l)
	return out, err
}

func (s *Server) arena(ctx context.Context, c caller, in *sessionInput) (Arena, error) {
	n, err := s.Store.Session(ctx, c.Practice, in.ID)
	if err != nil {
		return Arena{}, err
	}
	r, err := s.read(ctx, c, n.CaseID)
	if err != nil {
		return Arena{}, err
	}
	i := r.before(in.ID)
	before, err := s.judge(n.Date, r, i)
	if err != nil {
		return Arena{}, err
	}
	l := s.arenas.of(c.Practice, in.ID)
	l.mu.Lock()
	defer l.mu.Unlock()
	l.ready = false // read it again: another device may have written
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return Arena{}, err
	}
	told, err := s.tellArena(c, l)
	if err != nil {
		return Arena{}, err
	}
	view := Arena{
		ID: n.ID, CaseID: n.CaseID, Horse: HorseRef{r.horse.ID, r.horse.Name}, Yard: r.horse.Yard.Name, Weather: n.Readiness.Weather,
		DaysOff: before.DaysOff, Date: n.Date, StartedAt: n.StartedAt, Handler: l.day.Handler, Handlers: handlers(c, r), School: n.School,
		Care: r.file.Risk.Care, Precautions: r.file.Precautions, Asks: askChoices(before.Plan, r), Cards: []Card{},
		Address: r.horse.Yard.Address, Told: told, Arousals: arousals(), Signs: horse.Sign{}.All(), Stops: horse.Stop{}.All(),
	}
	view.Feels = feels()
	for _, w := range (horse.WayOut{}).All() {
		view.WaysOut = append(view.WaysOut, WayOut{Word: w, Danger: horse.Dangerous(w)})
	}
	if !slices.ContainsFunc(view.Handlers, func(h HandlerChoice) bool { return h.ID == view.Handler }) {
		names, err := s.userNames(ctx, c)
		if err != nil {
			return Arena{}, err
		}
		view.Handlers = append(view.Handlers, HandlerChoice{ID: view.Handler, Name: names[view.Handler]})
	}
	for _, ch := range view.Asks {
		view.Cards = append(view.Cards, card(before, ch.Ask.Step))
	}
	view.Contacts, err = s.contacts(ctx, c, r)
	return view, err
}

func card(f casefile.File, key string) Card {
	c := f.Catalog()
	step, _ := c.Step(key)
	ladder, _ := c.Ladder(step.Ladder)
	school := f.SchoolOf(step.Ladder)
	method, _ := c.Methods.Method(school)
	card := Card{
		Key: key, Name: step.Name, Ladder: ladder.Name, School: school, Works: method.Works, Foundation: ladder.Kind == catalog.Foundation, Ask: step.Ask,
		Release: step.Release, Watch: step.Watch, Pass: step.Pass.Text, Measures: step.Measures, Unit: step.Pass.Unit,
		Values: append([]int{}, step.Pass.Values...), Variants: []CardVariant{},
	}
	if school == horse.ReliefPlace {
		card.Places = arena.PlacesOf(ladder)
	}
	for _, v := range step.Variants {
		card.Variants = append(card.Variants, CardVariant{Variant: v, Side: v.Side, Name: phrase.Of("variant", phrase.Args{"words": phrase.Sided(v.String())})})
	}
	return card
}

// contacts lists whom to call, those with a number: vets, owners, the yard.
func (s *Server) contacts(ctx context.Context, c caller, r reading) ([]Contact, error) {
	people, err := s.Store.People(ctx, c.Practice)
	list := []Contact{}
	for _, p := range people {
		if p.Kind == "vet" && p.Phone != "" {
			list = append(list, Contact{What: "vet", Name: p.Name, Phone: p.Phone})
		}
	}
	for _, o := range r.horse.Owners {
		if o.Phone != "" {
			list = append(list, Contact{What: "owner", Name: o.Name, Phone: o.Phone})
		}
	}
	if y := r.horse.Yard; y.Phone != "" {
		list = append(list, Contact{What: "yard", Name: y.Name, Phone: y.Phone})
	}
	return list, err
}
