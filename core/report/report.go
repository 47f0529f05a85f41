// Package report writes the page an owner reads after a visit (part 8), as a
// document of sections and sentences with their evidence, not as HTML. A
// sentence keeps its id over a refresh, so that the trainer's own wording
// survives it and is marked where its numbers have changed since.
package report

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"slices"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
)

// Input is what one visit's report is written from.
type Input struct {
	Catalog    *catalog.Catalog
	Horse      string
	Sex        string // for he, she or it
	Ladder     string
	Goal       string
	NeededBy   string
	Story      assess.Story
	Judged     *assess.ProblemResult // what an assessment new since the last visit makes of the problem
	Basis      assess.Basis          // what that stands on
	Referrals  []assess.Referral
	Care       horse.Care
	Visit      arena.Visit // states before and after
	Beads      []arena.Told
	First      []arena.Told // the first session's, when this is a later one
	Bridge     progress.Bridge
	Next       string // step the work goes on with
	Dangers    []string
	Ended      string // how it ended, in the trainer's words
	FirstVisit bool
}

// A Sentence of the report.
type Sentence struct {
	ID      string         `json:"id"`
	Said    phrase.Message `json:"said" doc:"as the product says it"`
	Basis   string         `json:"basis" doc:"fingerprint of its numbers"`
	Edited  string         `json:"edited,omitempty" doc:"the trainer's own wording"`
	Changed bool           `json:"changed,omitempty" doc:"its numbers have changed since it was edited"`
	Left    bool           `json:"left_out,omitempty"`
}

// A Section of the report.
type Section struct {
	Key       string         `json:"key"`
	Title     phrase.Message `json:"title"`
	Sentences []Sentence     `json:"sentences"`
}

// A Figure is a number against the first day, with what it means.
type Figure struct {
	Label  phrase.Message `json:"label"`
	Before phrase.Message `json:"before"`
	After  phrase.Message `json:"after"`
	Means  phrase.Message `json:"means"`
}

// A Document is one visit's report.
type Document struct {
	Sections []Section       `json:"sections"`
	Figures  []Figure        `json:"figures"`
	Bridge   progress.Bridge `json:"bridge"`
}

// An Edit is the trainer's wording of a sentence, with the numbers it was
// written on.
type Edit struct {
	Text  string `json:"text" maxLength:"1000"`
	Basis string `json:"basis" maxLength:"40"`
	Left  bool   `json:"left_out,omitempty"`
}

// writer gathers the sentences of one document.
type writer struct {
	in  Input
	doc Document
}

// Visit writes the report of one visit.
func Visit(in Input) Document {
	w := &writer{in: in, doc: Document{Bridge: in.Bridge, Figures: []Figure{}}}
	w.section("one", w.headline)
	w.section("saw", w.saw)
	w.section("behind", w.behind)
	w.section("worked", w.worked)
	w.section("changed", w.changed)
	w.section("next", w.next)
	w.section("home", w.home)
	w.section("call", w.call)
	w.section("care", w.care)
	w.figures()
	return w.doc
}

func (w *writer) section(key string, write func(say func(id, key string, args phrase.Args))) {
	s := Section{Key: key, Title: phrase.Of("report."+key, nil), Sentences: []Sentence{}}
	write(func(id, phraseKey string, args phrase.Args) {
		if args == nil {
			args = phrase.Args{}
		}
		args["horse"] = w.in.Horse
		m := phrase.Of("report."+phraseKey, args)
		s.Sentences = append(s.Sentences, Sentence{ID: key + "." + id, Said: m, Basis: basis(m)})
	})
	if len(s.Sentences) > 0 {
		w.doc.Sections = append(w.doc.Sections, s)
	}
}

// basis is a fingerprint of what a sentence says.
func basis(m phrase.Message) string {
	text, err := json.Marshal(m) // keys are sorted
	if err != nil {
		return m.Key
	}
	h := fnv.New64a()
	_, _ = h.Write(text) // a hash never fails
	return fmt.Sprintf("%016x", h.Sum64())
}

type saying = func(id, key string, args phrase.Args)

func (w *writer) today() progress.Reps { return progress.Count(w.in.Beads, nil) }

func (w *writer) headline(say saying) {
	met := w.gained(horse.Met)
	kept := w.gained(horse.Kept)
	switch t := w.today(); {
	case t.N == 0:
		say("line", "one.nothing", nil)
	case len(w.gained(horse.Slipped)) > 0:
		say("line", "one.slipped", phrase.Args{"steps": w.gained(horse.Slipped)})
	case len(met)+len(kept) > 0:
		say("line", "one.gained", phrase.Args{"steps": append(met, kept...)})
	case t.Soft*2 >= t.N:
		say("line", "one.steady", phrase.Args{"soft": t.Soft, "n": t.N})
	default:
		say("line", "one.hard", phrase.Args{"soft": t.Soft, "n": t.N})
	}
}

// gained names the steps that came to a state in this visit.
func (w *writer) gained(state horse.StepState) []phrase.Slotted {
	was := map[horse.Ask]horse.StepState{}
	for _, k := range w.in.Visit.Before {
		was[k.Ask] = k.State
	}
	var names []phrase.Slotted
	for _, k := range w.in.Visit.After {
		if k.State != state || was[k.Ask] == state || state == horse.Met && was[k.Ask] == horse.Kept {
			continue
		}
		if name := w.stepName(k.Step); !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	return names
}

// stepName says a step in words an owner can follow.
func (w *writer) stepName(key string) phrase.Slotted {
	step, _ := w.in.Catalog.Step(key)
	return step.Plain
}

func (w *writer) saw(say saying) {
	if s := w.in.Story; w.in.FirstVisit && s.Tries != nil && s.Successes != nil {
		say("story", "saw.story", phrase.Args{"good": *s.Successes, "n": *s.Tries})
	}
	say("arousal", fmt.Sprintf("saw.arousal.%d", w.today().Arousal), nil)
	var ways []string
	for _, b := range w.in.Beads {
		for _, way := range b.WaysOut {
			if !slices.Contains(ways, way.String()) && !horse.Dangerous(way) {
				ways = append(ways, way.String())
			}
		}
	}
	if len(ways) > 0 {
		say("ways", "saw.ways", phrase.Args{"ways": ways})
	}
	if len(w.in.Dangers) > 0 {
		say("danger", "saw.danger", phrase.Args{"what": w.in.Dangers})
	}
}

// behind says what is probably behind the behaviour, kindly: what the person
// does is said as what will be practised, and what was not looked at is said to
// be open.
func (w *writer) behind(say saying) {
	if w.in.Judged == nil {
		return
	}
	open := 0
	for _, c := range w.in.Judged.Causes {
		switch c.Belief.String() {
		case "likely", "possible":
			say(c.Cause.String(), "behind."+c.Belief.String()+"."+c.Cause.String(), nil)
		case "not looked at", "not enough seen":
			open++
		}
	}
	if open > 0 {
		say("open", "behind.open", phrase.Args{"n": open})
	}
	if w.in.Basis.Seen == 0 {
		say("basis", "behind.unseen", nil)
	}
}

func (w *writer) worked(say saying) {
	var order []string
	for _, b := range w.in.Beads {
		if !slices.Contains(order, b.Step) {
			order = append(order, b.Step)
		}
	}
	for _, key := range order {
		r := progress.Count(w.in.Beads, func(b arena.Told) bool { return b.Step == key })
		say(key, "worked.step", phrase.Args{"step": w.stepName(key), "soft": r.Soft, "n": r.N})
	}
	if len(order) > 0 {
		say("why", "worked.why", nil)
	}
	if w.in.Ended != "" {
		say("ended", "worked.ended", phrase.Args{"how": strings.TrimRight(w.in.Ended, ". ")})
	}
}

func (w *writer) changed(say saying) {
	for _, state := range []horse.StepState{horse.Met, horse.Kept, horse.Slipped} {
		if steps := w.gained(state); len(steps) > 0 {
			say(state.String(), "changed."+state.String(), phrase.Args{"steps": steps})
		}
	}
	if len(w.gained(horse.Met))+len(w.gained(horse.Kept))+len(w.gained(horse.Slipped)) == 0 {
		say("none", "changed.none", nil)
	}
	say("bridge", "changed.bridge", phrase.Args{"met": w.in.Bridge.Met, "of": len(w.in.Bridge.Planks)})
	first, today := progress.Count(w.in.First, nil), w.today()
	if first.Noted && today.Noted && today.Level > first.Level {
		say("heavier", "changed.heavier", phrase.Args{"before": progress.Feel(first.Level), "now": progress.Feel(today.Level)})
	}
}

// figures sets two or three numbers against the first day.
func (w *writer) figures() {
	today := w.today()
	if len(w.in.First) == 0 || today.N == 0 {
		return
	}
	first := progress.Count(w.in.First, nil)
	share := func(r progress.Reps) phrase.Message {
		return phrase.Of("report.figure.share", phrase.Args{"soft": r.Soft, "n": r.N})
	}
	if first.N > 0 {
		w.doc.Figures = append(w.doc.Figures, Figure{
			Label: phrase.Of("report.figure.good", nil), Before: share(first), After: share(today), Means: phrase.Of("report.figure.good.means", nil),
		})
	}
	if first.Noted && today.Noted {
		w.doc.Figures = append(w.doc.Figures, Figure{
			Label: phrase.Of("report.figure.feel", nil), Before: progress.Feel(first.Level), After: progress.Feel(today.Level),
			Means: phrase.Of("report.figure.feel.means", phrase.Args{"before": first.Level, "now": today.Level}),
		})
	}
	w.doc.Figures = append(w.doc.Figures, Figure{
		Label: phrase.Of("report.figure.calm", nil), Before: phrase.Of(fmt.Sprintf("arousal.%d", first.Arousal), nil),
		After: phrase.Of(fmt.Sprintf("arousal.%d", today.Arousal), nil), Means: phrase.Of("report.figure.calm.means", nil),
	})
}

func (w *writer) next(say saying) {
	if w.in.Next != "" {
		say("step", "next.step", phrase.Args{"step": w.stepName(w.in.Next)})
	} else {
		say("step", "next.none", nil)
	}
	if w.in.Goal != "" {
		say("goal", "next.goal", phrase.Args{"goal": strings.TrimRight(w.in.Goal, ". ")})
	}
	if w.in.NeededBy != "" {
		say("date", "next.date", phrase.Args{"date": phrase.Date(w.in.NeededBy)})
	}
}

// home gives only what the owner is cleared for; nobody is cleared for a step
// before that was watched.
func (w *writer) home(say saying) {
	say("handling", "home.handling", nil)
	if l, ok := w.in.Catalog.Ladder(w.in.Ladder); ok && l.Narrow {
		say("not", "home.not.trailer", nil)
	} else {
		say("not", "home.not", nil)
	}
	say("stop", "home.stop", nil)
}

func (w *writer) call(say saying) {
	for _, r := range w.in.Referrals {
		if r.Done {
			continue
		}
		args := phrase.Args{"who": r.Who, "due": phrase.Date(r.Due)}
		if r.Item.IsZero() {
			say(r.Key, "call."+r.Key, args)
			continue
		}
		args["item"] = assess.Named(r.Item)
		say(r.Key, "call.referral", args)
	}
}

func (w *writer) care(say saying) {
	say("grade", fmt.Sprintf("care.%d", max(w.in.Care.Rank(), 1)), nil)
	say("vet", "care.vet", nil)
}

// With puts the trainer's own wording over the product's; safety sentences
// can't be left out or reworded.
func (d Document) With(edits map[string]Edit) Document {
	for i := range d.Sections {
		for j := range d.Sections[i].Sentences {
			s := &d.Sections[i].Sentences[j]
			e, ok := edits[s.ID]
			if !ok || d.Sections[i].Key == "care" || d.Sections[i].Key == "call" {
				continue
			}
			s.Edited, s.Left = e.Text, e.Left
			s.Changed = e.Basis != s.Basis
		}
	}
	return d
}
