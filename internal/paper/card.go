package paper

import (
	"fmt"
	"io"
	"math"
	"strings"
	"time"

	"github.com/go-pdf/fpdf"
)

// Card is the card of a shoot on paper.
type Card struct {
	Title, Place string
	Rows         []CardRow
	Drills       []CardDrill
}

// CardRow is a take or a swap, or with a Day alone the start of a day.
type CardRow struct {
	Day string
	// At is the time, What the glass, or the swap, Set what to set.
	At, What, Set string
	// Note is the rest, in small.
	Note   string
	IsSwap bool
}

// CardDrill is what to do when something goes wrong.
type CardDrill struct {
	Title string
	Lines []string
}

// CardSize is a size of paper with what is written how large on it.
type CardSize struct {
	WidthMm, HeightMm, edgeMm float64
	rowMm, leastRowMm         float64 // the height of a row, and the least it may have
	drillPt, leastDrillPt     float64
}

// Sizes of a card by name: A5, and A6 for the pocket.
var (
	A5     = CardSize{148, 210, 9, 14, 8, 9, 7}
	Pocket = CardSize{105, 148, 6, 10, 6.2, 7.5, 5.5}
)

// mmPerPoint is the height of a typographic point: an inch of 25.4 mm has 72.
const mmPerPoint = 25.4 / 72

// WriteCard writes the card on one page, black on white, the rows as large as the
// paper allows; what even the smallest rows leave no room for goes on further pages.
// It fails only where w does.
func WriteCard(w io.Writer, c Card, size CardSize, at time.Time) error {
	p := newSheet(size.WidthMm, size.HeightMm, c.Title, at)
	l := layout{p, size, size.WidthMm - 2*size.edgeMm, 0}
	l.head(c)
	drillPt, drillsMm := l.fitDrills(c)
	rowMm := math.Min(size.rowMm, math.Max(size.leastRowMm, (size.HeightMm-size.edgeMm-l.y-drillsMm)/weight(c.Rows)))
	for _, r := range c.Rows {
		l.row(r, rowMm, c)
	}
	l.drills(c, drillPt)
	if err := p.Output(w); err != nil {
		return fmt.Errorf("write the card: %w", err)
	}
	return nil
}

// The heights of a day's name and of a swap, in rows.
const dayRow, swapRow = 0.5, 0.6

func heightOf(r CardRow) float64 {
	switch {
	case r.Day != "":
		return dayRow
	case r.IsSwap:
		return swapRow
	}
	return 1
}

func weight(rows []CardRow) (sum float64) {
	for _, r := range rows {
		sum += heightOf(r)
	}
	return math.Max(sum, 1)
}

// layout is a card being written, y the top of what is free.
type layout struct {
	p     *fpdf.Fpdf
	size  CardSize
	inner float64
	y     float64
}

func (l *layout) head(c Card) {
	l.p.AddPage()
	l.p.SetLineWidth(0.2)
	h := l.size.rowMm * 0.55
	l.y = l.size.edgeMm + h
	line(l.p, l.size.edgeMm, l.y-h*0.3, l.inner*0.62, "B", h/mmPerPoint, 8, c.Title)
	l.right(l.y-h*0.3, l.inner*0.36, "", h*0.55/mmPerPoint, 5, c.Place)
}

// right writes a line that ends at the right edge.
func (l *layout) right(y, widthMm float64, style string, largestPt, smallestPt float64, text string) {
	l.p.SetFont(family, style, largestPt)
	wide := math.Min(l.p.GetStringWidth(text), widthMm)
	line(l.p, l.size.WidthMm-l.size.edgeMm-wide, y, wide+0.01, style, largestPt, smallestPt, text)
}

// row writes one row: what to put on and what to set, large, and the rest beneath.
func (l *layout) row(r CardRow, rowMm float64, c Card) {
	h := rowMm * heightOf(r)
	if l.y+h > l.size.HeightMm-l.size.edgeMm {
		l.head(c)
	}
	x, y, large := l.size.edgeMm, l.y, rowMm*0.42/mmPerPoint
	l.y += h
	if r.Day != "" {
		line(l.p, x, y+h*0.75, l.inner, "B", rowMm*0.3/mmPerPoint, 5, r.Day)
		return
	}
	l.p.Line(x, y, x+l.inner, y)
	clock := l.inner * 0.14
	if r.IsSwap {
		line(l.p, x, y+h*0.72, clock, "B", large*0.8, 6, r.At)
		line(l.p, x+clock, y+h*0.72, l.inner-clock, "B", large*0.8, 6, "SWAP "+r.What)
		return
	}
	line(l.p, x, y+h*0.48, clock-1, "B", large, 6, r.At)
	line(l.p, x+clock, y+h*0.48, l.inner*0.42, "B", large, 6, r.What)
	l.right(y+h*0.48, l.inner*0.42, "B", large, 6, r.Set)
	line(l.p, x+clock, y+h*0.86, l.inner-clock, "", rowMm*0.25/mmPerPoint, 4.5, r.Note)
}

const drillLineMm = 1.18 // the height of a line, in its letters' size

// fitDrills finds the largest letters for the drills that leave the rows their least
// height, and what height the drills take then.
func (l *layout) fitDrills(c Card) (pt, heightMm float64) {
	free := l.size.HeightMm - l.size.edgeMm - l.y - weight(c.Rows)*l.size.leastRowMm*1.25
	for pt = l.size.drillPt; ; pt -= 0.25 {
		heightMm = l.drillsHeight(c, pt)
		if heightMm <= free || pt <= l.size.leastDrillPt {
			return pt, heightMm
		}
	}
}

func (l *layout) drillsHeight(c Card, pt float64) float64 {
	lines := 0
	for _, d := range c.Drills {
		lines += 1 + len(l.wrapped(d, pt))
	}
	return (float64(lines) + 0.5) * pt * mmPerPoint * drillLineMm
}

// wrapped returns the lines of a drill as they fit the width.
func (l *layout) wrapped(d CardDrill, pt float64) []string {
	l.p.SetFont(family, "", pt)
	var numbered []string
	for i, s := range d.Lines {
		numbered = append(numbered, fmt.Sprintf("%d %s", i+1, s))
	}
	return l.p.SplitText(strings.Join(numbered, "  "), l.inner)
}

func (l *layout) drills(c Card, pt float64) {
	if len(c.Drills) == 0 {
		return
	}
	if l.y+l.drillsHeight(c, pt) > l.size.HeightMm-l.size.edgeMm+0.01 {
		l.head(c)
	}
	h := pt * mmPerPoint * drillLineMm
	l.p.Line(l.size.edgeMm, l.y, l.size.edgeMm+l.inner, l.y)
	l.y += h * 0.5
	for _, d := range c.Drills {
		l.y += h
		line(l.p, l.size.edgeMm, l.y-h*0.2, l.inner, "B", pt, 4, d.Title)
		for _, text := range l.wrapped(d, pt) {
			l.y += h
			line(l.p, l.size.edgeMm, l.y-h*0.2, l.inner, "", pt, 4, text)
		}
	}
}
