package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/gofrs/flock"
)

// A HeldError says that a database can't be had, since somebody else has it.
type HeldError struct {
	Path string
	By   string // who, where they said it
}

func (e *HeldError) Error() string {
	if e.By == "" {
		return fmt.Sprintf("another command has the database %s open: wait until it is done, and try again", e.Path)
	}
	return fmt.Sprintf("%s has the database %s open: stop it first, or name another database with --database", e.By, e.Path)
}

// Two files beside a database say who has it. Everybody who has it open shares
// the first, so that nobody puts another in its place meanwhile; one server at a
// time has the second, and says in it who it is.
func usedFile(database string) string    { return database + ".lock" }
func servingFile(database string) string { return database + ".serving" }

// lockFile takes a lock, shared or alone, or says who holds it. The file stays:
// what counts is the lock on it.
func lockFile(database, path string, take func(*flock.Flock) (bool, error)) (*flock.Flock, error) {
	lock := flock.New(path, flock.SetPermissions(0o600))
	got, err := take(lock)
	if err != nil {
		return nil, fmt.Errorf("locking the database: %w", Placed(err))
	}
	if !got {
		return nil, &HeldError{Path: database, By: servedBy(database)}
	}
	return lock, nil
}

// use shares a database with others who use it.
func use(database string) (*flock.Flock, error) {
	return lockFile(database, usedFile(database), (*flock.Flock).TryRLock)
}

// alone has a database for itself; the folder may not be there yet.
func alone(database string) (*flock.Flock, error) {
	if err := os.MkdirAll(filepath.Dir(database), 0o700); err != nil {
		return nil, fmt.Errorf("making the folder of the database: %w", err)
	}
	return lockFile(database, usedFile(database), (*flock.Flock).TryLock)
}

// A Serving is a server's hold on its database.
type Serving struct{ lock *flock.Flock }

// Serve holds the database at path for one server, named so to any other; a
// HeldError says who has it.
func Serve(path, who string, now time.Time) (*Serving, error) {
	lock, err := lockFile(path, servingFile(path), (*flock.Flock).TryLock)
	if err != nil {
		return nil, err
	}
	said := fmt.Sprintf("%s (process %d, since %s)", who, os.Getpid(), now.UTC().Format("2006-01-02 15:04 MST"))
	if err := os.WriteFile(servingFile(path), []byte(said), 0o600); err != nil {
		return nil, errors.Join(fmt.Errorf("saying who serves the database: %w", Placed(err)), lock.Unlock())
	}
	return &Serving{lock}, nil
}

// End lets go of the database.
func (s *Serving) End() error { return s.lock.Unlock() }

// servedBy is who serves a database now; empty: nobody.
func servedBy(database string) string {
	lock := flock.New(servingFile(database), flock.SetPermissions(0o600))
	if free, err := lock.TryRLock(); err != nil || free {
		_ = lock.Unlock() // it was taken to look, no more
		return ""
	}
	said, err := os.ReadFile(servingFile(database))
	if err != nil || strings.TrimSpace(string(said)) == "" {
		return "another server"
	}
	return string(said)
}
