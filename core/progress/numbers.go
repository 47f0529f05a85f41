package progress

import (
	"math"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trend"
)

// Numbers are what changed over a horse's sessions (part 8): in three findings, and
// behind each what it stands on. Nothing in them is averaged over different asks.
type Numbers struct {
	Days     []string       `json:"days" doc:"of all sessions: from which one can look"`
	Steps    []Step         `json:"steps" doc:"all that were worked: at which alone one can look"`
	Since    string         `json:"since" format:"date" doc:"day of the first session"`
	Sessions int            `json:"sessions" doc:"how many counted anything"`
	Tries    int            `json:"tries" doc:"reps that count"`
	Asks     int            `json:"asks" doc:"asks that were worked"`
	Says     phrase.Message `json:"says" doc:"how much there is to judge by"`
	Feel     Felt           `json:"feel" doc:"whether asks got lighter and quicker"`
	Sides    Sides          `json:"sides" doc:"how the two sides compare"`
	Lasts    Lasts          `json:"lasts" doc:"what was still there on a later day"`
	Before   []Row          `json:"before" doc:"first day against the last, ask by ask"`
	Hands    []Hand         `json:"hands" doc:"how releases came, for each person who held the rope; a server shows each to that person and to the lead trainer alone"`
	More     []More         `json:"more" doc:"the other measures, one row each, where they were noted"`
	Beside   []Beside       `json:"beside" doc:"the same ask by different people; a server gives them names"`
	Spread   []Spread       `json:"spread" doc:"under how many different things each step was asked"`
	Transfer []Passed       `json:"transfer" doc:"how many tries each side took to pass, over all sessions"`
	Cycle    phrase.Message `json:"cycle" doc:"the horse's own cycle of answers, over all sessions"`
	Time     *TimeOn        `json:"time,omitempty" doc:"time on the problem, from its first ask until the goal was answered softly"`
	Heaps    []Heap         `json:"heaps" doc:"every try, session by session, the oldest first"`
}

// A Step is one that was worked.
type Step struct {
	Step string         `json:"step" doc:"its key"`
	Name phrase.Slotted `json:"name" doc:"its name"`
}

type certainties struct{}

func (certainties) Words() []string { return []string{"sure", "no clear change", "too early to say"} }

// Certainty is how sure a finding is.
type Certainty = horse.Word[certainties]

// The three of them.
var (
	Sure     = horse.MustWord[certainties]("sure")
	NotClear = horse.MustWord[certainties]("no clear change")
	TooEarly = horse.MustWord[certainties]("too early to say")
)

// A Finding is one sentence, how sure it is, and what it means.
type Finding struct {
	Says  phrase.Message `json:"says" doc:"the sentence"`
	How   Certainty      `json:"how" doc:"how sure it is"`
	Means phrase.Message `json:"means" doc:"why it is as sure as that"`
}

// Felt is whether asks got lighter and quicker: what got worse first, then what got
// better, then what is not clear.
type Felt struct {
	Finding
	Lines []Line `json:"lines" doc:"one for each ask and measure, in their order"`
}

type measures struct{}

func (measures) Words() []string {
	return []string{"level", "seconds to first try", "seconds to let-down"}
}

// Measure is what a line shows.
type Measure = horse.Word[measures]

var (
	Level   = horse.MustWord[measures]("level")
	toTry   = horse.MustWord[measures]("seconds to first try")
	letDown = horse.MustWord[measures]("seconds to let-down")
)

// A Line is one measure of one ask over the sessions that noted it.
type Line struct {
	horse.Ask
	Name     phrase.Message `json:"name" doc:"the ask in words"`
	Measure  Measure        `json:"measure" doc:"what is measured"`
	Trend    trend.Trend    `json:"trend" doc:"the row with the line through it"`
	Says     phrase.Message `json:"says" doc:"the word for it, and how sure"`
	Sessions []string       `json:"sessions" doc:"id of each point's session"`
}

// Sides is how the two sides of the same step compare.
type Sides struct {
	Finding
	Pairs []Pair `json:"pairs" doc:"one for each step that both sides were asked with a level"`
}

// A Pair is a step asked on both sides: the median level on its first day and now.
type Pair struct {
	Step string         `json:"step" doc:"its key"`
	Name phrase.Slotted `json:"name" doc:"its name"`
	Near Ends           `json:"near" doc:"the near side"`
	Off  Ends           `json:"off" doc:"the off side"`
	How  Certainty      `json:"how" doc:"how sure the difference is"`
}

// Ends are the first number and the newest.
type Ends struct {
	First float64 `json:"first" doc:"on the first day that asked both"`
	Now   float64 `json:"now" doc:"on the newest"`
}

// Behind is by how many levels the off side takes more than the near; under 0 less.
func (p Pair) Behind() float64 { return p.Off.Now - p.Near.Now }

// Lasts is what was still there on a later day, by the days between.
type Lasts struct {
	Finding
	Share trend.Share `json:"share" doc:"kept of all looks"`
	Gaps  []Gap       `json:"gaps" doc:"by the days between"`
}

// A Gap is a number of days between, with the checks after so long.
type Gap struct {
	Says   phrase.Message `json:"says" doc:"the days in words"`
	From   int            `json:"from" doc:"days"`
	Kept   int            `json:"kept" doc:"how many were kept"`
	Checks []Looked       `json:"checks" doc:"in their order"`
}

// Looked is one step looked at on a later day.
type Looked struct {
	Name    phrase.Message `json:"name" doc:"the ask in words"`
	On      string         `json:"on" format:"date" doc:"its day"`
	Session string         `json:"session" doc:"its id"`
	Kept    bool           `json:"kept" doc:"it was kept; else it slipped"`
}

// A Row compares an ask on its first day with its newest.
type Row struct {
	Name   phrase.Message `json:"name" doc:"the ask in words"`
	First  string         `json:"first" format:"date" doc:"the first day that worked it"`
	Last   string         `json:"last" format:"date" doc:"the newest"`
	Before phrase.Message `json:"before" doc:"on the first day"`
	After  phrase.Message `json:"after" doc:"on the newest"`
}

// A Heap is the answers of one session.
type Heap struct {
	Session string `json:"session" doc:"its id"`
	On      string `json:"on" format:"date" doc:"its day"`
	Answers [5]int `json:"answers" doc:"refused, try, tolerated, accepted, offered"`
}

// Choice narrows what is looked at.
type Choice struct {
	Since string // sessions of this day and later; empty: all
	Step  string // one step; empty: all

	Cycle arena.Cycle // learned from all its answers

	Ladder string // of the problem, for the time on it; empty: none
	Until  string // the plank where its goal lies; empty: the ladder's last
	Before *int   // minutes that it took on the first day; nil: not noted
}

// LinesOf are the lines of each ask alone, of all sessions.
func LinesOf(c *catalog.Catalog, all []history.Figures) []Line {
	r := reader{c: c, sessions: all}
	return r.feel(r.asks()).Lines
}

// LastsOf is what was still there on a later day alone, of all sessions.
func LastsOf(c *catalog.Catalog, all []history.Figures) Lasts {
	return reader{c: c, sessions: all}.lasts()
}

// TimeOf is the time on the problem alone.
func TimeOf(c *catalog.Catalog, all []history.Figures, by Choice) *TimeOn {
	return reader{c: c, sessions: all}.time(by)
}

// NumbersOf are the numbers of a horse's sessions, the oldest first.
func NumbersOf(c *catalog.Catalog, all []history.Figures, by Choice) Numbers {
	all = slices.DeleteFunc(slices.Clone(all), func(f history.Figures) bool { return len(f.Asks) == 0 && len(f.Checks) == 0 })
	sessions := slices.DeleteFunc(slices.Clone(all), func(f history.Figures) bool { return f.On < by.Since })
	r := reader{c: c, sessions: sessions, step: by.Step}
	whole := reader{c: c, sessions: all}
	n := Numbers{Days: whole.days(), Steps: whole.steps(), Sessions: len(sessions), Before: []Row{}, Heaps: []Heap{}, Hands: r.hands()}
	if n.Sessions > 0 {
		n.Since = sessions[0].On
	}
	asks := r.asks()
	n.Asks = len(asks)
	for _, f := range sessions {
		h := Heap{Session: f.Session, On: f.On}
		for _, a := range f.Asks {
			if !r.wants(a.Ask) {
				continue
			}
			n.Tries += a.N()
			for i, some := range a.Answers {
				h.Answers[i] += some
			}
		}
		n.Heaps = append(n.Heaps, h)
	}
	n.Says = phrase.Of("progress.says", phrase.Args{"day": phrase.Date(n.Since), "sessions": n.Sessions, "tries": n.Tries, "asks": n.Asks})
	if n.Sessions == 0 {
		n.Says = phrase.Of("progress.says.none", nil)
	}
	for _, ask := range asks {
		if row, ok := r.row(ask); ok {
			n.Before = append(n.Before, row)
		}
	}
	n.Feel, n.Sides, n.Lasts = r.feel(asks), r.sides(asks), r.lasts()
	n.More, n.Beside, n.Spread, n.Time = r.more(asks), r.beside(asks), r.spread(), r.time(by)
	whole.step = by.Step
	n.Transfer, n.Cycle = whole.transfer(), by.Cycle.Says()
	return n
}

// reader reads the figures of some sessions.
type reader struct {
	c        *catalog.Catalog
	sessions []history.Figures
	step     string
}

func (r reader) wants(a horse.Ask) bool { return (r.step == "" || a.Step == r.step) && r.c.HasAsk(a) }

// asks lists what was worked, in the catalogue's order.
func (r reader) asks() []horse.Ask {
	var asks []horse.Ask
	for _, f := range r.sessions {
		for _, a := range f.Asks {
			if r.wants(a.Ask) && !slices.Contains(asks, a.Ask) {
				asks = append(asks, a.Ask)
			}
		}
	}
	slices.SortFunc(asks, r.c.Compare)
	return asks
}

// days are those of the sessions.
func (r reader) days() []string {
	days := []string{}
	for _, f := range r.sessions {
		if !slices.Contains(days, f.On) {
			days = append(days, f.On)
		}
	}
	return days
}

// steps are those that were worked, in the catalogue's order.
func (r reader) steps() []Step {
	steps := []Step{}
	for _, a := range r.asks() {
		if step, _ := r.c.Step(a.Step); !slices.ContainsFunc(steps, func(s Step) bool { return s.Step == a.Step }) {
			steps = append(steps, Step{a.Step, phrase.Slotted(step.FullName())})
		}
	}
	return steps
}

func (r reader) name(a horse.Ask) phrase.Message {
	step, _ := r.c.Step(a.Step)
	return arena.AskName(step, a)
}

// each calls with every session that worked an ask.
func (r reader) each(ask horse.Ask, do func(x int, f history.Figures, a history.Figure)) {
	for i, f := range r.sessions {
		for _, a := range f.Asks {
			if a.Ask == ask {
				do(i+1, f, a)
			}
		}
	}
}

func (r reader) row(ask horse.Ask) (Row, bool) {
	row := Row{Name: r.name(ask)}
	r.each(ask, func(_ int, f history.Figures, a history.Figure) {
		said := phrase.Of("progress.row", phrase.Args{"soft": a.Soft(), "of": a.N()})
		if a.Level != nil {
			said = phrase.Of("progress.row.level", phrase.Args{"soft": a.Soft(), "of": a.N(), "level": math.Round(*a.Level)})
		}
		if row.First == "" {
			row.First, row.Before = f.On, said
		}
		row.Last, row.After = f.On, said
	})
	return row, row.Last != row.First
}
