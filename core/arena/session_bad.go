package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// passes looks whether the pass mark is reached: the run, at the last value, and what the
// step asks beside it.
func (s *session) passes(t told, log *askLog) {
	if log.passRun >= t.step.Pass.Run && t.step.Reaches(t.Target, s.lastValue(t.step)) && s.inFourBeats(t) {
		s.pass(t, log)
	}
}

// editionsByEye are the editions of the rules under which a trainer judged a gait by eye:
// what was met then stays met.
var editionsByEye = []string{"2026.1", "2026.2", "2026.3"}

// inFourBeats reports whether nothing is left to be timed: the step asks for no gait, or
// its hooves were timed as an even walk (part 5, rush.walk), or somebody says so who sees it.
func (s *session) inFourBeats(t told) bool {
	return !t.step.Is(catalog.FourBeats) || slices.Contains(editionsByEye, s.in.Core) || s.timed[t.Ask].Class == gait.Walk
}

// times takes in hooves that were tapped, or what was seen; the newest holds.
func (s *session) times(f track.Footfall) {
	r, err := gait.Time(f.Taps)
	switch {
	case f.Eye:
		r = gait.Result{Class: gait.Walk, Says: phrase.Of("live.by_eye", nil)}
	case err != nil || r.Class.IsZero():
		return // too few strides tell nothing
	}
	s.timed[f.Ask] = r
	if run := s.log(f.Ask).run; len(run) > 0 {
		s.passes(run[len(run)-1], s.log(f.Ask))
	}
}

// pass notes that the pass mark is reached, at the highest level of the run.
func (s *session) pass(t told, log *askLog) {
	level := 0
	for _, r := range log.run[len(log.run)-t.step.Pass.Run:] {
		level = max(level, r.Peak.Int())
	}
	if old, ok := s.passed[t.Ask]; !ok || level < old {
		s.passed[t.Ask] = level
	}
}

// tooLong ends the session for good where what was to bring the horse down has
// had its time before this entry (rule 3); what comes after can't lead back to
// an ask.
func (s *session) tooLong() {
	if m, ok := s.lasts(s.now); ok && s.over == nil {
		s.over = &decision{rule: "3", action: track.EndSession, why: phrase.Of("why.lasts", phrase.Args{"n": m})}
	}
}

// settling reports whether an ask is one that settles the horse by its feet: it
// is advised in the school at work.
func (s *session) settling(a horse.Ask) bool {
	return s.school == horse.ReliefPlace && s.bad != nil && !s.bad.danger && s.arousal >= 3 && a != s.bad.from
}

// easyNow reports whether an ask is the easy one that was just advised.
func (s *session) easyNow(a horse.Ask) bool {
	return s.finish != nil && a == s.finish.easy || s.last.action == track.SettleByFeet && a == s.last.ask
}

// judge looks for danger and for arousal over the line (rules 2 and 3).
// over is the moment over the line that was not over before this entry.
func (s *session) judge(t told, log *askLog, over *bad) {
	b := bad{since: t.at, from: t.Ask, target: t.Target}
	easy := s.school == horse.ReliefPlace && over != nil && !over.danger && t.Ask != over.from
	switch {
	case s.dangerous(t, log):
		b.danger, b.onEasy, b.ridden = true, s.easyNow(t.Ask), t.ridden()
		s.danger(b)
	case t.arousal >= 3 && easy:
		s.settled++ // an easy ask, to settle it by its feet
		s.bad = over
	case t.arousal == 3:
		s.settled = 0
		b.fear = slices.ContainsFunc(t.Signs, horse.FearSign)
		s.overTheLine(b, len(log.reps))
	case easy && over.fear && t.arousal > 1:
		s.bad = over
	case easy: // its feet have brought it back: the work in places goes on
		s.settled = 0
		from := over.from
		s.asked = &from
	}
}

func (s *session) dangerous(t told, log *askLog) bool {
	if t.Arousal.Int() == 4 {
		return true
	}
	cleared := s.clearedRear(t.Rep)
	if !cleared && slices.ContainsFunc(t.WaysOut, horse.Dangerous) {
		return true
	}
	if cleared {
		tail := 0
		for i := len(log.run) - 1; i >= 0 && s.clearedRear(log.run[i].Rep); i-- {
			tail++
		}
		return tail >= 3
	}
	var kicks []int
	for _, r := range log.reps {
		if r.Kicks != nil {
			kicks = append(kicks, *r.Kicks)
		}
	}
	k := len(kicks)
	return t.Kicks != nil && t.counted && k >= 3 && kicks[k-1] > kicks[k-2] && kicks[k-2] > kicks[k-3]
}

func (s *session) danger(b bad) {
	s.dangers++
	s.incidentWanted = true
	s.afoot = s.afoot || b.ridden
	s.bad = &b
	if b.from.IsZero() {
		return
	}
	if b.onEasy {
		s.spoiltEasy[b.from] = true
		return
	}
	s.close(b.from.Step)
}

// mark takes in a mark.
func (s *session) mark(m track.Mark) {
	s.lastIsRep = s.lastIsRep && m.Footfall != nil // which is about the answers before it
	if m.Footfall != nil {
		s.times(*m.Footfall)
	}
	s.easyMinutes += m.EasyMinutes
	s.blockEasy += m.EasyMinutes
	if m.Halter {
		s.halterAt, s.violent = s.now, false
	}
	if m.Turn != "" {
		s.handler = m.Turn
	}
	if m.Incident {
		s.incidentWanted = false
	}
	if m.Bump {
		s.bumped, s.afterBump = true, 0
	}
	if !m.Stop.IsZero() {
		s.stops = append(s.stops, m.Stop)
	}
	if m.Ask != nil {
		a := *m.Ask
		if m.Despite != nil {
			s.answered[a.Step] = *m.Despite
		}
		s.asked, s.finish = &a, nil
		s.turn(a)
		if s.arousal <= 1 && (s.bad == nil || !s.bad.danger || s.bad.noted) {
			s.bad = nil // it is back, and the trainer has chosen
		}
		s.blockOf(a, s.now)
	}
	if !m.School.IsZero() {
		at, _ := s.current()
		step, _ := s.cat.Step(at.Step)
		s.worked[step.Ladder] = m.School
		s.turn(at)
	}
	if m.Why != "" {
		at, _ := s.current()
		s.whys[at.Step] = m.Why
	}
	s.look(m.WaysOut, s.now)
	s.gaze(m.Signs, false, s.in.Horse.GuardsItself)
	if m.Arousal.Noted() && m.Arousal.Int() <= 1 {
		s.warned = false
	}
	s.markArousal(m)
}

func (s *session) markArousal(m track.Mark) {
	level := s.arousal
	if slices.Contains(m.WaysOut, horse.LostItsBalance) {
		m.Arousal = horse.ArousalOf(max(m.Arousal.Int(), 3))
	}
	if m.Arousal.Noted() {
		level = m.Arousal.Int()
		if s.bad != nil {
			s.bad.noted = true
		}
	}
	from, target := s.current()
	fear := slices.ContainsFunc(m.Signs, horse.FearSign)
	dangerous := slices.ContainsFunc(m.WaysOut, horse.Dangerous)
	sameEvent := s.bad != nil && s.bad.danger
	s.felt(level, s.now)
	switch {
	case dangerous || m.Arousal.Noted() && level == 4 && !sameEvent:
		r := s.lastRep()
		s.danger(bad{danger: true, since: s.now, from: from, target: target, onEasy: s.easyNow(from), ridden: r != nil && r.ridden()})
	case m.Arousal.Noted() && level == 3 && s.bad == nil:
		s.overTheLine(bad{since: s.now, from: from, target: target, fear: fear}, len(s.log(from).reps))
	case s.bad != nil && fear:
		s.bad.fear = true
	}
}

func (s *session) look(ways []horse.WayOut, at int64) {
	if slices.ContainsFunc(ways, horse.Violent) && at >= s.halterAt {
		s.violent = true
	}
}

// current is the ask at work and its value.
func (s *session) current() (horse.Ask, int) {
	for _, chosen := range []*horse.Ask{s.asked, s.atWork} {
		if chosen != nil {
			step, _ := s.cat.Step(chosen.Step)
			return *chosen, s.startFor(*chosen, step)
		}
	}
	if n := len(s.reps); n > 0 {
		return s.reps[n-1].Ask, s.reps[n-1].Target
	}
	step, _ := s.cat.Step(s.in.Ask.Step)
	return s.in.Ask, s.startFor(s.in.Ask, step)
}
