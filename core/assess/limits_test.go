package assess

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
)

// written puts a value in its place and says what is wrong there.
func written(c *catalog.Catalog, path string, value any) []Fault {
	return Mark{ID: "1", Path: path, Value: value}.Check(c, "2026-06-01")
}

func TestTextsHaveTheirLongest(t *testing.T) {
	c, err := yaml.Shipped()
	assert.NoError(t, err)
	for path, most := range map[string]int{
		"body/back/note": 300, "body/back/cleared_by": 120, "body/back/released/lead.back/by": 120,
		"first_look/gait": 120, "place/worse": 300, "place/herd": 300, "place/changes": 300, "handlers/1/name": 120, "handlers/1/note": 300,
		"problems/loading/story/description": 2000, "problems/loading/story/tried": 1000, "problems/loading/story/sent": 300,
		"problems/loading/story/goal": 300, "problems/loading/story/with_whom": 200, "problems/loading/story/where": 200,
		"problems/loading/story/who_alone": 200, "problems/loading/baseline/note": 1000,
		"referrals/back/name": 120, "referrals/back/question": 500, "referrals/back/outcome": 1000, "overruled/risk/reason": 500,
		"tack/mouthpiece": 200, "tack/rings": 200, "tack/bridles/1/name": 60, "tack/reasons/bit": 300, "tack/trials/1/changed": 200, "tack/trials/1/saw": 300,
	} {
		long := func(n int) []Fault { return at(written(c, path, strings.Repeat("ü", n)), path) }
		assert.Empty(t, long(most), path)
		assert.NotEmpty(t, long(most+1), path)
	}
}

// at leaves the faults of one place.
func at(faults []Fault, path string) []Fault {
	var here []Fault
	for _, f := range faults {
		if f.Field == path {
			here = append(here, f)
		}
	}
	return here
}

func TestNumbersHaveTheirBounds(t *testing.T) {
	c, err := yaml.Shipped()
	assert.NoError(t, err)
	for path, bounds := range map[string][2]int{
		"basics/lead.forward near/seconds": {0, 3600}, "zones/zone 3 near hand/step_outs": {0, 50}, "body/back/days": {1, 365}, "mind/down_s": {0, 7200},
		"problems/loading/story/tries": {0, 9999}, "problems/loading/story/successes": {0, 9999}, "problems/loading/story/usual_minutes": {0, 1440},
		"problems/loading/story/worst_minutes": {0, 1440}, "problems/loading/story/helpers": {0, 20}, "problems/loading/baseline/recovery_s": {0, 7200},
		"problems/loading/baseline/minutes": {0, 600}, "problems/loading/baseline/tries": {0, 200}, "tack/bridles/1/holes/cheekpiece/near": {1, 30},
		"tack/bridles/1/holes/cheekpiece/off": {1, 30}, "tack/trials/1/minutes": {1, 600},
	} {
		for n, want := range map[int]bool{bounds[0]: true, bounds[1]: true, bounds[0] - 1: false, bounds[1] + 1: false} {
			assert.Equal(t, want, len(at(written(c, path, n), path)) == 0, "%s: %d: %v", path, n, written(c, path, n))
		}
	}
}

func TestListsHaveTheirMost(t *testing.T) {
	c, err := yaml.Shipped()
	assert.NoError(t, err)
	for path, most := range map[string]int{
		"body/back/checks": 60, "body/back/released": 60, "events": 60, "handlers": 20, "overruled": 200, "tack/bridles": 12, "tack/trials": 40,
	} {
		many := func(n int) []Fault {
			all := map[string]any{}
			for i := range n {
				all[fmt.Sprint(i)] = map[string]any{}
			}
			return at(written(c, path, all), path)
		}
		assert.Empty(t, many(most), path)
		assert.NotEmpty(t, many(most+1), path)
	}
	deep := func(n int) []Fault { return written(c, strings.Repeat("x/", n-1)+"x", 1) }
	assert.NotEmpty(t, deep(9))
}
