package arena

import (
	"math"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// A Review is what a session came to, told from its track alone.
type Review struct {
	Story    []phrase.Message `json:"story" doc:"the session in sentences, in its order"`
	Asks     []Worked         `json:"asks" doc:"in the order in which they were worked"`
	Said     []Said           `json:"said" doc:"the advice that was shown"`
	Followed Followed         `json:"followed" doc:"how often what was done was what was said"`
	Stopped  Stopped          `json:"stopped" doc:"unasked behaviours that were stopped, by behaviour and heading"`
	Handlers []Timing         `json:"handlers"`
	Felt     []Felt           `json:"felt" doc:"arousal as it was after each entry that noted it"`
	Next     phrase.Message   `json:"next" doc:"when the next visit is best"`
	Minutes  int              `json:"minutes"`
}

// Worked is one ask of the session, told in its school's own success.
type Worked struct {
	horse.Ask
	Name   phrase.Message `json:"name"`
	School horse.School   `json:"school"`
	N      int            `json:"n" doc:"counted answers"`
	Good   int            `json:"good" doc:"successes in the school"`
	From   horse.Level    `json:"from,omitzero" doc:"level of the first answer"`
	To     horse.Level    `json:"to,omitzero" doc:"level of the last"`
	Passed bool           `json:"passed,omitempty" doc:"the pass mark was reached"`

	Against *Against       `json:"against,omitempty" doc:"what stood against it when it was first asked"`
	Why     string         `json:"why,omitempty" doc:"why it was asked although it waited for something"`
	Despite *track.Despite `json:"despite,omitempty" doc:"who answers for it; absent: nobody does"`

	Most    int   `json:"most,omitempty" doc:"longest chosen rest in seconds; furthest dose stood for"`
	FeetIn  int   `json:"feet_in,omitempty"`
	Tries   int   `json:"tries,omitempty" doc:"small releases inside held asks"`
	Seconds []int `json:"seconds,omitempty" doc:"wait it out: seconds to soft, the first and the last"`
	Kicks   []int `json:"kicks,omitempty" doc:"at the tool, per 10: the first and the last"`
	Trials  int   `json:"trials,omitempty" doc:"things of a review that were looked at"`
	LetDown []int `json:"let_down,omitempty" doc:"seconds from the release to the let-down: the first and the last"`
}

// Said is advice as it was shown, and whether the trainer did otherwise.
type Said struct {
	At        int64        `json:"at"`
	Action    track.Action `json:"action"`
	Rule      string       `json:"rule"`
	Otherwise bool         `json:"otherwise,omitempty"`
	Reason    string       `json:"reason,omitempty"`
}

// Timing is how somebody's releases and beginnings were (part 8).
type Timing struct {
	Handler  string  `json:"handler"`
	Releases int     `json:"releases"`
	OnTheTry int     `json:"on_the_try"`
	Late     int     `json:"late"`
	Wrong    int     `json:"wrong" doc:"at the wrong moment"`
	Starts   int     `json:"starts" doc:"asks whose start is noted"`
	FromOne  int     `json:"from_one" doc:"of those, begun at 1 or less"`
	Delay    float64 `json:"delay" doc:"median seconds from the try to the release; 0: not measured"`
}

// Felt is arousal at a moment.
type Felt struct {
	At    int64 `json:"at"`
	Level int   `json:"level"`
	Over  bool  `json:"over,omitempty" doc:"over the line"`
}

// overLine is the arousal from which a horse is over the line (part 2).
const overLine = 3

func feltAt(at int64, level int) Felt { return Felt{At: at, Level: level, Over: level >= overLine} }

// ReviewOf tells what a session came to, read from its track.
func ReviewOf(c *catalog.Catalog, in Input) (Review, error) {
	r, err := Run(c, c.Rules, in)
	if err != nil {
		return Review{}, err
	}
	return r.Review(), nil
}

// Review tells what the session came to so far.
func (r *Running) Review() Review {
	v := Review{Asks: r.worked(), Said: r.said(), Followed: r.followed(), Handlers: r.timing(), Felt: []Felt{}, Next: r.next()}
	v.Stopped = StoppedIn(r.live, r.in.Started)
	for _, b := range r.now.beads {
		if b.Arousal.Noted() || b.Calm >= 2 { // what was not noted is not said to be calm
			v.Felt = append(v.Felt, feltAt(b.At, b.Calm))
		}
	}
	for _, e := range r.live {
		if e.Kind == track.KindMark && e.Mark != nil && e.Mark.Arousal.Noted() {
			v.Felt = append(v.Felt, feltAt(e.At, e.Mark.Arousal.Int()))
		}
	}
	slices.SortStableFunc(v.Felt, func(a, b Felt) int { return int(a.At - b.At) })
	if n := len(r.live); n > 0 {
		v.Minutes = int(math.Round(float64(r.live[n-1].At-r.in.Started) / minute))
	}
	v.Story = r.story(v)
	return v
}

func (r *Running) worked() []Worked {
	asks := []Worked{}
	for n, b := range r.now.beads {
		if !b.Counted {
			continue
		}
		i := slices.IndexFunc(asks, func(w Worked) bool { return w.Ask == b.Ask && w.School == b.School })
		if i < 0 {
			step, _ := r.cat.Step(b.Step)
			_, passed := r.now.s.passed[b.Ask]
			asks = append(asks, Worked{Ask: b.Ask, Name: AskName(step, b.Ask), School: b.School, From: b.Peak, Passed: passed})
			i = len(asks) - 1
			asks[i].Against, asks[i].Why = r.now.s.reps[n].against, r.now.s.whys[b.Step]
			if d, ok := r.now.s.answered[b.Step]; ok {
				asks[i].Despite = &d
			}
		}
		asks[i].take(b)
	}
	for _, e := range r.live {
		if p := e.Spell; p != nil && p.Rest {
			if i := slices.IndexFunc(asks, func(w Worked) bool { return w.Ask == p.Ask }); i >= 0 {
				asks[i].FeetIn = max(asks[i].FeetIn, p.FeetIn)
			}
		}
	}
	return asks
}

// take counts one answer in.
func (w *Worked) take(b Told) {
	w.N++
	w.Good += btoi(b.Good)
	if b.Peak.Noted() {
		w.To = b.Peak
	}
	ends := func(list *[]int, v int) {
		if len(*list) == 0 {
			*list = []int{v, v}
		}
		(*list)[1] = v
	}
	switch {
	case b.Kind == track.KindSpell && b.Good && b.Reached != nil:
		w.Most = max(w.Most, *b.Reached)
	case b.School == horse.Doses && b.Good:
		w.Most = max(w.Most, b.Target)
	}
	if b.Kicks != nil {
		ends(&w.Kicks, *b.Kicks)
	}
	w.Trials += btoi(b.Trial != nil)
	if b.LetDown != nil {
		ends(&w.LetDown, whole(*b.LetDown))
	}
	if b.School == horse.WaitItOut {
		w.Tries += len(b.Tries)
		if b.Seconds > 0 && horse.Soft(b.Graded) {
			ends(&w.Seconds, whole(b.Seconds))
		}
	}
}

// said lists the advice that was shown; doing otherwise is a second entry on
// the same advice.
func (r *Running) said() []Said {
	said := []Said{}
	at := map[string]int{}
	for _, e := range r.live {
		if e.Kind != track.KindAdvice || e.Shown == nil {
			continue
		}
		if i, again := at[e.Shown.After]; again && e.Shown.Otherwise {
			said[i].Otherwise, said[i].Reason = true, e.Shown.Reason
			continue
		}
		at[e.Shown.After] = len(said)
		said = append(said, Said{At: e.At, Action: e.Shown.Action, Rule: e.Shown.Rule, Otherwise: e.Shown.Otherwise, Reason: e.Shown.Reason})
	}
	return said
}

func (r *Running) timing() []Timing {
	all := []Timing{}
	delays := map[string][]float64{}
	for _, b := range r.now.beads {
		if b.Trial != nil {
			continue // nothing was let go of
		}
		i := slices.IndexFunc(all, func(t Timing) bool { return t.Handler == b.Handler })
		if i < 0 {
			all = append(all, Timing{Handler: b.Handler})
			i = len(all) - 1
		}
		t := &all[i]
		t.Releases++
		switch {
		case b.Release == horse.WrongMoment:
			t.Wrong++
		case b.IsLate():
			t.Late++
		case b.Release == horse.OnTheTry || b.Release.IsZero():
			t.OnTheTry++
		}
		if b.Start.Noted() {
			t.Starts++
			t.FromOne += btoi(b.Start.Int() <= 1)
		}
		if delay, ok := b.Delay(); ok {
			delays[b.Handler] = append(delays[b.Handler], delay)
		}
	}
	for i := range all {
		all[i].Delay = horse.Median(delays[all[i].Handler])
	}
	return all
}

// ofTheBody are the stop reasons that are referred before the work goes on.
var ofTheBody = []string{"injury to horse", "pain", "lameness", "wound", "exhaustion"}

// next proposes the next visit (part 7): soon where it was left unfinished or
// ended by danger, none before the referral is cleared where it ended by pain,
// else in two to four days, which also tells what was kept.
func (r *Running) next() phrase.Message {
	s := r.now.s
	for _, stop := range s.stops {
		if slices.Contains(ofTheBody, stop.String()) {
			return phrase.Of("next.pain", phrase.Args{"reason": stop.String()})
		}
	}
	beads := r.now.beads
	switch {
	case s.dangers > 1:
		return phrase.Of("next.danger", nil)
	case s.over != nil && s.over.rule == "3":
		return phrase.Of("next.over", nil)
	case len(beads) > 0 && !beads[len(beads)-1].Good:
		return phrase.Of("next.soon", nil)
	}
	return phrase.Of("next.days", nil)
}
