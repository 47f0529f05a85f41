package arena

import (
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func shipped(t testing.TB) *catalog.Catalog {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	return c
}

func ask(s string) horse.Ask {
	step, variant, _ := strings.Cut(s, " ")
	v, err := horse.ParseVariant(variant)
	if err != nil {
		panic(err)
	}
	return horse.Ask{Step: step, Variant: v}
}

// a script builds a track from "answer@peak" words, one every half minute.
type script struct {
	ask    horse.Ask
	at     int64
	gap    int64
	target int
	bare   bool
	track  []track.Entry
}

func on(a string) *script { return &script{ask: ask(a), gap: 30_000} }

func (s *script) id() string { return fmt.Sprintf("%04d", len(s.track)+1) }

func (s *script) every(seconds int64) *script { s.gap = seconds * 1000; return s }
func (s *script) to(a string) *script         { s.ask = ask(a); return s }
func (s *script) value(v int) *script         { s.target = v; return s }

// reps adds "accepted@3" words; edits change each rep of the call.
func (s *script) reps(words string, edits ...func(*track.Rep)) *script {
	for _, w := range strings.Fields(words) {
		name, peak, _ := strings.Cut(w, "@")
		r := track.Rep{Ask: s.ask, Arousal: horse.ArousalOf(1), Target: s.target}
		if err := r.Answer.UnmarshalText([]byte(name)); err != nil {
			panic(err)
		}
		if peak != "" {
			var n int
			if _, err := fmt.Sscan(peak, &n); err != nil {
				panic(err)
			}
			r.Peak = horse.LevelOf(n)
		}
		for _, edit := range edits {
			edit(&r)
		}
		s.at += s.gap
		s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindRep, At: s.at, Rep: &r})
	}
	return s
}

func (s *script) mark(after int64, m track.Mark) *script {
	s.at += after
	s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindMark, At: s.at, Mark: &m})
	return s
}

func arousal(n int) func(*track.Rep) { return func(r *track.Rep) { r.Arousal = horse.ArousalOf(n) } }
func way(w ...horse.WayOut) func(*track.Rep) {
	return func(r *track.Rep) { r.WaysOut = append(r.WaysOut, w...) }
}
func flag(f ...horse.Flag) func(*track.Rep) {
	return func(r *track.Rep) { r.Flags = append(r.Flags, f...) }
}
func released(w horse.Release) func(*track.Rep) { return func(r *track.Rep) { r.Release = w } }
func kicks(n int) func(*track.Rep)              { return func(r *track.Rep) { r.Kicks = &n } }
func sour(r *track.Rep)                         { r.Manner = horse.Sour }
func clocked(r *track.Rep)                      { r.Reached = &r.Target }

// input fits a script into a session that began at 0.
func (s *script) input(edits ...func(*Input)) Input {
	in := Input{School: horse.BuildAndRelease, Ask: s.ask, Track: s.track, Now: s.at}
	if len(s.track) > 0 && s.track[0].Rep != nil {
		in.Ask = s.track[0].Rep.Ask
	}
	for _, edit := range edits {
		edit(&in)
	}
	if !s.bare {
		in.Known = append(in.Known, stoodOn(in)...)
	}
	return in
}

// early leaves out that what the asks stand on was seen good.
func (s *script) early() *script { s.bare = true; return s }

// stoodOn is what the asks of a track stand on and nothing is known of, seen good:
// a case speaks of an ask that is open, unless it says otherwise.
func stoodOn(in Input) []Known {
	c := anyCatalog()
	has := map[horse.Ask]bool{in.Ask: true}
	for _, k := range in.Known {
		has[k.Ask] = true
	}
	var list []Known
	var under func(a horse.Ask)
	under = func(a horse.Ask) {
		for _, n := range c.Needs(a.Step) {
			for _, b := range c.AsksOf(n) {
				if !has[b] {
					has[b] = true
					list = append(list, Known{Ask: b, State: horse.Tried, Good: true, Understood: true})
					under(b)
				}
			}
		}
	}
	under(in.Ask)
	for _, e := range in.Track {
		if r, ok := e.AsRep(c); ok && !has[r.Ask] {
			has[r.Ask] = true
			under(r.Ask)
		}
	}
	return list
}

var anyCatalog = sync.OnceValue(func() *catalog.Catalog {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	return c
})

func known(state horse.StepState, level int, asks ...string) func(*Input) {
	return func(in *Input) {
		for _, a := range asks {
			in.Known = append(in.Known, Known{Ask: ask(a), State: state, Soft: true, Level: horse.LevelOf(level)})
		}
	}
}

func now(ms int64) func(*Input) { return func(in *Input) { in.Now = ms } }
func bodyClear(in *Input)       { in.Horse.BodyClear = true }

func advise(t testing.TB, in Input) Advice {
	t.Helper()
	c := shipped(t)
	a, err := Advise(c, c.Rules, in)
	require.NoError(t, err)
	return a
}

// The worked cases of part 6 that concern building and releasing.
func TestWorkedCases(t *testing.T) {
	hind := "quarters.hind near"
	for name, test := range map[string]struct {
		in     Input
		action track.Action
		rule   string
		check  func(*testing.T, Advice)
	}{
		"1 three at 3 or less": {on(hind).reps("accepted@4 accepted@3 accepted@3 accepted@2").input(), track.OtherSide, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("quarters.hind off"), a.Next.Ask)
		}},
		"2 too little time for the dip": {on(hind).reps("accepted@4 accepted@4").input(now(11 * minute)), track.EndAsk, "13", nil},
		"3 time for the dip": {on(hind).reps("accepted@4 accepted@4").input(now(5 * minute)), track.Same, "15", func(t *testing.T, a Advice) {
			assert.Equal(t, "why.dip_next", a.Why.Key)
			assert.EqualValues(t, 3, a.Why.Args["a"])
			assert.EqualValues(t, 4, a.Why.Args["b"])
		}},
		"4 noes from a dip": {on(hind).reps("accepted@3 accepted@4 refused@6 refused@6 refused@6").input(), track.Same, "7", nil},
		"4 the fourth no":   {on("quarters.fore near").reps("accepted@3 accepted@4 refused@6 refused@6 refused@6 refused@6").input(), track.Down, "7", nil},
		"5 noes from the start": {on("quarters.fore near").reps("refused@4 refused@5 refused@5").input(), track.Down, "7", func(t *testing.T, a Advice) {
			assert.Equal(t, ask(hind), a.Next.Ask)
		}},
		"8 tolerated four times": {on("quarters.fore near").reps("tolerated@2 tolerated@2 tolerated@2 tolerated@2").input(), track.Down, "8", func(t *testing.T, a Advice) {
			assert.Equal(t, 90, a.Rest)
		}},
		"9 over the line twice": {on("lead.back").value(1).reps("accepted@4 try@4 accepted@4 try@4").reps("try@4", arousal(3)).reps("try@4").reps("try@4", arousal(3)).input(), track.Wait, "3", func(t *testing.T, a Advice) {
			assert.Equal(t, []track.Action{track.Down}, a.Then)
		}},
		"9 back down, lower for the session": {on("lead.back").value(2).reps("try@4 try@4", arousal(3)).mark(minute, track.Mark{Arousal: horse.ArousalOf(1)}).input(), track.Down, "3", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("lead.stand"), a.Next.Ask, "a whole step, whatever the value")
		}},
		"10 a kick at a person": {on(hind).reps("accepted@4").reps("refused@4", way(horse.KickedAtPerson)).input(), track.MakeSafe, "2", func(t *testing.T, a Advice) {
			assert.Equal(t, []track.Action{track.Down}, a.Then)
			assert.True(t, a.Incident)
		}},
		"10 a second kick": {on(hind).reps("accepted@4").reps("refused@4", way(horse.KickedAtPerson)).to("head.down").
			reps("try@2 try@2 accepted@2 try@2 accepted@2 try@2").reps("refused@2", way(horse.KickedAtPerson)).input(), track.EndSession, "2", nil},
		"10 kicks at the pole fall":      {on(hind).reps("try@3", kicks(6)).reps("try@3", kicks(3)).input(), track.Same, "8", nil},
		"10 kicks at the pole rise":      {on(hind).reps("try@3", kicks(3)).reps("try@3", kicks(5)).reps("try@3", kicks(7)).input(), track.MakeSafe, "2", nil},
		"12 fifteen thirty, n 7":         {on(hind).every(128).reps(seven).input(now(15*minute + 30_000)), track.Same, "15", nil},
		"12 fifteen thirty, n 8":         {on(hind).every(112).reps(seven + " accepted@4").input(now(15*minute + 30_000)), track.Same, "15", nil},
		"12 fifteen thirty, n 9":         {on(hind).every(100).reps(seven + " accepted@4 accepted@4").input(now(15*minute + 30_000)), track.EndAsk, "10", nil},
		"12 n 8 completes the pass mark": {on(hind).every(112).reps("accepted@4 accepted@4 accepted@4 accepted@4 accepted@4 accepted@3 accepted@3 accepted@3").input(now(15*minute + 30_000)), track.EndAsk, "10", nil},
		"15 a fly is not counted": {on(hind).reps("accepted@4 accepted@4").reps("refused@4", flag(horse.OutsideCause)).input(), track.Same, "5", func(t *testing.T, a Advice) {
			assert.Equal(t, 2, a.Numbers.N)
		}},
		"16 over the line for ten minutes": {on(hind).reps("try@4", arousal(3)).mark(10*minute, track.Mark{Arousal: horse.ArousalOf(3)}).input(), track.EndSession, "3", nil},
		"17 a buck and pain": {on(hind).reps("refused@2", way(horse.Bucked)).mark(0, track.Mark{Stop: stop("pain"), WaysOut: []horse.WayOut{horse.Bucked}}).input(), track.MakeSafe, "1", func(t *testing.T, a Advice) {
			assert.Equal(t, []track.Action{track.EndSession}, a.Then)
		}},
		"18 six mixed": {on("quarters.fore near").reps("tolerated@4 refused@4 try@4 tolerated@4 refused@4 tolerated@4").input(), track.Down, "8", func(t *testing.T, a Advice) {
			assert.Equal(t, 90, a.Rest)
		}},
		"19 seven three times":         {on("quarters.fore near").reps("refused@7 try@7 accepted@7").input(), track.Down, "6", nil},
		"20 near the session cap, n 5": {inBlock(on(hind), 26*minute).every(120).reps("accepted@4 accepted@4 accepted@4 accepted@4 accepted@4").input(), track.EndSession, "10", nil},
	} {
		t.Run(name, func(t *testing.T) {
			a := advise(t, test.in)
			assert.Equal(t, test.action.String(), a.Action.String(), "rule %s: %v", a.Rule, a.Why)
			assert.Equal(t, test.rule, a.Rule)
			if test.check != nil && !t.Failed() {
				test.check(t, a)
			}
		})
	}
}

const seven = "accepted@4 accepted@4 accepted@4 accepted@4 accepted@4 accepted@4 accepted@4"

// inBlock lets a block of another ladder go before, so that the script's own
// block begins at ms.
func inBlock(s *script, ms int64) *script {
	was := s.ask
	s.to("lead.halt").reps("accepted@4")
	s.at = ms
	s.to(was.String())
	s.mark(0, track.Mark{Ask: &was})
	return s
}

func stop(s string) horse.Stop {
	var r horse.Stop
	if err := r.UnmarshalText([]byte(s)); err != nil {
		panic(err)
	}
	return r
}

func TestOtherRules(t *testing.T) {
	hind, fore := "quarters.hind near", "quarters.fore near"
	trailer := []func(*Input){
		known(horse.Kept, 1, "lead.forward", "lead.halt", "lead.stand", "lead.back", "lead.turn near", "lead.turn off", "lead.anytime",
			"head.down", "quarters.hind near", "quarters.hind off", "quarters.fore near", "quarters.fore off"),
	}
	for name, test := range map[string]struct {
		in     Input
		action track.Action
		rule   string
		check  func(*testing.T, Advice)
	}{
		"nothing logged: begin at 1": {on(hind).input(), track.Same, "begin", func(t *testing.T, a Advice) { assert.Equal(t, 1, a.Next.StartLevel) }},
		"a hold goes up by half": {on("lead.stand").value(11).reps("accepted accepted accepted", clocked).input(), track.Up, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, 16, a.Next.Target)
			assert.Equal(t, horse.Small, a.Release, "big once in a block")
		}},
		"a hold broken by the horse": {on("lead.stand").value(24).reps("try", func(r *track.Rep) { r.EndedBy = horse.ByHorse; r.Answer = horse.Accepted }).input(), track.Down, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, 11, a.Next.Target)
			assert.Equal(t, ask("lead.stand"), a.Next.Ask)
		}},
		"a hold without its clock does not pass": {on("lead.stand").value(11).reps("accepted accepted accepted").input(), track.Same, "15", func(t *testing.T, a Advice) { assert.Zero(t, a.Numbers.PassRun) }},
		"nor one that came to less":              {on("lead.stand").value(11).reps("accepted accepted accepted", func(r *track.Rep) { r.Reached = ptr(10) }).input(), track.Same, "15", nil},
		"a hold corrected once passes":           {on("lead.stand").value(11).reps("accepted accepted accepted", func(r *track.Rep) { r.Corrections = 1 }, clocked).input(), track.Up, "12", nil},
		"a hold corrected twice does not pass":   {on("lead.stand").value(45).reps("accepted accepted accepted", func(r *track.Rep) { r.Corrections = 2 }, clocked).input(), track.Same, "15", nil},
		"not noticed: refocus":                   {on(hind).reps("refused@3", flag(horse.NotNoticed)).input(), track.Refocus, "5", nil},
		"third wrong moment":                     {on(hind).reps("refused@3 refused@3 refused@3", released(horse.WrongMoment)).input(), track.ChangeAsk, "5", nil},
		"a kept ask refused three times: once firm": {on(fore).reps("refused@4 refused@4 refused@5").input(known(horse.Kept, 2, fore), bodyClear), track.Same, "7", func(t *testing.T, a Advice) {
			assert.Equal(t, 7, a.Next.BuildTo)
		}},
		"firm has a ceiling of 6 with a beginner": {on(fore).reps("refused@4 refused@4 refused@5").input(known(horse.Kept, 2, fore), bodyClear, func(in *Input) {
			in.Handler, in.Handlers = "b", map[string]Handler{"b": {Beginner: true}}
		}), track.Same, "7", func(t *testing.T, a Advice) { assert.Equal(t, 6, a.Next.BuildTo) }},
		"no firmness when the body is not known to be clear": {on(fore).reps("refused@4 refused@4 refused@5").input(known(horse.Kept, 2, fore)), track.Down, "7", nil},
		"sour with a clear body: one level more":             {on(fore).reps("tolerated@4", sour).input(bodyClear), track.Same, "8", func(t *testing.T, a Advice) { assert.Equal(t, 5, a.Next.BuildTo) }},
		"sour and the body not looked at":                    {on(fore).reps("tolerated@4", sour).input(), track.Same, "8", func(t *testing.T, a Advice) { assert.Zero(t, a.Next.BuildTo) }},
		"an owner's first good one": {on("lead.back").value(4).reps("refused@4 accepted@4", func(r *track.Rep) { r.Handler = "o" }).input(func(in *Input) {
			in.Handlers = map[string]Handler{"o": {Owner: true}}
		}), track.EndSession, "9", nil},
		"offered three times on a dip is no routine": {on(fore).reps("offered@1 offered@1 offered@1").input(known(horse.Met, 1, fore, "quarters.fore off", "quarters.hind near", "quarters.hind off")), track.Up, "12", nil},
		"routine": {on(fore).reps("accepted@4 accepted@4 offered@1 offered@1 offered@1").input(known(horse.Met, 1, fore, "quarters.fore off")), track.ChangeAsk, "11", nil},
		"up to the next open step": {on("load.board").reps("accepted@2 accepted@2 accepted@2 accepted@2 accepted@2").input(trailer...), track.Up, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("load.bridge"), a.Next.Ask)
		}},
		"a step whose needs are not met is not offered": {on("lead.anytime").reps("accepted@2 accepted@2 accepted@2").to("lead.past off").reps("accepted@2 accepted@2 accepted@2").to("lead.past near").reps("accepted@2 accepted@2 accepted@2").input(func(in *Input) {
			in.Blocked = []string{"lead.space"}
		}), track.EndAsk, "12", nil},
		"the first step of a ladder goes down to its last foundation": {on("load.board").reps("refused@4 refused@4 refused@4").input(trailer...), track.Down, "7", func(t *testing.T, a Advice) {
			assert.Equal(t, "quarters.fore", a.Next.Step)
		}},
		"a blocked step is never asked": {on("load.step").value(3).reps("try@3").input(func(in *Input) { in.Blocked = []string{"load.step", "load.stand"} }), track.Down, "8", func(t *testing.T, a Advice) {
			assert.Equal(t, "load.front", a.Next.Step)
		}},
		"danger closes the step and those above": {on("load.front").value(1).reps("refused@4", way(horse.Reared)).mark(minute, track.Mark{Arousal: horse.ArousalOf(1)}).input(trailer...), track.Down, "2", func(t *testing.T, a Advice) {
			assert.Equal(t, "load.gap", a.Next.Step)
		}},
		"danger in a foundation closes the ladders on it": {on("quarters.hind near").reps("refused@4", way(horse.Reared)).mark(minute, track.Mark{Arousal: horse.ArousalOf(1)}).mark(0, track.Mark{Ask: ptr(ask("load.board"))}).input(trailer...), track.Down, "begin", func(t *testing.T, a Advice) {
			assert.Equal(t, "head.down", a.Next.Step)
		}},
		"a cleared rear is a refusal":               {on(hind).reps("refused@4", way(horse.Reared), flag(horse.RearCleared)).input(), track.Same, "15", nil},
		"the third cleared rear in a run is danger": {on(hind).reps("refused@4 refused@4 refused@4", way(horse.Reared), flag(horse.RearCleared)).input(), track.MakeSafe, "2", nil},
		"a rear is not cleared when fear is likely": {on(hind).reps("refused@4", way(horse.Reared), flag(horse.RearCleared)).input(func(in *Input) { in.Horse.FearLikely = true }), track.MakeSafe, "2", nil},
		"arousal 4 still seen is the same event":    {on(hind).reps("refused@4", arousal(4)).mark(10_000, track.Mark{Arousal: horse.ArousalOf(4)}).mark(10_000, track.Mark{Arousal: horse.ArousalOf(3)}).input(), track.MakeSafe, "2", func(t *testing.T, a Advice) { assert.Equal(t, []track.Action{track.Down}, a.Then) }},
		"the third over the line in a session": {on(fore).reps("try@3", arousal(3)).to("head.down").reps("try@3", arousal(3)).to("lead.halt").reps("try@3", arousal(3)).input(), track.Wait, "3", func(t *testing.T, a Advice) {
			assert.Equal(t, []track.Action{track.EndSession}, a.Then)
		}},
		"session cap after a good one": {on(hind).every(480).reps("accepted@4 accepted@4 accepted@4 accepted@4 accepted@4").input(), track.EndSession, "4", func(t *testing.T, a Advice) { assert.Nil(t, a.Easy) }},
		"session cap after a no: one easy known first": {on(hind).every(480).reps("accepted@4 accepted@4 accepted@4 accepted@4 refused@4").input(known(horse.Kept, 1, "lead.halt")), track.EndSession, "4", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("lead.halt"), *a.Easy)
		}},
		"at most two tries of it": {on(hind).every(480).reps("accepted@4 accepted@4 accepted@4 accepted@4 refused@4").to("lead.halt").every(30).reps("refused@3 refused@3").input(known(horse.Kept, 1, "lead.halt")), track.EndSession, "4", func(t *testing.T, a Advice) {
			assert.Nil(t, a.Easy)
			assert.Equal(t, "why.quiet_moment", a.Why.Key)
		}},
		"easy time does not count": {on(hind).every(480).reps("accepted@4 accepted@4 accepted@4 accepted@4").mark(0, track.Mark{EasyMinutes: 30}).reps("accepted@4").input(), track.Same, "15", nil},
		"balance":                  {on(hind).reps("accepted@4 accepted@4 accepted@4 accepted@4 accepted@4").input(), track.Same, "15", nil},
		"after the end":            {on(hind).reps("accepted@4").end().input(), track.EndSession, "ended", nil},
		"twice down from one ask: it stays lower": {on(fore).reps("refused@4 refused@4 refused@4").to(hind).reps("accepted@3").to(fore).reps("refused@4 refused@4 refused@4").to(hind).reps("accepted@3 accepted@3 accepted@3").input(known(horse.Met, 3, "quarters.hind off")), track.EndAsk, "12", nil},
		"a lighter level asked by the plan":       {on("lead.back").value(4).reps("accepted@2 accepted@2 accepted@2").input(func(in *Input) { in.Levels = map[string]int{"lead.back": 1} }), track.Same, "15", nil},
		"a limit for the hind leg": {on("lead.back").value(1).reps("accepted@2 accepted@2 accepted@2").input(func(in *Input) { in.Limits = map[string]int{"lead.back": 1} }), track.Up, "12", func(t *testing.T, a Advice) {
			assert.NotEqual(t, "lead.back", a.Next.Step)
		}},
	} {
		t.Run(name, func(t *testing.T) {
			a := advise(t, test.in)
			assert.Equal(t, test.action.String(), a.Action.String(), "rule %s: %v next %v", a.Rule, a.Why, a.Next)
			assert.Equal(t, test.rule, a.Rule)
			if test.check != nil && !t.Failed() {
				test.check(t, a)
			}
		})
	}
}

func ptr[T any](v T) *T { return &v }

func (s *script) end() *script {
	s.track = append(s.track, track.Entry{ID: s.id(), Kind: track.KindEnd, At: s.at})
	return s
}

func TestBalanceSwapsSides(t *testing.T) {
	c := shipped(t)
	rules := c.Rules
	rules.SwapSides = "after each dose"
	a, err := Advise(c, rules, on("quarters.hind near").reps("accepted@4 accepted@4 accepted@4 accepted@4 accepted@4").input())
	require.NoError(t, err)
	assert.Equal(t, track.OtherSide, a.Action)
	assert.Equal(t, "14", a.Rule)
}

func TestWarnings(t *testing.T) {
	hind := "quarters.hind near"
	high := func(r *track.Rep) { r.Start = horse.LevelOf(3) }
	brought := func(n int) func(*track.Rep) { return func(r *track.Rep) { r.Brought = horse.LevelOf(n) } }
	sign := func(w string) func(*track.Rep) {
		return func(r *track.Rep) {
			var s horse.Sign
			if err := s.UnmarshalText([]byte(w)); err != nil {
				panic(err)
			}
			r.Signs = append(r.Signs, s)
		}
	}
	for want, s := range map[string]*script{
		"starts high":           on(hind).reps("try@4 try@4", high),
		"sharp":                 on(hind).reps("try@2 try@5"),
		"nagging":               on(hind).reps("try@5 try@5 try@5 try@5 try@5"),
		"under-met":             on(hind).reps("try@2 try@2", brought(4)),
		"over-met":              on(hind).reps("try@6", brought(2)),
		"late":                  on(hind).reps("try@2 try@2", released(horse.Late)),
		"one-sided":             on(hind).reps("try@2 try@2").to("quarters.hind off").reps("try@5 try@5"),
		"fed while pushing":     on(hind).reps("try@2", flag(horse.Fed), way(horse.CrowdedIn)),
		"lick and chew alone":   on(hind).reps("try@2", sign("lick and chew")),
		"warning look rewarded": on(hind).reps("try@2", sign("warning look")),
		"trying too early":      on("load.front").reps("refused@2", way(horse.TurnedAway)),
		"check the halter":      on(hind).reps("try@2", way(horse.PulledBack)),
		"wrong moment":          on(hind).reps("try@2", released(horse.WrongMoment)),
	} {
		t.Run(want, func(t *testing.T) {
			var got []string
			for _, w := range advise(t, s.input()).Warnings {
				got = append(got, w.Rule)
			}
			assert.Contains(t, got, want)
		})
	}
	quiet := advise(t, on(hind).reps("try@3 accepted@3", sign("sigh")).input())
	assert.Empty(t, quiet.Warnings)
	delay := 1.0
	a := advise(t, on(hind).reps("try@3 try@3", func(r *track.Rep) { r.Seconds = 4; r.ToTry = &delay }).input())
	require.Len(t, a.Warnings, 1)
	assert.Equal(t, "late", a.Warnings[0].Rule)
}

func TestReleaseSizes(t *testing.T) {
	hind := "quarters.hind near"
	assert.Equal(t, horse.Big, advise(t, on(hind).reps("try@4 accepted@4").input()).Release, "never accepted before")
	assert.Equal(t, horse.Small, advise(t, on(hind).reps("accepted@4 accepted@4").input()).Release)
	assert.Equal(t, horse.Small, advise(t, on(hind).reps("accepted@4").input(known(horse.Met, 3, hind))).Release)
	assert.Equal(t, horse.Medium, advise(t, on(hind).reps("refused@4 refused@4 refused@4 try@4").input()).Release, "out of three noes, also for a try")
	back := on(hind).reps("refused@4", arousal(3)).reps("accepted@2")
	assert.Equal(t, horse.Medium, advise(t, back.input(known(horse.Met, 3, hind))).Release, "arousal fell from 3 to 1")
	count := on("lead.back").value(1).reps("accepted@2").value(2).reps("accepted@2")
	assert.Equal(t, horse.Medium, advise(t, count.input()).Release, "big once in a block, further ones medium")
	assert.Equal(t, 120, advise(t, on(hind).reps("accepted@4").input()).Rest)
}

func TestASchoolIsNamed(t *testing.T) {
	c := shipped(t)
	in := on("lead.back").input()
	in.School = horse.School{}
	_, err := Advise(c, c.Rules, in)
	assert.ErrorContains(t, err, "a school is one of build and release, relief place")
}
