package reports

import (
	"context"
	"fmt"
	"strings"

	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/server/paper"
)

// PDF is a document as a file.
type PDF struct {
	ContentType  string `header:"Content-Type"`
	Disposition  string `header:"Content-Disposition"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// pdf prints a sheet. The name of the file holds no character that a device stumbles
// over.
func (s *Service) pdf(ctx context.Context, c api.Caller, sheet paper.Sheet, name string) (*PDF, error) {
	body, err := paper.Write(sheet, c.Book)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	plain := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= 'A' && r <= 'Z', r >= '0' && r <= '9', r == '-':
			return r
		}
		return '-'
	}, name)
	return &PDF{ContentType: "application/pdf", Disposition: `attachment; filename="` + plain + `.pdf"`, CacheControl: "private, no-store", Body: body}, nil
}

func (s *Service) reportPDF(ctx context.Context, in *api.ByID) (*PDF, error) {
	c := api.CallerOf(ctx)
	var view Report
	err := c.AtOneMoment(ctx, func(c api.Caller) (err error) {
		view, err = s.report(ctx, c, in)
		return err
	})
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	under := c.Book.Say(phrase.Of("report.under", phrase.Args{"on": phrase.Date(view.Date), "yard": view.Yard, "for": strings.Join(view.For, ", ")}))
	return s.pdf(ctx, c, paper.Sheet{
		Title: view.Horse.Name, Under: under, Right: fmt.Sprintf("%s, %s", c.Home.Name, view.By), Doc: view.Document, At: c.Now, Short: true,
	}, view.Horse.Name+"-"+view.Date)
}
