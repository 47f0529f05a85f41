package arena

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// Both sides of the numbers of part 6 that no worked case stands on.

func advisedBy(t testing.TB, in Input, edit func(*catalog.HouseRules)) Advice {
	t.Helper()
	c := shipped(t)
	rules := c.Rules
	edit(&rules)
	a, err := Advise(c, rules, in)
	require.NoError(t, err)
	return a
}

func whyIs(key string) func(*testing.T, Advice) {
	return func(t *testing.T, a Advice) { assert.Equal(t, key, a.Why.Key) }
}

func repsOf(word string, n int) string { return strings.TrimSpace(strings.Repeat(word+" ", n)) }

func TestNumbersOfStopsAndScares(t *testing.T) {
	hind, flex := "quarters.hind near", "head.flex near"
	wait := in("wait it out")
	kicked := func() *script {
		return on("quarters.fore near").reps("accepted@4").reps("refused@4", way(horse.KickedAtPerson), arousal(3))
	}
	held := func(minutes float64) *script {
		return on(flex).reps("try@4").mark(0, felt(3)).mark(int64(minutes*minute), felt(3))
	}
	pain := track.Mark{Stop: stop("pain")}
	run(t, map[string]told1{
		"a stop at 2":                        {on(hind).reps("try@3").mark(0, felt(2)).mark(0, pain).input(), track.EndSession, "1", nil},
		"a stop at 3":                        {on(hind).reps("try@3").mark(0, felt(3)).mark(0, pain).input(), track.MakeSafe, "1", nil},
		"a danger at 3 after it":             {on(hind).reps("try@3").mark(0, pain).reps("refused@3", way(horse.KickedAtPerson), arousal(3)).input(), track.MakeSafe, "1", nil},
		"a danger at 2 after it":             {on(hind).reps("try@3").mark(0, pain).reps("refused@3", way(horse.KickedAtPerson), arousal(2)).input(), track.EndSession, "1", nil},
		"the second danger, at 3":            {kicked().mark(minute, felt(1)).to("lead.back").reps("refused@2", way(horse.Struck), arousal(3)).input(), track.MakeSafe, "2", nil},
		"the second danger, at 2":            {kicked().mark(minute, felt(1)).to("lead.back").reps("refused@2", way(horse.Struck), arousal(2)).input(), track.EndSession, "2", nil},
		"arousal 4 and no way out":           {on(hind).reps("refused@3", arousal(4)).input(), track.MakeSafe, "2", nil},
		"arousal 4, tapped":                  {on(hind).reps("try@3").mark(0, felt(4)).input(), track.MakeSafe, "2", nil},
		"kicks 5, 3, 7 do not rise":          {on(hind).reps("try@3", kicks(5)).reps("try@3", kicks(3)).reps("try@3", kicks(7)).input(), track.Same, "8", nil},
		"kicks 3, 7, 5 fall at the end":      {on(hind).reps("try@3", kicks(3)).reps("try@3", kicks(7)).reps("try@3", kicks(5)).input(), track.Same, "8", nil},
		"back under 2 only":                  {on(hind).reps("try@3").mark(0, felt(3)).mark(minute, felt(2)).input(), track.Wait, "3", nil},
		"listening, too":                     {on("saddle.show").offers("came").mark(0, felt(3)).mark(minute, felt(2)).input(in("ask and listen")), track.Retreat, "3", nil},
		"held at 3, a little under ten":      {held(9.9).input(wait), track.Hold, "3", nil},
		"held at 3 for ten minutes":          {held(10).input(wait), track.EndSession, "3", nil},
		"tense for long is no scare":         {on(hind).reps("accepted@3", arousal(2)).mark(15*minute, track.Mark{EasyMinutes: 15}).mark(15*minute, track.Mark{EasyMinutes: 15}).reps("accepted@3", arousal(2)).input(), track.Same, "15", nil},
		"two at 3, three answers apart":      {on("quarters.fore near").reps("try@3", arousal(3)).reps("try@3 try@3").reps("try@3", arousal(3)).mark(minute, felt(1)).input(), track.Down, "3", whyIs("why.over.second")},
		"two at 3, four answers apart":       {on("quarters.fore near").reps("try@3", arousal(3)).reps("try@3 try@3 try@3").reps("try@3", arousal(3)).mark(minute, felt(1)).input(), track.Down, "3", whyIs("why.over.after")},
		"open time is 60 unless said":        {on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(60*minute-1)), track.Same, "7", nil},
		"open time passed":                   {on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(60*minute)), track.Down, "7", nil},
		"ten minutes after it, nearly":       {on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(70*minute-1)), track.Down, "7", nil},
		"ten minutes after it":               {on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(70*minute)), track.EndSession, "4", nil},
		"shut down is tense":                 {on(hind).reps("tolerated@3", signs(horse.ShutDown)).input(), track.Same, "8", func(t *testing.T, a Advice) { assert.Equal(t, 2, a.Numbers.Arousal) }},
		"what is not noted stays":            {on(hind).reps("try@3").mark(0, felt(2)).reps("accepted@3", unsaid).input(), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, 2, a.Numbers.Arousal) }},
		"asked at 3, it was back":            {on(hind).reps("try@3").mark(0, felt(3)).reps("accepted@3", unsaid).input(), track.Same, "15", func(t *testing.T, a Advice) { assert.Equal(t, 1, a.Numbers.Arousal) }},
		"an easy ask is known at 3":          {on("lead.forward").reps("refused@4 refused@4 refused@4").input(known(horse.Met, 3, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.NotNil(t, a.Easy) }},
		"an ask known at 4 is not easy":      {on("lead.forward").reps("refused@4 refused@4 refused@4").input(known(horse.Met, 4, "head.down")), track.EndAsk, "7", func(t *testing.T, a Advice) { assert.Nil(t, a.Easy) }},
		"planted once, mounted":              {on("rush.slack").reps("try@3", mounted, way(horse.Planted)).input(), track.Same, "8", nil},
		"planted after one that was not":     {on("rush.slack").reps("try@3", mounted).reps("try@3", mounted, way(horse.Planted)).input(), track.Same, "8", nil},
		"calm, and a look waited out":        {lookedAt().input(in("doses")), track.Wait, "8", nil},
		"tolerated four times":               {on("quarters.fore near").reps(repsOf("tolerated@4", 4)).input(), track.Down, "8", whyIs("why.tolerated.four")},
		"three times":                        {on("quarters.fore near").reps(repsOf("tolerated@4", 3)).input(), track.Same, "8", whyIs("why.tense")},
		"a wrong moment for the second time": {on(hind).reps("refused@3 refused@3", released(horse.WrongMoment)).input(), track.Same, "5", nil},
		"once down, and up again": {onceDown().input(known(horse.Met, 3, "quarters.hind off")), track.Up, "12", func(t *testing.T, a Advice) {
			assert.Equal(t, "quarters.fore", a.Next.Step)
		}},
		"a face of 1 is tense":           {on("quarters.fore near").reps("tolerated@4", face(1)).input(), track.Same, "8", whyIs("why.tense")},
		"a face of 2 is sour":            {on("quarters.fore near").reps("tolerated@4", face(2)).input(), track.Same, "8", whyIs("why.sour.body")},
		"waiting: six that do not fall":  {on(flex).reps(repsOf("tolerated@4", 6), lasting(40)).input(wait), track.Down, "8", nil},
		"waiting: five of them":          {on(flex).reps(repsOf("tolerated@4", 5), lasting(40)).input(wait), track.Hold, "8", nil},
		"waiting: the sixth was sooner":  {on(flex).reps(repsOf("tolerated@4", 5), lasting(40)).reps("tolerated@4", lasting(39)).input(wait), track.Hold, "8", nil},
		"waiting: sooner than the first": {on(flex).reps("tolerated@4", lasting(50)).reps(repsOf("tolerated@4", 5), lasting(40)).input(wait), track.Hold, "8", nil},
		"waiting: not the seventh last":  {on(flex).reps("tolerated@4", lasting(50)).reps(repsOf("tolerated@4", 6), lasting(40)).input(wait), track.Down, "8", nil},
	})
	a := advisedBy(t, on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(60*minute)), func(r *catalog.HouseRules) { r.OpenTime = 0 })
	assert.Equal(t, track.Down, a.Action, "sessions from before it was a house rule")
	a = advisedBy(t, on(flex).every(1199).reps("refused@5 refused@5 refused@5").input(wait, now(60*minute-1)), func(r *catalog.HouseRules) { r.OpenTime = 0 })
	assert.Equal(t, track.Same, a.Action)
}

// onceDown went lower once, and is good there.
func onceDown() *script {
	s := on("quarters.fore near").reps("refused@4 refused@4 refused@4")
	return s.to("quarters.hind near").reps("accepted@3 accepted@3 accepted@3")
}

// lookedAt is a calm horse whose warning look is waited out for over 20 minutes.
func lookedAt() *script {
	s := on("new.shoulder near").doses("4").mark(1000, track.Mark{Signs: []horse.Sign{horse.WarningLook}})
	for range 3 {
		s.mark(10*minute, track.Mark{EasyMinutes: 10})
	}
	return s
}

func face(n int) func(*track.Rep) {
	return func(r *track.Rep) {
		if err := r.Face.UnmarshalJSON(fmt.Append(nil, n)); err != nil {
			panic(err)
		}
	}
}

func lasting(seconds float64) func(*track.Rep) { return func(r *track.Rep) { r.Seconds = seconds } }

func TestNumbersOfAnswers(t *testing.T) {
	hind, fore := "quarters.hind near", "quarters.fore near"
	listen, relief := in("ask and listen"), in("relief place")
	firm := func(peak int, edits ...func(*Input)) Input {
		return on(fore).reps("refused@4 refused@4").reps(fmt.Sprintf("refused@%d", peak)).input(append(edits, known(horse.Kept, 2, fore), bodyClear)...)
	}
	guards := func(in *Input) { in.Horse.GuardsItself = true }
	buildTo := func(n int) func(*testing.T, Advice) {
		return func(t *testing.T, a Advice) { assert.Equal(t, n, a.Next.BuildTo) }
	}
	// yeses of the six before and of the last six offers, the last a no.
	offers := func(before, last int) *script {
		s := on("saddle.show")
		return s.offers(repsOf("left", 6-before)).offers(repsOf("came", before)).offers(repsOf("came", last)).offers(repsOf("left", 6-last))
	}
	rest := func(seconds int) *script { return on("load.square at 3 m").spell("at the door", true, seconds, 0) }
	passRun := func(n int) func(*testing.T, Advice) {
		return func(t *testing.T, a Advice) { assert.Equal(t, n, a.Numbers.PassRun) }
	}
	slope := func(away, at int) *script {
		s := on("load.square at 3 m").spell("away", false, 40, away).spell("at the door", false, 20, at)
		return s.spell("at the door", true, 35, 0).spell("at the door", true, 35, 0).spell("at the door", true, 35, 0)
	}
	run(t, map[string]told1{
		"seven twice is not too big":        {on(fore).reps("refused@6 try@7 accepted@7").input(), track.Same, "", nil},
		"firm: two more":                    {firm(5), track.Same, "7", buildTo(7)},
		"firm: eight at most":               {firm(7), track.Same, "7", buildTo(8)},
		"firm: four of one guarding itself": {firm(3, guards), track.Same, "7", buildTo(4)},
		"offered twice is no routine":       {on(fore).reps("accepted@4 accepted@4 accepted@4 offered@1 offered@1").input(known(horse.Met, 1, fore, "quarters.fore off")), track.Same, "15", nil},
		"tense after a good one":            {on(hind).reps("accepted@3", arousal(2)).input(), track.Same, "15", whyIs("why.tense_after")},
		"yes five, then two of six":         {offers(5, 2).input(listen), track.EndSession, "7", whyIs("why.fewer_yes")},
		"yes four, then two":                {offers(4, 2).input(listen), track.Down, "7", nil},
		"yes five, then three":              {offers(5, 3).input(listen), track.Down, "7", nil},
		"eleven offers":                     {offersFrom(offers(5, 2), 1).input(listen), track.Down, "7", nil},
		"listening: six mixed":              {on("saddle.show").offers(repsOf("hesitated", 6)).input(listen, known(horse.Kept, 1, "zones.over near", "zones.over off")), track.Down, "8", func(t *testing.T, a Advice) { assert.Equal(t, 90, a.Rest) }},
		"listening: five":                   {on("saddle.show").offers(repsOf("hesitated", 5)).input(listen), track.Same, "8", nil},
		"a no six offers ago":               {on("saddle.show").offers("left " + repsOf("came", 5)).input(listen), track.EndAsk, "12", whyIs("why.another_day")},
		"seven ago":                         {on("saddle.show").offers("left " + repsOf("came", 6)).input(listen), track.Up, "12", nil},
		"a rest of 30":                      {rest(30).input(relief), track.Same, "12", passRun(1)},
		"a rest of 29":                      {rest(29).input(relief), track.Same, "8", passRun(0)},
		"30 where the step names none":      {on("load.gap going left").spell("at the door", true, 30, 0).input(relief), track.Same, "12", passRun(1)},
		"29 there":                          {on("load.gap going left").spell("at the door", true, 29, 0).input(relief), track.Same, "8", passRun(0)},
		"a burst, 80 of 100":                {burst(on("control.walk"), 100, 80).input(), track.Same, "15", nil},
		"a burst, 79 of 100":                {burst(on("control.walk"), 100, 79).input(), track.Same, "8", nil},
		"the place lighter by two":          {slope(4, 2).input(relief), track.OtherSide, "12", nil},
		"by one":                            {slope(4, 3).input(relief), track.Same, "12", whyIs("why.wrong_slope")},
	})
}

// offersFrom leaves out the first offers of a script.
func offersFrom(s *script, n int) *script { s.track = s.track[n:]; return s }

func TestNumbersOfTime(t *testing.T) {
	hind := "quarters.hind near"
	met := func() *script {
		return inBlock(on(hind), 27*minute).every(120).reps("accepted@3 accepted@3 accepted@3")
	}
	two := func(gap int64) *script { return inBlock(on(hind), gap).every(120).reps("accepted@4 accepted@4") }
	slow := func(seconds int) func(*catalog.HouseRules) {
		return func(r *catalog.HouseRules) { r.RepSeconds = seconds }
	}
	for name, test := range map[string]struct {
		in     Input
		rules  func(*catalog.HouseRules)
		action track.Action
		why    string
	}{
		"five minutes before the cap":         {inBlock(on(hind), 30*minute).every(60).reps(repsOf("accepted@4", 5)).input(), nil, track.EndSession, "why.time.session"},
		"a little earlier":                    {inBlock(on(hind), 30*minute-1).every(60).reps(repsOf("accepted@4", 5)).input(), nil, track.Same, "why.lighter"},
		"three reps before the cap":           {met().input(now(34 * minute)), nil, track.OtherSide, "why.passed"},
		"a second less":                       {met().input(now(34*minute + 1000)), nil, track.EndAsk, "why.passed.no_time"},
		"dips of two minutes: six are needed": {two(10 * minute).input(now(29 * minute)), slow(120), track.Same, "why.dip_next"},
		"of the session's time":               {two(10 * minute).input(now(29*minute + 1)), slow(120), track.EndAsk, "why.before_dip"},
		"slower ones are not waited for":      {two(10 * minute).input(now(29*minute + 1)), slow(121), track.Same, "why.dip_next"},
	} {
		t.Run(name, func(t *testing.T) {
			a := advisedBy(t, test.in, func(r *catalog.HouseRules) {
				r.BlockMinutes, r.BlockCap = 30, 60
				if test.rules != nil {
					test.rules(r)
				}
			})
			assert.Equal(t, []string{test.action.String(), test.why}, []string{a.Action.String(), a.Why.Key})
			if test.why == "why.before_dip" {
				assert.Equal(t, []any{3, 4, "6.0", "6.0"}, []any{a.Why.Args["a"], a.Why.Args["b"], a.Why.Args["needs"], a.Why.Args["left"]})
			}
		})
	}
	three, four := on(hind).every(30).reps("accepted@4 accepted@4 accepted@4"), on(hind).every(30).reps("accepted@4 accepted@4 accepted@4").every(50).reps("accepted@4")
	assert.EqualValues(t, 90, advise(t, three.input()).Numbers.RepSeconds, "the house rule's, under four")
	assert.EqualValues(t, 30, advise(t, four.input()).Numbers.RepSeconds, "its own: 30, 30 and 50")
	assert.EqualValues(t, 40, advise(t, four.every(90).reps("accepted@4").input()).Numbers.RepSeconds, "30, 30, 50 and 90")
	a := advise(t, on(hind).every(90).reps("accepted@4").mark(0, track.Mark{EasyMinutes: 1}).input(now(3*minute)))
	assert.Equal(t, []float64{2, 2}, []float64{a.Numbers.SessionMinutes, a.Numbers.BlockMinutes})
}

func TestNumbersOfBalance(t *testing.T) {
	off := func(n int) *script {
		return on("quarters.hind off").reps(repsOf("accepted@4", n)).to("quarters.hind near").reps(repsOf("accepted@4", 5))
	}
	assert.Equal(t, track.OtherSide, swapEach(t, off(1).input()).Action, "four more here")
	assert.Equal(t, track.Same, swapEach(t, off(2).input()).Action, "three more")
}

func TestNumbersOfReleases(t *testing.T) {
	hind := "quarters.hind near"
	size := func(s *script, edits ...func(*Input)) [2]any {
		a := advise(t, s.input(edits...))
		return [2]any{a.Release.String(), a.Rest}
	}
	tried := soft(hind)
	assert.Equal(t, [2]any{"small", 10}, size(on(hind).reps("refused@4 refused@4 try@4"), tried), "out of two noes")
	assert.Equal(t, [2]any{"medium", 30}, size(on(hind).reps("refused@4 refused@4 refused@4 try@4"), tried), "out of three")
	assert.Equal(t, [2]any{"big", 120}, size(on(hind).reps("accepted@4")))
	assert.Equal(t, [2]any{"small", 40}, size(on(hind).reps("try@4", arousal(2)), tried), "half a minute more while it is tense")
	assert.Equal(t, [2]any{"small", 10}, size(on(hind).reps("try@4", arousal(2)).reps("accepted@4"), tried), "back from 2")
	assert.Equal(t, [2]any{"medium", 30}, size(on(hind).reps("try@4", arousal(3)).reps("accepted@4"), tried), "back from 3")
}

func TestNumbersOfWarnings(t *testing.T) {
	hind := "quarters.hind near"
	late := released(horse.Late)
	starts := func(n int) func(*track.Rep) { return func(r *track.Rep) { r.Start = horse.LevelOf(n) } }
	brought := func(n int) func(*track.Rep) { return func(r *track.Rep) { r.Brought = horse.LevelOf(n) } }
	sides := func(near, off string) *script { return on(hind).reps(near).to("quarters.hind off").reps(off) }
	beginner := func(in *Input) { in.Handler, in.Handlers = "b", map[string]Handler{"b": {Beginner: true}} }
	for name, test := range map[string]struct {
		s    *script
		warn string
		want bool
	}{
		"late twice in four":           {on(hind).reps("try@2", late).reps("try@2 try@2").reps("try@2", late), "late", true},
		"late twice in five":           {on(hind).reps("try@2", late).reps("try@2 try@2 try@2").reps("try@2", late), "late", false},
		"late once":                    {on(hind).reps("try@2 try@2 try@2").reps("try@2", late), "late", false},
		"begun at 3 twice":             {on(hind).reps("try@4 try@4", starts(3)), "starts high", true},
		"begun at 2 twice":             {on(hind).reps("try@4 try@4", starts(2)), "starts high", false},
		"begun at 2 and 3":             {on(hind).reps("try@4", starts(2)).reps("try@4", starts(3)), "starts high", false},
		"begun at 3 and 2":             {on(hind).reps("try@4", starts(3)).reps("try@4", starts(2)), "starts high", false},
		"a jump of 3":                  {on(hind).reps("try@2 try@5"), "sharp", true},
		"a jump of 2":                  {on(hind).reps("try@2 try@4"), "sharp", false},
		"two under it, twice":          {on(hind).reps("try@2 try@2", brought(4)), "under-met", true},
		"one under it":                 {on(hind).reps("try@3 try@3", brought(4)), "under-met", false},
		"four over it":                 {on(hind).reps("try@6", brought(2)), "over-met", true},
		"three over it":                {on(hind).reps("try@5", brought(2)), "over-met", false},
		"sides three apart":            {sides("try@2 try@2", "try@5 try@5"), "one-sided", true},
		"one answer of each":           {sides("try@2", "try@5"), "one-sided", false},
		"two apart":                    {sides("try@2 try@2", "try@4 try@4"), "one-sided", false},
		"ten minutes since the halter": {on(hind).mark(10*minute, felt(1)), "check the halter", true},
		"a little under":               {on(hind).mark(10*minute-1, felt(1)), "check the halter", false},
		"refitted since":               {on(hind).mark(minute, track.Mark{Halter: true}).mark(10*minute-1, felt(1)), "check the halter", false},
		"a beginner at 7":              {on(hind).reps("try@7"), "no firm levels", true},
		"a beginner at 6":              {on(hind).reps("try@6"), "no firm levels", false},
	} {
		names := warned(advise(t, test.s.input(beginner)))
		if test.want {
			assert.Contains(t, names, test.warn, name)
		} else {
			assert.NotContains(t, names, test.warn, name)
		}
	}
	a := advise(t, on(hind).reps(repsOf("try@5", 5)).input())
	require.Equal(t, []string{"nagging"}, warned(a))
	assert.Equal(t, 7, a.Warnings[0].Why.Args["to"], "two levels clearer")
	a = advise(t, on(hind).reps(repsOf("try@7", 5)).input(in("doses")))
	require.Contains(t, warned(a), "nagging")
	assert.Equal(t, 8, a.Warnings[len(a.Warnings)-1].Why.Args["to"], "and never over the ceiling")
}

func TestNumbersOfWhatCanBeEntered(t *testing.T) {
	c := shipped(t)
	rep := func(edit func(*track.Rep)) track.Entry {
		r := track.Rep{Ask: ask("lead.halt"), Answer: horse.Try}
		edit(&r)
		return track.Entry{ID: "1", Kind: track.KindRep, Rep: &r}
	}
	seconds := func(v float64) track.Entry { return rep(lasting(v)) }
	toTry := func(v float64) track.Entry { return rep(func(r *track.Rep) { r.ToTry = &v }) }
	spell := func(v int) track.Entry {
		return track.Entry{ID: "1", Kind: track.KindSpell, Spell: &track.Spell{Ask: ask("load.gap going left"), Place: track.Away, Seconds: v}}
	}
	note := func(n int) track.Entry {
		return track.Entry{ID: "1", Kind: track.KindEnd, Note: strings.Repeat("ü", n)}
	}
	for name, both := range map[string][2]track.Entry{
		"seconds of pressure": {seconds(7200), seconds(7200.5)},
		"seconds, none":       {seconds(0), seconds(-0.1)},
		"seconds to the try":  {toTry(7200), toTry(7200.5)},
		"the try before":      {toTry(0), toTry(-1)},
		"kicks":               {rep(kicks(10)), rep(kicks(11))},
		"a spell":             {spell(36_000), spell(36_001)},
		"a note":              {note(2000), note(2001)},
	} {
		assert.NoError(t, both[0].Check(c), name)
		assert.Error(t, both[1].Check(c), name)
	}
	level := func(n int) Input {
		return on("lead.halt").input(func(in *Input) { in.Levels = map[string]int{"lead.halt": n} })
	}
	for n, want := range map[int]bool{0: false, 1: true, 10: true, 11: false} {
		_, err := Advise(c, c.Rules, level(n))
		assert.Equal(t, want, err == nil, "a pass level of %d: %v", n, err)
	}
	thirteen := on("lead.halt").reps(repsOf("accepted@2", 13))
	r, err := Run(c, c.Rules, thirteen.input())
	require.NoError(t, err)
	assert.Len(t, r.Picture(0).Recent, 12, "so far back undo goes")
}

func TestTheLastThreeAnswersTell(t *testing.T) {
	c := shipped(t)
	hind := "quarters.hind near"
	s := newSession(c, c.Rules, on(hind).input())
	for _, e := range on(hind).reps("try@4 refused@4 refused@4 try@4").track {
		s.absorb(e)
	}
	assert.False(t, understood(s.log(ask(hind)).reps))
	assert.False(t, Understood([]bool{true, false, false}))
	assert.True(t, Understood([]bool{true, true, false}))
}

func TestNumbersOfTheGate(t *testing.T) {
	calm := Readiness{Arousal: horse.ArousalOf(1), Handler: horse.Calm, Tack: true, Body: true}
	for days, want := range map[int]int{1: 0, 2: 1, 3: 1, 4: 2, 13: 2, 14: 0} {
		g := Ready(calm, days, false)
		assert.Equal(t, want, g.Lower, "%d days off", days)
		assert.Equal(t, days >= 14, g.Baseline, "%d days off", days)
	}
	assert.Equal(t, 30, Brief{Worked: "2026-05-02"}.DaysOff("2026-06-01"))
	bump := on("load.front").mark(0, track.Mark{Bump: true})
	assert.True(t, ReadDay(shipped(t), track.Day{Track: bump.reps("accepted@3 refused@3").track}, nil, nil).Bumped, "one accepted answer after it")
}

func TestNumbersOfTheReview(t *testing.T) {
	minutes := func(ms int64) int {
		v, _ := review(t, on("lead.halt").mark(ms, felt(1)).input())
		return v.Minutes
	}
	assert.Equal(t, []int{1, 2}, []int{minutes(90_000 - 1), minutes(90_000)}, "to the nearest minute")
	back := func(level int, ms int64) []string {
		_, said := review(t, on("lead.halt").mark(0, felt(level)).mark(ms, felt(1)).input())
		return said
	}
	v, _ := review(t, on("lead.halt").mark(0, felt(2)).reps("try@2", unsaid).input())
	assert.Len(t, v.Felt, 2, "a horse that stayed tense is told so")
	v, _ = review(t, on("lead.halt").reps("try@2", unsaid).input())
	assert.Empty(t, v.Felt, "nobody said how it was")
	assert.Empty(t, back(2, minute), "tense is not over the line")
	assert.Contains(t, strings.Join(back(3, minute+1), " "), "2 minutes", "a minute begun counts")
	assert.NotContains(t, strings.Join(back(3, minute), " "), "2 minutes")
	quiet := func(ms int64) int {
		s := on("home.near").add(track.Entry{Kind: track.KindInterruption, Interruption: &track.Interruption{Behaviour: horse.TurnedAway}})
		_, said := review(t, s.mark(ms, felt(1)).input())
		return len(said)
	}
	assert.Equal(t, []int{1, 2}, []int{quiet(5*minute - 1), quiet(5 * minute)}, "five minutes without it are told")
	mm := targetText(catalog.Step{Pass: catalog.Pass{Unit: "mm"}}, 1500)
	assert.InDelta(t, 1.5, mm.Args["n"], 1e-9)
}

func TestNumbersOfTheCycle(t *testing.T) {
	c := shipped(t)
	days := dips(6, 5, 0.8, 0.05)
	for i := range days {
		days[i].Track = days[i].Track[:6]
	}
	assert.Equal(t, 36, learn(c, days).Reps, "six of an ask are enough")

	reps := func(n int) []track.Day {
		days := dips(4, 5, 1, 0)
		days[3].Track = days[3].Track[:24-(96-n)]
		return days
	}
	assert.True(t, learn(c, reps(96)).Learned)
	assert.False(t, learn(c, reps(95)).Learned)
	assert.False(t, learn(c, dips(8, 7, 1, 0)).Cycle == 7, "no longer than six")

	var under, over bool
	for n := range 200 {
		days := dips(4+n%4, 5, 0.15+float64(n)/500, 0.15)
		got := learn(c, days)
		_, four := answers(c, days).twoRates(4)
		five, better := answers(c, days).twoRates(5)
		switch diff := better - four; {
		case five.Dip <= five.Outside:
		case diff >= 2 && diff < 3:
			over = true
			assert.True(t, got.Learned, "%v log units better", diff)
		case diff >= 1 && diff < 2:
			under = under || got.Cycle != 5
			assert.NotEqual(t, 5, got.Cycle, "%v log units better", diff)
		}
	}
	assert.True(t, under && over, "both sides of two log units were tried")
}
