package clips

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// ClipMark is a moment of a clip with a word.
type ClipMark struct {
	ID          string  `json:"id"`
	At          float64 `json:"at" doc:"s"`
	Says        string  `json:"says"`
	Finding     string  `json:"finding,omitempty" doc:"key"`
	FindingSays string  `json:"finding_says,omitempty" doc:"in words"`
	Step        string  `json:"step,omitempty" doc:"key"`
	StepName    string  `json:"step_name,omitempty"`
	Side        string  `json:"side,omitempty" enum:",near,off"`
	MadeBy      string  `json:"made_by"`
	MadeAt      int64   `json:"made_at" doc:"ms"`
}

// Showing is what a mark may be tied to.
type Showing struct {
	Findings []assess.Filmable `json:"findings" doc:"in the order of the walk"`
	Steps    []ShownStep       `json:"steps" doc:"of the horse's ladders"`
	Into     Into              `json:"into" doc:"the assessment that takes a finding"`
}

// ShownStep is a step that a clip may show.
type ShownStep struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// Into is the assessment that takes what a clip shows.
type Into struct {
	On    string                  `json:"on,omitempty" format:"date" doc:"absent: it is begun by the first finding"`
	Found map[string]horse.Source `json:"found" doc:"what it holds already of these findings, by key"`
}

// fresh is for how many days after an assessment a film still belongs to it: what is filmed
// later shows how the horse is by then, and begins the next one.
const fresh = 7

// showing tells what a clip's marks may be tied to; nil where nobody works with the horse.
func (s *Service) showing(ctx context.Context, c api.Caller, k store.Clip) (*Showing, error) {
	t, err := s.taking(ctx, c, k)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	view := &Showing{Findings: t.filmable, Steps: []ShownStep{}, Into: Into{On: t.into.On, Found: map[string]horse.Source{}}}
	if t.begins {
		view.Into.On = ""
	}
	for _, found := range t.found(s) {
		if slices.ContainsFunc(t.filmable, func(f assess.Filmable) bool { return f.Key == found.Finding }) {
			view.Into.Found[found.Finding] = found.Source
		}
	}
	for _, l := range assess.Ladders(s.Catalog, append([]horse.Problem{t.problem}, t.kase.Further()...)...) {
		for _, step := range l.Steps {
			view.Steps = append(view.Steps, ShownStep{Key: step.Key, Name: step.FullName()})
		}
	}
	return view, nil
}

// taking is how an assessment takes what a clip shows.
type taking struct {
	kase     store.Case
	problem  horse.Problem
	filmable []assess.Filmable
	into     store.Assessment // as it stands, or as it will be begun
	doc      assess.Assessment
	begins   bool
	first    bool // the horse was never assessed
}

func (t taking) found(s *Service) []assess.Found {
	return assess.Findings(s.Catalog.Judging, assess.Input{Today: t.into.On, Assessment: t.doc, Problem: t.problem})
}

func (s *Service) taking(ctx context.Context, c api.Caller, k store.Clip) (t taking, err error) {
	if t.kase, err = c.View.NewestCase(ctx, c.Practice, k.HorseID); err != nil {
		return t, err
	}
	if err := t.problem.UnmarshalText([]byte(t.kase.Problem)); err != nil {
		return t, err
	}
	t.filmable = assess.OnFilm(s.Catalog.Judging, t.problem)
	list, err := c.View.Assessments(ctx, c.Practice, k.HorseID)
	if err != nil {
		return t, err
	}
	t.first = len(list) == 0
	if n := len(list); n > 0 && k.FilmedOn <= horse.DayAfter(list[n-1].On, fresh) {
		t.into, t.doc = list[n-1], list[n-1].Doc
		return t, nil
	}
	t.begins = true
	t.into = store.Assessment{ID: uuid.NewSHA1(uuid.MustParse(k.ID), []byte("assessment")).String(), HorseID: k.HorseID, On: c.Today()}
	t.into.Base, t.doc, err = s.Beginning(ctx, c, t.kase, t.into.ID)
	return t, err
}

// finds is the finding that a mark makes: the marks of an assessment that keep it. None
// where it stands there already from a better source, or from a film.
func (t taking) finds(s *Service, c api.Caller, m store.ClipMark, f assess.Filmable) []assess.Mark {
	if slices.ContainsFunc(t.found(s), func(o assess.Found) bool {
		return o.Finding == f.Key && s.Catalog.Judging.Sources[o.Source] >= s.Catalog.Judging.Sources[horse.OnVideo]
	}) {
		return nil
	}
	one := assess.Mark{ID: m.ID, At: c.Now.UnixMilli(), Device: "clip", Path: f.Path, Value: horse.OnVideo.String()}
	if !t.begins || !t.first {
		return []assess.Mark{one}
	}
	from := one
	from.ID, from.Path, from.Seq = uuid.NewSHA1(uuid.MustParse(m.ID), []byte("from")).String(), "from", 0
	one.Seq = 1
	return []assess.Mark{from, one}
}

func (s *Service) markOf(m store.ClipMark) ClipMark {
	view := ClipMark{ID: m.ID, At: m.At, Says: m.Says, Finding: m.Finding, Step: m.Step, Side: m.Side, MadeBy: m.MadeBy, MadeAt: m.MadeAt}
	if f, ok := s.Catalog.Judging.Finding(m.Finding); ok {
		view.FindingSays = string(f.Says)
	}
	if step, ok := s.Catalog.Step(m.Step); ok {
		view.StepName = step.FullName()
	}
	return view
}

type markInput struct {
	ID   string `path:"id" format:"uuid"`
	Body struct {
		At      float64 `json:"at" minimum:"0" maximum:"86400"`
		Says    string  `json:"says" maxLength:"200"`
		Finding string  `json:"finding,omitempty" maxLength:"60" doc:"key; it goes into the assessment, with a film as its source"`
		Step    string  `json:"step,omitempty" maxLength:"60"`
		Side    string  `json:"side,omitempty" enum:",near,off"`
	}
}

func (s *Service) mark(ctx context.Context, c api.Caller, in *markInput) (ClipWhole, error) {
	k, err := c.View.Clip(ctx, c.Practice, in.ID)
	if err != nil {
		return ClipWhole{}, err
	}
	m := store.ClipMark{ID: uuid.NewString(), At: in.Body.At, Says: strings.TrimSpace(in.Body.Says), Finding: in.Body.Finding, Step: in.Body.Step, Side: in.Body.Side}
	var wrong []api.FieldProblem
	if m.Says == "" && m.Finding == "" {
		wrong = append(wrong, api.FieldProblem{Field: "says", Say: "Say in a word what is seen there."})
	}
	if _, known := s.Catalog.Step(m.Step); m.Step != "" && !known {
		wrong = append(wrong, api.FieldProblem{Field: "step", Say: "This step is not known. Choose another."})
	}
	if len(k.Marks) >= mostMarks {
		wrong = append(wrong, api.FieldProblem{Field: "says", Say: fmt.Sprintf("There are %d marks on this clip already. Take one off first.", mostMarks)})
	}
	var made store.FoundOnClip
	if m.Finding != "" {
		t, err := s.taking(ctx, c, k)
		i := slices.IndexFunc(t.filmable, func(f assess.Filmable) bool { return f.Key == m.Finding })
		switch {
		case err != nil && !errors.Is(err, store.ErrNotFound):
			return ClipWhole{}, err
		case i < 0:
			wrong = append(wrong, api.FieldProblem{Field: "finding", Say: "No film shows this. Choose another, or say it in a word."})
		default:
			made = store.FoundOnClip{Into: t.into, Marks: t.finds(s, c, m, t.filmable[i])}
			m.Says = cmp.Or(m.Says, string(t.filmable[i].Says))
		}
	}
	if len(wrong) > 0 {
		return ClipWhole{}, api.Faulty(wrong...)
	}
	if err := s.Store.AddClipMark(ctx, c.Actor(), in.ID, m, made); err != nil {
		return ClipWhole{}, err
	}
	if len(made.Marks) > 0 {
		s.changed()
	}
	return s.one(ctx, c, &api.ByID{ID: in.ID})
}

// mostMarks is how many marks a clip has at most.
const mostMarks = 500

type unmarkInput struct {
	ID   string `path:"id" format:"uuid"`
	Mark string `path:"mark" format:"uuid"`
}

// unmark takes a mark off, and back what no other mark of the horse's clips shows.
func (s *Service) unmark(ctx context.Context, c api.Caller, in *unmarkInput) (ClipWhole, error) {
	k, err := c.View.Clip(ctx, c.Practice, in.ID)
	if err != nil {
		return ClipWhole{}, err
	}
	var back store.FoundOnClip
	if i := slices.IndexFunc(k.Marks, func(m store.ClipMark) bool { return m.ID == in.Mark }); i >= 0 && k.Marks[i].Finding != "" {
		if back, err = s.backOut(ctx, c, k, k.Marks[i]); err != nil {
			return ClipWhole{}, err
		}
	}
	if err := s.Store.RemoveClipMark(ctx, c.Actor(), in.ID, in.Mark, back); err != nil {
		return ClipWhole{}, err
	}
	if len(back.Marks) > 0 {
		s.changed()
	}
	return s.one(ctx, c, &api.ByID{ID: in.ID})
}

// backOut is what takes a mark's finding back out of the assessment: nothing, where it was
// seen otherwise too.
func (s *Service) backOut(ctx context.Context, c api.Caller, k store.Clip, m store.ClipMark) (store.FoundOnClip, error) {
	t, err := s.taking(ctx, c, k)
	if errors.Is(err, store.ErrNotFound) {
		return store.FoundOnClip{}, nil
	}
	if err != nil {
		return store.FoundOnClip{}, err
	}
	elsewhere, err := c.View.ShownElsewhere(ctx, c.Practice, k.HorseID, m.Finding, m.ID)
	i := slices.IndexFunc(t.filmable, func(f assess.Filmable) bool { return f.Key == m.Finding })
	if err != nil || elsewhere || i < 0 || t.begins || !slices.Contains(t.found(s), assess.Found{Finding: m.Finding, Source: horse.OnVideo}) {
		return store.FoundOnClip{}, err
	}
	gone := assess.Mark{ID: uuid.NewSHA1(uuid.MustParse(m.ID), []byte("back")).String(), At: c.Now.UnixMilli(), Device: "clip", Seq: 2, Path: t.filmable[i].Path}
	return store.FoundOnClip{Into: t.into, Marks: []assess.Mark{gone}}, nil
}
