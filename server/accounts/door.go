package accounts

import (
	"context"
	"log/slog"
	"net/http"
	"sync"

	"ivorybridge/server/api"
	"ivorybridge/store"
)

// A ledger notes what happens at the door. While one note is being written,
// others wait in line and are written with the next: a storm costs few writes.
type ledger struct {
	mu      sync.Mutex
	waiting []store.AtDoor
	writing bool
	store   *store.Store
}

func (l *ledger) note(ctx context.Context, d store.AtDoor) error {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.waiting = append(l.waiting, d)
	if l.writing {
		return nil
	}
	l.writing = true
	defer func() { l.writing = false }()
	var err error
	for len(l.waiting) > 0 && err == nil {
		some := l.waiting
		l.waiting = nil
		l.mu.Unlock()
		err = l.store.KeepAtDoor(context.WithoutCancel(ctx), some)
		l.mu.Lock()
	}
	return err
}

// atDoor notes in the list and in the log what happened. A list that can't be
// written holds nobody up.
func (s *Service) atDoor(ctx context.Context, d store.AtDoor) {
	level := slog.LevelWarn
	if d.What == store.SignedInAtDoor || d.What == store.PasswordChanged || d.What == store.EverywhereSignedOut {
		level = slog.LevelInfo
	}
	s.Log.Log(ctx, level, "at the door: "+d.What, "said", d.Said, "place", d.Place, "device", d.Device)
	if err := s.ledger.note(ctx, d); err != nil {
		s.Store.Note(err)
		s.Log.ErrorContext(ctx, "what happened at the door is not in the list", "error", err.Error())
	}
}

// Refused notes a request that was refused before anybody looked at what it asks.
func (s *Service) Refused(ctx context.Context, what, from, place, device string) {
	s.atDoor(ctx, store.AtDoor{What: what, At: s.Now().UnixMilli(), Said: api.Clip(from, 254), Place: api.Clip(place, 60), Device: api.Clip(device, 300)})
}

// atDoor is what the knock came to. What was typed where no account is may be a
// password in the wrong field: it is kept nowhere.
func (k knock) atDoor(what string, c api.Caller, device string) store.AtDoor {
	return store.AtDoor{Practice: k.user.Practice, User: k.user.ID, At: c.Now.UnixMilli(), What: what, Said: api.Clip(k.user.Email, 254), Place: api.Clip(k.place, 60), Device: api.Clip(device, 300)}
}

// DoorRow is something that happened at the door.
type DoorRow struct {
	At     int64  `json:"at" doc:"ms"`
	LastAt int64  `json:"last_at" doc:"the last of them, ms"`
	Times  int64  `json:"times" doc:"so often within a minute"`
	What   string `json:"what" enum:"signed in,wrong password,held off,kept out,password changed,signed out everywhere,refused origin,refused host"`
	Name   string `json:"name,omitempty" doc:"of the user whose account it was"`
	Said   string `json:"said,omitempty" doc:"address of the account, or what was refused; empty: no account that is known here"`
	Place  string `json:"place" doc:"network address"`
	Device string `json:"device" doc:"what the browser says it is"`
}

const doorShown = 200

func (s *Service) doorOperations() {
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/door", "door", "Who signed in, who did not, and what was refused; the newest first", s.door)
}

func (s *Service) door(ctx context.Context, c api.Caller, _ *struct{}) ([]DoorRow, error) {
	list, err := c.View.Door(ctx, c.Practice, doorShown)
	rows := make([]DoorRow, 0, len(list))
	for _, d := range list {
		rows = append(rows, DoorRow{At: d.At, LastAt: d.LastAt, Times: d.Times, What: d.What, Name: d.Name, Said: d.Said, Place: d.Place, Device: d.Device})
	}
	return rows, err
}
