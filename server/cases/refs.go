package cases

import (
	"context"
	"fmt"
	"slices"

	"ivorybridge/core/casefile"
	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// ProblemName is a problem in words.
func ProblemName(p horse.Problem) phrase.Message { return phrase.Of("problem."+p.String(), nil) }

// ChoiceOf is a problem with the ladder for it, and where its goal can lie.
func ChoiceOf(p horse.Problem, l catalog.Ladder) ProblemChoice {
	choice := ProblemChoice{Problem: p, Ladder: l.Key, Name: ProblemName(p), Planks: []PlankChoice{}, Thing: l.AboutThing}
	for _, s := range l.Steps {
		if s.Link == "" {
			choice.Planks = append(choice.Planks, PlankChoice{Step: s.Key, Name: s.Name, Plain: s.Plain, Ridden: s.Ridden})
		}
	}
	return choice
}

// PlankChoice is a plank on which the goal can lie.
type PlankChoice struct {
	Step   string         `json:"step"`
	Name   string         `json:"name"`
	Plain  phrase.Slotted `json:"plain" doc:"as an owner says it"`
	Ridden bool           `json:"ridden,omitempty"`
}

// ProblemChoice is a problem that can be taken on, with its ladder.
type ProblemChoice struct {
	Problem horse.Problem  `json:"problem"`
	Ladder  string         `json:"ladder"`
	Name    phrase.Message `json:"name"`
	Planks  []PlankChoice  `json:"planks" doc:"of its usual ladder, in order"`
	Thing   bool           `json:"thing,omitempty" doc:"it is about a thing that has a name"`
}

// Case is a horse's problem with its goal and date.
type Case struct {
	ID         string `json:"id"`
	Problem    string `json:"problem"`
	Ladder     string `json:"ladder"`
	Goal       string `json:"goal"`
	NeededBy   string `json:"needed_by,omitempty" format:"date"`
	OpenedOn   string `json:"opened_on" format:"date"`
	FinishedOn string `json:"finished_on,omitempty" format:"date"`
	Thing      string `json:"thing,omitempty" doc:"that a case of a new thing is about"`
	Version    int64  `json:"version"`
}

// CaseOf shows a case.
func CaseOf(k store.Case) Case {
	return Case{ID: k.ID, Problem: k.Problem, Ladder: k.Ladder, Goal: k.Goal, NeededBy: k.NeededBy, OpenedOn: k.OpenedOn, FinishedOn: k.FinishedOn, Thing: k.Thing, Version: k.Version}
}

// OwnLadder is a practice's own copy of a ladder, in its newest version.
type OwnLadder struct {
	ID      string         `json:"id"`
	Version int64          `json:"version"`
	Name    string         `json:"name"`
	Ladder  string         `json:"ladder" doc:"the ladder it was copied from"`
	From    string         `json:"from" doc:"version of the catalogue it was copied from"`
	Reason  string         `json:"reason"`
	SavedBy string         `json:"saved_by"`
	SavedAt int64          `json:"saved_at"`
	Doc     catalog.Ladder `json:"doc"`
	Changed []string       `json:"changed" doc:"names of steps measured or passed otherwise than as shipped: progress on them begins again at tried"`
}

// OwnLadders lists the practice's own ladders, of these keys if any are given.
func (s *Reader) OwnLadders(ctx context.Context, c api.Caller, keys []string) ([]OwnLadder, error) {
	kept, err := c.View.Ladders(ctx, c.Practice)
	if err != nil {
		return nil, err
	}
	list := []OwnLadder{}
	for _, l := range kept {
		if keys == nil || slices.Contains(keys, l.Key) {
			list = append(list, s.OwnLadder(l))
		}
	}
	return list, nil
}

// OwnLadder shows one of the practice's own ladders.
func (s *Reader) OwnLadder(l store.Ladder) OwnLadder {
	view := OwnLadder{ID: l.ID, Version: l.Version, Name: l.Name, Ladder: l.Key, From: l.Catalog, Reason: l.Reason, SavedBy: l.SavedBy, SavedAt: l.SavedAt, Doc: l.Doc, Changed: []string{}}
	if fitted, err := s.Catalog.Fit(catalog.Fitting{Own: []catalog.Ladder{l.Doc}}); err == nil {
		for _, key := range catalog.Changed(s.Catalog, fitted) {
			step, _ := fitted.Step(key)
			view.Changed = append(view.Changed, step.Name)
		}
	}
	return view
}

// Arousals are the words for arousal 0 to 4.
func Arousals() []phrase.Message { return scaleWords("arousal.%d", 5) }

func scaleWords(key string, n int) []phrase.Message {
	words := make([]phrase.Message, n)
	for i := range words {
		words[i] = phrase.Of(fmt.Sprintf(key, i), nil)
	}
	return words
}

// HorseRef names a horse.
type HorseRef struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// RefOf names a horse.
func RefOf(h store.Horse) HorseRef { return HorseRef{ID: h.ID, Name: h.Name} }

// HandlerChoice is somebody who may hold the rope.
type HandlerChoice struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Owner bool   `json:"owner" doc:"of the owner's side"`
	Is    string `json:"is,omitempty" enum:"owner,yard,rescue,handler" doc:"who that is to the horse; empty: one of the practice"`
}

// OwnersSide lists those of the owner's side who hold the rope.
func OwnersSide(h store.Horse) []HandlerChoice {
	list := []HandlerChoice{}
	for _, o := range h.Holders() {
		one := HandlerChoice{ID: o.ID, Name: o.Name, Owner: true, Is: o.Kind}
		if slices.Contains(h.Handlers, o) {
			one.Is = "handler"
		}
		list = append(list, one)
	}
	return list
}

// Holders lists who may hold the rope: the signed-in user, and those owners.
func Holders(c api.Caller, owners []HandlerChoice) []HandlerChoice {
	return append([]HandlerChoice{{ID: c.ID, Name: c.Name}}, owners...)
}

// Owners lists the owners who may hold the rope: none where the grade of care
// does not let them.
func Owners(h store.Horse, f *casefile.File) []HandlerChoice {
	if !f.OwnerHandles() {
		return []HandlerChoice{}
	}
	return OwnersSide(h)
}

// UserNames are the names of the practice's users, by id.
func (s *Reader) UserNames(ctx context.Context, c api.Caller) (map[string]string, error) {
	users, err := c.View.Users(ctx, c.Practice)
	names := map[string]string{}
	for _, u := range users {
		names[u.ID] = u.Name
	}
	return names, err
}

// Feels are the words for levels 0 to 10.
func Feels() []phrase.Message {
	words := make([]phrase.Message, 11)
	for level := range words {
		words[level] = progress.Feel(float64(level))
	}
	return words
}

// Contact is somebody to call.
type Contact struct {
	What  string `json:"what" enum:"trainer,vet,owner,yard"`
	Name  string `json:"name"`
	Phone string `json:"phone"`
}

// Contacts lists whom to call, those with a number: vets, owners, the yard.
func (s *Reader) Contacts(ctx context.Context, c api.Caller, r Reading) ([]Contact, error) {
	people, err := c.View.People(ctx, c.Practice)
	list := []Contact{}
	for _, p := range people {
		if p.Kind == "vet" && p.Phone != "" {
			list = append(list, Contact{What: "vet", Name: p.Name, Phone: p.Phone})
		}
	}
	for _, o := range slices.Concat(r.Horse.Owners, r.Horse.Handlers) {
		if o.Phone != "" {
			list = append(list, Contact{What: "owner", Name: o.Name, Phone: o.Phone})
		}
	}
	if y := r.Horse.Yard; y.Phone != "" {
		list = append(list, Contact{What: "yard", Name: y.Name, Phone: y.Phone})
	}
	return list, err
}
