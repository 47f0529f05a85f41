package visits

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"ivorybridge/core/diary"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

func (s *Service) dayOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/day", "day", "The run sheet of a day", api.AtOnce(s.day))
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/day/order", "orderDay", "Put a day's visits in an order by hand", s.order)
}

type dayInput struct {
	On string `query:"on" maxLength:"10" doc:"the day; empty: today"`
}

// Sheet is a day's run sheet.
type Sheet struct {
	On      string         `json:"on" format:"date"`
	Today   string         `json:"today" format:"date"`
	Base    string         `json:"base,omitempty" doc:"name of the yard from which the day begins"`
	Stops   []Stop         `json:"stops" doc:"in driving order"`
	Driving int            `json:"driving" doc:"minutes"`
	Back    string         `json:"back,omitempty" doc:"when the day is home"`
	Home    int            `json:"home" doc:"minutes of the way home"`
	Late    int            `json:"late,omitempty" doc:"minutes, where no order keeps all times"`
	Guessed bool           `json:"guessed,omitempty" doc:"a drive that nobody typed is counted as half an hour"`
	Proven  bool           `json:"proven" doc:"there is no better order"`
	ByHand  bool           `json:"by_hand,omitempty" doc:"the order is the trainer's own"`
	Kit     []Thing        `json:"kit" doc:"what goes in the truck"`
	First   []First        `json:"first" doc:"what wants attention before anything"`
	Safety  phrase.Message `json:"safety"`
}

// Stop is one visit of the day.
type Stop struct {
	Visit   Booked `json:"visit"`
	Leave   string `json:"leave" doc:"when to leave for it"`
	Drive   int    `json:"drive" doc:"minutes"`
	Known   bool   `json:"known" doc:"the drive is known"`
	Start   string `json:"start"`
	Spare   int    `json:"spare" doc:"minutes to spare"`
	Late    int    `json:"late,omitempty"`
	Fixed   bool   `json:"fixed" doc:"its time was agreed"`
	Horses  []Seen `json:"horses"`
	Address string `json:"address,omitempty"`
	Phone   string `json:"phone,omitempty" doc:"of the yard"`
	Done    bool   `json:"done,omitempty" doc:"its horse was worked that day"`
}

// Seen is a horse of a stop, with what it is visited for.
type Seen struct {
	ID        string           `json:"id"`
	Name      string           `json:"name"`
	Aim       string           `json:"aim,omitempty"`
	Care      horse.Care       `json:"care,omitzero"`
	Bridge    *progress.Bridge `json:"bridge,omitempty"`
	Forbidden []phrase.Message `json:"forbidden" doc:"what is not done with it"`
	Check     *phrase.Message  `json:"check,omitempty" doc:"what to look at before anything is asked"`
	People    []Holder         `json:"people" doc:"owners, to ring"`
	Helpers   []phrase.Slotted `json:"helpers" doc:"second persons that its steps need"`
	Case      string           `json:"case,omitempty" doc:"id; absent: it has none, or can't be read"`
	Open      string           `json:"open_session,omitempty"`
	Unread    bool             `json:"unread,omitempty" doc:"it can't be read; its page says so"`
}

// Holder is somebody to ring.
type Holder struct {
	Name  string `json:"name"`
	Phone string `json:"phone,omitempty"`
}

// Thing goes in the truck.
type Thing struct {
	Name string `json:"name"`
	For  []int  `json:"for" doc:"numbers of the stops, from 1"`
}

// First is a note that wants attention before the day.
type First struct {
	Horse string         `json:"horse"`
	Name  string         `json:"name"`
	Does  phrase.Message `json:"does"`
	Say   phrase.Message `json:"say"`
}

// mostFirst is how many notes a day begins with.
const mostFirst = 4

func (s *Service) day(ctx context.Context, c api.Caller, in *dayInput) (Sheet, error) {
	on := in.On
	if on == "" {
		on = c.Today()
	}
	if _, dated := horse.DayNumber(on); !dated {
		return Sheet{}, api.Faulty(api.NoDate("on"))
	}
	visits, err := c.View.Visits(ctx, c.Practice, on, on)
	if err != nil {
		return Sheet{}, err
	}
	visits = slices.DeleteFunc(visits, func(v store.Visit) bool { return v.Cancelled != "" || v.Who.ID != c.ID })
	begins, err := c.View.DayBegins(ctx, c.Practice, c.ID)
	if err != nil {
		return Sheet{}, err
	}
	yards, roads, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return Sheet{}, err
	}
	beside, err := c.View.BesideVisits(ctx, c.Practice, on, on)
	if err != nil {
		return Sheet{}, err
	}
	view := Sheet{On: on, Today: c.Today(), Stops: []Stop{}, Kit: []Thing{}, First: []First{}, Safety: phrase.Of("safety.session", nil)}
	for _, y := range yards {
		if y.ID == begins.Base {
			view.Base = y.Name
		}
	}
	sheet := s.run(begins, visits, roads)
	view.Driving, view.Home, view.Late, view.Guessed, view.Proven = sheet.Driving, sheet.Home, sheet.Late, sheet.Guessed, sheet.Proven
	view.ByHand = slices.ContainsFunc(visits, func(v store.Visit) bool { return v.Place > 0 })
	if len(sheet.Legs) > 0 {
		view.Back = clockOf(sheet.Back)
	}
	t := truck{}
	for n, leg := range sheet.Legs {
		i := slices.IndexFunc(visits, func(v store.Visit) bool { return v.ID == leg.Visit })
		v := visits[i]
		stop := Stop{
			Visit: told(v), Leave: clockOf(leg.Leave), Drive: leg.Drive, Known: leg.Known, Start: clockOf(leg.Start), Spare: leg.Spare, Late: leg.Late, Fixed: v.At != nil,
			Horses: []Seen{}, Phone: v.YardPhone,
		}
		for _, h := range v.Horses {
			seen, kit, first := s.seen(ctx, c, h, v)
			t.add(kit, n+1)
			view.First = append(view.First, first...)
			stop.Horses = append(stop.Horses, seen)
			stop.Done = stop.Done || slices.ContainsFunc(beside.Sessions, func(w store.Worked) bool { return w.Horse == h.ID })
		}
		view.Stops = append(view.Stops, stop)
	}
	view.Kit = t.things()
	view.First = view.First[:min(len(view.First), mostFirst)]
	return view, nil
}

// run puts a person's visits of a day in order; the order by hand stands where there
// is one.
func (s *Service) run(begins store.DayBegins, visits []store.Visit, roads diary.Roads) diary.Sheet {
	byHand := false
	list := make([]diary.Stop, 0, len(visits))
	for _, v := range slices.SortedStableFunc(slices.Values(visits), func(a, b store.Visit) int { return int(a.Place - b.Place) }) {
		stop := diary.Stop{Visit: v.ID, Yard: v.Yard.ID, Minutes: v.Minutes, Fixed: v.At != nil}
		if v.At != nil {
			stop.At = s.elapsed(v.On, *v.At, v.Zone)
		}
		byHand = byHand || v.Place > 0
		list = append(list, stop)
	}
	if byHand {
		return diary.Kept(begins.Base, int(begins.At), list, roads)
	}
	return diary.Run(begins.Base, int(begins.At), list, roads)
}

// elapsed is how many minutes of a day have passed when its clocks show a time; of an
// ordinary day the clock itself.
func (s *Service) elapsed(on string, at diary.Clock, zone string) int {
	in := s.located(zone)
	midnight, err := diary.Instant(on, 0, in)
	then, also := diary.Instant(on, at, in)
	if err != nil || also != nil {
		return int(at)
	}
	return int(then.Sub(midnight) / time.Minute)
}

// clockOf is a time of a day's run as the clock shows it; past midnight it goes on.
func clockOf(minutes int) string { return diary.Clock(minutes % diary.MinutesOfDay).String() }

// seen is a horse of a stop, what goes in the truck for it, and what comes first. One
// that can't be read says so and leaves the rest of the day as it is.
func (s *Service) seen(ctx context.Context, c api.Caller, h store.Named, v store.Visit) (seen Seen, kit []string, first []First) {
	seen = Seen{ID: h.ID, Name: h.Name, Aim: v.Aim, Forbidden: []phrase.Message{}, People: []Holder{}, Helpers: []phrase.Slotted{}}
	err := api.Guarded(func() error {
		r, err := s.Newest(ctx, c, h.ID)
		if err != nil {
			return err
		}
		seen.Case = r.Case.ID
		seen.Care, seen.Bridge, seen.Open = r.File.Risk.Care, &r.File.Bridge, r.History.Open
		seen.Forbidden = append(seen.Forbidden, r.File.Result.Forbidden...)
		for _, o := range r.Horse.Owners {
			seen.People = append(seen.People, Holder{o.Name, o.Phone})
		}
		if planned := r.File.Plan().Visits; len(planned) > 0 {
			kit, seen.Helpers = planned[0].Kit, append(seen.Helpers, planned[0].Helpers...)
			if seen.Aim == "" {
				seen.Aim = aimOf(planned[0])
			}
		}
		if steps := slipped(r.File.Bridge); len(steps) > 0 {
			m := phrase.Of("day.check.slipped", phrase.Args{"steps": steps})
			seen.Check = &m
		}
		for _, n := range r.File.Attention() {
			if n.Rank <= pressing {
				first = append(first, First{Horse: h.ID, Name: h.Name, Does: n.Does, Say: n.Say})
			}
		}
		return nil
	})
	if err != nil {
		s.Log.WarnContext(ctx, "a horse of the day can't be read", "horse", h.ID, "error", err.Error())
		seen.Unread = true
	}
	return seen, kit, first
}

// pressing is up to which rank a note comes before the day's work.
const pressing = 3

// slipped are the steps of a bridge that slipped, by name.
func slipped(b progress.Bridge) (names []phrase.Slotted) {
	for _, p := range b.Planks {
		if p.State == horse.Slipped {
			names = append(names, phrase.Slotted(p.Name))
		}
	}
	return names
}

// aimOf says what a planned visit is for: the names of what its ladder blocks work
// on, else of its foundations.
func aimOf(v plan.Visit) string {
	for _, kind := range []plan.PartKind{plan.Block, plan.TuneIn} {
		var names []string
		for _, p := range v.Parts {
			if p.Kind == kind {
				names = append(names, p.Names...)
			}
		}
		if text := strings.Join(names, ", "); text != "" {
			return phrase.Raised(text)
		}
	}
	return ""
}

// truck collects the kit of a day, in the order in which it is named.
type truck []Thing

func (t *truck) add(kit []string, stop int) {
	for _, name := range kit {
		i := slices.IndexFunc(*t, func(x Thing) bool { return x.Name == name })
		if i < 0 {
			i, *t = len(*t), append(*t, Thing{Name: name})
		}
		if !slices.Contains((*t)[i].For, stop) {
			(*t)[i].For = append((*t)[i].For, stop)
		}
	}
}

func (t *truck) things() []Thing { return append([]Thing{}, *t...) }

type orderInput struct {
	Body struct {
		On     string   `json:"on" maxLength:"10"`
		Visits []string `json:"visits" maxItems:"60" doc:"ids, in order"`
		ByHand bool     `json:"by_hand" doc:"else the order is reckoned again"`
	}
}

func (s *Service) order(ctx context.Context, c api.Caller, in *orderInput) (Sheet, error) {
	if _, dated := horse.DayNumber(in.Body.On); !dated {
		return Sheet{}, api.Faulty(api.NoDate("on"))
	}
	if err := s.Store.OrderVisits(ctx, c.Actor(), in.Body.On, in.Body.Visits, in.Body.ByHand); err != nil {
		return Sheet{}, err
	}
	return s.day(ctx, c, &dayInput{On: in.Body.On})
}
