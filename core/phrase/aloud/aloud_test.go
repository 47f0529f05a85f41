package aloud_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/phrase"
	"ivorybridge/core/phrase/aloud"
)

func Example() {
	book := phrase.English(phrase.Shipped)
	fmt.Println(aloud.Faults(book, []phrase.Message{phrase.Of("say.up", nil), phrase.Of("no.words", nil), phrase.Of("why.try", nil)}))
	// Output: [say.up: a brace in "Up: {ask}, {target}." no.words has no words]
}

func TestWhatIsHeardWrong(t *testing.T) {
	for said, wrong := range map[string]string{
		"Up: lead stand 45 s.": "", "Up: load front target.none.": "a key", "2 of 3 asks soft.": "", "0 of 0 asks soft.": "nothing of nothing",
		"It went 1 times.": "one of many", "It went 3 time.": "many of one", "from level 1 to 1": "no change told as one", "from level 3 to 1": "",
		"Have the vet look: map[key:item.belly text:].": "a key", "Needed by .": "an empty place", "New: .": "an empty place", "Two  spaces.": "a doubled space",
		"{horse} is here": "a brace", "10 to 15 minutes, once or twice a day.": "", "11 steps": "", "21 minute": "many of one",
	} {
		assert.Equal(t, wrong, aloud.Wrong(said), said)
	}
}
