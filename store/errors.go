package store

import (
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"strings"
	"syscall"
)

// ErrNotFound is returned for what is not in the practice.
var ErrNotFound = errors.New("not found")

// ErrTaken is returned where something must be the only one of its kind.
var ErrTaken = errors.New("already there")

// ErrLastLead is returned where the last active lead trainer would go.
var ErrLastLead = errors.New("the last lead trainer stays")

// ErrStays is returned for a change of what is never changed or taken away.
var ErrStays = errors.New("what was kept is never changed or taken away")

// ErrRefused is returned for what the schema does not take: a text that is too
// long, a date that is none.
var ErrRefused = errors.New("the database does not take this")

// What befalls the place that the database lies in. Nothing was kept; the same
// can be tried again once the cause is gone.
var (
	ErrFull     = errors.New("the disk is full")
	ErrReadOnly = errors.New("the folder of the database can't be written to")
	ErrDisk     = errors.New("the disk can't be read or written")
	ErrDamaged  = errors.New("the database file is damaged")
	ErrGone     = errors.New("the database file is not where it was")
	ErrBusy     = errors.New("the database is held by somebody else")
)

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

// A DamagedError says that something can't be read as it was kept.
type DamagedError struct {
	What string
	err  error
}

func (e *DamagedError) Error() string {
	return "reading " + e.What + " as it was kept: " + e.err.Error()
}

func (e *DamagedError) Unwrap() error { return e.err }

// errReference is a reference to what is not there, that nobody has named.
var errReference = errors.New("refers to something that is not there")

// sqliteError is what the driver's errors tell.
type sqliteError interface {
	error
	Code() int
}

// The driver's codes: first those that are told apart by their second byte.
const (
	constraintCheck      = 275
	constraintForeignKey = 787
	constraintNotNull    = 1299
	constraintPrimaryKey = 1555
	constraintTrigger    = 1811
	constraintUnique     = 2067
	constraintDatatype   = 3091
)

// places are the errors of the place that the database lies in, by the first byte
// of the driver's code.
var places = map[int]error{
	5: ErrBusy, 6: ErrBusy, 8: ErrReadOnly, 10: ErrDisk, 11: ErrDamaged, 13: ErrFull, 14: ErrGone, 26: ErrDamaged,
}

// named turns the driver's errors into the package's.
func named(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	var sqlite sqliteError
	if !errors.As(err, &sqlite) {
		return Placed(err)
	}
	switch sqlite.Code() {
	case constraintForeignKey:
		return fmt.Errorf("%w: %w", errReference, err)
	case constraintUnique, constraintPrimaryKey:
		return ErrTaken
	case constraintCheck, constraintNotNull, constraintDatatype:
		return fmt.Errorf("%w: %w", ErrRefused, err)
	case constraintTrigger:
		for raised, is := range triggers {
			if strings.Contains(sqlite.Error(), raised) {
				return is
			}
		}
	}
	if is, known := places[sqlite.Code()&0xff]; known {
		return fmt.Errorf("%w: %w", is, err)
	}
	return err
}

// Placed names what befalls the place that files lie in.
func Placed(err error) error {
	switch {
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT):
		return fmt.Errorf("%w: %w", ErrFull, err)
	case errors.Is(err, syscall.EROFS), errors.Is(err, fs.ErrPermission):
		return fmt.Errorf("%w: %w", ErrReadOnly, err)
	case errors.Is(err, syscall.EIO):
		return fmt.Errorf("%w: %w", ErrDisk, err)
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
