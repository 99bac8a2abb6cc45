package calc

import (
	"errors"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"time"

	"pinhole/core/angle"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// LightRequest asks for the daylight over a span of time.
type LightRequest struct {
	From  time.Time `json:"from" doc:"an instant with its zone, in which the points are given"`
	To    time.Time `json:"to"`
	StepS float64   `json:"stepS" minimum:"1" maximum:"86400" doc:"seconds from point to point"`
	assemble.PlaceFields
	Sky              light.Sky              `json:"sky"`
	Plane            light.Plane            `json:"plane" doc:"which way the subject faces: upright, seen from above, upright in open shade"`
	CameraAzimuthDeg *angle.Deg             `json:"cameraAzimuthDeg,omitempty" minimum:"-360" maximum:"360" doc:"heading of the camera, which an upright subject faces; left out, it faces the sun"`
	SurfaceStops     stop.Stops             `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5" doc:"how much brighter than mid-grey the scene's surfaces are; snow +1, wet tar -0.5"`
	GroundAlbedo     *float64               `json:"groundAlbedo,omitempty" minimum:"0" maximum:"1" doc:"0.2 by default"`
	Anchor           *assemble.LightReading `json:"anchor,omitempty" doc:"a reading on the spot that moves the curve"`
}

// LightAnswer is the curve.
type LightAnswer struct {
	Points      []LightPoint `json:"points"`
	OffsetStops stop.Stops   `json:"offsetStops" doc:"anchor less model; 0 without an anchor"`
}

// LightPoint is the light at one instant.
type LightPoint struct {
	Time         time.Time  `json:"time"`
	EV100        stop.EV    `json:"ev100"`
	SpreadStops  stop.Stops `json:"spreadStops"`
	AltitudeDeg  angle.Deg  `json:"altitudeDeg" doc:"of the sun, as seen through the air"`
	GeometricDeg angle.Deg  `json:"geometricDeg"`
	AzimuthDeg   angle.Deg  `json:"azimuthDeg"`
}

// LightCurve answers light.
func LightCurve(r LightRequest) (*LightAnswer, error) {
	if err := errors.Join(assemble.CheckYear("from", r.From), assemble.CheckYear("to", r.To)); err != nil {
		return nil, err
	}
	step := time.Duration(r.StepS * float64(time.Second))
	switch n := r.To.Sub(r.From) / step; {
	case r.To.Before(r.From):
		return nil, &problem.Fault{Field: "to", Value: r.To, Allowed: "an instant no earlier than from"}
	case n >= day.MaxPoints:
		return nil, &problem.Fault{Field: "stepS", Value: r.StepS, Allowed: fmt.Sprintf("a step that makes at most %d points, not %d", day.MaxPoints, n+1)}
	}
	o := r.outdoors()
	a := &LightAnswer{}
	var anchor *light.Anchor
	if r.Anchor != nil {
		if err := assemble.CheckYear("anchor.time", r.Anchor.Time); err != nil {
			return nil, err
		}
		anchor = &light.Anchor{At: r.Anchor.Time, EV: r.Anchor.EV100}
		a.OffsetStops = o.Offset(*anchor)
	}
	for _, p := range o.Curve(r.From, r.To, step, anchor) {
		a.Points = append(a.Points, LightPoint{
			Time: p.At, EV100: p.EV, SpreadStops: p.Spread, AltitudeDeg: p.Sun.Apparent(), GeometricDeg: p.Sun.Geometric, AzimuthDeg: p.Sun.Azimuth,
		})
	}
	return a, nil
}

func (r *LightRequest) outdoors() *light.Outdoors {
	o := &light.Outdoors{Place: r.Place(), Sky: r.Sky, Plane: r.Plane, Albedo: light.DefaultAlbedo, Surface: r.SurfaceStops}
	if r.GroundAlbedo != nil {
		o.Albedo = *r.GroundAlbedo
	}
	if r.CameraAzimuthDeg != nil {
		o.HasHeading, o.Faces = true, light.FacingCamera(*r.CameraAzimuthDeg)
	}
	return o
}
