package arena

import (
	"maps"
	"slices"

	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// rungs are how far each ask has come: what was known before the session, what
// was answered and passed today, and what is closed or stays low for it.
type rungs struct {
	known      map[horse.Ask]Known
	logs       map[horse.Ask]*askLog
	passed     map[horse.Ask]int          // pass mark reached today, at this level
	fromMemory map[horse.Ask]horse.Answer // last answers of asks that were written down afterwards
	closed     map[string]bool            // steps, for the session
	answered   map[string]track.Despite   // steps that a lead trainer answers for
	whys       map[string]string          // why a step was asked although it waited for something
	worked     map[string]horse.School    // by ladder, the school that was chosen in the session
	earlyGood  map[horse.Ask]int          // accepted, although it waited for something
	concluded  map[horse.Ask]bool         // understood, since a later step was accepted
	spoiltEasy map[horse.Ask]bool         // easy asks that were dangerous
	timed      map[horse.Ask]gait.Result  // how it went, by the taps or by eye; the newest
	downs      map[horse.Ask]int
	stay       map[horse.Ask]bool // stays at its start value
}

// askLog is what one ask has seen in this session.
type askLog struct {
	reps    []told // counted
	run     []told // counted, since another step or another value was worked
	passRun int
}

func (r *rungs) log(a horse.Ask) *askLog {
	l := r.logs[a]
	if l == nil {
		l = &askLog{}
		r.logs[a] = l
	}
	return l
}

// repsOf are the counted reps of an ask; none of one that was not worked.
func (r *rungs) repsOf(a horse.Ask) []told {
	if l := r.logs[a]; l != nil {
		return l.reps
	}
	return nil
}

func (r *rungs) clone() rungs {
	c := *r
	c.logs = make(map[horse.Ask]*askLog, len(r.logs))
	for a, l := range r.logs {
		c.logs[a] = &askLog{reps: slices.Clip(l.reps), run: slices.Clip(l.run), passRun: l.passRun}
	}
	c.passed, c.fromMemory, c.closed = maps.Clone(r.passed), maps.Clone(r.fromMemory), maps.Clone(r.closed)
	c.whys, c.worked, c.timed = maps.Clone(r.whys), maps.Clone(r.worked), maps.Clone(r.timed)
	c.answered, c.earlyGood, c.concluded = maps.Clone(r.answered), maps.Clone(r.earlyGood), maps.Clone(r.concluded)
	c.spoiltEasy, c.downs, c.stay = maps.Clone(r.spoiltEasy), maps.Clone(r.downs), maps.Clone(r.stay)
	return c
}
