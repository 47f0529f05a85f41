package e2e

import (
	"encoding/base64"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

// TestDrawFilms draws the demo's clips anew into the folder that FILMS names: make films.
func TestDrawFilms(t *testing.T) {
	dir := os.Getenv("FILMS")
	if dir == "" {
		t.Skip("FILMS names the folder for them")
	}
	files := http.NewServeMux()
	files.HandleFunc("GET /{$}", func(w http.ResponseWriter, _ *http.Request) {
		_, _ = w.Write([]byte("<!doctype html><title>films</title>"))
	})
	files.Handle("GET /draw.js", http.FileServerFS(os.DirFS("../demo/films")))
	files.Handle("GET /mediabunny.min.mjs", http.FileServerFS(os.DirFS("../web/node_modules/mediabunny/dist/bundles")))
	served := httptest.NewServer(files)
	defer served.Close()
	page := browser.MustPage(served.URL + "/")
	defer page.MustClose()
	for name, told := range map[string]map[string]any{
		"walk":     {"stride": 1.1, "fraction": 0.24, "fps": 30, "seconds": 9, "seed": 11, "codec": "vp9"},
		"stepping": {"stride": 0.9, "fraction": 0.12, "fps": 60, "seconds": 6, "seed": 12, "codec": "vp9"},
	} {
		text := page.Timeout(whole).MustEval(`async (told) => {
			const { film } = await import('/draw.js')
			const bytes = await film(told)
			let text = ''
			for (const b of bytes) text += String.fromCharCode(b)
			return btoa(text)
		}`, told).Str()
		film, err := base64.StdEncoding.DecodeString(text)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, name+".mp4"), film, 0o600))
		t.Logf("%s: %d bytes", name, len(film))
	}
}
