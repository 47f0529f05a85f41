package describe

import (
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
)

type gate struct {
	Rail  int    `json:"rail" doc:"height in mm" minimum:"0" maximum:"2000"`
	Latch string `json:"latch,omitempty" enum:"hook,bolt" doc:"what shuts it"`
}

type paddock struct {
	gate
	Rail    string                      `json:"rail" doc:"what it is made of"`
	Gates   []gate                      `json:"gates" doc:"the others"`
	Level   horse.Level                 `json:"level" doc:"how hard | soft"`
	Seen    map[horse.Side]horse.WayOut `json:"seen" doc:"last way out"`
	Counts  map[string]*int             `json:"counts" doc:"how many"`
	Held    bool                        `json:"held"`
	Skipped string                      `json:"-"`
}

func TestATableSaysWhatTheTypeSays(t *testing.T) {
	var b strings.Builder
	require.NoError(t, Markdown(&b, Part{"A paddock", reflect.TypeFor[paddock]()}))
	for _, row := range []string{
		"## A paddock\n",
		"| `latch` | text: hook · bolt | what shuts it |\n",
		"| `rail` | text | what it is made of |\n",
		"| `gates` | list of [gate](#gate) | the others |\n",
		"| `level` | 0 to 10, or null | how hard \\| soft |\n",
		"| `seen` | [ways out](#ways-out), for each of near · off | last way out |\n",
		"| `counts` | whole number, for each key | how many |\n",
		"### gate\n",
		"| `rail` | whole number: 0 to 2000 | height in mm |\n",
		"### ways out\n\nOne of head up · ",
	} {
		assert.Contains(t, b.String(), row)
	}
	assert.NotContains(t, b.String(), "kipped")
	assert.Equal(t, 2, strings.Count(b.String(), "| `rail` |"), "said outside, it stands for the same inside")
	assert.Equal(t, []string{"describe.paddock.Held"}, Undescribed(Part{"A paddock", reflect.TypeFor[paddock]()}))
}

type rein struct {
	Spot horse.Ask `json:"spot" doc:"where"`
}

func ExampleMarkdown() {
	if err := Markdown(os.Stdout, Part{"A rein", reflect.TypeFor[rein]()}); err != nil {
		panic(err)
	}
	// Output:
	// ## A rein
	//
	// | key | holds | what it is |
	// |---|---|---|
	// | `spot` | [ask](#ask) | where |
	//
	// ### ask
	//
	// | key | holds | what it is |
	// |---|---|---|
	// | `step` | text: 60 characters at most | key of a step of the catalogue |
	// | `variant` | text: 60 characters at most | which one: near or off, a zone, a foot, a direction or a place |
}
