package catalog

import (
	"slices"

	"ivorybridge/core/horse"
)

type roles struct{}

func (roles) Words() []string {
	return []string{
		"refocuses", "backs", "owner alone", "control in hand", "first touch", "before mounting", "touched all over", "weight on its back", "stood for seconds",
		"stands by choice", "lets down", "passes spots", "a review", "walked home", "calm at each stop", "in four beats",
	}
}

// Role is what a step is to the rules, so that none of them knows its key.
type Role = horse.Word[roles]

// The roles of steps.
var (
	Refocuses      = horse.MustWord[roles]("refocuses")          // asked before all else where the horse did not notice (rule 5)
	Backs          = horse.MustWord[roles]("backs")              // a hind leg that snatches or locks limits it (part 9)
	OwnerAlone     = horse.MustWord[roles]("owner alone")        // once met, bars may be closed by one person (part 9)
	ControlInHand  = horse.MustWord[roles]("control in hand")    // a young horse has it before it is ridden all the same (part 9)
	FirstTouch     = horse.MustWord[roles]("first touch")        // where a horse begins that can't be caught or haltered (part 3)
	BeforeMounting = horse.MustWord[roles]("before mounting")    // added where it steps out of the touch of zone 3 (part 3)
	TouchedAllOver = horse.MustWord[roles]("touched all over")   // what a missing touch of the assessment asks for (part 3)
	StoodFor       = horse.MustWord[roles]("stood for seconds")  // the assessment counts the seconds (part 3)
	StandsByChoice = horse.MustWord[roles]("stands by choice")   // no bar is shut and nothing tied before it is met (part 6)
	LetsDown       = horse.MustWord[roles]("lets down")          // the seconds from the release to the let-down are counted (parts 5, 8)
	PassesSpots    = horse.MustWord[roles]("passes spots")       // named places are passed, in both directions (part 5)
	AReview        = horse.MustWord[roles]("a review")           // tack and aids are looked over, one change at a time (part 5)
	WalkedHome     = horse.MustWord[roles]("walked home")        // an outing is an answer to it (parts 5, 7)
	CalmStops      = horse.MustWord[roles]("calm at each stop")  // and was at most attentive at every stop (part 5)
	FourBeats      = horse.MustWord[roles]("in four beats")      // met once the footfall was timed as an even walk (parts 3, 5)
	BearsWeight    = horse.MustWord[roles]("weight on its back") // not of a horse in hand only (part 9)
)

// Is reports whether the step has a role.
func (s Step) Is(r Role) bool { return slices.Contains(s.Roles, r) }

// With lists the steps that have a role, in the catalogue's order.
func (c *Catalog) With(r Role) []Step {
	var steps []Step
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Is(r) {
				steps = append(steps, s)
			}
		}
	}
	return steps
}

// ShownBy lists the steps that a look of the assessment shows: the one of its
// name, or those that say so (part 3).
func (c *Catalog) ShownBy(look string) []Step {
	var steps []Step
	for _, l := range c.Ladders {
		for _, s := range l.Steps {
			if s.Key == look || s.SeenIn == look {
				steps = append(steps, s)
			}
		}
	}
	return steps
}

// inherits gives an own ladder, as a copy, what is not the practice's to change:
// what its place brings, and the roles of its steps. A step added where every
// shipped one puts weight on the back does so too.
func (l Ladder) inherits(shipped Ladder) Ladder {
	l.AtTrailer, l.Bumps, l.Rate = shipped.AtTrailer, shipped.Bumps, shipped.Rate
	added := shipped.everyStep()
	l.Steps = slices.Clone(l.Steps)
	for i, s := range l.Steps {
		l.Steps[i].Roles = added
		if at := slices.IndexFunc(shipped.Steps, func(x Step) bool { return x.Key == s.Key }); at >= 0 {
			was := shipped.Steps[at]
			l.Steps[i].Roles, l.Steps[i].SeenIn, l.Steps[i].Away = was.Roles, was.SeenIn, was.Away
		}
	}
	return l
}

// everyStep lists the roles that each step of the ladder has.
func (l Ladder) everyStep() []Role {
	var roles []Role
	for _, r := range (Role{}).All() {
		if !slices.ContainsFunc(l.Steps, func(s Step) bool { return !s.Is(r) }) {
			roles = append(roles, r)
		}
	}
	return roles
}
