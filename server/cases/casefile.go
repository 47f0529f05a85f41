// Package cases reads a horse's case from the store, all of it as it was at one
// moment, and what one of its sessions came to: for every subject that shows
// some of it. A record that can't be read is left out and told.
package cases

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"

	lru "github.com/hashicorp/golang-lru/v2"

	"ivorybridge/core/assess"
	"ivorybridge/core/attention"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Reader reads cases.
type Reader struct {
	*api.API
	Catalog *catalog.Catalog
	Build   string // the version of the program

	figures *lru.Cache[figuresKey, stampedFigures]
	opened  *lru.Cache[openedKey, bool]
	houses  *lru.Cache[houseKey, *catalog.Catalog]
	ruled   *lru.Cache[catalog.HouseRules, *catalog.Catalog]
}

// NewReader reads cases by a catalogue, in a build of the program.
func NewReader(a *api.API, c *catalog.Catalog, build string) *Reader {
	figures, err := lru.New[figuresKey, stampedFigures](mostFigures)
	opened, also := lru.New[openedKey, bool](mostOpened)
	houses, too := lru.New[houseKey, *catalog.Catalog](mostHouses)
	ruled, last := lru.New[catalog.HouseRules, *catalog.Catalog](mostHouses)
	if err := errors.Join(err, also, too, last); err != nil {
		panic(err) // the sizes are above 0
	}
	return &Reader{API: a, Catalog: c, Build: build, figures: figures, opened: opened, houses: houses, ruled: ruled}
}

// planVisits is how many visits a plan lays out.
const planVisits = 6

// Reading is a case with all that was read for it.
type Reading struct {
	Case        store.Case
	Horse       store.Horse
	Assessments []store.Assessment
	History     history.History // of all sessions
	rehearsals  []clearance.Rehearsal
	chosen      []store.Chosen // by the plans, the oldest first
	Practised   []store.Practised
	Resumed     []store.Resumed
	asides      []attention.Put
	Incidents   []store.Incident // written down after the fact
	Used        []history.Used
	Unread      []store.Unread // entries that are left out
	File        *casefile.File
	Today       string // the day that it was read on
	past        pastFigures
	by          *catalog.Catalog // under the practice's house rules
}

// Catalog is the whole catalogue under the practice's house rules; that of the file is fitted
// to the horse.
func (r Reading) Catalog() *catalog.Catalog { return r.by }

// Choices are those of the newest plan; before there is one, what was wanted as
// the horse was taken on.
func (r Reading) Choices() plan.Choices {
	if n := len(r.chosen); n > 0 {
		return r.chosen[n-1].Choices
	}
	return plan.Choices{Goals: r.Case.Wanted}
}

// Beside is what the horse's sessions are read beside.
func (r Reading) Beside() history.Beside {
	return history.Beside{Used: r.Used, Assessed: r.assessed(), Incidents: assess.IncidentDays(r.incidents())}
}

func (r Reading) incidents() []assess.Incident {
	list := make([]assess.Incident, 0, len(r.Incidents))
	for _, i := range r.Incidents {
		list = append(list, i.Incident)
	}
	return list
}

func (r Reading) assessed() []assess.Dated {
	list := make([]assess.Dated, 0, len(r.Assessments))
	for _, a := range r.Assessments {
		list = append(list, assess.Dated{On: a.On, Doc: a.Doc})
	}
	return list
}

// Read reads a case as of the caller's today, all of it as it was at one
// moment.
func (s *Reader) Read(ctx context.Context, c api.Caller, caseID string) (r Reading, err error) {
	err = c.AtOneMoment(ctx, func(c api.Caller) error {
		kase, err := c.View.Case(ctx, c.Practice, caseID)
		if err != nil {
			return err
		}
		h, err := c.View.Horse(ctx, c.Practice, kase.HorseID)
		if err != nil {
			return err
		}
		r, err = s.ReadOf(ctx, c, h, kase)
		return err
	})
	return r, err
}

// ReadOf reads a horse's case; the caller's view is a snapshot.
func (s *Reader) ReadOf(ctx context.Context, c api.Caller, h store.Horse, kase store.Case) (Reading, error) {
	r, err := s.Gather(ctx, c, h, kase)
	if err != nil {
		return Reading{}, err
	}
	if r.History, r.Unread, r.past, err = s.past(ctx, c, h.ID, r.Beside(), nil); err != nil {
		return Reading{}, err
	}
	err = api.Guarded(func() (err error) {
		r.File, err = s.Judge(c.Today(), r, r.History)
		return err
	})
	return r, err
}

// Gather reads what a case is judged from, beside its sessions.
func (s *Reader) Gather(ctx context.Context, c api.Caller, h store.Horse, kase store.Case) (Reading, error) {
	r := Reading{Case: kase, Horse: h, Today: c.Today()}
	var err error
	if r.by, err = s.CatalogOf(ctx, c); err != nil {
		return Reading{}, err
	}
	if r.Assessments, err = c.View.Assessments(ctx, c.Practice, h.ID); err != nil {
		return Reading{}, err
	}
	rehearsals, err := c.View.Rehearsals(ctx, c.Practice, h.ID)
	if err != nil {
		return Reading{}, err
	}
	for _, one := range rehearsals {
		r.rehearsals = append(r.rehearsals, one.Doc)
	}
	if r.Practised, err = c.View.Practised(ctx, c.Practice, h.ID); err != nil {
		return Reading{}, err
	}
	if r.Resumed, err = c.View.Resumed(ctx, c.Practice, h.ID); err != nil {
		return Reading{}, err
	}
	if r.Incidents, err = c.View.Incidents(ctx, c.Practice, h.ID); err != nil {
		return Reading{}, err
	}
	if r.asides, err = c.View.Asides(ctx, c.Practice, h.ID); err != nil {
		return Reading{}, err
	}
	if r.chosen, err = c.View.Choices(ctx, c.Practice, kase.ID); err != nil {
		return Reading{}, err
	}
	for _, one := range r.chosen {
		used, err := s.uses(ctx, c, one)
		if err != nil {
			return Reading{}, err
		}
		r.Used = append(r.Used, used)
	}
	return r, nil
}

// AsOf is the case with the plans that were made before a session began; the
// session is worked and told by them, whatever is planned later.
func (r Reading) AsOf(began int64) Reading {
	made := 0
	for made < len(r.chosen) && r.chosen[made].At <= began {
		made++
	}
	r.chosen, r.Used = r.chosen[:made], r.Used[:made]
	return r
}

// Planned is when the newest plan was made, ms; 0: none was.
func (r Reading) Planned() int64 {
	if n := len(r.chosen); n > 0 {
		return r.chosen[n-1].At
	}
	return 0
}

// uses reads the own ladders that a plan chose.
func (s *Reader) uses(ctx context.Context, c api.Caller, one store.Chosen) (history.Used, error) {
	used := history.Used{Since: one.At}
	for _, key := range slices.Sorted(maps.Keys(one.Choices.Own)) {
		u := one.Choices.Own[key]
		l, err := c.View.Ladder(ctx, c.Practice, u.ID, u.Version)
		if err != nil {
			return used, err
		}
		used.Ladders = append(used.Ladders, l.Doc)
	}
	return used, nil
}

// Trying is the case as it would be with other choices; nothing is kept.
func (s *Reader) Trying(ctx context.Context, c api.Caller, r Reading, choices plan.Choices) (Reading, error) {
	one := store.Chosen{At: c.Now.UnixMilli(), Choices: choices}
	used, err := s.uses(ctx, c, one)
	if err != nil {
		return r, err
	}
	r.chosen, r.Used = append(slices.Clone(r.chosen), one), append(slices.Clone(r.Used), used)
	r.File, err = s.Judge(c.Today(), r, r.History)
	return r, err
}

// Judge reads the case as it stands on a day, after the sessions of a history.
func (s *Reader) Judge(today string, r Reading, past history.History) (*casefile.File, error) {
	in := casefile.Input{
		Today: today, Record: r.Horse.Record, Ladder: r.Case.Ladder, Thing: r.Case.Thing,
		NeededBy: r.Case.NeededBy, Finished: r.Case.FinishedOn, History: past,
		Choices: r.Choices(), Rehearsals: r.rehearsals, Used: r.Used, Visits: planVisits, SetAside: r.asides, Incidents: r.incidents(),
	}
	if err := in.Problem.UnmarshalText([]byte(r.Case.Problem)); err != nil {
		return nil, fmt.Errorf("reading the case's problem: %w", err)
	}
	in.Also = r.Case.Further()
	for _, one := range r.Practised {
		if !one.Broken {
			in.Practised = append(in.Practised, one.Log)
		}
	}
	for _, one := range r.Resumed {
		in.Resumed = append(in.Resumed, one.Resumed)
	}
	in.Assessments = r.assessed()
	for _, o := range r.Horse.Holders() {
		in.Owners = append(in.Owners, o.ID)
	}
	return casefile.Read(r.by, in)
}

// EndedBy is the entry that ended a session, or nil.
func EndedBy(entries []track.Entry) *track.Entry {
	for _, e := range track.Live(entries) {
		if e.Kind == track.KindEnd {
			return &e
		}
	}
	return nil
}

// Newest reads the newest case of a horse as of the caller's today.
func (s *Reader) Newest(ctx context.Context, c api.Caller, horseID string) (r Reading, err error) {
	err = c.AtOneMoment(ctx, func(c api.Caller) error {
		h, kase, err := s.NewestCase(ctx, c, horseID)
		if err != nil {
			return err
		}
		r, err = s.ReadOf(ctx, c, h, kase)
		return err
	})
	return r, err
}

// NewestCase is a horse with its newest case.
func (s *Reader) NewestCase(ctx context.Context, c api.Caller, horseID string) (store.Horse, store.Case, error) {
	h, err := c.View.Horse(ctx, c.Practice, horseID)
	if err != nil {
		return store.Horse{}, store.Case{}, err
	}
	kase, err := c.View.NewestCase(ctx, c.Practice, horseID)
	return h, kase, err
}

// Beginning gives what a new assessment of the case's horse starts from, the
// last one with the case's problem in it, and the document of the assessment
// as it stands now.
func (s *Reader) Beginning(ctx context.Context, c api.Caller, kase store.Case, id string) (base, now assess.Assessment, err error) {
	earlier, err := c.View.Assessments(ctx, c.Practice, kase.HorseID)
	if err != nil {
		return base, now, err
	}
	var problem horse.Problem
	if err := problem.UnmarshalText([]byte(kase.Problem)); err != nil {
		return base, now, err
	}
	if n := len(earlier); n > 0 {
		base = earlier[n-1].Doc.CarriedOver()
	}
	if len(earlier) == 0 {
		base = base.About(kase.Further()...)
	}
	base = base.About(problem)
	now = base
	for _, a := range earlier {
		if a.ID == id {
			now = a.Doc
		}
	}
	return base, now, nil
}
