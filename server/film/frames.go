package film

import (
	"encoding/binary"
	"io"
	"slices"
)

// A track is the pictures of a film.
type track struct {
	f     io.ReaderAt
	box   box
	movie uint32 // ticks a second of the whole film
}

// videoTrack is the first track of pictures; nil: there is none.
func videoTrack(f io.ReaderAt, moov box) (*track, error) {
	mvhd, err := find(f, moov, "mvhd")
	if err != nil {
		return nil, err
	}
	head, err := content(f, mvhd)
	if err != nil {
		return nil, err
	}
	t := &track{f: f, movie: ticks(head)}
	found := false
	err = each(f, moov, func(b box) error {
		if b.kind != "trak" || found {
			return nil
		}
		hdlr, err := find(f, b, "mdia", "hdlr")
		if err != nil {
			return err
		}
		kind, err := content(f, hdlr)
		if err == nil && len(kind) >= 12 && string(kind[8:12]) == "vide" {
			t.box, found = b, true
		}
		return err
	})
	if err != nil || !found {
		return nil, err
	}
	return t, nil
}

// ticks are those of a second, of a movie's or a track's header.
func ticks(head []byte) uint32 {
	switch {
	case len(head) >= 24 && head[0] == 1:
		return binary.BigEndian.Uint32(head[20:])
	case len(head) >= 16 && head[0] == 0:
		return binary.BigEndian.Uint32(head[12:])
	}
	return 0
}

// mostFrames is how many frames are told: ten minutes at 240 a second.
const mostFrames = 144_000

// frames are the moments at which the frames are shown, in seconds. None where the film
// keeps no table of them.
func (t *track) frames() ([]float64, error) {
	read := func(path ...string) ([]byte, error) {
		b, err := find(t.f, t.box, path...)
		if err != nil {
			return nil, err
		}
		return content(t.f, b)
	}
	head, err := read("mdia", "mdhd")
	if err != nil {
		return nil, err
	}
	scale := ticks(head)
	durations, err := read("mdia", "minf", "stbl", "stts")
	if err != nil || scale == 0 {
		return nil, err
	}
	shifts, err := read("mdia", "minf", "stbl", "ctts")
	if err != nil {
		return nil, err
	}
	edits, err := read("edts", "elst")
	if err != nil {
		return nil, err
	}
	at := decoded(durations)
	if len(at) == 0 || len(at) > mostFrames {
		return nil, nil
	}
	shift(at, shifts)
	slices.Sort(at)
	skip, wait := edited(edits)
	list := make([]float64, 0, len(at))
	for _, ticks := range at {
		s := float64(ticks-skip) / float64(scale)
		if t.movie > 0 {
			s += float64(wait) / float64(t.movie)
		}
		if s > -0.5/float64(scale) { // what lies before the cut is not shown
			list = append(list, max(s, 0))
		}
	}
	return list, nil
}

// runs walks through the pairs of a table: how often, and what.
func runs(table []byte, visit func(n uint32, value []byte) bool) {
	for at := 8; at+8 <= len(table); at += 8 {
		if !visit(binary.BigEndian.Uint32(table[at:]), table[at+4:at+8]) {
			return
		}
	}
}

// decoded are the moments at which the frames are decoded, in ticks, one more than are told
// at most.
func decoded(table []byte) (at []int64) {
	now := int64(0)
	runs(table, func(n uint32, value []byte) bool {
		for range n {
			at = append(at, now)
			now += int64(binary.BigEndian.Uint32(value))
			if len(at) > mostFrames {
				return false
			}
		}
		return true
	})
	return at
}

// shift moves the frames from when they are decoded to when they are shown.
func shift(at []int64, table []byte) {
	i := 0
	runs(table, func(n uint32, value []byte) bool {
		for range n {
			if i == len(at) {
				return false
			}
			at[i] += int64(int32(binary.BigEndian.Uint32(value)))
			i++
		}
		return true
	})
}

// edited is from which tick of the track the film begins, and how many ticks of the movie it
// waits before.
func edited(table []byte) (skip, wait int64) {
	if len(table) < 8 {
		return 0, 0
	}
	long := table[0] == 1
	size := 12
	if long {
		size = 20
	}
	for at := 8; at+size <= len(table); at += size {
		var length, from int64
		if long {
			length, from = int64(binary.BigEndian.Uint64(table[at:])), int64(binary.BigEndian.Uint64(table[at+8:]))
		} else {
			length, from = int64(binary.BigEndian.Uint32(table[at:])), int64(int32(binary.BigEndian.Uint32(table[at+4:])))
		}
		if from >= 0 {
			return from, wait
		}
		wait += length // an empty edit
	}
	return 0, wait
}
