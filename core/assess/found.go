package assess

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Input is what one problem of an assessment is judged from.
type Input struct {
	Today      string // YYYY-MM-DD
	Record     Record
	Assessment Assessment
	Problem    horse.Problem
	NeededBy   string // date needed, where the story has none
}

// Found is a finding with the best source it has.
type Found struct {
	Finding string       `json:"finding"`
	Source  horse.Source `json:"source"`
}

// finder gathers findings; the same one twice counts once, with its best
// source.
type finder struct {
	j    catalog.Judging
	in   Input
	best map[string]horse.Source
	took map[horse.Look]bool
}

// Findings lists what an assessment found of a problem, ticked or read from
// what was noted, in the handbook's order.
func Findings(j catalog.Judging, in Input) []Found {
	return find(j, in).found()
}

func (f finder) found() []Found {
	var list []Found
	for _, known := range f.j.Findings {
		if source, ok := f.best[known.Key]; ok {
			list = append(list, Found{known.Key, source})
		}
	}
	return list
}

func find(j catalog.Judging, in Input) finder {
	f := finder{j: j, in: in, best: map[string]horse.Source{}, took: map[horse.Look]bool{}}
	account := in.Assessment.Problems[in.Problem]
	for _, ticked := range []map[string]horse.Source{in.Assessment.Findings, account.Findings} {
		for key, source := range ticked {
			f.add(key, source)
		}
	}
	for _, looked := range []map[horse.Look]horse.Source{in.Assessment.Looked, account.Looked} {
		for look := range looked {
			f.took[look] = true
		}
	}
	f.story(account.Story)
	f.record()
	f.body()
	f.tack()
	f.first()
	f.basics()
	f.problem(account)
	return f
}

func (f finder) add(key string, source horse.Source) {
	known, ok := f.j.Finding(key)
	if !ok || source.IsZero() {
		return
	}
	f.took[known.Look] = true
	if now, twice := f.best[key]; !twice || f.j.Sources[source] > f.j.Sources[now] {
		f.best[key] = source
	}
}

// when adds a finding that a note makes, with the source of its section.
func (f finder) when(is bool, key string) {
	if known, ok := f.j.Finding(key); ok && is {
		f.add(key, f.in.Assessment.source(known.Look))
	}
}

func (f finder) story(s Story) {
	if !s.Began.IsZero() {
		f.took[horse.LookBegan] = true
	}
	began := s.Began.String()
	f.when(began == "suddenly", "began_suddenly")
	f.when(began == "after an event", "began_after_event")
	f.when(began == "after a change of tack or rider", "began_after_change")
	if len(s.Done) > 0 {
		f.took[horse.LookDone] = true
	}
	f.when(has(s.Done, "put away", "given a rest"), "put_away_or_rested")
	f.when(has(s.Done, "the person gives up"), "person_gives_up")
	f.when(has(s.Done, "got free by itself"), "got_free_by_itself")
}

// record reads the horse's record; a sex that is not written down was not
// looked at.
func (f finder) record() {
	r := f.in.Record
	if r.RiddenPast.String() == "unknown" {
		f.add("past_unknown", horse.OnRecord)
	}
	if !r.Sex.IsZero() {
		f.took[horse.LookHistory] = true
	}
	if r.risesOn(f.in.Today) > 0 {
		f.add("stallion_or_newly_gelded", horse.OnRecord)
	}
}

func (f finder) body() {
	a := f.in.Assessment
	relevant := f.j.RelevantTo(f.in.Problem)
	clear := len(relevant) > 0
	looked := len(relevant) > 0
	for _, item := range (horse.BodyItem{}).All() {
		state := a.BodyOf(item)
		bears := slices.Contains(relevant, item)
		f.when(ill(state) && bears, "body_suspect_relevant")
		f.when(ill(state) && !bears, "body_suspect_elsewhere")
		clear = clear && (!bears || fine(state))
		looked = looked && (!bears || state != horse.NotLookedAt)
	}
	f.when(clear, "body_relevant_clear")
	f.took[horse.LookBody] = looked // each item is looked at by itself
}

func (f finder) tack() {
	t := f.in.Assessment.Tack
	if !t.Bit.IsZero() || !t.Noseband.IsZero() || len(t.Aids) > 0 || !t.Saddle.IsZero() || !t.BitFit.IsZero() {
		f.took[horse.LookTack] = true
	}
	noseband := t.Noseband.String()
	f.when(noseband == "tight" || noseband == "crossed", "strong_noseband_or_bit")
	f.when(t.running(), "running_aid")
	f.when(t.Saddle == misfit || t.BitFit == misfit, "saddle_or_bit_misfit")
}

func (f finder) first() {
	l := f.in.Assessment.First
	if l.noted() {
		f.took[horse.LookHorse] = true
	}
	f.when(l.Mouth.String() == "gapes" || has(l.Contact, "grabs", "tosses"), "mouth_reaction_at_contact")
	f.when(l.Nose.String() == "poked out" && l.Head.String() == "high", "nose_poked_head_high")
	f.when(has(l.Turn, "dragged", "head tips in"), "dragged_turns")
	f.when(has(l.Attention, "home or herd"), "attention_home_or_herd")
	f.when(has(l.Mounting, "hollow", "ears back", "mouth open", "hind leg unweighted", "must be held"), "hollow_at_mounting")
	f.when(l.Leg.String() == "dull", "dull_needs_6")
	f.when(l.Leg.String() == "explodes", "explodes_from_1_2")
	for _, leg := range l.RiderLeg {
		f.when(leg.String() == "spur touching", "unintended_spur")
	}
}

func (f finder) basics() {
	a := f.in.Assessment
	if a.NotYet || slices.ContainsFunc(Tests(), func(t Test) bool {
		return slices.ContainsFunc(t.Asks(), func(k string) bool { return a.Basics[k].noted() })
	}) {
		f.took[horse.LookBasics] = true
	}
	switch missing := a.lacking(); {
	case missing >= 4 || a.NotYet:
		f.when(true, "basics_4_missing")
	case missing >= 2:
		f.when(true, "basics_2_missing")
	}
	f.when(!a.NotYet && a.allGood(), "all_basics_good")
	f.when(a.oneSideWorse(), "one_side_worse")
}

func (f finder) problem(account Account) {
	b := account.Baseline
	if b.Asked() {
		f.took[horse.LookProblem] = true
	}
	seconds := b.Recovery
	if seconds == nil {
		seconds = f.in.Assessment.Mind.Down
	}
	if seconds != nil {
		f.took[horse.LookRecovery] = true
		f.when(*seconds <= 60, "down_within_60")
		f.when(*seconds > 300, "down_after_300")
	}
	if swap := account.swap(); swap != nil {
		f.took[horse.LookSwap] = true
		f.swapped(swap.personUp, "swap_person_better", swap.onFilm[0])
		f.swapped(swap.tackUp, "swap_tack_better", swap.onFilm[1])
	}
}

// swapped adds what a swap shows. What stands on a clip is no more than seen on video.
func (f finder) swapped(is bool, key string, onFilm bool) {
	source := f.in.Assessment.source(horse.LookSwap)
	if onFilm && f.j.Sources[source] > f.j.Sources[horse.OnVideo] {
		source = horse.OnVideo
	}
	if is {
		f.add(key, source)
	}
}
