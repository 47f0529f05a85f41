// Package film looks at films by their content: what they are, when each frame is shown,
// and whether they tell where they were filmed.
package film

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
)

// The kinds of film that are taken, by their media types.
const (
	MP4       = "video/mp4"
	QuickTime = "video/quicktime"
	WebM      = "video/webm"
)

// ErrNoFilm is returned for what is none of them, or breaks off.
var ErrNoFilm = errors.New("this is no film that is taken here")

// Header is what a film says of itself.
type Header struct {
	Type   string
	Frames []float64 // when each frame is shown, in seconds, rising; none: it does not say
}

// Look reads what a film says of itself, and none of its pictures.
func Look(f io.ReaderAt, size int64) (Header, error) {
	var start [64]byte
	n, err := f.ReadAt(start[:], 0)
	if err != nil && !errors.Is(err, io.EOF) {
		return Header{}, fmt.Errorf("reading a film: %w", err)
	}
	switch {
	case n >= 12 && string(start[4:8]) == "ftyp":
		return lookBoxes(f, size, string(start[8:12]) == "qt  ")
	case n >= 8 && (string(start[4:8]) == "moov" || string(start[4:8]) == "wide" || string(start[4:8]) == "mdat"):
		return lookBoxes(f, size, true) // as older cameras begin
	case n >= 4 && binary.BigEndian.Uint32(start[:]) == 0x1A45DFA3 && bytes.Contains(start[:n], []byte("webm")):
		return Header{Type: WebM}, nil
	}
	return Header{}, ErrNoFilm
}

func lookBoxes(f io.ReaderAt, size int64, quicktime bool) (Header, error) {
	h := Header{Type: MP4}
	if quicktime {
		h.Type = QuickTime
	}
	moov, err := find(f, box{end: size}, "moov")
	if err != nil || moov == nil {
		return Header{}, ErrNoFilm
	}
	video, err := videoTrack(f, *moov)
	if err != nil || video == nil {
		return Header{}, ErrNoFilm
	}
	h.Frames, err = video.frames()
	if err != nil {
		return Header{}, ErrNoFilm
	}
	return h, nil
}

// A box is a part of an MP4 or a MOV: where it begins, its content begins, and it ends.
type box struct {
	kind           string
	start, at, end int64
}

// mostBoxes is how many boxes are walked through in one.
const mostBoxes = 100_000

var errBroken = errors.New("a box breaks off")

// each walks through the boxes in a box.
func each(f io.ReaderAt, in box, visit func(box) error) error {
	at := in.at
	for n := 0; at+8 <= in.end; n++ {
		if n > mostBoxes {
			return errBroken
		}
		var head [16]byte
		if _, err := f.ReadAt(head[:8], at); err != nil {
			return errBroken
		}
		size, content := int64(binary.BigEndian.Uint32(head[:])), at+8
		switch size {
		case 0: // to the end
			size = in.end - at
		case 1:
			if _, err := f.ReadAt(head[8:], at+8); err != nil {
				return errBroken
			}
			size, content = int64(binary.BigEndian.Uint64(head[8:])), at+16
		}
		if size < content-at || size > in.end-at {
			return errBroken
		}
		if err := visit(box{string(head[4:8]), at, content, at + size}); err != nil {
			return err
		}
		at += size
	}
	return nil
}

var errFound = errors.New("found")

// find is the first box on a path of kinds; nil: there is none.
func find(f io.ReaderAt, in box, path ...string) (*box, error) {
	var found *box
	err := each(f, in, func(b box) error {
		if b.kind != path[0] {
			return nil
		}
		found = &b
		return errFound
	})
	switch {
	case errors.Is(err, errFound) && len(path) > 1:
		return find(f, *found, path[1:]...)
	case errors.Is(err, errFound):
		return found, nil
	}
	return nil, err
}

// mostTable is how large a table in a film may be, in bytes.
const mostTable = 32 << 20

func content(f io.ReaderAt, b *box) ([]byte, error) {
	if b == nil {
		return nil, nil
	}
	if b.end-b.at > mostTable {
		return nil, errBroken
	}
	text := make([]byte, b.end-b.at)
	if _, err := f.ReadAt(text, b.at); err != nil && !errors.Is(err, io.EOF) {
		return nil, fmt.Errorf("reading a film: %w", err)
	}
	return text, nil
}
