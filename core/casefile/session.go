package casefile

import (
	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Brief is all that the arena needs to know of the case; the file must have
// been read without the session that it is for.
func (f *File) Brief() arena.Brief {
	b := arena.Brief{
		Fitting: f.fit, Ladder: f.in.Ladder, Next: f.Plan().Next, Bars: f.bars(), Worked: f.LastWorked, Bumped: f.Bumped,
		Care: f.Risk.Care, Cycle: f.Cycle.Cycle, Core: arena.Version, Forbidden: f.Result.Forbidden,
		Input: arena.Input{
			Schools: f.Schools(), Known: f.Known, Levels: f.Plan().Levels, Limits: assess.Limits(f.cat, f.Assessment), Handlers: f.handlers(),
			Horse: arena.Horse{
				Young: f.in.Record.Young(f.in.Today), GuardsItself: f.in.Record.GuardsItself,
				FearLikely: f.mayBeAfraid(), BodyClear: f.Assessment.BodyClear(f.cat.Judging, f.in.Problem),
			},
		},
	}
	for _, bl := range f.Blocks {
		b.Input.Blocked = append(b.Input.Blocked, bl.Step)
	}
	return b
}

// Schools are the ways the ladders are worked in: as planned, else the usual
// one.
func (f *File) Schools() map[string]horse.School {
	all := make(map[string]horse.School, len(f.cat.Ladders))
	for _, l := range f.cat.Ladders {
		all[l.Key] = l.Schools[0]
	}
	for _, w := range f.Plan().Ways {
		all[w.Ladder] = w.School
	}
	return all
}

// SchoolOf is the school in which a ladder is worked in the arena.
func (f *File) SchoolOf(ladder string) horse.School { return f.Schools()[ladder] }

// mayBeAfraid reports whether fear is likely or held up by its floor. Where
// too little was seen to say, a problem met over the line or never asked counts
// as likely: what was not looked at is not clear.
func (f *File) mayBeAfraid() bool {
	base := f.Account().Baseline
	return f.Problem().Afraid(!base.Asked() || base.Arousal.Int() >= 3)
}

// bars lists the steps that close a bar, until the owner's own step is met
// with a second adult watching (part 9).
func (f *File) bars() []string {
	for _, alone := range f.cat.With(catalog.OwnerAlone) {
		if f.met(alone) {
			return nil
		}
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
func (f *File) handlers() map[string]arena.Handler {
	all := make(map[string]arena.Handler, len(f.in.Owners))
	for _, id := range f.in.Owners {
		all[id] = arena.Handler{Owner: true, Beginner: f.Assessment.Main() == horse.Beginner}
	}
	for id, h := range all {
		h.Failed = f.in.History.Failed(id)
		all[id] = h
	}
	return all
}

// OwnerHandles reports whether the owner may hold the rope: not at high care
// and more (part 9).
func (f *File) OwnerHandles() bool { return f.Risk.Care.Rank() < horse.HighCare.Rank() }
