package arena

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// releaseSize says how big the release of the last rep is (part 6): big once
// per ask and block.
func (s *session) releaseSize() horse.ReleaseSize {
	r := s.lastRep()
	log := s.log(r.Ask)
	if !r.counted || r.refused() {
		return horse.Small
	}
	if r.soft() && s.newFurthest(*r) {
		if s.bigGiven[r.Ask] {
			return horse.Medium
		}
		return horse.Big
	}
	before := 0
	if n := len(log.run); n > 0 {
		before = tail(log.run[:n-1], told.refused)
	}
	if before >= 3 || s.arousalBy >= 3 && s.arousal <= 1 {
		return horse.Medium
	}
	return horse.Small
}

// newFurthest reports whether the last rep is new furthest progress: an ask or
// a value never accepted before, in earlier sessions or in this one.
func (s *session) newFurthest(r told) bool {
	best, ever := 0, false
	if k, ok := s.known[r.Ask]; ok && k.Soft {
		best, ever = k.Value, true
	}
	for _, t := range s.reps[:len(s.reps)-1] {
		if t.Ask == r.Ask && t.counted && t.soft() {
			if !ever || t.step.Reaches(t.Target, best) {
				best = t.Target
			}
			ever = true
		}
	}
	return !ever || r.Target != best && r.step.Reaches(r.Target, best)
}

// restSeconds follows the release: 10, 30 or 120 s, longer while aroused.
func (s *session) restSeconds(size horse.ReleaseSize) int {
	rest := map[horse.ReleaseSize]int{horse.Small: 10, horse.Medium: 30, horse.Big: 120}[size]
	if s.arousal > 1 {
		rest += 30
	}
	return rest
}

type warning struct {
	name string
	look func(*session) (phrase.Args, bool)
	key  func(*session) string // of its words, where it is not the name
}

// warningsInOrder are those of part 6 that reps can show.
var warningsInOrder = []warning{
	{name: "wrong moment", look: warnWrong}, {name: "late", look: warnLate}, {name: "starts high", look: warnStartsHigh},
	{name: "sharp", look: warnSharp}, {name: "nagging", look: warnNagging, key: naggingKey},
	{name: "under-met", look: warnUnderMet}, {name: "over-met", look: warnOverMet}, {name: "one-sided", look: warnOneSided},
	{name: "fed while pushing", look: warnFed}, {name: "lick and chew alone", look: warnLick},
	{name: "warning look rewarded", look: warnLook}, {name: "trying too early", look: warnTooEarly},
	{name: "check the halter", look: warnHalter}, {name: "handler tight", look: warnTight},
	{name: "no firm levels", look: warnFirm}, {name: "time is up", look: warnOpen}, {name: "wrong slope", look: warnSlope},
	{name: "watched", look: warnWatched},
}

// naggingKey: at arousal 2 no clearer ask but a smaller step.
func naggingKey(s *session) string {
	if s.arousal >= 2 {
		return "nagging.smaller"
	}
	return "nagging"
}

func (s *session) warnings() []Fired {
	var fired []Fired
	for _, w := range warningsInOrder {
		if args, ok := w.look(s); ok {
			key := w.name
			if w.key != nil {
				key = w.key(s)
			}
			fired = append(fired, Fired{Rule: w.name, Why: phrase.Of("warn."+key, args)})
		}
	}
	return fired
}

// latest returns the last n reps, newest last, when the newest entry is a rep
// and there are as many.
func (s *session) latest(n int) ([]told, bool) {
	if !s.lastIsRep || len(s.reps) < n {
		return nil, false
	}
	return s.reps[len(s.reps)-n:], true
}

// warnWatched: an owner who is not cleared for the step holds the rope: the trainer
// watches, and it counts as watched (part 6, "Any ask can be logged").
func warnWatched(s *session) (phrase.Args, bool) {
	who := s.in.Handlers[s.handler]
	at, _ := s.current()
	return nil, who.Owner && s.cat.HasAsk(at) && !slices.Contains(who.Cleared, at.Step)
}

func warnWrong(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && r[0].wrong
}

func warnLate(s *session) (phrase.Args, bool) {
	if !s.lastIsRep {
		return nil, false
	}
	four := s.reps[max(len(s.reps)-4, 0):]
	late := 0
	for _, t := range four {
		late += btoi(t.IsLate())
	}
	return phrase.Args{"n": late, "of": len(four)}, late >= 2
}

func warnStartsHigh(s *session) (phrase.Args, bool) {
	r, ok := s.latest(2)
	return nil, ok && r[0].Start.Int() > 2 && r[1].Start.Int() > 2
}

func warnSharp(s *session) (phrase.Args, bool) {
	r, ok := s.latest(2)
	if !ok || r[1].Form == horse.Pulsed || !r[0].Peak.Noted() || !r[1].Peak.Noted() {
		return nil, false
	}
	return phrase.Args{"from": r[0].Peak.Int(), "to": r[1].Peak.Int()}, r[1].Peak.Int()-r[0].Peak.Int() >= 3
}

func warnNagging(s *session) (phrase.Args, bool) {
	r := s.lastRep()
	if !s.lastIsRep || r == nil {
		return nil, false
	}
	run := s.log(r.Ask).run
	if len(run) < 5 {
		return nil, false
	}
	five := run[len(run)-5:]
	firm := !slices.ContainsFunc(five, func(t told) bool { return t.Peak.Int() < 5 }) && five[4].Peak.Int() >= five[0].Peak.Int()
	if s.school == horse.WaitItOut { // it keeps one level on purpose
		return nil, false
	}
	pulsed := !slices.ContainsFunc(five, func(t told) bool { return t.Pulses.Int() < 5 }) && five[4].Pulses.Int() >= five[0].Pulses.Int()
	return phrase.Args{"to": min(r.Peak.Int()+2, s.ceiling(r.Handler))}, firm || pulsed
}

func warnUnderMet(s *session) (phrase.Args, bool) {
	r, ok := s.latest(2)
	under := func(t told) bool { return t.Brought.Noted() && t.Brought.Int()-t.Peak.Int() >= 2 }
	return nil, ok && under(r[0]) && under(r[1])
}

func warnOverMet(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && r[0].Brought.Int() >= 1 && r[0].Peak.Int()-r[0].Brought.Int() >= 4
}

func warnOneSided(s *session) (phrase.Args, bool) {
	r := s.lastRep()
	if r == nil || !s.lastIsRep || r.Variant.Side.IsZero() {
		return nil, false
	}
	other, ok := s.oppositeSide(r.Ask)
	if !ok {
		return nil, false
	}
	here, a := medianPeak(s.log(r.Ask).reps)
	there, b := medianPeak(s.log(other).reps)
	worse := r.Variant.Side
	if there > here {
		worse = other.Variant.Side
	}
	return phrase.Args{"side": phrase.Of("side."+worse.String(), nil)}, a && b && max(here-there, there-here) >= 3
}

func medianPeak(reps []told) (float64, bool) {
	var peaks []float64
	for _, t := range reps {
		if t.Peak.Noted() {
			peaks = append(peaks, float64(t.Peak.Int()))
		}
	}
	return horse.Median(peaks), len(peaks) >= 2
}

func warnFed(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && slices.Contains(r[0].Flags, horse.Fed) &&
		(r[0].Brought.Int() >= 1 || slices.Contains(r[0].WaysOut, horse.CrowdedIn) || slices.Contains(r[0].WaysOut, horse.Leaned))
}

func warnLick(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && slices.Contains(r[0].Signs, horse.LickAndChew) && !slices.ContainsFunc(r[0].Signs, horse.SoftSign)
}

func warnLook(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && slices.Contains(r[0].Signs, horse.WarningLook) && r[0].Release != horse.NotReleased && !s.in.Horse.GuardsItself
}

func warnTooEarly(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && r[0].step.Trailer && r[0].refused() && slices.Contains(r[0].WaysOut, horse.TurnedAway)
}

// refitMinutes is how long a halter stays as it is before it is looked at.
const refitMinutes = 10

func warnHalter(s *session) (phrase.Args, bool) {
	return nil, s.violent || s.now-s.halterAt >= refitMinutes*minute
}

func warnTight(s *session) (phrase.Args, bool) {
	return nil, s.in.Mind == horse.Tight && len(s.reps) == 0
}

// warnFirm holds part 9's rule for beginners.
func warnFirm(s *session) (phrase.Args, bool) {
	r, ok := s.latest(1)
	return nil, ok && s.in.Handlers[r[0].Handler].Beginner && r[0].Peak.Int() >= 7
}

// warnOpen reminds of a cap that waiting lets pass until a try is released.
func warnOpen(s *session) (phrase.Args, bool) {
	return nil, s.col.open && s.capPassed() && !s.tryReleased()
}

// warnSlope: the place is not lighter than away from it (relief place).
func warnSlope(s *session) (phrase.Args, bool) {
	return nil, s.school == horse.ReliefPlace && s.wrongSlope()
}
