package horses

import (
	"bytes"
	"cmp"
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"slices"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/errgroup"

	"ivorybridge/core/attention"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// Row is a horse in the caseload.
type Row struct {
	ID         string            `json:"id"`
	Name       string            `json:"name"`
	Yard       string            `json:"yard"`
	Owners     []string          `json:"owners"`
	Case       cases.Case        `json:"case"`
	Bridge     progress.Bridge   `json:"bridge"`
	Care       horse.Care        `json:"care"`
	LastWorked string            `json:"last_worked,omitempty" format:"date"`
	DaysOff    int               `json:"days_off" doc:"days since any logged work; -1: never"`
	Attention  []attention.Note  `json:"attention"`
	Need       attention.Need    `json:"need" doc:"what the case needs; the rows stand in this order"`
	Aside      *phrase.Message   `json:"aside,omitempty" doc:"what stands quietly in the margin of a case that wants nothing"`
	Home       *phrase.Message   `json:"home,omitempty" doc:"what its owner practised today or yesterday"`
	Problem    phrase.Message    `json:"problem" doc:"what it is in work for"`
	Others     []progress.Bridge `json:"others" doc:"the bridges of its other problems"`
	Open       string            `json:"open_session,omitempty" doc:"id of a session that nobody has ended"`
	Assessed   bool              `json:"assessed" doc:"an assessment is there"`
	Unread     bool              `json:"unread,omitempty" doc:"this horse can't be read; its attention says so"`
}

// caseloads keeps the rows of the practices as they were said last, so that
// only a horse that has changed since is read again. All of it can be made again
// from the store.
type caseloads struct {
	kept *lru.Cache[string, *caseload]
	mu   sync.Mutex
}

// MaxCaseloads is of how many practices rows are kept.
const MaxCaseloads = 16

func newCaseloads() *caseloads {
	kept, err := lru.New[string, *caseload](MaxCaseloads)
	if err != nil {
		panic(err) // the size is above 0
	}
	return &caseloads{kept: kept}
}

func (l *caseloads) of(practice string) *caseload {
	l.mu.Lock()
	defer l.mu.Unlock()
	if one, ok := l.kept.Get(practice); ok {
		return one
	}
	one := &caseload{}
	l.kept.Add(practice, one)
	return one
}

// caseload is one practice's rows.
type caseload struct {
	mu     sync.Mutex
	basis  string // the day, the edition and the words that the rows are made by
	newest int64  // the practice's stamp when it was put together; 0: it never was
	rows   map[string]keptRow

	plain, zipped []byte // put together, as it is sent
}

// keptRow is a horse's row as it is sent, with what puts it in its place.
type keptRow struct {
	stamp int64
	place place
	name  string
	id    string
	yard  string // id
	body  []byte
}

// place puts a row among the others: what it needs, the date that is at stake, and
// how pressing its gravest note is.
type place struct {
	need attention.Need
	by   string
	rank int
}

func (p place) compare(o place) int {
	return cmp.Or(cmp.Compare(p.need.Rank(), o.need.Rank()), cmp.Compare(cmp.Or(p.by, someDay), cmp.Or(o.by, someDay)), cmp.Compare(p.rank, o.rank))
}

// someDay is after every date: where there is none.
const someDay = "9999"

func (s *Service) caseloadOperation() {
	op := s.Describe(api.Helpers, http.MethodGet, "/api/caseload", "caseload", "The horses by what they need")
	rows := s.Huma.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[[]Row](), true, "")
	op.Responses = map[string]*huma.Response{"200": {Description: "OK", Content: map[string]*huma.MediaType{"application/json": {Schema: rows}}}}
	huma.Register(s.Huma, op, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		c := api.CallerOf(ctx)
		plain, zipped, err := s.Caseload(ctx, c)
		if err != nil {
			return nil, s.Problem(ctx, err)
		}
		return &huma.StreamResponse{Body: func(h huma.Context) {
			h.SetHeader("Content-Type", "application/json")
			body := plain
			if strings.Contains(h.Header("Accept-Encoding"), "gzip") {
				h.SetHeader("Content-Encoding", "gzip")
				body = zipped
			}
			h.AppendHeader("Vary", "Accept-Encoding")
			_, _ = h.BodyWriter().Write(body) // nobody is left to be told
		}}, nil
	})
}

// Caseload gives the horses by what they need, as JSON, plain and compressed.
// Where nothing of the practice has changed it is what was said before.
func (s *Service) Caseload(ctx context.Context, c api.Caller) (plain, zipped []byte, err error) {
	l := s.caseloads.of(c.Practice)
	l.mu.Lock()
	defer l.mu.Unlock()
	basis := strings.Join([]string{c.Today(), s.Edition(), fmt.Sprint(c.Home.Words)}, " ")
	if l.basis != basis {
		l.basis, l.newest, l.rows = basis, 0, map[string]keptRow{}
	}
	// what changes from here on is read again next time
	newest, err := c.View.NewestStamp(ctx, c.Practice)
	if err != nil || newest == l.newest && l.plain != nil && c.Role != store.Helper {
		return l.plain, l.zipped, err
	}
	if err := s.refresh(ctx, c, l); err != nil {
		return nil, nil, err
	}
	l.newest = newest
	if err := l.join(); err != nil || c.Role != store.Helper {
		return l.plain, l.zipped, err
	}
	return together(l.inOrder(c.Yard))
}

// refresh reads the rows of the horses that have changed.
func (s *Service) refresh(ctx context.Context, c api.Caller, l *caseload) error {
	stamps, err := c.View.Stamps(ctx, c.Practice)
	if err != nil {
		return err
	}
	for id := range l.rows {
		if _, there := stamps[id]; !there {
			delete(l.rows, id)
		}
	}
	var changed []string
	for id, stamp := range stamps {
		if kept, there := l.rows[id]; !there || kept.stamp != stamp {
			changed = append(changed, id)
		}
	}
	rows := make([]keptRow, len(changed))
	reading, ctx := errgroup.WithContext(ctx)
	reading.SetLimit(readers)
	for i, id := range changed {
		reading.Go(func() error {
			return api.Guarded(func() (err error) {
				rows[i], err = s.keptRow(ctx, c, id, stamps[id])
				return err
			})
		})
	}
	if err := reading.Wait(); err != nil {
		return err
	}
	for _, r := range rows {
		l.rows[r.id] = r
	}
	return nil
}

// readers is how many horses of a caseload are read at once.
const readers = 2

// keptRow reads one horse's row, as it is at one moment not before its stamp. One
// that has no case has no body.
func (s *Service) keptRow(ctx context.Context, c api.Caller, id string, stamp int64) (r keptRow, err error) {
	r = keptRow{stamp: stamp, id: id}
	err = c.AtOneMoment(ctx, func(c api.Caller) error {
		h, err := c.View.HorseAsKept(ctx, c.Practice, id)
		if err != nil {
			return err
		}
		r.yard = h.YardID
		one, err := s.caseloadRow(ctx, c, h)
		if errors.Is(err, store.ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		c.Book.Tell(&one)
		r.place, r.name = place{need: one.Need, by: one.Case.NeededBy}, one.Name
		if len(one.Attention) > 0 {
			r.place.rank = one.Attention[0].Rank
		}
		r.body, err = json.Marshal(one)
		return err
	})
	if err != nil {
		return r, fmt.Errorf("reading a row of the caseload: %w", err)
	}
	return r, nil
}

// caseloadRow reads one horse. One that can't be read is a row that says so.
func (s *Service) caseloadRow(ctx context.Context, c api.Caller, h store.Horse) (Row, error) {
	id := h.ID
	kase, err := c.View.NewestCase(ctx, c.Practice, id)
	if err != nil {
		return Row{}, err
	}
	var one Row
	err = api.Guarded(func() error {
		if h.Damaged != nil {
			return h.Damaged
		}
		r, err := s.ReadOf(ctx, c, h, kase)
		if err == nil {
			one = row(r)
		}
		return err
	})
	if ctx.Err() != nil {
		return Row{}, ctx.Err()
	}
	if err != nil {
		one = s.unreadRow(ctx, h, kase, err)
	}
	return one, nil
}

// join puts the rows together: by what they need, then by date and name.
func (l *caseload) join() (err error) {
	l.plain, l.zipped, err = together(l.inOrder(""))
	return err
}

// inOrder lists the rows that have a case, of one yard if any is named.
func (l *caseload) inOrder(yard string) []keptRow {
	list := make([]keptRow, 0, len(l.rows))
	for _, r := range l.rows {
		if r.body != nil && (yard == "" || r.yard == yard) {
			list = append(list, r)
		}
	}
	slices.SortFunc(list, func(a, b keptRow) int {
		return cmp.Or(a.place.compare(b.place), cmp.Compare(a.name, b.name), cmp.Compare(a.id, b.id))
	})
	return list
}

// together is a list of rows as it is sent, plain and compressed.
func together(list []keptRow) (whole, packed []byte, err error) {
	var plain, zipped bytes.Buffer
	plain.WriteByte('[')
	for i, r := range list {
		if i > 0 {
			plain.WriteByte(',')
		}
		plain.Write(r.body)
	}
	plain.WriteString("]\n")
	z, err := gzip.NewWriterLevel(&zipped, gzip.BestSpeed)
	if err == nil {
		_, err = z.Write(plain.Bytes())
	}
	if err := errors.Join(err, z.Close()); err != nil {
		return nil, nil, fmt.Errorf("compressing the caseload: %w", err)
	}
	return plain.Bytes(), zipped.Bytes(), nil
}

func row(r cases.Reading) Row {
	view := Row{
		ID: r.Horse.ID, Name: r.Horse.Name, Yard: r.Horse.Yard.Name, Owners: []string{}, Case: cases.CaseOf(r.Case),
		Bridge: r.File.Bridge, Care: r.File.Risk.Care, LastWorked: r.File.LastWorked(), DaysOff: r.File.DaysOff,
		Attention: r.File.Attention(), Open: r.History.Open, Problem: cases.ProblemName(r.File.Problem().Problem), Others: r.File.Beside(), Assessed: r.File.Assessed != "",
	}
	for _, u := range r.Left() {
		view.Attention = slices.Insert(view.Attention, 0, attention.Noted(1, attention.Alarm, "unread.entry", u.Say.Args))
	}
	view.Attention = slices.Concat(r.LeftAtHome(), view.Attention)
	view.Need = r.File.Need(view.Attention)
	if home, ok := r.File.Home.Lately(r.Today); ok {
		view.Home = &home
	}
	if aside, ok := r.File.Aside(view.Need); ok {
		view.Aside = &aside
	}
	for _, o := range r.Horse.Owners {
		view.Owners = append(view.Owners, o.Name)
	}
	return view
}

// unreadRow is the caseload's row of a horse that can't be read: its name, and
// that all of it is kept.
func (s *Service) unreadRow(ctx context.Context, h store.Horse, kase store.Case, err error) Row {
	s.Log.ErrorContext(ctx, "a horse can't be read", "horse", h.ID, "error", err.Error())
	row := Row{ID: h.ID, Name: h.Name, Yard: h.Yard.Name, Owners: []string{}, Case: cases.CaseOf(kase), Unread: true, Others: []progress.Bridge{}, Need: attention.First, Attention: []attention.Note{attention.Noted(1, attention.Alarm, "unread.horse", nil)}}
	for _, o := range h.Owners {
		row.Owners = append(row.Owners, o.Name)
	}
	return row
}
