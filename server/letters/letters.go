// Package letters tells by mail, once an evening, what stands in the diary on the next
// day and what falls due: to users who want it, and to people who agreed. Where no mail
// is sent, the letters are kept for reading.
package letters

import (
	"context"
	"crypto/rand"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/limits"
	"ivorybridge/server/visits"
	"ivorybridge/store"
)

// Config says whether and when letters go.
type Config struct {
	Post   Post   // sends them; nil: nothing is sent
	Tray   bool   // without a Post, letters are written and kept all the same
	Hour   int    // of the practice's day, 0 to 23, from which the evening's letters are written
	Public string // where browsers reach the product, https://…; empty: letters name no address
}

// Post sends a letter. An error that is a *RefusedError is not tried again.
type Post interface {
	Send(ctx context.Context, m Mail) error
}

// Mail is a letter as it goes.
type Mail struct {
	ID       string // the same on each try
	From     string // name of the practice
	Name     string // of who gets it
	Address  string
	Subject  string
	Body     string
	Calendar string // an iCalendar that goes with it; empty: none
	Stop     string // address that stops these letters; empty: none
	At       time.Time
}

// Service answers for the letters, and writes and sends them.
type Service struct {
	*api.API
	Config
	visits *visits.Service
	limits *limits.Limits
}

// New registers what can be asked of letters.
func New(a *api.API, v *visits.Service, c Config) *Service {
	s := &Service{a, c, v, limits.New(a.Store)}
	api.Operation(a, api.Staff, http.MethodGet, "/api/letters", "letters", "Who gets letters in the evening, tonight's, and those that were written", api.AtOnce(s.letters))
	api.Operation(a, api.Staff, http.MethodPost, "/api/letters/readers", "addReader", "Note that somebody gets letters", s.add)
	api.Operation(a, api.Staff, http.MethodDelete, "/api/letters/readers/{id}", "stopReader", "Stop somebody's letters", s.stop)
	api.Operation(a, api.Staff, http.MethodPost, "/api/letters/tonight", "writeLetters", "Write this evening's letters now", s.tonight)
	huma.Register(a.Huma, a.Describe(api.Anybody, http.MethodGet, "/api/letters/stop/{token}", "stopPage", "Asks whether letters are to stop"), s.stopPage)
	huma.Register(a.Huma, a.Describe(api.Anybody, http.MethodPost, "/api/letters/stop/{token}", "stopLetters", "Stop the letters that this address belongs to"), s.stopByToken)
	return s
}

// on reports whether letters are written at all.
func (c Config) on() bool { return c.Post != nil || c.Tray }

// EveningLetters is who gets letters and what was written.
type EveningLetters struct {
	Sent    bool            `json:"sent" doc:"they go by mail; else they are kept for reading"`
	On      bool            `json:"on" doc:"they are written at all"`
	Hour    int             `json:"hour" doc:"of the practice's day, from which they are written"`
	Readers []LetterReader  `json:"readers"`
	Tonight []LetterPreview `json:"tonight" doc:"what would be written now, for who was not told yet this evening"`
	Written []EveningLetter `json:"written" doc:"the newest first"`
	Could   []Addressable   `json:"could" doc:"people who get none"`
	Me      bool            `json:"me" doc:"the caller gets them"`
}

// LetterReader gets letters.
type LetterReader struct {
	ID       string `json:"id"`
	Name     string `json:"name"`
	Email    string `json:"email"`
	Person   bool   `json:"person,omitempty" doc:"an owner or another, who agreed"`
	AgreedAt int64  `json:"agreed_at" doc:"ms"`
	NotedBy  string `json:"noted_by"`
}

// Addressable is a person who could get letters.
type Addressable struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Email string `json:"email,omitempty" doc:"absent: none is known"`
}

// LetterPreview is a letter that is not written yet.
type LetterPreview struct {
	Name    string `json:"name"`
	Subject string `json:"subject"`
	Body    string `json:"body"`
}

// EveningLetter was written.
type EveningLetter struct {
	ID      string `json:"id"`
	On      string `json:"on" format:"date"`
	Name    string `json:"name"`
	Address string `json:"address"`
	Subject string `json:"subject"`
	Body    string `json:"body"`
	Visits  bool   `json:"visits,omitempty" doc:"the visits go with it, for a calendar"`
	MadeAt  int64  `json:"made_at" doc:"ms"`
	SentAt  int64  `json:"sent_at,omitempty" doc:"ms"`
	NextAt  int64  `json:"next_at,omitempty" doc:"when it is tried next, ms"`
	Tries   int64  `json:"tries,omitempty"`
	Failed  string `json:"failed,omitempty" doc:"why the newest try failed"`
}

func (s *Service) letters(ctx context.Context, c api.Caller, _ *struct{}) (EveningLetters, error) {
	view := EveningLetters{Sent: s.Post != nil, On: s.on(), Hour: s.Hour, Readers: []LetterReader{}, Tonight: []LetterPreview{}, Written: []EveningLetter{}, Could: []Addressable{}}
	readers, err := c.View.Readers(ctx, c.Practice)
	if err != nil {
		return view, err
	}
	for _, r := range readers {
		view.Readers = append(view.Readers, LetterReader{r.ID, r.Name, r.Email, r.Person != "", r.AgreedAt, r.NotedBy})
		view.Me = view.Me || r.User == c.ID
	}
	people, err := c.View.People(ctx, c.Practice)
	if err != nil {
		return view, err
	}
	for _, p := range people {
		if !slices.ContainsFunc(readers, func(r store.Reader) bool { return r.Person == p.ID }) {
			view.Could = append(view.Could, Addressable{p.ID, p.Name, p.Email})
		}
	}
	made, err := s.compose(ctx, c)
	if err != nil {
		return view, err
	}
	for _, l := range made {
		view.Tonight = append(view.Tonight, LetterPreview{l.Name, l.Subject, l.Body})
	}
	written, err := c.View.Letters(ctx, c.Practice)
	for _, l := range written {
		view.Written = append(view.Written, EveningLetter{l.ID, l.On, l.Name, l.Address, l.Subject, l.Body, l.Calendar != "", l.MadeAt, l.SentAt, l.NextAt, l.Tries, l.Failed})
	}
	return view, err
}

// compose writes the letters of the caller's evening for who has none of it yet.
func (s *Service) compose(ctx context.Context, c api.Caller) ([]store.Letter, error) {
	readers, err := c.View.Readers(ctx, c.Practice)
	if err != nil {
		return nil, err
	}
	already, err := c.View.ReadersTold(ctx, c.Practice, c.Today())
	if err != nil {
		return nil, err
	}
	var list []store.Letter
	for _, r := range readers {
		if r.Email == "" || slices.Contains(already, r.ID) {
			continue
		}
		written, any, err := s.visits.Letter(ctx, c, r)
		if err != nil {
			return nil, err
		}
		if any {
			list = append(list, store.Letter{
				ID: uuid.NewString(), Reader: r.ID, On: c.Today(), Name: r.Name, Address: r.Email, Subject: written.Subject,
				Body: written.Body + s.foot(c, r), Calendar: written.Calendar, MadeAt: c.Now.UnixMilli(),
			})
		}
	}
	return list, nil
}

// foot says who writes, and how to get no more.
func (s *Service) foot(c api.Caller, r store.Reader) string {
	how := phrase.Of("letter.stop.answer", nil)
	switch {
	case r.User != "":
		how = phrase.Of("letter.stop.user", nil)
	case s.Public != "":
		how = phrase.Of("letter.stop", phrase.Args{"address": s.stopAddress(r.Stop)})
	}
	from := c.Home.Name
	if c.Home.Phone != "" {
		from += ", " + c.Home.Phone
	}
	return from + "\n" + c.Book.Say(how) + "\n"
}

func (s *Service) stopAddress(token string) string {
	if s.Public == "" {
		return ""
	}
	return s.Public + "/api/letters/stop/" + token
}

type readerInput struct {
	Body struct {
		Person string `json:"person,omitempty" maxLength:"36" doc:"id; empty: the caller"`
		Agreed bool   `json:"agreed,omitempty" doc:"the person said yes to it"`
	}
}

func (s *Service) add(ctx context.Context, c api.Caller, in *readerInput) (EveningLetters, error) {
	r := store.Reader{ID: uuid.NewString(), Person: in.Body.Person, Stop: rand.Text()}
	if r.Person == "" {
		r.User = c.ID
	} else {
		p, err := c.View.Person(ctx, c.Practice, r.Person)
		if err != nil {
			return EveningLetters{}, err
		}
		var wrong []api.FieldProblem
		if p.Email == "" {
			wrong = append(wrong, api.FieldProblem{Field: "person", Say: "No email address is written down for " + p.Name + ". Write it down under People first."})
		}
		if !in.Body.Agreed {
			wrong = append(wrong, api.FieldProblem{Field: "agreed", Say: "Letters go only to who agreed. Ask first, then tick this."})
		}
		if len(wrong) > 0 {
			return EveningLetters{}, api.Faulty(wrong...)
		}
	}
	if err := s.Store.AddReader(ctx, c.Actor(), r); err != nil {
		return EveningLetters{}, err
	}
	return s.letters(ctx, c, nil)
}

func (s *Service) stop(ctx context.Context, c api.Caller, in *api.ByID) (EveningLetters, error) {
	if err := s.Store.StopReader(ctx, c.Actor(), in.ID); err != nil {
		return EveningLetters{}, err
	}
	return s.letters(ctx, c, nil)
}

func (s *Service) tonight(ctx context.Context, c api.Caller, _ *struct{}) (EveningLetters, error) {
	if !s.on() {
		return EveningLetters{}, api.Faulty(api.FieldProblem{Field: "hour", Say: "Ivory Bridge was started without a mail server. Nothing can be sent."})
	}
	if err := s.write(ctx, c); err != nil {
		return EveningLetters{}, err
	}
	return s.letters(ctx, c, nil)
}

// write keeps the letters of the caller's evening, to be sent where there is a Post.
func (s *Service) write(ctx context.Context, c api.Caller) error {
	var list []store.Letter
	err := c.AtOneMoment(ctx, func(c api.Caller) (err error) {
		list, err = s.compose(ctx, c)
		return err
	})
	if err != nil || len(list) == 0 {
		return err
	}
	for i := range list {
		if s.Post != nil {
			list[i].NextAt = c.Now.UnixMilli()
		}
	}
	return s.Store.AddLetters(ctx, c.Practice, list)
}
