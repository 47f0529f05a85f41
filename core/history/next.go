package history

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Fold folds sessions in their order: by date, then by when they began.
func Fold(c *catalog.Catalog, b Beside, days []track.Day) History {
	var h History
	for _, d := range inOrder(days) {
		h = h.After(c, b, d)
	}
	return h
}

// Figured folds sessions in their order, with what each came to in numbers.
func Figured(c *catalog.Catalog, b Beside, days []track.Day) (History, []Figures) {
	var h History
	var list []Figures
	for _, d := range inOrder(days) {
		next, reps, visit := h.Read(c, b, d)
		h, list = next, append(list, FiguresOf(c, d, reps, visit))
	}
	return h, list
}

func inOrder(days []track.Day) []track.Day {
	return slices.SortedStableFunc(slices.Values(days), func(a, b track.Day) int {
		return cmp.Or(cmp.Compare(a.Date, b.Date), cmp.Compare(a.Started, b.Started))
	})
}

// read reads a session after the history before it, by one catalogue.
func read(c *catalog.Catalog, h History, d track.Day) (History, []arena.Told, Visit) {
	asks := make(map[horse.Ask]Ask, len(h.Asks))
	for _, a := range h.Asks {
		asks[a.Ask] = a.morning(d.Date, d.Fresh)
	}
	visit := Visit{Before: known(c, sorted(asks))}
	out := arena.ReadDay(c, d, visit.Before, nil)
	for a, reps := range counted(out) {
		asks[a] = asks[a].after(c, a, d.Date, reps, out)
	}
	for a := range out.Concluded {
		if k := asks[a]; !k.Understood {
			k.Ask, k.Understood, k.Concluded = a, true, true
			if k.State.IsZero() {
				k.State = horse.Untried
			}
			asks[a] = k
		}
	}
	n := h
	n.Own = h.ownAfter(out)
	n.Stopped = stoppedAfter(h.Stopped, d.Date, arena.StoppedIn(out.Live, d.Started))
	n.Spots = arena.SpotsAfter(c, h.Spots, out.Live)
	n.Spooks = spooksAfter(h.Spooks, out.Live, d.Started)
	n.Things = thingsAfter(c, h.Things, d.Date, out.Live)
	n.Started = max(h.Started, d.Started)
	n.Asks = sorted(asks)
	visit.After = known(c, n.Asks)
	n.Firsts = firsts(h.Firsts, d.Date, out.Reps)
	events := dangers(out.Live)
	n.Days = append(slices.Clip(h.Days), Day{On: d.Date, Events: events})
	if len(events) > 0 {
		n.Danger = d.Date
	}
	n.Steps = stepsAfter(c, h.Steps, visit, d.Date)
	n.Hands = handsAfter(h, n, out.Reps, d)
	n.Answers = h.Answers.With(out.Reps)
	if s, ok := repSeconds(out.Reps); ok {
		n.RepSeconds = s
	}
	n.Bumped = out.Bumped
	if !slices.ContainsFunc(out.Live, func(e track.Entry) bool { return e.Kind == track.KindEnd }) {
		n.Open = d.ID
	}
	n.Heavy = heavy(h.Heavy, out.Reps)
	return n, out.Reps, visit
}

// How many of a later day's first answers decide whether what was met is kept,
// or has slipped; and slipped where the last day ended on a good pass (part 5).
const (
	decisive  = 2
	afterGood = 4
)

// morning is an ask as a session or an assessment of a day begins: a later day
// closes the one before, and a step that is measured or passed otherwise since
// begins again at tried.
func (a Ask) morning(day string, fresh []string) Ask {
	if a.Today != nil && a.Last != day {
		if a.Today.Counts {
			a.EndedWell = a.Today.Last
		}
		a.Today = nil
	}
	if slices.Contains(fresh, a.Step) {
		a.Known = arena.Known{Ask: a.Ask, State: horse.Tried, Last: a.Last, Understood: a.Understood}
		if a.Today != nil {
			a.Today = &Today{}
		}
	}
	return a
}

// counted gives the counted reps of each ask that has any, and the asks that
// were written down from memory.
func counted(out arena.Outcome) map[horse.Ask][]arena.Told {
	reps := map[horse.Ask][]arena.Told{}
	for _, t := range out.Reps {
		if t.Counted {
			reps[t.Ask] = append(reps[t.Ask], t)
		}
	}
	for a := range out.Memory {
		reps[a] = append([]arena.Told(nil), reps[a]...)
	}
	return reps
}

// after is an ask after a session that worked it (part 5).
func (a Ask) after(c *catalog.Catalog, ask horse.Ask, date string, reps []arena.Told, out arena.Outcome) Ask {
	today := Today{Passed: a.Passed()}
	if a.Today != nil {
		today = Today{Passed: a.Today.Passed, Good: slices.Clip(a.Today.Good), Poor: slices.Clip(a.Today.Poor), Last: a.Today.Last, Counts: a.Today.Counts}
	}
	a.Fair = slices.Clone(a.Fair)
	step, _ := c.Step(ask.Step)
	a.Ask, a.Last, a.Today = ask, date, &today
	was := a.State
	if a.State.IsZero() || a.State == horse.Untried {
		a.State = horse.Tried
	}
	a.Known = measured(a.Known, reps)
	for _, t := range reps {
		today.count(t)
		a.Fair = append(a.Fair, t.Fair())
		if horse.Soft(t.Graded) && (!a.Soft || step.Reaches(t.Target, a.Value)) {
			a.Soft, a.Value = true, t.Target
		}
		if t.Graded.Rank() >= horse.Tolerated.Rank() && a.State == horse.Tried {
			a.State = horse.StepTolerated
		}
	}
	a.Fair = a.Fair[max(len(a.Fair)-3, 0):]
	a.Understood = arena.Understood(a.Fair)
	if n := len(reps); n > 0 {
		last := reps[n-1]
		a.Concluded, a.Good = false, a.Good && horse.Soft(last.Graded) && last.Peak.Int() <= assess.GoodTo
	}
	if last, told := out.Memory[ask]; told && last.Rank() >= horse.Tolerated.Rank() && a.State == horse.Tried {
		a.State = horse.StepTolerated // what is remembered is not counted towards a pass mark
	}
	level, passed := out.Passed[ask]
	if today.Passed {
		switch {
		case today.keeps():
			a.State = horse.Kept
		case today.slips(a.EndedWell) && !passed:
			a.State = horse.Slipped
		}
	}
	if passed {
		if !a.Level.Noted() || level < a.Level.Int() {
			a.Level = horse.LevelOf(level)
		}
		if a.State != horse.Kept {
			a.State = horse.Met
		}
	}
	if a.State != was {
		a.Source, a.Assessed = horse.Source{}, ""
	}
	return a
}

// measured is an ask with the numbers of the newest session that worked it, which
// the next one is compared with; what is only remembered leaves them as they were.
func measured(k arena.Known, reps []arena.Told) arena.Known {
	if len(reps) == 0 {
		return k
	}
	k.SoftAfter, k.Kicks, k.StoodAfter = 0, nil, 0
	var soft []float64
	for _, t := range reps {
		if horse.Soft(t.Graded) && t.Seconds > 0 {
			soft = append(soft, t.Seconds)
		}
		if k.Kicks == nil {
			k.Kicks = t.Kicks
		}
		if k.StoodAfter == 0 && t.Kind == track.KindDose {
			k.StoodAfter = t.Seconds
		}
	}
	k.SoftAfter = horse.Median(soft)
	return k
}

// stoppedAfter puts what a session stopped in the place of what was known of it.
func stoppedAfter(had []arena.StoppedBefore, day string, stopped arena.Stopped) []arena.StoppedBefore {
	list := slices.Clone(had)
	for _, b := range stopped {
		one := arena.StoppedBefore{What: b.Called(), Heading: b.Heading, On: day, PerTen: b.PerTen, All: b.AllPerTen}
		if i := slices.IndexFunc(list, func(was arena.StoppedBefore) bool { return was.Of(b) }); i >= 0 {
			list[i] = one
		} else {
			list = append(list, one)
		}
	}
	return list
}

func (t *Today) count(rep arena.Told) {
	if len(t.Good) < afterGood {
		t.Good, t.Poor = append(t.Good, rep.Passes && rep.Hard), append(t.Poor, rep.Poor && rep.Against != arena.Early) // asked early, it lowers nothing
	}
	t.Last, t.Counts = rep.Passes, true
}

// keeps reports whether the first two answers of a later day were accepted at
// the pass level, at the last value.
func (t *Today) keeps() bool {
	return len(t.Good) >= decisive && !slices.Contains(t.Good[:decisive], false)
}

// slips reports whether each of the first two answers of a later day was
// refused or 3 levels above the pass level; the first four decide where the
// last day ended on a good pass.
func (t *Today) slips(endedWell bool) bool {
	n := decisive
	if endedWell {
		n = afterGood
	}
	return len(t.Poor) >= n && !slices.Contains(t.Poor[:n], false)
}

func sorted(asks map[horse.Ask]Ask) []Ask {
	return slices.SortedFunc(maps.Values(asks), func(a, b Ask) int { return byKey(a.Ask, b.Ask) })
}

func byKey(a, b horse.Ask) int {
	return cmp.Or(strings.Compare(a.Step, b.Step), strings.Compare(a.Variant.String(), b.Variant.String()))
}

// firsts adds the asks that were worked for the first time.
func firsts(had []First, date string, reps []arena.Told) []First {
	list := slices.Clip(had)
	for _, t := range reps {
		if slices.ContainsFunc(list, func(f First) bool { return f.Ask == t.Ask }) {
			continue
		}
		is := func(o arena.Told) bool { return o.Ask == t.Ask }
		first := First{Ask: t.Ask, On: date, Reps: Count(reps, is), Good: map[string]int{}}
		for _, school := range (horse.School{}).All() {
			for _, o := range reps {
				if is(o) && o.Counted && o.SuccessIn(school) {
					first.Good[school.String()]++
				}
			}
		}
		list = append(list, first)
	}
	slices.SortFunc(list, func(a, b First) int { return byKey(a.Ask, b.Ask) })
	return list
}

// dangers lists the dangerous things that what stands of a track tells of (part
// 3); a rear that the lead trainer cleared is none.
func dangers(live []track.Entry) []assess.EventKind {
	var kinds []assess.EventKind
	for _, e := range live {
		ways, flags := e.Ways()
		cleared := slices.Contains(flags, horse.RearCleared)
		for _, w := range ways {
			if k, ok := assess.EventOf(w); ok && (!cleared || w != horse.Reared) {
				kinds = append(kinds, k)
			}
		}
	}
	return kinds
}

// stepsAfter counts the steps that came to be met, were lost, or slipped.
func stepsAfter(c *catalog.Catalog, had []Step, v Visit, date string) []Step {
	was, is := states(v.Before), states(v.After)
	list := slices.Clone(had)
	for key := range is {
		step, _ := c.Step(key)
		i, there := slices.BinarySearchFunc(list, key, func(s Step, key string) int { return strings.Compare(s.Step, key) })
		if !there {
			list = slices.Insert(list, i, Step{Step: key})
		}
		met, before := whole(step, is[key]), whole(step, was[key])
		switch {
		case met && !before:
			list[i].Met++
		case before && !met:
			list[i].Lost++
		}
		for a, state := range is[key] {
			if state == horse.Slipped && was[key][a] != horse.Slipped {
				list[i].Slipped = date
			}
		}
	}
	return list
}

// states are the states of the asks of each step.
func states(known []arena.Known) map[string]map[horse.Ask]horse.StepState {
	all := map[string]map[horse.Ask]horse.StepState{}
	for _, k := range known {
		if all[k.Step] == nil {
			all[k.Step] = map[horse.Ask]horse.StepState{}
		}
		all[k.Step][k.Ask] = k.State
	}
	return all
}

// whole reports whether all asks of a step are met or kept.
func whole(step catalog.Step, states map[horse.Ask]horse.StepState) bool {
	n := 0
	for _, s := range states {
		if s == horse.Met || s == horse.Kept {
			n++
		}
	}
	return step.Link == "" && n == len(step.Asks())
}
