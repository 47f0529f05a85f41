package server

import (
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/methods"
)

func TestTheHandbookIsServedInThePracticesWords(t *testing.T) {
	p := newPractice(t)
	p.words.Vehicle, p.words.Sides = "float", "left and right"
	p.fill("ash")
	p.signIn("ash@example.org", password)
	var page methods.HandbookPage
	p.ask(http.MethodGet, "/api/handbook/README", nil).into(&page)
	require.Len(t, page.Parts, 11)
	assert.Equal(t, "README", page.Parts[0].Key)
	assert.Equal(t, "10-pen-and-sensor", page.Parts[10].Key, "in their order, not that of the letters")
	assert.Contains(t, page.HTML, `href="/methods/handbook/1-the-work"`)
	for _, part := range page.Parts {
		var one methods.HandbookPage
		p.ask(http.MethodGet, "/api/handbook/"+part.Key, nil).into(&one)
		assert.NotContains(t, one.Title, "#")
		assert.NotContains(t, one.HTML, "style=", "no page brings its own style")
		assert.NotContains(t, one.HTML, "<script")
		outside := one.HTML
		for strings.Contains(outside, "<code>") {
			before, rest, _ := strings.Cut(outside, "<code>")
			_, after, _ := strings.Cut(rest, "</code>")
			outside = before + after
		}
		assert.NotContains(t, strings.ToLower(outside), "trailer", "%s speaks of the practice's float", part.Key)
	}
	var work methods.HandbookPage
	p.ask(http.MethodGet, "/api/handbook/1-the-work", nil).into(&work)
	assert.Contains(t, work.HTML, "Float loading and unloading")
	var ladders methods.HandbookPage
	p.ask(http.MethodGet, "/api/handbook/5-ladders", nil).into(&ladders)
	assert.Contains(t, ladders.HTML, "<table>")
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/handbook/11-nothing", nil).Code)
	p.cookie = nil
	assert.Equal(t, http.StatusUnauthorized, p.ask(http.MethodGet, "/api/handbook/README", nil).Code)
}

// The handbook's links lead to its own parts, and each part has a file.
func TestTheHandbookIsWhole(t *testing.T) {
	names, err := filepath.Glob("../docs/handbook/*.md")
	require.NoError(t, err)
	require.Len(t, names, 11)
	contents, err := os.ReadFile("../docs/handbook/README.md")
	require.NoError(t, err)
	for _, name := range names {
		if base := filepath.Base(name); base != "README.md" {
			assert.Contains(t, string(contents), "("+base+")")
		}
	}
}
