package assess

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/horse"
)

func went(person, tack string, level int, grade horse.Answer) SwapRow {
	return SwapRow{Person: person, Tack: tack, Run: Run{Level: horse.LevelOf(level), Grade: grade}}
}

func sentencesOf(s *Swap) (keys []string) {
	for _, m := range s.Says {
		keys = append(keys, m.Key)
	}
	return keys
}

// Rows are compared where one thing alone was changed: so much is person, so much tack, the
// rest is horse; and what the same again differed by is the doubt.
func TestTheSwapRowByRow(t *testing.T) {
	for _, test := range []struct {
		name string
		rows []SwapRow
		want []float64 // person, tack, horse
		keys []string
	}{
		{"person alone", []SwapRow{went("Ines", "gag", 7, horse.Try), went("Wren", "gag", 3, horse.Accepted)}, []float64{8, 0, 4}, []string{"swap.row.person", "swap.tack_unlooked", "swap.row.once"}},
		{"tack alone", []SwapRow{went("Ines", "gag", 7, horse.Accepted), went("Ines", "snaffle", 3, horse.Accepted)}, []float64{0, 4, 4}, []string{"swap.person_unlooked", "swap.row.tack", "swap.row.once"}},
		{"both, one after the other", []SwapRow{went("Ines", "gag", 6, horse.Accepted), went("Wren", "gag", 4, horse.Accepted), went("Wren", "snaffle", 1, horse.Offered)}, []float64{2, 5, 0}, []string{"swap.row.person", "swap.row.tack", "swap.row.once"}},
		{"what was done twice differed as much", []SwapRow{went("Ines", "gag", 6, horse.Accepted), went("Wren", "gag", 4, horse.Accepted), went("Ines", "gag", 3, horse.Accepted)}, []float64{0.5, 0, 4}, []string{"swap.row.person_same", "swap.tack_unlooked", "swap.row.doubt"}},
		{"twice, and alike", []SwapRow{went("Ines", "gag", 6, horse.Accepted), went("wren ", "GAG", 3, horse.Accepted), went("Ines", "gag", 6, horse.Accepted)}, []float64{3, 0, 4}, []string{"swap.row.person", "swap.tack_unlooked"}},
		{"a row that changed two things", []SwapRow{went("Ines", "gag", 6, horse.Accepted), went("Wren", "gag", 5, horse.Accepted), went("Bo", "halter", 1, horse.Offered)}, []float64{1, 0, 0}, []string{"swap.row.person_same", "swap.tack_unlooked", "swap.row.once", "swap.row.two_things"}},
	} {
		s := SwapOfRows(test.rows)
		require.NotNil(t, s, test.name)
		assert.InDeltaSlice(t, test.want, []float64{s.Person, s.Tack, s.Horse}, 1e-9, test.name)
		assert.Equal(t, test.keys, sentencesOf(s), test.name)
		assert.Equal(t, 100, s.Shares[0]+s.Shares[1]+s.Shares[2], test.name)
	}
	for name, rows := range map[string][]SwapRow{
		"one row": {went("Ines", "gag", 6, horse.Accepted)}, "two things at once": {went("Ines", "gag", 6, horse.Accepted), went("Wren", "snaffle", 2, horse.Accepted)},
		"half a row": {went("Ines", "gag", 6, horse.Accepted), {Person: "Wren", Tack: "gag", Run: Run{Grade: horse.Accepted}}}, "the same twice": {went("Ines", "gag", 6, horse.Accepted), went("Ines", "gag", 2, horse.Accepted)},
	} {
		assert.Nil(t, SwapOfRows(rows), name)
	}
}

// Both sides of two levels and of a grade; a gain within the doubt is no finding.
func TestFindingsOfTheSwapRowByRow(t *testing.T) {
	c := kept(t)
	found := func(rows ...SwapRow) (keys []string) {
		doc := Assessment{Problems: map[horse.Problem]Account{horse.Loading: {SwapRows: rows}}}
		for _, f := range Findings(c.Judging, Input{Today: today, Assessment: doc, Problem: horse.Loading}) {
			keys = append(keys, f.Finding)
		}
		return keys
	}
	assert.Empty(t, found(went("a", "x", 5, horse.Accepted), went("b", "x", 4, horse.Accepted)))
	assert.Equal(t, []string{"swap_person_better"}, found(went("a", "x", 5, horse.Accepted), went("b", "x", 3, horse.Accepted)))
	assert.Equal(t, []string{"swap_person_better"}, found(went("a", "x", 5, horse.Tolerated), went("b", "x", 5, horse.Accepted)))
	assert.Equal(t, []string{"swap_tack_better"}, found(went("a", "x", 5, horse.Accepted), went("a", "y", 3, horse.Accepted)))
	assert.Empty(t, found(went("a", "x", 5, horse.Accepted), went("b", "x", 3, horse.Accepted), went("a", "x", 1, horse.Accepted)), "the same person did as well again")
}

// What a swap shows on a clip is seen on video; on a clip beside the yard too; one seen at the
// yard is seen in person.
func TestASwapOnAClipIsSeenOnVideo(t *testing.T) {
	c := kept(t)
	filmed := func(r SwapRow) SwapRow { r.Clip = "a clip"; return r }
	source := func(rows ...SwapRow) horse.Source {
		doc := Assessment{Problems: map[horse.Problem]Account{horse.Loading: {SwapRows: rows}}}
		found := Findings(c.Judging, Input{Today: today, Assessment: doc, Problem: horse.Loading})
		require.Len(t, found, 1)
		return found[0].Source
	}
	a, b, y := went("a", "x", 5, horse.Accepted), went("b", "x", 3, horse.Accepted), went("a", "y", 3, horse.Accepted)
	assert.Equal(t, horse.Seen, source(a, b))
	assert.Equal(t, horse.OnVideo, source(a, filmed(b)))
	assert.Equal(t, horse.OnVideo, source(filmed(a), filmed(b)))
	assert.Equal(t, horse.Seen, source(a, y))
	assert.Equal(t, horse.OnVideo, source(filmed(a), y))
}

// Whatever is noted: parts are never under nothing, shares add up, and rows that only stand in
// another order after the first say the same of the person.
func TestSwapRowsHoldForAnyRows(t *testing.T) {
	row := rapid.Custom(func(t *rapid.T) SwapRow {
		return went(rapid.SampledFrom([]string{"Ines", "Wren", "Bo"}).Draw(t, "person"), rapid.SampledFrom([]string{"gag", "snaffle"}).Draw(t, "tack"), rapid.IntRange(1, 10).Draw(t, "level"), rapid.SampledFrom((horse.Answer{}).All()).Draw(t, "grade"))
	})
	rapid.Check(t, func(t *rapid.T) {
		rows := rapid.SliceOfN(row, 0, MostSwapRows).Draw(t, "rows")
		s := SwapOfRows(rows)
		if s == nil {
			return
		}
		require.GreaterOrEqual(t, min(s.Person, s.Tack, s.Horse), 0.0)
		sum := s.Shares[0] + s.Shares[1] + s.Shares[2]
		require.True(t, sum == 100 || s.Person+s.Tack+s.Horse == 0 && sum == 0)
		rest := rapid.Permutation(rows[1:]).Draw(t, "rest")
		again := SwapOfRows(append([]SwapRow{rows[0]}, rest...))
		require.NotNil(t, again)
		require.InDelta(t, s.Person, again.Person, 1e-9)
		require.InDelta(t, s.Horse, again.Horse, 1e-9)
	})
}
