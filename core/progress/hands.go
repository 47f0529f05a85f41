package progress

import (
	"cmp"
	"slices"
	"strings"

	"ivorybridge/core/history"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trend"
)

// A Hand is how one person's releases came over the sessions (part 8: handler): a
// thing to practise, no fault.
type Hand struct {
	Person  string         `json:"person" doc:"as the tracks name them"`
	Name    string         `json:"name,omitempty" doc:"in words, where it is known"`
	Of      int            `json:"of" doc:"releases"`
	OnTry   trend.Share    `json:"on_try" doc:"on the try"`
	Late    int            `json:"late" doc:"a second or more after it"`
	Wrong   int            `json:"wrong" doc:"at the wrong moment"`
	FromOne trend.Share    `json:"from_one" doc:"asks begun at 1, of those whose first level was noted"`
	Points  []trend.Point  `json:"points" doc:"share on the try, session by session, in hundredths"`
	Says    phrase.Message `json:"says" doc:"what it comes to"`
}

// leastReleases is how many releases say something of a hand.
const leastReleases = 10

// hands are the people who held the rope, the one with most releases first.
func (r reader) hands() []Hand {
	list := []Hand{}
	all := map[string]*history.Timing{}
	for i, f := range r.sessions {
		here := map[string]*history.Timing{}
		for _, a := range f.Asks {
			if !r.wants(a.Ask) {
				continue
			}
			for _, t := range a.Hands {
				add(all, t)
				add(here, t)
			}
		}
		for person, t := range here {
			at := slices.IndexFunc(list, func(h Hand) bool { return h.Person == person })
			if at < 0 {
				at, list = len(list), append(list, Hand{Person: person})
			}
			list[at].Points = append(list[at].Points, trend.Point{X: i + 1, Y: float64(100 * t.OnTry / t.Of)})
		}
	}
	for i, h := range list {
		t := all[h.Person]
		list[i].Of, list[i].Late, list[i].Wrong = t.Of, t.Late, t.Wrong
		list[i].OnTry, list[i].FromOne = trend.ShareOf(t.OnTry, t.Of), trend.ShareOf(t.FromOne, t.Starts)
		key := "progress.hands.well"
		switch {
		case t.Of < leastReleases:
			key = "progress.hands.early"
		case t.Late > t.Wrong && t.OnTry*5 < t.Of*4:
			key = "progress.hands.late"
		case t.OnTry*5 < t.Of*4:
			key = "progress.hands.wrong"
		}
		list[i].Says = phrase.Of(key, phrase.Args{"on": t.OnTry, "of": t.Of, "late": t.Late, "wrong": t.Wrong})
	}
	slices.SortFunc(list, func(a, b Hand) int { return cmp.Or(b.Of-a.Of, strings.Compare(a.Person, b.Person)) })
	return list
}

func add(to map[string]*history.Timing, t history.Timing) {
	sum := to[t.Person]
	if sum == nil {
		sum = &history.Timing{Person: t.Person}
		to[t.Person] = sum
	}
	sum.Of, sum.OnTry, sum.Late, sum.Wrong = sum.Of+t.Of, sum.OnTry+t.OnTry, sum.Late+t.Late, sum.Wrong+t.Wrong
	sum.Starts, sum.FromOne = sum.Starts+t.Starts, sum.FromOne+t.FromOne
}
