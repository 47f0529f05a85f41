package progress

import (
	"cmp"
	"slices"

	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trend"
)

// Beside sets how an ask was answered to different people, or in different tack,
// side by side (part 8).
type Beside struct {
	Name phrase.Message `json:"name" doc:"the ask in words"`
	By   []By           `json:"by" doc:"one for each, in the order in which they first came"`
}

// By is how an ask was answered to one person, or in one kind of tack.
type By struct {
	Person string         `json:"person,omitempty" doc:"id; empty: it is about tack"`
	Name   string         `json:"name,omitempty" doc:"of a person, given by a server; of tack, as it was written down"`
	Soft   trend.Share    `json:"soft" doc:"accepted or offered of all"`
	Feel   phrase.Message `json:"feel" doc:"the feel it took, in words"`
}

// Spread is under how many different things a step was asked; 0: none was written
// down.
type Spread struct {
	Name         phrase.Slotted `json:"name" doc:"the step's name"`
	People       int            `json:"people" doc:"who held the rope"`
	Tack         int            `json:"tack" doc:"kinds of tack"`
	Places       int            `json:"places" doc:"where it was worked"`
	Company      int            `json:"company" doc:"who was with it"`
	Distractions int            `json:"distractions" doc:"what drew its eye"`
}

// sum is how an ask was answered to one, over sessions.
type sum struct {
	person, name string

	n, soft int
	levels  []float64
}

// sums are in the order in which they came.
type sums []*sum

func (all *sums) add(person, name string, how history.How) {
	i := slices.IndexFunc(*all, func(s *sum) bool { return s.person == person && s.name == name })
	if i < 0 {
		i, *all = len(*all), append(*all, &sum{person: person, name: name})
	}
	s := (*all)[i]
	s.n, s.soft = s.n+how.N, s.soft+how.Soft
	if how.Level != nil {
		s.levels = append(s.levels, *how.Level)
	}
}

// beside sets the asks side by side that several people asked, then those that were
// asked in several kinds of tack.
func (r reader) beside(asks []horse.Ask) []Beside {
	people, tack := []Beside{}, []Beside{}
	for _, ask := range asks {
		var held, worn sums
		r.each(ask, func(_ int, _ history.Figures, a history.Figure) {
			for _, h := range a.By {
				held.add(h.Person, "", h.How)
			}
			for _, u := range a.Under {
				if u.What == history.InTack {
					worn.add("", u.Which, u.How)
				}
			}
		})
		people, tack = r.besides(people, ask, held), r.besides(tack, ask, worn)
	}
	return append(people, tack...)
}

func (r reader) besides(list []Beside, ask horse.Ask, all sums) []Beside {
	if len(all) < 2 {
		return list
	}
	b := Beside{Name: r.name(ask)}
	for _, s := range all {
		one := By{Person: s.person, Name: s.name, Soft: trend.ShareOf(s.soft, s.n), Feel: phrase.Of("more.no_feel", nil)}
		if len(s.levels) > 0 {
			one.Feel = Feel(horse.Median(s.levels))
		}
		b.By = append(b.By, one)
	}
	return append(list, b)
}

// spread counts under what each step was asked; one that was asked by one person
// alone, with nothing written down, is left out.
func (r reader) spread() []Spread {
	type seen map[string]map[string]bool // by what, which
	steps := map[string]seen{}
	for _, f := range r.sessions {
		for _, a := range f.Asks {
			if !r.wants(a.Ask) {
				continue
			}
			s := steps[a.Step]
			if s == nil {
				s = seen{}
				steps[a.Step] = s
			}
			note := func(what, which string) {
				if s[what] == nil {
					s[what] = map[string]bool{}
				}
				s[what][which] = true
			}
			for _, h := range a.By {
				note("", h.Person)
			}
			for _, u := range a.Under {
				note(u.What.String(), u.Which)
			}
		}
	}
	list := []Spread{}
	for _, step := range r.steps() {
		s := steps[step.Step]
		of := func(w history.Surrounding) int { return len(s[w.String()]) }
		one := Spread{Name: step.Name, People: len(s[""]), Tack: of(history.InTack), Places: of(history.InPlace), Company: of(history.InCompany), Distractions: of(history.Distracted)}
		if one.People > 1 || one.Tack+one.Places+one.Company+one.Distractions > 0 {
			list = append(list, one)
		}
	}
	return list
}

// Passed is how many tries it took to the pass mark on each side, the side that
// passed first before the other (part 8, transfer).
type Passed struct {
	Name  phrase.Slotted `json:"name" doc:"the step's name"`
	First int            `json:"first" doc:"tries on the side that passed first"`
	Then  int            `json:"then" doc:"tries on the other"`
	Says  phrase.Message `json:"says" doc:"both in words"`
}

// transfer lists the steps that passed on both sides.
func (r reader) transfer() []Passed {
	list := []Passed{}
	for _, step := range r.steps() {
		near, off := horse.Ask{Step: step.Step}, horse.Ask{Step: step.Step}
		near.Variant.Side, off.Variant.Side = horse.Near, horse.Off
		a, b := r.passing(near), r.passing(off)
		if a.tries == 0 || b.tries == 0 {
			continue
		}
		side := horse.Near
		if cmp.Or(cmp.Compare(a.session, b.session), cmp.Compare(a.at, b.at)) > 0 {
			a, b, side = b, a, horse.Off
		}
		list = append(list, Passed{Name: step.Name, First: a.tries, Then: b.tries,
			Says: phrase.Of("more.transfer."+side.String(), phrase.Args{"step": step.Name, "first": a.tries, "then": b.tries})})
	}
	return list
}

// passing is in which session an ask first passed, when that day it began, and how
// many tries it had taken by then.
type passing struct {
	session, tries int
	at             float64
}

func (r reader) passing(ask horse.Ask) (p passing) {
	before, done := 0, false
	r.each(ask, func(x int, _ history.Figures, a history.Figure) {
		switch {
		case done:
		case a.Passed > 0:
			p, done = passing{x, before + a.Passed, a.First}, true
		default:
			before += a.N()
		}
	})
	return p
}
