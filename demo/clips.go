package demo

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"fmt"
	"os"
	"path/filepath"

	"ivorybridge/core/gait"
	"ivorybridge/server/film"
	"ivorybridge/store"
)

// films are the demo's clips, as make films draws them.
//
//go:embed films/*.mp4
var films embed.FS

// filmed is a clip of the demo: of which horse, and what was tapped on it.
type filmed struct {
	file, horse, name, gait string
	ago                     int
	stride, fraction        float64 // s, and of a stride; 0: nothing was tapped yet
}

// clips shows two horses walking: one whose gait is in question, and one that was timed.
func (f *filler) clips() error {
	for _, c := range []filmed{
		{file: "walk.mp4", horse: "Pepperdine", name: "walks past, from the off side", gait: "pace", ago: 3},
		{file: "stepping.mp4", horse: "Harvest Lark", name: "on the way home", gait: "walk", ago: 9, stride: 0.9, fraction: 0.12},
	} {
		if err := f.clip(c); err != nil {
			return fmt.Errorf("the clip %s: %w", c.file, err)
		}
	}
	return nil
}

func (f *filler) clip(c filmed) error {
	whole, err := films.ReadFile("films/" + c.file)
	if err != nil {
		return err
	}
	dir := f.db.Arriving()
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return err
	}
	path := filepath.Join(dir, c.file)
	if err := os.WriteFile(path, whole, 0o600); err != nil {
		return err
	}
	h, err := f.db.HorseAsKept(f.ctx, f.actor.Practice, f.horses[c.horse])
	if err != nil {
		return err
	}
	if err := f.db.Agree(f.ctx, f.actor, store.Consent{Person: h.Owners[0].ID, Kind: store.Photographs, GivenOn: f.day(c.ago)}); err != nil {
		return err
	}
	head, err := looked(path, int64(len(whole)))
	if err != nil {
		return err
	}
	sum := sha256.Sum256(whole)
	kept := store.Clip{
		ID: f.id(), HorseID: h.ID, Name: c.name, FilmedOn: f.day(c.ago), MediaType: head.Type, Bytes: int64(len(whole)), Hash: hex.EncodeToString(sum[:]),
		Position: string(film.None), Frames: head.Frames, SentBy: store.Named{ID: h.Owners[0].ID},
	}
	if err := f.db.AddClip(f.ctx, f.actor, kept, path, int64(len(whole))<<8); err != nil {
		return err
	}
	kept.Gait, kept.Version, kept.Taps = c.gait, 1, gait.Taps{Speed: 1, Landings: []gait.Landing{}}
	if c.stride > 0 {
		kept.Taps.Landings = strides(c.stride, c.fraction)
	}
	return f.db.ChangeClip(f.ctx, f.actor, kept)
}

func looked(path string, size int64) (film.Header, error) {
	file, err := os.Open(path)
	if err != nil {
		return film.Header{}, err
	}
	defer func() { _ = file.Close() }() // only read from
	return film.Look(file, size)
}

// strides are the landings of five strides of so many seconds, from the second on, in which
// each fore foot lands at a fraction of the stride after the hind foot of its side.
func strides(seconds, fraction float64) []gait.Landing {
	list := []gait.Landing{}
	for i := range 5 {
		at := float64(i+1) * seconds
		list = append(list,
			gait.Landing{Hoof: gait.NearHind, At: at}, gait.Landing{Hoof: gait.NearFore, At: at + fraction*seconds},
			gait.Landing{Hoof: gait.OffHind, At: at + 0.5*seconds}, gait.Landing{Hoof: gait.OffFore, At: at + (0.5+fraction)*seconds})
	}
	return list
}
