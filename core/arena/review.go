package arena

import (
	"slices"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Review is what a session came to, told from its track alone.
type Review struct {
	Story    []phrase.Message `json:"story" doc:"the session in sentences, in its order"`
	Asks     []Worked         `json:"asks" doc:"in the order in which they were worked"`
	Said     []Said           `json:"said" doc:"the advice that was shown"`
	Handlers []Timing         `json:"handlers"`
	Felt     []Felt           `json:"felt" doc:"arousal as it was after each entry that noted it"`
	Next     phrase.Message   `json:"next" doc:"when the next visit is best"`
	Minutes  int              `json:"minutes"`
}

// Worked is one ask of the session.
type Worked struct {
	horse.Ask
	Name   phrase.Message `json:"name"`
	N      int            `json:"n" doc:"counted answers"`
	Soft   int            `json:"soft" doc:"accepted or offered"`
	From   horse.Level    `json:"from,omitzero" doc:"level of the first answer"`
	To     horse.Level    `json:"to,omitzero" doc:"level of the last"`
	Passed bool           `json:"passed,omitempty" doc:"the pass mark was reached"`
}

// Said is advice as it was shown, and whether the trainer did otherwise.
type Said struct {
	At        int64  `json:"at"`
	Action    Action `json:"action"`
	Rule      string `json:"rule"`
	Otherwise bool   `json:"otherwise,omitempty"`
	Reason    string `json:"reason,omitempty"`
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
}

// Review tells what the session came to so far.
func (r *Running) Review() Review {
	v := Review{Asks: r.worked(), Said: r.said(), Handlers: r.timing(), Felt: []Felt{}, Next: r.next()}
	for _, b := range r.now.beads {
		v.Felt = append(v.Felt, Felt{At: b.At, Level: b.Calm})
	}
	for _, e := range r.live {
		if e.Kind == KindMark && e.Mark != nil && e.Mark.Arousal.Noted() {
			v.Felt = append(v.Felt, Felt{At: e.At, Level: e.Mark.Arousal.Int()})
		}
	}
	slices.SortStableFunc(v.Felt, func(a, b Felt) int { return int(a.At - b.At) })
	if n := len(r.live); n > 0 {
		v.Minutes = int((r.live[n-1].At - r.in.Started + 30_000) / 60_000)
	}
	v.Story = r.story(v)
	return v
}

func (r *Running) worked() []Worked {
	asks := []Worked{}
	for _, b := range r.now.beads {
		if !b.Counted {
			continue
		}
		i := slices.IndexFunc(asks, func(w Worked) bool { return w.Ask == b.Ask })
		if i < 0 {
			step, _ := r.cat.Step(b.Step)
			_, passed := r.now.s.passed[b.Ask]
			asks = append(asks, Worked{Ask: b.Ask, Name: askName(step, b.Ask), From: b.Peak, Passed: passed})
			i = len(asks) - 1
		}
		asks[i].N++
		asks[i].Soft += btoi(horse.Soft(b.Graded))
		if b.Peak.Noted() {
			asks[i].To = b.Peak
		}
	}
	return asks
}

// said lists the advice that was shown; doing otherwise is a second entry on
// the same advice.
func (r *Running) said() []Said {
	said := []Said{}
	at := map[string]int{}
	for _, e := range r.live {
		if e.Kind != KindAdvice || e.Shown == nil {
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
		case b.isLate():
			t.Late++
		case b.Release == horse.OnTheTry || b.Release.IsZero():
			t.OnTheTry++
		}
		if b.Start.Noted() {
			t.Starts++
			t.FromOne += btoi(b.Start.Int() <= 1)
		}
		if delay, ok := b.delay(); ok {
			delays[b.Handler] = append(delays[b.Handler], delay)
		}
	}
	for i := range all {
		all[i].Delay = median(delays[all[i].Handler])
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
	last := s.lastRep()
	switch {
	case s.dangers > 1:
		return phrase.Of("next.danger", nil)
	case s.over != nil && s.over.rule == "3" || last != nil && !last.soft():
		return phrase.Of("next.soon", nil)
	}
	return phrase.Of("next.days", nil)
}

// story puts the session into sentences.
func (r *Running) story(v Review) []phrase.Message {
	s := r.now.s
	story := []phrase.Message{}
	say := func(key string, args phrase.Args) { story = append(story, phrase.Of("story."+key, args)) }
	for i, w := range v.Asks {
		key := "ask"
		if i == 0 {
			key = "first"
		}
		args := phrase.Args{"ask": w.Name, "n": w.N, "soft": w.Soft, "from": w.From.Int(), "to": w.To.Int()}
		if !w.From.Noted() || !w.To.Noted() || w.N < 2 {
			key += ".short"
		}
		say(key, args)
		if w.Passed {
			say("passed", phrase.Args{"ask": w.Name})
		}
	}
	rests, seconds := 0, 0
	unasked := 0
	for _, e := range r.live {
		if e.Spell != nil && e.Spell.Rest {
			rests++
			seconds += e.Spell.Seconds
		}
		unasked += btoi(e.Kind == KindInterruption)
	}
	count := func(key string, n int) {
		if n > 0 {
			say(key, phrase.Args{"n": n, "s": seconds})
		}
	}
	for _, e := range r.live {
		if m := e.Memory; m != nil {
			step, _ := r.cat.Step(m.Step)
			say("memory", phrase.Args{"ask": askName(step, m.Ask), "n": m.Tries, "answer": m.Last.String()})
		}
	}
	count("rests", rests)
	count("unasked", unasked)
	count("over", s.overs)
	if back := r.back(v.Felt); back > 0 {
		say("back", phrase.Args{"n": back})
	}
	count("danger", s.dangers)
	if n := len(v.Said); n > 0 {
		taken := n - len(slices.DeleteFunc(slices.Clone(v.Said), func(s Said) bool { return !s.Otherwise }))
		say("advice", phrase.Args{"n": taken, "of": n})
	}
	if last := s.lastRep(); last != nil && s.ended {
		say("end", phrase.Args{"answer": last.answer.String()})
	}
	return story
}

// back is the longest time in minutes that it took from over the line back to
// attentive; 0: it was not over it, or did not come back.
func (r *Running) back(felt []Felt) int {
	longest, since := int64(0), int64(-1)
	for _, f := range felt {
		switch {
		case f.Level >= 3 && since < 0:
			since = f.At
		case f.Level <= 1 && since >= 0:
			longest, since = max(longest, f.At-since), -1
		}
	}
	return int((longest + 59_999) / 60_000)
}
