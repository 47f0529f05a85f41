package demo

import (
	"fmt"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/gait"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/core/track"
	"ivorybridge/store"
)

// teller runs the sessions of one story.
type teller struct {
	*filler
	story
	*pony
	horseID, caseID, ownerID string
	assessments              []assess.Assessment
	days                     []track.Day
	paced                    bool // its walk was timed once already
}

// longest is the most reps a told session has.
const longest = 60

func (t *teller) sessions() error {
	if t.assessed == nil {
		return nil
	}
	if err := t.firstPlan(); err != nil {
		return err
	}
	before := t.takenOn
	for i, ago := range t.story.days {
		t.rest(before - ago)
		before = ago
		done, err := t.oneSession(i, ago)
		if err != nil {
			return fmt.Errorf("session %d: %w", i+1, err)
		}
		if done {
			break
		}
	}
	return nil
}

// file reads the case as it stands on a day.
func (t *teller) file(day string) (*casefile.File, error) {
	in := casefile.Input{Today: day, Record: t.story.record(t.filler), Problem: t.about(), Ladder: t.ladderKey(), Thing: t.thing, Owners: []string{t.ownerID}}
	in.Choices = t.choices()
	if t.neededIn > 0 {
		in.NeededBy = t.day(-t.neededIn)
	}
	for _, a := range t.assessments {
		in.Assessments = append(in.Assessments, assess.Dated{On: t.day(t.takenOn - 1), Doc: a})
	}
	return casefile.Document{Input: in, Days: t.days}.Read(t.cat)
}

// choices are the trainer's own: with some horses the trailer by building and
// releasing, whatever the assessment suggests.
func (t *teller) choices() plan.Choices {
	if !t.built {
		choices := plan.Choices{Goals: t.wanted()}
		if t.school != "" {
			var school horse.School
			read(&school, t.school)
			choices.Schools = map[string]horse.School{t.ladder: school}
		}
		return choices
	}
	return plan.Choices{Schools: map[string]horse.School{"load": horse.BuildAndRelease}}
}

func (t *teller) firstPlan() error {
	f, err := t.file(t.day(t.takenOn - 1))
	if err != nil {
		return err
	}
	actor := t.actor
	actor.At = t.now.AddDate(0, 0, -t.takenOn+1).UnixMilli()
	_, err = t.db.AddPlan(t.ctx, actor, t.caseID, store.Plan{
		School: horse.BuildAndRelease.String(), Reason: "First plan after the assessment", Catalog: t.cat.Version, Doc: f.Plan(), Choices: t.choices(),
	})
	return err
}

// oneSession tells one session; it reports whether the whole bridge is kept.
func (t *teller) oneSession(i, ago int) (bool, error) {
	day := t.day(ago)
	f, err := t.file(day)
	if err != nil || f.Bridge.Progress >= 1 {
		return true, err
	}
	ready := arena.Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true, Weather: "dry, light wind"}
	brief := f.Brief()
	_, ask := brief.Gate(f.Catalog, day, ready, true)
	start := time.Date(t.now.Year(), t.now.Month(), t.now.Day(), 9, 10+i%20, 0, 0, time.UTC).AddDate(0, 0, -ago)
	actor := t.actor
	actor.At = start.UnixMilli()
	n := store.Session{
		ID: t.id(), CaseID: t.caseID, HorseID: t.horseID, StartedAt: actor.At, Zone: zone, Date: day, School: horse.BuildAndRelease,
		Begins: ask, Handler: actor.User, Readiness: ready, Catalog: t.cat.Version, Rules: t.cat.Rules, Core: arena.Version,
	}
	if ask.IsZero() {
		return true, nil
	}
	if err := t.db.StartSession(t.ctx, actor, n); err != nil {
		return false, err
	}
	s := &telling{
		teller: t, file: f, today: track.Day{Date: day, Started: actor.At, Handler: actor.User}, at: actor.At,
		in: brief.Session(f.Catalog, arena.Beginning{Ask: ask, Started: actor.At, Handler: actor.User, Readiness: ready}),
	}
	if err := s.run(t.notes[i%len(t.notes)]); err != nil {
		return false, err
	}
	actor.At = s.at
	_, refused, err := t.db.Append(t.ctx, actor, n.ID, 0, s.today.Track)
	for _, r := range refused {
		if r != nil {
			return false, r
		}
	}
	t.days = append(t.days, s.today)
	return false, err
}

// finish closes the case on the day after its last session.
func (t *teller) finish() error {
	k, err := t.db.Case(t.ctx, t.actor.Practice, t.caseID)
	if err != nil {
		return err
	}
	k.FinishedOn = t.days[len(t.days)-1].Date
	return t.db.UpdateCase(t.ctx, t.actor, k)
}

// telling is one session being told.
type telling struct {
	*teller
	file  *casefile.File
	in    arena.Input
	today track.Day
	at    int64
	seq   int64
	tried map[horse.Ask]int
	moved map[horse.Ask]bool
	reps  int
}

func (s *telling) add(e track.Entry) {
	s.seq++
	e.ID, e.At, e.Device, e.Seq = s.id(), s.at, "demo", s.seq
	s.today.Track = append(s.today.Track, e)
}

// run follows the advice until it ends the session or time is up. First every
// step met but not yet kept is asked twice, without warming up.
func (s *telling) run(note string) error {
	s.tried, s.moved = map[horse.Ask]int{}, map[horse.Ask]bool{}
	s.checkMet()
	s.askEarly()
	limit := longest
	if s.story.reps > 0 {
		limit = s.story.reps
	}
	for s.reps < limit {
		in := s.in
		in.Track, in.Now = s.today.Track, s.at
		a, err := arena.Advise(s.cat, s.cat.Rules, in)
		if err != nil {
			return err
		}
		if !s.follow(a) {
			break
		}
	}
	s.ownersTurn()
	s.at += 20_000
	s.add(track.Entry{Kind: track.KindEnd, Note: note})
	return nil
}

// ownersTurn gives the owner the rope in the last sessions, for steps that are
// rehearsed and kept: three goes at each, on the horse, watched; but for the
// newest of them, which has had two.
func (s *telling) ownersTurn() {
	last := len(s.story.days)
	for i, key := range s.rehearsed {
		goes, from := 3, last-1
		if i == len(s.rehearsed)-1 {
			goes, from = 2, last
		}
		if s.session < from {
			continue
		}
		step, _ := s.cat.Step(key)
		a := step.Asks()[0]
		s.change(a)
		for range goes {
			s.rep(a, step.Last(), false)
			last := &s.today.Track[len(s.today.Track)-1]
			last.Rep.Handler = s.ownerID
		}
	}
}

// askEarly asks what the trainer asked before its time, twice each.
func (s *telling) askEarly() {
	for _, key := range s.early[s.session] {
		step, _ := s.file.Catalog.Step(key)
		a := step.Asks()[0]
		s.change(a)
		s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Why: "wants to try"}})
		s.know[a] = 1
		s.rep(a, step.Last(), false)
		s.rep(a, step.Last(), false)
	}
	if len(s.early[s.session]) > 0 {
		s.change(s.in.Ask)
	}
}

func (s *telling) checkMet() {
	n := 0
	for _, k := range s.file.Known {
		step, _ := s.cat.Step(k.Step)
		lost := s.session == s.lost && k.State == horse.Kept && step.Ladder == s.file.Bridge.Ladder
		if k.State != horse.Met && !lost || n >= 8 {
			continue
		}
		if s.problem != "" && (step.Ladder != s.ladder || n >= 2) {
			continue // the basics were felt good at the first visit, and are left at that
		}
		n++
		s.change(k.Ask)
		s.rep(k.Ask, step.Last(), false)
		s.rep(k.Ask, step.Last(), false)
		for s.tried[k.Ask] < 4 && s.session == s.lost {
			s.rep(k.Ask, step.Last(), false)
		}
	}
	if n > 0 {
		s.change(s.in.Ask)
	}
}

func (s *telling) change(a horse.Ask) {
	s.at += 15_000
	s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Ask: &a, Arousal: horse.ArousalOf(1)}})
}

func (s *telling) rep(a horse.Ask, target int, dip bool) {
	s.reps++
	s.tried[a]++
	r := s.answer(a, target, s.tried[a], dip)
	if step, _ := s.cat.Step(a.Step); step.Has(catalog.MeasureHold) && horse.Soft(r.Answer) {
		reached := target
		r.Reached = &reached
	}
	if s.problem != "" {
		s.at += int64(r.Seconds*1000) + 12_000
		s.add(s.logged(r))
		return
	}
	s.at += int64(r.Seconds*1000) + 26_000
	s.add(track.Entry{Kind: track.KindRep, Rep: &r})
}

// follow does what the advice says; false ends the session.
func (s *telling) follow(a arena.Advice) bool {
	switch a.Action {
	case track.EndSession, track.MakeSafe:
		return false
	case track.Wait:
		s.at += 90_000
		s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Arousal: horse.ArousalOf(1)}})
		return true
	case track.EndAsk, track.ChangeAsk:
		return s.goOn()
	}
	if a.Next == nil {
		return false
	}
	if a.Why.Key == "why.time_it" || a.Why.Key == "why.other_gait" {
		s.time(a.Next.Ask)
		return true
	}
	n := a.Numbers.N + 1
	dip := arena.InDip(n, a.Numbers.Cycle)
	s.at += int64(min(a.Rest, 60)) * 500
	s.rep(a.Next.Ask, a.Next.Target, dip)
	return true
}

// time taps the hooves of a horse that goes: a stepping pace the first time, from then on
// an even walk.
func (s *telling) time(a horse.Ask) {
	fraction := 0.24
	if !s.paced {
		s.paced, fraction = true, 0.16
	}
	s.at += 15_000
	f := track.Footfall{Ask: a, Taps: gait.Taps{Landings: strides(1.06, fraction)}}
	s.add(track.Entry{Kind: track.KindMark, Mark: &track.Mark{Footfall: &f}})
}

// goOn changes to the next step of the plan that was not worked today.
func (s *telling) goOn() bool {
	for _, item := range s.file.Plan().Items {
		step, _ := s.cat.Step(item.Step)
		for _, a := range step.Asks() {
			if item.Open && item.State != horse.Met && s.tried[a] == 0 && !s.moved[a] {
				s.moved[a] = true
				s.change(a)
				return true
			}
		}
	}
	return false
}

// rehearse writes down what the owner practised on a person: one step with a
// hand that is lighter than it means to be.
func (t *teller) rehearse(actor store.Actor) error {
	for i, key := range t.rehearsed {
		r := clearance.Rehearsal{
			Person: t.ownerID, Step: key, On: t.day(t.story.days[len(t.story.days)-1] + 7), Place: clearance.OnAPerson,
			Items: map[clearance.Item]clearance.Said{}, Tries: []clearance.Try{{Meant: horse.LevelOf(3), Felt: horse.LevelOf(2)}, {Meant: horse.LevelOf(5), Felt: horse.LevelOf(4 - i%2)}},
		}
		for _, item := range (clearance.Item{}).All() {
			r.Items[item] = clearance.Yes
		}
		if err := t.db.AddRehearsal(t.ctx, actor, store.Rehearsal{ID: t.id(), HorseID: t.horseID, Doc: r}); err != nil {
			return err
		}
	}
	return nil
}

// atHome writes down what the owner practised, at five in the afternoon, and sends the
// page of the newest visit.
func (t *teller) atHome(actor store.Actor) error {
	for _, p := range t.practised {
		at := time.Date(t.now.Year(), t.now.Month(), t.now.Day(), 17, 0, 0, 0, time.UTC).AddDate(0, 0, -p.ago)
		l := homework.Log{ID: t.id(), Person: t.ownerID, Step: p.step, On: t.day(p.ago), At: at.UnixMilli(), Done: len(p.answers) > 0, Minutes: 10, Arousal: horse.ArousalOf(p.arousal), Note: p.note}
		for _, a := range p.answers {
			var said clearance.Said
			read(&said, a)
			l.Answers = append(l.Answers, said)
		}
		if err := t.db.AddPractised(t.ctx, t.actor.Practice, store.Practised{Log: l, HorseID: t.horseID, Received: l.At}); err != nil {
			return err
		}
	}
	sessions, err := t.db.SessionsOf(t.ctx, t.actor.Practice, t.horseID)
	if err != nil || !t.sent || len(sessions) == 0 {
		return err
	}
	newest := sessions[len(sessions)-1]
	actor.At = newest.StartedAt + time.Hour.Milliseconds()
	return t.db.Send(t.ctx, actor, newest.ID)
}
