// Package e2e drives the real interface in headless Chromium: what a user does
// and sees. Each test has a server of its own on a database of its own.
package e2e

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io/fs"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// patience is how long a test waits for what a user would wait for, on a machine
// that is busy with other work; whole is how long one user's journey may take.
const (
	patience = 3 * time.Minute
	whole    = 15 * time.Minute
)

var (
	program string
	browser *rod.Browser
	filled  []byte // the demo's database, made once
	films   fs.FS  // and its films
)

func TestMain(m *testing.M) {
	if os.Getenv(clockEnv) != "" {
		panic(serveByTheYardsClock(os.Args[1:]))
	}
	os.Exit(run(m))
}

func run(m *testing.M) int {
	dir, err := os.MkdirTemp("", "ivorybridge-e2e")
	if err != nil {
		panic(err)
	}
	defer func() { _ = os.RemoveAll(dir) }()
	if err := os.Chmod(dir, 0o711); err != nil { // the program is also run as somebody else
		panic(err)
	}
	program = filepath.Join(dir, "ivorybridge")
	build := exec.Command("go", "build", "-o", program, "ivorybridge/cmd/ivorybridge")
	build.Stderr = os.Stderr
	if err := build.Run(); err != nil {
		panic(err)
	}
	if filled, err = fill(filepath.Join(dir, "demo.db")); err != nil {
		panic(err)
	}
	films = os.DirFS(filepath.Join(dir, "demo.db.photographs"))
	l := launcher.New().Bin("/usr/bin/chromium").UserDataDir(filepath.Join(dir, "profile")).Headless(true).NoSandbox(true)
	for _, flag := range []string{"disable-gpu", "disable-quic", "no-first-run", "disable-background-networking", "disable-component-update", "disable-sync"} {
		l = l.Set(flagOf(flag))
	}
	address, err := l.Launch()
	if err != nil {
		panic(err)
	}
	defer l.Kill()
	browser = rod.New().ControlURL(address).MustConnect()
	defer browser.MustClose()
	return m.Run()
}

// fill makes the demo's database and reads it.
func fill(database string) ([]byte, error) {
	cmd := exec.Command(program, "demo", "--fill-only", "--database", database)
	cmd.Stderr = os.Stderr
	if err := cmd.Run(); err != nil {
		return nil, err
	}
	return os.ReadFile(database)
}

// A yard is one running server with its database.
type yard struct {
	t        *testing.T
	address  string
	database string
	process  *exec.Cmd
	serve    bool // a practice of its own instead of the demo
	clock    *yardClock
	mast     *mast  // between its devices and the server
	ailing   bool   // it will not be well
	log      string // where the server's log is; empty: beside the database
}

// demoYard starts the demo practice on a copy that this test may change.
func demoYard(t *testing.T) *yard {
	t.Helper()
	y := &yard{t: t, address: freeAddress(t), database: filepath.Join(t.TempDir(), "demo.db")}
	y.lays()
	t.Cleanup(y.stop)
	y.start()
	return y
}

// lays puts the demo's database and films where the yard has them.
func (y *yard) lays() {
	require.NoError(y.t, os.WriteFile(y.database, filled, 0o600))
	require.NoError(y.t, os.CopyFS(y.database+".photographs", films))
}

// farYard is a demo yard by a clock of its own, reached through a mast.
func farYard(t *testing.T) *yard {
	t.Helper()
	dir := t.TempDir()
	y := &yard{t: t, address: freeAddress(t), database: filepath.Join(dir, "demo.db"), clock: &yardClock{filepath.Join(dir, "clock")}}
	y.lays()
	t.Cleanup(y.stop)
	y.start()
	y.mast = raise(t, y.address)
	return y
}

// yards counts the servers: each has an address of its own, so that one which is
// killed and started again finds its port free.
var yards atomic.Uint32

func freeAddress(t *testing.T) string {
	t.Helper()
	n := yards.Add(1)
	l, err := net.Listen("tcp", fmt.Sprintf("127.1.%d.%d:0", n/250, n%250+1))
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	return l.Addr().String()
}

// as is the yard as a part of a test sees it.
func (y *yard) as(t *testing.T) *yard {
	part := *y
	part.t = t
	return &part
}

// start starts the server in a process group of its own and waits until it is
// well.
func (y *yard) start() {
	y.t.Helper()
	log, err := os.OpenFile(y.logFile(), os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	require.NoError(y.t, err)
	command := "demo"
	if y.serve {
		command = "serve"
	}
	y.process = exec.Command(program, command, "--address", y.address, "--database", y.database, "--log-level", "warn")
	if y.clock != nil {
		y.process = exec.Command(os.Args[0], y.address, y.database)
		y.process.Env = append(os.Environ(), clockEnv+"="+y.clock.path)
	}
	y.process.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	y.process.Stdout, y.process.Stderr = log, log
	require.NoError(y.t, y.process.Start())
	require.NoError(y.t, log.Close())
	require.Eventually(y.t, func() bool {
		ctx, cancel := context.WithTimeout(context.Background(), time.Second)
		defer cancel()
		request, err := http.NewRequestWithContext(ctx, http.MethodGet, "http://"+y.address+"/healthz", nil)
		require.NoError(y.t, err)
		answer, err := http.DefaultClient.Do(request)
		if err != nil {
			return false
		}
		_ = answer.Body.Close()
		return y.ailing || answer.StatusCode == http.StatusOK
	}, patience, 20*time.Millisecond, "the server does not start")
}

func (y *yard) logFile() string { return cmp.Or(y.log, y.database+".log") }

// logs waits until the server's log says something.
func (y *yard) logs(text string) {
	y.t.Helper()
	require.Eventually(y.t, func() bool {
		said, err := os.ReadFile(y.logFile())
		return err == nil && strings.Contains(string(said), text)
	}, patience, 50*time.Millisecond, "the log does not say %q", text)
}

// stop stops the server as a power cut would.
func (y *yard) stop() {
	if y.process == nil {
		return
	}
	err := syscall.Kill(-y.process.Process.Pid, syscall.SIGKILL)
	if err != nil && !errors.Is(err, syscall.ESRCH) {
		y.t.Errorf("stopping the server: %v", err)
	}
	_ = y.process.Wait() // killed: its error says so
	y.process = nil
	if y.t.Failed() {
		if log, err := os.ReadFile(y.logFile()); err == nil {
			y.t.Logf("the server said:\n%s", log)
		}
	}
}

// A user is a person at a browser of their own.
type user struct {
	*rod.Page
	t    *testing.T
	yard *yard
	taps int // clicks so far
}

// open opens a page in a fresh browser context: nothing is signed in or kept.
func (y *yard) open(width, height int) *user {
	y.t.Helper()
	context := browser.MustIncognito()
	page := context.MustPage("about:blank")
	y.t.Cleanup(func() { _ = context.Close() })
	u := &user{Page: page.Timeout(whole), t: y.t, yard: y}
	u.MustSetViewport(width, height, 1, false)
	u.listen(page)
	u.t.Cleanup(func() {
		if u.t.Failed() {
			u.keepPicture()
		}
	})
	return u
}

// listen says what the page says to its console, where the test fails.
func (u *user) listen(page *rod.Page) {
	go page.EachEvent(func(e *proto.RuntimeExceptionThrown) {
		u.t.Logf("the page threw: %s", e.ExceptionDetails.Exception.Description)
	}, func(e *proto.RuntimeConsoleAPICalled) {
		if e.Type == proto.RuntimeConsoleAPICalledTypeError {
			said := make([]string, 0, len(e.Args))
			for _, a := range e.Args {
				if v, err := page.ObjectToJSON(a); err == nil { // the page may be gone by now
					said = append(said, v.String())
				}
			}
			u.t.Logf("the page said: %s", strings.Join(said, " "))
		}
	})()
}

// another opens a second tab of the same browser.
func (u *user) another() *user {
	page := u.Browser().MustPage("about:blank")
	return &user{Page: page.Timeout(whole), t: u.t, yard: u.yard}
}

func (u *user) keepPicture() {
	dir := os.Getenv("E2E_PICTURES")
	if dir == "" {
		return
	}
	if shot, err := u.Page.Timeout(10*time.Second).Screenshot(false, nil); err == nil {
		_ = os.WriteFile(filepath.Join(dir, strings.ReplaceAll(u.t.Name(), "/", "-")+".png"), shot, 0o600)
	}
}

func (u *user) goes(path string) *user {
	u.t.Helper()
	address := u.yard.address
	if u.yard.mast != nil {
		address = u.yard.mast.address()
	}
	u.MustNavigate("http://" + address + path)
	u.MustWaitLoad()
	return u
}

// finds waits for an element of this kind that shows that text, a regular
// expression.
func (u *user) finds(css, text string) *rod.Element {
	u.t.Helper()
	e, err := u.Page.Timeout(patience).ElementByJS(rod.Eval(`(css, text) => {
		const says = new RegExp(text)
		return [...document.querySelectorAll(css)].find((e) => e.checkVisibility() && says.test(e.innerText.replace(/\s+/g, ' '))) ?? null
	}`, css, text))
	require.NoError(u.t, err, "waiting for %s with %q on %s", css, text, u.MustInfo().URL)
	return e.CancelTimeout()
}

// sees waits until the page says something.
func (u *user) sees(text string) {
	u.t.Helper()
	u.seesIn("body", text)
}

// seesIn waits until an element of this kind says something. White space
// counts as one reads it.
func (u *user) seesIn(css, text string) {
	u.t.Helper()
	u.waits("to see", css, text, `(css, text) => {
		const plain = (s) => s.replace(/\s+/g, ' ').trim()
		return [...document.querySelectorAll(css)].some((e) => plain(e.innerText ?? e.textContent).includes(plain(text)))
	}`)
}

func (u *user) waits(what, css, text, predicate string) {
	u.t.Helper()
	err := u.Page.Timeout(patience).Wait(rod.Eval(predicate, css, text))
	if err == nil {
		return
	}
	says, _ := u.Page.Timeout(patience).Eval(`() => document.body.innerText`)
	there := ""
	if says != nil {
		there = says.Value.Str()
	}
	require.Fail(u.t, "waiting "+what, "%q in %s on %s: %v; there is:\n%s", text, css, u.MustInfo().URL, err, there)
}

// presses clicks the button or link that is named so.
func (u *user) presses(name string) {
	u.t.Helper()
	e := u.finds("button, a, [role=radio], summary, label.el-checkbox", "^\\s*"+name+"\\s*$")
	require.NoError(u.t, u.click(e), "pressing %q", name)
}

// drags takes an element with the mouse and lets it go on another.
func (u *user) drags(e, to *rod.Element) {
	u.t.Helper()
	require.NoError(u.t, proto.InputSetInterceptDrags{Enabled: true}.Call(u.Page))
	taken := make(chan *proto.InputDragData, 1)
	waiting := u.Page.Timeout(patience)
	defer waiting.CancelTimeout()
	wait := waiting.EachEvent(func(d *proto.InputDragIntercepted) bool {
		taken <- d.Data
		return true
	})
	from := e.MustScrollIntoView().MustShape().Box()
	at := proto.NewPoint(from.X+from.Width/2, from.Y+from.Height/2)
	require.NoError(u.t, u.Mouse.MoveTo(at))
	require.NoError(u.t, u.Mouse.Down(proto.InputMouseButtonLeft, 1))
	require.NoError(u.t, u.Mouse.MoveLinear(proto.NewPoint(at.X+30, at.Y+10), 5))
	wait()
	require.Len(u.t, taken, 1, "nothing was dragged")
	data := <-taken
	there := to.MustScrollIntoView().MustShape().Box()
	for _, kind := range []proto.InputDispatchDragEventType{proto.InputDispatchDragEventTypeDragEnter, proto.InputDispatchDragEventTypeDragOver, proto.InputDispatchDragEventTypeDrop} {
		require.NoError(u.t, proto.InputDispatchDragEvent{Type: kind, X: there.X + there.Width/2, Y: there.Y + there.Height/2, Data: data}.Call(u.Page))
	}
	require.NoError(u.t, u.Mouse.Up(proto.InputMouseButtonLeft, 1))
}

// click brings an element to the middle of the window, where nothing lies over
// it, and clicks it.
func (u *user) click(e *rod.Element) error {
	u.taps++
	shown := rod.Eval(`() => { const r = this.getBoundingClientRect(); return r.width > 0 && r.height > 0 }`)
	if err := e.Timeout(patience).Wait(shown); err != nil {
		return err // a list that is still unfolding
	}
	if _, err := e.Eval(`() => this.scrollIntoView({ block: 'center', inline: 'center' })`); err != nil {
		return err
	}
	return e.Timeout(patience).Click(proto.InputMouseButtonLeft, 1)
}

// field finds the field with that label.
func (u *user) field(label string) *rod.Element {
	u.t.Helper()
	l := u.finds("label", "^\\s*"+label+"\\s*$")
	id, err := l.Attribute("for")
	require.NoError(u.t, err)
	require.NotNil(u.t, id, "the label %q names no field", label)
	e, err := u.Page.Timeout(patience).Element(fmt.Sprintf("[id=%q]", *id))
	require.NoError(u.t, err, "the field %q", label)
	return e.CancelTimeout()
}

// types puts a text into the field with that label.
func (u *user) types(label, text string) {
	u.t.Helper()
	e := u.field(label)
	if kind, _ := e.Attribute("type"); kind != nil && (*kind == "date" || *kind == "time") {
		require.NoError(u.t, setDate(e, text))
		return
	}
	require.NoError(u.t, e.SelectAllText())
	require.NoError(u.t, e.Input(text))
}

// setDate fills a field for a date or a time, whose own parts depend on the browser's
// language.
func setDate(e *rod.Element, date string) error {
	_, err := e.Eval(`(d) => {
		const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set
		set.call(this, d)
		this.dispatchEvent(new Event('input', { bubbles: true }))
		this.dispatchEvent(new Event('change', { bubbles: true }))
	}`, date)
	return err
}

// chooses picks an option from the list field with that label.
func (u *user) chooses(label, option string) {
	u.t.Helper()
	u.field(label).MustParents(".el-select__wrapper").First().MustClick()
	require.NoError(u.t, u.click(u.finds(".el-select-dropdown__item", option)))
}

// signsInDemo enters by the one button of the demo.
func (u *user) signsInDemo() *user {
	u.t.Helper()
	u.goes("/sign-in")
	u.presses("Look round as Wren Harrow")
	u.seesIn("h1", "Horses")
	return u
}

func (u *user) key(k input.Key) {
	u.t.Helper()
	require.NoError(u.t, u.Keyboard.Type(k))
}
