package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"time"
)

// Pictures tells of the photographs that belong to a copy.
type Pictures struct {
	All     int
	Missing int // not there, or not what was kept
}

// own makes a file that only its owner reads, if it is not there yet.
func own(path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return Placed(err)
	}
	_ = f.Chmod(0o600) // where it belongs to somebody else, they say who reads it
	return f.Close()
}

// vacuumInto copies a database whole to a new file, or leaves nothing there.
func vacuumInto(ctx context.Context, db *sql.DB, path string) (err error) {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
	if err != nil {
		return Placed(err)
	}
	defer func() {
		if err = errors.Join(err, f.Close()); err != nil {
			err = errors.Join(err, os.Remove(path))
		}
	}()
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", path); err != nil {
		return named(err)
	}
	return f.Sync()
}

// Backup writes a whole, consistent copy to path, which must not exist yet. It
// may run while the database is in use.
func (s *Store) Backup(ctx context.Context, path string) (Pictures, error) {
	return Backup(ctx, s.path, path)
}

// Backup copies the database at from, which another process may have open, to
// a file that must not exist yet, and its photographs beside that. What is not
// whole is not left there. A photograph that is missing is counted, and is no
// reason to have no copy.
func Backup(ctx context.Context, from, to string) (Pictures, error) {
	return BackupBeside(ctx, from, to, "")
}

// BackupBeside is Backup beside an earlier copy: files that are in both are kept once.
func BackupBeside(ctx context.Context, from, to, earlier string) (Pictures, error) {
	if _, err := os.Stat(from); err != nil {
		return Pictures{}, fmt.Errorf("looking for the database: %w", err)
	}
	for _, there := range []string{to, folder(to)} {
		if _, err := os.Stat(there); err == nil {
			return Pictures{}, fmt.Errorf("there is something at %s already: name another file", there)
		}
	}
	lock, err := use(from)
	if err != nil {
		return Pictures{}, err
	}
	defer func() { _ = lock.Unlock() }() // only read from
	return copyWhole(ctx, from, to, earlier)
}

func copyWhole(ctx context.Context, from, to, earlier string) (pictures Pictures, err error) {
	part := to + ".part"
	if err := errors.Join(os.RemoveAll(folder(part)), removed(part)); err != nil {
		return pictures, fmt.Errorf("clearing an earlier try: %w", err)
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, removed(part), os.RemoveAll(folder(part)))
		}
	}()
	db, err := connect(from, "_pragma=query_only(0)")
	if err != nil {
		return pictures, err
	}
	err = vacuumInto(ctx, db, part)
	if err := errors.Join(err, db.Close()); err != nil {
		return pictures, fmt.Errorf("copying the database: %w", err)
	}
	if err := shared(ctx, part, earlier); err != nil {
		return pictures, fmt.Errorf("copying the photographs: %w", err)
	}
	// After the rows: each picture was there before its row.
	if pictures, err = copyPictures(ctx, part, from, part); err != nil {
		return pictures, err
	}
	if err := check(ctx, part); err != nil {
		return pictures, fmt.Errorf("looking at the copy: %w", err)
	}
	if pictures.All > 0 {
		if err := os.Rename(folder(part), folder(to)); err != nil {
			return pictures, fmt.Errorf("putting the photographs of the copy in place: %w", err)
		}
	}
	if err := os.Rename(part, to); err != nil {
		return pictures, fmt.Errorf("putting the copy in place: %w", errors.Join(err, os.RemoveAll(folder(to))))
	}
	return pictures, nil
}

// shared gives the files of an earlier copy that this one needs a second name, so that they
// are kept once. Each is looked at again afterwards.
func shared(ctx context.Context, to, earlier string) error {
	if earlier == "" {
		return nil
	}
	hashes, err := picturesOf(ctx, to)
	if err != nil || len(hashes) == 0 {
		return err
	}
	if err := os.MkdirAll(folder(to), 0o700); err != nil {
		return Placed(err)
	}
	for _, hash := range hashes {
		if isWhole(folder(earlier), hash) {
			_ = os.Link(FileOf(earlier, hash), FileOf(to, hash)) // where it can't be, it is copied
		}
	}
	return nil
}

// SizeOf is how many bytes a database and its files take.
func SizeOf(path string) (int64, error) {
	info, err := os.Stat(path)
	if err != nil {
		return 0, Placed(err)
	}
	size := info.Size()
	files, err := os.ReadDir(folder(path))
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return 0, Placed(err)
	}
	for _, f := range files {
		if info, err := f.Info(); err == nil {
			size += info.Size()
		}
	}
	return size, nil
}

// RemoveDatabase takes a copy of a database away, with its files.
func RemoveDatabase(path string) error {
	return errors.Join(removed(path), removed(path+"-wal"), removed(path+"-shm"), os.RemoveAll(folder(path)))
}

// removed takes a file away, if it is there.
func removed(path string) error {
	if err := os.Remove(path); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

// Restored tells of a copy that was put in place.
type Restored struct {
	Kept     string // where the database lies that was there; empty: there was none
	Pictures Pictures
}

// Restore checks the copy at from and puts it at to, with its photographs. A
// database already there is kept beside it, with the time in its name, as it is:
// it may be damaged. A HeldError says who has it open.
func Restore(ctx context.Context, from, to string, now time.Time) (r Restored, err error) {
	if _, err := os.Stat(from); err != nil {
		return r, fmt.Errorf("looking for the copy: %w", err)
	}
	if err := check(ctx, from); err != nil {
		return r, err
	}
	lock, err := alone(to)
	if err != nil {
		return r, err
	}
	defer func() { err = errors.Join(err, lock.Unlock()) }()
	part := to + ".restored"
	if err := errors.Join(os.RemoveAll(folder(part)), removed(part)); err != nil {
		return r, fmt.Errorf("clearing an earlier try: %w", err)
	}
	if _, err := copyWhole(ctx, from, part, ""); err != nil {
		return r, err
	}
	if _, err := os.Stat(to); err == nil {
		r.Kept = fmt.Sprintf("%s.replaced-%s", to, now.UTC().Format("20060102T150405.000"))
		if err := keepAside(ctx, to, r.Kept); err != nil {
			return r, fmt.Errorf("keeping the database that is there: %w", errors.Join(err, removed(part), os.RemoveAll(folder(part))))
		}
	}
	if r.Pictures, err = copyPictures(ctx, part, part, to); err != nil {
		return r, err
	}
	if err := errors.Join(os.RemoveAll(folder(part)), os.Rename(part, to)); err != nil {
		return r, fmt.Errorf("putting the copy in place: %w", err)
	}
	return r, nil
}

// keepAside keeps a database that will be replaced, with what is in its log and
// its photographs, whether or not it can still be read. It stays in its place
// until the new one takes that.
func keepAside(ctx context.Context, path, kept string) error {
	if db, err := connect(path, "_txlock=immediate"); err == nil {
		_, _ = db.ExecContext(ctx, "PRAGMA wal_checkpoint(TRUNCATE)") // a damaged one keeps its log instead
		_ = db.Close()
	}
	if err := linked(path, kept); err != nil {
		return err
	}
	if err := os.Rename(path+"-wal", kept+"-wal"); err != nil && !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	if err := removed(path + "-shm"); err != nil {
		return err
	}
	files, err := os.ReadDir(folder(path))
	if err != nil {
		if errors.Is(err, fs.ErrNotExist) {
			return nil
		}
		return err
	}
	if err := os.MkdirAll(folder(kept), 0o700); err != nil {
		return err
	}
	for _, f := range files {
		if err := linked(folder(path)+"/"+f.Name(), folder(kept)+"/"+f.Name()); err != nil {
			return err
		}
	}
	return nil
}

// linked gives a file a second name, or where that can't be, a copy.
func linked(from, to string) (err error) {
	if os.Link(from, to) == nil {
		return nil
	}
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { _ = in.Close() }() // only read from
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}

// check refuses a file that is no whole database of this product.
func check(ctx context.Context, path string) error {
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
	return nil
}
