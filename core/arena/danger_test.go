package arena

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

func felt(n int) track.Mark { return track.Mark{Arousal: horse.ArousalOf(n)} }

func sign(s string) (w horse.Sign) {
	if err := w.UnmarshalText([]byte(s)); err != nil {
		panic(err)
	}
	return w
}

func swapEach(t testing.TB, in Input) Advice {
	t.Helper()
	c := shipped(t)
	rules := c.Rules
	rules.SwapSides = afterEach
	a, err := Advise(c, rules, in)
	require.NoError(t, err)
	return a
}

// over is a mark of arousal 3, and one of another arousal some minutes later.
func over(s *script, minutes float64, then int) *script {
	return s.mark(1000, felt(3)).mark(int64(minutes*minute), felt(then))
}

type told1 struct {
	in     Input
	action track.Action
	rule   string
	check  func(*testing.T, Advice)
}

func run(t *testing.T, cases map[string]told1) {
	t.Helper()
	for name, test := range cases {
		t.Run(name, func(t *testing.T) {
			a := advise(t, test.in)
			assert.Equal(t, test.action.String(), a.Action.String(), "rule %s: %v next %v", a.Rule, a.Why, a.Next)
			if test.rule != "" {
				assert.Equal(t, test.rule, a.Rule, "%v", a.Why)
			}
			if test.check != nil && !t.Failed() {
				test.check(t, a)
			}
		})
	}
}

// Cases 21 to 30 and 32 of part 6.
func TestWorkedCasesOfScaresAndEnds(t *testing.T) {
	hind, shoulder := "quarters.hind near", "new.shoulder near"
	doses, wait, listen, relief := in("doses"), in("wait it out"), in("ask and listen"), in("relief place")
	kicked := func() *script {
		return on("quarters.fore near").reps("accepted@4").reps("refused@4", way(horse.KickedAtPerson), unsaid)
	}
	easy := known(horse.Kept, 1, "lead.halt", "head.down")
	easyIs := func(want string) func(*testing.T, Advice) {
		return func(t *testing.T, a Advice) {
			if want == "" {
				assert.Nil(t, a.Easy)
				return
			}
			require.NotNil(t, a.Easy)
			assert.Equal(t, want, a.Easy.Step)
		}
	}
	target := func(step string, n int) func(*testing.T, Advice) {
		return func(t *testing.T, a Advice) {
			assert.Equal(t, ask(step), a.Next.Ask)
			assert.Equal(t, n, a.Next.Target)
		}
	}
	eye := track.Mark{Arousal: horse.ArousalOf(3), Signs: []horse.Sign{sign("white of eye")}}
	run(t, map[string]told1{
		"21 a kick and no arousal":      {kicked().input(), track.MakeSafe, "2", func(t *testing.T, a Advice) { assert.Empty(t, a.Release); assert.Zero(t, a.Rest) }},
		"21 an incident note says none": {kicked().mark(1000, track.Mark{Incident: true}).input(), track.MakeSafe, "2", nil},
		"21 nor does a refitted halter": {kicked().mark(1000, track.Mark{Incident: true}).mark(1000, track.Mark{Halter: true}).input(), track.MakeSafe, "2", nil},
		"21 nor does a rep without one": {kicked().reps("try@2", unsaid).input(), track.MakeSafe, "2", nil},
		"21 noted at 2: the release":    {kicked().mark(1000, felt(2)).input(), track.MakeSafe, "2", func(t *testing.T, a Advice) { assert.Equal(t, horse.Medium, a.Release) }},
		"21 then at 1":                  {kicked().mark(1000, track.Mark{Halter: true}).mark(1000, felt(1)).input(), track.Down, "2", nil},
		"22 ten minutes later still 3":  {over(kicked(), 10, 3).input(easy), track.EndSession, "3", easyIs("")},
		"22 a little under":             {over(kicked(), 9.9, 3).input(easy), track.MakeSafe, "2", nil},
		"22 back at 1 afterwards":       {over(kicked(), 10, 3).mark(minute, felt(1)).input(easy), track.EndSession, "3", easyIs("")},
		"22 and an answer after that":   {over(kicked(), 10, 3).mark(minute, felt(1)).to("lead.halt").reps("accepted@1").input(easy), track.EndSession, "3", easyIs("")},
		"22 twenty minutes at 2":        {over(kicked(), 5, 2).mark(15*minute, felt(2)).input(easy), track.EndSession, "3", nil},
		"22 nineteen and a half":        {over(kicked(), 5, 2).mark(14*minute+30_000, felt(2)).input(easy), track.MakeSafe, "2", nil},
		"22 a late tap of 1":            {kicked().mark(1000, felt(3)).mark(11*minute, felt(1)).input(easy), track.EndSession, "3", nil},
		"22 in time":                    {kicked().mark(1000, felt(3)).mark(9*minute, felt(1)).input(easy), track.Down, "2", nil},
		"once back a new count":         {on(hind).reps("try@4").mark(0, felt(3)).mark(9*minute, felt(1)).mark(minute, felt(3)).mark(minute, felt(3)).input(), track.Wait, "3", nil},
		"23 cap, and the easy one struck": {on(hind).every(480).reps("accepted@4 accepted@4 accepted@4 accepted@4 refused@4").to("head.down").every(30).reps("refused@3", way(horse.Struck), arousal(3)).mark(minute, felt(1)).input(known(horse.Kept, 1, "head.down")),
			track.EndSession, "4", easyIs("")},
		"23 the block's cap, too": {on(hind).every(260).reps("accepted@4 accepted@4 accepted@4 accepted@4 refused@4").to("head.down").every(30).reps("refused@3", way(horse.Struck), arousal(3)).mark(minute, felt(1)).input(known(horse.Kept, 1, "head.down")),
			track.EndAsk, "4", easyIs("")},
		"24 white of eye, then 2":        {on("head.flex near").reps("try@4").mark(0, eye).mark(minute, felt(2)).input(wait), track.Wait, "3", nil},
		"24 then 1":                      {on("head.flex near").reps("try@4").mark(0, eye).mark(minute, felt(2)).mark(minute, felt(1)).input(wait), track.Down, "3", nil},
		"24 21 minutes into the block":   {on("head.flex near").every(1080).reps("refused@4").mark(0, eye).mark(minute, felt(2)).mark(2*minute, felt(1)).input(wait), track.Down, "3", nil},
		"24 no fear: 2 is back":          {on("head.flex near").reps("try@4").mark(0, felt(3)).mark(minute, felt(2)).input(wait), track.Same, "8", nil},
		"24 in places, afraid, at 2":     {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, eye).mark(minute, felt(2)).input(relief, easy), track.Wait, "3", nil},
		"24 in places, afraid, at 1":     {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, eye).mark(minute, felt(1)).input(relief, easy), track.Same, "12", nil},
		"24 in places, not afraid, at 2": {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, felt(3)).mark(minute, felt(2)).input(relief, easy), track.Same, "12", nil},
		"25 listening, the second 3":     {on("saddle.show").offers("came").mark(0, felt(3)).mark(minute, felt(1)).offers("came").mark(0, felt(3)).input(listen, easy), track.Wait, "3", easyIs("")},
		"25 back at 1":                   {on("saddle.show").offers("came").mark(0, felt(3)).mark(minute, felt(1)).offers("came").mark(0, felt(3)).mark(minute, felt(1)).input(listen, easy), track.EndSession, "3", easyIs("lead.halt")},
		"25 its yes":                     {on("saddle.show").offers("came").mark(0, felt(3)).mark(minute, felt(1)).offers("came").mark(0, felt(3)).mark(minute, felt(1)).to("lead.halt").reps("accepted@1").input(listen, easy), track.EndSession, "3", easyIs("")},
		"26 doses: still":                {on(shoulder).doses("4", arousal(3)).input(doses, now(30_000+59_000)), track.Hold, "3", nil},
		"26 sixty seconds gone":          {on(shoulder).doses("4", arousal(3)).input(doses, now(30_000+60_000)), track.Wait, "3", nil},
		"26 a mark of 2":                 {on(shoulder).doses("4", arousal(3)).mark(10_000, felt(2)).input(doses), track.Wait, "3", nil},
		"26 at 1":                        {on(shoulder).doses("4 6", arousal(1)).doses("9", arousal(3)).mark(10_000, felt(2)).mark(10_000, felt(1)).input(doses), track.Down, "3", target(shoulder, 4)},
		"28 three rests it was led into": {led(on("load.square at 3 m"), 35, 35, 35).input(relief), track.Same, "8", func(t *testing.T, a Advice) { assert.Zero(t, a.Numbers.PassRun) }},
		"29 33 s of 60, ended by the horse": {on("soft.go").value(60).reps("try@3", func(r *track.Rep) {
			r.EndedBy, r.Reached = horse.ByHorse, ptr(33)
		}).input(), track.Down, "12", target("soft.go", 15)},
		"29 at the start value the same":   {on("soft.go").value(15).reps("tolerated@3", func(r *track.Rep) { r.EndedBy = horse.ByHorse }).input(), track.Same, "12", target("soft.go", 15)},
		"30 a warning look on a dose":      {on(shoulder).doses("4", answer(horse.Tolerated), signs(horse.WarningLook)).input(doses), track.Hold, "8", func(t *testing.T, a Advice) { assert.Empty(t, a.Release); assert.Zero(t, a.Rest) }},
		"30 on an accepted one":            {on(shoulder).doses("4", signs(horse.WarningLook)).input(doses), track.Hold, "8", nil},
		"30 on a refused one":              {on(shoulder).doses("4/9/2", signs(horse.WarningLook)).input(doses), track.Hold, "8", nil},
		"30 still none after a halter":     {on(shoulder).doses("4", signs(horse.WarningLook)).mark(1000, track.Mark{Halter: true}).input(doses), track.Hold, "8", nil},
		"30 what is on softened it":        {on(shoulder).doses("4", signs(horse.WarningLook, sign("head lowered"))).input(doses), track.Up, "12", nil},
		"30 it softens":                    {on(shoulder).doses("4", signs(horse.WarningLook)).mark(1000, track.Mark{Signs: []horse.Sign{sign("soft turn-in")}}).input(doses), track.Up, "12", nil},
		"30 with nothing on":               {on(shoulder).doses("4").mark(1000, track.Mark{Signs: []horse.Sign{horse.WarningLook}}).input(doses), track.Wait, "8", nil},
		"30 before anything was asked":     {on(shoulder).mark(1000, track.Mark{Signs: []horse.Sign{horse.WarningLook}}).input(doses), track.Wait, "8", nil},
		"30 of a horse that guards itself": {on(shoulder).doses("4", signs(horse.WarningLook)).input(doses, func(in *Input) { in.Horse.GuardsItself = true }), track.Up, "12", nil},
		"32 each try is its own release":   {on("head.flex near").reps("accepted@4 accepted@4", tries(95, 20, 51, 94)).input(wait), track.Same, "", func(t *testing.T, a Advice) { assert.NotContains(t, warned(a), "late") }},
		"32 late from the last":            {on("head.flex near").reps("accepted@4 accepted@4", tries(96, 20, 51, 94)).input(wait), track.Same, "", func(t *testing.T, a Advice) { assert.Contains(t, warned(a), "late") }},
	})
	near := on(shoulder).doses("4")
	a := swapEach(t, near.input(doses))
	assert.Equal(t, []string{"other side", "off"}, []string{a.Action.String(), a.Next.Variant.Side.String()}, "27 near 4 → off 4")
	assert.Equal(t, 4, a.Next.Target)
	var order []string
	s := on(shoulder)
	for range 8 {
		a = swapEach(t, s.input(doses))
		s.to(a.Next.String())
		order = append(order, a.Next.Variant.Side.String()+" "+string(rune('0'+a.Next.Target)))
		d := track.Dose{Rep: track.Rep{Ask: a.Next.Ask, Target: a.Next.Target, Arousal: horse.ArousalOf(1)}}
		s.add(track.Entry{Kind: track.KindDose, Dose: &d})
	}
	assert.Equal(t, []string{"near 4", "off 4", "off 6", "near 6", "near 9", "off 9", "off =", "near ="}, order, "near 4, off 4, off 6, near 6 …")
}

func unsaid(r *track.Rep) { r.Arousal = horse.Arousal{} }

func led(s *script, seconds ...int) *script {
	for _, n := range seconds {
		s.spell("at the door", true, n, 0)
		s.track[len(s.track)-1].Spell.Came = track.AskedTo
	}
	return s
}

func tries(seconds float64, at ...int64) func(*track.Rep) {
	return func(r *track.Rep) {
		first := float64(at[0])
		r.Seconds, r.ToTry = seconds, &first
		for _, s := range at {
			r.Tries = append(r.Tries, track.Try{At: s * 1000})
		}
	}
}

func TestAfterAScareItBeginsSmall(t *testing.T) {
	met := known(horse.Met, 3, "lead.stand", "lead.halt")
	run(t, map[string]told1{
		"a danger":       {on("lead.turn near").reps("refused@4", way(horse.Reared)).mark(minute, felt(1)).input(met), track.Down, "2", startOf("lead.stand")},
		"over the line":  {on("lead.back").value(1).reps("try@4", arousal(3)).mark(minute, felt(1)).input(met), track.Down, "3", startOf("lead.stand")},
		"a bump":         {on("lead.back").value(1).mark(0, track.Mark{Bump: true}).reps("refused@4 refused@4 refused@4").input(met), track.Down, "7", startOf("lead.stand")},
		"one good after": {on("lead.back").value(1).mark(0, track.Mark{Bump: true}).reps("accepted@4 refused@4 refused@4 refused@4").input(met), track.Down, "7", startOf("lead.stand")},
		"two good after": {on("lead.back").value(1).reps("accepted@4 accepted@4").mark(0, track.Mark{Bump: true}).reps("accepted@4 accepted@4 refused@4 refused@4 refused@4").input(met), track.Down, "7", func(t *testing.T, a Advice) {
			assert.Equal(t, 45, a.Next.Target, "a met step at its last value")
		}},
	})
}

func startOf(step string) func(*testing.T, Advice) {
	return func(t *testing.T, a Advice) {
		s, _ := shipped(t).Step(a.Next.Step)
		assert.Equal(t, step, s.Key)
		assert.Equal(t, s.Start(), a.Next.Target, s.Key)
	}
}

func TestNaggingIsSaidAsItIs(t *testing.T) {
	five := "accepted@5 accepted@5 accepted@5 accepted@5 accepted@5"
	why := func(in Input) string {
		for _, w := range advise(t, in).Warnings {
			if w.Rule == "nagging" {
				return w.Why.Key
			}
		}
		return ""
	}
	hind := "quarters.hind near"
	assert.Equal(t, "warn.nagging", why(on(hind).reps(five).input()))
	assert.Equal(t, "warn.nagging.smaller", why(on(hind).reps(five, arousal(2)).input()), "tense: a smaller step")
	assert.Empty(t, why(on(hind).reps(five).input(in("wait it out"))), "it keeps one level on purpose")
	assert.Empty(t, why(on(hind).reps("accepted@5 accepted@5 accepted@5 accepted@5").input()), "four")
	assert.Empty(t, why(on(hind).reps("accepted@4 accepted@5 accepted@5 accepted@5 accepted@5").input()), "one of them at 4")
	assert.Empty(t, why(on(hind).reps("accepted@6 accepted@5 accepted@5 accepted@5 accepted@5").input()), "the last is lower than the first")
	pulsed := func(n int) func(*track.Rep) {
		return func(r *track.Rep) { r.Form, r.Pulses = horse.Pulsed, horse.PulsesOf(n) }
	}
	assert.Equal(t, "warn.nagging", why(on(hind).reps("try@2 try@2 try@2 try@2 try@2", pulsed(5)).input()))
	assert.Empty(t, why(on(hind).reps("try@2 try@2 try@2 try@2 try@2", pulsed(4)).input()))
}

func TestSettlingByTheFeet(t *testing.T) {
	relief, easy := in("relief place"), known(horse.Kept, 1, "lead.back")
	began := func() *script {
		return on("load.gap going left").spell("at the door", true, 35, 0).mark(0, felt(3)).to("lead.back")
	}
	run(t, map[string]told1{
		"the first":     {began().input(relief, easy), track.SettleByFeet, "3", nil},
		"one done":      {began().reps("accepted@2", arousal(3)).input(relief, easy), track.SettleByFeet, "3", func(t *testing.T, a Advice) { assert.Equal(t, 3, a.Next.BuildTo) }},
		"two done":      {began().reps("accepted@2 accepted@2", arousal(3)).input(relief, easy), track.SettleByFeet, "3", nil},
		"three done":    {began().reps("accepted@2 accepted@2 accepted@2", arousal(3)).input(relief, easy), track.Wait, "3", nil},
		"nothing noted": {began().reps("accepted@2", unsaid).input(relief, easy), track.SettleByFeet, "3", nil},
		"at 2 the work in places goes on": {began().reps("accepted@2", arousal(2)).input(relief, easy), track.Same, "begin", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("load.gap going left"), a.Next.Ask)
		}},
		"afraid, at 2 it waits":                   {on("load.gap going left").spell("at the door", true, 35, 0).mark(0, track.Mark{Arousal: horse.ArousalOf(3), Signs: []horse.Sign{sign("shakes")}}).to("lead.back").reps("accepted@2", arousal(2)).input(relief, easy), track.Wait, "3", nil},
		"a dangerous easy ask is not asked again": {began().reps("refused@2", way(horse.Struck)).mark(minute, felt(1)).input(relief, easy), track.EndAsk, "2", nil},
	})
}

func TestPlacesAreTheAskAtWork(t *testing.T) {
	relief := in("relief place")
	gap := "load.gap going left"
	away := func(n int, seconds int) *script {
		s := on(gap).every(int64(seconds))
		for range n {
			s.spell("away", false, seconds, 3)
		}
		return s
	}
	first := on("load.square at 3 m").spell("at the door", true, 35, 0)
	first.to("load.square at 1 m").spell("away", false, 30, 3)
	run(t, map[string]told1{
		"the place of the last spell":  {first.input(relief), track.Same, "7", func(t *testing.T, a Advice) { assert.Equal(t, ask("load.square at 1 m"), a.Next.Ask) }},
		"four spells":                  {away(4, 60).input(relief), track.Same, "7", nil},
		"five spells":                  {away(5, 60).input(relief), track.Down, "7", nil},
		"ten minutes from its first":   {away(2, 300).input(relief), track.Down, "7", nil},
		"not from the session's start": {on(gap).mark(12*minute, felt(1)).spell("away", false, 60, 3).input(relief), track.Same, "7", nil},
		"a little under ten":           {away(2, 299).input(relief), track.Same, "7", nil},
		"another place begins anew":    {away(4, 60).to("load.gap going right").spell("away", false, 60, 3).input(relief), track.Same, "7", nil},
	})
}

func TestDosesGoUpOnAQuietStandOnly(t *testing.T) {
	shoulder := "new.shoulder near"
	doses := in("doses")
	slow := func(words string, edits ...func(*track.Rep)) *script {
		return on(shoulder).every(320).doses(words, edits...)
	}
	quicker := func() *script {
		s := on(shoulder)
		for n := range 6 {
			seconds := float64(20 - n)
			s.doses("4", answer(horse.Try), func(r *track.Rep) { r.ToTry = &seconds })
		}
		return s
	}
	run(t, map[string]told1{
		"it came up a little":               {on(shoulder).doses("4", arousal(0)).doses("6", arousal(1)).input(doses), track.Same, "12", func(t *testing.T, a Advice) { assert.Equal(t, 6, a.Next.Target) }},
		"no higher":                         {on(shoulder).doses("4", arousal(0)).doses("6", arousal(0)).input(doses), track.Up, "12", nil},
		"after block minutes, in a dip":     {slow("4 6 9").input(doses), track.Same, "12", func(t *testing.T, a Advice) { assert.Equal(t, "why.dose.no_more", a.Why.Key) }},
		"tolerated after block minutes":     {on(shoulder).every(480).doses("4").doses("6", answer(horse.Tolerated)).input(doses), track.Same, "12", func(t *testing.T, a Advice) { assert.Equal(t, "why.dose.no_more", a.Why.Key) }},
		"a little before":                   {on(shoulder).every(440).doses("4").doses("6", answer(horse.Tolerated)).input(doses), track.Up, "12", nil},
		"six without a quiet stand":         {on(shoulder).doses("4 4 4 4 4 4", answer(horse.Try)).input(doses), track.Down, "8", func(t *testing.T, a Advice) { assert.Equal(t, 90, a.Rest) }},
		"five":                              {on(shoulder).doses("4 4 4 4 4", answer(horse.Try)).input(doses), track.Same, "8", nil},
		"quicker each time is none of them": {quicker().input(doses), track.Same, "8", nil},
		"tolerated at 2 is no quiet stand":  {on(shoulder).doses("4 4 4 4 4 4", answer(horse.Tolerated), arousal(2)).input(doses), track.Down, "8", nil},
		"twice back to start":               {on(shoulder).doses("4/9/2 4/9/2").input(doses), track.Same, "7", nil},
		"three times back":                  {on(shoulder).doses("4/9/2 4/9/2 4/9/2").input(doses), track.Down, "7", nil},
	})
}

func TestOtherEndsAndBeginnings(t *testing.T) {
	hind := "quarters.hind near"
	wait := in("wait it out")
	run(t, map[string]told1{
		"a released try, and a mark after it":  {on("head.flex near").every(700).reps("refused@5 refused@5 refused@5 try@5").mark(1000, felt(1)).input(wait), track.EndSession, "4", nil},
		"a try that was not released":          {on("head.flex near").every(700).reps("refused@5 refused@5 refused@5 try@5", released(horse.NotReleased)).input(wait), track.Same, "", nil},
		"nothing lower: one easy, and the end": {on("lead.forward").reps("refused@4 refused@4 refused@4").input(known(horse.Kept, 1, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.Equal(t, "head.down", a.Easy.Step) }},
		"the easy answer ends the ask":         {on("lead.forward").reps("refused@4 refused@4 refused@4").to("head.down").reps("accepted@1").input(known(horse.Kept, 1, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.Nil(t, a.Easy) }},
		"a no to it: once more":                {on("lead.forward").reps("refused@4 refused@4 refused@4").to("head.down").reps("refused@1").input(known(horse.Kept, 1, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.NotNil(t, a.Easy) }},
		"twice no: a quiet moment":             {on("lead.forward").reps("refused@4 refused@4 refused@4").to("head.down").reps("refused@1 refused@1").input(known(horse.Kept, 1, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.Nil(t, a.Easy) }},
		"at once means no rest":                {on(hind).reps("refused@3", released(horse.WrongMoment)).input(), track.Same, "5", func(t *testing.T, a Advice) { assert.Zero(t, a.Rest); assert.Empty(t, a.Release) }},
		"the third 3 waits, with its reason": {on("quarters.fore near").reps("try@3", arousal(3)).to("head.down").reps("try@3", arousal(3)).to("lead.halt").reps("try@3", arousal(3)).input(), track.Wait, "3", func(t *testing.T, a Advice) {
			assert.Equal(t, "why.over.last", a.Why.Key)
		}},
		"the third 3, back: one easy": {on("quarters.fore near").reps("try@3", arousal(3)).to("head.down").reps("try@3", arousal(3)).to("lead.turn near").reps("try@3", arousal(3)).mark(minute, felt(1)).input(known(horse.Kept, 1, "lead.halt")), track.EndSession, "3", func(t *testing.T, a Advice) {
			require.NotNil(t, a.Easy)
			assert.Equal(t, "why.over.third", a.Why.Key)
		}},
		"must be held at the block":      {on("mount.up").reps("try@2").mark(0, track.Mark{Stop: stop("must be held to be mounted")}).input(), track.EndSession, "1", nil},
		"lost its balance is arousal 3":  {on(hind).reps("try@3", way(horse.LostItsBalance)).input(), track.Wait, "3", nil},
		"lost its balance, as a mark":    {on(hind).reps("try@3").mark(0, track.Mark{WaysOut: []horse.WayOut{horse.LostItsBalance}}).input(), track.Wait, "3", nil},
		"mouthing the object is no fear": {on(hind).reps("accepted@3", signs(sign("mouthed the object"))).input(), track.Same, "15", nil},
		"zones: the same side first, the nearest": {on("zones.hand zone 2 near").value(10).reps("accepted@2 accepted@2 accepted@2", clocked).input(), track.OtherSide, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("zones.hand zone 3 near"), a.Next.Ask)
		}},
		"zones: then the other side": {on("zones.hand zone 4 near").value(10).reps("accepted@2 accepted@2 accepted@2", clocked).input(known(horse.Met, 2, "zones.hand zone 2 near", "zones.hand zone 3 near")), track.OtherSide, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, ask("zones.hand zone 4 off"), a.Next.Ask)
		}},
	})
}

// Once too long a wait has ended a session, nothing leads back to an ask; while
// something is kept on, or it is not back, no release and no rest are named.
func TestAnEndStandsAndAdviceSaysOneThing(t *testing.T) {
	c := shipped(t)
	rapid.Check(t, func(t *rapid.T) {
		input := anyInput(t, c)
		input.School = rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")
		entries := input.Track
		input.Track = nil
		r, err := Run(c, c.Rules, input)
		require.NoError(t, err)
		ended, undone := false, false
		for _, e := range entries {
			undone = undone || e.Kind == track.KindUndo
			r.Add(e)
			a := r.Advise(e.At)
			lasts := a.Why.Key == "why.lasts"
			if ended && !undone {
				require.Contains(t, []track.Action{track.EndSession, track.MakeSafe}, a.Action, "%v", a.Why)
				require.Nil(t, a.Easy)
			}
			ended = (ended || lasts) && !undone
			s := r.now.s
			notBack := a.Action == track.MakeSafe && (s.bad == nil || !s.bad.noted || s.arousal > 2)
			if slices.Contains([]track.Action{track.Hold, track.Wait, track.SettleByFeet}, a.Action) || notBack {
				assert.Empty(t, a.Release, "%s: %v", a.Action, a.Why)
				assert.Zero(t, a.Rest)
			}
			if s.warned {
				assert.NotEqual(t, track.Up, a.Action)
				assert.Empty(t, a.Release)
			}
		}
	})
}
