package diary

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// within is between how many days after a session the next visit should be, by what
// the session was told to ask for (part 7).
var within = map[string][2]int{"next.danger": {1, 2}, "next.over": {1, 2}, "next.soon": {1, 2}, "next.days": {2, 4}}

// Window is from which day to which the next visit should be, by what the newest
// session, of that day, asked for. False: it asked for none before something is
// cleared, or for nothing.
func Window(asked phrase.Message, last string) (from, to string, ok bool) {
	days, ok := within[asked.Key]
	if !ok || last == "" {
		return "", "", false
	}
	return horse.DayAfter(last, days[0]), horse.DayAfter(last, days[1]), true
}

// After is what the next visit is proposed from.
type After struct {
	Asked  phrase.Message // what the newest session asked for
	Last   string         // its day
	Today  string
	Yard   string              // id
	Rounds []Round             // of the trainer; none: any day will do
	Busy   map[string][]Booked // what stands on each day already
	Young  bool                // never two hard sessions on one day
	Needed string              // the day by which it is needed; empty: none
	Home   bool                // the owner may practise meanwhile
}

// Booked is what stands in the diary on a day.
type Booked struct {
	Yard string
	Own  bool // a visit to the same horse
}

// A Proposal is the day for the next visit, with the reasons.
type Proposal struct {
	On      string           `json:"on,omitempty" format:"date" doc:"absent: none is proposed"`
	From    string           `json:"from,omitempty" format:"date" doc:"first day that would do"`
	To      string           `json:"to,omitempty" format:"date" doc:"last day that would do"`
	Reasons []phrase.Message `json:"reasons" doc:"why"`
}

// crowded is how many visits make a day a full one.
const crowded = 5

// Propose gives the day for the next visit (part 7): as the newest session asked for,
// on the trainer's rounds where there are any, on a day that already leads to that
// yard, else on the emptiest.
func Propose(a After) Proposal {
	p := Proposal{Reasons: []phrase.Message{}}
	say := func(key string, args phrase.Args) { p.Reasons = append(p.Reasons, phrase.Of("propose."+key, args)) }
	from, to, ok := Window(a.Asked, a.Last)
	if !ok {
		if a.Asked.Key == "next.pain" {
			say("pain", a.Asked.Args)
			return p
		}
		say("first", nil)
		from, to = a.Today, horse.DayAfter(a.Today, 6)
	} else {
		say(a.Asked.Key, nil)
	}
	if to < a.Today {
		say("late", phrase.Args{"to": phrase.Date(to)})
		to = horse.DayAfter(a.Today, 2)
	}
	from = max(from, a.Today)
	if from == a.Last && a.Young {
		from = horse.DayAfter(from, 1)
		to = max(to, from)
		say("young", nil)
	}
	p.From, p.To = from, to
	if len(a.Rounds) > 0 {
		p.round(a, say)
	} else {
		p.day(a, say)
	}
	if a.Needed != "" && p.On > a.Needed {
		say("past_date", phrase.Args{"by": phrase.Date(a.Needed)})
	}
	return p
}

// round takes the next day that the rounds lead there.
func (p *Proposal) round(a After, say func(string, phrase.Args)) {
	on, r, ok := Next(a.Rounds, a.Yard, p.From)
	if !ok {
		say("no_round", nil)
		p.day(a, say)
		return
	}
	p.On = on
	say("round", phrase.Args{"round": r.Name})
	if on > p.To {
		key := "round.alone"
		if a.Home {
			key = "round.home"
		}
		say(key, nil)
	}
}

// day takes, of the days that would do, one that leads to that yard anyway, else the
// emptiest, else the first.
func (p *Proposal) day(a After, say func(string, phrase.Args)) {
	best, there := "", false
	for on := p.From; on <= p.To; on = horse.DayAfter(on, 1) {
		booked := a.Busy[on]
		if slices.ContainsFunc(booked, func(b Booked) bool { return b.Own }) {
			continue // it is visited that day
		}
		same := len(booked) < crowded && slices.ContainsFunc(booked, func(b Booked) bool { return b.Yard == a.Yard && a.Yard != "" })
		switch {
		case best == "", same && !there, same == there && len(booked) < len(a.Busy[best]):
			best, there = on, same
		}
	}
	p.On = best
	switch {
	case best == "":
		p.On = p.From
		say("taken", nil)
	case there:
		say("same_yard", nil)
	case len(a.Busy[best]) >= crowded:
		say("full", phrase.Args{"n": len(a.Busy[best])})
	}
}
