package house

import (
	"errors"
	"fmt"
	"os"

	"ivorybridge/server/film"
	"ivorybridge/server/picture"
)

var (
	errNeither = errors.New("is neither a film nor a plain picture, as they are kept here")
	errPlace   = errors.New("tells where it was filmed. Send it by itself, under the horse's clips, and the place is taken out")
)

// LookAt refuses a file of an archive that would not have been kept here as it is: what is
// neither a film nor a plain picture, and a film that tells where it was made. What is in the
// file may be changed by it.
func LookAt(f *os.File, size int64) error {
	head, err := film.Look(f, size)
	if errors.Is(err, film.ErrNoFilm) {
		if !picture.IsPlain(f) {
			return errNeither
		}
		return nil
	}
	if err != nil {
		return fmt.Errorf("can't be read: %w", err)
	}
	where, err := film.Plain(f, size, head.Type)
	switch {
	case err != nil:
		return fmt.Errorf("can't be read: %w", err)
	case where == film.Removed:
		return errPlace
	}
	return nil
}
