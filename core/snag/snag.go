// Package snag says what stops the work of a case now, and the act that lifts it:
// what is forbidden, what a fact bars, which foundation is missing under the
// plank that waits, who is not cleared, and what nobody looked at (parts 3, 7
// and 9).
package snag

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/judging"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

type kinds struct{}

func (kinds) Words() []string {
	return []string{"forbidden", "barred", "unanswered", "foundation", "clearance", "unlooked"}
}

// Kind is what kind of gap it is, and how it is drawn.
type Kind = horse.Word[kinds]

// The kinds, the gravest first.
var (
	Forbidden  = horse.MustWord[kinds]("forbidden")
	Barred     = horse.MustWord[kinds]("barred")
	Unanswered = horse.MustWord[kinds]("unanswered")
	Foundation = horse.MustWord[kinds]("foundation")
	Clearance  = horse.MustWord[kinds]("clearance")
	Unlooked   = horse.MustWord[kinds]("unlooked")
)

type acts struct{}

func (acts) Words() []string { return []string{"look", "result", "letter", "arena", "clear"} }

// Act is what lifts a snag, where something in the product does.
type Act = horse.Word[acts]

var (
	toLook   = horse.MustWord[acts]("look")
	toResult = horse.MustWord[acts]("result")
	toWrite  = horse.MustWord[acts]("letter")
	toWork   = horse.MustWord[acts]("arena")
	toClear  = horse.MustWord[acts]("clear")
	sectionB = "B"
)

// A Snag is one thing that stops the work.
type Snag struct {
	Kind Kind            `json:"kind" doc:"what kind of gap"`
	What phrase.Message  `json:"what" doc:"the gap in a few words"`
	Fact phrase.Message  `json:"fact" doc:"the fact behind it"`
	Does *phrase.Message `json:"does,omitempty" doc:"the act that lifts it; absent: nothing does here"`
	Act  Act             `json:"act,omitzero" doc:"where that act is done"`
	Of   string          `json:"of,omitempty" doc:"of the act: a section of the assessment, a referral, or a step"`
}

// Facts are what is looked at.
type Facts struct {
	Judged  *judging.Judged
	Plan    plan.Plan
	Owners  bool // somebody could be cleared
	Cleared []clearance.State
	Held    []phrase.Message // why nobody can be
	Today   string           // YYYY-MM-DD
}

// Of lists what stops the work, the gravest first.
func Of(f Facts) []Snag {
	if f.Judged.Assessed == "" {
		return []Snag{of(Unlooked, "assessed", nil).with(toLook, "A", "begin")}
	}
	list := []Snag{}
	fact := phrase.Of("snag.forbidden", nil)
	if until := f.Judged.Result.Gate.Until; len(until) > 0 {
		fact = until[0]
	}
	for _, m := range f.Judged.Result.Forbidden {
		list = append(list, Snag{Kind: Forbidden, What: m, Fact: fact}.with(toResult, "", "result"))
	}
	list = append(list, f.barred()...)
	for _, r := range f.Judged.Result.Referrals {
		if r.Done {
			continue
		}
		s := Snag{Kind: Unanswered, What: phrase.Of("snag.referral", phrase.Args{"who": r.Who, "due": phrase.Date(r.Due)}), Fact: r.Why}
		if !r.Item.IsZero() {
			s.Fact = phrase.Of("snag.referral.item", phrase.Args{"item": assess.Named(r.Item)})
		}
		list = append(list, s.with(toWrite, r.Key, "letter"))
	}
	list = append(list, f.foundation()...)
	list = append(list, f.clearing()...)
	return append(list, f.unlooked()...)
}

func of(kind Kind, key string, args phrase.Args) Snag {
	return Snag{Kind: kind, What: phrase.Of("snag."+key, args), Fact: phrase.Of("snag."+key+".fact", args)}
}

func (s Snag) with(act Act, of, does string) Snag {
	say := phrase.Of("snag.does."+does, nil)
	s.Act, s.Of, s.Does = act, of, &say
	return s
}

// barred tells each reason that bars planned steps once, with what lifts it.
func (f Facts) barred() []Snag {
	var list []Snag
	var told []string
	for _, i := range f.Plan.Items {
		if i.Blocked == nil || slices.Contains(told, i.Blocked.Key+i.Lifts.Key+f.itemOf(i.Step)) {
			continue
		}
		told = append(told, i.Blocked.Key+i.Lifts.Key+f.itemOf(i.Step))
		held := 0
		for _, o := range f.Plan.Items {
			if o.Blocked != nil && o.Blocked.Key == i.Blocked.Key && f.itemOf(o.Step) == f.itemOf(i.Step) {
				held++
			}
		}
		step := assess.NameOf(f.Judged.Catalog, i.Step)
		s := Snag{Kind: Barred, What: phrase.Of("snag.barred", phrase.Args{"n": held, "first": step, "why": *i.Blocked}), Fact: *i.Lifts}
		if i.Blocked.Key == "block.ridden.seen" {
			s = s.with(toLook, "D2", "look")
		}
		list = append(list, s)
	}
	return list
}

// itemOf is the part of the body that blocks a step; empty: something else does.
func (f Facts) itemOf(step string) string {
	for _, b := range f.Judged.Blocks {
		if b.Step == step {
			return b.Item.String()
		}
	}
	return ""
}

// foundation is the foundation that the first waiting plank stands on and that is
// not met: on it the work goes on.
func (f Facts) foundation() []Snag {
	for _, i := range f.Plan.Items {
		way := slices.IndexFunc(f.Plan.Ways, func(w plan.Way) bool { return w.Ladder == i.Ladder })
		if i.Met || i.Seen || i.Blocked != nil || way < 0 || f.Plan.Ways[way].Kind == catalog.Foundation {
			continue
		}
		missing := f.missing(i)
		if len(missing) == 0 {
			return nil // it is worked now, or waits for a plank before it
		}
		first := missing[0]
		args := phrase.Args{"step": assess.NameOf(f.Judged.Catalog, first), "plank": assess.NameOf(f.Judged.Catalog, i.Step), "n": len(missing)}
		s := of(Foundation, "foundation", args)
		if len(missing) > 1 {
			s.Fact = phrase.Of("snag.foundation.more", args)
		}
		return []Snag{s.with(toWork, first, "work")}
	}
	return nil
}

// missing lists the steps of foundations that an item waits for.
func (f Facts) missing(i plan.Item) []string {
	var keys []string
	for _, n := range f.Judged.Catalog.Under(i.Step) {
		step, _ := f.Judged.Catalog.Step(n.Step)
		ladder, _ := f.Judged.Catalog.Ladder(step.Ladder)
		open := slices.ContainsFunc(f.Plan.Items, func(o plan.Item) bool { return o.Step == n.Step && !o.Met })
		if ladder.Kind == catalog.Foundation && open && !slices.Contains(keys, n.Step) {
			keys = append(keys, n.Step)
		}
	}
	return keys
}

// clearing says why no owner does anything between the visits: nobody may, or
// nobody is cleared yet. It tells how far the nearest one is.
func (f Facts) clearing() []Snag {
	if !f.Owners || slices.ContainsFunc(f.Cleared, func(s clearance.State) bool { return s.Cleared }) {
		return nil
	}
	if len(f.Held) > 0 {
		s := of(Clearance, "held", nil)
		s.Fact = f.Held[0]
		return []Snag{s}
	}
	if len(f.Cleared) == 0 {
		return nil // nothing is met that could be cleared
	}
	nearest := f.Cleared[0]
	for _, s := range f.Cleared {
		if near(s) > near(nearest) {
			nearest = s
		}
	}
	args := phrase.Args{"step": assess.NameOf(f.Judged.Catalog, nearest.Step), "n": nearest.Watched, "of": clearance.WatchedRun}
	key := "clearance"
	if near(nearest) > 0 {
		key = "clearance.near"
	}
	return []Snag{of(Clearance, key, args).with(toClear, nearest.Step, "clear")}
}

// near orders states by how little is missing.
func near(s clearance.State) int {
	n := s.Watched
	if s.Rehearsed {
		n += clearance.WatchedRun
	}
	return n
}

// unlooked names what bears on the problem and nobody looked at.
func (f Facts) unlooked() []Snag {
	items := assess.Names(f.Judged.Assessment.UnlookedBody(f.Judged.Catalog.Judging, f.Judged.Problem().Problem))
	if len(items) == 0 {
		return nil
	}
	return []Snag{of(Unlooked, "unlooked", phrase.Args{"items": items}).with(toLook, sectionB, "look")}
}
