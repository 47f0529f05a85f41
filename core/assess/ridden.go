package assess

import (
	"slices"
	"time"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// NotYetRidden reports whether the record says that nobody has ridden it.
func (r Record) NotYetRidden() bool { return r.Rides != nil && *r.Rides == 0 }

// riderItems must be clear or cleared before anybody rides (part 5).
var riderItems = []horse.BodyItem{horse.Mouth, horse.Back, horse.Belly, horse.SaddleFit}

// unfit lists the items that keep riders off a step; what was not looked at is
// not clear, and a vet may have released the step.
func (a Assessment) unfit(step string) []horse.BodyItem {
	return slices.DeleteFunc(slices.Clone(riderItems), func(i horse.BodyItem) bool {
		_, released := a.Body[i].Released[step]
		return fine(a.BodyOf(i)) || released
	})
}

// seenSafe reports whether mounting and halting were seen safe (D2).
func (a Assessment) seenSafe() bool {
	stood := horse.Soft(a.Basics["ridden.mount"].Grade) || a.SourceIn("C") == horse.Seen && has(a.First.Mounting, "still")
	return a.SourceIn("D2") == horse.Seen && horse.Soft(a.Basics["ridden.halt"].Grade) && stood && !a.First.NoMounting()
}

// mayRide: mouth, back, belly and saddle fit clear or cleared, and mounting
// and halting seen safe in the assessment (part 5).
func (a Assessment) mayRide() bool { return len(a.unfit("")) == 0 && a.seenSafe() }

// RiddenBlocks lists the ridden steps that nobody asks yet (parts 5 and 9):
// while an item that bears a rider is not clear, while mounting and halting
// were not seen safe with a horse already ridden (the steps of mounting
// themselves apart), and, with a young horse, ridden problem work without an
// exception of the lead trainer. On a horse that went over backwards, ever,
// nobody's weight comes at all.
func RiddenBlocks(c *catalog.Catalog, a Assessment, r Record, in Barring) []Block {
	key := ""
	var blocks []Block
	for _, l := range c.Ladders {
		mounting := slices.ContainsFunc(l.Steps, func(s catalog.Step) bool { return s.Opens })
		for _, s := range l.Steps {
			if in.InHand && (s.Ridden || s.Is(catalog.BearsWeight)) {
				blocks = append(blocks, Block{Step: s.Key, Name: s.FullName(), Why: phrase.Of("block.in_hand", nil), Lifts: phrase.Of("block.in_hand.lifts", nil), Never: true})
				continue
			}
			if !s.Ridden {
				continue
			}
			unfit := a.unfit(s.Key)
			switch {
			case len(unfit) > 0:
				key = "body"
			case !r.NotYetRidden() && !mounting && !a.seenSafe():
				key = "seen"
			case r.Young(in.Today) && !s.First && !in.Exception:
				key = "young"
			default:
				continue
			}
			var items []phrase.Message
			for _, i := range unfit {
				items = append(items, Named(i))
			}
			b := Block{Step: s.Key, Name: s.FullName(), Why: phrase.Of("block.ridden."+key, phrase.Args{"items": items}), Lifts: phrase.Of("block.ridden."+key+".lifts", phrase.Args{"items": items})}
			if key == "body" {
				b.Item = unfit[0]
			}
			blocks = append(blocks, b)
		}
	}
	return blocks
}

// Barring is what decides whether a horse may be ridden, beside its assessment.
type Barring struct {
	Today     string
	Exception bool // of the lead trainer, for a young horse
	InHand    bool // it went over backwards, ever
}

// AllBlocks lists what the body blocks and what nobody rides yet, a step once.
// What never lifts comes before what may.
func AllBlocks(c *catalog.Catalog, a Assessment, r Record, in Barring) []Block {
	ridden := RiddenBlocks(c, a, r, in)
	never := func(step string) bool {
		return slices.ContainsFunc(ridden, func(b Block) bool { return b.Never && b.Step == step })
	}
	blocks := slices.DeleteFunc(Blocks(c, a), func(b Block) bool { return never(b.Step) })
	for _, b := range ridden {
		if !slices.ContainsFunc(blocks, func(o Block) bool { return o.Step == b.Step }) {
			blocks = append(blocks, b)
		}
	}
	return blocks
}

// Lift writes down the earliest day that each block can lift, where one is
// known: when a course of treatment ends, or when the professional is due, and
// never before today.
func Lift(blocks []Block, a Assessment, refs []Referral, today string) {
	for i := range blocks {
		b := &blocks[i]
		if b.Item.IsZero() {
			continue
		}
		items := []horse.BodyItem{b.Item}
		if b.Why.Key == "block.ridden.body" {
			items = a.unfit(b.Step)
		}
		for _, item := range items {
			b.Earliest = max(b.Earliest, a.lifts(item, refs, today))
		}
	}
}

// lifts is the earliest day on which an item can be clear.
func (a Assessment) lifts(item horse.BodyItem, refs []Referral, today string) string {
	n := a.Body[item]
	if a.BodyOf(item) == horse.InTreatment && n.Days != nil {
		if begun, err := time.Parse(time.DateOnly, n.Begun); err == nil {
			return max(today, begun.AddDate(0, 0, *n.Days).Format(time.DateOnly))
		}
	}
	for _, r := range refs {
		if r.Item == item && !r.Done {
			return max(today, r.Due)
		}
	}
	return today
}
