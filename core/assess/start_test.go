package assess

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func TestSuspectBodyBlocksAndRefers(t *testing.T) {
	c := kept(t)
	a := Assessment{Body: body(horse.HindLeg, horse.Suspect)}
	blocks := Blocks(c, a)
	require.NotEmpty(t, blocks)
	assert.Equal(t, "load.step", blocks[0].Step)
	loading := 0
	for _, b := range blocks {
		if strings.HasPrefix(b.Step, "load.") {
			loading++
		}
	}
	assert.Equal(t, 8, loading, "load.step and up")
	r, err := Judge(c, Case{Today: today, Assessment: a.About(horse.Loading)})
	require.NoError(t, err)
	assert.Len(t, r.Blocks, 8, "those of other ladders are not this horse's worry")
	assert.Equal(t, map[string]int{"lead.back": 1}, Limits(kept(t), a))
	assert.Equal(t, "vet", Referrals(a, today)[0].Who)
	a.Body[horse.HindLeg] = BodyNote{State: horse.InTreatment, VetSaw: today}
	assert.Equal(t, map[string]int{"lead.back": 4}, Limits(kept(t), a), "a vet has seen it, and it never locked")
	a.Body[horse.HindLeg] = BodyNote{State: horse.Suspect, VetSaw: today, Locked: true}
	assert.Equal(t, map[string]int{"lead.back": 1}, Limits(kept(t), a))
	assert.Equal(t, "referral.locks", Referrals(a, today)[0].Why.Key)
	assert.Empty(t, Blocks(c, Assessment{Body: body(horse.HindLeg, horse.Cleared)}))
	assert.Empty(t, Blocks(c, Assessment{}), "not looked at blocks nothing")
}

func TestReferralsKeepWhatWasAsked(t *testing.T) {
	a := Assessment{
		Body:      body(horse.Back, horse.Suspect),
		Problems:  map[horse.Problem]Account{horse.Loading: {Story: Story{Began: Began{}.All()[2]}}},
		Events:    map[string]Event{"1": event("fell with a rider", "2026-05-30")},
		Referrals: map[string]Asked{"back": {Who: Professional{}.All()[3], Due: "2026-06-03", Outcome: "sore at the loins"}},
	}
	refs := Referrals(a, today)
	require.Len(t, refs, 3)
	assert.Equal(t, []any{"sudden", "vet", "2026-06-08", false}, []any{refs[0].Key, refs[0].Who, refs[0].Due, refs[0].Done})
	assert.Equal(t, "falls", refs[1].Key)
	assert.Equal(t, []any{"back", "back therapist", "2026-06-03", true}, []any{refs[2].Key, refs[2].Who, refs[2].Due, refs[2].Done}, "answered, though due first")
	a.Referrals["falls"] = Asked{Due: "2026-06-02"}
	assert.Equal(t, "falls", Referrals(a, today)[0].Key, "by the day they are due")
}

func TestNotLookedAtIsListed(t *testing.T) {
	j := kept(t).Judging
	assert.False(t, Assessment{}.BodyClear(j, horse.Loading))
	all := Assessment{Body: map[horse.BodyItem]BodyNote{}}
	for _, item := range j.RelevantTo(horse.Loading) {
		all.Body[item] = BodyNote{State: horse.Clear}
	}
	assert.True(t, all.BodyClear(j, horse.Loading))
	gaps := func(a Assessment) int {
		return len(Unlooked(j, Input{Today: today, Problem: horse.Loading, Assessment: a}))
	}
	assert.Equal(t, len(horse.Look{}.All())-1+len(horse.BodyItem{}.All()), gaps(Assessment{}))
	assert.Equal(t, gaps(Assessment{})-4, gaps(all))
}

func TestWhereToStart(t *testing.T) {
	c := kept(t)
	for name, test := range map[string]struct {
		reached string
		arousal int
		body    map[horse.BodyItem]BodyNote
		notYet  bool
		want    string
	}{
		"nothing reached":         {"", 1, nil, false, "load.board"},
		"after the last accepted": {"load.gap", 1, nil, false, "load.square"},
		"one lower at 2":          {"load.gap", 2, nil, false, "load.gap"},
		"two lower at 3":          {"load.gap", 3, nil, false, "load.bridge"},
		"never below the first":   {"", 4, nil, false, "load.board"},
		"never on a blocked step": {"load.step", 1, body(horse.Balance, horse.InTreatment), false, "load.front"},
		"cannot be haltered":      {"load.step", 1, nil, true, "wild.pole"},
	} {
		t.Run(name, func(t *testing.T) {
			a := Assessment{Body: test.body, NotYet: test.notYet}
			got, ok := Start(c, "load", a, Baseline{Done: true, Reached: test.reached, Arousal: horse.ArousalOf(test.arousal)}, false)
			assert.True(t, ok)
			assert.Equal(t, test.want, got)
		})
	}
	_, ok := Start(c, "no ladder", Assessment{}, Baseline{}, false)
	assert.False(t, ok)
}

func TestWhichSchool(t *testing.T) {
	c := kept(t)
	load, _ := c.Ladder("load")
	lead, _ := c.Ladder("lead")
	believed := func(belief Belief, names ...string) []Cause {
		var list []Cause
		for _, n := range names {
			var cause horse.Cause
			require.NoError(t, cause.UnmarshalText([]byte(n)))
			list = append(list, Cause{Cause: cause, Belief: belief})
		}
		return list
	}
	warns := Assessment{Mind: Mind{Look: LookGiven{}.All()[1]}}
	sore := Assessment{Body: body(horse.FeetLegs, horse.Suspect)}
	learned := append(believed(likely, "learned_out"), believed(unlikely, "fear")...)
	for name, test := range map[string]struct {
		a      Assessment
		record Record
		causes []Cause
		risk   Risk
		f      Against
		want   string
		why    string
	}{
		"nothing known":              {want: "relief place", why: "school.usual"},
		"risk 6":                     {risk: Risk{Points: 6, Care: horse.HighCare}, want: "doses", why: "school.danger"},
		"a warning look":             {a: warns, want: "doses", why: "school.danger"},
		"one that guards itself":     {a: warns, record: Record{GuardsItself: true}, want: "relief place", why: "school.usual"},
		"sore":                       {a: sore, f: Against{Sore: true}, want: "relief place", why: "school.sore"},
		"sore and a learned way out": {a: sore, f: Against{Sore: true}, causes: learned, want: "relief place", why: "school.sore"},
		"fear likely, or held up":    {f: Against{FearLikely: true}, want: "ask and listen", why: "school.fear"},
		"afraid, and pushy":          {f: Against{FearLikely: true, Pushy: true}, want: "doses", why: "school.fear"},
		"afraid, and no time":        {f: Against{FearLikely: true, DaysToDate: 20}, want: "doses", why: "school.fear"},
		"afraid, and time enough":    {f: Against{FearLikely: true, DaysToDate: 21}, want: "ask and listen", why: "school.fear"},
		"one that likes the work":    {f: Against{Fit: true}, want: "build and release", why: "school.instead"},
		"drawn home, and fit":        {causes: believed(likely, "attachment"), f: Against{Fit: true}, want: "build and release", why: "school.instead"},
		"learned, 3 at the baseline": {causes: learned, f: Against{Arousal: 3}, want: "wait it out", why: "school.learned"},
		"learned, 2 at the baseline": {causes: learned, f: Against{Arousal: 2}, want: "build and release", why: "school.learned"},
		"and it froze at the thing":  {causes: learned, f: Against{Arousal: 3, Frightened: true}, want: "relief place", why: "school.usual"},
		"and it throws itself":       {causes: learned, f: Against{Arousal: 4, Throws: true}, want: "relief place", why: "school.usual"},
		"hands that are unsteady":    {causes: learned, f: Against{Unsteady: true}, want: "wait it out", why: "school.learned"},
		"attachment likely":          {causes: believed(likely, "attachment"), want: "relief place", why: "school.attachment"},
		"a learned way out":          {causes: learned, want: "build and release", why: "school.learned"},
		"fear not looked at":         {causes: believed(likely, "learned_out"), want: "relief place", why: "school.usual"},
		"dulled":                     {causes: append(believed(likely, "dulled"), believed(unlikely, "fear")...), want: "build and release", why: "school.learned"},
	} {
		t.Run(name, func(t *testing.T) {
			in := Input{Today: today, Problem: horse.Loading, Assessment: test.a, Record: test.record}
			got := SchoolFor(load, in, test.causes, test.risk, dated(test.f))
			assert.Equal(t, test.want, got.School.String())
			assert.Equal(t, test.why, got.Why.Key)
			assert.Equal(t, test.why == "school.danger", got.Owner)
		})
	}
	in := Input{Today: today, Problem: horse.Loading, Assessment: sore}
	assert.Equal(t, "school.sore_none", SchoolFor(lead, in, nil, Risk{}, dated(Against{Sore: true})).Why.Key, "none left: doses")
	assert.Equal(t, "doses", SchoolFor(lead, in, nil, Risk{}, dated(Against{FearLikely: true})).School.String(), "the ladder does not name ask and listen")
	calm, _ := c.Ladder("calm")
	assert.Equal(t, []string{"doses", "school.none_left"}, []string{SchoolFor(calm, in, nil, Risk{}, dated(Against{Frightened: true})).School.String(), SchoolFor(calm, in, nil, Risk{}, dated(Against{Throws: true})).Why.Key}, "never waited out")
	assert.Equal(t, "build and release", SchoolFor(lead, in, nil, Risk{}, dated(Against{Arousal: 3})).School.String(), "no other fits")
}

// dated is without a date where none was given.
func dated(f Against) Against {
	if f.DaysToDate == 0 {
		f.DaysToDate = -1
	}
	return f
}

func TestSwapSaysHowMuchIsWho(t *testing.T) {
	all := SwapRun{}.All()
	run := func(level int, a horse.Answer) Run { return Run{Level: horse.LevelOf(level), Grade: a} }
	assert.Nil(t, SwapOf(nil))
	assert.Nil(t, SwapOf(map[SwapRun]Run{all[0]: run(7, horse.Refused), all[1]: {Level: horse.LevelOf(3)}}), "half a run compares with nothing")

	s := SwapOf(map[SwapRun]Run{all[0]: run(7, horse.Try), all[1]: run(4, horse.Accepted), all[2]: run(2, horse.Accepted)})
	require.NotNil(t, s)
	assert.Equal(t, []float64{7, 2, 3}, []float64{s.Person, s.Tack, s.Horse}, "13 with the usual person, 6 with the trainer, 4 in changed tack, 1 is offered")
	assert.Equal(t, [3]int{58, 17, 25}, s.Shares)
	assert.True(t, s.personUp && s.tackUp)

	learned := SwapOf(map[SwapRun]Run{all[0]: run(7, horse.Try), all[1]: run(4, horse.Accepted), all[3]: run(4, horse.Accepted)})
	assert.Equal(t, 3.5, learned.Person, "half of it the horse had learned by the end")
	var keys []string
	for _, m := range learned.Says {
		keys = append(keys, m.Key)
	}
	assert.Equal(t, []string{"swap.person", "swap.tack_unlooked", "swap.again_better"}, keys)
	same := SwapOf(map[SwapRun]Run{all[0]: run(1, horse.Offered), all[1]: run(1, horse.Offered)})
	assert.Equal(t, [3]int{}, same.Shares, "nothing to explain")
	assert.Equal(t, "swap.person_same", same.Says[0].Key)
}

func TestTackIsLoosenedWithoutAReason(t *testing.T) {
	three, five := 3, 5
	tack := Tack{
		Bit: Bit{}.All()[3], Noseband: Noseband{}.All()[2], Extras: []Extra{Extra{}.All()[0]}, Aids: []RunningAid{RunningAid{}.All()[2]},
		Reasons: map[Setting]string{Setting{}.All()[1]: "off before the week is out"},
		Bridles: map[string]Bridle{"1": {Name: "work bridle", Holes: map[Strap]BothSides{Strap{}.All()[0]: {Near: &three, Off: &five}}}},
	}
	book := phrase.English(phrase.Shipped)
	var said []string
	for _, m := range tack.Loosen() {
		said = append(said, book.Say(m))
	}
	require.Len(t, said, 4)
	assert.Contains(t, strings.Join(said, "\n"), "cheekpiece")
	assert.NotContains(t, strings.Join(said, "\n"), "No reason is given for the bit")
	assert.Empty(t, Tack{Noseband: Noseband{}.All()[1], Bit: Bit{}.All()[1]}.Loosen())
}

func TestStopsMismatchAndOverruling(t *testing.T) {
	c := kept(t)
	a := Assessment{
		First:    FirstLook{Mounting: []Mounting{Mounting{}.All()[3], Mounting{}.All()[5]}, RiderLeg: map[Gait]RiderLeg{Gait{}.All()[0]: RiderLeg{}.All()[3]}},
		Tack:     Tack{Extras: []Extra{Extra{}.All()[1]}},
		Handlers: map[string]Handler{"1": {Experience: horse.Improving}, "2": {Experience: horse.Experience{}.All()[3]}},
		Problems: map[horse.Problem]Account{horse.Loading: {}},
		Overruled: map[string]Overruling{
			"risk":          {To: "ordinary care", Reason: "known for years"},
			"start.loading": {To: "load.gap", Reason: "was there last week"},
		},
		Events: events("struck", "2026-05-20"),
	}
	r, err := Judge(c, Case{Today: today, Assessment: a, Record: Record{Energy: Energy{}.All()[2]}})
	require.NoError(t, err)
	var stops []string
	for _, m := range r.Stops {
		stops = append(stops, m.Key)
	}
	assert.Equal(t, []string{"stop.mounting", "stop.spurs"}, stops)
	require.NotNil(t, r.Mismatch)
	assert.Equal(t, horse.HighCare, r.Care, "a lower grade never takes the precautions away")
	assert.Equal(t, []string{"load.gap", "load.board"}, []string{r.Problems[0].Start.Key, r.Problems[0].Computed.Key})
	nine := 9
	r, err = Judge(c, Case{Today: today, Record: Record{Gaited: true, Rides: &nine}, Assessment: Assessment{
		Problems: map[horse.Problem]Account{horse.Bridling: {}}, Handlers: map[string]Handler{"1": {Shoulder: true}},
	}})
	require.NoError(t, err)
	assert.Equal(t, []string{"stop.shoulder", "stop.one_rein", "stop.young"}, []string{r.Stops[0].Key, r.Stops[1].Key, r.Stops[2].Key})
	r, err = Judge(c, Case{Today: today, Assessment: a})
	require.NoError(t, err)
	a.Overruled["risk"] = Overruling{To: "specialist only", Reason: "it meant it"}
	a.Overruled["start.loading"] = Overruling{To: "load.step", Reason: "it is keen"}
	a.Body = body(horse.HindLeg, horse.Suspect)
	r, err = Judge(c, Case{Today: today, Assessment: a})
	require.NoError(t, err)
	assert.Equal(t, horse.SpecialistOnly, r.Care)
	assert.Equal(t, "load.board", r.Problems[0].Start.Key, "never on a blocked step, whoever says")
	assert.Nil(t, r.Mismatch)
}

func TestBasisSaysHowSureThatIs(t *testing.T) {
	c := kept(t)
	for name, test := range map[string]struct {
		a    Assessment
		want string
	}{
		"nothing":   {Assessment{}, "basis.nothing"},
		"told":      {Assessment{Findings: map[string]horse.Source{"curious": horse.Told}}, "basis.told"},
		"film":      {Assessment{From: horse.OnVideo, Tack: Tack{Noseband: Noseband{}.All()[2]}}, "basis.video"},
		"in person": {Assessment{Findings: map[string]horse.Source{"curious": horse.Seen}}, "basis.seen"},
	} {
		t.Run(name, func(t *testing.T) {
			test.a.Problems = map[horse.Problem]Account{horse.Loading: {}}
			r, err := Judge(c, Case{Today: today, Assessment: test.a})
			require.NoError(t, err)
			assert.Equal(t, test.want, r.Basis.Say.Key)
		})
	}
	told := Assessment{Findings: map[string]horse.Source{"shakes_sweats": horse.Told, "freezes": horse.Told}}
	fear := causeOf(t, Causes(c.Judging, Input{Today: today, Problem: horse.Loading, Assessment: told}), "fear")
	assert.Equal(t, []string{"possible", "likely"}, []string{fear.Belief.String(), fear.IfSeen.String()}, "told only: it would be likely had it been seen")
}

func TestChangesBetweenTwoAssessments(t *testing.T) {
	c := kept(t)
	before := Assessment{Problems: met(3), Body: body(horse.HindLeg, horse.Suspect)}
	after := Assessment{Problems: met(1), Body: body(horse.HindLeg, horse.Cleared), Findings: map[string]horse.Source{"shakes_sweats": horse.Seen}}
	was, err := Judge(c, Case{Today: today, Assessment: before})
	require.NoError(t, err)
	is, err := Judge(c, Case{Today: today, Assessment: after})
	require.NoError(t, err)
	got := map[string][2]string{}
	for _, ch := range append(Changes(was, is), BodyChanges(before, after)...) {
		key := ch.What.Key
		if cause, ok := ch.What.Args["cause"]; ok {
			key += " " + cause.(phrase.Message).Key
		}
		got[key] = [2]string{ch.Before, ch.After}
	}
	assert.Equal(t, [2]string{"not looked at", "likely"}, got["change.cause cause.fear"])
	assert.Equal(t, [2]string{"suspect", "cleared"}, got["change.body"])
	assert.Equal(t, [2]string{"extra care", "ordinary care"}, got["change.risk"])
	assert.Empty(t, Changes(is, is))
}

func TestTheWalkHasWordsAndPlaces(t *testing.T) {
	c, book := kept(t), phrase.English(phrase.Shipped)
	for _, p := range (horse.Problem{}).All() {
		ticked := map[string]bool{}
		sections := Walk(c, Assessment{}, p, true)
		require.Len(t, sections, 10)
		assert.Equal(t, []string{"told", "seen"}, []string{sections[0].Source.String(), sections[1].Source.String()})
		for _, s := range sections {
			assert.True(t, book.Has(s.Title.Key), s.Title.Key)
			for _, q := range s.Questions {
				assert.True(t, book.Has(q.Label.Key), q.Label.Key)
				for _, choice := range q.Choices {
					m := mark(1, q.Path, choice.Value)
					switch q.Kind {
					case KindMany:
						m.Value = []any{choice.Value}
					case KindFindings:
						m = mark(1, q.Path+"findings/"+choice.Value, "seen")
						ticked[choice.Value] = true
					}
					assert.Empty(t, m.Check(c, today), m.Path)
				}
				switch q.Kind {
				case KindFindings:
					assert.Empty(t, mark(1, q.Path+"looked/"+q.Look.String(), "video").Check(c, today), q.Look)
				case KindNumber, KindSeconds, KindArousal:
					assert.Empty(t, mark(1, q.Path, 3).Check(c, today), q.Path)
				case KindText:
					assert.Empty(t, mark(1, q.Path, "as it is").Check(c, today), q.Path)
				case KindDate:
					assert.Empty(t, mark(1, q.Path, today).Check(c, today), q.Path)
				}
			}
		}
		assert.GreaterOrEqual(t, len(ticked), 40, "what no answer makes can be ticked")
	}
}
