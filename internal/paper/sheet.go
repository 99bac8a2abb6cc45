package paper

import (
	"time"
	"unicode/utf8"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// family is the typeface of everything printed.
const family = "go"

// newSheet returns a document of pages of a size in millimetres, without automatic
// breaks: what goes where is decided here.
func newSheet(widthMm, heightMm float64, title string, at time.Time) *fpdf.Fpdf {
	p := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: widthMm, Ht: heightMm}})
	p.AddUTF8FontFromBytes(family, "", goregular.TTF)
	p.AddUTF8FontFromBytes(family, "B", gobold.TTF)
	p.SetAutoPageBreak(false, 0)
	p.SetMargins(0, 0, 0)
	p.SetTitle(title, true)
	p.SetCreationDate(at)
	p.SetModificationDate(at)
	return p
}

// line writes one line of text within a width, smaller where it is long, and with
// its end cut off where even the smallest size is too large. x and y are the left
// end of its baseline.
func line(p *fpdf.Fpdf, x, y, widthMm float64, style string, largestPt, smallestPt float64, text string) {
	for size := largestPt; size >= smallestPt; size -= 0.25 {
		p.SetFont(family, style, size)
		if p.GetStringWidth(text) <= widthMm {
			p.Text(x, y, text)
			return
		}
	}
	const more = "…"
	left, end := widthMm-p.GetStringWidth(more), 0
	for i, letter := range text { // letters are as wide alone as in a line
		if left -= p.GetStringWidth(string(letter)); left < 0 {
			break
		}
		end = i + utf8.RuneLen(letter)
	}
	p.Text(x, y, text[:end]+more)
}
