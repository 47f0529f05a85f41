package assess

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

func mark(seq int64, path string, value any) Mark {
	return Mark{ID: fmt.Sprint(seq), At: seq, Device: "tablet", Seq: seq, Path: path, Value: value}
}

// drawMarks draws taps of every kind on one device.
func drawMarks(t *rapid.T, j catalog.Judging) []Mark {
	var marks []Mark
	words := func(list []string) any {
		if rapid.Bool().Draw(t, "taken back") {
			return nil
		}
		return rapid.SampledFrom(list).Draw(t, "word")
	}
	for i := range rapid.IntRange(0, 40).Draw(t, "taps") {
		var path string
		var value any
		switch rapid.IntRange(0, 5).Draw(t, "kind") {
		case 0:
			path, value = "findings/"+rapid.SampledFrom(j.Findings).Draw(t, "finding").Key, words([]string{"seen", "video", "told"})
		case 1:
			path, value = "body/"+rapid.SampledFrom(horse.BodyItem{}.Words()).Draw(t, "item")+"/state", words(horse.BodyState{}.Words())
		case 2:
			path, value = "problems/"+rapid.SampledFrom(horse.Problem{}.Words()).Draw(t, "problem")+"/story/began", words(Began{}.Words())
		case 3:
			path, value = "basics/lead.back/level", rapid.IntRange(0, 10).Draw(t, "level")
		case 4:
			path, value = "tack/noseband", words(Noseband{}.Words())
		case 5:
			path, value = "problems/loading/baseline/arousal", rapid.IntRange(0, 4).Draw(t, "arousal")
		}
		marks = append(marks, mark(int64(i), path, value))
	}
	return marks
}

func TestMarksMakeTheDocument(t *testing.T) {
	a, err := Fold(Assessment{}, []Mark{
		mark(1, "problems/loading/story/began", "gradually"), mark(2, "problems/loading/story/tries", 20),
		mark(3, "body/belly/state", "suspect"), mark(4, "zones/zone 3 near hand/level", 4),
		mark(5, "events/e1", map[string]any{"kind": "reared", "on": "2026-05-01"}),
		mark(6, "problems/loading/story/began", "suddenly"), mark(7, "body/belly/state", nil),
		mark(8, "tack/bridles/b1/holes/cheekpiece/near", 3), mark(9, "not_possible_yet", true),
	})
	require.NoError(t, err)
	assert.Equal(t, "suddenly", a.Problems[horse.Loading].Story.Began.String(), "the later tap stands")
	assert.Equal(t, 20, *a.Problems[horse.Loading].Story.Tries)
	assert.Empty(t, a.Body, "what was taken back leaves nothing behind")
	assert.Equal(t, 4, a.Zones[Spot{horse.Zone{}.All()[2], horse.Near, With{}.All()[0]}].Level.Int())
	assert.Equal(t, "reared", a.Events["e1"].Kind.String())
	assert.Equal(t, 3, *a.Tack.Bridles["b1"].Holes[Strap{}.All()[0]].Near)
	assert.True(t, a.NotYet)

	b, err := Fold(Assessment{}, []Mark{mark(1, "problems/sour/story/began", "always"), mark(2, "problems/sour/story/began", nil)})
	require.NoError(t, err)
	assert.Contains(t, b.Problems, findProblem(t, "sour"), "a problem stays when its last answer is taken back")

	again, err := Fold(a, nil)
	require.NoError(t, err)
	assert.Equal(t, a, again, "a document can be the base of the next")
}

func TestTwoDevicesComeToTheSameDocument(t *testing.T) {
	phone, tablet := mark(5, "tack/bit", "gag"), mark(9, "tack/bit", "leverage")
	phone.Device, phone.At = "phone", 20
	a, err := Fold(Assessment{}, []Mark{phone, tablet})
	require.NoError(t, err)
	b, err := Fold(Assessment{}, []Mark{tablet, phone})
	require.NoError(t, err)
	assert.Equal(t, a, b)
	assert.Equal(t, "gag", a.Tack.Bit.String(), "the later one, whichever arrived first")
}

func TestWhatCantBeIsRefusedInItsPlace(t *testing.T) {
	c := kept(t)
	for path, test := range map[string]struct {
		value any
		say   string
	}{
		"problems/loading/story/since":      {"2026-02-30", "not a date"},
		"problems/loading/story/needed_by":  {"soon", "not a date"},
		"problems/loading/story/tries":      {-3, "from 0 to 9999"},
		"problems/loading/story/goal":       {string(make([]rune, 301)), "too long"},
		"problems/flying/story/tries":       {3, "one of loading"},
		"problems/loading/baseline/reached": {"wild.pole", "not a step of this ladder"},
		"problems/loading/baseline/arousal": {5, "from 0 to 4"},
		"checkups/dental":                   {"2031-01-01", "in the future"},
		"checkups/hoof":                     {"1066-10-14", "too long ago"},
		"body/elbow/state":                  {"suspect", "one of mouth"},
		"body/belly/state":                  {"fine", "one of not looked at"},
		"body/belly/days":                   {4000, "from 1 to 365"},
		"body/belly/checks/1/on":            {"2027-01-01", "in the future"},
		"basics/lead.sideways/level":        {2, "not one of the basics"},
		"basics/lead.back/level":            {11, "from 0 to 10"},
		"basics/lead.back/seconds":          {-1, "from 0 to 3600"},
		"zones/zone 9 near hand/level":      {2, "a zone from 1 to 5"},
		"tack/trials/1/minutes":             {0, "from 1 to 600"},
		"tack/bridles/1/holes/girth/near":   {99, "from 1 to 30"},
		"findings/charm":                    {"seen", "no finding"},
		"findings/curious":                  {"on record", "Only the horse's record"},
		"from":                              {"on record", "Say seen, video or told"},
		"sources/Z":                         {"seen", "from A to H"},
		"problems/loading/story/helpers":    {"two", "in figures"},
		"problems/loading/baseline/minutes": {2.5, "in figures"},
		"nowhere":                           {1, "no such place"},
		"nowhere//at/all":                   {1, "no such place"},
		"not_possible_yet/deeper":           {true, "can't stand here"},
		"handlers/1/experience":             {map[string]any{}, "can't stand here"},
		"referrals/belly/due":               {"tomorrow", "not a date"},
		"overruled/risk":                    {map[string]any{"to": "no care", "reason": "I know it"}, "not a judgement"},
		"overruled/start.loading":           {map[string]any{"to": "load.gap", "reason": " "}, "Say in a few words why"},
		"overruled/mood":                    {map[string]any{"to": "good", "reason": "it looks so"}, "not a judgement"},
	} {
		t.Run(path, func(t *testing.T) {
			got := mark(1, path, test.value).Check(c, today)
			require.NotEmpty(t, got)
			assert.ErrorContains(t, got[0], test.say)
		})
	}
	for path, value := range map[string]any{
		"problems/loading/baseline/reached": "load.gap", "overruled/risk": map[string]any{"to": "high care", "reason": "it looked at me"},
		"overruled/cause.loading.fear": map[string]any{"to": "likely", "reason": "seen it before"}, "checkups/back": today,
		"overruled/school.loading": map[string]any{"to": "doses", "reason": "the owner has time"}, "findings/curious": nil,
	} {
		assert.Empty(t, mark(1, path, value).Check(c, today), path)
	}
}

func TestWhatContradictsItselfIsADoubt(t *testing.T) {
	a := Assessment{
		Problems: map[horse.Problem]Account{horse.Loading: {Story: Story{Tries: number(2), Successes: number(9), UsualMin: number(60), WorstMin: number(5)}}},
		Events:   map[string]Event{"1": {On: today}},
	}
	assert.Empty(t, a.Check(kept(t), today))
	doubts := a.Doubts()
	require.Len(t, doubts, 3)
	assert.Equal(t, "problems/loading/story/successes", doubts[1].Field)
	assert.Contains(t, doubts[1].Say, "9 went well of 2 tries")
	assert.Contains(t, doubts[2].Say, "worst time is shorter")
}

func TestWhatCantBeInARecord(t *testing.T) {
	assert.Empty(t, Record{Born: "2015-04-02", Gelded: "2017-01-01", HeightMM: 1520}.Check(today))
	assert.ErrorContains(t, Record{Born: "2027-01-01"}.Check(today)[0], "in the future")
	assert.ErrorContains(t, Record{Born: "2015-04-02", Arrived: "2014-01-01"}.Check(today)[0], "before the horse was born")
	assert.ErrorContains(t, Record{Born: "1066-10-14"}.Check(today)[0], "too long ago")
	assert.ErrorContains(t, Record{HeightMM: 140}.Check(today)[0], "14 cm is too small for a horse. If you mean 14 hands, that is 142 cm")
	assert.ErrorContains(t, Record{HeightMM: 9000}.Check(today)[0], "from 50 to 220")
	assert.ErrorContains(t, Record{WeightG: 5000}.Check(today)[0], "5 kg")
	nine := 9
	assert.True(t, Record{Born: "2024-04-02"}.Young(today) && Record{Rides: &nine}.Young(today) && !Record{Born: "2015-04-02"}.Young(today))
}

// Marks that are right by themselves make a document that can be read, in any
// order and whatever else stands there.
func TestMarksThatPassAloneFoldTogether(t *testing.T) {
	c := kept(t)
	paths := []string{
		"tack", "tack/bit", "tack/bridles", "tack/bridles/1", "tack/bridles/1/holes", "tack/bridles/1/holes/girth", "tack/bridles/1/holes/girth/near",
		"problems", "problems/sour", "problems/sour/story", "problems/sour/story/tries", "problems/sour/swap/usual", "problems/sour/swap/usual/level",
		"findings", "findings/curious", "body", "body/belly", "body/belly/state", "body/belly/checks/1", "zones/zone 3 near hand", "zones/zone 3 near hand/level",
		"mind/down_s", "not_possible_yet", "overruled/risk", "from", "sources/B", "nowhere", "tack/aids", "tack/aids/0",
	}
	values := []any{nil, true, 3, 2.5, "gag", "seen", "suspect", "2026-05-01", []any{}, []any{"martingale"}, map[string]any{}, map[string]any{"state": "clear"}, map[string]any{"near": 3}, map[string]any{"to": "high care", "reason": "I saw it"}}
	rapid.Check(t, func(t *rapid.T) {
		var good []Mark
		doc := Assessment{}
		for i := range rapid.IntRange(1, 30).Draw(t, "marks") {
			m := mark(int64(i), rapid.SampledFrom(paths).Draw(t, "path"), rapid.SampledFrom(values).Draw(t, "value"))
			if len(m.Check(c, today)) > 0 {
				continue
			}
			next, faults := m.On(doc, c, today)
			if len(faults) > 0 {
				t.Fatalf("%s passes alone, and not here: %v", m.Path, faults)
			}
			doc, good = next, append(good, m)
		}
		if _, err := Fold(Assessment{}, rapid.Permutation(good).Draw(t, "order")); err != nil {
			t.Fatalf("%v do not fold: %v", good, err)
		}
	})
}

func TestNoMoreThanThereMayBe(t *testing.T) {
	c, doc := kept(t), Assessment{}
	for i := range 60 {
		var faults []Fault
		doc, faults = mark(int64(i), fmt.Sprintf("body/belly/checks/%d", i), map[string]any{"on": today, "answer": "nothing"}).On(doc, c, today)
		require.Empty(t, faults)
	}
	same, faults := mark(60, "body/belly/checks/60", map[string]any{"on": today, "answer": "nothing"}).On(doc, c, today)
	require.NotEmpty(t, faults)
	assert.ErrorContains(t, faults[0], "too many")
	assert.Len(t, same.Body[horse.Belly].Checks, 60)
	_, faults = mark(61, "body/belly/checks/3/answer", "kicks").On(doc, c, today)
	assert.Empty(t, faults, "what is there can still be changed")
}
