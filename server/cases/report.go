package cases

import (
	"context"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/report"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
)

// Document writes the report of a session.
func (s *Reader) Document(ctx context.Context, c api.Caller, r Reading, t Told) (report.Document, error) {
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
	before, err := s.Judge(t.Date, r.AsOf(t.StartedAt), t.Before)
	if err != nil {
		return report.Document{}, err
	}
	worked := before.Brief().Session(before.Catalog, arena.Beginning{
		Ask: t.Begins, School: t.School, Started: t.Day.Started, Handler: t.Day.Handler, Readiness: t.Readiness,
	})
	worked.Track = t.Day.Track
	review, err := arena.ReviewOf(before.Catalog, worked)
	if err != nil {
		return report.Document{}, err
	}
	in := report.Input{
		Catalog: now.Catalog, Horse: r.Horse.Name, Record: r.Horse.Record, Ladder: r.Case.Ladder, Goal: r.Case.Goal, NeededBy: r.Case.NeededBy,
		Story: now.Account().Story, Forbidden: now.Result.Forbidden, Rechecks: now.Result.Rechecks, Referrals: now.Result.Referrals, Care: now.Risk.Care, NotCaught: now.Assessment.NotYet,
		Visit: visit, Review: review, Beads: arena.Beads(now.Catalog, t.Day, visit.Before, now.Schools()), Then: then(now, t.Before), Baseline: now.Account().Baseline,
		Bridge: now.Bridge, Next: now.Plan().Next, FirstVisit: t.Before.Sessions() == 0,
	}
	if now.Assessed != "" && now.Assessed >= t.Before.LastWorked() {
		judged := now.Problem()
		in.Judged, in.Basis = &judged, now.Result.Basis
	}
	for _, h := range now.Plan().Homework {
		if !slices.Contains(in.Cleared, h.Step) {
			in.Cleared = append(in.Cleared, h.Step)
		}
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
	if end := EndedBy(t.Day.Track); end != nil {
		in.Ended = end.Note
	}
	return report.Visit(in), nil
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
