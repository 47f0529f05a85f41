package demo

import (
	"fmt"

	"ivorybridge/store"
)

// letters are told to Wren, and to two owners who agreed to them.
func (f *filler) letters() error {
	readers := []store.Reader{{User: f.actor.User}}
	for i, horse := range []string{"Bilberry", "Copperfield Moth"} {
		h, err := f.db.HorseAsKept(f.ctx, f.actor.Practice, f.horses[horse])
		if err != nil {
			return err
		}
		p, err := f.db.Person(f.ctx, f.actor.Practice, h.Owners[0].ID)
		if err != nil {
			return err
		}
		p.Email = []string{"maud@fallow.example", "ines@fallow.example"}[i]
		if err := f.db.UpdatePerson(f.ctx, f.actor, p); err != nil {
			return err
		}
		readers = append(readers, store.Reader{Person: p.ID})
	}
	for i, r := range readers {
		r.ID, r.Stop = f.id(), fmt.Sprintf("invented-address-to-stop-%d", i)
		if err := f.db.AddReader(f.ctx, f.actor, r); err != nil {
			return err
		}
	}
	return nil
}
