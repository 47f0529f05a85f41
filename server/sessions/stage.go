package sessions

import (
	"context"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/casefile"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
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
	Contacts    []cases.Contact       `json:"contacts" doc:"whom to call; kept on the device"`
	Address     string                `json:"address" doc:"the yard's"`
	Arousals    []phrase.Message      `json:"arousals" doc:"the words for arousal 0 to 4"`
	Feels       []phrase.Message      `json:"feels" doc:"one word for each level 0 to 10"`
	WaysOut     []WayOut              `json:"ways_out"`
	Signs       []SignOf              `json:"signs"`
	Stops       []horse.Stop          `json:"stops" doc:"reasons that end a session"`
	NotBegun    []horse.Stop          `json:"not_begun" doc:"those of them that can be seen at the gate"`
	Planned     int64                 `json:"planned,omitempty" doc:"a plan made since, which the session is not worked by yet, ms"`
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

// stageOf is the stage of a session: what stood before it, by the plan that it is
// worked by. That is the one it began with, until a later one was taken up.
func (s *Service) stageOf(ctx context.Context, c api.Caller, n store.Session, entries []store.Kept) (Stage, error) {
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
	by := n.StartedAt
	for _, e := range track.Live(store.Entries(entries)) {
		if e.Mark != nil {
			by = max(by, e.Mark.Plan)
		}
	}
	before, err := s.Judge(n.Date, r.AsOf(by), r.History)
	if err != nil {
		return Stage{}, err
	}
	view, err := s.stage(ctx, c, r, before)
	if planned := r.Planned(); planned > by {
		view.Planned = planned
	}
	return view, err
}

// stage lays out the arena of a case as its file tells it.
func (s *Service) stage(ctx context.Context, c api.Caller, r cases.Reading, f *casefile.File) (Stage, error) {
	view := Stage{
		CaseID: r.Case.ID, Horse: cases.RefOf(r.Horse), Yard: r.Horse.Yard.Name, Owners: cases.Owners(r.Horse, f), Care: f.Risk.Care,
		Precautions: f.Result.Precautions, Address: r.Horse.Yard.Address,
		Arousals: cases.Arousals(), Feels: cases.Feels(), Signs: []SignOf{}, Stops: horse.Stop{}.All(), Brief: f.Brief(), Catalog: r.Catalog().Version,
	}
	for _, w := range (horse.WayOut{}).All() {
		view.WaysOut = append(view.WaysOut, WayOut{Word: w, Danger: horse.Dangerous(w)})
	}
	for _, s := range (horse.Sign{}).All() {
		view.Signs = append(view.Signs, SignOf{Word: s, Kind: horse.SignKind(s)})
	}
	ridden, mounts := false, false
	for _, item := range f.Plan().Items {
		ridden, mounts = ridden || item.Ridden, mounts || item.Ridden && item.Blocked == nil
	}
	if !ridden {
		view.Stops = slices.DeleteFunc(view.Stops, horse.AtTheBlock)
	}
	view.NotBegun = slices.DeleteFunc(slices.Clone(view.Stops), func(s horse.Stop) bool {
		return !horse.BeforeWork(s) || horse.AtTheBlock(s) && !mounts
	})
	var err error
	view.Contacts, err = s.Contacts(ctx, c, r)
	return view, err
}
