package server

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/accounts"
	"ivorybridge/store"
)

// doorList is what the lead trainer reads of the door.
func (p *practice) doorList() []accounts.DoorRow {
	p.t.Helper()
	cookie := p.cookie
	defer func() { p.cookie = cookie }()
	p.comesAs(p.actor.Practice, p.actor.User)
	var list []accounts.DoorRow
	p.ask(http.MethodGet, "/api/door", nil).into(&list)
	return list
}

// times is how often something happened at the door.
func times(list []accounts.DoorRow, what string) (n int64) {
	for _, d := range list {
		if d.What == what {
			n += d.Times
		}
	}
	return n
}

// knocks sends a password as a browser does that was never here.
func (p *practice) knocks(from, email, with string) answer {
	stranger := *p
	stranger.cookie, stranger.device, stranger.from = nil, nil, from
	return stranger.ask(http.MethodPost, "/api/sign-in", map[string]string{"email": email, "password": with})
}

// Wrong passwords from forty places on twenty accounts, all at once: no more are
// looked at than may be, and the owner of one of the accounts gets in meanwhile,
// from a place that is known and from one that is not.
func TestAStormAtTheDoor(t *testing.T) {
	p := newPractice(t)
	for i := range 20 {
		p.add(fmt.Sprintf("user%d", i), store.Assistant, false)
	}
	require.Equal(t, http.StatusOK, p.knocks("192.0.2.200:1", "user3@example.org", password).Code)
	var storm sync.WaitGroup
	gate := make(chan struct{})
	for i := range 400 {
		storm.Go(func() {
			<-gate
			code := p.knocks(fmt.Sprintf("198.51.100.%d:1", i%40), fmt.Sprintf("user%d@example.org", i/20), "wrong").Code
			assert.Contains(t, []int{http.StatusUnauthorized, http.StatusTooManyRequests}, code)
		})
	}
	close(gate)
	began := time.Now()
	assert.Equal(t, http.StatusOK, p.knocks("192.0.2.200:1", "user3@example.org", password).Code, "from the yard")
	yard := time.Since(began)
	assert.Equal(t, http.StatusOK, p.knocks("203.0.113.77:1", "user4@example.org", password).Code, "from a new place")
	t.Logf("in the storm: from the yard within %v, then from a new place within %v", yard, time.Since(began)-yard)
	storm.Wait()
	all, err := p.Store.Door(context.Background(), p.actor.Practice, 1000)
	require.NoError(t, err)
	var list []accounts.DoorRow
	for _, d := range all {
		list = append(list, accounts.DoorRow{What: d.What, Times: d.Times})
	}
	assert.EqualValues(t, 400, times(list, store.WrongPassword)+times(list, store.HeldOff), "each is on the list")
	assert.LessOrEqual(t, times(list, store.WrongPassword), int64(accounts.MostHashed))
	assert.Positive(t, times(list, store.WrongPassword))
}

func TestWrongPasswordsDoNotLockOutTheYard(t *testing.T) {
	p := newPractice(t)
	require.Equal(t, http.StatusOK, p.signIn("Wren@example.org", password).Code)
	const far = "198.51.100.9:1"
	var last answer
	for i := range 7 {
		last = p.knocks(far, "Wren@example.org", "wrong")
		want := http.StatusUnauthorized
		if i >= 6 {
			want = http.StatusTooManyRequests
		}
		assert.Equal(t, want, last.Code, "try %d", i+1)
	}
	assert.Equal(t, "Too many wrong passwords. Wait 30 seconds and try again. A device you have signed in on before gets in meanwhile.", last.problem().Detail)
	assert.Equal(t, http.StatusTooManyRequests, p.knocks(far, "wren@EXAMPLE.org", password).Code, "not even with the right one from there")
	for i := range 200 { // from everywhere
		p.knocks(fmt.Sprintf("203.0.%d.%d:1", 113+i/200, i), "Wren@example.org", "wrong")
	}
	assert.Equal(t, http.StatusOK, p.knocks(p.from, "Wren@example.org", password).Code, "from the yard one still gets in")
	away := *p
	away.from = far
	assert.Equal(t, http.StatusOK, away.signIn("Wren@example.org", password).Code, "and with the yard's tablet from anywhere")
	p.now = p.now.Add(30 * time.Second)
	assert.Equal(t, http.StatusOK, p.knocks(far, "Wren@example.org", password).Code, "after the wait from there too")
	for range 20 {
		assert.Equal(t, http.StatusOK, p.knocks(far, "Wren@example.org", password).Code, "the right password uses nothing up")
	}
}

// A familiar device has its own limit, and a made-up device is none.
func TestAFamiliarPlaceIsNoFreePass(t *testing.T) {
	p := newPractice(t)
	require.Equal(t, http.StatusOK, p.signIn("Wren@example.org", password).Code)
	codes := map[int]int{}
	for i := range 10 {
		p.device = &http.Cookie{Name: "ivorybridge-device", Value: fmt.Sprint("made up ", i)}
		codes[p.ask(http.MethodPost, "/api/sign-in", map[string]string{"email": "Wren@example.org", "password": "wrong"}).Code]++
	}
	assert.Equal(t, map[int]int{401: 6, 429: 4}, codes)
}

// A restart forgives nothing, and the clock set back by a day holds nobody off for
// that day.
func TestLimitsOutliveTheServer(t *testing.T) {
	p := newPractice(t)
	const far = "198.51.100.9:1"
	for range 6 {
		p.knocks(far, "Wren@example.org", "wrong")
	}
	again, err := New(p.Config)
	require.NoError(t, err)
	p.Server = again
	assert.Equal(t, http.StatusTooManyRequests, p.knocks(far, "Wren@example.org", password).Code)
	p.now = p.now.Add(-24 * time.Hour)
	assert.Contains(t, p.knocks(far, "Wren@example.org", password).problem().Detail, "Wait 60 seconds")
	p.now = p.now.Add(time.Minute)
	assert.Equal(t, http.StatusOK, p.knocks(far, "Wren@example.org", password).Code)
}

func TestChangingAPasswordIsLimited(t *testing.T) {
	p := signedInPractice(t)
	change := func(old, next string) answer {
		return p.ask(http.MethodPost, "/api/password", map[string]string{"old": old, "new": next})
	}
	for range 6 {
		assert.Equal(t, "old", change("wrong", "another rope of words").problem().Errors[0].Field)
	}
	assert.Equal(t, http.StatusTooManyRequests, change(password, "another rope of words").Code)
	p.now = p.now.Add(30 * time.Second)
	a := change(password, "another rope of words")
	require.Equal(t, http.StatusOK, a.Code, "%s", a.Body)
	p.keepCookies(a)
	assert.EqualValues(t, 1, times(p.doorList(), store.PasswordChanged))
}

func TestPasswordsThatAreTriedFirstAreRefused(t *testing.T) {
	for _, weak := range []string{
		"short", "123456789", "1234567890", "password123", "qwertyuiop", "Passw0rd2024", "iloveyou123", "aaaaaaaaaaaa", "wrenharrow1", "tarnside2026", "abcdefghij", "11111111111111",
		strings.Repeat("wort ", 40), strings.Repeat("x", 201),
	} {
		assert.NotEmpty(t, accounts.WeakPassword(weak, "Wren Harrow", "wren@example.org", "Tarn Side"), weak)
	}
	for _, good := range []string{password, "another rope of words", "girth mill 4 lantern", accounts.OneTimePassword(), strings.Repeat("mill 7 heron lantern ", 9), "слово за слово у реки"} {
		assert.Empty(t, accounts.WeakPassword(good, "Wren Harrow", "wren@example.org", "Tarn Side"), good)
	}
	p := signedInPractice(t)
	a := p.ask(http.MethodPost, "/api/password", map[string]string{"old": password, "new": "password123"})
	assert.Equal(t, "new", a.problem().Errors[0].Field)
	assert.Contains(t, a.problem().Errors[0].Say, "among the first that are tried")
}

// A one-time password can be used for a week, one's own as long as one likes.
func TestAOneTimePasswordRunsOut(t *testing.T) {
	p := newPractice(t)
	p.add("new", store.Assistant, true)
	p.now = p.now.Add(7*24*time.Hour - time.Millisecond)
	assert.Equal(t, http.StatusOK, p.knocks("192.0.2.1:1", "new@example.org", password).Code)
	p.now = p.now.Add(time.Millisecond)
	late := p.knocks("192.0.2.1:1", "new@example.org", password)
	assert.Equal(t, http.StatusUnauthorized, late.Code)
	assert.Contains(t, late.problem().Detail, "run out. Ask a lead trainer")
	assert.Contains(t, p.knocks("192.0.2.1:1", "new@example.org", "wrong").problem().Detail, "do not fit", "a wrong one is told nothing")
	p.now = p.now.AddDate(1, 0, 0)
	assert.Equal(t, http.StatusOK, p.knocks("192.0.2.1:1", "Wren@example.org", password).Code)
}

// The lead trainer reads who came in and who did not; what was typed where no
// account is, is told to nobody.
func TestTheListAtTheDoor(t *testing.T) {
	p := newPractice(t)
	p.add("gone", store.Assistant, false)
	users, err := p.Store.Users(context.Background(), p.actor.Practice)
	require.NoError(t, err)
	for _, u := range users {
		if u.Name == "gone" {
			require.NoError(t, p.Store.SetActive(context.Background(), p.actor, u.ID, false))
		}
	}
	p.knocks("198.51.100.1:1", "gone@example.org", password)
	p.now = p.now.Add(time.Second)
	p.knocks("198.51.100.2:1", password, "typed into the wrong field")
	p.now = p.now.Add(time.Second)
	kept, err := p.Store.Door(context.Background(), p.actor.Practice, 10)
	require.NoError(t, err)
	assert.Empty(t, kept[0].Said, "what was typed where no account is may be a password: it is not even kept")
	p.signIn("Wren@example.org", password)
	p.now = p.now.Add(time.Second)
	p.ask(http.MethodPost, "/api/sign-out-everywhere", nil)
	list := p.doorList()
	got := make([]string, 0, len(list))
	for _, d := range list {
		got = append(got, strings.Join([]string{d.What, d.Name, d.Said, d.Place}, "|"))
	}
	assert.Equal(t, []string{
		"signed out everywhere|Wren|Wren@example.org|192.0.2.7", "signed in|Wren|Wren@example.org|192.0.2.7",
		"wrong password|||198.51.100.2", "kept out|gone|gone@example.org|198.51.100.1",
	}, got)
}

// A sign-in that ran out is told from one that was ended: only the second takes
// away what the device keeps.
func TestASignInThatWasEnded(t *testing.T) {
	p := signedInPractice(t)
	phone := p.cookie
	p.signIn("Wren@example.org", password)
	assert.True(t, func() bool { p.cookie = phone; return p.ask(http.MethodGet, "/api/me", nil).problem().Ended }(), "another sign-in on the device took its place")
	p.comesAs(p.actor.Practice, p.actor.User)
	p.now = p.now.Add(31 * 24 * time.Hour)
	assert.False(t, p.ask(http.MethodGet, "/api/me", nil).problem().Ended, "it ran out")
	p.comesAs(p.actor.Practice, p.actor.User)
	require.NoError(t, p.Store.SignOutEverywhere(context.Background(), p.actor))
	assert.True(t, p.ask(http.MethodGet, "/api/me", nil).problem().Ended, "ended from elsewhere")
	p.cookie = nil
	assert.False(t, p.ask(http.MethodGet, "/api/me", nil).problem().Ended, "nobody was signed in")
}

func TestTheCookieEnds(t *testing.T) {
	p := signedInPractice(t)
	for _, path := range []string{"/api/sign-out", "/api/sign-out-everywhere"} {
		p.comesAs(p.actor.Practice, p.actor.User)
		c := p.ask(http.MethodPost, path, nil).Result().Cookies()
		require.Len(t, c, 1)
		assert.Equal(t, []any{"ivorybridge", "", -1}, []any{c[0].Name, c[0].Value, c[0].MaxAge}, path)
	}
}
