package measure

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// How a curve is found (Debevec and Malik 1997, on green): by small blocks that are even and
// neither clipped nor black, seen in two frames or more.
const (
	curveBlockPx    = 8
	curveFromCode   = 4
	curveToCode     = 251
	curveDeviation  = 8 // codes, within a block
	curveFrames     = 3
	curveSpan       = stop.Stops(2)
	curveSmoothness = 500.0 // of second differences, in shares of what all blocks weigh
	curveLeast      = 40    // blocks seen in two frames
	movedResidual   = 0.12
)

// departsFrom is the first code that is compared with sRGB: below it both are steep.
const departsFrom = 24

// useFrom is the departure from sRGB that a pair shows.
const useFrom = stop.Stops(0.3)

// CurveAnswer is the transfer of a camera's profile.
type CurveAnswer struct {
	Findings
	Curve              *Curve      `json:"curve"`
	FromCode           *int        `json:"fromCode"`
	ToCode             *int        `json:"toCode"`
	ResidualStops      *stop.Stops `json:"residualStops" doc:"what the blocks leave, root mean square"`
	SRGBDepartureStops *stop.Stops `json:"srgbDepartureStops" doc:"the largest, over the codes that are known"`
	UseIt              bool        `json:"useIt" doc:"it departs by so much that pairs are measured with it"`
}

// seen is a block in one frame: its mean code and how long it was exposed, in stops.
type seen struct{ code, exposed, weight float64 }

// measureCurve answers curve.
func measureCurve(in Input) (*CurveAnswer, error) {
	frames, err := readTaken(in, "frame", "frame-exposure")
	if err != nil {
		return nil, err
	}
	if len(frames) < curveFrames {
		return nil, &problem.Fault{Field: "frame", Value: len(frames), Allowed: "three frames or more of one still scene"}
	}
	for _, f := range frames[1:] {
		if f.width != frames[0].width || f.height != frames[0].height {
			return nil, &problem.Fault{Field: "frame", Value: fmt.Sprintf("%d × %d pixels", f.width, f.height), Allowed: "frames of one size"}
		}
	}
	a := &CurveAnswer{Findings: newFindings()}
	exposed := make([]float64, len(frames))
	for i, f := range frames {
		exposed[i] = math.Log2(f.exposure.factor(false))
	}
	const wider = "Take frames at least two stops apart in all, better four, of a scene with bright and dark parts."
	if slices.Max(exposed)-slices.Min(exposed) < float64(curveSpan)-stop.Tolerance {
		a.refuse("bracket", "frame", wider)
		return a, nil
	}
	blocks := blocksSeen(frames, exposed)
	if len(blocks) < curveLeast {
		a.refuse("bracket", "frame", "Too few parts of the scene are seen well in two frames. "+wider)
		return a, nil
	}
	g, from, to, residual := fitCurve(blocks)
	if g == nil {
		a.refuse("bracket", "frame", wider)
		return a, nil
	}
	if residual > movedResidual || !isRising(g[from:to+1]) {
		a.refuse("moved", "frame", "The frames do not show the same scene in the same light: fix the camera and shoot the bracket again.")
		return a, nil
	}
	c := &Curve{Stops: make([]*stop.Stops, 256), FromCode: from, ToCode: to}
	for code := from; code <= to; code++ {
		s := stop.Stops(g[code])
		c.Stops[code] = &s
	}
	left, departs := stop.Stops(residual), departure(g, from, to)
	a.Curve, a.FromCode, a.ToCode, a.ResidualStops, a.SRGBDepartureStops = c, &from, &to, &left, &departs
	a.UseIt = departs > useFrom
	return a, nil
}

// blocksSeen returns the blocks that are seen well in two frames or more.
func blocksSeen(frames []*takenFrame, exposed []float64) [][]seen {
	var all [][]seen
	w, h := frames[0].width, frames[0].height
	most := highestKept(frames)
	for y := 0; y+curveBlockPx <= h; y += curveBlockPx {
		for x := 0; x+curveBlockPx <= w; x += curveBlockPx {
			var block []seen
			for i, f := range frames {
				code, deviation, isInside := f.green(x, y)
				if isInside && deviation < curveDeviation && code <= most {
					block = append(block, seen{code, exposed[i], hat(code)})
				}
			}
			if len(block) >= 2 {
				all = append(all, block)
			}
		}
	}
	return all
}

// A profile may clip below the highest code: where many pixels are as bright as the brightest,
// codes close to those say nothing.
const (
	plateauShare = 0.01
	plateauReach = 8
	belowPlateau = 4
	specksShare  = 0.001
)

// highestKept returns the highest code that a frame's light may have and not be clipped.
func highestKept(frames []*takenFrame) float64 {
	kept := float64(curveToCode)
	for _, f := range frames {
		var counts [256]int
		for i := 1; i < len(f.rgb); i += 3 {
			counts[codeOf(f.rgb[i])]++
		}
		all := float64(len(f.rgb) / 3)
		top, above := 255, 0
		for ; top > 0; top-- {
			if above += counts[top]; float64(above) > specksShare*all {
				break
			}
		}
		// Noise and compression spread a plateau upwards.
		plateau := top
		for code := max(0, top-plateauReach); code < top; code++ {
			if counts[code] > counts[plateau] {
				plateau = code
			}
		}
		if float64(counts[plateau]) > plateauShare*all {
			kept = min(kept, float64(plateau-belowPlateau))
		}
	}
	return kept
}

// green returns the mean and the deviation of a block's green, in codes, and whether all of it
// lies inside.
func (s *takenFrame) green(x0, y0 int) (mean, deviation float64, isInside bool) {
	var sum, squares float64
	for y := y0; y < y0+curveBlockPx; y++ {
		for x := x0; x < x0+curveBlockPx; x++ {
			code := float64(s.at(x, y)[1]) / perCode
			if code < curveFromCode || code > curveToCode {
				return 0, 0, false
			}
			sum, squares = sum+code, squares+code*code
		}
	}
	const n = curveBlockPx * curveBlockPx
	mean = sum / n
	return mean, math.Sqrt(max(0, squares/n-mean*mean)), true
}

// hat weighs a code: the middle says most.
func hat(code float64) float64 { return max(min(code, 255-code)/127.5, 0.01) }

// fitCurve returns the light of each code, in stops, 0 at the middle of what was seen: the
// curve that with a light for each block leaves the least squares, and is smooth. The light of
// a block is what its codes say, so that it drops out and 256 unknowns are left.
func fitCurve(blocks [][]seen) (g []float64, from, to int, residual float64) {
	lowest, highest, total := 255.0, 0.0, 0.0
	normal, right := mat.NewSymDense(256, nil), mat.NewVecDense(256, nil)
	add := func(i, j int, v float64) {
		if i <= j {
			normal.SetSym(i, j, normal.At(i, j)+v)
		}
	}
	for _, block := range blocks {
		row := map[int]float64{} // what all of the block say together
		weight, level := 0.0, 0.0
		for _, s := range block {
			lowest, highest = min(lowest, s.code), max(highest, s.code)
			weight += s.weight
			level += s.weight * s.exposed
			for i, a := range between(s.code) {
				row[i] += s.weight * a
				right.SetVec(i, right.AtVec(i)+s.weight*a*s.exposed)
				for j, b := range between(s.code) {
					add(i, j, s.weight*a*b)
				}
			}
		}
		for i, a := range row {
			right.SetVec(i, right.AtVec(i)-a*level/weight)
			for j, b := range row {
				add(i, j, -a*b/weight)
			}
		}
		total += weight
	}
	from, to = int(math.Ceil(lowest)), int(math.Floor(highest))
	if to-from < 16 {
		return nil, 0, 0, 0
	}
	for i := 1; i < 255; i++ {
		k := curveSmoothness * total / 256 * hat(float64(i))
		for a, u := range [3]float64{1, -2, 1} {
			for b, v := range [3]float64{1, -2, 1} {
				add(i-1+a, i-1+b, k*u*v)
			}
		}
	}
	for i := range 256 {
		add(i, i, 1e-9*total) // where nothing was seen, nothing is certain
	}
	add((from+to)/2, (from+to)/2, total)
	var factors mat.Cholesky
	var solved mat.VecDense
	if !factors.Factorize(normal) || factors.SolveVecTo(&solved, right) != nil {
		return nil, 0, 0, 0
	}
	g = solved.RawVector().Data
	return g, from, to, leftOf(blocks, g)
}

// between returns the two codes that a mean code lies between, with what each has of it.
func between(code float64) map[int]float64 {
	low := min(int(code), 254)
	part := code - float64(low)
	return map[int]float64{low: 1 - part, low + 1: part}
}

// leftOf returns the root mean square of what a curve leaves of the blocks.
func leftOf(blocks [][]seen, g []float64) float64 {
	sum, weight := 0.0, 0.0
	for _, block := range blocks {
		light := func(s seen) float64 {
			v := -s.exposed
			for i, a := range between(s.code) {
				v += a * g[i]
			}
			return v
		}
		mean, all := 0.0, 0.0
		for _, s := range block {
			mean += s.weight * light(s)
			all += s.weight
		}
		mean /= all
		for _, s := range block {
			off := light(s) - mean
			sum += s.weight * off * off
			weight += s.weight
		}
	}
	return math.Sqrt(sum / weight)
}

// isRising reports whether a curve goes up but for small waves.
func isRising(g []float64) bool {
	highest := math.Inf(-1)
	for _, v := range g {
		if highest = max(highest, v); v < highest-0.1 {
			return false
		}
	}
	return true
}

// departure returns how far a curve strays from sRGB, at most.
func departure(g []float64, from, to int) stop.Stops {
	var all []float64
	for code := max(from, departsFrom); code <= to; code++ {
		all = append(all, g[code]-math.Log2(decoded(float64(code)/255)))
	}
	if len(all) == 0 {
		return 0
	}
	middle := slices.Clone(all)
	slices.Sort(middle)
	median, most := middle[len(middle)/2], 0.0
	for _, v := range all {
		most = max(most, math.Abs(v-median))
	}
	return stop.Stops(most)
}
