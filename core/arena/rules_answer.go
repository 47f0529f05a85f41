package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// begin speaks before the first rep of an ask that was chosen by hand.
func begin(s *session) (decision, bool) {
	if s.asked == nil && s.atWork != nil || s.asked == nil && s.workSpells > 0 {
		if d, ok := refusedRelief(s); ok {
			d.rule = "7"
			return d, true
		}
	}
	if s.asked == nil && len(s.reps) > 0 {
		return decision{}, false
	}
	a, v := s.current()
	step, _ := s.cat.Step(a.Step)
	if step.Is(catalog.AReview) {
		return decision{action: track.Same, ask: a, target: v, begin: true, why: phrase.Of("why.begin.review", nil)}, true
	}
	release := phrase.Of("why.begin.answers", nil)
	if step.Release != "" {
		release = phrase.Of("why.begin.release", phrase.Args{"release": phrase.Lowered(step.Release)})
	}
	return decision{
		action: track.Same, ask: a, target: v, begin: true,
		why: phrase.Of("why.begin."+keyOf(s.school), phrase.Args{"when": release}),
	}, true
}

// Rule 5.
func notCounted(s *session) (decision, bool) {
	r := s.lastRep()
	switch {
	case r.counted:
		return decision{}, false
	case r.wrong && s.wrongs[r.Handler] >= 3:
		return decision{action: track.ChangeAsk, why: phrase.Of("why.wrong.third", nil)}, true
	case r.wrong:
		d, _ := s.same(phrase.Of("why.wrong", nil))
		d.at1 = true
		return d, true
	case slices.Contains(r.Flags, horse.NotNoticed):
		return decision{action: track.Refocus, then: []track.Action{track.Same}, ask: s.refocus(r.Ask), why: phrase.Of("why.not_noticed", nil)}, true
	}
	return s.same(phrase.Of("why.outside", nil))
}

// tail counts how many of the run's newest reps are so.
func tail(run []told, is func(told) bool) int {
	n := 0
	for i := len(run) - 1; i >= 0 && is(run[i]); i-- {
		n++
	}
	return n
}

// Rule 6.
func stepTooBig(s *session) (decision, bool) {
	r := s.lastRep()
	if !s.col.tooBig || tail(s.log(r.Ask).run, func(t told) bool { return t.Peak.Int() >= 7 }) < 3 {
		return decision{}, false
	}
	return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.too_big", nil)), true
}

// Rule 6, mounted: planted or shut down twice running, the same ask is done in
// hand until it is accepted twice.
func getDown(s *session) (decision, bool) {
	stuck := func(t told) bool {
		return t.ridden() && (slices.Contains(t.WaysOut, horse.Planted) || slices.Contains(t.Signs, horse.ShutDown))
	}
	n := len(s.reps)
	if n >= 2 && stuck(s.reps[n-1]) && stuck(s.reps[n-2]) {
		a, v := s.current()
		return decision{action: track.GetDown, then: []track.Action{track.Same}, ask: a, target: v, why: phrase.Of("why.get_down", nil)}, true
	}
	return decision{}, false
}

// ceiling is the highest level for a firm or sour answer with this horse and
// handler (rules 7 and 8, part 9).
func (s *session) ceiling(handler string) int {
	switch {
	case s.in.Horse.GuardsItself:
		return 4
	case s.in.Handlers[handler].Beginner:
		return 6
	}
	return 8
}

// Rule 7, as the school has it; where that asks again, a warning look comes
// first.
func refused(s *session) (decision, bool) {
	d, ok := s.col.refused(s)
	if ok && s.warned && (d.action == track.Same || d.action == track.Retreat) {
		return decision{}, false
	}
	return d, ok
}

// Rule 8: a warning look gets no release. What is on stays on, from out of
// reach, until it softens; with nothing on it is waited for.
func warningLook(s *session) (decision, bool) {
	if !s.warned {
		return decision{}, false
	}
	if !s.warnedOn {
		return decision{action: track.Wait, why: phrase.Of("why.look.wait", nil)}, true
	}
	a, v := s.current()
	return decision{action: track.Hold, ask: a, target: v, why: phrase.Of("why.look.hold", nil)}, true
}

// warningBeforeAnAsk is rule 8 where nothing was asked yet.
func warningBeforeAnAsk(s *session) (decision, bool) {
	if s.asked == nil && len(s.reps) > 0 {
		return decision{}, false
	}
	return warningLook(s)
}

// Rule 12: a hold that the horse ended goes to its start value, whatever the
// grade.
func holdBroken(s *session) (decision, bool) {
	r := s.lastRep()
	if r.EndedBy != horse.ByHorse || !r.step.Has(catalog.MeasureHold) {
		return decision{}, false
	}
	if r.Target != r.step.Start() {
		return decision{action: track.Down, ask: r.Ask, target: r.step.Start(), why: phrase.Of("why.hold_broken", nil)}, true
	}
	return s.same(phrase.Of("why.hold_broken.start", nil))
}

// Rule 7, as building and releasing has it.
func refusedBuilding(s *session) (decision, bool) {
	r := s.lastRep()
	log := s.log(r.Ask)
	n := tail(log.run, told.refused)
	if n < s.rules.Refusals {
		return decision{}, false
	}
	run := log.run[len(log.run)-n:]
	if n == s.rules.Refusals {
		if s.mayBeFirm(*r, run) {
			d, _ := s.same(phrase.Of("why.firm", nil))
			d.buildTo = max(min(r.Peak.Int()+2, s.ceiling(r.Handler)), 1)
			return d, true
		}
		if s.dip(run[0].n) && acceptedBefore(log, run[0].n) {
			return s.same(phrase.Of("why.refused.dip", phrase.Args{"n": run[0].n}))
		}
	}
	return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.refused", phrase.Args{"n": n})), true
}

func acceptedBefore(log *askLog, n int) bool {
	return slices.ContainsFunc(log.reps, func(t told) bool { return t.n < n && t.soft() })
}

func (s *session) mayBeFirm(r told, run []told) bool {
	if s.known[r.Ask].State != horse.Kept || s.arousal > 1 || !s.in.Horse.BodyClear {
		return false
	}
	return !slices.ContainsFunc(run, func(t told) bool {
		return slices.Contains(t.WaysOut, horse.Reared) || slices.ContainsFunc(t.Signs, horse.FearSign) ||
			slices.Contains(t.Signs, horse.WarningLook)
	})
}

// Rule 8, as building and releasing has it; six mixed answers before four
// tolerated ones, since both go down.
func toleratedBuilding(s *session) (decision, bool) {
	r := s.lastRep()
	run := s.log(r.Ask).run
	rested := func(why phrase.Message) (decision, bool) {
		d := s.down(r.Ask, r.Target, 1, false, why)
		d.rest = 90
		return d, true
	}
	if mixed(run, told.soft) >= mixedRow {
		return rested(phrase.Of("why.mixed", nil))
	}
	switch r.answer {
	case horse.Try:
		return s.same(phrase.Of("why.try", nil))
	case horse.Tolerated:
		if tail(run, func(t told) bool { return t.answer == horse.Tolerated }) >= 4 {
			return rested(phrase.Of("why.tolerated.four", nil))
		}
		if r.Manner == horse.Sour && s.in.Horse.BodyClear {
			d, _ := s.same(phrase.Of("why.sour", nil))
			d.buildTo = max(min(r.Peak.Int()+1, s.ceiling(r.Handler)), 1)
			return d, true
		}
		if r.Manner == horse.Sour {
			return s.same(phrase.Of("why.sour.body", nil))
		}
		return s.same(phrase.Of("why.tense", nil))
	}
	return decision{}, false
}

// mixedRow is how many answers in a row without a good one are enough.
const mixedRow = 6

// quietStand is what doses take for good: it stood, and is no higher than
// attentive.
func (t told) quietStand() bool {
	return t.answer.Rank() >= horse.Tolerated.Rank() && t.arousal <= 1
}

// mixed counts the run's newest reps without a good one; a try that got lighter
// or quicker does not count.
func mixed(run []told, good func(told) bool) int {
	n := 0
	for i := len(run) - 1; i >= 0 && !good(run[i]); i-- {
		if run[i].answer == horse.Try && i > 0 && better(run[i], run[i-1]) {
			continue
		}
		n++
	}
	return n
}

func better(t, before told) bool {
	if t.Peak.Noted() && before.Peak.Noted() && t.Peak.Int() < before.Peak.Int() {
		return true
	}
	if t.ToTry != nil && before.ToTry != nil {
		return *t.ToTry < *before.ToTry
	}
	return t.Seconds > 0 && before.Seconds > 0 && t.Seconds < before.Seconds
}
