package server

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/horses"
)

// drawn is a small picture of a colour.
func drawn(t testing.TB, kind string, c color.Color) string {
	t.Helper()
	if c == nil {
		c = color.Black
	}
	img := image.NewRGBA(image.Rect(0, 0, 40, 30))
	for x := range 40 {
		for y := range 30 {
			img.Set(x, y, c)
		}
	}
	var out bytes.Buffer
	if kind == "png" {
		require.NoError(t, png.Encode(&out, img))
	} else {
		require.NoError(t, jpeg.Encode(&out, img, nil))
	}
	return out.String()
}

func (p *practice) agrees() {
	p.t.Helper()
	a := p.ask(http.MethodPost, "/api/people/"+p.owner+"/consents", map[string]any{"kind": "photographs", "on": "2026-05-20"})
	require.Equal(p.t, http.StatusOK, a.Code, a.Body)
}

func TestPhotographsAreKeptWithConsentOnly(t *testing.T) {
	p := signedInPractice(t)
	path := "/api/horses/" + p.horse + "/photographs"
	picture := drawn(t, "jpeg", color.RGBA{R: 120, A: 255})
	a := p.ask(http.MethodPost, path+"?about=mark", picture)
	assert.Equal(t, http.StatusUnprocessableEntity, a.Code)
	assert.Contains(t, a.problem().Errors[0].Say, "has not agreed")
	p.agrees()
	var view horses.Photographs
	p.ask(http.MethodPost, path+"?about=mark&caption=old+girth+rub&taken_on=2026-05-30", picture).into(&view)
	require.Len(t, view.List, 1)
	one := view.List[0]
	assert.Equal(t, []any{"mark", "old girth rub", "2026-05-30", int64(40), "Wren"}, []any{one.About, one.Caption, one.TakenOn, one.Width, one.AddedBy})
	assert.Equal(t, "2026-05-20", view.Owners[0].GivenOn)

	got := p.ask(http.MethodGet, "/api/photographs/"+one.ID, nil)
	assert.Equal(t, []string{"image/jpeg", "private, no-store", "nosniff"}, []string{got.Header().Get("Content-Type"), got.Header().Get("Cache-Control"), got.Header().Get("X-Content-Type-Options")})
	assert.Equal(t, "\xff\xd8\xff", got.Body.String()[:3], "a JPEG")

	p.ask(http.MethodDelete, "/api/photographs/"+one.ID, nil).into(&view)
	assert.Empty(t, view.List)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/photographs/"+one.ID, nil).Code)
	p.ask(http.MethodPost, "/api/people/"+p.owner+"/consents", map[string]any{"kind": "photographs", "on": "2026-06-01", "ends": true})
	assert.Equal(t, http.StatusUnprocessableEntity, p.ask(http.MethodPost, path, picture).Code, "agreed no longer")
}

func TestAPictureThatIsNoneIsRefused(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	path := "/api/horses/" + p.horse + "/photographs"
	whole := drawn(t, "png", color.White)
	for name, c := range map[string]struct {
		body, query, says string
		code              int
	}{
		"a text":            {"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "", "no photograph", 422},
		"half a picture":    {whole[:len(whole)-20], "", "damaged", 422},
		"nothing":           {"", "", "", 422},
		"too large":         {strings.Repeat("x", horses.MaxPicture+1), "", "12 MB or less", 413},
		"of tomorrow":       {whole, "?taken_on=2026-06-02", "in the future", 422},
		"of no day":         {whole, "?taken_on=spring", "not a date", 422},
		"about nothing":     {whole, "?about=cat", "Choose one of these", 422},
		"a caption too far": {whole, "?caption=" + strings.Repeat("x", 201), "Shorten it to 200", 422},
	} {
		a := p.ask(http.MethodPost, path+c.query, c.body)
		assert.Equal(t, c.code, a.Code, "%s: %s", name, a.Body)
		assert.Contains(t, a.Body.String(), c.says, name)
	}
	bomb := []byte(whole)
	copy(bomb[16:24], []byte{0, 0, 27, 88, 0, 0, 27, 88}) // it says of itself that it has 7000 × 7000 pixels
	a := p.ask(http.MethodPost, path, string(bomb))
	assert.Contains(t, a.problem().Errors[0].Say, "7000 × 7000 pixels. Take one of up to 15 million")
	var view horses.Photographs
	p.ask(http.MethodGet, path, nil).into(&view)
	assert.Empty(t, view.List, "nothing was half kept")
}

func TestAPictureChangedOnTheDiskIsNotServed(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	var view horses.Photographs
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/photographs", drawn(t, "png", color.Black)).into(&view)
	files, err := filepath.Glob(filepath.Join(p.folder, "*"))
	require.NoError(t, err)
	require.Len(t, files, 1)
	require.NoError(t, os.WriteFile(files[0], []byte("other"), 0o600))
	a := p.ask(http.MethodGet, "/api/photographs/"+view.List[0].ID, nil)
	assert.Equal(t, http.StatusNotFound, a.Code)
	assert.Contains(t, a.problem().Detail, "missing on the server, or was damaged")
	p.ask(http.MethodDelete, "/api/photographs/"+view.List[0].ID, nil).into(&view)
	assert.Empty(t, view.List, "it can still be taken out of sight")
}

func TestTheLetterOfAReferral(t *testing.T) {
	p := signedInPractice(t)
	of := uuid.NewString()
	p.marks(of, "body/back/state", "suspect", "body/back/note", "flinches behind the saddle", "referrals/back/name", "Orla Finch")
	var l horses.Letter
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/letters/back", nil).into(&l)
	assert.Equal(t, []string{"Moth", "Orla Finch", "2026-06-08", "Wren"}, []string{l.Horse.Name, l.Name, l.Due, l.By})
	assert.Contains(t, l.Question.Text, "Please look at: back")
	assert.Contains(t, l.Saw[1].Text, "flinches behind the saddle")
	assert.Equal(t, "Ines", l.Owners[0].Name)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/horses/"+p.horse+"/letters/mouth", nil).Code)
}
