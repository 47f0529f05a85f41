package cases

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// The newest entry of the shortest beginning that can't be read is to blame.
func TestTheCulpritIsFound(t *testing.T) {
	for n := range 20 {
		for at := range n {
			assert.Equal(t, at, Culprit(n, func(k int) bool { return k <= at }), "%d of %d", at, n)
		}
		assert.Equal(t, -1, Culprit(n, func(int) bool { return false }), "no entry is to blame")
	}
}
