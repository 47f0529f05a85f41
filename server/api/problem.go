package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ivorybridge/core/horse"
	"ivorybridge/store"
)

// A FieldProblem says what is wrong with one field and what to do.
type FieldProblem struct {
	Field string `json:"field" doc:"path of the field in the body, as in story.successes"`
	Say   string `json:"say"`
}

// Problem is what goes wrong, as problem+json.
type Problem struct {
	Type    string         `json:"type,omitempty"`
	Title   string         `json:"title"`
	Status  int            `json:"status"`
	Detail  string         `json:"detail" doc:"a sentence for people: what is wrong and what to do"`
	Errors  []FieldProblem `json:"errors,omitempty"`
	Current any            `json:"current,omitempty" doc:"on 409: the version now kept"`
	Ended   bool           `json:"ended,omitempty" doc:"on 401: the sign-in was ended, it did not run out; what is kept of it on the device goes"`
}

func (p *Problem) Error() string { return p.Detail }

// GetStatus is the HTTP status.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType names the format of a problem.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

// NewProblem is a problem with its sentence.
func NewProblem(status int, detail string) *Problem {
	return &Problem{Title: http.StatusText(status), Status: status, Detail: detail}
}

// newStatusError takes what the library found wrong with a request. The
// submitted values are not echoed: one may be a password.
func newStatusError(status int, msg string, errs ...error) huma.StatusError {
	p := NewProblem(status, msg)
	p.Errors = fieldsOf(errs)
	switch {
	case status == http.StatusRequestEntityTooLarge:
		p.Detail = "That is too large to be sent. Shorten a text; of a picture send one of 12 MB or less."
	case status == http.StatusRequestTimeout:
		p.Detail = "It took too long to arrive. Try again."
	case status == http.StatusUnprocessableEntity || status == http.StatusBadRequest:
		p.Status, p.Title = http.StatusUnprocessableEntity, http.StatusText(http.StatusUnprocessableEntity)
		p.Detail = "Something can't be kept as it is. Look at the marked fields; nothing was saved."
	case status >= http.StatusInternalServerError:
		p.Detail = "Something went wrong on our side. Nothing was half-saved. Try again."
	}
	return p
}

// fieldsOf is what the library found wrong, field by field.
func fieldsOf(errs []error) (wrong []FieldProblem) {
	for _, err := range errs {
		var d huma.ErrorDetailer
		if !errors.As(err, &d) {
			wrong = append(wrong, FieldProblem{Say: Readable(err.Error())})
			continue
		}
		detail := d.ErrorDetail()
		wrong = append(wrong, FieldProblem{Field: FieldOf(*detail), Say: Readable(detail.Message)})
	}
	return wrong
}

// FieldOf is the place in the body that a message speaks of; a missing field is
// its own place.
func FieldOf(d huma.ErrorDetail) string {
	at := strings.TrimPrefix(strings.TrimPrefix(d.Location, "body"), ".")
	if rest, ok := strings.CutPrefix(d.Message, "The field "); ok {
		name, _, _ := strings.Cut(rest, " ")
		at = strings.TrimPrefix(at+"."+name, ".")
	}
	return at
}

var goType = regexp.MustCompile(`^(json|invalid character|unexpected end)`)

// Readable replaces a decoder's own wording.
func Readable(said string) string {
	if goType.MatchString(said) {
		return "This can't be read. It must be JSON."
	}
	return said
}

// Beyond lists what of a value is longer, more or otherwise than the fields of its type
// allow, as it is listed for a body: for what came in another way. The type must be that of
// a body that is asked for somewhere.
func (s *API) Beyond(value any) ([]FieldProblem, error) {
	text, err := json.Marshal(value)
	if err != nil {
		return nil, fmt.Errorf("looking at limits: %w", err)
	}
	var tree any
	if err := json.Unmarshal(text, &tree); err != nil {
		return nil, fmt.Errorf("looking at limits: %w", err)
	}
	known := s.Huma.OpenAPI().Components.Schemas
	var res huma.ValidateResult
	huma.Validate(known, known.Schema(reflect.TypeOf(value), true, ""), huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, tree, &res)
	return fieldsOf(res.Errors), nil
}

// Faulty is a request that can't be: one sentence for each field.
func Faulty(fields ...FieldProblem) error {
	p := NewProblem(http.StatusUnprocessableEntity, "Something can't be kept as it is. Look at the marked fields; nothing was saved.")
	p.Errors = fields
	return p
}

// notADate is what is said of a text that is to be a date and is none.
const notADate = "This is not a date. Write it as year-month-day, for example 2026-05-01."

// NoDate says that a field is no date.
func NoDate(field string) FieldProblem { return FieldProblem{Field: field, Say: notADate} }

// Faults puts what a rule found wrong with fields under a prefix.
func Faults[F ~struct{ Field, Say string }](prefix string, list []F) []FieldProblem {
	var fields []FieldProblem
	for _, f := range list {
		one := struct{ Field, Say string }(f)
		fields = append(fields, FieldProblem{Field: prefix + one.Field, Say: one.Say})
	}
	return fields
}

// Problem turns an error into what is answered; what is nobody's mistake but
// ours is logged.
func (s *API) Problem(ctx context.Context, err error) error {
	var p *Problem
	var value *horse.ValueError
	var gone *store.MissingError
	var damaged *store.DamagedError
	switch {
	case errors.As(err, &p):
		return p
	case errors.As(err, &gone):
		return NewProblem(http.StatusNotFound, "The "+gone.What+" is not here, or not any more. Choose another; nothing was saved.")
	case errors.As(err, &damaged):
		s.Log.ErrorContext(ctx, "a record can't be read", "error", err.Error())
		return NewProblem(http.StatusUnprocessableEntity, "One record of this can't be read: "+damaged.What+". All of it is kept. Other horses are not touched; tell whoever keeps the server, its log says which.")
	case IsBroken(err):
		s.Log.ErrorContext(ctx, "the rules broke off", "error", err.Error())
		return NewProblem(http.StatusUnprocessableEntity, "This can't be read as it was logged. All of it is kept. Other horses are not touched; tell whoever keeps the server, its log says why.")
	case errors.Is(err, store.ErrNotFound):
		return NewProblem(http.StatusNotFound, "That is not here, or not any more. Go back to the list and choose again.")
	case errors.Is(err, store.ErrTaken):
		return NewProblem(http.StatusConflict, "That is there already.")
	case errors.Is(err, store.ErrLastLead):
		return NewProblem(http.StatusConflict, "The last lead trainer stays. Make somebody else a lead trainer first.")
	case errors.Is(err, store.ErrHasEntries):
		return NewProblem(http.StatusConflict, "Something was logged in this session, so it stays. End it instead.")
	case errors.Is(err, store.ErrOther):
		return NewProblem(http.StatusConflict, "This id is kept already with other content. Both stay; reload to see what is kept.")
	case errors.As(err, &value):
		return NewProblem(http.StatusUnprocessableEntity, value.Error())
	case errors.Is(err, store.ErrPicture):
		s.Log.ErrorContext(ctx, "a photograph is missing or damaged: put it back from a copy", "error", err.Error())
		return NewProblem(http.StatusNotFound, "This picture is missing on the server, or was damaged there. Tell whoever keeps the server: a copy may have it.")
	case errors.Is(err, store.ErrRefused):
		return NewProblem(http.StatusUnprocessableEntity, "Something in this can't be kept: a text is too long, or a day or a time is none. Look over what was typed; nothing was saved.")
	case errors.Is(err, context.Canceled), errors.Is(err, io.ErrUnexpectedEOF):
		return NewProblem(http.StatusRequestTimeout, "The request was broken off.")
	}
	s.Store.Note(err)
	if b, did := befell(err); did {
		if s.told.first(b.err, s.Now()) {
			s.Log.ErrorContext(ctx, b.log, "error", err.Error())
		}
		p := NewProblem(b.status, b.say)
		p.Title = b.short
		return p
	}
	s.Log.ErrorContext(ctx, "request failed", "error", err.Error())
	return NewProblem(http.StatusInternalServerError, "Something went wrong on our side. Nothing was half-saved. Try again.")
}

type befall struct {
	err             error
	status          int
	short, say, log string
}

// befell is what befell the place of the database, if anything did.
func befell(err error) (befall, bool) {
	i := slices.IndexFunc(befalls, func(b befall) bool { return errors.Is(err, b.err) })
	if i < 0 {
		return befall{}, false
	}
	return befalls[i], true
}

// befalls is what can befall the place of the database: what is said on the
// screen, and in the log to whoever keeps the server.
var befalls = []befall{
	{
		store.ErrFull, http.StatusInsufficientStorage, "the server's disk is full",
		"The server's disk is full, so this was not kept there. What you typed stays here. Tell whoever keeps the server; it goes on once there is room.",
		"the disk is full: make room on it; the server goes on by itself",
	},
	{
		store.ErrReadOnly, http.StatusServiceUnavailable, "the server may not write",
		"The server may not write to its folder, so this was not kept there. What you typed stays here. Tell whoever keeps the server.",
		"the folder of the database can't be written to: let the server's user write there; the server goes on by itself",
	},
	{
		store.ErrGone, http.StatusServiceUnavailable, "the server's database is not there",
		"The server's database is not where it was, so this was not kept there. What you typed stays here. Tell whoever keeps the server.",
		"the database is not where it was: put its folder back, and the server goes on by itself; where another copy was put there, start the server again",
	},
	{
		store.ErrDamaged, http.StatusServiceUnavailable, "the server's database is damaged",
		"The server's database is damaged. What you typed stays here. Tell whoever keeps the server: the last copy puts it right.",
		"the database file is damaged: stop the server, and put the last copy in its place with 'ivorybridge restore'",
	},
	{
		store.ErrDisk, http.StatusServiceUnavailable, "the server's disk fails",
		"The server's disk can't be read or written, so this was not kept there. What you typed stays here. Tell whoever keeps the server.",
		"the disk can't be read or written: look at the disk; the server goes on by itself once it answers",
	},
	{
		store.ErrBusy, http.StatusServiceUnavailable, "the server is busy",
		"Something else is writing to the server's database. What you typed stays here. Try again in a moment.",
		"another program holds the database: let it end",
	},
}

// tellAgain is how long one and the same cause is not told in the log again.
const tellAgain = time.Minute

// told knows what was told in the log, and when.
type told struct {
	mu sync.Mutex
	at map[error]time.Time
}

// first reports whether a cause is to be told now.
func (t *told) first(cause error, now time.Time) bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	if last, was := t.at[cause]; was && now.Sub(last).Abs() < tellAgain {
		return false
	}
	t.at[cause] = now
	return true
}

// Advice says to whoever keeps the server what befell the place of the database and
// what to do; empty: nothing did.
func Advice(err error) string {
	b, _ := befell(err)
	return b.log
}

// Stale answers a write on an old version with the version now kept.
func Stale[T any](err error, view func(any) T) error {
	var old *store.StaleError
	if !errors.As(err, &old) {
		return err
	}
	p := NewProblem(http.StatusConflict, "Somebody else has changed this since you opened it. Both versions are shown; nothing of yours is lost.")
	p.Current = view(old.Current)
	return p
}

// WriteProblem answers a request of the engine with a problem.
func WriteProblem(g *gin.Context, status int, detail string) {
	SendProblem(g.Writer, NewProblem(status, detail))
	g.Abort()
}

// SendProblem writes a problem.
func SendProblem(w http.ResponseWriter, p *Problem) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(p.Status)
	_ = json.NewEncoder(w).Encode(p) // the caller may have gone; nobody is left to tell
}
