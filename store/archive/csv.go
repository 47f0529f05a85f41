package archive

import (
	"archive/zip"
	"database/sql"
	"embed"
	"encoding/csv"
	"fmt"
	"io/fs"
	"path"
	"strings"
	"time"
)

// Each file is a query whose columns are the header. ?1 is the practice, ?2 the horses' ids
// as a JSON array, or null.
//
//go:embed csv/*.sql
var sheets embed.FS

func (w *writer) csv(z *zip.Writer, now time.Time) error {
	names, err := fs.Glob(sheets, "csv/*.sql")
	if err != nil {
		return err
	}
	for _, name := range names {
		query, err := sheets.ReadFile(name)
		if err != nil {
			return err
		}
		sheet := strings.TrimSuffix(path.Base(name), ".sql")
		to, err := z.CreateHeader(&zip.FileHeader{Name: "tables/" + sheet + ".csv", Method: zip.Deflate, Modified: now})
		if err != nil {
			return err
		}
		out := csv.NewWriter(to)
		out.UseCRLF = true // RFC 4180
		if err := w.sheet(string(query), out); err != nil {
			return fmt.Errorf("the table %s: %w", sheet, err)
		}
	}
	return nil
}

func (w *writer) sheet(query string, out *csv.Writer) error {
	rows, err := w.tx.QueryContext(w.ctx, query, w.practice, w.horses)
	if err != nil {
		return err
	}
	defer func() { _ = rows.Close() }() // only read from
	header, err := rows.Columns()
	if err != nil {
		return err
	}
	if err := out.Write(header); err != nil {
		return err
	}
	values := make([]sql.NullString, len(header))
	at := make([]any, len(header))
	for i := range values {
		at[i] = &values[i]
	}
	record := make([]string, len(header))
	for rows.Next() {
		if err := rows.Scan(at...); err != nil {
			return err
		}
		for i, v := range values {
			record[i] = cell(v.String)
		}
		if err := out.Write(record); err != nil {
			return err
		}
	}
	out.Flush()
	if err := out.Error(); err != nil {
		return err
	}
	return rows.Err()
}

// cell is a text as a spreadsheet may open it: what it would take for a formula has an
// apostrophe before it.
func cell(s string) string {
	if s == "" || !strings.ContainsRune("=+@\t\r-", rune(s[0])) {
		return s
	}
	if s[0] == '-' && len(s) > 1 && (s[1] >= '0' && s[1] <= '9' || s[1] == '.') {
		return s // a number
	}
	return "'" + s
}
