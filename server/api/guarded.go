package api

import (
	"errors"
	"fmt"
	"runtime/debug"
)

// A BrokenError says that the rules broke off over what was kept.
type BrokenError struct {
	What  any
	stack []byte
}

func (e *BrokenError) Error() string {
	return fmt.Sprintf("the rules broke off: %v\n%s", e.What, e.stack)
}

// Guarded turns a panic into an error, so that one record that the rules can't
// read takes nothing else down.
func Guarded(f func() error) (err error) {
	defer func() {
		if what := recover(); what != nil {
			err = &BrokenError{what, debug.Stack()}
		}
	}()
	return f()
}

// IsBroken reports whether the rules broke off.
func IsBroken(err error) bool { return errors.As(err, new(*BrokenError)) }
