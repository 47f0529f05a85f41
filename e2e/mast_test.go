package e2e

import (
	"io"
	"net"
	"os"
	"strconv"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// A mast stands between the yard's devices and the server; its signal comes and
// goes.
type mast struct {
	listener net.Listener
	to       string

	mu   sync.Mutex
	down bool
	live map[net.Conn]bool
}

func raise(t *testing.T, to string) *mast {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	m := &mast{listener: l, to: to, live: map[net.Conn]bool{}}
	t.Cleanup(func() {
		m.signal(false)
		_ = l.Close()
	})
	go m.serve()
	return m
}

func (m *mast) address() string { return m.listener.Addr().String() }

func (m *mast) serve() {
	for {
		conn, err := m.listener.Accept()
		if err != nil {
			return
		}
		go m.carry(conn)
	}
}

func (m *mast) carry(conn net.Conn) {
	defer m.drop(conn)
	if !m.keep(conn) {
		return
	}
	server, err := net.Dial("tcp", m.to)
	if err != nil {
		return
	}
	defer m.drop(server)
	if !m.keep(server) {
		return
	}
	go func() {
		_, _ = io.Copy(server, conn)
		m.drop(server)
	}()
	_, _ = io.Copy(conn, server)
}

func (m *mast) keep(c net.Conn) bool {
	m.mu.Lock()
	defer m.mu.Unlock()
	if !m.down {
		m.live[c] = true
	}
	return !m.down
}

func (m *mast) drop(c net.Conn) {
	m.mu.Lock()
	defer m.mu.Unlock()
	delete(m.live, c)
	_ = c.Close()
}

// signal cuts all that is on its way, or lets it through again.
func (m *mast) signal(there bool) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.down = !there
	if m.down {
		for c := range m.live {
			// A reset, as a lost signal is: nothing half-said arrives.
			if tcp, ok := c.(*net.TCPConn); ok {
				_ = tcp.SetLinger(0)
			}
			_ = c.Close()
		}
		m.live = map[net.Conn]bool{}
	}
}

// A yardClock is the time at the yard, ahead of this machine's by what its file
// says: the server and the page read it, so that hours pass in seconds.
type yardClock struct{ path string }

func (c yardClock) ahead() time.Duration {
	text, err := os.ReadFile(c.path)
	if err != nil {
		return 0
	}
	ms, _ := strconv.ParseInt(string(text), 10, 64)
	return time.Duration(ms) * time.Millisecond
}

func (c yardClock) now() time.Time { return time.Now().Add(c.ahead()) }

// pass lets time pass at the yard. The file is written whole or not at all: the
// server may be reading it.
func (c yardClock) pass(t *testing.T, d time.Duration) time.Duration {
	t.Helper()
	ahead := c.ahead() + d
	require.NoError(t, os.WriteFile(c.path+".next", []byte(strconv.FormatInt(ahead.Milliseconds(), 10)), 0o600))
	require.NoError(t, os.Rename(c.path+".next", c.path))
	return ahead
}

// kill stops the server in the middle of whatever it does, and starts it again.
func (y *yard) kill(t *testing.T) {
	t.Helper()
	require.NoError(t, syscall.Kill(-y.process.Process.Pid, syscall.SIGKILL))
	_ = y.process.Wait()
	y.start()
}
