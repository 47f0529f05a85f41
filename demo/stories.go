package demo

import (
	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/store"
)

// A story is one horse of the practice and how its work went. Days count back
// from the day the demo is made.
type story struct {
	name      string
	yard      string
	owner     store.Person
	goal      string
	neededIn  int // days from now; 0: no date
	takenOn   int // days ago
	record    func(*filler) assess.Record
	assessed  func(*filler) assess.Assessment
	again     func(*filler, assess.Assessment) assess.Assessment // assessed again three days ago
	days      []int                                              // sessions, days ago
	reps      int                                                // at most in a session; 0: until the advisor ends it
	finishes  bool
	notes     []string   // how the sessions ended, in turn
	built     bool       // the trainer builds and releases at the trailer, whatever is suggested
	rehearsed []string   // steps that the owner rehearsed, and then did in the last sessions
	outings   []walked   // after the sessions
	practised []practice // what the owner wrote down of practice at home
	sent      bool       // the page of the newest visit was sent

	problem, ladder string           // empty: the trailer
	also            []string         // further problems
	goalAt          string           // the plank where the goal lies; empty: the last
	school          string           // chosen for the ladder, whatever is suggested
	thing           string           // that a new-thing case is about
	handlers        []string         // who handles it for an organisation
	early           map[int][]string // by session, steps that the trainer asked before their time

	// the made-up horse
	seed   uint64
	quick  float64 // share of what is missing that one good release teaches
	heavy  float64 // level needed at the very first
	forget float64 // share lost over days off
	way    string  // its favourite way out
	fright int     // number of the session in which it goes over the line once; 0: none
	lost   int     // number of the session in which what was met is refused; 0: none
}

// practice is what an owner wrote down at home.
type practice struct {
	ago, arousal int
	step         string
	answers      []string // first two; none: not done
	note         string
}

func read[T interface{ UnmarshalText([]byte) error }](v T, s string) {
	if err := v.UnmarshalText([]byte(s)); err != nil {
		panic(err)
	}
}

func number(n int) *int { return &n }

func record(f *filler, sex string, years, heightMM int, breed string) assess.Record {
	r := assess.Record{HeightMM: heightMM, Breed: breed, Born: f.now.AddDate(-years, -1, 0).Format("2006-01-02"), Rides: number(120)}
	read(&r.Sex, sex)
	read(&r.Energy, "usual")
	read(&r.Food, "only after standing")
	return r
}

// bodyOf sets the items named, all others clear.
func bodyOf(state string, items ...string) map[horse.BodyItem]assess.BodyNote {
	notes := map[horse.BodyItem]assess.BodyNote{}
	for _, item := range (horse.BodyItem{}).All() {
		n := assess.BodyNote{State: horse.Clear}
		for _, name := range items {
			if item.String() == name {
				read(&n.State, state)
			}
		}
		notes[item] = n
	}
	return notes
}

// about is an assessment of one account of loading.
func about(a assess.Assessment, account assess.Account) assess.Assessment {
	a.Problems = map[horse.Problem]assess.Account{horse.Loading: account}
	return a
}

func seen(keys ...string) map[string]horse.Source { return sourced(horse.Seen, keys) }

func told(keys ...string) map[string]horse.Source { return sourced(horse.Told, keys) }

func sourced(source horse.Source, keys []string) map[string]horse.Source {
	all := map[string]horse.Source{}
	for _, k := range keys {
		all[k] = source
	}
	return all
}

func began(s *assess.Story, how string, done ...string) {
	read(&s.Began, how)
	for _, d := range done {
		var w assess.Done
		read(&w, d)
		s.Done = append(s.Done, w)
	}
}

func stories() []story {
	return append([]story{moth(), lantern(), button(), pepper(), teasel()}, others()...)
}

// moth is half-way over the bridge.
func moth() story {
	return story{
		name: "Copperfield Moth", yard: "Tarn Side Livery", takenOn: 62, neededIn: 24,
		owner: store.Person{Kind: "owner", Name: "Ines Calloway", Phone: "01632 960188", Email: "ines@calloway.example"},
		goal:  "Loads, stands tied and travels with Ines alone",
		record: func(f *filler) assess.Record {
			r := record(f, "mare", 9, 1520, "cob cross")
			r.Living = "field by day with two others, stable at night"
			return r
		},
		assessed: func(f *filler) assess.Assessment {
			var account assess.Account
			account.Story = assess.Story{
				Since: f.day(400), Tries: number(11), Successes: number(2), UsualMin: number(95), WorstMin: number(180),
				WithWhom: "Ines, and a friend behind", Where: "at home by the gate, and once at a show", Helpers: number(2),
				Tried: "lunge line behind, food in a bucket, another horse first", WhoAlone: "Ines",
				Description: "Plants two metres from the ramp, swings to the right, then backs away fast. Once the strap gave and she was out.",
			}
			began(&account.Story, "after an event", "the person gives up", "put away")
			account.Baseline = assess.Baseline{
				Done: true, Reached: "load.bridge", WaysOut: []horse.WayOut{way("turned away"), way("planted")}, Arousal: horse.ArousalOf(2),
				Recovery: number(240), Minutes: number(25), Tries: number(3), Note: "two metres from the ramp and no further; swings right",
			}
			account.Findings = told("did_well_in_past")
			account.Findings["stops_and_rests_beside"] = horse.Seen
			a := about(assess.Assessment{Body: bodyOf("clear"), Findings: seen("faces_and_pulls", "gives_when_resists", "pressure_off_stays", "worked_and_turned_out")}, account)
			a.Body[horse.Belly] = course(f)
			a.Checkups = assess.Checkups{Dental: f.day(200), Hoof: f.day(51)}
			a.Tack = mothsTack(f)
			a.Basics = map[string]assess.Basic{
				"lead.forward": basic(6, "tolerated"), "lead.stand": basic(4, "accepted"), "lead.back": basic(8, "try"), "lead.anytime": basic(7, "try"),
				"head.down": basic(6, "tolerated"), "head.flex near": basic(3, "accepted"), "head.flex off": basic(6, "tolerated"),
				"quarters.hind near": basic(4, "accepted"), "quarters.hind off": basic(5, "accepted"),
			}
			a.Handlers = map[string]assess.Handler{"ines": {Name: "Ines", Main: true}}
			a.Problems[horse.Crowding] = crowding()
			return a
		},
		days: []int{44, 41, 38, 34, 30, 27, 23, 16, 13, 9, 2}, reps: 50,
		rehearsed: []string{"lead.forward", "lead.halt", "lead.stand", "lead.back"}, sent: true,
		practised: []practice{
			{2, 1, "lead.back", []string{"nearly", "yes"}, ""},
			{1, 1, "lead.back", []string{"yes", "yes"}, "Hardly had to lift the rope."},
			{1, 0, "lead.halt", []string{"yes", "yes"}, ""},
		},
		notes: []string{
			"quiet, and let go of her tail for the first time", "stopped on a soft one, with a sigh",
			"one fright by the lorry, waited, came back well", "both sides light, she looked for the answer",
			"a dip, and through it without a fuss", "head low, hind leg resting", "asked for less than last time and got more",
			"the strap held and so did she", "chewed, blinked, walked away slowly",
		},
		seed: 11, quick: 0.5, heavy: 9, forget: 0.05, way: "turned away", fright: 2,
	}
}

// crowding is what else Moth does, and what the plan takes on after the trailer.
func crowding() assess.Account {
	a := assess.Account{Story: assess.Story{Description: "Walks into people while they talk at the gate, and rubs her head on them.", Tries: number(20), Successes: number(5)}}
	began(&a.Story, "gradually", "kept at it")
	a.Baseline = assess.Baseline{Done: true, Arousal: horse.ArousalOf(1), WaysOut: []horse.WayOut{way("crowded in")}}
	return a
}

func basic(level int, answer string) assess.Basic {
	b := assess.Basic{Level: horse.LevelOf(level)}
	read(&b.Grade, answer)
	return b
}

// mothsTack is tight without a reason, and one milder trial was made.
func mothsTack(f *filler) assess.Tack {
	t := assess.Tack{Mouthpiece: "two pieces, steel", Trials: map[string]assess.Trial{}}
	read(&t.Bit, "direct ring")
	read(&t.Noseband, "tight")
	read(&t.Saddle, "fits")
	trial := assess.Trial{Changed: "noseband two holes looser", Milder: true, Minutes: number(10), Saw: "chewed, head lower", On: f.day(58)}
	read(&trial.Verdict, "better")
	t.Trials["noseband"] = trial
	return t
}

// lantern was nearly there and slipped after time off.
func lantern() story {
	s := moth()
	s.name, s.yard, s.takenOn, s.neededIn = "Juniper Lantern", "Lower Fallow Farm", 52, 12
	s.owner = store.Person{Kind: "owner", Name: "Bram Ostler-Quill", Phone: "01632 960164"}
	s.goal = "Walks in quietly and rides ten minutes to the river meadows"
	s.record = func(f *filler) assess.Record { return record(f, "gelding", 6, 1610, "sport horse") }
	assessed := s.assessed
	s.assessed = func(f *filler) assess.Assessment {
		a := assessed(f)
		account := a.Problems[horse.Loading]
		account.Story.Since = f.day(120)
		account.Baseline.Note, account.Baseline.WaysOut = "rushes in and out, three times in two minutes", []horse.WayOut{way("rushed through")}
		account.Story.Tries, account.Story.Successes, account.Story.UsualMin, account.Story.WorstMin = number(6), number(1), number(40), number(70)
		account.Story.Description = "Rushes in, and out again before anybody can close the bar."
		account.Story.WhoAlone, account.Story.WithWhom = "Bram", "Bram"
		account.Findings = seen("rushes_in_and_out")
		a.Findings = seen("starts_strong", "person_anxious")
		a.Body = bodyOf("clear")
		a.Handlers = map[string]assess.Handler{"bram": {Name: "Bram", Main: true, Experience: horse.Beginner}}
		e := assess.Event{On: f.day(60)}
		read(&e.Kind, "ran over a person or broke loose")
		a.Events = map[string]assess.Event{"loose": e}
		return about(a, account)
	}
	s.again = func(f *filler, a assess.Assessment) assess.Assessment {
		account := a.Problems[horse.Loading]
		account.Swap = map[assess.SwapRun]assess.Run{}
		for i, run := range []assess.Run{run(7, "try"), run(4, "accepted"), run(3, "accepted"), run(6, "tolerated")} {
			account.Swap[assess.SwapRun{}.All()[i]] = run
		}
		account.Findings = seen("rushes_in_and_out", "stops_and_rests_beside")
		a = about(a, account)
		a.Findings = seen("starts_strong", "person_anxious", "pressure_off_stays")
		return a
	}
	s.days, s.notes = []int{51, 49, 47, 45, 43, 41, 39, 36, 16}, []string{"quiet to the end", "stood well", "light both ways", "soft, and stopped there", "through the dip", "a sigh", "good on a windy day", "curious", "had lost some of it over the break; stopped on one good one"}
	s.seed, s.quick, s.forget, s.way, s.fright = 23, 0.55, 0.17, "rushed through", 0
	s.lost, s.built = 9, true
	s.rehearsed, s.practised, s.sent = nil, nil, false
	return s
}

func run(level int, answer string) assess.Run {
	r := assess.Run{Level: horse.LevelOf(level)}
	read(&r.Grade, answer)
	return r
}

// course is a belly half way through a treatment of 28 days, checked twice.
func course(f *filler) assess.BodyNote {
	n := assess.BodyNote{State: horse.InTreatment, Note: "ulcers, treated by the vet", Begun: f.day(19), Days: number(28), Checks: map[string]assess.Pressed{}}
	for id, c := range map[string]struct {
		ago    int
		side   horse.Side
		answer string
	}{"a": {19, horse.Near, "tightens"}, "b": {19, horse.Off, "kicks"}, "c": {5, horse.Near, "nothing"}, "d": {5, horse.Off, "ticklish"}} {
		check := assess.Pressed{On: f.day(c.ago), Side: c.side}
		read(&check.Answer, c.answer)
		n.Checks[id] = check
	}
	return n
}

// button has a hind leg that nobody has seen yet.
func button() story {
	s := moth()
	s.name, s.takenOn, s.neededIn = "Button", 12, 0
	s.owner = store.Person{Kind: "rescue", Name: "Millrace Horse Rescue", Phone: "01632 960155", Note: "Ask for the yard manager."}
	s.goal = "Loads for any handler of the rescue, for the vet and for rehoming"
	s.record = func(f *filler) assess.Record {
		r := record(f, "mare", 14, 1320, "moorland pony")
		read(&r.RiddenPast, "unknown")
		r.Rides = nil
		return r
	}
	s.assessed = func(f *filler) assess.Assessment {
		a := assess.Assessment{Body: bodyOf("suspect", "hind leg"), Findings: seen("curious")}
		delete(a.Body, horse.Mouth)
		delete(a.Body, horse.Eyes)
		a.Body[horse.HindLeg] = assess.BodyNote{State: horse.Suspect, Note: "near hind caught twice as she turned", Since: f.day(s.takenOn)}
		return about(a, assess.Account{Story: assess.Story{
			Helpers: number(3), Where: "at the rescue's gate", Description: "Past unknown. Goes as far as the ramp and stands.",
		}})
	}
	s.rehearsed, s.practised, s.sent = nil, nil, false
	s.days, s.notes = []int{10, 4}, []string{"forward and halt quite willing; no backing", "head down at a touch"}
	s.seed, s.quick, s.forget, s.fright = 5, 0.34, 0.05, 0
	return s
}

// pepper was taken on yesterday.
func pepper() story {
	return story{
		name: "Pepperdine", yard: "Lower Fallow Farm", takenOn: 1, neededIn: 75,
		owner:  store.Person{Kind: "owner", Name: "Sorrel Adeyemi-Wright", Phone: "01632 960190"},
		goal:   "Goes in within five minutes for Sorrel, at home and away",
		record: func(f *filler) assess.Record { return record(f, "gelding", 12, 1570, "trotter cross") },
	}
}

// teasel is finished.
func teasel() story {
	s := moth()
	s.name, s.yard, s.takenOn, s.neededIn = "Teasel", "Lower Fallow Farm", 96, 0
	s.owner = store.Person{Kind: "owner", Name: "Hattie Lumb", Phone: "01632 960129"}
	s.goal = "Loads, travels and unloads for Hattie alone in under three minutes"
	s.record = func(f *filler) assess.Record { return record(f, "gelding", 8, 1480, "native pony") }
	assessed := s.assessed
	s.assessed = func(f *filler) assess.Assessment {
		a := assessed(f)
		return about(a, a.Problems[horse.Loading])
	}
	s.rehearsed, s.days, s.practised, s.sent = nil, nil, nil, false
	for ago := 93; ago > 20; ago -= 3 {
		s.days = append(s.days, ago)
	}
	s.reps, s.finishes = 0, true
	s.notes = []string{"ended on a sigh", "a good one, and stopped there", "stood by choice", "light on both sides"}
	s.seed, s.quick, s.heavy, s.forget, s.fright = 3, 0.62, 4, 0.01, 0
	return s
}
