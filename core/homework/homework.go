// Package homework keeps account of what owners practise between the visits (part
// 7): what can be written down, what it stops, and what it keeps. A log is never
// changed: the same person puts it right with another one that stands in its place.
package homework

import (
	"slices"
	"time"

	"ivorybridge/core/arena"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type ends struct{}

func (ends) Words() []string { return []string{"on a good one", "on a poor one"} }

// End is how the practice ended.
type End = horse.Word[ends]

type feels struct{}

func (feels) Words() []string { return []string{"light", "medium", "firm"} }

// Feel is a level in an owner's words (part 2).
type Feel = horse.Word[feels]

// A Log is one practice at home of one step, or that there was none.
type Log struct {
	ID       string           `json:"id" maxLength:"36" doc:"given where it was written down"`
	Person   string           `json:"person" maxLength:"60" doc:"who practised"`
	Step     string           `json:"step" maxLength:"60" doc:"key of the step"`
	On       string           `json:"on" format:"date" doc:"day, as the phone had it"`
	At       int64            `json:"at" minimum:"0" maximum:"7258118400000" doc:"when it was written down, by the phone's clock, ms"`
	Done     bool             `json:"done" doc:"it was practised; false: not that day"`
	Minutes  int              `json:"minutes,omitempty" doc:"how long; 1 to 180"`
	Answers  []clearance.Said `json:"answers,omitempty" maxItems:"2" doc:"the first two answers"`
	Arousal  horse.Arousal    `json:"arousal,omitzero" doc:"how the horse was, mostly"`
	Lightest Feel             `json:"lightest,omitzero" doc:"the lightest feel that was enough"`
	Firmest  Feel             `json:"firmest,omitzero" doc:"the firmest feel that was needed"`
	Ended    End              `json:"ended,omitzero" doc:"how it ended"`
	Note     string           `json:"note,omitempty" maxLength:"500" doc:"anything else"`
	Replaces string           `json:"replaces,omitempty" maxLength:"36" doc:"id of the log that it puts right"`
}

// Limits of what is believed.
const (
	mostMinutes = 180
	mostDaysAgo = 60
	clockLag    = 10 * time.Minute // how far a phone's clock may be ahead
)

// over is the arousal from which practice stops: over the line (part 2).
const over = 3

// A Fault is a value that can't be, with its field.
type Fault struct{ Field, Say string }

// Check lists what can't be in a log that arrives at an instant of a day.
func (l Log) Check(today string, now time.Time) []Fault {
	var faults []Fault
	add := func(field, say string) { faults = append(faults, Fault{field, say}) }
	switch days, ok := horse.DaysBetween(l.On, today); {
	case !ok:
		add("on", "This is not a date. Choose the day that you practised.")
	case days < 0 || l.At > now.Add(clockLag).UnixMilli():
		add("on", "That is still to come. Check the date and the clock of your phone.")
	case days > mostDaysAgo:
		add("on", "That is more than 60 days ago. Tell your trainer instead.")
	}
	if !l.Done {
		return faults
	}
	if l.Minutes < 1 || l.Minutes > mostMinutes {
		add("minutes", "Say how many minutes: 1 to 180.")
	}
	if !l.Arousal.Noted() {
		add("arousal", "Say how the horse was, mostly: one of the five.")
	}
	if !l.Lightest.IsZero() && !l.Firmest.IsZero() && l.Lightest.Rank() > l.Firmest.Rank() {
		add("firmest", "The firmest feel can't be lighter than the lightest. Choose again.")
	}
	return faults
}

// May reports whether a person may write down practice of a step on a day, by how far
// they are with it: cleared, or cleared before it lapsed, or before a log stopped it.
// What was done before a clearance ended is kept though it arrives after.
func May(states []clearance.State, person, step, on string) bool {
	i := slices.IndexFunc(states, func(s clearance.State) bool { return s.Person == person && s.Step == step })
	if i < 0 {
		return false
	}
	s := states[i]
	return s.Cleared || s.Earned || s.Lapsed >= on
}

// Stops reports whether the log stops homework on its step: the horse was over the
// line, or worse.
func (l Log) Stops() bool { return l.Done && l.Arousal.Noted() && l.Arousal.Int() >= over }

// Keeps reports whether the log counts towards keeping a step: the first two
// answers were yes.
func (l Log) Keeps() bool {
	return l.Done && len(l.Answers) == 2 && l.Answers[0] == clearance.Yes && l.Answers[1] == clearance.Yes
}

// Resumed says that homework on a step may go on in spite of a log that stopped it.
type Resumed struct {
	Log    string `json:"log" maxLength:"36" doc:"id of the log that stopped it"`
	Reason string `json:"reason" maxLength:"500" doc:"why it may go on"`
}

// A Stop is homework on a step that a log has stopped.
type Stop struct {
	Step    string         `json:"step" doc:"key of the step"`
	Log     string         `json:"log" doc:"id of the log that stopped it"`
	Person  string         `json:"person" doc:"who practised"`
	On      string         `json:"on" format:"date" doc:"the day"`
	Arousal horse.Arousal  `json:"arousal" doc:"how the horse was"`
	Says    phrase.Message `json:"says" doc:"what happened"`
}

// A Standing is what the logs of a horse come to.
type Standing struct {
	Logs  []Log  // those that stand, by day, the oldest first
	Stops []Stop // open ones, the oldest first
}

// Stand reads the logs of a horse: one that was put right no longer counts, and a
// stop holds until the trainer lets the step go on.
func Stand(logs []Log, resumed []Resumed) Standing {
	var s Standing
	replaced := map[string]bool{}
	for _, l := range logs {
		if l.Replaces != "" {
			replaced[l.Replaces] = true
		}
	}
	for _, l := range logs {
		if !replaced[l.ID] {
			s.Logs = append(s.Logs, l)
		}
	}
	slices.SortStableFunc(s.Logs, func(a, b Log) int {
		if a.On != b.On {
			if a.On < b.On {
				return -1
			}
			return 1
		}
		return int(min(max(a.At-b.At, -1), 1))
	})
	for _, l := range s.Logs {
		if l.Stops() && !slices.ContainsFunc(resumed, func(r Resumed) bool { return r.Log == l.ID }) {
			s.Stops = append(s.Stops, Stop{
				Step: l.Step, Log: l.ID, Person: l.Person, On: l.On, Arousal: l.Arousal,
				Says: phrase.Of("homework.stopped", phrase.Args{"mood": phrase.Of("arousal."+l.Arousal.String(), nil), "on": phrase.Date(l.On)}),
			})
		}
	}
	return s
}

// Until are the logs of days up to one day.
func Until(logs []Log, day string) []Log {
	return slices.DeleteFunc(slices.Clone(logs), func(l Log) bool { return l.On > day })
}

// Stopped is the newest stop of a step.
func (s Standing) Stopped(step string) (Stop, bool) {
	for _, one := range slices.Backward(s.Stops) {
		if one.Step == step {
			return one, true
		}
	}
	return Stop{}, false
}

// Done counts the practices, those of several steps on one day once.
func (s Standing) Done() int {
	days := map[string]bool{}
	for _, l := range s.Logs {
		if l.Done {
			days[l.Person+" "+l.On] = true
		}
	}
	return len(days)
}

// Last is the newest day that somebody practised; empty: nobody did.
func (s Standing) Last() string {
	for _, l := range slices.Backward(s.Logs) {
		if l.Done {
			return l.On
		}
	}
	return ""
}

// Lately says what was practised on the newest day, if that was today or yesterday: how
// long, and how the horse was at its worst.
func (s Standing) Lately(today string) (phrase.Message, bool) {
	last := s.Last()
	if days, ok := horse.DaysBetween(last, today); !ok || days > 1 {
		return phrase.Message{}, false
	}
	minutes, worst := 0, 0
	for _, l := range s.Logs {
		if l.Done && l.On == last {
			minutes, worst = minutes+l.Minutes, max(worst, l.Arousal.Int())
		}
	}
	key := "home.lately.yesterday"
	if last == today {
		key = "home.lately.today"
	}
	return phrase.Of(key, phrase.Args{"n": minutes, "mood": phrase.Of("arousal."+horse.ArousalOf(worst).String(), nil)}), true
}

// Keep makes met steps kept that an owner kept: two yes on a later day than the one
// it was last worked with the trainer. A step that was stopped since is left as it
// is.
func (s Standing) Keep(known []arena.Known) []arena.Known {
	if len(s.Logs) == 0 {
		return known
	}
	kept := slices.Clone(known)
	for i, k := range kept {
		if k.State != horse.Met {
			continue
		}
		if _, stopped := s.Stopped(k.Step); stopped {
			continue
		}
		for _, l := range s.Logs {
			if l.Step == k.Step && l.Keeps() && l.On > k.Last {
				kept[i].State, kept[i].KeptAt = horse.Kept, l.On
				break
			}
		}
	}
	return kept
}
