package e2e

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"hash/crc32"
	"image"
	"image/jpeg"
	"io"
	"net/http"
	"os"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mostMemory is what the server may take while the worst pictures arrive, in KiB.
const mostMemory = 200_000

// worst are files that are small, and take the most memory that any may: an
// ordinary camera's, a PNG with all its colours, and one that takes far too much.
func worst(t *testing.T) map[string][]byte {
	var camera bytes.Buffer
	require.NoError(t, jpeg.Encode(&camera, image.NewYCbCr(image.Rect(0, 0, 8000, 5000), image.YCbCrSubsampleRatio420), nil))
	clear := func(w, h int) []byte {
		b := []byte("\x89PNG\r\n\x1a\n")
		chunk := func(kind string, body []byte) {
			b = binary.BigEndian.AppendUint32(b, uint32(len(body)))
			whole := append([]byte(kind), body...)
			b = binary.BigEndian.AppendUint32(append(b, whole...), crc32.ChecksumIEEE(whole))
		}
		chunk("IHDR", append(binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(w)), uint32(h)), 8, 6, 0, 0, 0))
		var rows bytes.Buffer
		z := zlib.NewWriter(&rows)
		row := make([]byte, 1+4*w)
		for range h {
			_, _ = z.Write(row) // into memory
		}
		require.NoError(t, z.Close())
		chunk("IDAT", rows.Bytes())
		chunk("IEND", nil)
		return b
	}
	return map[string][]byte{"camera": camera.Bytes(), "clear": clear(3900, 3900), "far too large": clear(9000, 9000)}
}

// memory is the most that the server has had in memory so far, in KiB.
func (y *yard) memory() int {
	status, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", y.process.Process.Pid))
	require.NoError(y.t, err)
	for line := range strings.Lines(string(status)) {
		if rest, ok := strings.CutPrefix(line, "VmHWM:"); ok {
			n, err := strconv.Atoi(strings.Fields(rest)[0])
			require.NoError(y.t, err)
			return n
		}
	}
	require.Fail(y.t, "the system does not tell")
	return 0
}

// Twelve of the worst pictures arrive at once: each is kept or refused with a
// sentence, the server stays small, and somebody signs in meanwhile.
func TestTwelveOfTheWorstPictures(t *testing.T) {
	y := demoYard(t)
	d := y.device("tablet")
	require.True(t, d.posts("/api/sign-in/demo", map[string]any{}, nil))
	var load []struct{ ID, Name string }
	d.reads("/api/caseload", &load)
	horse := load[0].ID
	var photos struct {
		Owners []struct{ ID string } `json:"owners"`
	}
	d.reads("/api/horses/"+horse+"/photographs", &photos)
	require.True(t, d.posts("/api/people/"+photos.Owners[0].ID+"/consents", map[string]any{"kind": "photographs", "on": "2026-01-01"}, nil))

	files := worst(t)
	var sending sync.WaitGroup
	for range 4 {
		for name, file := range files {
			sending.Go(func() {
				a, err := d.client.Post("http://"+y.address+"/api/horses/"+horse+"/photographs?about=mark", "image/jpeg", bytes.NewReader(file))
				if !assert.NoError(t, err) {
					return
				}
				defer func() { _ = a.Body.Close() }()
				said, _ := io.ReadAll(a.Body)
				if name == "far too large" {
					var p struct{ Errors []struct{ Say string } }
					assert.NoError(t, json.Unmarshal(said, &p))
					assert.Contains(t, p.Errors[0].Say, "too large to be unpacked here")
					return
				}
				assert.Equal(t, http.StatusOK, a.StatusCode, "%s: %s", name, said)
			})
		}
	}
	began := time.Now()
	require.True(t, y.device("phone").posts("/api/sign-in", map[string]any{"email": "nobody@example.org", "password": "wrong"}, nil) == false)
	took := time.Since(began)
	sending.Wait()
	assert.Less(t, y.memory(), mostMemory)
	t.Logf("at most %d MB in memory; a password was looked at within %s", y.memory()/1000, took.Round(time.Millisecond))
}
