package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"time"

	"ivorybridge/store/sqlc"
)

// A Photograph of a horse, its tack, or marks on it. The picture itself is a
// file beside the database, named by its hash.
type Photograph struct {
	ID        string
	HorseID   string
	About     string // horse, tack, mark
	Caption   string
	TakenOn   string
	MediaType string
	Width     int64
	Height    int64
	Bytes     int64
	Hash      string
	AddedBy   string // name
	Plain     bool   // nothing is in the file but what the picture shows
}

// ErrNoConsent is returned where the owner has not agreed.
var ErrNoConsent = errors.New("the owner has not agreed")

// ErrNoRoom is returned where a practice's photographs take all the room they may.
var ErrNoRoom = errors.New("no room for another photograph")

// RoomTaken is how much of it a practice's photographs take, in bytes.
func (v View) RoomTaken(ctx context.Context, practice string) (int64, error) {
	n, err := v.read.GetRoomOfPhotographs(ctx, practice)
	return n, reading("the photographs", err)
}

// folder is where the pictures of a database lie.
func folder(database string) string { return database + ".photographs" }

func hashOf(picture []byte) string {
	sum := sha256.Sum256(picture)
	return hex.EncodeToString(sum[:])
}

// AddPhotograph keeps a picture: the file first, then its row, so that no row
// is without its file. The picture is plain. ErrNoConsent unless an owner of the
// horse has agreed, ErrNoRoom where the practice's pictures would then take more
// than room, in bytes.
func (s *Store) AddPhotograph(ctx context.Context, actor Actor, p Photograph, picture []byte, room int64) error {
	p.Hash, p.Bytes = hashOf(picture), int64(len(picture))
	return s.write(ctx, "keeping a photograph", func(q *sqlc.Queries) error {
		agreed, err := q.GetConsentOfHorse(ctx, sqlc.GetConsentOfHorseParams{PracticeID: actor.Practice, HorseID: p.HorseID, Kind: Photographs})
		if err != nil {
			return err
		}
		if !agreed {
			return ErrNoConsent
		}
		taken, err := q.GetRoomOfPhotographs(ctx, actor.Practice)
		if err != nil {
			return err
		}
		if taken+p.Bytes > room {
			return ErrNoRoom
		}
		if err := keepFile(folder(s.path), p.Hash, bytes.NewReader(picture)); err != nil {
			return err
		}
		if err := q.InsertPhotograph(ctx, sqlc.InsertPhotographParams{
			ID: p.ID, PracticeID: actor.Practice, HorseID: p.HorseID, About: p.About, Caption: p.Caption, TakenOn: p.TakenOn, MediaType: p.MediaType,
			Width: p.Width, Height: p.Height, Bytes: p.Bytes, Hash: p.Hash, AddedBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "photograph added", p.ID)
	}, theHorse(ctx, actor, p.HorseID))
}

// keepFile writes a file whole or not at all, and durably.
func keepFile(dir, name string, content io.Reader) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("making the folder of the photographs: %w", Placed(err))
	}
	part, err := os.CreateTemp(dir, "part-*")
	if err != nil {
		return fmt.Errorf("writing a photograph: %w", Placed(err))
	}
	_, err = io.Copy(part, content)
	err = errors.Join(err, part.Sync(), part.Close())
	if err == nil {
		err = os.Rename(part.Name(), filepath.Join(dir, name))
	}
	if err != nil {
		return fmt.Errorf("writing a photograph: %w", Placed(errors.Join(err, os.Remove(part.Name()))))
	}
	return nil
}

// Photographs lists the pictures of a horse, the newest first.
func (v View) Photographs(ctx context.Context, practice, horseID string) ([]Photograph, error) {
	rows, err := v.read.GetPhotographs(ctx, sqlc.GetPhotographsParams{PracticeID: practice, HorseID: horseID})
	list := make([]Photograph, 0, len(rows))
	for _, r := range rows {
		list = append(list, Photograph{
			ID: r.ID, HorseID: r.HorseID, About: r.About, Caption: r.Caption, TakenOn: r.TakenOn, MediaType: r.MediaType,
			Width: r.Width, Height: r.Height, Bytes: r.Bytes, Hash: r.Hash, AddedBy: r.AddedBy,
		})
	}
	return list, reading("the photographs", err)
}

// PhotographRow reads what is kept of one picture, without the picture.
func (v View) PhotographRow(ctx context.Context, practice, id string) (Photograph, error) {
	r, err := v.read.GetPhotograph(ctx, sqlc.GetPhotographParams{PracticeID: practice, ID: id})
	return Photograph{
		ID: r.ID, HorseID: r.HorseID, About: r.About, Caption: r.Caption, TakenOn: r.TakenOn, MediaType: r.MediaType,
		Width: r.Width, Height: r.Height, Bytes: r.Bytes, Hash: r.Hash, Plain: r.Plain == 1,
	}, reading("the photograph", err)
}

// Photograph reads one picture with its bytes, which must still have the hash
// they were kept under; else it is an ErrPicture.
func (v View) Photograph(ctx context.Context, practice, id string) (Photograph, []byte, error) {
	p, err := v.PhotographRow(ctx, practice, id)
	if err != nil {
		return p, nil, err
	}
	picture, err := readPicture(folder(v.path), p.Hash)
	return p, picture, err
}

// ErrPicture is returned for a picture that is missing, or not what was kept.
var ErrPicture = errors.New("the picture is missing, or not what was kept")

func readPicture(dir, hash string) ([]byte, error) {
	picture, err := os.ReadFile(filepath.Join(dir, hash))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrPicture, err)
	}
	if hashOf(picture) != hash {
		return nil, fmt.Errorf("%w: %s", ErrPicture, hash)
	}
	return picture, nil
}

// Scratch is a file beside the database that has no name: it is gone when it is
// closed, or when the power is.
func (s *Store) Scratch() (*os.File, error) {
	f, err := os.CreateTemp(filepath.Dir(s.path), ".scratch-*")
	if err != nil {
		return nil, fmt.Errorf("making room for what arrives: %w", Placed(err))
	}
	if err := os.Remove(f.Name()); err != nil {
		return nil, fmt.Errorf("making room for what arrives: %w", errors.Join(err, f.Close()))
	}
	return f, nil
}

// ErasedAfter is how long a picture that was taken out of sight is kept.
const ErasedAfter = 30 * 24 * time.Hour

// NotPlain is a picture in whose file there may be more than it shows: where it was
// taken, with what, by whom.
type NotPlain struct {
	ID, Practice, MediaType, Hash string
}

// NotPlain lists some of the pictures that were kept before they were made plain.
func (v View) NotPlain(ctx context.Context, most int64) ([]NotPlain, error) {
	rows, err := v.read.GetNotPlain(ctx, most)
	list := make([]NotPlain, 0, len(rows))
	for _, r := range rows {
		list = append(list, NotPlain{ID: r.ID, Practice: r.PracticeID, MediaType: r.MediaType, Hash: r.Hash})
	}
	return list, reading("the photographs", err)
}

// PictureOf reads the file of such a picture.
func (v View) PictureOf(n NotPlain) ([]byte, error) { return readPicture(folder(v.path), n.Hash) }

// MakePlain puts a plain picture in the place of one that was not.
func (s *Store) MakePlain(ctx context.Context, n NotPlain, p Photograph, picture []byte) error {
	p.Hash, p.Bytes = hashOf(picture), int64(len(picture))
	err := s.write(ctx, "making a photograph plain", func(q *sqlc.Queries) error {
		if err := keepFile(folder(s.path), p.Hash, bytes.NewReader(picture)); err != nil {
			return err
		}
		_, err := q.MakePlain(ctx, sqlc.MakePlainParams{
			MediaType: p.MediaType, Width: p.Width, Height: p.Height, Bytes: p.Bytes, Hash: p.Hash, PracticeID: n.Practice, ID: n.ID, Was: n.Hash,
		})
		return err
	})
	if err != nil || n.Hash == p.Hash {
		return err
	}
	return s.dropPicture(ctx, n.Hash)
}

// EraseRemoved erases the files of pictures and clips that were taken out of sight long
// enough before an instant.
func (s *Store) EraseRemoved(ctx context.Context, now int64) error {
	if err := s.eraseClips(ctx, now-ErasedAfter.Milliseconds()-1, now); err != nil {
		return err
	}
	for {
		gone, err := s.read.GetRemovedBefore(ctx, when(now-ErasedAfter.Milliseconds()))
		if err != nil || len(gone) == 0 {
			return reading("the photographs", err)
		}
		for _, g := range gone {
			if err := s.write(ctx, "erasing a photograph", func(q *sqlc.Queries) error {
				return q.ErasePhotograph(ctx, sqlc.ErasePhotographParams{ErasedAt: when(now), PracticeID: g.PracticeID, ID: g.ID})
			}); err != nil {
				return err
			}
			if err := s.dropPicture(ctx, g.Hash); err != nil {
				return err
			}
		}
	}
}

// dropPicture takes a file away that no row speaks of.
func (s *Store) dropPicture(ctx context.Context, hash string) error {
	n, err := s.read.CountPicture(ctx, hash)
	films, also := s.read.CountFilm(ctx, hash)
	if err := errors.Join(err, also); err != nil || n+films > 0 {
		return reading("the photographs", err)
	}
	return Placed(removed(filepath.Join(folder(s.path), hash)))
}

// RemovePhotograph takes a picture out of sight. Its file stays for a while.
func (s *Store) RemovePhotograph(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "removing a photograph", func(q *sqlc.Queries) error {
		n, err := q.RemovePhotograph(ctx, sqlc.RemovePhotographParams{RemovedAt: when(actor.At), PracticeID: actor.Practice, ID: id})
		if err != nil {
			return err
		}
		if n == 0 {
			return ErrNotFound
		}
		return actor.changed(ctx, q, "photograph removed", id)
	})
}

// The kinds of consent.
const (
	Photographs = "photographs"
	Sharing     = "sharing"
)

// Consent is what a person agreed to, from which day to which.
type Consent struct {
	Person      string
	Kind        string
	GivenOn     string
	WithdrawnOn string // empty: it stands
}

// Agreed reports whether a person's consent of a kind stands.
func Agreed(list []Consent, person, kind string) bool {
	return slices.ContainsFunc(list, func(c Consent) bool { return c.Person == person && c.Kind == kind && c.WithdrawnOn == "" })
}

// Agree notes a consent of a person, of a day.
func (s *Store) Agree(ctx context.Context, actor Actor, c Consent) error {
	return s.write(ctx, "noting a consent", func(q *sqlc.Queries) error {
		if err := q.InsertConsent(ctx, sqlc.InsertConsentParams{
			PracticeID: actor.Practice, PersonID: c.Person, Kind: c.Kind, GivenOn: c.GivenOn, NotedBy: actor.User, CreatedAt: actor.At,
		}); err != nil {
			return err
		}
		return actor.changed(ctx, q, "consent noted", c.Person)
	}, thePerson(ctx, actor, "person", c.Person))
}

// Withdraw ends a person's consent on a day.
func (s *Store) Withdraw(ctx context.Context, actor Actor, c Consent) error {
	return s.write(ctx, "ending a consent", func(q *sqlc.Queries) error {
		n, err := q.WithdrawConsent(ctx, sqlc.WithdrawConsentParams{WithdrawnOn: null(c.WithdrawnOn), PracticeID: actor.Practice, PersonID: c.Person, Kind: c.Kind})
		if err != nil {
			return err
		}
		if n == 0 {
			return ErrNotFound
		}
		return actor.changed(ctx, q, "consent withdrawn", c.Person)
	})
}

// Consents lists all consents of a practice.
func (v View) Consents(ctx context.Context, practice string) ([]Consent, error) {
	rows, err := v.read.GetConsents(ctx, practice)
	list := make([]Consent, 0, len(rows))
	for _, r := range rows {
		list = append(list, Consent{Person: r.PersonID, Kind: r.Kind, GivenOn: r.GivenOn, WithdrawnOn: r.WithdrawnOn.String})
	}
	return list, reading("the consents", err)
}

// copyPictures lays the pictures that the database at path speaks of from beside
// one database to beside another. One that is there already stays; one that can't
// be had as it was kept is counted.
func copyPictures(ctx context.Context, path, from, to string) (Pictures, error) {
	hashes, err := picturesOf(ctx, path)
	if err != nil {
		return Pictures{}, fmt.Errorf("reading the photographs: %w", err)
	}
	told := Pictures{All: len(hashes)}
	if told.All > 0 {
		if err := os.MkdirAll(folder(to), 0o700); err != nil {
			return told, fmt.Errorf("making the folder of the photographs: %w", err)
		}
	}
	for _, hash := range hashes {
		if isWhole(folder(to), hash) {
			continue
		}
		if !isWhole(folder(from), hash) {
			told.Missing++
			continue
		}
		if err := copyFile(folder(from), folder(to), hash); err != nil {
			return told, err
		}
	}
	return told, nil
}

// isWhole reports whether a file is there and has its hash. A film is not read into memory.
func isWhole(dir, hash string) bool {
	f, err := os.Open(filepath.Join(dir, hash))
	if err != nil {
		return false
	}
	defer func() { _ = f.Close() }() // only read from
	sum := sha256.New()
	_, err = io.Copy(sum, f)
	return err == nil && hex.EncodeToString(sum.Sum(nil)) == hash
}

func copyFile(from, to, name string) (err error) {
	f, err := os.Open(filepath.Join(from, name))
	if err != nil {
		return fmt.Errorf("copying a file: %w", Placed(err))
	}
	defer func() { _ = f.Close() }() // only read from
	return keepFile(to, name, f)
}

// picturesOf lists the pictures and films that a database speaks of, also one of an earlier
// schema.
func picturesOf(ctx context.Context, path string) (hashes []string, err error) {
	db, err := connect(path, "_pragma=query_only(1)")
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	var table, erased bool
	if err := db.QueryRowContext(ctx, "SELECT count(*) > 0, coalesce(max(name = 'erased_at'), 0) FROM pragma_table_info('photographs')").Scan(&table, &erased); err != nil || !table {
		return nil, err
	}
	query := "SELECT DISTINCT hash FROM photographs"
	if erased {
		query += " WHERE erased_at IS NULL"
	}
	var clips bool
	if err := db.QueryRowContext(ctx, "SELECT count(*) > 0 FROM pragma_table_info('clips')").Scan(&clips); err != nil {
		return nil, err
	}
	if clips {
		query += " UNION SELECT hash FROM clips WHERE erased_at IS NULL"
	}
	rows, err := db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }() // only read from
	for rows.Next() {
		var hash string
		if err := rows.Scan(&hash); err != nil {
			return nil, err
		}
		hashes = append(hashes, hash)
	}
	return hashes, rows.Err()
}
