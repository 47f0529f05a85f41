package visits

import (
	"bytes"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"ivorybridge/core/diary"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/calendar"
	"ivorybridge/server/limits"
	"ivorybridge/store"
)

func (s *Service) feedOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/feeds", "feeds", "The calendars that were made", s.feeds)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/feeds", "makeFeed", "Make a calendar of the caller's diary, or of a person's own horses", s.makeFeed)
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/feeds/{id}", "switchFeedOff", "Switch a calendar off", s.switchFeedOff)
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/busy", "setBusy", "Take a calendar's times in as taken", s.setBusy)
	huma.Register(s.Huma, s.Describe(api.Anybody, http.MethodGet, "/api/calendar/{token}", "calendar", "A calendar, for whoever has its address"), s.calendar)
	huma.Register(s.Huma, s.Describe(api.Staff, http.MethodGet, "/api/visits/{id}/visit.ics", "visitICS", "One visit, for another calendar"), s.visitICS)
}

// Feed is a calendar that another reads.
type Feed struct {
	ID     string `json:"id"`
	Mine   bool   `json:"mine,omitempty" doc:"it is the caller's diary"`
	Name   string `json:"name" doc:"whose it is"`
	Person string `json:"person,omitempty" doc:"id, of a person's own horses"`
	MadeAt int64  `json:"made_at" doc:"ms"`
	OffAt  int64  `json:"off_at,omitempty" doc:"ms"`
	ReadAt int64  `json:"read_at,omitempty" doc:"when it was read last, ms"`
	Path   string `json:"path,omitempty" doc:"its address, told once, as it is made"`
}

func (s *Service) feeds(ctx context.Context, c api.Caller, _ *struct{}) ([]Feed, error) {
	kept, err := c.View.Feeds(ctx, c.Practice)
	list := []Feed{}
	for _, f := range kept {
		if f.User == "" || f.User == c.ID { // another's diary is theirs to switch off
			list = append(list, Feed{ID: f.ID, Mine: f.User == c.ID, Name: f.Name, Person: f.Person, MadeAt: f.MadeAt, OffAt: f.OffAt, ReadAt: f.ReadAt})
		}
	}
	return list, err
}

type feedInput struct {
	Body struct {
		Person string `json:"person,omitempty" maxLength:"36" doc:"id of whose horses; empty: the caller's own diary"`
	}
}

func (s *Service) makeFeed(ctx context.Context, c api.Caller, in *feedInput) (Feed, error) {
	f := store.Feed{ID: uuid.NewString(), Person: in.Body.Person}
	if f.Person == "" {
		f.User = c.ID
	}
	token := rand.Text()
	if err := s.Store.AddFeed(ctx, c.Actor(), f, api.TokenHash(token)); err != nil {
		return Feed{}, err
	}
	return Feed{ID: f.ID, Mine: f.User != "", Person: f.Person, MadeAt: c.Now.UnixMilli(), Path: "/api/calendar/" + token + ".ics"}, nil
}

func (s *Service) switchFeedOff(ctx context.Context, c api.Caller, in *api.ByID) ([]Feed, error) {
	kept, err := c.View.Feeds(ctx, c.Practice)
	if err != nil {
		return nil, err
	}
	if !slices.ContainsFunc(kept, func(f store.Feed) bool { return f.ID == in.ID && (f.User == "" || f.User == c.ID) }) {
		return nil, store.ErrNotFound
	}
	if err := s.Store.SwitchFeedOff(ctx, c.Actor(), in.ID); err != nil {
		return nil, err
	}
	return s.feeds(ctx, c, nil)
}

// ICS is a calendar as it is sent.
type ICS struct {
	Type   string `header:"Content-Type"`
	File   string `header:"Content-Disposition"`
	Cache  string `header:"Cache-Control"`
	Robots string `header:"X-Robots-Tag"`
	Body   []byte
}

func sentICS(name, file string, events []calendar.Event) (*ICS, error) {
	var out bytes.Buffer
	if err := calendar.Write(&out, name, events); err != nil {
		return nil, err
	}
	return &ICS{Type: "text/calendar; charset=utf-8", File: fmt.Sprintf("attachment; filename=%q", file), Cache: "private, no-store", Robots: "noindex, nofollow", Body: out.Bytes()}, nil
}

type calendarInput struct {
	Token string `path:"token" maxLength:"80"`
}

// Of one place so many addresses that show nothing are looked at, and one more after each
// period.
var wrongTokens = limits.Limit{Burst: 30, Period: 10 * time.Second}

// A feed shows so many days that have passed, and so many to come.
const (
	feedBack    = 60
	feedAhead   = 400
	practiceFor = 14 // days of practice at home that are shown ahead
)

// calendar answers whoever has a feed's address: one that shows nothing, or nothing any
// more, is not there.
func (s *Service) calendar(ctx context.Context, in *calendarInput) (*ICS, error) {
	now := s.Now()
	var home store.Practice
	feed, err := limits.Find(ctx, s.limits, now, wrongTokens.Of("calendar", api.PlaceOf(ctx)), func() (f store.Feed, err error) {
		f, home, err = s.Store.FeedOf(ctx, api.TokenHash(strings.TrimSuffix(in.Token, ".ics")))
		return f, err
	})
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	c := api.Caller{Home: home, Now: now, Book: phrase.English(home.Words), View: s.Store.View}
	c.Practice, c.ID, c.Role = home.ID, feed.User, store.Assistant
	var events []calendar.Event
	err = c.AtOneMoment(ctx, func(c api.Caller) (err error) {
		if feed.Person != "" {
			events, err = s.ownersEvents(ctx, c, feed.Person)
		} else {
			events, err = s.trainersEvents(ctx, c)
		}
		return err
	})
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	if err := s.Store.FeedWasRead(ctx, home.ID, feed.ID, now.UnixMilli()); err != nil {
		return nil, s.Problem(ctx, err)
	}
	return sentICS(home.Name, "diary.ics", events)
}

func (s *Service) trainersEvents(ctx context.Context, c api.Caller) ([]calendar.Event, error) {
	since, until := horse.DayAfter(c.Today(), -feedBack), horse.DayAfter(c.Today(), feedAhead)
	visits, err := c.View.Visits(ctx, c.Practice, since, until)
	if err != nil {
		return nil, err
	}
	var events []calendar.Event
	for _, v := range visits {
		if v.Who.ID == c.ID {
			events = append(events, s.eventOf(c, v, false))
		}
	}
	beside, err := c.View.BesideVisits(ctx, c.Practice, since, until)
	if err != nil {
		return nil, err
	}
	dues, err := s.due(ctx, c)
	if err != nil {
		return nil, err
	}
	for _, d := range append(slices.Clip(dues), deadlines(beside.Deadlines)...) {
		events = append(events, dueEvent(c, d))
	}
	return events, nil
}

// ownersEvents are what an owner's calendar shows: the visits that are agreed, the day by
// which it is needed, and the practice at home that is cleared; of the owner's own horses
// alone.
func (s *Service) ownersEvents(ctx context.Context, c api.Caller, person string) ([]calendar.Event, error) {
	ids, err := c.View.HorsesOf(ctx, c.Practice, person)
	if err != nil {
		return nil, err
	}
	var events []calendar.Event
	for _, id := range ids {
		visits, err := c.View.VisitsOf(ctx, c.Practice, id, horse.DayAfter(c.Today(), -feedBack))
		if err != nil {
			return nil, err
		}
		h, err := c.View.HorseAsKept(ctx, c.Practice, id)
		if err != nil {
			return nil, err
		}
		for _, v := range visits {
			if v.Agreed || v.Cancelled != "" {
				v.Horses = []store.Named{{ID: id, Name: h.Name}}
				events = append(events, s.eventOf(c, v, true))
			}
		}
		more, err := s.ownersOther(ctx, c, id, person)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			s.Log.WarnContext(ctx, "a horse of a calendar can't be read", "horse", id, "error", err.Error())
		}
		events = append(events, more...)
	}
	return events, nil
}

func (s *Service) ownersOther(ctx context.Context, c api.Caller, id, person string) (events []calendar.Event, err error) {
	err = api.Guarded(func() error {
		r, err := s.Newest(ctx, c, id)
		if err != nil || r.Case.FinishedOn != "" {
			return err
		}
		if r.Case.NeededBy != "" {
			events = append(events, dueEvent(c, Due{Kind: string(diary.Deadline), Horse: id, Name: r.Horse.Name, On: r.Case.NeededBy, Says: phrase.Of("due.deadline", phrase.Args{"goal": r.Case.Goal})}))
		}
		var steps []string
		for _, h := range r.File.Plan().Homework {
			if h.Person == person {
				steps = append(steps, h.Name)
			}
		}
		if len(steps) == 0 {
			return nil
		}
		for n := range practiceFor {
			on := horse.DayAfter(c.Today(), n)
			events = append(events, calendar.Event{
				UID: "practice-" + id + "-" + on + "@ivory-bridge", Stamp: c.Now, Day: on,
				Title: c.Book.Say(phrase.Of("calendar.practice", phrase.Args{"horse": r.Horse.Name})), Text: strings.Join(steps, ", "),
			})
		}
		return nil
	})
	return events, err
}

// eventOf is a visit as a calendar shows it; to an owner without the trainer's aim.
func (s *Service) eventOf(c api.Caller, v store.Visit, owner bool) calendar.Event {
	var names []string
	for _, h := range v.Horses {
		names = append(names, h.Name)
	}
	key := "calendar.visit"
	switch {
	case owner:
		key = "calendar.visit.owner"
	case !v.Agreed:
		key = "calendar.visit.pencil"
	}
	e := calendar.Event{
		UID: "visit-" + v.ID + "@ivory-bridge", Seq: int(v.Version), Stamp: c.Now, Place: v.Yard.Name, Cancelled: v.Cancelled != "",
		Title: c.Book.Say(phrase.Of(key, phrase.Args{"horses": strings.Join(names, ", "), "who": c.Home.Name})), Text: v.Cancelled,
	}
	if !owner && e.Text == "" {
		e.Text = v.Aim
	}
	if v.At == nil {
		e.Day = v.On
		return e
	}
	start, err := diary.Instant(v.On, *v.At, s.located(v.Zone))
	if err != nil {
		e.Day = v.On // its zone's rules have changed since
		return e
	}
	e.Start, e.End = start, start.Add(time.Duration(v.Minutes)*time.Minute)
	return e
}

func dueEvent(c api.Caller, d Due) calendar.Event {
	return calendar.Event{
		UID: strings.Join([]string{d.Kind, d.Horse, d.On}, "-") + "@ivory-bridge", Stamp: c.Now, Day: d.On, Title: d.Name + ": " + c.Book.Say(d.Says),
	}
}

func (s *Service) visitICS(ctx context.Context, in *api.ByID) (*ICS, error) {
	c := api.CallerOf(ctx)
	v, err := s.Store.Visit(ctx, c.Practice, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	return sentICS(c.Home.Name, "visit.ics", []calendar.Event{s.eventOf(c, v, true)})
}

type busyInput struct {
	Body struct {
		Text string `json:"text" maxLength:"200000" doc:"an iCalendar; empty: nothing is taken any more"`
	}
}

// BusyTaken says what was taken in.
type BusyTaken struct {
	Times int `json:"times" doc:"from today, for a year"`
}

func (s *Service) setBusy(ctx context.Context, c api.Caller, in *busyInput) (BusyTaken, error) {
	var list []store.Busy
	if strings.TrimSpace(in.Body.Text) != "" {
		since := c.Now.Add(-24 * time.Hour)
		taken, err := calendar.Read(strings.NewReader(in.Body.Text), s.located(c.Home.Zone), since, since.AddDate(1, 0, 0))
		if err != nil {
			return BusyTaken{}, api.Faulty(api.FieldProblem{Field: "text", Say: "This can't be read as a calendar: " + err.Error() + ". Save it again from the other calendar, or paste its whole text."})
		}
		for _, t := range taken {
			list = append(list, store.Busy{User: c.ID, From: t.From.UnixMilli(), To: t.To.UnixMilli(), What: api.Clip(t.What, 200)})
		}
	}
	return BusyTaken{len(list)}, s.Store.SetBusy(ctx, c.Actor(), list)
}
