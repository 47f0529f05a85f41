package archive

import (
	"archive/zip"
	"bufio"
	"bytes"
	"compress/gzip"
	"context"
	"io"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/store"
)

// An archive of any landed version of the schema is taken in, with all that is in it.
func TestAnArchiveOfEachLandedSchemaIsTakenIn(t *testing.T) {
	files, err := filepath.Glob("../testdata/landed/*.db.gz")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	now := time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)
	// Of the first texts of the migrations no archive was ever made.
	first := []string{"9d00280.db.gz", "a92b5d7.db.gz", "f265366.db.gz"}
	for _, file := range files {
		if slices.Contains(first, filepath.Base(file)) {
			continue
		}
		t.Run(filepath.Base(file), func(t *testing.T) {
			ctx := context.Background()
			w := writer{ctx: ctx, path: laid(t, file)}
			require.NoError(t, w.open())
			require.NoError(t, w.tx.QueryRow("SELECT id FROM practices").Scan(&w.practice))
			var rows bytes.Buffer
			to := bufio.NewWriter(&rows)
			require.NoError(t, w.rows(now, to))
			require.NoError(t, to.Flush())
			require.NoError(t, w.tx.Rollback())
			require.NoError(t, w.db.Close())
			var whole bytes.Buffer
			z := zip.NewWriter(&whole)
			f, err := z.Create("practice.json")
			require.NoError(t, err)
			_, err = f.Write(rows.Bytes())
			require.NoError(t, err)
			require.NoError(t, z.Close())

			s, err := store.Open(ctx, filepath.Join(t.TempDir(), "in.db"), now)
			require.NoError(t, err)
			defer func() { assert.NoError(t, s.Close()) }()
			taken, err := Read(ctx, bytes.NewReader(whole.Bytes()), int64(whole.Len()), Into{Store: s})
			require.NoError(t, err)
			horses, err := s.Everyone(ctx)
			require.NoError(t, err)
			require.Len(t, horses, 1)
			h, err := s.Horse(ctx, taken.Practice, horses[0].Horse)
			require.NoError(t, err)
			assert.Equal(t, []string{"Moth", "Tarn Side", "Ines"}, []string{h.Name, h.Yard.Name, h.Owners[0].Name})
			_, days, unread, err := s.Days(ctx, taken.Practice, h.ID)
			require.NoError(t, err)
			assert.Empty(t, unread)
			assert.Len(t, days, 1)
		})
	}
}

func laid(t *testing.T, file string) string {
	t.Helper()
	packed, err := os.Open(file)
	require.NoError(t, err)
	defer func() { assert.NoError(t, packed.Close()) }()
	plain, err := gzip.NewReader(packed)
	require.NoError(t, err)
	whole, err := io.ReadAll(plain)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "landed.db")
	require.NoError(t, os.WriteFile(path, whole, 0o600))
	return path
}
