// Package web holds the built front end inside the program.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files is the built front end, index.html at its root.
func Files() (fs.FS, error) { return fs.Sub(dist, "dist") }
