// Package casefile puts one horse's case together: what its sessions came to, how
// it is judged, where the work goes on, what wants attention, who is cleared, and
// what a session starts from. Each is answered in a room of its own; here they
// are only joined, and what costs is asked for when somebody wants it. Nothing
// here is stored.
package casefile

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"ivorybridge/core/alternative"
	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/attention"
	"ivorybridge/core/briefing"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/headline"
	"ivorybridge/core/history"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/outlook"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/snag"
	"ivorybridge/core/track"
)

// Input is what is known of a case. Assessments and ladders stand oldest first.
type Input struct {
	Today       string                `json:"today" format:"date" doc:"the day that counts as today"`
	Record      assess.Record         `json:"record" doc:"what is on the horse's record"`
	Problem     horse.Problem         `json:"problem" doc:"of the case"`
	Also        []horse.Problem       `json:"also,omitempty" maxItems:"6" doc:"further problems that it was taken on with"`
	Ladder      string                `json:"ladder,omitempty" doc:"of the case; empty: the problem's usual one"`
	Thing       string                `json:"thing,omitempty" maxLength:"60" doc:"that a case of a new thing is about"`
	NeededBy    string                `json:"needed_by,omitempty" maxLength:"10" doc:"day by which the owner needs it"`
	Finished    string                `json:"finished,omitempty" maxLength:"10" doc:"day the case was finished; empty: it is not"`
	Assessments []assess.Dated        `json:"assessments,omitempty" doc:"the assessments, the newest last"`
	History     history.History       `json:"-"` // what the sessions came to
	Owners      []string              `json:"owners,omitempty" doc:"names under which owners hold the rope"`
	Visits      int                   `json:"lay_out,omitempty" doc:"how many visits to lay out; 0: 6"`
	Choices     plan.Choices          `json:"choices,omitzero" doc:"what the trainer chose"`
	Practised   []homework.Log        `json:"practised,omitempty" doc:"what owners wrote down of their practice at home"`
	Resumed     []homework.Resumed    `json:"resumed,omitempty" doc:"homework that was stopped and may go on"`
	SetAside    []attention.Put       `json:"set_aside,omitempty" doc:"notes that were set aside, the oldest first"`
	Incidents   []assess.Incident     `json:"incidents,omitempty" doc:"dangerous things that were written down after the fact, in any order"`
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
	d.History = history.Fold(c, d.beside(), d.Days)
	return Read(c, d.Input)
}

// File is a case, read. It is not for use by several at once.
type File struct {
	*judging.Judged
	Known   []arena.Known
	Bridge  progress.Bridge   // of the case's ladder
	DaysOff int               // since any logged work; -1: never
	Cycle   arena.Cycle       // the horse's own, or the house rule's
	Home    homework.Standing // what owners practised

	shipped *catalog.Catalog
	in      Input
	facts   outlook.Facts
	glance  plan.Glance
	plan    *plan.Plan
	bridges []progress.Bridge // of the goals; nil: not drawn yet
	cleared []clearance.State
}

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
	in.History = in.History.Until(c, in.beside(), in.Today)
	facts := in.judged()
	judged, err := judging.Of(c, facts)
	if err != nil {
		return nil, fmt.Errorf("judging the case: %w", err)
	}
	f := &File{Judged: judged, shipped: c, in: in, DaysOff: -1, Cycle: in.History.Answers.Learn(judged.Catalog.Rules.Cycle)}
	f.Home = homework.Stand(homework.Until(in.Practised, in.Today), in.Resumed)
	f.Known = f.Home.Keep(history.Again(in.History.Known(judged.Catalog), in.History.Since(c, in.Used)))
	if worked := in.History.LastWorked(); worked != "" {
		f.DaysOff, _ = horse.DaysBetween(worked, in.Today)
	}
	f.facts = outlook.Facts{Facts: facts, Judged: judged, Known: f.Known, OwnerMay: f.clearing().Possible(), Visits: in.Visits, Practices: f.Home.Done()}
	f.glance, _ = plan.Look(judged.Catalog, outlook.Of(c, f.facts), in.Problem)
	f.Bridge, _ = f.BridgeOf(in.Ladder)
	return f, nil
}

// beside is what the sessions are read beside.
func (in Input) beside() history.Beside {
	return history.Beside{Used: in.Used, Assessed: in.Assessments, Incidents: assess.IncidentDays(in.Incidents)}
}

// judged are the facts that judging goes by.
func (in Input) judged() judging.Facts {
	f := judging.Facts{
		Today: in.Today, Record: in.Record, Problem: in.Problem, Also: in.Also, Ladder: in.Ladder, NeededBy: in.NeededBy,
		Assessments: in.Assessments, History: in.History, Choices: in.Choices, Incidents: assess.EventsOf(in.Incidents, in.Today),
	}
	if n := len(in.Used); n > 0 {
		f.Own = in.Used[n-1].Ladders
	}
	return f
}

// Plan is the work to come.
func (f *File) Plan() plan.Plan {
	if f.plan == nil {
		in := outlook.Of(f.shipped, f.facts)
		in.Cleared = f.Cleared()
		p, _ := plan.Build(f.Catalog, in)
		f.plan = &p
	}
	return *f.plan
}

// Cleared tells how far the owners are with the steps that the horse has met,
// and with those that they have rehearsed.
func (f *File) Cleared() []clearance.State {
	if f.cleared == nil {
		in := f.clearing()
		in.Steps = clearance.Steps(f.Catalog, f.Known, f.in.Rehearsals)
		f.cleared = clearance.Of(in)
	}
	return f.cleared
}

// NobodyCleared says why no owner is cleared at all, if so.
func (f *File) NobodyCleared() []phrase.Message { return f.clearing().Held() }

func (f *File) clearing() clearance.Input {
	in := clearance.Input{
		Persons: f.in.Owners, History: f.in.History, Rehearsals: f.in.Rehearsals,
		Points: f.Risk.Points, Waits: !f.OwnerHandles(), Stopped: map[string]phrase.Message{},
	}
	for _, stop := range f.Home.Stops {
		in.Stopped[stop.Step] = phrase.Of("clearance.stopped", stop.Says.Args)
	}
	for _, c := range f.Problem().Causes {
		in.Dulled = in.Dulled || c.Cause == horse.Dulled && c.Belief.String() == "likely"
	}
	return in
}

// BridgeOf draws a ladder as this horse has it.
func (f *File) BridgeOf(ladder string) (progress.Bridge, bool) {
	var goal progress.Goal
	for p := range f.Assessment.Problems {
		if l, ok := f.facts.LadderOf(f.Catalog, p); ok && l.Key == ladder {
			wanted := f.in.Choices.Goals[p]
			goal = progress.Goal{Until: wanted.Until, Ridden: wanted.Ridden}
		}
	}
	return progress.BridgeOf(f.Catalog, ladder, f.Known, f.Blocks, f.glance.Next, goal)
}

// Brief is all that the arena needs to know of the case; the file must have
// been read without the session that it is for.
func (f *File) Brief() arena.Brief {
	return briefing.Of(briefing.Facts{
		Judged: f.Judged, Record: f.in.Record, Today: f.in.Today, Problem: f.in.Problem, Ladder: f.in.Ladder, Thing: f.in.Thing,
		History: f.in.History, Known: f.Known, Plan: f.Plan(), Cycle: f.Cycle, Owners: f.in.Owners, Cleared: f.Cleared(),
	})
}

// Schools are the ways the ladders are worked in: as planned, else the usual
// one.
func (f *File) Schools() map[string]horse.School { return f.Plan().Schools(f.Catalog) }

// LastWorked is the day of the newest session; empty: there is none.
func (f *File) LastWorked() string { return f.in.History.LastWorked() }

// Attention lists what wants attention, the most pressing first, but for what is set
// aside.
func (f *File) Attention() []attention.Note {
	left, _ := attention.Split(f.notes(), f.in.SetAside, f.in.Today)
	return left
}

// Later lists what wants attention and is set aside.
func (f *File) Later() []attention.Later {
	_, later := attention.Split(f.notes(), f.in.SetAside, f.in.Today)
	return later
}

func (f *File) notes() []attention.Note {
	newest := history.Day{}
	if n := len(f.in.History.Days); n > 0 {
		newest = f.in.History.Days[n-1]
	}
	for _, i := range f.in.Incidents {
		switch {
		case i.On > f.in.Today || i.On < newest.On:
		case i.On == newest.On:
			newest.Events = append(slices.Clip(newest.Events), i.Kind)
		default:
			newest = history.Day{On: i.On, Events: []assess.EventKind{i.Kind}}
		}
	}
	var stopped []phrase.Message
	for _, s := range f.Home.Stops {
		args := maps.Clone(s.Says.Args)
		args["step"] = assess.NameOf(f.Catalog, s.Step)
		stopped = append(stopped, phrase.Of("attention.homework.stopped", args))
	}
	practised := 0
	if last := f.Home.Last(); last != "" && len(f.Plan().Homework) > 0 {
		practised, _ = horse.DaysBetween(last, f.in.Today)
	}
	return attention.Of(attention.Facts{
		Stopped: stopped, Practised: practised,
		Today: f.in.Today, Finished: f.in.Finished != "", NeededBy: f.in.NeededBy, Assessed: f.Assessed != "", Baseline: f.Account().Baseline.Asked(),
		Newest: newest, Running: f.in.History.Open != "", DaysOff: f.DaysOff, Referrals: f.Result.Referrals, Rechecks: f.Result.Rechecks, Rounds: f.Result.Rounds, Bridge: f.Bridge, Plan: f.glance,
	})
}

// Snags lists what stops the work, the gravest first.
func (f *File) Snags() []snag.Snag {
	return snag.Of(snag.Facts{
		Judged: f.Judged, Plan: f.Plan(), Owners: len(f.in.Owners) > 0, Cleared: f.Cleared(), Held: f.NobodyCleared(), Today: f.in.Today,
	})
}

// Bridges draws the ladders of the goals, in the plan's order.
func (f *File) Bridges() []progress.Bridge {
	if f.bridges != nil {
		return f.bridges
	}
	f.bridges = []progress.Bridge{}
	for _, w := range f.Plan().Ways {
		if b, ok := f.BridgeOf(w.Ladder); ok && !w.Problem.IsZero() {
			f.bridges = append(f.bridges, b)
		}
	}
	return f.bridges
}

// Beside draws the ladders of the horse's other problems, but for those that are
// left for later.
func (f *File) Beside() []progress.Bridge {
	list := []progress.Bridge{}
	for _, p := range (horse.Problem{}).All() {
		if _, there := f.Assessment.Problems[p]; !there || p == f.in.Problem || f.in.Choices.Goals[p].Later {
			continue
		}
		if l, ok := f.facts.LadderOf(f.Catalog, p); ok && l.Key != f.in.Ladder {
			if b, ok := f.BridgeOf(l.Key); ok {
				list = append(list, b)
			}
		}
	}
	return list
}

// Headline says what is next.
func (f *File) Headline() headline.Headline {
	return headline.Of(headline.Facts{
		Finished: f.in.Finished != "", Assessed: f.Assessed != "", Begun: f.DaysOff >= 0, Catalog: f.Catalog, Plan: f.Plan(), Bridges: f.Bridges(),
	})
}

// Need puts the case in its place in the caseload, by its notes.
func (f *File) Need(notes []attention.Note) attention.Need {
	return attention.NeedOf(f.in.Finished != "", notes, f.Bridge)
}

// Aside is what stands quietly in the margin of a case that wants nothing.
func (f *File) Aside(need attention.Need) (phrase.Message, bool) {
	return attention.Aside(need, f.Bridge, f.glance)
}

// Alternatives lists the ladders that serve the case's problem, and the ways of
// the chosen one, side by side.
func (f *File) Alternatives() []alternative.Way { return alternative.Of(f.shipped, f.facts) }

// SeenOn lists the dangerous things that an assessment saw on a day.
func (f *File) SeenOn(day string) []assess.Event { return f.facts.SeenOn(day) }
