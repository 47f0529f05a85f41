package clips

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"os"

	"ivorybridge/server/film"
	"ivorybridge/store"
)

// toldPlace ends the name of a file that says that a place was taken out of an arrival: one
// that is looked at again, since it could not be kept the first time, tells of none any more.
const toldPlace = ".place"

// looked takes the place out of a film and says what it is. It is never in memory whole.
func looked(path string, size int64) (store.Clip, error) {
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return store.Clip{}, fmt.Errorf("looking at a film: %w", store.Placed(err))
	}
	defer func() { _ = f.Close() }() // AddClip makes it durable
	head, err := film.Look(f, size)
	if err != nil {
		return store.Clip{}, err
	}
	where, err := film.Plain(f, size, head.Type)
	if err != nil {
		return store.Clip{}, err
	}
	switch _, before := os.Stat(path + toldPlace); {
	case where == film.Removed:
		if err := os.WriteFile(path+toldPlace, nil, 0o600); err != nil {
			return store.Clip{}, fmt.Errorf("looking at a film: %w", store.Placed(err))
		}
	case where == film.None && before == nil:
		where = film.Removed
	}
	if _, err := f.Seek(0, io.SeekStart); err != nil {
		return store.Clip{}, fmt.Errorf("looking at a film: %w", err)
	}
	sum := sha256.New()
	if _, err := io.Copy(sum, f); err != nil {
		return store.Clip{}, fmt.Errorf("looking at a film: %w", err)
	}
	return store.Clip{MediaType: head.Type, Bytes: size, Hash: hex.EncodeToString(sum.Sum(nil)), Position: string(where), Frames: head.Frames}, nil
}
