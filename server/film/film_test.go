package film

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"io"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// boxed is a box of a film.
func boxed(kind string, parts ...[]byte) []byte {
	whole := slices.Concat(parts...)
	head := binary.BigEndian.AppendUint32(nil, uint32(len(whole)+8))
	return slices.Concat(head, []byte(kind), whole)
}

func numbers(list ...int) (b []byte) {
	for _, n := range list {
		b = binary.BigEndian.AppendUint32(b, uint32(int32(n)))
	}
	return b
}

// made is a film with so many frames a second; more goes into its moov.
func made(brand string, fps, frames int, table, edits []byte, more ...[]byte) []byte {
	scale := fps * 100
	stbl := [][]byte{boxed("stsd", numbers(0, 0)), boxed("stts", numbers(0, 1, frames, 100))}
	if table != nil {
		stbl = append(stbl, boxed("ctts", table))
	}
	trak := [][]byte{boxed("mdia",
		boxed("mdhd", numbers(0, 0, 0, scale, 100*frames, 0)), boxed("hdlr", numbers(0, 0), []byte("vide"), numbers(0, 0, 0)), boxed("minf", boxed("stbl", stbl...)))}
	if edits != nil {
		trak = append(trak, boxed("edts", boxed("elst", edits)))
	}
	moov := append([][]byte{boxed("mvhd", numbers(0, 0, 0, 1000, 0)), boxed("trak", boxed("mdia", boxed("hdlr", numbers(0, 0), []byte("soun"), numbers(0))), nil), boxed("trak", trak...)}, more...)
	return slices.Concat(boxed("ftyp", []byte(brand), numbers(0)), boxed("mdat", make([]byte, 1000)), boxed("moov", moov...))
}

// file is a film in memory that can be changed in its place.
type file []byte

func (f file) ReadAt(p []byte, at int64) (int, error) { return bytes.NewReader(f).ReadAt(p, at) }

func (f file) WriteAt(p []byte, at int64) (int, error) {
	if at+int64(len(p)) > int64(len(f)) {
		return 0, io.ErrShortWrite
	}
	return copy(f[at:], p), nil
}

func look(t *testing.T, film []byte) Header {
	t.Helper()
	h, err := Look(file(film), int64(len(film)))
	require.NoError(t, err)
	return h
}

// Each frame of 24 to 240 a second has its moment.
func TestTheMomentsOfFrames(t *testing.T) {
	for _, fps := range []int{24, 25, 30, 50, 60, 120, 240} {
		h := look(t, made("isom", fps, fps+1, nil, nil))
		require.Len(t, h.Frames, fps+1)
		assert.Equal(t, MP4, h.Type)
		assert.InDelta(t, 1/float64(fps), h.Frames[1], 1e-12)
		assert.InDelta(t, 1, h.Frames[fps], 1e-12, "%d frames later it is a second later", fps)
	}
	// Frames that are decoded in another order than they are shown, and a film that begins
	// where the first is shown, as cameras write it.
	shifts := numbers(0, 4, 1, 200, 1, 400, 1, 100, 1, 100)
	h := look(t, made("qt  ", 30, 4, shifts, numbers(0, 1, 4000, 200, 0x10000)))
	assert.Equal(t, QuickTime, h.Type)
	require.Len(t, h.Frames, 4)
	assert.InDeltaSlice(t, []float64{0, 1. / 30, 2. / 30, 3. / 30}, h.Frames, 1e-9)
	// One that waits half a second, and one that is cut in.
	h = look(t, made("isom", 10, 4, nil, numbers(0, 2, 500, -1, 0x10000, 4000, 0, 0x10000)))
	assert.InDeltaSlice(t, []float64{0.5, 0.6, 0.7, 0.8}, h.Frames, 1e-9)
	h = look(t, made("isom", 10, 4, nil, numbers(0, 1, 4000, 200, 0x10000)))
	assert.InDeltaSlice(t, []float64{0, 0.1}, h.Frames, 1e-9)
}

func TestWhatIsNoFilm(t *testing.T) {
	whole := made("isom", 30, 10, nil, nil)
	for name, film := range map[string][]byte{
		"nothing":          {},
		"a picture":        []byte("\xff\xd8\xff\xe0 and so on and on and on"),
		"text":             []byte("WEBVTT and some words that go on for a while, and on"),
		"half a film":      whole[:len(whole)-200],
		"no moov":          whole[:1024],
		"sound alone":      slices.Concat(boxed("ftyp", []byte("isom"), numbers(0)), boxed("moov", boxed("mvhd", numbers(0, 0, 0, 1000)))),
		"another Matroska": []byte("\x1A\x45\xDF\xA3\x01\x00\x00\x00\x00\x00\x00\x1f\x42\x82\x88matroska"),
		"a box of 2^63":    slices.Concat(boxed("ftyp", []byte("isom"), numbers(0)), numbers(1), []byte("moov"), numbers(-1, -1)),
	} {
		_, err := Look(file(film), int64(len(film)))
		assert.ErrorIs(t, err, ErrNoFilm, name)
	}
	h := look(t, []byte("\x1A\x45\xDF\xA3\x01\x00\x00\x00\x00\x00\x00\x1f\x42\x82\x84webm and more"))
	assert.Equal(t, WebM, h.Type)
	assert.Empty(t, h.Frames)
}

// A place is taken out wherever cameras write it, and nothing else moves; what can't be
// taken out is said.
func TestThePlaceIsTakenOut(t *testing.T) {
	place := []byte("+54.4812-003.1234+012.300/")
	for name, c := range map[string]struct {
		more []byte
		want Position
	}{
		"none":                  {nil, None},
		"as phones write it":    {boxed("udta", boxed("\xa9xyz", numbers(0x1a15c7), place)), Removed},
		"as others do":          {boxed("meta", boxed("keys", []byte("com.apple.quicktime.location.ISO6709")), boxed("ilst", place)), Removed},
		"with other notes":      {boxed("udta", boxed("meta", numbers(0), place), boxed("\xa9nam", []byte("Moth walks"))), Removed},
		"as 3GPP writes it":     {boxed("udta", boxed("loci", numbers(0), place)), Removed},
		"in notes as XML":       {boxed("uuid", xmp, place), Removed},
		"a track of places":     {boxed("trak", boxed("mdia", boxed("minf", boxed("stbl", boxed("stsd", numbers(0, 1, 16), []byte("gpmd")))))), NotLooked},
		"notes of another kind": {boxed("meta", numbers(0), []byte("2026-06-01T10:00:00+0200 1920x1080")), None},
	} {
		film := made("isom", 30, 10, nil, nil, c.more)
		before := look(t, film)
		got, err := Plain(file(film), int64(len(film)), MP4)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, got, name)
		assert.NotContains(t, string(film), "54.4812", name)
		assert.Equal(t, before, look(t, film), name)
		if name == "with other notes" {
			assert.Contains(t, string(film), "Moth walks")
		}
		if c.want == Removed {
			again, err := Plain(file(film), int64(len(film)), MP4)
			require.NoError(t, err)
			assert.Equal(t, None, again, "it was taken out before")
		}
	}
	got, err := Plain(file{}, 0, WebM)
	require.NoError(t, err)
	assert.Equal(t, NotLooked, got)
}

func FuzzLook(f *testing.F) {
	f.Add(made("isom", 30, 10, numbers(0, 1, 10, 5), numbers(0, 1, 4000, 200, 1), boxed("udta", boxed("\xa9xyz", []byte("+54.4812-003.1234/")))))
	f.Add([]byte("\x1A\x45\xDF\xA3webm"))
	f.Fuzz(func(t *testing.T, film []byte) {
		h, err := Look(file(film), int64(len(film)))
		if err == nil && !slices.IsSorted(h.Frames) {
			t.Errorf("frames run backwards: %v", h.Frames)
		}
		size := len(film)
		if _, err := Plain(file(film), int64(size), MP4); err != nil {
			t.Errorf("%v", err)
		}
	})
}

func ExampleLook() {
	film := made("isom", 240, 480, nil, nil)
	h, err := Look(file(film), int64(len(film)))
	fmt.Println(h.Type, len(h.Frames), h.Frames[240], err)
	// Output: video/mp4 480 1 <nil>
}
