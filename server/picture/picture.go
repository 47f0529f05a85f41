// Package picture makes a photograph plain: the same picture, smaller where it is
// large, the right way up, and without what cameras write into its file: where it
// was taken, with what, by whom. What a file says of itself is not believed, and
// none is unpacked that would take more memory than there is.
package picture

import (
	"bufio"
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	_ "image/png" // the other kind that is read
	"io"

	"github.com/bep/imagemeta"
	"golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
)

// Memory is the most that unpacking one picture may take, in bytes: enough for 40
// million pixels of an ordinary camera. LongSide is the longest side of a picture
// that is kept, in pixels: marks on a horse can be seen on it.
const (
	Memory   = 60 << 20
	LongSide = 2048
	quality  = 85
)

// A WrongError says in a sentence why a file can't be kept, and what to do.
type WrongError string

func (e WrongError) Error() string { return string(e) }

const (
	noPicture = WrongError("This is no photograph that can be kept. Take a JPEG or a PNG.")
	damaged   = WrongError("This picture is damaged and can't be shown. Take it again, or choose another.")
)

// A Plain picture is a JPEG with nothing in it but what it shows.
type Plain struct {
	JPEG          []byte
	Width, Height int
}

// MakePlain reads a JPEG or a PNG. A WrongError says what is wrong with it. One
// call takes Memory and some 30 MB beside it, so that callers take turns.
func MakePlain(file io.ReadSeeker) (Plain, error) {
	h, err := Look(file)
	if err != nil {
		return Plain{}, err
	}
	if h.Memory() > Memory {
		return Plain{}, WrongError(fmt.Sprintf("This picture is too large to be unpacked here: it has %d × %d pixels. Take one of up to %d million pixels, or make it smaller first.", h.Width, h.Height, h.fits()/1_000_000))
	}
	turned := orientation(file, h.kind)
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return Plain{}, fmt.Errorf("reading a picture: %w", err)
	}
	from, _, err := image.Decode(bufio.NewReader(file))
	if err != nil {
		return Plain{}, damaged
	}
	to := upright(from, turned)
	var out bytes.Buffer
	if err := jpeg.Encode(&out, to, &jpeg.Options{Quality: quality}); err != nil {
		return Plain{}, fmt.Errorf("writing a picture: %w", err)
	}
	return Plain{JPEG: out.Bytes(), Width: to.Bounds().Dx(), Height: to.Bounds().Dy()}, nil
}

// orientation is how the camera was held, 1 to 8, as its file says; 1: upright, or
// it does not say.
func orientation(file io.ReadSeeker, kind imagemeta.ImageFormat) int {
	turned := 1
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return turned
	}
	_, err := imagemeta.Decode(imagemeta.Options{
		R: file, ImageFormat: kind, Sources: imagemeta.EXIF,
		ShouldHandleTag: func(tag imagemeta.TagInfo) bool { return tag.Tag == "Orientation" && tag.Namespace == "IFD0" },
		HandleTag: func(tag imagemeta.TagInfo) error {
			if n, ok := tag.Value.(uint16); ok && n >= 1 && n <= 8 {
				turned = int(n)
			}
			return imagemeta.ErrStopWalking
		},
	})
	if err != nil && !errors.Is(err, imagemeta.ErrStopWalking) {
		return turned // what is written there can't be read; the picture may be
	}
	return turned
}

// upright draws a picture the right way up, on white, no longer than LongSide.
func upright(from image.Image, turned int) *image.RGBA {
	w, h := float64(from.Bounds().Dx()), float64(from.Bounds().Dy())
	f := min(1, LongSide/max(w, h))
	width, height := max(1, int(w*f+0.5)), max(1, int(h*f+0.5))
	fx, fy := float64(width)/w, float64(height)/h
	m := [8]f64.Aff3{
		{fx, 0, 0, 0, fy, 0},
		{-fx, 0, w * fx, 0, fy, 0},
		{-fx, 0, w * fx, 0, -fy, h * fy},
		{fx, 0, 0, 0, -fy, h * fy},
		{0, fy, 0, fx, 0, 0},
		{0, -fy, h * fy, fx, 0, 0},
		{0, -fy, h * fy, -fx, 0, w * fx},
		{0, fy, 0, -fx, 0, w * fx},
	}[turned-1]
	if turned >= 5 {
		width, height = height, width
	}
	to := image.NewRGBA(image.Rect(0, 0, width, height))
	draw.Draw(to, to.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	draw.ApproxBiLinear.Transform(to, m, from, from.Bounds(), draw.Over, nil)
	return to
}
