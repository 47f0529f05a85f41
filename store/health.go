package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"sync"
	"time"
)

// there reports whether the database still lies where it was opened: an open file
// can be written to when nobody will find it again.
func (s *Store) there() error {
	now, err := os.Stat(s.path)
	if err == nil && os.SameFile(now, s.file) {
		return nil
	}
	return errors.Join(ErrGone, err)
}

// ails is what was last found wrong with the place of the database.
type ails struct {
	mu     sync.Mutex
	err    error
	looked time.Time
}

// lasting are the errors that stay until their cause is gone.
var lasting = []error{ErrFull, ErrReadOnly, ErrDisk, ErrDamaged, ErrGone}

// Note keeps what a request found wrong with the place of the database, if it is
// that, so that the server's health tells it.
func (s *Store) Note(err error) {
	i := slices.IndexFunc(lasting, func(is error) bool { return errors.Is(err, is) })
	if i < 0 {
		return
	}
	s.ails.mu.Lock()
	defer s.ails.mu.Unlock()
	s.ails.err = lasting[i]
}

// lookAgain is how soon after a look at what is wrong another is worth it.
const lookAgain = 5 * time.Second

// Health reports what is wrong with the database and its place, or nil. What was
// once wrong is looked at again.
func (s *Store) Health(ctx context.Context, now time.Time) error {
	if err := s.there(); err != nil {
		return err
	}
	if _, err := s.FirstPractice(ctx); err != nil && !errors.Is(err, ErrNotFound) {
		return err
	}
	s.ails.mu.Lock()
	defer s.ails.mu.Unlock()
	if s.ails.err != nil && now.Sub(s.ails.looked).Abs() >= lookAgain {
		s.ails.looked, s.ails.err = now, s.still(ctx, s.ails.err)
	}
	return s.ails.err
}

// still reports whether something that was wrong is.
func (s *Store) still(ctx context.Context, err error) error {
	if errors.Is(err, ErrDamaged) {
		return s.Whole(ctx)
	}
	f, err := os.CreateTemp(filepath.Dir(s.path), ".room-*")
	if err != nil {
		return Placed(err)
	}
	_, err = f.Write(make([]byte, 64<<10))
	return Placed(errors.Join(err, f.Sync(), f.Close(), os.Remove(f.Name())))
}

// Whole reads the whole database and reports whether it is damaged.
func (s *Store) Whole(ctx context.Context) error {
	var answer string
	err := s.reader.QueryRowContext(ctx, "PRAGMA quick_check(1)").Scan(&answer)
	switch {
	case err != nil:
		return reading("the whole database", err)
	case answer != "ok":
		return fmt.Errorf("%w: %s", ErrDamaged, answer)
	}
	return nil
}
