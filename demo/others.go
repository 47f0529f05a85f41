package demo

import (
	"cmp"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/store"
)

// others are the horses that came for something else than the trailer: every school,
// and every state of a case.
func others() []story {
	return []story{lark(), pewter(), bilberry(), ashling(), flint(), cricket(), vesper(), dumpling(), marl(), sedge(), wick(), nettle()}
}

// owned is a private owner with an invented number.
func owned(name, phone string) store.Person {
	return store.Person{Kind: "owner", Name: name, Phone: phone}
}

// other is a story about another problem, told by the schools of its ladder.
func other(name, problem, ladder, goal string, seed uint64, owner store.Person) story {
	return story{
		name: name, yard: "Tarn Side Livery", problem: problem, ladder: ladder, goal: goal, owner: owner, takenOn: 30,
		record: func(f *filler) assess.Record { return record(f, "gelding", 10, 1500, "cob") },
		days:   []int{28, 25, 21, 18, 14, 11, 7, 4}, reps: 36,
		notes: []string{"quiet to the end", "stopped on a soft one", "curious, and came back for more", "chewed and walked away slowly"},
		seed:  seed, quick: 0.5, heavy: 5, forget: 0.05, way: "turned away",
	}
}

// felt is an assessment whose basics were good but for some, and whose problem was
// asked once.
func felt(problem, reached, tells string, missing ...string) func(*filler) assess.Assessment {
	return func(f *filler) assess.Assessment {
		a := assess.Assessment{Body: bodyOf("clear"), Basics: map[string]assess.Basic{}, Zones: map[assess.Spot]assess.Touch{}}
		seconds, steps := 60.0, 4
		for _, t := range assess.Tests() {
			if t.Ridden {
				continue
			}
			for _, key := range t.Asks() {
				a.Basics[key] = assess.Basic{Level: horse.LevelOf(2), Grade: horse.Accepted, Seconds: &seconds, Count: &steps, Anew: true}
			}
		}
		for _, key := range missing {
			a.Basics[key] = basic(6, "try")
		}
		for _, zone := range (horse.Zone{}).All()[1:4] {
			for _, side := range (horse.Side{}).All() {
				a.Zones[assess.Spot{Zone: zone, Side: side, With: assess.With{}.All()[0]}] = assess.Touch{Level: horse.LevelOf(1), Grade: horse.Accepted, Anew: true}
			}
		}
		var p horse.Problem
		read(&p, problem)
		account := assess.Account{Story: assess.Story{Description: tells, Tries: number(8), Successes: number(2), Since: f.day(300)}}
		account.Baseline = assess.Baseline{Done: true, Reached: reached, Arousal: horse.ArousalOf(1), Tries: number(2), Anew: true}
		a.Problems = map[horse.Problem]assess.Account{p: account}
		return a
	}
}

// lark plants at the gate and will not leave.
func lark() story {
	s := other("Harvest Lark", "sour", "away", "Walks out of the yard alone, past the mill", 31, owned("Dilys Arkwright", "01632 960201"))
	s.assessed = felt("sour", "", "Turns for home at the mill and cannot be got past it.", "quarters.fore near", "quarters.fore off")
	s.way, s.takenOn, s.days = "planted", 16, []int{14, 11, 9}
	s.outings = []walked{
		{ago: 7, minutes: 5, metres: 380, stops: "sbbsbs", spot: 4, arousal: 2}, {ago: 6, minutes: 2.5, metres: 190, stops: "ssbs", arousal: 1},
		{ago: 5, minutes: 2.5, metres: 190, stops: "ssss", arousal: 1}, {ago: 3, minutes: 3.2, metres: 240, stops: "sssbs", arousal: 1},
		{ago: 2, minutes: 4, metres: 300, stops: "sssss", arousal: 1}, {ago: 1, minutes: 5, metres: 375, stops: "sesbss", spot: 1, arousal: 1},
	}
	return s
}

// pewter was hurt in the mouth once; he takes the bit again, and is finished.
func pewter() story {
	s := other("Old Pewter", "bridling", "bridle", "Takes the bit from Corin, head low", 37, owned("Corin Mabb", "01632 960202"))
	s.assessed = felt("bridling", "", "Throws his head up as the bridle comes. A bit was knocked against his teeth last winter.")
	s.goalAt, s.school, s.finishes, s.quick, s.heavy, s.forget, s.reps = "bridle.bit", "build and release", true, 0.75, 3, 0.01, 40
	s.takenOn, s.days = 96, nil
	for ago := 93; ago > 22; ago -= 3 {
		s.days = append(s.days, ago)
	}
	s.early = map[int][]string{1: {"bridle.lips"}}
	return s
}

// bilberry waits for the vet: her belly is not clear.
func bilberry() story {
	s := other("Bilberry", "girth", "saddle", "Stands for the girth without her ears back", 41, owned("Maud Sefton-Lyle", "01632 960203"))
	s.record = func(f *filler) assess.Record { return record(f, "mare", 7, 1480, "native pony") }
	assessed := felt("girth", "", "Nips at the girth and steps away as it is lifted.")
	s.assessed = func(f *filler) assess.Assessment {
		a := assessed(f)
		a.Body[horse.Belly] = assess.BodyNote{State: horse.Suspect, Note: "tightens when pressed behind the elbow", Since: f.day(9)}
		return a
	}
	s.takenOn, s.days = 10, []int{8, 5}
	return s
}

// ashling has a sad ridden past, and is asked, not told.
func ashling() story {
	s := other("Ashling Fair", "saddling", "saddle", "Stands free for pad and saddle, and stays by choice", 43, owned("Peregrine Oakes", "01632 960204"))
	s.record = func(f *filler) assess.Record {
		r := record(f, "mare", 11, 1560, "warm blood")
		read(&r.RiddenPast, "unhappy")
		r.Food = assess.Food{}
		read(&r.Food, "yes")
		return r
	}
	s.assessed = felt("saddling", "", "Leaves as soon as the pad comes into the yard.")
	s.way = "turned away"
	return s
}

// flint snatches his hind feet, and the farrier is booked.
func flint() story {
	s := other("Flint", "feet", "feet", "Holds up both hind feet for the farrier, two minutes each", 47, owned("Jory Vane", "01632 960205"))
	s.assessed = felt("feet", "feet.touch", "Snatches the hind feet and has kicked at the farrier's apron.")
	s.neededIn, s.takenOn, s.days, s.way = 6, 12, []int{10, 7, 3}, "kicked at a tool or rope"
	return s
}

// cricket is young, and bucked under his second rider.
func cricket() story {
	s := other("Cricket", "bucking", "control", "Walks, trots and stops under Nell in the pen, softly", 53, owned("Nell Harbottle", "01632 960206"))
	s.record = func(f *filler) assess.Record {
		r := record(f, "gelding", 2, 1490, "sport horse")
		r.Rides = number(6)
		return r
	}
	s.assessed = felt("bucking", "", "Bucked twice as he was asked to trot, and put his second rider off.", "quarters.hind off")
	s.takenOn, s.days = 9, []int{7, 4, 2}
	return s
}

// vesper rushes under a green rider.
func vesper() story {
	s := other("Vesper", "rushing", "rush", "Walks on a slack rein round the wood with Imogen", 59, owned("Imogen Thrale", "01632 960207"))
	s.record = func(f *filler) assess.Record {
		r := record(f, "mare", 8, 1550, "trotter cross")
		read(&r.Energy, "high")
		return r
	}
	assessed := felt("rushing", "", "Jogs from the gate to the wood and pulls all the way home.")
	s.assessed = func(f *filler) assess.Assessment {
		a := assessed(f)
		a.First.Mounting = []assess.Mounting{assess.Mounting{}.All()[0]}
		a.Basics["ridden.mount"], a.Basics["ridden.halt"] = basic(3, "accepted"), basic(4, "accepted")
		a.Handlers = map[string]assess.Handler{"imogen": {Name: "Imogen", Main: true, Experience: horse.Beginner}}
		return a
	}
	s.neededIn, s.takenOn, s.days = 40, 20, []int{18, 15, 12, 9, 5}
	return s
}

// dumpling is heavy and herd-bound, and has stood for six weeks.
func dumpling() story {
	s := other("Dumpling", "heavy", "soft", "Turns and stops without leaning, away from the herd", 61, owned("Gwen Pardoe", "01632 960208"))
	s.also = []string{"sour"}
	s.assessed = felt("heavy", "", "Leans on the hand, falls in round every corner, calls for the others.", "head.flex near", "head.flex off", "quarters.hind near")
	s.takenOn, s.days, s.forget = 75, []int{73, 70, 66, 62, 58, 54, 47}, 0.1
	return s
}

// marl goes on when he is asked; his owner has taken over.
func marl() story {
	s := other("Marl", "planting", "plant", "Sets off for Tobias, and goes to the gate without a stop", 67, owned("Tobias Wren-Cole", "01632 960209"))
	s.assessed = felt("planting", "", "Plants in the gateway and cannot be moved by pulling.", "lead.turn near")
	s.quick, s.heavy, s.takenOn, s.goalAt = 0.65, 4, 18, "plant.more"
	s.days = []int{16, 12, 8, 4}
	s.rehearsed, s.sent = []string{"plant.go", "plant.more"}, true
	s.practised = []practice{
		{2, 1, "plant.go", []string{"yes", "nearly"}, ""},
		{1, 3, "plant.go", []string{"no", "no"}, "The dustcart came round the corner and he spun round."},
	}
	return s
}

// sedge was never sprayed and stands for it now on one side.
func sedge() story {
	s := other("Sedge", "new thing", "new", "Stands loose for the fly spray, all over", 71, owned("Flora Penhallow", "01632 960210"))
	s.thing, s.takenOn, s.days = "fly spray", 14, []int{12, 9, 6, 2}
	s.assessed = felt("new thing", "", "Leaves the yard at the sound of the bottle.")
	s.way = "went sideways"
	return s
}

// wick never lets go, and comes down a little sooner each time.
func wick() story {
	s := other("Wick", "tension", "calm", "Soft at the halter within half a minute, in five places", 73, owned("Ambrose Fell", "01632 960211"))
	s.record = func(f *filler) assess.Record { return record(f, "gelding", 6, 1620, "thoroughbred cross") }
	s.assessed = felt("tension", "", "Stands with his head up and his lip tight wherever he is.", "head.down")
	s.yard, s.takenOn, s.days = "Lower Fallow Farm", 15, []int{13, 10, 6, 3}
	return s
}

// nettle is an unhandled adult of a rescue; several people handle her.
func nettle() story {
	s := other("Nettle", "aggression", "wild", "Caught, haltered and led by two people of the rescue", 79, store.Person{Kind: "rescue", Name: "Millrace Horse Rescue, Fallow Gate", Phone: "01632 960212"})
	s.handlers = []string{"Ida Storr", "Sol Whitby"}
	s.record = func(f *filler) assess.Record {
		r := record(f, "mare", 9, 1380, "moorland pony")
		r.Unhandled, r.Rides = true, number(0)
		read(&r.RiddenPast, "none")
		return r
	}
	s.assessed = func(f *filler) assess.Assessment {
		return assess.Assessment{
			NotYet: true, Body: map[horse.BodyItem]assess.BodyNote{}, Findings: seen("curious"),
			Problems: map[horse.Problem]assess.Account{horse.Aggression: {Story: assess.Story{Description: "Never touched. Kicks at whatever comes near her flank."}}},
		}
	}
	s.takenOn, s.days, s.way, s.quick, s.reps = 16, []int{14, 12, 9, 6, 3}, "kicked at a tool or rope", 0.2, 22
	return s
}

// about is the problem of a story.
func (s story) about() (p horse.Problem) {
	if s.problem == "" {
		return horse.Loading
	}
	read(&p, s.problem)
	return p
}

func (s story) ladderKey() string { return cmp.Or(s.ladder, "load") }

// wanted is what was wanted as the horse was taken on.
func (s story) wanted() map[horse.Problem]plan.Wanted {
	if s.goalAt == "" && len(s.also) == 0 {
		return nil
	}
	wanted := map[horse.Problem]plan.Wanted{s.about(): {Until: s.goalAt}}
	for _, name := range s.also {
		var p horse.Problem
		read(&p, name)
		wanted[p] = plan.Wanted{}
	}
	return wanted
}
