package house

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/google/uuid"

	"ivorybridge/core/horse"
	"ivorybridge/core/notebook"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

func (s *Service) notebookOperations() {
	api.Operation(s.API, api.LeadsOnly, http.MethodGet, "/api/house/notebooks", "notebooks", "The notebooks of earlier years that were taken in", api.AtOnce(s.notebooks))
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/house/notebooks/look", "lookAtNotebook", "What a table would bring; nothing is kept", api.AtOnce(s.lookAt))
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/house/notebooks", "takeNotebook", "Take a table in: all of it that can be read, or nothing", s.takeNotebook)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/notebooks/{id}/undo", "undoNotebook", "Take back all that a notebook brought", s.undoNotebook)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/notebook", "notebookOf", "What notebooks of earlier years say of a horse", api.AtOnce(s.notebookOf))
}

// NotebookText is a table that is looked at or taken in.
type NotebookText struct {
	Name    string   `json:"name" maxLength:"200" doc:"of the file"`
	Text    string   `json:"text" maxLength:"230000"`
	Columns []string `json:"columns,omitempty" maxItems:"60" doc:"the field of each column, empty where it is left out; absent: guessed"`
	Problem string   `json:"problem,omitempty" maxLength:"40" doc:"of horses that are not here yet"`
	Skip    bool     `json:"skip,omitempty" doc:"take in all but the lines that can't be read"`
}

// NotebookLook is what a table would bring.
type NotebookLook struct {
	Header   []string              `json:"header"`
	Columns  []string              `json:"columns" doc:"the field of each column; empty: left out"`
	Fields   []notebook.Field      `json:"fields" doc:"those there are"`
	First    [][]string            `json:"first" doc:"the first five lines"`
	Lines    int                   `json:"lines" doc:"in all"`
	Good     int                   `json:"good" doc:"that can be read"`
	Wrong    []notebook.Wrong      `json:"wrong" doc:"the first hundred that can't"`
	AllWrong int                   `json:"all_wrong"`
	New      []string              `json:"new" doc:"horses that are not here yet"`
	Known    []string              `json:"known" doc:"horses that are"`
	People   []string              `json:"people" doc:"owners that are not here yet"`
	Problems []cases.ProblemChoice `json:"problems" doc:"one is chosen for horses that are not here yet"`
}

type notebookInput struct{ Body NotebookText }

// sorted is a table made ready to be taken in.
type sorted struct {
	table   notebook.Table
	columns []notebook.Field
	entries []notebook.Entry
	wrong   []notebook.Wrong
	known   map[string]string // ids of horses that are here, by their names in small letters
	people  map[string]string // of people
	new     []string          // names of horses that are not
	owners  []string          // names of people that are not
}

func (s *Service) sort(ctx context.Context, c api.Caller, t NotebookText) (n sorted, err error) {
	if n.table, err = notebook.Read(t.Text); err != nil {
		return n, api.Faulty(api.FieldProblem{Field: "text", Say: err.Error()})
	}
	if t.Columns == nil {
		n.columns = notebook.Guess(n.table.Header)
	}
	for _, word := range t.Columns {
		var f notebook.Field
		if word != "" && f.UnmarshalText([]byte(word)) != nil {
			return n, api.Faulty(api.FieldProblem{Field: "columns", Say: "Choose what a column is from the list."})
		}
		n.columns = append(n.columns, f)
	}
	for _, f := range []notebook.Field{notebook.Horse, notebook.Date} {
		if len(t.Columns) > 0 && !slices.Contains(n.columns, f) {
			return n, api.Faulty(api.FieldProblem{Field: "columns", Say: fmt.Sprintf("Say which column is the %s.", f)})
		}
	}
	for i, f := range n.columns {
		if !f.IsZero() && slices.Contains(n.columns[:i], f) {
			return n, api.Faulty(api.FieldProblem{Field: "columns", Say: fmt.Sprintf("Two columns are the %s. Leave one out.", f)})
		}
	}
	n.entries, n.wrong = notebook.Check(n.table, n.columns, c.Today())
	if n.known, n.people, err = s.here(ctx, c); err != nil {
		return n, err
	}
	for _, e := range n.entries {
		if _, here := n.known[small(e.Horse)]; !here && !containsFold(n.new, e.Horse) {
			n.new = append(n.new, e.Horse)
		}
		if _, here := n.people[small(e.Owner)]; e.Owner != "" && !here && !containsFold(n.owners, e.Owner) {
			n.owners = append(n.owners, e.Owner)
		}
	}
	return n, nil
}

func small(name string) string { return strings.ToLower(strings.TrimSpace(name)) }

func containsFold(list []string, name string) bool {
	return slices.ContainsFunc(list, func(o string) bool { return strings.EqualFold(o, name) })
}

// here are the horses and people of the practice, by their names.
func (s *Service) here(ctx context.Context, c api.Caller) (horses, people map[string]string, err error) {
	all, err := c.View.Horses(ctx, c.Practice)
	if err != nil {
		return nil, nil, err
	}
	persons, err := c.View.People(ctx, c.Practice)
	if err != nil {
		return nil, nil, err
	}
	horses, people = map[string]string{}, map[string]string{}
	for _, h := range all {
		horses[small(h.Name)] = h.ID
	}
	for _, p := range persons {
		people[small(p.Name)] = p.ID
	}
	return horses, people, nil
}

const (
	shownLines = 5
	shownWrong = 100
)

func (s *Service) lookAt(ctx context.Context, c api.Caller, in *notebookInput) (NotebookLook, error) {
	n, err := s.sort(ctx, c, in.Body)
	if err != nil {
		return NotebookLook{}, err
	}
	view := NotebookLook{
		Header: n.table.Header, Columns: []string{}, Fields: notebook.Field{}.All(), First: [][]string{}, Lines: len(n.table.Lines), Good: len(n.entries),
		Wrong: []notebook.Wrong{}, New: []string{}, Known: []string{}, People: []string{}, Problems: []cases.ProblemChoice{},
	}
	for i := range n.table.Header {
		word := ""
		if i < len(n.columns) && !n.columns[i].IsZero() {
			word = n.columns[i].String()
		}
		view.Columns = append(view.Columns, word)
	}
	for _, row := range n.table.Lines[:min(shownLines, len(n.table.Lines))] {
		view.First = append(view.First, row.Cells)
	}
	view.Wrong = append(view.Wrong, n.wrong[:min(shownWrong, len(n.wrong))]...)
	view.AllWrong = len(n.table.Lines) - len(n.entries)
	view.New, view.People = append(view.New, n.new...), append(view.People, n.owners...)
	for _, e := range n.entries {
		if _, here := n.known[small(e.Horse)]; here && !containsFold(view.Known, e.Horse) {
			view.Known = append(view.Known, e.Horse)
		}
	}
	for _, p := range (horse.Problem{}).All() {
		if l, ok := s.Catalog.LadderFor(p); ok {
			view.Problems = append(view.Problems, cases.ChoiceOf(p, l))
		}
	}
	return view, nil
}

func (s *Service) takeNotebook(ctx context.Context, c api.Caller, in *notebookInput) (NotebookKept, error) {
	n, err := s.sort(ctx, c, in.Body)
	if err != nil {
		return NotebookKept{}, err
	}
	var problem horse.Problem
	unknown := problem.UnmarshalText([]byte(in.Body.Problem)) != nil || problem.IsZero()
	switch {
	case len(n.wrong) > 0 && !in.Body.Skip:
		return NotebookKept{}, api.Faulty(api.FieldProblem{Field: "text", Say: fmt.Sprintf("%d lines can't be read. Put them right, or leave them out.", len(n.table.Lines)-len(n.entries))})
	case len(n.entries) == 0:
		return NotebookKept{}, api.Faulty(api.FieldProblem{Field: "text", Say: "No line can be read. Say what the columns are."})
	case len(n.new) > 0 && unknown:
		return NotebookKept{}, api.Faulty(api.FieldProblem{Field: "problem", Say: "Choose what the horses that are not here yet came for."})
	}
	taken := s.brings(c, n, problem)
	taken.ID, taken.Name = uuid.NewString(), cmp.Or(strings.TrimSpace(in.Body.Name), "a notebook")
	if err := s.Store.TakeNotebook(ctx, c.Actor(), taken); err != nil {
		return NotebookKept{}, err
	}
	s.changed()
	return NotebookKept{ID: taken.ID, Name: taken.Name, Lines: len(taken.Lines), Horses: len(taken.Horses), People: len(taken.People), By: c.Name, At: c.Now.UnixMilli()}, nil
}

// brings makes the rows of a table: horses and people that are not here yet, and every line.
func (s *Service) brings(c api.Caller, n sorted, problem horse.Problem) (taken store.NotebookTaken) {
	ladder, _ := s.Catalog.LadderFor(problem)
	nobody := "" // owns the horses of which the table names no owner
	person := func(name string, e notebook.Entry) string {
		if name == "" {
			if nobody == "" {
				nobody = uuid.NewString()
				taken.People = append(taken.People, store.Person{ID: nobody, Kind: "owner", Name: "owner not written down"})
			}
			return nobody
		}
		if n.people[small(name)] == "" {
			n.people[small(name)] = uuid.NewString()
			taken.People = append(taken.People, store.Person{ID: n.people[small(name)], Kind: "owner", Name: name, Phone: e.Phone, Email: e.Email})
		}
		return n.people[small(name)]
	}
	at := map[string]int{} // places of new horses
	for _, e := range n.entries {
		id, here := n.known[small(e.Horse)]
		if !here {
			id = uuid.NewString()
			n.known[small(e.Horse)] = id
			at[id] = len(taken.Horses)
			taken.Horses = append(taken.Horses, store.Intake{
				Horse: store.Horse{ID: id, Name: e.Horse}, OwnerID: person(e.Owner, e),
				Case: store.Case{ID: uuid.NewString(), Problem: problem.String(), Ladder: ladder.Key, Goal: "From the notebook of earlier years", OpenedOn: e.Date, FinishedOn: e.Date},
			})
		}
		if i, brought := at[id]; brought {
			k := &taken.Horses[i].Case
			k.OpenedOn, k.FinishedOn = min(k.OpenedOn, e.Date), max(k.FinishedOn, e.Date)
		}
		taken.Lines = append(taken.Lines, store.NotebookLine{Line: e.Line, HorseID: id, On: e.Date, What: e.What, Minutes: e.Minutes, Note: e.Note})
	}
	return taken
}

// NotebookKept is a notebook that was taken in.
type NotebookKept struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	By     string `json:"by"`
	At     int64  `json:"at" doc:"ms"`
	Lines  int    `json:"lines"`
	Horses int    `json:"horses" doc:"that it brought"`
	People int    `json:"people" doc:"that it brought"`
	Undone bool   `json:"undone"`
}

func (s *Service) notebooks(ctx context.Context, c api.Caller, _ *struct{}) ([]NotebookKept, error) {
	kept, err := c.View.Notebooks(ctx, c.Practice)
	list := make([]NotebookKept, 0, len(kept))
	for _, n := range kept {
		list = append(list, NotebookKept{n.ID, n.Name, n.TakenBy, n.TakenAt, n.Lines, len(n.Brought.Horses), len(n.Brought.People), n.Undone})
	}
	return list, err
}

func (s *Service) undoNotebook(ctx context.Context, c api.Caller, in *api.ByID) ([]NotebookKept, error) {
	err := s.Store.UndoNotebook(ctx, c.Actor(), in.ID)
	if errors.Is(err, store.ErrWorkedWith) {
		return nil, api.NewProblem(http.StatusConflict, "Somebody has worked with a horse or a person of this notebook since. Nothing was taken back.")
	}
	if err != nil {
		return nil, err
	}
	s.changed()
	return s.notebooks(ctx, c, nil)
}

// NotebookLine is what a notebook says of a horse on a day.
type NotebookLine struct {
	On       string `json:"on" format:"date"`
	What     string `json:"what,omitempty"`
	Minutes  *int   `json:"minutes,omitempty"`
	Note     string `json:"note,omitempty"`
	Notebook string `json:"notebook" doc:"its name"`
}

func (s *Service) notebookOf(ctx context.Context, c api.Caller, in *api.ByID) ([]NotebookLine, error) {
	if _, err := c.View.Horse(ctx, c.Practice, in.ID); err != nil {
		return nil, err
	}
	kept, err := c.View.NotebookLines(ctx, c.Practice, in.ID)
	list := make([]NotebookLine, 0, len(kept))
	for _, l := range kept {
		list = append(list, NotebookLine{l.On, l.What, l.Minutes, l.Note, l.Notebook})
	}
	return list, err
}
