package archive_test

import (
	"bytes"
	"context"
	"io"
	"testing"

	"ivorybridge/demo"
	"ivorybridge/store/archive"
)

// large is a practice of 200 horses with 40 sessions each.
var large = demo.Size{Horses: 200, Sessions: 40, Entries: 30, Seed: 1}

func BenchmarkOut(b *testing.B) {
	s, id := invented(b, large)
	for b.Loop() {
		if _, err := archive.Write(context.Background(), s.Path(), id, archive.Scope{}, now, io.Discard); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkIn(b *testing.B) {
	s, id := invented(b, large)
	whole := out(b, s, id)
	b.ReportMetric(float64(len(whole)), "bytes")
	for b.Loop() {
		if _, err := archive.Read(context.Background(), bytes.NewReader(whole), int64(len(whole)), archive.Into{Store: open(b)}); err != nil {
			b.Fatal(err)
		}
	}
}
