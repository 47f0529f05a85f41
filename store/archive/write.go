package archive

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"database/sql"
	_ "embed" // the README
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"strconv"
	"strings"
	"time"

	"ivorybridge/store"
)

//go:embed README.txt
var readme string

// Written tells of an archive that was made.
type Written struct {
	Rows    int // of the database
	Files   int // pictures and films
	Missing int // of them: not there
}

// Write takes a practice of the database at path out, or the horses of a scope, as it is at
// one moment.
func Write(ctx context.Context, path, practice string, s Scope, now time.Time, to io.Writer) (Written, error) {
	w := writer{ctx: ctx, practice: practice, scope: s, path: path}
	err := w.open()
	if err == nil {
		err = errors.Join(w.all(now, to), w.tx.Rollback(), w.db.Close())
	}
	if err != nil {
		return w.Written, fmt.Errorf("taking the practice out: %w", err)
	}
	return w.Written, nil
}

type writer struct {
	Written
	ctx      context.Context
	db       *sql.DB
	tx       *sql.Tx
	practice string
	scope    Scope
	horses   string // ids, as JSON
	path     string
	tables   []table
}

func (w *writer) open() (err error) {
	if w.db, err = store.ReadOnly(w.path); err != nil {
		return err
	}
	if w.tx, err = w.db.BeginTx(w.ctx, &sql.TxOptions{ReadOnly: true}); err != nil {
		return errors.Join(err, w.db.Close())
	}
	if w.tables, err = tables(w.ctx, w.tx); err != nil {
		return errors.Join(err, w.tx.Rollback(), w.db.Close())
	}
	ids, err := json.Marshal(w.scope.Horses)
	w.horses = string(ids)
	return err
}

func (w *writer) all(now time.Time, to io.Writer) error {
	z := zip.NewWriter(to)
	about, err := z.Create("README.txt")
	if err != nil {
		return err
	}
	if _, err := io.WriteString(about, readme); err != nil {
		return err
	}
	schema, err := z.Create("practice.schema.json")
	if err != nil {
		return err
	}
	if err := w.schema(schema); err != nil {
		return err
	}
	rows, err := z.CreateHeader(&zip.FileHeader{Name: "practice.json", Method: zip.Deflate, Modified: now})
	if err != nil {
		return err
	}
	buffered := bufio.NewWriterSize(rows, 1<<16)
	if err := w.rows(now, buffered); err != nil {
		return err
	}
	if err := buffered.Flush(); err != nil {
		return err
	}
	if err := w.csv(z, now); err != nil {
		return err
	}
	if err := w.files(z, now); err != nil {
		return err
	}
	return z.Close()
}

// head is what practice.json begins with.
type head struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Schema  int64  `json:"schema"`
	Scope   string `json:"scope"`
	MadeAt  string `json:"made_at"`
}

const (
	scopePractice = "practice"
	scopeHorses   = "horses"
)

func (w *writer) rows(now time.Time, to *bufio.Writer) error {
	h := head{Format: Format, Version: Version, Scope: scopePractice, MadeAt: now.UTC().Format(time.RFC3339)}
	if !w.scope.whole() {
		h.Scope = scopeHorses
	}
	if err := w.tx.QueryRowContext(w.ctx, "SELECT max(version_id) FROM goose_db_version").Scan(&h.Schema); err != nil {
		return err
	}
	text, err := json.Marshal(h)
	if err != nil {
		return err
	}
	to.Write(bytes.TrimSuffix(text, []byte("}")))
	to.WriteString(",\n\"tables\":{")
	for i, t := range w.tables {
		if i > 0 {
			to.WriteByte(',')
		}
		fmt.Fprintf(to, "\n%q:[", t.name)
		if err := w.table(t, to); err != nil {
			return fmt.Errorf("the table %s: %w", t.name, err)
		}
		to.WriteString("]")
	}
	_, err = to.WriteString("\n}}\n") // a bufio.Writer keeps its first error
	return err
}

func (w *writer) table(t table, to *bufio.Writer) error {
	var names, keys []string
	columns := t.out()
	for _, c := range columns {
		names = append(names, `"`+c.name+`"`)
	}
	for i, c := range t.columns {
		if c.key {
			keys = append(keys, strconv.Quote(t.columns[i].name))
		}
	}
	query := fmt.Sprintf("SELECT %s FROM %s WHERE %s ORDER BY %s", strings.Join(names, ", "), t.name, where(w.tables, t, w.scope), strings.Join(keys, ", "))
	rows, err := w.tx.QueryContext(w.ctx, query, w.practice, w.horses)
	if err != nil {
		return err
	}
	defer func() { _ = rows.Close() }() // only read from
	values := make([]any, len(columns))
	at := make([]any, len(columns))
	for i := range values {
		at[i] = &values[i]
	}
	for n := 0; rows.Next(); n++ {
		if err := rows.Scan(at...); err != nil {
			return err
		}
		if n > 0 {
			to.WriteByte(',')
		}
		to.WriteString("\n{")
		for i, c := range columns {
			if i > 0 {
				to.WriteByte(',')
			}
			fmt.Fprintf(to, "%q:", c.name)
			if err := write(to, c, values[i]); err != nil {
				return err
			}
		}
		to.WriteByte('}')
		w.Rows++
	}
	return rows.Err()
}

// asText holds JSON that is not written as we write it, so that it comes in again as it was.
const asText = "$text"

func write(to *bufio.Writer, c column, v any) error {
	text, isText := v.(string)
	if c.json && isText {
		var compact bytes.Buffer
		if err := json.Compact(&compact, []byte(text)); err == nil && compact.String() == text {
			_, err := to.WriteString(text)
			return err
		}
		v = map[string]string{asText: text}
	}
	out, err := json.Marshal(v)
	if err == nil {
		_, err = to.Write(out)
	}
	return err
}

// files puts the pictures and films into the archive, each under its hash.
func (w *writer) files(z *zip.Writer, now time.Time) error {
	for _, t := range w.tables {
		if !t.has("hash") {
			continue
		}
		hashes, err := pairs(w.ctx, w.tx, fmt.Sprintf("SELECT DISTINCT hash, media_type FROM %s WHERE erased_at IS NULL AND %s ORDER BY hash", t.name, where(w.tables, t, w.scope)), w.practice, w.horses)
		if err != nil {
			return err
		}
		for _, h := range hashes {
			if err := w.file(z, now, h[0], h[1]); err != nil {
				return err
			}
		}
	}
	return nil
}

// named is the name of a file in the archive: any program tells by it what it is.
func named(hash, mediaType string) string {
	endings := map[string]string{"image/jpeg": ".jpg", "image/png": ".png", "image/webp": ".webp", "video/mp4": ".mp4", "video/quicktime": ".mov", "video/webm": ".webm"}
	return "files/" + hash + endings[mediaType]
}

func (w *writer) file(z *zip.Writer, now time.Time, hash, mediaType string) error {
	f, err := os.Open(store.FileOf(w.path, hash))
	if errors.Is(err, fs.ErrNotExist) {
		w.Missing++
		return nil
	}
	if err != nil {
		return err
	}
	defer func() { _ = f.Close() }()                                                                           // only read from
	to, err := z.CreateHeader(&zip.FileHeader{Name: named(hash, mediaType), Method: zip.Store, Modified: now}) // it is packed already
	if err != nil {
		return err
	}
	if _, err := io.Copy(to, f); err != nil {
		return err
	}
	w.Files++
	return nil
}
