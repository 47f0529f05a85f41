package store

import (
	"bytes"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// landed are the commits that changed the schema, the oldest first. Of each there
// is a small database in testdata, as that commit made it.
var landed = []string{
	"9d00280", "a92b5d7", "f265366", "cada320", "011417b", "f37b752", "55c97d4", "e511937", "4daa2c0", "4429bc8", "a27acfc", "b9dc41c", "858b788", "56f648c", "332be13", "c562ebd", "e489d01", "b1de67e", "b7769a1", "676f079", "284715e", "69bc2ca",
}

// id are the rows of a landed database, by what they are.
var id = map[string]string{}

func init() {
	for i, what := range []string{"practice", "user", "owner", "yard", "horse", "case", "session", "rep", "undone", "undo", "end", "assessment"} {
		id[what] = fmt.Sprintf("0197c0de-0000-7000-8000-%012d", i)
	}
}

func landedFile(commit string) string { return filepath.Join("testdata", "landed", commit+".db.gz") }

// landedAt lays a database of a landed commit into a folder.
func landedAt(t *testing.T, commit string) string {
	t.Helper()
	packed, err := os.Open(landedFile(commit))
	require.NoError(t, err)
	defer func() { assert.NoError(t, packed.Close()) }()
	plain, err := gzip.NewReader(packed)
	require.NoError(t, err)
	whole, err := io.ReadAll(plain)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "p.db")
	require.NoError(t, os.WriteFile(path, whole, 0o600))
	return path
}

// makeLanded makes the database of a landed commit from the migrations that it
// had. It needs the history of the repository, so it is done once: make landed.
func makeLanded(t *testing.T, commit string) {
	git := func(args ...string) string {
		out, err := exec.Command("git", args...).Output()
		require.NoError(t, err)
		return string(out)
	}
	files := fstest.MapFS{}
	for _, name := range strings.Fields(git("ls-tree", "--name-only", commit, "migrations/")) {
		files[filepath.Base(name)] = &fstest.MapFile{Data: []byte(git("show", commit+":store/"+name))}
	}
	ctx, path := context.Background(), filepath.Join(t.TempDir(), "p.db")
	db, err := connect(path, "_txlock=immediate")
	require.NoError(t, err)
	provider, err := goose.NewProvider(goose.DialectSQLite3, db, files)
	require.NoError(t, err)
	_, err = provider.Up(ctx)
	require.NoError(t, err)
	fillLanded(t, db, len(files))
	small := path + ".small"
	_, err = db.ExecContext(ctx, "VACUUM INTO ?", small)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	whole, err := os.ReadFile(small)
	require.NoError(t, err)
	var packed bytes.Buffer
	w, err := gzip.NewWriterLevel(&packed, gzip.BestCompression)
	require.NoError(t, err)
	_, err = w.Write(whole)
	require.NoError(t, errors.Join(err, w.Close()))
	require.NoError(t, os.MkdirAll(filepath.Dir(landedFile(commit)), 0o755))
	require.NoError(t, os.WriteFile(landedFile(commit), packed.Bytes(), 0o644))
}

// fillLanded puts a practice with a horse and a session into a database.
func fillLanded(t *testing.T, db *sql.DB, version int) {
	ctx := context.Background()
	insert := func(sql string, args ...any) {
		t.Helper()
		_, err := db.ExecContext(ctx, sql, args...)
		require.NoError(t, err, sql)
	}
	has := 0
	require.NoError(t, db.QueryRowContext(ctx, "SELECT count(*) FROM pragma_table_info('sessions') WHERE name = 'handler'").Scan(&has))
	handler, nobody := "handler, ", "'', "
	if has == 0 {
		handler, nobody = "", ""
	}
	insert(`INSERT INTO practices (id, name, zone, vehicle, sides, created_at) VALUES (?, 'Harrow', 'Europe/London', 'float', 'left and right', 1)`, id["practice"])
	insert(`INSERT INTO users (id, practice_id, name, email, role, password_hash, created_at) VALUES (?, ?, 'Wren', 'wren@example.org', 'lead trainer', 'h', 1)`, id["user"], id["practice"])
	insert(`INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'owner', 'Ines', 1)`, id["owner"], id["practice"])
	insert(`INSERT INTO yards (id, practice_id, name, created_at) VALUES (?, ?, 'Tarn Side', 1)`, id["yard"], id["practice"])
	insert(`INSERT INTO horses (id, practice_id, name, yard_id, record, created_at) VALUES (?, ?, 'Moth', ?, '{"sex":"mare"}', 1)`, id["horse"], id["practice"], id["yard"])
	insert(`INSERT INTO ownerships (practice_id, horse_id, person_id, from_date) VALUES (?, ?, ?, '2026-01-01')`, id["practice"], id["horse"], id["owner"])
	insert(`INSERT INTO cases (id, practice_id, horse_id, problem, ladder, goal, opened_on, created_at) VALUES (?, ?, ?, 'loading', 'load', 'Loads', '2026-01-01', 1)`, id["case"], id["practice"], id["horse"])
	insert(`INSERT INTO sessions (id, practice_id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, `+handler+`readiness, catalog_version, rules, core_version)
		VALUES (?, ?, ?, ?, ?, 1000, 'UTC', '2026-01-02', 'build and release', '{"step":"lead.halt"}', `+nobody+`'{}', 'c', '{}', 'r')`, id["session"], id["practice"], id["case"], id["horse"], id["user"])
	entry := func(what, kind, more string, seq int) {
		body := fmt.Sprintf(`{"id":%q,"kind":%q,"at":%d,"device":"tablet"%s}`, id[what], kind, 1000+seq, more)
		insert(`INSERT INTO entries (id, practice_id, session_id, device, seq, device_at, at, received_at, kind, written_by, body) VALUES (?, ?, ?, 'tablet', ?, ?, ?, 1, ?, ?, ?)`,
			id[what], id["practice"], id["session"], seq, 1000+seq, 1000+seq, kind, id["user"], body)
	}
	entry("rep", "rep", `,"rep":{"step":"lead.halt","answer":"accepted","peak":2}`, 1)
	entry("undone", "rep", `,"rep":{"step":"lead.halt","answer":"refused","peak":5}`, 2)
	entry("undo", "undo", `,"replaces":"`+id["undone"]+`"`, 3)
	entry("end", "end", ``, 4)
	if version == 1 {
		insert(`INSERT INTO assessments (id, practice_id, case_id, on_date, doc, created_at) VALUES (?, ?, ?, '2026-01-01', '{"story":{"description":"plants"},"body":[{"item":"mouth","state":"clear"}]}', 1)`,
			id["assessment"], id["practice"], id["case"])
	} else {
		doc := `{"problems":{"loading":{"story":{"description":"plants"}}},"body":{"mouth":{"state":"clear"}}}`
		insert(`INSERT INTO assessments (id, practice_id, horse_id, on_date, base, doc, created_at) VALUES (?, ?, ?, '2026-01-01', ?, ?, 1)`,
			id["assessment"], id["practice"], id["horse"], doc, doc)
	}
	insert(`INSERT INTO plans (practice_id, case_id, number, school, reason, catalog_version, doc, made_by, created_at) VALUES (?, ?, 1, 'build and release', 'first', 'c', '{"next":"lead.halt"}', ?, 2)`,
		id["practice"], id["case"], id["user"])
}

// A database that any landed version of the product left is brought to the newest
// schema with all that is in it, and read; also where its migrations were of an
// earlier text than they are now.
func TestADatabaseOfEachLandedSchemaIsUpgraded(t *testing.T) {
	fresh := open(t, filepath.Join(t.TempDir(), "fresh.db"))
	for _, commit := range landed {
		t.Run(commit, func(t *testing.T) {
			if os.Getenv("LANDED") != "" {
				makeLanded(t, commit)
			}
			ctx, now := context.Background(), time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)
			path := filepath.Join(t.TempDir(), "restored.db")
			put, err := Restore(ctx, landedAt(t, commit), path, now)
			require.NoError(t, err, "a copy of any version can be put back")
			assert.Empty(t, put.Kept)
			s, err := Open(ctx, path, now)
			require.NoError(t, err)
			defer func() { assert.NoError(t, s.Close()) }()
			copies, err := filepath.Glob(path + ".before-*")
			require.NoError(t, err)
			assert.Len(t, copies, 1, "it was copied before")
			broken, err := s.reader.QueryContext(ctx, "PRAGMA foreign_key_check")
			require.NoError(t, err)
			assert.False(t, broken.Next(), "every reference holds")
			require.NoError(t, broken.Close())
			assert.Equal(t, schemaOf(t, fresh), schemaOf(t, s), "it is the schema that a new database has")

			h, err := s.Horse(ctx, id["practice"], id["horse"])
			require.NoError(t, err)
			assert.Equal(t, []any{"Moth", "Tarn Side", "Ines", "mare"}, []any{h.Name, h.Yard.Name, h.Owners[0].Name, h.Record.Sex.String()})
			sessions, days, unread, err := s.Days(ctx, id["practice"], h.ID)
			require.NoError(t, err)
			require.Empty(t, unread)
			require.Len(t, sessions, 1)
			live := track.Live(days[0].Track)
			require.Len(t, live, 2)
			assert.Equal(t, []any{horse.Accepted, track.KindEnd}, []any{live[0].Rep.Answer, live[1].Kind})
			list, err := s.Assessments(ctx, id["practice"], h.ID)
			require.NoError(t, err)
			require.Len(t, list, 1)
			assert.Equal(t, "plants", list[0].Doc.Problems[horse.Loading].Story.Description)
			assert.Equal(t, horse.Clear, list[0].Doc.Body[horse.Mouth].State)
			plans, err := s.Plans(ctx, id["practice"], id["case"])
			require.NoError(t, err)
			require.Len(t, plans, 1)
			assert.Equal(t, "lead.halt", plans[0].Doc.Next)
			past, err := s.Past(ctx, id["practice"], h.ID, "any", nil)
			require.NoError(t, err)
			assert.Len(t, past.After, 1, "it is folded as it is asked for")
			assert.Positive(t, past.Stamp)
		})
	}
}

// schemaOf is what a database is made of: of each table its columns and what its
// rows are checked for, of all else the text.
func schemaOf(t *testing.T, s *Store) []string {
	t.Helper()
	rows, err := s.reader.QueryContext(context.Background(), `
		SELECT type || ' ' || name || ': ' || sql FROM sqlite_schema WHERE type <> 'table' AND sql IS NOT NULL
		UNION ALL SELECT 'column ' || t.name || '.' || c.name || ' ' || c.type || c."notnull" || c.pk FROM sqlite_schema AS t, pragma_table_info(t.name) AS c WHERE t.type = 'table'
		UNION ALL SELECT 'table ' || name || ': ' || sql FROM sqlite_schema WHERE type = 'table' AND name NOT IN ('sessions', 'yards')
		ORDER BY 1`)
	require.NoError(t, err)
	defer func() { assert.NoError(t, rows.Close()) }()
	var list []string
	for rows.Next() {
		var line string
		require.NoError(t, rows.Scan(&line))
		list = append(list, line)
	}
	require.NoError(t, rows.Err())
	return list
}

// One that was made by earlier texts and migrated on since is mended too: the
// wider CHECKs hold at once, on every connection.
func TestADatabaseThatWasMigratedOnIsMended(t *testing.T) {
	ctx, now := context.Background(), time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)
	for _, commit := range []string{"011417b", "4daa2c0"} {
		path := landedAt(t, commit)
		db, err := connect(path, "_txlock=immediate")
		require.NoError(t, err)
		files, err := fs.Sub(migrations, "migrations")
		require.NoError(t, err)
		provider, err := goose.NewProvider(goose.DialectSQLite3, db, files)
		require.NoError(t, err)
		_, err = provider.Up(ctx)
		require.NoError(t, errors.Join(err, db.Close()))

		s, err := Open(ctx, path, now)
		require.NoError(t, err)
		actor := Actor{Practice: id["practice"], User: id["user"], At: now.UnixMilli()}
		_, refused, err := s.Append(ctx, actor, id["session"], 0, []track.Entry{{ID: uuid.NewString(), Kind: track.KindMemory, At: 1, Device: "tablet", Memory: &track.Memory{}}})
		require.NoError(t, err)
		require.NoError(t, refused[0], commit)
		whole := ""
		require.NoError(t, s.reader.QueryRowContext(ctx, "PRAGMA integrity_check").Scan(&whole))
		assert.Equal(t, "ok", whole)
		require.NoError(t, s.Close())
		again, err := Open(ctx, path, now.Add(time.Hour))
		require.NoError(t, err)
		copies, err := filepath.Glob(path + ".before-*")
		require.NoError(t, err)
		assert.Len(t, copies, 1, "once mended it is well")
		require.NoError(t, again.Close())
	}
}

// Each schema but the newest has a database that a commit left: who adds a migration
// adds the one of the schema before.
func TestEachEarlierSchemaHasItsDatabase(t *testing.T) {
	names, err := fs.Glob(migrations, "migrations/*.sql")
	require.NoError(t, err)
	there := map[int64]bool{}
	for _, commit := range landed {
		db, err := connect(landedAt(t, commit), "_pragma=query_only(1)")
		require.NoError(t, err)
		var version int64
		require.NoError(t, db.QueryRow("SELECT max(version_id) FROM goose_db_version").Scan(&version))
		require.NoError(t, db.Close())
		there[version] = true
	}
	for version := int64(1); version < int64(len(names)); version++ {
		assert.True(t, there[version], "no database of schema %d: add its commit to the list, and make landed", version)
	}
}

// A migration that has landed is never touched: what has to change goes into a new
// one, whose hash is added here.
func TestNoLandedMigrationIsTouched(t *testing.T) {
	hashes, err := os.ReadFile("testdata/landed/migrations.sha256")
	require.NoError(t, err)
	names, err := fs.Glob(migrations, "migrations/*.sql")
	require.NoError(t, err)
	var now strings.Builder
	for _, name := range names {
		text, err := migrations.ReadFile(name)
		require.NoError(t, err)
		fmt.Fprintf(&now, "%x  %s\n", sha256.Sum256(text), filepath.Base(name))
	}
	assert.Equal(t, string(hashes), now.String())
}
