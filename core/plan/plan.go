// Package plan lays out the work (part 7): the ladders of the goals with the
// foundations they stand on, in the order of their needs, what is blocked and
// what lifts it, the school of each with its reason, the visits to come with
// their minutes and kit, and how long it will take.
package plan

import (
	"math"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Input is what a plan is built from. The catalogue must be fitted to the horse
// and the choices.
type Input struct {
	Today      string
	Goals      []Goal
	First      []string // basics that the assessment found missing: they come first
	Mounting   []string // steps that come before any ridden one
	Known      []arena.Known
	Blocks     []assess.Block
	RepSeconds float64 // this horse's own time for a rep; 0: the house rule's
	Young      bool
	Visits     int // how many to lay out
	Choices    Choices
	Cleared    []clearance.State
	Facts      Facts
	Work       Work // how it went so far; what is to go is filled in
}

// A Goal is one problem to be mended.
type Goal struct {
	Problem horse.Problem
	Ladder  string
	Until   string        // the plank where the goal is reached; empty: the ladder's last
	Ridden  bool          // ridden planks before it, too, are wanted
	Start   string        // step of the ladder to begin at, from the assessment
	Chosen  bool          // the trainer set the start
	Last    string        // last step that the assessment found accepted; empty: none
	Source  horse.Source  // where that is known from
	School  assess.School // as the assessment suggests
	By      string        // date needed; empty: none
	Danger  int           // how dangerous the problem is; more goes first
	Reached []horse.WayOut
}

// An Item is a step to do, in the plan's order.
type Item struct {
	Step    string          `json:"step" doc:"key of the step"`
	Ladder  string          `json:"ladder" doc:"key of its ladder"`
	Name    string          `json:"name" doc:"name of the step"`
	Ask     phrase.Slotted  `json:"ask" doc:"what is asked of the horse"`
	State   horse.StepState `json:"state" doc:"how far it has come"`
	Level   int             `json:"level,omitempty" doc:"the level it is needed at, where lighter than its own pass mark"`
	Open    bool            `json:"open" doc:"all it stands on is met and nothing blocks it"`
	Needs   []string        `json:"needs,omitempty" doc:"names of the steps it waits for"`
	Warns   []string        `json:"warns,omitempty" doc:"names of the foundations that are missing, where that only warns"`
	Blocked *phrase.Message `json:"blocked,omitempty" doc:"why it is blocked, as a sentence; absent: it is not"`
	Lifts   *phrase.Message `json:"lifts,omitempty" doc:"what lifts the block, as a sentence"`
	Lift    string          `json:"lift,omitempty" doc:"the earliest day the block can lift; empty: not known"`
	Minutes int             `json:"minutes" doc:"about how long until the pass mark, at this horse's pace"`
	Seen    bool            `json:"seen,omitempty" doc:"below where the work starts"`
	Below   *phrase.Message `json:"below,omitempty" doc:"why it lies below where the work starts"`
	Met     bool            `json:"met,omitempty" doc:"met, and still to be kept on a later day"`
	Known   *phrase.Message `json:"known,omitempty" doc:"where its state is known from, where no session saw it"`
	For     []horse.Problem `json:"for" doc:"the problems that need it"`
	Ridden  bool            `json:"ridden,omitempty" doc:"worked from the saddle"`
}

// A Way is a ladder of the plan with its school.
type Way struct {
	Ladder  string         `json:"ladder" doc:"key of the ladder"`
	Name    phrase.Slotted `json:"name" doc:"name of the ladder"`
	Kind    catalog.Kind   `json:"kind" doc:"a foundation, or for a problem"`
	Problem horse.Problem  `json:"problem,omitzero" doc:"the problem it mends; absent: a foundation"`
	Until   string         `json:"until,omitempty" doc:"last step wanted; absent: the whole ladder"`
	School  horse.School   `json:"school" doc:"the way of working on it"`
	Why     phrase.Message `json:"why" doc:"the reason as a sentence"`
	Chosen  bool           `json:"chosen,omitempty" doc:"the trainer's own choice"`
	Options []SchoolOption `json:"options" doc:"the schools it can be worked in, with what speaks against each now"`
	Where   phrase.Slotted `json:"where" doc:"where it is worked"`
	Watch   phrase.Slotted `json:"watch,omitempty" doc:"mistakes and cautions"`
	Helper  phrase.Slotted `json:"helper,omitempty" doc:"a second person, and what they do"`
	Left    int            `json:"left" doc:"steps of it to go"`
	Barred  int            `json:"barred" doc:"steps of it that a fact blocks"`
}

// A Plan is the work to come.
type Plan struct {
	Ladder   string           `json:"ladder" doc:"of the goal that comes first"`
	Name     phrase.Slotted   `json:"name" doc:"name of the plan"`
	Items    []Item           `json:"items" doc:"steps to do; what is kept is left out"`
	Done     []string         `json:"done,omitempty" doc:"keys of the steps already kept"`
	Good     []Seen           `json:"good" doc:"foundations that an assessment saw good: nobody teaches them again"`
	Next     string           `json:"next,omitempty" doc:"the step the work begins at"`
	Levels   map[string]int   `json:"levels,omitempty" doc:"pass level by step, where lighter is needed"`
	Ways     []Way            `json:"ways" doc:"the ladders, foundations first, then the goals in their order"`
	Visits   []Visit          `json:"visits" doc:"the next visits"`
	Notes    []phrase.Message `json:"notes" doc:"what a choice does not do here, and why"`
	Undone   []Undone         `json:"undone,omitempty" doc:"choices that do nothing here, and why"`
	Homework []Homework       `json:"homework" doc:"steps that somebody is cleared for, met and open"`
	Forecast []GoalForecast   `json:"forecast" doc:"one for each goal, in the plan's order"`
	Cues     []catalog.Cue    `json:"cues" doc:"one cue for each thing asked"`
}

// Seen is a step that an assessment saw good, with its day.
type Seen struct {
	Step string `json:"step" doc:"key of the step"`
	Name string `json:"name" doc:"name of the step"`
	On   string `json:"on" format:"date" doc:"day of the assessment"`
}

// Homework is a step that a person may do between the visits.
type Homework struct {
	Person string `json:"person" doc:"who"`
	Step   string `json:"step" doc:"key of the step"`
	Name   string `json:"name" doc:"name of the step"`
}

// GoalForecast is the forecast of one goal, with all that comes before it.
type GoalForecast struct {
	Problem horse.Problem `json:"problem" doc:"which"`
	Ladder  string        `json:"ladder" doc:"key of the ladder"`
	By      string        `json:"by,omitempty" doc:"day by which it is needed"`
	Forecast
}

// Undone is a choice that does nothing for this horse, said where it is chosen.
type Undone struct {
	Choice string         `json:"choice" doc:"key of the standing disagreement"`
	Why    phrase.Message `json:"why" doc:"why it does nothing here"`
}

// builder keeps what the questions of one build need.
type builder struct {
	cat    *catalog.Catalog
	in     Input
	goals  []Goal
	known  map[horse.Ask]arena.Known
	blocks map[string]*assess.Block
	done   map[string]bool // met, or taken as met further on in the layout
	levels map[string]int
	starts map[string]int            // place of the start step, by ladder
	vouch  map[string][]catalog.Need // by step: what a kept step vouches for
	soft   bool                      // missing foundations warn
	notes  []phrase.Message
	undone []Undone
}

// Build makes the plan for the goals; false if one has no ladder.
func Build(c *catalog.Catalog, in Input) (Plan, bool) {
	b, ok := begin(c, in)
	if !ok {
		return Plan{}, false
	}
	first, _ := c.Ladder(b.goals[0].Ladder)
	p := Plan{Ladder: first.Key, Name: first.Name, Visits: []Visit{}, Homework: []Homework{}, Good: []Seen{}}
	order := b.lay(&p)
	b.remarks(order)
	p.Levels = b.levels
	p.Ways = b.ways(p.Items, order)
	p.Homework = b.homework(p)
	for _, g := range b.goals {
		p.Forecast = append(p.Forecast, GoalForecast{Problem: g.Problem, Ladder: g.Ladder, By: g.By, Forecast: Foresee(b.workOf(g, p.Items))})
	}
	p.Visits = b.visits(p.Items, max(in.Visits, 1))
	p.Notes, p.Undone = b.notes, b.undone
	p.Cues = in.Choices.CueCard(c, order)
	return p, true
}

// A Glance is what a caseload shows of a plan: where the work goes on, and how
// likely the date of a problem is met.
type Glance struct {
	Next string
	By   string  // the date; empty: there is none
	Done float64 // chance that all is done by then
}

// Doubtful reports a date in doubt or worse.
func (g Glance) Doubtful() bool { return g.By != "" && g.Done < likely }

// Percent is the chance that all is done by the date, 0 to 100.
func (g Glance) Percent() int { return percent(g.Done) }

// Look takes a glance at the plan for the goals, and the date of one problem;
// false if a goal has no ladder.
func Look(c *catalog.Catalog, in Input, of horse.Problem) (Glance, bool) {
	b, ok := begin(c, in)
	if !ok {
		return Glance{}, false
	}
	var p Plan
	b.lay(&p)
	glance := Glance{Next: p.Next}
	i := slices.IndexFunc(b.goals, func(g Goal) bool { return g.Problem == of })
	if i >= 0 && b.goals[i].By != "" {
		w := b.workOf(b.goals[i], p.Items)
		glance.By, glance.Done = w.By, w.doneBy(w.By, w.Remaining, w.PerWeek, w.Homework)
	}
	return glance, true
}

// begin prepares a plan; false if a goal has no ladder, or there is no goal.
func begin(c *catalog.Catalog, in Input) (*builder, bool) {
	b := &builder{
		cat: c, in: in, known: map[horse.Ask]arena.Known{}, blocks: map[string]*assess.Block{}, done: map[string]bool{},
		levels: map[string]int{}, starts: map[string]int{}, notes: []phrase.Message{},
	}
	for _, k := range in.Known {
		b.known[k.Ask] = k
	}
	for i := range in.Blocks {
		b.blocks[in.Blocks[i].Step] = &in.Blocks[i]
	}
	for _, g := range in.Goals {
		if _, ok := c.Ladder(g.Ladder); !ok {
			return nil, false
		}
		if s, ok := c.Step(g.Start); ok && s.Ladder == g.Ladder {
			b.starts[g.Ladder] = s.Place
		}
	}
	if len(in.Goals) == 0 {
		return nil, false
	}
	b.settings()
	b.vouch = b.vouched()
	b.goals = b.ordered()
	return b, true
}

// lay lists the steps to do in their order, and finds where the work goes on.
func (b *builder) lay(p *Plan) []string {
	p.Items = []Item{}
	order, serves := b.order()
	for _, key := range order {
		b.done[key] = b.met(key)
	}
	for _, key := range order {
		if b.never(key) {
			continue
		}
		if b.kept(key) {
			p.Done = append(p.Done, key)
			continue
		}
		if on, ok := b.seenGood(key); ok {
			p.Good = append(p.Good, Seen{Step: key, Name: assess.NameOf(b.cat, key), On: on})
			continue
		}
		item := b.item(key)
		item.For = serves[key]
		p.Items = append(p.Items, item)
	}
	for _, i := range p.Items {
		if i.Open && !i.Met && !i.Seen {
			p.Next = i.Step
			break
		}
	}
	for _, g := range slices.Backward(b.goals) {
		chosen := slices.ContainsFunc(p.Items, func(i Item) bool { return i.Step == g.Start && i.Blocked == nil && !i.Met })
		if g.Chosen && chosen {
			p.Next = g.Start // where the trainer begins, the plan does, whatever it waits for
		}
	}
	return order
}

func (b *builder) item(key string) Item {
	step, _ := b.cat.Step(key)
	i := Item{
		Step: key, Ladder: step.Ladder, Name: step.Name, Ask: step.Ask, State: horse.Untried, Level: b.levels[key],
		Minutes: b.minutes(step), Seen: b.seen(key) && !b.met(key), Met: b.met(key), Ridden: step.Ridden,
	}
	if i.Seen {
		why := b.below(step)
		i.Below = &why
	}
	if says, ok := arena.StepKnown(step, func(a horse.Ask) arena.Known { return b.known[a] }).Elsewhere(); ok {
		i.Known = &says
	}
	i.Needs, i.Warns = b.waitsFor(key)
	for n, a := range step.Asks() {
		if state := b.known[a].State; n == 0 || state.Rank() < i.State.Rank() {
			i.State = state
		}
	}
	if i.State.IsZero() {
		i.State = horse.Untried
	}
	if bl := b.blocks[key]; bl != nil {
		i.Blocked, i.Lifts, i.Lift = &bl.Why, &bl.Lifts, bl.Earliest
	}
	i.Open = i.Blocked == nil && len(i.Needs) == 0
	return i
}

// minutes estimates the time to the pass mark: its run for each ask that is not met
// yet and half again, at this horse's own pace (part 7). On a visit it is what is
// left of it.
func (b *builder) minutes(step catalog.Step) int {
	seconds := b.in.RepSeconds
	if ladder, _ := b.cat.Ladder(step.Ladder); seconds <= 0 {
		seconds = float64(b.cat.Rules.RepSeconds)
		if ladder.Kind == catalog.Foundation {
			seconds = foundationRepSeconds
		}
	}
	if step.Has(catalog.MeasureHold) && step.Pass.Unit == "s" {
		seconds = max(seconds, float64(step.Last())) // no answer is shorter than what it holds
	}
	asks := 0
	for _, a := range step.Asks() {
		if !b.known[a].Meets(catalog.Need{Step: step.Key, Level: b.levels[step.Key]}) {
			asks++
		}
	}
	reps := float64(step.Pass.Run*max(asks, 1)) * halfAgain
	return int(math.Ceil(reps * seconds / 60))
}

// Of a step before this horse's own pace is known.
const (
	foundationRepSeconds = 30
	halfAgain            = 1.5
)

// homework lists the steps that somebody is cleared for, that are met, and
// that nothing blocks.
func (b *builder) homework(p Plan) []Homework {
	list := []Homework{}
	for _, s := range b.in.Cleared {
		if _, ok := b.cat.Step(s.Step); !s.Cleared || !ok || b.blocks[s.Step] != nil || !b.met(s.Step) {
			continue
		}
		list = append(list, Homework{Person: s.Person, Step: s.Step, Name: assess.NameOf(b.cat, s.Step)})
	}
	return list
}

// workOf is the work to foresee for a goal: its steps to go and those of the
// goals that come before it in the plan.
func (b *builder) workOf(goal Goal, items []Item) Work {
	reach := map[horse.Problem]bool{}
	for _, g := range b.goals {
		reach[g.Problem] = true
		if g.Problem == goal.Problem {
			break
		}
	}
	ladder, _ := b.cat.Ladder(goal.Ladder)
	w := b.in.Work
	w.Today, w.Rate, w.By = b.in.Today, ladder.Rate, goal.By
	w.PerWeek, w.Homework = b.in.Choices.Visits(), b.in.Choices.Homework
	w.Cleared = slices.ContainsFunc(b.in.Cleared, func(s clearance.State) bool { return s.Cleared })
	w.DidWell = b.in.Facts.DoneBefore && b.in.Facts.FearUnlikely
	if !w.CanClear {
		w.Homework = 0
	}
	for _, i := range items {
		if i.Met || i.Seen || !slices.ContainsFunc(i.For, func(p horse.Problem) bool { return reach[p] }) {
			continue
		}
		if i.Blocked != nil {
			w.Held = append(w.Held, Held{Place: w.Remaining, Lifts: i.Lift})
		}
		step, _ := b.cat.Step(i.Step)
		w.StepsToGo = append(w.StepsToGo, Step{Key: i.Step, Name: assess.NameOf(b.cat, i.Step), Units: UnitsOf(b.cat, step)})
		w.Remaining++
	}
	return w
}
