package server

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/base64"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/horse"
	"ivorybridge/server/clips"
	"ivorybridge/server/sessions"
	"ivorybridge/store"
)

// boxed is a box of a film.
func boxed(kind string, parts ...[]byte) []byte {
	whole := slices.Concat(parts...)
	return slices.Concat(binary.BigEndian.AppendUint32(nil, uint32(len(whole)+8)), []byte(kind), whole)
}

func numbers(list ...uint32) (b []byte) {
	for _, n := range list {
		b = binary.BigEndian.AppendUint32(b, n)
	}
	return b
}

// aFilm is one of so many bytes of pictures, at 25 frames a second, that tells where it was
// filmed.
func aFilm(size int) []byte {
	pictures := make([]byte, size)
	for i := range pictures {
		pictures[i] = byte(rand.Uint32())
	}
	return slices.Concat(boxed("ftyp", []byte("isom"), numbers(0)), boxed("moov",
		boxed("mvhd", numbers(0, 0, 0, 1000, 0)),
		boxed("trak", boxed("mdia", boxed("mdhd", numbers(0, 0, 0, 25, 50, 0)), boxed("hdlr", numbers(0, 0), []byte("vide"), numbers(0)),
			boxed("minf", boxed("stbl", boxed("stts", numbers(0, 1, 50, 1)))))),
		boxed("udta", boxed("\xa9xyz", numbers(0x1a15c7), []byte("+54.4812-003.1234/")))), boxed("mdat", pictures))
}

// line is a line to a server over which a clip is sent as a browser sends it.
type line struct {
	*practice
	to     *httptest.Server
	under  string
	bearer string // a private link's token; empty: the signed-in user
}

func (p *practice) line() *line {
	l := &line{practice: p, to: httptest.NewServer(p.Server), under: "/api/clips/arriving"}
	p.t.Cleanup(l.to.Close)
	return l
}

// filmed sends a film whole and gives its id.
func (l *line) filmed(film []byte) string {
	l.practice.t.Helper()
	id := uuid.NewString()
	require.Equal(l.practice.t, http.StatusNoContent, l.sends(l.begins(id, len(film), nil).Header.Get("Location"), film, len(film)))
	return id
}

func (l *line) asks(method, path string, header map[string]string, body io.Reader) *http.Response {
	l.t.Helper()
	r, err := http.NewRequestWithContext(context.Background(), method, l.to.URL+path, body)
	require.NoError(l.t, err)
	r.Header.Set("Tus-Resumable", "1.0.0")
	for k, v := range header {
		r.Header.Set(k, v)
	}
	if l.bearer != "" {
		r.Header.Set("Authorization", "Bearer "+l.bearer)
	} else if l.cookie != nil {
		r.AddCookie(l.cookie)
	}
	a, err := l.to.Client().Do(r)
	if err != nil {
		return &http.Response{Body: http.NoBody} // the line was cut
	}
	l.t.Cleanup(func() { _ = a.Body.Close() })
	return a
}

// begins says that a film of a size is coming.
func (l *line) begins(id string, size int, change map[string]string) *http.Response {
	said := map[string]string{"clip": id, "horse": l.horse, "name": "walks past", "on": "2026-06-01"}
	for k, v := range change {
		said[k] = v
	}
	var list []string
	for k, v := range said {
		list = append(list, k+" "+base64.StdEncoding.EncodeToString([]byte(v)))
	}
	return l.asks(http.MethodPost, l.under, map[string]string{"Upload-Length": strconv.Itoa(size), "Upload-Metadata": strings.Join(list, ",")}, nil)
}

var errCut = errors.New("the line is cut")

// sends sends a film on from where it was cut, and cuts the line after so many bytes.
func (l *line) sends(at string, film []byte, cut int) int {
	l.t.Helper()
	a := l.asks(http.MethodHead, at, nil, nil)
	if a.StatusCode != http.StatusOK {
		return a.StatusCode
	}
	offset, err := strconv.Atoi(a.Header.Get("Upload-Offset"))
	require.NoError(l.t, err)
	rest := film[offset:]
	body := io.MultiReader(bytes.NewReader(rest[:min(cut, len(rest))]), cutAfter(len(rest) > cut))
	return l.asks(http.MethodPatch, at, map[string]string{"Upload-Offset": strconv.Itoa(offset), "Content-Type": "application/offset+octet-stream"}, body).StatusCode
}

// sendsWhole sends the rest of a film, again while the piece before is still let go, until
// it has arrived: then it is on its way no more.
func (l *line) sendsWhole(at string, film []byte) {
	l.t.Helper()
	require.Eventually(l.t, func() bool {
		code := l.sends(at, film, len(film))
		return code == http.StatusNoContent || code == http.StatusNotFound
	}, time.Minute, 20*time.Millisecond)
}

type cutAfter bool

func (c cutAfter) Read([]byte) (int, error) {
	if c {
		return 0, errCut
	}
	return 0, io.EOF
}

func (p *practice) clips() clips.Clips {
	p.t.Helper()
	var view clips.Clips
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/clips", nil).into(&view)
	return view
}

// A clip over a line that is cut ten times arrives once, whole, without the place where it
// was filmed; it is sent in ranges to who may see it, and in a copy of the database.
func TestAClipOverALineThatIsCut(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	l := p.line()
	film := aFilm(11 << 20)
	id := uuid.NewString()
	begun := l.begins(id, len(film), nil)
	require.Equal(t, http.StatusCreated, begun.StatusCode)
	at := begun.Header.Get("Location")
	require.Equal(t, "/api/clips/arriving/"+id, at, "its place is a path")
	for range 10 {
		assert.NotEqual(t, http.StatusNoContent, l.sends(at, film, 1<<20))
		assert.Empty(t, p.clips().List, "not before it is whole")
	}
	l.sendsWhole(at, film)
	assert.Equal(t, http.StatusNotFound, l.sends(at, film, len(film)), "it is on its way no more")
	list := p.clips().List
	require.Len(t, list, 1)
	assert.Equal(t, []any{id, "walks past", "video/mp4", "removed", int64(len(film))}, []any{list[0].ID, list[0].Name, list[0].Type, list[0].Position, list[0].Bytes})

	plain := bytes.Replace(film, boxed("\xa9xyz", numbers(0x1a15c7), []byte("+54.4812-003.1234/")), boxed("free", make([]byte, 22)), 1)
	whole := l.asks(http.MethodGet, "/api/clips/"+id+"/film", map[string]string{"Accept-Encoding": "gzip"}, nil)
	got, err := io.ReadAll(whole.Body)
	require.NoError(t, err)
	assert.Equal(t, sha256.Sum256(plain), sha256.Sum256(got), "equal but for the place")
	part := l.asks(http.MethodGet, "/api/clips/"+id+"/film", map[string]string{"Range": "bytes=1000-1009"}, nil)
	got, err = io.ReadAll(part.Body)
	require.NoError(t, err)
	assert.Equal(t, []any{http.StatusPartialContent, plain[1000:1010]}, []any{part.StatusCode, got})
	p.cookie = nil
	assert.Equal(t, http.StatusUnauthorized, l.asks(http.MethodGet, "/api/clips/"+id+"/film", nil, nil).StatusCode)

	copied := filepath.Join(t.TempDir(), "copy.db")
	pictures, err := p.Store.Backup(context.Background(), copied)
	require.NoError(t, err)
	assert.Equal(t, store.Pictures{All: 1}, pictures, "a copy has its film")
}

// What can't be taken in is a sentence, and leaves nothing.
func TestClipsThatAreNotTaken(t *testing.T) {
	p := signedInPractice(t)
	l := p.line()
	say := func(a *http.Response) string {
		text, err := io.ReadAll(a.Body)
		require.NoError(t, err)
		return fmt.Sprint(a.StatusCode, " ", string(text))
	}
	assert.Contains(t, say(l.begins(uuid.NewString(), 1000, nil)), "agreed", "nobody agreed")
	p.agrees()
	for want, a := range map[string]*http.Response{
		"413":                l.begins(uuid.NewString(), 2<<30, nil),
		"This file is empty": l.begins(uuid.NewString(), 0, nil),
		"The clip has no id": l.begins("../../../etc/passwd", 100, nil),
		"404":                l.begins(uuid.NewString(), 100, map[string]string{"horse": uuid.NewString()}),
		"422":                l.begins(uuid.NewString(), 100, map[string]string{"on": "tomorrow"}),
	} {
		assert.Contains(t, say(a), want)
	}
	id := uuid.NewString()
	text := []byte(strings.Repeat("This is no film. ", 100))
	at := l.begins(id, len(text), nil).Header.Get("Location")
	assert.Equal(t, http.StatusUnprocessableEntity, l.sends(at, text, len(text)))
	assert.Empty(t, p.clips().List)
	left, err := os.ReadDir(p.Store.Arriving())
	require.NoError(t, err)
	assert.Empty(t, left, "nothing of it stays")

}

// A clip that had arrived as the server stopped is taken in when it is asked for; one that
// never came whole is forgotten after a week.
func TestClipsAndAServerThatStops(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	l := p.line()
	film := aFilm(1000)
	whole, half := uuid.NewString(), uuid.NewString()
	at := l.begins(whole, len(film), nil).Header.Get("Location")
	require.NoError(t, os.WriteFile(filepath.Join(p.Store.Arriving(), whole), film, 0o600)) // its last piece, and no answer
	assert.Equal(t, http.StatusNotFound, l.asks(http.MethodHead, at, nil, nil).StatusCode)
	require.Len(t, p.clips().List, 1)
	assert.Equal(t, http.StatusConflict, l.begins(whole, len(film), nil).StatusCode, "it is here already")

	l.begins(half, len(film), nil)
	p.now = time.Now()
	require.NoError(t, p.Server.clips.Tidy(context.Background()))
	assert.FileExists(t, filepath.Join(p.Store.Arriving(), half))
	p.now = time.Now().Add(clips.Forgotten + time.Minute)
	require.NoError(t, p.Server.clips.Tidy(context.Background()))
	assert.NoFileExists(t, filepath.Join(p.Store.Arriving(), half))
}

// What is tapped on a clip is timed, marks stand by their moments, and a clip that was
// changed elsewhere says so.
func TestAClipIsTimedAndMarked(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	id := p.line().filmed(aFilm(1000))
	var landings []map[string]any
	for i := range 4 {
		for n, hoof := range []string{"near hind", "near fore", "off hind", "off fore"} {
			landings = append(landings, map[string]any{"hoof": hoof, "at": float64(i) + float64(n)/4})
		}
	}
	body := map[string]any{"name": "walks", "on": "2026-05-30", "speed": 0.5, "gait": "pace", "landings": landings, "version": 1}
	var one clips.ClipWhole
	p.ask(http.MethodPut, "/api/clips/"+id, body).into(&one)
	assert.Equal(t, "It walks. Four even beats.", one.Timed.Says.Text)
	assert.InDelta(t, 480, one.Timed.Steps, 1e-6)
	assert.Len(t, one.Frames, 50)
	assert.Equal(t, http.StatusConflict, p.ask(http.MethodPut, "/api/clips/"+id, body).Code)
	for field, change := range map[string]any{"speed": 0, "on": "2026-06-02", "landings": []map[string]any{{"hoof": "near hind", "at": -1}}} {
		wrong := map[string]any{"name": "walks", "on": "2026-05-30", "speed": 1, "landings": landings, "version": 2, field: change}
		problem := p.ask(http.MethodPut, "/api/clips/"+id, wrong).problem()
		require.NotEmpty(t, problem.Errors, field)
		assert.Contains(t, problem.Errors[0].Field, field)
	}

	p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 1.5, "says": "ears back", "side": "near"})
	p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 0.5, "says": "rope slack", "step": "lead.forward"}).into(&one)
	require.Len(t, one.Marks, 2)
	assert.Equal(t, []string{"rope slack", "ears back"}, []string{one.Marks[0].Says, one.Marks[1].Says})
	assert.Equal(t, "says", p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 1, "says": " "}).problem().Errors[0].Field)
	assert.Equal(t, "step", p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 1, "says": "x", "step": "no.such"}).problem().Errors[0].Field)
	p.ask(http.MethodDelete, "/api/clips/"+id+"/marks/"+one.Marks[0].ID, nil).into(&one)
	assert.Len(t, one.Marks, 1)

	p.ask(http.MethodDelete, "/api/clips/"+id, nil)
	assert.Empty(t, p.clips().List)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/clips/"+id+"/film", nil).Code)
	files := func() int {
		list, err := os.ReadDir(p.folder)
		require.NoError(t, err)
		return len(list)
	}
	require.NoError(t, p.Store.EraseRemoved(context.Background(), p.now.Add(store.ErasedAfter).UnixMilli()))
	assert.Equal(t, 1, files(), "it stays for a while")
	require.NoError(t, p.Store.EraseRemoved(context.Background(), p.now.Add(store.ErasedAfter+time.Millisecond).UnixMilli()))
	assert.Zero(t, files())
}

// What was tapped on a clip is logged in the session of its day where a walk was asked for:
// its run is then met.
func TestAClipTimesTheWalkThatWasAskedThatDay(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	id := p.line().filmed(aFilm(1000))
	body := func(on string, version int) map[string]any {
		return map[string]any{"name": "walks", "on": on, "speed": 1, "landings": []any{}, "version": version}
	}
	session, _ := p.session()
	at := p.now.UnixMilli()
	entry := func(kind string, of any) map[string]any {
		at += 60_000
		return map[string]any{"id": uuid.NewString(), "kind": kind, "at": at, kind: of}
	}
	var entries []any
	for range 3 {
		entries = append(entries, entry("rep", map[string]any{"step": "rush.walk", "answer": "accepted", "peak": 2, "arousal": 1}))
	}
	p.now = p.now.Add(10 * time.Minute)
	require.Empty(t, p.logs(session, entries...).Refused)
	met := func() bool {
		var sum sessions.Summary
		p.ask(http.MethodGet, "/api/sessions/"+session+"/summary", nil).into(&sum)
		require.Len(t, sum.Review.Asks, 1)
		return sum.Review.Asks[0].Passed
	}
	assert.False(t, met(), "three in a row, and nothing timed")

	var one clips.ClipWhole
	p.ask(http.MethodPut, "/api/clips/"+id, body("2026-05-31", 1)).into(&one)
	assert.Empty(t, one.Walked, "of another day")
	p.ask(http.MethodPut, "/api/clips/"+id, body("2026-06-01", 2)).into(&one)
	require.Len(t, one.Walked, 1)
	w := one.Walked[0]
	assert.Equal(t, []any{session, "rush.walk", "rush walk", false}, []any{w.Session, w.Step, w.Name, w.Timed})

	var landings []any
	for i := range 4 {
		for n, hoof := range []string{"near hind", "near fore", "off hind", "off fore"} {
			landings = append(landings, map[string]any{"hoof": hoof, "at": float64(i) + float64(n)/4})
		}
	}
	timed := func(more map[string]any) map[string]any {
		of := map[string]any{"step": w.Step, "speed": 1, "landings": landings}
		maps.Copy(of, more)
		return map[string]any{"id": uuid.NewString(), "kind": "mark", "at": w.At, "mark": map[string]any{"footfall": of}}
	}
	for name, wrong := range map[string]map[string]any{
		"no such ask": {"step": "rush.moon"}, "too many": {"landings": slices.Repeat(landings, 16)}, "no such speed": {"speed": 9}, "tapped, and by eye": {"eye": true},
	} {
		assert.Len(t, p.logs(session, timed(wrong)).Refused, 1, name)
	}
	require.Empty(t, p.logs(session, timed(nil)).Refused)
	assert.True(t, met())
	p.ask(http.MethodGet, "/api/clips/"+id, nil).into(&one)
	assert.True(t, one.Walked[0].Timed)
}

// A mark makes a finding of the assessment, with a film as its source: the film begins one
// where there is none or it is of later, never weakens what was seen, and is taken back with
// its mark.
func TestAMarkBecomesAFinding(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	l := p.line()
	film := aFilm(1000)
	sent := func(on string) string {
		id := uuid.NewString()
		require.Equal(t, http.StatusNoContent, l.sends(l.begins(id, len(film), map[string]string{"on": on}).Header.Get("Location"), film, len(film)))
		return id
	}
	marks := func(id, finding string) (one clips.ClipWhole) {
		p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 1, "says": "", "finding": finding}).into(&one)
		return one
	}
	docs := func() []store.Assessment {
		list, err := p.Store.Assessments(context.Background(), p.actor.Practice, p.horse)
		require.NoError(t, err)
		return list
	}
	before := len(docs())
	id := sent("2026-06-01")
	one := marks(id, "faces_and_pulls")
	require.Len(t, one.Marks, 1)
	assert.Equal(t, []string{"faces_and_pulls", "person faces the horse and pulls"}, []string{one.Marks[0].Finding, one.Marks[0].Says})
	list := docs()
	newest := list[len(list)-1]
	assert.Equal(t, horse.OnVideo, newest.Doc.Findings["faces_and_pulls"])
	if before == 0 {
		assert.Equal(t, horse.OnVideo, newest.Doc.From, "an assessment from a film alone says so")
	}
	assert.Equal(t, horse.OnVideo, one.Shows.Into.Found["faces_and_pulls"])
	p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 2, "says": "again", "finding": "faces_and_pulls"}).into(&one)
	require.Len(t, one.Marks, 2)
	p.ask(http.MethodDelete, "/api/clips/"+id+"/marks/"+one.Marks[0].ID, nil)
	assert.Contains(t, docs()[len(list)-1].Doc.Findings, "faces_and_pulls", "another mark shows it")
	p.ask(http.MethodDelete, "/api/clips/"+id+"/marks/"+one.Marks[1].ID, nil)
	assert.NotContains(t, docs()[len(list)-1].Doc.Findings, "faces_and_pulls")

	seen := []map[string]any{{"id": uuid.NewString(), "at": p.now.UnixMilli(), "device": "d", "seq": 1, "path": "findings/never_gives", "value": "seen"}}
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+newest.ID+"/marks", map[string]any{"sent_at": p.now.UnixMilli(), "marks": seen})
	one = marks(id, "never_gives")
	assert.Equal(t, horse.Seen, docs()[len(list)-1].Doc.Findings["never_gives"], "a film does not weaken what was seen")
	p.ask(http.MethodDelete, "/api/clips/"+id+"/marks/"+one.Marks[0].ID, nil)
	assert.Equal(t, horse.Seen, docs()[len(list)-1].Doc.Findings["never_gives"])

	p.now = p.now.AddDate(0, 0, 28)
	later := sent("2026-06-29")
	var view clips.ClipWhole
	p.ask(http.MethodGet, "/api/clips/"+later, nil).into(&view)
	assert.Empty(t, view.Shows.Into.On, "it begins the next assessment")
	require.Len(t, view.Others, 1)
	marks(later, "shakes_sweats")
	require.Len(t, docs(), len(list)+1)
	assert.Equal(t, horse.OnVideo, docs()[len(list)].Doc.Problems[horse.Loading].Findings["shakes_sweats"])
	for _, wrong := range []string{"did_well_in_past", "no_such"} {
		assert.Equal(t, "finding", p.ask(http.MethodPost, "/api/clips/"+id+"/marks", map[string]any{"at": 1, "says": "x", "finding": wrong}).problem().Errors[0].Field)
	}
}

// The film list is fitted to the horse, and says what of it has come; an owner sends a clip
// of it through the private link, of the own horse alone.
func TestTheFilmListAndAnOwnersClip(t *testing.T) {
	p := signedInPractice(t)
	var list clips.FilmList
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/films", nil).into(&list)
	require.NotEmpty(t, list.Views)
	assert.Equal(t, "near", list.Views[0].Key)
	assert.Contains(t, list.Message, "Moth: please film this for Wren.\n- From the near side")
	assert.Contains(t, list.Safety.Text, "No film is worth a kick")

	_, token := p.link("people/"+p.owner, 3)
	l := p.line()
	l.under, l.bearer = "/api/owner/clips/arriving", token
	film, id := aFilm(5000), uuid.NewString()
	at := l.begins(id, len(film), map[string]string{"view": "near"}).Header.Get("Location")
	require.Equal(t, "/api/owner/clips/arriving/"+id, at)
	staff := p.line()
	assert.Equal(t, http.StatusNotFound, staff.asks(http.MethodHead, "/api/clips/arriving/"+id, nil, nil).StatusCode, "another's clip")
	require.Equal(t, http.StatusNoContent, l.sends(at, film, len(film)))
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/films", nil).into(&list)
	assert.Equal(t, 1, list.Views[0].Came)
	one := p.clips()
	assert.Equal(t, []any{"Ines", true}, []any{one.List[0].SentBy, one.Agreed}, "who sends it agrees by it")

	own := l.asks(http.MethodGet, "/api/owner/horses/"+p.horse+"/films", nil, nil)
	assert.Equal(t, http.StatusOK, own.StatusCode)
	first := p.horse
	p.takesOn(p.actor) // another owner's horse
	assert.Equal(t, http.StatusNotFound, l.asks(http.MethodGet, "/api/owner/horses/"+p.horse+"/films", nil, nil).StatusCode)
	assert.Equal(t, http.StatusNotFound, l.begins(uuid.NewString(), 100, nil).StatusCode)

	begun := p.now
	for days, again := range []bool{27: false, 28: true} { // after the day it was filmed
		if days < 27 {
			continue
		}
		p.now = begun.AddDate(0, 0, days)
		var later clips.FilmList
		p.ask(http.MethodGet, "/api/horses/"+first+"/films", nil).into(&later)
		assert.Equal(t, again, later.Views[0].Again != nil, days)
		assert.Equal(t, again, strings.Contains(later.Message, "film it again, from the same place"))
	}
}
