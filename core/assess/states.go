package assess

import (
	"cmp"
	"maps"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// Dated is an assessment with its day, YYYY-MM-DD.
type Dated struct {
	On  string     `json:"on" format:"date" doc:"day"`
	Doc Assessment `json:"assessment" doc:"the assessment as it stood"`
}

// A Shown ask is what an assessment saw of it (part 3, "What the assessment saw
// counts").
type Shown struct {
	horse.Ask
	Source     horse.Source
	State      horse.StepState // zero: none, it was only told
	Understood bool
	Level      horse.Level // at which it was met, if noted
	Good       bool        // accepted, at the level up to which a basic is not missing
	Refused    bool
}

// Shows lists what an assessment saw of the asks that it looks at, in the
// catalogue's order, each once. What only stands there from the assessment
// before, which it was begun from, was not seen again and is left out.
func (a Assessment) Shows(c *catalog.Catalog, before Assessment) []Shown {
	all := map[horse.Ask]Shown{}
	add := func(ask horse.Ask, s Shown) {
		if c.HasAsk(ask) && all[ask].State.Rank() < s.State.Rank() {
			s.Ask = ask
			all[ask] = s
		}
	}
	a.testsShow(c, before, add)
	a.touchesShow(c, before, add)
	a.baselinesShow(c, before, add)
	return slices.SortedFunc(maps.Values(all), func(x, y Shown) int { return c.Compare(x.Ask, y.Ask) })
}

// testsShow reads D and D2.
func (a Assessment) testsShow(c *catalog.Catalog, before Assessment, add func(horse.Ask, Shown)) {
	limits := Limits(c, a)
	for _, t := range Tests() {
		source := a.SourceIn("D")
		if t.Ridden {
			source = a.SourceIn("D2")
		}
		for i, key := range t.Asks() {
			b := a.Basics[key]
			if b.Grade.IsZero() || !b.Anew && b.same(before.Basics[key]) {
				continue
			}
			for _, step := range c.ShownBy(t.Key) {
				s := answered(step, b, limits[step.Key]).from(source)
				ask := horse.Ask{Step: step.Key}
				if len(t.Sides) > 0 && len(step.Variants) > 0 {
					ask.Variant.Side = t.Sides[i]
				}
				for _, one := range step.Asks() {
					if one == ask || ask.Variant.IsZero() {
						add(one, s)
					}
				}
			}
		}
	}
}

// touchesShow reads where the horse was touched.
func (a Assessment) touchesShow(c *catalog.Catalog, before Assessment, add func(horse.Ask, Shown)) {
	for spot, touch := range a.Zones {
		if touch.Grade.IsZero() || !touch.Anew && touch.same(before.Zones[spot]) {
			continue
		}
		for _, step := range c.ShownBy(spot.With.String()) {
			s := answered(step, Basic{Grade: touch.Grade, Level: touch.Level}, 0).from(a.SourceIn("D"))
			ask := horse.Ask{Step: step.Key, Variant: horse.Variant{Zone: spot.Zone, Side: spot.Side}}
			if !c.HasAsk(ask) && spot.Zone == horse.Zone3 { // over: of the zone where the rider sits
				ask.Variant.Zone = horse.Zone{}
			}
			add(ask, s)
		}
	}
}

// baselinesShow reads E: every step before the first that was not accepted, fewer
// by as many as arousal at baseline lowers the start.
func (a Assessment) baselinesShow(c *catalog.Catalog, before Assessment, add func(horse.Ask, Shown)) {
	for p, account := range a.Problems {
		base := account.Baseline
		reached, ok := c.Step(base.Reached)
		if was := before.Problems[p].Baseline; !ok || !base.Anew && base.Reached == was.Reached && base.Arousal == was.Arousal {
			continue
		}
		ladder, _ := c.Ladder(reached.Ladder)
		for _, step := range ladder.Steps[:max(reached.Place+1-base.lowers(), 0)] {
			if step.Link != "" {
				continue
			}
			for _, ask := range step.Asks() {
				add(ask, Shown{State: horse.Met, Understood: true, Good: true}.from(a.SourceIn("E")))
			}
		}
	}
}

// lowers is how many steps arousal at baseline lowers the start (part 3).
func (b Baseline) lowers() int {
	switch arousal := b.Arousal.Int(); {
	case arousal >= 3:
		return 2
	case arousal == 2:
		return 1
	}
	return 0
}

// understoodTo is the level up to which an answer shows that an ask is understood
// (part 5).
const understoodTo = 6

// answered is what one answer to a step shows, seen in person. most is how much
// of it a fact allows; 0: as the step says.
func answered(step catalog.Step, b Basic, most int) Shown {
	level := b.Level
	if b.Grade == horse.Offered && !level.Noted() {
		level = horse.LevelOf(1)
	}
	counts := len(step.Pass.Values) > 0 // a hold or a dose needs no level
	s := Shown{State: horse.Tried, Refused: b.Grade == horse.Refused, Good: !b.missing()}
	s.Understood = !s.Refused && (level.Noted() && level.Int() <= understoodTo || counts && !level.Noted())
	switch {
	case b.Grade == horse.Tolerated:
		s.State = horse.StepTolerated
	case horse.Soft(b.Grade) && b.reaches(step, most) && (level.Noted() && level.Int() <= step.Pass.Level || counts && !level.Noted()):
		s.State, s.Level = horse.Met, level
	}
	return s
}

// reaches reports whether a hold or a count was as long as the step asks for.
func (b Basic) reaches(step catalog.Step, most int) bool {
	last := step.Last()
	if most > 0 && last > most {
		last = most
	}
	switch {
	case step.Has(catalog.MeasureCount):
		return b.Count != nil && *b.Count >= last
	case step.Is(catalog.StoodFor):
		return b.Seconds != nil && int(*b.Seconds) >= last
	}
	return true
}

// from is what the same shows where it is known so: on video one state lower,
// told none at all.
func (s Shown) from(source horse.Source) Shown {
	s.Source = source
	switch source {
	case horse.Seen:
	case horse.OnVideo:
		was := s.State
		s.State, s.Understood, s.Good, s.Level = horse.StepState{}, was == horse.Met, false, horse.Level{}
		if was == horse.Met || was == horse.StepTolerated {
			s.State = horse.Tried
		}
	default:
		good := s.State == horse.Met
		s = Shown{Source: source}
		if good {
			s.State = horse.Untried // said to be good: the first thing to check
		}
	}
	return s
}

func (b Basic) same(o Basic) bool {
	return b.Level == o.Level && b.Grade == o.Grade && b.Prompt == o.Prompt && equal(b.Seconds, o.Seconds) && equal(b.Count, o.Count)
}

func (t Touch) same(o Touch) bool {
	return t.Level == o.Level && t.Grade == o.Grade && equal(t.StepOuts, o.StepOuts)
}

func equal[T cmp.Ordered](a, b *T) bool { return a == b || a != nil && b != nil && *a == *b }
