package sessions

import (
	"context"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Stage is what the arena shows of a case before a session: the same for all
// its sessions of a day, and enough to begin one without a signal.
type Stage struct {
	CaseID      string                `json:"case_id"`
	Horse       cases.HorseRef        `json:"horse"`
	Yard        string                `json:"yard"`
	Owners      []cases.HandlerChoice `json:"owners" doc:"those who may hold the rope"`
	Care        horse.Care            `json:"care"`
	Precautions []phrase.Message      `json:"precautions"`
	Cards       []Card                `json:"cards" doc:"the steps that may be asked"`
	Asks        []AskChoice           `json:"asks"`
	Contacts    []cases.Contact       `json:"contacts" doc:"whom to call; kept on the device"`
	Address     string                `json:"address" doc:"the yard's"`
	Arousals    []phrase.Message      `json:"arousals" doc:"the words for arousal 0 to 4"`
	Feels       []phrase.Message      `json:"feels" doc:"one word for each level 0 to 10"`
	WaysOut     []WayOut              `json:"ways_out"`
	Signs       []SignOf              `json:"signs"`
	Stops       []horse.Stop          `json:"stops" doc:"reasons that end a session"`
	NotBegun    []horse.Stop          `json:"not_begun" doc:"those of them that can be seen at the gate"`
	Brief       arena.Brief           `json:"brief" doc:"what the rules need to know"`
	Catalog     string                `json:"catalog" doc:"version of the shipped catalogue that it was read with"`
}

// WayOut is a way out as a chip.
type WayOut struct {
	Word   horse.WayOut `json:"word"`
	Danger bool         `json:"danger"`
}

// SignOf is a sign as a chip, with its kind.
type SignOf struct {
	Word horse.Sign `json:"word"`
	Kind string     `json:"kind" enum:"soft,afraid,warning,tense or curious"`
}

// Card is a step as the arena shows it.
type Card struct {
	Key        string            `json:"key"`
	Name       string            `json:"name"`
	Ladder     phrase.Slotted    `json:"ladder"`
	School     horse.School      `json:"school" doc:"in which it is advised"`
	Works      phrase.Slotted    `json:"works" doc:"how that school works"`
	Places     []arena.PlaceToBe `json:"places" doc:"where spells are, for a school of places"`
	Pad        arena.Pad         `json:"pad" doc:"what it is answered by, unless another is chosen"`
	Foundation bool              `json:"foundation"`
	Ridden     bool              `json:"ridden"`
	Trailer    bool              `json:"trailer" doc:"a bar is closed or it is tied there: the sequence card goes along"`
	Ask        phrase.Slotted    `json:"ask"`
	Release    phrase.Slotted    `json:"release"`
	Watch      phrase.Slotted    `json:"watch"`
	Pass       string            `json:"pass" doc:"the pass mark in words"`
	Measures   []catalog.Measure `json:"measures"`
	Unit       string            `json:"unit"`
	Values     []int             `json:"values"`
	Variants   []CardVariant     `json:"variants"`
	Means      []string          `json:"means" doc:"aids that escalate inside one ask"`
	Ways       []horse.WayOut    `json:"ways_out" doc:"usual on its ladder: they stand first"`
	Bumps      bool              `json:"bumps" doc:"a knock of the bit on the teeth is logged there"`
}

// CardVariant is one way a step is asked.
type CardVariant struct {
	Variant horse.Variant  `json:"variant"`
	Side    horse.Side     `json:"side,omitzero"`
	Name    phrase.Message `json:"name"`
}

// stageOf is the stage of a session: what stood before it.
func (s *Service) stageOf(ctx context.Context, c api.Caller, n store.Session) (Stage, error) {
	kase, err := c.View.Case(ctx, c.Practice, n.CaseID)
	if err != nil {
		return Stage{}, err
	}
	h, err := c.View.Horse(ctx, c.Practice, kase.HorseID)
	if err != nil {
		return Stage{}, err
	}
	r, err := s.Gather(ctx, c, h, kase)
	if err != nil {
		return Stage{}, err
	}
	if r.History, r.Unread, err = s.Past(ctx, c, h.ID, r.Beside(), &n); err != nil {
		return Stage{}, err
	}
	before, err := s.Judge(n.Date, r.AsOf(n.StartedAt), r.History)
	if err != nil {
		return Stage{}, err
	}
	return s.stage(ctx, c, r, before)
}

// stage lays out the arena of a case as its file tells it.
func (s *Service) stage(ctx context.Context, c api.Caller, r cases.Reading, f *casefile.File) (Stage, error) {
	view := Stage{
		CaseID: r.Case.ID, Horse: cases.RefOf(r.Horse), Yard: r.Horse.Yard.Name, Owners: cases.Owners(r.Horse, f), Care: f.Risk.Care,
		Precautions: f.Result.Precautions, Asks: askChoices(f), Cards: []Card{}, Address: r.Horse.Yard.Address,
		Arousals: cases.Arousals(), Feels: cases.Feels(), Signs: []SignOf{}, Stops: horse.Stop{}.All(), Brief: f.Brief(), Catalog: s.Catalog.Version,
	}
	for _, w := range (horse.WayOut{}).All() {
		view.WaysOut = append(view.WaysOut, WayOut{Word: w, Danger: horse.Dangerous(w)})
	}
	for _, s := range (horse.Sign{}).All() {
		view.Signs = append(view.Signs, SignOf{Word: s, Kind: horse.SignKind(s)})
	}
	schools := f.Schools()
	for _, ch := range view.Asks {
		view.Cards = append(view.Cards, card(f.Catalog, schools, ch.Ask.Step))
	}
	if !slices.ContainsFunc(view.Cards, func(c Card) bool { return c.Ridden }) {
		view.Stops = slices.DeleteFunc(view.Stops, horse.AtTheBlock)
	}
	mounts := false
	for i, card := range view.Cards {
		mounts = mounts || card.Ridden && view.Asks[i].Blocked == nil
	}
	view.NotBegun = slices.DeleteFunc(slices.Clone(view.Stops), func(s horse.Stop) bool {
		return !horse.BeforeWork(s) || horse.AtTheBlock(s) && !mounts
	})
	var err error
	view.Contacts, err = s.Contacts(ctx, c, r)
	return view, err
}

func card(c *catalog.Catalog, schools map[string]horse.School, key string) Card {
	step, _ := c.Step(key)
	ladder, _ := c.Ladder(step.Ladder)
	school := schools[step.Ladder]
	method, _ := c.Methods.Method(school)
	card := Card{
		Key: key, Name: step.Name, Ladder: ladder.Name, School: school, Works: method.Works, Foundation: ladder.Kind == catalog.Foundation, Ridden: step.Ridden, Trailer: step.Bars || step.Trailer && step.Tied, Ask: step.Ask,
		Release: step.Release, Watch: step.Watch, Pass: step.Pass.Text, Measures: step.Measures, Unit: step.Pass.Unit,
		Values: append([]int{}, step.Pass.Values...), Variants: []CardVariant{}, Means: append([]string{}, step.Means...), Ways: append([]horse.WayOut{}, ladder.Ways...), Bumps: ladder.Bumps,
	}
	if school == horse.ReliefPlace {
		card.Places = arena.PlacesOf(c, ladder)
	}
	card.Pad = arena.PadOf(school, len(card.Places) > 0)
	for _, v := range step.Variants {
		card.Variants = append(card.Variants, CardVariant{Variant: v, Side: v.Side, Name: phrase.Of("variant", phrase.Args{"words": phrase.Sided(v.String())})})
	}
	return card
}
