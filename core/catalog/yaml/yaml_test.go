package yaml

import (
	"io/fs"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
)

// The handbook's keys of the ladders shipped so far, written down here so that
// a step can't go missing.
var handbook = map[string][]string{
	"lead":     {"forward", "halt", "stand", "back", "turn", "anytime", "past", "space"},
	"head":     {"down", "flex", "adjust"},
	"quarters": {"hind", "fore", "mix"},
	"zones":    {"hand", "tool", "pole", "over"},
	"load":     {"board", "bridge", "gap", "square", "front", "step", "stand", "side", "close", "send", "tie", "alone", "travel"},
	"wild":     {"pole", "over", "rope", "draw", "halter", "lead"},
	"saddle":   {"show", "pad", "drop", "on", "girth.touch", "girth.hole", "girth.pull", "girth.walk"},
	"home":     {"near", "turn", "far", "group", "alone", "ridden"},
	"away":     {"spot", "work", "off", "far"},
	"bridle":   {"nose", "zone", "ears", "lips", "mouth", "strap", "teeth", "bit", "crown", "out", "wear", "other"},
	"feet":     {"near", "touch", "rope", "ropelift", "lighten", "up", "place", "tap"},
	"control":  {"flex", "disengage", "saddle", "walk", "trot", "out"},
	"soft":     {"tack", "halt", "leg", "turn", "back", "go"},
	"mount":    {"person", "weight", "up", "off"},
	"rush":     {"setup", "slack", "circle", "walk", "hill", "halt", "back", "gaits"},
	"plant":    {"go", "more", "ridden"},
	"crowd":    {"match", "idle", "ridden", "rub"},
	"new":      {"near", "air", "shoulder", "all", "next"},
	"track":    {"check", "look", "tasks", "touch"},
	"calm":     {"anywhere", "free", "ridden"},
}

func shippedCatalog(t *testing.T) *catalog.Catalog {
	t.Helper()
	c, err := Shipped()
	require.NoError(t, err)
	return c
}

func TestEveryStepOfTheHandbookIsThereInOrder(t *testing.T) {
	c := shippedCatalog(t)
	for key, steps := range handbook {
		l, ok := c.Ladder(key)
		require.True(t, ok, key)
		var got []string
		for _, s := range l.Steps {
			got = append(got, strings.TrimPrefix(s.Key, key+"."))
		}
		assert.Equal(t, steps, got, key)
	}
	assert.Len(t, c.Ladders, len(handbook))
}

func TestReleaseAndCautionWhereTheHandbookGivesOne(t *testing.T) {
	c := shippedCatalog(t)
	noRelease := " " + strings.Join([]string{
		"load.side", "load.travel", "wild.halter", "girth.walk", "home.far", "home.alone", "away.off", "away.far", "bridle.crown",
		"bridle.wear", "bridle.other", "control.saddle", "control.trot", "control.out", "soft.tack", "soft.go", "mount.off",
		"rush.setup", "rush.walk", "rush.back", "rush.gaits", "new.all", "new.next", "track.check", "track.touch", "calm.free",
	}, " ") + " "
	noCaution := " " + strings.Join([]string{
		"lead.halt", "lead.turn", "quarters.mix", "zones.pole", "wild.rope", "saddle.on", "home.group", "home.alone",
		"bridle.nose", "bridle.ears", "bridle.lips", "bridle.strap", "bridle.teeth", "bridle.wear", "bridle.other", "feet.near",
		"feet.place", "control.disengage", "control.trot", "control.out", "soft.halt", "soft.go", "mount.weight", "mount.up",
		"mount.off", "rush.hill", "rush.halt", "rush.gaits", "crowd.idle", "new.near", "new.air", "new.all", "calm.free",
	}, " ") + " "
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Link != "" {
				continue
			}
			assert.Equal(t, !strings.Contains(noRelease, " "+s.Key+" "), s.Release != "", "release of %s", s.Key)
			assert.Equal(t, !strings.Contains(noCaution, " "+s.Key+" "), s.Watch != "", "caution of %s", s.Key)
		}
	}
	wild, ok := c.Step("wild.lead")
	require.True(t, ok)
	assert.Equal(t, "lead", wild.Link)
}

func TestPassMarks(t *testing.T) {
	c := shippedCatalog(t)
	for key, want := range map[string][]int{
		"lead.forward": nil,
		"lead.stand":   {11, 16, 24, 36, 45},
		"lead.back":    {1, 2, 3, 4},
		"lead.space":   {30, 45, 67, 100, 120},
		"zones.hand":   {2, 3, 4, 6, 9, 10},
		"load.gap":     {4000, 3000, 2000, 1500},
		"load.front":   {1, 2},
		"load.step":    {3, 4},
		"load.alone":   {180},
	} {
		s, ok := c.Step(key)
		require.True(t, ok, key)
		assert.Equal(t, want, s.Pass.Values, key)
	}
	down, _ := c.Step("head.down")
	assert.Equal(t, 2, down.Pass.Level)
	board, _ := c.Step("load.board")
	assert.Equal(t, 5, board.Pass.Run)
	gap, _ := c.Step("load.gap")
	assert.Equal(t, 2000, gap.After(3000))
	assert.True(t, gap.Reaches(1400, 1500) && !gap.Reaches(1600, 1500))
}

func TestNeedsOfTheTrailer(t *testing.T) {
	c := shippedCatalog(t)
	assert.Contains(t, c.Needs("load.board"), catalog.Need{Step: "lead.back", Level: 1})
	assert.Equal(t, []catalog.Need{{Step: "load.bridge"}}, c.Needs("load.gap"))
	assert.Contains(t, c.Needs("load.send"), catalog.Need{Step: "load.stand", Kept: true})
	assert.Contains(t, c.StandingOn("head.down"), "load")
	step, _ := c.Step("load.step")
	assert.Contains(t, step.Blocked, horse.HindLeg)
}

const rules = `cycle: 4
pass run: 3
pass level: 3
refusals: 3
block minutes: 15
block minutes young: 10
block cap: 20
block cap young: 15
session cap: 40
session cap young: 20
rep seconds: 90
swap sides: after the step
`

func TestFaultsAreNamedWithTheirPlace(t *testing.T) {
	head := "ladder: a\nname: A\nkind: foundation\nschools: [doses]\nwhere: here\nsteps:\n"
	good := "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer], pass: usual}\n"
	found, err := shipped.ReadFile("shipped/findings.yaml")
	require.NoError(t, err)
	beside, err := shipped.ReadFile("shipped/methods.yaml")
	require.NoError(t, err)
	for name, test := range map[string]struct{ text, want string }{
		"key twice":      {head + good + good, "a.one: there are two steps with this key"},
		"no pass mark":   {head + "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer]}\n", "a.one: a step needs"},
		"unknown need":   {head + "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer], pass: usual, needs: [b.two]}\n", `a.one: it needs "b.two"`},
		"circle":         {head + "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer], pass: usual, needs: [a.two]}\n  - {step: a.two, name: two, ask: does it, plain: doing it, measure: [answer], pass: usual, needs: [a.one]}\n", "in a circle: a.one → a.two → a.one"},
		"unknown word":   {head + "  - {step: a.one, colour: red}\n", "colour"},
		"unknown body":   {head + "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer], pass: usual, blocked: [elbow]}\n", "elbow"},
		"link to nobody": {head + "  - {step: a.one, name: one, link: z}\n", `links to the ladder "z"`},
		"unknown pass":   {head + "  - {step: a.one, name: one, ask: does it, plain: doing it, measure: [answer], pass: easy}\n", `not "easy"`},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := Read("t", fstest.MapFS{
				"house-rules.yaml": {Data: []byte(rules)},
				"findings.yaml":    {Data: found},
				"methods.yaml":     {Data: beside},
				"a.yaml":           {Data: []byte(test.text), Mode: fs.ModePerm},
			})
			require.ErrorContains(t, err, test.want)
		})
	}
}

// The version is made from the content: each changed word makes another.
func TestTheVersionFollowsTheContent(t *testing.T) {
	files := fstest.MapFS{"a.yaml": {Data: []byte("cycle: 4\n")}, "b.yaml": {Data: []byte("x")}}
	was, err := versionOf(files)
	require.NoError(t, err)
	again, err := versionOf(files)
	require.NoError(t, err)
	assert.Equal(t, was, again)
	files["a.yaml"] = &fstest.MapFile{Data: []byte("cycle: 5\n")}
	changed, err := versionOf(files)
	require.NoError(t, err)
	assert.NotEqual(t, was, changed)
	moved, err := versionOf(fstest.MapFS{"a.yaml": {Data: []byte("cycle: 4\nx")}, "b.yaml": {}})
	require.NoError(t, err)
	assert.NotEqual(t, was, moved, "what stands in which file counts")
}
