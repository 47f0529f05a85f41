package assess

import (
	"encoding/json"
	"maps"
	"math"
	"regexp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func causeOf(t *testing.T, causes []Cause, name string) Cause {
	t.Helper()
	i := slices.IndexFunc(causes, func(c Cause) bool { return c.Cause.String() == name })
	require.GreaterOrEqual(t, i, 0, name)
	return causes[i]
}

// twoDecimals is how the handbook writes a score.
func twoDecimals(c Cause) float64 {
	if c.Score == nil {
		return math.NaN()
	}
	return math.Round(*c.Score*100) / 100
}

func TestWorkedCase1(t *testing.T) {
	c := kept(t)
	refused := Basic{Grade: horse.Refused}
	in := Input{Today: today, Problem: horse.Loading, Assessment: Assessment{
		Findings: map[string]horse.Source{"faces_and_pulls": horse.Seen, "pressure_off_stays": horse.Seen},
		Basics:   map[string]Basic{"lead.forward": refused, "lead.back": refused},
		Problems: map[horse.Problem]Account{horse.Loading: {Findings: map[string]horse.Source{
			"stops_and_rests_beside": horse.Seen, "person_gives_up": horse.Told, "did_well_in_past": horse.Told,
		}}},
	}}
	causes := Causes(c.Judging, in)
	for name, want := range map[string]struct {
		score  float64
		belief Belief
	}{
		"learned_out": {0.86, likely}, "handler": {0.80, likely}, "fear": {0.02, unlikely}, "untaught": {0.38, possible},
	} {
		got := causeOf(t, causes, name)
		assert.Equal(t, want.score, twoDecimals(got), name)
		assert.Equal(t, want.belief.String(), got.Belief.String(), name)
	}
	sharp := causeOf(t, causes, "sharpened")
	assert.Equal(t, notLookedAt, sharp.Belief)
	assert.Nil(t, sharp.Score)
	assert.Equal(t, "learned_out", causes[0].Cause.String(), "the likeliest first")
	untaught := causeOf(t, causes, "untaught")
	assert.Equal(t, "basics_2_missing", untaught.For[0].Finding)
	assert.Equal(t, "did_well_in_past", untaught.Against[0].Finding)
	assert.InDelta(t, -0.7, untaught.Against[0].Weight, 1e-9, "told counts half")
	assert.Equal(t, []horse.Ask{{Step: "lead.forward"}, {Step: "lead.back"}}, First(kept(t), in.Assessment))
	assert.Equal(t, notEnough, causeOf(t, causes, "body").Belief, "one finding that settles nothing")
}

func TestWorkedCase2(t *testing.T) {
	c := kept(t)
	tightens, days := Pressing{}.All()[2], 28
	a := Assessment{
		Findings: map[string]horse.Source{"nips_at_girth": horse.Seen},
		Problems: map[horse.Problem]Account{horse.Girth: {}},
		Body:     map[horse.BodyItem]BodyNote{horse.Belly: {Checks: map[string]Pressed{"1": {On: today, Side: horse.Near, Answer: tightens}}}},
	}
	r, err := Judge(c, Case{Today: today, Assessment: a})
	require.NoError(t, err)
	got := causeOf(t, r.Problems[0].Causes, "body")
	assert.Equal(t, 0.94, twoDecimals(got))
	assert.Equal(t, likely, got.Belief)
	var blocked []string
	for _, b := range r.Blocks {
		blocked = append(blocked, b.Step)
	}
	assert.Equal(t, []string{"girth.touch", "girth.hole", "girth.pull", "girth.walk"}, blocked)
	require.Len(t, r.Referrals, 1)
	assert.Equal(t, "vet", r.Referrals[0].Who)
	assert.Equal(t, "2026-06-08", r.Referrals[0].Due, "within 7 days")

	note := a.Body[horse.Belly]
	note.State, note.Begun, note.Days = horse.InTreatment, today, &days
	a.Body[horse.Belly] = note
	rechecks := Rechecks(a, today)
	require.Len(t, rechecks, 2)
	assert.Equal(t, []any{14, "2026-06-15", 28, "2026-06-29"}, []any{rechecks[0].Day, rechecks[0].Due, rechecks[1].Day, rechecks[1].Due})
	note.Released = map[string]Lifted{"girth.touch": {By: "the vet", On: today}}
	a.Body[horse.Belly] = note
	assert.NotEqual(t, "girth.touch", Blocks(c, a)[0].Step, "a vet released the first")
	note.State = horse.Cleared
	a.Body[horse.Belly] = note
	assert.Empty(t, Blocks(c, a))
}

func TestRepeatedChecksStandSideBySide(t *testing.T) {
	all, days := Pressing{}.All(), 28
	note := BodyNote{State: horse.InTreatment, Begun: "2026-05-01", Days: &days, Checks: map[string]Pressed{
		"a": {On: "2026-05-15", Side: horse.Off, Answer: all[1]}, "b": {On: "2026-05-15", Side: horse.Near, Answer: all[0]},
		"c": {On: "2026-05-01", Side: horse.Near, Answer: all[3]},
	}}
	table := note.SideBySide()
	require.Len(t, table, 2)
	assert.Equal(t, []any{0, false, 14, true}, []any{table[0].Day, table[0].Clear, table[1].Day, table[1].Clear})
	assert.Equal(t, horse.Near, table[1].Found[0].Side)
	a := Assessment{Body: map[horse.BodyItem]BodyNote{horse.Belly: note}}
	r := Rechecks(a, "2026-05-16")
	assert.Equal(t, []string{"recheck.improving", "recheck.due"}, []string{r[0].Reads.Key, r[1].Reads.Key})
	assert.Equal(t, "recheck.overdue", Rechecks(a, "2026-06-01")[1].Reads.Key)
	assert.Equal(t, horse.InTreatment, a.BodyOf(horse.Belly), "a clear check half way clears nothing")
	note.State = horse.BodyState{}
	a.Body[horse.Belly] = note
	assert.Equal(t, horse.Clear, a.BodyOf(horse.Belly), "the newest day's checks speak where no state was noted")
}

func TestFloorsAndCaps(t *testing.T) {
	c := kept(t)
	judged := func(p horse.Problem, a Assessment) []Cause {
		return Causes(c.Judging, Input{Today: today, Problem: p, Assessment: a})
	}
	heavy := findProblem(t, "heavy")
	tight := Tack{Noseband: Noseband{}.All()[2]}
	leans := FirstLook{Contact: []Contact{Contact{}.All()[2]}}
	dull := map[string]horse.Source{"dull_needs_6": horse.Seen, "never_gives": horse.Seen}
	got := causeOf(t, judged(heavy, Assessment{Tack: tight, First: leans, Findings: dull}), "dulled")
	assert.Equal(t, possible, got.Belief)
	assert.Equal(t, "bound.dulled", got.Bound.Key)
	assert.Greater(t, *got.Score, 0.6, "the score stays as it is")
	tight.Trials = map[string]Trial{"1": {Milder: true, Verdict: Verdict{}.All()[1]}}
	assert.Equal(t, likely, causeOf(t, judged(heavy, Assessment{Tack: tight, First: leans, Findings: dull}), "dulled").Belief, "a milder trial was made")

	calm := map[string]horse.Source{"freezes": horse.Told, "pressure_off_stays": horse.Seen, "curious": horse.Seen}
	fear := causeOf(t, judged(horse.Loading, Assessment{Findings: calm}), "fear")
	assert.Equal(t, possible, fear.Belief)
	assert.Equal(t, "bound.fear", fear.Bound.Key)

	sore := Assessment{From: horse.Told, Body: body(horse.FeetLegs, horse.InTreatment)}
	assert.Equal(t, possible, causeOf(t, judged(horse.Loading, sore), "body").Belief, "told only, but never below possible")
}

func findProblem(t *testing.T, s string) horse.Problem {
	t.Helper()
	var p horse.Problem
	require.NoError(t, p.UnmarshalText([]byte(s)))
	return p
}

func TestTheMostTellingSkippedLook(t *testing.T) {
	c := kept(t)
	in := Input{Today: today, Problem: horse.Loading}
	first := MostTelling(c.Judging, in)
	require.NotNil(t, first)
	assert.Equal(t, "B", first.Look.String(), "of looks that weigh as much the body comes first")
	in.Assessment.Body = map[horse.BodyItem]BodyNote{}
	for _, item := range c.Judging.RelevantTo(horse.Loading) {
		in.Assessment.Body[item] = BodyNote{State: horse.Clear}
	}
	assert.Equal(t, "A.history", MostTelling(c.Judging, in).Look.String(), "then the order of the sections")
	everything := map[horse.Look]horse.Source{}
	for _, l := range (horse.Look{}).All() {
		everything[l] = horse.Seen
	}
	in.Assessment.Looked = everything
	assert.Nil(t, MostTelling(c.Judging, in))
}

func TestWhatIsNotedBecomesFindings(t *testing.T) {
	c := kept(t)
	four := 4
	in := Input{Today: today, Problem: horse.Loading, Record: Record{RiddenPast: Past{}.All()[3], Gelded: "2026-04-01"}, Assessment: Assessment{
		From: horse.OnVideo,
		Tack: Tack{Noseband: Noseband{}.All()[3], Aids: []RunningAid{RunningAid{}.All()[1]}, Saddle: misfit},
		First: FirstLook{
			Head: Head{}.All()[0], Nose: Nose{}.All()[0], Turn: []Turn{Turn{}.All()[2]}, Contact: []Contact{Contact{}.All()[3]},
			Attention: []Attention{Attention{}.All()[1]}, Mounting: []Mounting{Mounting{}.All()[6]},
			RiderLeg: map[Gait]RiderLeg{Gait{}.All()[1]: RiderLeg{}.All()[4]},
		},
		Basics: map[string]Basic{
			"lead.back": {Level: horse.LevelOf(7), Grade: horse.Accepted}, "head.down": {Grade: horse.Try},
			"head.flex near": {Level: horse.LevelOf(2)}, "head.flex off": {Level: horse.LevelOf(5)},
		},
		Problems: map[horse.Problem]Account{horse.Loading: {
			Story:    Story{Began: Began{}.All()[4], Done: []Done{Done{}.All()[0], Done{}.All()[3]}},
			Baseline: Baseline{Done: true, Recovery: number(301)},
		}},
		Findings: map[string]horse.Source{"running_aid": horse.Told, "not_a_finding": horse.Seen},
		Zones:    map[Spot]Touch{{Zone: horse.Zone{}.All()[2], Side: horse.Off, With: With{}.All()[0]}: {StepOuts: &four}},
	}}
	got := map[string]string{}
	for _, f := range Findings(c.Judging, in) {
		got[f.Finding] = f.Source.String()
	}
	assert.Equal(t, map[string]string{
		"began_after_change": "told", "put_away_or_rested": "told", "got_free_by_itself": "told", "past_unknown": "on record",
		"stallion_or_newly_gelded": "on record", "strong_noseband_or_bit": "video", "running_aid": "video", "saddle_or_bit_misfit": "video",
		"mouth_reaction_at_contact": "video", "nose_poked_head_high": "video", "dragged_turns": "video", "attention_home_or_herd": "video",
		"hollow_at_mounting": "video", "unintended_spur": "video", "basics_2_missing": "video", "one_side_worse": "video",
		"down_after_300": "video", "body_suspect_elsewhere": "video",
	}, got, "the better source of two counts, and a saddle that does not fit is suspect")
	assert.Equal(t, []string{"zones.over", "saddle.pad"}, steps(First(kept(t), in.Assessment))[2:], "three and more step-outs from zone 3")
}

func steps(asks []horse.Ask) []string {
	var keys []string
	for _, a := range asks {
		keys = append(keys, a.Step)
	}
	return keys
}

func number(n int) *int { return &n }

func TestGoodBasicsAreGoodOnlyWhenAllWereLookedAt(t *testing.T) {
	c := kept(t)
	a := Assessment{Basics: map[string]Basic{}, Zones: map[Spot]Touch{}}
	for _, test := range Tests() {
		for _, k := range test.Asks() {
			a.Basics[k] = Basic{Level: horse.LevelOf(2), Grade: horse.Accepted}
		}
	}
	has := func(key string) bool {
		return slices.ContainsFunc(Findings(c.Judging, Input{Today: today, Problem: horse.Loading, Assessment: a}), func(f Found) bool { return f.Finding == key })
	}
	assert.False(t, has("all_basics_good"), "the zones were not touched")
	for _, zone := range (horse.Zone{}).All()[1:4] {
		for _, side := range (horse.Side{}).All() {
			a.Zones[Spot{zone, side, With{}.All()[0]}] = Touch{Grade: horse.Accepted}
		}
	}
	assert.True(t, has("all_basics_good"))
	a.NotYet = true
	assert.True(t, has("basics_4_missing") && !has("all_basics_good"), "cannot be haltered counts as four missing")
}

// findings draws some findings with their sources.
func drawFindings(t *rapid.T, j catalog.Judging) map[string]horse.Source {
	keys := rapid.SliceOfDistinct(rapid.IntRange(0, len(j.Findings)-1), rapid.ID[int]).Draw(t, "findings")
	sources := []horse.Source{horse.Seen, horse.OnVideo, horse.Told}
	found := map[string]horse.Source{}
	for _, k := range keys {
		found[j.Findings[k].Key] = rapid.SampledFrom(sources).Draw(t, "source")
	}
	return found
}

func drawProblem(t *rapid.T) horse.Problem {
	return rapid.SampledFrom(horse.Problem{}.All()).Draw(t, "problem")
}

func TestAFindingForACauseNeverLowersIt(t *testing.T) {
	j := kept(t).Judging
	rank := map[Belief]int{unlikely: 0, possible: 1, likely: 2}
	rapid.Check(t, func(t *rapid.T) {
		p, found := drawProblem(t), drawFindings(t, j)
		more := rapid.SampledFrom(j.Findings).Draw(t, "one more")
		source := rapid.SampledFrom([]horse.Source{horse.Seen, horse.OnVideo, horse.Told}).Draw(t, "its source")
		with := maps.Clone(found)
		if j.Sources[source] > j.Sources[with[more.Key]] {
			with[more.Key] = source
		}
		before := Causes(j, Input{Today: today, Problem: p, Assessment: Assessment{Findings: found}})
		after := Causes(j, Input{Today: today, Problem: p, Assessment: Assessment{Findings: with}})
		for _, b := range more.On(p) {
			if j.Weights[b.Mark] <= 0 {
				continue
			}
			was := before[slices.IndexFunc(before, func(c Cause) bool { return c.Cause == b.Cause })]
			is := after[slices.IndexFunc(after, func(c Cause) bool { return c.Cause == b.Cause })]
			if is.Score == nil || was.Score != nil && *is.Score < *was.Score-1e-12 {
				t.Fatalf("%s lowered %s", more.Key, b.Cause)
			}
			if was.Belief != notLookedAt && was.Belief != notEnough && is.Belief != notEnough && rank[is.Belief] < rank[was.Belief] {
				t.Fatalf("%s made %s %s, it was %s", more.Key, b.Cause, is.Belief, was.Belief)
			}
		}
	})
}

func TestNotLookedAtIsNeverClear(t *testing.T) {
	c := kept(t)
	rapid.Check(t, func(t *rapid.T) {
		p, found := drawProblem(t), drawFindings(t, c.Judging)
		in := Input{Today: today, Problem: p, Assessment: Assessment{Findings: found}}
		for _, cause := range Causes(c.Judging, in) {
			bearing := len(cause.For)+len(cause.Against) > 0
			if bearing == (cause.Belief == notLookedAt) || bearing == (cause.Score == nil) {
				t.Fatalf("%s is %s with %d findings", cause.Cause, cause.Belief, len(cause.For)+len(cause.Against))
			}
		}
		for _, item := range (horse.BodyItem{}).All() {
			if in.Assessment.BodyOf(item) != horse.NotLookedAt {
				t.Fatalf("%s was not looked at", item)
			}
		}
		if in.Assessment.BodyClear(c.Judging, p) {
			t.Fatalf("the body was not looked at, and is clear for %s", p)
		}
	})
}

func TestTheOrderOfEntryDoesNotMatter(t *testing.T) {
	c := kept(t)
	rapid.Check(t, func(t *rapid.T) {
		marks := drawMarks(t, c.Judging)
		shuffled := rapid.Permutation(marks).Draw(t, "order")
		one, err := Fold(Assessment{}, marks)
		if err != nil {
			t.Fatal(err)
		}
		two, err := Fold(Assessment{}, shuffled)
		if err != nil {
			t.Fatal(err)
		}
		if a, b := judged(t, c, one), judged(t, c, two); a != b {
			t.Fatalf("another order, another result:\n%s\n%s", a, b)
		}
	})
}

func judged(t *rapid.T, c *catalog.Catalog, a Assessment) string {
	r, err := Judge(c, Case{Today: today, Assessment: a})
	if err != nil {
		t.Fatal(err)
	}
	text, err := json.Marshal(r)
	if err != nil {
		t.Fatal(err)
	}
	return string(text)
}

func BenchmarkJudge(b *testing.B) {
	t := &testing.T{}
	c := kept(t)
	a := Assessment{Findings: map[string]horse.Source{}, Body: body(horse.HindLeg, horse.Suspect), Problems: met(3)}
	for _, f := range c.Judging.Findings {
		a.Findings[f.Key] = horse.Seen
	}
	for _, p := range (horse.Problem{}).All()[:3] {
		a.Problems[p] = Account{Findings: a.Findings}
	}
	for _, test := range Tests() {
		for _, k := range test.Asks() {
			if a.Basics == nil {
				a.Basics = map[string]Basic{}
			}
			a.Basics[k] = Basic{Level: horse.LevelOf(4), Grade: horse.Accepted}
		}
	}
	for b.Loop() {
		if _, err := Judge(c, Case{Today: today, Assessment: a}); err != nil {
			b.Fatal(err)
		}
	}
}

// Every sentence of a result has words, whatever was found.
func TestEverySentenceHasWords(t *testing.T) {
	c, book := kept(t), phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		a, err := Fold(Assessment{Findings: drawFindings(t, c.Judging)}, drawMarks(t, c.Judging))
		if err != nil {
			t.Fatal(err)
		}
		r, err := Judge(c, Case{Today: today, Assessment: a})
		if err != nil {
			t.Fatal(err)
		}
		text, err := json.Marshal(append(BodyChanges(Assessment{}, a), Changes(Result{}, r)...))
		if err != nil {
			t.Fatal(err)
		}
		for _, key := range keysIn(judged(t, c, a) + string(text)) {
			if !book.Has(key) {
				t.Fatalf("%s has no words", key)
			}
		}
	})
}

// keysIn lists the keys of the messages in a document.
func keysIn(text string) []string {
	var keys []string
	for _, m := range regexp.MustCompile(`"key":"([^"]+)"[^{}]*"text":|"key":"([^"]+)","args":`).FindAllStringSubmatch(text, -1) {
		keys = append(keys, m[1]+m[2])
	}
	return keys
}
