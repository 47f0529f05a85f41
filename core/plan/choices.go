package plan

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Choices are what the trainer decides about a plan; what is left empty is as
// shipped, or as the assessment suggests.
type Choices struct {
	Goals     map[horse.Problem]Wanted `json:"goals,omitempty" doc:"what is wanted of a problem; one that is not named is wanted whole"`
	Schools   map[string]horse.School  `json:"schools,omitempty" doc:"school by ladder"`
	Settings  map[string]string        `json:"settings,omitempty" doc:"option by standing disagreement (part 4)"`
	Own       map[string]Used          `json:"own,omitempty" doc:"own ladders used, by the key of the ladder"`
	PerWeek   *int                     `json:"visits_per_week,omitempty" doc:"visits possible in a week; absent: 2"`
	Minutes   int                      `json:"visit_minutes,omitempty" doc:"how long a visit is driven for; 0: 45"`
	Homework  int                      `json:"homework_per_week,omitempty" doc:"homework sessions possible in a week"`
	By        string                   `json:"by,omitempty" maxLength:"10" doc:"a later date than the case's, as agreed"`
	Vehicle   string                   `json:"vehicle,omitempty" maxLength:"200" doc:"the trailer, and who brings it"`
	Cues      map[string]CueText       `json:"cues,omitempty" doc:"this horse's own cues, by their key"`
	Exception *Exception               `json:"exception,omitempty" doc:"ridden problem work with a young horse, by the lead trainer"`
	Aid       *Aid                     `json:"aid,omitempty" doc:"a tack aid for head position, for a while"`
}

// Aid is a tack aid as a temporary safety measure; the plan carries the day on
// which it comes off (part 4).
type Aid struct {
	What   string `json:"what" maxLength:"120" doc:"what is used"`
	Reason string `json:"reason" maxLength:"500" doc:"why, in the trainer's words"`
	Until  string `json:"until" maxLength:"10" doc:"day by which it is laid aside"`
}

// Wanted is what is wanted of one problem.
type Wanted struct {
	Ladder string `json:"ladder,omitempty" maxLength:"60" doc:"another ladder for the same problem"`
	Until  string `json:"until,omitempty" maxLength:"60" doc:"the plank where the goal is reached; empty: the ladder's last"`
	Ridden bool   `json:"ridden,omitempty" doc:"the goal is ridden, though its last plank is not"`
	Later  bool   `json:"later,omitempty" doc:"not in this plan"`
}

// Used is a version of an own ladder.
type Used struct {
	ID      string `json:"id" maxLength:"36" doc:"the own ladder's id"`
	Version int64  `json:"version" minimum:"1" doc:"its version"`
}

// CueText is how one cue is given to this horse; what is empty is as shipped.
type CueText struct {
	Body   string `json:"body,omitempty" maxLength:"200" doc:"what the body does"`
	Word   string `json:"word,omitempty" maxLength:"60" doc:"what is said"`
	InHand string `json:"in_hand,omitempty" maxLength:"200" doc:"what the hands do on the ground"`
	Ridden string `json:"ridden,omitempty" maxLength:"200" doc:"what the rider does"`
}

// Exception lets ridden problem work with a young horse go on for a time.
type Exception struct {
	Reason string `json:"reason" maxLength:"500" doc:"why, in the trainer's words"`
	Until  string `json:"until" maxLength:"10" doc:"day after which it no longer holds"`
	By     string `json:"by,omitempty" maxLength:"120" doc:"the lead trainer's name; set by the server"`
}

// usualVisits is how many visits a week are planned with where nobody said.
const usualVisits = 2

// Visits are the visits a week.
func (c Choices) Visits() int {
	if c.PerWeek == nil {
		return usualVisits
	}
	return *c.PerWeek
}

// usualMinutes is how long a visit is where nobody said.
const usualMinutes = 45

// Length is how long a visit is driven for, in minutes.
func (c Choices) Length() int { return cmp.Or(c.Minutes, usualMinutes) }

// Setting is the option chosen of a standing disagreement.
func (c Choices) Setting(one catalog.Choice) catalog.Option {
	if o, ok := one.Option(c.Settings[one.Key]); ok {
		return o
	}
	o, _ := one.Option(one.Default)
	return o
}

// A Fault is a choice that can't be, with its field.
type Fault struct{ Field, Say string }

// Check lists what can't be chosen.
func (c Choices) Check(cat *catalog.Catalog, today string) []Fault {
	var faults []Fault
	add := func(say, field string, args ...any) { faults = append(faults, Fault{fmt.Sprintf(field, args...), say}) }
	for _, p := range slices.SortedFunc(maps.Keys(c.Goals), byRank) {
		w := c.Goals[p]
		l, ok := cat.Ladder(w.Ladder)
		if w.Ladder != "" && (!ok || !slices.Contains(l.For, p)) {
			add("That ladder is not for this problem. Choose one from the list.", "goals.%s.ladder", p)
		}
		if s, ok := cat.Step(w.Until); w.Until != "" && (!ok || s.Link != "") {
			add("That is not a step to end on. Choose one from the list.", "goals.%s.until", p)
		}
	}
	for _, key := range slices.Sorted(maps.Keys(c.Schools)) {
		if l, ok := cat.Ladder(key); !ok || c.Schools[key].IsZero() || l.Kind == catalog.Foundation && !slices.Contains(l.Schools, c.Schools[key]) {
			add("That school is not for this ladder. Choose one from the list.", "schools.%s", key)
		}
	}
	for _, key := range slices.Sorted(maps.Keys(c.Settings)) {
		one, ok := cat.Methods.Choice(key)
		if _, known := one.Option(c.Settings[key]); !ok || !known || one.Record != "" {
			add("That is not one of the ways. Choose one from the list.", "settings.%s", key)
		}
	}
	if n := c.Visits(); n < 0 || n > 14 {
		add("Give a number of visits a week from 0 to 14.", "visits_per_week")
	}
	if c.Homework < 0 || c.Homework > 14 {
		add("Give a number of homework sessions a week from 0 to 14.", "homework_per_week")
	}
	if c.By != "" && !toCome(c.By, today) {
		add("Give a day to come, as year-month-day, or leave it empty.", "by")
	}
	if x := c.Exception; x != nil {
		if strings.TrimSpace(x.Reason) == "" {
			add("Say why this young horse is ridden all the same.", "exception.reason")
		}
		if !toCome(x.Until, today) {
			add("Give the day on which the exception ends, one to come.", "exception.until")
		}
	}
	if a := c.Aid; a != nil {
		if strings.TrimSpace(a.What) == "" || strings.TrimSpace(a.Reason) == "" {
			add("Say which aid it is, and why.", "aid.reason")
		}
		if !toCome(a.Until, today) {
			add("Give the day on which it comes off, one to come.", "aid.until")
		}
	}
	return faults
}

// toCome reports whether a text is a date, today or later.
func toCome(day, today string) bool {
	return len(day) == len(today) && horse.DayAfter(day, 0) == day && day >= today
}

func byRank(a, b horse.Problem) int { return cmp.Compare(a.Rank(), b.Rank()) }

// CueCard lists the cues that a plan's steps ask for, with this horse's own
// words in place of the shipped ones.
func (c Choices) CueCard(cat *catalog.Catalog, steps []string) []catalog.Cue {
	cues := []catalog.Cue{}
	for _, cue := range cat.Methods.Cues {
		if !slices.ContainsFunc(cue.Steps, func(key string) bool { return slices.Contains(steps, key) }) {
			continue
		}
		own := c.Cues[cue.Key]
		cue.Body = phrase.Slotted(cmp.Or(own.Body, string(cue.Body)))
		cue.Word = phrase.Slotted(cmp.Or(own.Word, string(cue.Word)))
		cue.InHand = phrase.Slotted(cmp.Or(own.InHand, string(cue.InHand)))
		cue.Ridden = phrase.Slotted(cmp.Or(own.Ridden, string(cue.Ridden)))
		cues = append(cues, cue)
	}
	return cues
}

// Decided is the option chosen of a standing disagreement, in the plan or on the
// horse's record.
func (c Choices) Decided(one catalog.Choice, record assess.Record) string {
	said := map[string]string{"bit_hung": record.BitHung.String(), "food": record.Food.String()}[one.Record]
	return cmp.Or(said, c.Setting(one).Key)
}
