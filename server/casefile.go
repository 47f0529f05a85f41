package server

import (
	"context"
	"fmt"
	"maps"
	"slices"

	"ivorybridge/core/casefile"
	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/plan"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// planVisits is how many visits a plan lays out.
const planVisits = 6

// reading is a case with all that was read for it.
type reading struct {
	kase        store.Case
	horse       store.Horse
	assessments []store.Assessment
	history     history.History // of all sessions
	rehearsals  []clearance.Rehearsal
	chosen      []store.Chosen // by the plans, the oldest first
	used        []history.Used
	unread      []store.Unread // entries that are left out
	file        *casefile.File
}

// choices are those of the newest plan.
func (r reading) choices() plan.Choices {
	if n := len(r.chosen); n > 0 {
		return r.chosen[n-1].Choices
	}
	return plan.Choices{}
}

// read reads a case as of the caller's today, all of it as it was at one
// moment.
func (s *Server) read(ctx context.Context, c caller, caseID string) (r reading, err error) {
	err = c.atOneMoment(ctx, func(c caller) error {
		kase, err := c.view.Case(ctx, c.Practice, caseID)
		if err != nil {
			return err
		}
		h, err := c.view.Horse(ctx, c.Practice, kase.HorseID)
		if err != nil {
			return err
		}
		r, err = s.readOf(ctx, c, h, kase)
		return err
	})
	return r, err
}

// readOf reads a horse's case; the caller's view is a snapshot.
func (s *Server) readOf(ctx context.Context, c caller, h store.Horse, kase store.Case) (reading, error) {
	r, err := s.gather(ctx, c, h, kase)
	if err != nil {
		return reading{}, err
	}
	if r.history, r.unread, err = s.past(ctx, c, h.ID, r.used, nil); err != nil {
		return reading{}, err
	}
	err = guarded(func() (err error) {
		r.file, err = s.judge(c.today(), r, r.history)
		return err
	})
	return r, err
}

// gather reads what a case is judged from, beside its sessions.
func (s *Server) gather(ctx context.Context, c caller, h store.Horse, kase store.Case) (reading, error) {
	r := reading{kase: kase, horse: h}
	var err error
	if r.assessments, err = c.view.Assessments(ctx, c.Practice, h.ID); err != nil {
		return reading{}, err
	}
	rehearsals, err := c.view.Rehearsals(ctx, c.Practice, h.ID)
	if err != nil {
		return reading{}, err
	}
	for _, one := range rehearsals {
		r.rehearsals = append(r.rehearsals, one.Doc)
	}
	if r.chosen, err = c.view.Choices(ctx, c.Practice, kase.ID); err != nil {
		return reading{}, err
	}
	for _, one := range r.chosen {
		used, err := s.uses(ctx, c, one)
		if err != nil {
			return reading{}, err
		}
		r.used = append(r.used, used)
	}
	return r, nil
}

// asOf is the case with the plans that were made before a session began; the
// session is worked and told by them, whatever is planned later.
func (r reading) asOf(began int64) reading {
	made := 0
	for made < len(r.chosen) && r.chosen[made].At <= began {
		made++
	}
	r.chosen, r.used = r.chosen[:made], r.used[:made]
	return r
}

// uses reads the own ladders that a plan chose.
func (s *Server) uses(ctx context.Context, c caller, one store.Chosen) (history.Used, error) {
	used := history.Used{Since: one.At}
	for _, key := range slices.Sorted(maps.Keys(one.Choices.Own)) {
		u := one.Choices.Own[key]
		l, err := c.view.Ladder(ctx, c.Practice, u.ID, u.Version)
		if err != nil {
			return used, err
		}
		used.Ladders = append(used.Ladders, l.Doc)
	}
	return used, nil
}

// trying is the case as it would be with other choices; nothing is kept.
func (s *Server) trying(ctx context.Context, c caller, r reading, choices plan.Choices) (reading, error) {
	one := store.Chosen{At: c.now.UnixMilli(), Choices: choices}
	used, err := s.uses(ctx, c, one)
	if err != nil {
		return r, err
	}
	r.chosen, r.used = append(slices.Clone(r.chosen), one), append(slices.Clone(r.used), used)
	r.file, err = s.judge(c.today(), r, r.history)
	return r, err
}

// judge reads the case as it stands on a day, after the sessions of a history.
func (s *Server) judge(today string, r reading, past history.History) (*casefile.File, error) {
	in := casefile.Input{
		Today: today, Record: r.horse.Record, Ladder: r.kase.Ladder,
		NeededBy: r.kase.NeededBy, Finished: r.kase.FinishedOn, History: past,
		Choices: r.choices(), Rehearsals: r.rehearsals, Used: r.used, Visits: planVisits,
	}
	if err := in.Problem.UnmarshalText([]byte(r.kase.Problem)); err != nil {
		return nil, fmt.Errorf("reading the case's problem: %w", err)
	}
	for _, a := range r.assessments {
		in.Assessments = append(in.Assessments, judging.Dated{On: a.On, Doc: a.Doc})
	}
	for _, o := range r.horse.Owners {
		in.Owners = append(in.Owners, o.ID)
	}
	return casefile.Read(s.Catalog, in)
}

// endedBy is the entry that ended a session, or nil.
func endedBy(entries []track.Entry) *track.Entry {
	for _, e := range track.Live(entries) {
		if e.Kind == track.KindEnd {
			return &e
		}
	}
	return nil
}

// problems lists the problem behaviours that have a ladder.
func (s *Server) problems(context.Context, caller, *struct{}) ([]ProblemChoice, error) {
	choices := []ProblemChoice{}
	for _, p := range (horse.Problem{}).All() {
		if l, ok := s.Catalog.LadderFor(p); ok {
			choices = append(choices, choice(p, l))
		}
	}
	return choices, nil
}
