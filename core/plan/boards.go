package plan

import "ivorybridge/core/horse"

// curvePoints is about how many points the chances are told at.
const curvePoints = 28 // mutate: of the drawing

// curve tells the chances day by day to a little beyond the upper end and the
// date.
func (w Work) curve(f *Forecast) {
	if f.Days == nil {
		return
	}
	days := max(between(w.Today, f.Days.High), between(w.Today, w.By))
	days += max(days/8, 7) // mutate: of the drawing
	for i := range curvePoints + 1 {
		on := horse.DayAfter(w.Today, days*i/curvePoints)
		f.Curve = append(f.Curve, Chance{On: on, Done: w.doneBy(on, w.Remaining, w.PerWeek, w.Homework)})
	}
}

// mostBoards is about how many visits are drawn; of more, every second or third.
const mostBoards = 24 // mutate: of the drawing

// boards tells the chance after each visit to come, up to the end of a time line
// that holds the date, this forecast and what would help.
func (w Work) boards(f *Forecast) {
	f.Boards = []Chance{}
	if f.Remaining == 0 || f.Days == nil {
		return
	}
	f.Till = max(w.By, f.Days.High)
	for _, h := range f.Help {
		if h.Best && h.Days != nil {
			f.Till = max(f.Till, h.By, h.Days.High)
		}
	}
	f.Till = horse.DayAfter(f.Till, max(between(w.Today, f.Till)/16, 2)) // mutate: of the drawing
	visits := visitsIn(between(w.Today, f.Till), w.PerWeek)
	each := max((visits+mostBoards-1)/mostBoards, 1)
	for n := each; n <= visits; n += each {
		on := horse.DayAfter(w.Today, (week*n+w.PerWeek-1)/w.PerWeek)
		f.Boards = append(f.Boards, Chance{On: on, Done: w.doneBy(on, w.Remaining, w.PerWeek, w.Homework)})
	}
}

const week = 7 // days
