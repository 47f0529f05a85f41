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
func Start(c *catalog.Catalog, ladder string, a Assessment, base Baseline) (string, bool) {
	l, ok := c.Ladder(ladder)
	if !ok {
		return "", false
	}
	if _, there := c.Step(poleStep); a.NotYet && there {
		return poleStep, true
	}
	at := 0
	if step, ok := c.Step(base.Reached); ok && step.Ladder == ladder {
		at = min(step.Place+1, len(l.Steps)-1)
	}
	switch arousal := base.Arousal.Int(); {
	case arousal >= 3:
		at -= 2
	case arousal == 2:
		at--
	}
	blocked := map[string]bool{}
	for _, b := range Blocks(c, a) {
		blocked[b.Step] = true
	}
	for at = max(at, 0); at >= 0; at-- {
		if s := l.Steps[at]; !blocked[s.Key] && s.Link == "" && (!s.Ridden || a.mayRide()) {
			return s.Key, true
		}
	}
	if n := len(l.StandsOn); n > 0 {
		return l.StandsOn[n-1].Step, true
	}
	return "", false
}

const poleStep = "wild.pole"

// First lists what comes before the problem ladder: the missing basics in
// ladder order, and what step-outs from zone 3 add before any ridden step.
func First(a Assessment) []horse.Ask {
	var asks []horse.Ask
	if a.NotYet {
		asks = append(asks, horse.Ask{Step: poleStep})
	}
	for _, key := range a.Missing() {
		asks = append(asks, horse.Ask{Step: key})
	}
	for _, side := range (horse.Side{}).All() {
		if a.stepOuts(side) >= 3 {
			for _, step := range []string{"zones.over", "saddle.pad"} {
				asks = append(asks, horse.Ask{Step: step, Variant: horse.Variant{Side: side}})
			}
		}
	}
	return asks
}

// School is the way of working that fits, with the reason.
type School struct {
	School horse.School   `json:"school"`
	Why    phrase.Message `json:"why"`
	Owner  bool           `json:"owner_waits,omitempty" doc:"the owner does not handle yet"`
}

// SchoolFor chooses the school of a ladder: the first rule of part 3 that fits;
// of several schools the one the ladder names first.
func SchoolFor(l catalog.Ladder, in Input, causes []Cause, risk Risk, relevant []horse.BodyItem) School {
	a := in.Assessment
	is := func(c horse.Cause, b ...Belief) bool {
		return slices.ContainsFunc(causes, func(one Cause) bool { return one.Cause == c && slices.Contains(b, one.Belief) })
	}
	fearHeld := slices.ContainsFunc(causes, func(c Cause) bool { return c.Cause == horse.Fear && c.Bound != nil })
	school := func(s horse.School, why string) School {
		return School{School: s, Why: phrase.Of("school."+why, phrase.Args{"school": s.String()})}
	}
	if risk.Points >= 6 || risk.Care.Rank() >= horse.HighCare.Rank() || a.Mind.warns() && !in.Record.GuardsItself {
		s := school(horse.Doses, "danger")
		s.Owner = true
		return s
	}
	sore := is(horse.Body, likely) || slices.ContainsFunc(relevant, func(i horse.BodyItem) bool { return ill(a.BodyOf(i)) })
	open := slices.Clone(l.Schools)
	if sore {
		open = slices.DeleteFunc(open, func(s horse.School) bool { return s == horse.BuildAndRelease || s == horse.WaitItOut })
	}
	named := func(s horse.School) bool { return slices.Contains(open, s) }
	switch {
	case is(horse.Fear, likely) || fearHeld:
		if named(horse.AskAndListen) {
			return school(horse.AskAndListen, "fear")
		}
		return school(horse.Doses, "fear")
	case is(horse.Attachment, likely):
		return school(horse.ReliefPlace, "attachment")
	case is(horse.LearnedOut, likely) || is(horse.Dulled, likely):
		if i := slices.IndexFunc(open, func(s horse.School) bool { return s == horse.BuildAndRelease || s == horse.WaitItOut }); i >= 0 && is(horse.Fear, unlikely) {
			return school(open[i], "learned")
		}
	}
	if len(open) == 0 {
		return school(horse.Doses, "sore_none")
	}
	if sore {
		return school(open[0], "sore")
	}
	return school(open[0], "usual")
}
