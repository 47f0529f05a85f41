package outing

import (
	"math"
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// A Result is what an outing came to.
type Result struct {
	Session string         `json:"session,omitempty" doc:"id of its session"`
	On      string         `json:"on,omitempty" format:"date"`
	Out     float64        `json:"out" doc:"seconds"`
	Home    float64        `json:"home" doc:"seconds"`
	Metres  int            `json:"metres,omitempty" doc:"of the way out, as planned; absent: not known"`
	Stops   []Stood        `json:"stops" doc:"on the way home, in their order"`
	Spots   []Spot         `json:"spots" doc:"named spots that were passed"`
	Highest int            `json:"highest" doc:"highest arousal noted"`
	Ways    []horse.WayOut `json:"ways,omitempty" doc:"ways out"`
	Ridden  bool           `json:"ridden,omitempty"`
	Whole   bool           `json:"whole" doc:"it was walked to its end"`
}

// Results reads the outings of a session's entries, as they stand; the last may not be
// at its end.
func Results(entries []track.Entry) []Result {
	var list []Result
	var part []track.Entry
	flush := func() {
		if len(part) == 0 {
			return
		}
		end := part[len(part)-1].At
		if s, ok := Live(part, 1, end); ok {
			list = append(list, s.Result())
		}
		part = nil
	}
	for _, e := range entries {
		if e.Mark != nil && e.Mark.Walk != nil && e.Mark.Walk.Button == track.SetOff {
			flush()
		}
		if e.Mark != nil {
			part = append(part, e)
		}
	}
	flush()
	return list
}

// Result is what a walk came to so far.
func (s State) Result() Result {
	return Result{
		Out: s.OutFor, Home: s.HomeFor, Metres: s.Plan.Metres, Stops: s.Stops, Spots: s.Spots, Highest: s.Highest, Ways: s.Ways, Ridden: s.Ridden, Whole: s.Phase == Home,
	}
}

// Ratio is how many times the way out the way home took; 0: it was not walked to its
// end.
func (r Result) Ratio() float64 {
	if !r.Whole || r.Out <= 0 {
		return 0
	}
	return r.Home / r.Out
}

// Broken counts the stops at which it had to be put back.
func (r Result) Broken() int {
	n := 0
	for _, s := range r.Stops {
		if !s.Stood {
			n++
		}
	}
	return n
}

// Longest is the longest stand, in seconds.
func (r Result) Longest() float64 {
	longest := 0.0
	for _, s := range r.Stops {
		longest = math.Max(longest, s.Seconds)
	}
	return longest
}

// Fidget is after how many seconds of a stand it broke soonest; false: it never did.
func (r Result) Fidget() (float64, bool) {
	soonest, broke := math.Inf(1), false
	for _, s := range r.Stops {
		if s.Broke > 0 {
			soonest, broke = math.Min(soonest, s.Fidget), true
		}
	}
	return soonest, broke
}

// slowEnough reports that the way home took at least twice the way out.
func (r Result) slowEnough() bool { return r.Ratio() >= homeTimes-1e-9 }

// dangerous reports a dangerous way out, or a spin.
func (r Result) dangerous() bool {
	return slices.ContainsFunc(r.Ways, func(w horse.WayOut) bool { return horse.Dangerous(w) || w == horse.Spun })
}

type nexts struct{}

func (nexts) Words() []string { return []string{"half", "same", "further"} }

// Next is how far the next outing goes.
type Next = horse.Word[nexts]

// The three.
var (
	Half    = horse.MustWord[nexts]("half")
	Same    = horse.MustWord[nexts]("same")
	Further = horse.MustWord[nexts]("further")
)

// An Advised is the next outing, with why.
type Advised struct {
	Next   Next           `json:"next" doc:"how far"`
	Metres int            `json:"metres,omitempty" doc:"of the way out; absent: the metres were not known"`
	Out    int            `json:"out" doc:"seconds of the way out"`
	Why    phrase.Message `json:"why" doc:"what asks for it"`
}

// After advises the next outing after one (part 7).
func After(r Result) Advised {
	broken, n := r.Broken(), len(r.Stops)
	args := phrase.Args{"broken": broken, "n": n, "stood": n - broken}
	a := Advised{Next: Same, Why: phrase.Of("outing.next.same", args)}
	factor := 1.0
	switch {
	case r.dangerous():
		a.Next, factor, a.Why = Half, half, phrase.Of("outing.next.danger", args)
	case r.Highest >= 3:
		a.Next, factor, a.Why = Half, half, phrase.Of("outing.next.over", args)
	case broken > 3 || n > 0 && 2*broken >= n:
		a.Next, factor, a.Why = Half, half, phrase.Of("outing.next.broken", args)
	case !r.Whole:
		a.Why = phrase.Of("outing.next.unfinished", args)
	case n > 0 && broken <= 1 && r.Highest <= 1 && r.slowEnough():
		a.Next, factor, a.Why = Further, further, phrase.Of("outing.next.further", args)
	case !r.slowEnough():
		a.Why = phrase.Of("outing.next.quick", args)
	}
	a.Out, a.Metres = int(math.Round(r.Out*factor)), int(math.Round(float64(r.Metres)*factor))
	return a
}

// usualPace is how far a horse walks in hand in a minute, in metres, where nothing else is
// known of it.
const usualPace = 80

// Proposed is the road of the next outing after those, the oldest first, and why it is as
// far as that; the first one goes as far as a first one may.
func Proposed(outings []Result) (track.Road, phrase.Message) {
	r := track.Road{Minutes: firstOut, Pace: usualPace, Stand: usual}
	if len(outings) == 0 {
		return r, phrase.Of("outing.next.first", phrase.Args{"most": firstOut})
	}
	next := After(outings[len(outings)-1])
	r.Minutes, r.Metres = math.Round(10*float64(next.Out)/60)/10, next.Metres
	return r, next.Why
}

// Over how many outings comfort is looked at, and which share of the stops must be at
// ease.
const (
	lately = 5
	mostly = 0.8
)

// Comfort is how far from the yard the horse is at ease, in metres, over its newest
// outings: the furthest stood stop at which and nearer than which at least four of
// five stops were at ease. 0: nowhere yet. The outings stand oldest first.
func Comfort(outings []Result) float64 {
	var stops []Stood
	for _, r := range outings[max(0, len(outings)-lately):] {
		if r.Metres > 0 {
			stops = append(stops, r.Stops...)
		}
	}
	slices.SortFunc(stops, func(a, b Stood) int {
		switch {
		case a.Metres < b.Metres:
			return -1
		case a.Metres > b.Metres:
			return 1
		}
		return 0
	})
	furthest, ease := 0.0, 0
	for i, s := range stops {
		if s.Ease() {
			ease++
		}
		last := i+1 == len(stops) || stops[i+1].Metres > s.Metres // all stops as near are counted
		if last && float64(ease) >= mostly*float64(i+1) && stoodAt(stops, s.Metres) {
			furthest = s.Metres
		}
	}
	return furthest
}

// stoodAt reports whether a stop at that distance was stood.
func stoodAt(stops []Stood, metres float64) bool {
	return slices.ContainsFunc(stops, func(s Stood) bool { return s.Metres == metres && s.Stood })
}

// Before riding: outings in hand on so many different days with the way home slow
// enough, and the last ones with every stop stood (part 7).
const (
	daysInHand = 5
	lastStood  = 2
)

// Riding is what is there and what is missing before the same is ridden.
type Riding struct {
	Days  int            `json:"days" doc:"days with an outing in hand whose way home was slow enough, at most five"`
	Of    int            `json:"of"`
	Stood int            `json:"stood" doc:"of the newest outings, one after the other, with every stop stood, at most two"`
	OfTwo int            `json:"of_two"`
	May   bool           `json:"may"`
	Says  phrase.Message `json:"says"`
}

// Ridable tells whether the way home may be ridden after those outings, the oldest
// first.
func Ridable(outings []Result) Riding {
	r := Riding{Of: daysInHand, OfTwo: lastStood}
	days := map[string]bool{}
	running := true
	for _, o := range slices.Backward(outings) {
		if o.Ridden {
			continue
		}
		if o.slowEnough() {
			days[o.On] = true
		}
		if running = running && o.Whole && len(o.Stops) > 0 && o.Broken() == 0; running && r.Stood < lastStood {
			r.Stood++
		}
	}
	r.Days = min(len(days), daysInHand)
	r.May = r.Days == daysInHand && r.Stood == lastStood
	args := phrase.Args{"days": r.Days, "of": daysInHand, "stood": r.Stood, "two": lastStood}
	r.Says = phrase.Of("outing.riding.not", args)
	if r.May {
		r.Says = phrase.Of("outing.riding.may", args)
	}
	return r
}

// Rep is what an outing counts as on a step of the way home: accepted where the way home
// was slow enough and every stop was stood, and on one that asks for it at most
// attentive; refused where it was dangerous, or half the stops and more broke.
func (r Result) Rep(ask horse.Ask, calm bool) track.Rep {
	rep := track.Rep{Ask: ask, Answer: horse.Try, Arousal: horse.ArousalOf(r.Highest), EndedBy: horse.ByHandler, WaysOut: r.Ways}
	broken := r.Broken()
	switch {
	case r.dangerous() || len(r.Stops) > 0 && 2*broken >= len(r.Stops):
		rep.Answer = horse.Refused
	case !r.slowEnough():
	case broken == 0 && len(r.Stops) > 0 && (!calm || r.Highest <= 1):
		rep.Answer = horse.Accepted
	case broken <= 1 || !calm:
		rep.Answer = horse.Tolerated
	}
	if r.Metres > 0 {
		metres := r.Metres * 1000 // a distance is in millimetres
		rep.Target, rep.Reached = metres, &metres
	}
	return rep
}

// Passed is what an outing counts as on a step whose pass marks are named places: an
// answer for each pass, accepted where it did not try to turn to it, a try where it did;
// each refused where the outing was dangerous.
func (r Result) Passed(ask horse.Ask) []track.Rep {
	list := make([]track.Rep, 0, len(r.Spots))
	for _, s := range r.Spots {
		rep := track.Rep{Ask: ask, Answer: horse.Accepted, Arousal: horse.ArousalOf(r.Highest), EndedBy: horse.ByHandler, Spot: s.Name, Heading: s.Heading, Drawn: s.Tries}
		switch {
		case r.dangerous():
			rep.Answer, rep.WaysOut = horse.Refused, r.Ways
		case s.Tries > 0:
			rep.Answer = horse.Try
		}
		list = append(list, rep)
	}
	return list
}

// Told is an outing as a sentence has it: minutes of the way out and home, at how many
// stops it stood, of how many.
func (r Result) Told() phrase.Args {
	n := len(r.Stops)
	return phrase.Args{"out": minutes(r.Out), "home": minutes(r.Home), "stood": n - r.Broken(), "n": n}
}

func minutes(seconds float64) int { return max(1, int(math.Round(seconds/60))) }
