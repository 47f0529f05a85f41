package store

import (
	"context"
	"path/filepath"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/plan"
	"ivorybridge/core/report"
)

// What can't be is refused by the schema itself, whoever writes.
func TestTheSchemaRefusesWhatCantBe(t *testing.T) {
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	id := uuid.NewString()
	practice := p.actor.Practice
	for name, c := range map[string]struct {
		sql  string
		args []any
	}{
		"a name that is empty":           {"INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'owner', '', 0)", []any{id, practice}},
		"a name that is too long":        {"INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'owner', ?, 0)", []any{id, practice, strings.Repeat("x", 121)}},
		"an unknown kind of person":      {"INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'ghost', 'x', 0)", []any{id, practice}},
		"an id that is none":             {"INSERT INTO people (id, practice_id, kind, name, created_at) VALUES ('7', ?, 'owner', 'x', 0)", []any{practice}},
		"a person of no practice":        {"INSERT INTO people (id, practice_id, kind, name, created_at) VALUES (?, ?, 'owner', 'x', 0)", []any{id, uuid.NewString()}},
		"a role that is none":            {"UPDATE users SET role = 'king' WHERE practice_id = ?", []any{practice}},
		"a time where a text belongs":    {"UPDATE users SET created_at = 'noon' WHERE practice_id = ?", []any{practice}},
		"a record that is no JSON":       {"UPDATE horses SET record = '{' WHERE practice_id = ?", []any{practice}},
		"a date that is none":            {"UPDATE cases SET needed_by = '2026-02-30' WHERE practice_id = ?", []any{practice}},
		"a goal that is empty":           {"UPDATE cases SET goal = '' WHERE practice_id = ?", []any{practice}},
		"a horse at nobody's yard":       {"UPDATE horses SET yard_id = ? WHERE practice_id = ?", []any{id, practice}},
		"a session on a date that isn't": {"UPDATE sessions SET local_date = '1.6.2026' WHERE practice_id = ?", []any{practice}},
		"a vehicle that is none":         {"UPDATE practices SET vehicle = 'boat' WHERE id = ?", []any{practice}},
		"a token's hash that is short":   {"INSERT INTO sign_ins VALUES (x'00', ?, ?, 'd', 0, 1)", []any{practice, p.actor.User}},
		"an unknown kind of entry": {
			"INSERT INTO entries VALUES (?, ?, ?, 'd', 1, 0, 0, 0, 0, 0, 'guess', ?, '{}')", []any{id, practice, p.session, p.actor.User},
		},
		"an entry of no device": {
			"INSERT INTO entries VALUES (?, ?, ?, '', 1, 0, 0, 0, 0, 0, 'rep', ?, '{}')", []any{id, practice, p.session, p.actor.User},
		},
		"an entry of no session": {
			"INSERT INTO entries VALUES (?, ?, ?, 'd', 1, 0, 0, 0, 0, 0, 'rep', ?, '{}')", []any{id, practice, id, p.actor.User},
		},
		"a mark of no assessment":   {"INSERT INTO marks VALUES (?, ?, ?, 'd', 1, 0, 0, 0, 'tack/bit', '1', ?)", []any{id, practice, id, p.actor.User}},
		"a consent to anything":     {"INSERT INTO consents VALUES (?, ?, 'anything', '2026-06-01', NULL, ?, 0)", []any{practice, id, p.actor.User}},
		"a report before the first": {"INSERT INTO reports VALUES (?, ?, 0, '{}', ?, 0)", []any{practice, p.session, p.actor.User}},
	} {
		_, err := p.writer.Exec(c.sql, c.args...)
		assert.Error(t, err, name)
	}
}

// A row can't point into another practice, even where the id exists there.
func TestRowsStayInTheirPractice(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "p.db"))
	mine, other := filled(t, s, "mine"), filled(t, s, "other")
	for name, sql := range map[string]string{
		"a case of another's horse":      "UPDATE cases SET horse_id = '" + other.horse + "' WHERE practice_id = ?",
		"a session of another's case":    "UPDATE sessions SET case_id = '" + other.kase + "' WHERE practice_id = ?",
		"a session by another's user":    "UPDATE sessions SET started_by = '" + other.actor.User + "' WHERE practice_id = ?",
		"an ownership of another's":      "UPDATE ownerships SET horse_id = '" + other.horse + "' WHERE practice_id = ?",
		"a horse moved to another's row": "UPDATE horses SET practice_id = '" + other.actor.Practice + "' WHERE practice_id = ?",
	} {
		_, err := s.writer.Exec(sql, mine.actor.Practice)
		assert.ErrorContains(t, err, "FOREIGN KEY", name)
	}
}

func TestPlansKeepTheirVersions(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	for i, reason := range []string{"first", "the vet has been"} {
		n, err := p.AddPlan(ctx, p.actor, p.kase, Plan{School: "build and release", Reason: reason, Catalog: "t", Doc: plan.Plan{Next: reason}})
		require.NoError(t, err)
		assert.EqualValues(t, i+1, n)
	}
	plans, err := p.Plans(ctx, p.actor.Practice, p.kase)
	require.NoError(t, err)
	require.Len(t, plans, 2)
	assert.Equal(t, []string{"the vet has been", "first"}, []string{plans[0].Doc.Next, plans[1].Reason})
	assert.Equal(t, "Wren Harrow", plans[0].MadeBy)
	_, err = p.AddPlan(ctx, p.actor, uuid.NewString(), Plan{School: "s", Reason: "r"})
	require.ErrorIs(t, err, ErrNotFound)
}

func TestPeopleAndYardsAreChangedByVersion(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	people, err := p.People(ctx, p.actor.Practice)
	require.NoError(t, err)
	ines := people[0]
	ines.Phone = "01632 960188"
	require.NoError(t, p.UpdatePerson(ctx, p.actor, ines))
	stale, ok := asStale(p.UpdatePerson(ctx, p.actor, ines))
	require.True(t, ok)
	assert.Equal(t, ines.Phone, stale.Current.(Person).Phone)
	ines.ID = uuid.NewString()
	require.ErrorIs(t, p.UpdatePerson(ctx, p.actor, ines), ErrNotFound)

	yards, err := p.Yards(ctx, p.actor.Practice)
	require.NoError(t, err)
	yard := yards[0]
	yard.Address = "past the mill"
	require.NoError(t, p.UpdateYard(ctx, p.actor, yard))
	stale, ok = asStale(p.UpdateYard(ctx, p.actor, yard))
	require.True(t, ok)
	assert.Equal(t, "past the mill", stale.Current.(Yard).Address)
	h, err := p.Horse(ctx, p.actor.Practice, p.horse)
	require.NoError(t, err)
	assert.Equal(t, "past the mill", h.Yard.Address, "the horse's page says the same")
}

func TestCasesAreFinishedAndTakenUpAgain(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	k, err := p.Case(ctx, p.actor.Practice, p.kase)
	require.NoError(t, err)
	k.FinishedOn, k.NeededBy = "2026-07-01", ""
	require.NoError(t, p.UpdateCase(ctx, p.actor, k))
	again, err := p.Case(ctx, p.actor.Practice, p.kase)
	require.NoError(t, err)
	assert.Equal(t, "2026-07-01", again.FinishedOn)
	assert.Empty(t, again.NeededBy)
	again.FinishedOn = ""
	require.NoError(t, p.UpdateCase(ctx, p.actor, again))
	_, ok := asStale(p.UpdateCase(ctx, p.actor, again))
	assert.True(t, ok)
}

func TestEveryChangeIsOnRecord(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	require.NoError(t, p.SaveEdits(ctx, p.actor, p.session, Edits{Edits: map[string]report.Edit{}}))
	require.Error(t, p.UpdateHorse(ctx, p.actor, Horse{ID: p.horse, Name: "", Version: 1}), "refused by the schema")
	rows, err := p.reader.Query("SELECT what FROM changes WHERE practice_id = ? AND user_id = ? ORDER BY id", p.actor.Practice, p.actor.User)
	require.NoError(t, err)
	defer func() { assert.NoError(t, rows.Close()) }()
	var what []string
	for rows.Next() {
		var w string
		require.NoError(t, rows.Scan(&w))
		what = append(what, w)
	}
	require.NoError(t, rows.Err())
	assert.Equal(t, []string{"user added", "person added", "yard added", "horse taken on", "report saved"}, what, "what was refused leaves no trace")
}

func TestTheSameSessionSentTwice(t *testing.T) {
	ctx := context.Background()
	p := filled(t, open(t, filepath.Join(t.TempDir(), "p.db")), "one")
	n := p.aSession(p.session)
	require.NoError(t, p.StartSession(ctx, p.actor, n))
	n.StartedAt++
	require.ErrorIs(t, p.StartSession(ctx, p.actor, n), ErrOther)
}
