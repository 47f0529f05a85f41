package history

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/track"
)

// Figures are what one session alone came to in numbers (part 8). They are made as
// the session is folded and kept beside it, so that a long past is not read again
// for a trend.
type Figures struct {
	Session string          `json:"session" doc:"its id"`
	On      string          `json:"on" format:"date"`
	Asks    []Figure        `json:"asks,omitempty" doc:"each ask that was counted, in the order of its key"`
	Checks  []Check         `json:"checks,omitempty" doc:"asks that were passed before, and looked at on this later day"`
	Outings []outing.Result `json:"outings,omitempty" doc:"that were walked in it"`
	Day     Measured        `json:"day,omitzero" doc:"what was counted over the whole session"`
}

// A Figure is one ask in one session. What was not noted is absent.
type Figure struct {
	horse.Ask
	Answers [5]int   `json:"answers" doc:"counted reps: refused, try, tolerated, accepted, offered"`
	Leveled int      `json:"leveled,omitempty" doc:"of them with a level"`
	Light   int      `json:"light,omitempty" doc:"of those answered at 3 or less"`
	Arousal int      `json:"arousal,omitempty" doc:"highest"`
	Level   *float64 `json:"level,omitempty" doc:"median peak level"`
	Gap     *float64 `json:"gap,omitempty" doc:"median of peak less level at the first sign"`
	Brought *float64 `json:"brought,omitempty" doc:"median level the horse brings"`
	ToTry   *float64 `json:"to_try,omitempty" doc:"median seconds to the first try"`
	Delay   *float64 `json:"delay,omitempty" doc:"median release delay, s"`
	LetDown *float64 `json:"let_down,omitempty" doc:"median seconds from release to let-down"`
	Hold    int      `json:"hold,omitempty" doc:"longest soft hold ended by the handler, in the step's unit"`
	Dose    int      `json:"dose,omitempty" doc:"highest soft dose"`
	Hands   []Timing `json:"hands,omitempty" doc:"how each person's releases came"`
	Means   int      `json:"means,omitempty" doc:"furthest of the step's means that was needed, from 1"`
	Pulsed  int      `json:"pulsed,omitempty" doc:"asks whose pulses were counted"`
	Pulses  float64  `json:"pulses,omitempty" doc:"median pulses of them"`
	First   float64  `json:"first,omitempty" doc:"seconds from the session's start to its first rep"`
	SoftAt  *float64 `json:"soft_at,omitempty" doc:"seconds from the session's start to its first soft answer"`
	By      []Held   `json:"by,omitempty" doc:"how it answered each person who held the rope"`
	Under   []Under  `json:"under,omitempty" doc:"how it answered in each tack, place, company, and beside each distraction that was written down"`
	Offers  int      `json:"offers,omitempty" doc:"offers made"`
	Yes     int      `json:"yes,omitempty" doc:"of them answered with yes"`
	Doses   int      `json:"doses,omitempty" doc:"doses given"`
	Moved   int      `json:"moved,omitempty" doc:"of them stepped out from"`
	Passed  int      `json:"passed,omitempty" doc:"the rep, from 1, with which its pass mark was reached that day; 0: it was not"`
}

// How an ask was answered to some of its reps.
type How struct {
	N     int      `json:"n" doc:"counted reps"`
	Soft  int      `json:"soft,omitempty" doc:"accepted or offered"`
	Level *float64 `json:"level,omitempty" doc:"median peak level"`
}

// Held is how an ask was answered to one person.
type Held struct {
	Person string `json:"person"`
	How
}

// Under is how an ask was answered under something that was written down.
type Under struct {
	What  Surrounding `json:"what" doc:"of what kind it is"`
	Which string      `json:"which" doc:"as it was written down"`
	How
}

// N counts the reps.
func (f Figure) N() int {
	n := 0
	for _, a := range f.Answers {
		n += a
	}
	return n
}

// Soft counts the answers that were accepted or offered.
func (f Figure) Soft() int { return f.Answers[3] + f.Answers[4] }

// Timing is how one person's releases came (part 8: handler).
type Timing struct {
	Person  string `json:"person"`
	Of      int    `json:"of" doc:"releases"`
	OnTry   int    `json:"on_try,omitempty"`
	Late    int    `json:"late,omitempty"`
	Wrong   int    `json:"wrong,omitempty" doc:"at the wrong moment"`
	Starts  int    `json:"starts,omitempty" doc:"asks whose first level was noted"`
	FromOne int    `json:"from_one,omitempty" doc:"of them begun at 1"`
}

// A Check is an ask that was passed, looked at on a later day.
type Check struct {
	horse.Ask
	Days int  `json:"days" doc:"between"`
	Kept bool `json:"kept,omitempty" doc:"else it slipped"`
}

// lightUpTo is the level up to which an answer is light.
const lightUpTo = 3

// FiguresOf are a session's numbers, from its reps and what it made of the asks.
// What does not count changes nothing.
func FiguresOf(c *catalog.Catalog, d track.Day, reps []arena.Told, v Visit) Figures {
	f := Figures{Session: d.ID, On: d.Date, Checks: checks(d, v)}
	live := track.Live(d.Track)
	under := surroundings(live)
	by := map[horse.Ask][]arena.Told{}
	for _, t := range reps {
		if t.Counted {
			by[t.Ask] = append(by[t.Ask], t)
		}
	}
	for ask, some := range by {
		f.Asks = append(f.Asks, figure(ask, some, d, under))
	}
	slices.SortFunc(f.Asks, func(a, b Figure) int { return byKey(a.Ask, b.Ask) })
	f.Day = measuredIn(c, d, live, reps)
	for _, r := range outing.Results(live) {
		r.Session, r.On = d.ID, d.Date
		f.Outings = append(f.Outings, r)
		f.Day.Balance = f.Day.Balance.Plus(r.Stood())
	}
	return f
}

func figure(ask horse.Ask, reps []arena.Told, d track.Day, under map[string][]Under) Figure {
	f := Figure{Ask: ask}
	var levels, gaps, brought, tries, delays, downs []float64
	for _, t := range reps {
		f.Answers[max(t.Graded.Rank(), horse.Refused.Rank())-horse.Refused.Rank()]++
		f.Arousal = max(f.Arousal, t.Calm)
		if t.Peak.Noted() {
			f.Leveled++
			levels = append(levels, float64(t.Peak.Int()))
			if t.Peak.Int() <= lightUpTo && horse.Soft(t.Graded) {
				f.Light++
			}
			if t.First.Noted() {
				gaps = append(gaps, float64(t.Peak.Int()-t.First.Int()))
			}
		}
		if t.Brought.Noted() {
			brought = append(brought, float64(t.Brought.Int()))
		}
		if t.ToTry != nil {
			tries = append(tries, *t.ToTry)
		}
		if delay, ok := t.Delay(); ok {
			delays = append(delays, delay)
		}
		if t.LetDown != nil {
			downs = append(downs, *t.LetDown)
		}
		if horse.Soft(t.Graded) && t.Kind == track.KindDose {
			f.Dose = max(f.Dose, t.Target)
		} else if horse.Soft(t.Graded) && t.EndedBy == horse.ByHandler && t.Reached != nil {
			f.Hold = max(f.Hold, *t.Reached)
		}
		f.Hands = timed(f.Hands, t, d)
	}
	f.also(reps, d, under)
	f.Level, f.Gap, f.Brought = median(levels), median(gaps), median(brought)
	f.ToTry, f.Delay, f.LetDown = median(tries), median(delays), median(downs)
	return f
}

func median(of []float64) *float64 {
	if len(of) == 0 {
		return nil
	}
	m := horse.Median(of)
	return &m
}

// timed adds a rep to the releases of who held the rope.
func timed(hands []Timing, t arena.Told, d track.Day) []Timing {
	person := t.Handler
	if person == "" {
		person = d.Handler
	}
	i := slices.IndexFunc(hands, func(h Timing) bool { return h.Person == person })
	if i < 0 {
		i, hands = len(hands), append(hands, Timing{Person: person})
	}
	h := &hands[i]
	h.Of++
	switch {
	case t.IsLate():
		h.Late++
	case t.Release == horse.WrongMoment:
		h.Wrong++
	case t.Release == horse.OnTheTry || t.Release.IsZero():
		h.OnTry++
	}
	if t.Start.Noted() {
		h.Starts++
		if t.Start.Int() == 1 {
			h.FromOne++
		}
	}
	return hands
}

// checks are the asks that were passed as the day began, worked before it, and
// decided on it.
func checks(d track.Day, v Visit) []Check {
	var list []Check
	for _, k := range v.Before {
		days, dated := horse.DaysBetween(k.Last, d.Date)
		i := slices.IndexFunc(v.After, func(a arena.Known) bool { return a.Ask == k.Ask })
		if !k.Passed() || !dated || days < 1 || i < 0 {
			continue
		}
		after := v.After[i]
		if after.Last == d.Date && (after.State == horse.Kept || after.State == horse.Slipped) {
			list = append(list, Check{Ask: k.Ask, Days: days, Kept: after.State == horse.Kept})
		}
	}
	return list
}
