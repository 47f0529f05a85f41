package assess

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type eventKinds struct{}

func (eventKinds) Words() []string {
	return []string{
		"kicked at a person", "struck", "reared", "charged", "bucked someone off", "bolted", "fell with a rider",
		"ran over a person or broke loose", "went over backwards", "bit",
	}
}

// EventKind is a dangerous thing that happened.
type EventKind = horse.Word[eventKinds]

// Event is a dangerous thing that happened on a day, told or logged.
type Event struct {
	Kind EventKind `json:"kind"`
	On   string    `json:"on" format:"date"`
}

// EventOf tells what kind of event a dangerous way out is.
func EventOf(w horse.WayOut) (EventKind, bool) {
	names := map[horse.WayOut]string{
		horse.KickedAtPerson: "kicked at a person", horse.Struck: "struck", horse.Reared: "reared",
		horse.Charged: "charged", horse.Bucked: "bucked someone off", horse.Bolted: "bolted",
		horse.WentOver: "went over backwards", horse.Bit: "bit",
	}
	k, err := horse.ParseWord[eventKinds](names[w])
	return k, err == nil && !k.IsZero()
}

// points per kind, and how many days it counts; 0 days: for good.
func (e Event) weighs() (points, days int) {
	switch e.Kind.String() {
	case "bit":
		return 2, 90
	case "went over backwards":
		return 3, 0
	}
	return 3, 90
}

// RiskInput is what the risk points look at.
type RiskInput struct {
	Today      string
	Record     Record
	Assessment Assessment
	Logged     []Event    // from sessions
	Narrow     bool       // the ladder works in a narrow place
	Floor      horse.Care // the ladder's least care
}

// Line is one reason for points.
type Line struct {
	Points int            `json:"points"`
	Why    phrase.Message `json:"why"`
}

// Risk is the risk grade with what it comes from.
type Risk struct {
	Points int        `json:"points"`
	Care   horse.Care `json:"care"`
	Lines  []Line     `json:"lines,omitempty"`
}

// RiskOf adds the points of part 3 and gives their grade.
func RiskOf(in RiskInput) (Risk, error) {
	today, err := time.Parse(time.DateOnly, in.Today)
	if err != nil {
		return Risk{}, fmt.Errorf("reading today's date: %w", err)
	}
	var r Risk
	add := func(points int, key string, args phrase.Args) {
		r.Points += points
		r.Lines = append(r.Lines, Line{Points: points, Why: phrase.Of("risk."+key, args)})
	}
	floor := in.Floor
	for _, e := range recent(append(slices.Clone(in.Assessment.Events), in.Logged...), today) {
		points, _ := e.weighs()
		add(points, "event", phrase.Args{"kind": e.Kind.String(), "on": phrase.Date(e.On)})
		if k := e.Kind.String(); (k == "charged" || k == "struck") && floor.Rank() < horse.HighCare.Rank() {
			floor = horse.HighCare
		}
	}
	if in.Record.Unhandled {
		add(2, "unhandled", nil)
	}
	if in.Assessment.Baseline.WarnedLook && !in.Record.GuardsItself {
		add(2, "warning_look", nil)
	}
	if a := in.Assessment.Baseline.Arousal.Int(); a >= 3 {
		add(a-1, "arousal", phrase.Args{"n": a})
	}
	if i := slices.IndexFunc(in.Assessment.Body, func(b BodyNote) bool { return ill(b.State) }); i >= 0 {
		add(1, "body", phrase.Args{"item": in.Assessment.Body[i].Item.String()})
	}
	if in.Record.stallion(today) {
		add(1, "stallion", nil)
	}
	if in.Narrow {
		add(1, "narrow", nil)
	}
	if in.Assessment.Story.HandlerIs == horse.Beginner.String() {
		add(1, "beginner", nil)
	}
	r.Care = max2(grade(r.Points), floor)
	return r, nil
}

// recent keeps the events that still count, one of each kind, the newest.
func recent(events []Event, today time.Time) []Event {
	events = slices.Clone(events)
	slices.SortStableFunc(events, func(a, b Event) int {
		return cmp.Or(cmp.Compare(a.Kind.Rank(), b.Kind.Rank()), cmp.Compare(b.On, a.On))
	})
	events = slices.CompactFunc(events, func(a, b Event) bool { return a.Kind == b.Kind })
	return slices.DeleteFunc(events, func(e Event) bool {
		_, days := e.weighs()
		on, err := time.Parse(time.DateOnly, e.On)
		return err != nil || days > 0 && today.Sub(on) > time.Duration(days)*24*time.Hour
	})
}

func (r Record) stallion(today time.Time) bool {
	if r.Sex.String() == "stallion" {
		return true
	}
	gelded, err := time.Parse(time.DateOnly, r.Gelded)
	return err == nil && gelded.AddDate(0, 6, 0).After(today)
}

func grade(points int) horse.Care {
	switch {
	case points >= 9:
		return horse.SpecialistOnly
	case points >= 6:
		return horse.HighCare
	case points >= 3:
		return horse.ExtraCare
	}
	return horse.OrdinaryCare
}

func max2(a, b horse.Care) horse.Care {
	if a.Rank() >= b.Rank() {
		return a
	}
	return b
}

// SessionRisk is the grade that the points gave on a session's day, and
// whether the session had an event.
type SessionRisk struct {
	Care  horse.Care
	Event bool
}

// Follow carries the grade over the sessions: it rises at once, falls one
// grade at a time, only after 3 sessions without an event, and never below
// what the points say now.
func Follow(first horse.Care, sessions []SessionRisk, now horse.Care) horse.Care {
	care, quiet := first, 0
	for _, s := range sessions {
		if s.Event {
			quiet = 0
		} else {
			quiet++
		}
		switch {
		case s.Care.Rank() >= care.Rank():
			care = s.Care
		case quiet >= 3:
			care, quiet = care.All()[care.Rank()-2], 0
		}
	}
	return max2(care, now)
}

// Precautions lists what a grade of care brings: its own and those of the
// grades below it (part 9).
func Precautions(care horse.Care) []phrase.Message {
	counts := map[horse.Care]int{horse.OrdinaryCare: 6, horse.ExtraCare: 3, horse.HighCare: 5, horse.SpecialistOnly: 3}
	var all []phrase.Message
	for _, c := range care.All() {
		if c.Rank() > care.Rank() {
			break
		}
		for i := range counts[c] {
			all = append(all, phrase.Of(fmt.Sprintf("care.%d.%d", c.Rank(), i+1), nil))
		}
	}
	slices.Reverse(all)
	return all
}

// Young reports whether part 9's caps for young horses hold: under 3 years, or
// fewer than 10 rides.
func (r Record) Young(today string) bool {
	now, err := time.Parse(time.DateOnly, today)
	if err != nil {
		return false
	}
	born, err := time.Parse(time.DateOnly, r.Born)
	return err == nil && born.AddDate(3, 0, 0).After(now) || r.Rides != nil && *r.Rides < 10
}

// Fault is a value that can't be, with the field it stands in.
type Fault struct{ Field, Say string }

func (f Fault) Error() string { return f.Field + ": " + f.Say }

// Check says what can't be in a record, as of today.
func (r Record) Check(today string) []Fault {
	var faults []Fault
	past := func(field, date, name string) {
		if date == "" {
			return
		}
		if _, err := time.Parse(time.DateOnly, date); err != nil {
			faults = append(faults, Fault{field, name + " is not a date. Write it as year-month-day, for example 2017-05-01."})
		} else if date > today {
			faults = append(faults, Fault{field, name + " is in the future. Give a day up to today."})
		}
	}
	past("born", r.Born, "The date of birth")
	past("gelded", r.Gelded, "The date gelded")
	past("arrived", r.Arrived, "The day of arrival")
	past("last_worked", r.LastWorked, "The day last worked")
	for field, date := range map[string]string{"gelded": r.Gelded, "arrived": r.Arrived, "last_worked": r.LastWorked} {
		if date != "" && r.Born != "" && date < r.Born {
			faults = append(faults, Fault{field, "This is before the horse was born (" + r.Born + "). Check both dates."})
		}
	}
	if r.Born != "" && r.Born < "1960" {
		faults = append(faults, Fault{"born", "No horse is that old. Check the year of birth."})
	}
	slices.SortFunc(faults, func(a, b Fault) int { return cmp.Compare(a.Field, b.Field) })
	return faults
}

// Check says what can't be in an assessment, as of today.
func (a Assessment) Check(today string) []Fault {
	var faults []Fault
	s := a.Story
	if s.Tries != nil && s.Successes != nil && *s.Successes > *s.Tries {
		faults = append(faults, Fault{"story.successes", fmt.Sprintf("%d went well of %d tries. Give as many tries as went well, or more.", *s.Successes, *s.Tries)})
	}
	if s.UsualMin != nil && s.WorstMin != nil && *s.UsualMin > *s.WorstMin {
		faults = append(faults, Fault{"story.worst_minutes", "The worst time is shorter than the usual one. Check both."})
	}
	if s.Since != "" && s.Since > today {
		faults = append(faults, Fault{"story.since", "This is in the future. Give a day up to today."})
	}
	for i, e := range a.Events {
		if e.Kind.IsZero() || e.On == "" || e.On > today {
			faults = append(faults, Fault{fmt.Sprintf("events[%d].on", i), "Say what happened and on which day, up to today."})
		}
	}
	return faults
}
