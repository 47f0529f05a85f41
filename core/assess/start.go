package assess

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Start is the step a problem ladder begins at: the one after the last of an
// unbroken run of accepted steps, one lower if arousal at baseline was 2, two
// lower if 3 or 4; never a blocked one (part 3). Where none is open it is the
// last foundation the ladder stands on, and for a horse that can't be caught
// or haltered the pole.
func Start(c *catalog.Catalog, ladder string, a Assessment, base Baseline, inHand bool) (string, bool) {
	l, ok := c.Ladder(ladder)
	if !ok {
		return "", false
	}
	if touch := c.With(catalog.FirstTouch); a.NotYet && len(touch) > 0 {
		return touch[0].Key, true
	}
	at := 0
	if step, ok := c.Step(base.Reached); ok && step.Ladder == ladder {
		at = min(step.Place+1, len(l.Steps)-1)
	}
	at -= base.lowers()
	blocked := map[string]bool{}
	for _, b := range Blocks(c, a) {
		blocked[b.Step] = true
	}
	for at = max(at, 0); at >= 0; at-- {
		s := l.Steps[at]
		weight := s.Ridden || s.Is(catalog.BearsWeight)
		if !blocked[s.Key] && s.Link == "" && (!s.Ridden || a.mayRide()) && !(inHand && weight) {
			return s.Key, true
		}
	}
	if n := len(l.StandsOn); n > 0 {
		return l.StandsOn[n-1].Step, true
	}
	return "", false
}

// First lists what comes before the problem ladder: the missing basics in
// ladder order, and what step-outs from zone 3 add before any ridden step.
func First(c *catalog.Catalog, a Assessment) []horse.Ask {
	var asks []horse.Ask
	if a.NotYet {
		for _, s := range c.With(catalog.FirstTouch) {
			asks = append(asks, horse.Ask{Step: s.Key})
		}
	}
	for _, key := range a.Missing(c) {
		asks = append(asks, horse.Ask{Step: key})
	}
	for _, side := range (horse.Side{}).All() {
		if a.stepOuts(side) >= 3 {
			for _, s := range c.With(catalog.BeforeMounting) {
				asks = append(asks, horse.Ask{Step: s.Key, Variant: horse.Variant{Side: side}})
			}
		}
	}
	return asks
}

// School is the way of working that fits, with the reason.
type School struct {
	School horse.School   `json:"school" doc:"which"`
	Why    phrase.Message `json:"why" doc:"the reason as a sentence"`
	Owner  bool           `json:"owner_waits,omitempty" doc:"the owner does not handle yet"`
}

// Against is what speaks against a school with a horse now: its "avoid when" of
// part 4.
type Against struct {
	Arousal    int // at baseline
	Sore       bool
	Unsteady   bool // the main handler's hands
	FearLikely bool // or held up by its floor
	Frightened bool // it shook, left or froze at the thing
	Throws     bool // arousal 4 at baseline, or went over backwards
	Pushy      bool // crowded in, or bit
	Fit        bool // a horse of high energy
	DaysToDate int  // until the date needed; negative: none
}

// nearDeadline is how many days before a date there is no time to ask and
// listen.
const nearDeadline = 21

// Of tells what speaks against a school.
func (f Against) Of(s horse.School) []phrase.Message {
	why := []phrase.Message{}
	add := func(holds bool, key string) {
		if holds {
			why = append(why, phrase.Of("avoid."+key, nil))
		}
	}
	switch s {
	case horse.BuildAndRelease:
		add(f.Arousal >= 3, "arousal")
		add(f.Sore, "sore")
		add(f.Unsteady, "unsteady")
	case horse.ReliefPlace:
		add(f.Fit, "fit")
		add(f.FearLikely, "afraid")
	case horse.WaitItOut:
		add(f.FearLikely || f.Frightened, "fear")
		add(f.Throws, "throws")
	case horse.AskAndListen:
		add(f.Pushy, "pushy")
		add(f.DaysToDate >= 0 && f.DaysToDate < nearDeadline, "deadline")
	}
	return why
}

// SchoolFor chooses the school of a ladder: the first rule of part 3 that fits;
// of several schools the one the ladder names first. One with something against
// it gives way while another fits.
func SchoolFor(l catalog.Ladder, in Input, causes []Cause, risk Risk, f Against) School {
	a := in.Assessment
	is := func(c horse.Cause, b ...Belief) bool {
		return slices.ContainsFunc(causes, func(one Cause) bool { return one.Cause == c && slices.Contains(b, one.Belief) })
	}
	school := func(s horse.School, why string) School {
		return School{School: s, Why: phrase.Of("school."+why, phrase.Args{"school": s.String()})}
	}
	if risk.Points >= 6 || risk.Care.Rank() >= horse.HighCare.Rank() || a.Mind.warns() && !in.Record.GuardsItself {
		s := school(horse.Doses, "danger")
		s.Owner = true
		return s
	}
	open := slices.DeleteFunc(slices.Clone(l.Schools), func(s horse.School) bool {
		firm := s == horse.BuildAndRelease || s == horse.WaitItOut
		return f.Sore && firm || s == horse.WaitItOut && (f.Frightened || f.Throws)
	})
	fits := func(list ...horse.School) (horse.School, bool) {
		i := slices.IndexFunc(list, func(s horse.School) bool { return len(f.Of(s)) == 0 })
		if i < 0 {
			return horse.School{}, false
		}
		return list[i], true
	}
	named := func(list ...horse.School) []horse.School {
		return slices.DeleteFunc(slices.Clone(open), func(s horse.School) bool { return !slices.Contains(list, s) })
	}
	switch {
	case f.FearLikely:
		if s, ok := fits(named(horse.AskAndListen)...); ok {
			return school(s, "fear")
		}
		return school(horse.Doses, "fear")
	case is(horse.Attachment, likely):
		if s, ok := fits(named(horse.ReliefPlace)...); ok {
			return school(s, "attachment")
		}
	case (is(horse.LearnedOut, likely) || is(horse.Dulled, likely)) && is(horse.Fear, unlikely):
		if s, ok := fits(named(horse.BuildAndRelease, horse.WaitItOut)...); ok {
			return school(s, "learned")
		}
	}
	why := "usual"
	switch {
	case len(open) == 0 && f.Sore:
		return school(horse.Doses, "sore_none")
	case len(open) == 0:
		return school(horse.Doses, "none_left")
	case f.Sore:
		why = "sore"
	}
	s, ok := fits(open...)
	switch {
	case !ok:
		s = open[0]
	case s != l.Schools[0] && why == "usual":
		why = "instead"
	}
	return school(s, why)
}
