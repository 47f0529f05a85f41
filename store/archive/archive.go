// Package archive takes a practice out as one file of open forms, and in again: a zip with
// practice.json, a table of comma-separated values for each thing a person may want to look
// at, the pictures and films, and a README that explains it to a stranger (part 8).
//
// practice.json holds the rows of the database as they are, with the version of the schema
// they are of. An archive of an earlier version is taken in by the same migrations as an
// earlier database.
package archive

import (
	"context"
	"database/sql"
	"fmt"
	"slices"
	"strings"
)

// Format and Version say what practice.json is.
const (
	Format  = "ivory-bridge-practice"
	Version = 1
)

// Scope says what of a practice is taken out.
type Scope struct {
	Horses []string // their ids; none: the whole practice
}

func (s Scope) whole() bool { return len(s.Horses) == 0 }

// kept stays where it is: it opens doors, or is made again from the rest.
var kept = []string{
	"goose_db_version", "limits", "door", "familiar", "sign_ins", "invitations", "links", "feeds", "letters",
	"histories", "stamps",
}

// besides is what belongs to a practice and to no horse.
var besides = []string{"busy", "changes", "days_begin", "drives", "helpers", "opened", "readers", "trailers", "visits", "visited"}

// secret are columns that are taken out empty, with what is put in their place as they come
// in: nobody signs in with it.
var secret = map[string]map[string]string{
	"users":   {"password_hash": "''", "one_time_until": "NULL"},
	"readers": {"stop_token": "lower(hex(randomblob(24)))"},
}

// A table as the database has it.
type table struct {
	name    string
	columns []column
	refers  []reference
}

type column struct {
	name   string
	kind   string // INTEGER, REAL, TEXT
	json   bool   // its text is JSON
	key    bool
	needed bool // never null
}

// reference is from a column of a table, with its practice, to a row of another.
type reference struct{ column, to string }

func (t table) has(name string) bool {
	return slices.ContainsFunc(t.columns, func(c column) bool { return c.name == name })
}

// out lists the columns that are written.
func (t table) out() (list []column) {
	for _, c := range t.columns {
		if _, hidden := secret[t.name][c.name]; !hidden && c.name != "practice_id" {
			list = append(list, c)
		}
	}
	return list
}

type querier interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// tables reads the tables that an archive may hold, each after those it refers to.
func tables(ctx context.Context, db querier) ([]table, error) {
	texts, err := pairs(ctx, db, "SELECT name, sql FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name")
	if err != nil {
		return nil, err
	}
	var all []table
	for _, p := range texts {
		name, text := p[0], p[1]
		if slices.Contains(kept, name) {
			continue
		}
		t := table{name: name}
		columns, err := pairs(ctx, db, `SELECT name, type || ' ' || "notnull" || ' ' || pk FROM pragma_table_info(?)`, name)
		if err != nil {
			return nil, err
		}
		for _, c := range columns {
			is := strings.Fields(c[1])
			t.columns = append(t.columns, column{name: c[0], kind: is[0], needed: is[1] == "1", key: is[2] != "0", json: strings.Contains(text, "json_valid("+c[0]+")")})
		}
		refers, err := pairs(ctx, db, `SELECT "from", "table" FROM pragma_foreign_key_list(?) WHERE "from" <> 'practice_id'`, name)
		if err != nil {
			return nil, err
		}
		for _, r := range refers {
			t.refers = append(t.refers, reference{r[0], r[1]})
		}
		all = append(all, t)
	}
	return ordered(all), nil
}

// ordered puts each table after those it refers to.
func ordered(all []table) []table {
	var list []table
	done := map[string]bool{}
	var put func(t table)
	put = func(t table) {
		if done[t.name] {
			return
		}
		done[t.name] = true
		for _, r := range t.refers {
			if i := slices.IndexFunc(all, func(o table) bool { return o.name == r.to }); i >= 0 {
				put(all[i])
			}
		}
		list = append(list, t)
	}
	for _, name := range []string{"practices", "users"} {
		if i := slices.IndexFunc(all, func(o table) bool { return o.name == name }); i >= 0 {
			put(all[i])
		}
	}
	for _, t := range all {
		put(t)
	}
	return list
}

func pairs(ctx context.Context, db querier, query string, args ...any) (list [][2]string, err error) {
	rows, err := db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, fmt.Errorf("looking at the schema: %w", err)
	}
	defer func() { _ = rows.Close() }() // only read from
	for rows.Next() {
		var p [2]string
		if err := rows.Scan(&p[0], &p[1]); err != nil {
			return nil, fmt.Errorf("looking at the schema: %w", err)
		}
		list = append(list, p)
	}
	return list, rows.Err()
}

// where says which rows of a table belong to the scope. ?1 is the practice, ?2 the horses'
// ids as a JSON array.
func where(all []table, t table, s Scope) string {
	const none = "?1 IS NULL AND ?2 IS NULL"
	own := "practice_id = ?1"
	if t.name == "practices" {
		own = "id = ?1"
	}
	if s.whole() || t.name == "practices" {
		return own + " AND ?2 = ?2"
	}
	if part := ofHorse(all, t); part != "" {
		return own + " AND " + part
	}
	switch {
	case slices.Contains(besides, t.name):
		return none
	case t.name == "ladders": // which cases name by their keys
		return own + " AND ladder IN (SELECT ladder FROM cases WHERE practice_id = ?1 AND horse_id IN (SELECT value FROM json_each(?2)))"
	case t.name == "consents": // of the owners
		return own + " AND person_id IN (SELECT person_id FROM ownerships WHERE practice_id = ?1 AND horse_id IN (SELECT value FROM json_each(?2)))"
	}
	// Else what others that go out refer to: people, yards, users, notebooks.
	var from []string
	for _, o := range all {
		for _, r := range o.refers {
			if r.to != t.name || o.name == t.name {
				continue
			}
			if rows := where(all, o, s); rows != none {
				from = append(from, fmt.Sprintf("SELECT %s FROM %s WHERE %s", r.column, o.name, rows))
			}
		}
	}
	if len(from) == 0 {
		return none
	}
	return own + " AND id IN (" + strings.Join(from, " UNION ") + ")"
}

// ofHorse says which rows of a table are a horse's; empty: it has none.
func ofHorse(all []table, t table) string {
	const horses = "IN (SELECT value FROM json_each(?2))"
	switch {
	case slices.Contains(besides, t.name):
		return ""
	case t.name == "horses":
		return "id " + horses
	case t.has("horse_id"):
		return "horse_id " + horses
	}
	for _, r := range t.refers {
		i := slices.IndexFunc(all, func(o table) bool { return o.name == r.to })
		if i < 0 || all[i].name == t.name {
			continue
		}
		if part := ofHorse(all, all[i]); part != "" && all[i].name != "horses" {
			return fmt.Sprintf("%s IN (SELECT id FROM %s WHERE practice_id = ?1 AND %s)", r.column, r.to, part)
		}
	}
	return ""
}
