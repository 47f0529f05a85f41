package server

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A stranger makes up requests from the API's own description, and spoils them.
type stranger struct {
	*rand.Rand
	schemas map[string]any
	ids     []string
}

// odd are values that are rarely thought of.
var odd = []any{
	nil, true, "", " ", "\x00", "a\x00b", "\ufffd\u202e", "urn:uuid:0197c0de-0000-7000-8000-000000000001", "{0197c0de-0000-7000-8000-000000000001}", "2026-02-30", "0000-00-00",
	"9999-12-31", "../../etc/passwd", "'; DROP TABLE horses; --", strings.Repeat("x", 5000), strings.Repeat("é", 130), -1, 0, 1, 1e3, -1e18, 9e18, 1e300, math.MaxInt64, 0.1, "NaN",
	[]any{}, map[string]any{}, []any{nil}, map[string]any{"": nil}, map[string]any{"\x00": 1}, "Local", "build and release", "load.first", "🐴",
}

func (s stranger) oneOf(list []any) any { return list[s.IntN(len(list))] }

// value makes up what a schema describes, seldom something else.
func (s stranger) value(schema map[string]any, depth int) any {
	if s.IntN(25) == 0 || depth > 8 {
		return s.oneOf(odd)
	}
	if ref, ok := schema["$ref"].(string); ok {
		return s.value(s.schemas[ref[strings.LastIndex(ref, "/")+1:]].(map[string]any), depth)
	}
	if words, ok := schema["enum"].([]any); ok {
		return s.oneOf(words)
	}
	kind := schema["type"]
	if kinds, ok := kind.([]any); ok {
		kind = kinds[s.IntN(len(kinds))]
	}
	switch kind {
	case "object":
		return s.object(schema, depth)
	case "array":
		list := []any{}
		for range s.IntN(4) {
			list = append(list, s.value(schema["items"].(map[string]any), depth+1))
		}
		return list
	case "integer", "number":
		lo, hi := 0.0, 20.0
		if n, ok := schema["minimum"].(float64); ok {
			lo = n
		}
		if n, ok := schema["maximum"].(float64); ok {
			hi = n
		}
		return math.Floor(lo + s.Float64()*(hi-lo))
	case "boolean":
		return s.IntN(2) == 0
	case "null":
		return nil
	case "string":
		return s.text(schema)
	}
	return s.oneOf(odd)
}

func (s stranger) object(schema map[string]any, depth int) any {
	made := map[string]any{}
	fields, _ := schema["properties"].(map[string]any)
	required, _ := schema["required"].([]any)
	for _, name := range slices.Sorted(maps.Keys(fields)) {
		if slices.Contains(required, any(name)) && s.IntN(20) > 0 || s.IntN(3) == 0 {
			made[name] = s.value(fields[name].(map[string]any), depth+1)
		}
	}
	if more, ok := schema["additionalProperties"].(map[string]any); ok {
		for range s.IntN(3) {
			made[fmt.Sprint(s.oneOf([]any{"load", "load.first", "mouth", "loading", "near shoulder", "x", ""}))] = s.value(more, depth+1)
		}
	}
	if s.IntN(40) == 0 {
		made[fmt.Sprint(s.oneOf(odd))] = s.oneOf(odd)
	}
	return made
}

func (s stranger) text(schema map[string]any) any {
	if schema["format"] == "uuid" {
		if s.IntN(3) == 0 {
			return uuid.NewString()
		}
		return s.ids[s.IntN(len(s.ids))]
	}
	return s.oneOf([]any{"x", "2026-06-01", "2026-05-20", "Europe/London", "lead.forward", "load", "body/back/state", "suspect", s.ids[s.IntN(len(s.ids))], "wren@example.org", "tablet"})
}

// spoilt is a body's text, seldom cut off or garbled.
func (s stranger) spoilt(body any) string {
	text, err := json.Marshal(body)
	if err != nil {
		return "{"
	}
	switch s.IntN(30) {
	case 0:
		return string(text[:s.IntN(len(text)+1)])
	case 1:
		text[s.IntN(len(text))] = byte(s.IntN(256))
	case 2:
		return strings.Repeat("[", 20_000)
	}
	return string(text)
}

// Requests are sent in rounds, each to a fresh practice and with chances of its
// own: a few in every run, a million requests in the long trials, bounded by
// time.
const (
	perRound    = 1_000
	shortRounds = 5
	longRounds  = 1_000
	longest     = 45 * time.Minute
)

// Whatever is sent, the server answers with something below 500, and in time, and
// its database stays whole.
func TestFuzzedRequests(t *testing.T) {
	rounds, until := shortRounds, time.Now().Add(longest)
	if os.Getenv("SOAK") != "" {
		rounds = longRounds
	}
	sent := int64(0)
	for i := range rounds {
		t.Run(fmt.Sprint(i+1), func(t *testing.T) {
			if time.Now().Before(until) {
				sent += fuzzedRound(t, uint64(i+1))
			}
		})
	}
	t.Logf("%d requests", sent)
}

func fuzzedRound(t *testing.T, seed uint64) (sent int64) {
	p, named := everything(t)
	text, err := p.OpenAPI()
	require.NoError(t, err)
	var doc struct {
		Paths      map[string]map[string]map[string]any `json:"paths"`
		Components struct {
			Schemas map[string]any `json:"schemas"`
		} `json:"components"`
	}
	require.NoError(t, json.Unmarshal(text, &doc))
	s := stranger{rand.New(rand.NewPCG(14, seed)), doc.Components.Schemas, nil}
	for _, what := range slices.Sorted(maps.Keys(named)) {
		s.ids = append(s.ids, named[what])
	}
	ops, codes, last := p.described(), map[int]int64{}, 0
	for ; sent < perRound; sent++ {
		op := ops[s.IntN(len(ops))]
		if slices.Contains([]string{"invite", "resetUser", "changePassword", "signIn", "signOutEverywhere", "activateUser"}, op.id) && s.IntN(30) > 0 {
			continue // they hash, which is slow on purpose, or end everything
		}
		r := p.madeUp(s, op, doc.Paths[op.path][strings.ToLower(op.method)], named)
		if sent == 0 || last == http.StatusUnauthorized || op.id == "signOut" {
			p.comesAs(p.actor.Practice, p.actor.User)
		}
		r.AddCookie(p.cookie)
		w := httptest.NewRecorder()
		ctx, cancel := context.WithTimeout(r.Context(), time.Minute)
		p.ServeHTTP(w, r.WithContext(ctx))
		require.NoError(t, ctx.Err(), "it hangs: %s %s", r.Method, r.URL)
		cancel()
		last = w.Code
		codes[last]++
		require.Less(t, last, 500, "seed %d: %s %s\n%s\n%s", seed, r.Method, r.URL, r.Header.Get("X-Body"), w.Body)
	}
	db, err := sql.Open("sqlite", "file:"+strings.TrimSuffix(p.folder, ".photographs"))
	require.NoError(t, err)
	defer func() { assert.NoError(t, db.Close()) }()
	whole := ""
	require.NoError(t, db.QueryRow("PRAGMA integrity_check").Scan(&whole))
	assert.Equal(t, "ok", whole)
	assert.Greater(t, codes[http.StatusOK], sent/5, "it is let in often enough to do harm: %v", codes)
	return sent
}

// madeUp is one made-up request of an operation.
func (p *practice) madeUp(s stranger, op operation, described map[string]any, named map[string]string) *http.Request {
	path, query := op.path, url.Values{}
	parameters, _ := described["parameters"].([]any)
	for _, raw := range parameters {
		one := raw.(map[string]any)
		v := fmt.Sprint(s.value(one["schema"].(map[string]any), 0))
		if own := named[strings.Split(op.path+"/", "/")[2]]; one["name"] == "id" && own != "" && s.IntN(4) > 0 {
			v = own
		}
		if one["in"] == "path" {
			path = strings.Replace(path, "{"+one["name"].(string)+"}", url.PathEscape(v), 1)
		} else if one["in"] == "query" && s.IntN(2) == 0 {
			query.Set(one["name"].(string), v)
		}
	}
	body := ""
	if content, ok := described["requestBody"].(map[string]any); ok {
		for kind, c := range content["content"].(map[string]any) {
			if kind == "application/json" {
				body = s.spoilt(s.value(c.(map[string]any)["schema"].(map[string]any), 0))
			} else if body = drawn(p.t, "png", nil); s.IntN(2) == 0 {
				body = body[:s.IntN(len(body))]
			}
		}
	}
	if len(query) > 0 {
		path += "?" + query.Encode()
	}
	r := httptest.NewRequest(op.method, path, strings.NewReader(body))
	r.RemoteAddr = p.from
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("X-Body", body[:min(len(body), 4000)])
	return r
}
