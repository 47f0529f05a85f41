package assess

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Fault is a value that can't be, with the field it stands in.
type Fault struct{ Field, Say string }

func (f Fault) Error() string { return f.Field + ": " + f.Say }

// faults gathers what can't be.
type faults struct{ list []Fault }

func (f *faults) add(field, say string) { f.list = append(f.list, Fault{field, say}) }

func (f *faults) sorted() []Fault {
	slices.SortStableFunc(f.list, func(a, b Fault) int { return cmp.Compare(a.Field, b.Field) })
	return f.list
}

// past wants a day up to today.
func (f *faults) past(field, date, today string) {
	if f.day(field, date) && date > today {
		f.add(field, "This is in the future. Give a day up to today.")
	}
}

// day reports whether a date was given that is one.
func (f *faults) day(field, date string) bool {
	if date == "" {
		return false
	}
	if day, err := time.Parse(time.DateOnly, date); err != nil {
		f.add(field, "This is not a date. Write it as year-month-day, for example 2026-05-01.")
		return false
	} else if day.Year() < 1960 {
		f.add(field, "This is too long ago. Check the year.")
		return false
	}
	return true
}

func (f *faults) within(field string, n *int, lo, hi int, what string) {
	if n != nil && (*n < lo || *n > hi) {
		f.add(field, fmt.Sprintf("%d can't be. Give %s from %d to %d.", *n, what, lo, hi))
	}
}

func (f *faults) short(field, text string, most int) {
	if n := len([]rune(text)); n > most {
		f.add(field, fmt.Sprintf("This is too long. Shorten it to %d characters or fewer; it has %d.", most, n))
	}
}

func (f *faults) few(field string, n, most int) {
	if n > most {
		f.add(field, fmt.Sprintf("There are too many. Keep to %d or fewer.", most))
	}
}

// ticked wants findings and looks that the handbook knows.
func (f *faults) ticked(path string, j catalog.Judging, findings map[string]horse.Source) {
	for key, source := range findings {
		if _, ok := j.Finding(key); !ok {
			f.add(path+"findings/"+key, "This is no finding of the handbook. Choose one from the list.")
		}
		if source == horse.OnRecord {
			f.add(path+"findings/"+key, "Only the horse's record is on record. Say seen, video or told.")
		}
	}
}

// Check says what can't be in a record, as of today.
func (r Record) Check(today string) []Fault {
	var f faults
	for field, date := range map[string]string{"born": r.Born, "gelded": r.Gelded, "arrived": r.Arrived, "last_worked": r.LastWorked} {
		f.past(field, date, today)
		if field != "born" && date != "" && r.Born != "" && date < r.Born {
			f.add(field, "This is before the horse was born ("+r.Born+"). Check both dates.")
		}
	}
	if r.HeightMM != 0 && (r.HeightMM < 500 || r.HeightMM > 2200) {
		f.add("height_mm", height(r.HeightMM))
	}
	if kg := r.WeightG / 1000; r.WeightG != 0 && (kg < 30 || kg > 1500) {
		f.add("weight_g", fmt.Sprintf("%d kg can't be a horse's weight. Give kilograms from 30 to 1500.", kg))
	}
	for _, thing := range r.Things {
		if n := utf8.RuneCountInString(strings.TrimSpace(thing)); n == 0 || n > 60 {
			f.add("things", "Give each thing a name of 60 characters at most.")
		}
	}
	return f.sorted()
}

// height says why a height can't be; a small one may have been meant in hands.
func height(mm int) string {
	cm := float64(mm) / 10
	if hands := mm / 10; hands >= 5 && hands <= 21 {
		inHands := float64(hands) * 10.16
		return fmt.Sprintf("%g cm is too small for a horse. If you mean %d hands, that is %.0f cm.", cm, hands, inHands)
	}
	return fmt.Sprintf("%g cm can't be a horse's height. Give from 50 to 220 cm, which is 5 to 21.2 hands.", cm)
}

// Check says what can't be in an assessment, as of today, field by field. What
// only contradicts itself is a doubt, not a fault.
func (a Assessment) Check(c *catalog.Catalog, today string) []Fault {
	var f faults
	f.ticked("", c.Judging, a.Findings)
	if a.From == horse.OnRecord {
		f.add("from", "Say seen, video or told.")
	}
	for section, source := range a.Sources {
		if !slices.Contains(sectionKeys, section) || source == horse.OnRecord {
			f.add("sources/"+section, "Say of a section from A to H: seen, video or told.")
		}
	}
	for p, account := range a.Problems {
		path := "problems/" + p.String()
		f.ticked(path+"/", c.Judging, account.Findings)
		account.Story.check(path+"/story", today, &f)
		f.few(path+"/swap_rows", len(account.SwapRows), MostSwapRows)
		for _, r := range account.SwapRows {
			f.short(path+"/swap_rows", r.Person, 60)
			f.short(path+"/swap_rows", r.Tack, 120)
			f.short(path+"/swap_rows", r.Gait, 60)
			f.short(path+"/swap_rows", r.Clip, 36)
		}
		account.Baseline.check(path+"/baseline", c, p, &f)
	}
	for section := range a.Ways {
		if !slices.Contains(WaysSeen, section) {
			f.add("ways_out/"+section, "Ways out are tapped in C, D and F here, and in E with the problem.")
		}
	}
	f.few("events", len(a.Events), 60)
	for id, e := range a.Events {
		f.past("events/"+id+"/on", e.On, today)
	}
	for item, n := range a.Body {
		n.check("body/"+item.String(), today, &f)
	}
	f.past("checkups/dental", a.Checkups.Dental, today)
	f.past("checkups/back", a.Checkups.Back, today)
	f.past("checkups/hoof", a.Checkups.Hoof, today)
	a.Tack.check(today, &f)
	f.short("first_look/gait", a.First.Gait, 120)
	if t := a.First.Timed; t != nil {
		if err := t.Live(); err != nil {
			f.add("first_look/timed", "This can't be timed: "+err.Error()+".")
		}
	}
	a.checkBasics(&f)
	f.within("mind/down_s", a.Mind.Down, 0, 7200, "seconds")
	f.short("place/worse", a.Place.Worse, 300)
	f.short("place/herd", a.Place.Herd, 300)
	f.short("place/changes", a.Place.Changes, 300)
	f.few("handlers", len(a.Handlers), 20)
	for id, h := range a.Handlers {
		f.short("handlers/"+id+"/name", h.Name, 120)
		f.short("handlers/"+id+"/note", h.Note, 300)
	}
	for key, r := range a.Referrals {
		r.check("referrals/"+key, today, &f)
	}
	a.checkOverruled(c, &f)
	return f.sorted()
}

func (s Story) check(path, today string, f *faults) {
	f.past(path+"/since", s.Since, today)
	f.day(path+"/needed_by", s.NeededBy)
	f.within(path+"/tries", s.Tries, 0, 9999, "tries")
	f.within(path+"/successes", s.Successes, 0, 9999, "tries")
	f.within(path+"/usual_minutes", s.UsualMin, 0, 1440, "minutes")
	f.within(path+"/worst_minutes", s.WorstMin, 0, 1440, "minutes")
	f.within(path+"/helpers", s.Helpers, 0, 20, "helpers")
	f.short(path+"/description", s.Description, 2000)
	f.short(path+"/tried", s.Tried, 1000)
	f.short(path+"/sent", s.Sent, 300)
	f.short(path+"/goal", s.Goal, 300)
	f.short(path+"/with_whom", s.WithWhom, 200)
	f.short(path+"/where", s.Where, 200)
	f.short(path+"/who_alone", s.WhoAlone, 200)
}

func (b Baseline) check(path string, c *catalog.Catalog, p horse.Problem, f *faults) {
	f.within(path+"/recovery_s", b.Recovery, 0, 7200, "seconds")
	f.within(path+"/minutes", b.Minutes, 0, 600, "minutes")
	f.within(path+"/tries", b.Tries, 0, 200, "tries")
	f.short(path+"/note", b.Note, 1000)
	if b.Reached == "" {
		return
	}
	step, ok := c.Step(b.Reached)
	if ladder, _ := c.Ladder(step.Ladder); !ok || !slices.Contains(ladder.For, p) {
		f.add(path+"/reached", "That is not a step of this ladder. Choose one from the list.")
	}
}

func (r Asked) check(path, today string, f *faults) {
	f.day(path+"/due", r.Due)
	f.past(path+"/sent_on", r.SentOn, today)
	f.past(path+"/outcome_on", r.OutcomeOn, today)
	f.short(path+"/name", r.Name, 120)
	f.short(path+"/question", r.Question, 500)
	f.short(path+"/outcome", r.Outcome, 1000)
}

// Doubts says what contradicts itself; it is kept, and shown beside its field.
func (a Assessment) Doubts() []Fault {
	var f faults
	for p, account := range a.Problems {
		s, path := account.Story, "problems/"+p.String()+"/story"
		if s.Tries != nil && s.Successes != nil && *s.Successes > *s.Tries {
			f.add(path+"/successes", fmt.Sprintf("%d went well of %d tries. Give as many tries as went well, or more.", *s.Successes, *s.Tries))
		}
		if s.UsualMin != nil && s.WorstMin != nil && *s.UsualMin > *s.WorstMin {
			f.add(path+"/worst_minutes", "The worst time is shorter than the usual one. Check both.")
		}
	}
	for item, n := range a.Body {
		if n.Begun != "" && n.ClearedOn != "" && n.ClearedOn < n.Begun {
			f.add("body/"+item.String()+"/cleared_on", "Cleared before the treatment began. Check both dates.")
		}
	}
	undated := a.undated()
	for _, section := range slices.Sorted(maps.Keys(undated)) {
		paths := []string{"ways_out/" + section}
		if section == "E" {
			paths = nil
			for p, account := range a.Problems {
				if slices.ContainsFunc(account.Baseline.WaysOut, horse.Dangerous) {
					paths = append(paths, "problems/"+p.String()+"/baseline/ways_out")
				}
			}
		}
		for _, path := range paths {
			f.add(path, fmt.Sprintf("Not seen in person: write down under A on which day it %s. Until then it counts for no points.", undated[section][0]))
		}
	}
	for _, id := range slices.Sorted(maps.Keys(a.Events)) {
		if e := a.Events[id]; e.Kind.IsZero() || e.On == "" {
			f.add("events/"+id+"/on", "Say what happened and on which day; until then it does not count.")
		}
	}
	return f.sorted()
}
