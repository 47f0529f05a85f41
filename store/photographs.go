package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"

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
}

// ErrNoConsent is returned where the owner has not agreed.
var ErrNoConsent = errors.New("the owner has not agreed")

// folder is where the pictures of a database lie.
func folder(database string) string { return database + ".photographs" }

func hashOf(picture []byte) string {
	sum := sha256.Sum256(picture)
	return hex.EncodeToString(sum[:])
}

// AddPhotograph keeps a picture: the file first, then its row, so that no row
// is without its file. ErrNoConsent unless an owner of the horse has agreed.
func (s *Store) AddPhotograph(ctx context.Context, actor Actor, p Photograph, picture []byte) error {
	p.Hash, p.Bytes = hashOf(picture), int64(len(picture))
	return s.write(ctx, "keeping a photograph", func(q *sqlc.Queries) error {
		agreed, err := q.GetConsentOfHorse(ctx, sqlc.GetConsentOfHorseParams{PracticeID: actor.Practice, HorseID: p.HorseID, Kind: Photographs})
		if err != nil {
			return err
		}
		if !agreed {
			return ErrNoConsent
		}
		if err := keepFile(folder(s.path), p.Hash, picture); err != nil {
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
func keepFile(dir, name string, content []byte) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("making the folder of the photographs: %w", err)
	}
	part, err := os.CreateTemp(dir, "part-*")
	if err != nil {
		return fmt.Errorf("writing a photograph: %w", err)
	}
	_, err = part.Write(content)
	err = errors.Join(err, part.Sync(), part.Close())
	if err == nil {
		err = os.Rename(part.Name(), filepath.Join(dir, name))
	}
	if err != nil {
		return fmt.Errorf("writing a photograph: %w", errors.Join(err, os.Remove(part.Name())))
	}
	return nil
}

// Photographs lists the pictures of a horse, the newest first.
func (v View) Photographs(ctx context.Context, practice, horseID string) ([]Photograph, error) {
	rows, err := v.read.GetPhotographs(ctx, sqlc.GetPhotographsParams{PracticeID: practice, HorseID: horseID})
	list := make([]Photograph, 0, len(rows))
	for _, r := range rows {
		list = append(list, Photograph(r))
	}
	return list, reading("the photographs", err)
}

// Photograph reads one picture with its bytes, which must still have the hash
// they were kept under.
func (v View) Photograph(ctx context.Context, practice, id string) (Photograph, []byte, error) {
	r, err := v.read.GetPhotograph(ctx, sqlc.GetPhotographParams{PracticeID: practice, ID: id})
	if err != nil {
		return Photograph{}, nil, reading("the photograph", err)
	}
	p := Photograph{
		ID: r.ID, HorseID: r.HorseID, About: r.About, Caption: r.Caption, TakenOn: r.TakenOn, MediaType: r.MediaType,
		Width: r.Width, Height: r.Height, Bytes: r.Bytes, Hash: r.Hash,
	}
	picture, err := readPicture(folder(v.path), r.Hash)
	return p, picture, err
}

func readPicture(dir, hash string) ([]byte, error) {
	picture, err := os.ReadFile(filepath.Join(dir, hash))
	if err != nil {
		return nil, fmt.Errorf("reading a photograph: %w", err)
	}
	if hashOf(picture) != hash {
		return nil, fmt.Errorf("the photograph %s is not what was kept", hash)
	}
	return picture, nil
}

// RemovePhotograph takes a picture out of sight. Its file stays.
func (s *Store) RemovePhotograph(ctx context.Context, actor Actor, id string) error {
	return s.write(ctx, "removing a photograph", func(q *sqlc.Queries) error {
		n, err := q.RemovePhotograph(ctx, sqlc.RemovePhotographParams{RemovedAt: sql.NullInt64{Int64: actor.At, Valid: true}, PracticeID: actor.Practice, ID: id})
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

// copyPictures copies the pictures of one database beside another. A picture
// that is there already stays.
func copyPictures(from, to string) error {
	files, err := os.ReadDir(folder(from))
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("reading the photographs: %w", err)
	}
	for _, f := range files {
		if len(f.Name()) != sha256.Size*2 {
			continue // a part that a power cut left
		}
		if _, err := os.Stat(filepath.Join(folder(to), f.Name())); err == nil {
			continue
		}
		picture, err := readPicture(folder(from), f.Name())
		if err != nil {
			return err
		}
		if err := keepFile(folder(to), f.Name(), picture); err != nil {
			return err
		}
	}
	return nil
}

// checkPictures reports whether every picture of the database at path is
// beside it, as it was kept.
func checkPictures(ctx context.Context, db *sql.DB, path string) error {
	var there int
	if err := db.QueryRowContext(ctx, "SELECT count(*) FROM sqlite_schema WHERE name = 'photographs'").Scan(&there); err != nil || there == 0 {
		return err
	}
	rows, err := db.QueryContext(ctx, "SELECT DISTINCT hash FROM photographs")
	if err != nil {
		return fmt.Errorf("reading the photographs: %w", err)
	}
	defer func() { _ = rows.Close() }() // only read from
	for rows.Next() {
		var hash string
		if err := rows.Scan(&hash); err != nil {
			return fmt.Errorf("reading the photographs: %w", err)
		}
		if _, err := readPicture(folder(path), hash); err != nil {
			return err
		}
	}
	return rows.Err()
}
