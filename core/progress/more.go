package progress

import (
	"math"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trend"
)

// More is one measure over the sessions that noted it, the oldest first (part 8).
type More struct {
	Name  phrase.Message `json:"name" doc:"what is measured"`
	Says  phrase.Message `json:"says" doc:"what it means"`
	Cells []Cell         `json:"cells" doc:"one for each session that noted it"`
}

// A Cell is what one session noted.
type Cell struct {
	Session string         `json:"session" doc:"its id"`
	On      string         `json:"on" format:"date" doc:"its day"`
	Says    phrase.Message `json:"says" doc:"the number in words"`
}

// TimeOn is the time on the problem, in seconds, against the first day.
type TimeOn struct {
	Says   phrase.Message `json:"says" doc:"then and now"`
	Before *float64       `json:"before,omitempty" doc:"on the first day, s"`
	Points []trend.Point  `json:"points" doc:"seconds, one for each session that reached the goal"`
	Days   []string       `json:"days" doc:"their days"`
}

// more lists the other measures: those of asks for the step that is chosen, or taken
// over all asks where a sum or a share of them can be; and those of whole sessions.
func (r reader) more(asks []horse.Ask) []More {
	list := []More{}
	add := func(key string, of func(history.Figures) (phrase.Args, bool), name ...phrase.Args) {
		m := More{Name: phrase.Of("more."+key, append(name, nil)[0]), Says: phrase.Of("more."+key+".says", nil)}
		for _, f := range r.sessions {
			if args, ok := of(f); ok {
				m.Cells = append(m.Cells, Cell{Session: f.Session, On: f.On, Says: phrase.Of("more."+key+".cell", args)})
			}
		}
		if len(m.Cells) > 0 {
			list = append(list, m)
		}
	}
	add("light", func(f history.Figures) (phrase.Args, bool) {
		light, of := 0, 0
		for _, a := range r.of(f) {
			light, of = light+a.Light, of+a.Leveled
		}
		return phrase.Args{"n": light, "of": of}, of > 0
	})
	for _, m := range []struct {
		key string
		of  func(history.Figure) *float64
	}{
		{"gap", func(a history.Figure) *float64 { return a.Gap }},
		{"brought", func(a history.Figure) *float64 { return a.Brought }},
		{"delay", func(a history.Figure) *float64 { return a.Delay }},
		{"means", func(a history.Figure) *float64 { return counted(a.Means) }},
		{"pulses", func(a history.Figure) *float64 {
			if a.Pulsed == 0 {
				return nil
			}
			return &a.Pulses
		}},
		{"hold", func(a history.Figure) *float64 { return counted(a.Hold) }},
		{"dose", func(a history.Figure) *float64 { return counted(a.Dose) }},
	} {
		if r.step == "" {
			break // of different asks they are not one number
		}
		add(m.key, func(f history.Figures) (phrase.Args, bool) {
			for _, a := range r.of(f) {
				if v := m.of(a); v != nil {
					return phrase.Args{"n": tidy(*v)}, true
				}
			}
			return nil, false
		})
	}
	add("events", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": f.Day.Events, "m": f.Day.Caught}, f.Day.Events+f.Day.Caught > 0
	})
	add("interruptions", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": tidy(arena.PerTen(float64(f.Day.Interruptions), f.Day.Minutes))}, f.Day.Interruptions > 0
	})
	add("place", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": f.Day.Rest, "m": f.Day.Work}, f.Day.Rest+f.Day.Work > 0
	})
	add("offers", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": f.Day.Yes, "of": f.Day.Offers}, f.Day.Offers > 0
	})
	add("attention", func(f history.Figures) (phrase.Args, bool) {
		d := f.Day
		return phrase.Args{"n": d.OnPerson, "home": d.OnHome, "object": d.Samples - d.OnPerson - d.OnHome, "of": d.Samples}, d.Samples > 0
	})
	add("spooks", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": tidy(f.Day.SpooksInTen())}, f.Day.Spooks > 0
	})
	add("doses", func(f history.Figures) (phrase.Args, bool) {
		return phrase.Args{"n": f.Day.Doses, "m": f.Day.Surplus}, f.Day.Doses > 0
	})
	add("kicks", func(f history.Figures) (phrase.Args, bool) {
		if f.Day.Kicks == nil {
			return nil, false
		}
		return phrase.Args{"n": tidy(*f.Day.Kicks)}, true
	})
	add("recovery", func(f history.Figures) (phrase.Args, bool) {
		if f.Day.Recovery == nil {
			return nil, false
		}
		return phrase.Args{"n": int(math.Round(*f.Day.Recovery))}, true
	})
	for _, ask := range asks {
		sided := func(key string, of func(history.Figure) (int, int)) {
			add(key, func(f history.Figures) (phrase.Args, bool) {
				i := slices.IndexFunc(f.Asks, func(a history.Figure) bool { return a.Ask == ask })
				if i < 0 {
					return nil, false
				}
				some, all := of(f.Asks[i])
				return phrase.Args{"n": some, "of": all}, all > 0
			}, phrase.Args{"ask": r.name(ask)})
		}
		if !ask.Variant.IsZero() {
			sided("offers.of", func(a history.Figure) (int, int) { return a.Yes, a.Offers })
		}
		if !ask.Variant.Zone.IsZero() {
			sided("doses.of", func(a history.Figure) (int, int) { return a.Moved, a.Doses })
		}
	}
	return list
}

// of are the wanted asks of a session.
func (r reader) of(f history.Figures) []history.Figure {
	var list []history.Figure
	for _, a := range f.Asks {
		if r.wants(a.Ask) {
			list = append(list, a)
		}
	}
	return list
}

func counted(n int) *float64 {
	if n == 0 {
		return nil
	}
	v := float64(n)
	return &v
}

// tidy is a number with one figure behind the point at most.
func tidy(v float64) float64 { return math.Round(v*10) / 10 }

// time is the time on the problem: from the first ask of its ladder in a session until
// the goal's plank was answered softly, rests included.
func (r reader) time(by Choice) *TimeOn {
	l, ok := r.c.Ladder(by.Ladder)
	if !ok {
		return nil
	}
	goal := by.Until
	if goal == "" {
		goal = l.Steps[len(l.Steps)-1].Key
	}
	t := TimeOn{Points: []trend.Point{}, Days: []string{}}
	for i, f := range r.sessions {
		began, reached := math.Inf(1), math.Inf(1)
		for _, a := range f.Asks {
			step, _ := r.c.Step(a.Step)
			if step.Ladder != l.Key {
				continue
			}
			began = min(began, a.First)
			if a.Step == goal && a.SoftAt != nil {
				reached = min(reached, *a.SoftAt)
			}
		}
		if !math.IsInf(reached, 1) {
			t.Points, t.Days = append(t.Points, trend.Point{X: i + 1, Y: reached - began}), append(t.Days, f.On)
		}
	}
	if len(t.Points) == 0 {
		return nil
	}
	args := phrase.Args{"now": spell(t.Points[len(t.Points)-1].Y), "on": phrase.Date(t.Days[len(t.Days)-1])}
	t.Says = phrase.Of("more.time.now", args)
	if by.Before != nil {
		before := float64(*by.Before) * 60
		t.Before, args["before"] = &before, spell(before)
		t.Says = phrase.Of("more.time", args)
	}
	return &t
}

// spell is a time in words: in seconds under two minutes, else in minutes.
func spell(seconds float64) phrase.Message {
	if seconds < 120 {
		return phrase.Of("more.seconds", phrase.Args{"n": int(math.Round(seconds))})
	}
	return phrase.Of("more.minutes", phrase.Args{"n": int(math.Round(seconds / 60))})
}
