package arena

import (
	"maps"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// told is a rep as the rules read it: filled from what is known, graded as
// part 2 says, with its place in the count.
type told struct {
	track.Rep
	at      int64
	step    catalog.Step
	answer  horse.Answer
	arousal int
	counted bool
	wrong   bool
	n       int // its number among the counted reps of the ask
	passes  bool
	rested  bool     // a rest that it chose itself
	against *Against // what stood against it as it was asked; nil: nothing
}

func (t told) soft() bool    { return horse.Soft(t.answer) }
func (t told) refused() bool { return t.answer == horse.Refused }
func (t told) ridden() bool  { return t.Held == horse.Ridden || t.step.Ridden && t.Held.IsZero() }

// session folds the track, entry by entry. Its parts can be understood alone:
// the clock and the block of work, the horse's line of calm, how far each ask is,
// the places of rest, and what has ended. The rules read them in their order
// (rules.go); asking for advice changes none of them.
type session struct {
	cat    *catalog.Catalog
	rules  catalog.HouseRules
	in     Input
	col    column // of the school that the ask at work is worked in
	school horse.School

	clock
	line
	rungs
	places
	ending

	handler   string // who holds the rope now
	reps      []told
	lastIsRep bool
	workStep  string
	asked     *horse.Ask // chosen by hand, nothing logged on it yet
	atWork    *horse.Ask // of the last spell of work, nothing answered since

	size     horse.ReleaseSize // of the last rep's release
	bigGiven map[horse.Ask]bool
	wrongs   map[string]int // releases at the wrong moment, by handler
	last     decision
	halterAt int64
	violent  bool
}

func newSession(c *catalog.Catalog, rules catalog.HouseRules, in Input) *session {
	s := &session{
		cat: c, rules: rules, in: in, handler: in.Handler, bigGiven: map[horse.Ask]bool{}, wrongs: map[string]int{}, halterAt: in.Started,
		clock: clock{started: in.Started, now: in.Started, blockStart: in.Started},
		line:  line{arousal: 1, overSince: none, waitSince: none, overAt: map[horse.Ask][]int{}},
		rungs: rungs{
			known: map[horse.Ask]Known{}, logs: map[horse.Ask]*askLog{}, closed: map[string]bool{}, spoiltEasy: map[horse.Ask]bool{},
			downs: map[horse.Ask]int{}, stay: map[horse.Ask]bool{}, passed: map[horse.Ask]int{}, fromMemory: map[horse.Ask]horse.Answer{},
			answered: map[string]track.Despite{}, whys: map[string]string{}, worked: map[string]horse.School{}, earlyGood: map[horse.Ask]int{}, concluded: map[horse.Ask]bool{},
			timed: map[horse.Ask]gait.Result{},
		},
		places: places{approached: in.Started},
	}
	s.turn(in.Ask)
	for _, k := range in.Known {
		s.known[k.Ask] = k
	}
	if in.Horse.Young {
		s.rules.BlockMinutes, s.rules.BlockCap, s.rules.SessionCap = rules.BlockMinutesYoung, rules.BlockCapYoung, rules.SessionCapYoung
	}
	return s
}

// clone is the session as it is now; what either of the two reads later leaves
// the other alone. Reps that were read are never changed, so they are shared.
func (s *session) clone() *session {
	c := *s
	c.reps = slices.Clip(s.reps)
	c.line, c.rungs, c.ending = s.line.clone(), s.rungs.clone(), s.ending.clone()
	c.bigGiven, c.wrongs = maps.Clone(s.bigGiven), maps.Clone(s.wrongs)
	return &c
}

// absorb takes in one live entry.
func (s *session) absorb(e track.Entry) {
	s.now = max(s.now, e.At)
	s.tooLong()
	if r, ok := e.AsRep(s.cat); ok {
		t := s.fill(r, s.now, e.Kind == track.KindRep || e.Kind == track.KindDose)
		t.rested = e.Spell != nil && e.Spell.Came != track.AskedTo && !e.Spell.WrongPlace(s.cat)
		s.rep(t)
		if e.Kind == track.KindSpell {
			s.approach(s.now)
		}
		return
	}
	switch {
	case e.Kind == track.KindSpell && e.Spell != nil:
		s.work(*e.Spell)
	case e.Kind == track.KindInterruption && e.Interruption != nil:
		ways, _ := e.Ways()
		s.mark(track.Mark{Arousal: e.Interruption.Arousal, WaysOut: ways})
	case e.Kind == track.KindMark && e.Mark != nil:
		s.mark(*e.Mark)
	case e.Kind == track.KindMemory && e.Memory != nil:
		s.remember(*e.Memory)
	case e.Kind == track.KindEnd:
		s.ended = true
	}
}

// fill completes a rep from what is known and grades it (part 2). clocked tells
// whether a hold passes only by its clock.
func (s *session) fill(r track.Rep, at int64, clocked bool) told {
	step, _ := s.cat.Step(r.Step)
	if r.Variant.IsZero() && len(step.Variants) > 0 {
		r.Variant = s.variantFor(step, s.lastVariant())
	}
	if r.Handler == "" {
		r.Handler = s.handler
	}
	if r.Target == 0 && len(step.Pass.Values) > 0 {
		r.Target = s.valueNow(r.Ask, step)
	}
	if r.Release.IsZero() {
		r.Release = horse.OnTheTry
	}
	t := told{Rep: r, at: at, step: step, answer: r.Answer}
	switch {
	case r.Arousal.Noted():
		t.arousal = r.Arousal.Int()
	case s.arousal >= 3 && !s.settling(r.Ask):
		t.arousal = 1 // nothing is asked before it is back
	default:
		t.arousal = s.arousal
	}
	if t.answer == horse.Offered && r.Peak.Noted() && r.Peak.Int() > 1 {
		t.answer = horse.Accepted
	}
	keptStill := r.Held == horse.HeldFast || r.Held == horse.Tied && !step.Tied
	shutDown := slices.Contains(r.Signs, horse.ShutDown)
	if horse.Soft(t.answer) && (shutDown || keptStill && step.Has(catalog.MeasureHold)) {
		t.answer = horse.Tolerated
	}
	if shutDown {
		t.arousal = max(t.arousal, 2)
	}
	if slices.Contains(r.WaysOut, horse.LostItsBalance) {
		t.arousal = max(t.arousal, 3)
	}
	if t.Manner.IsZero() {
		t.Manner = horse.Tense
		if r.Face.Int() >= 2 || slices.Contains(r.WaysOut, horse.PinnedEars) {
			t.Manner = horse.Sour
		}
	}
	if s.clearedRear(r) {
		t.answer = horse.Refused
	}
	t.wrong = r.Release == horse.WrongMoment
	t.counted = !t.wrong && !slices.Contains(r.Flags, horse.NotNoticed) && !slices.Contains(r.Flags, horse.OutsideCause)
	t.against = s.against(t.Ask)
	t.passes = t.counted && s.meetsMark(t) && !(clocked && step.Has(catalog.MeasureHold) && r.Reached == nil)
	return t
}

// clearedRear reports the lead trainer's mark on a rear that is a refusal and
// no danger (rule 2).
func (s *session) clearedRear(r track.Rep) bool {
	return slices.Contains(r.Flags, horse.RearCleared) && !s.in.Horse.FearLikely &&
		slices.Contains(r.WaysOut, horse.Reared) &&
		!slices.ContainsFunc(r.WaysOut, func(w horse.WayOut) bool { return w != horse.Reared && horse.Dangerous(w) })
}

// meetsMark reports whether a counted rep counts towards the pass mark at its
// value (part 5).
func (s *session) meetsMark(t told) bool {
	p := t.step.Pass
	switch {
	case !t.soft(), t.arousal > p.Arousal, t.Peak.Int() > s.passLevel(t.step):
		return false
	case p.Corrections != nil && t.Corrections > *p.Corrections, t.EndedBy == horse.ByHorse:
		return false
	case t.Reached != nil && !t.step.Reaches(*t.Reached, t.Target):
		return false
	}
	onlyAnswer := len(p.Values) == 0
	return t.Peak.Noted() || !onlyAnswer || t.answer == horse.Offered || t.Trial != nil
}

func (s *session) passLevel(step catalog.Step) int {
	if l := s.in.Levels[step.Key]; l > 0 {
		return min(l, step.Pass.Level)
	}
	return step.Pass.Level
}

// lastValue is the step's last value, or less where a fact allows no more.
func (s *session) lastValue(step catalog.Step) int {
	if l, ok := s.in.Limits[step.Key]; ok && l > 0 && step.Last() > step.Start() {
		return min(l, step.Last())
	}
	return step.Last()
}

// turn makes the school of an ask's ladder the one whose column holds. Where
// steps are only counted and no school was said, it is build and release.
func (s *session) turn(a horse.Ask) {
	step, _ := s.cat.Step(a.Step)
	school := s.schoolOf(step.Ladder)
	s.col, _ = columnOf(school)
	s.school = school
}

// rep takes in a filled rep.
func (s *session) rep(t told) {
	if !s.settling(t.Ask) {
		s.turn(t.Ask)
	}
	taken := s.last.action == track.Down && t.Ask == s.last.ask && t.Target == s.last.target
	if taken {
		s.tookDown(s.last)
	}
	s.block(t)
	if t.Step != s.workStep {
		for _, l := range s.logs {
			l.run, l.passRun = nil, 0
		}
		s.workStep = t.Step
	}
	log := s.log(t.Ask)
	if n := len(log.run); n > 0 && log.run[n-1].Target != t.Target {
		log.run, log.passRun = nil, 0
	}
	if t.counted {
		t.n = len(log.reps) + 1
		log.reps = append(log.reps, t)
		log.run = append(log.run, t)
		if t.passes {
			log.passRun++
		} else {
			log.passRun = 0
		}
	} else if t.wrong {
		log.passRun = 0
		s.wrongs[t.Handler]++
	}
	s.arousalBy = s.arousal
	s.felt(t.arousal, s.now)
	over := s.bad
	s.asked, s.atWork, s.lastIsRep = nil, nil, true
	if over == nil || !over.danger || t.Arousal.Noted() {
		s.bad = nil // a danger is not over before somebody says how it is
	}
	s.reps = append(s.reps, t)
	s.look(t.WaysOut, t.at)
	s.gaze(t.Signs, true, s.in.Horse.GuardsItself)
	s.afterABump(t)
	s.judge(t, log, over)
	if t.counted {
		s.passes(t, log)
	}
	if t.counted && t.soft() && t.against.early() {
		s.conclude(t.Ask)
	}
	s.size = s.releaseSize()
	if s.size == horse.Big {
		s.bigGiven[t.Ask] = true
	}
}

// work takes in a spell of work: it is no answer, but it counts towards how
// long the horse has not come near.
func (s *session) work(p track.Spell) {
	s.turn(p.Ask)
	began := s.now - int64(p.Seconds)*second
	if s.blockLadder == "" {
		s.blockOf(p.Ask, began)
	}
	if at, _ := s.current(); at != p.Ask {
		s.workSpells = 0 // another place: it has its own ten minutes
	}
	s.asked, s.atWork = nil, &p.Ask
	s.mark(track.Mark{Arousal: p.Arousal, Signs: p.Signs, WaysOut: p.WaysOut})
	w := worked{noted: p.Level.Noted(), level: p.Level.Int()}
	if p.WrongPlace(s.cat) {
		if s.workSpells == 0 {
			s.approached = began
		}
		s.workSpells++
		s.workAway = w
		return
	}
	s.approach(s.now)
	s.workAt = w
}

// approach notes that the horse came near, to rest or to work.
