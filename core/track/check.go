package track

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Check says what is wrong with an entry before it is kept, or nil.
func (e Entry) Check(c *catalog.Catalog) error {
	has := func(what string, ok bool) error {
		if !ok {
			return fmt.Errorf("a %s entry needs its %s", e.Kind, what)
		}
		return nil
	}
	if e.ID == "" {
		return fmt.Errorf("an entry needs an id")
	}
	if utf8.RuneCountInString(e.Note) > 2000 {
		return fmt.Errorf("a note has 2000 characters at most")
	}
	if e.Replaces == e.ID {
		return fmt.Errorf("an entry can't replace itself")
	}
	switch e.Kind {
	case KindRep:
		if err := has("rep", e.Rep != nil); err != nil {
			return err
		}
		return e.Rep.answered().check(c)
	case KindMark:
		if err := has("mark", e.Mark != nil); err != nil {
			return err
		}
		if n := e.Mark.New; n != nil {
			if err := n.Check(); err != nil {
				return err
			}
			c = c.WithOwn(*n)
		}
		if w := e.Mark.Walk; w != nil {
			if err := w.Check(); err != nil {
				return err
			}
		}
		if f := e.Mark.Footfall; f != nil {
			if err := f.Live(); err != nil {
				return err
			}
			if f.Eye && len(f.Landings) > 0 {
				return fmt.Errorf("a footfall is either tapped or judged by eye")
			}
			if !c.HasAsk(f.Ask) {
				return fmt.Errorf("%q is not an ask of the catalogue", f.Ask)
			}
		}
		if a := e.Mark.Ask; a != nil && !c.HasAsk(*a) {
			return fmt.Errorf("%q is not an ask of the catalogue", a)
		}
		if d := e.Mark.Despite; d != nil && (e.Mark.Ask == nil || strings.TrimSpace(d.Reason) == "" || strings.TrimSpace(d.Answers) == "") {
			return fmt.Errorf("what is asked against a fact needs the ask, a reason, and who answers for it")
		}
		return nil
	case KindUndo:
		return has("replaces", e.Replaces != "")
	case KindAdvice:
		return has("shown", e.Shown != nil && !e.Shown.Action.IsZero())
	case KindEnd:
		return nil
	case KindDose, KindOffer, KindSpell, KindBurst, KindInterruption, KindMemory:
		return e.checkAnswered(c)
	}
	return fmt.Errorf("an entry needs a kind: %s", strings.Join(kinds{}.Words(), ", "))
}

func (r Rep) check(c *catalog.Catalog) error {
	step, ok := c.Step(r.Step)
	switch {
	case !ok || step.Link != "":
		return fmt.Errorf("%q is not a step of the catalogue", r.Step)
	case !c.HasAsk(r.Ask) && !r.Variant.IsZero():
		return fmt.Errorf("%q has no variant %q", r.Step, r.Variant)
	case r.Trial != nil && r.Trial.What.IsZero():
		return fmt.Errorf("a trial needs what was looked at")
	case r.Trial != nil && (r.Trial.Seconds < 0 || r.Trial.Seconds > 36_000):
		return fmt.Errorf("a trial takes from 0 to 36000 seconds")
	case r.Answer.IsZero():
		return fmt.Errorf("a rep needs its answer: refused, try, tolerated, accepted or offered")
	case r.Seconds < 0 || r.Seconds > 7200:
		return fmt.Errorf("seconds of pressure are from 0 to 7200, not %v", r.Seconds)
	case r.ToTry != nil && (*r.ToTry < 0 || *r.ToTry > 7200):
		return fmt.Errorf("seconds to the try are from 0 to 7200, not %v", *r.ToTry)
	case r.LetDown != nil && (*r.LetDown < 0 || *r.LetDown > 7200):
		return fmt.Errorf("seconds to the let-down are from 0 to 7200, not %v", *r.LetDown)
	case r.Drawn < 0 || r.Drawn > 99:
		return fmt.Errorf("how often it tried to turn is from 0 to 99")
	case r.Target < 0 || r.Reached != nil && *r.Reached < 0 || r.Corrections < 0:
		return fmt.Errorf("a hold, count or distance is 0 or more")
	case r.Kicks != nil && (*r.Kicks < 0 || *r.Kicks > 10):
		return fmt.Errorf("kicks are counted per 10 touches, from 0 to 10")
	}
	return nil
}

// checkAnswered says what is wrong with an entry of the other kinds, or nil.
func (e Entry) checkAnswered(c *catalog.Catalog) error {
	missing := fmt.Errorf("a %s entry needs its %s", e.Kind, e.Kind)
	if e.Kind == KindMemory {
		if e.Memory == nil {
			return missing
		}
		if m := e.Memory; m.Tries < 1 || m.Last.IsZero() {
			return fmt.Errorf("an ask from memory needs how many tries, 1 or more, and the last answer")
		}
		if !c.HasAsk(e.Memory.Ask) {
			return fmt.Errorf("%q is not an ask of the catalogue", e.Memory.Ask)
		}
		return nil
	}
	of := func(a horse.Ask) error {
		step, ok := c.Step(a.Step)
		switch {
		case !ok || step.Link != "":
			return fmt.Errorf("%q is not a step of the catalogue", a.Step)
		case !c.HasAsk(a) && !a.Variant.IsZero():
			return fmt.Errorf("%q has no variant %q", a.Step, a.Variant)
		}
		return nil
	}
	switch e.Kind {
	case KindDose:
		if e.Dose == nil {
			return missing
		}
		if e.Dose.Given < 0 || e.Dose.Steps < 0 {
			return fmt.Errorf("a dose and its steps are 0 or more")
		}
		return e.Dose.rep().check(c)
	case KindOffer:
		if e.Offer == nil {
			return missing
		}
		if e.Offer.Answer.IsZero() {
			return fmt.Errorf("an offer needs its answer: came, stayed, hesitated or left")
		}
		return of(e.Offer.Ask)
	case KindSpell:
		if e.Spell == nil {
			return missing
		}
		if e.Spell.Place.IsZero() || e.Spell.Seconds < 0 || e.Spell.Seconds > 36_000 {
			return fmt.Errorf("a spell needs its place, and seconds from 0 to 36000")
		}
		return of(e.Spell.Ask)
	case KindBurst:
		if e.Burst == nil {
			return missing
		}
		if b := e.Burst.counted(); b.Asks < 1 || b.OnTouch < 0 || b.OnTouch > b.Asks || b.Last.IsZero() {
			return fmt.Errorf("a burst needs how many asks, how many of them were answered on the touch, and the last answer")
		}
		return of(e.Burst.Ask)
	}
	if e.Interruption == nil || e.Interruption.Behaviour.IsZero() && e.Interruption.Hurry.IsZero() {
		return fmt.Errorf("an interruption needs the behaviour that was stopped")
	}
	return nil
}
