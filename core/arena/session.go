package arena

import (
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// told is a rep as the rules read it: filled from what is known, graded as
// part 2 says, with its place in the count.
type told struct {
	Rep
	at      int64
	step    catalog.Step
	answer  horse.Answer
	arousal int
	counted bool
	wrong   bool
	n       int // its number among the counted reps of the ask
	passes  bool
}

func (t told) soft() bool    { return horse.Soft(t.answer) }
func (t told) refused() bool { return t.answer == horse.Refused }

// askLog is what one ask has seen in this session.
type askLog struct {
	reps    []told // counted
	run     []told // counted, since another step or another value was worked
	passRun int
}

// bad is a danger or an "over the line" that is not over yet.
type bad struct {
	danger bool
	fresh  bool // no entry since
	since  int64
	from   horse.Ask
	target int
	whole  bool // a whole step down, for the rest of the session
	onEasy bool
}

// session folds the track. It is built afresh for every call.
type session struct {
	cat   *catalog.Catalog
	rules catalog.HouseRules
	in    Input
	known map[horse.Ask]Known

	now       int64
	reps      []told
	logs      map[horse.Ask]*askLog
	lastIsRep bool
	workStep  string
	asked     *horse.Ask // chosen by hand, nothing logged on it yet
	arousal   int
	arousalBy int // arousal before the last rep

	dangers, overs int
	overAt         map[horse.Ask][]int // n of the entries at arousal 3
	bad            *bad
	closed         map[string]bool
	spoiltEasy     map[horse.Ask]bool
	downs          map[horse.Ask]int
	stay           map[horse.Ask]bool // stays at its start value
	passed         map[horse.Ask]int  // pass mark reached today, at this level
	size           horse.ReleaseSize  // of the last rep's release
	bigGiven       map[horse.Ask]bool
	wrongs         map[string]int

	easyMinutes, blockEasy int
	blockStart             int64
	blockLadder            string
	askEnded               bool
	finishing              int // reps logged when the easy known ask was first wanted, -1 none
	finishEasy             horse.Ask
	last                   decision

	stops          []horse.Stop
	over           string // rule that ended the session for good
	ended          bool
	incidentWanted bool
	halterAt       int64
	violent        bool
}

func newSession(c *catalog.Catalog, rules catalog.HouseRules, in Input) *session {
	s := &session{
		cat: c, rules: rules, in: in, known: map[horse.Ask]Known{}, now: in.Started, logs: map[horse.Ask]*askLog{},
		overAt: map[horse.Ask][]int{}, closed: map[string]bool{}, spoiltEasy: map[horse.Ask]bool{},
		downs: map[horse.Ask]int{}, stay: map[horse.Ask]bool{}, passed: map[horse.Ask]int{},
		bigGiven: map[horse.Ask]bool{}, wrongs: map[string]int{},
		blockStart: in.Started, halterAt: in.Started, finishing: -1,
		arousal: 1,
	}
	for _, k := range in.Known {
		s.known[k.Ask] = k
	}
	if in.Horse.Young {
		s.rules.BlockMinutes, s.rules.BlockCap, s.rules.SessionCap = rules.BlockMinutesYoung, rules.BlockCapYoung, rules.SessionCapYoung
	}
	return s
}

func (s *session) log(a horse.Ask) *askLog {
	l := s.logs[a]
	if l == nil {
		l = &askLog{}
		s.logs[a] = l
	}
	return l
}

// absorb takes in one live entry.
func (s *session) absorb(e Entry) {
	s.now = max(s.now, e.At)
	switch {
	case e.Kind == KindRep && e.Rep != nil:
		s.rep(s.fill(*e.Rep, s.now))
	case e.Kind == KindMark && e.Mark != nil:
		s.mark(*e.Mark)
	case e.Kind == KindEnd:
		s.ended = true
	}
}

// fill completes a rep from what is known and grades it (part 2).
func (s *session) fill(r Rep, at int64) told {
	step, _ := s.cat.Step(r.Step)
	if r.Variant.IsZero() && len(step.Variants) > 0 {
		r.Variant = s.variantFor(step, s.lastVariant())
	}
	if r.Handler == "" {
		r.Handler = s.in.Handler
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
	case s.arousal >= 3:
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
	t.passes = t.counted && s.meetsMark(t)
	return t
}

// clearedRear reports the lead trainer's mark on a rear that is a refusal and
// no danger (rule 2).
func (s *session) clearedRear(r Rep) bool {
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
	return t.Peak.Noted() || !onlyAnswer || t.answer == horse.Offered
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

// rep takes in a filled rep.
func (s *session) rep(t told) {
	taken := s.last.action == Down && t.Ask == s.last.ask && t.Target == s.last.target
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
	s.arousal = t.arousal
	s.asked, s.bad, s.lastIsRep = nil, nil, true
	s.reps = append(s.reps, t)
	s.look(t.WaysOut, t.at)
	s.judge(t, log)
	if t.counted && log.passRun >= t.step.Pass.Run && t.step.Reaches(t.Target, s.lastValue(t.step)) {
		s.pass(t, log)
	}
	s.size = s.releaseSize()
	if s.size == horse.Big {
		s.bigGiven[t.Ask] = true
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

// judge looks for danger and for arousal over the line (rules 2 and 3).
func (s *session) judge(t told, log *askLog) {
	b := bad{fresh: true, since: t.at, from: t.Ask, target: t.Target}
	switch {
	case s.dangerous(t, log):
		b.danger = true
		b.onEasy = s.finishing >= 0 && t.Ask == s.finishEasy
		s.danger(b)
	case t.arousal == 3:
		s.overs++
		seen := append(s.overAt[t.Ask], len(log.reps))
		s.overAt[t.Ask] = seen
		if k := len(seen); k > 1 && seen[k-1]-seen[k-2] < 4 {
			b.whole = true
		}
		s.bad = &b
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
func (s *session) mark(m Mark) {
	if s.bad != nil {
		s.bad.fresh = false
	}
	s.lastIsRep = false
	s.easyMinutes += m.EasyMinutes
	s.blockEasy += m.EasyMinutes
	if m.Halter {
		s.halterAt, s.violent = s.now, false
	}
	if m.Incident {
		s.incidentWanted = false
	}
	if !m.Stop.IsZero() {
		s.stops = append(s.stops, m.Stop)
	}
	if m.Ask != nil {
		a := *m.Ask
		s.asked = &a
		if s.arousal <= 1 {
			s.bad = nil // it is back, and the trainer has chosen
		}
		s.blockOf(a, s.now)
	}
	s.look(m.WaysOut, s.now)
	s.markArousal(m)
}

func (s *session) markArousal(m Mark) {
	level := s.arousal
	if m.Arousal.Noted() {
		level = m.Arousal.Int()
	}
	from, target := s.current()
	dangerous := slices.ContainsFunc(m.WaysOut, horse.Dangerous)
	sameEvent := s.bad != nil && s.bad.danger
	switch {
	case dangerous || m.Arousal.Noted() && level == 4 && !sameEvent:
		since := s.now
		if s.bad != nil && s.arousal >= 3 {
			since = s.bad.since
		}
		s.danger(bad{danger: true, fresh: true, since: since, from: from, target: target})
	case m.Arousal.Noted() && level == 3 && s.bad == nil:
		s.overs++
		s.bad = &bad{fresh: true, since: s.now, from: from, target: target}
	}
	s.arousal = level
}

func (s *session) look(ways []horse.WayOut, at int64) {
	if slices.ContainsFunc(ways, horse.Violent) && at >= s.halterAt {
		s.violent = true
	}
}

// current is the ask at work and its value.
func (s *session) current() (horse.Ask, int) {
	if s.asked != nil {
		step, _ := s.cat.Step(s.asked.Step)
		return *s.asked, s.startFor(*s.asked, step)
	}
	if n := len(s.reps); n > 0 {
		return s.reps[n-1].Ask, s.reps[n-1].Target
	}
	step, _ := s.cat.Step(s.in.Ask.Step)
	return s.in.Ask, s.startFor(s.in.Ask, step)
}

// block begins a new block on another ladder, or after an ask was ended; the
// easy known ask that finishes one belongs to it.
func (s *session) block(t told) {
	if s.finishing >= 0 && t.Ask == s.finishEasy {
		return
	}
	s.blockOf(t.Ask, t.at-int64(t.Seconds*1000))
}

func (s *session) blockOf(a horse.Ask, at int64) {
	step, _ := s.cat.Step(a.Step)
	ended := s.askEnded && (len(s.reps) == 0 || a != s.reps[len(s.reps)-1].Ask)
	if s.blockLadder != "" && s.blockLadder == step.Ladder && !ended {
		return
	}
	if s.blockLadder != "" {
		s.blockStart, s.blockEasy = max(at, s.blockStart), 0
	}
	s.blockLadder, s.askEnded, s.finishing = step.Ladder, false, -1
	s.bigGiven = map[horse.Ask]bool{}
}

// note keeps what later decisions need of a decision that was just made.
func (s *session) note(d decision) {
	s.last = d
	switch {
	case d.action == EndSession && slices.Contains([]string{"1", "2", "3"}, d.rule):
		s.over = d.rule
	case d.action == EndAsk || d.action == ChangeAsk:
		s.askEnded = true
	default:
		s.askEnded = false
	}
	if d.easy != nil && s.finishing < 0 {
		s.finishing, s.finishEasy = len(s.reps), *d.easy
	}
}

// tookDown counts a down that was taken; after the second from one ask the
// horse stays on the lower one for the session.
func (s *session) tookDown(d decision) {
	s.downs[d.from]++
	if s.downs[d.from] < 2 && !d.whole {
		return
	}
	if d.ask == d.from {
		s.stay[d.from] = true
		return
	}
	s.close(d.from.Step)
}

func (s *session) schooling() float64 {
	return float64(s.now-s.in.Started)/60000 - float64(s.easyMinutes)
}

func (s *session) blockMinutes() float64 {
	return float64(s.now-s.blockStart)/60000 - float64(s.blockEasy)
}

// repSeconds is the median time from rep to rep in this session; the house
// rule's while there are under 4 reps.
func (s *session) repSeconds() float64 {
	if len(s.reps) < 4 {
		return float64(s.rules.RepSeconds)
	}
	gaps := make([]float64, 0, len(s.reps))
	for i := 1; i < len(s.reps); i++ {
		gaps = append(gaps, float64(s.reps[i].at-s.reps[i-1].at)/1000)
	}
	return median(gaps)
}

func median(v []float64) float64 {
	slices.Sort(v)
	n := len(v)
	if n == 0 {
		return 0
	}
	if n%2 == 1 {
		return v[n/2]
	}
	return (v[n/2-1] + v[n/2]) / 2
}

func (s *session) dip(n int) bool {
	m := n % s.rules.Cycle
	return n > 0 && (m == s.rules.Cycle-1 || m == 0)
}

func (s *session) numbers() Numbers {
	a, _ := s.current()
	step, _ := s.cat.Step(a.Step)
	log := s.log(a)
	n := len(log.reps)
	return Numbers{
		N: n, Cycle: s.rules.Cycle, Dip: s.dip(n), PassRun: log.passRun, PassNeeds: step.Pass.Run, PassLevel: s.passLevel(step),
		BlockMinutes: s.blockMinutes(), BlockEnds: s.rules.BlockMinutes,
		SessionMinutes: s.schooling(), SessionCap: s.rules.SessionCap, RepSeconds: s.repSeconds(), Arousal: s.arousal,
	}
}

func keyOf(a Action) string { return strings.ReplaceAll(a.String(), " ", "_") }

func askName(step catalog.Step, a horse.Ask) phrase.Message {
	if a.Variant.IsZero() {
		return phrase.Of("ask", phrase.Args{"step": step.Name})
	}
	return phrase.Of("ask.variant", phrase.Args{"step": step.Name, "variant": variantName(a.Variant)})
}

func variantName(v horse.Variant) phrase.Message {
	if !v.Side.IsZero() && v.Zone.IsZero() && v.Direction.IsZero() && v.Foot.IsZero() {
		return phrase.Of("side."+v.Side.String(), nil)
	}
	return phrase.Of("variant", phrase.Args{"words": phrase.Sided(v.String())})
}

func targetText(step catalog.Step, v int) phrase.Message {
	if v == 0 {
		return phrase.Of("target.none", nil)
	}
	if step.Pass.Unit == "mm" {
		return phrase.Of("target.mm", phrase.Args{"n": float64(v) / 1000})
	}
	unit := step.Pass.Unit
	if unit == "" {
		unit = "times"
	}
	return phrase.Of("target."+unit, phrase.Args{"n": v})
}
