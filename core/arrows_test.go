package core_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// floor gives each room its height; an import may only point down.
var floor = map[string]int{
	"core/horse": 0, "core/phrase": 0, "core/trend": 1, "core/phrase/aloud": 1, "core/catalog": 1, "core/trailer": 1, "core/catalog/yaml": 2,
	"core/track": 2, "core/assess": 2, "core/arena": 3, "core/outing": 3, "core/desk": 4, "core/diary": 2, "core/history": 4, "core/clearance": 5, "core/homework": 6, "core/progress": 5, "core/plan": 6,
	"core/attention": 7, "core/headline": 7, "core/judging": 7, "core/outlook": 8, "core/briefing": 8, "core/snag": 8, "core/alternative": 9,
	"core/casefile": 10, "core/report": 10,
	"docs": 11, "store": 11, "store/sqlc": 11, "web": 12,
	"server/api": 12, "server/picture": 12, "server/limits": 12, "server/paper": 12, "server/calendar": 12, "server/owners": 14, "server/cases": 13, "server/people": 13, "server/accounts": 13, "server/horses": 14, "server/assessments": 14, "server/plans": 14,
	"server/methods": 14, "server/sessions": 14, "server/reports": 14, "server/visits": 14, "server/outings": 14, "server": 15,
	"cmd/ivorybridge/describe": 16, "demo": 16, "cmd/ivorybridge": 17, "cmd/corewasm": 17,
}

// Arrows point down only, and the rules of the job reach for nothing outside:
// no files, network, database, clock or chance.
func TestArrowsPointDown(t *testing.T) {
	allowed := []string{"bufio", "bytes", "cmp", "embed", "encoding/json", "errors", "fmt", "hash/fnv", "io/fs", "maps", "math", "math/big", "math/rand/v2", "reflect", "regexp", "slices", "sort", "strconv", "strings", "time", "unicode", "unicode/utf8", "go.yaml.in/yaml/v3", "gonum.org/v1/gonum/mathext", "gonum.org/v1/gonum/stat/distuv"}
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && slices.Contains([]string{"node_modules", ".git", "tools", "e2e"}, d.Name()) {
			return fs.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		room := filepath.ToSlash(filepath.Dir(strings.TrimPrefix(filepath.ToSlash(path), "../")))
		height, known := floor[room]
		require.True(t, known, "%s is a room without a floor: add it above", room)
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range file.Imports {
			name, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			if other, ours := strings.CutPrefix(name, "ivorybridge/"); ours {
				require.Contains(t, floor, other)
				require.True(t, floor[other] < height || strings.HasPrefix(other, room+"/"), "%s points up to %s", room, other)
			} else if strings.HasPrefix(room, "core") {
				require.Contains(t, allowed, name, "%s reaches outside", path)
			}
		}
		return nil
	})
	require.NoError(t, err)
}
