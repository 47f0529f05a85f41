package assess

import (
	"cmp"
	"slices"
	"time"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Round is care that comes round: teeth, feet, saddle (part 7). Its day may be in the
// past: then it was not done, or not written down.
type Round struct {
	Kind string         `json:"kind" enum:"teeth,hooves,saddle,gelding" doc:"what comes round"`
	Last string         `json:"last" format:"date" doc:"when it was done last"`
	Due  string         `json:"due" format:"date" doc:"when it is due again"`
	Says phrase.Message `json:"says" doc:"the same, as a sentence"`
}

// After how long care is due again (part 7): teeth after a year, after half of one where
// the mouth was ever in trouble; hooves after eight weeks at the latest; a saddle after
// half a year. Half a year after gelding it no longer counts as a stallion.
const (
	teethMonths   = 12
	mouthMonths   = 6
	hoofDays      = 56
	saddleMonths  = 6
	geldingMonths = 6
)

// Rounds lists the care that comes round, by its days: of what has a date, and of nothing
// else. That a gelding no longer counts as a stallion is told until its day.
func Rounds(a Assessment, r Record, today string) []Round {
	teeth := teethMonths
	if state := a.BodyOf(horse.Mouth); ill(state) || state == horse.Cleared {
		teeth = mouthMonths
	}
	saddle := ""
	if a.BodyOf(horse.SaddleFit) == horse.Cleared {
		saddle = a.Body[horse.SaddleFit].ClearedOn
	}
	list := []Round{}
	add := func(kind, last string, months, days int) {
		day, err := time.Parse(time.DateOnly, last)
		if err != nil {
			return
		}
		due := day.AddDate(0, months, days).Format(time.DateOnly)
		if kind == "gelding" && due < today {
			return
		}
		args := phrase.Args{"last": phrase.Date(last), "due": phrase.Date(due)}
		list = append(list, Round{kind, last, due, phrase.Of("round."+kind, args)})
	}
	add("teeth", a.Checkups.Dental, teeth, 0)
	add("hooves", a.Checkups.Hoof, 0, hoofDays)
	add("saddle", saddle, saddleMonths, 0)
	add("gelding", r.Gelded, geldingMonths, 0)
	slices.SortStableFunc(list, func(x, y Round) int { return cmp.Compare(x.Due, y.Due) })
	return list
}
