package fit

import (
	"math"
	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Ring is the clear opening of a filter before the lens.
type Ring struct {
	// ClearMm is its inner diameter, above 0.
	ClearMm float64
	// ZMm is how far it stands before the entrance pupil, at least 0.
	ZMm float64
}

// Pupil returns the diameter in millimetres of the entrance pupil of a lens: f/N.
func Pupil(focalMm float64, n stop.FNumber) float64 { return focalMm / float64(n) }

// Passed returns the share of the light from field angle theta, in [0°, 90°),
// that passes the rings into a pupil of diameter pupilMm: the smallest share of
// one ring. In each the pupil's circle is shifted by z·tan θ against the ring's.
func Passed(pupilMm float64, rings []Ring, theta angle.Deg) float64 {
	share := 1.0
	for _, r := range rings {
		share = min(share, overlap(pupilMm/2, r.ClearMm/2, r.ZMm*theta.Tan()))
	}
	return share
}

// overlap returns the area that two circles share, as a part of the first one's:
// the lens of two circular segments.
func overlap(own, other, apart float64) float64 {
	switch {
	case apart >= own+other:
		return 0
	case apart+own <= other:
		return 1
	case apart+other <= own:
		return (other / own) * (other / own)
	}
	half := func(r, q float64) float64 { // half the angle of the chord, seen from the centre of r
		return math.Acos(min(max((apart*apart+r*r-q*q)/(2*apart*r), -1), 1))
	}
	a, b := half(own, other), half(other, own)
	area := own*own*(a-math.Sin(2*a)/2) + other*other*(b-math.Sin(2*b)/2)
	return min(max(area/(math.Pi*own*own), 0), 1)
}

// Loss returns the stops lost to a passed share in (0, 1]; ok is false where
// nothing passes.
func Loss(share float64) (lost stop.Stops, ok bool) {
	if share <= 0 {
		return 0, false
	}
	return -stop.FromFactor(share), true
}

// Clean returns the largest angle off the axis from which all light passes:
// atan((D − p)/(2z)) of the narrowest ring, 0° for a ring narrower than the pupil
// and 90° where no ring stands in the way.
func Clean(pupilMm float64, rings []Ring) angle.Deg {
	clean := angle.Deg(90)
	for _, r := range rings {
		room := (r.ClearMm - pupilMm) / 2
		switch {
		case room < 0:
			return 0
		case r.ZMm > 0:
			clean = min(clean, angle.FromRadians(math.Atan(room/r.ZMm)))
		}
	}
	return clean
}

// WanderMm is how far the entrance pupil of a wide lens may wander along its axis
// from where it is drawn.
const WanderMm = 0.2

// Moved returns the rings as a pupil sees them that lies mm further back. A ring
// stays before the pupil.
func Moved(rings []Ring, mm float64) []Ring {
	moved := make([]Ring, len(rings))
	for i, r := range rings {
		moved[i] = Ring{ClearMm: r.ClearMm, ZMm: max(0, r.ZMm+mm)}
	}
	return moved
}

// CornersRequest asks how dark the corners come out.
type CornersRequest struct {
	Aperture        stop.FNumber `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number"`
	FocalMm         float64      `json:"focalMm" minimum:"0.1" maximum:"2000" doc:"focal length, millimetres"`
	HalfDiagonalDeg angle.Deg    `json:"halfDiagonalDeg" minimum:"0" maximum:"89" doc:"from the axis to the corner of the frame"`
	Rings           []RingFields `json:"rings" minItems:"1" maxItems:"10"`
}

// RingFields is a filter's clear opening.
type RingFields struct {
	ClearMm float64 `json:"clearMm" minimum:"0.1" maximum:"500" doc:"clear diameter, millimetres"`
	ZMm     float64 `json:"zMm" minimum:"0" maximum:"500" doc:"in front of the entrance pupil, millimetres"`
}

// CornersAnswer is the loss at the corner.
type CornersAnswer struct {
	LossStops       *stop.Stops  `json:"lossStops" doc:"at the corner; null where nothing passes"`
	Share           float64      `json:"share" doc:"of the light that passes"`
	CleanHalfDeg    angle.Deg    `json:"cleanHalfDeg" doc:"the widest angle off the axis from which all light passes"`
	HalfDiagonalDeg angle.Deg    `json:"halfDiagonalDeg"`
	PupilMm         float64      `json:"pupilMm" doc:"diameter of the entrance pupil"`
	Rings           []RingFields `json:"rings" doc:"as they were asked about"`
	Nearer          *CornersEdge `json:"nearer" doc:"the same with the pupil 0.2 mm nearer to the rings"`
	Further         *CornersEdge `json:"further" doc:"the same with the pupil 0.2 mm further back"`
}

// CornersEdge is the answer for a pupil that has wandered.
type CornersEdge struct {
	LossStops    *stop.Stops `json:"lossStops"`
	CleanHalfDeg angle.Deg   `json:"cleanHalfDeg"`
}

// DarkCorners answers corners.
func DarkCorners(r CornersRequest) (*CornersAnswer, error) {
	pupil := Pupil(r.FocalMm, r.Aperture)
	rings := make([]Ring, len(r.Rings))
	for i, ring := range r.Rings {
		rings[i] = Ring(ring)
	}
	edge := func(rings []Ring) *CornersEdge {
		e := &CornersEdge{CleanHalfDeg: Clean(pupil, rings)}
		if lost, passes := Loss(Passed(pupil, rings, r.HalfDiagonalDeg)); passes {
			e.LossStops = &lost
		}
		return e
	}
	here := edge(rings)
	return &CornersAnswer{
		LossStops: here.LossStops, Share: Passed(pupil, rings, r.HalfDiagonalDeg), CleanHalfDeg: here.CleanHalfDeg, HalfDiagonalDeg: r.HalfDiagonalDeg,
		PupilMm: pupil, Rings: r.Rings, Nearer: edge(Moved(rings, -WanderMm)), Further: edge(Moved(rings, WanderMm)),
	}, nil
}
