package cases

import (
	"context"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// For is who reads a page: what it may practise is said of them alone.
type For string

// The readers that are no one person: all of the owner's side, for whom the trainer
// writes, and somebody outside, who may practise nothing.
const (
	OwnersAll For = ""
	Outside   For = "outside"
)

// Document writes the report of a session for somebody.
func (s *Reader) Document(ctx context.Context, c api.Caller, r Reading, t Told, reader For) (report.Document, error) {
	next, err := c.View.NextStart(ctx, c.Practice, r.Horse.ID, t.Session)
	if err != nil {
		return report.Document{}, err
	}
	now := r.File
	if t.After.Sessions() < r.History.Sessions() {
		if now, err = s.Judge(t.Date, r.AsOf(next), t.After); err != nil {
			return report.Document{}, err
		}
	}
	visit := t.Visit.In(now.Catalog)
	review, err := s.reviewOf(r, t)
	if err != nil {
		return report.Document{}, err
	}
	today := c.Today()
	if t.After.Sessions() < r.History.Sessions() {
		today = t.Date // it is told as it was then
	}
	in, err := s.standing(ctx, c, r, now, t.After, today, reader)
	if err != nil {
		return report.Document{}, err
	}
	in.Visit, in.Review, in.Beads = visit, review, arena.Beads(now.Catalog, t.Day, visit.Before, now.Schools())
	in.Then, in.FirstVisit, in.Standing.Proposed = then(now, t.Before), t.Before.Sessions() == 0, review.Next
	if now.Assessed != "" && now.Assessed >= t.Before.LastWorked() {
		judged := now.Problem()
		in.Judged, in.Basis = &judged, now.Result.Basis
	}
	events := t.Events()
	if t.Before.Sessions() == 0 || now.Assessed == t.Date {
		events = append(events, now.SeenOn(t.Date)...)
	}
	for _, e := range events {
		if k := e.Kind.String(); !slices.Contains(in.Dangers, k) {
			in.Dangers = append(in.Dangers, k)
		}
	}
	for _, e := range track.Live(t.Day.Track) {
		if e.Mark != nil && e.Mark.Incident && e.Note != "" {
			in.Incidents = append(in.Incidents, e.Note)
		}
	}
	in.Outings = outing.Results(track.Live(t.Day.Track))
	since := t.Before.LastWorked()
	for _, i := range r.Incidents {
		if i.On <= since || i.On > t.Date {
			continue
		}
		if k := i.Kind.String(); !slices.Contains(in.Dangers, k) {
			in.Dangers = append(in.Dangers, k)
		}
		in.Incidents = append(in.Incidents, i.What)
	}
	if end := EndedBy(t.Day.Track); end != nil {
		in.Ended = end.Note
	}
	return report.Visit(in), nil
}

// ProblemIn is a choice of numbers with the problem's ladder, goal and first day.
func ProblemIn(r Reading, by progress.Choice) progress.Choice {
	by.Ladder, by.Until = r.File.Bridge.Ladder, r.Choices().Goals[r.File.Problem().Problem].Until
	by.Before, by.Cycle = r.File.Account().Baseline.Minutes, r.File.Cycle
	return by
}

// reviewOf looks back on a session, by what was known as it began.
func (s *Reader) reviewOf(r Reading, t Told) (arena.Review, error) {
	before, err := s.Judge(t.Date, r.AsOf(t.StartedAt), t.Before)
	if err != nil {
		return arena.Review{}, err
	}
	worked := before.Brief().Session(before.Catalog, arena.Beginning{
		Ask: t.Begins, School: t.School, Started: t.Day.Started, Core: t.Day.Core, Handler: t.Day.Handler, Readiness: t.Readiness,
	})
	worked.Track = t.Day.Track
	return arena.ReviewOf(before.Catalog, worked)
}

// standing is how a case stands after the sessions of a history: what every page of
// its horse is written from.
func (s *Reader) standing(ctx context.Context, c api.Caller, r Reading, now *casefile.File, past history.History, today string, reader For) (report.Input, error) {
	in := report.Input{
		Catalog: now.Catalog, Horse: r.Horse.Name, Record: r.Horse.Record, Ladder: now.Bridge.Ladder, Goal: r.Case.Goal, NeededBy: r.Case.NeededBy, Problem: now.Problem().Problem,
		Story: now.Account().Story, Forbidden: now.Result.Forbidden, Rechecks: now.Result.Rechecks, Referrals: now.Result.Referrals, Care: now.Risk.Care, NotCaught: now.Assessment.NotYet,
		Baseline: now.Account().Baseline, Bridge: now.Bridge, Next: now.Plan().Next,
		Standing: report.Standing{Today: today, Steps: past.Steps, Visits: past.Sessions(), Last: past.LastWorked(), Done: r.Case.FinishedOn != "", Who: c.Home.Name, Phone: c.Home.Phone},
	}
	for _, h := range now.Plan().Homework {
		if (reader == OwnersAll || string(reader) == h.Person) && !slices.Contains(in.Cleared, h.Step) {
			in.Cleared = append(in.Cleared, h.Step)
		}
	}
	for _, stop := range now.Home.Stops {
		if !slices.Contains(in.Standing.Stopped, stop.Step) {
			in.Standing.Stopped = append(in.Standing.Stopped, stop.Step)
		}
	}
	booked, err := c.View.VisitsOf(ctx, c.Practice, r.Horse.ID, horse.DayAfter(past.LastWorked(), 1))
	if err != nil {
		return report.Input{}, err
	}
	if i := slices.IndexFunc(booked, func(v store.Visit) bool { return v.Agreed && v.Cancelled == "" && v.On >= today }); i >= 0 {
		in.Standing.Booked = booked[i].On
		if at := booked[i].At; at != nil {
			in.Standing.At = at.String()
		}
	}
	figures, err := s.Figures(ctx, c, r)
	if err != nil {
		return report.Input{}, err
	}
	figures = slices.DeleteFunc(slices.Clone(figures), func(f history.Figures) bool { return f.On > past.LastWorked() })
	in.Standing.Lines = progress.LinesOf(now.Catalog, figures)
	return in, nil
}

// Closing writes the page at the end of the work, as it stands today.
func (s *Reader) Closing(ctx context.Context, c api.Caller, r Reading) (report.Document, error) {
	in, err := s.now(ctx, c, r, OwnersAll)
	if err != nil {
		return report.Document{}, err
	}
	figures, err := s.Figures(ctx, c, r)
	if err != nil {
		return report.Document{}, err
	}
	return report.Closing(in, progress.LastsOf(r.File.Catalog, figures)), nil
}

// Whole writes the whole file of a horse, for whoever takes over.
func (s *Reader) Whole(ctx context.Context, c api.Caller, r Reading) (report.Document, error) {
	in, err := s.now(ctx, c, r, OwnersAll)
	if err != nil {
		return report.Document{}, err
	}
	if r.File.Assessed != "" {
		judged := r.File.Problem()
		in.Judged, in.Basis = &judged, r.File.Result.Basis
	}
	f := report.File{Input: in, Plan: r.File.Plan(), Practised: r.File.Home.Logs, Cleared: r.File.Cleared(), Names: map[string]string{}}
	if f.Sessions, err = s.Figures(ctx, c, r); err != nil {
		return report.Document{}, err
	}
	people, err := c.View.People(ctx, c.Practice)
	if err != nil {
		return report.Document{}, err
	}
	for _, p := range people {
		f.Names[p.ID] = p.Name
	}
	for _, one := range f.Sessions {
		note, err := c.View.EndNote(ctx, c.Practice, one.Session)
		if err != nil {
			return report.Document{}, err
		}
		f.Notes = append(f.Notes, note)
	}
	for _, d := range r.History.Days {
		for _, k := range d.Events {
			f.Incidents = append(f.Incidents, report.FileIncident{On: d.On, What: k.String()})
		}
	}
	for _, i := range r.Incidents {
		f.Incidents = append(f.Incidents, report.FileIncident{On: i.On, What: i.Kind.String() + ". " + i.What})
	}
	return report.Whole(f), nil
}

// Standing writes how a horse stands today for somebody: what an owner's page begins with.
// The caller's view is a snapshot.
func (s *Reader) Standing(ctx context.Context, c api.Caller, r Reading, reader For) (report.Document, error) {
	in, err := s.now(ctx, c, r, reader)
	return report.Now(in), err
}

// now is how a case stands today, with when its newest visit proposed the next one.
func (s *Reader) now(ctx context.Context, c api.Caller, r Reading, reader For) (report.Input, error) {
	in, err := s.standing(ctx, c, r, r.File, r.History, c.Today(), reader)
	if err != nil {
		return report.Input{}, err
	}
	in.Standing.Proposed, err = s.Asked(ctx, c, r)
	return in, err
}

// Asked is what the newest session asked for of the next visit; empty: there was none.
func (s *Reader) Asked(ctx context.Context, c api.Caller, r Reading) (phrase.Message, error) {
	list, err := c.View.SessionsOf(ctx, c.Practice, r.Horse.ID)
	if err != nil || len(list) == 0 {
		return phrase.Message{}, err
	}
	t, err := s.Tell(ctx, c, r, list[len(list)-1])
	if err != nil {
		return phrase.Message{}, err
	}
	review, err := s.reviewOf(r, t)
	return review.Next, err
}

// then is how each ask was on the first day it was asked: in the assessment, else
// in the first session of those that came before.
func then(now *casefile.File, before history.History) map[horse.Ask]report.Then {
	first, schools := map[horse.Ask]report.Then{}, now.Schools()
	for _, f := range before.Firsts {
		step, _ := now.Catalog.Step(f.Step)
		first[f.Ask] = report.Then{On: f.On, Reps: f.In(schools[step.Ladder])}
	}
	for ask, level := range now.Levels() {
		first[ask] = report.Then{On: now.Assessed, FirstDay: true, Reps: history.Reps{Level: float64(level), Noted: true}}
	}
	return first
}
