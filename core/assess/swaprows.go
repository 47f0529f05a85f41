package assess

import (
	"cmp"
	"slices"
	"strings"

	"ivorybridge/core/phrase"
)

// MostSwapRows is how many rows a swap has.
const MostSwapRows = 6

// A SwapRow is one go at the task: by whom, in which tack, one thing changed at a time. It is
// seen at the yard, or on a clip.
type SwapRow struct {
	Person string `json:"person" maxLength:"60" doc:"who rode or held the rope"`
	Tack   string `json:"tack" maxLength:"120" doc:"in what; the same words mean the same tack"`
	Run
	Gait string `json:"gait,omitempty" maxLength:"60" doc:"as it went"`
	Head Head   `json:"head,omitzero" doc:"how it carried its head"`
	Clip string `json:"clip,omitempty" maxLength:"36" doc:"id of the clip it was seen on; empty: seen at the yard"`
}

func same(a, b string) bool { return strings.EqualFold(strings.TrimSpace(a), strings.TrimSpace(b)) }

// SwapOfRows says how much is person, tack and horse. Two rows are compared where one thing
// alone was changed between them; the first row is the usual person in the usual tack. What the
// same again differed by is the doubt: a difference that is no larger is not told as one. Nil
// while no two rows can be compared.
func SwapOfRows(rows []SwapRow) *Swap {
	rows = slices.DeleteFunc(slices.Clone(rows), func(r SwapRow) bool { return !r.whole() })
	if len(rows) < 2 {
		return nil
	}
	first := rows[0]
	s := &Swap{}
	say := func(key string, args phrase.Args) { s.Says = append(s.Says, phrase.Of("swap."+key, args)) }
	twice, doubt := repeated(rows)
	person, byPerson := easiest(rows, func(r SwapRow) bool { return same(r.Tack, first.Tack) && !same(r.Person, first.Person) })
	tack, byTack := easiestPair(rows)
	if !byPerson && !byTack {
		return nil
	}
	usual := mean(rows, func(r SwapRow) bool { return same(r.Person, first.Person) && same(r.Tack, first.Tack) })
	if byPerson {
		s.Person = max(usual-person.hard(), 0)
		s.personUp, s.onFilm[0] = person.better(first.Run) && s.Person > doubt, onClip(first, person)
		say(pick(s.personUp, "row.person", "row.person_same"), phrase.Args{"who": person.Person, "is": words(person.Run), "usual": first.Person, "was": words(first.Run)})
	} else {
		say("person_unlooked", nil)
	}
	if byTack {
		s.Tack = max(tack[0].hard()-tack[1].hard(), 0)
		s.tackUp, s.onFilm[1] = tack[1].better(tack[0].Run) && s.Tack > doubt, onClip(tack[0], tack[1])
		say(pick(s.tackUp, "row.tack", "row.tack_same"), phrase.Args{"tack": tack[1].Tack, "is": words(tack[1].Run), "usual": tack[0].Tack, "was": words(tack[0].Run), "who": tack[0].Person})
	} else {
		say("tack_unlooked", nil)
	}
	s.Horse = max(slices.MinFunc(rows, func(a, b SwapRow) int { return cmp.Compare(a.hard(), b.hard()) }).hard()-1, 0)
	switch {
	case !twice:
		say("row.once", nil)
	case doubt > 0:
		say("row.doubt", phrase.Args{"n": int(doubt + 0.5)})
	}
	if slices.ContainsFunc(rows, func(r SwapRow) bool { return !oneChange(rows, r) }) {
		say("row.two_things", nil)
	}
	s.share()
	return s
}

// onClip reports whether a comparison stands on a clip.
func onClip(a, b SwapRow) bool { return a.Clip != "" || b.Clip != "" }

// easiest is the easiest of the rows that are so.
func easiest(rows []SwapRow, is func(SwapRow) bool) (best SwapRow, found bool) {
	for _, r := range rows {
		if is(r) && (!found || r.hard() < best.hard()) {
			best, found = r, true
		}
	}
	return best, found
}

// easiestPair is the pair of rows of one person that changed the tack alone and gained most:
// the earlier tack first.
func easiestPair(rows []SwapRow) (best [2]SwapRow, found bool) {
	for i, a := range rows {
		for _, b := range rows[i+1:] {
			if same(a.Person, b.Person) && !same(a.Tack, b.Tack) && (!found || a.hard()-b.hard() > best[0].hard()-best[1].hard()) {
				best, found = [2]SwapRow{a, b}, true
			}
		}
	}
	return best, found
}

// repeated reports whether any person went again in the same tack, and by how much these
// differed at most.
func repeated(rows []SwapRow) (twice bool, most float64) {
	for i, a := range rows {
		for _, b := range rows[i+1:] {
			if same(a.Person, b.Person) && same(a.Tack, b.Tack) {
				twice, most = true, max(most, a.hard()-b.hard(), b.hard()-a.hard())
			}
		}
	}
	return twice, most
}

// oneChange reports whether a row differs from some other by one thing at most.
func oneChange(rows []SwapRow, r SwapRow) bool {
	n := 0
	for _, o := range rows {
		if same(o.Person, r.Person) || same(o.Tack, r.Tack) {
			n++
		}
	}
	return n > 1 // itself is one
}

func mean(rows []SwapRow, is func(SwapRow) bool) float64 {
	sum, n := 0.0, 0.0
	for _, r := range rows {
		if is(r) {
			sum, n = sum+r.hard(), n+1
		}
	}
	return sum / n
}

// swap is the swap of an account: of its rows where two can be compared, else of the four runs.
func (a Account) swap() *Swap {
	if s := SwapOfRows(a.SwapRows); s != nil {
		return s
	}
	return SwapOf(a.Swap)
}
