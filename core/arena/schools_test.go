package arena

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func in(school string) func(*Input) {
	return func(in *Input) {
		if err := in.School.UnmarshalText([]byte(school)); err != nil {
			panic(err)
		}
	}
}

func (s *script) add(e track.Entry) *script {
	s.at += s.gap
	e.ID, e.At = s.id(), s.at
	s.track = append(s.track, e)
	return s
}

// doses adds "planned/given/steps" words; a single number stood.
func (s *script) doses(words string, edits ...func(*track.Rep)) *script {
	for _, w := range strings.Fields(words) {
		d := track.Dose{Rep: track.Rep{Ask: s.ask, Arousal: horse.ArousalOf(1)}}
		if n, _ := fmt.Sscanf(w, "%d/%d/%d", &d.Target, &d.Given, &d.Steps); n == 0 {
			panic(w)
		}
		for _, edit := range edits {
			edit(&d.Rep)
		}
		s.add(track.Entry{Kind: track.KindDose, Dose: &d})
	}
	return s
}

func (s *script) offers(words string) *script {
	for _, w := range strings.Fields(words) {
		o := track.Offer{Ask: s.ask, Arousal: horse.ArousalOf(1)}
		if err := o.Answer.UnmarshalText([]byte(w)); err != nil {
			panic(err)
		}
		s.add(track.Entry{Kind: track.KindOffer, Offer: &o})
	}
	return s
}

func (s *script) spell(place string, rest bool, seconds, level int) *script {
	p := track.Spell{Ask: s.ask, Rest: rest, Seconds: seconds, Arousal: horse.ArousalOf(1)}
	if err := p.Place.UnmarshalText([]byte(place)); err != nil {
		panic(err)
	}
	if level > 0 {
		p.Level = horse.LevelOf(level)
	}
	return s.add(track.Entry{Kind: track.KindSpell, Spell: &p})
}

func answer(a horse.Answer) func(*track.Rep)    { return func(r *track.Rep) { r.Answer = a } }
func signs(list ...horse.Sign) func(*track.Rep) { return func(r *track.Rep) { r.Signs = list } }
func mounted(r *track.Rep)                      { r.Held = horse.Ridden }

func snorts() horse.Sign {
	var s horse.Sign
	if err := s.UnmarshalText([]byte("snorts")); err != nil {
		panic(err)
	}
	return s
}

// The worked cases of part 6 that concern the other schools.
func TestWorkedCasesOfTheOtherSchools(t *testing.T) {
	shoulder := "new.shoulder near"
	under := known(horse.Kept, 1, "lead.back", "quarters.hind near", "quarters.hind off", "quarters.fore near", "quarters.fore off", "new.near", "new.air")
	doses, wait, listen, relief := in("doses"), in("wait it out"), in("ask and listen"), in("relief place")
	target := func(n int) func(*testing.T, Advice) {
		return func(t *testing.T, a Advice) { assert.Equal(t, n, a.Next.Target) }
	}
	for name, test := range map[string]struct {
		in     Input
		action track.Action
		rule   string
		check  func(*testing.T, Advice)
	}{
		"6 dose 4":             {on(shoulder).doses("4").input(doses, under), track.Up, "12", target(6)},
		"6 dose 6":             {on(shoulder).doses("4 6").input(doses, under), track.Up, "12", target(9)},
		"6 dose 9":             {on(shoulder).doses("4 6 9").input(doses, under), track.Up, "12", target(13)},
		"6 the last dose once": {on(shoulder).doses("4 6 9 13").input(doses, under), track.Same, "15", target(13)},
		"6 and twice":          {on(shoulder).doses("4 6 9 13 13").input(doses, under), track.Same, "15", target(13)},
		"6 and three times": {on(shoulder).doses("4 6 9 13 13 13").input(doses, under), track.OtherSide, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("new.shoulder off"), a.Next.Ask)
			assert.Equal(t, 4, a.Next.Target)
		}},
		"7 it walks, and stands at the 14th": {on(shoulder).doses("4 6 9/14/3").input(doses, under), track.Same, "7", target(4)},
		"7 for the third time": {on(shoulder).doses("4 6/8/2 4/6/1 4 6 9/14/3").input(doses, under), track.Down, "7", func(t *testing.T, a Advice) {
			assert.Equal(t, "new.air", a.Next.Step)
		}},
		"8 in doses one tolerated stand":  {on(shoulder).doses("4", answer(horse.Tolerated)).input(doses, under), track.Up, "12", target(6)},
		"8 in doses at arousal 2":         {on(shoulder).doses("4", answer(horse.Tolerated), arousal(2)).input(doses, under), track.Same, "8", nil},
		"9 in wait it out, not afraid":    {on("head.down").reps("try@4 try@4 accepted@4 try@4").reps("try@4", arousal(3)).reps("try@4").reps("try@4", arousal(3)).input(wait), track.Hold, "3", nil},
		"9 in wait it out, afraid":        {on("head.down").reps("try@4", arousal(3), signs(snorts())).input(wait), track.Wait, "3", nil},
		"10 kicks at the pole fall":       {on("wild.pole near").doses("5", kicks(6), answer(horse.Try)).doses("5", kicks(3), answer(horse.Try)).input(doses), track.Same, "8", nil},
		"10 kicks at the pole rise":       {on("wild.pole near").doses("5", kicks(3)).doses("5", kicks(5)).doses("5", kicks(7)).input(doses), track.MakeSafe, "2", nil},
		"11 four noes at arousal 2":       {on("head.down").reps("refused@5 refused@5 refused@5 refused@5", arousal(2)).input(wait), track.Same, "7", nil},
		"11 and then accepted":            {on("head.down").reps("refused@5 refused@5 refused@5 refused@5", arousal(2)).reps("accepted@5", arousal(1)).input(wait, soft("head.down")), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, horse.Medium, a.Release) }},
		"11 and furthest ever":            {on("head.down").reps("refused@5 refused@5 refused@5 refused@5", arousal(2)).reps("accepted@5", arousal(1)).input(wait), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, horse.Big, a.Release) }},
		"13 a no":                         {on("saddle.show").offers("came came left").input(listen), track.Retreat, "7", nil},
		"13 and again":                    {on("saddle.show").offers("came came left left").input(listen, known(horse.Kept, 1, "zones.over near", "zones.over off")), track.Down, "7", nil},
		"14 one chosen rest counted":      {on("load.square at 3 m").spell("away", false, 40, 4).spell("at the door", true, 20, 0).spell("beside right", false, 30, 4).spell("at the door", true, 35, 0).input(relief), track.Same, "12", func(t *testing.T, a Advice) { assert.Equal(t, 1, a.Numbers.PassRun) }},
		"a shorter rest breaks the row":   {on("load.square at 3 m").spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).spell("at the door", true, 20, 0).input(relief), track.Same, "8", func(t *testing.T, a Advice) { assert.Zero(t, a.Numbers.PassRun) }},
		"three rests, and another place":  {on("load.square at 3 m").spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).input(relief), track.OtherSide, "12", nil},
		"three rests on a wrong slope":    {on("load.square at 3 m").spell("away", false, 40, 3).spell("at the door", false, 20, 3).spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).input(relief), track.Same, "12", nil},
		"five spells without coming near": {on("load.gap going left").spell("away", false, 60, 3).spell("away", false, 60, 3).spell("away", false, 60, 3).spell("away", false, 60, 3).spell("away", false, 60, 3).input(relief), track.Down, "7", nil},
		"leaving is no refusal":           {on("load.gap going left").spell("at the door", true, 35, 0).spell("away", false, 60, 3).input(relief), track.Same, "7", nil},
		"over the line: by its feet":      {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, track.Mark{Arousal: horse.ArousalOf(3)}).input(relief, known(horse.Kept, 1, "lead.back")), track.SettleByFeet, "3", nil},
		"three easy asks without it": {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, track.Mark{Arousal: horse.ArousalOf(3)}).to("lead.back").reps("accepted@2 accepted@2 accepted@2", arousal(3)).
			input(relief, known(horse.Kept, 1, "lead.back")), track.Wait, "3", nil},
		"over the line in doses: still": {on(shoulder).doses("4", arousal(3)).input(doses, under), track.Hold, "3", func(t *testing.T, a Advice) { assert.Equal(t, []track.Action{track.Wait, track.Down}, a.Then) }},
		"over the line while listening": {on("saddle.show").offers("came").mark(0, track.Mark{Arousal: horse.ArousalOf(3)}).input(listen), track.Retreat, "3", nil},
		"at open time ask for less":     {on("head.flex near").every(1300).reps("refused@5 refused@5 refused@5").input(wait, known(horse.Kept, 1, "head.down")), track.Down, "7", nil},
		"a cap only reminds while it waits": {on("head.flex near").every(700).reps("refused@5 refused@5 refused@5 refused@5").input(wait), track.Same, "7", func(t *testing.T, a Advice) {
			assert.Contains(t, warned(a), "time is up")
		}},
		"until the next try is released": {on("head.flex near").every(700).reps("refused@5 refused@5 refused@5 try@5").input(wait), track.EndSession, "4", nil},
		"waiting has its end":            {on("head.flex near").every(1100).reps("refused@5 refused@5 refused@5 refused@5").input(wait), track.EndSession, "4", nil},
		"seven three times, waiting":     {on("head.down").reps("try@7 try@7 try@7").input(wait), track.Same, "8", nil},
		"planted twice, mounted":         {on("rush.slack").reps("try@3 try@3", mounted, way(horse.Planted)).input(in("build and release")), track.GetDown, "6", nil},
		"a burst on the touch":           {burst(on("control.walk"), 10, 8).input(in("build and release"), known(horse.Kept, 1, "control.saddle near", "control.saddle off")), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, 1, a.Numbers.PassRun) }},
		"a burst of one too many":        {burst(on("control.walk"), 10, 7).input(in("build and release")), track.Same, "8", nil},
		"an interruption is no answer":   {on("home.near").reps("accepted@1").add(track.Entry{Kind: track.KindInterruption, Interruption: &track.Interruption{Behaviour: horse.TurnedAway, Level: horse.LevelOf(4)}}).input(), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, 1, a.Numbers.N) }},
	} {
		t.Run(name, func(t *testing.T) {
			a := advise(t, test.in)
			assert.Equal(t, test.action.String(), a.Action.String(), "rule %s: %v", a.Rule, a.Why)
			assert.Equal(t, test.rule, a.Rule, "%v", a.Why)
			if test.check != nil && !t.Failed() {
				test.check(t, a)
			}
		})
	}
}

// The school turns with the ladder: a foundation in doses within a session of
// build and release.
func TestTheSchoolIsThatOfTheLadder(t *testing.T) {
	zone := "zones.hand zone 2 near"
	byLadder := func(in *Input) { in.Schools = map[string]horse.School{"zones": horse.Doses} }
	tolerated := on("lead.back").value(1).reps("tolerated@2").to(zone).value(2).reps("tolerated@1")
	a := advise(t, tolerated.input(byLadder))
	assert.Equal(t, []string{"up", "12"}, []string{a.Action.String(), a.Rule}, "one quiet stand")
	assert.Equal(t, track.Same, advise(t, tolerated.input()).Action, "tolerated is not accepted")
	back := tolerated.to("lead.back").value(1).reps("tolerated@2")
	assert.Equal(t, "8", advise(t, back.input(byLadder)).Rule)
	bad := tolerated.input()
	bad.Schools = map[string]horse.School{"moon": horse.Doses}
	c := shipped(t)
	_, err := Advise(c, c.Rules, bad)
	assert.ErrorContains(t, err, "not a ladder")
}

func soft(step string) func(*Input) {
	return func(in *Input) { in.Known = append(in.Known, Known{Ask: ask(step), State: horse.Tried, Soft: true}) }
}

func burst(s *script, asks, onTouch int) *script {
	return s.add(track.Entry{Kind: track.KindBurst, Burst: &track.Burst{Ask: s.ask, Asks: asks, OnTouch: onTouch, Last: horse.Accepted, Arousal: horse.ArousalOf(1)}})
}

func warned(a Advice) []string {
	var names []string
	for _, w := range a.Warnings {
		names = append(names, w.Rule)
	}
	return names
}

func TestEntriesThatCantBeAreRefused(t *testing.T) {
	c := shipped(t)
	for say, e := range map[string]track.Entry{
		"needs its dose":                  {ID: "1", Kind: track.KindDose},
		"not a step of the catalogue":     {ID: "1", Kind: track.KindOffer, Offer: &track.Offer{Ask: ask("lead.moon"), Answer: track.Came}},
		"came, stayed, hesitated or left": {ID: "1", Kind: track.KindOffer, Offer: &track.Offer{Ask: ask("lead.back")}},
		"a spell needs its place":         {ID: "1", Kind: track.KindSpell, Spell: &track.Spell{Ask: ask("lead.back"), Seconds: 3}},
		"a burst needs how many":          {ID: "1", Kind: track.KindBurst, Burst: &track.Burst{Ask: ask("lead.back"), Asks: 3, OnTouch: 4, Last: horse.Try}},
		"the behaviour that was stopped":  {ID: "1", Kind: track.KindInterruption, Interruption: &track.Interruption{}},
		"has no variant":                  {ID: "1", Kind: track.KindDose, Dose: &track.Dose{Rep: track.Rep{Ask: ask("lead.back near")}}},
	} {
		assert.ErrorContains(t, e.Check(c), say)
	}
}

// A session with a horse that does always the same ends or goes down within
// stated bounds, whatever the school.
func TestEverySessionEnds(t *testing.T) {
	c := shipped(t)
	const most = 140 // entries half a minute apart: 70 minutes
	asks := map[string]string{
		"build and release": "quarters.fore near", "wait it out": "head.flex near", "doses": "zones.hand zone 2 near", "ask and listen": "saddle.pad near", "relief place": "load.gap going left",
	}
	for school, begin := range asks {
		for _, always := range []string{"refused", "tolerated", "explodes", "accepted"} {
			input := on(begin).input(in(school))
			changed := false
			for i := range most {
				a, err := Advise(c, c.Rules, input)
				require.NoError(t, err)
				changed = changed || a.Action == track.Down || a.Action == track.EndAsk
				if a.Action == track.EndSession || slices.Contains(a.Then, track.EndSession) {
					changed = true
					break
				}
				if a.Action == track.EndAsk || a.Action == track.ChangeAsk {
					break
				}
				next := input.Ask
				if a.Next != nil {
					next = a.Next.Ask
				}
				e := track.Entry{ID: fmt.Sprintf("%03d", i), Kind: track.KindRep, At: int64(i+1) * 30_000}
				r := track.Rep{Ask: next, Answer: horse.Refused, Peak: horse.LevelOf(3), Arousal: horse.ArousalOf(1)}
				switch always {
				case "tolerated":
					r.Answer = horse.Tolerated
				case "accepted":
					r.Answer = horse.Accepted
				case "explodes":
					r.Arousal, r.WaysOut = horse.ArousalOf(4), []horse.WayOut{horse.Reared}
				}
				e.Rep = &r
				input.Track, input.Now = append(input.Track, e), e.At
			}
			assert.True(t, changed, "%s, %s", school, always)
		}
	}
}

// Whatever is logged in whatever school, there is one action; nothing goes up
// at arousal 3, after a refusal or across a block, and no closed or blocked
// step is asked.
func TestEverySchoolKeepsTheRules(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		input := anyInput(t, c)
		input.School = rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")
		for i, e := range input.Track {
			if e.Rep == nil || rapid.Bool().Draw(t, "stays a rep") {
				continue
			}
			input.Track[i] = other(t, e)
		}
		a, err := Advise(c, c.Rules, input)
		require.NoError(t, err)
		assert.False(t, a.Action.IsZero())
		asksAny := a.Next != nil && a.Action != track.Wait && a.Action != track.MakeSafe
		if a.Action == track.Up {
			assert.LessOrEqual(t, a.Numbers.Arousal, 2)
		}
		if asksAny && a.Action != track.Hold && a.Action != track.Refocus && a.Action != track.GetDown {
			assert.NotContains(t, input.Blocked, a.Next.Step, "%s by rule %s", a.Action, a.Rule)
		}
		if a.Numbers.Arousal >= 3 {
			assert.NotContains(t, []track.Action{track.Up, track.OtherSide, track.Down, track.ChangeAsk}, a.Action)
		}
	})
}

// other turns a rep into an entry of another kind.
func other(t *rapid.T, e track.Entry) track.Entry {
	r := *e.Rep
	e.Rep = nil
	switch rapid.IntRange(0, 4).Draw(t, "kind") {
	case 0:
		e.Kind, e.Dose = track.KindDose, &track.Dose{Rep: r, Given: rapid.IntRange(0, 30).Draw(t, "given"), Steps: rapid.IntRange(0, 3).Draw(t, "steps")}
	case 1:
		e.Kind, e.Offer = track.KindOffer, &track.Offer{Ask: r.Ask, Answer: rapid.SampledFrom((track.Offered{}).All()).Draw(t, "offer"), Arousal: r.Arousal}
	case 2:
		e.Kind, e.Spell = track.KindSpell, &track.Spell{Ask: r.Ask, Place: rapid.SampledFrom((track.SpellPlace{}).All()).Draw(t, "place"), Rest: rapid.Bool().Draw(t, "rest"), Seconds: rapid.IntRange(0, 90).Draw(t, "seconds"), Level: r.Peak, Arousal: r.Arousal}
	case 3:
		e.Kind, e.Burst = track.KindBurst, &track.Burst{Ask: r.Ask, Asks: 10, OnTouch: rapid.IntRange(0, 10).Draw(t, "on touch"), Last: r.Answer, Arousal: r.Arousal}
	default:
		e.Kind, e.Interruption = track.KindInterruption, &track.Interruption{Behaviour: horse.TurnedAway, Arousal: r.Arousal}
	}
	return e
}
