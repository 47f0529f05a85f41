// Package copies makes a copy of the database each night, looks at it, and keeps one for each
// of the last days, weeks and months (part 1: the record is all there is).
package copies

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"ivorybridge/store"
)

// A Copy is one that was made, opened and counted; or one that failed.
type Copy struct {
	At       time.Time `json:"at"`
	Bytes    int64     `json:"bytes" doc:"of the database and its files together"`
	Horses   int       `json:"horses" doc:"counted in it, as all below"`
	Sessions int       `json:"sessions"`
	Entries  int       `json:"entries"`
	Files    int       `json:"files" doc:"pictures and films"`
	Missing  int       `json:"missing" doc:"of them: not there"`
	Failed   string    `json:"failed,omitempty" doc:"why there is none"`
}

// Folder is where copies lie.
type Folder struct {
	Database string // path
	Dir      string
	Kept     Kept
}

const (
	stamp  = "20060102T150405Z"
	copied = ".db"
	about  = ".json"
)

func (f Folder) path(at time.Time, ending string) string {
	return filepath.Join(f.Dir, "copy-"+at.UTC().Format(stamp)+ending)
}

// List tells of the copies that are there and of those that failed, the newest first.
func (f Folder) List() ([]Copy, error) {
	entries, err := os.ReadDir(f.Dir)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("looking at the copies: %w", store.Placed(err))
	}
	var list []Copy
	for _, e := range entries {
		name, is := strings.CutSuffix(strings.TrimPrefix(e.Name(), "copy-"), about)
		at, err := time.Parse(stamp, name)
		if !is || err != nil {
			continue
		}
		text, err := os.ReadFile(filepath.Join(f.Dir, e.Name()))
		if err != nil {
			return nil, fmt.Errorf("looking at the copies: %w", store.Placed(err))
		}
		c := Copy{At: at}
		if err := json.Unmarshal(text, &c); err != nil {
			c.Failed = "What was noted of it can't be read."
		}
		if _, err := os.Stat(f.path(at, copied)); err != nil && c.Failed == "" {
			c.Failed = "It is not where it was put."
		}
		list = append(list, c)
	}
	slices.SortFunc(list, func(a, b Copy) int { return b.At.Compare(a.At) })
	return list, nil
}

// Make makes a copy, opens and counts it, notes what it holds beside it, and lets go of those
// that need not stay. Where it fails, that is noted too, and the error given.
func (f Folder) Make(ctx context.Context, now time.Time) (c Copy, err error) {
	now = now.UTC().Truncate(time.Second)
	if err := os.MkdirAll(f.Dir, 0o700); err != nil {
		return c, fmt.Errorf("making the folder of the copies: %w", store.Placed(err))
	}
	before, err := f.List()
	if err != nil {
		return c, err
	}
	c, err = f.make(ctx, now, before)
	if err != nil {
		c = Copy{At: now, Failed: "it could not be made; the server's log says why"}
	}
	text, marshalled := json.Marshal(c)
	noted := os.WriteFile(f.path(now, about), text, 0o600)
	if err := errors.Join(err, marshalled, noted); err != nil {
		return c, err
	}
	return c, f.letGo(append(before, c))
}

func (f Folder) make(ctx context.Context, now time.Time, before []Copy) (c Copy, err error) {
	earlier := ""
	for _, b := range before {
		if b.Failed == "" {
			earlier = f.path(b.At, copied)
			break
		}
	}
	to := f.path(now, copied)
	pictures, err := store.BackupBeside(ctx, f.Database, to, earlier)
	if err != nil {
		return c, err
	}
	c = Copy{At: now, Files: pictures.All, Missing: pictures.Missing}
	if err := c.count(ctx, to); err != nil {
		return c, fmt.Errorf("counting what is in the copy: %w", err)
	}
	c.Bytes, err = store.SizeOf(to)
	return c, err
}

// count opens the copy and counts what is in it.
func (c *Copy) count(ctx context.Context, path string) (err error) {
	db, err := store.ReadOnly(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	const all = "SELECT (SELECT count(*) FROM horses), (SELECT count(*) FROM sessions), (SELECT count(*) FROM entries)"
	return db.QueryRowContext(ctx, all).Scan(&c.Horses, &c.Sessions, &c.Entries)
}

// letGo removes what need not stay. A failure that a later copy made good is let go too.
func (f Folder) letGo(list []Copy) error {
	var made []time.Time
	var newest time.Time
	for _, c := range list {
		if c.Failed == "" {
			made = append(made, c.At)
			if c.At.After(newest) {
				newest = c.At
			}
		}
	}
	stays := f.Kept.Stays(made)
	var err error
	for _, c := range list {
		if c.Failed == "" && slices.Contains(stays, c.At) || c.Failed != "" && c.At.After(newest) {
			continue
		}
		err = errors.Join(err, store.RemoveDatabase(f.path(c.At, copied)), os.Remove(f.path(c.At, about)))
	}
	if err != nil {
		return fmt.Errorf("letting go of old copies: %w", err)
	}
	return nil
}

// Due reports whether a copy is due: none was made since the hour of the day struck last, in
// the zone of now. One that failed is tried again after an hour.
func (f Folder) Due(now time.Time, hour int) (bool, error) {
	list, err := f.List()
	if err != nil {
		return false, err
	}
	struck := time.Date(now.Year(), now.Month(), now.Day(), hour, 0, 0, 0, now.Location())
	if struck.After(now) {
		struck = struck.AddDate(0, 0, -1)
	}
	for _, c := range list {
		if c.Failed == "" && !c.At.Before(struck) || c.Failed != "" && now.Sub(c.At) < time.Hour {
			return false, nil
		}
	}
	return true, nil
}
