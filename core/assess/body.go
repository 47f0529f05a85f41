package assess

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"time"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// BodyNote is what is known of one body item (section B). Dates are YYYY-MM-DD.
type BodyNote struct {
	State     horse.BodyState    `json:"state,omitzero" doc:"what is known of it"`
	Note      string             `json:"note,omitempty" maxLength:"300" doc:"what was seen"`
	Since     string             `json:"since,omitempty" maxLength:"10" doc:"suspect since"`
	Begun     string             `json:"begun,omitempty" maxLength:"10" doc:"in treatment since"`
	Days      *int               `json:"days,omitempty" doc:"length of the treatment"`
	ClearedBy string             `json:"cleared_by,omitempty" maxLength:"120" doc:"who cleared it"`
	ClearedOn string             `json:"cleared_on,omitempty" maxLength:"10" doc:"day it was cleared"`
	Checks    map[string]Pressed `json:"checks,omitempty" doc:"repeated checks, by an id of the device"`
	Released  map[string]Lifted  `json:"released,omitempty" doc:"steps that a vet released, by key"`
	VetSaw    string             `json:"vet_saw,omitempty" maxLength:"10" doc:"hind leg: the day a vet has seen it"`
	Locked    bool               `json:"locked,omitempty" doc:"hind leg: it has locked"`
}

// Lifted is a vet's release of a blocked step.
type Lifted struct {
	By string `json:"by" maxLength:"120" doc:"who took the block off"`
	On string `json:"on" maxLength:"10" doc:"day"`
}

type presses struct{}

func (presses) Words() []string { return []string{"nothing", "ticklish", "tightens", "kicks"} }

// Pressing is how the horse answered a check by hand (section B).
type Pressing = horse.Word[presses]

// Pressed is one check of an item on a day and side.
type Pressed struct {
	On     string     `json:"on" maxLength:"10" doc:"day"`
	Side   horse.Side `json:"side,omitzero" doc:"which side was pressed"`
	Answer Pressing   `json:"answer" doc:"what the horse did"`
}

// Clear reports whether the check found nothing: ticklish is nothing.
func (p Pressed) Clear() bool { return p.Answer.Rank() == 1 || p.Answer.Rank() == 2 }

// Checkups are the dates of the last care.
type Checkups struct {
	Dental string `json:"dental,omitempty" maxLength:"10" doc:"last day the teeth were seen to"`
	Back   string `json:"back,omitempty" maxLength:"10" doc:"last day the back was seen to"`
	Hoof   string `json:"hoof,omitempty" maxLength:"10" doc:"last day the feet were seen to"`
}

// BodyOf tells the state of an item; not noted is not looked at. A check of
// the day speaks where no state was noted, and so does a saddle that does not
// fit.
func (a Assessment) BodyOf(item horse.BodyItem) horse.BodyState {
	n := a.Body[item]
	if !n.State.IsZero() {
		return n.State
	}
	if item == horse.SaddleFit && a.Tack.Saddle == misfit {
		return horse.Suspect
	}
	checks := n.checks()
	if len(checks) == 0 {
		return horse.NotLookedAt
	}
	newest := checks[len(checks)-1].On
	for _, c := range checks {
		if c.On == newest && !c.Clear() {
			return horse.Suspect
		}
	}
	return horse.Clear
}

// checks lists the checks with an answer by day.
func (n BodyNote) checks() []Pressed {
	list := slices.DeleteFunc(slices.Collect(maps.Values(n.Checks)), func(p Pressed) bool { return p.Answer.IsZero() || p.On == "" })
	slices.SortFunc(list, func(a, b Pressed) int {
		return cmp.Or(cmp.Compare(a.On, b.On), cmp.Compare(a.Side.Rank(), b.Side.Rank()), cmp.Compare(b.Answer.Rank(), a.Answer.Rank()))
	})
	return list
}

// Named is a body item in words.
func Named(item horse.BodyItem) phrase.Message { return phrase.Of("item."+item.String(), nil) }

func ill(s horse.BodyState) bool { return s == horse.Suspect || s == horse.InTreatment }

func fine(s horse.BodyState) bool { return s == horse.Clear || s == horse.Cleared }

// BodyClear reports whether all items relevant to the problem are clear or
// cleared. What was not looked at is not clear.
func (a Assessment) BodyClear(j catalog.Judging, p horse.Problem) bool {
	items := j.RelevantTo(p)
	if len(items) == 0 {
		items = horse.BodyItem{}.All()
	}
	return !slices.ContainsFunc(items, func(item horse.BodyItem) bool { return !fine(a.BodyOf(item)) })
}

// UnlookedBody lists the items that bear on any of the problems and that nobody
// looked at.
func (a Assessment) UnlookedBody(j catalog.Judging, problems ...horse.Problem) []horse.BodyItem {
	return slices.DeleteFunc(horse.BodyItem{}.All(), func(item horse.BodyItem) bool {
		bears := slices.ContainsFunc(problems, func(p horse.Problem) bool { return slices.Contains(j.RelevantTo(p), item) })
		return !bears || a.BodyOf(item) != horse.NotLookedAt
	})
}

// Names names the items, in their order.
func Names(items []horse.BodyItem) []phrase.Message {
	var names []phrase.Message
	for _, item := range items {
		names = append(names, Named(item))
	}
	return names
}

// Block is a step that a fact blocks, and what lifts it.
type Block struct {
	Step  string         `json:"step" doc:"key of the step that is blocked"`
	Name  string         `json:"name" doc:"name of the step"`
	Item  horse.BodyItem `json:"item" doc:"part of the body that blocks it"`
	Why   phrase.Message `json:"why" doc:"the reason as a sentence"`
	Lifts phrase.Message `json:"lifts" doc:"what lifts it, as a sentence"`

	Earliest string `json:"earliest,omitempty" doc:"the earliest day it can lift, where one is known"`
	Never    bool   `json:"never,omitempty" doc:"it stays: the step is neither planned nor offered"`
}

// Blocks lists the steps that the body blocks, in the catalogue's order: until
// the item is cleared, or a vet releases the step.
func Blocks(c *catalog.Catalog, a Assessment) []Block {
	var blocks []Block
	for _, l := range c.Ladders {
		for _, step := range l.Steps {
			for _, item := range step.Blocked {
				state := a.BodyOf(item)
				if _, released := a.Body[item].Released[step.Key]; !ill(state) || released {
					continue
				}
				args := phrase.Args{"item": Named(item), "state": state.String(), "who": whoLooks(item)}
				blocks = append(blocks, Block{Step: step.Key, Name: step.FullName(), Item: item, Why: phrase.Of("block.body", args), Lifts: phrase.Of("block.body.lifts", args)})
				break
			}
		}
	}
	return blocks
}

// Limits gives the last value a step may reach while a fact holds: with a hind
// leg that has locked or that no vet has seen, backing is one step at most;
// one that snatches, and a vet has seen, four (part 9).
func Limits(c *catalog.Catalog, a Assessment) map[string]int {
	most := a.backing()
	if most == 0 {
		return nil
	}
	limits := map[string]int{}
	for _, s := range c.With(catalog.Backs) {
		limits[s.Key] = most
	}
	return limits
}

// NoBacking reports whether a fact allows one step back at most.
func NoBacking(a Assessment) bool { return a.backing() == 1 }

// backing is how many steps back a hind leg allows; 0: as many as one likes.
func (a Assessment) backing() int {
	switch leg := a.Body[horse.HindLeg]; {
	case !ill(a.BodyOf(horse.HindLeg)):
		return 0
	case leg.VetSaw != "" && !leg.Locked:
		return 4
	}
	return 1
}

// A Recheck is a check that a treatment asks for: half way and at its end.
type Recheck struct {
	Item  horse.BodyItem `json:"item" doc:"part of the body"`
	Day   int            `json:"day" doc:"day of the treatment"`
	Due   string         `json:"due" format:"date" doc:"day it is due"`
	Found []Pressed      `json:"found" doc:"what the checks of that time found"`
	Reads phrase.Message `json:"reads" doc:"what to check, as a sentence"`
}

// earlyDays is how much too early a check half way may be to count, in days.
const earlyDays = 3

// Rechecks lists the checks that the treatments ask for, by their dates. A
// clear one before the last day reads: improving, finish the course.
func Rechecks(a Assessment, today string) []Recheck {
	var list []Recheck
	for _, item := range (horse.BodyItem{}).All() {
		n := a.Body[item]
		if a.BodyOf(item) != horse.InTreatment || n.Days == nil {
			continue
		}
		begun, err := time.Parse(time.DateOnly, n.Begun)
		if err != nil {
			continue
		}
		end := begun.AddDate(0, 0, *n.Days).Format(time.DateOnly)
		half := begun.AddDate(0, 0, *n.Days/2).Format(time.DateOnly)
		early := begun.AddDate(0, 0, *n.Days/2-earlyDays).Format(time.DateOnly)
		for i, due := range []string{half, end} {
			r := Recheck{Item: item, Day: *n.Days * (i + 1) / 2, Due: due}
			for _, c := range n.checks() {
				if i == 0 && c.On >= early && c.On < end || i == 1 && c.On >= end {
					r.Found = append(r.Found, c)
				}
			}
			r.Reads = phrase.Of("recheck."+r.reading(i == 1, today), phrase.Args{"item": Named(item), "day": r.Day, "due": phrase.Date(due)})
			list = append(list, r)
		}
	}
	slices.SortStableFunc(list, func(a, b Recheck) int { return cmp.Compare(a.Due, b.Due) })
	return list
}

func (r Recheck) reading(last bool, today string) string {
	bad := slices.ContainsFunc(r.Found, func(p Pressed) bool { return !p.Clear() })
	switch {
	case len(r.Found) == 0 && r.Due < today:
		return "overdue"
	case len(r.Found) == 0:
		return "due"
	case bad:
		return "still"
	case last:
		return "clear"
	}
	return "improving"
}

// A DayOfTreatment puts the checks of one day side by side.
type DayOfTreatment struct {
	Day   int       `json:"day" doc:"day of the treatment; -1: not in treatment"`
	On    string    `json:"on" format:"date"`
	Found []Pressed `json:"found"`
	Clear bool      `json:"clear" doc:"nothing found on any side checked"`
}

// SideBySide lays out an item's repeated checks by treatment day.
func (n BodyNote) SideBySide() []DayOfTreatment {
	var days []DayOfTreatment
	for _, c := range n.checks() {
		if len(days) == 0 || days[len(days)-1].On != c.On {
			days = append(days, DayOfTreatment{Day: dayOf(n.Begun, c.On), On: c.On, Clear: true})
		}
		d := &days[len(days)-1]
		d.Found = append(d.Found, c)
		d.Clear = d.Clear && c.Clear()
	}
	return days
}

func dayOf(begun, on string) int {
	days, ok := horse.DaysBetween(begun, on)
	if !ok || days < 0 {
		return -1
	}
	return days
}

func (n BodyNote) check(path string, today string, f *faults) {
	f.past(path+"/since", n.Since, today)
	f.past(path+"/begun", n.Begun, today)
	f.past(path+"/cleared_on", n.ClearedOn, today)
	f.past(path+"/vet_saw", n.VetSaw, today)
	f.within(path+"/days", n.Days, 1, 365, "days")
	f.short(path+"/note", n.Note, 300)
	f.short(path+"/cleared_by", n.ClearedBy, 120)
	f.few(path+"/checks", len(n.Checks), 60)
	f.few(path+"/released", len(n.Released), 60)
	for id, c := range n.Checks {
		f.past(fmt.Sprintf("%s/checks/%s/on", path, id), c.On, today)
	}
	for step, l := range n.Released {
		at := fmt.Sprintf("%s/released/%s", path, step)
		f.past(at+"/on", l.On, today)
		f.short(at+"/by", l.By, 120)
	}
}

// ByHand reports whether an item is pressed with the fingers at each check (part
// 3, B).
func ByHand(item horse.BodyItem) bool { return item == horse.Belly || item == horse.Back }

// DatedBy is the field of a body item that says since when it is in a state;
// empty: that state has no date.
func DatedBy(state horse.BodyState) string {
	switch state {
	case horse.Suspect:
		return "since"
	case horse.InTreatment:
		return "begun"
	case horse.Cleared:
		return "cleared_on"
	}
	return ""
}
