package clips

import (
	"context"
	"io"
	"net/http"
	"sync"

	tus "github.com/tus/tusd/v2/pkg/handler"
)

// patience is a locker of the protocol's library that asks a holder to let go of a clip
// only once it reads: before that there is nothing of it to stop, and the library looks at
// what it is about to read without a lock of its own.
type patience struct{ tus.Locker }

// NewLock makes a lock of a clip.
func (p patience) NewLock(id string) (tus.Lock, error) {
	l, err := p.Locker.NewLock(id)
	return patientLock{l}, err
}

type patientLock struct{ of tus.Lock }

// Lock takes the lock, for as long as ctx says when it reads.
func (l patientLock) Lock(ctx context.Context, letGo func()) error {
	reads, ok := ctx.Value(readsKey{}).(<-chan struct{})
	if !ok {
		return l.of.Lock(ctx, letGo)
	}
	return l.of.Lock(ctx, func() {
		go func() {
			select {
			case <-reads:
				letGo()
			case <-ctx.Done(): // it is over
			}
		}()
	})
}

// Unlock lets it go.
func (l patientLock) Unlock() error { return l.of.Unlock() }

type readsKey struct{}

// tellsWhenRead is a request that tells the locker when its body begins to be read.
func tellsWhenRead(r *http.Request) *http.Request {
	reads := make(chan struct{})
	r = r.WithContext(context.WithValue(r.Context(), readsKey{}, (<-chan struct{})(reads)))
	r.Body = &telling{ReadCloser: r.Body, begin: sync.OnceFunc(func() { close(reads) })}
	return r
}

type telling struct {
	io.ReadCloser
	begin func()
}

// Read reads, and tells at the first time.
func (t *telling) Read(b []byte) (int, error) {
	t.begin()
	return t.ReadCloser.Read(b)
}
