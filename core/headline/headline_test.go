package headline_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/headline"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
)

var book = phrase.English(phrase.Shipped)

func TestWhatIsNext(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	why := phrase.Of("block.ridden.seen", nil)
	bridge, _ := progress.BridgeOf(c, "load", nil, []assess.Block{}, "load.stand", progress.Goal{Until: "load.tie"})
	for _, one := range []struct {
		name        string
		facts       headline.Facts
		says, where string
	}{
		{"finished", headline.Facts{Finished: true, Plan: plan.Plan{Next: "load.stand"}}, "The work is finished.", ""},
		{"never looked at", headline.Facts{Plan: plan.Plan{Next: "load.stand"}}, "Look before you plan.", ""},
		{"worked without an assessment", headline.Facts{Begun: true, Plan: plan.Plan{Next: "load.stand"}}, "Next: stand.", "Plank 7 of 11, untried."},
		{"a plank", headline.Facts{Assessed: true, Plan: plan.Plan{Next: "load.stand"}}, "Next: stand.", "Plank 7 of 11, untried."},
		{
			"a foundation", headline.Facts{Assessed: true, Plan: plan.Plan{Next: "lead.back", Items: []plan.Item{{Step: "lead.back", State: horse.Tried}}}},
			"Next: lead back.", "A foundation, tried.",
		},
		{
			"barred", headline.Facts{Assessed: true, Plan: plan.Plan{Items: []plan.Item{{Step: "calm.ridden", Blocked: &why}}}},
			"Nothing can be worked now.", "To open ridden work: one look, in person. It stands to be mounted, and halts under its usual rider.",
		},
		{"a met step that is barred now", headline.Facts{Assessed: true, Plan: plan.Plan{Items: []plan.Item{{Blocked: &why, Met: true}}}}, "Every step is met. Now it has to be kept.", ""},
		{"all met", headline.Facts{Assessed: true}, "Every step is met. Now it has to be kept.", ""},
	} {
		one.facts.Catalog, one.facts.Bridges = c, []progress.Bridge{bridge}
		h := headline.Of(one.facts)
		assert.Equal(t, one.says, book.Say(h.Says), one.name)
		if one.where == "" {
			assert.Nil(t, h.Where, one.name)
		} else if assert.NotNil(t, h.Where, one.name) {
			assert.Equal(t, one.where, book.Say(*h.Where), one.name)
		}
	}
}

// The plank where the work goes on, and what is asked there.
func Example() {
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	bridge, _ := progress.BridgeOf(c, "load", nil, nil, "load.board", progress.Goal{})
	h := headline.Of(headline.Facts{Assessed: true, Catalog: c, Plan: plan.Plan{Next: "load.board"}, Bridges: []progress.Bridge{bridge}})
	fmt.Println(book.Say(h.Says), book.Say(*h.Where))
	// Output: Next: board. Plank 1 of 13, untried.
}
