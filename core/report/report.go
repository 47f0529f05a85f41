// Package report writes the page an owner reads after a visit (part 8), as a
// document of sections and sentences with their evidence, not as HTML. A
// sentence keeps its id over a refresh, so that the trainer's own wording
// survives it and is marked where its numbers have changed since.
package report

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
)

// Input is what one visit's report is written from.
type Input struct {
	Catalog    *catalog.Catalog
	Horse      string
	Record     assess.Record   // for he or she
	Outings    []outing.Result // that were walked that day
	Ladder     string
	Goal       string
	NeededBy   string
	Story      assess.Story
	Judged     *assess.ProblemResult // what an assessment new since the last visit makes of the problem
	Basis      assess.Basis          // what that stands on
	Forbidden  []phrase.Message      // what leads the page until it is lifted
	Rechecks   []assess.Recheck
	Referrals  []assess.Referral
	Care       horse.Care
	NotCaught  bool          // it can't be caught or haltered yet
	Visit      history.Visit // states before and after
	Review     arena.Review
	Beads      []arena.Told
	Then       map[horse.Ask]Then // how each ask was before, where it was asked
	Baseline   assess.Baseline    // the problem as it was asked first
	Cleared    []string           // steps that an owner is cleared for
	Bridge     progress.Bridge
	Next       string // step the work goes on with
	Dangers    []string
	Incidents  []string // what was written down of them
	Ended      string   // how it ended, in the trainer's words
	FirstVisit bool
	Problem    horse.Problem
	Standing   Standing
}

// Then is how an ask was on the first day it was asked.
type Then struct {
	On       string // its day
	FirstDay bool   // the day of the assessment
	Reps     history.Reps
}

// A Sentence of the report.
type Sentence struct {
	ID      string         `json:"id"`
	Said    phrase.Message `json:"said" doc:"as the product says it"`
	Basis   string         `json:"basis" doc:"fingerprint of its numbers"`
	Edited  string         `json:"edited,omitempty" doc:"the trainer's own wording"`
	Changed bool           `json:"changed,omitempty" doc:"its numbers have changed since it was edited"`
	Left    bool           `json:"left_out,omitempty"`
	Reason  string         `json:"reason,omitempty" doc:"why it was left out; an incident is left out with a reason only"`
	Grave   bool           `json:"grave,omitempty" doc:"it tells of an incident: left out with a reason only"`
	Behind  Evidence       `json:"behind" doc:"where the fact behind it is found"`
	Fixed   bool           `json:"fixed,omitempty" doc:"it is said as it is: safety is not worded away"`
}

// Evidence is where the fact behind a sentence is found.
type Evidence struct {
	Place   string   `json:"place" enum:"session,assessment,plan,homework,horse" doc:"the page that shows it"`
	Entries []string `json:"entries,omitempty" doc:"ids of the very reps of the session"`
}

// places are where the facts of each section are found.
var places = map[string]string{
	"first": "assessment", "short": "horse", "one": "session", "saw": "session", "behind": "assessment", "worked": "session",
	"changed": "session", "next": "plan", "home": "homework", "call": "assessment", "care": "assessment",
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

// writer gathers the sentences of one document.
type writer struct {
	in   Input
	doc  Document
	reps []string // ids of the reps behind the next sentence
}

// by names the reps behind the next sentence.
func (w *writer) by(keep func(arena.Told) bool) {
	w.reps = nil
	for _, b := range w.in.Beads {
		if keep(b) {
			w.reps = append(w.reps, b.ID)
		}
	}
}

// Visit writes the report of one visit.
func Visit(in Input) Document {
	w := &writer{in: in, doc: Document{Bridge: in.Bridge, Figures: []Figure{}}}
	w.section("first", w.first)
	w.section("short", w.answers)
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
		args = maps.Clone(args)
		if args == nil {
			args = phrase.Args{}
		}
		maps.Copy(args, w.in.Record.Called(w.in.Horse))
		m := phrase.Of("report."+phraseKey, args)
		s.Sentences = append(s.Sentences, Sentence{
			ID: key + "." + id, Said: m, Basis: m.Fingerprint(), Fixed: slices.Contains(fixed, key) || slices.Contains(fixed, key+"."+id),
			Grave: key == "saw" && (id == "danger" || strings.HasPrefix(id, "incident.")), Behind: Evidence{Place: places[key], Entries: w.reps},
		})
		w.reps = nil
	})
	if len(s.Sentences) > 0 {
		w.doc.Sections = append(w.doc.Sections, s)
	}
}

type saying = func(id, key string, args phrase.Args)

func (w *writer) today() history.Reps { return history.Count(w.in.Beads, nil) }

// first is what is forbidden, and what is due: it leads the page until it is
// lifted.
func (w *writer) first(say saying) {
	for _, m := range w.in.Forbidden {
		say(m.Key, m.Key, m.Args)
	}
	for _, r := range w.in.Rechecks {
		if len(r.Found) == 0 {
			say(fmt.Sprintf("recheck.%s.%d", r.Item, r.Day), "recheck", phrase.Args{"item": assess.Named(r.Item), "due": phrase.Date(r.Due)})
		}
	}
}

func (w *writer) headline(say saying) {
	met, kept := w.gained(horse.Met), w.gained(horse.Kept)
	memory := 0
	for _, m := range w.in.Review.Story {
		if m.Key == "story.memory" {
			memory++
		}
	}
	rests := 0
	for _, a := range w.in.Review.Asks {
		if a.School == horse.ReliefPlace {
			rests += a.Good
		}
	}
	switch t := w.today(); {
	case len(w.gained(horse.Slipped)) > 0:
		say("line", "one.slipped", phrase.Args{"steps": w.gained(horse.Slipped)})
	case len(met)+len(kept) > 0:
		say("line", "one.gained", phrase.Args{"steps": append(met, kept...)})
	case rests > 0:
		say("line", "one.rested", phrase.Args{"n": rests})
	case t.N == 0 && memory > 0:
		say("line", "one.memory", nil)
	case t.N == 0:
		say("line", "one.nothing", nil)
	case t.Good*2 >= t.N:
		say("line", "one.steady", phrase.Args{"good": t.Good, "n": t.N})
	case t.N == 1:
		say("line", "one.hard_one", nil)
	default:
		say("line", "one.hard", phrase.Args{"good": t.Good, "n": t.N})
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
	if s := w.in.Story; w.in.FirstVisit && s.Tries != nil && s.Successes != nil && *s.Tries > 0 {
		say("story", "saw.story", phrase.Args{"good": *s.Successes, "n": *s.Tries})
	}
	if key, ok := w.mood(); ok {
		w.by(func(b arena.Told) bool { return b.Arousal.Noted() })
		say("arousal", "saw.arousal."+key, nil)
	}
	var ways []string
	for _, b := range w.in.Beads {
		for _, way := range b.WaysOut {
			if !slices.Contains(ways, way.String()) && !horse.Dangerous(way) {
				ways = append(ways, way.String())
			}
		}
	}
	if len(ways) > 0 {
		w.by(func(b arena.Told) bool {
			return slices.ContainsFunc(b.WaysOut, func(way horse.WayOut) bool { return !horse.Dangerous(way) })
		})
		say("ways", "saw.ways", phrase.Args{"ways": ways})
	}
	for i, b := range w.in.Review.Stopped {
		say(fmt.Sprintf("stopped.%d", i), "saw.stopped", phrase.Args{"what": b.What.String(), "n": b.N, "rate": b.PerTen})
	}
	if len(w.in.Dangers) > 0 {
		w.by(func(b arena.Told) bool { return slices.ContainsFunc(b.WaysOut, horse.Dangerous) })
		say("danger", "saw.danger", phrase.Args{"what": w.in.Dangers})
	}
	for i, note := range w.in.Incidents {
		say(fmt.Sprintf("incident.%d", i), "saw.incident", phrase.Args{"note": strings.TrimRight(note, ". ")})
	}
}

// mood is how the horse was by what was noted: its peak, and whether it was
// back at the end. Without a note nothing is said.
func (w *writer) mood() (string, bool) {
	felt := w.in.Review.Felt
	if len(felt) == 0 {
		return "", false
	}
	peak := 0
	for _, f := range felt {
		peak = max(peak, f.Level)
	}
	end := felt[len(felt)-1].Level
	for _, b := range w.in.Beads {
		if slices.Contains(b.Signs, horse.ShutDown) {
			return "shut_down", true
		}
	}
	if peak >= 2 && end >= 2 {
		return fmt.Sprintf("%d.still", peak), true
	}
	return fmt.Sprint(peak), true
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
	if w.in.Basis.Seen == 0 && w.in.Basis.Say.Key != "basis.few_seen" {
		say("basis", "behind.unseen", nil)
	}
}

// worked tells each step in the success of the school it was worked in, and how
// that school works.
func (w *writer) worked(say saying) {
	type part struct {
		step   string
		school horse.School
	}
	var order []part
	sums := map[part]arena.Worked{}
	var schools []horse.School
	for _, a := range w.in.Review.Asks {
		p := part{a.Step, a.School}
		sum, there := sums[p]
		if !there {
			order = append(order, p)
		}
		sum.N, sum.Good, sum.Most, sum.FeetIn = sum.N+a.N, sum.Good+a.Good, max(sum.Most, a.Most), max(sum.FeetIn, a.FeetIn)
		if len(a.Seconds) == 2 {
			sum.Seconds = a.Seconds
		}
		sums[p] = sum
		if !slices.Contains(schools, a.School) {
			schools = append(schools, a.School)
		}
	}
	for i, o := range w.in.Outings {
		if o.Whole {
			say("outing."+strconv.Itoa(i), "worked.outing", o.Told())
		}
	}
	for _, p := range order {
		if step, _ := w.in.Catalog.Step(p.step); step.Is(catalog.WalkedHome) && len(w.in.Outings) > 0 {
			continue // the outing is the answer
		}
		sum := sums[p]
		args := phrase.Args{"step": w.stepName(p.step), "good": sum.Good, "n": sum.N, "most": sum.Most, "feet": sum.FeetIn}
		key := keyOf(p.school)
		switch {
		case p.school == horse.ReliefPlace && sum.Most == 0:
			key += ".none"
		case p.school == horse.ReliefPlace && sum.FeetIn > 0:
			key += ".in"
		case p.school == horse.WaitItOut && sum.Seconds != nil:
			key, args["s"] = key+".seconds", sum.Seconds[1]
		}
		w.by(func(b arena.Told) bool { return b.Step == p.step })
		say(p.step, "worked."+key, args)
	}
	for _, a := range w.in.Review.Asks {
		if a.Against == nil || a.Against.Kind == arena.Early {
			continue
		}
		args := phrase.Args{"step": w.stepName(a.Step), "why": a.Against.Why}
		key := "against"
		if a.Despite != nil {
			key, args["answers"], args["reason"] = "despite", a.Despite.Answers, strings.TrimRight(a.Despite.Reason, ". ")
		}
		say("against."+a.String(), "worked."+key, args)
	}
	for _, s := range schools {
		say("how."+s.String(), "how."+keyOf(s), nil)
	}
	if w.in.Ended != "" {
		say("ended", "worked.ended", phrase.Args{"how": strings.TrimRight(w.in.Ended, ". ")})
	}
}

func keyOf(word fmt.Stringer) string { return strings.ReplaceAll(word.String(), " ", "_") }
