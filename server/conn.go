package server

import (
	"bytes"
	"net"
)

// WithHeaders lets the answers that the library writes by itself, to what is no
// request or far too long a one, carry the headers that every other has. It sees
// plain connections only.
func WithHeaders(l net.Listener) net.Listener { return headed{l} }

type headed struct{ net.Listener }

func (l headed) Accept() (net.Conn, error) {
	c, err := l.Listener.Accept()
	if err != nil {
		return nil, err
	}
	return headedConn{c}, nil
}

type headedConn struct{ net.Conn }

// The library's own answers begin and go on so.
var (
	ownAnswer = []byte("HTTP/1.1 4")
	ownEnd    = []byte("\r\nContent-Type: text/plain; charset=utf-8\r\nConnection: close\r\n\r\n")
	withThem  = []byte("\r\nContent-Security-Policy: " + policy + "\r\nX-Content-Type-Options: nosniff")
)

func (c headedConn) Write(b []byte) (int, error) {
	if !bytes.HasPrefix(b, ownAnswer) {
		return c.Conn.Write(b)
	}
	at := bytes.Index(b, ownEnd)
	if at < 0 || bytes.IndexByte(b, '\r') != at {
		return c.Conn.Write(b)
	}
	if _, err := c.Conn.Write(bytes.Join([][]byte{b[:at], withThem, b[at:]}, nil)); err != nil {
		return 0, err
	}
	return len(b), nil
}
