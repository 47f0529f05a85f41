package docs

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	goTest  = regexp.MustCompile("`((?:Test|Fuzz)[A-Za-z0-9]+)`")
	webTest = regexp.MustCompile("`(web/[^`]+\\.test\\.ts)`")
)

// Every test that docs/security.md names as an answer is there, and every question
// has an answer.
func TestTheAnswersAreThere(t *testing.T) {
	text, err := os.ReadFile("security.md")
	require.NoError(t, err)
	var tests strings.Builder
	require.NoError(t, filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return filepath.SkipDir
		}
		if strings.HasSuffix(path, "_test.go") {
			file, err := os.ReadFile(path)
			tests.Write(file)
			return err
		}
		return nil
	}))
	named := goTest.FindAllStringSubmatch(string(text), -1)
	require.Greater(t, len(named), 50)
	for _, n := range named {
		assert.Contains(t, tests.String(), "func "+n[1]+"(", "security.md names a test that is not there")
	}
	for _, n := range webTest.FindAllStringSubmatch(string(text), -1) {
		assert.FileExists(t, filepath.Join("..", n[1]))
	}
	for line := range strings.Lines(string(text)) {
		if cells := strings.Split(strings.Trim(strings.TrimSpace(line), "|"), "|"); strings.HasPrefix(line, "|") {
			for _, c := range cells {
				assert.NotEmpty(t, strings.TrimSpace(c), "a cell is empty: %s", line)
			}
		}
	}
}
