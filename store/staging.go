package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"github.com/pressly/goose/v3"

	"ivorybridge/store/sqlc"
)

// ErrNotEmpty says that a practice has horses, people or yards already.
var ErrNotEmpty = errors.New("there is something in this practice already")

// Path is where the database lies.
func (s *Store) Path() string { return s.path }

// ReadOnly opens the database at path to be read, beside whoever has it open.
func ReadOnly(path string) (*sql.DB, error) { return connect(path, "_pragma=query_only(1)") }

// FileOf is where the picture or film of a hash lies, of the database at path.
func FileOf(path, hash string) string { return filepath.Join(folder(path), hash) }

// Newest is the version of the schema that this program has.
func Newest() (int64, error) {
	names, err := fs.Glob(migrations, "migrations/*.sql")
	return int64(len(names)), err
}

// Stage makes an empty database of a version of the schema at path, for rows that are
// brought in. It need not outlive a crash.
func Stage(ctx context.Context, path string, version int64) (*sql.DB, error) {
	if err := own(path); err != nil {
		return nil, fmt.Errorf("making room for what comes in: %w", err)
	}
	db, err := connect(path, "_pragma=synchronous(OFF)")
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(1)
	provider, err := migrator(db)
	if err == nil {
		_, err = provider.UpTo(ctx, version)
	}
	if err != nil {
		return nil, errors.Join(fmt.Errorf("making room for what comes in: %w", named(err)), db.Close())
	}
	return db, nil
}

// Upgrade brings a staged database to the newest version.
func Upgrade(ctx context.Context, db *sql.DB) error {
	provider, err := migrator(db)
	if err == nil {
		_, err = provider.Up(ctx)
	}
	if err != nil {
		return fmt.Errorf("bringing what comes in to this version: %w", named(err))
	}
	return nil
}

func migrator(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, files)
}

// Taking is what is taken over from a staged database.
type Taking struct {
	Path     string   // of the staged database; nobody has it open
	Tables   []string // each after those it refers to
	Practice string
	Whole    bool // the practice too, which must be empty; else only what is not there yet
}

// Take takes the rows of a staged database over, all of them or none, and the files named by
// these hashes, which lie in the folder at from. It tells how many rows are new. An
// ErrNotEmpty leaves everything as it is.
func (s *Store) Take(ctx context.Context, t Taking, from string, hashes []string) (rows int64, err error) {
	if err := s.there(); err != nil {
		return 0, fmt.Errorf("taking rows over: %w", err)
	}
	put, err := s.putFiles(from, hashes)
	defer func() {
		if err != nil {
			for _, path := range put {
				err = errors.Join(err, removed(path))
			}
		}
	}()
	if err != nil {
		return 0, err
	}
	conn, err := s.writer.Conn(ctx)
	if err != nil {
		return 0, fmt.Errorf("taking rows over: %w", named(err))
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	if _, err := conn.ExecContext(ctx, "ATTACH DATABASE ? AS staged", t.Path); err != nil {
		return 0, fmt.Errorf("taking rows over: %w", named(err))
	}
	undone := context.WithoutCancel(ctx)
	defer func() {
		_, detached := conn.ExecContext(undone, "DETACH DATABASE staged")
		err = errors.Join(err, detached)
	}()
	if _, err := conn.ExecContext(ctx, "BEGIN IMMEDIATE"); err != nil {
		return 0, fmt.Errorf("taking rows over: %w", named(err))
	}
	if rows, err = takeOver(ctx, conn, t); err == nil {
		_, err = conn.ExecContext(ctx, "COMMIT")
	}
	if err != nil {
		_, back := conn.ExecContext(undone, "ROLLBACK")
		return 0, fmt.Errorf("taking rows over: %w", errors.Join(named(err), back))
	}
	return rows, nil
}

func takeOver(ctx context.Context, conn *sql.Conn, t Taking) (rows int64, err error) {
	if t.Whole {
		something, err := sqlc.New(conn).HasSomething(ctx, t.Practice)
		switch {
		case err != nil:
			return 0, err
		case something != 0:
			return 0, ErrNotEmpty
		}
		const own = `UPDATE main.practices AS p SET name = s.name, zone = s.zone, vehicle = s.vehicle, sides = s.sides, units = s.units, phone = s.phone FROM staged.practices AS s WHERE p.id = s.id AND p.id = ?1`
		if _, err := conn.ExecContext(ctx, own, t.Practice); err != nil {
			return 0, err
		}
	}
	for _, table := range t.Tables {
		columns, err := columnsOf(ctx, conn, table)
		if err != nil {
			return 0, err
		}
		done, err := conn.ExecContext(ctx, fmt.Sprintf("INSERT OR IGNORE INTO main.%[1]s (%[2]s) SELECT %[2]s FROM staged.%[1]s", table, columns))
		if err != nil {
			return 0, fmt.Errorf("the table %s: %w", table, err)
		}
		n, err := done.RowsAffected()
		if err != nil {
			return 0, err
		}
		rows += n
	}
	return rows, nil
}

func columnsOf(ctx context.Context, conn *sql.Conn, table string) (string, error) {
	var list string
	err := conn.QueryRowContext(ctx, `SELECT group_concat('"' || name || '"', ', ') FROM pragma_table_info(?)`, table).Scan(&list)
	return strings.TrimSpace(list), err
}

// putFiles puts files in their place that are not there yet, and tells which.
func (s *Store) putFiles(from string, hashes []string) (put []string, err error) {
	for _, hash := range hashes {
		to := FileOf(s.path, hash)
		if _, err := os.Stat(to); err == nil {
			continue
		}
		if err := putInPlace(folder(s.path), hash, filepath.Join(from, hash)); err != nil {
			return put, err
		}
		put = append(put, to)
	}
	return put, nil
}
