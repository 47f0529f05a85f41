package demo

import (
	"ivorybridge/core/diary"
	"ivorybridge/store"
)

// home is where Wren's day begins.
const home = "Corrie Lane"

// booked is a visit of the demo's diary, so many days from the day it is made.
type booked struct {
	in, at, minutes int // at 0: no time yet
	horse, yard     string
	aim             string
	pencil          bool
	cancelled       string
}

// diary puts visits around today, with one clash, one in the past that did not take
// place, and the drives between the yards.
func (f *filler) diary() error {
	const tarn, fallow = "Tarn Side Livery", "Lower Fallow Farm"
	y := store.Yard{ID: f.id(), Name: home, Address: "Corrie Lane 2, the white gate", Phone: "01632 960150"}
	f.yards[home] = y.ID
	if err := f.db.AddYard(f.ctx, f.actor, y); err != nil {
		return err
	}
	for way, minutes := range map[[2]string]int{{home, tarn}: 24, {tarn, fallow}: 38, {fallow, home}: 17} {
		if err := f.db.SetDrive(f.ctx, f.actor, f.yards[way[0]], f.yards[way[1]], &minutes); err != nil {
			return err
		}
	}
	begins := store.DayBegins{Base: y.ID, At: 450, Rounds: []diary.Round{}}
	if err := f.db.SetDayBegins(f.ctx, f.actor, begins); err != nil {
		return err
	}
	for _, b := range []booked{
		{in: -2, at: 600, minutes: 45, horse: "Button", yard: tarn, cancelled: "Ice on the lane. Nobody out."},
		{in: 0, at: 520, minutes: 45, horse: "Copperfield Moth", yard: tarn},
		{in: 0, minutes: 20, horse: "Button", yard: tarn, aim: "Look only. Rest a hand on the hip, both sides"},
		{in: 0, at: 660, minutes: 45, horse: "Juniper Lantern", yard: fallow},
		{in: 0, minutes: 60, horse: "Pepperdine", yard: fallow, aim: "First look: watch first, touch later"},
		{in: 1, at: 540, minutes: 45, horse: "Bilberry", yard: tarn},
		{in: 3, at: 600, minutes: 45, horse: "Copperfield Moth", yard: tarn},
		{in: 5, at: 600, minutes: 45, horse: "Copperfield Moth", yard: tarn, aim: "Stand, then the bar"},
		{in: 5, at: 670, minutes: 45, horse: "Juniper Lantern", yard: fallow, aim: "The owner is there"},
		{in: 6, minutes: 45, horse: "Flint", yard: tarn, pencil: true},
		{in: 8, at: 570, minutes: 60, horse: "Pepperdine", yard: fallow, pencil: true, aim: "Second look"},
		{in: 10, minutes: 45, horse: "Nettle", yard: tarn, pencil: true},
	} {
		v := store.Visit{
			ID: f.id(), Yard: store.Named{ID: f.yards[b.yard]}, Who: store.Named{ID: f.actor.User}, On: f.day(-b.in), Minutes: b.minutes, Zone: zone,
			Aim: b.aim, Agreed: !b.pencil, Horses: []store.Named{{ID: f.horses[b.horse]}},
		}
		if b.at > 0 {
			at := diary.Clock(b.at)
			v.At = &at
		}
		if err := f.db.AddVisit(f.ctx, f.actor, v); err != nil {
			return err
		}
		if b.cancelled != "" {
			v.Cancelled, v.Version = b.cancelled, 1
			if err := f.db.ChangeVisit(f.ctx, f.actor, v); err != nil {
				return err
			}
		}
	}
	return nil
}
