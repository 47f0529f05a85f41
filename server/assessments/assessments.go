// Package assessments answers for the walk round a horse: its marks, and what
// they come to.
package assessments

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
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

// Walk is the newest assessment of a horse, with the questions it is made of.
type Walk struct {
	Horse    cases.HorseRef        `json:"horse"`
	Newest   *Assessment           `json:"newest,omitempty" doc:"absent: never assessed"`
	All      []Dated               `json:"all" doc:"the newest first"`
	Problems []WalkProblem         `json:"problems" doc:"the case's own first"`
	Further  []cases.ProblemChoice `json:"further" doc:"problems that can be added"`
	Items    []WalkItem            `json:"items" doc:"the body, item by item"`
	Tests    []WalkTest            `json:"tests" doc:"the basics, and those ridden"`
	Arousals []phrase.Message      `json:"arousals" doc:"the words for arousal 0 to 4"`
	Feels    []phrase.Message      `json:"feels" doc:"one word for each level 0 to 10"`
	Words    WalkWords             `json:"words"`
}

// WalkProblem is the walk for one problem.
type WalkProblem struct {
	Problem  horse.Problem    `json:"problem"`
	Name     phrase.Message   `json:"name"`
	Sections []assess.Section `json:"sections"`
}

// WalkItem is a body item as it is looked at.
type WalkItem struct {
	Item     horse.BodyItem  `json:"item"`
	Name     phrase.Message  `json:"name"`
	Relevant []horse.Problem `json:"relevant" doc:"the problems it bears on"`
	ByHand   bool            `json:"by_hand,omitempty" doc:"pressed with the fingers at each check"`
}

// WalkTest is a basic as it is asked.
type WalkTest struct {
	assess.Test
	Name string   `json:"name"`
	Asks []string `json:"asks" doc:"its keys in the document"`
	Last int      `json:"last,omitempty" doc:"steps or seconds that meet it; 0: its answer alone"`
}

// WalkWords are the words of the parts that are drawn or laid out.
type WalkWords struct {
	States      []horse.BodyState     `json:"states"`
	Dated       map[string]string     `json:"dated" doc:"the field that says since when, by state"`
	Pressings   []assess.Pressing     `json:"pressings"`
	Answers     []horse.Answer        `json:"answers"`
	Prompts     []assess.Prompt       `json:"prompts"`
	Runs        []phrase.Message      `json:"runs" doc:"the four runs of the swap, in order"`
	RunKeys     []assess.SwapRun      `json:"run_keys"`
	Events      []assess.EventKind    `json:"events"`
	Experiences []horse.Experience    `json:"experiences"`
	Steadiness  []assess.Steadiness   `json:"steadiness"`
	Settings    []assess.Setting      `json:"settings"`
	Straps      []assess.Strap        `json:"straps"`
	Verdicts    []assess.Verdict      `json:"verdicts"`
	Who         []assess.Professional `json:"who"`
	Beliefs     []assess.Belief       `json:"beliefs"`
	Cares       []horse.Care          `json:"cares"`
	Schools     []horse.School        `json:"schools"`
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
		SentAt int64         `json:"sent_at" minimum:"0" doc:"the device's clock as it sends, ms"`
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
	if n := len(r.Assessments); n > 0 {
		newest, err := s.viewAssessment(ctx, c, r, r.Assessments[n-1])
		if err != nil {
			return Walk{}, err
		}
		w.Newest = &newest
	}
	return w, nil
}

// walk lays out the questions for the case's problem and any added to it.
func (s *Service) walk(r cases.Reading) Walk {
	own := r.File.Problem().Problem
	w := Walk{Horse: cases.RefOf(r.Horse), Words: walkWords(), Items: s.items(), Tests: s.tests(), Arousals: cases.Arousals(), Feels: cases.Feels()}
	w.Problems = []WalkProblem{s.walkProblem(r.File.Assessment, own, false)}
	for _, p := range (horse.Problem{}).All() {
		if _, chosen := r.File.Assessment.Problems[p]; chosen && p != own {
			w.Problems = append(w.Problems, s.walkProblem(r.File.Assessment, p, true))
		} else if l, ok := s.Catalog.LadderFor(p); ok && p != own {
			w.Further = append(w.Further, cases.ChoiceOf(p, l))
		}
	}
	for _, a := range slices.Backward(r.Assessments) {
		w.All = append(w.All, Dated{ID: a.ID, On: a.On})
	}
	return w
}

func (s *Service) walkProblem(a assess.Assessment, p horse.Problem, further bool) WalkProblem {
	return WalkProblem{Problem: p, Name: cases.ProblemName(p), Sections: assess.Walk(s.Catalog, a, p, further)}
}

func (s *Service) items() []WalkItem {
	var items []WalkItem
	for _, item := range (horse.BodyItem{}).All() {
		items = append(items, WalkItem{Item: item, Name: assess.Named(item), Relevant: slices.Clone(s.Catalog.Judging.Relevant[item]), ByHand: assess.ByHand(item)})
	}
	return items
}

// datedBy names the field that says since when, for each state that has one.
func datedBy() map[string]string {
	fields := map[string]string{}
	for _, state := range (horse.BodyState{}).All() {
		if f := assess.DatedBy(state); f != "" {
			fields[state.String()] = f
		}
	}
	return fields
}

func (s *Service) tests() []WalkTest {
	var tests []WalkTest
	for _, t := range assess.Tests() {
		one := WalkTest{Test: t, Name: assess.NameOf(s.Catalog, t.Key), Asks: t.Asks()}
		if t.Ridden {
			one.Name = riddenNames[strings.TrimPrefix(t.Key, "ridden.")]
		}
		if step, ok := s.Catalog.Step(t.Key); ok && (t.Holds || t.Counts) {
			one.Last = step.Last()
		}
		tests = append(tests, one)
	}
	return tests
}

// riddenNames are the tests of D2 as a trainer calls them.
var riddenNames = map[string]string{
	"mount": "stands to be mounted", "contact": "first rein contact", "flex": "flex", "turn": "first turn", "sideways": "sideways off the leg",
	"halt": "halt", "back": "back", "off": "walks off when asked",
}

func walkWords() WalkWords {
	w := WalkWords{
		States: horse.BodyState{}.All(), Dated: datedBy(), Pressings: assess.Pressing{}.All(), Answers: horse.Answer{}.All(), Prompts: assess.Prompt{}.All(),
		RunKeys: assess.SwapRun{}.All(), Events: assess.EventKind{}.All(), Experiences: horse.Experience{}.All(),
		Steadiness: assess.Steadiness{}.All(), Settings: assess.Setting{}.All(), Straps: assess.Strap{}.All(), Verdicts: assess.Verdict{}.All(),
		Who: assess.Professional{}.All(), Beliefs: assess.Belief{}.All()[:3], Cares: horse.Care{}.All(), Schools: horse.School{}.All(),
	}
	for _, run := range w.RunKeys {
		w.Runs = append(w.Runs, phrase.Of("run."+run.String(), nil))
	}
	return w
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
	return assess.Judge(s.Catalog, assess.Case{Today: on, On: on, Record: r.Horse.Record, Assessment: doc.About(r.File.Problem().Problem)})
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
	base, doc, err := s.standing(ctx, c, kase, in.Of)
	if err != nil {
		return Marked{}, err
	}
	answer := Marked{Refused: []api.RefusedEntry{}}
	var good []assess.Mark
	for _, m := range in.Body.Marks {
		faults := m.Check(s.Catalog, c.Today())
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

// standing gives what a new assessment of the case's horse starts from, the
// last one with the case's problem in it, and the document of the assessment
// as it stands now.
func (s *Service) standing(ctx context.Context, c api.Caller, kase store.Case, id string) (base, now assess.Assessment, err error) {
	earlier, err := c.View.Assessments(ctx, c.Practice, kase.HorseID)
	if err != nil {
		return base, now, err
	}
	var problem horse.Problem
	if err := problem.UnmarshalText([]byte(kase.Problem)); err != nil {
		return base, now, err
	}
	if n := len(earlier); n > 0 {
		base = earlier[n-1].Doc.CarriedOver()
	}
	base = base.About(problem)
	now = base
	for _, a := range earlier {
		if a.ID == id {
			now = a.Doc
		}
	}
	return base, now, nil
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
