package calc

import (
	"pinhole/core/angle"
	"pinhole/core/fit"
	"pinhole/core/stop"
)

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
	pupil := fit.Pupil(r.FocalMm, r.Aperture)
	rings := make([]fit.Ring, len(r.Rings))
	for i, ring := range r.Rings {
		rings[i] = fit.Ring{ClearMm: ring.ClearMm, ZMm: ring.ZMm}
	}
	edge := func(rings []fit.Ring) *CornersEdge {
		e := &CornersEdge{CleanHalfDeg: fit.Clean(pupil, rings)}
		if lost, passes := fit.Loss(fit.Passed(pupil, rings, r.HalfDiagonalDeg)); passes {
			e.LossStops = &lost
		}
		return e
	}
	here := edge(rings)
	return &CornersAnswer{
		LossStops: here.LossStops, Share: fit.Passed(pupil, rings, r.HalfDiagonalDeg), CleanHalfDeg: here.CleanHalfDeg, HalfDiagonalDeg: r.HalfDiagonalDeg,
		PupilMm: pupil, Rings: r.Rings, Nearer: edge(fit.Moved(rings, -fit.WanderMm)), Further: edge(fit.Moved(rings, fit.WanderMm)),
	}, nil
}
