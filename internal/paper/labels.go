package paper

import (
	"fmt"
	"io"
	"math"
	"time"
)

// Label is what stands on the slot of one filter.
type Label struct {
	Slot     string // where it lies
	Title    string // what its owner calls it
	Strength string // as printed and as measured
	Goes     string // the cameras it goes on
}

// LabelSize is the size of one label in millimetres, from 12 by 8 to 90 by 60.
type LabelSize struct{ WidthMm, HeightMm float64 }

// A4, with a margin that every printer leaves, and a line to check the scale by.
const (
	a4WidthMm  = 210.0
	a4HeightMm = 297.0
	marginMm   = 12.0
	checkMm    = 50.0
)

// WriteLabels writes labels of a size on A4 sheets, to be printed at 100 % and cut
// along the lines. It fails only where w does.
func WriteLabels(w io.Writer, labels []Label, size LabelSize, at time.Time) error {
	p := newSheet(a4WidthMm, a4HeightMm, "Slot labels", at)
	across := int(math.Floor((a4WidthMm - 2*marginMm) / size.WidthMm))
	down := int(math.Floor((a4HeightMm - 2*marginMm - 10) / size.HeightMm))
	p.SetLineWidth(0.1)
	for i, l := range labels {
		place := i % (across * down)
		if place == 0 {
			p.AddPage()
			p.Line(marginMm, a4HeightMm-marginMm, marginMm+checkMm, a4HeightMm-marginMm)
			line(p, marginMm, a4HeightMm-marginMm-1.5, 150, "", 8, 8, fmt.Sprintf("Print at 100 %%: this line is %.0f mm long. Labels %g × %g mm.", checkMm, size.WidthMm, size.HeightMm))
		}
		x, y := marginMm+float64(place%across)*size.WidthMm, marginMm+float64(place/across)*size.HeightMm
		p.Rect(x, y, size.WidthMm, size.HeightMm, "D")
		pad := size.HeightMm * 0.08
		inner, row := size.WidthMm-2*pad, (size.HeightMm-2*pad)/3
		largest := row * 2.834 * 0.8 // points in a row, less the space between rows
		line(p, x+pad, y+pad+row*0.85, inner, "B", largest*1.1, 4, joined(l.Slot, l.Title))
		line(p, x+pad, y+pad+row*1.8, inner, "", largest*0.9, 4, l.Strength)
		line(p, x+pad, y+pad+row*2.7, inner, "", largest*0.75, 3.5, l.Goes)
	}
	if len(labels) == 0 {
		p.AddPage()
		line(p, marginMm, 2*marginMm, 150, "", 12, 12, "No filters in the kit yet.")
	}
	if err := p.Output(w); err != nil {
		return fmt.Errorf("write the labels: %w", err)
	}
	return nil
}

func joined(a, b string) string {
	if a == "" {
		return b
	}
	return a + "  " + b
}
