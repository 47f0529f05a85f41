package picture_test

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/picture"
)

// secret is what a camera wrote into the file.
const secret = "51.4779 N 0.0015 W, Tarn Side"

// quarters is a picture whose top left quarter is red, top right green, bottom left
// blue and bottom right white.
func quarters(w, h int) image.Image {
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := [2][2]color.RGBA{{{R: 255, A: 255}, {G: 255, A: 255}}, {{B: 255, A: 255}, {R: 255, G: 255, B: 255, A: 255}}}[2*y/h][2*x/w]
			m.Set(x, y, c)
		}
	}
	return m
}

// shot is a JPEG as a camera writes it, held so.
func shot(t testing.TB, m image.Image, turned uint16) []byte {
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, m, &jpeg.Options{Quality: 95}))
	le := binary.LittleEndian
	tiff := le.AppendUint16([]byte("II*\x00\x08\x00\x00\x00"), 2)                                    // two fields
	tiff = le.AppendUint32(le.AppendUint16(le.AppendUint16(tiff, 0x010E), 2), uint32(len(secret)+1)) // a description
	tiff = le.AppendUint32(tiff, 8+2+2*12+4)
	tiff = le.AppendUint32(le.AppendUint16(le.AppendUint16(tiff, 0x0112), 3), 1) // how it was held
	tiff = le.AppendUint16(le.AppendUint16(tiff, turned), 0)
	tiff = append(le.AppendUint32(tiff, 0), secret+"\x00"...)
	body := append([]byte("Exif\x00\x00"), tiff...)
	head := binary.BigEndian.AppendUint16([]byte{0xFF, 0xD8, 0xFF, 0xE1}, uint16(len(body)+2))
	return append(append(head, body...), out.Bytes()[2:]...)
}

func at(m image.Image, x, y int) string {
	r, g, b, _ := m.At(x, y).RGBA()
	s := ""
	for _, c := range []uint32{r, g, b} {
		s += map[bool]string{true: "1", false: "0"}[c > 0x8000]
	}
	return map[string]string{"100": "red", "010": "green", "001": "blue", "111": "white"}[s]
}

// Whichever way the camera was held, the picture stands upright, and nothing is in
// its file but what it shows.
func TestAPictureIsUprightAndPlain(t *testing.T) {
	const w, h = 96, 64
	want := []string{ // the corners of what is kept: top left, top right, bottom left, bottom right
		"red green blue white", "green red white blue", "white blue green red", "blue white red green",
		"red blue green white", "blue red white green", "white green blue red", "green white red blue",
	}
	for i, corners := range want {
		file := shot(t, quarters(w, h), uint16(i+1))
		require.Contains(t, string(file), secret)
		p, err := picture.MakePlain(bytes.NewReader(file))
		require.NoError(t, err)
		assert.NotContains(t, string(p.JPEG), secret)
		assert.NotContains(t, string(p.JPEG), "Exif")
		assert.True(t, picture.IsPlain(bytes.NewReader(p.JPEG)))
		assert.False(t, picture.IsPlain(bytes.NewReader(file)), "a camera's notes are in it")
		m, err := jpeg.Decode(bytes.NewReader(p.JPEG))
		require.NoError(t, err)
		wide, high := w, h
		if i >= 4 {
			wide, high = h, w
		}
		assert.Equal(t, [4]int{wide, high, wide, high}, [4]int{p.Width, p.Height, m.Bounds().Dx(), m.Bounds().Dy()})
		got := []string{at(m, 8, 8), at(m, wide-8, 8), at(m, 8, high-8), at(m, wide-8, high-8)}
		assert.Equal(t, corners, strings.Join(got, " "), "held %d", i+1)
	}
}

func TestWhatIsNotPlain(t *testing.T) {
	var drawn bytes.Buffer
	require.NoError(t, png.Encode(&drawn, quarters(8, 8)))
	var plain bytes.Buffer
	require.NoError(t, jpeg.Encode(&plain, quarters(8, 8), nil))
	remarked := slices.Concat([]byte{0xFF, 0xD8, 0xFF, 0xFE, 0, 6}, []byte("here"), plain.Bytes()[2:])
	for name, file := range map[string][]byte{
		"a drawing": drawn.Bytes(), "a remark": remarked, "cut short": plain.Bytes()[:30], "a text": []byte("51.4779 N"), "nothing": nil,
	} {
		assert.False(t, picture.IsPlain(bytes.NewReader(file)), name)
	}
	assert.True(t, picture.IsPlain(bytes.NewReader(plain.Bytes())))
}

func TestALargePictureIsMadeSmaller(t *testing.T) {
	for _, c := range []struct{ w, h, wide, high int }{
		{picture.LongSide, 40, picture.LongSide, 40},
		{2 * picture.LongSide, 40, picture.LongSide, 20},
		{10, picture.LongSide + 1, 10, picture.LongSide},
		{1, 4 * picture.LongSide, 1, picture.LongSide},
	} {
		p, err := picture.MakePlain(bytes.NewReader(shot(t, quarters(c.w, c.h), 1)))
		require.NoError(t, err)
		assert.Equal(t, []int{c.wide, c.high}, []int{p.Width, p.Height}, "%d × %d", c.w, c.h)
	}
}

// What can't be seen through is on white, not on black.
func TestWhatIsClearIsWhite(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, png.Encode(&out, image.NewNRGBA(image.Rect(0, 0, 40, 40))))
	p, err := picture.MakePlain(bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	m, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	require.NoError(t, err)
	assert.Equal(t, "white", at(m, 20, 20))
}

// frame is the start of a JPEG of that size; nothing of the picture follows.
func frame(marker byte, w, h int, sampling ...byte) []byte {
	b := []byte{0xFF, 0xD8, 0xFF, marker, 0, byte(8 + 3*len(sampling)), 8, byte(h >> 8), byte(h), byte(w >> 8), byte(w), byte(len(sampling))}
	for i, s := range sampling {
		b = append(b, byte(i+1), s, 0)
	}
	return b
}

// header is the start of a PNG of that size.
func header(w, h uint32, depth, colours, interlaced byte) []byte {
	b := []byte("\x89PNG\r\n\x1a\n\x00\x00\x00\x0dIHDR")
	b = binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(b, w), h)
	return append(b, depth, colours, 0, 0, interlaced, 0, 0, 0, 0)
}

// A file is weighed by its first bytes: one that would take more memory than there
// is, is never unpacked.
func TestAPictureIsWeighedFirst(t *testing.T) {
	camera := []byte{0x22, 0x11, 0x11}
	for name, c := range map[string]struct {
		file []byte
		fits bool
	}{
		"a camera's 40 million pixels":    {frame(0xC0, 8000, 5000, camera...), true},
		"one of 42 million":               {frame(0xC0, 8000, 5280, camera...), false},
		"all its colours, 20 million":     {frame(0xC0, 5568, 3712, 0x11, 0x11, 0x11), true},
		"all its colours, 21 million":     {frame(0xC0, 5632, 3776, 0x11, 0x11, 0x11), false},
		"in passes, 8 million":            {frame(0xC2, 3264, 2448, camera...), true},
		"in passes, 40 million":           {frame(0xC2, 8000, 5000, camera...), false},
		"for print, 10 million":           {frame(0xC0, 3648, 2736, 0x11, 0x11, 0x11, 0x11), false},
		"a screen's PNG":                  {header(3840, 2160, 8, 6, 0), true},
		"a PNG of 16 million pixels":      {header(4608, 3456, 8, 6, 0), false},
		"a deep PNG of 12 million pixels": {header(4000, 3000, 16, 2, 0), false},
		"an interlaced one of 10 million": {header(4000, 2500, 8, 2, 1), false},
		"a palette's 49 million":          {header(7000, 7000, 8, 3, 0), true},
		"a bomb":                          {header(1<<31, 1<<31, 8, 6, 0), false},
	} {
		h, err := picture.Look(bytes.NewReader(c.file))
		require.NoError(t, err, name)
		assert.Equal(t, c.fits, h.Memory() <= picture.Memory, "%s: %d MB", name, h.Memory()>>20)
		_, err = picture.MakePlain(bytes.NewReader(c.file))
		var wrong picture.WrongError
		require.ErrorAs(t, err, &wrong, name)
		assert.Equal(t, !c.fits, strings.Contains(wrong.Error(), "too large to be unpacked"), "%s: %s", name, wrong)
	}
}

func TestWhatIsNoPictureSaysSo(t *testing.T) {
	whole := shot(t, quarters(64, 64), 1)
	for name, c := range map[string]struct{ file, says string }{
		"nothing":        {"", "no photograph"},
		"a text":         {"<svg xmlns='http://www.w3.org/2000/svg'></svg>", "no photograph"},
		"half of one":    {string(whole[:len(whole)/2]), "damaged"},
		"only its start": {string(whole[:40]), "damaged"},
		"no frame":       {"\xff\xd8\xff\xda\x00\x02 and so on", "damaged"},
		"no size":        {string(frame(0xC0, 0, 10, 0x11)), "damaged"},
	} {
		_, err := picture.MakePlain(strings.NewReader(c.file))
		var wrong picture.WrongError
		require.ErrorAs(t, err, &wrong, name)
		assert.Contains(t, wrong.Error(), c.says, name)
	}
}

// Whatever arrives is a picture, or is refused with a sentence, within the memory
// that its start tells.
func FuzzMakePlain(f *testing.F) {
	f.Add(shot(f, quarters(32, 32), 6))
	f.Add(frame(0xC2, 20, 20, 0x22, 0x11, 0x11))
	f.Add(header(20, 20, 8, 6, 1))
	f.Fuzz(func(t *testing.T, file []byte) {
		if h, err := picture.Look(bytes.NewReader(file)); err == nil && h.Memory() > 4<<20 {
			return // slow, not wrong
		}
		p, err := picture.MakePlain(bytes.NewReader(file))
		if err == nil && (len(p.JPEG) == 0 || max(p.Width, p.Height) > picture.LongSide) {
			t.Errorf("kept as %d × %d with %d bytes", p.Width, p.Height, len(p.JPEG))
		}
		if err != nil && err.Error() == "" {
			t.Error("refused without a sentence")
		}
	})
}

func ExampleMakePlain() {
	var file bytes.Buffer
	_ = png.Encode(&file, image.NewGray(image.Rect(0, 0, 4096, 20)))
	p, err := picture.MakePlain(bytes.NewReader(file.Bytes()))
	fmt.Println(p.Width, p.Height, err)
	// Output: 2048 10 <nil>
}
