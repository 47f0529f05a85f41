package arena

import (
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Card is a step as the arena shows it: what is asked, what earns the release,
// what to mind, and by what it is answered.
type Card struct {
	Key        string            `json:"key"`
	Name       string            `json:"name"`
	Ladder     phrase.Slotted    `json:"ladder"`
	School     horse.School      `json:"school" doc:"in which it is advised"`
	Works      phrase.Slotted    `json:"works" doc:"how that school works"`
	Schools    []horse.School    `json:"schools" doc:"those that its ladder can be worked in, the usual one first"`
	Places     []PlaceToBe       `json:"places" doc:"where spells are, for a school of places"`
	Pad        Pad               `json:"pad" doc:"what it is answered by, unless another is chosen"`
	Foundation bool              `json:"foundation"`
	Ridden     bool              `json:"ridden"`
	Trailer    bool              `json:"trailer" doc:"a bar is closed or it is tied there: the sequence card goes along"`
	Ask        phrase.Slotted    `json:"ask"`
	Release    phrase.Slotted    `json:"release"`
	Watch      phrase.Slotted    `json:"watch"`
	Pass       phrase.Slotted    `json:"pass" doc:"the pass mark in words"`
	Measures   []catalog.Measure `json:"measures"`
	Unit       string            `json:"unit"`
	Values     []int             `json:"values"`
	Variants   []CardVariant     `json:"variants"`
	Means      []string          `json:"means" doc:"aids that escalate inside one ask"`
	Ways       []horse.WayOut    `json:"ways_out" doc:"usual on its ladder: they stand first"`
	Spots      bool              `json:"spots" doc:"named places are passed, in both directions"`
	Beats      bool              `json:"beats" doc:"it is met once its hooves were timed as an even walk"`
	AboutThing bool              `json:"about_thing" doc:"it is asked with a thing that has a name"`
	Bumps      bool              `json:"bumps" doc:"a knock of the bit on the teeth is logged there"`
}

// CardVariant is one way a step is asked.
type CardVariant struct {
	Variant horse.Variant  `json:"variant"`
	Side    horse.Side     `json:"side,omitzero"`
	Name    phrase.Message `json:"name"`
}

// CardOf is the card of a step, for a school.
func CardOf(c *catalog.Catalog, step catalog.Step, school horse.School) Card {
	ladder, _ := c.Ladder(step.Ladder)
	method, _ := c.Methods.Method(school)
	card := Card{
		Key: step.Key, Name: step.Name, Ladder: ladder.Name, School: school, Works: method.Works, Foundation: ladder.Kind == catalog.Foundation,
		Ridden: step.Ridden, Trailer: step.Bars || step.Trailer && step.Tied, Ask: step.Ask, Release: step.Release, Watch: step.Watch,
		Pass: step.Pass.Text, Measures: step.Measures, Unit: step.Pass.Unit, Values: append([]int{}, step.Pass.Values...),
		Schools: append([]horse.School{}, ladder.Schools...), Places: []PlaceToBe{}, Variants: []CardVariant{}, Means: append([]string{}, step.Means...), Ways: append([]horse.WayOut{}, ladder.Ways...), Bumps: ladder.Bumps, Spots: step.Is(catalog.PassesSpots), Beats: step.Is(catalog.FourBeats), AboutThing: ladder.AboutThing,
	}
	if school == horse.ReliefPlace {
		card.Places = PlacesOf(c, ladder)
	}
	card.Pad = PadOf(step, school, len(card.Places) > 0)
	for _, v := range step.Variants {
		card.Variants = append(card.Variants, CardVariant{Variant: v, Side: v.Side, Name: phrase.Of("variant", phrase.Args{"words": phrase.Sided(v.String())})})
	}
	return card
}

type groups struct{}

func (groups) Words() []string {
	return []string{"this horse's", "its own asks", "foundations", "all others"}
}

// Group is where a choice stands in the picker.
type Group = horse.Word[groups]

// The groups, in their order.
var (
	OfTheHorse    = horse.MustWord[groups]("this horse's")
	ItsOwn        = horse.MustWord[groups]("its own asks")
	OfFoundations = horse.MustWord[groups]("foundations")
	AllOthers     = horse.MustWord[groups]("all others")
)

// A Choice is an ask that can be chosen by hand: any of the catalogue, with what
// stands against it now.
type Choice struct {
	Ask     horse.Ask       `json:"ask"`
	Name    string          `json:"name"`
	Ladder  phrase.Slotted  `json:"ladder"`
	Group   Group           `json:"group"`
	State   horse.StepState `json:"state"`
	Says    phrase.Message  `json:"says" doc:"how far it has come, and where that is known from"`
	Against *Against        `json:"against,omitempty" doc:"absent: nothing stands against it"`
	Easy    bool            `json:"easy,omitempty" doc:"met and light: good to finish on"`
}

// Choices lists every ask that can be chosen now, those of the horse's ladders
// first, then the foundations, then all others (part 6, "Any ask can be logged").
func (r *Running) Choices(ladders []string) []Choice { return r.now.s.choices(ladders) }

// Cards are the cards of all steps, in the catalogue's order.
func (r *Running) Cards() []Card {
	cards := []Card{}
	for _, l := range r.cat.Ladders {
		for _, step := range l.Steps {
			if step.Link == "" {
				cards = append(cards, CardOf(r.cat, step, r.now.s.schoolOf(l.Key)))
			}
		}
	}
	return cards
}

func (s *session) choices(ladders []string) []Choice {
	list := []Choice{}
	for _, l := range s.cat.Ladders {
		group := AllOthers
		switch {
		case l.Key == catalog.OwnLadder:
			group = ItsOwn
		case l.Kind == catalog.Foundation:
			group = OfFoundations
		case slices.Contains(ladders, l.Key):
			group = OfTheHorse
		}
		for _, step := range l.Steps {
			if step.Link != "" {
				continue
			}
			a := s.mostUseful(step)
			k := StepKnown(step, func(a horse.Ask) Known { return s.knownNow(a) })
			list = append(list, Choice{
				Ask: a, Name: step.Name, Ladder: l.Name, Group: group, State: k.State, Says: k.Says(), Against: s.against(a),
				Easy: l.Kind == catalog.Foundation && !s.shut(step.Key) && s.passedAsk(a, easyLevel),
			})
		}
	}
	slices.SortStableFunc(list, func(a, b Choice) int { return a.Group.Rank() - b.Group.Rank() })
	return list
}

// mostUseful is the ask of a step that is chosen with it: the first that is not
// passed and waits for nothing, else the first that is not passed, else the first.
func (s *session) mostUseful(step catalog.Step) horse.Ask {
	best := step.Asks()[0]
	found := false
	for _, a := range step.Asks() {
		if s.passedAsk(a, 0) {
			continue
		}
		if s.against(a) == nil {
			return a
		}
		if !found {
			best, found = a, true
		}
	}
	return best
}

// knownNow is what is known of an ask, with today's work.
func (s *session) knownNow(a horse.Ask) Known {
	k := s.known[a]
	k.Ask = a
	if k.State.IsZero() {
		k.State = horse.Untried
	}
	worked := len(s.repsOf(a)) > 0
	if _, today := s.passed[a]; today && !k.Passed() {
		k.State, k.Source = horse.Met, horse.Source{}
	} else if worked && k.State == horse.Untried {
		k.State, k.Source = horse.Tried, horse.Source{}
	}
	k.Concluded = !worked && (k.Concluded || s.concluded[a])
	return k
}

func (s *session) schoolOf(ladder string) horse.School {
	if chosen, ok := s.worked[ladder]; ok {
		return chosen
	}
	school, ok := s.in.Schools[ladder]
	if !ok {
		school = s.in.School
	}
	if _, ok := columnOf(school); !ok {
		return horse.BuildAndRelease
	}
	return school
}
