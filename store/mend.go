package store

import (
	"context"
	"database/sql"
	"embed"
	"fmt"
)

// The migrations 1, 2 and 5 were changed after they had landed. A database that
// was made by an earlier text of one lacks what the later ones stand on; which
// it was can be told from its schema, and is mended before it is migrated. A
// migration that has landed is never changed again.
//
//go:embed mends/*.sql
var mendings embed.FS

// lacking are what may not be there: a column of a table, or an index of it.
var lacking = []struct{ table, column, index, mend string }{
	{table: "sessions", column: "handler", mend: "sessions_handler"},
	{table: "yards", column: "version", mend: "yards_version"},
	{table: "entries", index: "entries_that_end", mend: "entries_that_end"},
}

// narrow are the CHECKs that were narrower.
var narrow = []struct{ table, was, is string }{
	{"assessments", "length(base) <= 200000", "length(base) <= 1000000"},
	{"assessments", "length(doc) <= 200000", "length(doc) <= 1000000"},
	{"marks", "length(value) <= 8000", "length(value) <= 40000"},
	{"entries", "'interruption', 'mark'", "'interruption', 'memory', 'mark'"},
}

// An ailment is a mend that a database needs.
type ailment struct {
	mend string
	args []any
}

// ailments lists the mends that a database needs, in order.
func ailments(ctx context.Context, db *sql.DB) ([]ailment, error) {
	var list []ailment
	look := func(mend string, args []any, query string, of ...any) error {
		var needed bool
		if err := db.QueryRowContext(ctx, query, of...).Scan(&needed); err != nil {
			return fmt.Errorf("looking at the schema: %w", err)
		}
		if needed {
			list = append(list, ailment{mend, args})
		}
		return nil
	}
	const there = "EXISTS (SELECT 1 FROM sqlite_schema WHERE type = 'table' AND name = ?1) AND "
	for _, l := range lacking {
		query, of := "SELECT "+there+"NOT EXISTS (SELECT 1 FROM pragma_table_info(?1) WHERE name = ?2)", l.column
		if l.index != "" {
			query, of = "SELECT "+there+"NOT EXISTS (SELECT 1 FROM sqlite_schema WHERE type = 'index' AND name = ?2)", l.index
		}
		if err := look(l.mend, nil, query, l.table, of); err != nil {
			return nil, err
		}
	}
	for _, n := range narrow {
		if err := look("widen", []any{n.table, n.was, n.is}, "SELECT EXISTS (SELECT 1 FROM sqlite_schema WHERE type = 'table' AND name = ?1 AND instr(sql, ?2) > 0)", n.table, n.was); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// mend brings a schema that was made by an earlier text of a migration to what
// its later text makes, all of it or nothing. The writer has one connection.
func mend(ctx context.Context, writer *sql.DB, list []ailment) (err error) {
	var schema int
	if err := writer.QueryRowContext(ctx, "PRAGMA schema_version").Scan(&schema); err != nil {
		return fmt.Errorf("mending the schema: %w", err)
	}
	if _, err := writer.ExecContext(ctx, "PRAGMA writable_schema = ON"); err != nil {
		return fmt.Errorf("mending the schema: %w", err)
	}
	defer func() {
		// RESET reads the schema anew, so that the wider CHECKs hold at once.
		if _, reset := writer.ExecContext(ctx, "PRAGMA writable_schema = RESET"); err == nil && reset != nil {
			err = fmt.Errorf("mending the schema: %w", reset)
		}
	}()
	tx, err := writer.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("mending the schema: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // nothing is left to undo once it is committed
	for _, a := range list {
		text, err := mendings.ReadFile("mends/" + a.mend + ".sql")
		if err != nil {
			return fmt.Errorf("mending the schema: %w", err)
		}
		if _, err := tx.ExecContext(ctx, string(text), a.args...); err != nil {
			return fmt.Errorf("mending the schema by %s: %w", a.mend, err)
		}
	}
	// Other connections see by the number that the schema is another one.
	if _, err := tx.ExecContext(ctx, fmt.Sprintf("PRAGMA schema_version = %d", schema+len(list)+1)); err != nil {
		return fmt.Errorf("mending the schema: %w", err)
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("mending the schema: %w", err)
	}
	return nil
}
