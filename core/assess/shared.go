package assess

import (
	"reflect"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Shared is what holds for each problem of an assessment alike, so that it is said
// once.
type Shared struct {
	Causes   []horse.Cause    `json:"causes" doc:"that come to the same by the same findings, for two problems and more"`
	Telling  *Telling         `json:"telling,omitempty" doc:"the look that would tell most, where it is one and causes are shared"`
	Unlooked []phrase.Message `json:"unlooked" doc:"what was not looked at for any of them"`
	Order    []horse.Cause    `json:"order" doc:"all causes: what is likely for any problem first, what was not looked at last"`
}

func sharedOf(problems []ProblemResult) Shared {
	s := Shared{Causes: []horse.Cause{}, Unlooked: []phrase.Message{}, Order: ordered(problems)}
	if len(problems) == 0 {
		return s
	}
	first, others := problems[0], problems[1:]
	each := func(has func(ProblemResult) bool) bool {
		return !slices.ContainsFunc(others, func(p ProblemResult) bool { return !has(p) })
	}
	for _, look := range first.Unlooked {
		if each(func(p ProblemResult) bool { return contains(p.Unlooked, look) }) {
			s.Unlooked = append(s.Unlooked, look)
		}
	}
	if len(others) == 0 {
		return s
	}
	for _, c := range first.Causes {
		if each(func(p ProblemResult) bool { return contains(p.Causes, c) }) {
			s.Causes = append(s.Causes, c.Cause)
		}
	}
	if len(s.Causes) > 0 && each(func(p ProblemResult) bool { return reflect.DeepEqual(p.Telling, first.Telling) }) {
		s.Telling = first.Telling
	}
	return s
}

// ordered lists the causes by the most that any problem says of each.
func ordered(problems []ProblemResult) []horse.Cause {
	best := map[horse.Cause]Cause{}
	for _, p := range problems {
		for _, c := range p.Causes {
			if b, ok := best[c.Cause]; !ok || likelier(c, b) < 0 {
				best[c.Cause] = c
			}
		}
	}
	list := slices.DeleteFunc((horse.Cause{}).All(), func(c horse.Cause) bool { _, ok := best[c]; return !ok })
	slices.SortStableFunc(list, func(a, b horse.Cause) int { return likelier(best[a], best[b]) })
	return list
}

// contains reports whether a list has one that is alike in all.
func contains[T any](list []T, one T) bool {
	return slices.ContainsFunc(list, func(o T) bool { return reflect.DeepEqual(o, one) })
}
