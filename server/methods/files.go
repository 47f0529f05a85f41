package methods

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"regexp"
	"slices"
	"strconv"

	"github.com/google/uuid"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
	"ivorybridge/core/phrase"
	"ivorybridge/docs"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// LadderFile is a ladder as a file that any editor opens.
type LadderFile struct {
	Name string `json:"name" doc:"of the file"`
	Text string `json:"text" doc:"YAML, in the form of the shipped ladders"`
}

// LadderIn is a ladder's file that comes in.
type LadderIn struct {
	Version int64  `json:"version" minimum:"0" doc:"that was read; 0 for a new ladder"`
	Text    string `json:"text" maxLength:"200000"`
	Reason  string `json:"reason,omitempty" maxLength:"500"`
}

type ladderKey struct {
	Key string `path:"key" maxLength:"60"`
}

type newLadderFile struct{ Body LadderIn }

type nextLadderFile struct {
	ID   string `path:"id" format:"uuid"`
	Body LadderIn
}

func (s *Service) fileOperations() {
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/methods/{key}/file", "ladderFile", "A ladder as shipped, as a file", s.shippedFile)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/ladders/schema", "ladderSchema", "The JSON Schema of a ladder's file", func(context.Context, api.Caller, *struct{}) (LadderFile, error) {
		return LadderFile{Name: "ladder.schema.json", Text: docs.LadderSchema}, nil
	})
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/ladders/{id}/file", "ownLadderFile", "An own ladder, as a file", s.ownFile)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/ladders/file", "takeLadder", "Take in a ladder's file as a new own ladder", func(ctx context.Context, c api.Caller, in *newLadderFile) (cases.OwnLadder, error) {
		in.Body.Version = 0
		return s.takeFile(ctx, c, store.Ladder{ID: uuid.NewString(), Catalog: s.Catalog.Version}, in.Body)
	})
	api.Operation(s.API, api.LeadsOnly, http.MethodPut, "/api/ladders/{id}/file", "takeLadderAgain", "Take in a ladder's file as the next version of an own ladder", func(ctx context.Context, c api.Caller, in *nextLadderFile) (cases.OwnLadder, error) {
		kept, err := c.View.Ladder(ctx, c.Practice, in.ID, 0)
		if err != nil {
			return cases.OwnLadder{}, err
		}
		return s.takeFile(ctx, c, kept, in.Body)
	})
}

func (s *Service) shippedFile(_ context.Context, _ api.Caller, in *ladderKey) (LadderFile, error) {
	l, ok := s.Catalog.Ladder(in.Key)
	if !ok {
		return LadderFile{}, store.ErrNotFound
	}
	text, err := yaml.Write(l)
	return LadderFile{Name: l.Key + ".yaml", Text: string(text)}, err
}

func (s *Service) ownFile(ctx context.Context, c api.Caller, in *api.ByID) (LadderFile, error) {
	kept, err := c.View.Ladder(ctx, c.Practice, in.ID, 0)
	if err != nil {
		return LadderFile{}, err
	}
	l := kept.Doc
	l.Name = phrase.Slotted(kept.Name)
	text, err := yaml.Write(l)
	return LadderFile{Name: fmt.Sprintf("%s-%d.yaml", l.Key, kept.Version), Text: string(text)}, err
}

// takeFile keeps what a file says of a ladder, held against the same checks as what is
// typed: what can't be changed there can't be changed in an editor either.
func (s *Service) takeFile(ctx context.Context, c api.Caller, kept store.Ladder, in LadderIn) (cases.OwnLadder, error) {
	house, err := s.CatalogOf(ctx, c) // whose usual pass mark may be another
	if err != nil {
		return cases.OwnLadder{}, err
	}
	w, faults := yaml.ReadLadder([]byte(in.Text), house.Rules)
	if len(faults) > 0 {
		return cases.OwnLadder{}, inFile(faults...)
	}
	if kept.Key != "" && kept.Key != w.Key {
		return cases.OwnLadder{}, wrongFile(fmt.Sprintf("This is a ladder %q; here belongs one of %q. Take it in as a ladder of its own, under Methods.", w.Key, kept.Key))
	}
	kept.Key = w.Key
	if _, ok := s.Catalog.Ladder(w.Key); !ok {
		return cases.OwnLadder{}, wrongFile(fmt.Sprintf("There is no ladder %q. An own ladder is a copy of one that ships: its first line names that one.", w.Key))
	}
	text := textOf(w.Ladder, in)
	beyond, err := s.Beyond(text)
	if err != nil {
		return cases.OwnLadder{}, err
	}
	if len(beyond) > 0 {
		return cases.OwnLadder{}, inFile(atLines(w, beyond)...)
	}
	return s.keepLadder(ctx, c, kept, text, func(shipped, before catalog.Ladder, used []string) (catalog.Ladder, error) {
		next, faults := checkedFile(s.Catalog, shipped, before, w, text, used)
		if len(faults) > 0 {
			return next, inFile(faults...)
		}
		return next, nil
	})
}

// checkedFile is the ladder as a file has it, and what is wrong with it.
func checkedFile(c *catalog.Catalog, shipped, before catalog.Ladder, w yaml.Written, text LadderText, used []string) (catalog.Ladder, []yaml.Fault) {
	next, wrong := edited(shipped, before, text)
	next.StandsOn = w.StandsOn // with all that a need says, which the text has not
	for i, step := range w.Steps {
		if next.Steps[i].Link == "" {
			next.Steps[i].Needs = step.Needs
		}
	}
	for _, f := range c.CheckOwn(next, used) {
		wrong = append(wrong, placed(c, next, f))
	}
	return next, append(w.Differs(next), atLines(w, wrong)...)
}

// ofStep is how a field of a step is named, as the form has it or as a body's limits do.
var ofStep = regexp.MustCompile(`^steps(?:\.|\[)(\d+)\]?\.?(.*)$`)

// atLines puts what is wrong with fields at the lines of the file.
func atLines(w yaml.Written, wrong []api.FieldProblem) []yaml.Fault {
	var faults []yaml.Fault
	for _, f := range wrong {
		at, field := yaml.Fault{Say: f.Say}, f.Field
		if m := ofStep.FindStringSubmatch(f.Field); m != nil {
			if i, err := strconv.Atoi(m[1]); err == nil && i < len(w.Steps) {
				at.Line = w.Line(w.Steps[i].Key)
			}
			field = m[2]
		}
		if field != "" && field != "steps" {
			at.Say = phrase.Raised(field) + ": " + f.Say
		}
		faults = append(faults, at)
	}
	return faults
}

func wrongFile(say string) error { return inFile(yaml.Fault{Say: say}) }

// inFile refuses a file with what is wrong in it.
func inFile(faults ...yaml.Fault) error {
	p := api.NewProblem(http.StatusUnprocessableEntity, "The file can't be kept as it is. Mend what is said here and take it in again; nothing was saved.")
	p.Errors = lined(faults)
	return p
}

// textOf is what can be changed of a ladder.
func textOf(l catalog.Ladder, in LadderIn) LadderText {
	text := LadderText{
		Version: in.Version, Ladder: l.Key, Name: string(l.Name), Reason: in.Reason, Where: string(l.Where), Watch: string(l.Watch),
		StandsOn: keysOf(l.StandsOn), Steps: []StepText{},
	}
	for _, step := range l.Steps {
		p := step.Pass
		text.Steps = append(text.Steps, StepText{
			Key: step.Key, Name: step.Name, Ask: string(step.Ask), Plain: string(step.Plain), Release: string(step.Release), Watch: string(step.Watch),
			Measures: step.Measures, Run: p.Run, Level: p.Level, Values: p.Values, Unit: p.Unit, Corrections: p.Corrections, And: p.And,
			Needs: keysOf(step.Needs), Kit: step.Kit, Sides: len(step.Variants) > 0, Ridden: step.Ridden,
		})
	}
	return text
}

func keysOf(needs []catalog.Need) []string {
	keys := []string{}
	for _, n := range needs {
		keys = append(keys, n.Step)
	}
	return keys
}

// lined says faults of a file one by one, each with its line, from the top.
func lined(faults []yaml.Fault) []api.FieldProblem {
	slices.SortStableFunc(faults, func(a, b yaml.Fault) int { return cmp.Compare(a.Line, b.Line) })
	var wrong []api.FieldProblem
	for i, f := range faults {
		say := f.Say
		if f.Line > 0 {
			say = fmt.Sprintf("Line %d: %s", f.Line, say)
		}
		wrong = append(wrong, api.FieldProblem{Field: "text." + strconv.Itoa(i), Say: say})
	}
	return wrong
}
