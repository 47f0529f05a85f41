package sessions

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"hash/maphash"
	"slices"
	"sync"

	lru "github.com/hashicorp/golang-lru/v2"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/desk"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Arena is all that the arena shows of a session: what stood before it, how it
// began, and its track.
type Arena struct {
	Stage
	ID        string                `json:"id"`
	Weather   string                `json:"weather,omitempty"`
	DaysOff   int                   `json:"days_off"`
	Date      string                `json:"date" format:"date"`
	Handlers  []cases.HandlerChoice `json:"handlers"`
	Beginning arena.Beginning       `json:"beginning"`
	Rules     catalog.HouseRules    `json:"rules" doc:"as the session pinned them"`
	Words     phrase.Words          `json:"words"`
	Track     []track.Entry         `json:"track" doc:"all that is kept of it, in its order"`
	Told      arena.Picture         `json:"told"`
	Now       int64                 `json:"now" doc:"the server's clock, ms"`
}

// Logged is the answer to entries that were sent.
type Logged struct {
	Refused []api.RefusedEntry `json:"refused" doc:"entries that can't be kept, and why; all others are kept"`
	Told    arena.Picture      `json:"told"`
}

type logInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		SentAt  int64       `json:"sent_at" minimum:"0" maximum:"7258118400000" doc:"the device's clock as it sends, ms"`
		Entries []sentEntry `json:"entries" minItems:"1" maxItems:"200"`
		Quiet   bool        `json:"quiet,omitempty" doc:"the device reads the track itself: no beads are told back"`
	}
}

// arenas keeps what advising the running sessions needs, so that one more rep
// costs one more insert. All of it can be read again from the store. The locks
// order the writes to a track and outlive what is kept of it; two sessions may
// share one.
type arenas struct {
	live  *lru.Cache[string, *liveArena]
	locks [256]sync.Mutex
	seed  maphash.Seed
}

// liveArena is one session in work.
type liveArena struct {
	running *arena.Running // nil: not read yet
	cat     *catalog.Catalog
	stage   Stage
	session store.Session
	track   []store.Kept // as it was read
}

const maxArenas = 64

func newArenas() *arenas {
	live, err := lru.New[string, *liveArena](maxArenas)
	if err != nil {
		panic(err) // the size is above 0
	}
	return &arenas{live: live, seed: maphash.MakeSeed()}
}

// of locks a session and gives what is kept of it; the session is the caller's
// until it unlocks.
func (a *arenas) of(practice, session string) (l *liveArena, unlock func()) {
	key := practice + session
	lock := &a.locks[maphash.String(a.seed, key)%uint64(len(a.locks))]
	lock.Lock()
	l, there := a.live.Get(key)
	if !there {
		l = &liveArena{}
		a.live.Add(key, l)
	}
	return l, lock.Unlock
}

func (a *arenas) forget() { a.live.Purge() }

// fill reads what the session's advice needs, once, as it was at one moment.
// An entry over which the rules break off is left out.
func (s *Service) fill(ctx context.Context, c api.Caller, l *liveArena, session string) error {
	if l.running != nil {
		return nil
	}
	err := c.AtOneMoment(ctx, func(c api.Caller) error {
		n, err := c.View.Session(ctx, c.Practice, session)
		if err != nil {
			return err
		}
		l.session = n
		if l.track, _, err = c.View.Track(ctx, c.Practice, session); err != nil {
			return err
		}
		l.stage, err = s.stageOf(ctx, c, n, l.track)
		return err
	})
	if err != nil {
		return err
	}
	if l.cat, err = s.Pinned(l.session.Rules).Fit(l.stage.Brief.Fitting); err != nil {
		return err
	}
	open := func(entries []store.Kept) (r *arena.Running, err error) {
		err = api.Guarded(func() error {
			r, err = desk.Open(l.cat, desk.Opening{Brief: l.stage.Brief, Beginning: beginning(l.session), Rules: l.session.Rules, Track: store.Entries(entries)})
			return err
		})
		return r, err
	}
	for range cases.MostUnread {
		if l.running, err = open(l.track); !api.IsBroken(err) {
			return err
		}
		s.Log.ErrorContext(ctx, "an entry can't be read", "session", session, "error", err.Error())
		i := cases.Culprit(len(l.track), func(n int) bool {
			_, err := open(l.track[:n])
			return !api.IsBroken(err)
		})
		if i < 0 {
			return err
		}
		l.track = slices.Delete(slices.Clone(l.track), i, i+1)
	}
	return err
}

// beginning is how a session was begun.
func beginning(n store.Session) arena.Beginning {
	return arena.Beginning{Ask: n.Begins, School: n.School, Started: n.StartedAt, Core: n.Core, Handler: cmp.Or(n.Handler, n.StartedBy), Readiness: n.Readiness}
}

// tellArena advises on the track as it stands.
func (s *Service) tellArena(c api.Caller, l *liveArena) arena.Picture {
	return l.running.Picture(c.Now.UnixMilli())
}

func (s *Service) log(ctx context.Context, c api.Caller, in *logInput) (Logged, error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return Logged{}, err
	}
	if n := len(in.Body.Entries); n < 1 || n > maxEntries || in.Body.SentAt < 0 || in.Body.SentAt > track.LastInstant {
		return Logged{}, api.Faulty(api.FieldProblem{Field: "entries", Say: fmt.Sprintf("Send from 1 to %d entries, and sent_at as milliseconds since 1970.", maxEntries)})
	}
	out := Logged{Refused: []api.RefusedEntry{}}
	good := make([]track.Entry, 0, len(in.Body.Entries))
	cat := l.running.Catalog()
	for i, sent := range in.Body.Entries {
		e, err := readEntry(s.Huma.OpenAPI().Components.Schemas, sent)
		if err == nil {
			err = mayLog(c, e, cat)
		}
		if err != nil {
			say := err.Error() + "."
			if e.ID == "" {
				say = fmt.Sprintf("Entry %d: %s", i+1, say)
			}
			out.Refused = append(out.Refused, api.RefusedEntry{ID: e.ID, Say: say})
			continue
		}
		cat = cat.WithOwn(track.Own([]track.Entry{e})...)
		e.Device = cmp.Or(e.Device, "unnamed")
		good = append(good, e)
	}
	kept, refused, err := s.Store.Append(ctx, c.Actor(), in.ID, in.Body.SentAt, good)
	if err != nil {
		l.running = nil
		return Logged{}, err
	}
	fresh := make([]track.Entry, 0, len(kept))
	for i, e := range kept {
		switch {
		case errors.Is(refused[i], store.ErrOther):
			out.Refused = append(out.Refused, api.RefusedEntry{ID: e.ID, Say: "This id is kept already with other content. Both stay; reload to see what is kept."})
		case errors.Is(refused[i], store.ErrRefused):
			s.Log.ErrorContext(ctx, "an entry is not taken by the database", "session", in.ID, "entry", e.ID, "error", refused[i].Error())
			out.Refused = append(out.Refused, api.RefusedEntry{ID: e.ID, Say: "The server can't keep this entry as it is. It stays on this device; log it again in other words."})
		case refused[i] != nil:
			l.running = nil
			return Logged{}, refused[i]
		default:
			fresh = append(fresh, e)
		}
	}
	if slices.ContainsFunc(fresh, func(e track.Entry) bool { return e.Mark != nil && e.Mark.Plan > 0 }) {
		l.running = nil // it is worked by another plan from here on
		if err := s.fill(ctx, c, l, in.ID); err != nil {
			return Logged{}, err
		}
	}
	if err := api.Guarded(func() error {
		l.running.Add(fresh...)
		out.Told = s.tellArena(c, l)
		return nil
	}); err != nil { // they are kept; what the rules can't read of them is left out
		l.running = nil
		if err := s.fill(ctx, c, l, in.ID); err != nil {
			return Logged{}, err
		}
		out.Told = s.tellArena(c, l)
	}
	if in.Body.Quiet {
		out.Told.Beads = nil
	}
	return out, nil
}

// mayLog says why an entry can't be kept of this user, or nil.
func mayLog(c api.Caller, e track.Entry, cat *catalog.Catalog) error {
	if err := e.Check(cat); err != nil {
		return err
	}
	if e.Mark != nil && e.Mark.Despite != nil && c.Role != store.Lead {
		return errors.New("only a lead trainer answers for what is asked against a fact or after a danger")
	}
	if _, flags := e.Ways(); slices.Contains(flags, horse.RearCleared) && c.Role != store.Lead {
		return errors.New("only a lead trainer can say of a rear that it was no danger")
	}
	return nil
}

// asks lists all asks that can be chosen in a session, and the cards that answer
// them.
func (s *Service) asks(ctx context.Context, c api.Caller, in *api.ByID) (desk.Chosen, error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return desk.Chosen{}, err
	}
	return desk.ChosenOf(l.running, l.stage.Brief.Fitting.Ladders), nil
}

func (s *Service) arena(ctx context.Context, c api.Caller, in *api.ByID) (Arena, error) {
	l, unlock := s.arenas.of(c.Practice, in.ID)
	defer unlock()
	l.running = nil // read it again: another device may have written
	if err := s.fill(ctx, c, l, in.ID); err != nil {
		return Arena{}, err
	}
	n := l.session
	view := Arena{
		Stage: l.stage, ID: n.ID, Weather: n.Readiness.Weather, DaysOff: l.stage.Brief.DaysOff(n.Date), Date: n.Date, Beginning: beginning(n),
		Rules: n.Rules, Words: c.Home.Words, Track: store.Entries(l.track), Told: s.tellArena(c, l), Now: c.Now.UnixMilli(),
		Handlers: cases.Holders(c, l.stage.Owners),
	}
	if h := view.Beginning.Handler; !slices.ContainsFunc(view.Handlers, func(o cases.HandlerChoice) bool { return o.ID == h }) {
		names, err := s.UserNames(ctx, c)
		if err != nil {
			return Arena{}, err
		}
		view.Handlers = append(view.Handlers, cases.HandlerChoice{ID: h, Name: names[h]})
	}
	return view, nil
}
