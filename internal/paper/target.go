package paper

import (
	"fmt"
	"io"
	"time"
)

// Sizes of the target, in millimetres and degrees: an edge that leans by five degrees is read
// between its pixels.
const (
	edgeMm   = 150.0
	edgeLean = 5.0
)

// WriteTarget writes the target for sharpness on an A4 sheet: one black square that leans, with
// how to photograph it. It fails only where w does.
func WriteTarget(w io.Writer, at time.Time) error {
	p := newSheet(a4WidthMm, a4HeightMm, "Sharpness target", at)
	p.AddPage()
	const x, y = (a4WidthMm - edgeMm) / 2, 45.0
	p.TransformBegin()
	p.TransformRotate(edgeLean, a4WidthMm/2, y+edgeMm/2)
	p.SetFillColor(25, 25, 25)
	p.Rect(x, y, edgeMm, edgeMm, "F")
	p.TransformEnd()
	p.SetFillColor(255, 255, 255)
	for i, text := range []string{
		"Print on matt paper, hang it flat in even light, and fill the frame with one of its edges.",
		"Sharpening off or low, focus and exposure locked, camera on a tripod.",
		"One frame without the filter, one with it: Measure, Sharpness.",
	} {
		line(p, marginMm, 232+float64(i)*9, a4WidthMm-2*marginMm, "", 12, 8, text)
	}
	p.Line(marginMm, a4HeightMm-marginMm, marginMm+checkMm, a4HeightMm-marginMm)
	line(p, marginMm, a4HeightMm-marginMm-1.5, 150, "", 8, 8, fmt.Sprintf("Print at 100 %%: this line is %.0f mm long.", checkMm))
	if err := p.Output(w); err != nil {
		return fmt.Errorf("write the target: %w", err)
	}
	return nil
}
