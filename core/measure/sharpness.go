package measure

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"gonum.org/v1/gonum/dsp/fourier"

	"pinhole/core/problem"
)

// How an edge is read (ISO 12233, slanted edge).
const (
	binsPerPx      = 4
	edgeReachPx    = 32
	edgeInliers    = 0.6 // of the rows
	edgeWithinPx   = 1.5
	edgeContrast   = 0.2
	edgeClipped    = 0.05
	leastAngle     = 1.5
	mostAngle      = 20.0
	sharpenedFrom  = 1.1    // of the MTF
	overshootFrom  = 0.1    // of the edge's height
	gaussianPerMTF = 0.1874 // σ·MTF50 of a Gaussian: √(ln 2 / 2) / π
	mtfStep        = 0.05
	mtfTo          = 0.5
	steepReachPx   = 3
)

// SharpnessAnswer is how sharp an edge is without and with a filter.
type SharpnessAnswer struct {
	Findings
	Without     *EdgeAnswer `json:"without"`
	With        *EdgeAnswer `json:"with"`
	LossPercent *float64    `json:"lossPercent" doc:"of MTF50"`
	AddedBlurPx *float64    `json:"addedBlurPx" doc:"σ of the Gaussian that the filter adds"`
	MTF         []MTFPoint  `json:"mtf"`
}

// EdgeAnswer is one edge.
type EdgeAnswer struct {
	MTF50Cpp            float64 `json:"mtf50Cpp" doc:"cycles a pixel"`
	MTF50LinesPerHeight float64 `json:"mtf50LinesPerHeight" doc:"line widths a picture height"`
	AngleDeg            float64 `json:"angleDeg" doc:"from upright or level"`
	Contrast            float64 `json:"contrast" doc:"(bright − dark) / (bright + dark)"`
	Overshoot           float64 `json:"overshoot" doc:"beyond the bright side, of the edge's height"`
}

// MTFPoint is the contrast that is left at a frequency.
type MTFPoint struct {
	Cpp     float64 `json:"cpp"`
	Without float64 `json:"without"`
	With    float64 `json:"with"`
}

// measureSharpness answers sharpness.
func measureSharpness(in Input) (*SharpnessAnswer, error) {
	without, with, err := readPair(in)
	if err != nil {
		return nil, err
	}
	roi, err := readROI(in.text("roi"), without)
	if err != nil {
		return nil, err
	}
	a := &SharpnessAnswer{Findings: newFindings(), MTF: []MTFPoint{}}
	edges := [2]*edge{}
	for i, part := range []string{"without", "with"} {
		p := []*picture{without, with}[i]
		edges[i] = a.edge(p, roi, part)
	}
	if a.isRefused() {
		return a, nil
	}
	a.Without, a.With = &edges[0].EdgeAnswer, &edges[1].EdgeAnswer
	loss := 100 * (1 - a.With.MTF50Cpp/a.Without.MTF50Cpp)
	sharp, soft := gaussianPerMTF/a.Without.MTF50Cpp, gaussianPerMTF/a.With.MTF50Cpp
	added := math.Sqrt(max(0, soft*soft-sharp*sharp))
	a.LossPercent, a.AddedBlurPx = &loss, &added
	for i := range int(mtfTo/mtfStep) + 1 {
		f := float64(i) * mtfStep
		a.MTF = append(a.MTF, MTFPoint{f, edges[0].at(f), edges[1].at(f)})
	}
	for _, e := range edges {
		if e.Overshoot > overshootFrom || slices.Max(e.mtf) > sharpenedFrom {
			a.warn("sharpened", "The camera sharpens: turn sharpening down, or the loss is not the filter's alone.")
		}
	}
	return a, nil
}

// readROI reads x,y,w,h; "" is the middle half both ways.
func readROI(text string, p *picture) (area, error) {
	if text == "" {
		return p.middle(), nil
	}
	fault := &problem.Fault{Field: "roi", Value: text, Allowed: fmt.Sprintf("x,y,width,height in pixels, inside of %d × %d, 16 × 16 at least", p.width, p.height)}
	var n [4]int
	words := strings.Split(text, ",")
	if len(words) != len(n) {
		return area{}, fault
	}
	for i, word := range words {
		v, err := strconv.Atoi(strings.TrimSpace(word))
		if err != nil || v < 0 || v > 1<<20 {
			return area{}, fault
		}
		n[i] = v
	}
	roi := area{n[0], n[1], n[0] + n[2], n[1] + n[3]}
	if n[2] < 16 || n[3] < 16 || roi.x1 > p.width || roi.y1 > p.height {
		return area{}, fault
	}
	return roi, nil
}

// edge is one edge with its MTF by frequency.
type edge struct {
	EdgeAnswer
	mtf    []float64
	stepOf float64 // cycles a pixel from one to the next
}

// at returns the MTF at a frequency.
func (e *edge) at(cpp float64) float64 {
	i := cpp / e.stepOf
	low := min(int(i), len(e.mtf)-2)
	part := i - float64(low)
	return e.mtf[low]*(1-part) + e.mtf[low+1]*part
}

// plate is the light of an area, turned so that its edge stands upright.
type plate struct {
	width, height int
	light         []float64
}

func (p *plate) row(y int) []float64 { return p.light[y*p.width : (y+1)*p.width] }

// plateOf returns the light of an area, turned where its edge lies level.
func (p *picture) plateOf(roi area) *plate {
	upright := &plate{roi.x1 - roi.x0, roi.y1 - roi.y0, nil}
	var across, down float64
	for y := roi.y0; y < roi.y1; y++ {
		for x := roi.x0; x < roi.x1; x++ {
			v := p.luminance(p.at(x, y))
			if math.IsNaN(v) {
				v = 0
			}
			upright.light = append(upright.light, v)
		}
	}
	at := func(x, y int) float64 { return upright.light[y*upright.width+x] }
	for y := 2; y < upright.height; y += 2 {
		for x := 2; x < upright.width; x += 2 {
			across += math.Abs(at(x, y) - at(x-2, y))
			down += math.Abs(at(x, y) - at(x, y-2))
		}
	}
	if across >= down {
		return upright
	}
	turned := &plate{upright.height, upright.width, make([]float64, len(upright.light))}
	for y := range upright.height {
		for x := range upright.width {
			turned.light[x*turned.width+y] = at(x, y)
		}
	}
	return turned
}

// edge reads the edge of one frame, or refuses it.
func (a *SharpnessAnswer) edge(p *picture, roi area, part string) *edge {
	if blown, crushed := p.clipped(roi, nil); blown > edgeClipped {
		a.refuse("blown", part, "The bright side is clipped: shoot it again a stop darker.")
		return nil
	} else if crushed > edgeClipped {
		a.refuse("crushed", part, "The dark side is black: shoot it again a stop brighter.")
		return nil
	}
	const noEdge = "There is no straight edge from dark to bright here: fill the middle with the target, or say where it is."
	plate := p.plateOf(roi)
	sorted := slices.Clone(plate.light)
	slices.Sort(sorted)
	dark, bright := sorted[len(sorted)/20], sorted[len(sorted)-1-len(sorted)/20]
	contrast := (bright - dark) / max(bright+dark, least)
	if contrast < edgeContrast {
		a.refuse("no-edge", part, noEdge)
		return nil
	}
	at, slope, ok := plate.line((dark + bright) / 2)
	if !ok {
		a.refuse("no-edge", part, noEdge)
		return nil
	}
	angle := math.Abs(math.Atan(slope)) * 180 / math.Pi
	if angle < leastAngle || angle > mostAngle {
		a.refuse("angle", part, fmt.Sprintf("The edge leans by %.1f°: turn the target to about 5°, at least 1.5° and at most 20°.", angle))
		return nil
	}
	across, ok := plate.across(at, slope)
	if !ok {
		a.refuse("no-edge", part, noEdge)
		return nil
	}
	e := &edge{}
	e.mtf, e.stepOf = mtfOf(across)
	e.AngleDeg, e.Contrast = angle, contrast
	e.Overshoot = overshoot(across)
	e.MTF50Cpp = fallsBelowHalf(e.mtf, e.stepOf)
	if e.MTF50Cpp == 0 {
		a.refuse("no-edge", part, noEdge)
		return nil
	}
	e.MTF50LinesPerHeight = 2 * e.MTF50Cpp * float64(p.height)
	return e
}

// line returns the straight line through the crossings of a level: x = at + slope·y.
func (p *plate) line(level float64) (at, slope float64, ok bool) {
	var xs, ys []float64
	for y := range p.height {
		if x, found := crossing(p.row(y), level); found {
			xs, ys = append(xs, x), append(ys, float64(y))
		}
	}
	if float64(len(xs)) < edgeInliers*float64(p.height) || len(xs) < 8 {
		return 0, 0, false
	}
	slope = medianSlope(ys, xs)
	offsets := make([]float64, len(xs))
	for i := range xs {
		offsets[i] = xs[i] - slope*ys[i]
	}
	slices.Sort(offsets)
	at = offsets[len(offsets)/2]
	inside := 0
	for range 3 {
		var ix, iy []float64
		for i := range xs {
			if math.Abs(xs[i]-at-slope*ys[i]) <= edgeWithinPx {
				ix, iy = append(ix, xs[i]), append(iy, ys[i])
			}
		}
		if inside = len(ix); inside < 4 {
			return 0, 0, false
		}
		at, slope = fitLine(iy, ix)
	}
	return at, slope, float64(inside) >= edgeInliers*float64(p.height)
}

// crossing returns where a row passes a level, the steepest place if there are several.
func crossing(row []float64, level float64) (x float64, found bool) {
	steepest := 0.0
	for i := 1; i < len(row); i++ {
		if (row[i-1] < level) == (row[i] < level) {
			continue
		}
		from, to := max(0, i-1-steepReachPx), min(len(row)-1, i+steepReachPx)
		if steep := math.Abs(row[to] - row[from]); steep > steepest {
			steepest, found = steep, true
			x = float64(i-1) + (level-row[i-1])/(row[i]-row[i-1])
		}
	}
	return x, found
}

// medianSlope returns the median of the slopes between points half of them apart, which some
// strays do not move.
func medianSlope(xs, ys []float64) float64 {
	half := len(xs) / 2
	var all []float64
	for i := range half {
		if d := xs[i+half] - xs[i]; d != 0 {
			all = append(all, (ys[i+half]-ys[i])/d)
		}
	}
	slices.Sort(all)
	return all[len(all)/2]
}

// fitLine returns the line of least squares, y = at + slope·x.
func fitLine(xs, ys []float64) (at, slope float64) {
	mx, _ := spread(xs)
	my, _ := spread(ys)
	var xx, xy float64
	for i := range xs {
		xx += (xs[i] - mx) * (xs[i] - mx)
		xy += (xs[i] - mx) * (ys[i] - my)
	}
	if xx > 0 {
		slope = xy / xx
	}
	return my - slope*mx, slope
}

// across returns the light across the edge in bins of a quarter of a pixel, dark to bright.
func (p *plate) across(at, slope float64) ([]float64, bool) {
	reach := edgeReachPx
	for y := range p.height {
		x := at + slope*float64(y)
		reach = min(reach, int(x), int(float64(p.width-1)-x))
	}
	if reach < 4 {
		return nil, false
	}
	n := 2 * reach * binsPerPx
	sums, counts := make([]float64, n), make([]int, n)
	cosine := 1 / math.Sqrt(1+slope*slope)
	for y := range p.height {
		edgeAt := at + slope*float64(y)
		for x, v := range p.row(y) {
			bin := int(math.Floor(((float64(x)-edgeAt)*cosine + float64(reach)) * binsPerPx))
			if bin >= 0 && bin < n {
				sums[bin] += v
				counts[bin]++
			}
		}
	}
	last := 0.0
	for i := range sums {
		if counts[i] > 0 {
			last = sums[i] / float64(counts[i])
		} else if i == 0 {
			return nil, false
		}
		sums[i] = last
	}
	if sums[0] > sums[n-1] {
		slices.Reverse(sums)
	}
	return sums, true
}

// overshoot returns how far the light goes beyond the bright side, of the edge's height.
func overshoot(across []float64) float64 {
	side := len(across) / 4
	dark, _ := spread(across[:side])
	bright, _ := spread(across[len(across)-side:])
	if bright <= dark {
		return 0
	}
	return max(0, (slices.Max(across)-bright)/(bright-dark))
}

// mtfOf returns the MTF of an edge: of its derivative, windowed, over what the bins themselves
// blur (sinc twice, for the bin and for the difference).
func mtfOf(across []float64) (mtf []float64, step float64) {
	n := len(across)
	line := make([]float64, n)
	for i := 1; i < n; i++ {
		window := 0.54 - 0.46*math.Cos(2*math.Pi*float64(i)/float64(n-1))
		line[i] = (across[i] - across[i-1]) * window
	}
	spectrum := fourier.NewFFT(n).Coefficients(nil, line)
	step = binsPerPx / float64(n)
	whole := math.Hypot(real(spectrum[0]), imag(spectrum[0]))
	for i := 0; float64(i)*step <= 1; i++ {
		f := float64(i) * step
		blur := sinc(f / binsPerPx)
		mtf = append(mtf, math.Hypot(real(spectrum[i]), imag(spectrum[i]))/max(whole, least)/(blur*blur))
	}
	return mtf, step
}

func sinc(x float64) float64 {
	if x == 0 {
		return 1
	}
	return math.Sin(math.Pi*x) / (math.Pi * x)
}

// fallsBelowHalf returns the first frequency at which half of the contrast is left, 0 for none.
func fallsBelowHalf(mtf []float64, step float64) float64 {
	for i := 1; i < len(mtf); i++ {
		if mtf[i] < 0.5 {
			return step * (float64(i-1) + (mtf[i-1]-0.5)/(mtf[i-1]-mtf[i]))
		}
	}
	return 0
}
