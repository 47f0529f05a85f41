// Package docs holds the handbook inside the program: the subject, as the rules
// have it; and the guide, with its pictures.
package docs

import (
	"embed"
	"io/fs"
)

//go:embed handbook/*.md
var handbook embed.FS

// Handbook is the parts of the handbook, each a file.
func Handbook() (fs.FS, error) { return fs.Sub(handbook, "handbook") }

//go:embed guide/*.md screenshots/*.png
var guide embed.FS

// Guide is the pages of the user's guide, each a file.
func Guide() (fs.FS, error) { return fs.Sub(guide, "guide") }

// Picture is a picture of the guide.
func Picture(name string) ([]byte, error) { return guide.ReadFile("screenshots/" + name + ".png") }

// LadderSchema is the JSON Schema of a ladder's file.
//
//go:embed ladder.schema.json
var LadderSchema string
