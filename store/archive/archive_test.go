package archive_test

import (
	"archive/zip"
	"bytes"
	"context"
	"database/sql"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/phrase"
	"ivorybridge/demo"
	"ivorybridge/store"
	"ivorybridge/store/archive"
)

var now = time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)

func open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "a.db"), now)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return s
}

// filled is the demo's practice, with its films; invented is one of a seed.
func filled(t testing.TB) (*store.Store, string) {
	t.Helper()
	s := open(t)
	c, err := yaml.Shipped()
	require.NoError(t, err)
	ctx := context.Background()
	require.NoError(t, demo.Fill(ctx, s, c, now))
	id := practice(t, s)
	var ash, horse string
	require.NoError(t, raw(t, s).QueryRow("SELECT id FROM users WHERE name LIKE 'Ash%'").Scan(&ash))
	require.NoError(t, raw(t, s).QueryRow("SELECT id FROM horses WHERE name = 'Pepperdine'").Scan(&horse))
	// What nobody else refers to: by a user who did nothing else with the horse.
	actor := store.Actor{Practice: id, User: ash, At: now.UnixMilli()}
	require.NoError(t, s.SaveHouse(ctx, actor, catalog.House{Rules: map[string]int{"pass_run": 2}}, "why", 0))
	require.NoError(t, s.TakeNotebook(ctx, actor, store.NotebookTaken{
		Notebook: store.Notebook{ID: "0d2f8a1e-5b3c-4f76-9a51-3f1c2b7a9e44", Name: "2019.csv"}, Lines: []store.NotebookLine{{Line: 2, HorseID: horse, On: "2019-03-04", What: "led"}},
	}))
	return s, id
}

func invented(t testing.TB, size demo.Size) (*store.Store, string) {
	t.Helper()
	s := open(t)
	c, err := yaml.Shipped()
	require.NoError(t, err)
	require.NoError(t, demo.Invent(context.Background(), s, c, now, size))
	return s, practice(t, s)
}

func practice(t testing.TB, s *store.Store) (id string) {
	t.Helper()
	require.NoError(t, raw(t, s).QueryRow("SELECT id FROM practices").Scan(&id))
	return id
}

func out(t testing.TB, s *store.Store, practice string, horses ...string) []byte {
	t.Helper()
	var to bytes.Buffer
	_, err := archive.Write(context.Background(), s.Path(), practice, archive.Scope{Horses: horses}, now, &to)
	require.NoError(t, err)
	return to.Bytes()
}

func in(s *store.Store, practice string, whole []byte) (archive.Taken, error) {
	return archive.Read(context.Background(), bytes.NewReader(whole), int64(len(whole)), archive.Into{Store: s, Practice: practice})
}

// unpacked are the files of an archive, by name.
func unpacked(t testing.TB, whole []byte) map[string]string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
	require.NoError(t, err)
	files := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		text, err := io.ReadAll(r)
		require.NoError(t, err)
		files[f.Name] = string(text)
	}
	return files
}

// packed makes an archive of files.
func packed(t testing.TB, files map[string]string) []byte {
	t.Helper()
	var to bytes.Buffer
	z := zip.NewWriter(&to)
	for name, text := range files {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = io.WriteString(w, text)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return to.Bytes()
}

// A practice that was taken out and in again is equal, whatever is in it: what is taken out
// of it is the same, file for file.
func TestOutAndInAgainIsEqual(t *testing.T) {
	for name, make := range map[string]func() (*store.Store, string){
		"the demo's, with films": func() (*store.Store, string) { return filled(t) },
		"invented of seed 1": func() (*store.Store, string) {
			return invented(t, demo.Size{Horses: 12, Sessions: 4, Entries: 12, Seed: 1})
		},
		"invented of seed 2": func() (*store.Store, string) {
			return invented(t, demo.Size{Horses: 17, Sessions: 2, Entries: 20, Seed: 2})
		},
		"of a practice with nothing": func() (*store.Store, string) { return invented(t, demo.Size{Seed: 3}) },
	} {
		t.Run(name, func(t *testing.T) {
			from, id := make()
			whole := out(t, from, id)
			to := open(t)
			taken, err := in(to, "", whole)
			require.NoError(t, err)
			assert.Equal(t, id, taken.Practice)
			assert.Equal(t, unpacked(t, whole), unpacked(t, out(t, to, id)))
			_, err = in(to, id, whole)
			require.ErrorIs(t, err, store.ErrNotEmpty, "only into an empty one")
		})
	}
}

// Into the empty practice of somebody who signs in there already: her own sign-in stays, the
// rest is the same.
func TestIntoAPracticeWithASignIn(t *testing.T) {
	from, id := filled(t)
	whole := out(t, from, id)
	to := open(t)
	ctx := context.Background()
	const home, wren = "7b9e8f60-94d1-4ad7-9a3c-3c1a0a4d2b11", "1d0f6a52-9c3e-4d8a-8a58-6a0f1f6d3c22"
	actor := store.Actor{Practice: home, User: wren, At: now.UnixMilli()}
	require.NoError(t, to.AddPractice(ctx, store.Practice{ID: home, Name: "New", Zone: "Europe/London", Words: phrase.Shipped}, now.UnixMilli()))
	require.NoError(t, to.AddUser(ctx, actor, store.User{ID: wren, Name: "Wren", Email: demo.User, Role: store.Lead, Hash: "kept"}))
	_, err := in(to, home, whole)
	require.NoError(t, err)
	u, err := to.UserByEmail(ctx, demo.User)
	require.NoError(t, err)
	assert.Equal(t, []string{wren, "kept"}, []string{u.ID, u.Hash})
	p, err := to.Practice(ctx, home)
	require.NoError(t, err)
	assert.Equal(t, "Harrow Groundwork", p.Name)
	was, is := unpacked(t, whole), unpacked(t, out(t, to, home))
	for _, sheet := range []string{"asks", "sessions", "cases", "findings", "horses"} {
		assert.Equal(t, strings.Count(was["tables/"+sheet+".csv"], "\n"), strings.Count(is["tables/"+sheet+".csv"], "\n"), sheet)
	}
}

// A horse's file is taken into another practice, with who belongs to it and nobody else; ids
// stay, so that the second time changes nothing.
func TestOneHorseMoves(t *testing.T) {
	from, id := filled(t)
	var horse, owner string
	require.NoError(t, raw(t, from).QueryRow("SELECT id FROM horses WHERE name = 'Pepperdine'").Scan(&horse))
	require.NoError(t, raw(t, from).QueryRow("SELECT person_id FROM ownerships WHERE horse_id = ?", horse).Scan(&owner))
	file := out(t, from, id, horse)
	files := unpacked(t, file)
	assert.Equal(t, 2, strings.Count(files["tables/horses.csv"], "\n"), "its header, and one horse")
	assert.Contains(t, files["practice.json"], owner)
	assert.NotContains(t, files["practice.json"], "Copperfield Moth")
	assert.Contains(t, files["practice.json"], "2019.csv", "the notebook goes with it, and who took it in")
	assert.NotContains(t, files["practice.json"], "pass_run", "the house's rules stay")

	to, other := invented(t, demo.Size{Horses: 3, Sessions: 1, Entries: 5, Seed: 9})
	signIns := func() (n int) {
		require.NoError(t, raw(t, to).QueryRow("SELECT count(*) FROM users WHERE active = 1").Scan(&n))
		return n
	}
	before := signIns()
	taken, err := in(to, other, file)
	require.NoError(t, err)
	assert.Equal(t, before, signIns(), "who worked with it does not sign in here")
	assert.False(t, taken.Whole)
	assert.Equal(t, 1, taken.Files)
	assert.Positive(t, taken.Rows)
	again, err := in(to, other, file)
	require.NoError(t, err)
	assert.Zero(t, again.Rows, "nothing new")
	back := unpacked(t, out(t, to, other, horse))
	for _, sheet := range []string{"asks", "sessions", "cases", "findings", "horses", "clips"} {
		assert.Equal(t, files["tables/"+sheet+".csv"], back["tables/"+sheet+".csv"], sheet)
	}
	_, err = in(open(t), "", file)
	require.ErrorContains(t, err, "not into an empty database")
}

// Nothing of what opens a door is taken out.
func TestSecretsStayBehind(t *testing.T) {
	s, id := filled(t)
	var hash, stop string
	require.NoError(t, raw(t, s).QueryRow("SELECT max(password_hash) FROM users").Scan(&hash))
	require.NoError(t, raw(t, s).QueryRow("SELECT max(stop_token) FROM readers").Scan(&stop))
	require.NotEmpty(t, hash)
	for name, text := range unpacked(t, out(t, s, id)) {
		assert.NotContains(t, text, hash, name)
		assert.NotContains(t, text, stop, name)
	}
}

// What can't be taken in is a sentence, and changes nothing.
func TestWhatIsNotTakenIn(t *testing.T) {
	s, id := invented(t, demo.Size{Horses: 2, Sessions: 2, Entries: 8, Seed: 4})
	whole := out(t, s, id)
	with := func(change func(files map[string]string)) []byte {
		files := unpacked(t, whole)
		change(files)
		return packed(t, files)
	}
	row := func(pattern, by string) []byte {
		return with(func(f map[string]string) {
			was := f["practice.json"]
			f["practice.json"] = regexp.MustCompile(pattern).ReplaceAllString(was, by)
			require.NotEqual(t, was, f["practice.json"], pattern)
		})
	}
	for want, data := range map[string][]byte{
		"can't be opened":                []byte("This is no archive."),
		"There is no practice.json":      packed(t, map[string]string{"letter.txt": "Dear Wren"}),
		"outside itself":                 with(func(f map[string]string) { f["../../etc/passwd"] = "x" }),
		"would grow to":                  with(func(f map[string]string) { f["files/bomb"] = strings.Repeat("0", 40<<20) }),
		"made by a later version":        row(`"schema":\d+`, `"schema":9999`),
		"made by a later version of":     row(`"version":1`, `"version":2`),
		"is of something else":           row(`"format":"[^"]+"`, `"format":"a diary"`),
		"from its beginning":             with(func(f map[string]string) { f["practice.json"] = "[1, 2]" }),
		"that is not known":              row(`"horses":\[`, `"cattle":[`),
		"breaks off":                     with(func(f map[string]string) { f["practice.json"] = f["practice.json"][:len(f["practice.json"])*2/3] }),
		"Row 1 of the table horses":      row(`"record":\{`, `"record":"soft","more":{`),
		"Row 1 of the table cases can't": row(`"opened_on":"[^"]+"`, `"opened_on":"a day"`),
		"Row 3 of the table entries":     broken(t, with, 3),
		"is not what its name says":      filmed(t),
	} {
		to := open(t)
		_, err := in(to, "", data)
		var refused *archive.RefusedError
		require.ErrorAs(t, err, &refused, want)
		assert.Contains(t, refused.Say, want)
		var n int
		require.NoError(t, raw(t, to).QueryRow("SELECT count(*) FROM practices").Scan(&n))
		assert.Zero(t, n, want)
		left, err := filepath.Glob(filepath.Join(filepath.Dir(to.Path()), ".taking-in-*"))
		require.NoError(t, err)
		assert.Empty(t, left, "nothing of it stays")
	}
}

// broken is an archive whose nth entry says nothing.
func broken(t *testing.T, with func(func(map[string]string)) []byte, n int) []byte {
	t.Helper()
	return with(func(f map[string]string) {
		before, after, ok := strings.Cut(f["practice.json"], "\"entries\":[\n")
		require.True(t, ok)
		lines := strings.SplitN(after, "\n", n+1)
		lines[n-1] = "{\"id\":\"short\"},"
		f["practice.json"] = before + "\"entries\":[\n" + strings.Join(lines, "\n")
	})
}

// filmed is an archive with a film that is another.
func filmed(t *testing.T) []byte {
	t.Helper()
	s, id := filled(t)
	files := unpacked(t, out(t, s, id))
	for name := range files {
		if strings.HasPrefix(name, "files/") {
			files[name] = "no film"
		}
	}
	return packed(t, files)
}

// A cut leaves nothing behind.
func TestAnImportThatIsCut(t *testing.T) {
	s, id := invented(t, demo.Size{Horses: 3, Sessions: 3, Entries: 200, Seed: 5})
	whole := out(t, s, id)
	to := open(t)
	ctx, cut := context.WithCancel(context.Background())
	_, err := archive.Read(ctx, bytes.NewReader(whole), int64(len(whole)), archive.Into{Store: to, Tell: func(int) { cut() }})
	require.ErrorIs(t, err, context.Canceled)
	var n int
	require.NoError(t, raw(t, to).QueryRow("SELECT count(*) FROM practices").Scan(&n))
	assert.Zero(t, n)
	files, err := os.ReadDir(filepath.Dir(to.Path()))
	require.NoError(t, err)
	for _, f := range files {
		assert.NotContains(t, f.Name(), "taking-in")
	}
	taken, err := in(to, "", whole)
	require.NoError(t, err)
	assert.Positive(t, taken.Rows)
}

// Each table of comma-separated values is read by another program: one header row, as many
// values in every row, no cell that a spreadsheet would take for a formula.
func TestTheTablesForPeople(t *testing.T) {
	s, id := filled(t)
	files := unpacked(t, out(t, s, id))
	_, err := raw(t, s).Exec("UPDATE people SET note = '=HYPERLINK(\"x\")' WHERE kind = 'vet'")
	require.Error(t, err, "it is only read from")
	n := 0
	for name, text := range files {
		if !strings.HasPrefix(name, "tables/") {
			continue
		}
		n++
		rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
		require.NoError(t, err, name)
		require.NotEmpty(t, rows, name)
		assert.Contains(t, text, "\r\n")
		for _, row := range rows {
			for _, c := range row {
				assert.NotRegexp(t, `^[=+@]`, c, name)
			}
		}
		assert.Regexp(t, `\b`+strings.TrimSuffix(strings.TrimPrefix(name, "tables/"), ".csv")+`\b|`, files["README.txt"])
	}
	assert.Equal(t, 11, n)
	var schema map[string]any
	require.NoError(t, json.Unmarshal([]byte(files["practice.schema.json"]), &schema))
	var rows struct {
		Tables map[string][]map[string]any `json:"tables"`
	}
	require.NoError(t, json.Unmarshal([]byte(files["practice.json"]), &rows))
	tables := schema["properties"].(map[string]any)["tables"].(map[string]any)["properties"].(map[string]any)
	for name, list := range rows.Tables {
		properties := tables[name].(map[string]any)["items"].(map[string]any)["properties"].(map[string]any)
		for _, row := range list {
			for key := range row {
				assert.Contains(t, properties, key, name)
			}
		}
	}
}

func ExampleWrite() {
	dir, err := os.MkdirTemp("", "")
	if err != nil {
		panic(err)
	}
	defer func() { _ = os.RemoveAll(dir) }()
	s, err := store.Open(context.Background(), filepath.Join(dir, "practice.db"), now)
	if err != nil {
		panic(err)
	}
	defer func() { _ = s.Close() }()
	c, err := yaml.Shipped()
	if err != nil {
		panic(err)
	}
	if err := demo.Invent(context.Background(), s, c, now, demo.Size{Horses: 1, Seed: 1}); err != nil {
		panic(err)
	}
	home, err := s.Practices(context.Background())
	if err != nil {
		panic(err)
	}
	done, err := archive.Write(context.Background(), s.Path(), home[0].ID, archive.Scope{}, now, io.Discard)
	fmt.Println(done.Rows > 0, done.Files, err)
	// Output: true 0 <nil>
}

func raw(t testing.TB, s *store.Store) *sql.DB {
	t.Helper()
	db, err := store.ReadOnly(s.Path())
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	return db
}
