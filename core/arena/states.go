package arena

import (
	"cmp"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// A Day is one session's track with its local date.
type Day struct {
	Date    string  `json:"date" format:"date"`
	Started int64   `json:"started"`
	Handler string  `json:"handler,omitempty"`
	Track   []Entry `json:"track"`

	Fresh []string `json:"fresh,omitempty" doc:"steps whose measure or pass mark was changed since the day before: they begin again at tried"`
}

// A Visit is what one session made of the steps.
type Visit struct {
	Before, After []Known
}

// States tells how far every ask has come over the sessions, in the order of
// their dates (part 5). An ask that was never worked is not in the list.
func States(c *catalog.Catalog, days []Day) []Known {
	known, _ := walk(c, days)
	return known
}

// Changes tells what each session changed, in the sessions' order.
func Changes(c *catalog.Catalog, days []Day) []Visit {
	_, visits := walk(c, days)
	return visits
}

func walk(c *catalog.Catalog, days []Day) ([]Known, []Visit) {
	days = slices.Clone(days)
	slices.SortStableFunc(days, func(a, b Day) int {
		return cmp.Or(cmp.Compare(a.Date, b.Date), cmp.Compare(a.Started, b.Started))
	})
	f := &folder{
		cat: c, known: map[horse.Ask]Known{}, endedWell: map[horse.Ask]bool{}, before: map[horse.Ask]Known{},
		today: map[horse.Ask][]told{}, last: map[horse.Ask][]told{},
	}
	visits := make([]Visit, 0, len(days))
	for i, d := range days {
		if i == 0 || days[i-1].Date != d.Date {
			f.newDay()
		}
		f.renew(d.Fresh)
		before := f.list()
		f.session(d)
		visits = append(visits, Visit{Before: before, After: f.list()})
	}
	return f.list(), visits
}

// folder carries the states from session to session.
type folder struct {
	cat       *catalog.Catalog
	known     map[horse.Ask]Known
	endedWell map[horse.Ask]bool  // the last day's last rep counted towards the pass mark
	before    map[horse.Ask]Known // as the day began
	today     map[horse.Ask][]told
	last      map[horse.Ask][]told // the last three
}

// renew begins steps again that were worked under another measure or pass mark.
func (f *folder) renew(steps []string) {
	if len(steps) == 0 {
		return
	}
	for a, k := range f.known {
		if slices.Contains(steps, a.Step) && !k.State.IsZero() {
			f.known[a] = Known{Ask: a, State: horse.Tried, Last: k.Last, Understood: k.Understood}
			delete(f.before, a)
			delete(f.today, a)
		}
	}
}

func (f *folder) newDay() {
	for a, reps := range f.today {
		if n := len(reps); n > 0 { // an ask known only from memory has none
			f.endedWell[a] = reps[n-1].passes
		}
	}
	f.today = map[horse.Ask][]told{}
	f.before = make(map[horse.Ask]Known, len(f.known))
	for a, k := range f.known {
		f.before[a] = k
	}
}

func (f *folder) session(d Day) {
	track := slices.Clone(d.Track)
	Order(track)
	s := newSession(f.cat, f.cat.Rules, Input{Started: d.Started, Handler: d.Handler, Known: f.list()})
	for _, e := range Live(track) {
		s.absorb(e)
	}
	for a := range s.fromMemory {
		s.log(a)
	}
	for a, log := range s.logs {
		if _, told := s.fromMemory[a]; !told && len(log.reps) == 0 {
			continue
		}
		f.today[a] = append(f.today[a], log.reps...)
		all := append(f.last[a], log.reps...)
		f.last[a] = all[max(len(all)-3, 0):]
		f.known[a] = f.judge(a, log, s, d.Date)
	}
}

// judge says how far an ask has come after a session.
func (f *folder) judge(a horse.Ask, log *askLog, s *session, date string) Known {
	passed := s.passed
	k, before := f.known[a], f.before[a]
	k.Ask, k.Last, k.Understood = a, date, understood(f.last[a])
	if k.State.IsZero() {
		k.State = horse.Tried
	}
	for _, t := range log.reps {
		if t.soft() && (!k.Soft || t.step.Reaches(t.Target, k.Value)) {
			k.Soft, k.Value = true, t.Target
		}
		if t.answer.Rank() >= horse.Tolerated.Rank() && k.State == horse.Tried {
			k.State = horse.StepTolerated
		}
	}
	if last, told := s.fromMemory[a]; told && last.Rank() >= horse.Tolerated.Rank() && k.State == horse.Tried {
		k.State = horse.StepTolerated // what is remembered is not counted towards a pass mark
	}
	today := f.today[a]
	if before.Passed() {
		step, _ := f.cat.Step(a.Step)
		switch {
		case f.keeps(step, today):
			k.State = horse.Kept
		case f.slips(a, step, today) && !k.slippedAndBack(passed):
			k.State = horse.Slipped
		}
	}
	if level, ok := passed[a]; ok {
		if !k.Level.Noted() || level < k.Level.Int() {
			k.Level = horse.LevelOf(level)
		}
		if k.State != horse.Kept {
			k.State = horse.Met
		}
	}
	return k
}

// slippedAndBack reports whether the pass mark was reached again today.
func (k Known) slippedAndBack(passed map[horse.Ask]int) bool { _, ok := passed[k.Ask]; return ok }

// keeps reports whether the first two answers of a later day were accepted at
// the pass level, at the last value.
func (f *folder) keeps(step catalog.Step, today []told) bool {
	if len(today) < 2 {
		return false
	}
	for _, t := range today[:2] {
		if !t.passes || !t.step.Reaches(t.Target, step.Last()) {
			return false
		}
	}
	return true
}

// slips reports whether each of the first two answers of a later day was
// refused or 3 levels above the pass level; the first four decide where the
// last day ended on a good pass.
func (f *folder) slips(a horse.Ask, step catalog.Step, today []told) bool {
	n := 2
	if f.endedWell[a] {
		n = 4
	}
	if len(today) < n {
		return false
	}
	return !slices.ContainsFunc(today[:n], func(t told) bool {
		return !t.refused() && t.Peak.Int() < step.Pass.Level+3
	})
}

// list gives the states in the catalogue's order.
func (f *folder) list() []Known {
	var known []Known
	for _, l := range f.cat.Ladders {
		for _, step := range l.Steps {
			for _, a := range step.Asks() {
				if k, ok := f.known[a]; ok {
					known = append(known, k)
				}
			}
		}
	}
	return known
}

// A Told rep is one rep of a session as the rules read it, for beads.
type Told struct {
	ID   string `json:"id"`
	Kind Kind   `json:"kind" doc:"of its entry"`
	Rep
	At      int64        `json:"at"`
	Graded  horse.Answer `json:"graded" doc:"the answer as the rules read it"`
	Calm    int          `json:"calm" doc:"arousal after, filled in"`
	N       int          `json:"n" doc:"number among the counted reps of the ask; 0: not counted"`
	Dip     bool         `json:"dip"`
	Name    string       `json:"name" doc:"the step's name, its ladder before it"`
	Counted bool         `json:"counted"`
	School  horse.School `json:"school" doc:"in which it was worked"`
	Good    bool         `json:"good" doc:"a success in that school: a soft answer, a quiet stand, a chosen rest, a released try, a yes"`
}

// succeeds reports whether an answer is a success in the school at work (part 8).
func (s *session) succeeds(t told) bool {
	switch s.school {
	case horse.Doses:
		return t.quietStand()
	case horse.WaitItOut:
		return t.answer.Rank() >= horse.Try.Rank() && t.Release != horse.NotReleased
	case horse.ReliefPlace:
		return t.soft() || t.rested
	}
	return t.soft()
}

// Beads lists the live reps of a session with what was filled in; schools are
// those in which its ladders were worked.
func Beads(c *catalog.Catalog, d Day, known []Known, schools map[string]horse.School) []Told {
	track := slices.Clone(d.Track)
	Order(track)
	s := newSession(c, c.Rules, Input{Started: d.Started, Handler: d.Handler, Known: known, Schools: schools})
	var beads []Told
	for _, e := range Live(track) {
		beads = s.tell(beads, e)
	}
	return beads
}

// tell takes in an entry and adds its rep, if it is one, to those told.
func (s *session) tell(told []Told, e Entry) []Told {
	s.absorb(e)
	if _, ok := e.asRep(s.cat); !ok {
		return told
	}
	t := s.lastRep()
	n := 0
	if t.counted {
		n = len(s.log(t.Ask).reps)
	}
	return append(told, Told{
		ID: e.ID, Kind: e.Kind, Rep: t.Rep, At: e.At, Graded: t.answer, Calm: t.arousal, N: n, Dip: s.dip(n), Name: t.step.FullName(), Counted: t.counted,
		School: s.school, Good: s.succeeds(*t),
	})
}
