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
			{Ask: back, Leveled: 4, Light: 1, Gap: some(2), By: []history.Held{{Person: "ines", How: history.How{N: 4, Soft: 1, Level: some(6)}}}},
		}},
		{Session: "2", On: "2026-06-03", Asks: []history.Figure{
			{Ask: back, Leveled: 5, Light: 4, By: []history.Held{{Person: "wren", How: history.How{N: 5, Soft: 5, Level: some(2)}}}}, {Ask: halt, Leveled: 1, Light: 1},
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

// The second side is passed sooner than the first (part 8, transfer); what was asked
// with whom and under what; old tack against new.
func TestSidesSpreadAndTack(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	near, off := horse.Ask{Step: "new.shoulder"}, horse.Ask{Step: "new.shoulder"}
	near.Variant.Side, off.Variant.Side = horse.Near, horse.Off
	tack := func(which string, n, soft int, level float64) history.Under {
		return history.Under{What: history.InTack, Which: which, How: history.How{N: n, Soft: soft, Level: &level}}
	}
	by := func(people ...string) (list []history.Held) {
		for _, p := range people {
			list = append(list, history.Held{Person: p, How: history.How{N: 1}})
		}
		return list
	}
	six := [5]int{6, 0, 0, 0, 0}
	all := []history.Figures{
		{Session: "1", On: "2026-06-01", Day: history.Measured{Minutes: 20, Spooks: 4, Samples: 3, OnPerson: 1, OnHome: 1}, Asks: []history.Figure{{Ask: near, Answers: six, By: by("ines"), Under: []history.Under{tack("old saddle", 6, 0, 7)}, Offers: 4, Yes: 3}}},
		{Session: "2", On: "2026-06-03", Asks: []history.Figure{
			{Ask: near, Answers: six, Passed: 6, By: by("ines"), Under: []history.Under{tack("new saddle", 6, 6, 2), {What: history.Distracted, Which: "a tractor"}}},
			{Ask: off, Answers: six, Passed: 4, First: 600, By: by("wren")},
		}},
	}
	book := phrase.English(phrase.Shipped)
	n := NumbersOf(c, all, Choice{})
	require.Len(t, n.Transfer, 1)
	assert.Contains(t, book.Say(n.Transfer[0].Says), "passed on the near side after 12 tries, then on the off side after 4.")
	require.Len(t, n.Spread, 1)
	assert.Equal(t, Spread{Name: n.Spread[0].Name, People: 2, Tack: 2, Distractions: 1}, n.Spread[0])
	require.Len(t, n.Beside, 1, "tack; each side was asked by one person")
	assert.Equal(t, []string{"old saddle", "new saddle"}, []string{n.Beside[0].By[0].Name, n.Beside[0].By[1].Name})
	assert.Equal(t, []int{0, 6}, []int{n.Beside[0].By[0].Soft.Some, n.Beside[0].By[1].Soft.Some})
	rows := map[string]string{}
	for _, m := range n.More {
		rows[book.Say(m.Name)] = book.Say(m.Cells[0].Says)
	}
	assert.Equal(t, "on the person 1, home or herd 1, an object 1", rows["Where its mind was"])
	assert.Equal(t, "2", rows["Spooks"])
	assert.Equal(t, "3 of 4", rows["Offers, "+book.Say(reader{c: c}.name(near))])
	assert.Equal(t, 12, NumbersOf(c, all, Choice{Since: "2026-06-02"}).Transfer[0].First, "what came before the chosen day is counted")
	assert.Empty(t, NumbersOf(c, all[:1], Choice{}).Transfer, "neither side has passed")
	assert.Empty(t, NumbersOf(c, all[:1], Choice{}).Spread[0].Places)
}
