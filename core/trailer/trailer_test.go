package trailer_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/phrase"
	"ivorybridge/core/trailer"
)

func read(t testing.TB, text string) (r trailer.Record) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(text), &r))
	return r
}

// What is said of a trailer is from its record, and nothing of what nobody looked at.
func TestEachSentenceHasAFactBehindIt(t *testing.T) {
	book := phrase.English(phrase.Shipped)
	for text, want := range map[string][]string{
		`{}`:                               {"Nobody has written down what this trailer is like."},
		`{"load":"angle load","bar":"no"}`: {"Angle load, no bar."},
		`{"floor":"quiet","give":"firm","hitch":"hitched","untied_from_outside":"yes","light":"light"}`: {"Light inside."},
		`{"floor":"hollow"}`: {
			"Nobody has written down what this trailer is like.", "The floor sounds hollow: let it hear a board first.",
		},
		`{"way":"step-up","divider":"yes","width_mm":750,"rings":2,"rings_at":"left and right","give":"springs","hitch":"free","light":"dark","untied_from_outside":"no"}`: {
			"Step-up, divider, 75 cm wide, dark inside, 2 tie rings left and right.",
			"The floor gives under it: sound and movement frighten separately.",
			"It stands free: hitch it before a horse sets foot on it.",
			"It is dark inside: open what can be opened.",
			"It can't be untied from outside. Tie nothing there: a training line runs through the ring and is held.",
		},
		`{"divider":"no","bar":"no","rings":1}`: {"No divider, no bar, 1 tie ring.", "Nothing closes behind it: do not tie."},
	} {
		like, mind := read(t, text).Says()
		said := []string{book.Say(like)}
		for _, m := range mind {
			said = append(said, book.Say(m))
		}
		assert.Equal(t, want, said, text)
	}
}

func TestWhatCanNotBeIsSaid(t *testing.T) {
	for text, field := range map[string]string{
		`{"width_mm":399}`: "width_mm", `{"width_mm":3001}`: "width_mm", `{"rings":13}`: "rings", `{"rings":-1}`: "rings",
		`{"width_mm":400}`: "", `{"width_mm":3000}`: "", `{"rings":0}`: "", `{"rings":12}`: "", `{}`: "",
	} {
		faults := read(t, text).Check()
		if field == "" {
			assert.Empty(t, faults, text)
			continue
		}
		require.Len(t, faults, 1, text)
		assert.Equal(t, field, faults[0].Field)
	}
}

func Example() {
	var r trailer.Record
	_ = json.Unmarshal([]byte(`{"load":"straight load","way":"ramp","bar":"yes"}`), &r)
	like, _ := r.Says()
	fmt.Println(phrase.English(phrase.Shipped).Say(like))
	// Output: Straight load, ramp, bar.
}
