package store

import (
	"context"
	"database/sql"

	"ivorybridge/core/diary"
	"ivorybridge/store/sqlc"
)

// A Visit stands in the diary: agreed, or proposed.
type Visit struct {
	ID        string
	Yard      Named // no id: at none
	YardPhone string
	Who       Named
	On        string       // date
	At        *diary.Clock // nil: it has a day, and no time yet
	Minutes   int
	Zone      string // IANA, whose clocks At is by
	Aim       string
	Agreed    bool
	Place     int64  // among those of its day, by hand; 0: none
	Cancelled string // why; empty: it stands
	Version   int64
	Horses    []Named
}

// Named is a row of another table by its name.
type Named struct{ ID, Name string }

// AddVisit keeps a new visit.
func (s *Store) AddVisit(ctx context.Context, actor Actor, v Visit) error {
	return s.write(ctx, "keeping a visit", func(q *sqlc.Queries) error {
		if err := q.InsertVisit(ctx, sqlc.InsertVisitParams{
			ID: v.ID, PracticeID: actor.Practice, YardID: null(v.Yard.ID), Who: v.Who.ID, OnDate: v.On, Minute: minute(v.At), Minutes: int64(v.Minutes),
			Zone: v.Zone, Aim: v.Aim, Agreed: bit(v.Agreed), Place: v.Place, ChangedBy: actor.User, ChangedAt: actor.At,
		}); err != nil {
			return err
		}
		if err := visited(ctx, q, actor, v); err != nil {
			return err
		}
		return actor.changed(ctx, q, "visit put in the diary", v.ID)
	}, theVisit(ctx, actor, v)...)
}

// ChangeVisit keeps a changed visit; a *StaleError if it was changed since the version
// it was read at.
func (s *Store) ChangeVisit(ctx context.Context, actor Actor, v Visit) error {
	err := s.write(ctx, "changing a visit", func(q *sqlc.Queries) error {
		n, err := q.UpdateVisit(ctx, sqlc.UpdateVisitParams{
			YardID: null(v.Yard.ID), Who: v.Who.ID, OnDate: v.On, Minute: minute(v.At), Minutes: int64(v.Minutes), Zone: v.Zone, Aim: v.Aim, Agreed: bit(v.Agreed),
			Place: v.Place, Cancelled: v.Cancelled, ChangedBy: actor.User, ChangedAt: actor.At, PracticeID: actor.Practice, ID: v.ID, Version: v.Version,
		})
		if err := one(n, err); err != nil {
			return err
		}
		if err := q.DeleteVisited(ctx, sqlc.DeleteVisitedParams{PracticeID: actor.Practice, VisitID: v.ID}); err != nil {
			return err
		}
		if err := visited(ctx, q, actor, v); err != nil {
			return err
		}
		what := "visit changed"
		if v.Cancelled != "" {
			what = "visit cancelled"
		}
		return actor.changed(ctx, q, what, v.ID)
	}, theVisit(ctx, actor, v)...)
	return stale(err, func() (any, error) { return s.Visit(ctx, actor.Practice, v.ID) })
}

// OrderVisits puts a day's visits into an order by hand, or gives their order back to
// the reckoning.
func (s *Store) OrderVisits(ctx context.Context, actor Actor, on string, ids []string, byHand bool) error {
	return s.write(ctx, "ordering a day", func(q *sqlc.Queries) error {
		for i, id := range ids {
			place := int64(0)
			if byHand {
				place = int64(i + 1)
			}
			n, err := q.PlaceVisit(ctx, sqlc.PlaceVisitParams{Place: place, PracticeID: actor.Practice, ID: id, OnDate: on})
			if err := one(n, err); err != nil {
				return err
			}
		}
		return actor.changed(ctx, q, "day put in order", on)
	})
}

func visited(ctx context.Context, q *sqlc.Queries, actor Actor, v Visit) error {
	for _, h := range v.Horses {
		if err := q.InsertVisited(ctx, sqlc.InsertVisitedParams{PracticeID: actor.Practice, VisitID: v.ID, HorseID: h.ID}); err != nil {
			return err
		}
	}
	return nil
}

// theVisit are the rows that a visit names.
func theVisit(ctx context.Context, actor Actor, v Visit) []reference {
	refers := []reference{theYard(ctx, actor, v.Yard.ID)}
	for _, h := range v.Horses {
		refers = append(refers, theHorse(ctx, actor, h.ID))
	}
	return refers
}

// Visit reads one visit.
func (v View) Visit(ctx context.Context, practice, id string) (Visit, error) {
	r, err := v.read.GetVisit(ctx, sqlc.GetVisitParams{PracticeID: practice, ID: id})
	if err != nil {
		return Visit{}, reading("the visit", err)
	}
	horses, err := v.read.GetVisitedBy(ctx, sqlc.GetVisitedByParams{PracticeID: practice, VisitID: id})
	if err != nil {
		return Visit{}, reading("the visit", err)
	}
	one := visit(sqlc.GetVisitsRow(r))
	for _, h := range horses {
		one.Horses = append(one.Horses, Named{h.HorseID, h.Name})
	}
	return one, nil
}

// Visits lists those from a day to another, by their day and time; those that were
// cancelled are among them.
func (v View) Visits(ctx context.Context, practice, since, until string) ([]Visit, error) {
	rows, err := v.read.GetVisits(ctx, sqlc.GetVisitsParams{PracticeID: practice, Since: since, Until: until})
	if err != nil {
		return nil, reading("the diary", err)
	}
	horses, err := v.read.GetVisitedBetween(ctx, sqlc.GetVisitedBetweenParams{PracticeID: practice, Since: since, Until: until})
	if err != nil {
		return nil, reading("the diary", err)
	}
	by := map[string][]Named{}
	for _, h := range horses {
		by[h.VisitID] = append(by[h.VisitID], Named{h.HorseID, h.Name})
	}
	list := make([]Visit, 0, len(rows))
	for _, r := range rows {
		one := visit(r)
		one.Horses = by[r.ID]
		list = append(list, one)
	}
	return list, nil
}

// VisitsOf lists a horse's visits from a day on, those that were cancelled among them.
func (v View) VisitsOf(ctx context.Context, practice, horseID, since string) ([]Visit, error) {
	rows, err := v.read.GetVisitsOfHorse(ctx, sqlc.GetVisitsOfHorseParams{PracticeID: practice, HorseID: horseID, OnDate: since})
	list := make([]Visit, 0, len(rows))
	for _, r := range rows {
		list = append(list, Visit{
			ID: r.ID, On: r.OnDate, At: clock(r.Minute), Minutes: int(r.Minutes), Zone: r.Zone, Agreed: r.Agreed == 1, Aim: r.Aim, Cancelled: r.Cancelled, Version: r.Version,
			Who: Named{Name: r.WhoName}, Yard: Named{Name: r.YardName.String}, Horses: []Named{{ID: horseID}},
		})
	}
	return list, reading("the visits", err)
}

func visit(r sqlc.GetVisitsRow) Visit {
	return Visit{
		ID: r.ID, Yard: Named{r.YardID.String, r.YardName.String}, YardPhone: r.YardPhone.String, Who: Named{r.Who, r.WhoName}, On: r.OnDate, At: clock(r.Minute),
		Minutes: int(r.Minutes), Zone: r.Zone, Aim: r.Aim, Agreed: r.Agreed == 1, Place: r.Place, Cancelled: r.Cancelled, Version: r.Version,
	}
}

func minute(at *diary.Clock) sql.NullInt64 {
	if at == nil {
		return sql.NullInt64{}
	}
	return sql.NullInt64{Int64: int64(*at), Valid: true}
}

func clock(m sql.NullInt64) *diary.Clock {
	if !m.Valid {
		return nil
	}
	at := diary.Clock(m.Int64)
	return &at
}

// Beside is what was done and what is due from one day to another, beside the visits.
type Beside struct {
	Sessions  []Worked
	Practised []Practices
	Deadlines []Deadline
}

// Worked is a session by its day.
type Worked struct {
	ID, Horse, On string
}

// Practices is how often a horse's owner wrote down practice on a day.
type Practices struct {
	Horse, On string
	Logs      int
}

// Deadline is the day by which a case's goal is needed.
type Deadline struct {
	Case, Horse, Name, Goal, On string
}

// BesideVisits reads what was done and what is due from one day to another.
func (v View) BesideVisits(ctx context.Context, practice, since, until string) (d Beside, err error) {
	sessions, err := v.read.GetSessionsOfDays(ctx, sqlc.GetSessionsOfDaysParams{PracticeID: practice, Since: since, Until: until})
	if err != nil {
		return d, reading("the days", err)
	}
	for _, r := range sessions {
		d.Sessions = append(d.Sessions, Worked{r.ID, r.HorseID, r.LocalDate})
	}
	practised, err := v.read.CountPractisedBetween(ctx, sqlc.CountPractisedBetweenParams{PracticeID: practice, Since: since, Until: until})
	if err != nil {
		return d, reading("the days", err)
	}
	for _, r := range practised {
		d.Practised = append(d.Practised, Practices{r.HorseID, r.OnDate, int(r.Logs)})
	}
	due, err := v.read.GetDeadlinesBetween(ctx, sqlc.GetDeadlinesBetweenParams{PracticeID: practice, Since: null(since), Until: null(until)})
	for _, r := range due {
		d.Deadlines = append(d.Deadlines, Deadline{r.ID, r.HorseID, r.Name, r.Goal, r.NeededBy.String})
	}
	return d, reading("the days", err)
}

// YardPlace is where a yard lies, and by which clocks it lives.
type YardPlace struct {
	Named
	Zone  string       // empty: the practice's
	Place *diary.Place // nil: nobody gave it
}

// Roads reads the yards with their places, and the drives that were typed.
func (v View) Roads(ctx context.Context, practice string) ([]YardPlace, diary.Roads, error) {
	roads := diary.Roads{Typed: map[[2]string]int{}, Places: map[string]diary.Place{}}
	rows, err := v.read.GetYardPlaces(ctx, practice)
	if err != nil {
		return nil, roads, reading("the yards", err)
	}
	yards := make([]YardPlace, 0, len(rows))
	for _, r := range rows {
		y := YardPlace{Named: Named{r.ID, r.Name}, Zone: r.Zone}
		if r.Lat.Valid && r.Lon.Valid {
			y.Place = &diary.Place{Lat: r.Lat.Float64, Lon: r.Lon.Float64}
			roads.Places[r.ID] = *y.Place
		}
		yards = append(yards, y)
	}
	drives, err := v.read.GetDrives(ctx, practice)
	for _, d := range drives {
		roads.Typed[[2]string{d.A, d.B}] = int(d.Minutes)
	}
	return yards, roads, reading("the drives", err)
}

// PlaceYard keeps where a yard lies, and by which clocks it lives.
func (s *Store) PlaceYard(ctx context.Context, actor Actor, y YardPlace) error {
	return s.write(ctx, "placing a yard", func(q *sqlc.Queries) error {
		p := sqlc.PlaceYardParams{Zone: y.Zone, PracticeID: actor.Practice, ID: y.ID}
		if y.Place != nil {
			p.Lat, p.Lon = sql.NullFloat64{Float64: y.Place.Lat, Valid: true}, sql.NullFloat64{Float64: y.Place.Lon, Valid: true}
		}
		n, err := q.PlaceYard(ctx, p)
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "yard placed", y.ID)
	}, theYard(ctx, actor, y.ID))
}

// SetDrive keeps the drive between two yards, both ways; nil forgets it.
func (s *Store) SetDrive(ctx context.Context, actor Actor, a, b string, minutes *int) error {
	a, b = min(a, b), max(a, b)
	return s.write(ctx, "keeping a drive", func(q *sqlc.Queries) error {
		err := q.DeleteDrive(ctx, sqlc.DeleteDriveParams{PracticeID: actor.Practice, A: a, B: b})
		if minutes != nil {
			err = q.SetDrive(ctx, sqlc.SetDriveParams{PracticeID: actor.Practice, A: a, B: b, Minutes: int64(*minutes)})
		}
		if err != nil {
			return err
		}
		return actor.changed(ctx, q, "drive typed", a)
	}, theYard(ctx, actor, a), theYard(ctx, actor, b))
}

// DayBegins is from where a person sets off, not before when, and their rounds.
type DayBegins struct {
	Base   string // yard id; empty: none
	At     diary.Clock
	Rounds []diary.Round
}

// usualBegin is when a day begins where nobody said otherwise: 07:30.
const usualBegin diary.Clock = 450

// DayBegins reads from where a person sets off.
func (v View) DayBegins(ctx context.Context, practice, user string) (DayBegins, error) {
	r, err := v.read.GetDayBegins(ctx, sqlc.GetDayBeginsParams{PracticeID: practice, UserID: user})
	if named(err) == ErrNotFound {
		return DayBegins{At: usualBegin}, nil
	}
	if err != nil {
		return DayBegins{}, reading("how the day begins", err)
	}
	rounds, err := readJSON[[]diary.Round]("the rounds", r.Rounds)
	return DayBegins{Base: r.YardID.String, At: diary.Clock(r.Minute), Rounds: rounds}, err
}

// SetDayBegins keeps from where the actor sets off.
func (s *Store) SetDayBegins(ctx context.Context, actor Actor, d DayBegins) error {
	return s.write(ctx, "keeping how the day begins", func(q *sqlc.Queries) error {
		if err := q.SetDayBegins(ctx, sqlc.SetDayBeginsParams{PracticeID: actor.Practice, UserID: actor.User, YardID: null(d.Base), Minute: int64(d.At), Rounds: writeJSON(d.Rounds)}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "day's beginning kept", actor.User)
	}, theYard(ctx, actor, d.Base))
}

// InWork is a horse with a case that is not finished.
type InWork struct {
	Named
	YardID  string
	Planned bool // a visit of today or later waits for it
}

// InWork lists the horses with a case that is not finished, by name.
func (v View) InWork(ctx context.Context, practice, today string) ([]InWork, error) {
	rows, err := v.read.GetInWork(ctx, sqlc.GetInWorkParams{PracticeID: practice, Today: today})
	list := make([]InWork, 0, len(rows))
	for _, r := range rows {
		list = append(list, InWork{Named{r.ID, r.Name}, r.YardID.String, r.Planned})
	}
	return list, reading("the horses in work", err)
}
