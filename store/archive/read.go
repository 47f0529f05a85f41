package archive

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

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
	Practice string         // empty: the archive's own, which is made
	Tell     func(done int) // may be nil

	// Look refuses a picture or film that would not be kept here; it may be nil.
	Look func(f *os.File, size int64) error
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
	t.Rows, err = into.Store.Take(ctx, taking, dir, hashes)
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
	return r.look(out.Name(), hash)
}

// look looks at a file that was unpacked.
func (r *reader) look(path, hash string) (err error) {
	if r.into.Look == nil {
		return nil
	}
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return fmt.Errorf("looking at a file: %w", store.Placed(err))
	}
	defer func() { err = errors.Join(err, f.Close()) }()
	info, err := f.Stat()
	if err != nil {
		return fmt.Errorf("looking at a file: %w", store.Placed(err))
	}
	if why := r.into.Look(f, info.Size()); why != nil {
		return refuse("The file %.20s… %v. Nothing was taken in.", hash, why)
	}
	return nil
}
