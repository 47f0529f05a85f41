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
	"core/horse": 0, "core/phrase": 0, "core/trend": 1, "core/gait": 1, "core/notebook": 1, "core/phrase/aloud": 1, "core/catalog": 1, "core/trailer": 1, "core/catalog/yaml": 2,
	"core/track": 2, "core/assess": 2, "core/arena": 4, "core/outing": 3, "core/desk": 5, "core/diary": 2, "core/history": 5, "core/clearance": 6, "core/homework": 7, "core/progress": 6, "core/plan": 7,
	"core/attention": 8, "core/headline": 8, "core/judging": 8, "core/outlook": 9, "core/briefing": 9, "core/snag": 9, "core/alternative": 10,
	"core/casefile": 11, "core/report": 11,
	"docs": 12, "store": 12, "store/sqlc": 12, "store/archive": 13, "store/copies": 13, "web": 13,
	"server/api": 13, "server/picture": 13, "server/film": 13, "server/limits": 13, "server/paper": 13, "server/calendar": 13, "server/owners": 15, "server/cases": 14, "server/people": 14, "server/accounts": 14, "server/horses": 15, "server/assessments": 15, "server/plans": 15,
	"server/methods": 15, "server/sessions": 15, "server/reports": 15, "server/visits": 15, "server/letters": 16, "server/clips": 15, "server/outings": 15, "server/house": 16, "server": 17,
	"cmd/ivorybridge/describe": 18, "demo": 18, "cmd/ivorybridge": 19, "cmd/corewasm": 19,
}

// Arrows point down only, and the rules of the job reach for nothing outside:
// no files, network, database, clock or chance.
func TestArrowsPointDown(t *testing.T) {
	allowed := []string{"bufio", "bytes", "cmp", "embed", "encoding/csv", "encoding/json", "errors", "fmt", "hash/fnv", "io", "io/fs", "maps", "math", "math/big", "math/rand/v2", "reflect", "regexp", "slices", "sort", "strconv", "strings", "time", "unicode", "unicode/utf8", "go.yaml.in/yaml/v3", "gonum.org/v1/gonum/mathext", "gonum.org/v1/gonum/stat/distuv"}
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
