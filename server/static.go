package server

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"runtime/debug"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"ivorybridge/server/api"
)

func (s *Server) logging(g *gin.Context) {
	start := time.Now() // a duration, not the time of day
	g.Next()
	at := g.Request.URL.Path
	for _, opens := range []string{"/api/calendar/", "/api/letters/stop/"} {
		if strings.HasPrefix(at, opens) {
			at = opens + "…" // its address is what opens it
		}
	}
	s.Log.InfoContext(g, "request", "method", g.Request.Method, "path", at,
		"status", g.Writer.Status(), "took", time.Since(start))
}

// recovery answers a panic with a problem, and logs where it came from.
func (s *Server) recovery(g *gin.Context) {
	defer func() {
		if what := recover(); what != nil {
			s.Log.ErrorContext(g, "panic", "what", what, "stack", string(debug.Stack()))
			api.WriteProblem(g, http.StatusInternalServerError, "Something went wrong on our side. Nothing was half-saved. Try again.")
		}
	}()
	g.Next()
}

// typeOf is the type of a file by its name, as every machine tells it.
func typeOf(name string) string {
	if strings.HasSuffix(name, ".webmanifest") {
		return "application/manifest+json"
	}
	return mime.TypeByExtension(path.Ext(name))
}

// encodings are the forms in which the build keeps its files, the smallest first.
var encodings = []struct{ name, suffix string }{{"br", ".br"}, {"gzip", ".gz"}}

// file sends one file of the front end, as the build compressed it; false if
// there is none.
func (s *Server) file(g *gin.Context, name string) bool {
	send := func(body []byte) bool {
		if isAsset(name) {
			g.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		g.Data(http.StatusOK, typeOf(name), body)
		return true
	}
	if body, err := fs.ReadFile(s.Web, name); err == nil {
		return send(body)
	}
	g.Header("Vary", "Accept-Encoding")
	accepted := g.GetHeader("Accept-Encoding")
	for _, e := range encodings {
		if !strings.Contains(accepted, e.name) {
			continue
		}
		if body, err := fs.ReadFile(s.Web, name+e.suffix); err == nil {
			g.Header("Content-Encoding", e.name)
			return send(body)
		}
	}
	packed, err := s.Web.Open(name + ".gz")
	if err != nil {
		return false
	}
	defer func() { _ = packed.Close() }() // only read from
	plain, err := gzip.NewReader(packed)
	if err != nil {
		return false
	}
	body, err := io.ReadAll(plain)
	return err == nil && send(body)
}

// isAsset reports whether a file is named by its content.
func isAsset(name string) bool {
	return strings.HasPrefix(name, "assets/") || strings.HasPrefix(name, "o/assets/")
}

// page is an index that a place of the front end is answered with.
type page struct {
	body []byte
	etag string
}

func (s *Server) page(name string) page {
	index, err := fs.ReadFile(s.Web, name)
	if err != nil {
		index = []byte("<!doctype html><title>Ivory Bridge</title><p>The front end is not built. Run make build.")
	}
	sum := sha256.Sum256(index)
	return page{index, `"` + hex.EncodeToString(sum[:8]) + `"`}
}

// files serves the front end: the trainers', and under /o the owners'. What is no
// file is one of its places, except under /api.
func (s *Server) files() gin.HandlerFunc {
	trainers, owners := s.page("index.html"), s.page("o/index.html")
	return func(g *gin.Context) {
		name := strings.TrimPrefix(path.Clean(g.Request.URL.Path), "/")
		switch {
		case strings.HasPrefix(name, "api/"), name == "api":
			api.WriteProblem(g, http.StatusNotFound, "There is nothing here.")
			return
		case g.Request.Method != http.MethodGet && g.Request.Method != http.MethodHead:
			api.WriteProblem(g, http.StatusMethodNotAllowed, "That can't be done here.")
			return
		}
		index := trainers
		if name == "o" || strings.HasPrefix(name, "o/") {
			index = owners
		}
		if name != "index.html" && name != "o/index.html" && s.file(g, name) {
			return
		}
		if isAsset(name) {
			api.WriteProblem(g, http.StatusNotFound, "There is nothing here.")
			return
		}
		g.Header("Cache-Control", "no-cache")
		g.Header("ETag", index.etag)
		g.Header("Content-Type", "text/html; charset=utf-8")
		http.ServeContent(g.Writer, g.Request, "", time.Time{}, bytes.NewReader(index.body))
	}
}
