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

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // registers the driver

	"ivorybridge/store/sqlc"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound is returned for what is not in the practice.
var ErrNotFound = errors.New("not found")

// ErrTaken is returned where something must be the only one of its kind.
var ErrTaken = errors.New("already there")

// ErrLastLead is returned where the last active lead trainer would go.
var ErrLastLead = errors.New("the last lead trainer stays")

// ErrStays is returned for a change of what is never changed or taken away.
var ErrStays = errors.New("what was kept is never changed or taken away")

// A MissingError says that something refers to what is not in the practice: a
// yard, an owner, a horse. It is an ErrNotFound.
type MissingError struct{ What string }

func (e *MissingError) Error() string { return "the " + e.What + " is not there" }

// Is reports that what is missing was not found.
func (*MissingError) Is(target error) bool { return target == ErrNotFound }

// A StaleError says that a document was changed by somebody else since it was
// read. Current is the version now kept.
type StaleError struct{ Current any }

func (*StaleError) Error() string { return "changed by somebody else since it was read" }

// A Store is an open database. Each of the reads of its View sees what is kept
// at that moment; those that make one answer together go into a Snapshot.
type Store struct {
	View
	writer *sql.DB
	change *sqlc.Queries // prepared on the writer
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
		return fmt.Errorf("beginning to read: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // only read from
	return f(View{path: v.path, read: v.read.WithTx(tx)})
}

// Open opens the database at path, makes it if it is not there, and brings it
// to the newest version; before that the file is copied beside itself, named
// by the version it has. now stamps the copy.
func Open(ctx context.Context, path string, now time.Time) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("making the folder of the database: %w", err)
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
	s := &Store{View: View{path: path, reader: reader}, writer: writer}
	if s.read, err = sqlc.Prepare(ctx, reader); err == nil {
		s.change, err = sqlc.Prepare(ctx, writer)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("preparing the queries: %w", err), reader.Close(), writer.Close())
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
		return fmt.Errorf("looking at the database's version: %w", err)
	}
	if !pending {
		return nil
	}
	version, err := provider.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("looking at the database's version: %w", err)
	}
	if version > 0 {
		copyTo := fmt.Sprintf("%s.before-%d-%s", path, version+1, now.UTC().Format("20060102T150405.000"))
		if _, err := db.ExecContext(ctx, "VACUUM INTO ?", copyTo); err != nil {
			return fmt.Errorf("copying the database before it is migrated: %w", err)
		}
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("migrating the database: %w", err)
	}
	return nil
}

// Close closes the database.
func (s *Store) Close() error {
	return errors.Join(s.read.Close(), s.change.Close(), s.reader.Close(), s.writer.Close())
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	var one int
	if err := s.reader.QueryRowContext(ctx, "SELECT 1").Scan(&one); err != nil {
		return fmt.Errorf("asking the database: %w", err)
	}
	return nil
}

// Backup writes a whole, consistent copy to path, which must not exist yet. It
// may run while the database is in use.
func (s *Store) Backup(ctx context.Context, path string) error { return Backup(ctx, s.path, path) }

// Backup copies the database at from, which another process may have open, to
// a file that must not exist yet, and its photographs beside that.
func Backup(ctx context.Context, from, to string) error {
	if _, err := os.Stat(from); err != nil {
		return fmt.Errorf("looking for the database: %w", err)
	}
	if _, err := os.Stat(to); err == nil {
		return fmt.Errorf("there is a file at %s already: name another", to)
	}
	db, err := connect(from, "_pragma=query_only(0)")
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }() // only read from
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", to); err != nil {
		return fmt.Errorf("copying the database: %w", err)
	}
	if err := copyPictures(from, to); err != nil { // after the rows: each picture was there before its row
		return err
	}
	return os.Chmod(to, 0o600)
}

// Restore checks the copy at from, its photographs too, and puts it at to. A database already there
// is kept beside it, with the time in its name.
func Restore(ctx context.Context, from, to string, now time.Time) (kept string, err error) {
	if err := check(ctx, from); err != nil {
		return "", err
	}
	if _, err := os.Stat(to); err == nil {
		kept = fmt.Sprintf("%s.replaced-%s", to, now.UTC().Format("20060102T150405.000"))
		if err := Backup(ctx, to, kept); err != nil {
			return "", fmt.Errorf("keeping the database that is there: %w", err)
		}
	}
	part := to + ".part"
	if err := os.Remove(part); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return kept, fmt.Errorf("clearing an earlier try: %w", err)
	}
	if err := Backup(ctx, from, part); err != nil {
		return kept, err
	}
	if err := errors.Join(copyPictures(part, to), os.RemoveAll(folder(part))); err != nil {
		return kept, err
	}
	for _, side := range []string{"-wal", "-shm"} {
		if err := os.Remove(to + side); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return kept, fmt.Errorf("clearing the old log: %w", err)
		}
	}
	if err := os.Rename(part, to); err != nil {
		return kept, fmt.Errorf("putting the copy in place: %w", err)
	}
	return kept, nil
}

// check refuses a file that is no whole database of this product.
func check(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err != nil {
		return fmt.Errorf("looking for the copy: %w", err)
	}
	db, err := connect(path, "_pragma=query_only(0)")
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }() // only read from
	var answer string
	if err := db.QueryRowContext(ctx, "PRAGMA integrity_check").Scan(&answer); err != nil {
		return fmt.Errorf("%s is not a database: %w", path, err)
	}
	if answer != "ok" {
		return fmt.Errorf("%s is damaged: %s", path, answer)
	}
	var n int
	if err := db.QueryRowContext(ctx, "SELECT count(*) FROM practices").Scan(&n); err != nil {
		return fmt.Errorf("%s is not a database of this product: %w", path, err)
	}
	return checkPictures(ctx, db, path)
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
	tx, err := s.writer.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("%s: %w", doing, err)
	}
	q := s.change.WithTx(tx)
	if err := f(q); err != nil {
		return fmt.Errorf("%s: %w", doing, errors.Join(missing(named(err), q, refers), tx.Rollback()))
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("%s: %w", doing, err)
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

// errReference is a reference to what is not there, that nobody has named.
var errReference = errors.New("refers to something that is not there")

// sqliteError is what the driver's errors tell.
type sqliteError interface {
	error
	Code() int
}

const (
	constraintForeignKey = 787
	constraintPrimaryKey = 1555
	constraintTrigger    = 1811
	constraintUnique     = 2067
)

// named turns the driver's errors into the package's.
func named(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	var sqlite sqliteError
	if !errors.As(err, &sqlite) {
		return err
	}
	switch sqlite.Code() {
	case constraintForeignKey:
		return fmt.Errorf("%w: %w", errReference, err)
	case constraintUnique, constraintPrimaryKey:
		return ErrTaken
	case constraintTrigger:
		for raised, is := range triggers {
			if strings.Contains(sqlite.Error(), raised) {
				return is
			}
		}
	}
	return err
}

// triggers are the errors that the schema's triggers raise, by their words.
var triggers = map[string]error{
	"the last lead trainer stays":               ErrLastLead,
	"an entry is never changed":                 ErrStays,
	"an entry is never taken away":              ErrStays,
	"a mark is never changed":                   ErrStays,
	"a mark is never taken away":                ErrStays,
	"a version of a ladder is never changed":    ErrStays,
	"a version of a ladder is never taken away": ErrStays,
}

// reading wraps the error of a read once.
func reading(what string, err error) error {
	if err == nil {
		return nil
	}
	return fmt.Errorf("reading %s: %w", what, named(err))
}

// null is a text that may be absent.
func null(s string) sql.NullString { return sql.NullString{String: s, Valid: s != ""} }

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

// A DamagedError says that something can't be read as it was kept.
type DamagedError struct {
	What string
	err  error
}

func (e *DamagedError) Error() string {
	return "reading " + e.What + " as it was kept: " + e.err.Error()
}

func (e *DamagedError) Unwrap() error { return e.err }

// Actor is the signed-in user a change is made by.
type Actor struct {
	Practice string
	User     string
	At       int64 // milliseconds UTC
}

func (w Actor) changed(ctx context.Context, q *sqlc.Queries, what, subject string) error {
	return q.InsertChange(ctx, sqlc.InsertChangeParams{PracticeID: w.Practice, UserID: null(w.User), At: w.At, What: what, Subject: subject})
}
