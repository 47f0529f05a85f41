// Package assessments answers for the walk round a horse: its marks, and what
// they come to.
package assessments

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Service answers for assessments.
type Service struct {
	*cases.Reader
	changed func()
}

// New registers what can be asked of assessments. changed is called when one was
// changed: what the horse's sessions are advised by must be read again.
func New(r *cases.Reader, changed func()) *Service {
	s := &Service{Reader: r, changed: changed}
	s.assessmentOperations()
	return s
}

// Assessment is what was found on a day, with what follows from it.
type Assessment struct {
	ID        string                             `json:"id"`
	On        string                             `json:"on" format:"date"`
	Doc       assess.Assessment                  `json:"doc"`
	Version   int64                              `json:"version"`
	Result    assess.Result                      `json:"result"`
	States    map[string]horse.BodyState         `json:"states" doc:"what is known of each body item, checks by hand counted"`
	Checks    map[string][]assess.DayOfTreatment `json:"checks" doc:"repeated checks side by side, by body item"`
	Changes   []assess.Change                    `json:"changes" doc:"against the assessment it started from"`
	From      string                             `json:"from,omitempty" format:"date" doc:"day of the assessment it started from"`
	Overruled []Overruled                        `json:"overruled"`
}

// Overruled is a result that the trainer judged otherwise, with who and when.
type Overruled struct {
	Key    string `json:"key"`
	To     string `json:"to"`
	Reason string `json:"reason"`
	By     string `json:"by"`
	At     int64  `json:"at" doc:"ms"`
}

// Dated names an assessment by its day.
type Dated struct {
	ID string `json:"id"`
	On string `json:"on" format:"date"`
}

// Marked is the answer to marks that were sent.
type Marked struct {
	Refused    []api.RefusedEntry `json:"refused" doc:"marks that can't be kept, and why; all others are kept"`
	Assessment Assessment         `json:"assessment"`
}

type assessmentInput struct {
	ID string `path:"id" format:"uuid"`
}

type marksInput struct {
	ID   string `path:"id" format:"uuid"`
	Of   string `path:"of" format:"uuid"`
	Body struct {
		SentAt int64         `json:"sent_at" minimum:"0" maximum:"7258118400000" doc:"the device's clock as it sends, ms"`
		Marks  []assess.Mark `json:"marks" minItems:"1" maxItems:"200"`
	}
}

func (s *Service) assessmentOperations() {
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/cases/{id}/assessment", "assessment", "The newest assessment of a case's horse, and the walk", api.AtOnce(s.assessment))
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/assessments/{id}", "anAssessment", "One assessment, as it was judged on its day", api.AtOnce(s.anAssessment))
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/horses/{id}/assessments/{of}/marks", "mark", "Keep marks of an assessment; one that is not there yet is begun", s.mark)
}

func (s *Service) assessment(ctx context.Context, c api.Caller, in *api.ByID) (Walk, error) {
	r, err := s.Read(ctx, c, in.ID)
	if err != nil {
		return Walk{}, err
	}
	w := s.walk(r)
	clips, err := c.View.Clips(ctx, c.Practice, r.Horse.ID)
	if err != nil {
		return Walk{}, err
	}
	w.Timed = timed(clips, r.Assessments)
	w.Films = []WalkFilm{}
	for _, k := range clips {
		w.Films = append(w.Films, WalkFilm{ID: k.ID, On: k.FilmedOn, Name: k.Name})
	}
	if w.Swapped, err = s.swapped(ctx, c, r); err != nil {
		return Walk{}, err
	}
	if n := len(r.Assessments); n > 0 {
		newest, err := s.viewAssessment(ctx, c, r, r.Assessments[n-1])
		if err != nil {
			return Walk{}, err
		}
		w.Newest = &newest
	}
	return w, nil
}

// viewAssessment judges an assessment: the newest with all that sessions
// logged since, an older one as of its own day.
func (s *Service) viewAssessment(ctx context.Context, c api.Caller, r cases.Reading, a store.Assessment) (Assessment, error) {
	view := Assessment{ID: a.ID, On: a.On, Doc: a.Doc, Version: a.Version, Result: r.File.Result, States: map[string]horse.BodyState{}, Checks: map[string][]assess.DayOfTreatment{}, Overruled: []Overruled{}}
	i := slices.IndexFunc(r.Assessments, func(o store.Assessment) bool { return o.ID == a.ID })
	var err error
	if i < len(r.Assessments)-1 {
		if view.Result, err = s.judgeAlone(r, a.Doc, a.On); err != nil {
			return Assessment{}, err
		}
	}
	if i > 0 {
		last := r.Assessments[i-1]
		before, err := s.judgeAlone(r, last.Doc, last.On)
		if err != nil {
			return Assessment{}, err
		}
		view.From = last.On
		view.Changes = append(assess.Changes(before, view.Result), assess.BodyChanges(last.Doc, a.Doc)...)
	}
	for _, item := range (horse.BodyItem{}).All() {
		view.States[item.String()] = a.Doc.BodyOf(item)
	}
	for item, note := range a.Doc.Body {
		if days := note.SideBySide(); len(days) > 0 {
			view.Checks[item.String()] = days
		}
	}
	view.Overruled, err = s.overruled(ctx, c, a.Doc, r.Assessments[:i+1])
	return view, err
}

// judgeAlone judges a document as of a day, without the sessions.
func (s *Service) judgeAlone(r cases.Reading, doc assess.Assessment, on string) (assess.Result, error) {
	return assess.Judge(r.Catalog(), assess.Case{Today: on, On: on, Record: r.Horse.Record, Assessment: doc.About(r.File.Problem().Problem)})
}

// overruled tells who overruled what, when: the last mark in its place, in this
// assessment or in one it came from.
func (s *Service) overruled(ctx context.Context, c api.Caller, doc assess.Assessment, from []store.Assessment) ([]Overruled, error) {
	list := []Overruled{}
	if len(doc.Overruled) == 0 {
		return list, nil
	}
	var marks []store.KeptMark
	for _, a := range from {
		more, err := c.View.Marks(ctx, c.Practice, a.ID)
		if err != nil {
			return nil, err
		}
		marks = append(marks, more...)
	}
	for key, o := range doc.Overruled {
		one := Overruled{Key: key, To: o.To, Reason: o.Reason}
		for _, m := range marks {
			if m.Path == "overruled/"+key {
				one.By, one.At = m.By, m.At
			}
		}
		list = append(list, one)
	}
	slices.SortFunc(list, func(a, b Overruled) int { return cmp.Compare(a.Key, b.Key) })
	return list, nil
}

func (s *Service) anAssessment(ctx context.Context, c api.Caller, in *assessmentInput) (Assessment, error) {
	a, err := c.View.Assessment(ctx, c.Practice, in.ID)
	if err != nil {
		return Assessment{}, err
	}
	r, err := s.Newest(ctx, c, a.HorseID)
	if err != nil {
		return Assessment{}, err
	}
	return s.viewAssessment(ctx, c, r, a)
}

func (s *Service) mark(ctx context.Context, c api.Caller, in *marksInput) (Marked, error) {
	h, kase, err := s.NewestCase(ctx, c, in.ID)
	if err != nil {
		return Marked{}, err
	}
	base, doc, err := s.Beginning(ctx, c, kase, in.Of)
	if err != nil {
		return Marked{}, err
	}
	answer := Marked{Refused: []api.RefusedEntry{}}
	var good []assess.Mark
	for _, m := range in.Body.Marks {
		faults := m.Check(s.Catalog, c.Today())
		if say := api.NotAText(m.Value); say != "" {
			faults = append(faults, assess.Fault{Field: m.Path, Say: say})
		}
		if len(faults) == 0 {
			doc, faults = m.On(doc, s.Catalog, c.Today())
		}
		if len(faults) > 0 {
			answer.Refused = append(answer.Refused, api.RefusedEntry{ID: m.ID, Say: faults[0].Say})
			continue
		}
		good = append(good, m)
	}
	begun := store.Assessment{ID: in.Of, HorseID: in.ID, On: dayOf(c, in.Body.Marks[0].At, in.Body.SentAt)}
	begun.Base = base
	kept, refused, err := s.Store.Mark(ctx, c.Actor(), begun, in.Body.SentAt, good)
	if err != nil {
		return Marked{}, err
	}
	for i, why := range refused {
		if why != nil {
			answer.Refused = append(answer.Refused, api.RefusedEntry{ID: good[i].ID, Say: s.say(ctx, why)})
		}
	}
	s.changed() // what blocks and what the horse is may have changed
	r, err := s.ReadOf(ctx, c, h, kase)
	if err != nil {
		return Marked{}, err
	}
	answer.Assessment, err = s.viewAssessment(ctx, c, r, kept)
	return answer, err
}

// say is the sentence for an error.
func (s *Service) say(ctx context.Context, err error) string {
	var p *api.Problem
	if errors.As(s.Problem(ctx, err), &p) {
		return p.Detail
	}
	return err.Error()
}

// longestKept is how long a device may have kept what it sends, so that a wrong
// clock can't put an assessment into another year.
const longestKept = 30 * 24 * time.Hour

// dayOf is the practice's date of an instant on a device's clock, which showed
// sentAt as it sent; today where that can't be.
func dayOf(c api.Caller, ms, sentAt int64) string {
	if sentAt > 0 {
		ms += c.Now.UnixMilli() - sentAt
	}
	then := c
	if then.Now = time.UnixMilli(ms); then.Now.After(c.Now) || c.Now.Sub(then.Now) > longestKept {
		return c.Today()
	}
	return then.Today()
}
