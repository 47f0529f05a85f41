package plan

import (
	"sort"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// help searches what would help against the date (part 7): more visits, each
// number a week up to 7; homework on the days between, if an owner is cleared
// or can be; the most steps that reach 0.85 by the date; the first later day
// that reaches it.
func (w Work) help() []Help {
	list := []Help{}
	add := func(h Help, args phrase.Args) {
		h.Word = WordFor(h.Done)
		args["p"], args["word"] = percent(h.Done), h.Word
		h.Says, h.Name = phrase.Of("help."+h.Kind.String(), args), phrase.Of("help."+h.Kind.String()+".name", args)
		list = append(list, h)
	}
	found := false
	for n := w.PerWeek + 1; n <= mostVisits; n++ {
		more := w
		more.PerWeek = n
		h := Help{Kind: MoreVisits, PerWeek: n, Done: w.doneBy(w.By, w.Remaining, n, w.Homework)}
		if h.Best = !found && (h.Done >= enough || n == mostVisits); h.Best {
			found, h.Days = true, more.days(w.Remaining)
		}
		add(h, phrase.Args{"n": n})
	}
	if n := mostVisits - w.PerWeek; w.CanClear && n > w.Homework {
		more := w
		more.Homework = n
		h := Help{Kind: OwnerHomework, Homework: n, Done: w.doneBy(w.By, w.Remaining, w.PerWeek, n), Days: more.days(w.Remaining), Best: true}
		if !w.Cleared {
			waits := phrase.Of("help.waits", nil)
			h.Waits = &waits
		}
		add(h, phrase.Args{"n": n})
	}
	if steps := w.smaller(); steps > 0 {
		h := Help{Kind: SmallerGoal, Steps: steps, Done: w.doneBy(w.By, steps, w.PerWeek, w.Homework), Days: w.days(steps), Best: true}
		name := ""
		if steps <= len(w.StepsToGo) {
			h.Until, name = w.StepsToGo[steps-1].Key, w.StepsToGo[steps-1].Name
		}
		key := phrase.Args{"n": steps, "of": w.Remaining, "until": name}
		add(h, key)
	}
	if day, ok := w.later(); ok {
		add(Help{Kind: LaterDate, By: day, Done: w.doneBy(day, w.Remaining, w.PerWeek, w.Homework), Days: w.days(w.Remaining), Best: true}, phrase.Args{"by": phrase.Date(day)})
	}
	return list
}

// smaller is the most steps, of those to go, that reach 0.85 by the date; 0 if
// not one does. The chance falls with every step, so it can be searched.
func (w Work) smaller() int {
	return sort.Search(w.Remaining, func(i int) bool {
		return w.doneBy(w.By, i+1, w.PerWeek, w.Homework) < enough
	})
}

// later is the first day after the date that reaches 0.85.
func (w Work) later() (string, bool) {
	days := 1 + sort.Search(farthest, func(i int) bool {
		return w.doneBy(horse.DayAfter(w.By, i+1), w.Remaining, w.PerWeek, w.Homework) >= enough
	})
	return horse.DayAfter(w.By, days), days <= farthest
}
