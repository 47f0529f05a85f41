package report

import (
	"fmt"
	"slices"
	"strings"

	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/trend"
)

// Closing writes the page at the end of the work: before and after, what stays to be
// kept up, how to come back after time off, and when to ring.
func Closing(in Input, lasts progress.Lasts) Document {
	w := &writer{in: in, doc: Document{Bridge: in.Bridge, Figures: []Figure{}}}
	w.section("first", w.first)
	w.section("short", w.answers)
	w.section("before", w.before)
	w.section("up", func(say saying) { w.keepUp(say, lasts) })
	w.section("off", func(say saying) {
		say("down", "off.down", nil)
		say("climb", "off.climb", nil)
		say("bump", "off.bump", nil)
	})
	w.section("ring", func(say saying) {
		args := phrase.Args{"who": in.Standing.Who}
		say("slips", "ring.slips", args)
		say("danger", "ring.danger", args)
		say("body", "ring.body", nil)
	})
	w.section("call", w.call)
	w.section("care", w.care)
	return w.doc
}

// before sets the first day against today: how often it went well, which steps held,
// and each ask whose feel surely changed, the worse first.
func (w *writer) before(say saying) {
	if s := w.in.Story; s.Tries != nil && s.Successes != nil && *s.Tries > 0 {
		say("story", "before.story", phrase.Args{"good": *s.Successes, "n": *s.Tries})
	}
	say("visits", "before.visits", phrase.Args{"n": w.in.Standing.Visits, "met": w.in.Bridge.Met, "of": w.in.Bridge.Steps})
	changed := 0
	for _, word := range []trend.Word{trend.More, trend.Less} {
		for _, l := range w.in.Standing.Lines {
			if l.Measure != progress.Level || l.Trend.Word != word || len(l.Trend.Points) == 0 || changed == mostChanged {
				continue
			}
			from, to := progress.Feel(l.Trend.Points[0].Y), progress.Feel(l.Trend.Points[len(l.Trend.Points)-1].Y)
			if from.Key == to.Key {
				continue
			}
			say("feel."+l.Ask.String(), "before.feel", phrase.Args{"ask": l.Name, "before": from, "now": to})
			changed++
		}
	}
	for _, p := range w.in.Bridge.Planks {
		if !p.Beyond && p.State != horse.Met && p.State != horse.Kept {
			say("open."+p.Step, "before.open", phrase.Args{"step": w.stepName(p.Step)})
		}
	}
}

// mostChanged is how many asks the page at the end sets against the first day.
const mostChanged = 4

// keepUp says what stays to be kept up: what slipped between the visits first, then
// what was met and not looked at on a later day.
func (w *writer) keepUp(say saying, lasts progress.Lasts) {
	for _, p := range w.in.Bridge.Planks {
		switch {
		case p.Beyond:
		case p.State == horse.Slipped:
			say("slipped."+p.Step, "up.slipped", phrase.Args{"step": w.stepName(p.Step)})
		case p.State == horse.Met:
			say("met."+p.Step, "up.met", phrase.Args{"step": w.stepName(p.Step)})
		}
	}
	if lasts.Share.Of > 0 {
		say("kept", "up.kept", phrase.Args{"kept": lasts.Share.Some, "n": lasts.Share.Of})
	}
	say("little", "up.little", nil)
}

// A File is all that a second trainer takes over (part 8).
type File struct {
	Input
	Plan      plan.Plan
	Sessions  []history.Figures
	Notes     []string // how each session ended, in the trainer's words
	Practised []homework.Log
	Cleared   []clearance.State
	Names     map[string]string // of people, by id
	Incidents []FileIncident
}

// FileIncident is a dangerous thing with its day.
type FileIncident struct{ On, What string }

// Whole writes the whole file of a horse: what is forbidden, how it stands, the owner's
// story, the causes, the plan, every session, practice at home, clearance, incidents.
func Whole(f File) Document {
	w := &writer{in: f.Input, doc: Document{Bridge: f.Bridge, Figures: []Figure{}}}
	w.section("first", w.first)
	w.section("short", w.answers)
	w.section("story", func(say saying) { w.story(say) })
	w.section("behind", w.behind)
	w.section("call", w.call)
	w.section("plan", func(say saying) {
		for i, item := range f.Plan.Items {
			say(fmt.Sprint("step.", i), "file.step", phrase.Args{"n": i + 1, "step": w.stepName(item.Step)})
		}
		for _, p := range f.Bridge.Planks {
			if !p.Beyond {
				say("plank."+p.Step, "file.plank", phrase.Args{"step": w.stepName(p.Step), "says": p.Says})
			}
		}
	})
	w.section("sessions", func(say saying) { w.sessions(say, f) })
	w.section("practised", func(say saying) {
		for _, l := range f.Practised {
			args := phrase.Args{"on": phrase.Date(l.On), "who": f.Names[l.Person], "step": w.stepName(l.Step), "n": l.Minutes, "mood": phrase.Of("arousal."+l.Arousal.String(), nil)}
			key := "file.practised"
			if !l.Done {
				key = "file.practised.not"
			}
			say(l.ID, key, args)
			if note := strings.TrimRight(l.Note, ". "); note != "" {
				say(l.ID+".note", "file.told", phrase.Args{"what": note})
			}
		}
	})
	w.section("cleared", func(say saying) {
		for _, s := range f.Cleared {
			if s.Cleared || s.Rehearsed {
				key := "file.cleared"
				if !s.Cleared {
					key = "file.rehearsed"
				}
				say(s.Person+s.Step, key, phrase.Args{"who": f.Names[s.Person], "step": w.stepName(s.Step)})
			}
		}
	})
	w.section("incidents", func(say saying) {
		for i, one := range f.Incidents {
			say(fmt.Sprint(i), "file.incident", phrase.Args{"on": phrase.Date(one.On), "what": strings.TrimRight(one.What, ". ")})
		}
	})
	w.section("care", w.care)
	return w.doc
}

func (w *writer) story(say saying) {
	s := w.in.Story
	if s.Description != "" {
		say("told", "file.told", phrase.Args{"what": strings.TrimRight(s.Description, ". ")})
	}
	if s.Tries != nil && s.Successes != nil && *s.Tries > 0 {
		say("tries", "before.story", phrase.Args{"good": *s.Successes, "n": *s.Tries})
	}
	if s.Since != "" {
		say("since", "file.since", phrase.Args{"on": phrase.Date(s.Since)})
	}
	say("goal", "next.goal", phrase.Args{"goal": strings.TrimRight(w.in.Goal, ". ")})
	if w.in.NeededBy != "" {
		say("date", "file.date", phrase.Args{"date": phrase.Date(w.in.NeededBy)})
	}
}

// sessions tells each session, the newest first: what was asked, how often it was soft,
// with which feel, and how it ended.
func (w *writer) sessions(say saying, f File) {
	for i, s := range slices.Backward(f.Sessions) {
		say("on."+s.Session, "file.session", phrase.Args{"n": i + 1, "on": phrase.Date(s.On)})
		for _, a := range s.Asks {
			args := phrase.Args{"step": w.stepName(a.Step), "good": a.Soft(), "n": a.N()}
			if !a.Variant.IsZero() {
				args["step"] = phrase.Of("report.file.sided", phrase.Args{"step": w.stepName(a.Step), "side": phrase.Sided(a.Variant.String())})
			}
			key := "file.ask"
			if a.Level != nil {
				key, args["feel"] = "file.ask.feel", progress.Feel(*a.Level)
			}
			say(s.Session+a.Ask.String(), key, args)
		}
		if i < len(f.Notes) && f.Notes[i] != "" {
			say("end."+s.Session, "worked.ended", phrase.Args{"how": strings.TrimRight(f.Notes[i], ". ")})
		}
	}
}
