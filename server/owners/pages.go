package owners

import (
	"context"
	"errors"
	"net/http"
	"slices"

	"ivorybridge/core/clearance"
	"ivorybridge/core/history"
	"ivorybridge/core/homework"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Pages are what a private link opens: nothing but the words, as they stand.
type Pages struct {
	Practice string          `json:"practice"`
	Phone    string          `json:"phone,omitempty" doc:"of the practice"`
	For      string          `json:"for,omitempty" doc:"whose horses they are"`
	Today    string          `json:"today" format:"date"`
	Until    int64           `json:"until,omitempty" doc:"when the link ends, ms"`
	Horses   []HorsePage     `json:"horses"`
	Visit    *Visit          `json:"visit,omitempty" doc:"of a link to one report, all it opens"`
	Choices  PracticeChoices `json:"choices" doc:"what practice is written down in"`
}

// PracticeChoices are the words of a practice at home, in their order.
type PracticeChoices struct {
	Faces   []FaceChoice     `json:"faces" doc:"how the horse was"`
	Answers []clearance.Said `json:"answers"`
	Feels   []homework.Feel  `json:"feels"`
	Ends    []homework.End   `json:"ends"`
	Usual   []int            `json:"minutes" doc:"usual times; the middle one is what most take"`
}

// FaceChoice is how a horse can be.
type FaceChoice struct {
	Arousal int    `json:"arousal"`
	Word    string `json:"word"`
	Stops   bool   `json:"stops,omitempty" doc:"practice of the step stops with it, and the trainer is told"`
}

// HorsePage is how one horse stands today, and what may be practised.
type HorsePage struct {
	ID       string             `json:"id"`
	Name     string             `json:"name"`
	She      string             `json:"she" doc:"he, she, or the name"`
	Parts    []Part             `json:"parts" doc:"how it stands: first what is forbidden, then the five answers"`
	Bridge   Bridge             `json:"bridge"`
	Goal     string             `json:"goal"`
	Tries    *Tries             `json:"tries,omitempty"`
	Time     *Time              `json:"time,omitempty"`
	Visit    *Visit             `json:"visit,omitempty" doc:"the newest one that was sent"`
	Card     *plan.HomeworkCard `json:"card,omitempty" doc:"absent: nobody on the owner's side is cleared for anything"`
	Logs     []OwnLog           `json:"logs" doc:"what this person wrote down in the last two weeks, the newest first"`
	Stops    []homework.Stop    `json:"stops" doc:"steps whose practice has stopped"`
	Contacts []cases.Contact    `json:"contacts"`
	Unread   string             `json:"unread,omitempty" doc:"this horse can't be shown now, and why"`
}

// OwnLog is what this person wrote down, with the name of its step.
type OwnLog struct {
	homework.Log
	Name phrase.Slotted `json:"name"`
}

// A Part of a page: a heading and its sentences, as they were worded.
type Part struct {
	Key   string     `json:"key"`
	Title string     `json:"title"`
	Says  []Sentence `json:"says"`
}

// A Sentence as it is read.
type Sentence struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// Bridge is a ladder in an owner's words.
type Bridge struct {
	Name   phrase.Slotted `json:"name"`
	Planks []Plank        `json:"planks"`
	Met    int            `json:"met"`
	Steps  int            `json:"steps"`
}

// Plank is a step in an owner's words.
type Plank struct {
	Name    phrase.Slotted  `json:"name"`
	State   horse.StepState `json:"state"`
	Blocked bool            `json:"blocked,omitempty"`
	Next    bool            `json:"next,omitempty"`
	Yours   bool            `json:"yours,omitempty" doc:"this person is cleared for it: yours to practise"`
}

// Tries are how often it went well before the work began, and in the newest visit.
type Tries struct {
	Before [2]int `json:"before" doc:"good ones, and all"`
	Now    [2]int `json:"now"`
	On     string `json:"on" format:"date" doc:"day of the newest visit"`
}

// Time is the time on the problem: then, and in the newest visit that reached the goal.
type Time struct {
	Says   string  `json:"says"`
	Before float64 `json:"before" doc:"seconds, on the first day"`
	Now    float64 `json:"now" doc:"seconds"`
	On     string  `json:"on" format:"date" doc:"day of that visit"`
}

// Visit is the page of one visit, as it was worded and sent.
type Visit struct {
	Horse   string   `json:"horse"`
	Date    string   `json:"date" format:"date"`
	By      string   `json:"by"`
	Parts   []Part   `json:"parts"`
	Figures []Figure `json:"figures"`
	Bridge  Bridge   `json:"bridge"`
}

// Figure is a number against the first day.
type Figure struct {
	Label  string `json:"label"`
	Before string `json:"before"`
	After  string `json:"after"`
	Means  string `json:"means"`
}

const logsShown = 14 // days

func (s *Service) pageOperations() {
	api.Operation(s.API, api.OwnersSide, http.MethodGet, "/api/owner", "ownerPages", "What a private link opens", s.pages)
}

func (s *Service) pages(ctx context.Context, c api.Caller, _ *struct{}) (Pages, error) {
	var pages Pages
	err := c.AtOneMoment(ctx, func(c api.Caller) (err error) {
		pages, err = s.pagesOf(ctx, c)
		return err
	})
	if err == nil && c.Linked.ID != "" {
		err = s.Store.CountOpened(ctx, c.Practice, c.Linked.ID, c.Now.UnixMilli())
	}
	return pages, err
}

func (s *Service) pagesOf(ctx context.Context, c api.Caller) (Pages, error) {
	pages := Pages{Practice: c.Home.Name, Phone: c.Home.Phone, Today: c.Today(), Until: c.Linked.Until, Horses: []HorsePage{}, Choices: choices(c.Book)}
	if c.Linked.Session != "" {
		visit, err := s.visit(ctx, c, c.Linked.Session, cases.Outside)
		pages.Visit = &visit
		return pages, err
	}
	person, err := c.View.Person(ctx, c.Practice, c.Linked.Person)
	if err != nil {
		return pages, err
	}
	pages.For = person.Name
	ids, err := c.View.HorsesOf(ctx, c.Practice, person.ID)
	if err != nil {
		return pages, err
	}
	for _, id := range ids {
		page, err := s.horsePage(ctx, c, id, person.ID)
		if errors.Is(err, store.ErrNotFound) {
			continue // it has no case
		}
		if ctx.Err() != nil {
			return pages, ctx.Err()
		}
		if err != nil { // one that can't be read does not take the others down
			s.Log.ErrorContext(ctx, "a horse can't be shown to its owner", "horse", id, "error", err.Error())
			h, nameErr := c.View.HorseAsKept(ctx, c.Practice, id)
			if nameErr != nil {
				return pages, err
			}
			page = HorsePage{ID: id, Name: h.Name, She: h.Name, Parts: []Part{}, Bridge: Bridge{Planks: []Plank{}}, Logs: []OwnLog{}, Stops: []homework.Stop{}, Contacts: []cases.Contact{}, Unread: c.Book.Say(phrase.Of("owner.unread", phrase.Args{"horse": h.Name}))}
		}
		pages.Horses = append(pages.Horses, page)
	}
	return pages, nil
}

func choices(book phrase.Book) PracticeChoices {
	all := PracticeChoices{Faces: []FaceChoice{}, Answers: clearance.Said{}.All(), Feels: homework.Feel{}.All(), Ends: homework.End{}.All(), Usual: []int{5, 10, 15}}
	for i, m := range cases.Arousals() {
		stops := homework.Log{Done: true, Arousal: horse.ArousalOf(i)}.Stops()
		all.Faces = append(all.Faces, FaceChoice{Arousal: i, Word: book.Say(m), Stops: stops})
	}
	return all
}

// horsePage is how a horse stands today, for one person of its owner's side.
func (s *Service) horsePage(ctx context.Context, c api.Caller, id, person string) (page HorsePage, err error) {
	err = api.Guarded(func() (err error) {
		page, err = s.readHorsePage(ctx, c, id, person)
		return err
	})
	return page, err
}

func (s *Service) readHorsePage(ctx context.Context, c api.Caller, id, person string) (HorsePage, error) {
	r, err := s.Newest(ctx, c, id)
	if err != nil {
		return HorsePage{}, err
	}
	called := r.Horse.Record.Called(r.Horse.Name)
	she, _ := called["he"].(string)
	page := HorsePage{ID: id, Name: r.Horse.Name, She: she, Goal: r.Case.Goal, Logs: []OwnLog{}, Stops: []homework.Stop{}, Contacts: []cases.Contact{}}
	doc, err := s.Standing(ctx, c, r, cases.For(person))
	if err != nil {
		return page, err
	}
	page.Parts, page.Bridge = parts(c.Book, doc), bridge(r, doc.Bridge, person)
	card := plan.HomeworkFor(r.File.Catalog, r.File.Plan(), r.Choices(), person, called)
	if card.None == nil {
		c.Book.Tell(&card)
		page.Card = &card
	}
	for _, l := range slices.Backward(r.File.Home.Logs) {
		if days, ok := horse.DaysBetween(l.On, c.Today()); l.Person == person && ok && days <= logsShown {
			step, _ := r.File.Catalog.Step(l.Step)
			page.Logs = append(page.Logs, OwnLog{l, step.Plain})
		}
	}
	for _, stop := range r.File.Home.Stops {
		step, _ := r.File.Catalog.Step(stop.Step)
		stop.Person = "" // whoever it was
		stop.Says = phrase.Of("owner.stopped", phrase.Args{"step": step.Plain, "on": phrase.Date(stop.On), "who": c.Home.Name})
		page.Stops = append(page.Stops, stop)
	}
	figures, err := s.Figures(ctx, c, r)
	if err != nil {
		return page, err
	}
	page.Tries, page.Time = tries(r, figures), timeOn(c.Book, r, figures)
	if page.Contacts, err = s.contacts(ctx, c, r); err != nil {
		return page, err
	}
	sent, err := c.View.NewestSent(ctx, c.Practice, id)
	if errors.Is(err, store.ErrNotFound) {
		return page, nil
	}
	if err != nil {
		return page, err
	}
	visit, err := s.visit(ctx, c, sent.Session, cases.For(person))
	page.Visit = &visit
	return page, err
}

// contacts are whom an owner rings: the practice and the vets; not the other owners.
func (s *Service) contacts(ctx context.Context, c api.Caller, r cases.Reading) ([]cases.Contact, error) {
	list := []cases.Contact{}
	if c.Home.Phone != "" {
		list = append(list, cases.Contact{What: "trainer", Name: c.Home.Name, Phone: c.Home.Phone})
	}
	others, err := s.Contacts(ctx, c, r)
	for _, o := range others {
		if o.What == "vet" {
			list = append(list, o)
		}
	}
	return list, err
}

// tries set what the owner told of before against the newest visit's answers on the
// problem's ladder; nil where one of them is not known.
func tries(r cases.Reading, figures []history.Figures) *Tries {
	story := r.File.Account().Story
	if story.Tries == nil || story.Successes == nil || *story.Tries == 0 {
		return nil
	}
	for _, f := range slices.Backward(figures) {
		t := Tries{Before: [2]int{*story.Successes, *story.Tries}, On: f.On}
		for _, ask := range f.Asks {
			if step, ok := r.File.Catalog.Step(ask.Step); ok && step.Ladder == r.File.Bridge.Ladder {
				t.Now[0], t.Now[1] = t.Now[0]+ask.Soft(), t.Now[1]+ask.N()
			}
		}
		if t.Now[1] > 0 {
			return &t
		}
	}
	return nil
}

// timeOn is the time on the problem, where it was noted on the first day too.
func timeOn(book phrase.Book, r cases.Reading, figures []history.Figures) *Time {
	t := progress.TimeOf(r.File.Catalog, figures, cases.ProblemIn(r, progress.Choice{}))
	if t == nil || t.Before == nil {
		return nil
	}
	n := len(t.Points) - 1
	return &Time{Says: book.Say(t.Says), Before: *t.Before, Now: t.Points[n].Y, On: t.Days[n]}
}

// visit is the page of one visit, as the trainer worded it, without what was left
// out.
func (s *Service) visit(ctx context.Context, c api.Caller, session string, reader cases.For) (Visit, error) {
	r, t, err := s.ReadSession(ctx, c, session)
	if err != nil {
		return Visit{}, err
	}
	doc, err := s.Document(ctx, c, r, t, reader)
	if err != nil {
		return Visit{}, err
	}
	edits, err := c.View.Edits(ctx, c.Practice, session)
	if err != nil {
		return Visit{}, err
	}
	names, err := s.UserNames(ctx, c)
	doc = doc.With(edits.Edits)
	v := Visit{Horse: r.Horse.Name, Date: t.Date, By: names[t.StartedBy], Parts: parts(c.Book, doc), Figures: []Figure{}, Bridge: bridge(r, doc.Bridge, "")}
	for _, f := range doc.Figures {
		v.Figures = append(v.Figures, Figure{Label: c.Book.Say(f.Label), Before: c.Book.Say(f.Before), After: c.Book.Say(f.After), Means: c.Book.Say(f.Means)})
	}
	return v, err
}

// parts are the sections of a document as they are read: worded by the trainer, and
// without what was left out.
func parts(book phrase.Book, doc report.Document) []Part {
	list := []Part{}
	for _, section := range doc.Sections {
		p := Part{Key: section.Key, Title: book.Say(section.Title), Says: []Sentence{}}
		for _, one := range section.Sentences {
			if !one.Left {
				p.Says = append(p.Says, Sentence{ID: one.ID, Text: one.Text(book)})
			}
		}
		if len(p.Says) > 0 {
			list = append(list, p)
		}
	}
	return list
}

func bridge(r cases.Reading, b progress.Bridge, person string) Bridge {
	view := Bridge{Name: b.Name, Planks: []Plank{}, Met: b.Met, Steps: b.Steps}
	for _, p := range b.Planks {
		if p.Beyond {
			continue
		}
		step, _ := r.File.Catalog.Step(p.Step)
		yours := slices.ContainsFunc(r.File.Plan().Homework, func(h plan.Homework) bool { return h.Step == p.Step && h.Person == person })
		view.Planks = append(view.Planks, Plank{
			Name: step.Plain, State: p.State, Blocked: p.Blocked != nil, Next: p.Next, Yours: yours,
		})
	}
	return view
}
