package report

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/arena"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
	"ivorybridge/core/progress"
	"ivorybridge/core/track"
)

func bead(step string, answer horse.Answer, peak, calm int) track.Entry {
	ask := horse.Ask{Step: step}
	return track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: ask, Answer: answer, Peak: horse.LevelOf(peak), Release: horse.OnTheTry, Arousal: horse.ArousalOf(calm)}}
}

// worked puts a track into the input, worked in a school.
func (in *Input) record(t *testing.T, school horse.School, entries ...track.Entry) {
	t.Helper()
	for i := range entries {
		entries[i].ID, entries[i].At = string(rune('a'+i)), int64(i+1)*60_000
	}
	step, _ := in.Catalog.Step("load.board")
	schools := map[string]horse.School{"load": school, "saddle": school, "new": school, "head": school}
	var err error
	in.Review, err = arena.ReviewOf(in.Catalog, arena.Input{School: school, Schools: schools, Ask: horse.Ask{Step: step.Key}, Track: entries})
	require.NoError(t, err)
	in.Beads = arena.Beads(in.Catalog, track.Day{Track: entries}, nil, schools)
}

func input(t *testing.T) Input {
	t.Helper()
	c, err := yaml.Shipped()
	require.NoError(t, err)
	bridge, ok := progress.BridgeOf(c, "load", nil, nil, "load.front", progress.Goal{})
	require.True(t, ok)
	front := horse.Ask{Step: "load.front"}
	in := Input{
		Catalog: c, Horse: "Plum", Record: assess.Record{Sex: assess.Sex{}.All()[0]}, Ladder: "load", Goal: "Loads with Ines alone.", Problem: horse.Loading, Standing: Standing{Last: "2026-06-16"}, Care: horse.ExtraCare, Bridge: bridge, Next: "load.step",
		Visit:    history.Visit{Before: []arena.Known{{Ask: front, State: horse.Tried}}, After: []arena.Known{{Ask: front, State: horse.Met}}},
		Then:     map[horse.Ask]Then{front: {On: "2026-05-01", Reps: history.Reps{N: 2, Good: 1, Level: 7, Noted: true}}},
		Baseline: assess.Baseline{Arousal: horse.ArousalOf(3)},
	}
	in.record(t, horse.BuildAndRelease, bead("load.front", horse.Accepted, 2, 1), bead("load.front", horse.Refused, 4, 2), bead("load.front", horse.Accepted, 3, 1))
	return in
}

func text(d Document, section string) string {
	book, all := phrase.English(phrase.Words{Vehicle: "float", Sides: "left and right"}), ""
	for _, s := range d.Sections {
		for _, sentence := range s.Sentences {
			if s.Key == section {
				all += book.Say(sentence.Said) + " "
			}
		}
	}
	return all
}

func TestTheReportSaysWhatTheLogSays(t *testing.T) {
	d := Visit(input(t))
	assert.Contains(t, text(d, "one"), "New for Plum: front feet on and off when asked")
	assert.Contains(t, text(d, "worked"), "three asks, two soft: front feet on and off when asked.")
	assert.Contains(t, text(d, "worked"), "let go the moment Plum tries")
	assert.Contains(t, text(d, "saw"), "tense at times, and was easy again at the end")
	assert.Contains(t, text(d, "home"), "do not practise with the float")
	assert.Contains(t, text(d, "care"), "does not replace your vet")
	require.Len(t, d.Figures, 3)
	book := phrase.English(phrase.Shipped)
	assert.Equal(t, "1 of 2", book.Say(d.Figures[0].Before))
	assert.Equal(t, "2 of 3", book.Say(d.Figures[0].After))
	assert.Equal(t, []string{"firm", "light", "on 1 May → on 16 June"}, []string{book.Say(d.Figures[1].Before), book.Say(d.Figures[1].After), book.Say(d.Figures[1].Means)})
	assert.Equal(t, []string{"over the line", "tense"}, []string{book.Say(d.Figures[2].Before), book.Say(d.Figures[2].After)})
}

func TestWhatGotWorseIsSaidPlainly(t *testing.T) {
	in := input(t)
	in.Visit.After[0].State = horse.Slipped
	in.Visit.Before[0].State = horse.Met
	then := in.Then[horse.Ask{Step: "load.front"}]
	then.Reps.Level = 2
	in.Then[horse.Ask{Step: "load.front"}] = then
	in.record(t, horse.BuildAndRelease, bead("load.front", horse.Refused, 7, 2), bead("load.front", horse.Refused, 6, 2))
	in.Dangers, in.Incidents = []string{"reared"}, []string{"Went up once, led away and waited."}
	d := Visit(in)
	assert.Contains(t, text(d, "one"), "harder today")
	assert.Contains(t, text(d, "changed"), "Lost since last time")
	assert.Contains(t, text(d, "changed"), "took more than on 1 May 2026: light then, firm now")
	assert.Contains(t, text(d, "saw"), "Dangerous moments: reared")
	assert.Contains(t, text(d, "saw"), "written down: Went up once, led away and waited.")
	assert.Contains(t, text(d, "saw"), "still tense at the end")
}

// A word that is the same as on the first day is no change; an ask that was not
// asked then has nothing to be compared with.
func TestAgainstTheFirstDay(t *testing.T) {
	in := input(t)
	book := phrase.English(phrase.Shipped)
	same := in.Then[horse.Ask{Step: "load.front"}]
	same.Reps.Level = 2
	in.Then[horse.Ask{Step: "load.front"}] = same
	d := Visit(in)
	assert.Equal(t, "on 16 June, the same word as on 1 May", book.Say(d.Figures[1].Means))
	in.Then = nil
	d = Visit(in)
	require.Len(t, d.Figures, 1, "only how tense it was when first tried")
	assert.Contains(t, text(d, "changed"), "was not asked on the first day")
	in.Baseline = assess.Baseline{}
	assert.Empty(t, Visit(in).Figures)
}

// Each school is told in its own success, and how it works only where it was
// worked.
func TestSchoolsInTheOwnersWords(t *testing.T) {
	spell := func(place string, rest bool, seconds int) track.Entry {
		p := track.Spell{Ask: horse.Ask{Step: "load.step"}, Rest: rest, Seconds: seconds, FeetIn: 4}
		require.NoError(t, p.Place.UnmarshalText([]byte(place)))
		return track.Entry{Kind: track.KindSpell, Spell: &p}
	}
	near := horse.Ask{Step: "new.shoulder", Variant: horse.Variant{Side: horse.Near}}
	dose := func(given, steps int) track.Entry {
		return track.Entry{Kind: track.KindDose, Dose: &track.Dose{Rep: track.Rep{Ask: near, Target: 4}, Given: given, Steps: steps}}
	}
	offer := func(a track.Offered) track.Entry {
		return track.Entry{Kind: track.KindOffer, Offer: &track.Offer{Ask: horse.Ask{Step: "saddle.show"}, Answer: a}}
	}
	long := 80.0
	held := track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: horse.Ask{Step: "head.down"}, Answer: horse.Accepted, Seconds: long, Peak: horse.LevelOf(3)}}
	how := map[horse.School]string{
		horse.BuildAndRelease: "builds evenly", horse.ReliefPlace: "Nothing is forced", horse.WaitItOut: "never built up", horse.AskAndListen: "may say no", horse.Doses: "A little at a time",
	}
	for school, test := range map[horse.School]struct {
		track []track.Entry
		says  string
	}{
		horse.ReliefPlace:  {[]track.Entry{spell("away", false, 40), spell("in", true, 70), spell("in", true, 90), spell("in", true, 65)}, "she chose to rest three times, 90 seconds the longest, with four feet in."},
		horse.Doses:        {[]track.Entry{dose(4, 0), dose(4, 0), dose(9, 3)}, "she stood for two of three."},
		horse.AskAndListen: {[]track.Entry{offer(track.Came), offer(track.Left)}, "she said yes to one of two."},
		horse.WaitItOut:    {[]track.Entry{held}, "one of one let go on a try or better, at the end after 80 seconds."},
	} {
		in := input(t)
		in.Visit = history.Visit{}
		in.record(t, school, test.track...)
		d := Visit(in)
		said := text(d, "worked")
		assert.Contains(t, said, test.says)
		for other, words := range how {
			assert.Equal(t, other == school, strings.Contains(said, words), "%s in a session of %s", other, school)
		}
		assert.NotContains(t, text(d, "one"), "hard", school)
		assert.NotContains(t, text(d, "saw"), "easy", "nothing was noted of it: %s", school)
	}
}

func TestWhatIsForbiddenLeads(t *testing.T) {
	in := input(t)
	in.Care = horse.OrdinaryCare
	assert.Equal(t, "short", Visit(in).Sections[0].Key)
	assert.Contains(t, text(Visit(in), "care"), "a helmet near the float and when mounted")
	assert.Contains(t, text(Visit(in), "home"), "Handle her only as the day needs")
	for _, key := range []string{"in_hand", "bit", "owner", "alone", "not_caught"} {
		in.Forbidden = append(in.Forbidden, phrase.Of("forbid."+key, nil))
	}
	in.Rechecks = []assess.Recheck{{Item: horse.Mouth, Day: 14, Due: "2026-06-14"}}
	in.NotCaught = true
	d := Visit(in)
	assert.Equal(t, "first", d.Sections[0].Key)
	first := text(d, "first")
	for _, part := range []string{"Nobody gets on Plum: she has gone over backwards", "No bit", "please don't handle Plum yourself", "second adult", "can't be caught", "checked again on 14 June 2026: mouth and teeth"} {
		assert.Contains(t, first, part)
	}
	assert.NotContains(t, text(d, "care"), "mounted", "nobody may mount it")
	assert.Contains(t, text(d, "home"), "Plum can't be led yet")
	assert.NotContains(t, text(d, "home"), "walk on")
	edits := map[string]Edit{d.Sections[0].Sentences[0].ID: {Text: "She is fine to ride.", Left: true}}
	assert.Empty(t, d.With(edits).Sections[0].Sentences[0].Edited, "what is forbidden can't be reworded")
	in.NotCaught, in.Care = false, horse.HighCare
	assert.Contains(t, text(Visit(in), "home"), "Feed over a fence")
	in.Care, in.Cleared = horse.ExtraCare, []string{"lead.back"}
	assert.Contains(t, text(Visit(in), "home"), "You may practise, as on your homework card: ")
}

// Every sentence in every shape reads well aloud, has twenty words at most, and
// speaks of the horse by name, as he or as she.
func TestEverySentenceReadsWell(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	book := phrase.English(phrase.Shipped)
	rapid.Check(t, func(t *rapid.T) {
		pick := func(name string, n int) int { return rapid.IntRange(0, n).Draw(t, name) }
		var steps []string
		for _, l := range c.Ladders {
			for _, s := range l.Steps {
				if s.Link == "" {
					steps = append(steps, s.Key)
				}
			}
		}
		step := rapid.SampledFrom(steps)
		in := Input{
			Problem: rapid.SampledFrom((horse.Problem{}).All()).Draw(t, "problem"), Standing: Standing{
				Today: "2026-06-20", Visits: pick("visits", 6), Last: "2026-06-16", Done: rapid.Bool().Draw(t, "done"), Who: "Wren Harrow", Phone: rapid.SampledFrom([]string{"", "01632 960 204"}).Draw(t, "phone"),
				Proposed: phrase.Of(rapid.SampledFrom([]string{"next.pain", "next.danger", "next.over", "next.soon", "next.days", ""}).Draw(t, "proposed"), nil),
			},
			Catalog: c, Horse: "Plum", Record: assess.Record{Sex: rapid.SampledFrom(append((assess.Sex{}).All(), assess.Sex{})).Draw(t, "sex")},
			Care: rapid.SampledFrom((horse.Care{}).All()).Draw(t, "care"), Goal: "Loads alone", NeededBy: "2026-08-01", FirstVisit: rapid.Bool().Draw(t, "first"),
			NotCaught: rapid.Bool().Draw(t, "not caught"), Baseline: assess.Baseline{Arousal: horse.ArousalOf(pick("baseline", 4))}, Then: map[horse.Ask]Then{},
		}
		ladders := c.Ladders
		in.Ladder = rapid.SampledFrom(ladders).Draw(t, "ladder").Key
		school := rapid.SampledFrom((horse.School{}).All()).Draw(t, "school")
		schools := map[string]horse.School{}
		for _, l := range ladders {
			schools[l.Key] = school
		}
		var entries []track.Entry
		for i := range pick("entries", 6) {
			s, _ := c.Step(step.Draw(t, "step"))
			ask := rapid.SampledFrom(s.Asks()).Draw(t, "ask")
			e := track.Entry{ID: string(rune('a' + i)), At: int64(i+1) * 60_000, Kind: track.KindRep}
			e.Rep = &track.Rep{Ask: ask, Answer: rapid.SampledFrom((horse.Answer{}).All()).Draw(t, "answer"), Peak: horse.LevelOf(pick("peak", 9)), Seconds: float64(pick("seconds", 90)), Arousal: horse.ArousalOf(pick("arousal", 4))}
			switch {
			case school == horse.ReliefPlace:
				e.Kind, e.Spell, e.Rep = track.KindSpell, &track.Spell{Ask: ask, Place: rapid.SampledFrom((track.SpellPlace{}).All()).Draw(t, "place"), Rest: rapid.Bool().Draw(t, "rest"), Seconds: pick("long", 90), FeetIn: pick("feet", 4)}, nil
			case i == 5:
				e.Kind, e.Interruption, e.Rep = track.KindInterruption, &track.Interruption{Behaviour: horse.TurnedAway, Heading: "home"}, nil
			}
			entries = append(entries, e)
			in.Then[ask] = Then{On: "2026-05-01", Reps: history.Reps{N: pick("then", 3), Level: float64(pick("then level", 9)), Noted: true}}
			state := rapid.SampledFrom((horse.StepState{}).All()).Draw(t, "state")
			in.Visit.After = append(in.Visit.After, arena.Known{Ask: ask, State: state})
			if len(in.Cleared) < 2 && rapid.Bool().Draw(t, "cleared") {
				in.Cleared = append(in.Cleared, s.Key)
			}
			in.Next = s.Key
		}
		var err error
		in.Review, err = arena.ReviewOf(c, arena.Input{School: school, Schools: schools, Ask: horse.Ask{Step: "lead.halt"}, Track: entries})
		require.NoError(t, err)
		in.Beads = arena.Beads(c, track.Day{Track: entries}, nil, schools)
		for _, k := range in.Visit.After {
			in.Standing.Steps = append(in.Standing.Steps, history.Step{Step: k.Step, Met: pick("met", 1)})
		}
		if len(in.Cleared) == 1 && rapid.Bool().Draw(t, "stopped") {
			in.Standing.Stopped, in.Cleared = in.Cleared, nil
		}
		in.Bridge, _ = progress.BridgeOf(c, in.Ladder, in.Visit.After, nil, "", progress.Goal{})
		a := assess.Assessment{NotYet: in.NotCaught, Findings: map[string]horse.Source{}}
		for _, item := range (horse.BodyItem{}).All() {
			if rapid.Bool().Draw(t, "sore") {
				if a.Body == nil {
					a.Body = map[horse.BodyItem]assess.BodyNote{}
				}
				days := 28
				a.Body[item] = assess.BodyNote{State: rapid.SampledFrom((horse.BodyState{}).All()).Draw(t, "state"), Begun: "2026-05-25", Days: &days}
			}
		}
		for _, f := range rapid.SliceOfN(rapid.SampledFrom(c.Judging.Findings), 0, 8).Draw(t, "found") {
			a.Findings[f.Key] = rapid.SampledFrom([]horse.Source{horse.Seen, horse.Told}).Draw(t, "source")
		}
		if rapid.Bool().Draw(t, "over") {
			a.Ways = map[string][]horse.WayOut{"D": {horse.WentOver, horse.Bit}}
		}
		l, _ := c.Ladder(in.Ladder)
		if len(l.For) > 0 {
			a = a.About(l.For[0])
		}
		r, err := assess.Judge(c, assess.Case{Today: "2026-06-01", Assessment: a, Record: in.Record})
		require.NoError(t, err)
		in.Forbidden, in.Rechecks, in.Referrals, in.Basis = r.Forbidden, r.Rechecks, r.Referrals, r.Basis
		if len(r.Problems) > 0 {
			in.Judged = &r.Problems[0]
		}
		require.Empty(t, aloud.Faults(book, r), "the result reads well")
		d := Visit(in)
		require.Empty(t, aloud.Faults(book, d))
		for _, section := range d.Sections {
			for _, s := range section.Sentences {
				said := book.Say(s.Said)
				for _, one := range strings.Split(strings.TrimSuffix(said, "."), ". ") {
					head, _, _ := strings.Cut(one, ": ") // a list is as long as it is
					require.LessOrEqual(t, len(strings.Fields(head)), 20, "%s: %s", s.Said.Key, said)
				}
				require.NotRegexp(t, `^It |\b(about|on|with|near|let|give|gives) it\b`, said, s.Said.Key)
			}
		}
	})
}

func TestEditsSurviveAndAreMarkedWhenNumbersChange(t *testing.T) {
	in := input(t)
	d := Visit(in)
	one := d.Sections[1].Sentences[0] // nothing is forbidden
	edits := map[string]Edit{
		one.ID:     {Text: "Plum was lovely.", Basis: one.Basis},
		"care.vet": {Text: "No vet needed.", Left: true},
	}
	d = Visit(in).With(edits)
	assert.Equal(t, "Plum was lovely.", d.Sections[1].Sentences[0].Edited)
	assert.False(t, d.Sections[1].Sentences[0].Changed)

	in.Visit.After[0].State = horse.Slipped
	d = Visit(in).With(edits)
	assert.True(t, d.Sections[1].Sentences[0].Changed, "its numbers changed")
	last := d.Sections[len(d.Sections)-1]
	assert.Equal(t, "care", last.Key)
	assert.Empty(t, last.Sentences[1].Edited, "safety can't be reworded")
	assert.False(t, last.Sentences[1].Left)
}

func TestReferralsAreNamed(t *testing.T) {
	in := input(t)
	a := assess.Assessment{Body: map[horse.BodyItem]assess.BodyNote{horse.HindLeg: {State: horse.Suspect}}, Problems: map[horse.Problem]assess.Account{horse.Loading: {}}}
	account := a.Problems[horse.Loading]
	require.NoError(t, account.Story.Began.UnmarshalText([]byte("suddenly")))
	a.Problems[horse.Loading] = account
	in.Referrals = assess.Referrals(a, "2026-06-01")
	assert.Contains(t, text(Visit(in), "call"), "vet look by 8 June 2026, before the work that loads it goes on: hind leg")
	assert.Contains(t, text(Visit(in), "call"), "The trouble began suddenly")
	in.Referrals[0].Done = true
	assert.NotContains(t, text(Visit(in), "call"), "hind leg")
}

func TestWhatIsBehindItIsSaidKindly(t *testing.T) {
	in := input(t)
	assert.Empty(t, text(Visit(in), "behind"), "nothing new was judged")
	a := assess.Assessment{
		Problems: map[horse.Problem]assess.Account{horse.Loading: {}},
		Findings: map[string]horse.Source{"faces_and_pulls": horse.Told, "never_gives": horse.Told, "curious": horse.Told},
	}
	r, err := assess.Judge(in.Catalog, assess.Case{Today: "2026-06-01", Assessment: a})
	require.NoError(t, err)
	in.Judged, in.Basis = &r.Problems[0], r.Basis
	said := text(Visit(in), "behind")
	assert.Contains(t, said, "it can be practised, first without the horse")
	assert.Contains(t, said, "Open is not the same as clear")
	assert.Contains(t, said, "nobody has seen Plum yet")
	book := phrase.English(phrase.Shipped)
	for _, c := range r.Problems[0].Causes {
		for _, belief := range []string{"likely", "possible"} {
			assert.True(t, book.Has("report.behind."+belief+"."+c.Cause.String()), c.Cause)
		}
	}
}

// An outing is told to its owner as it was walked, instead of the answer it counts as; one
// that was not walked to its end is not told as one.
func TestAnOutingOnTheOwnersPage(t *testing.T) {
	in := input(t)
	in.record(t, horse.ReliefPlace, track.Entry{Kind: track.KindRep, Rep: &track.Rep{Ask: horse.Ask{Step: "home.near"}, Answer: horse.Tolerated}})
	assert.Contains(t, text(Visit(in), "worked"), "did not choose to rest there yet", "worked by places, without an outing")
	in.Outings = []outing.Result{{Out: 300, Home: 650, Whole: true, Stops: []outing.Stood{{Stood: true}, {Stood: true}, {}}}, {Out: 60}}
	said := text(Visit(in), "worked")
	assert.Contains(t, said, "We walked five minutes out and 11 minutes home; she stood at two of three stops.")
	assert.NotContains(t, said, "did not choose to rest")
	assert.NotContains(t, said, "one minute")
}
