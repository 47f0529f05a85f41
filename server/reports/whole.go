package reports

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"ivorybridge/core/phrase"
	"ivorybridge/core/report"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/server/paper"
	"ivorybridge/store"
)

// Paper is a document of a horse that is of no single visit: the page at the end of
// the work, or the whole file.
type Paper struct {
	report.Document
	Horse   cases.HorseRef `json:"horse"`
	Title   string         `json:"title"`
	Under   string         `json:"under"`
	Right   string         `json:"right"`
	Message string         `json:"message" doc:"as plain text, for a message"`
	Version int64          `json:"version" doc:"of the trainer's wording; 0: none yet, or a file that nobody words"`
}

// A writing makes one of them.
type writing struct {
	title string // key of its phrase
	last  bool   // it is the owner's last page: it stands on one sheet, and the trainer words it
	write func(*Service, context.Context, api.Caller, cases.Reading) (report.Document, error)
}

// The two of them.
var (
	closing = writing{"report.title.closing", true, func(s *Service, ctx context.Context, c api.Caller, r cases.Reading) (report.Document, error) {
		return s.Closing(ctx, c, r)
	}}
	whole = writing{"report.title.whole", false, func(s *Service, ctx context.Context, c api.Caller, r cases.Reading) (report.Document, error) {
		return s.Whole(ctx, c, r)
	}}
)

func (s *Service) wholeOperations() {
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/horses/{id}/closing", "wordClosing", "Keep the trainer's wording of the page at the end of the work", s.wordClosing)
	for _, one := range []struct {
		path, id, summary string
		writing
	}{
		{"closing", "closing", "The page at the end of the work", closing},
		{"file", "wholeFile", "The whole file, for whoever takes over", whole},
	} {
		api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/"+one.path, one.id, one.summary, api.AtOnce(
			func(ctx context.Context, c api.Caller, in *api.ByID) (Paper, error) {
				return s.paper(ctx, c, in.ID, one.writing)
			}))
		huma.Register(s.Huma, s.Describe(api.Staff, http.MethodGet, "/api/horses/{id}/"+one.path+".pdf", one.id+"PDF", one.summary+", to print or to send"),
			func(ctx context.Context, in *api.ByID) (*PDF, error) {
				c := api.CallerOf(ctx)
				var p Paper
				err := c.AtOneMoment(ctx, func(c api.Caller) (err error) {
					p, err = s.paper(ctx, c, in.ID, one.writing)
					return err
				})
				if err != nil {
					return nil, s.Problem(ctx, err)
				}
				return s.pdf(ctx, c, paper.Sheet{Title: p.Title, Under: p.Under, Right: p.Right, Doc: p.Document, At: c.Now, Short: one.last}, p.Horse.Name+"-"+one.path)
			})
	}
}

// wordClosing keeps the trainer's wording of the page at the end of the work.
func (s *Service) wordClosing(ctx context.Context, c api.Caller, in *wordingInput) (Paper, error) {
	r, err := s.Newest(ctx, c, in.ID)
	if err != nil {
		return Paper{}, err
	}
	doc, err := closing.write(s, ctx, c, r)
	if err != nil {
		return Paper{}, err
	}
	earlier, err := c.View.ClosingEdits(ctx, c.Practice, r.Case.ID)
	if err != nil {
		return Paper{}, err
	}
	if err := unworded(doc, earlier.Edits, in.Body.Edits); err != nil {
		return Paper{}, err
	}
	if err := s.Store.SaveClosing(ctx, c.Actor(), r.Case.ID, store.Edits{Version: in.Body.Version, Edits: in.Body.Edits}); err != nil {
		return Paper{}, staleWording(err)
	}
	return s.paper(ctx, c, in.ID, closing)
}

func (s *Service) paper(ctx context.Context, c api.Caller, id string, w writing) (Paper, error) {
	r, err := s.Newest(ctx, c, id)
	if err != nil {
		return Paper{}, err
	}
	s.Opened(ctx, c, r.Horse.ID, cases.OpenedReport)
	doc, err := w.write(s, ctx, c, r)
	if err != nil {
		return Paper{}, err
	}
	var edits store.Edits
	if w.last {
		if edits, err = c.View.ClosingEdits(ctx, c.Practice, r.Case.ID); err != nil {
			return Paper{}, err
		}
		doc = doc.With(edits.Edits)
	}
	args := phrase.Args{"horse": r.Horse.Name, "on": phrase.Date(c.Today()), "yard": r.Horse.Yard.Name}
	p := Paper{Document: doc, Version: edits.Version, Horse: cases.RefOf(r.Horse), Title: c.Book.Say(phrase.Of(w.title, args)), Under: c.Book.Say(phrase.Of("report.title.under", args)), Right: c.Home.Name + ", " + c.Name}
	p.Message = doc.Text(c.Book, p.Title)
	return p, nil
}
