package cases

import (
	"context"

	"ivorybridge/server/api"
)

// What is noted as opened.
const (
	OpenedHorse  = "opened the horse"
	OpenedReport = "opened a report"
)

type openedKey struct{ practice, user, horse, day, what string }

// mostOpened is how many openings are remembered, so that one a day is written.
const mostOpened = 4096

// Opened notes, once a day, that a user opened a horse's pages. What can't be noted
// holds nobody up.
func (s *Reader) Opened(ctx context.Context, c api.Caller, horseID, what string) {
	key := openedKey{c.Practice, c.ID, horseID, c.Today(), what}
	if known, _ := s.opened.ContainsOrAdd(key, true); known {
		return
	}
	if err := s.Store.KeepOpened(context.WithoutCancel(ctx), c.Actor(), horseID, c.Today(), what); err != nil {
		s.opened.Remove(key)
		s.Log.WarnContext(ctx, "what was opened is not on record", "error", err.Error())
	}
}
