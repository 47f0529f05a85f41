package archive

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"ivorybridge/store"
)

// A RefusedError says in a sentence why an archive can't be taken in. Nothing was changed.
type RefusedError struct{ Say string }

func (e *RefusedError) Error() string { return e.Say }

func refuse(format string, args ...any) error { return &RefusedError{fmt.Sprintf(format, args...)} }

// Staging is how the folder beside the database is called in which an archive is made ready;
// a program that is killed leaves it.
const Staging = ".taking-in-"

// Limits of what is taken in.
const (
	mostRows    = 4 << 30   // bytes of practice.json
	mostPacked  = 200       // times smaller than what comes out of it
	mostFile    = 500 << 20 // bytes of a picture or film
	mostEntries = 200_000
	freely      = 10 << 20 // what comes out of so little is no bomb
)

// Taken tells of an archive that was taken in.
type Taken struct {
	Practice string // id
	Whole    bool
	Rows     int64 // that were not there yet
	Files    int
}

// Into is where an archive is taken in.
type Into struct {
	Store    *store.Store
	Practice string // empty: the archive's own, which is made
	Now      time.Time
	Tell     func(done int) // may be nil
}

// Read takes an archive of so many bytes in: a whole practice into an empty one, or horses
// into any. All of it comes in or nothing. What can't be is a RefusedError, or
// store.ErrNotEmpty.
func Read(ctx context.Context, from io.ReaderAt, size int64, into Into) (t Taken, err error) {
	z, err := zip.NewReader(from, size)
	if err != nil {
		return t, refuse("This is no archive of a practice: it can't be opened. Choose the .zip that was taken out, whole.")
	}
	rows, files, err := looked(z)
	if err != nil {
		return t, err
	}
	dir, err := os.MkdirTemp(filepath.Dir(into.Store.Path()), Staging)
	if err != nil {
		return t, fmt.Errorf("making room for what comes in: %w", store.Placed(err))
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	r := reader{ctx: ctx, into: into, dir: dir, users: map[string]string{}, hashes: map[string]bool{}}
	if err := r.rows(rows); err != nil {
		return t, err
	}
	hashes, err := r.files(files)
	if err != nil {
		return t, err
	}
	t = Taken{Practice: r.practice, Whole: r.head.Scope == scopePractice, Files: len(hashes)}
	taking := store.Taking{Path: r.staged(), Tables: r.names, Practice: r.practice, Whole: t.Whole}
	t.Rows, err = into.Store.Take(ctx, taking, dir, hashes, into.Now)
	return t, err
}

var isFile = regexp.MustCompile(`^files/([0-9a-f]{64})(\.[a-z0-9]{2,5})?$`)

// looked finds the rows and the files of an archive, and refuses one that is not what it
// says before anything is unpacked.
func looked(z *zip.Reader) (rows *zip.File, files map[string]*zip.File, err error) {
	if len(z.File) > mostEntries {
		return nil, nil, refuse("This archive holds %d files. More than %d are never taken out: it is something else.", len(z.File), mostEntries)
	}
	files = map[string]*zip.File{}
	for _, f := range z.File {
		name := f.Name
		if strings.Contains(name, `\`) || path.IsAbs(name) || !filepath.IsLocal(name) {
			return nil, nil, refuse("The archive names a file outside itself (%.60q). It was not made by this product; nothing was taken in.", name)
		}
		if f.UncompressedSize64 > freely && f.UncompressedSize64 > mostPacked*max(f.CompressedSize64, 1) {
			return nil, nil, refuse("%.60q would grow to %d MB as it is unpacked. Nothing was taken in.", name, f.UncompressedSize64>>20)
		}
		switch hash := isFile.FindStringSubmatch(name); {
		case name == "practice.json":
			rows = f
		case hash == nil:
		case f.UncompressedSize64 > mostFile:
			return nil, nil, refuse("The file %.20s… has %d MB. Up to %d are taken.", hash[1], f.UncompressedSize64>>20, mostFile>>20)
		default:
			files[hash[1]] = f
		}
	}
	switch {
	case rows == nil:
		return nil, nil, refuse("There is no practice.json in this archive. Choose the .zip that was taken out, whole.")
	case rows.UncompressedSize64 > mostRows:
		return nil, nil, refuse("practice.json has %d MB. Up to %d are taken.", rows.UncompressedSize64>>20, mostRows>>20)
	}
	return rows, files, nil
}

type reader struct {
	ctx      context.Context
	into     Into
	dir      string
	head     head
	practice string
	names    []string
	users    map[string]string // as they are in the archive, and here
	hashes   map[string]bool   // of pictures and films that rows name
	rowsIn   int
}

func (r *reader) staged() string { return filepath.Join(r.dir, "staged.db") }

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
		delete(fields, c.name)
	}
	for name := range fields {
		return fmt.Errorf("%.40q is not known", name)
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

// files unpacks the pictures and films that rows name, each looked at.
func (r *reader) files(files map[string]*zip.File) (hashes []string, err error) {
	for hash := range r.hashes {
		f, there := files[hash]
		if !there {
			continue // it was missing as the archive was made
		}
		if err := r.file(hash, f); err != nil {
			return nil, err
		}
		hashes = append(hashes, hash)
	}
	slices.Sort(hashes)
	return hashes, nil
}

func (r *reader) file(hash string, f *zip.File) (err error) {
	in, err := f.Open()
	if err != nil {
		return refuse("The file %.20s… can't be unpacked. Take the practice out once more.", hash)
	}
	defer func() { _ = in.Close() }() // only read from
	out, err := os.OpenFile(filepath.Join(r.dir, hash), os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return fmt.Errorf("taking a file in: %w", store.Placed(err))
	}
	sum := sha256.New()
	_, err = io.Copy(io.MultiWriter(out, sum), io.LimitReader(in, mostFile+1))
	if err := errors.Join(err, out.Close()); err != nil {
		if errors.Is(err, zip.ErrChecksum) || errors.Is(err, zip.ErrFormat) {
			return refuse("The file %.20s… is damaged in the archive. Nothing was taken in.", hash)
		}
		return fmt.Errorf("taking a file in: %w", store.Placed(err))
	}
	if hex.EncodeToString(sum.Sum(nil)) != hash {
		return refuse("The file %.20s… is not what its name says. Nothing was taken in.", hash)
	}
	return nil
}
