package assessments

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/gait"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

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
	Timed    []TimedGait           `json:"timed" doc:"gaits that were timed before and on clips, the newest first"`
	Films    []WalkFilm            `json:"films" doc:"of the horse, on which a go of a swap may be seen; the newest first"`
	Swapped  *WalkSwapped          `json:"swapped,omitempty" doc:"the newest session in which person or tack was changed at one ask"`
	People   []cases.HandlerChoice `json:"people" doc:"the owner's side, who hold the rope; they need not be written down again"`
}

// WalkFilm is a clip of the horse.
type WalkFilm struct {
	ID   string `json:"id"`
	On   string `json:"on" format:"date"`
	Name string `json:"name,omitempty"`
}

// WalkSwapped is a swap as it was logged in the arena.
type WalkSwapped struct {
	On   string           `json:"on" format:"date"`
	Name string           `json:"name" doc:"the ask"`
	Rows []assess.SwapRow `json:"rows"`
}

// lookedBack is in how many of the newest sessions a swap is looked for.
const lookedBack = 5

// swapped finds the newest session in which person or tack was changed at one ask.
func (s *Service) swapped(ctx context.Context, c api.Caller, r cases.Reading) (*WalkSwapped, error) {
	names, err := s.UserNames(ctx, c)
	if err != nil {
		return nil, err
	}
	for _, o := range r.Horse.Holders() {
		names[o.ID] = o.Name
	}
	ids, err := c.View.NewestSessions(ctx, c.Practice, r.Horse.ID, lookedBack)
	if err != nil {
		return nil, err
	}
	for _, n := range ids {
		kept, _, err := c.View.Track(ctx, c.Practice, n.ID)
		if err != nil {
			return nil, err
		}
		entries := store.Entries(kept)
		cat := s.Catalog.WithOwn(track.Own(entries)...)
		ask, rows := history.Swapped(cat, track.Day{ID: n.ID, Date: n.Date, Handler: n.Handler, Started: n.StartedAt, Track: entries}, names)
		if len(rows) > 0 {
			step, _ := cat.Step(ask.Step)
			return &WalkSwapped{On: n.Date, Name: step.FullName(), Rows: rows}, nil
		}
	}
	return nil, nil
}

// TimedGait is a gait as the taps say, on a clip or while it went, beside what the rider
// calls it.
type TimedGait struct {
	Clip  string          `json:"clip,omitempty" doc:"id; absent: tapped while it went"`
	On    string          `json:"on" format:"date"`
	Rider string          `json:"rider,omitempty" doc:"as the rider names it"`
	Says  phrase.Message  `json:"says" doc:"as the taps say"`
	Vet   *phrase.Message `json:"vet,omitempty"`
}

// timed lists the gaits of a horse that were timed, on clips and in assessments. One that
// can't be timed is left out.
func timed(clips []store.Clip, assessments []store.Assessment) []TimedGait {
	list := []TimedGait{}
	add := func(t TimedGait, taps gait.Taps) {
		if r, err := gait.Time(taps); err == nil && !r.Class.IsZero() {
			t.Says, t.Vet = r.Says, r.Vet
			list = append(list, t)
		}
	}
	for _, k := range clips {
		add(TimedGait{Clip: k.ID, On: k.FilmedOn, Rider: k.Gait}, k.Taps)
	}
	for _, a := range assessments {
		if a.Doc.First.Timed != nil {
			add(TimedGait{On: a.On, Rider: a.Doc.First.Gait}, *a.Doc.First.Timed)
		}
	}
	slices.SortStableFunc(list, func(a, b TimedGait) int { return cmp.Compare(b.On, a.On) })
	return list
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
	w.People = cases.OwnersSide(r.Horse)
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
