package owners

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

type practisedInput struct {
	Body struct {
		Horse string         `json:"horse" format:"uuid"`
		Logs  []homework.Log `json:"logs" minItems:"1" maxItems:"50"`
	}
}

// Kept says of each log that was sent whether it is kept, and how the horse's page
// stands now.
type Kept struct {
	Logs []KeptLog `json:"logs"`
	Page HorsePage `json:"page"`
}

// KeptLog is one log that was sent.
type KeptLog struct {
	ID    string             `json:"id"`
	Kept  bool               `json:"kept"`
	Say   string             `json:"say,omitempty" doc:"why it is not kept, and what to do"`
	Wrong []api.FieldProblem `json:"wrong,omitempty"`
}

type resumeInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		Log    string `json:"log" format:"uuid"`
		Reason string `json:"reason" minLength:"1" maxLength:"500"`
	}
}

// AtHome is what owners practised with a horse, for the trainer.
type AtHome struct {
	Horse cases.HorseRef  `json:"horse"`
	Days  []HomeDay       `json:"days" doc:"the newest first"`
	Stops []homework.Stop `json:"stops" doc:"open ones"`
	Set   []plan.Homework `json:"set" doc:"what may be practised now, by whom"`
	Says  phrase.Message  `json:"says" doc:"how much was practised"`
}

// HomeDay is one log with its words.
type HomeDay struct {
	homework.Log
	Who      string         `json:"who"`
	Name     phrase.Slotted `json:"name" doc:"of the step"`
	Mood     string         `json:"mood,omitempty"`
	Received int64          `json:"received" doc:"when it arrived, ms"`
	Put      bool           `json:"put_right,omitempty" doc:"a later one stands in its place"`
	Stopped  bool           `json:"stopped,omitempty" doc:"it stopped practice of the step, and still does"`
	Resumed  string         `json:"resumed,omitempty" doc:"why practice goes on in spite of it"`
	By       string         `json:"resumed_by,omitempty"`
}

func (s *Service) practiceOperations() {
	api.Operation(s.API, api.OwnersSide, http.MethodPost, "/api/owner/practised", "practise", "Write down practice at home", s.practise)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/practised", "practised", "What owners practised with a horse", api.AtOnce(s.practised))
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/horses/{id}/practised/resume", "resumeHomework", "Let homework go on that a log has stopped", s.resume)
}

// practise keeps each log that can be; one that can't takes no other down.
func (s *Service) practise(ctx context.Context, c api.Caller, in *practisedInput) (Kept, error) {
	var kept Kept
	person := c.Linked.Person
	ids, err := c.View.HorsesOf(ctx, c.Practice, person)
	if err != nil {
		return kept, err
	}
	if person == "" || !slices.Contains(ids, in.Body.Horse) {
		return kept, api.NewProblem(http.StatusNotFound, "This link does not open that horse. Ring your trainer.")
	}
	r, err := s.Newest(ctx, c, in.Body.Horse)
	if err != nil {
		return kept, err
	}
	for _, l := range in.Body.Logs {
		l.Person, l.Note = person, strings.TrimSpace(l.Note)
		one := KeptLog{ID: l.ID, Wrong: s.wrong(c, r, l)}
		if len(one.Wrong) > 0 {
			one.Say = one.Wrong[0].Say
			kept.Logs = append(kept.Logs, one)
			continue
		}
		err := s.Store.AddPractised(ctx, c.Practice, store.Practised{Log: l, HorseID: in.Body.Horse, Received: c.Now.UnixMilli()})
		if err != nil && !errors.Is(err, store.ErrTaken) {
			return kept, err
		}
		if one.Kept = err == nil; !one.Kept {
			one.Say = "This was kept already, with other words. Reload the page to see it; put it right there."
		}
		kept.Logs = append(kept.Logs, one)
	}
	err = c.AtOneMoment(ctx, func(c api.Caller) (err error) {
		kept.Page, err = s.horsePage(ctx, c, in.Body.Horse, person)
		return err
	})
	return kept, err
}

// wrong lists what can't be in a log.
func (s *Service) wrong(c api.Caller, r cases.Reading, l homework.Log) []api.FieldProblem {
	wrong := api.Faults("", l.Check(c.Today(), c.Now))
	if len(l.ID) != 36 {
		wrong = append(wrong, api.FieldProblem{Field: "id", Say: "This was not written on the page of this link. Reload it and write it again."})
	}
	if !homework.May(r.File.Cleared(), l.Person, l.Step, l.On) {
		wrong = append(wrong, api.FieldProblem{Field: "step", Say: "You are not cleared to practise this step. Leave it alone, and tell your trainer what you did."})
	}
	if l.Replaces == "" {
		return wrong
	}
	i := slices.IndexFunc(r.Practised, func(p store.Practised) bool { return p.ID == l.Replaces })
	if i < 0 || r.Practised[i].Person != l.Person || r.Practised[i].Step != l.Step {
		return append(wrong, api.FieldProblem{Field: "replaces", Say: "There is no such practice of yours to put right. Write it down as a new one."})
	}
	if earlier := r.Practised[i]; earlier.On != l.On || s.dayOf(c, l.At) != l.On {
		return append(wrong, api.FieldProblem{Field: "replaces", Say: "That could be put right until midnight of its day. Tell your trainer instead."})
	}
	return wrong
}

// dayOf is the practice's date at an instant, YYYY-MM-DD.
func (s *Service) dayOf(c api.Caller, at int64) string {
	c.Now = time.UnixMilli(at)
	return c.Today()
}

func (s *Service) practised(ctx context.Context, c api.Caller, in *api.ByID) (AtHome, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return AtHome{}, err
	}
	view := AtHome{Horse: cases.RefOf(r.Horse), Days: []HomeDay{}, Stops: r.File.Home.Stops, Set: r.File.Plan().Homework}
	if view.Stops == nil {
		view.Stops = []homework.Stop{}
	}
	people, err := c.View.People(ctx, c.Practice)
	if err != nil {
		return AtHome{}, err
	}
	names, replaced := map[string]string{}, map[string]bool{}
	for _, p := range people {
		names[p.ID] = p.Name
	}
	for _, p := range r.Practised {
		if p.Replaces != "" {
			replaced[p.Replaces] = true
		}
	}
	minutes := 0
	for _, p := range slices.Backward(r.Practised) {
		step, _ := r.File.Catalog.Step(p.Step)
		day := HomeDay{Log: p.Log, Who: names[p.Person], Name: step.Plain, Received: p.Received, Put: replaced[p.ID]}
		if p.Done && !p.Broken {
			day.Mood = c.Book.Say(phrase.Of("arousal."+p.Arousal.String(), nil))
		}
		day.Stopped = slices.ContainsFunc(r.File.Home.Stops, func(s homework.Stop) bool { return s.Log == p.ID })
		if i := slices.IndexFunc(r.Resumed, func(x store.Resumed) bool { return x.Log == p.ID }); i >= 0 {
			day.Resumed, day.By = r.Resumed[i].Reason, r.Resumed[i].By
		}
		if days, ok := horse.DaysBetween(p.On, c.Today()); ok && days < 7 && p.Done && !day.Put {
			minutes += p.Minutes
		}
		view.Days = append(view.Days, day)
	}
	key := "home.practised"
	switch {
	case len(view.Days) == 0 && len(view.Set) == 0:
		key = "home.nothing_set"
	case len(view.Days) == 0:
		key = "home.not_yet"
	case minutes == 0:
		key = "home.not_this_week"
	}
	view.Says = phrase.Of(key, phrase.Args{"n": minutes, "on": phrase.Date(r.File.Home.Last())})
	return view, nil
}

func (s *Service) resume(ctx context.Context, c api.Caller, in *resumeInput) (AtHome, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return AtHome{}, err
	}
	reason := strings.TrimSpace(in.Body.Reason)
	if reason == "" {
		return AtHome{}, api.Faulty(api.FieldProblem{Field: "reason", Say: "Say why practice may go on. It stays on record."})
	}
	if !slices.ContainsFunc(r.Practised, func(p store.Practised) bool { return p.ID == in.Body.Log }) {
		return AtHome{}, store.ErrNotFound
	}
	if err := s.Store.Resume(ctx, c.Actor(), r.Horse.ID, homework.Resumed{Log: in.Body.Log, Reason: reason}); err != nil {
		return AtHome{}, err
	}
	return s.practised(ctx, c, &api.ByID{ID: in.ID})
}
