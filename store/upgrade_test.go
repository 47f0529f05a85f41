package store

import (
	"context"
	"fmt"
	"io/fs"
	"path/filepath"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/track"
)

// old are the migrations up to a version, as a database of that time has them.
func old(t *testing.T, version int) fs.FS {
	t.Helper()
	names, err := fs.Glob(migrations, "migrations/*.sql")
	require.NoError(t, err)
	files := fstest.MapFS{}
	for _, name := range names[:version] {
		text, err := migrations.ReadFile(name)
		require.NoError(t, err)
		files[filepath.Base(name)] = &fstest.MapFile{Data: text}
	}
	return files
}

// A database that any earlier version of the product left is brought to the
// newest schema with all that is in it, and read.
func TestADatabaseOfEachEarlierSchemaIsUpgraded(t *testing.T) {
	names, err := fs.Glob(migrations, "migrations/*.sql")
	require.NoError(t, err)
	for version := 1; version < len(names); version++ {
		t.Run(fmt.Sprint("from ", version), func(t *testing.T) {
			ctx, now := context.Background(), time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)
			path := filepath.Join(t.TempDir(), "p.db")
			db, err := connect(path, "_txlock=immediate")
			require.NoError(t, err)
			require.NoError(t, migrateFrom(ctx, db, path, now, old(t, version)))
			id := map[string]string{}
			for _, what := range []string{"practice", "user", "owner", "yard", "horse", "case", "session", "rep", "undone", "undo", "end", "assessment"} {
				id[what] = uuid.NewString()
			}
			insert := func(sql string, args ...any) {
				t.Helper()
				_, err := db.ExecContext(ctx, sql, args...)
				require.NoError(t, err, sql)
			}
			insert(`INSERT INTO practices (id, name, zone, vehicle, sides, created_at) VALUES (?, 'Harrow', 'Europe/London', 'float', 'left and right', 1)`, id["practice"])
			insert(`INSERT INTO users (id, practice_id, name, email, role, password_hash, created_at) VALUES (?, ?, 'Wren', 'wren@example.org', 'lead trainer', 'h', 1)`, id["user"], id["practice"])
			insert(`INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'owner', 'Ines', 1)`, id["owner"], id["practice"])
			insert(`INSERT INTO yards (id, practice_id, name, created_at) VALUES (?, ?, 'Tarn Side', 1)`, id["yard"], id["practice"])
			insert(`INSERT INTO horses (id, practice_id, name, yard_id, record, created_at) VALUES (?, ?, 'Moth', ?, '{"sex":"mare"}', 1)`, id["horse"], id["practice"], id["yard"])
			insert(`INSERT INTO ownerships (practice_id, horse_id, person_id, from_date) VALUES (?, ?, ?, '2026-01-01')`, id["practice"], id["horse"], id["owner"])
			insert(`INSERT INTO cases (id, practice_id, horse_id, problem, ladder, goal, opened_on, created_at) VALUES (?, ?, ?, 'loading', 'load', 'Loads', '2026-01-01', 1)`, id["case"], id["practice"], id["horse"])
			insert(`INSERT INTO sessions (id, practice_id, case_id, horse_id, started_by, started_at, zone, local_date, school, begins, handler, readiness, catalog_version, rules, core_version)
				VALUES (?, ?, ?, ?, ?, 1000, 'UTC', '2026-01-02', 'build and release', '{"step":"lead.halt"}', '', '{}', 'c', '{}', 'r')`, id["session"], id["practice"], id["case"], id["horse"], id["user"])
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
			require.NoError(t, db.Close())

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
