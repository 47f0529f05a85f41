// Package casefile reads one horse's case as a whole: what its sessions made of
// the steps (part 5), how dangerous it is (part 3), what is blocked, where the
// work goes on (part 7), what wants attention (part 8), and whether a session
// may begin today (part 6). All of it is computed from what was logged and
// written down; nothing here is stored.
package casefile

import (
	"cmp"
	"fmt"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/track"
)

// Dated is an assessment with its day, YYYY-MM-DD.
type Dated struct {
	On  string            `json:"on" format:"date" doc:"day"`
	Doc assess.Assessment `json:"assessment" doc:"the assessment as it stood"`
}

// Input is what is known of a case. Assessments and ladders stand oldest first.
type Input struct {
	Today       string                `json:"today" format:"date" doc:"the day that counts as today"`
	Record      assess.Record         `json:"record" doc:"what is on the horse's record"`
	Problem     horse.Problem         `json:"problem" doc:"of the case"`
	Ladder      string                `json:"ladder,omitempty" doc:"of the case; empty: the problem's usual one"`
	NeededBy    string                `json:"needed_by,omitempty" maxLength:"10" doc:"day by which the owner needs it"`
	Finished    string                `json:"finished,omitempty" maxLength:"10" doc:"day the case was finished; empty: it is not"`
	Assessments []Dated               `json:"assessments,omitempty" doc:"the assessments, the newest last"`
	History     history.History       `json:"-"` // what the sessions came to
	Owners      []string              `json:"owners,omitempty" doc:"names under which owners hold the rope"`
	Visits      int                   `json:"lay_out,omitempty" doc:"how many visits to lay out; 0: 3"`
	Choices     plan.Choices          `json:"choices,omitzero" doc:"what the trainer chose"`
	Rehearsals  []clearance.Rehearsal `json:"rehearsals,omitempty" doc:"rehearsals of people without the horse"`
	Used        []history.Used        `json:"used,omitempty" doc:"own ladders that the plans brought into use"`
}

// Document is a case with all its sessions, as it is told from outside.
type Document struct {
	Input
	Days []track.Day `json:"days,omitempty" doc:"the sessions, in any order"`
}

// Read folds the sessions, and reads the case.
func (d Document) Read(c *catalog.Catalog) (*File, error) {
	d.History = history.Fold(c, d.Used, d.Days)
	return Read(c, d.Input)
}

// File is a case, read.
type File struct {
	Known       []arena.Known
	Assessment  assess.Assessment
	Assessed    string // day of the newest assessment; empty: never
	Result      assess.Result
	Blocks      []assess.Block
	Start       string
	Bridge      progress.Bridge
	Risk        assess.Risk
	Precautions []phrase.Message
	Referrals   []assess.Referral
	LastWorked  string
	DaysOff     int // since any logged work; -1: never
	Bumped      bool
	Cycle       arena.Cycle // the horse's own, or the house rule's

	cat     *catalog.Catalog // fitted to the horse and its plan
	fit     catalog.Fitting  // by which it is
	shipped *catalog.Catalog
	glance  plan.Glance
	plan    *plan.Plan
	cleared []clearance.State
	in      Input
}

// Catalog is the catalogue as it is fitted to the horse and its plan.
func (f *File) Catalog() *catalog.Catalog { return f.cat }

// Read reads a case. The ladders must be in the catalogue.
func Read(c *catalog.Catalog, in Input) (*File, error) {
	if in.Ladder == "" {
		usual, _ := c.LadderFor(in.Problem)
		in.Ladder = usual.Key
	}
	in.Ladder = cmp.Or(in.Choices.Goals[in.Problem].Ladder, in.Ladder)
	if _, ok := c.Ladder(in.Ladder); !ok {
		return nil, fmt.Errorf("%q is not a ladder of the catalogue", in.Ladder)
	}
	f := &File{shipped: c, in: in, DaysOff: -1}
	if n := len(in.Assessments); n > 0 {
		f.Assessment, f.Assessed = in.Assessments[n-1].Doc, in.Assessments[n-1].On
	}
	f.Assessment = f.Assessment.About(in.Problem)
	if err := f.judge(); err != nil {
		return nil, err
	}
	f.Known = fresh(in.History.Known(f.cat), in.History.Since(f.shipped, in.Used))
	if f.LastWorked = in.History.LastWorked(); f.LastWorked != "" {
		f.DaysOff, _ = horse.DaysBetween(f.LastWorked, in.Today)
	}
	f.Bumped = in.History.Bumped
	f.Cycle = in.History.Answers.Learn(f.cat.Rules.Cycle)
	f.glance, _ = plan.Look(f.cat, f.planInput(f.goals()), in.Problem)
	f.Bridge, _ = f.BridgeOf(in.Ladder)
	return f, nil
}

// Plan is the work to come. It is made when it is asked for first; a file is not
// for use by several at once.
func (f *File) Plan() plan.Plan {
	if f.plan == nil {
		in := f.planInput(f.goals())
		in.Cleared = f.Cleared()
		p, _ := plan.Build(f.cat, in)
		f.plan = &p
	}
	return *f.plan
}

// Cleared tells how far the owners are with the steps that the horse has met,
// and with those that they have rehearsed.
func (f *File) Cleared() []clearance.State {
	if f.cleared == nil {
		f.cleared = f.clearances()
	}
	return f.cleared
}

// BridgeOf draws a ladder as this horse has it.
func (f *File) BridgeOf(ladder string) (progress.Bridge, bool) {
	return progress.BridgeOf(f.cat, ladder, f.Known, f.Blocks, f.glance.Next)
}

// judge fits the catalogue and judges the newest assessment with it: once
// before it is known whether fear is possible, and fitted again after.
func (f *File) judge() error {
	if err := f.fitTo(f.fitting()); err != nil {
		return err
	}
	ladder, _ := f.cat.Ladder(f.in.Ladder)
	logged := f.in.History.Newest()
	care, err := f.follow(ladder, logged)
	if err != nil {
		return err
	}
	f.Result, err = assess.Judge(f.cat, assess.Case{
		Today: f.in.Today, On: f.Assessed, Record: f.in.Record, Assessment: f.Assessment, Care: care,
		Logged: slices.Concat(logged, f.in.seenBy(f.in.Today, f.in.Assessments[:max(len(f.in.Assessments)-1, 0)])),
		Before: f.in.before(), NeededBy: f.in.NeededBy, Ladders: f.ladders(),
	})
	if err != nil {
		return err
	}
	if f.unchanging() {
		f.Result.Referrals = append(f.Result.Referrals, assess.Unchanging(f.Assessment, f.in.History.LastWorked()))
	}
	f.Risk, f.Precautions, f.Referrals = f.Result.Risk, f.Result.Precautions, f.Result.Referrals
	f.Risk.Care = f.Result.Care
	if start := f.Problem().Start; start != nil {
		f.Start = start.Key
	}
	fitting := f.fitting()
	if fitting.Afraid = !f.unafraid(); fitting.Afraid {
		if err := f.fitTo(fitting); err != nil {
			return err
		}
	}
	f.Blocks = assess.AllBlocks(f.cat, f.Assessment, f.in.Record, f.barring())
	assess.Lift(f.Blocks, f.Assessment, f.Referrals, f.in.Today)
	return nil
}

// barring is what decides whether the horse may be ridden.
func (f *File) barring() assess.Barring {
	return assess.Barring{Today: f.in.Today, Exception: f.excepted(), InHand: f.Result.InHand}
}

func (f *File) fitTo(fitting catalog.Fitting) (err error) {
	f.fit = fitting
	f.cat, err = f.shipped.Fit(fitting)
	return err
}

// assessmentOn is the newest assessment of a day, or the first there is.
func (in Input) assessmentOn(day string) assess.Assessment {
	var a assess.Assessment
	for i, d := range in.Assessments {
		if i == 0 || d.On <= day {
			a = d.Doc
		}
	}
	return a
}

// before is the assessment that the newest was begun from; nil: none.
func (in Input) before() *assess.Assessment {
	if n := len(in.Assessments); n > 1 {
		return &in.Assessments[n-2].Doc
	}
	return nil
}

// seenBy lists the dangerous things that assessments saw up to a day, each of
// the day on which it was seen first.
func (in Input) seenBy(day string, list []Dated) []assess.Event {
	var events []assess.Event
	var before assess.Assessment
	for i, d := range list {
		if i == 0 || d.On <= day {
			events = append(events, d.Doc.Seen(before, d.On)...)
		}
		before = d.Doc
	}
	return events
}

// follow carries the grade over the sessions: it falls one at a time, only
// after three sessions without an event (part 3).
func (f *File) follow(ladder catalog.Ladder, logged []assess.Event) (horse.Care, error) {
	graded := assess.Graded{Record: f.in.Record, Narrow: ladder.Narrow, Floor: ladder.Care}
	for _, d := range f.in.Assessments {
		graded.Assessments, graded.On = append(graded.Assessments, d.Doc), append(graded.On, d.On)
	}
	worked := make([]assess.WorkedDay, 0, len(f.in.History.Days))
	for _, d := range f.in.History.Days {
		worked = append(worked, assess.WorkedDay(d))
	}
	sessions, err := graded.Over(worked)
	if err != nil {
		return horse.Care{}, err
	}
	now, err := assess.RiskOf(assess.RiskInput{
		Today: f.in.Today, Record: f.in.Record, Assessment: f.in.assessmentOn(f.in.Today), Logged: slices.Concat(logged, f.in.seenBy(f.in.Today, f.in.Assessments)),
		Narrow: ladder.Narrow, Floor: ladder.Care,
	})
	if err != nil {
		return horse.Care{}, err
	}
	first := now.Care
	if len(sessions) > 0 {
		first = sessions[0].Care
	}
	return assess.Follow(first, sessions, now.Care), nil
}

// SeenOn lists the dangerous things that an assessment saw on a day.
func (f *File) SeenOn(day string) []assess.Event {
	return slices.DeleteFunc(f.in.seenBy(day, f.in.Assessments), func(e assess.Event) bool { return e.On != day })
}

// FeltFirst gives the level that each basic took in the assessment, by its ask,
// where it was seen in person and a level was noted.
func (f *File) FeltFirst() map[horse.Ask]int { return f.Assessment.Levels(f.cat) }

// unchangingFrom is after how many sessions with danger nothing has changed.
const unchangingFrom = 3

// unchanging reports danger in each of the last three sessions.
func (f *File) unchanging() bool {
	days := f.in.History.Days
	if len(days) < unchangingFrom {
		return false
	}
	return !slices.ContainsFunc(days[len(days)-unchangingFrom:], func(d history.Day) bool { return len(d.Events) == 0 })
}

// Problem is what the assessment says of the case's own problem.
func (f *File) Problem() assess.ProblemResult {
	for _, p := range f.Result.Problems {
		if p.Problem == f.in.Problem {
			return p
		}
	}
	return assess.ProblemResult{}
}

// Account is what is told and tried of the case's own problem.
func (f *File) Account() assess.Account { return f.Assessment.Problems[f.in.Problem] }

func (f *File) known(a horse.Ask) arena.Known {
	i := slices.IndexFunc(f.Known, func(k arena.Known) bool { return k.Ask == a })
	if i < 0 {
		return arena.Known{Ask: a}
	}
	return f.Known[i]
}

// met reports whether all asks of a step are met or kept.
func (f *File) met(step catalog.Step) bool {
	return !slices.ContainsFunc(step.Asks(), func(a horse.Ask) bool { return !f.known(a).Passed() })
}
