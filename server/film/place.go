package film

import (
	"bytes"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"regexp"
)

// A Position says what became of the place where a film was filmed.
type Position string

// None was in the film; it was Removed; or it can't be looked for in such a film, or lies
// where it can't be taken out.
const (
	None      Position = "none"
	Removed   Position = "removed"
	NotLooked Position = "not looked"
)

// File is a film that is changed in its place.
type File interface {
	io.ReaderAt
	io.WriterAt
}

// written is a place as cameras write it: +54.4812-003.1234/.
var written = regexp.MustCompile(`[+-]\d{2,6}(\.\d+)?[+-]\d{3,7}(\.\d+)?([+-]\d+(\.\d+)?)?(CRS[A-Za-z0-9_]+)?/`)

// wiped are the boxes that hold nothing else, or what only tells of the filming.
var wiped = map[string]bool{"\xa9xyz": true, "loci": true, "XMP_": true, "gps ": true, "GPS ": true}

// within are the boxes that are looked into.
var within = map[string]bool{"moov": true, "trak": true, "udta": true, "mdia": true, "minf": true, "stbl": true}

// xmp marks a box of notes about a film.
var xmp, _ = hex.DecodeString("be7acfcb97a942e89c71999491e3afac")

// Plain takes the place where it was filmed out of a film. Nothing in it moves.
func Plain(f File, size int64, kind string) (Position, error) {
	if kind == WebM {
		return NotLooked, nil
	}
	p := placer{f: f, found: None}
	err := p.walk(box{end: size})
	if errors.Is(err, errBroken) {
		return NotLooked, nil
	}
	return p.found, err
}

type placer struct {
	f     File
	found Position
}

// walk looks into the boxes that may tell of a place.
func (p *placer) walk(in box) error {
	return each(p.f, in, func(b box) error {
		switch {
		case wiped[b.kind] || b.kind == "uuid" && p.is(b, xmp):
			return p.wipe(b)
		case b.kind == "meta":
			return p.blank(b)
		case within[b.kind]:
			return p.walk(b)
		case b.kind == "stsd":
			return p.sampled(b)
		}
		return nil
	})
}

func (p *placer) is(b box, mark []byte) bool {
	head := make([]byte, len(mark))
	_, err := p.f.ReadAt(head, b.at)
	return err == nil && bytes.Equal(head, mark)
}

// sampled notes a track that goes along with the pictures and tells of places.
func (p *placer) sampled(b box) error {
	text, err := content(p.f, &b)
	if err != nil {
		return err
	}
	for _, word := range []string{"gpmd", "camm", "location.ISO6709"} {
		if bytes.Contains(text, []byte(word)) {
			p.found = NotLooked
		}
	}
	return nil
}

// wipe makes free room of a box.
func (p *placer) wipe(b box) error {
	if _, err := p.f.WriteAt([]byte("free"), b.start+4); err != nil {
		return fmt.Errorf("taking the place out of a film: %w", err)
	}
	zeros := make([]byte, 32<<10)
	for at := b.at; at < b.end; at += int64(len(zeros)) {
		if _, err := p.f.WriteAt(zeros[:min(int64(len(zeros)), b.end-at)], at); err != nil {
			return fmt.Errorf("taking the place out of a film: %w", err)
		}
	}
	p.removed()
	return nil
}

// blank puts zeros for the digits of a place in a box of notes.
func (p *placer) blank(b box) error {
	text, err := content(p.f, &b)
	if err != nil {
		return err
	}
	for _, at := range written.FindAllIndex(text, -1) {
		told := false
		for i := at[0]; i < at[1]; i++ {
			if text[i] > '0' && text[i] <= '9' {
				text[i], told = '0', true
			}
		}
		if !told {
			continue // it was taken out before
		}
		if _, err := p.f.WriteAt(text[at[0]:at[1]], b.at+int64(at[0])); err != nil {
			return fmt.Errorf("taking the place out of a film: %w", err)
		}
		p.removed()
	}
	return nil
}

func (p *placer) removed() {
	if p.found == None {
		p.found = Removed
	}
}
