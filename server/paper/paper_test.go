package paper_test

import (
	"bytes"
	"fmt"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/server/paper"
)

func sheet(sentences int) paper.Sheet {
	s := paper.Sheet{Title: "Émile’s horse", Under: "Visit on 1 June 2026", Right: "Wren", At: time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC), Short: true}
	for _, key := range []string{"first", "short", "worked"} {
		section := report.Section{Key: key, Title: phrase.Of("report."+key, nil)}
		for i := range sentences {
			section.Sentences = append(section.Sentences, report.Sentence{ID: fmt.Sprint(key, i), Edited: strings.Repeat("She stood quietly. ", 4)})
		}
		section.Sentences = append(section.Sentences, report.Sentence{ID: key + "left", Edited: "LEFTOUT", Left: true})
		s.Doc.Sections = append(s.Doc.Sections, section)
	}
	for _, state := range (horse.StepState{}).All() {
		s.Doc.Bridge.Planks = append(s.Doc.Bridge.Planks, progress.Plank{State: state, Next: state == horse.Tried})
	}
	blocked := phrase.Of("report.first", nil)
	s.Doc.Bridge.Planks = append(s.Doc.Bridge.Planks, progress.Plank{Blocked: &blocked}, progress.Plank{Beyond: true})
	s.Doc.Figures = []report.Figure{{Label: phrase.Of("feel.light", nil), Before: phrase.Of("feel.firm", nil), After: phrase.Of("feel.light", nil), Means: phrase.Of("feel.light", nil)}}
	return s
}

func pages(t *testing.T, s paper.Sheet) (int, []byte) {
	t.Helper()
	file, err := paper.Write(s, phrase.English(phrase.Shipped))
	require.NoError(t, err)
	require.True(t, bytes.HasPrefix(file, []byte("%PDF-")))
	return len(regexp.MustCompile(`/Type /Page\b`).FindAll(file, -1)), file
}

func TestAVisitStandsOnOneSheet(t *testing.T) {
	few, file := pages(t, sheet(3))
	assert.Equal(t, 1, few)
	assert.Less(t, len(file), 300_000)
	assert.Contains(t, string(file), "/FontFile2", "its fonts are in it")
	assert.Contains(t, string(file), "/Title", "it has a title")
	assert.Contains(t, string(file), "/Lang (en-GB)")

	small, _ := pages(t, sheet(15))
	assert.Equal(t, 1, small, "the text is set smaller")
	many, file := pages(t, sheet(60))
	assert.Greater(t, many, 1, "and never too small to be read")
	assert.Less(t, len(file), 300_000)

	long := sheet(15)
	long.Short = false
	loose, _ := pages(t, long)
	assert.Equal(t, 2, loose)
}

func TestTheSameIsPrintedTheSame(t *testing.T) {
	_, one := pages(t, sheet(5))
	_, two := pages(t, sheet(5))
	assert.Equal(t, len(one), len(two))
}

func ExampleWrite() {
	file, err := paper.Write(paper.Sheet{Title: "Moth", At: time.Date(2026, 6, 1, 9, 0, 0, 0, time.UTC)}, phrase.English(phrase.Shipped))
	fmt.Println(string(file[:5]), err)
	// Output: %PDF- <nil>
}

func BenchmarkWrite(b *testing.B) {
	s, book := sheet(15), phrase.English(phrase.Shipped)
	for b.Loop() {
		if _, err := paper.Write(s, book); err != nil {
			b.Fatal(err)
		}
	}
}
