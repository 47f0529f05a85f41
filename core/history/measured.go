package history

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/track"
)

// Measured is what was counted over a whole session (part 8).
type Measured struct {
	Minutes       float64        `json:"minutes,omitempty" doc:"from the first entry to the last"`
	Events        int            `json:"events,omitempty" doc:"dangerous ways out"`
	Caught        int            `json:"caught,omitempty" doc:"kicks at tools, and bucks caught early"`
	Interruptions int            `json:"interruptions,omitempty" doc:"unasked behaviour that was stopped"`
	Rest          int            `json:"rest,omitempty" doc:"seconds of chosen rest"`
	Work          int            `json:"work,omitempty" doc:"seconds of work beside it"`
	Offers        int            `json:"offers,omitempty" doc:"offers made"`
	Yes           int            `json:"yes,omitempty" doc:"of them answered with yes"`
	Doses         int            `json:"doses,omitempty" doc:"doses given"`
	Surplus       int            `json:"surplus,omitempty" doc:"given above what was planned, over all doses"`
	Kicks         *float64       `json:"kicks,omitempty" doc:"kicks per 10 touches, mean"`
	Spooks        int            `json:"spooks,omitempty" doc:"times it spooked"`
	Samples       int            `json:"samples,omitempty" doc:"looks at where its mind was"`
	OnPerson      int            `json:"on_person,omitempty" doc:"of them on the person"`
	OnHome        int            `json:"on_home,omitempty" doc:"of them on home or herd"`
	Balance       outing.Balance `json:"balance,omitzero" doc:"work and rest, near home and away, of the ladders that are worked away from it"`
	Recovery      *float64       `json:"recovery,omitempty" doc:"median seconds from over the line until back at 1 or 0"`
}

// Arousal from which a horse is over the line, and at which it is back (part 2).
const (
	overLine = 3
	back     = 1
)

func measuredIn(c *catalog.Catalog, d track.Day, live []track.Entry, reps []arena.Told) Measured {
	m := Measured{Minutes: arena.Minutes(live, d.Started), Spooks: arena.Spooks(live)}
	var kicks, recoveries []float64
	over := int64(0)
	calm := func(level int, at int64) {
		switch {
		case level >= overLine && over == 0:
			over = at
		case level <= back && over > 0:
			recoveries, over = append(recoveries, float64(at-over)/1000), 0
		}
	}
	for _, e := range live {
		ways, _ := e.Ways()
		for _, w := range ways {
			switch {
			case horse.Dangerous(w):
				m.Events++
			case w.String() == "kicked at a tool or rope" || w.String() == "caught early":
				m.Caught++
			}
		}
		switch {
		case e.Interruption != nil:
			m.Interruptions++
		case e.Spell != nil:
			m.spent(c, *e.Spell)
		case e.Offer != nil:
			if m.Offers++; e.Offer.Answer == track.Came {
				m.Yes++
			}
		case e.Dose != nil:
			m.Doses++
			m.Surplus += max(e.Dose.Given-e.Dose.Target, 0)
			if e.Dose.Kicks != nil {
				kicks = append(kicks, float64(*e.Dose.Kicks))
			}
		case e.Mark != nil:
			m.looked(*e.Mark)
			if e.Mark.Arousal.Noted() {
				calm(e.Mark.Arousal.Int(), e.At)
			}
		}
		if i := slices.IndexFunc(reps, func(t arena.Told) bool { return t.ID == e.ID }); i >= 0 && reps[i].Arousal.Noted() {
			calm(reps[i].Arousal.Int(), e.At)
		}
	}
	m.Recovery = median(recoveries)
	if len(kicks) > 0 {
		sum := 0.0
		for _, k := range kicks {
			sum += k
		}
		sum /= float64(len(kicks))
		m.Kicks = &sum
	}
	return m
}

// spent counts the seconds of a spell.
func (m *Measured) spent(c *catalog.Catalog, p track.Spell) {
	if p.Rest {
		m.Rest += p.Seconds
	} else {
		m.Work += p.Seconds
	}
	if step, _ := c.Step(p.Step); !step.Away {
		return
	}
	switch near := p.Near(); {
	case p.Rest && near:
		m.Balance.RestNear += p.Seconds
	case p.Rest:
		m.Balance.RestAway += p.Seconds
	case near:
		m.Balance.WorkNear += p.Seconds
	default:
		m.Balance.WorkAway += p.Seconds
	}
}

// looked counts what a mark saw of the horse's mind.
func (m *Measured) looked(k track.Mark) {
	switch k.Mind {
	case horse.Attention{}:
		return
	case horse.OnThePerson:
		m.OnPerson++
	case horse.OnHomeOrHerd:
		m.OnHome++
	}
	m.Samples++
}

// SpooksInTen is how often it spooked in ten minutes.
func (m Measured) SpooksInTen() float64 { return arena.PerTen(float64(m.Spooks), m.Minutes) }

// mostSpooks is of how many sessions it is kept how often the horse spooked.
const mostSpooks = 20

// spooksAfter is how often it spooked, after one more session; before it was ever
// written down, none is not a number.
func spooksAfter(before []float64, live []track.Entry, started int64) []float64 {
	n := arena.Spooks(live)
	if n == 0 && len(before) == 0 {
		return nil
	}
	after := append(slices.Clip(before), arena.PerTen(float64(n), arena.Minutes(live, started)))
	return after[max(0, len(after)-mostSpooks):]
}

// also adds to an ask's figures what its reps took, when it was first asked, first
// soft and passed, and how it was answered to each person and under what.
func (f *Figure) also(reps []arena.Told, d track.Day, under map[string][]Under) {
	var pulses []float64
	by, around := map[string]int{}, map[Under]int{}
	var people, surroundings levels
	for i, t := range reps {
		at := float64(t.At-d.Started) / 1000
		if i == 0 {
			f.First = max(at, 0)
		}
		if horse.Soft(t.Graded) && f.SoftAt == nil && at >= 0 {
			f.SoftAt = &at
		}
		f.Means = max(f.Means, t.Means)
		if t.Pulses.Noted() {
			f.Pulsed++
			pulses = append(pulses, float64(t.Pulses.Int()))
		}
		f.asked(t)
		person := t.Handler
		if person == "" {
			person = d.Handler
		}
		if _, ok := by[person]; !ok {
			by[person], f.By = len(f.By), append(f.By, Held{Person: person})
		}
		people.add(by[person], t, &f.By[by[person]].How)
		for _, u := range under[t.ID] {
			if _, ok := around[u]; !ok {
				around[u], f.Under = len(f.Under), append(f.Under, u)
			}
			surroundings.add(around[u], t, &f.Under[around[u]].How)
		}
	}
	f.Pulses = horse.Median(pulses)
	for i := range f.By {
		f.By[i].Level = median(people[i])
	}
	for i := range f.Under {
		f.Under[i].Level = median(surroundings[i])
	}
}

// asked counts a rep as an offer, a dose, and as the one that passed.
func (f *Figure) asked(t arena.Told) {
	switch t.Kind {
	case track.KindOffer:
		if f.Offers++; horse.Soft(t.Graded) {
			f.Yes++
		}
	case track.KindDose:
		if f.Doses++; t.Graded == horse.Refused {
			f.Moved++
		}
	}
	if t.Passed && f.Passed == 0 {
		f.Passed = t.N
	}
}

// levels are the peak levels of the reps of each of several.
type levels map[int][]float64

func (l *levels) add(i int, t arena.Told, h *How) {
	if *l == nil {
		*l = levels{}
	}
	if h.N++; horse.Soft(t.Graded) {
		h.Soft++
	}
	if t.Peak.Noted() {
		(*l)[i] = append((*l)[i], float64(t.Peak.Int()))
	}
}
