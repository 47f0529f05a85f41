package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"ivorybridge/core/assess"
	"ivorybridge/core/gait"
	"ivorybridge/store/sqlc"
)

// A Clip is a film of a horse. The film itself is a file beside the database, named by its
// hash.
type Clip struct {
	ID        string
	HorseID   string
	Name      string // what it shows
	View      string // of the film list; empty: another
	FilmedOn  string // date
	MediaType string
	Bytes     int64
	Hash      string
	Position  string     // where it was filmed: none, removed, not looked
	Frames    []float64  // when each frame is shown, s; none: not known
	Taps      gait.Taps  // what was tapped on it
	Gait      string     // as the rider names it
	SentBy    Named      // the person who sent it; no id: a user added it
	AddedBy   string     // name
	Marks     []ClipMark // read with one clip
	Version   int64
	Damaged   error // what of it can't be read
}

// A ClipMark is a moment of a clip with a word.
type ClipMark struct {
	ID      string
	At      float64 // s
	Says    string
	Finding string // key; empty: none
	Step    string
	Side    string // near, off, or empty
	MadeBy  string // name
	MadeAt  int64
}

// RoomOfClips is how much room a practice's clips take, in bytes.
func (v View) RoomOfClips(ctx context.Context, practice string) (int64, error) {
	n, err := v.read.GetRoomOfClips(ctx, practice)
	return n, reading("the clips", err)
}

// AddClip keeps a film that lies at path, whose hash it has: the file is put in its place
// first, then its row, so that no row is without its file. ErrNoConsent unless an owner of
// the horse has agreed; ErrNoRoom where the practice's clips would then take more than room,
// in bytes; ErrTaken if it is kept already.
func (s *Store) AddClip(ctx context.Context, actor Actor, c Clip, path string, room int64) error {
	return s.write(ctx, "keeping a clip", func(q *sqlc.Queries) error {
		agreed, err := q.GetConsentOfHorse(ctx, sqlc.GetConsentOfHorseParams{PracticeID: actor.Practice, HorseID: c.HorseID, Kind: Photographs})
		if err != nil {
			return err
		}
		if !agreed {
			return ErrNoConsent
		}
		taken, err := q.GetRoomOfClips(ctx, actor.Practice)
		if err != nil {
			return err
		}
		if taken+c.Bytes > room {
			return ErrNoRoom
		}
		if err := q.InsertClip(ctx, sqlc.InsertClipParams{
			ID: c.ID, PracticeID: actor.Practice, HorseID: c.HorseID, Name: c.Name, View: c.View, FilmedOn: c.FilmedOn, MediaType: c.MediaType,
			Bytes: c.Bytes, Hash: c.Hash, Position: c.Position, Frames: writeJSON(c.Frames), SentBy: null(c.SentBy.ID), AddedBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		if err := putInPlace(folder(s.path), c.Hash, path); err != nil {
			return err // and the row with it
		}
		return actor.changed(ctx, q, "clip added", c.ID)
	}, theHorse(ctx, actor, c.HorseID), thePerson(ctx, actor, "person", c.SentBy.ID))
}

// putInPlace makes a file durable and moves it where the files of the database lie. It is
// on the same disk.
func putInPlace(dir, name, from string) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("making the folder of the films: %w", Placed(err))
	}
	f, err := os.OpenFile(from, os.O_RDWR, 0)
	if err != nil {
		return fmt.Errorf("taking a film in: %w", Placed(err))
	}
	err = errors.Join(f.Chmod(0o600), f.Sync(), f.Close())
	if err == nil {
		err = os.Rename(from, filepath.Join(dir, name))
	}
	if err != nil {
		return fmt.Errorf("taking a film in: %w", Placed(err))
	}
	return nil
}

func clip(r sqlc.GetClipRow) Clip {
	c := Clip{
		ID: r.ID, HorseID: r.HorseID, Name: r.Name, View: r.View, FilmedOn: r.FilmedOn, MediaType: r.MediaType, Bytes: r.Bytes, Hash: r.Hash,
		Position: r.Position, Taps: gait.Taps{Speed: r.Speed}, Gait: r.Gait, SentBy: Named{Name: r.SentBy}, AddedBy: r.AddedBy, Version: r.Version,
	}
	err := json.Unmarshal([]byte(r.Landings), &c.Taps.Landings)
	if r.Frames != "" {
		err = errors.Join(err, json.Unmarshal([]byte(r.Frames), &c.Frames))
	}
	if err != nil {
		c.Taps.Landings, c.Damaged = nil, fmt.Errorf("reading what was tapped on the clip %s: %w", r.ID, err)
	}
	return c
}

// Clips lists the clips of a horse, the newest first, without their frames and marks.
func (v View) Clips(ctx context.Context, practice, horseID string) ([]Clip, error) {
	rows, err := v.read.GetClips(ctx, sqlc.GetClipsParams{PracticeID: practice, HorseID: horseID})
	list := make([]Clip, 0, len(rows))
	for _, r := range rows {
		list = append(list, clip(sqlc.GetClipRow(r)))
	}
	return list, reading("the clips", err)
}

// Clip reads one clip with its frames and marks.
func (v View) Clip(ctx context.Context, practice, id string) (Clip, error) {
	r, err := v.read.GetClip(ctx, sqlc.GetClipParams{PracticeID: practice, ID: id})
	if err != nil {
		return Clip{}, reading("the clip", err)
	}
	c := clip(r)
	marks, err := v.read.GetClipMarks(ctx, sqlc.GetClipMarksParams{PracticeID: practice, ClipID: id})
	for _, m := range marks {
		c.Marks = append(c.Marks, ClipMark(m))
	}
	return c, reading("the clip", err)
}

// Film opens the file of a clip. An ErrPicture is one that is missing.
func (v View) Film(c Clip) (*os.File, error) {
	f, err := os.Open(filepath.Join(folder(v.path), c.Hash))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrPicture, err)
	}
	return f, nil
}

// ChangeClip keeps what is written and tapped on a clip; a *StaleError if it was changed
// since the version it was read at.
func (s *Store) ChangeClip(ctx context.Context, actor Actor, c Clip) error {
	landings := c.Taps.Landings
	if landings == nil {
		landings = []gait.Landing{}
	}
	err := s.write(ctx, "changing a clip", func(q *sqlc.Queries) error {
		n, err := q.UpdateClip(ctx, sqlc.UpdateClipParams{
			Name: c.Name, View: c.View, FilmedOn: c.FilmedOn, Speed: c.Taps.Speed, Gait: c.Gait, Landings: writeJSON(landings),
			PracticeID: actor.Practice, ID: c.ID, Version: c.Version,
		})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "clip changed", c.ID)
	})
	return stale(err, func() (any, error) { return s.Clip(ctx, actor.Practice, c.ID) })
}

// RemoveClip takes a clip out of sight. Its file stays for a while.
func (s *Store) RemoveClip(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "removing a clip", func(q *sqlc.Queries) error {
		n, err := q.RemoveClip(ctx, sqlc.RemoveClipParams{RemovedAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return actor.changed(ctx, q, "clip removed", id)
	})
}

// FoundOnClip is what a mark finds: marks of an assessment, which is begun where it is not
// there yet.
type FoundOnClip struct {
	Into  Assessment
	Marks []assess.Mark // none: it finds nothing new
}

// AddClipMark keeps a mark on a clip, and with it what it finds.
func (s *Store) AddClipMark(ctx context.Context, actor Actor, clipID string, m ClipMark, found FoundOnClip) error {
	return s.write(ctx, "marking a clip", func(q *sqlc.Queries) error {
		if err := s.found(ctx, q, actor, found); err != nil {
			return err
		}
		return q.InsertClipMark(ctx, sqlc.InsertClipMarkParams{
			ID: m.ID, PracticeID: actor.Practice, ClipID: clipID, At: m.At, Says: m.Says, Finding: m.Finding, Step: m.Step, Side: m.Side, MadeBy: actor.User, MadeAt: actor.At,
		})
	})
}

func (s *Store) found(ctx context.Context, q *sqlc.Queries, actor Actor, found FoundOnClip) error {
	if len(found.Marks) == 0 {
		return nil
	}
	_, refused, err := s.mark(ctx, q, actor, found.Into, actor.At, found.Marks)
	return errors.Join(append(refused, err)...)
}

// ShownElsewhere reports whether a clip of the horse shows a finding at another mark than
// this one.
func (v View) ShownElsewhere(ctx context.Context, practice, horseID, finding, mark string) (bool, error) {
	n, err := v.read.CountShowing(ctx, sqlc.CountShowingParams{PracticeID: practice, HorseID: horseID, Finding: finding, ID: mark})
	return n > 0, reading("the clips", err)
}

// RemoveClipMark takes a mark off a clip, and back what only it had found; ErrNotFound if it
// is not there.
func (s *Store) RemoveClipMark(ctx context.Context, actor Actor, clipID, id string, found FoundOnClip) error {
	return s.write(ctx, "taking a mark off a clip", func(q *sqlc.Queries) error {
		n, err := q.DeleteClipMark(ctx, sqlc.DeleteClipMarkParams{PracticeID: actor.Practice, ClipID: clipID, ID: id})
		if err := one(n, err); err != nil {
			return err
		}
		return s.found(ctx, q, actor, found)
	})
}

// eraseClips erases the files of clips that were taken out of sight by an instant.
func (s *Store) eraseClips(ctx context.Context, until, now int64) error {
	for {
		gone, err := s.read.GetClipsRemovedBefore(ctx, when(until))
		if err != nil || len(gone) == 0 {
			return reading("the clips", err)
		}
		for _, g := range gone {
			if err := s.write(ctx, "erasing a clip", func(q *sqlc.Queries) error {
				return q.EraseClip(ctx, sqlc.EraseClipParams{ErasedAt: when(now), PracticeID: g.PracticeID, ID: g.ID})
			}); err != nil {
				return err
			}
			if err := s.dropPicture(ctx, g.Hash); err != nil {
				return err
			}
		}
	}
}

// Arriving is the folder in which films lie while they arrive, beside the database.
func (s *Store) Arriving() string { return s.path + ".arriving" }
