package store

import (
	"context"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/diary"
	"ivorybridge/core/report"
)

func at(clock diary.Clock) *diary.Clock { return &clock }

// visitTo is a visit to the practice's horse.
func (p practiceIn) visitTo(on string, clock *diary.Clock) Visit {
	return Visit{
		ID: uuid.NewString(), Who: Named{ID: p.actor.User}, On: on, At: clock, Minutes: 45, Zone: "Europe/London", Aim: "stand", Agreed: true, Horses: []Named{{ID: p.horse}},
	}
}

func TestVisitsAreKeptByVersion(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	v := p.visitTo("2026-06-02", at(600))
	require.NoError(t, p.AddVisit(ctx, p.actor, v))
	kept, err := p.Visit(ctx, p.actor.Practice, v.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"2026-06-02", diary.Clock(600), "stand", true, int64(1)}, []any{kept.On, *kept.At, kept.Aim, kept.Agreed, kept.Version})
	assert.Equal(t, []Named{{p.horse, "Moth"}}, kept.Horses)

	v.On, v.At, v.Version = "2026-06-03", nil, 1
	require.NoError(t, p.ChangeVisit(ctx, p.actor, v))
	stale, ok := asStale(p.ChangeVisit(ctx, p.actor, v))
	require.True(t, ok)
	now := stale.Current.(Visit)
	assert.Equal(t, "2026-06-03", now.On)
	assert.Nil(t, now.At, "it has a day and no time")
	assert.Len(t, now.Horses, 1, "a stale change takes nothing away")

	_, err = p.Visit(ctx, other.actor.Practice, v.ID)
	require.ErrorIs(t, err, ErrNotFound, "of another practice")
	strange := p.visitTo("2026-06-02", nil)
	strange.Horses = []Named{{ID: other.horse}}
	var missing *MissingError
	require.ErrorAs(t, p.AddVisit(ctx, p.actor, strange), &missing)
	assert.Equal(t, "horse", missing.What)
	list, err := p.Visits(ctx, p.actor.Practice, "2026-01-01", "2026-12-31")
	require.NoError(t, err)
	assert.Len(t, list, 1, "nothing was half-kept")
}

// The visits of days stand by their time, those without one last; by hand in the order
// that was given, on their own day alone.
func TestTheOrderOfADaysVisits(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	late, none, early, next := p.visitTo("2026-06-02", at(700)), p.visitTo("2026-06-02", nil), p.visitTo("2026-06-02", at(500)), p.visitTo("2026-06-03", at(400))
	for _, v := range []Visit{late, none, early, next} {
		require.NoError(t, p.AddVisit(ctx, p.actor, v))
	}
	ids := func(since, until string) (list []string) {
		visits, err := p.Visits(ctx, p.actor.Practice, since, until)
		require.NoError(t, err)
		for _, v := range visits {
			list = append(list, v.ID)
		}
		return list
	}
	assert.Equal(t, []string{early.ID, late.ID, none.ID}, ids("2026-06-02", "2026-06-02"))
	assert.Equal(t, []string{early.ID, late.ID, none.ID, next.ID}, ids("2026-06-02", "2026-06-03"))
	require.NoError(t, p.OrderVisits(ctx, p.actor, "2026-06-02", []string{none.ID, early.ID}, true))
	kept, err := p.Visit(ctx, p.actor.Practice, early.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 2, kept.Place)
	require.ErrorIs(t, p.OrderVisits(ctx, p.actor, "2026-06-02", []string{early.ID, next.ID}, false), ErrNotFound, "it is of another day")
	kept, err = p.Visit(ctx, p.actor.Practice, early.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 2, kept.Place, "all or nothing")

	of, err := p.VisitsOf(ctx, p.actor.Practice, p.horse, "2026-06-03")
	require.NoError(t, err)
	assert.Len(t, of, 1)
	work, err := p.InWork(ctx, p.actor.Practice, "2026-06-04")
	require.NoError(t, err)
	require.Len(t, work, 1)
	assert.Equal(t, Named{p.horse, "Moth"}, work[0].Named)
	assert.False(t, work[0].Planned, "none waits for it from then on")
	gone := next
	gone.Cancelled, gone.Version = "ice", 1
	require.NoError(t, p.ChangeVisit(ctx, p.actor, gone))
	work, err = p.InWork(ctx, p.actor.Practice, "2026-06-03")
	require.NoError(t, err)
	assert.False(t, work[0].Planned, "a cancelled one waits for nobody")
}

func TestDrivesPlacesAndHowADayBegins(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	tarn, err := p.Yards(ctx, p.actor.Practice)
	require.NoError(t, err)
	far := Yard{ID: uuid.NewString(), Name: "Far"}
	require.NoError(t, p.AddYard(ctx, p.actor, far))
	twelve, nine := 12, 9
	require.NoError(t, p.SetDrive(ctx, p.actor, tarn[0].ID, far.ID, &twelve))
	require.NoError(t, p.SetDrive(ctx, p.actor, far.ID, tarn[0].ID, &nine), "the other way round it is the same drive")
	require.NoError(t, p.PlaceYard(ctx, p.actor, YardPlace{Named: Named{ID: far.ID}, Zone: "Europe/Dublin", Place: &diary.Place{Lat: 54.5, Lon: -3.1}}))
	yards, roads, err := p.Roads(ctx, p.actor.Practice)
	require.NoError(t, err)
	minutes, known := roads.Drive(tarn[0].ID, far.ID)
	assert.Equal(t, []any{9, true}, []any{minutes, known})
	assert.Len(t, roads.Typed, 1)
	assert.Equal(t, []string{"Europe/Dublin", ""}, []string{yards[0].Zone, yards[1].Zone})
	assert.InDelta(t, 54.5, roads.Places[far.ID].Lat, 0)
	require.NoError(t, p.SetDrive(ctx, p.actor, far.ID, tarn[0].ID, nil))
	_, roads, err = p.Roads(ctx, p.actor.Practice)
	require.NoError(t, err)
	assert.Empty(t, roads.Typed)
	require.ErrorIs(t, p.PlaceYard(ctx, p.actor, YardPlace{Named: Named{ID: uuid.NewString()}}), ErrNotFound)

	begins, err := p.DayBegins(ctx, p.actor.Practice, p.actor.User)
	require.NoError(t, err)
	assert.Equal(t, DayBegins{At: usualBegin}, begins, "before anybody said")
	want := DayBegins{Base: far.ID, At: 420, Rounds: []diary.Round{{Name: "west", Day: 4, Nth: 3, From: "2026-01-01"}}}
	require.NoError(t, p.SetDayBegins(ctx, p.actor, want))
	begins, err = p.DayBegins(ctx, p.actor.Practice, p.actor.User)
	require.NoError(t, err)
	assert.Equal(t, want, begins)
}

// A calendar opens nothing once it is switched off, or its user is kept out.
func TestCalendarsAndBusyTimes(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	p, other := filled(t, s, "one"), filled(t, s, "other")
	hash := make([]byte, 32)
	feed := Feed{ID: uuid.NewString(), User: p.actor.User}
	require.NoError(t, p.AddFeed(ctx, p.actor, feed, hash))
	found, home, err := p.FeedOf(ctx, hash)
	require.NoError(t, err)
	assert.Equal(t, []string{p.actor.User, "one"}, []string{found.User, home.Name})
	require.NoError(t, p.FeedWasRead(ctx, p.actor.Practice, feed.ID, 77))
	list, err := p.Feeds(ctx, p.actor.Practice)
	require.NoError(t, err)
	assert.EqualValues(t, 77, list[0].ReadAt)
	require.ErrorIs(t, p.SwitchFeedOff(ctx, other.actor, feed.ID), ErrNotFound, "another practice's is not there")
	require.NoError(t, p.SwitchFeedOff(ctx, p.actor, feed.ID))
	require.ErrorIs(t, p.SwitchFeedOff(ctx, p.actor, feed.ID), ErrNotFound)
	_, _, err = p.FeedOf(ctx, hash)
	require.ErrorIs(t, err, ErrNotFound)

	require.NoError(t, p.SetBusy(ctx, p.actor, []Busy{{From: 100, To: 200, What: "school"}, {From: 100, To: 200, What: "school"}, {From: 300, To: 400}}))
	busy := func(since, until int64) int {
		list, err := p.BusyBetween(ctx, p.actor.Practice, since, until)
		require.NoError(t, err)
		return len(list)
	}
	assert.Equal(t, []int{2, 1, 0, 1, 0}, []int{busy(0, 500), busy(0, 101), busy(0, 100), busy(199, 250), busy(200, 300)}, "what touches the span")
	require.NoError(t, p.SetBusy(ctx, p.actor, []Busy{{From: 1, To: 2}}))
	assert.Equal(t, 1, busy(0, 500), "in place of what was there")
	require.Error(t, p.SetBusy(ctx, p.actor, []Busy{{From: 5, To: 5}}))
	assert.Equal(t, 1, busy(0, 500), "nothing was half-kept")
}

// The wording of the last page is kept by version, as a report's is.
func TestTheLastPagesWordingIsKeptByVersion(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	none, err := p.ClosingEdits(ctx, p.actor.Practice, p.kase)
	require.NoError(t, err)
	assert.Equal(t, Edits{Edits: map[string]report.Edit{}}, none)
	edits := map[string]report.Edit{"better": {Text: "She is ready."}}
	require.NoError(t, p.SaveClosing(ctx, p.actor, p.kase, Edits{Edits: edits}))
	stale, ok := asStale(p.SaveClosing(ctx, p.actor, p.kase, Edits{Edits: map[string]report.Edit{}}))
	require.True(t, ok)
	assert.Equal(t, edits, stale.Current.(Edits).Edits)
	var missing *MissingError
	require.ErrorAs(t, p.SaveClosing(ctx, p.actor, uuid.NewString(), Edits{Edits: edits}), &missing)
	assert.Equal(t, "case", missing.What)
	of, err := p.Edits(ctx, p.actor.Practice, p.session)
	require.NoError(t, err)
	assert.Zero(t, of.Version, "the visit's page has a wording of its own")
}
