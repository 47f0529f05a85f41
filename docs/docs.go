// Package docs holds the handbook inside the program: the subject, as the rules
// have it.
package docs

import (
	"embed"
	"io/fs"
)

//go:embed handbook/*.md
var handbook embed.FS

// Handbook is the parts of the handbook, each a file.
func Handbook() (fs.FS, error) { return fs.Sub(handbook, "handbook") }
