package e2e

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A device logs without a browser: it sends, and remembers what was
// acknowledged.
type device struct {
	t       *testing.T
	yard    *yard
	client  *http.Client
	name    string
	session string
	seq     int
	kept    []string
	acked   *atomic.Int64
}

func (y *yard) device(name string) *device {
	jar, err := cookiejar.New(nil)
	require.NoError(y.t, err)
	return &device{t: y.t, yard: y, client: &http.Client{Jar: jar, Timeout: patience}, name: name, acked: &atomic.Int64{}}
}

// posts asks the server and reads its answer; false where none came.
func (d *device) posts(path string, body, answer any) bool {
	text, err := json.Marshal(body)
	require.NoError(d.t, err)
	response, err := d.client.Post("http://"+d.yard.address+path, "application/json", bytes.NewReader(text))
	if err != nil {
		return false
	}
	defer func() { _ = response.Body.Close() }()
	if response.StatusCode != http.StatusOK {
		return false
	}
	return answer == nil || json.NewDecoder(response.Body).Decode(answer) == nil
}

func (d *device) reads(path string, answer any) {
	response, err := d.client.Get("http://" + d.yard.address + path)
	require.NoError(d.t, err)
	defer func() { _ = response.Body.Close() }()
	require.NoError(d.t, json.NewDecoder(response.Body).Decode(answer))
}

// logs sends a batch, again and again until it is acknowledged, as an outbox
// does, or until the trial is over.
func (d *device) logs(n int, over <-chan struct{}) {
	ids, entries := make([]string, n), make([]any, n)
	for i := range n {
		d.seq++
		ids[i] = uuid.Must(uuid.NewV7()).String()
		entries[i] = map[string]any{
			"id": ids[i], "kind": "rep", "at": time.Now().UnixMilli(), "seq": d.seq, "device": d.name,
			"rep": map[string]any{"step": "lead.forward", "answer": "accepted", "peak": 1 + d.seq%5},
		}
	}
	for {
		var told struct {
			Refused []struct{ ID, Say string } `json:"refused"`
		}
		if d.posts("/api/sessions/"+d.session+"/entries", map[string]any{"sent_at": 0, "entries": entries, "quiet": true}, &told) {
			assert.Empty(d.t, told.Refused)
			d.kept = append(d.kept, ids...)
			d.acked.Add(int64(n))
			return
		}
		select {
		case <-over:
			return
		case <-time.After(5 * time.Millisecond):
		}
	}
}

// The server is killed again and again in the middle of writing: nothing that
// it acknowledged is missing, nothing is there twice, and its file is whole.
func TestTheServerIsKilledWhileItWrites(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	first := y.device("tablet")
	require.True(t, first.posts("/api/sign-in/demo", map[string]any{}, nil))
	var load []struct {
		Case struct{ ID string } `json:"case"`
		Name string              `json:"name"`
	}
	first.reads("/api/caseload", &load)
	kase := ""
	for _, row := range load {
		if row.Name == "Copperfield Moth" {
			kase = row.Case.ID
		}
	}
	session := uuid.NewString()
	require.True(t, first.posts("/api/cases/"+kase+"/sessions", map[string]any{
		"id": session, "started_at": time.Now().UnixMilli(), "zone": "Europe/London",
		"readiness": map[string]any{"arousal": 1, "handler": "calm", "tack": true, "body": true},
	}, nil))
	first.session = session

	over := make(chan struct{})
	var writing sync.WaitGroup
	devices := []*device{first}
	for _, name := range []string{"phone", "helper"} {
		d := y.device(name)
		d.client, d.session, d.acked = first.client, session, first.acked
		devices = append(devices, d)
	}
	for i, d := range devices {
		writing.Go(func() {
			for {
				select {
				case <-over:
					return
				default:
					d.logs(1+i*7, over)
				}
			}
		})
	}
	chance := rand.New(rand.NewPCG(3, 5))
	for range size().crashes {
		// It has kept some more, and is in the middle of whatever comes then.
		wanted := first.acked.Load() + int64(1+chance.IntN(40))
		require.Eventually(t, func() bool { return first.acked.Load() >= wanted }, patience, time.Millisecond)
		y.kill(t)
	}
	close(over)
	writing.Wait()
	y.stop()

	db, err := sql.Open("sqlite", "file:"+y.database)
	require.NoError(t, err)
	defer func() { assert.NoError(t, db.Close()) }()
	whole := ""
	require.NoError(t, db.QueryRowContext(context.Background(), "PRAGMA integrity_check").Scan(&whole))
	assert.Equal(t, "ok", whole)
	rows, err := db.QueryContext(context.Background(), "SELECT id FROM entries WHERE session_id = ?", session)
	require.NoError(t, err)
	there := map[string]bool{}
	for rows.Next() {
		id := ""
		require.NoError(t, rows.Scan(&id))
		there[id] = true
	}
	require.NoError(t, rows.Err())
	acknowledged := 0
	for _, d := range devices {
		for _, id := range d.kept {
			assert.True(t, there[id], "acknowledged and missing: %s", id)
			acknowledged++
		}
	}
	assert.Positive(t, acknowledged)
	t.Logf("%d kills, %d entries acknowledged, none missing", size().crashes, acknowledged)
}
