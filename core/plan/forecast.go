package plan

import (
	"fmt"
	"math"
	"math/big"
	"sort"
	"time"

	"gonum.org/v1/gonum/mathext"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Numbers of part 7.
const (
	priorSessions  = 3   // what the nominal rate is worth
	HomeworkWeight = 0.4 // of a session, for a session of homework by a cleared owner
	enough         = 0.85
	likely         = 0.6
	inDoubt        = 0.3
	mostVisits     = 7       // a week
	farthest       = 3 * 366 // days; mutate: about three years
)

// Work is what a forecast is made of: what is left, and how it went so far.
type Work struct {
	Today     string  `json:"today" format:"date" doc:"the day that counts as today"`
	Remaining int     `json:"remaining" minimum:"0" maximum:"1000" doc:"steps to go"`
	Met       int     `json:"met" minimum:"0" maximum:"100000" doc:"steps met so far, those met again counted again"`
	Earned    float64 `json:"units_met,omitempty" minimum:"0" maximum:"100000" doc:"units of the steps met so far; 0: one for each"`
	Slips     int     `json:"slips" minimum:"0" maximum:"100000" doc:"steps that slipped"`
	Sessions  int     `json:"sessions" minimum:"0" maximum:"100000" doc:"sessions so far"`
	Practised int     `json:"homework_sessions,omitempty" minimum:"0" maximum:"100000" doc:"homework sessions of a cleared owner so far"`
	Rate      float64 `json:"rate,omitempty" doc:"nominal units met in a session; 0: the shipped 1.5"`
	Since     string  `json:"since,omitempty" maxLength:"10" doc:"the habit is there since; empty: not known"`
	DidWell   bool    `json:"did_well,omitempty" doc:"it did it well in the past, and fear is unlikely"`
	PerWeek   int     `json:"visits_per_week" minimum:"0" maximum:"14" doc:"visits a week"`
	Homework  int     `json:"homework_per_week,omitempty" minimum:"0" maximum:"14" doc:"homework sessions a week by a cleared owner"`
	By        string  `json:"by,omitempty" maxLength:"10" doc:"the date needed; empty: none"`
	CanClear  bool    `json:"can_clear,omitempty" doc:"an owner is cleared for homework, or may be"`
	Cleared   bool    `json:"cleared,omitempty" doc:"somebody is cleared for homework already"`
	Held      []Held  `json:"held,omitempty" doc:"steps of those to go that a fact blocks, in their order"`
	StepsToGo []Step  `json:"steps,omitempty" doc:"the steps to go in order, for naming a smaller goal"`
}

// Held is a step that a fact blocks.
type Held struct {
	Place int    `json:"place" minimum:"0" doc:"its place among the steps to go, from 0"`
	Lifts string `json:"lifts,omitempty" maxLength:"10" doc:"the earliest day it can lift; empty: today"`
}

// Forecast says how many sessions the work will take, and whether the date
// will be met (part 7).
type Forecast struct {
	Remaining int            `json:"remaining" doc:"steps still to be met"`
	Units     float64        `json:"units" doc:"units of work they count"`
	Steps     int            `json:"units_with_slips" doc:"units to go, slips included"`
	A         float64        `json:"a" doc:"prior and units met"`
	B         float64        `json:"b" doc:"prior and sessions"`
	Slip      float64        `json:"slip" doc:"chance that a step met slips"`
	Median    int            `json:"median" doc:"sessions"`
	Low       int            `json:"low" doc:"sessions at 10 %"`
	High      int            `json:"high" doc:"sessions at 90 %"`
	Days      *Days          `json:"days,omitempty" doc:"the days of the same chances, what is blocked waited for; absent: not within three years"`
	Visits    int            `json:"visits" doc:"visits before the date"`
	Sessions  float64        `json:"sessions" doc:"visits and homework before the date, in sessions"`
	Done      float64        `json:"p" doc:"chance that it is done by the date"`
	Word      string         `json:"word,omitempty" enum:"on course,likely,in doubt,unlikely" doc:"the chance in a word"`
	Until     string         `json:"blocked_until,omitempty" doc:"the earliest day the last block can lift"`
	Says      phrase.Message `json:"says" doc:"the same as a sentence"`
	Short     phrase.Message `json:"short" doc:"visits before the date, and how many are needed"`
	Curve     []Chance       `json:"curve" doc:"chance of being done, by days"`
	Boards    []Chance       `json:"boards" doc:"chance of being done after each visit to come, on its day"`
	Till      string         `json:"till,omitempty" format:"date" doc:"where a time line of all this ends: a little beyond the date, and the last day told"`
	Help      []Help         `json:"help" doc:"what would help, where the date is in doubt or worse"`
}

// Days are the days of the median and of the 80 % interval.
type Days struct {
	Low    string `json:"low" format:"date" doc:"day by which 1 in 10 is done"`
	Median string `json:"median" format:"date" doc:"day by which half are done"`
	High   string `json:"high" format:"date" doc:"day by which 9 in 10 are done"`
}

// Chance of being done by a day, at the visits and the homework a week.
type Chance struct {
	On   string  `json:"on" format:"date" doc:"day"`
	Done float64 `json:"p" doc:"chance that it is done by then, 0 to 1"`
}

type helps struct{}

func (helps) Words() []string {
	return []string{"more visits", "owner homework", "smaller goal", "later date"}
}

// HelpKind says what would help.
type HelpKind = horse.Word[helps]

// The four kinds of help.
var (
	MoreVisits    = horse.MustWord[helps]("more visits")
	OwnerHomework = horse.MustWord[helps]("owner homework")
	SmallerGoal   = horse.MustWord[helps]("smaller goal")
	LaterDate     = horse.MustWord[helps]("later date")
)

// Help is something that would help, and by how much.
type Help struct {
	Kind     HelpKind       `json:"kind" doc:"what would help"`
	PerWeek  int            `json:"visits_per_week,omitempty" doc:"visits a week with it"`
	Homework int            `json:"homework_per_week,omitempty" doc:"homework a week with it"`
	Steps    int            `json:"steps,omitempty" doc:"steps of the smaller goal"`
	Until    string         `json:"until,omitempty" doc:"the last step of the smaller goal"`
	By       string         `json:"by,omitempty" doc:"the later date"`
	Done     float64        `json:"p" doc:"chance with it, 0 to 1"`
	Word     string         `json:"word" doc:"that chance in a word"`
	Says     phrase.Message `json:"says" doc:"the same as a sentence"`

	Name  phrase.Message  `json:"name" doc:"what would be done, in a few words"`
	Days  *Days           `json:"days,omitempty" doc:"the days of 1 in 10, half and 9 in 10 with it, of the best of its kind; absent: not within three years"`
	Best  bool            `json:"best,omitempty" doc:"of its kind the one to look at first: the fewest visits that are on course, or else the most"`
	Waits *phrase.Message `json:"waits,omitempty" doc:"what has to be before it can begin"`
}

// Days of a habit.
const (
	quarter = 91
	year    = 365
)

// habitFactor slows the rate with the age of the habit, in days.
func habitFactor(days int) float64 {
	switch {
	case days > 5*year:
		return 0.5
	case days > 2*year:
		return 0.75
	case days > quarter:
		return 0.85
	}
	return 1
}

// Check says what can't be in the work of a forecast, or nil.
func (w Work) Check() error {
	for _, n := range []struct {
		name        string
		got, lo, hi int
	}{
		{"remaining", w.Remaining, 0, 1000}, {"met", w.Met, 0, 100_000}, {"slips", w.Slips, 0, 100_000}, {"sessions", w.Sessions, 0, 100_000},
		{"homework_sessions", w.Practised, 0, 100_000}, {"visits_per_week", w.PerWeek, 0, 14}, {"homework_per_week", w.Homework, 0, 14},
	} {
		if n.got < n.lo || n.got > n.hi {
			return fmt.Errorf("%s is a whole number from %d to %d, not %d", n.name, n.lo, n.hi, n.got)
		}
	}
	dates := map[string]string{"today": w.Today, "by": w.By, "since": w.Since}
	for _, h := range w.Held {
		if h.Place < 0 || h.Place >= w.Remaining {
			return fmt.Errorf("held: place %d is not one of the %d steps to go", h.Place, w.Remaining)
		}
		dates["held.lifts "+h.Lifts] = h.Lifts
	}
	for name, day := range dates {
		if day == "" && name != "today" {
			continue
		}
		if _, err := time.Parse(time.DateOnly, day); err != nil {
			return fmt.Errorf("%s is a date as 2026-05-01, not %q", name, day)
		}
	}
	if w.Rate < 0 || w.Rate > 10 || math.IsNaN(w.Rate) {
		return fmt.Errorf("rate is the units met in a session, from 0 to 10, not %v", w.Rate)
	}
	if !(w.Earned >= 0 && w.Earned <= 100_000) {
		return fmt.Errorf("units_met is from 0 to 100000, not %v", w.Earned)
	}
	for _, s := range w.StepsToGo {
		if !(s.Units >= 0 && s.Units <= 10) {
			return fmt.Errorf("steps: the units of %q are from 0 to 10, not %v", s.Key, s.Units)
		}
	}
	return nil
}

func (w Work) rate() float64 {
	rate := w.Rate
	if rate <= 0 {
		rate = nominal
	}
	if w.DidWell {
		rate *= didWellFactor
	}
	if w.Since != "" {
		rate *= habitFactor(between(w.Since, w.Today))
	}
	return rate
}

const (
	nominal       = 1.5 // the shipped rate r0, units met in a session
	didWellFactor = 1.5 // where it did it well in the past, and fear is unlikely
)

// slip is the chance that a met step slips, as (1 + slips) ÷ (10 + met).
func (w Work) slip() *big.Rat {
	return big.NewRat(int64(1+w.Slips), int64(10+w.Met))
}

func (w Work) a() float64 {
	earned := w.Earned
	if earned == 0 {
		earned = float64(w.Met)
	}
	return priorSessions*w.rate() + earned
}
func (w Work) b() float64 {
	return priorSessions + float64(w.Sessions) + HomeworkWeight*float64(w.Practised)
}

// atLeast is P(X ≥ k), X the units met in n sessions: negative binomial with
// r = a and p = b ÷ (b + n).
func (w Work) atLeast(k int, n float64) float64 {
	switch {
	case k <= 0:
		return 1
	case n <= 0:
		return 0
	}
	return mathext.RegIncBeta(float64(k), w.a(), n/(w.b()+n))
}

// quantile is the least whole number of sessions by which the work is done
// with chance p.
func (w Work) quantile(k int, p float64) int {
	return sort.Search(1<<20, // mutate: beyond any answer
		func(n int) bool { return w.atLeast(k, float64(n)) >= p })
}

// visitsIn is ⌊days × per week ÷ 7⌋.
func visitsIn(days, perWeek int) int { return max(days, 0) * perWeek / 7 }

func sessionsIn(days, visits, homework int) float64 {
	return float64(visitsIn(days, visits)) + HomeworkWeight*float64(visitsIn(days, homework))
}

// doneBy is the chance that the first so many steps are done by a day: with
// blocked steps among them, the smaller of that of all steps and that of the
// blocked ones in the sessions after the earliest day that all can lift; 0 if
// that day is after it.
func (w Work) doneBy(day string, steps, visits, homework int) float64 {
	p := w.atLeast(w.toGo(w.first(steps)), sessionsIn(between(w.Today, day), visits, homework))
	held, until := w.held(steps)
	if held.Sign() == 0 {
		return p
	}
	if until > day {
		return 0
	}
	return min(p, w.atLeast(w.toGo(held), sessionsIn(between(until, day), visits, homework)))
}

// WordFor says a chance: on course, likely, in doubt, unlikely.
func WordFor(p float64) string {
	switch {
	case p >= enough:
		return "on course"
	case p >= likely:
		return "likely"
	case p >= inDoubt:
		return "in doubt"
	}
	return "unlikely"
}

// Foresee makes the forecast, and where the date is in doubt or worse says
// what would help.
func Foresee(w Work) Forecast {
	units := w.first(w.Remaining)
	k := w.toGo(units)
	slip, _ := w.slip().Float64()
	f := Forecast{
		Remaining: w.Remaining, Steps: k, A: w.a(), B: w.b(), Slip: slip,
		Median: w.quantile(k, 0.5), Low: w.quantile(k, 0.1), High: w.quantile(k, 0.9), Curve: []Chance{}, Help: []Help{},
	}
	f.Units, _ = units.Float64()
	held, until := w.held(w.Remaining)
	if held.Sign() > 0 {
		f.Until = until
	}
	f.Days = w.days(w.Remaining)
	w.curve(&f)
	w.say(&f)
	w.boards(&f)
	return f
}

// days are those of 1 in 10, half and 9 in 10 for the first so many steps; nil if
// they are not all within three years.
func (w Work) days(steps int) *Days {
	low, okLow := w.dayWhen(steps, 0.1)
	median, okMedian := w.dayWhen(steps, 0.5)
	high, okHigh := w.dayWhen(steps, 0.9)
	if !okLow || !okMedian || !okHigh {
		return nil
	}
	return &Days{Low: low, Median: median, High: high}
}

// dayWhen is the first day by which the work is done with chance p; false if
// there is none within three years.
func (w Work) dayWhen(steps int, p float64) (string, bool) {
	d := sort.Search(farthest, func(d int) bool {
		return w.doneBy(horse.DayAfter(w.Today, d), steps, w.PerWeek, w.Homework) >= p
	})
	return horse.DayAfter(w.Today, d), d < farthest
}

func (w Work) say(f *Forecast) {
	args := phrase.Args{"n": f.Remaining, "median": f.Median, "range": phrase.Of("forecast.range", phrase.Args{"low": f.Low, "high": f.High})}
	if f.Low == f.High {
		args["range"] = phrase.Of("forecast.range.one", phrase.Args{"low": f.Low})
	}
	switch {
	case w.Remaining == 0:
		f.Done, f.Word = 1, WordFor(1)
		f.Says = phrase.Of("forecast.done", nil)
		f.Short = f.Says
		return
	case w.By == "":
		f.Says, f.Short = phrase.Of("forecast.no_date", args), phrase.Of("forecast.short.no_date", args)
		if f.Days == nil {
			f.Short = phrase.Of("forecast.short.never", nil)
		}
		return
	}
	f.Visits = visitsIn(between(w.Today, w.By), w.PerWeek)
	f.Sessions = sessionsIn(between(w.Today, w.By), w.PerWeek, w.Homework)
	f.Done = w.doneBy(w.By, w.Remaining, w.PerWeek, w.Homework)
	f.Word = WordFor(f.Done)
	args["by"], args["visits"], args["p"], args["word"] = phrase.Date(w.By), f.Visits, percent(f.Done), f.Word
	f.Says, f.Short = phrase.Of("forecast.date", args), phrase.Of("forecast.short.date", args)
	if f.Until > w.By {
		args["until"] = phrase.Date(f.Until)
		f.Says, f.Short = phrase.Of("forecast.blocked", args), phrase.Of("forecast.short.blocked", args)
	}
	if f.Done < likely {
		f.Help = w.help()
	}
}

func percent(p float64) int { return int(math.Round(100 * p)) }

func between(from, to string) int {
	days, _ := horse.DaysBetween(from, to)
	return days
}
