package progress

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/arena"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Three good doses are not told as if the horse had only put up with them.
func TestAChangeSaysWhatWasReached(t *testing.T) {
	c, err := yaml.Shipped()
	require.NoError(t, err)
	book := phrase.English(phrase.Shipped)
	of := func(k arena.Known) string {
		k.Ask = horse.Ask{Step: "lead.halt"}
		list := Changes(c, history.Visit{After: []arena.Known{k}})
		require.Len(t, list, 1)
		return list[0].From.String() + " → " + book.Say(list[0].Now)
	}
	assert.Equal(t, "untried → good so far, the pass mark is not reached yet", of(arena.Known{State: horse.StepTolerated, Soft: true}))
	assert.Equal(t, "untried → tolerated", of(arena.Known{State: horse.StepTolerated}))
	assert.Equal(t, "untried → met", of(arena.Known{State: horse.Met, Soft: true}))
}
