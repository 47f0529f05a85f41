package catalog

import (
	"fmt"
	"maps"
	"slices"
	"strings"
)

// A Fitting is what makes a catalogue that of one horse and its plan.
type Fitting struct {
	Own      []Ladder          `json:"own,omitempty" doc:"own ladders, each in place of the one with its key"`
	Settings map[string]string `json:"settings,omitempty" doc:"option chosen, by the key of the choice"`
	Past     Past              `json:"past,omitzero" doc:"empty: already ridden"`
	Afraid   bool              `json:"afraid,omitempty" doc:"fear is possible: what is only for unafraid horses is left out"`
	Ladders  []string          `json:"ladders,omitempty" doc:"the ladders of the plan"`
	Asks     []OwnAsk          `json:"asks,omitempty" doc:"the horse's own asks, that no ladder names"`
}

const atStart = "start"

// Fit returns the catalogue as it is for one horse and its plan, or its faults.
// The catalogue itself stays as it is.
func (c *Catalog) Fit(f Fitting) (*Catalog, error) {
	fitted := &Catalog{Version: c.Version, Rules: c.Rules, Judging: c.Judging, Methods: c.Methods, past: f.Past}
	for _, l := range c.Ladders {
		if i := slices.IndexFunc(f.Own, func(o Ladder) bool { return o.Key == l.Key }); i >= 0 {
			l = f.Own[i].inherits(l)
			fitted.Version += fmt.Sprintf("+%s.%d", l.Key, l.Own.Version)
		} else {
			l.Steps = slices.Clone(l.Steps)
		}
		fitted.Ladders = append(fitted.Ladders, l)
	}
	changed := len(f.Own) > 0
	for _, key := range slices.Sorted(maps.Keys(f.Settings)) {
		choice, _ := c.Methods.Choice(key)
		option, _ := choice.Option(f.Settings[key])
		for _, m := range option.Moves {
			fitted.move(m)
			changed = true
		}
	}
	for i := range fitted.Ladders {
		l := &fitted.Ladders[i]
		if f.Afraid {
			l.Steps = slices.DeleteFunc(l.Steps, func(s Step) bool { return s.Calm })
		}
		if slices.Contains(f.Ladders, l.Key) {
			for _, s := range l.Steps {
				if s.Before {
					fitted.before = s.Key
				}
			}
		}
	}
	if !changed { // steps were left out at most, which makes no circle
		fitted.index(func(string, string, ...any) {})
		return fitted.WithOwn(f.Asks...), nil
	}
	if faults := fitted.check(); len(faults) > 0 {
		return nil, fmt.Errorf("fitting the catalogue: %w", faults[0])
	}
	return fitted.WithOwn(f.Asks...), nil
}

// move puts a step elsewhere; one that an own ladder no longer has stays away.
func (c *Catalog) move(m Move) {
	for i := range c.Ladders {
		l := &c.Ladders[i]
		from := slices.IndexFunc(l.Steps, func(s Step) bool { return s.Key == m.Step })
		if from < 0 {
			continue
		}
		step := l.Steps[from]
		if m.Instead != nil {
			step.Instead, step.Needs = true, m.Instead
		}
		l.Steps[from] = step
		after := slices.IndexFunc(l.Steps, func(s Step) bool { return s.Key == m.After })
		if after < 0 && m.After != atStart {
			return
		}
		l.Steps = slices.Delete(l.Steps, from, from+1)
		if after > from {
			after--
		}
		l.Steps = slices.Insert(l.Steps, after+1, step)
		return
	}
}

// CheckOwn lists what is wrong with an own ladder in the place of the one it
// was copied from, or nothing. used are the steps that plans or sessions of the
// practice have: none of them may go.
func (c *Catalog) CheckOwn(l Ladder, used []string) []Fault {
	shipped, ok := c.Ladder(l.Key)
	if !ok {
		return []Fault{{l.Key, "there is no such ladder to copy"}}
	}
	var faults []Fault
	for _, key := range used {
		step, ok := c.Step(key)
		gone := !slices.ContainsFunc(l.Steps, func(s Step) bool { return s.Key == key })
		if belongs := ok && step.Ladder == l.Key || strings.HasPrefix(key, l.Key+"."); belongs && gone {
			faults = append(faults, Fault{key, "it is in use: a plan or a session has it. Leave it in, or change it"})
		}
	}
	for _, s := range l.Steps {
		if owner, ok := c.Step(s.Key); ok && owner.Ladder != l.Key {
			faults = append(faults, Fault{s.Key, fmt.Sprintf("this key belongs to the ladder %q. Give the step another", owner.Ladder)})
		} else if !ok && !strings.HasPrefix(s.Key, l.Key+".") && !ownKey.MatchString(s.Key) {
			faults = append(faults, Fault{s.Key, fmt.Sprintf("the key of a new step begins with %q", l.Key+".")})
		}
	}
	l.Kind, l.For = shipped.Kind, shipped.For
	trial := &Catalog{Version: c.Version, Rules: c.Rules, Judging: c.Judging, Methods: c.Methods}
	for _, one := range c.Ladders {
		if one.Key == l.Key {
			one = l
		}
		one.Steps = slices.Clone(one.Steps)
		trial.Ladders = append(trial.Ladders, one)
	}
	return append(faults, trial.check()...)
}

// Changed lists the steps that two catalogues both have and that are measured
// or passed otherwise: progress on them begins again at tried.
func Changed(before, now *Catalog) []string {
	var keys []string
	for _, l := range now.Ladders {
		for _, s := range l.Steps {
			was, ok := before.Step(s.Key)
			if ok && (!slices.Equal(was.Measures, s.Measures) || !was.Pass.same(s.Pass)) {
				keys = append(keys, s.Key)
			}
		}
	}
	return keys
}

func (p Pass) same(q Pass) bool {
	corrections := p.Corrections == nil && q.Corrections == nil ||
		p.Corrections != nil && q.Corrections != nil && *p.Corrections == *q.Corrections
	return p.Run == q.Run && p.Level == q.Level && p.Arousal == q.Arousal && slices.Equal(p.Values, q.Values) && p.Unit == q.Unit && corrections
}
