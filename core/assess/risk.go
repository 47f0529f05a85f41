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
	Kind EventKind `json:"kind" doc:"what happened"`
	On   string    `json:"on" format:"date" doc:"day"`
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
	Logged     []Event    // from sessions, and seen in assessments
	Narrow     bool       // the ladder works in a narrow place
	Floor      horse.Care // the ladder's least care
}

// Line is one reason for points.
type Line struct {
	Points int            `json:"points" doc:"points of this line"`
	Why    phrase.Message `json:"why" doc:"what gives them, as a sentence"`
}

// Risk is the risk grade with what it comes from.
type Risk struct {
	Points int        `json:"points" doc:"all points together"`
	Care   horse.Care `json:"care" doc:"the care they ask for"`
	Lines  []Line     `json:"lines,omitempty" doc:"where the points come from"`
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
	standing := in.standing(in.Today)
	floor := standing.Care
	for _, e := range recent(in.Assessment.events(in.Logged), today) {
		points, _ := e.weighs()
		add(points, "event", phrase.Args{"kind": e.Kind.String(), "on": phrase.Date(e.On)})
		floor = max2(floor, leastCare(e.Kind))
	}
	r.Points += standing.Points
	r.Lines = append(r.Lines, standing.Lines...)
	r.Care = max2(grade(r.Points), floor)
	return r, nil
}

// standing is what does not depend on events: its points, and the least care
// that it brings. Without a day nothing depends on that either.
func (in RiskInput) standing(day string) Risk {
	var r Risk
	add := func(points int, key string, args phrase.Args) {
		r.Points += points
		r.Lines = append(r.Lines, Line{Points: points, Why: phrase.Of("risk."+key, args)})
	}
	a := in.Assessment
	r.Care = in.Floor
	if a.NotYet {
		r.Care = max2(r.Care, horse.HighCare) // it can't be caught or haltered, whatever the problem
	}
	if in.Record.Unhandled {
		add(2, "unhandled", nil)
	}
	if a.Mind.warns() && !in.Record.GuardsItself {
		add(2, "warning_look", nil)
	}
	peak := 0
	for _, account := range a.Problems {
		peak = max(peak, account.Baseline.Arousal.Int())
	}
	if peak >= 3 {
		add(peak-1, "arousal", phrase.Args{"n": peak})
	}
	items := horse.BodyItem{}.All()
	if i := slices.IndexFunc(items, func(item horse.BodyItem) bool { return ill(a.BodyOf(item)) }); i >= 0 {
		add(1, "body", phrase.Args{"item": Named(items[i])})
	}
	if points := in.Record.risesOn(day); points > 0 && day != "" {
		add(points, "stallion", nil)
	}
	if in.Narrow {
		add(1, "narrow", nil)
	}
	if a.Main() == horse.Beginner {
		add(1, "beginner", nil)
	}
	return r
}

// struckOrCharged bring high care whatever the points.
var struckOrCharged = []EventKind{horse.MustWord[eventKinds]("struck"), horse.MustWord[eventKinds]("charged")}

// leastCare is the least care that a dangerous thing brings.
func leastCare(k EventKind) horse.Care {
	if slices.Contains(struckOrCharged, k) {
		return horse.HighCare
	}
	return horse.Care{}
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

// risesOn are the points of a stallion, and of a gelding for six months, on a day.
func (r Record) risesOn(day string) int {
	if r.Sex == stallion {
		return 1
	}
	gelded, err := time.Parse(time.DateOnly, r.Gelded)
	if err == nil && gelded.AddDate(0, 6, 0).Format(time.DateOnly) > day {
		return 1
	}
	return 0
}

var stallion = horse.MustWord[sexes]("stallion")

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
