package progress

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func some(v float64) *float64 { return &v }

func TestTheOtherMeasures(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	back, halt := horse.Ask{Step: "lead.back"}, horse.Ask{Step: "lead.halt"}
	all := []history.Figures{
		{Session: "1", On: "2026-06-01", Day: history.Measured{Minutes: 20, Interruptions: 4, Offers: 3, Yes: 2}, Asks: []history.Figure{
			{Ask: back, Leveled: 4, Light: 1, Gap: some(2), By: []history.Held{{Person: "ines", N: 4, Soft: 1, Level: some(6)}}},
		}},
		{Session: "2", On: "2026-06-03", Asks: []history.Figure{
			{Ask: back, Leveled: 5, Light: 4, By: []history.Held{{Person: "wren", N: 5, Soft: 5, Level: some(2)}}}, {Ask: halt, Leveled: 1, Light: 1},
		}},
	}
	book := phrase.English(phrase.Shipped)
	says := func(n Numbers) map[string][]string {
		table := map[string][]string{}
		for _, m := range n.More {
			require.NotEqual(t, m.Name.Key, book.Say(m.Name))
			require.NotEqual(t, m.Says.Key, book.Say(m.Says))
			for _, cell := range m.Cells {
				table[book.Say(m.Name)] = append(table[book.Say(m.Name)], book.Say(cell.Says))
			}
		}
		return table
	}
	whole := NumbersOf(c, all, Choice{})
	assert.Equal(t, map[string][]string{"Light answers": {"1 of 4", "5 of 6"}, "Interruptions": {"2"}, "Offers": {"2 of 3"}}, says(whole))
	one := NumbersOf(c, all, Choice{Step: "lead.back"})
	assert.Equal(t, []string{"1 of 4", "4 of 5"}, says(one)["Light answers"])
	assert.Equal(t, []string{"2"}, says(one)["Gap"], "of one step alone it is one number")

	require.Len(t, whole.Beside, 1, "one ask was asked by two people")
	by := whole.Beside[0].By
	assert.Equal(t, []string{"ines", "wren"}, []string{by[0].Person, by[1].Person})
	assert.Equal(t, []string{"medium", "light"}, []string{book.Say(by[0].Feel), book.Say(by[1].Feel)})
	assert.Equal(t, []int{1, 4, 5, 5}, []int{by[0].Soft.Some, by[0].Soft.Of, by[1].Soft.Some, by[1].Soft.Of})
}

// From the first ask of the ladder until the goal was answered softly: 95 minutes on
// the first day, 4 now (part 8).
func TestTimeOnTheProblem(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	session := func(on string, first, soft float64) history.Figures {
		return history.Figures{Session: on, On: on, Asks: []history.Figure{
			{Ask: horse.Ask{Step: "load.board"}, First: first, SoftAt: some(first + 5)}, {Ask: horse.Ask{Step: "load.step"}, First: first + 60, SoftAt: some(soft)},
			{Ask: horse.Ask{Step: "lead.back"}, First: 0},
		}}
	}
	before := 95
	n := NumbersOf(c, []history.Figures{session("2026-06-01", 100, 1300), session("2026-06-03", 50, 290)}, Choice{Ladder: "load", Until: "load.step", Before: &before})
	require.NotNil(t, n.Time)
	assert.Equal(t, []float64{1200, 240}, []float64{n.Time.Points[0].Y, n.Time.Points[1].Y})
	assert.Equal(t, "From the first ask to the goal: 95 minutes on the first day, 4 minutes on 3 June.", phrase.English(phrase.Shipped).Say(n.Time.Says))
	assert.Nil(t, NumbersOf(c, []history.Figures{session("2026-06-01", 100, 1300)}, Choice{Ladder: "load"}).Time, "the goal was not reached")
	assert.Nil(t, NumbersOf(c, nil, Choice{}).Time)
	n = NumbersOf(c, []history.Figures{session("2026-06-01", 100, 160)}, Choice{Ladder: "load", Until: "load.step"})
	assert.Equal(t, "From the first ask to the goal: 60 seconds on 1 June.", phrase.English(phrase.Shipped).Say(n.Time.Says))
}
