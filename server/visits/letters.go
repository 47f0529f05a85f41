package visits

import (
	"bytes"
	"context"
	"slices"
	"strings"

	"ivorybridge/core/diary"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/calendar"
	"ivorybridge/store"
)

// A Letter is what a reader is told in the evening.
type Letter struct {
	Subject  string
	Body     string
	Calendar string // the visits it tells of, for the reader's own calendar
}

// Letter writes what a reader is told on the evening of the caller's day; false: there is
// nothing to tell. A user is told of the own visits and of all horses in work, a person of
// the agreed visits to the own horses and what is due of them.
func (s *Service) Letter(ctx context.Context, c api.Caller, r store.Reader) (Letter, bool, error) {
	tomorrow := horse.DayAfter(c.Today(), 1)
	visits, err := c.View.Visits(ctx, c.Practice, tomorrow, tomorrow)
	if err != nil {
		return Letter{}, false, err
	}
	beside, err := c.View.BesideVisits(ctx, c.Practice, c.Today(), horse.DayAfter(c.Today(), diary.AheadStake))
	if err != nil {
		return Letter{}, false, err
	}
	dues, err := s.due(ctx, c)
	if err != nil {
		return Letter{}, false, err
	}
	dues = append(slices.Clip(dues), deadlines(beside.Deadlines)...)
	var next []diary.Coming
	if r.Person == "" {
		next, visits, err = s.drivenBy(ctx, c, r.User, visits)
	} else {
		next, visits, dues, err = s.ownOf(ctx, c, r.Person, visits, dues)
	}
	if err != nil {
		return Letter{}, false, err
	}
	told := make([]diary.Due, 0, len(dues))
	for _, d := range dues {
		told = append(told, diary.Due{Kind: diary.DueKind(d.Kind), Name: d.Name, On: d.On, Says: d.Says})
	}
	letter, any := diary.Evening(c.Today(), next, told)
	if !any {
		return Letter{}, false, nil
	}
	l := Letter{Subject: api.Clip(c.Home.Name+", "+c.Book.Say(letter.Subject), 300), Body: plain(c.Book, letter)}
	if r.Person != "" && len(visits) > 0 {
		var out bytes.Buffer
		var events []calendar.Event
		for _, v := range visits {
			events = append(events, s.eventOf(c, v, true))
		}
		if err := calendar.Write(&out, c.Home.Name, events); err != nil {
			return Letter{}, false, err
		}
		l.Calendar = out.String()
	}
	return l, true, nil
}

// drivenBy are a user's own visits of the next day in driving order, each with when to
// leave.
func (s *Service) drivenBy(ctx context.Context, c api.Caller, user string, visits []store.Visit) ([]diary.Coming, []store.Visit, error) {
	visits = slices.DeleteFunc(visits, func(v store.Visit) bool { return v.Cancelled != "" || v.Who.ID != user })
	begins, err := c.View.DayBegins(ctx, c.Practice, user)
	if err != nil {
		return nil, nil, err
	}
	_, roads, err := c.View.Roads(ctx, c.Practice)
	if err != nil {
		return nil, nil, err
	}
	var next []diary.Coming
	for _, leg := range s.run(begins, visits, roads).Legs {
		v := visits[slices.IndexFunc(visits, func(v store.Visit) bool { return v.ID == leg.Visit })]
		one := coming(v, v.Horses)
		one.Pencil = !v.Agreed
		if leg.Drive > 0 {
			one.Leave = clockOf(leg.Leave)
		}
		next = append(next, one)
	}
	return next, visits, nil
}

// ownOf are the agreed visits to a person's horses, which name no others, and what is due
// of them.
func (s *Service) ownOf(ctx context.Context, c api.Caller, person string, visits []store.Visit, dues []Due) ([]diary.Coming, []store.Visit, []Due, error) {
	ids, err := c.View.HorsesOf(ctx, c.Practice, person)
	if err != nil {
		return nil, nil, nil, err
	}
	var next []diary.Coming
	var own []store.Visit
	for _, v := range visits {
		v.Horses = slices.DeleteFunc(slices.Clone(v.Horses), func(h store.Named) bool { return !slices.Contains(ids, h.ID) })
		if v.Agreed && v.Cancelled == "" && len(v.Horses) > 0 {
			next, own = append(next, coming(v, v.Horses)), append(own, v)
		}
	}
	dues = slices.DeleteFunc(slices.Clone(dues), func(d Due) bool { return !slices.Contains(ids, d.Horse) })
	return next, own, dues, nil
}

func coming(v store.Visit, horses []store.Named) diary.Coming {
	one := diary.Coming{Yard: v.Yard.Name, Mins: v.Minutes}
	if v.At != nil {
		one.At = v.At.String()
	}
	for _, h := range horses {
		one.Horses = append(one.Horses, h.Name)
	}
	return one
}

// deadlines are the days by which horses are needed, as what is due.
func deadlines(list []store.Deadline) (dues []Due) {
	for _, d := range list {
		dues = append(dues, Due{Kind: string(diary.Deadline), Horse: d.Horse, Name: d.Name, On: d.On, Says: phrase.Of("due.deadline", phrase.Args{"goal": d.Goal})})
	}
	return dues
}

// plain is a letter as text.
func plain(book phrase.Book, l diary.Letter) string {
	var out strings.Builder
	for _, p := range l.Parts {
		out.WriteString(book.Say(p.Head) + "\n")
		for _, m := range p.Lines {
			out.WriteString("  " + book.Sentence(m) + "\n")
		}
		out.WriteString("\n")
	}
	return api.Clip(out.String(), mostLetter)
}

// mostLetter is how many letters of text one letter has at most.
const mostLetter = 14000
