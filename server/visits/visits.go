// Package visits answers for the diary: visits that are agreed or proposed, what is
// due, a day's run sheet, and the roads between yards.
package visits

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	lru "github.com/hashicorp/golang-lru/v2"

	"ivorybridge/core/diary"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

// Service answers for the diary.
type Service struct {
	*cases.Reader
	dues  *lru.Cache[dueKey, []Due]
	zones *lru.Cache[string, *time.Location]

	limits *limits.Limits
}

// mostDues is of how many horses what is due is remembered.
const mostDues = 4096

// mostZones is how many time zones are remembered.
const mostZones = 64

// New registers what can be asked of the diary.
func New(r *cases.Reader) *Service {
	dues, err := lru.New[dueKey, []Due](mostDues)
	zones, also := lru.New[string, *time.Location](mostZones)
	if err := errors.Join(err, also); err != nil {
		panic(err) // the sizes are above 0
	}
	s := &Service{r, dues, zones, limits.New(r.Store)}
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/diary", "diary", "The diary from one day to another", api.AtOnce(s.diary))
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/visits", "addVisit", "Put a visit in the diary", s.add)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/visits/{id}", "changeVisit", "Move or change a visit", s.change)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/visits/{id}/cancel", "cancelVisit", "Cancel a visit, with the reason", s.cancel)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/visits/{id}/tell", "tellVisit", "Who is to be told of a visit, each with the message", s.tell)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/visits", "horseVisits", "A horse's visits from today, and the day proposed for the next", api.AtOnce(s.ofHorse))
	s.dayOperations()
	s.roadOperations()
	s.feedOperations()
	return s
}

// Booked is a visit in the diary.
type Booked struct {
	ID        string           `json:"id"`
	Horses    []cases.HorseRef `json:"horses"`
	Yard      string           `json:"yard,omitempty" doc:"id"`
	YardName  string           `json:"yard_name,omitempty"`
	Who       string           `json:"who" doc:"id"`
	WhoName   string           `json:"who_name"`
	On        string           `json:"on" format:"date"`
	At        string           `json:"at,omitempty" doc:"08:40, by the clocks of the yard; absent: no time yet"`
	Minutes   int              `json:"minutes"`
	Zone      string           `json:"zone"`
	Aim       string           `json:"aim,omitempty"`
	Agreed    bool             `json:"agreed" doc:"in ink; else proposed, in pencil"`
	Cancelled string           `json:"cancelled,omitempty" doc:"why"`
	Version   int64            `json:"version"`
}

func told(v store.Visit) Booked {
	one := Booked{
		ID: v.ID, Horses: []cases.HorseRef{}, Yard: v.Yard.ID, YardName: v.Yard.Name, Who: v.Who.ID, WhoName: v.Who.Name, On: v.On, Minutes: v.Minutes,
		Zone: v.Zone, Aim: v.Aim, Agreed: v.Agreed, Cancelled: v.Cancelled, Version: v.Version,
	}
	if v.At != nil {
		one.At = v.At.String()
	}
	for _, h := range v.Horses {
		one.Horses = append(one.Horses, cases.HorseRef(h))
	}
	return one
}

// VisitText is what is written down of a visit.
type VisitText struct {
	Horses  []string `json:"horses" minItems:"1" maxItems:"12" doc:"ids"`
	Yard    string   `json:"yard,omitempty" maxLength:"36" doc:"id; empty: where its first horse stands"`
	Who     string   `json:"who,omitempty" maxLength:"36" doc:"id; empty: the caller"`
	On      string   `json:"on" maxLength:"10"`
	At      string   `json:"at,omitempty" maxLength:"5" doc:"08:40; empty: no time yet"`
	Minutes int      `json:"minutes" minimum:"5" maximum:"600"`
	Aim     string   `json:"aim,omitempty" maxLength:"300"`
	Agreed  bool     `json:"agreed"`
}

type visitInput struct{ Body VisitText }

type visitChange struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		VisitText
		Version int64 `json:"version" minimum:"1"`
	}
}

// VisitKept is a visit as it is kept, and what it clashes with.
type VisitKept struct {
	Visit   Booked        `json:"visit"`
	Clashes []diary.Clash `json:"clashes" doc:"shown, never moved"`
}

func (s *Service) add(ctx context.Context, c api.Caller, in *visitInput) (VisitKept, error) {
	v, err := s.checked(ctx, c, in.Body)
	if err != nil {
		return VisitKept{}, err
	}
	v.ID = uuid.NewString()
	if err := s.Store.AddVisit(ctx, c.Actor(), v); err != nil {
		return VisitKept{}, err
	}
	return s.kept(ctx, c, v.ID)
}

func (s *Service) change(ctx context.Context, c api.Caller, in *visitChange) (VisitKept, error) {
	before, err := c.View.Visit(ctx, c.Practice, in.ID)
	if err != nil {
		return VisitKept{}, err
	}
	v, err := s.checked(ctx, c, in.Body.VisitText)
	if err != nil {
		return VisitKept{}, err
	}
	v.ID, v.Version = in.ID, in.Body.Version
	if before.On == v.On {
		v.Place = before.Place
	}
	if err := s.Store.ChangeVisit(ctx, c.Actor(), v); err != nil {
		return VisitKept{}, api.Stale(err, func(now any) Booked { return told(now.(store.Visit)) })
	}
	return s.kept(ctx, c, in.ID)
}

// kept is a visit as it is kept now, with what it clashes with.
func (s *Service) kept(ctx context.Context, c api.Caller, id string) (VisitKept, error) {
	v, err := c.View.Visit(ctx, c.Practice, id)
	if err != nil {
		return VisitKept{}, err
	}
	day, err := c.View.Visits(ctx, c.Practice, horse.DayAfter(v.On, -1), horse.DayAfter(v.On, 1))
	if err != nil {
		return VisitKept{}, err
	}
	_, roads, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return VisitKept{}, err
	}
	busy, err := s.busy(ctx, c, horse.DayAfter(v.On, -1), horse.DayAfter(v.On, 1))
	if err != nil {
		return VisitKept{}, err
	}
	k := VisitKept{Visit: told(v), Clashes: diary.Clashes(s.bookings(day, busy), roads)}
	k.Clashes = slices.DeleteFunc(k.Clashes, func(x diary.Clash) bool { return x.A != id && x.B != id })
	return k, nil
}

// checked is a visit as it was written, or what is wrong with it, field by field.
func (s *Service) checked(ctx context.Context, c api.Caller, t VisitText) (store.Visit, error) {
	v := store.Visit{On: t.On, Minutes: t.Minutes, Aim: strings.TrimSpace(t.Aim), Agreed: t.Agreed, Who: store.Named{ID: cmp.Or(t.Who, c.ID)}, Yard: store.Named{ID: t.Yard}}
	var wrong []api.FieldProblem
	say := func(field, text string) { wrong = append(wrong, api.FieldProblem{Field: field, Say: text}) }
	for _, id := range t.Horses {
		h, err := c.View.HorseAsKept(ctx, c.Practice, id)
		if errors.Is(err, store.ErrNotFound) {
			say("horses", "One of these horses is not here. Choose another.")
			continue
		}
		if err != nil {
			return v, err
		}
		if t.Yard == "" && v.Yard.ID == "" {
			v.Yard.ID = h.YardID
		}
		v.Horses = append(v.Horses, store.Named{ID: id})
	}
	users, err := c.View.Users(ctx, c.Practice)
	if err != nil {
		return v, err
	}
	if !slices.ContainsFunc(users, func(u store.User) bool {
		return u.ID == v.Who.ID && u.Active && (u.Role == store.Lead || u.Role == store.Assistant)
	}) {
		say("who", "This person can't do a visit. Choose another.")
	}
	v.Zone, err = s.zoneOf(ctx, c, v.Yard.ID)
	if err != nil {
		return v, err
	}
	if _, dated := horse.DayNumber(v.On); !dated {
		wrong = append(wrong, api.NoDate("on"))
	}
	if t.At != "" {
		at, err := diary.ParseClock(t.At)
		if err != nil {
			say("at", "This is not a time. Write it as 08:40, or leave it empty.")
		} else if text := s.never(v, at); text != "" {
			say("at", text)
		}
		v.At = &at
	}
	if len(wrong) > 0 {
		return v, api.Faulty(wrong...)
	}
	return v, nil
}

// never says that no clock shows a time on that day; empty: one does.
func (s *Service) never(v store.Visit, at diary.Clock) string {
	_, err := diary.Instant(v.On, at, s.located(v.Zone))
	var gap *diary.GapError
	if !errors.As(err, &gap) {
		return ""
	}
	return fmt.Sprintf("There is no %s that day: the clocks go forward. Take %s.", gap.At, gap.Then)
}

// busy lists the times that are taken otherwise from one day to another, by the
// practice's clocks.
func (s *Service) busy(ctx context.Context, c api.Caller, since, until string) ([]store.Busy, error) {
	in := s.located(c.Home.Zone)
	from, err := diary.Instant(since, 0, in)
	if err != nil {
		return nil, nil // a day without a midnight: it has no visits before one either
	}
	to, err := time.ParseInLocation(time.DateOnly, horse.DayAfter(until, 1), in)
	if err != nil {
		return nil, err
	}
	return c.View.BusyBetween(ctx, c.Practice, from.UnixMilli(), to.UnixMilli())
}

// zoneOf is by whose clocks a yard lives: its own, else the practice's.
func (s *Service) zoneOf(ctx context.Context, c api.Caller, yard string) (string, error) {
	yards, _, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return "", err
	}
	for _, y := range yards {
		if y.ID == yard {
			return cmp.Or(y.Zone, c.Home.Zone), nil
		}
	}
	return c.Home.Zone, nil
}

// located is a zone by its name; one that this machine does not know counts as UTC. It
// is read once.
func (s *Service) located(zone string) *time.Location {
	if in, ok := s.zones.Get(zone); ok {
		return in
	}
	in, err := time.LoadLocation(zone)
	if err != nil {
		in = time.UTC
	}
	s.zones.Add(zone, in)
	return in
}

// bookings are the visits that have a time, and the times that are taken otherwise, as
// clashes see them.
func (s *Service) bookings(visits []store.Visit, busy []store.Busy) []diary.Booking {
	var list []diary.Booking
	for i, b := range busy {
		list = append(list, diary.Booking{ID: fmt.Sprintf("busy %d", i), Who: b.User, Busy: true, Start: time.UnixMilli(b.From), End: time.UnixMilli(b.To)})
	}
	for _, v := range visits {
		if v.At == nil || v.Cancelled != "" {
			continue
		}
		start, err := diary.Instant(v.On, *v.At, s.located(v.Zone))
		if err != nil {
			continue // its zone's rules have changed since; the diary shows it without a clash
		}
		b := diary.Booking{ID: v.ID, Who: v.Who.ID, Yard: v.Yard.ID, Start: start, End: start.Add(time.Duration(v.Minutes) * time.Minute)}
		for _, h := range v.Horses {
			b.Horses = append(b.Horses, h.ID)
		}
		list = append(list, b)
	}
	return list
}

// OfHorse are a horse's visits from today, and what is proposed.
type OfHorse struct {
	Visits   []Booked       `json:"visits"`
	Proposal diary.Proposal `json:"proposal"`
	Minutes  int            `json:"minutes" doc:"as long as the plan's next visit takes"`
	Aim      string         `json:"aim,omitempty" doc:"what the plan's next visit is for"`
	Yard     string         `json:"yard,omitempty"`
}

func (s *Service) ofHorse(ctx context.Context, c api.Caller, in *api.ByID) (OfHorse, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return OfHorse{}, err
	}
	view := OfHorse{Visits: []Booked{}, Yard: r.Horse.Yard.Name, Minutes: r.Choices().Length()}
	visits, err := c.View.VisitsOf(ctx, c.Practice, in.ID, c.Today())
	if err != nil {
		return OfHorse{}, err
	}
	for _, v := range visits {
		view.Visits = append(view.Visits, told(v))
	}
	if planned := r.File.Plan().Visits; len(planned) > 0 {
		view.Minutes, view.Aim = planned[0].Minutes, aimOf(planned[0])
	}
	asked, err := s.Asked(ctx, c, r)
	if err != nil {
		return OfHorse{}, err
	}
	begins, err := c.View.DayBegins(ctx, c.Practice, c.ID)
	if err != nil {
		return OfHorse{}, err
	}
	booked, err := c.View.Visits(ctx, c.Practice, c.Today(), horse.DayAfter(c.Today(), 14))
	if err != nil {
		return OfHorse{}, err
	}
	after := diary.After{
		Asked: asked, Last: r.History.LastWorked(), Today: c.Today(), Yard: r.Horse.YardID, Rounds: begins.Rounds, Busy: map[string][]diary.Booked{},
		Young: r.Horse.Record.Young(c.Today()), Needed: r.Case.NeededBy, Home: len(r.File.Plan().Homework) > 0,
	}
	for _, v := range booked {
		own := slices.ContainsFunc(v.Horses, func(h store.Named) bool { return h.ID == in.ID })
		if v.Cancelled == "" && (own || v.Who.ID == c.ID) {
			after.Busy[v.On] = append(after.Busy[v.On], diary.Booked{Yard: v.Yard.ID, Own: own})
		}
	}
	view.Proposal = diary.Propose(after)
	return view, nil
}
