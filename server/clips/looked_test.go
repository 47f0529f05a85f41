package clips

import (
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/film"
)

// A film that could not be kept the first time is looked at again: that a place was taken out
// of it is still told, and of another it is not.
func TestAFilmIsLookedAtAgain(t *testing.T) {
	drawn, err := os.ReadFile("../../demo/films/walk.mp4")
	require.NoError(t, err)
	place := "\x00\x00\x00\x26udta\x00\x00\x00\x1e\xa9xyz\x00\x12\x15\xc7+54.4812-003.1234/"
	for want, whole := range map[film.Position][]byte{film.Removed: slices.Concat(drawn, []byte(place)), film.None: drawn} {
		path := filepath.Join(t.TempDir(), "arrival")
		require.NoError(t, os.WriteFile(path, whole, 0o600))
		first, err := looked(path, int64(len(whole)))
		require.NoError(t, err)
		again, err := looked(path, int64(len(whole)))
		require.NoError(t, err)
		assert.EqualValues(t, want, first.Position)
		assert.Equal(t, first, again)
	}
}
