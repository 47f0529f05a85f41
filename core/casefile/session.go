package casefile

import (
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Begins is how a session of the case begins.
type Begins struct {
	Ask     horse.Ask
	School  horse.School
	Started int64 // ms
	Handler string
	Mind    horse.Mind
	Alone   bool
}

// Advice is what the advisor looks at in a session of the case; the track and
// the clock are the caller's. The file must have been read without that
// session.
func (f File) Advice(b Begins) arena.Input {
	in := arena.Input{
		School: b.School, Schools: f.schools(), Ask: b.Ask, Started: b.Started, Handler: b.Handler, Mind: b.Mind,
		Known: f.Known, Levels: f.Plan.Levels, Limits: assess.Limits(f.Assessment), Handlers: f.handlers(),
		Horse: arena.Horse{
			Young: f.in.Record.Young(f.in.Today), GuardsItself: f.in.Record.GuardsItself,
			FearLikely: f.mayBeAfraid(), BodyClear: f.Assessment.BodyClear(f.cat.Judging, f.in.Problem),
		},
	}
	for _, bl := range f.Blocks {
		in.Blocked = append(in.Blocked, bl.Step)
	}
	if b.Alone {
		in.Blocked = append(in.Blocked, f.bars()...)
	}
	return in
}

// schools are the ways the ladders are worked in: as planned, else the usual
// one.
func (f File) schools() map[string]horse.School {
	all := make(map[string]horse.School, len(f.cat.Ladders))
	for _, l := range f.cat.Ladders {
		all[l.Key] = l.Schools[0]
	}
	for _, w := range f.Plan.Ways {
		all[w.Ladder] = w.School
	}
	return all
}

// SchoolOf is the school in which a ladder is worked in the arena.
func (f File) SchoolOf(ladder string) horse.School { return f.schools()[ladder] }

// mayBeAfraid reports whether fear is likely or held up by its floor. Where
// too little was seen to say, a problem met over the line or never asked counts
// as likely: what was not looked at is not clear.
func (f File) mayBeAfraid() bool {
	base := f.Account().Baseline
	return f.Problem().Afraid(!base.Asked() || base.Arousal.Int() >= 3)
}

// bars lists the steps that close a bar, until the owner's own step is met
// with a second adult watching (part 9).
func (f File) bars() []string {
	if alone, ok := f.cat.Step("load.alone"); ok && f.met(alone) {
		return nil
	}
	var keys []string
	for _, l := range f.cat.Ladders {
		for _, s := range l.Steps {
			if s.Bars {
				keys = append(keys, s.Key)
			}
		}
	}
	return keys
}

// handlers tells of the owners who may hold the rope, and which steps have
// failed with each of them so far (part 6, rule 9).
func (f File) handlers() map[string]arena.Handler {
	all := make(map[string]arena.Handler, len(f.in.Owners))
	for _, id := range f.in.Owners {
		all[id] = arena.Handler{Owner: true, Beginner: f.Assessment.Main() == horse.Beginner}
	}
	type tally struct{ soft, refused bool }
	seen := map[string]map[string]tally{}
	for _, d := range f.in.Days {
		for _, b := range arena.Beads(f.cat, d, nil) {
			if _, owner := all[b.Handler]; !owner || !b.Counted {
				continue
			}
			if seen[b.Handler] == nil {
				seen[b.Handler] = map[string]tally{}
			}
			t := seen[b.Handler][b.Step]
			seen[b.Handler][b.Step] = tally{t.soft || horse.Soft(b.Graded), t.refused || b.Graded == horse.Refused}
		}
	}
	for id, steps := range seen {
		h := all[id]
		for step, t := range steps {
			if t.refused && !t.soft {
				h.Failed = append(h.Failed, step)
			}
		}
		slices.Sort(h.Failed)
		all[id] = h
	}
	return all
}

// OwnerHandles reports whether the owner may hold the rope: not at high care
// and more (part 9).
func (f File) OwnerHandles() bool { return f.Risk.Care.Rank() < horse.HighCare.Rank() }

// Gate says whether and where a session may begin: readiness (part 6), what
// the grade of care asks for (part 9), and the ask to begin with, empty when
// nothing may be asked. lead tells whether a lead trainer holds the rope.
func (f File) Gate(r arena.Readiness, lead bool) (arena.Gate, horse.Ask) {
	g := arena.Ready(r, f.DaysOff, f.Bumped)
	say := func(key string) { g.Reasons = append(g.Reasons, phrase.Of("gate."+key, nil)) }
	care := f.Risk.Care.Rank()
	if f.Risk.Care == horse.SpecialistOnly && !lead {
		g.May = false
		say("lead_only")
	}
	switch {
	case r.Alone && care >= horse.HighCare.Rank():
		g.May = false
		say("not_alone")
	case r.Alone && care == horse.ExtraCare.Rank():
		say("watcher")
	}
	if r.Alone && len(f.bars()) > 0 {
		say("bars")
	}
	wanted := f.wanted(g)
	if !r.Asked.IsZero() {
		wanted, g.Lower, g.Baseline = r.Asked, 0, false
	}
	return g, arena.Begin(f.cat, f.Advice(Begins{Ask: wanted, School: horse.BuildAndRelease, Alone: r.Alone}), g)
}

// wanted is where the work goes on; where the gate asks for lower, it counts
// from the last step met on that ladder.
func (f File) wanted(g arena.Gate) horse.Ask {
	next, ok := f.cat.Step(f.Plan.Next)
	if !ok {
		ladder, _ := f.cat.Ladder(f.in.Ladder)
		next = f.lastMet(ladder.Steps, ladder.Steps[0])
	}
	ladder, _ := f.cat.Ladder(next.Ladder)
	if g.Lower > 0 {
		next = f.lastMet(ladder.Steps[:next.Place+1], next)
	}
	for _, a := range next.Asks() {
		if !f.known(a).Passed() {
			return a
		}
	}
	return next.Asks()[0]
}

func (f File) lastMet(steps []catalog.Step, none catalog.Step) catalog.Step {
	for _, s := range slices.Backward(steps) {
		if s.Link == "" && f.met(s) {
			return s
		}
	}
	return none
}
