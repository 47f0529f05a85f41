package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// An Outcome is what a whole track came to, read once. Its reps are in their
// order; what nothing was noted of is not in it.
type Outcome struct {
	All    []track.Entry // the track, in its order
	Live   []track.Entry // what stands of it
	Reps   []Told
	Passed map[horse.Ask]int          // pass mark reached, at the highest level of its run
	Memory map[horse.Ask]horse.Answer // last answers of asks that were written down afterwards
	Bumped bool                       // a bump was not made good

	Concluded map[horse.Ask]bool // understood, since what stands on it was accepted early
}

// ReadDay reads a session's whole track after what was known before it. schools
// are those in which its ladders were worked; of a ladder that is not named it
// is build and release.
func ReadDay(c *catalog.Catalog, d track.Day, known []Known, schools map[string]horse.School) Outcome {
	all := slices.Clone(d.Track)
	track.Order(all)
	s := newSession(c, c.Rules, Input{Started: d.Started, Core: d.Core, Handler: d.Handler, Known: known, Schools: schools})
	out := Outcome{All: all, Live: track.Live(all)}
	for _, e := range out.Live {
		out.Reps = s.tell(out.Reps, e)
	}
	out.Passed, out.Memory, out.Bumped = s.passed, s.fromMemory, bumped(out.Live)
	out.Concluded = s.concluded
	return out
}

// Beads lists the live reps of a session with what was filled in.
func Beads(c *catalog.Catalog, d track.Day, known []Known, schools map[string]horse.School) []Told {
	return ReadDay(c, d, known, schools).Reps
}

// A Told rep is one rep of a session as the rules read it, for beads.
type Told struct {
	ID   string     `json:"id"`
	Kind track.Kind `json:"kind" doc:"of its entry"`
	track.Rep
	At      int64        `json:"at"`
	Graded  horse.Answer `json:"graded" doc:"the answer as the rules read it"`
	Calm    int          `json:"calm" doc:"arousal after, filled in"`
	N       int          `json:"n" doc:"number among the counted reps of the ask; 0: not counted"`
	Dip     bool         `json:"dip"`
	Name    string       `json:"name" doc:"the step's name, its ladder before it"`
	Counted bool         `json:"counted"`
	School  horse.School `json:"school" doc:"in which it was worked"`
	Good    bool         `json:"good" doc:"a success in that school: a soft answer, a quiet stand, a chosen rest, a released try, a yes"`
	Against Standing     `json:"against,omitzero" doc:"it was asked early, against a fact, or against a danger"`

	Passed bool `json:"-"` // with it the pass mark was reached, the first time that day
	Passes bool `json:"-"` // it counts towards the pass mark
	Hard   bool `json:"-"` // and was asked at the step's last value
	Poor   bool `json:"-"` // refused, or 3 levels above the pass level

	good uint8 // a bit for each school in which it is a success
}

// SuccessIn reports whether the rep is a success in a school, whichever it was
// worked in.
func (t Told) SuccessIn(school horse.School) bool { return t.good&(1<<school.Rank()) != 0 }

// slipAbove is how many levels above the pass level an answer is poor.
const slipAbove = 3

// Fair reports an answer that goes towards understanding: a try or better, at
// level 6 or less (part 5).
func (t Told) Fair() bool { return fair(t.Graded, t.Peak) }

func fair(answer horse.Answer, peak horse.Level) bool {
	return answer.Rank() >= horse.Try.Rank() && peak.Int() <= 6
}

// succeeds reports whether an answer is a success in a school (part 8).
func (t told) succeeds(school horse.School) bool {
	switch school {
	case horse.Doses:
		return t.quietStand()
	case horse.WaitItOut:
		return t.answer.Rank() >= horse.Try.Rank() && t.Release != horse.NotReleased
	case horse.ReliefPlace:
		return t.soft() || t.rested
	}
	return t.soft()
}

// successes has a bit for each school in which the rep is a success.
func (t told) successes() (bits uint8) {
	for _, school := range (horse.School{}).All() {
		if t.succeeds(school) {
			bits |= 1 << school.Rank()
		}
	}
	return bits
}

// tell takes in an entry and adds its rep, if it is one, to those told.
func (s *session) tell(told []Told, e track.Entry) []Told {
	before := len(s.passed)
	s.absorb(e)
	if _, ok := e.AsRep(s.cat); !ok {
		return told
	}
	t := s.lastRep()
	n := 0
	if t.counted {
		n = len(s.log(t.Ask).reps)
	}
	return append(told, Told{
		ID: e.ID, Kind: e.Kind, Rep: t.Rep, At: e.At, Graded: t.answer, Calm: t.arousal, N: n, Dip: s.dip(n), Name: t.step.FullName(), Counted: t.counted,
		School: s.school, Good: t.succeeds(s.school), Against: t.against.kind(),
		Passed: len(s.passed) > before, Passes: t.passes, Hard: t.step.Reaches(t.Target, t.step.Last()), Poor: t.refused() || t.Peak.Int() >= t.step.Pass.Level+slipAbove,
		good: t.successes(),
	})
}
