package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Brief is all that the arena needs to know of a case before a session: with
// it and a catalogue, a session is opened, begun and advised without anything
// else of the horse's history.
type Brief struct {
	Fitting catalog.Fitting `json:"fitting"`
	Input   Input           `json:"input" doc:"what holds before any session: no ask, clock or track"`
	Ladder  string          `json:"ladder" doc:"of the case"`
	Next    string          `json:"next,omitempty" doc:"where the plan goes on"`
	Thing   string          `json:"thing,omitempty" maxLength:"60" doc:"that a case of a new thing is about"`
	Met     []string        `json:"met,omitempty" doc:"the things it has met so far"`
	Bars    []string        `json:"bars" doc:"steps that close a bar, which nobody does alone"`
	Worked  string          `json:"worked,omitempty" format:"date" doc:"last day of any logged work; empty: never"`
	Bumped  bool            `json:"bumped,omitempty" doc:"a bump was not made good"`
	Care    horse.Care      `json:"care"`
	Cycle   int             `json:"cycle" doc:"the horse's own, or the house rule's"`
	Core    string          `json:"core" doc:"version of the rules it was made by"`

	Forbidden []phrase.Message `json:"forbidden,omitempty" doc:"what leads every page of this horse"`
}

// A Beginning is how one session begins.
type Beginning struct {
	Ask       horse.Ask    `json:"ask"`
	School    horse.School `json:"school,omitzero" doc:"of ladders the plan gives none; empty: build and release"`
	Started   int64        `json:"started" minimum:"0" doc:"ms"`
	Core      string       `json:"core,omitempty" maxLength:"20" doc:"edition of the rules that it was begun with; empty: this one"`
	Handler   string       `json:"handler,omitempty" maxLength:"60" doc:"who holds the rope"`
	Readiness Readiness    `json:"readiness"`
}

// Session is what the advisor looks at in a session that begins so. Arousal 3
// at the gate leaves the foundations, and the first touch of a horse that can't
// be haltered; one that may not be ridden today is worked in hand (part 6).
func (b Brief) Session(c *catalog.Catalog, n Beginning) Input {
	in := b.Input
	in.Ask, in.School, in.Started, in.Core, in.Handler, in.Mind = n.Ask, n.School, n.Started, n.Core, n.Handler, n.Readiness.Handler
	if in.School.IsZero() {
		in.School = horse.BuildAndRelease
	}
	in.Blocked = slices.Clone(in.Blocked)
	if n.Readiness.Alone {
		in.Blocked = append(in.Blocked, b.Bars...)
	}
	over, inHand := n.Readiness.Arousal.Int() == 3, n.Readiness.notRidden()
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			first := l.Kind == catalog.Foundation || s.Place == 0 && l.ComesFirst()
			if over && !first || inHand && s.Ridden {
				in.Blocked = append(in.Blocked, s.Key)
			}
		}
	}
	return in
}

// notRidden reports whether nobody rides today: after days off the horse did
// not settle, and there is no safe pen for loose movement first (part 6).
func (r Readiness) notRidden() bool { return r.Settled == NotInFive && r.NoPen }

// Gate says whether and where a session may begin on a day: readiness (part 6),
// what the grade of care asks for (part 9), and the ask to begin with, empty
// when nothing may be asked. lead tells whether a lead trainer holds the rope.
func (b Brief) Gate(c *catalog.Catalog, today string, r Readiness, lead bool) (Gate, horse.Ask) {
	g := Ready(r, b.DaysOff(today), b.Bumped)
	g.Reasons = append(slices.Clone(b.Forbidden), g.Reasons...)
	say := func(key string) { g.Reasons = append(g.Reasons, phrase.Of("gate."+key, nil)) }
	care := b.Care.Rank()
	if b.Care == horse.SpecialistOnly && !lead {
		g.May = false
		say("lead_only")
	}
	switch {
	case r.Alone && care >= horse.HighCare.Rank():
		g.May = false
		say("not_alone")
	case r.Alone && care == horse.ExtraCare.Rank():
		say("watcher")
	}
	if r.Alone && len(b.Bars) > 0 {
		say("bars")
	}
	wanted := b.wanted(c, g)
	asked := wanted
	if !r.Asked.IsZero() {
		asked = r.Asked
	}
	if step, _ := c.Step(asked.Step); step.Ridden && b.DaysOff(today) >= settlesFrom {
		g.Settles = true
	}
	if step, _ := c.Step(wanted.Step); step.Ridden && b.DaysOff(today) >= settlesFrom {
		switch {
		case r.notRidden():
			say("ridden.not")
		case r.Settled == NotInFive:
			say("ridden.loose")
		case r.Settled == AtOnce:
			say("ridden.slow")
		case r.Settled.IsZero():
			say("ridden.ask")
		}
	}
	if !r.Asked.IsZero() {
		wanted, g.Lower, g.Baseline = r.Asked, 0, false
	}
	return g, Begin(c, b.Session(c, Beginning{Ask: wanted, Readiness: r}), g)
}

// settlesFrom is after how many days off a ridden horse settles in hand first
// (part 6).
const settlesFrom = 2

// DaysOff counts days since any logged work; -1: never.
func (b Brief) DaysOff(today string) int {
	days, ok := horse.DaysBetween(b.Worked, today)
	if !ok {
		return -1
	}
	return days
}

// First is where the work goes on, whatever the day.
func (b Brief) First(c *catalog.Catalog) horse.Ask { return b.wanted(c, Gate{}) }

// wanted is where the work goes on; where the gate asks for lower, it counts
// from the last step met on that ladder.
func (b Brief) wanted(c *catalog.Catalog, g Gate) horse.Ask {
	next, ok := c.Step(b.Next)
	if !ok {
		ladder, _ := c.Ladder(b.Ladder)
		next = b.lastMet(ladder.Steps, ladder.Steps[0])
	}
	ladder, _ := c.Ladder(next.Ladder)
	if g.Lower > 0 {
		next = b.lastMet(ladder.Steps[:next.Place+1], next)
	}
	for _, a := range next.Asks() {
		if !b.passed(a) {
			return a
		}
	}
	return next.Asks()[0]
}

func (b Brief) passed(a horse.Ask) bool {
	return slices.ContainsFunc(b.Input.Known, func(k Known) bool { return k.Ask == a && k.Passed() })
}

func (b Brief) lastMet(steps []catalog.Step, none catalog.Step) catalog.Step {
	for _, s := range slices.Backward(steps) {
		if s.Link == "" && Passed(b.Input.Known, s) {
			return s
		}
	}
	return none
}
