package arena

import (
	"cmp"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
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
	back      int                                   // below this arousal it is no longer over the line, unless fear was seen
	overs     int                                   // the arousal 3 that ends the session
	stays     bool                                  // it does not go lower once it is back, unless fear was seen
}

// lowers reports whether the work goes lower once it is back.
func (c column) lowers(b *bad) bool { return !c.stays || b.fear && c.open }

// backFrom is the arousal below which the horse is back from a moment over the
// line: after a sign of fear it is waited for until 1.
func (c column) backFrom(b *bad) int {
	if b.fear {
		return 2
	}
	return c.back
}

// How many moments over the line a session takes.
const (
	usualOvers  = 3
	listenOvers = 2
)

// columnOf is the column of a school; false if there is no such school.
func columnOf(school horse.School) (column, bool) {
	switch school {
	case horse.BuildAndRelease:
		return column{over: waitThenDown, refused: refusedBuilding, tolerated: toleratedBuilding, passed: passMark, tooBig: true, cycle: true, back: 2, overs: usualOvers}, true
	case horse.WaitItOut:
		return column{over: overWaiting, refused: refusedWaiting, tolerated: toleratedWaiting, passed: passMark, cycle: true, open: true, back: 3, overs: usualOvers, stays: true}, true
	case horse.Doses:
		return column{over: overDoses, refused: refusedDoses, tolerated: toleratedDoses, passed: passedDoses, tooBig: true, cycle: true, back: 2, overs: usualOvers}, true
	case horse.AskAndListen:
		return column{over: overListening, refused: refusedListening, tolerated: toleratedListening, passed: passedListening, tooBig: true, cycle: true, back: 2, overs: listenOvers, stays: true}, true
	case horse.ReliefPlace:
		return column{over: overRelief, refused: refusedRelief, tolerated: toleratedRelief, passed: passedRelief, tooBig: true, back: 3, overs: usualOvers, stays: true}, true
	}
	return column{}, false
}

// waitThenDown is rule 3 in build and release: nothing until it is back, then
// lower.
func waitThenDown(*session, *bad) (decision, bool) {
	return decision{action: track.Wait, then: []track.Action{track.Down}, why: phrase.Of("why.over", nil)}, true
}

// overWaiting: without a sign of fear the feel stays as it is.
func overWaiting(s *session, b *bad) (decision, bool) {
	if b.fear {
		return waitThenDown(s, b)
	}
	a, v := s.current()
	return decision{action: track.Hold, ask: a, target: v, why: phrase.Of("why.over.hold", nil)}, true
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
		if n := len(run); tail(run, func(t told) bool { return !t.soft() && !t.refused() }) >= 6 && run[n-1].Seconds >= run[n-6].Seconds {
			return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.no_sooner", nil)), true
		}
		a, v := s.current()
		return decision{action: track.Hold, ask: a, target: v, why: phrase.Of("why.hold", nil)}, true
	}
	return decision{}, false
}

// openMinutes is the time that waiting it out asks for; sessions from before it
// was a house rule have the shipped one.
func (s *session) openMinutes() int { return cmp.Or(s.rules.OpenTime, shippedOpenTime) }

const shippedOpenTime = 60

// stillSeconds is how long the contact may lie still over the line.
const stillSeconds = 60

// overDoses: the contact lies still for a minute at most, off at the first
// softening or then; then nothing until it is back, and lower.
func overDoses(s *session, b *bad) (decision, bool) {
	if s.arousal < 3 || s.now-b.since >= stillSeconds*second {
		return waitThenDown(s, b)
	}
	a, v := s.current()
	return decision{action: track.Hold, then: []track.Action{track.Wait, track.Down}, ask: a, target: v, why: phrase.Of("why.over.still", nil)}, true
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
	return decision{action: track.Same, ask: r.Ask, target: s.startDose(*r), why: phrase.Of("why.dose.moved", nil)}, true
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
	if mixed(s.log(r.Ask).run, told.quietStand) >= mixedRow {
		d := s.down(r.Ask, r.Target, 1, false, phrase.Of("why.mixed", nil))
		d.rest = 90
		return d, true
	}
	switch {
	case r.answer == horse.Try:
		return s.same(phrase.Of("why.try", nil))
	case r.answer == horse.Tolerated && s.arousal > 1:
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
	if !r.counted || !r.quietStand() {
		return decision{}, false
	}
	if s.arousal > s.arousalBy {
		return s.same(phrase.Of("why.dose.rose", nil))
	}
	if d, ok := passMark(s); ok && (last == 0 || r.step.Reaches(r.Target, last)) {
		return d, true
	}
	if d, ok := s.afterEachDose(*r, last); ok {
		return d, true
	}
	if last == 0 || r.step.Reaches(r.Target, last) {
		return decision{}, false
	}
	if s.blockMinutes() >= float64(s.rules.BlockMinutes) {
		return s.same(phrase.Of("why.dose.no_more", phrase.Args{"n": s.rules.BlockMinutes}))
	}
	if s.stay[r.Ask] {
		return decision{action: track.EndAsk, why: phrase.Of("why.stays_lower", nil)}, true
	}
	return decision{action: track.Up, ask: r.Ask, target: s.upTo(*r, last), why: phrase.Of("why.dose.up", nil)}, true
}

// afterEachDose goes to the other side after a dose that was stood for, where
// the rules of the house have it so: near 4, off 4, off 6, near 6 (rule 12).
func (s *session) afterEachDose(r told, last int) (decision, bool) {
	other, ok := s.oppositeSide(r.Ask)
	if s.rules.SwapSides != afterEach || r.Variant.Side.IsZero() || !ok || s.passedAsk(other, s.in.Levels[r.Step]) {
		return decision{}, false
	}
	stood := func(t told) bool { return t.quietStand() && r.step.Reaches(t.Target, r.Target) }
	here, there := s.log(r.Ask), s.log(other)
	atLast := last == 0 || r.step.Reaches(r.Target, last)
	if slices.ContainsFunc(there.reps, stood) && (!atLast || there.passRun >= here.passRun) {
		return decision{}, false
	}
	return decision{action: track.OtherSide, ask: other, target: r.Target, why: phrase.Of("why.dose.side", nil)}, true
}

const afterEach = "after each dose"

// overListening: back to what was last accepted.
func overListening(s *session, _ *bad) (decision, bool) {
	a, v := s.current()
	return decision{action: track.Retreat, then: []track.Action{track.Wait}, ask: a, target: v, why: phrase.Of("why.over.retreat", nil)}, true
}

// refusedListening: a no is listened to; the second there goes lower, and a
// share of yeses that falls ends the session on an easy one.
func refusedListening(s *session) (decision, bool) {
	r := s.lastRep()
	if !r.refused() {
		return decision{}, false
	}
	log := s.log(r.Ask)
	if n := len(log.reps); n >= 12 && yes(log.reps[n-6:]) < 3 && yes(log.reps[n-12:n-6]) > 4 {
		return decision{action: track.EndSession, easy: s.easyKnown(r.Ask), why: phrase.Of("why.fewer_yes", nil)}, true
	}
	if tail(log.run, told.refused) >= 2 {
		return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.no.second", nil)), true
	}
	return decision{action: track.Retreat, ask: r.Ask, target: r.Target, why: phrase.Of("why.no", nil)}, true
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
	if mixed(s.log(r.Ask).run, told.soft) >= mixedRow {
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
	if !ok || d.action != track.Up || d.ask.Step == s.lastRep().Step {
		return d, ok
	}
	reps := s.log(s.lastRep().Ask).reps
	if slices.ContainsFunc(reps[max(len(reps)-6, 0):], told.refused) {
		return decision{action: track.EndAsk, why: phrase.Of("why.another_day", nil)}, true
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
func overRelief(s *session, b *bad) (decision, bool) {
	if s.arousal < 3 { // it was afraid: nothing before 1
		return decision{action: track.Wait, why: phrase.Of("why.over", nil)}, true
	}
	easy := s.easyKnown(b.from)
	if s.settled >= easyAsks || easy == nil {
		return decision{action: track.Wait, why: phrase.Of("why.over.feet_done", nil)}, true
	}
	return decision{action: track.SettleByFeet, ask: *easy, buildTo: lightLevel, why: phrase.Of("why.over.feet", phrase.Args{"n": easyAsks - s.settled})}, true
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
	away := float64(s.now-s.approached) / minute
	if s.workSpells >= noApproachSpells || s.workSpells > 0 && away >= noApproachMinutes {
		return s.down(a, v, 1, false, phrase.Of("why.no_approach", phrase.Args{"n": s.workSpells})), true
	}
	if !s.lastIsRep && s.workSpells > 0 {
		return s.same(phrase.Of("why.work", nil))
	}
	if s.atWork != nil {
		return s.same(phrase.Of("why.work.near", nil))
	}
	return decision{}, false
}

// toleratedRelief: a short rest is a beginning.
func toleratedRelief(s *session) (decision, bool) {
	if r := s.lastRep(); !r.soft() {
		return s.same(phrase.Of("why.rest.short", phrase.Args{"n": track.RestFor(r.step)}))
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
