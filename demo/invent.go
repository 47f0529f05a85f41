package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/clearance"
	"ivorybridge/core/horse"
	"ivorybridge/core/plan"
	"ivorybridge/store"
)

// Size is how large an invented practice is, and the seed it is made from: the
// same size and moment give the same practice.
type Size struct {
	Horses   int
	Sessions int // of each horse
	Entries  int // of each session, about
	Seed     uint64
}

// Invent makes a practice of any size in an empty database: horses with every
// problem and way of working, some untidy as life is. It is for benchmarks,
// training and support; unlike Fill's stories its sessions follow no advice.
func Invent(ctx context.Context, db *store.Store, c *catalog.Catalog, now time.Time, size Size) error {
	f := &filler{ctx: ctx, db: db, cat: c, now: now, yards: map[string]string{}, horses: map[string]string{}, ids: newSeeded(size.Seed)}
	f.actor = store.Actor{Practice: f.id(), User: f.id(), At: now.AddDate(0, 0, -3*size.Sessions-30).UnixMilli()}
	if err := f.people(); err != nil {
		return err
	}
	v := &inventor{filler: f, size: size, rand: rand.New(rand.NewPCG(size.Seed, 11))}
	for i := range size.Horses {
		if err := v.horse(i); err != nil {
			return fmt.Errorf("horse %d: %w", i+1, err)
		}
	}
	return nil
}

// inventor makes up horse after horse.
type inventor struct {
	*filler
	size  Size
	rand  *rand.Rand
	owner string // the newest; some own two horses

	// of the horse being made up
	kase, horseID string
	problem       horse.Problem
	ladder        catalog.Ladder
	own           *catalog.Ladder // in use since the middle of its sessions
	taken         int             // days ago
	know          map[horse.Ask]float64
}

func pick[T any](r *rand.Rand, list []T) T { return list[r.IntN(len(list))] }

// chance is true so many times in a hundred.
func (v *inventor) chance(percent int) bool { return v.rand.IntN(100) < percent }

var (
	firstNames = []string{"Copper", "Juniper", "Marl", "Saffron", "Wicket", "Barley", "Thistle", "Ember", "Fennel", "Quarry", "Linnet", "Sorrel"}
	lastNames  = []string{"Lantern", "Moth", "Tide", "Button", "Harrow", "Fable", "Pepper", "Larch", "Ribbon", "Cairn", "Willow", "Drum"}
	people     = []string{"Ines Calloway", "Tobin Marsh", "Della Rook", "Osric Penn", "Maude Tarrant", "Lio Fenwick", "Greta Holm", "Piers Alder"}
)

// problems are those that have a ladder, in their order.
func (v *inventor) problems() []horse.Problem {
	var list []horse.Problem
	for _, p := range (horse.Problem{}).All() {
		if _, ok := v.cat.LadderFor(p); ok {
			list = append(list, p)
		}
	}
	return list
}

func (v *inventor) horse(i int) error {
	problems := v.problems()
	v.problem = problems[i%len(problems)]
	v.ladder = pick(v.rand, v.cat.LaddersFor(v.problem))
	v.know, v.own = map[horse.Ask]float64{}, nil
	v.kase, v.horseID = v.id(), v.id()
	v.taken = 3*v.size.Sessions + 5 + v.rand.IntN(20)
	actor := v.at(v.taken)
	intake := store.Intake{
		Horse: store.Horse{
			ID: v.horseID, Name: pick(v.rand, firstNames) + " " + pick(v.rand, lastNames), Record: v.record(),
			YardID: v.yards[pick(v.rand, []string{"Tarn Side Livery", "Lower Fallow Farm"})],
		},
		Case: store.Case{ID: v.kase, Problem: v.problem.String(), Ladder: v.ladder.Key, Goal: "Quiet and safe with its owner alone", OpenedOn: v.day(v.taken)},
	}
	if v.owner == "" || !v.chance(20) {
		v.owner = v.id()
		intake.NewOwner = &store.Person{ID: v.owner, Kind: "owner", Name: pick(v.rand, people), Phone: fmt.Sprintf("01632 96%04d", v.rand.IntN(10_000))}
	} else {
		intake.OwnerID = v.owner
	}
	if v.chance(60) {
		intake.Case.NeededBy = v.day(-1 - v.rand.IntN(90))
	}
	if err := v.db.TakeOn(v.ctx, actor, intake); err != nil {
		return err
	}
	if v.chance(85) {
		if err := v.assess(v.taken - 1); err != nil {
			return err
		}
	}
	if err := v.plans(); err != nil {
		return err
	}
	if err := v.sessions(); err != nil {
		return err
	}
	return v.rehearse()
}

// at is the trainer so many days ago.
func (v *inventor) at(ago int) store.Actor {
	actor := v.actor
	actor.At = v.now.AddDate(0, 0, -ago).UnixMilli()
	return actor
}

func (v *inventor) record() assess.Record {
	r := record(v.filler, pick(v.rand, []string{"mare", "gelding", "stallion"}), 2+v.rand.IntN(18), 1300+v.rand.IntN(400), "cob cross")
	r.Rides = number(v.rand.IntN(40) * v.rand.IntN(10))
	read(&r.Energy, pick(v.rand, []string{"low", "usual", "high"}))
	r.GuardsItself, r.Unhandled, r.Gaited = v.chance(10), v.chance(8), v.chance(10)
	return r
}

// assess writes down what was found: of the horse's own problem, and in one of
// four of another one.
func (v *inventor) assess(ago int) error {
	a := assess.Assessment{
		Body: bodyOf("clear"), Problems: map[horse.Problem]assess.Account{v.problem: v.account(v.ladder)},
		Basics: map[string]assess.Basic{}, Handlers: map[string]assess.Handler{}, Findings: map[string]horse.Source{},
	}
	if v.chance(25) {
		other := pick(v.rand, v.problems())
		ladder, _ := v.cat.LadderFor(other)
		if _, there := a.Problems[other]; !there {
			a.Problems[other] = v.account(ladder)
		}
	}
	for _, item := range (horse.BodyItem{}).All() {
		if v.chance(12) {
			a.Body[item] = assess.BodyNote{State: pick(v.rand, []horse.BodyState{horse.Suspect, horse.Cleared})}
		} else if v.chance(15) {
			delete(a.Body, item)
		}
	}
	for _, key := range []string{"lead.forward", "lead.stand", "lead.back", "head.down", "lead.turn near", "lead.turn off"} {
		if v.chance(60) {
			a.Basics[key] = assess.Basic{Level: horse.LevelOf(1 + v.rand.IntN(8)), Grade: pick(v.rand, horse.Answer{}.All())}
		}
	}
	for _, f := range v.cat.Judging.Findings {
		if v.chance(7) {
			a.Findings[f.Key] = pick(v.rand, horse.Source{}.All())
		}
	}
	if v.chance(70) {
		a.Handlers["one"] = assess.Handler{Name: "the owner", Main: true, Experience: pick(v.rand, horse.Experience{}.All())}
	}
	a.NotYet = v.chance(4)
	return v.db.AddAssessment(v.ctx, v.at(ago), store.Assessment{ID: v.id(), HorseID: v.horseID, On: v.day(ago), Doc: a})
}

func (v *inventor) account(l catalog.Ladder) assess.Account {
	account := assess.Account{Story: assess.Story{
		Since: v.day(100 + v.rand.IntN(900)), Tries: number(4 + v.rand.IntN(9)), Successes: number(v.rand.IntN(4)), WhoAlone: "the owner",
		Description: "It went well once, and then it did not.",
	}}
	began(&account.Story, pick(v.rand, []string{"always", "gradually", "suddenly", "after an event"}), "put away")
	account.Baseline = assess.Baseline{Done: v.chance(80), Arousal: horse.ArousalOf(v.rand.IntN(4)), Minutes: number(5 + v.rand.IntN(30))}
	if v.chance(60) {
		account.Baseline.Reached = pick(v.rand, l.Steps).Key
	}
	if v.chance(50) {
		account.Baseline.WaysOut = []horse.WayOut{pick(v.rand, horse.WayOut{}.All())}
	}
	return account
}

// plans makes one to three plans over the sessions; every tenth horse is worked
// by the practice's own copy of its ladder, from the middle on.
func (v *inventor) plans() error {
	choices := plan.Choices{}
	for i, reason := range []string{"First plan after the assessment", "It goes better another way", "The owner has more time"} {
		if i > 0 && v.chance(50) {
			continue
		}
		ago := v.taken - 1 - i*v.taken/3
		if v.chance(40) {
			choices.Schools = map[string]horse.School{v.ladder.Key: pick(v.rand, v.ladder.Schools)}
		}
		if v.chance(30) {
			choices.PerWeek, choices.Homework = number(1+v.rand.IntN(4)), v.rand.IntN(5)
		}
		if i == 1 && v.chance(20) {
			used, err := v.ownLadder(ago)
			if err != nil {
				return err
			}
			choices.Own = map[string]plan.Used{v.ladder.Key: used}
		}
		p := store.Plan{School: horse.BuildAndRelease.String(), Reason: reason, Catalog: v.cat.Version, Choices: choices}
		if _, err := v.db.AddPlan(v.ctx, v.at(ago), v.kase, p); err != nil {
			return err
		}
	}
	return nil
}

// ownLadder is the ladder with another pass mark on one of its steps.
func (v *inventor) ownLadder(ago int) (plan.Used, error) {
	l := v.ladder
	l.Steps = append([]catalog.Step{}, l.Steps...)
	i := v.rand.IntN(len(l.Steps))
	if l.Steps[i].Link == "" {
		l.Steps[i].Pass.Run++
		l.Steps[i].Pass.Text = l.Steps[i].PassText()
	}
	id := v.id()
	l.Own = &catalog.Origin{ID: id, Version: 1, From: v.cat.Version}
	kept := store.Ladder{ID: id, Key: l.Key, Name: string(l.Name), Catalog: v.cat.Version, Doc: l, SavedBy: v.actor.User}
	v.own = &l
	return plan.Used{ID: id, Version: 1}, v.db.SaveLadder(v.ctx, v.at(ago), kept)
}

// rehearse writes down what some owners practised.
func (v *inventor) rehearse() error {
	for range v.rand.IntN(4) {
		step, _ := v.cat.Step(pick(v.rand, []string{"lead.forward", "lead.halt", "lead.stand", "head.down", "lead.back"}))
		r := clearance.Rehearsal{
			Person: v.owner, Step: step.Key, On: v.day(v.rand.IntN(v.taken)), Place: clearance.OnAPerson,
			Items: map[clearance.Item]clearance.Said{}, Tries: []clearance.Try{{Meant: horse.LevelOf(4), Felt: horse.LevelOf(1 + v.rand.IntN(4))}},
		}
		for _, item := range (clearance.Item{}).All() {
			r.Items[item] = clearance.Yes
		}
		if err := v.db.AddRehearsal(v.ctx, v.at(0), store.Rehearsal{ID: v.id(), HorseID: v.horseID, Doc: r}); err != nil {
			return err
		}
	}
	return nil
}
