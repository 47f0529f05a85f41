package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type standings struct{}

func (standings) Words() []string { return []string{"early", "forbidden", "closed"} }

// Standing is what kind of thing stands against an ask (part 6, "Any ask can be
// logged").
type Standing = horse.Word[standings]

// The kinds: it waits for other steps, which one tap passes over; a fact forbids
// it, or a danger has closed it for the session, which a lead trainer answers for.
var (
	Early     = horse.MustWord[standings]("early")
	Forbidden = horse.MustWord[standings]("forbidden")
	Closed    = horse.MustWord[standings]("closed")
)

// Against is what stands against an ask now. Nothing stops its being logged.
type Against struct {
	Kind  Standing        `json:"kind" doc:"early: one tap passes it over; forbidden and closed: a lead trainer answers for it"`
	Waits []string        `json:"waits,omitempty" doc:"names of the steps it waits for"`
	Why   phrase.Message  `json:"why" doc:"what stands against it, as a sentence"`
	Lifts *phrase.Message `json:"lifts,omitempty" doc:"what lifts it"`
}

func (a *Against) early() bool { return a != nil && a.Kind == Early }

// kind is the kind of what stood against an ask; zero: nothing did.
func (a *Against) kind() Standing {
	if a == nil {
		return Standing{}
	}
	return a.Kind
}

// Barred is why a step is blocked, and what lifts it.
type Barred struct {
	Why   phrase.Message `json:"why" doc:"as a sentence"`
	Lifts phrase.Message `json:"lifts" doc:"as a sentence"`
	Until []string       `json:"until,omitempty" doc:"keys of the steps that lift it once they are met, in the session too; empty: none does"`
}

// blocked reports whether a fact blocks a step now: one that steps of today lift is
// judged anew.
func (s *session) blocked(key string) bool {
	if !slices.Contains(s.in.Blocked, key) {
		return false
	}
	until := s.in.Barred[key].Until
	return len(until) == 0 || slices.ContainsFunc(until, func(key string) bool {
		step, _ := s.cat.Step(key)
		return slices.ContainsFunc(step.Asks(), func(a horse.Ask) bool { return !s.passedAsk(a, 0) })
	})
}

// waits lists the needs of an ask that are not met.
func (s *session) waits(a horse.Ask) []catalog.Need {
	return slices.DeleteFunc(s.cat.NeedsOf(a), s.has)
}

// forbids is the danger or the fact that speaks against a step, however it is asked:
// closed for the session, a body item, a rule for this horse or for today, a bar or
// a tie before the horse stands in by choice, or a ridden step whose needs are not
// met. nil: nothing does.
func (s *session) forbids(step catalog.Step) *Against {
	fact := func(key string) *Against { return &Against{Kind: Forbidden, Why: phrase.Of("against."+key, nil)} }
	switch {
	case s.closed[step.Key]:
		return &Against{Kind: Closed, Why: phrase.Of("against.closed", nil)}
	case s.blocked(step.Key):
		if b, ok := s.in.Barred[step.Key]; ok {
			return &Against{Kind: Forbidden, Why: b.Why, Lifts: &b.Lifts}
		}
		return fact("blocked")
	case step.Ridden && s.afoot:
		return fact("afoot")
	case s.barsTooSoon(step):
		return fact("bars")
	case step.Ridden && s.unready(step):
		names := s.waitsFor(step.Asks()[0])
		return &Against{Kind: Forbidden, Waits: names, Why: phrase.Of("against.ridden", phrase.Args{"steps": names})}
	}
	return nil
}

// unready reports whether a ridden step waits for something, each way it can be
// asked.
func (s *session) unready(step catalog.Step) bool {
	return !slices.ContainsFunc(step.Asks(), func(a horse.Ask) bool { return len(s.waits(a)) == 0 })
}

func (s *session) barsTooSoon(step catalog.Step) bool {
	if !step.Trailer || !step.Bars && !step.Tied {
		return false
	}
	for _, stands := range s.cat.With(catalog.StandsByChoice) {
		for _, a := range stands.Asks() {
			if !s.passedAsk(a, 0) {
				return true
			}
		}
	}
	return false
}

// waitsFor names the steps that an ask waits for, each once.
func (s *session) waitsFor(a horse.Ask) []string {
	var names []string
	for _, n := range s.waits(a) {
		if name := s.name(n.Step); !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	return names
}

// against is what stands against an ask; nil: nothing does.
func (s *session) against(a horse.Ask) *Against {
	step, ok := s.cat.Step(a.Step)
	if !ok {
		return nil
	}
	if by := s.forbids(step); by != nil {
		return by
	}
	names := s.waitsFor(a)
	if len(names) == 0 {
		return nil
	}
	return &Against{Kind: Early, Waits: names, Why: phrase.Of("against.early", phrase.Args{"steps": names})}
}

// early reports whether an ask waits for something that one tap passes over.
func (s *session) early(a horse.Ask) bool {
	return s.against(a).early()
}

// firstWaited is the first thing that an ask waits for: what has to come before all
// else that it skips.
func (s *session) firstWaited(a horse.Ask) (horse.Ask, bool) {
	skipped := s.skips(a)
	for _, b := range skipped {
		if !s.shut(b.Step) && !s.spoiltEasy[b] {
			return b, true
		}
	}
	return horse.Ask{}, false
}

// skips lists the asks that an ask passes over, each after what it stands on
// itself.
func (s *session) skips(a horse.Ask) []horse.Ask {
	var list []horse.Ask
	seen := map[horse.Ask]bool{a: true}
	var under func(a horse.Ask)
	under = func(a horse.Ask) {
		for _, n := range s.waits(a) {
			for _, b := range s.cat.AsksOf(n) {
				one := catalog.Need{Step: n.Step, Level: n.Level, Kept: n.Kept, Understood: n.Understood, Zone: b.Variant.Zone, Side: b.Variant.Side}
				if seen[b] || s.has(one) {
					continue
				}
				seen[b] = true
				under(b)
				list = append(list, b)
			}
		}
	}
	under(a)
	return list
}

// conclude counts what an ask skipped as understood, once it was accepted twice
// early (part 6); nobody saw it, and it is said so.
func (s *session) conclude(a horse.Ask) {
	s.earlyGood[a]++
	if s.earlyGood[a] < concludedAfter {
		return
	}
	for _, b := range s.skips(a) {
		if !s.known[b].Understood && !understood(s.repsOf(b)) {
			s.concluded[b] = true
		}
	}
}

// concludedAfter is how many accepted answers of an ask that was asked early make
// what it skipped understood.
const concludedAfter = 2
