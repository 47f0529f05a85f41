package picture

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"

	"github.com/bep/imagemeta"
)

// A Header is what the first bytes of a picture's file say of it.
type Header struct {
	Width, Height int
	kind          imagemeta.ImageFormat
	perPixel      float64 // bytes that unpacking takes for each pixel
}

// Memory is what unpacking the picture takes, in bytes.
func (h Header) Memory() int64 {
	// Whole blocks are unpacked, of up to 32 by 32 pixels.
	block := func(n int) float64 { return float64((n + 31) / 32 * 32) }
	return int64(block(h.Width) * block(h.Height) * h.perPixel)
}

// fits is how many pixels of a picture of this kind can be unpacked.
func (h Header) fits() int64 { return int64(Memory / h.perPixel) }

// Look reads what the file of a JPEG or a PNG says of itself, and no picture.
func Look(file io.ReadSeeker) (Header, error) {
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return Header{}, fmt.Errorf("reading a picture: %w", err)
	}
	var start [8]byte
	if _, err := io.ReadFull(file, start[:]); err != nil {
		return Header{}, noPicture
	}
	var h Header
	var err error
	switch {
	case string(start[:]) == "\x89PNG\r\n\x1a\n":
		h, err = lookPNG(file)
	case start[0] == 0xFF && start[1] == 0xD8:
		if _, err := file.Seek(2, io.SeekStart); err != nil {
			return Header{}, fmt.Errorf("reading a picture: %w", err)
		}
		h, err = lookJPEG(file)
	default:
		return Header{}, noPicture
	}
	if err != nil || h.Width <= 0 || h.Height <= 0 {
		return Header{}, damaged
	}
	return h, nil
}

func lookPNG(file io.Reader) (Header, error) {
	var chunk [25]byte // length, "IHDR", width, height, depth, colour, …, interlace
	if _, err := io.ReadFull(file, chunk[:]); err != nil || string(chunk[4:8]) != "IHDR" {
		return Header{}, damaged
	}
	width, height := binary.BigEndian.Uint32(chunk[8:]), binary.BigEndian.Uint32(chunk[12:])
	if width > 1<<20 || height > 1<<20 {
		width, height = 1<<20, 1<<20
	}
	depth, colours, interlaced := chunk[16], chunk[17], chunk[20] != 0
	per := 4.0
	switch {
	case depth == 16:
		per = 8
	case colours == 3: // a palette
		per = 1
	}
	if interlaced {
		per *= 2 // its passes are unpacked beside it
	}
	return Header{int(width), int(height), imagemeta.PNG, per}, nil
}

var errNoFrame = errors.New("no frame")

// lookJPEG reads the markers up to the one that tells of the frame.
func lookJPEG(file io.ReadSeeker) (Header, error) {
	rgb := false
	for {
		marker, size, err := nextMarker(file)
		if err != nil {
			return Header{}, err
		}
		switch {
		case marker == 0xD9 || marker == 0xDA:
			return Header{}, errNoFrame
		case marker == 0xEE && size >= 12: // Adobe's, which says whether the colours are transformed
			var body [12]byte
			if _, err := io.ReadFull(file, body[:]); err != nil {
				return Header{}, err
			}
			rgb = string(body[:5]) == "Adobe" && body[11] == 0
			size -= 12
		case marker >= 0xC0 && marker <= 0xC2:
			return lookFrame(file, size, marker == 0xC2, rgb)
		}
		if _, err := file.Seek(size, io.SeekCurrent); err != nil {
			return Header{}, err
		}
	}
}

// nextMarker reads a marker and how much follows it.
func nextMarker(file io.Reader) (marker byte, size int64, err error) {
	var b [1]byte
	for b[0] != 0xFF {
		if _, err := io.ReadFull(file, b[:]); err != nil {
			return 0, 0, err
		}
	}
	for b[0] == 0xFF {
		if _, err := io.ReadFull(file, b[:]); err != nil {
			return 0, 0, err
		}
	}
	marker = b[0]
	if marker == 0 || marker == 0x01 || marker >= 0xD0 && marker <= 0xD9 {
		return marker, 0, nil
	}
	var length [2]byte
	if _, err := io.ReadFull(file, length[:]); err != nil {
		return 0, 0, err
	}
	return marker, max(0, int64(binary.BigEndian.Uint16(length[:]))-2), nil
}

// lookFrame reads how large a frame is and how its colours are kept.
func lookFrame(file io.Reader, size int64, progressive, rgb bool) (Header, error) {
	body := make([]byte, min(size, 6+4*3))
	if _, err := io.ReadFull(file, body); err != nil || len(body) < 9 {
		return Header{}, errNoFrame
	}
	parts := int(body[5])
	if parts < 1 || parts > 4 || len(body) < 6+3*parts {
		return Header{}, errNoFrame
	}
	most, sum := 1, 0
	for i := range parts {
		sampling := body[6+3*i+1]
		area := int(sampling>>4) * int(sampling&15)
		most, sum = max(most, area), sum+area
		rgb = rgb || parts == 3 && body[6] == 'R' && body[9] == 'G'
	}
	per := float64(sum) / float64(most)
	if progressive {
		per *= 5 // its coefficients, of four bytes each, beside it
	}
	if parts == 4 || rgb {
		per += 4 // its colours are put together beside it
	}
	return Header{
		Width: int(binary.BigEndian.Uint16(body[3:])), Height: int(binary.BigEndian.Uint16(body[1:])), kind: imagemeta.JPEG, perPixel: per,
	}, nil
}

// IsPlain reports whether a file is a JPEG with nothing in it but what it shows, as MakePlain
// makes them: no notes of a camera, which may tell where it was taken.
func IsPlain(file io.ReadSeeker) bool {
	h, err := Look(file)
	if err != nil || h.kind != imagemeta.JPEG {
		return false
	}
	if _, err := file.Seek(2, io.SeekStart); err != nil {
		return false
	}
	for {
		marker, size, err := nextMarker(file)
		switch {
		case err != nil, marker >= 0xE1 && marker <= 0xEF, marker == 0xFE:
			return false
		case marker == 0xDA:
			return true
		}
		if _, err := file.Seek(size, io.SeekCurrent); err != nil {
			return false
		}
	}
}
