package archive

import (
	"archive/zip"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"ivorybridge/store"
)

// rows reads practice.json into a staged database of its own schema, and brings that to this
// version.
func (r *reader) rows(f *zip.File) (err error) {
	in, err := f.Open()
	if err != nil {
		return refuse("practice.json can't be unpacked. Take the practice out once more.")
	}
	defer func() { _ = in.Close() }() // only read from
	dec := json.NewDecoder(&io.LimitedReader{R: in, N: mostRows})
	dec.UseNumber()
	if err := r.begin(dec); err != nil {
		return err
	}
	db, err := store.Stage(r.ctx, r.staged(), r.head.Schema)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	if err := r.load(db, dec); err != nil {
		return err
	}
	if err := store.Upgrade(r.ctx, db); err != nil {
		return err
	}
	all, err := tables(r.ctx, db)
	if err != nil {
		return err
	}
	for _, t := range all {
		r.names = append(r.names, t.name)
		if !t.has("hash") {
			continue
		}
		list, err := pairs(r.ctx, db, fmt.Sprintf("SELECT DISTINCT hash, '' FROM %s WHERE erased_at IS NULL", t.name))
		if err != nil {
			return err
		}
		for _, h := range list {
			r.hashes[h[0]] = true
		}
	}
	return nil
}

// begin reads the head, up to the tables.
func (r *reader) begin(dec *json.Decoder) error {
	broken := refuse("practice.json can't be read from its beginning. Take the practice out once more.")
	if t, err := dec.Token(); err != nil || t != json.Delim('{') {
		return broken
	}
	said := map[string]any{}
	for {
		key, err := dec.Token()
		name, ok := key.(string)
		if err != nil || !ok {
			return broken
		}
		if name == "tables" {
			break
		}
		var v any
		if err := dec.Decode(&v); err != nil {
			return broken
		}
		said[name] = v
	}
	text, err := json.Marshal(said)
	if err != nil {
		return err
	}
	if err := json.Unmarshal(text, &r.head); err != nil || r.head.Format != Format {
		return refuse("practice.json is of something else: it does not say %q.", Format)
	}
	newest, err := store.Newest()
	if err != nil {
		return err
	}
	switch {
	case r.head.Version > Version || r.head.Schema > newest:
		return refuse("This archive was made by a later version of the product (%d, %d). Bring this one up to date first; nothing was taken in.", r.head.Version, r.head.Schema)
	case r.head.Version < 1 || r.head.Schema < 1 || r.head.Scope != scopePractice && r.head.Scope != scopeHorses:
		return broken
	case r.head.Scope == scopeHorses && r.into.Practice == "":
		return refuse("This is the file of a horse. It is taken into a practice, not into an empty database.")
	}
	if t, err := dec.Token(); err != nil || t != json.Delim('{') {
		return broken
	}
	return nil
}

// load reads the tables into the staged database, in one transaction.
func (r *reader) load(db *sql.DB, dec *json.Decoder) error {
	known, err := tables(r.ctx, db)
	if err != nil {
		return err
	}
	tx, err := db.BeginTx(r.ctx, nil)
	if err != nil {
		return err
	}
	defer func() { _ = tx.Rollback() }() // after Commit it does nothing
	for dec.More() {
		key, err := dec.Token()
		name, ok := key.(string)
		if err != nil || !ok {
			return refuse("practice.json breaks off. Take the practice out once more; nothing was taken in.")
		}
		i := slices.IndexFunc(known, func(t table) bool { return t.name == name })
		if i < 0 {
			return refuse("practice.json has a table %.40q that is not known. Nothing was taken in.", name)
		}
		if err := r.table(tx, known[i], dec); err != nil {
			return err
		}
	}
	for range 2 {
		if _, err := dec.Token(); err != nil {
			return refuse("practice.json breaks off after %d rows. Take the practice out once more; nothing was taken in.", r.rowsIn)
		}
	}
	if r.practice == "" {
		return refuse("practice.json names no practice. Nothing was taken in.")
	}
	return tx.Commit()
}

func (r *reader) table(tx *sql.Tx, t table, dec *json.Decoder) error {
	if d, err := dec.Token(); err != nil || d != json.Delim('[') {
		return refuse("The table %s of practice.json is no list. Nothing was taken in.", t.name)
	}
	var names, marks []string
	for _, c := range t.columns {
		names = append(names, `"`+c.name+`"`)
		if made, hidden := secret[t.name][c.name]; hidden {
			marks = append(marks, made)
			continue
		}
		marks = append(marks, "?")
	}
	put, err := tx.PrepareContext(r.ctx, fmt.Sprintf("INSERT INTO %s (%s) VALUES (%s)", t.name, strings.Join(names, ", "), strings.Join(marks, ", ")))
	if err != nil {
		return err
	}
	defer func() { _ = put.Close() }() // nothing of it is kept
	for n := 1; dec.More(); n++ {
		if err := r.row(put, t, dec); err != nil {
			if r.ctx.Err() != nil {
				return r.ctx.Err()
			}
			if errors.Is(err, io.ErrUnexpectedEOF) {
				return refuse("practice.json breaks off in row %d of the table %s. Take the practice out once more; nothing was taken in.", n, t.name)
			}
			return refuse("Row %d of the table %s can't be taken in: %s. Nothing was taken in.", n, t.name, short(err))
		}
		const often = 500
		if r.rowsIn++; r.into.Tell != nil && r.rowsIn%often == 0 {
			r.into.Tell(r.rowsIn)
		}
	}
	if _, err := dec.Token(); err != nil {
		return refuse("practice.json breaks off in the table %s. Take the practice out once more; nothing was taken in.", t.name)
	}
	return nil
}

// short is an error as it stands in a sentence.
func short(err error) string {
	text := err.Error()
	for _, start := range []string{"json: ", "constraint failed: "} {
		text = strings.TrimPrefix(text, start)
	}
	const most = 160
	if runes := []rune(text); len(runes) > most {
		text = string(runes[:most]) + "…"
	}
	return strings.TrimSuffix(text, ".")
}

func (r *reader) row(put *sql.Stmt, t table, dec *json.Decoder) error {
	var fields map[string]json.RawMessage
	if err := dec.Decode(&fields); err != nil {
		return err
	}
	var args []any
	for _, c := range t.columns {
		if _, hidden := secret[t.name][c.name]; hidden {
			continue
		}
		raw, there := fields[c.name]
		if !there && c.name != "practice_id" {
			return fmt.Errorf("%q is missing", c.name)
		}
		v, err := value(c, raw)
		if err != nil {
			return err
		}
		if v, err = r.here(t, c, v, fields); err != nil {
			return err
		}
		args = append(args, v)
	}
	for name := range fields {
		if !t.has(name) {
			return fmt.Errorf("%.40q is not known", name)
		}
	}
	_, err := put.ExecContext(r.ctx, args...)
	return err
}

// value is what a column keeps of a JSON value.
func value(c column, raw json.RawMessage) (any, error) {
	switch {
	case raw == nil || !c.json && string(raw) == "null":
		return nil, nil
	case c.json:
		var wrapped map[string]string
		if json.Unmarshal(raw, &wrapped) == nil && len(wrapped) == 1 {
			if text, is := wrapped[asText]; is {
				return text, nil
			}
		}
		if string(raw) == "null" && !c.needed {
			return nil, nil
		}
		return string(raw), nil
	case c.kind == "INTEGER" || c.kind == "REAL":
		var n json.Number
		if err := json.Unmarshal(raw, &n); err != nil {
			return nil, fmt.Errorf("%q is no number", c.name)
		}
		if c.kind == "INTEGER" {
			return n.Int64()
		}
		return n.Float64()
	}
	var text string
	if err := json.Unmarshal(raw, &text); err != nil {
		return nil, fmt.Errorf("%q is no text", c.name)
	}
	return text, nil
}

// here is a value as it stands in this practice: its id, and the users that are here already.
func (r *reader) here(t table, c column, v any, fields map[string]json.RawMessage) (any, error) {
	text, _ := v.(string)
	switch {
	case t.name == "practices" && c.name == "id":
		if r.practice != "" {
			return nil, errors.New("there is more than one practice")
		}
		r.practice = text
		if r.into.Practice != "" {
			r.practice = r.into.Practice
		}
		return r.practice, nil
	case c.name == "practice_id":
		return r.practice, nil
	case t.name == "users" && c.name == "id":
		return r.user(text, fields)
	case t.name == "users" && c.name == "email":
		return r.email(fields)
	case t.name == "users" && c.name == "active" && r.head.Scope == scopeHorses:
		return int64(0), nil // who worked there does not sign in here
	case c.name == "user_id", slices.ContainsFunc(t.refers, func(o reference) bool { return o.column == c.name && o.to == "users" }):
		if as, is := r.users[text]; is {
			return as, nil
		}
	}
	return v, nil
}

func textOf(raw json.RawMessage) (text string) {
	_ = json.Unmarshal(raw, &text) // no text is none
	return text
}

// user is the id that a user has here: of one with the same address in this practice, it is
// that one.
func (r *reader) user(id string, fields map[string]json.RawMessage) (string, error) {
	r.users[id] = id
	there, err := r.into.Store.UserByEmail(r.ctx, textOf(fields["email"]))
	if err == nil && there.Practice == r.practice && r.head.Scope == scopePractice {
		r.users[id] = there.ID
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return "", err
	}
	return r.users[id], nil
}

// email is the address of a user here: one that signs in elsewhere on this server, or only
// comes along with a horse, has none that could.
func (r *reader) email(fields map[string]json.RawMessage) (string, error) {
	email := textOf(fields["email"])
	there, err := r.into.Store.UserByEmail(r.ctx, email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return "", err
	}
	if r.head.Scope == scopeHorses || err == nil && there.Practice != r.practice {
		return textOf(fields["id"]) + "@elsewhere.invalid", nil
	}
	return email, nil
}
