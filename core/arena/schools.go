package arena

import (
	"cmp"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A column is what a school says where the rules in their order leave it to
// it (the table of part 6).
type column struct {
	over      func(*session, *bad) (decision, bool) // rule 3, while it is over the line
	refused   func(*session) (decision, bool)       // rule 7
	tolerated func(*session) (decision, bool)       // rule 8
	passed    func(*session) (decision, bool)       // rule 12
	tooBig    bool                                  // rule 6 holds
	cycle     bool                                  // rule 13 holds
	open      bool                                  // rule 4 waits for the next released try
	back      int                                   // below this arousal it is no longer over the line
	stays     bool                                  // it does not go lower once it is back, unless fear was seen
}

// lowers reports whether the work goes lower once it is back.
func (c column) lowers(b *bad) bool { return !c.stays || b.fear && c.open }

// columnOf is the column of a school; false if there is no such school.
func columnOf(school horse.School) (column, bool) {
	c, ok := map[horse.School]column{
		horse.BuildAndRelease: {over: waitThenDown, refused: refusedBuilding, tolerated: toleratedBuilding, passed: passMark, tooBig: true, cycle: true, back: 2},
		horse.WaitItOut:       {over: overWaiting, refused: refusedWaiting, tolerated: toleratedWaiting, passed: passMark, cycle: true, open: true, back: 3, stays: true},
		horse.Doses:           {over: overDoses, refused: refusedDoses, tolerated: toleratedDoses, passed: passedDoses, tooBig: true, cycle: true, back: 2},
		horse.AskAndListen:    {over: overListening, refused: refusedListening, tolerated: toleratedListening, passed: passedListening, tooBig: true, cycle: true, back: 2, stays: true},
		horse.ReliefPlace:     {over: overRelief, refused: refusedRelief, tolerated: toleratedRelief, passed: passedRelief, tooBig: true, back: 3, stays: true},
	}[school]
	return c, ok
}

// fearful reports whether the newest entry, or the mark that holds it over the
// line, showed a sign of fear.
func (s *session) fearful() bool {
	r := s.lastRep()
	return s.fearSeen || r != nil && s.lastIsRep && slices.ContainsFunc(r.Signs, horse.FearSign)
}

// waitThenDown is rule 3 in build and release: nothing until it is back, then
// lower.
func waitThenDown(*session, *bad) (decision, bool) {
	return decision{action: Wait, then: []Action{Down}, why: phrase.Of("why.over", nil)}, true
}

// overWaiting: without a sign of fear the feel stays as it is.
func overWaiting(s *session, b *bad) (decision, bool) {
	if s.fearful() {
		return waitThenDown(s, b)
	}
	a, v := s.current()
	return decision{action: Hold, ask: a, target: v, why: phrase.Of("why.over.hold", nil)}, true
}

// refusedWaiting: the level stays, the angle changes; at open time the smallest
// try is released.
func refusedWaiting(s *session) (decision, bool) {
	r := s.lastRep()
	if !r.refused() {
		return decision{}, false
	}
	if s.blockMinutes() >= float64(s.openMinutes()) {
		return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.open_time", phrase.Args{"n": s.openMinutes()})), true
	}
	return s.same(phrase.Of("why.refused.wait", nil))
}

// toleratedWaiting: hold, graded at the release; lower only if the seconds to
// soft do not fall over six.
func toleratedWaiting(s *session) (decision, bool) {
	r := s.lastRep()
	run := s.log(r.Ask).run
	switch r.answer {
	case horse.Try:
		return s.same(phrase.Of("why.try", nil))
	case horse.Tolerated:
		if n := len(run); n >= 6 && tail(run, func(t told) bool { return !t.soft() && !t.refused() }) >= 6 && run[n-1].Seconds >= run[n-6].Seconds {
			return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.no_sooner", nil)), true
		}
		a, v := s.current()
		return decision{action: Hold, ask: a, target: v, why: phrase.Of("why.hold", nil)}, true
	}
	return decision{}, false
}

// openMinutes is the time that waiting it out asks for; sessions from before it
// was a house rule have the shipped one.
func (s *session) openMinutes() int { return cmp.Or(s.rules.OpenTime, shippedOpenTime) }

const shippedOpenTime = 60

// overDoses: the contact lies still for a minute at most, then off; then
// lower.
func overDoses(s *session, _ *bad) (decision, bool) {
	a, v := s.current()
	return decision{action: Hold, then: []Action{Wait, Down}, ask: a, target: v, why: phrase.Of("why.over.still", nil)}, true
}

// backToStart is how often a dose went back to the start since the step was
// come to before it is one step lower.
const backToStart = 3

// refusedDoses: moving does not end it; off when it stands, and the start dose
// again.
func refusedDoses(s *session) (decision, bool) {
	r := s.lastRep()
	if !r.refused() {
		return decision{}, false
	}
	back := 0
	for i := len(s.reps) - 1; i >= 0 && s.reps[i].Step == r.Step; i-- {
		if s.reps[i].refused() && s.reps[i].counted {
			back++
		}
	}
	if back >= backToStart {
		return s.down(r.Ask, r.step.Start(), 1, true, phrase.Of("why.dose.third", phrase.Args{"n": backToStart})), true
	}
	return decision{action: Same, ask: r.Ask, target: s.startDose(*r), why: phrase.Of("why.dose.moved", nil)}, true
}

func (s *session) startDose(r told) int {
	if v := r.step.Start(); v > 0 {
		return v
	}
	return r.Target
}

// toleratedDoses: a quiet stand is enough for the next dose, at most; six
// without one is a rest and lower.
func toleratedDoses(s *session) (decision, bool) {
	r := s.lastRep()
	if tail(s.log(r.Ask).run, func(t told) bool { return t.answer.Rank() < horse.Tolerated.Rank() }) >= 6 {
		d := s.down(r.Ask, r.Target, 1, false, phrase.Of("why.mixed", nil))
		d.rest = 90
		return d, true
	}
	switch {
	case r.answer == horse.Try:
		return s.same(phrase.Of("why.try", nil))
	case r.answer == horse.Tolerated && (s.arousal > 1 || s.arousal > s.arousalBy):
		return s.same(phrase.Of("why.tense_after", nil))
	}
	return decision{}, false
}

// passedDoses: one quiet stand goes up to the next dose in the same zone;
// leaving it needs the pass mark at the last dose. Nothing goes up after the
// block's minutes.
func passedDoses(s *session) (decision, bool) {
	r := s.lastRep()
	last := s.lastValue(r.step)
	quiet := r.answer.Rank() >= horse.Tolerated.Rank() && s.arousal <= 1 && s.arousal <= max(s.arousalBy, 1)
	if !quiet || !r.counted {
		return decision{}, false
	}
	if last == 0 || r.step.Reaches(r.Target, last) {
		return passMark(s)
	}
	if s.blockMinutes() >= float64(s.rules.BlockMinutes) {
		return decision{action: EndAsk, why: phrase.Of("why.time.block", phrase.Args{"n": s.rules.BlockMinutes})}, true
	}
	if s.stay[r.Ask] {
		return decision{action: EndAsk, why: phrase.Of("why.stays_lower", nil)}, true
	}
	return decision{action: Up, ask: r.Ask, target: s.upTo(*r, last), why: phrase.Of("why.dose.up", nil)}, true
}

// overListening: back to what was last accepted; the second time one easy yes
// and the end.
func overListening(s *session, _ *bad) (decision, bool) {
	a, v := s.current()
	if s.overs >= 2 {
		d := decision{action: Wait, then: []Action{EndSession}, why: phrase.Of("why.over.third", nil)}
		d.easy = s.easyKnown(a)
		return d, true
	}
	return decision{action: Retreat, then: []Action{Wait}, ask: a, target: v, why: phrase.Of("why.over.retreat", nil)}, true
}

// refusedListening: a no is listened to; the second there goes lower, and a
// share of yeses that falls ends the session on an easy one.
func refusedListening(s *session) (decision, bool) {
	r := s.lastRep()
	if !r.refused() {
		return decision{}, false
	}
	log := s.log(r.Ask)
	if n := len(log.reps); n >= 12 && yes(log.reps[n-6:])*2 < 6 && yes(log.reps[n-12:n-6])*3 > 12 {
		return decision{action: EndSession, easy: s.easyKnown(r.Ask), why: phrase.Of("why.fewer_yes", nil)}, true
	}
	if tail(log.run, told.refused) >= 2 {
		return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.no.second", nil)), true
	}
	return decision{action: Retreat, ask: r.Ask, target: r.Target, why: phrase.Of("why.no", nil)}, true
}

func yes(reps []told) int {
	n := 0
	for _, t := range reps {
		n += btoi(t.soft())
	}
	return n
}

// toleratedListening counts a tolerated offer as hesitated.
func toleratedListening(s *session) (decision, bool) {
	r := s.lastRep()
	if mixed(s.log(r.Ask).run) >= 6 {
		d := s.down(r.Ask, r.Target, 1, false, phrase.Of("why.mixed", nil))
		d.rest = 90
		return d, true
	}
	if r.answer == horse.Tolerated || r.answer == horse.Try {
		return s.same(phrase.Of("why.hesitated", nil))
	}
	return decision{}, false
}

// passedListening keeps a new step for another day where one of the last six
// offers was left.
func passedListening(s *session) (decision, bool) {
	d, ok := passMark(s)
	if !ok || d.action != Up || d.ask.Step == s.lastRep().Step {
		return d, ok
	}
	reps := s.log(s.lastRep().Ask).reps
	if slices.ContainsFunc(reps[max(len(reps)-6, 0):], told.refused) {
		return decision{action: EndAsk, why: phrase.Of("why.another_day", nil)}, true
	}
	return d, true
}

// How many easy asks settle a horse by its feet, and the highest level of them.
const (
	easyAsks   = 3
	lightLevel = 3
)

// overRelief: easy asks already met bring its feet back; three of them without
// it, and nothing more is asked until it is back.
func overRelief(s *session, _ *bad) (decision, bool) {
	from, _ := s.current()
	easy := s.easyKnown(from)
	if s.settled >= easyAsks || easy == nil {
		return decision{action: Wait, why: phrase.Of("why.over.feet_done", nil)}, true
	}
	return decision{action: SettleByFeet, ask: *easy, buildTo: lightLevel, why: phrase.Of("why.over.feet", phrase.Args{"n": easyAsks - s.settled})}, true
}

// Without an approach for so long it is too much.
const (
	noApproachSpells  = 5
	noApproachMinutes = 10
)

// refusedRelief: leaving is no refusal, work begins where it went; no approach
// for long goes lower.
func refusedRelief(s *session) (decision, bool) {
	a, v := s.current()
	away := float64(s.now-s.approached) / 60000
	if s.workSpells >= noApproachSpells || s.workSpells > 0 && away >= noApproachMinutes {
		return s.down(a, v, 1, false, phrase.Of("why.no_approach", phrase.Args{"n": s.workSpells})), true
	}
	if !s.lastIsRep && s.workSpells > 0 {
		return s.same(phrase.Of("why.work", nil))
	}
	return decision{}, false
}

// toleratedRelief: a short rest is a beginning.
func toleratedRelief(s *session) (decision, bool) {
	if r := s.lastRep(); !r.soft() {
		return s.same(phrase.Of("why.rest.short", phrase.Args{"n": restFor(r.step)}))
	}
	return decision{}, false
}

// passedRelief: three rests chosen running, and the place two levels lighter
// than away from it, or no work needed.
func passedRelief(s *session) (decision, bool) {
	r := s.lastRep()
	n := s.log(r.Ask).passRun
	if n < r.step.Pass.Run || s.arousal > 1 {
		return s.same(phrase.Of("why.rest.counted", phrase.Args{"n": n, "needs": r.step.Pass.Run}))
	}
	if s.wrongSlope() {
		return s.same(phrase.Of("why.wrong_slope", nil))
	}
	return passMark(s)
}

// wrongSlope reports whether being at the place was not lighter than being
// away from it, by two levels.
func (s *session) wrongSlope() bool {
	return s.workAt.noted && s.workAway.noted && s.workAt.level > s.workAway.level-2
}
