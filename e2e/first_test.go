package e2e

import (
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// firstView opens the caseload in a browser that has kept nothing, signed in, over
// slow 4G on a processor four times slower, and tells how long it took until it
// could be read and what had come over the wire by then.
func firstView(u *user) (took time.Duration, bytes int, urls []string) {
	u.t.Helper()
	for _, m := range []interface{ Call(proto.Client) error }{
		proto.NetworkEnable{}, proto.NetworkClearBrowserCache{},
		proto.NetworkEmulateNetworkConditions{Latency: 150, DownloadThroughput: 1_600_000 / 8, UploadThroughput: 750_000 / 8},
		proto.EmulationSetCPUThrottlingRate{Rate: 4},
	} {
		require.NoError(u.t, m.Call(u.Page))
	}
	var mu sync.Mutex
	var came []proto.NetworkLoadingFinished
	names := map[proto.NetworkRequestID]string{}
	page, stop := u.Page.WithCancel()
	defer stop()
	go page.EachEvent(func(e *proto.NetworkResponseReceived) {
		mu.Lock()
		defer mu.Unlock()
		names[e.RequestID] = e.Response.URL
	}, func(e *proto.NetworkLoadingFinished) {
		mu.Lock()
		defer mu.Unlock()
		came = append(came, *e)
	})()
	start := time.Now()
	u.goes("/horses")
	u.sees("Copperfield Moth")
	took = time.Since(start)
	mu.Lock()
	defer mu.Unlock()
	for _, e := range came {
		bytes += int(e.EncodedDataLength)
		urls = append(urls, names[e.RequestID])
	}
	return took, bytes, urls
}

// The caseload can be read before the rules and all that is kept for the yard are
// fetched.
func TestTheFirstViewIsSmall(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(412, 800).signsInDemo()
	require.NoError(t, u.Navigate("about:blank")) // nothing of it is running
	took, bytes, urls := firstView(u)
	t.Logf("read after %v, with %d bytes over the wire", took.Round(time.Millisecond), bytes) // how long is told, not held
	assert.LessOrEqual(t, bytes, 180_000, "%v", urls)
	for _, url := range urls {
		assert.False(t, strings.HasSuffix(url, ".wasm"), url)
	}
}

// A page that is left while it opens what this device keeps is put aside by the
// browser, half-way. The next one reads it all the same.
func TestAPageThatWasLeftHoldsUpNoOther(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	for try := range 6 {
		u := y.open(1280, 800)
		require.NoError(t, proto.EmulationSetCPUThrottlingRate{Rate: 8}.Call(u))
		u.goes("/sign-in")
		u.presses("Look round as Wren Harrow")
		u.seesIn("h1", "Horses")
		_, err := u.Page.Timeout(patience).Eval(`(ms) => new Promise((left) => setTimeout(left, ms))`, 40*try)
		require.NoError(t, err)
		u.goes("/people")
		u.sees("all sent") // it has counted what it keeps
	}
}
