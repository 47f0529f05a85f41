// Package gait tells a gait from the moments at which the hooves land: the footfall timer
// (part 3).
package gait

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type hooves struct{}

func (hooves) Words() []string { return []string{"near hind", "near fore", "off hind", "off fore"} }

// Hoof is one of the four.
type Hoof = horse.Word[hooves]

// The four hooves, in the order of an even walk's beats.
var (
	NearHind = horse.MustWord[hooves]("near hind")
	NearFore = horse.MustWord[hooves]("near fore")
	OffHind  = horse.MustWord[hooves]("off hind")
	OffFore  = horse.MustWord[hooves]("off fore")
)

type classes struct{}

func (classes) Words() []string {
	return []string{"pace", "stepping pace", "even four-beat walk", "diagonal four-beat", "trot", "not a symmetrical gait", "check the taps"}
}

// Class is what the footfall comes to.
type Class = horse.Word[classes]

// The classes. The last two are no gait: the hind feet are not half a stride apart, or no
// gait falls so.
var (
	Pace           = horse.MustWord[classes]("pace")
	SteppingPace   = horse.MustWord[classes]("stepping pace")
	Walk           = horse.MustWord[classes]("even four-beat walk")
	Diagonal       = horse.MustWord[classes]("diagonal four-beat")
	Trot           = horse.MustWord[classes]("trot")
	NotSymmetrical = horse.MustWord[classes]("not a symmetrical gait")
	CheckTheTaps   = horse.MustWord[classes]("check the taps")
)

// Least is how many full strides of each hind foot are needed.
const Least = 3

// Borders between the classes, as fractions of a stride: a class begins at its own and ends
// before the next. Up to trotTo, its end included, it is a trot.
const (
	paceFrom     = -0.05
	steppingFrom = 0.05
	walkFrom     = 0.20
	diagonalFrom = 0.30
	trotFrom     = 0.45
	trotTo       = 0.55

	hindsFrom = 0.40 // hind feet of a symmetrical gait, both ends included
	hindsTo   = 0.60

	uneven = 0.06 // more between the sides: have a vet look
)

// A stride so much longer or shorter than the usual one was probably tapped wrong.
const (
	tooLong  = 1.6
	tooShort = 0.6
)

// A Landing is the moment at which a hoof lands.
type Landing struct {
	Hoof Hoof    `json:"hoof" doc:"which one"`
	At   float64 `json:"at" minimum:"0" maximum:"86400" doc:"when, in seconds of the clip or of the clock"`
}

// Taps are what was tapped.
type Taps struct {
	Speed    float64   `json:"speed,omitempty" minimum:"0" maximum:"8" doc:"of the clip: 0.25 was filmed four times slowed down; 0 or left out: 1, true speed"`
	Landings []Landing `json:"landings" maxItems:"2000" doc:"in any order"`
}

// MostLandings is how many landings are looked at.
const MostLandings = 2000

// MostLive is how many landings one timing has that is tapped while the horse goes: some
// sixty strides.
const MostLive = 240

// Live says what is wrong with taps that were made while the horse went, or nil.
func (t Taps) Live() error {
	if len(t.Landings) > MostLive {
		return fmt.Errorf("%d landings are too many for one timing: %d at most", len(t.Landings), MostLive)
	}
	return t.Check()
}

// Check says what is wrong with the taps, or nil.
func (t Taps) Check() error {
	switch {
	case t.Speed < 0 || t.Speed > 8 || math.IsNaN(t.Speed):
		return fmt.Errorf("the speed of a clip is between 0 and 8 times the true one")
	case len(t.Landings) > MostLandings:
		return fmt.Errorf("%d landings are too many: %d at most, take a shorter piece", len(t.Landings), MostLandings)
	}
	for i, l := range t.Landings {
		switch {
		case l.Hoof.IsZero():
			return fmt.Errorf("landing %d names no hoof: it is near hind, near fore, off hind or off fore", i+1)
		case math.IsNaN(l.At) || l.At < 0 || l.At > 86400:
			return fmt.Errorf("landing %d is at no moment of a clip", i+1)
		}
	}
	return nil
}

// A Stride is from a landing of a hind foot to its next, with the same side's fore foot in
// it.
type Stride struct {
	Side     string  `json:"side" enum:"near,off" doc:"of which hind foot"`
	From     float64 `json:"from" doc:"its first landing, in seconds as tapped"`
	To       float64 `json:"to" doc:"its next"`
	Fore     float64 `json:"fore" doc:"when the fore foot of that side landed"`
	Fraction float64 `json:"fraction" doc:"of the stride that had passed by then, from -0.05 to under 0.95"`
	Class    Class   `json:"class" doc:"what this stride alone would be"`
}

// A Share is how many strides fell in a class.
type Share struct {
	Class Class `json:"class" doc:"which one"`
	N     int   `json:"n" doc:"strides"`
}

// Missing is how many more strides of a hind foot are needed.
type Missing struct {
	Hoof Hoof `json:"hoof" doc:"which hind foot"`
	N    int  `json:"n" doc:"full strides more"`
}

// Result is what the footfall comes to.
type Result struct {
	Class    Class           `json:"class,omitzero" doc:"absent: not enough strides"`
	Says     phrase.Message  `json:"says" doc:"the answer, as a sentence"`
	How      *phrase.Message `json:"how,omitempty" doc:"by what one sees it"`
	Fraction *float64        `json:"fraction,omitempty" doc:"circular median over strides and sides"`
	Near     *float64        `json:"near,omitempty" doc:"of the near side"`
	Off      *float64        `json:"off,omitempty" doc:"of the off side"`
	Apart    *float64        `json:"apart,omitempty" doc:"between the two sides"`
	Vet      *phrase.Message `json:"vet,omitempty" doc:"uneven: a vet should look"`
	Hinds    *float64        `json:"hinds,omitempty" doc:"how far apart the hind feet land, in strides"`
	Strides  []Stride        `json:"strides" doc:"by their beginnings"`
	Shares   []Share         `json:"shares" doc:"the classes that strides fell in, most first"`
	Steps    float64         `json:"steps,omitempty" doc:"a minute, at true speed"`
	Missing  []Missing       `json:"missing,omitempty" doc:"what is missing to three strides"`
	Odd      []Landing       `json:"odd,omitempty" doc:"landings of hind feet after a stride that is far too long or too short: check these taps"`
}

// Time tells the gait of the taps.
func Time(t Taps) (Result, error) {
	if err := t.Check(); err != nil {
		return Result{}, err
	}
	at := map[Hoof][]float64{}
	for _, l := range slices.SortedStableFunc(slices.Values(t.Landings), func(a, b Landing) int { return cmp.Compare(a.At, b.At) }) {
		if list := at[l.Hoof]; len(list) == 0 || l.At > list[len(list)-1] { // twice at one moment is once
			at[l.Hoof] = append(list, l.At)
		}
	}
	r := Result{Strides: []Stride{}, Shares: []Share{}}
	near, off := strides("near", at[NearHind], at[NearFore]), strides("off", at[OffHind], at[OffFore])
	r.Strides = slices.SortedStableFunc(slices.Values(append(slices.Clone(near), off...)), func(a, b Stride) int { return cmp.Compare(a.From, b.From) })
	r.share()
	for _, hind := range []Hoof{NearHind, OffHind} {
		if n := len(at[hind]) - 1; n < Least {
			r.Missing = append(r.Missing, Missing{hind, Least - max(n, 0)})
		}
	}
	if len(r.Missing) > 0 {
		r.Says = notEnough(r.Missing)
		return r, nil
	}
	r.odd(at)
	r.Steps = stepsAMinute(at, cmp.Or(t.Speed, 1))
	r.judge(fractions(near), fractions(off), between(at[NearHind], at[OffHind]))
	return r, nil
}

// strides are the strides of a side in which its fore foot landed, one for each of these
// landings.
func strides(side string, hind, fore []float64) (list []Stride) {
	for i := 1; i < len(hind); i++ {
		from, to := hind[i-1], hind[i]
		for _, f := range fore {
			if f >= from && f < to {
				x := wrapped((f - from) / (to - from))
				list = append(list, Stride{side, from, to, f, x, classOf(x)})
			}
		}
	}
	return list
}

// between is where in the strides of one foot the other lands.
func between(of, other []float64) (list []float64) {
	for _, s := range strides("", of, other) {
		list = append(list, s.Fraction)
	}
	return list
}

func fractions(list []Stride) (x []float64) {
	for _, s := range list {
		x = append(x, s.Fraction)
	}
	return x
}

// fine is to what part of a stride a fraction is rounded: far finer than a tap, so that a
// border lies where it is written.
const fine = 1e9

// wrapped puts a fraction of a stride where the classes are: 0.98 is -0.02.
func wrapped(x float64) float64 {
	x = math.Round((x-math.Floor(x))*fine) / fine
	if x >= 1+paceFrom {
		x--
	}
	return x
}

func classOf(x float64) Class {
	switch {
	case x < steppingFrom:
		return Pace
	case x < walkFrom:
		return SteppingPace
	case x < diagonalFrom:
		return Walk
	case x < trotFrom:
		return Diagonal
	case x <= trotTo:
		return Trot
	}
	return CheckTheTaps
}

// Median is the circular median of fractions: the middle one, once the circle is cut open
// opposite their circular mean. False: there are none, or they lie so evenly around the
// circle that it has no mean.
func Median(list []float64) (float64, bool) {
	var sin, cos float64
	for _, x := range list {
		s, c := math.Sincos(2 * math.Pi * x)
		sin, cos = sin+s, cos+c
	}
	const nowhere = 1e-9
	if math.Hypot(sin, cos) <= nowhere*float64(len(list)) {
		return 0, false
	}
	mean := math.Atan2(sin, cos) / (2 * math.Pi)
	open := make([]float64, len(list))
	for i, x := range list {
		d := x - mean
		open[i] = mean + d - math.Round(d)
	}
	slices.Sort(open)
	n := len(open)
	return wrapped((open[(n-1)/2] + open[n/2]) / 2), true
}

// circle is how far two fractions are apart, the shorter way round.
func circle(a, b float64) float64 {
	d := math.Abs(a - b)
	return min(d, 1-d)
}
