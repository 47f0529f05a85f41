// Package paper prints a document of the reports as a PDF with its own fonts: one
// page of a visit on one sheet where that can be read, else on as many as it takes.
package paper

import (
	"bytes"
	_ "embed"
	"fmt"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/progress"
	"ivorybridge/core/report"
)

//go:embed fonts/text.ttf
var text []byte

//go:embed fonts/bold.ttf
var bold []byte

//go:embed fonts/head.ttf
var head []byte

// A Sheet is what is printed.
type Sheet struct {
	Title string // of the file, and the heading
	Under string // a line under it: the day, the yard, for whom
	Right string // who wrote it
	Doc   report.Document
	At    time.Time // the day that it is dated
	Short bool      // it is to stand on one sheet
}

// Sizes of the text, in points: the largest at which a short document stands on one
// sheet is taken.
var sizes = []float64{10.5, 9.75, 9, 8.5, 8}

// Write prints a sheet in the words of a practice or an owner.
func Write(s Sheet, book phrase.Book) ([]byte, error) {
	var out []byte
	for _, size := range sizes {
		p, err := s.printed(book, size)
		if err != nil {
			return nil, err
		}
		out = p.bytes
		if !s.Short || p.pages == 1 {
			break
		}
	}
	return out, nil
}

type printed struct {
	bytes []byte
	pages int
}

// Margins and widths, in millimetres.
const (
	side    = 18.0
	top     = 15.0
	wide    = 210 - 2*side
	bridgeH = 13.0
)

type printer struct {
	*fpdf.Fpdf
	book phrase.Book
	size float64 // of the text, in points
	line float64 // of the text, in millimetres
}

func (s Sheet) printed(book phrase.Book, size float64) (printed, error) {
	p := printer{fpdf.New("P", "mm", "A4", ""), book, size, size * 0.46}
	p.AddUTF8FontFromBytes("text", "", text)
	p.AddUTF8FontFromBytes("text", "B", bold)
	p.AddUTF8FontFromBytes("head", "", head)
	p.SetTitle(s.Title, true)
	p.SetAuthor(s.Right, true)
	p.SetLang("en-GB")
	p.SetCreationDate(s.At)
	p.SetModificationDate(s.At)
	p.SetMargins(side, top, side)
	p.SetAutoPageBreak(true, top)
	p.SetFooterFunc(func() {
		p.SetY(-10)
		p.SetFont("text", "", 8)
		p.CellFormat(0, 4, fmt.Sprintf("%s, page %d", s.Title, p.PageNo()), "", 0, "R", false, 0, "")
	})
	p.AddPage()
	p.heading(s)
	for _, section := range s.Doc.Sections {
		p.section(section)
		if section.Key == "short" {
			p.bridge(s.Doc.Bridge)
			p.figures(s.Doc.Figures)
		}
	}
	var out bytes.Buffer
	if err := p.Output(&out); err != nil {
		return printed{}, fmt.Errorf("printing a page: %w", err)
	}
	return printed{out.Bytes(), p.PageCount()}, nil
}

func (p printer) heading(s Sheet) {
	p.SetFont("head", "", p.size*1.9)
	p.MultiCell(wide, p.line*1.8, s.Title, "", "L", false)
	p.SetFont("text", "", p.size)
	p.SetTextColor(71, 84, 87)
	p.CellFormat(wide*0.62, p.line*1.2, s.Under, "", 0, "L", false, 0, "")
	p.CellFormat(wide*0.38, p.line*1.2, s.Right, "", 1, "R", false, 0, "")
	p.SetTextColor(16, 24, 26)
	p.SetLineWidth(0.5)
	p.Line(side, p.GetY()+1, side+wide, p.GetY()+1)
	p.Ln(2.5)
}

func (p printer) section(s report.Section) {
	var said []string
	for _, one := range s.Sentences {
		if !one.Left {
			said = append(said, one.Text(p.book))
		}
	}
	if len(said) == 0 {
		return
	}
	title := p.book.Say(s.Title)
	p.SetFont("head", "", p.size*1.15)
	p.SetTextColor(138, 75, 42)
	p.Bookmark(title, 0, -1)
	p.MultiCell(wide, p.line*1.25, title, "", "L", false)
	p.SetTextColor(16, 24, 26)
	style := ""
	if s.Key == "first" {
		style = "B"
	}
	p.SetFont("text", style, p.size)
	for _, one := range said {
		p.MultiCell(wide, p.line, one, "", "L", false)
	}
	p.Ln(p.line * 0.45)
}

// bridge draws the planks up to the goal: filled what holds, dashed what is to come.
func (p printer) bridge(b progress.Bridge) {
	var planks []progress.Plank
	for _, one := range b.Planks {
		if !one.Beyond {
			planks = append(planks, one)
		}
	}
	if len(planks) == 0 {
		return
	}
	if p.GetY()+bridgeH+4 > 297-top {
		p.AddPage()
	}
	pitch, y := wide/float64(len(planks)), p.GetY()+4
	for i, one := range planks {
		t := 2*(float64(i)+0.5)/float64(len(planks)) - 1
		x, at := side+float64(i)*pitch, y+3.5*t*t
		p.plank(one, x, at, pitch-0.8)
	}
	p.SetY(y + bridgeH - 4)
}

const plankH = 4.2

func (p printer) plank(one progress.Plank, x, y, w float64) {
	p.SetLineWidth(0.35)
	p.SetDashPattern(nil, 0)
	p.SetDrawColor(35, 75, 49)
	switch {
	case one.Blocked != nil:
		p.SetDrawColor(71, 84, 87)
		p.Rect(x, y, w, plankH, "D")
		p.Line(x+0.8, y+plankH-0.8, x+w-0.8, y+0.8)
	case one.State == horse.Kept, one.State == horse.Met:
		p.SetFillColor(60, 106, 72)
		p.Rect(x, y, w, plankH, "FD")
		if one.State == horse.Kept {
			p.SetFillColor(255, 253, 248)
			p.Circle(x+1.3, y+plankH/2, 0.45, "F")
			p.Circle(x+w-1.3, y+plankH/2, 0.45, "F")
		}
	case one.State == horse.Slipped:
		p.SetDrawColor(162, 58, 34)
		p.Rect(x, y, w*0.42, plankH, "D")
		p.Rect(x+w*0.58, y+1, w*0.42, plankH, "D")
	case one.State == horse.Untried:
		p.SetDrawColor(71, 84, 87)
		p.SetDashPattern([]float64{1, 0.8}, 0)
		p.Rect(x, y, w, plankH, "D")
		p.SetDashPattern(nil, 0)
	default:
		p.SetDrawColor(71, 84, 87)
		p.Rect(x, y, w, plankH, "D")
		p.SetFillColor(71, 84, 87)
		p.Circle(x+w/2, y+plankH/2, 0.5, "F")
	}
	if one.Next {
		p.SetFillColor(16, 24, 26)
		p.Polygon([]fpdf.PointType{{X: x + w/2 - 1.3, Y: y - 2.6}, {X: x + w/2 + 1.3, Y: y - 2.6}, {X: x + w/2, Y: y - 0.6}}, "F")
	}
	p.SetDrawColor(16, 24, 26)
}

// figures sets the numbers against the first day, side by side.
func (p printer) figures(list []report.Figure) {
	if len(list) == 0 {
		p.Ln(p.line * 0.45)
		return
	}
	each, y, deepest := wide/float64(len(list)), p.GetY()+1, 0.0
	for i, f := range list {
		x := side + float64(i)*each
		before, after := p.book.Say(f.Before), p.book.Say(f.After)
		means := strings.ReplaceAll(p.book.Say(f.Means), "→", "to") // the fonts have no arrow
		p.SetLeftMargin(x)
		p.SetXY(x, y)
		p.SetFont("text", "", p.size*0.9)
		p.MultiCell(each-3, p.line*0.9, p.book.Say(f.Label), "", "L", false)
		p.SetFont("head", "", p.size*1.2)
		if before != after {
			after = before + ", then " + after
		}
		p.SetX(x)
		p.MultiCell(each-3, p.line*1.2, after, "", "L", false)
		p.SetFont("text", "", p.size*0.9)
		p.SetX(x)
		p.MultiCell(each-3, p.line*0.9, means, "", "L", false)
		deepest = max(deepest, p.GetY())
	}
	p.SetLeftMargin(side)
	p.SetXY(side, deepest+p.line*0.6)
}
