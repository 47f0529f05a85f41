package diary

import (
	"cmp"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// DueKind is what a date stands for.
type DueKind string

// What falls due (part 7).
const (
	DueRecheck  DueKind = "recheck"
	DueReferral DueKind = "referral"
	DueRound    DueKind = "round"    // care that comes round
	Deadline    DueKind = "deadline" // by which a horse is needed
)

// A Due is what is to be looked at, asked or reached by a day.
type Due struct {
	Kind DueKind
	Name string // of the horse
	On   string // date
	Says phrase.Message
}

// A Coming is a visit of the next day.
type Coming struct {
	Horses []string // names
	Yard   string   // name; empty: none
	At     string   // 08:40; empty: no time yet
	Leave  string   // when to leave for it; empty: whoever reads it does not drive
	Mins   int
	Pencil bool // proposed, not agreed
}

// A Letter tells in the evening what stands on the next day and what falls due.
type Letter struct {
	Subject phrase.Message
	Parts   []LetterPart
}

// A LetterPart is a heading with its lines.
type LetterPart struct {
	Head  phrase.Message
	Lines []phrase.Message
}

// How many days ahead a letter tells of what falls due, and of the day by which a horse
// is needed.
const (
	AheadDue   = 7
	AheadStake = 14
)

// Evening makes the letter of an evening. False: there is none. A letter is written for a
// visit on the next day, and when something comes into view, is due on the next day, or
// has just passed, and then once a week: not each evening for the same thing. Once
// written it tells all that is late or in view.
func Evening(today string, next []Coming, dues []Due) (Letter, bool) {
	calls := len(next) > 0
	parts := map[string][]phrase.Message{}
	n := 0
	dues = slices.SortedStableFunc(slices.Values(dues), func(a, b Due) int { return cmp.Or(cmp.Compare(a.On, b.On), cmp.Compare(a.Name, b.Name)) })
	for _, d := range dues {
		part := inView(d, today)
		if part == "" {
			continue
		}
		n++
		parts[part] = append(parts[part], d.line())
		calls = calls || Reminds(d, today)
	}
	if !calls {
		return Letter{}, false
	}
	tomorrow := phrase.Date(horse.DayAfter(today, 1))
	l := Letter{Subject: phrase.Of(subject(len(next), n), phrase.Args{"on": tomorrow, "visits": len(next), "due": n})}
	visits := make([]phrase.Message, 0, len(next))
	for _, c := range next {
		visits = append(visits, c.line())
	}
	parts["tomorrow"] = visits
	for _, part := range []string{"tomorrow", "late", "soon", "stake"} {
		if lines := parts[part]; len(lines) > 0 {
			l.Parts = append(l.Parts, LetterPart{phrase.Of("letter.head."+part, phrase.Args{"on": tomorrow}), lines})
		}
	}
	return l, true
}

// Reminds reports whether a date alone is worth a letter on an evening: as it comes into
// view, the day before it, and, of what is not done, the day after and each week from
// then.
func Reminds(d Due, today string) bool {
	days, dated := horse.DaysBetween(today, d.On)
	ahead := AheadDue
	if d.Kind == Deadline {
		ahead = AheadStake
	}
	return dated && (days == ahead || days == 1 || d.Kind != Deadline && days < 0 && (-days-1)%7 == 0)
}

// inView is the part of a letter that tells of a date; empty: none does.
func inView(d Due, today string) string {
	days, dated := horse.DaysBetween(today, d.On)
	switch {
	case !dated:
		return ""
	case d.Kind == Deadline && days >= 0 && days <= AheadStake:
		return "stake"
	case d.Kind == Deadline || days > AheadDue:
		return ""
	case days < 0:
		return "late"
	}
	return "soon"
}

func subject(visits, due int) string {
	switch {
	case visits == 0:
		return "letter.subject.due"
	case due == 0:
		return "letter.subject.visits"
	}
	return "letter.subject.both"
}

func (d Due) line() phrase.Message {
	args := phrase.Args{"horse": d.Name, "says": d.Says, "on": phrase.Date(d.On)}
	switch d.Kind {
	case DueRecheck:
		return phrase.Of("letter.due.recheck", args) // it says its day itself
	case Deadline:
		args["goal"] = d.Says.Args["goal"]
		return phrase.Of("letter.due.needed", args)
	}
	return phrase.Of("letter.due", args)
}

func (c Coming) line() phrase.Message {
	args := phrase.Args{"at": c.At, "horses": c.Horses, "minutes": c.Mins, "where": "", "leave": "", "pencil": ""}
	if c.At == "" {
		args["at"] = phrase.Of("letter.no_time", nil)
	}
	if c.Yard != "" {
		args["where"] = phrase.Of("letter.where", phrase.Args{"yard": c.Yard})
	}
	if c.Leave != "" {
		args["leave"] = phrase.Of("letter.leave", phrase.Args{"at": c.Leave})
	}
	if c.Pencil {
		args["pencil"] = phrase.Of("letter.pencil", nil)
	}
	return phrase.Of("letter.visit", args)
}
