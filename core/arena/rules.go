package arena

import (
	"fmt"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// decision is what a rule said.
type decision struct {
	rule    string
	action  Action
	then    []Action
	from    horse.Ask // the ask it was decided on
	ask     horse.Ask // the ask to come
	target  int
	buildTo int
	rest    int
	easy    *horse.Ask
	whole   bool // a whole step lower, for the rest of the session
	begin   bool
	why     phrase.Message
}

type rule struct {
	number string
	judge  func(*session) (decision, bool)
}

// rules stand in part 6's order; the first that gives an action decides.
// "Get down" (rule 6) waits for ridden work.
var rulesInOrder = []rule{
	{"ended", hasEnded},
	{"1", stopReasons},
	{"2", danger},
	{"3", overTheLine},
	{"4", caps},
	{"begin", begin},
	{"5", notCounted},
	{"6", stepTooBig},
	{"7", refused},
	{"8", toleratedOrTry},
	{"9", ownersFirst},
	{"10", timeUp},
	{"11", routine},
	{"12", passMark},
	{"13", beforeTheDip},
	{"14", balance},
	{"15", otherwise},
}

func (s *session) decide(now int64) decision {
	s.now = max(s.now, now)
	for _, r := range rulesInOrder {
		d, ok := r.judge(s)
		if !ok {
			continue
		}
		d.rule = r.number
		d.from, _ = s.current()
		return s.keepOpen(d)
	}
	panic("arena: rule 15 always decides")
}

// keepOpen turns an ask on a shut step into the nearest open one below.
func (s *session) keepOpen(d decision) decision {
	asks := d.action == Same || d.action == Up || d.action == OtherSide
	if !asks || !s.shut(d.ask.Step) {
		return d
	}
	if s.arousal > 1 {
		return decision{rule: d.rule, action: Wait, then: []Action{Down}, from: d.from, why: phrase.Of("why.shut.wait", nil)}
	}
	low, ok := s.lower(d.ask, 1)
	if !ok {
		return decision{rule: d.rule, action: EndAsk, easy: s.easyKnown(d.ask), from: d.from, why: phrase.Of("why.nothing_lower", nil)}
	}
	step, _ := s.cat.Step(low.Step)
	return decision{
		rule: d.rule, action: Down, from: d.from, ask: low, target: s.startFor(low, step),
		why: phrase.Of("why.shut", phrase.Args{"step": s.name(d.ask.Step)}),
	}
}

func (s *session) name(key string) string {
	step, _ := s.cat.Step(key)
	return step.Name
}

// same asks the same again from 1.
func (s *session) same(why phrase.Message) (decision, bool) {
	a, v := s.current()
	return decision{action: Same, ask: a, target: v, why: why}, true
}

// down goes to the start value, or a step lower when already there.
func (s *session) down(from horse.Ask, value, steps int, whole bool, why phrase.Message) decision {
	step, _ := s.cat.Step(from.Step)
	if !whole && steps == 1 && len(step.Pass.Values) > 0 && value != step.Start() && step.Reaches(value, step.Start()) && !s.shut(from.Step) {
		return decision{action: Down, ask: from, target: step.Start(), why: why}
	}
	low, ok := s.lower(from, steps)
	if !ok {
		return decision{action: EndAsk, easy: s.easyKnown(from), why: phrase.Of("why.nothing_lower", nil)}
	}
	lower, _ := s.cat.Step(low.Step)
	return decision{action: Down, ask: low, target: s.startFor(low, lower), whole: whole, why: why}
}

func (s *session) lastRep() *told {
	if len(s.reps) == 0 {
		return nil
	}
	return &s.reps[len(s.reps)-1]
}

// good reports whether the last answer was accepted and all is quiet.
func (s *session) good() bool {
	r := s.lastRep()
	return r != nil && r.counted && r.soft() && s.arousal <= 1
}

func (s *session) capPassed() bool {
	return s.schooling() >= float64(s.rules.SessionCap) || s.blockMinutes() >= float64(s.rules.BlockCap)
}

func hasEnded(s *session) (decision, bool) {
	return decision{action: EndSession, why: phrase.Of("why.ended", nil)}, s.ended
}

// Rule 1.
func stopReasons(s *session) (decision, bool) {
	if len(s.stops) == 0 {
		return decision{}, false
	}
	why := phrase.Of("why.stop", phrase.Args{"reason": s.stops[0].String()})
	if s.arousal >= 3 || s.bad != nil && s.bad.danger && s.bad.fresh {
		return decision{action: MakeSafe, then: []Action{EndSession}, why: why}, true
	}
	return decision{action: EndSession, why: why}, true
}

// lasts reports whether a bad moment has lasted too long (rule 3).
func (s *session) lasts() (int, bool) {
	minutes := float64(s.now-s.bad.since) / 60000
	switch {
	case minutes >= 10 && s.arousal >= 3:
		return 10, true
	case minutes >= 20 && s.arousal >= 2:
		return 20, true
	}
	return 0, false
}

// Rule 2.
func danger(s *session) (decision, bool) {
	if s.over == "2" || s.dangers > 1 {
		return s.secondDanger(), true
	}
	b := s.bad
	if b == nil || !b.danger {
		return decision{}, false
	}
	if m, ok := s.lasts(); ok {
		return decision{action: EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}, true
	}
	why := phrase.Of("why.danger", nil)
	if b.fresh || s.arousal >= 2 {
		return decision{action: MakeSafe, then: []Action{Down}, why: why}, true
	}
	if s.capPassed() {
		return decision{}, false
	}
	if b.onEasy || b.from.IsZero() {
		return decision{action: EndAsk, why: phrase.Of("why.danger.easy", nil)}, true
	}
	return s.down(b.from, b.target, 2, true, phrase.Of("why.danger.after", nil)), true
}

func (s *session) secondDanger() decision {
	why := phrase.Of("why.danger.second", nil)
	if s.arousal >= 3 {
		return decision{action: MakeSafe, then: []Action{EndSession}, why: why}
	}
	d := decision{action: EndSession, why: why}
	if r := s.lastRep(); s.arousal <= 1 && r != nil && s.bad != nil {
		d.easy = s.easyKnown(r.Ask)
	}
	return d
}

// Rule 3, as building and releasing has it.
func overTheLine(s *session) (decision, bool) {
	if s.over == "3" {
		return decision{action: EndSession, why: phrase.Of("why.over.done", nil)}, true
	}
	b := s.bad
	if b == nil || b.danger {
		if s.overs >= 3 {
			return decision{action: EndSession, why: phrase.Of("why.over.third", nil)}, true
		}
		return decision{}, false
	}
	if m, ok := s.lasts(); ok {
		return decision{action: EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}, true
	}
	third := s.overs >= 3
	if b.fresh || s.arousal >= 2 {
		then := []Action{Down}
		if third {
			then = []Action{EndSession}
		}
		return decision{action: Wait, then: then, why: phrase.Of("why.over", nil)}, true
	}
	if third {
		return decision{action: EndSession, easy: s.easyKnown(b.from), why: phrase.Of("why.over.third", nil)}, true
	}
	if s.capPassed() {
		return decision{}, false
	}
	key := "why.over.after"
	if b.whole {
		key = "why.over.second"
	}
	return s.down(b.from, b.target, 1, b.whole, phrase.Of(key, nil)), true
}

// Rule 4.
func caps(s *session) (decision, bool) {
	d := decision{action: EndAsk, why: phrase.Of("why.block_cap", phrase.Args{"n": s.rules.BlockCap})}
	if s.schooling() >= float64(s.rules.SessionCap) {
		d = decision{action: EndSession, why: phrase.Of("why.session_cap", phrase.Args{"n": s.rules.SessionCap})}
	} else if s.blockMinutes() < float64(s.rules.BlockCap) {
		return decision{}, false
	}
	if s.good() || len(s.reps) == 0 {
		return d, true
	}
	if s.finishing >= 0 && len(s.reps)-s.finishing >= 2 {
		d.why = phrase.Of("why.quiet_moment", nil)
		return d, true
	}
	from, _ := s.current()
	if s.finishing >= 0 {
		easy := s.finishEasy
		d.easy = &easy
	} else {
		d.easy = s.easyKnown(from)
	}
	if d.easy == nil {
		d.why = phrase.Of("why.quiet_moment", nil)
	}
	return d, true
}

// begin speaks before the first rep of an ask that was chosen by hand.
func begin(s *session) (decision, bool) {
	if s.asked == nil && len(s.reps) > 0 {
		return decision{}, false
	}
	a, v := s.current()
	step, _ := s.cat.Step(a.Step)
	return decision{
		action: Same, ask: a, target: v, begin: true,
		why: phrase.Of("why.begin", phrase.Args{"release": step.Release}),
	}, true
}

// Rule 5.
func notCounted(s *session) (decision, bool) {
	r := s.lastRep()
	switch {
	case r.counted:
		return decision{}, false
	case r.wrong && s.wrongs[r.Handler] >= 3:
		return decision{action: ChangeAsk, why: phrase.Of("why.wrong.third", nil)}, true
	case r.wrong:
		return s.same(phrase.Of("why.wrong", nil))
	case slices.Contains(r.Flags, horse.NotNoticed):
		return decision{action: Refocus, then: []Action{Same}, ask: horse.Ask{Step: "head.down"}, why: phrase.Of("why.not_noticed", nil)}, true
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
	if tail(s.log(r.Ask).run, func(t told) bool { return t.Peak.Int() >= 7 }) < 3 {
		return decision{}, false
	}
	return s.down(r.Ask, r.Target, 1, false, phrase.Of("why.too_big", nil)), true
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

// Rule 7, as building and releasing has it.
func refused(s *session) (decision, bool) {
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
func toleratedOrTry(s *session) (decision, bool) {
	r := s.lastRep()
	run := s.log(r.Ask).run
	rested := func(why phrase.Message) (decision, bool) {
		d := s.down(r.Ask, r.Target, 1, false, why)
		d.rest = 90
		return d, true
	}
	if mixed(run) >= 6 {
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

// mixed counts the run's newest reps without one accepted; a try that got
// lighter or quicker does not count.
func mixed(run []told) int {
	n := 0
	for i := len(run) - 1; i >= 0 && !run[i].soft(); i-- {
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
	return t.ToTry != nil && before.ToTry != nil && *t.ToTry < *before.ToTry
}

// Rule 9.
func ownersFirst(s *session) (decision, bool) {
	r := s.lastRep()
	h := s.in.Handlers[r.Handler]
	if !h.Owner || !s.good() || !s.lastIsRep {
		return decision{}, false
	}
	failed := slices.Contains(h.Failed, r.Step)
	for i, t := range s.reps[:len(s.reps)-1] {
		if t.Handler != r.Handler || t.Step != r.Step || !t.counted {
			continue
		}
		if s.reps[i].soft() {
			return decision{}, false
		}
		failed = failed || t.refused()
	}
	return decision{action: EndSession, why: phrase.Of("why.owner", nil)}, failed
}

// Rule 10.
func timeUp(s *session) (decision, bool) {
	if !s.good() {
		return decision{}, false
	}
	r := s.lastRep()
	if s.dip(r.n) && !s.reachedMark() {
		return decision{}, false
	}
	if s.schooling() >= float64(s.rules.SessionCap-5) {
		return decision{action: EndSession, why: phrase.Of("why.time.session", phrase.Args{"n": s.rules.SessionCap})}, true
	}
	if s.blockMinutes() >= float64(s.rules.BlockMinutes) {
		return decision{action: EndAsk, why: phrase.Of("why.time.block", phrase.Args{"n": s.rules.BlockMinutes})}, true
	}
	return decision{}, false
}

// reachedMark reports whether the run of the last rep has reached the pass
// mark at its value.
func (s *session) reachedMark() bool {
	r := s.lastRep()
	return r.passes && s.log(r.Ask).passRun >= r.step.Pass.Run
}

// Rule 11.
func routine(s *session) (decision, bool) {
	r := s.lastRep()
	three := tail(s.log(r.Ask).run, func(t told) bool { return t.answer == horse.Offered }) >= 3
	if !three || !s.known[r.Ask].Passed() || s.dip(r.n) {
		return decision{}, false
	}
	return decision{action: ChangeAsk, why: phrase.Of("why.routine", nil)}, true
}

// Rule 12.
func passMark(s *session) (decision, bool) {
	r := s.lastRep()
	if r.EndedBy == horse.ByHorse && r.step.Has(catalog.MeasureHold) {
		if r.Target != r.step.Start() {
			return decision{action: Down, ask: r.Ask, target: r.step.Start(), why: phrase.Of("why.hold_broken", nil)}, true
		}
		return s.same(phrase.Of("why.hold_broken.start", nil))
	}
	if !s.reachedMark() || s.arousal > 1 {
		return decision{}, false
	}
	why := phrase.Of("why.passed", phrase.Args{"n": r.step.Pass.Run, "level": s.passLevel(r.step)})
	last := s.lastValue(r.step)
	if r.Target != last && !r.step.Reaches(r.Target, last) {
		if s.stay[r.Ask] {
			return decision{action: EndAsk, why: phrase.Of("why.stays_lower", nil)}, true
		}
		return decision{action: Up, ask: r.Ask, target: s.upTo(*r, last), why: why}, true
	}
	if left := float64(s.rules.SessionCap) - s.schooling(); left*60 < 3*s.repSeconds() {
		return decision{action: EndAsk, why: phrase.Of("why.passed.no_time", nil)}, true
	}
	if other, ok := s.unpassedVariant(r.Ask, s.in.Levels[r.Step]); ok {
		return decision{action: OtherSide, ask: other, target: s.startFor(other, r.step), why: why}, true
	}
	if next, ok := s.nextOpen(r.Ask); ok {
		step, _ := s.cat.Step(next.Step)
		return decision{action: Up, ask: next, target: s.startFor(next, step), why: why}, true
	}
	return decision{action: EndAsk, why: phrase.Of("why.passed.end", nil)}, true
}

func (s *session) upTo(r told, last int) int {
	next := r.step.After(r.Target)
	if !r.step.Reaches(last, next) {
		return last
	}
	return next
}

// Rule 13.
func beforeTheDip(s *session) (decision, bool) {
	r := s.lastRep()
	c := s.rules.Cycle
	if !s.good() || r.n%c != c-2 {
		return decision{}, false
	}
	rep := s.repSeconds()
	onePassMore := r.passes && s.log(r.Ask).passRun+1 >= r.step.Pass.Run
	if rep > 120 || onePassMore {
		return decision{}, false
	}
	left := min(float64(s.rules.BlockMinutes)-s.blockMinutes(), float64(s.rules.SessionCap-5)-s.schooling())
	needs := float64(c-1) * rep / 60
	if left >= needs {
		return decision{}, false
	}
	return decision{action: EndAsk, why: phrase.Of("why.before_dip", phrase.Args{
		"a": r.n + 1, "b": r.n + 2, "needs": fmt.Sprintf("%.1f", needs), "left": fmt.Sprintf("%.1f", left),
	})}, true
}

// Rule 14.
func balance(s *session) (decision, bool) {
	r := s.lastRep()
	if s.rules.SwapSides != "after each dose" || !s.good() || s.dip(r.n) || r.Variant.Side.IsZero() {
		return decision{}, false
	}
	other, ok := s.oppositeSide(r.Ask)
	if !ok || len(s.log(r.Ask).reps)-len(s.log(other).reps) <= 3 {
		return decision{}, false
	}
	return decision{action: OtherSide, ask: other, target: s.valueNow(other, r.step), why: phrase.Of("why.balance", nil)}, true
}

func (s *session) oppositeSide(a horse.Ask) (horse.Ask, bool) {
	other := a
	other.Variant.Side = horse.Near
	if a.Variant.Side == horse.Near {
		other.Variant.Side = horse.Off
	}
	return other, s.cat.HasAsk(other)
}

// Rule 15.
func otherwise(s *session) (decision, bool) {
	r := s.lastRep()
	next := r.n + 1
	switch {
	case r.refused():
		return s.same(phrase.Of("why.refused.once", nil))
	case s.arousal == 2:
		return s.same(phrase.Of("why.tense_after", nil))
	case s.dip(next):
		return s.same(phrase.Of("why.dip_next", phrase.Args{"a": next - btoi(s.dip(r.n)), "b": next + btoi(!s.dip(r.n))}))
	case r.soft() && !r.passes:
		return s.same(phrase.Of("why.lighter", phrase.Args{"level": s.passLevel(r.step)}))
	}
	return s.same(phrase.Of("why.same", phrase.Args{"n": s.log(r.Ask).passRun, "needs": r.step.Pass.Run}))
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}
