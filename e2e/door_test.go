package e2e

import (
	"net/http"
	"testing"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// keptHere is how many pages are kept on this device to be read without a signal.
const keptHere = `async () => {
	let n = 0
	for (const { name } of (await indexedDB.databases()).filter((d) => d.name.startsWith('ivorybridge'))) {
		const db = await new Promise((done, fail) => { const o = indexedDB.open(name); o.onsuccess = () => done(o.result); o.onerror = () => fail(o.error) })
		n += await new Promise((done) => { const c = db.transaction('copies').objectStore('copies').count(); c.onsuccess = () => done(c.result) })
		db.close()
	}
	return n
}`

func (u *user) keepsPages(any bool) {
	u.t.Helper()
	err := u.Page.Timeout(patience).Wait(rod.Eval(`async (any) => ((await (`+keptHere+`)()) > 0) === any`, any).ByPromise())
	require.NoError(u.t, err, "waiting until pages are kept here: %t", any)
}

// A tablet that several people use: what was kept for one goes when they sign out,
// here or from another device.
func TestASharedTablet(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	tablet := y.open(1280, 800).signsInDemo()
	tablet.sees("kept for the yard")
	tablet.keepsPages(true)
	tablet.presses("Sign out")
	tablet.seesIn("h1", "Ivory Bridge")
	tablet.keepsPages(false)
	cookies, err := tablet.Cookies(nil)
	require.NoError(t, err)
	for _, c := range cookies {
		assert.NotEqual(t, "ivorybridge", c.Name, "the cookie has ended")
	}

	tablet.signsInDemo()
	tablet.sees("kept for the yard")
	tablet.keepsPages(true)
	desk := y.open(1280, 800).signsInDemo()
	desk.goes("/people")
	desk.presses("Sign me out on every device")
	desk.seesIn("h1", "Ivory Bridge")
	tablet.goes("/horses")
	tablet.seesIn("label", "Password")
	tablet.keepsPages(false)
}

// The lead trainer sees at a glance who tried the door, and strangers' wrong
// passwords do not keep the trainer out.
func TestTheLeadTrainerReadsTheDoor(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	u := y.open(1280, 800).signsInDemo()
	stranger := y.device("stranger")
	for range 8 {
		assert.False(t, stranger.posts("/api/sign-in", map[string]any{"email": "wren@harrow.example", "password": "guess"}, nil))
	}
	r, err := http.NewRequest(http.MethodPost, "http://"+y.address+"/api/sign-out", nil)
	require.NoError(t, err)
	r.Header.Set("Origin", "https://elsewhere.example")
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	a, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	require.NoError(t, a.Body.Close())
	assert.Equal(t, http.StatusForbidden, a.StatusCode)

	u.goes("/people")
	u.seesIn("h2", "At the door")
	u.seesIn("li", "Refused, as it was asked from another site: https://elsewhere.example")
	u.seesIn("li", "Wrong password for Wren Harrow 6 times")
	u.seesIn("li", "Held off, after too many wrong passwords for Wren Harrow 2 times")
	u.seesIn("li", "Wren Harrow signed in")
}

// A password that is tried first is refused next to its field, with what to do.
func TestAPasswordOfOnesOwn(t *testing.T) {
	t.Parallel()
	u := demoYard(t).open(1280, 800).signsInDemo()
	u.goes("/password")
	u.types("Password now", "whatever it was")
	u.types("New password", "password123")
	u.presses("Change it")
	u.seesNextTo("New password", "This password is among the first that are tried.")
	u.types("New password", "girth mill 4 lantern")
	u.presses("Change it")
	u.seesNextTo("Password now", "That is not your password now.")
}
