package server_test

import (
	"context"
	"encoding/json"
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/history"
	"ivorybridge/core/track"
	"ivorybridge/demo"
	"ivorybridge/server"
	"ivorybridge/store"
)

// folds are the histories kept of all horses, as they stand in the database.
func (s *sized) folds() map[string]string {
	all := map[string]string{}
	for _, h := range s.horses {
		kept, err := s.db.Folds(context.Background(), s.practice, h.ID)
		require.NoError(s.b, err)
		for id, text := range kept {
			all[id] = text
		}
	}
	return all
}

func (s *sized) refold() map[string]string {
	ctx := context.Background()
	require.NoError(s.b, s.db.DropFolds(ctx))
	require.Empty(s.b, s.folds())
	last := 0
	require.NoError(s.b, s.server.Fold(ctx, func(done, all int) { last = all - done }))
	assert.Zero(s.b, last, "told to the last horse")
	return s.folds()
}

// What is kept of past sessions is made from the tracks alone: thrown away and
// made again it is the same to the letter, for the demo's horses and for invented
// ones, also where it was made session by session, out of turn.
func TestWhatIsKeptIsMadeAgainToTheLetter(t *testing.T) {
	for name, s := range map[string]*sized{
		"told":     invented(t, demo.Size{}),
		"invented": invented(t, demo.Size{Horses: 18, Sessions: 7, Entries: 30, Seed: 5}),
	} {
		t.Run(name, func(t *testing.T) {
			for _, h := range s.horses {
				s.took(http.MethodGet, "/api/horses/"+h.ID, nil) // folds as it is asked for
			}
			asked := s.folds()
			require.NotEmpty(t, asked)
			assert.Equal(t, asked, s.refold())

			ctx := context.Background()
			actor := store.Actor{Practice: s.practice, User: s.user, At: s.now.UnixMilli()}
			for i, h := range s.horses {
				sessions, days, _, err := s.db.Days(ctx, s.practice, h.ID)
				require.NoError(t, err)
				if len(sessions) < 3 {
					continue
				}
				n, entries := sessions[i%(len(sessions)-1)], days[i%(len(sessions)-1)].Track
				late := track.Entry{ID: uuid.NewString(), Kind: track.KindUndo, At: entries[len(entries)-1].At, Device: "phone", Replaces: entries[len(entries)/2].ID}
				_, _, err = s.db.Append(ctx, actor, n.ID, 0, []track.Entry{late})
				require.NoError(t, err)
				s.took(http.MethodGet, "/api/horses/"+h.ID, nil)
			}
			late := s.folds()
			assert.NotEqual(t, asked, late)
			assert.Equal(t, late, s.refold(), "after entries that came late")
		})
	}
}

// What one build folded, another folds anew: it may read a track otherwise.
func TestAnotherBuildFoldsAnew(t *testing.T) {
	s := invented(t, demo.Size{Horses: 1, Sessions: 3, Entries: 10, Seed: 5})
	first := s.refold()
	require.NotEmpty(t, first)
	c := s.server.Config
	c.Version = "the next build"
	next, err := server.New(c)
	require.NoError(t, err)
	require.NoError(t, next.Fold(context.Background(), func(int, int) {}))
	for id, text := range s.folds() {
		assert.NotEqual(t, first[id], text, "its edition is the next build's")
		assert.Contains(t, text, "the next build")
	}
}

// A history that goes through the database at each session is the one that was
// folded in one go.
func TestAHistorySurvivesBeingKept(t *testing.T) {
	s := invented(t, demo.Size{Horses: 6, Sessions: 6, Entries: 30, Seed: 9})
	for _, h := range s.horses {
		sessions, days, _, err := s.db.Days(context.Background(), s.practice, h.ID)
		require.NoError(t, err)
		var kept history.History
		for i, d := range days {
			kept = kept.After(s.catalog, history.Beside{}, d)
			text, err := json.Marshal(kept)
			require.NoError(t, err)
			whole, err := json.Marshal(history.Fold(s.catalog, history.Beside{}, days[:i+1]))
			require.NoError(t, err)
			require.Equal(t, string(whole), string(text), "%s after session %d", h.Name, i+1)
			var back history.History
			require.NoError(t, json.Unmarshal(text, &back))
			kept = back
		}
		assert.Equal(t, len(sessions), kept.Sessions())
	}
}

// Only what has changed is read again for the caseload, and it is never behind.
func TestTheCaseloadFollowsEveryChange(t *testing.T) {
	s := invented(t, demo.Size{Horses: 9, Sessions: 3, Entries: 12, Seed: 2})
	read := func() string { return s.send(http.MethodGet, "/api/caseload", nil).Body.String() }
	ctx := context.Background()
	actor := store.Actor{Practice: s.practice, User: s.user, At: s.now.UnixMilli()}
	h := s.horses[4]
	was := read()
	assert.Equal(t, was, read())
	changes := map[string]func(){
		"name": func() {
			now, err := s.db.Horse(ctx, s.practice, h.ID)
			require.NoError(t, err)
			now.Name = "Another name"
			require.NoError(t, s.db.UpdateHorse(ctx, actor, now))
		},
		"goal": func() {
			k, err := s.db.Case(ctx, s.practice, s.cases[h.ID].ID)
			require.NoError(t, err)
			k.NeededBy = "2026-06-04"
			require.NoError(t, s.db.UpdateCase(ctx, actor, k))
		},
		"owner": func() {
			p, err := s.db.Person(ctx, s.practice, h.Owners[0].ID)
			require.NoError(t, err)
			p.Name = "Somebody Else"
			require.NoError(t, s.db.UpdatePerson(ctx, actor, p))
		},
		"yard": func() {
			yards, err := s.db.Yards(ctx, s.practice)
			require.NoError(t, err)
			yards[0].Name = "A New Sign"
			require.NoError(t, s.db.UpdateYard(ctx, actor, yards[0]))
		},
		"session": func() { s.rep(s.begin(h), 1) },
		"assessment": func() {
			s.took(http.MethodPost, "/api/horses/"+h.ID+"/assessments/"+uuid.NewString()+"/marks", map[string]any{"sent_at": 0, "marks": []any{map[string]any{
				"id": uuid.NewString(), "device": "tablet", "seq": 1, "at": s.now.UnixMilli(), "path": "body/mouth", "value": map[string]string{"state": "suspect"},
			}}})
		},
	}
	for name, change := range changes {
		change()
		now := read()
		assert.NotEqual(t, was, now, name)
		s.restart()
		assert.Equal(t, read(), now, "%s: as a server says that remembers nothing", name)
		was = now
	}
}
