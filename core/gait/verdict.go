package gait

import (
	"cmp"
	"slices"

	"ivorybridge/core/phrase"
)

// judge makes the answer of the fractions of both sides, and of where the off hind foot
// lands in the strides of the near one.
func (r *Result) judge(near, off, hinds []float64) {
	answer := func(c Class) {
		r.Class = c
		r.Says = phrase.Of("gait."+c.String(), nil)
	}
	n, hasNear := Median(near)
	o, hasOff := Median(off)
	if hasNear {
		r.Near = &n
	}
	if hasOff {
		r.Off = &o
	}
	if apart, ok := Median(hinds); ok {
		r.Hinds = &apart
		if apart < hindsFrom || apart > hindsTo {
			answer(NotSymmetrical)
			return
		}
	}
	if !hasNear || !hasOff || r.Hinds == nil {
		answer(CheckTheTaps)
		return
	}
	all, ok := Median(append(slices.Clone(near), off...))
	if !ok {
		answer(CheckTheTaps)
		return
	}
	r.Fraction = &all
	answer(classOf(all))
	how := phrase.Of("gait.how."+r.Class.String(), nil)
	r.How = &how
	apart := circle(n, o)
	r.Apart = &apart
	if apart > uneven {
		m := phrase.Of("gait.uneven", nil)
		r.Vet = &m
	}
}

// share counts the strides of each class.
func (r *Result) share() {
	for _, c := range (Class{}).All() {
		n := 0
		for _, s := range r.Strides {
			if s.Class == c {
				n++
			}
		}
		if n > 0 {
			r.Shares = append(r.Shares, Share{c, n})
		}
	}
	slices.SortStableFunc(r.Shares, func(a, b Share) int { return cmp.Compare(b.N, a.N) })
}

func notEnough(list []Missing) phrase.Message {
	more := make([]phrase.Message, 0, len(list))
	for _, m := range list {
		more = append(more, phrase.Of("gait.more", phrase.Args{"n": m.N, "hoof": phrase.Sided(m.Hoof.String())}))
	}
	return phrase.Of("gait.not_enough", phrase.Args{"more": more})
}

// lengths are those of a foot's strides, in seconds as tapped.
func lengths(at []float64) (list []float64) {
	for i := 1; i < len(at); i++ {
		list = append(list, at[i]-at[i-1])
	}
	return list
}

func middle(list []float64) float64 {
	list = slices.Sorted(slices.Values(list))
	n := len(list)
	return (list[(n-1)/2] + list[n/2]) / 2
}

// stepsAMinute is four times the strides in a minute, by the middle stride.
func stepsAMinute(at map[Hoof][]float64, speed float64) float64 {
	const steps, minute = 4, 60
	return steps * minute / (middle(append(lengths(at[NearHind]), lengths(at[OffHind])...)) * speed)
}

// odd marks the hind feet's landings after a stride that can't be one.
func (r *Result) odd(at map[Hoof][]float64) {
	usual := middle(append(lengths(at[NearHind]), lengths(at[OffHind])...))
	for _, hind := range []Hoof{NearHind, OffHind} {
		for i, length := range lengths(at[hind]) {
			if length > tooLong*usual || length < tooShort*usual {
				r.Odd = append(r.Odd, Landing{hind, at[hind][i+1]})
			}
		}
	}
}
