package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	goyaml "go.yaml.in/yaml/v3"

	"ivorybridge/cmd/ivorybridge/describe"
	"ivorybridge/core/assess"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/store"
)

// command runs the program's command with a text on standard input.
func command(t *testing.T, in string, args ...string) (string, error) {
	t.Helper()
	cmd := root()
	var out bytes.Buffer
	cmd.SetArgs(args)
	cmd.SetIn(strings.NewReader(in))
	cmd.SetOut(&out)
	err := cmd.ExecuteContext(context.Background())
	return out.String(), err
}

func docs(t *testing.T, name string) string {
	t.Helper()
	text, err := os.ReadFile(filepath.Join("..", "..", "docs", name))
	require.NoError(t, err)
	return string(text)
}

func TestTheExampleOfTheRulesAnswersAsDocumented(t *testing.T) {
	out, err := command(t, docs(t, "advise.json"), "rules", "advise")
	require.NoError(t, err)
	assert.JSONEq(t, docs(t, "advised.json"), out)
	out, err = command(t, docs(t, "assess.json"), "rules", "assess")
	require.NoError(t, err)
	assert.JSONEq(t, docs(t, "assessed.json"), out)
	for in, want := range map[string]string{"plan": "planned", "forecast": "forecasted", "progress": "progressed", "footfall": "footfalls"} {
		out, err = command(t, docs(t, in+".json"), "rules", in)
		require.NoError(t, err)
		assert.JSONEq(t, docs(t, want+".json"), out, in)
	}
}

// The command answers as the handbook's worked case 1 does.
func TestTheRulesOfAnAssessmentFollowTheWorkedCase(t *testing.T) {
	out, err := command(t, `{"today": "2026-06-01", "assessment": {
		"problems": {"loading": {"findings": {"stops_and_rests_beside": "seen", "person_gives_up": "told", "did_well_in_past": "told"}}},
		"findings": {"faces_and_pulls": "seen", "pressure_off_stays": "seen"},
		"basics": {"lead.forward": {"grade": "refused"}, "lead.back": {"grade": "refused"}}}}`, "rules", "assess")
	require.NoError(t, err)
	var r assess.Result
	require.NoError(t, json.Unmarshal([]byte(out), &r))
	got := map[string]string{}
	for _, c := range r.Problems[0].Causes {
		if c.Score != nil {
			got[c.Cause.String()] = fmt.Sprintf("%.2f %s", *c.Score, c.Belief)
		}
	}
	for cause, want := range map[string]string{"learned_out": "0.86 likely", "handler": "0.80 likely", "fear": "0.02 unlikely", "untaught": "0.38 possible"} {
		assert.Equal(t, want, got[cause], cause)
	}
	assert.NotContains(t, got, "sharpened", "not looked at has no score")
}

func TestAnImpossibleAssessmentIsNamed(t *testing.T) {
	for in, says := range map[string]string{
		`{"today": "2026-06-01", "assessment": {"basics": {"lead.fly": {}}}}`:        "basics/lead.fly",
		`{"today": "2026-06-01", "record": {"height_mm": 140}}`:                      "142 cm",
		`{"today": "2026-06-01", "assessment": {"body": {"elbow": {}}}}`:             "elbow",
		`{"today": "2026-06-01", "assessment": {"colour": 1}}`:                       "colour",
		`{"today": "2026-06-01", "assessment": {"checkups": {"hoof": "yesterday"}}}`: "not a date",
		`{"assessment": {}}`: "today",
	} {
		out, err := command(t, in, "rules", "assess")
		require.Error(t, err, in)
		assert.Contains(t, err.Error(), says, in)
		assert.Empty(t, out, in)
	}
}

func TestImpossibleDocumentsAreNamed(t *testing.T) {
	for in, says := range map[string]string{
		`{"school":"build and release","ask":{"step":"lead.fly"}}`:             "lead.fly",
		`{"school":"build and release","ask":{"step":"lead.back"},"colour":1}`: "colour",
		`{"school":"magic"}`: "magic",
		`{"school":"by moonlight","ask":{"step":"lead.back"}}`:                                        "build and release",
		`{"school":"build and release","ask":{"step":"lead.back"},"rules":{"cycle":0}}`:               "cycle",
		`{"school":"build and release","ask":{"step":"lead.back"},"levels":{"lead.back":11}}`:         "11",
		`{"school":"build and release","ask":{"step":"lead.back"},"blocked":["lead.up"]}`:             "lead.up",
		`{"school":"build and release","ask":{"step":"lead.back"},"track":[{"id":"7","kind":"rep"}]}`: "entry 7",
		`{"school":"build and release","ask":{"step":"lead.back"},"now":"noon"}`:                      "now",
		`{"school":`: "reading the document",
		`{} {}`:      "",
	} {
		out, err := command(t, in, "rules", "advise")
		require.Error(t, err, in)
		assert.Contains(t, err.Error(), says, in)
		assert.Empty(t, out, in)
	}
	_, err := command(t, "{}", "rules", "guess")
	assert.ErrorContains(t, err, "advise")
}

// docs/rules-keys.md is what the code says, and the code says something of every
// key that goes in or comes out.
func TestTheKeysOfTheRulesAreWrittenDown(t *testing.T) {
	out, err := command(t, "", "rules", "--describe")
	require.NoError(t, err)
	assert.Equal(t, docs(t, "rules-keys.md"), out, "docs/rules-keys.md is behind the code: run make generate")
	assert.Empty(t, describe.Undescribed(parts(slices.Sorted(maps.Keys(rulebook())))...), "each needs a doc tag")
	one, err := command(t, "", "rules", "advise", "--describe")
	require.NoError(t, err)
	assert.Contains(t, one, "### rep")
	assert.NotContains(t, one, "### alternative")
	_, err = command(t, "", "rules")
	assert.ErrorContains(t, err, "there are: advise, assess")
}

func TestTheFirstUserMakesThePractice(t *testing.T) {
	db := filepath.Join(t.TempDir(), "p.db")
	_, err := command(t, "", "user", "add", "wren@example.org", "--name", "Wren", "--database", db)
	require.ErrorContains(t, err, "--practice")
	out, err := command(t, "", "user", "add", "wren@example.org", "--name", "Wren", "--practice", "Harrow", "--zone", "Europe/Dublin", "--database", db)
	require.NoError(t, err)
	assert.Contains(t, out, "can sign in once with this password")
	_, err = command(t, "", "user", "add", "WREN@example.org", "--name", "Wren", "--database", db)
	require.ErrorContains(t, err, "user reset")
	again, err := command(t, "", "user", "reset", "wren@example.org", "--database", db)
	require.NoError(t, err)
	assert.NotEqual(t, out, again, "another password")
	_, err = command(t, "", "user", "reset", "nobody@example.org", "--database", db)
	require.ErrorContains(t, err, "user add")
	_, err = command(t, "", "user", "add", "nowhere", "--name", "X", "--database", db)
	require.ErrorContains(t, err, "not an email")
}

// One database may hold several practices: a name that is not there yet makes one,
// and where there are several, one is named.
func TestASecondPractice(t *testing.T) {
	ctx, db := context.Background(), filepath.Join(t.TempDir(), "p.db")
	add := func(email string, more ...string) error {
		_, err := command(t, "", append([]string{"user", "add", email, "--name", "X", "--database", db}, more...)...)
		return err
	}
	require.NoError(t, add("a@example.org", "--practice", "Harrow"))
	require.ErrorContains(t, add("a@example.org", "--practice", "Second"), "has a sign-in already")
	require.ErrorContains(t, add("b@example.org", "--practice", "Second", "--role", "assistant"), "its lead trainer")
	require.ErrorContains(t, add("b@example.org", "--practice", "Second", "--role", "king"), "is no role")
	require.NoError(t, add("b@example.org", "--practice", "Second", "--zone", "Europe/Dublin", "--vehicle", "float"))
	require.NoError(t, add("c@example.org", "--practice", "second", "--role", "assistant"), "by its name, however it is written")
	require.ErrorContains(t, add("d@example.org"), "holds 2 practices")

	s, err := store.Open(ctx, db, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, s.Close()) }()
	practices, err := s.Practices(ctx)
	require.NoError(t, err)
	require.Len(t, practices, 2, "what was refused made none")
	users, err := s.Users(ctx, practices[1].ID)
	require.NoError(t, err)
	assert.Len(t, users, 2)
	assert.Equal(t, []string{"Second", "Europe/Dublin", "float"}, []string{practices[1].Name, practices[1].Zone, practices[1].Words.Vehicle})
}

// The demo's own copy, while it is open, restored elsewhere, says the same.
func TestBackupAndRestore(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	db, copied, back := filepath.Join(dir, "demo.db"), filepath.Join(dir, "copy.db"), filepath.Join(dir, "back.db")
	_, err := command(t, "", "demo", "--fill-only", "--database", db)
	require.NoError(t, err)
	open, err := store.Open(ctx, db, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, open.Close()) }()
	_, err = command(t, "", "backup", copied, "--database", db)
	require.NoError(t, err)
	_, err = command(t, "", "backup", copied, "--database", db)
	require.ErrorContains(t, err, "name another")
	_, err = command(t, "", "restore", copied, "--database", back)
	require.NoError(t, err)
	out, err := command(t, "", "restore", copied, "--database", back)
	require.NoError(t, err)
	assert.Contains(t, out, "What was there is kept at")
	_, err = command(t, "", "restore", copied, "--database", db)
	require.ErrorContains(t, err, "another command has the database", "it is open")

	restored, err := store.Open(ctx, back, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, restored.Close()) }()
	assert.Equal(t, caseload(t, open), caseload(t, restored))
	_, err = command(t, "", "restore", filepath.Join(dir, "missing.db"), "--database", back)
	require.Error(t, err)
}

// caseload is what a practice holds, as text.
func caseload(t *testing.T, s *store.Store) string {
	t.Helper()
	ctx := context.Background()
	p, err := s.FirstPractice(ctx)
	require.NoError(t, err)
	assert.Equal(t, demo.Practice, p.Name)
	horses, err := s.Horses(ctx, p.ID)
	require.NoError(t, err)
	var all []any
	for _, h := range horses {
		_, days, unread, err := s.Days(ctx, p.ID, h.ID)
		require.NoError(t, err)
		require.Empty(t, unread)
		all = append(all, h, days)
	}
	text, err := json.Marshal(all)
	require.NoError(t, err)
	return string(text)
}

func TestTheDemoIsOnlyEverMadeOverADemo(t *testing.T) {
	dir := t.TempDir()
	db := filepath.Join(dir, "real.db")
	_, err := command(t, "", "user", "add", "a@example.org", "--name", "A", "--practice", "A real practice", "--database", db)
	require.NoError(t, err)
	_, err = command(t, "", "demo", "--fill-only", "--fresh", "--database", db)
	require.ErrorContains(t, err, "another practice")
	_, err = command(t, "", "serve", "--tls-key", "x", "--database", db)
	require.ErrorContains(t, err, "certificate")
}

// A practice is taken out by a command and in again by another, a horse by its name; what
// can't be is a sentence, and no file is left.
func TestExportAndImport(t *testing.T) {
	dir := t.TempDir()
	at := func(name string) string { return filepath.Join(dir, name) }
	c, err := yaml.Shipped()
	require.NoError(t, err)
	db, err := store.Open(context.Background(), at("a.db"), time.Now())
	require.NoError(t, err)
	require.NoError(t, demo.Fill(context.Background(), db, c, time.Now()))
	require.NoError(t, db.Close())

	out, err := command(t, "", "export", at("all.zip"), "--database", at("a.db"))
	require.NoError(t, err)
	assert.Contains(t, out, "Harrow Groundwork is at "+at("all.zip"))
	_, err = command(t, "", "export", at("all.zip"), "--database", at("a.db"))
	require.ErrorContains(t, err, "exists", "nothing is written over")
	out, err = command(t, "", "export", at("lark.zip"), "--database", at("a.db"), "--horse", "Harvest Lark")
	require.NoError(t, err)
	assert.Contains(t, out, "pictures and films: 1.")
	_, err = command(t, "", "export", at("nobody.zip"), "--database", at("a.db"), "--horse", "Nobody")
	require.ErrorContains(t, err, `no horse called "Nobody"`)
	assert.NoFileExists(t, at("nobody.zip"))

	out, err = command(t, "", "import", at("all.zip"), "--database", at("b.db"))
	require.NoError(t, err)
	assert.Contains(t, out, "user reset")
	_, err = command(t, "", "import", at("all.zip"), "--database", at("b.db"))
	require.ErrorContains(t, err, "nothing was changed")
	out, err = command(t, "", "import", at("lark.zip"), "--database", at("b.db"), "--practice", "Harrow Groundwork")
	require.NoError(t, err)
	assert.Contains(t, out, "not there yet: 0;")
	_, err = command(t, "", "import", at("lark.zip"), "--database", at("b.db"), "--practice", "Other")
	require.ErrorContains(t, err, "there are Harrow Groundwork")
	_, err = command(t, "", "import", at("a.db"), "--database", at("c.db"))
	require.ErrorContains(t, err, "no archive of a practice")
	_, err = command(t, "", "user", "reset", demo.User, "--database", at("b.db"))
	require.NoError(t, err, "who came with it signs in with a new password")
}

// docs/ladder.schema.json is what the code reads: it holds for every shipped ladder, and
// not for one with a slip of the pen.
func TestTheFormOfALaddersFileIsWrittenDown(t *testing.T) {
	out, err := command(t, "", "ladder-schema")
	require.NoError(t, err)
	assert.Equal(t, docs(t, "ladder.schema.json"), out, "docs/ladder.schema.json is behind the code: run make generate")
	doc, err := jsonschema.UnmarshalJSON(strings.NewReader(out))
	require.NoError(t, err)
	compiler := jsonschema.NewCompiler()
	require.NoError(t, compiler.AddResource("ladder", doc))
	form, err := compiler.Compile("ladder")
	require.NoError(t, err)
	holds := func(text string) error {
		var ladder any
		require.NoError(t, goyaml.Unmarshal([]byte(text), &ladder))
		return form.Validate(ladder)
	}
	c, err := yaml.Shipped()
	require.NoError(t, err)
	for _, l := range c.Ladders {
		text, err := yaml.Write(l)
		require.NoError(t, err)
		require.NoError(t, holds(string(text)), l.Key)
		for right, wrong := range map[string]string{"where: ": "were: ", "kind: ": "kind: a ", "    ask: ": "    asks: ", "run: 3": "run: three"} {
			if strings.Contains(string(text), right) {
				assert.Error(t, holds(strings.Replace(string(text), right, wrong, 1)), "%s: %s", l.Key, wrong)
			}
		}
	}
	files, err := filepath.Glob("../../core/catalog/yaml/shipped/[0-9]*.yaml")
	require.NoError(t, err)
	require.Len(t, files, len(c.Ladders))
	for _, f := range files {
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		assert.NoError(t, holds(string(text)), f)
	}
}
