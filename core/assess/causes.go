package assess

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type beliefs struct{}

func (beliefs) Words() []string {
	return []string{"likely", "possible", "unlikely", "not enough seen", "not looked at"}
}

// Belief is how far a cause is believed in (part 3).
type Belief = horse.Word[beliefs]

// The beliefs, in order.
var (
	likely      = horse.MustWord[beliefs]("likely")
	possible    = horse.MustWord[beliefs]("possible")
	unlikely    = horse.MustWord[beliefs]("unlikely")
	notEnough   = horse.MustWord[beliefs]("not enough seen")
	notLookedAt = horse.MustWord[beliefs]("not looked at")
)

// Evidence is a finding that bears on a cause.
type Evidence struct {
	Finding string         `json:"finding" doc:"key of the finding"`
	Says    phrase.Slotted `json:"says" doc:"the finding in words"`
	Source  horse.Source   `json:"source" doc:"where it comes from"`
	Weight  float64        `json:"weight" doc:"what it adds to the log odds, its source counted"`
}

// Cause is what an assessment says of one cause.
type Cause struct {
	Cause   horse.Cause     `json:"cause" doc:"which"`
	Says    phrase.Message  `json:"says" doc:"the cause in words"`
	Belief  Belief          `json:"belief" doc:"how far the evidence goes"`
	Score   *float64        `json:"score,omitempty" doc:"probability; absent: not looked at"`
	Doubt   float64         `json:"doubt" doc:"what every horse begins with against it, in log odds as the weights"`
	For     []Evidence      `json:"for" doc:"what spoke for it, largest first"`
	Against []Evidence      `json:"against" doc:"what spoke against it, largest first"`
	Bound   *phrase.Message `json:"bound,omitempty" doc:"why the word is not what the score says"`
	IfSeen  Belief          `json:"if_seen,omitzero" doc:"what it would be were all of it seen in person, where that differs"`
}

// Open reports whether the cause is not settled.
func (c Cause) open(j catalog.Judging) bool {
	return c.Score == nil || c.Belief == notEnough || *c.Score >= j.Open[0] && *c.Score <= j.Open[1]
}

// Telling is the skipped look that would settle most.
type Telling struct {
	Look    horse.Look     `json:"look" doc:"what to look at"`
	Cause   horse.Cause    `json:"cause" doc:"the cause it would settle"`
	Finding string         `json:"finding" doc:"key of the finding it would settle"`
	Weight  float64        `json:"weight" doc:"how much it would tell"`
	Say     phrase.Message `json:"say" doc:"the same as a sentence"`
	Ask     phrase.Message `json:"ask" doc:"the look as a question"`
	Gain    phrase.Message `json:"gain" doc:"what it would show"`
	Section string         `json:"section" doc:"section of the assessment where it is answered"`
}

func logistic(x float64) float64 { return 1 / (1 + math.Exp(-x)) }

func word(j catalog.Judging, p float64) Belief {
	switch {
	case p >= j.Likely:
		return likely
	case p >= j.Possible:
		return possible
	}
	return unlikely
}

// Causes judges the ten causes, each by itself: the likeliest first, what was
// not looked at last.
func Causes(j catalog.Judging, in Input) []Cause { return find(j, in).causes() }

func (f finder) causes() []Cause {
	list := make([]Cause, 0, len(f.j.Bias))
	for _, c := range (horse.Cause{}).All() {
		list = append(list, f.cause(c))
	}
	slices.SortStableFunc(list, likelier)
	return list
}

// likelier orders causes: by the word, then by the score.
func likelier(a, b Cause) int {
	return cmp.Or(cmp.Compare(a.Belief.Rank(), b.Belief.Rank()), cmp.Compare(score(b), score(a)))
}

func score(c Cause) float64 {
	if c.Score == nil {
		return 0
	}
	return *c.Score
}

// cause adds up what bears on a cause. Findings are added in the handbook's
// order, so that the order of entry can't matter.
func (f finder) cause(c horse.Cause) Cause {
	cause := Cause{Cause: c, Says: phrase.Of("cause."+c.String(), nil), Belief: notLookedAt, Doubt: -f.j.Bias[c], For: []Evidence{}, Against: []Evidence{}}
	sum, seen, bearing, settled := f.j.Bias[c], f.j.Bias[c], 0, false
	for _, known := range f.j.Findings {
		source, found := f.best[known.Key]
		if !found {
			continue
		}
		for _, b := range known.On(f.in.Problem) {
			if b.Cause != c {
				continue
			}
			full := f.j.Weights[b.Mark]
			e := Evidence{Finding: known.Key, Says: known.Says, Source: source, Weight: full * f.j.Sources[source]}
			if full > 0 {
				cause.For = append(cause.For, e)
			} else {
				cause.Against = append(cause.Against, e)
			}
			bearing++
			sum, seen = sum+e.Weight, seen+full
			settled = settled || b.Mark == catalog.Decisive || source == horse.OnRecord
		}
	}
	if bearing == 0 {
		return cause
	}
	byWeight := func(a, b Evidence) int { return cmp.Compare(math.Abs(b.Weight), math.Abs(a.Weight)) }
	slices.SortStableFunc(cause.For, byWeight)
	slices.SortStableFunc(cause.Against, byWeight)
	p := logistic(sum)
	cause.Score = &p
	if _, clear := f.best["body_relevant_clear"]; clear && c == horse.Body {
		settled = true // every item that bears on it was looked at
	}
	if bearing == 1 && !settled {
		cause.Belief = notEnough
	} else {
		cause.Belief = word(f.j, p)
		if all := word(f.j, logistic(seen)); all != cause.Belief {
			cause.IfSeen = all
		}
	}
	f.bound(&cause)
	return cause
}

// bound keeps body and fear from looking unlikely where a fact forbids it, and
// dulled from looking likely while strong tack may be what it leans on.
func (f finder) bound(c *Cause) {
	bind := func(key string) {
		m := phrase.Of("bound."+key, nil)
		c.Belief, c.Bound, c.IfSeen = possible, &m, Belief{}
	}
	switch c.Cause {
	case horse.Body:
		if _, sore := f.best["body_suspect_relevant"]; sore && c.Belief.Rank() > possible.Rank() {
			bind("body")
		}
	case horse.Fear:
		if f.frightened() && c.Belief.Rank() > possible.Rank() {
			bind("fear")
		}
	case horse.Dulled:
		a := f.in.Assessment
		_, strong := f.best["strong_noseband_or_bit"]
		if (strong || len(a.Tack.strong()) > 0) && a.First.heavy() && !a.Tack.milderTried() && c.Belief == likely {
			bind("dulled")
		}
	}
}

// frightened: it shook, left or froze at the thing.
func (f finder) frightened() bool {
	for _, key := range []string{"shakes_sweats", "pressure_off_leaves", "freezes"} {
		if _, ok := f.best[key]; ok {
			return true
		}
	}
	return false
}

// against gathers what speaks against the schools with this horse.
func (f finder) against(causes []Cause, inHand bool) Against {
	a, account := f.in.Assessment, f.in.Assessment.Problems[f.in.Problem]
	base := account.Baseline
	g := Against{
		Arousal: base.Arousal.Int(), Frightened: f.frightened(), Throws: base.Arousal.Int() == 4 || inHand,
		Fit: f.in.Record.Energy.String() == "high", DaysToDate: -1,
	}
	for _, c := range causes {
		g.FearLikely = g.FearLikely || c.Cause == horse.Fear && (c.Belief == likely || c.Bound != nil)
		g.Sore = g.Sore || c.Cause == horse.Body && c.Belief == likely
	}
	for _, item := range f.j.RelevantTo(f.in.Problem) {
		g.Sore = g.Sore || ill(a.BodyOf(item))
	}
	for _, h := range a.Handlers {
		g.Unsteady = g.Unsteady || h.Main && h.Steadiness.String() == "unsteady"
	}
	for _, ways := range [][]horse.WayOut{base.WaysOut, a.Ways["C"], a.Ways["D"], a.Ways["F"]} {
		g.Pushy = g.Pushy || slices.Contains(ways, horse.CrowdedIn) || slices.Contains(ways, horse.Bit)
	}
	if days, ok := horse.DaysBetween(f.in.Today, cmp.Or(account.Story.NeededBy, f.in.NeededBy)); ok {
		g.DaysToDate = days
	}
	return g
}

// MostTelling is the look not taken with the largest weight on a cause that is
// not settled; nil when there is none. Ties: the body first, then the order of
// the sections.
func MostTelling(j catalog.Judging, in Input) *Telling {
	f := find(j, in)
	return f.telling(f.causes())
}

func (f finder) telling(causes []Cause) *Telling {
	open := map[horse.Cause]bool{}
	for _, c := range causes {
		open[c.Cause] = c.open(f.j)
	}
	var best *Telling
	for _, known := range f.j.Findings {
		if _, found := f.best[known.Key]; found || f.took[known.Look] {
			continue
		}
		for _, b := range known.On(f.in.Problem) {
			t := Telling{Look: known.Look, Cause: b.Cause, Finding: known.Key, Weight: math.Abs(f.j.Weights[b.Mark])}
			if open[b.Cause] && (best == nil || t.before(*best)) {
				best = &t
			}
		}
	}
	if best != nil {
		shows := phrase.Of("shows."+best.Cause.String(), nil)
		best.Say = phrase.Of("telling", phrase.Args{"look": phrase.Of("look."+best.Look.String(), nil), "shows": shows})
		gain := "telling.gain"
		if missed := f.in.Assessment.UnlookedBody(f.j, f.in.Problem); best.Look == horse.LookBody && len(missed) < len(f.j.RelevantTo(f.in.Problem)) {
			gain = "telling.gain.rest"
		}
		best.Ask, best.Gain = phrase.Of("ask."+best.Look.String(), nil), phrase.Of(gain, phrase.Args{"shows": shows})
		best.Section, _, _ = strings.Cut(best.Look.String(), ".")
	}
	return best
}

func (t Telling) before(o Telling) bool {
	body := func(t Telling) int {
		if t.Cause == horse.Body {
			return 0
		}
		return 1
	}
	return cmp.Or(cmp.Compare(o.Weight, t.Weight), cmp.Compare(body(t), body(o)), cmp.Compare(t.Look.Rank(), o.Look.Rank())) < 0
}
