package measure

import (
	"fmt"
	"math"

	"pinhole/core/stop"
)

// How the profile of a filter's corners is taken: rings about the centre, in shares of the
// half diagonal.
const (
	ringStep     = 0.05
	ringHalf     = 0.025
	centreTo     = 0.15
	cornerFrom   = 0.9
	tiltWithin   = 0.5
	tiltMost     = 0.2 // stops a half diagonal: other light, not the filter
	tiltColumns  = 24
	tiltRows     = 16
	crookedFrom  = stop.Stops(0.15)
	crookedShare = 0.3
)

// darkestTold is the light of half a code: what is darker is at least as dark as that.
var darkestTold = decoded(0.5 / 255)

// Corner is a corner of the frame.
type Corner string

// The corners.
const (
	TopLeft     Corner = "topLeft"
	TopRight    Corner = "topRight"
	BottomLeft  Corner = "bottomLeft"
	BottomRight Corner = "bottomRight"
)

// Values returns every Corner there is.
func (Corner) Values() []Corner { return []Corner{TopLeft, TopRight, BottomLeft, BottomRight} }

// CornersAnswer is how a filter darkens towards the corners, beyond its strength.
type CornersAnswer struct {
	Findings
	Profile        []RingLoss            `json:"profile"`
	StopsAt        map[string]stop.Stops `json:"stopsAt" doc:"by percent of the half diagonal: 50, 70, 90, 100"`
	CornerStops    *stop.Stops           `json:"cornerStops"`
	CornersStops   map[Corner]stop.Stops `json:"cornersStops"`
	AsymmetryStops *stop.Stops           `json:"asymmetryStops" doc:"between the corner that is darkest and the one that is least"`
	Crooked        *bool                 `json:"crooked" doc:"the filter sits askew, or off the middle"`
	Darkest        Corner                `json:"darkest,omitempty"`
	TiltStops      *stop.Stops           `json:"tiltStops" doc:"of a plane through the middle, a half diagonal"`
}

// RingLoss is what is lost on a ring.
type RingLoss struct {
	Radius  float64    `json:"radius" doc:"share of the half diagonal"`
	Stops   stop.Stops `json:"stops"`
	AtLeast bool       `json:"atLeast,omitempty" doc:"most of the ring is black"`
}

// sumOf is light of two frames, summed.
type sumOf struct {
	without, with float64
	n, crushed    int
}

func (s *sumOf) add(o sumOf) {
	s.without, s.with, s.n, s.crushed = s.without+o.without, s.with+o.with, s.n+o.n, s.crushed+o.crushed
}

// stops returns how much more light there is without, and whether that is a lower bound.
func (s *sumOf) stops() (lost float64, atLeast bool) {
	n := float64(max(s.n, 1))
	return math.Log2(max(s.without/n, darkestTold) / max(s.with/n, darkestTold)), 2*s.crushed > s.n
}

// measureCorners answers corners.
func measureCorners(in Input) (*CornersAnswer, error) {
	without, with, err := readPair(in)
	if err != nil {
		return nil, err
	}
	a := &CornersAnswer{Findings: newFindings(), Profile: []RingLoss{}, StopsAt: map[string]stop.Stops{}, CornersStops: map[Corner]stop.Stops{}}
	radius := without.radius()
	near := func(x, y int) bool { return radius(x, y) <= tiltWithin }
	if blown, crushed := without.clipped(without.whole(), nil); blown > clippedMost {
		a.refuse("blown", "without", "It is clipped: shoot both again a stop darker.")
	} else if crushed > clippedMost {
		a.refuse("crushed", "without", "It is too dark: shoot it again two stops brighter.")
	}
	if blown, _ := with.clipped(with.whole(), nil); blown > clippedMost {
		a.refuse("blown", "with", "It is clipped: shoot it again a stop darker.")
	} else if _, crushed := with.clipped(with.whole(), near); crushed > clippedMost {
		a.refuse("crushed", "with", "Its middle is too dark: shoot it again two stops brighter.")
	}
	if !a.isRefused() && without.cv(without.middle()) > unevenMost {
		a.refuse("uneven", "without", "The target is not lit evenly: take the open sky through a white sheet, or a lit wall.")
	}
	if a.isRefused() {
		return a, nil
	}
	tilt := tiltOf(without, with)
	if tilt > tiltMost {
		a.refuse("moved", "with", "One side is darker in the middle already: the light or the camera moved. Fix both and shoot again.")
		return a, nil
	}
	a.TiltStops = &tilt
	a.rings(without, with)
	return a, nil
}

// radius returns how far a pixel is from the centre, over the half diagonal.
func (p *picture) radius() func(x, y int) float64 {
	cx, cy := float64(p.width)/2, float64(p.height)/2
	half := math.Hypot(cx, cy)
	return func(x, y int) float64 { return math.Hypot(float64(x)+0.5-cx, float64(y)+0.5-cy) / half }
}

// rings fills in the profile and the corners.
func (a *CornersAnswer) rings(without, with *picture) {
	const rings = 21
	var centre sumOf
	var profile [rings]sumOf
	quarters := map[Corner]*sumOf{TopLeft: {}, TopRight: {}, BottomLeft: {}, BottomRight: {}}
	radius := without.radius()
	for y := range without.height {
		for x := range without.width {
			r := radius(x, y)
			one := sumOf{without.luminance(without.at(x, y)), with.luminance(with.at(x, y)), 1, 0}
			if math.IsNaN(one.without + one.with) {
				continue
			}
			if isCrushed(with.at(x, y)) {
				one.crushed = 1
			}
			if r <= centreTo {
				centre.add(one)
			}
			for i := max(0, int((r-ringHalf)/ringStep)); i < rings && float64(i)*ringStep <= r+ringHalf; i++ {
				if math.Abs(r-float64(i)*ringStep) <= ringHalf {
					profile[i].add(one)
				}
			}
			if r >= cornerFrom {
				quarters[without.cornerOf(x, y)].add(one)
			}
		}
	}
	base, _ := centre.stops()
	profile[0] = centre
	for i := range profile {
		lost, atLeast := profile[i].stops()
		a.Profile = append(a.Profile, RingLoss{Radius: float64(i) * ringStep, Stops: stop.Stops(lost - base), AtLeast: atLeast})
	}
	for _, percent := range []int{50, 70, 90, 100} {
		a.StopsAt[fmt.Sprint(percent)] = a.Profile[percent/5].Stops
	}
	corner := a.Profile[rings-1].Stops
	a.CornerStops = &corner
	largest, smallest := stop.Stops(math.Inf(-1)), stop.Stops(math.Inf(1))
	for _, c := range Corner("").Values() {
		lost, _ := quarters[c].stops()
		s := stop.Stops(lost - base)
		a.CornersStops[c] = s
		smallest = min(smallest, s)
		if s > largest {
			largest, a.Darkest = s, c
		}
	}
	asymmetry := largest - smallest
	isCrooked := asymmetry > max(crookedFrom, crookedShare*largest)
	a.AsymmetryStops, a.Crooked = &asymmetry, &isCrooked
}

func (p *picture) cornerOf(x, y int) Corner {
	switch isLeft, isTop := 2*x < p.width, 2*y < p.height; {
	case isLeft && isTop:
		return TopLeft
	case isTop:
		return TopRight
	case isLeft:
		return BottomLeft
	}
	return BottomRight
}

// tiltOf returns the slope, in stops a half diagonal, of the plane through the ratios of the
// blocks near the middle.
func tiltOf(without, with *picture) stop.Stops {
	radius := without.radius()
	cx, cy := float64(without.width)/2, float64(without.height)/2
	half := math.Hypot(cx, cy)
	var xs, ys, zs []float64
	without.whole().blocks(tiltColumns, tiltRows, func(_, _ int, block area) {
		x, y := (block.x0+block.x1)/2, (block.y0+block.y1)/2
		if block.pixels() == 0 || radius(x, y) > tiltWithin {
			return
		}
		xs = append(xs, (float64(block.x0+block.x1)/2-cx)/half)
		ys = append(ys, (float64(block.y0+block.y1)/2-cy)/half)
		zs = append(zs, math.Log2(max(without.meanLuminance(block), least)/max(with.meanLuminance(block), least)))
	})
	dx, dy := plane(xs, ys, zs)
	return stop.Stops(math.Hypot(dx, dy))
}

// plane returns the slopes of the plane of least squares.
func plane(xs, ys, zs []float64) (dx, dy float64) {
	mx, _ := spread(xs)
	my, _ := spread(ys)
	mz, _ := spread(zs)
	var xx, xy, yy, xz, yz float64
	for i := range xs {
		x, y, z := xs[i]-mx, ys[i]-my, zs[i]-mz
		xx, xy, yy, xz, yz = xx+x*x, xy+x*y, yy+y*y, xz+x*z, yz+y*z
	}
	det := xx*yy - xy*xy
	if det == 0 {
		return 0, 0
	}
	return (xz*yy - yz*xy) / det, (yz*xx - xz*xy) / det
}
