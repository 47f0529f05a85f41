package visits

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"ivorybridge/core/assess"
	"ivorybridge/core/diary"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

type diaryInput struct {
	From string `query:"from" maxLength:"10" doc:"first day; empty: the Monday of this week"`
	Days int    `query:"days" default:"21" minimum:"1" maximum:"372" doc:"how many"`

	Yard   string `query:"yard" maxLength:"36" doc:"id: only what is of that yard"`
	Person string `query:"person" maxLength:"36" doc:"id: only what is of that person's horses"`
}

// Diary is the days from one to another, each with what stands on it.
type Diary struct {
	Today  string           `json:"today" format:"date"`
	From   string           `json:"from" format:"date"`
	Days   []Day            `json:"days"`
	People []cases.HorseRef `json:"people" doc:"who may do a visit"`
	Horses []DiaryHorse     `json:"horses" doc:"all that are in work"`
	Only   string           `json:"only,omitempty" doc:"name of the yard or person whose diary alone it is"`
	Beyond *Due             `json:"beyond,omitempty" doc:"the next date at stake after the last day shown"`
}

// DiaryHorse is a horse in work.
type DiaryHorse struct {
	cases.HorseRef
	Planned bool `json:"planned,omitempty" doc:"a visit of today or later waits for it"`
}

// Day is one day of it.
type Day struct {
	On        string           `json:"on" format:"date"`
	Visits    []Booked         `json:"visits" doc:"by their times"`
	Worked    []Worked         `json:"worked" doc:"sessions of horses that no visit stood for"`
	Done      []string         `json:"done" doc:"ids of the visits whose horse was worked that day"`
	Due       []Due            `json:"due" doc:"rechecks, referrals and dates at stake"`
	Practised []cases.HorseRef `json:"practised" doc:"horses whose owner wrote down practice"`
	Clashes   []diary.Clash    `json:"clashes"`
	Busy      []BusyTime       `json:"busy" doc:"the caller's times that are taken otherwise"`
	Road      int              `json:"road,omitempty" doc:"minutes of driving, for the caller's visits"`
}

// BusyTime is a time that is taken otherwise.
type BusyTime struct {
	From string `json:"from" doc:"08:40"`
	To   string `json:"to"`
	What string `json:"what,omitempty"`
}

// Worked is a session of a day.
type Worked struct {
	Session string `json:"session"`
	Horse   string `json:"horse"`
	Name    string `json:"name"`
}

// Due is what is to be looked at or reached by a day.
type Due struct {
	Kind  string         `json:"kind" enum:"recheck,round,referral,deadline"`
	Horse string         `json:"horse"`
	Name  string         `json:"name"`
	On    string         `json:"on" format:"date"`
	Says  phrase.Message `json:"says"`
	Late  bool           `json:"late,omitempty" doc:"its day has passed, and it is not done: it stands on today"`
}

func (s *Service) diary(ctx context.Context, c api.Caller, in *diaryInput) (Diary, error) {
	from := in.From
	if from == "" {
		from = horse.DayAfter(c.Today(), -(int(horse.Weekday(c.Today()))+6)%7)
	}
	if _, dated := horse.DayNumber(from); !dated {
		return Diary{}, api.Faulty(api.NoDate("from"))
	}
	until := horse.DayAfter(from, in.Days-1)
	view := Diary{Today: c.Today(), From: from, Days: []Day{}, People: []cases.HorseRef{}, Horses: []DiaryHorse{}}
	visits, err := c.View.Visits(ctx, c.Practice, from, until)
	if err != nil {
		return Diary{}, err
	}
	beside, err := c.View.BesideVisits(ctx, c.Practice, from, until)
	if err != nil {
		return Diary{}, err
	}
	if err := s.whoAndWhat(ctx, c, &view); err != nil {
		return Diary{}, err
	}
	dues, err := s.due(ctx, c)
	if err != nil {
		return Diary{}, err
	}
	_, roads, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return Diary{}, err
	}
	begins, err := c.View.DayBegins(ctx, c.Practice, c.ID)
	if err != nil {
		return Diary{}, err
	}
	busy, err := s.busy(ctx, c, from, until)
	if err != nil {
		return Diary{}, err
	}
	clashes := diary.Clashes(s.bookings(visits, busy), roads) // before it is narrowed: a clash is one with others
	driven := visits
	narrow, err := narrowed(ctx, c, in)
	if err != nil {
		return Diary{}, err
	}
	view.Only = narrow.name
	visits, dues = narrow.visits(visits), narrow.dues(dues)
	beside.Deadlines = slices.DeleteFunc(beside.Deadlines, func(d store.Deadline) bool { return !narrow.has(d.Horse) })
	for n := range in.Days {
		view.Days = append(view.Days, Day{On: horse.DayAfter(from, n), Visits: []Booked{}, Worked: []Worked{}, Done: []string{}, Due: []Due{}, Practised: []cases.HorseRef{}, Clashes: []diary.Clash{}, Busy: []BusyTime{}})
	}
	f := filler{view: &view, names: map[string]string{}}
	for _, h := range view.Horses {
		if narrow.has(h.ID) {
			f.names[h.ID] = h.Name
		}
	}
	f.visits(visits, clashes)
	f.busy(c, busy, s.located(c.Home.Zone))
	f.done(beside)
	f.dues(dues, beside.Deadlines, until)
	for i := range view.Days {
		mine := slices.DeleteFunc(slices.Clone(driven), func(v store.Visit) bool {
			return v.On != view.Days[i].On || v.Who.ID != c.ID || v.Cancelled != ""
		})
		view.Days[i].Road = s.run(begins, mine, roads).Driving
	}
	return view, nil
}

// whoAndWhat lists who may do a visit, and the horses in work.
func (s *Service) whoAndWhat(ctx context.Context, c api.Caller, view *Diary) error {
	users, err := c.View.Users(ctx, c.Practice)
	if err != nil {
		return err
	}
	for _, u := range users {
		if u.Active && (u.Role == store.Lead || u.Role == store.Assistant) {
			view.People = append(view.People, cases.HorseRef{ID: u.ID, Name: u.Name})
		}
	}
	rows, err := c.View.InWork(ctx, c.Practice, c.Today())
	if err != nil {
		return err
	}
	for _, r := range rows {
		view.Horses = append(view.Horses, DiaryHorse{cases.HorseRef(r.Named), r.Planned})
	}
	return nil
}

// filler puts what there is onto the days.
type filler struct {
	view  *Diary
	names map[string]string
}

func (f filler) day(on string) *Day {
	n, ok := horse.DaysBetween(f.view.From, on)
	if !ok || n < 0 || n >= len(f.view.Days) {
		return nil
	}
	return &f.view.Days[n]
}

func (f filler) visits(visits []store.Visit, clashes []diary.Clash) {
	at := map[string]*Day{}
	for _, v := range visits {
		if d := f.day(v.On); d != nil {
			d.Visits, at[v.ID] = append(d.Visits, told(v)), d
		}
	}
	for _, x := range clashes {
		d := at[x.B]
		if d == nil { // the later is a time that is taken
			d = at[x.A]
			x.A, x.B = x.B, x.A
		}
		if d != nil {
			d.Clashes = append(d.Clashes, x)
		}
	}
}

// busy puts the caller's taken times onto the day on which they begin.
func (f filler) busy(c api.Caller, list []store.Busy, in *time.Location) {
	for _, b := range list {
		from, to := time.UnixMilli(b.From).In(in), time.UnixMilli(b.To).In(in)
		if d := f.day(from.Format(time.DateOnly)); d != nil && b.User == c.ID {
			d.Busy = append(d.Busy, BusyTime{From: from.Format("15:04"), To: to.Format("15:04"), What: b.What})
		}
	}
}

// done marks the visits whose horse was worked that day, and lists the sessions that
// no visit stood for.
func (f filler) done(b store.Beside) {
	for _, w := range b.Sessions {
		d := f.day(w.On)
		if d == nil {
			continue
		}
		stood := false
		for _, v := range d.Visits {
			if slices.ContainsFunc(v.Horses, func(h cases.HorseRef) bool { return h.ID == w.Horse }) {
				stood = true
				if !slices.Contains(d.Done, v.ID) {
					d.Done = append(d.Done, v.ID)
				}
			}
		}
		if name := f.names[w.Horse]; !stood && name != "" {
			d.Worked = append(d.Worked, Worked{Session: w.ID, Horse: w.Horse, Name: name})
		}
	}
	for _, p := range b.Practised {
		if d := f.day(p.On); d != nil && f.names[p.Horse] != "" {
			d.Practised = append(d.Practised, cases.HorseRef{ID: p.Horse, Name: f.names[p.Horse]})
		}
	}
}

func (f filler) dues(list []Due, stakes []store.Deadline, until string) {
	for _, one := range append(slices.Clip(list), deadlines(stakes)...) {
		if one.Kind != string(diary.Deadline) && one.On < f.view.Today {
			one.On, one.Late = f.view.Today, true
		}
		if d := f.day(one.On); d != nil {
			d.Due = append(d.Due, one)
		}
		if one.On > until && (f.view.Beyond == nil || one.On < f.view.Beyond.On) {
			f.view.Beyond = &one
		}
	}
}

// dueKey is a horse as it stood, on a day: what is due of it is read once.
type dueKey struct {
	practice, horse, today, edition string
	stamp                           int64
}

// due lists the rechecks and referrals of all horses in work. What can't be read is
// left out here; the caseload says so.
func (s *Service) due(ctx context.Context, c api.Caller) ([]Due, error) {
	stamps, err := c.View.Stamps(ctx, c.Practice)
	if err != nil {
		return nil, err
	}
	today, edition := c.Today(), s.Edition()
	ids := make([]string, 0, len(stamps))
	for id := range stamps {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	var all []Due
	for _, id := range ids {
		key := dueKey{c.Practice, id, today, edition, stamps[id]}
		list, kept := s.dues.Get(key)
		if !kept {
			if list, err = s.dueOf(ctx, c, id); ctx.Err() != nil {
				return nil, ctx.Err()
			}
			if err != nil && !errors.Is(err, store.ErrNotFound) { // without a case
				s.Log.WarnContext(ctx, "what is due of a horse can't be read", "horse", id, "error", err.Error())
			}
			s.dues.Add(key, list)
		}
		all = append(all, list...)
	}
	slices.SortStableFunc(all, func(a, b Due) int { return cmp.Or(cmp.Compare(a.On, b.On), cmp.Compare(a.Name, b.Name)) })
	return all, nil
}

// asked says who is asked about what.
func asked(r assess.Referral) phrase.Message {
	if r.Item.IsZero() {
		return phrase.Of("due.referral.why", phrase.Args{"why": r.Why})
	}
	return phrase.Of("due.referral", phrase.Args{"who": r.Who, "item": assess.Named(r.Item)})
}

func (s *Service) dueOf(ctx context.Context, c api.Caller, id string) (list []Due, err error) {
	err = api.Guarded(func() error {
		r, err := s.Newest(ctx, c, id)
		if err != nil || r.Case.FinishedOn != "" {
			return err
		}
		for _, x := range r.File.Result.Rechecks {
			if len(x.Found) > 0 {
				continue // it was looked at
			}
			list = append(list, Due{Kind: string(diary.DueRecheck), Horse: id, Name: r.Horse.Name, On: x.Due, Says: x.Reads})
		}
		for _, x := range r.File.Result.Rounds {
			list = append(list, Due{Kind: string(diary.DueRound), Horse: id, Name: r.Horse.Name, On: x.Due, Says: x.Says})
		}
		for _, x := range r.File.Result.Referrals {
			if !x.Done {
				list = append(list, Due{Kind: string(diary.DueReferral), Horse: id, Name: r.Horse.Name, On: x.Due, Says: asked(x)})
			}
		}
		return nil
	})
	return list, err
}
