// Package attention says what of a case wants attention, and how soon (part 8):
// the notes in the margin of the caseload.
package attention

import (
	"cmp"
	"slices"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
)

type signs struct{}

func (signs) Words() []string {
	return []string{"alarm", "ring", "look", "down", "fork", "begin", "rope"}
}

// Sign is what is drawn beside a note: what kind of act it asks for.
type Sign = horse.Word[signs]

// The signs.
var (
	Alarm = horse.MustWord[signs]("alarm")
	ring  = horse.MustWord[signs]("ring")
	look  = horse.MustWord[signs]("look")
	down  = horse.MustWord[signs]("down")
	fork  = horse.MustWord[signs]("fork")
	begin = horse.MustWord[signs]("begin")
	rope  = horse.MustWord[signs]("rope")
)

// A Note is something that wants attention (part 8): what to do, and the fact
// that asks for it. The lower the rank, the sooner.
type Note struct {
	Rank int            `json:"rank" doc:"1 first"`
	Sign Sign           `json:"sign" doc:"what is drawn beside it"`
	Does phrase.Message `json:"does" doc:"what to do"`
	Say  phrase.Message `json:"say" doc:"the fact that asks for it"`
	To   Place          `json:"to" doc:"where it is answered"`

	fact string // what stays of the fact while its days are counted on; empty: all of it
}

// Basis tells whether two notes are of the same fact. A count of days that goes on, or
// a chance that falls with them, is none.
func (n Note) Basis() string {
	if n.fact != "" {
		return phrase.Of(n.Say.Key, phrase.Args{"fact": n.fact}).Fingerprint()
	}
	return n.Say.Fingerprint()
}

type places struct{}

func (places) Words() []string {
	return []string{"horse", "sessions", "session", "assessment", "plan", "homework", "incidents", "ready"}
}

// Place is the page on which a note is answered.
type Place = horse.Word[places]

// answered is where notes are answered, by what is drawn beside them; one whose key
// stands here is answered elsewhere.
var answered = map[string]string{
	"alarm": "sessions", "ring": "assessment", "look": "assessment", "down": "plan", "fork": "plan", "begin": "ready", "rope": "session",
	"attention.incident": "incidents", "attention.homework": "homework", "attention.practice": "homework", "unread.practice": "homework", "unread.horse": "horse",
}

// Noted is a note by its key in the book of sentences: the act under
// key.does, the fact under key.
func Noted(rank int, sign Sign, key string, args phrase.Args) Note {
	return Note{Rank: rank, Sign: sign, Does: phrase.Of(key+".does", args), Say: phrase.Of(key, args), To: horse.MustWord[places](cmp.Or(answered[key], answered[sign.String()]))}
}

type needs struct{}

func (needs) Words() []string {
	return []string{"first", "decide", "on course", "nearly done", "finished"}
}

// Need is what a case needs of the trainer; the caseload stands in this order.
type Need = horse.Word[needs]

// The needs.
var (
	First      = horse.MustWord[needs]("first")
	decide     = horse.MustWord[needs]("decide")
	onCourse   = horse.MustWord[needs]("on course")
	nearlyDone = horse.MustWord[needs]("nearly done")
	finished   = horse.MustWord[needs]("finished")
)

// NeedOf puts a case in its place: danger, pain and what is overdue first, then
// what wants a decision; of the others those that have one plank to go at most
// stand last.
func NeedOf(isFinished bool, notes []Note, b progress.Bridge) Need {
	switch {
	case isFinished:
		return finished
	case len(notes) > 0 && notes[0].Rank <= pressing:
		return First
	case len(notes) > 0:
		return decide
	case b.Steps > 1 && b.Steps-b.Met <= lastPlanks:
		return nearlyDone
	}
	return onCourse
}

const (
	pressing   = 2 // up to this rank a note comes first
	lastPlanks = 1 // to go, where a case is nearly done
)

// Aside is what stands quietly in the margin of a case that wants nothing: its
// date, or what is left of it. False where there is nothing to say.
func Aside(need Need, b progress.Bridge, g plan.Glance) (phrase.Message, bool) {
	switch {
	case need == nearlyDone && b.Met == b.Steps:
		return phrase.Of("attention.aside.met", nil), true
	case need == nearlyDone:
		return phrase.Of("attention.aside.last", phrase.Args{"n": b.Steps - b.Met}), true
	case need == onCourse && g.By != "":
		return phrase.Of("attention.aside.date", phrase.Args{"date": phrase.Date(g.By), "p": g.Percent()}), true
	}
	return phrase.Message{}, false
}

// How long is too long (days): nothing logged, a date close by, and nothing
// practised at home.
const (
	quietDays   = 14
	nearDays    = 21
	unpractised = 4
)

// Facts are what is looked at.
type Facts struct {
	Today     string
	Finished  bool
	NeededBy  string      // empty: there is no date
	Assessed  bool        // an assessment is there
	Baseline  bool        // the problem itself was asked once
	Newest    history.Day // the newest session; zero: there was none
	Running   bool        // a session that nobody has ended
	DaysOff   int         // since any logged work; -1: never
	Referrals []assess.Referral
	Rechecks  []assess.Recheck
	Rounds    []assess.Round
	Bridge    progress.Bridge
	Plan      plan.Glance
	Stopped   []phrase.Message // homework that a log has stopped
	Practised int              // days since somebody practised at home, where there is something to practise; 0: nobody yet, or today
}

// Of lists what wants attention, the most pressing first. A finished case wants
// none.
func Of(f Facts) []Note {
	notes := []Note{}
	if f.Finished {
		return notes
	}
	add := func(rank int, sign Sign, key string, args phrase.Args) {
		notes = append(notes, Noted(rank, sign, "attention."+key, args))
	}
	since := func(facts ...string) { notes[len(notes)-1].fact = strings.Join(facts, " ") }
	if f.Running {
		add(1, rope, "running", nil)
	}
	if events := f.Newest.Dangers(); len(events) > 0 {
		add(1, Alarm, "incident", phrase.Args{"what": kinds(events), "on": phrase.Date(f.Newest.On)})
	}
	for _, what := range f.Stopped {
		add(1, Alarm, "homework", phrase.Args{"what": what})
	}
	for _, r := range f.Referrals {
		key := "referral"
		switch {
		case r.Done:
			continue
		case !r.Item.IsZero() && r.Due < f.Today:
			key = "referral.late"
		case !r.Item.IsZero():
			key = "referral.item"
		}
		add(2, ring, key, phrase.Args{"who": r.Who, "what": r.Why, "item": assess.Named(r.Item), "due": phrase.Date(r.Due)})
	}
	for _, r := range f.Rechecks {
		if len(r.Found) == 0 && r.Due <= f.Today {
			add(2, look, "recheck", phrase.Args{"what": r.Reads})
		}
	}
	if !f.Assessed {
		add(3, look, "not_assessed", nil)
	}
	if names := names(f.Bridge, horse.Slipped); len(names) > 0 {
		add(4, down, "slipped", phrase.Args{"steps": names})
	}
	if f.NeededBy != "" {
		switch left, _ := horse.DaysBetween(f.Today, f.NeededBy); {
		case left < 0:
			add(5, fork, "date_passed", phrase.Args{"date": phrase.Date(f.NeededBy)})
		case f.Plan.Doubtful() && f.Assessed: // of a horse never assessed it says too little
			add(5, fork, "forecast", phrase.Args{"date": phrase.Date(f.Plan.By), "p": f.Plan.Percent(), "word": plan.WordFor(f.Plan.Done)})
			since(f.Plan.By, plan.WordFor(f.Plan.Done))
		case left <= nearDays:
			add(5, fork, "date_near", phrase.Args{"n": left, "met": f.Bridge.Met, "of": f.Bridge.Steps})
			since(f.NeededBy)
		}
	}
	if f.Assessed && f.DaysOff < 0 {
		add(6, begin, "not_begun", nil)
	}
	if f.DaysOff >= quietDays {
		add(6, begin, "quiet", phrase.Args{"n": f.DaysOff})
		since(horse.DayAfter(f.Today, -f.DaysOff))
	}
	if f.Practised >= unpractised {
		add(6, rope, "practice", phrase.Args{"n": f.Practised})
		since(horse.DayAfter(f.Today, -f.Practised))
	}
	if f.Assessed && !f.Baseline {
		add(7, look, "no_baseline", nil)
	}
	for _, r := range f.Rounds {
		if r.Due < f.Today {
			add(7, look, "round", phrase.Args{"what": r.Says})
		}
	}
	return notes
}

func kinds(events []assess.Event) []string {
	var list []string
	for _, e := range events {
		if !slices.Contains(list, e.Kind.String()) {
			list = append(list, e.Kind.String())
		}
	}
	return list
}

// names lists the planks and piers of a state.
func names(b progress.Bridge, state horse.StepState) []string {
	var list []string
	for _, p := range slices.Concat(b.Planks, b.Piers) {
		if p.State == state {
			list = append(list, p.Name)
		}
	}
	return list
}
