// Package store keeps everything in one SQLite file: one writer, a pool of
// readers, forward-only migrations, and a copy of the file before each. Every
// call names the practice it works in; the caller takes it from the signed-in
// user, never from a request.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/gofrs/flock"
	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // registers the driver

	"ivorybridge/store/sqlc"
)

//go:embed migrations/*.sql
var migrations embed.FS

// A Store is an open database. Each of the reads of its View sees what is kept
// at that moment; those that make one answer together go into a Snapshot.
type Store struct {
	View
	writer *sql.DB
	change *sqlc.Queries // prepared on the writer
	lock   *flock.Flock  // nobody puts another database in its place
	file   os.FileInfo   // the file as it was opened
	ails   ails
}

// A View is what is read: the database as it is, or as it was when a snapshot
// of it began.
type View struct {
	path   string
	reader *sql.DB       // nil in a snapshot
	read   *sqlc.Queries // prepared on the reader
}

// Snapshot lets f read the database as it is now, whatever is written
// meanwhile. In a snapshot it is that one.
func (v View) Snapshot(ctx context.Context, f func(View) error) error {
	if v.reader == nil {
		return f(v)
	}
	tx, err := v.reader.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("beginning to read: %w", named(err))
	}
	defer func() { _ = tx.Rollback() }() // only read from
	return f(View{path: v.path, read: v.read.WithTx(tx)})
}

// Open opens the database at path, makes it if it is not there, and brings it
// to the newest version; before that the file is copied beside itself, named
// by the version it has. now stamps the copy.
func Open(ctx context.Context, path string, now time.Time) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("making the folder of the database: %w", Placed(err))
	}
	lock, err := use(path)
	if err != nil {
		return nil, err
	}
	s, err := openAt(ctx, path, now)
	if err != nil {
		return nil, errors.Join(err, lock.Unlock())
	}
	s.lock = lock
	return s, nil
}

func openAt(ctx context.Context, path string, now time.Time) (*Store, error) {
	if err := own(path); err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	file, err := os.Stat(path)
	if err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	writer, err := connect(path, "_txlock=immediate")
	if err != nil {
		return nil, err
	}
	writer.SetMaxOpenConns(1)
	if err := migrate(ctx, writer, path, now); err != nil {
		return nil, errors.Join(err, writer.Close())
	}
	reader, err := connect(path, "_pragma=query_only(1)")
	if err != nil {
		return nil, errors.Join(err, writer.Close())
	}
	reader.SetMaxOpenConns(16)
	reader.SetMaxIdleConns(4)
	s := &Store{View: View{path: path, reader: reader}, writer: writer, file: file}
	if s.read, err = sqlc.Prepare(ctx, reader); err == nil {
		s.change, err = sqlc.Prepare(ctx, writer)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("preparing the queries: %w", named(err)), reader.Close(), writer.Close())
	}
	return s, nil
}

func connect(path, more string) (*sql.DB, error) {
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() +
		"?_pragma=busy_timeout(5000)&_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&" + more
	db, err := sql.Open("sqlite", dsn)
	if err != nil {
		return nil, fmt.Errorf("opening the database: %w", err)
	}
	return db, nil
}

func migrate(ctx context.Context, db *sql.DB, path string, now time.Time) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return fmt.Errorf("reading the migrations: %w", err)
	}
	return migrateFrom(ctx, db, path, now, files)
}

func migrateFrom(ctx context.Context, db *sql.DB, path string, now time.Time, files fs.FS) error {
	provider, err := goose.NewProvider(goose.DialectSQLite3, db, files)
	if err != nil {
		return fmt.Errorf("reading the migrations: %w", err)
	}
	pending, err := provider.HasPending(ctx)
	if err != nil {
		return fmt.Errorf("looking at the database's version: %w", named(err))
	}
	ails, err := ailments(ctx, db)
	if err != nil || !pending && len(ails) == 0 {
		return err
	}
	version, err := provider.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("looking at the database's version: %w", err)
	}
	if version > 0 {
		copyTo := fmt.Sprintf("%s.before-%d-%s", path, version+1, now.UTC().Format("20060102T150405.000"))
		if err := vacuumInto(ctx, db, copyTo); err != nil {
			return fmt.Errorf("copying the database before it is migrated: %w", err)
		}
	}
	if len(ails) > 0 {
		if err := mend(ctx, db, ails); err != nil {
			return err
		}
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("migrating the database: %w", named(err))
	}
	return nil
}

// Close closes the database.
func (s *Store) Close() error {
	return errors.Join(s.read.Close(), s.change.Close(), s.reader.Close(), s.writer.Close(), s.lock.Unlock())
}

// A reference is something that a change refers to: looked for when the
// database says that one is missing, since it does not say which.
type reference struct {
	what string
	look func(*sqlc.Queries) error
}

// write runs one transaction on the writer. It may refer to things that are
// not there; then the error names the first that is missing.
func (s *Store) write(ctx context.Context, doing string, f func(*sqlc.Queries) error, refers ...reference) error {
	if err := s.there(); err != nil {
		return fmt.Errorf("%s: %w", doing, err)
	}
	tx, err := s.writer.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("%s: %w", doing, named(err))
	}
	q := s.change.WithTx(tx)
	if err := f(q); err != nil {
		return fmt.Errorf("%s: %w", doing, errors.Join(missing(named(err), q, refers), rolledBack(tx)))
	}
	if err := tx.Commit(); err != nil {
		// Where a disk is full the transaction may be open still, on the one writer.
		_, _ = s.writer.ExecContext(context.WithoutCancel(ctx), "ROLLBACK") // or it is not
		return fmt.Errorf("%s: %w", doing, named(err))
	}
	// What was written to a file that nobody finds any more is not kept.
	if err := s.there(); err != nil {
		return fmt.Errorf("%s: %w", doing, err)
	}
	return nil
}

// rolledBack undoes a transaction, which a full disk may have undone already.
func rolledBack(tx *sql.Tx) error {
	if err := tx.Rollback(); err != nil && !strings.Contains(err.Error(), "no transaction is active") {
		return err
	}
	return nil
}

// missing names the reference that is not there, where one was asked for.
func missing(err error, q *sqlc.Queries, refers []reference) error {
	if !errors.Is(err, errReference) {
		return err
	}
	for _, r := range refers {
		if errors.Is(r.look(q), sql.ErrNoRows) {
			return &MissingError{r.what}
		}
	}
	return err
}

// null is a text that may be absent.
func null(s string) sql.NullString { return sql.NullString{String: s, Valid: s != ""} }

// when is an instant that may be absent.
func when(at int64) sql.NullInt64 { return sql.NullInt64{Int64: at, Valid: true} }

// doc writes a document; the types written here can't fail to be JSON.
func writeJSON(v any) string {
	b, err := json.Marshal(v)
	if err != nil {
		panic(fmt.Sprintf("store: writing %T as JSON: %v", v, err))
	}
	return string(b)
}

func readJSON[T any](what, text string) (T, error) {
	var v T
	if err := json.Unmarshal([]byte(text), &v); err != nil {
		return v, &DamagedError{what, err}
	}
	return v, nil
}

// Actor is the signed-in user a change is made by.
type Actor struct {
	Practice string
	User     string
	At       int64 // milliseconds UTC
}

func (w Actor) changed(ctx context.Context, q *sqlc.Queries, what, subject string) error {
	return q.InsertChange(ctx, sqlc.InsertChangeParams{PracticeID: w.Practice, UserID: null(w.User), At: w.At, What: what, Subject: subject})
}
