package store

import (
	"context"
	"database/sql"
	"io/fs"
	"path/filepath"
	"testing"
	"testing/fstest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
)

func tap(seq int64, path string, value any) assess.Mark {
	return assess.Mark{ID: uuid.NewString(), At: 1000 + seq, Device: "tablet", Seq: seq, Path: path, Value: value}
}

func TestAssessmentsStandByTheirDay(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	settled := map[horse.Problem]assess.Account{horse.Loading: {Baseline: assess.Baseline{Arousal: horse.ArousalOf(0)}}}
	newer := Assessment{ID: uuid.NewString(), HorseID: p.horse, On: "2026-06-20", Doc: assess.Assessment{Problems: settled}}
	older := Assessment{ID: uuid.NewString(), HorseID: p.horse, On: "2026-06-02"}
	for _, a := range []Assessment{newer, older} {
		require.NoError(t, p.AddAssessment(ctx, p.actor, a))
	}
	list, err := p.Assessments(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Equal(t, []string{older.ID, newer.ID}, []string{list[0].ID, list[1].ID})
	assert.True(t, list[1].Doc.Problems[horse.Loading].Baseline.Arousal.Noted(), "settled is noted, and not the same as not looked at")
	assert.Empty(t, list[0].Doc.Problems)
}

func TestMarksAreKeptOnceAndMakeTheDocument(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	begun := Assessment{ID: uuid.NewString(), HorseID: p.horse, On: "2026-06-02", Base: assess.Assessment{NotYet: true}}
	first, second := tap(1, "tack/bit", "gag"), tap(2, "tack/bit", "leverage")
	second.At = 0 // its clock stood before the first's
	kept, refused, err := p.Mark(ctx, p.actor, begun, 0, []assess.Mark{first, second})
	require.NoError(t, err)
	assert.Equal(t, []error{nil, nil}, refused)
	assert.Equal(t, "gag", kept.Doc.Tack.Bit.String(), "in the order of their times, not of arrival")
	assert.True(t, kept.Doc.NotYet, "it starts from its base")

	other := first
	other.Value = "none"
	kept, refused, err = p.Mark(ctx, p.actor, begun, 0, []assess.Mark{first, other, tap(3, "tack/noseband", "tight")})
	require.NoError(t, err)
	assert.Equal(t, []error{nil, ErrOther, nil}, refused)
	assert.Equal(t, []string{"gag", "tight"}, []string{kept.Doc.Tack.Bit.String(), kept.Doc.Tack.Noseband.String()})
	read, err := p.Assessment(ctx, p.actor.Practice, begun.ID)
	require.NoError(t, err)
	assert.Equal(t, kept.Doc, read.Doc)
	marks, err := p.Marks(ctx, p.actor.Practice, begun.ID)
	require.NoError(t, err)
	assert.Len(t, marks, 3)
	assert.Equal(t, "Wren Harrow", marks[0].By)

	_, _, err = p.Mark(ctx, p.actor, begun, 0, []assess.Mark{tap(4, "nowhere", 1)})
	require.ErrorContains(t, err, "nowhere")
	marks, err = p.Marks(ctx, p.actor.Practice, begun.ID)
	require.NoError(t, err)
	assert.Len(t, marks, 3, "what can't be read is not half kept")
	for _, change := range []string{"UPDATE marks SET value = '1'", "DELETE FROM marks"} {
		_, err := p.writer.Exec(change)
		require.Error(t, err, change)
	}
}

func TestMarksGoOnFromAWholeAssessment(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	whole := Assessment{ID: uuid.NewString(), HorseID: p.horse, On: "2026-06-02", Doc: assess.Assessment{NotYet: true}}
	require.NoError(t, p.AddAssessment(ctx, p.actor, whole))
	kept, _, err := p.Mark(ctx, p.actor, Assessment{ID: whole.ID, HorseID: p.horse}, 0, []assess.Mark{tap(1, "tack/bit", "gag")})
	require.NoError(t, err)
	assert.True(t, kept.Doc.NotYet)
	assert.Equal(t, "gag", kept.Doc.Tack.Bit.String())
}

func TestAWrongClockOrdersMarksAllTheSame(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	begun := Assessment{ID: uuid.NewString(), HorseID: p.horse, On: "2026-06-02"}
	day := int64(24 * time.Hour / time.Millisecond)
	right, wrong := tap(1, "tack/bit", "gag"), tap(1, "tack/bit", "none")
	right.At, wrong.At, wrong.Device = p.actor.At-10_000, p.actor.At-day-5_000, "phone"
	_, _, err := p.Mark(ctx, p.actor, begun, p.actor.At, []assess.Mark{right})
	require.NoError(t, err)
	kept, _, err := p.Mark(ctx, p.actor, begun, p.actor.At-day, []assess.Mark{wrong})
	require.NoError(t, err)
	assert.Equal(t, "none", kept.Doc.Tack.Bit.String(), "the phone is a day behind, and its tap was the later")
}

func TestAnotherPracticesAssessmentIsNotHere(t *testing.T) {
	ctx := context.Background()
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	mine, other := filled(t, s, "mine"), filled(t, s, "other")
	a := Assessment{ID: uuid.NewString(), HorseID: mine.horse, On: "2026-06-02"}
	require.NoError(t, s.AddAssessment(ctx, mine.actor, a))
	_, err := s.Assessment(ctx, other.actor.Practice, a.ID)
	require.ErrorIs(t, err, ErrNotFound)
	a.HorseID = other.horse
	_, _, err = s.Mark(ctx, mine.actor, a, 0, []assess.Mark{tap(1, "tack/bit", "gag")})
	require.ErrorIs(t, err, ErrNotFound, "not this horse's")
}

// An assessment written in the first form is read in the new one.
func TestOldAssessmentsAreCarriedOver(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "p.db")
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	first, err := fs.ReadFile(migrations, "migrations/00001_first.sql")
	require.NoError(t, err)
	require.NoError(t, migrateFrom(ctx, db, path, time.Now(), fstest.MapFS{"00001_first.sql": {Data: first}}))
	practice, h, k, a := uuid.NewString(), uuid.NewString(), uuid.NewString(), uuid.NewString()
	for _, q := range []struct {
		sql  string
		args []any
	}{
		{"INSERT INTO practices VALUES (?, 'Harrow', 'Europe/London', 'trailer', 'near and off', 0)", []any{practice}},
		{"INSERT INTO horses (id, practice_id, name, record, created_at) VALUES (?, ?, 'Moth', '{}', 0)", []any{h, practice}},
		{"INSERT INTO cases (id, practice_id, horse_id, problem, ladder, goal, opened_on, created_at) VALUES (?, ?, ?, 'loading', 'load', 'g', '2026-06-01', 0)", []any{k, practice, h}},
		{"INSERT INTO assessments (id, practice_id, case_id, on_date, doc, created_at) VALUES (?, ?, ?, '2026-06-02', ?, 0)", []any{a, practice, k, `{
			"story": {"began": "suddenly", "tries": 4, "handler_is": "beginner"},
			"body": [{"item": "hind leg", "state": "suspect", "note": "caught twice"}, {"item": "eyes", "state": "clear"}],
			"events": [{"kind": "reared", "on": "2026-05-01"}],
			"baseline": {"done": true, "arousal": 2, "warning_look": true, "reached": "load.gap"}}`}},
		{"INSERT INTO assessments (id, practice_id, case_id, on_date, doc, created_at) VALUES (?, ?, ?, '2026-06-03', ?, 0)", []any{uuid.NewString(), practice, k, `{"story": {}, "baseline": {}}`}},
	} {
		_, err := db.ExecContext(ctx, q.sql, q.args...)
		require.NoError(t, err)
	}
	require.NoError(t, db.Close())
	s, err := Open(ctx, path, time.Now())
	require.NoError(t, err)
	defer func() { assert.NoError(t, s.Close()) }()
	list, err := s.Assessments(ctx, practice, h)
	require.NoError(t, err)
	require.Len(t, list, 2)
	doc := list[0].Doc
	account := doc.Problems[horse.Loading]
	assert.Equal(t, []any{"suddenly", 4, "load.gap", 2}, []any{account.Story.Began.String(), *account.Story.Tries, account.Baseline.Reached, account.Baseline.Arousal.Int()})
	assert.Equal(t, assess.BodyNote{State: horse.Suspect, Note: "caught twice"}, doc.Body[horse.HindLeg])
	assert.Equal(t, horse.Clear, doc.BodyOf(horse.Eyes))
	assert.Equal(t, "reared", doc.Events["e0"].Kind.String())
	assert.Equal(t, horse.Beginner, doc.Main())
	assert.Equal(t, "warning look", doc.Mind.Look.String())
	assert.Empty(t, list[1].Doc.Body)
	assert.Contains(t, list[1].Doc.Problems, horse.Loading)
}
