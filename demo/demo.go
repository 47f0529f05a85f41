// Package demo fills a database with an invented practice: owners, yards,
// horses at every point of the work, and sessions that follow the advisor's
// own advice with a made-up horse. Nothing in it is anybody's real data.
package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/phrase"
	"ivorybridge/core/trailer"
	"ivorybridge/server/accounts"
	"ivorybridge/store"
)

// Practice is the demo practice's name, and User the address of the user whom
// the sign-in page offers.
const (
	Practice = "Harrow Groundwork"
	User     = "wren@harrow.example"
)

// Password is everybody's in the demo.
const Password = "rope and ivory"

const zone = "Europe/London"

// filler writes one demo practice as of a moment.
type filler struct {
	ctx    context.Context
	db     *store.Store
	cat    *catalog.Catalog
	now    time.Time
	actor  store.Actor
	yards  map[string]string
	horses map[string]string // ids by name
	ids    *seeded
}

// Fill makes the practice in an empty database. The same moment gives the same
// practice, but for the salt of the passwords.
func Fill(ctx context.Context, db *store.Store, c *catalog.Catalog, now time.Time) error {
	f := &filler{ctx: ctx, db: db, cat: c, now: now, yards: map[string]string{}, horses: map[string]string{}, ids: newSeeded(7)}
	f.actor = store.Actor{Practice: f.id(), User: f.id(), At: now.Add(-100 * 24 * time.Hour).UnixMilli()}
	if err := f.people(); err != nil {
		return err
	}
	for _, s := range stories() {
		if err := f.tell(s); err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
	}
	if err := f.diary(); err != nil {
		return err
	}
	if err := f.letters(); err != nil {
		return err
	}
	return f.clips()
}

func (f *filler) id() string {
	id, err := uuid.NewRandomFromReader(f.ids)
	if err != nil {
		panic(err) // the reader never fails
	}
	return id.String()
}

// day is the date so many days ago.
func (f *filler) day(ago int) string { return f.now.AddDate(0, 0, -ago).Format(time.DateOnly) }

// people adds the practice, its users, yards and the vets.
func (f *filler) people() error {
	hash := accounts.Hash(Password)
	p := store.Practice{ID: f.actor.Practice, Name: Practice, Zone: zone, Words: phrase.Shipped, Phone: "01632 960150"}
	if err := f.db.AddPractice(f.ctx, p, f.actor.At); err != nil {
		return err
	}
	for _, u := range []store.User{
		{ID: f.actor.User, Name: "Wren Harrow", Email: User, Role: store.Lead, Hash: hash},
		{ID: f.id(), Name: "Ash Tollemar", Email: "ash@harrow.example", Role: store.Assistant, Hash: hash},
	} {
		if err := f.db.AddUser(f.ctx, f.actor, u); err != nil {
			return err
		}
	}
	for _, y := range []store.Yard{
		{Name: "Tarn Side Livery", Address: "Tarn Side, Upper Fallow, gate by the water trough", Phone: "01632 960142"},
		{Name: "Lower Fallow Farm", Address: "Lower Fallow Farm, second track past the mill", Phone: "01632 960177"},
	} {
		y.ID = f.id()
		f.yards[y.Name] = y.ID
		if err := f.db.AddYard(f.ctx, f.actor, y); err != nil {
			return err
		}
	}
	if err := f.trailers(); err != nil {
		return err
	}
	for _, p := range []store.Person{
		{Kind: "vet", Name: "Orla Finch, Fallowdale Vets", Phone: "01632 960111", Note: "Day and night, same number."},
		{Kind: "dentist", Name: "Jory Pascoe", Phone: "01632 960123"},
		{Kind: "farrier", Name: "Tamsin Rook", Phone: "01632 960135", Note: "Every seven weeks at Tarn Side."},
	} {
		p.ID = f.id()
		if err := f.db.AddPerson(f.ctx, f.actor, p); err != nil {
			return err
		}
	}
	return nil
}

// trailers are those of the two yards.
func (f *filler) trailers() error {
	rings := 2
	green := trailer.Record{WidthMM: 820, Rings: &rings, RingsAt: "at the head, left and right"}
	for word, at := range map[string]interface{ UnmarshalText([]byte) error }{
		"straight load": &green.Load, "ramp": &green.Way, "dim": &green.Light, "hollow": &green.Floor, "hitched": &green.Hitch,
	} {
		read(at, word)
	}
	read(&green.Divider, "yes")
	read(&green.Bar, "yes")
	read(&green.Outside, "yes")
	old := trailer.Record{}
	read(&old.Load, "angle load")
	read(&old.Way, "step-up")
	read(&old.Give, "springs")
	read(&old.Outside, "no")
	for _, t := range []store.Trailer{
		{Name: "The green one", YardID: f.yards["Tarn Side Livery"], Record: green},
		{Name: "The old box", YardID: f.yards["Lower Fallow Farm"], Record: old},
	} {
		t.ID = f.id()
		if err := f.db.AddTrailer(f.ctx, f.actor, t); err != nil {
			return err
		}
	}
	return nil
}

// tell takes a horse on, assesses it, and runs its sessions.
func (f *filler) tell(s story) error {
	t := teller{filler: f, story: s, pony: newPony(s)}
	actor := f.actor
	actor.At = f.now.AddDate(0, 0, -s.takenOn).UnixMilli()
	owner := s.owner
	owner.ID = f.id()
	t.horseID, t.caseID, t.ownerID = f.id(), f.id(), owner.ID
	f.horses[s.name] = t.horseID
	k := store.Case{ID: t.caseID, Problem: s.about().String(), Ladder: s.ladderKey(), Goal: s.goal, OpenedOn: f.day(s.takenOn), Wanted: s.wanted(), Thing: s.thing}
	if s.neededIn > 0 {
		k.NeededBy = f.day(-s.neededIn)
	}
	var handlers []store.Person
	for _, name := range s.handlers {
		handlers = append(handlers, store.Person{ID: f.id(), Kind: "other", Name: name})
	}
	if err := f.db.TakeOn(f.ctx, actor, store.Intake{
		Handlers: handlers,
		Horse:    store.Horse{ID: t.horseID, Name: s.name, YardID: f.yards[s.yard], Record: s.record(f)},
		NewOwner: &owner, Case: k,
	}); err != nil {
		return err
	}
	if s.assessed != nil {
		doc := s.assessed(f).About(k.Further()...)
		a := store.Assessment{ID: f.id(), HorseID: t.horseID, On: f.day(s.takenOn - 1), Doc: doc}
		if err := f.db.AddAssessment(f.ctx, actor, a); err != nil {
			return err
		}
		t.assessments = []assess.Assessment{doc}
	}
	if err := t.sessions(); err != nil {
		return err
	}
	if err := t.walks(); err != nil {
		return err
	}
	if err := t.rehearse(actor); err != nil {
		return err
	}
	if err := t.atHome(actor); err != nil {
		return err
	}
	if s.again != nil {
		actor.At = f.now.AddDate(0, 0, -3).UnixMilli()
		a := store.Assessment{ID: f.id(), HorseID: t.horseID, On: f.day(3), Doc: s.again(f, s.assessed(f))}
		if err := f.db.AddAssessment(f.ctx, actor, a); err != nil {
			return err
		}
	}
	if s.finishes {
		return t.finish()
	}
	return nil
}
