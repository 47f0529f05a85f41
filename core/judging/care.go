package judging

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
)

// care carries the grade over the sessions: it falls one at a time, only after
// three sessions without an event (part 3).
func (f Facts) care(ladder catalog.Ladder, logged []assess.Event) (horse.Care, error) {
	graded := assess.Graded{Record: f.Record, Narrow: ladder.Narrow, Floor: ladder.Care}
	for _, d := range f.Assessments {
		graded.Assessments, graded.On = append(graded.Assessments, d.Doc), append(graded.On, d.On)
	}
	worked := make([]assess.WorkedDay, 0, len(f.History.Days))
	for _, d := range f.History.Days {
		worked = append(worked, assess.WorkedDay(d))
	}
	sessions, err := graded.Over(worked)
	if err != nil {
		return horse.Care{}, err
	}
	now, err := assess.RiskOf(assess.RiskInput{
		Today: f.Today, Record: f.Record, Assessment: f.assessmentOn(f.Today), Logged: slices.Concat(logged, f.seenBy(f.Today, f.Assessments)),
		Narrow: ladder.Narrow, Floor: ladder.Care,
	})
	if err != nil {
		return horse.Care{}, err
	}
	first := now.Care
	if len(sessions) > 0 {
		first = sessions[0].Care
	}
	return assess.Follow(first, sessions, now.Care), nil
}

// assessmentOn is the newest assessment of a day, or the first there is.
func (f Facts) assessmentOn(day string) assess.Assessment {
	var a assess.Assessment
	for i, d := range f.Assessments {
		if i == 0 || d.On <= day {
			a = d.Doc
		}
	}
	return a
}

// before is the assessment that the newest was begun from; nil: none.
func (f Facts) before() *assess.Assessment {
	if n := len(f.Assessments); n > 1 {
		return &f.Assessments[n-2].Doc
	}
	return nil
}

// SeenOn lists the dangerous things that an assessment saw on a day.
func (f Facts) SeenOn(day string) []assess.Event {
	return slices.DeleteFunc(f.seenBy(day, f.Assessments), func(e assess.Event) bool { return e.On != day })
}

// seenBy lists the dangerous things that assessments saw up to a day, each of
// the day on which it was seen first.
func (f Facts) seenBy(day string, list []assess.Dated) []assess.Event {
	var events []assess.Event
	var before assess.Assessment
	for i, d := range list {
		if i == 0 || d.On <= day {
			events = append(events, d.Doc.Seen(before, d.On)...)
		}
		before = d.Doc
	}
	return events
}

// unchangingFrom is after how many sessions with danger nothing has changed.
const unchangingFrom = 3

// unchanging reports danger in each of the last three sessions.
func (f Facts) unchanging() bool {
	days := f.History.Days
	if len(days) < unchangingFrom {
		return false
	}
	return !slices.ContainsFunc(days[len(days)-unchangingFrom:], func(d history.Day) bool { return len(d.Events) == 0 })
}
