package methods

import (
	"bytes"
	"context"
	"fmt"
	"io/fs"
	"net/http"
	"path"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/extension"
	"github.com/yuin/goldmark/text"

	"ivorybridge/core/phrase"
	"ivorybridge/docs"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// HandbookPart is one part of the handbook in the list of them.
type HandbookPart struct {
	Key   string `json:"key"`
	Title string `json:"title"`
}

// HandbookPage is one part of the handbook, in the practice's words.
type HandbookPage struct {
	HandbookPart
	HTML  string         `json:"html" doc:"the page as plain HTML, without scripts or styles"`
	Parts []HandbookPart `json:"parts" doc:"all parts, in their order"`
}

type handbookInput struct {
	Part string `path:"part" maxLength:"60"`
}

func (s *Service) handbookOperations() {
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/handbook/{part}", "handbook", "A part of the handbook: how the product judges", s.handbook)
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/guide/{part}", "guide", "A page of the user's guide", s.guide)
	huma.Register(s.Huma, s.Describe(api.Helpers, http.MethodGet, "/api/guide/pictures/{part}", "guidePicture", "A picture of the guide"), s.guidePicture)
}

func (s *Service) handbook(_ context.Context, c api.Caller, in *handbookInput) (HandbookPage, error) {
	files, err := docs.Handbook()
	if err != nil {
		return HandbookPage{}, fmt.Errorf("opening the handbook: %w", err)
	}
	return pageOf(c, files, in.Part, "/methods/handbook/")
}

func (s *Service) guide(_ context.Context, c api.Caller, in *handbookInput) (HandbookPage, error) {
	files, err := docs.Guide()
	if err != nil {
		return HandbookPage{}, fmt.Errorf("opening the guide: %w", err)
	}
	return pageOf(c, files, in.Part, "/guide/")
}

// GuidePicture is a picture of the guide.
type GuidePicture struct {
	Type  string `header:"Content-Type"`
	Cache string `header:"Cache-Control"`
	Body  []byte
}

func (s *Service) guidePicture(ctx context.Context, in *handbookInput) (*GuidePicture, error) {
	picture, err := docs.Picture(in.Part)
	if err != nil {
		return nil, s.Problem(ctx, store.ErrNotFound)
	}
	return &GuidePicture{Type: "image/png", Cache: "private, max-age=86400", Body: picture}, nil
}

// pageOf is a page of a book, whose links lead to addresses under at.
func pageOf(c api.Caller, files fs.FS, wanted, at string) (HandbookPage, error) {
	page := HandbookPage{}
	names, err := fs.Glob(files, "*.md")
	if err != nil {
		return page, fmt.Errorf("listing the handbook: %w", err)
	}
	for _, name := range names {
		key := strings.TrimSuffix(name, ".md")
		source, err := fs.ReadFile(files, name)
		if err != nil {
			return page, fmt.Errorf("reading the handbook: %w", err)
		}
		part := HandbookPart{Key: key, Title: inWords(c, title(source))}
		page.Parts = append(page.Parts, part)
		if key != wanted {
			continue
		}
		page.HandbookPart = part
		if page.HTML, err = plainPage(c, source, at); err != nil {
			return page, err
		}
	}
	if page.Key == "" {
		return page, store.ErrNotFound
	}
	slices.SortFunc(page.Parts, func(a, b HandbookPart) int { return a.place() - b.place() })
	return page, nil
}

// place is the part's number; the list of contents comes first.
func (p HandbookPart) place() int {
	n, _ := strconv.Atoi(strings.SplitN(p.Key, "-", 2)[0]) // contents has none
	return n
}

// title is the first heading of a part.
func title(source []byte) string {
	line, _, _ := strings.Cut(string(source), "\n")
	return strings.TrimSpace(strings.TrimLeft(line, "#"))
}

// plainPage makes HTML of a part, in the practice's words. What stands in code
// stays as it is spelled.
func plainPage(c api.Caller, source []byte, at string) (string, error) {
	tables := extension.NewTable(extension.WithTableCellAlignMethod(extension.TableCellAlignAttribute))
	md := goldmark.New(goldmark.WithExtensions(tables))
	page := md.Parser().Parse(text.NewReader(source))
	otherwise := map[*ast.Text]string{}
	err := ast.Walk(page, func(n ast.Node, entering bool) (ast.WalkStatus, error) {
		if !entering {
			return ast.WalkContinue, nil
		}
		switch n := n.(type) {
		case *ast.CodeSpan, *ast.CodeBlock, *ast.FencedCodeBlock:
			return ast.WalkSkipChildren, nil
		case *ast.Link:
			n.Destination = []byte(strings.TrimSuffix(path.Base(string(n.Destination)), ".md"))
			n.Destination = append([]byte(at), n.Destination...)
		case *ast.Image:
			n.Destination = append([]byte("/api/guide/pictures/"), strings.TrimSuffix(path.Base(string(n.Destination)), ".png")...)
		case *ast.Text:
			if said := inWords(c, string(n.Segment.Value(source))); said != string(n.Segment.Value(source)) {
				otherwise[n] = said
			}
		}
		return ast.WalkContinue, nil
	})
	if err != nil {
		return "", fmt.Errorf("reading a part of the handbook: %w", err)
	}
	for n, said := range otherwise {
		n.Parent().ReplaceChild(n.Parent(), n, replaced(n, said))
	}
	var html bytes.Buffer
	if err := md.Renderer().Render(&html, source, page); err != nil {
		return "", fmt.Errorf("writing a part of the handbook: %w", err)
	}
	return html.String(), nil
}

// replaced is a text with other words; line breaks stay.
func replaced(n *ast.Text, said string) ast.Node {
	if n.SoftLineBreak() {
		said += "\n"
	}
	return ast.NewString([]byte(said))
}

// inWords says a text of the handbook in the practice's words.
func inWords(c api.Caller, text string) string {
	vehicle := c.Home.Words.Vehicle
	if vehicle == "" {
		vehicle = phrase.Shipped.Vehicle
	}
	said := strings.NewReplacer(
		"Trailer (float, box)", phrase.Raised(vehicle), "trailer (float, box)", vehicle,
		"trailer, float or box", vehicle, "trailer, float, box", vehicle,
		"Trailer", phrase.Raised(vehicle), "trailer", vehicle,
	).Replace(text)
	if c.Home.Words.Sides == "left and right" {
		said = strings.NewReplacer("near and off or left and right", "left and right", "near and off", "left and right", "near or off", "left or right", "near side", "left side", "off side", "right side").Replace(said)
	}
	return said
}
