package calc

import (
	"cmp"
	"pinhole/core/angle"
	"pinhole/core/light"
)

// PolariserRequest asks what a polariser does to sky and water.
type PolariserRequest struct {
	SunAltitudeDeg    angle.Deg `json:"sunAltitudeDeg" minimum:"-90" maximum:"90"`
	SunAzimuthDeg     angle.Deg `json:"sunAzimuthDeg" minimum:"-360" maximum:"360" doc:"from north, eastward"`
	CameraAltitudeDeg angle.Deg `json:"cameraAltitudeDeg" minimum:"-90" maximum:"90" doc:"how far the camera looks up"`
	CameraAzimuthDeg  angle.Deg `json:"cameraAzimuthDeg" minimum:"-360" maximum:"360" doc:"from north, eastward"`
	HFOVDeg           angle.Deg `json:"hfovDeg" minimum:"0.01" maximum:"360" doc:"horizontal field of view"`
	Water             *Water    `json:"water,omitempty"`
	Window            *Window   `json:"window,omitempty"`
}

// Window is glass, or anything smooth that does not conduct, in the picture.
type Window struct {
	IncidenceDeg angle.Deg `json:"incidenceDeg" minimum:"0" maximum:"90" doc:"off its normal"`
	Index        float64   `json:"index,omitempty" minimum:"1.01" maximum:"4" doc:"refractive index; 1.5 by default"`
}

// Water is flat water in the picture.
type Water struct {
	DepressionDeg angle.Deg `json:"depressionDeg" minimum:"0" maximum:"90" doc:"how far below the horizon it is seen"`
}

// PolariserAnswer is the effect across the frame.
type PolariserAnswer struct {
	GammaDeg  angle.Deg `json:"gammaDeg" doc:"between the camera's axis and the sun"`
	Centre    float64   `json:"centre" doc:"degree of polarisation of the sky at the centre"`
	Left      float64   `json:"left" doc:"at the left edge of the frame"`
	Right     float64   `json:"right"`
	Uneven    bool      `json:"uneven" doc:"the sky would come out blotched"`
	GlareLeft *float64  `json:"glareLeft,omitempty" doc:"share of the glare on the water that a crossed polariser leaves"`
	// ReflectionLeft is of the window.
	ReflectionLeft *float64 `json:"reflectionLeft,omitempty" doc:"share of the reflection in the window that a crossed polariser leaves"`
	Notes          []string `json:"notes"`
}

// ThroughPolariser answers polariser.
func ThroughPolariser(r PolariserRequest) (*PolariserAnswer, error) {
	camera := light.Direction{Altitude: r.CameraAltitudeDeg, Azimuth: r.CameraAzimuthDeg}
	sun := light.Direction{Altitude: r.SunAltitudeDeg, Azimuth: r.SunAzimuthDeg}
	e := light.AcrossFrame(camera, sun, r.HFOVDeg)
	a := &PolariserAnswer{GammaDeg: camera.From(sun), Centre: e.Centre, Left: e.Left, Right: e.Right, Uneven: e.Uneven()}
	if e.Uneven() {
		a.Notes = append(a.Notes, "the sky darkens unevenly across this frame; turn the camera or leave the polariser off")
	}
	if r.SunAltitudeDeg < light.Horizon {
		a.Notes = append(a.Notes, "the sun is below the horizon: twilight keeps the pattern, night has none")
	}
	if r.Water != nil {
		left := light.GlareLeft(r.Water.DepressionDeg)
		a.GlareLeft = &left
		switch {
		case left <= light.LittleGlare:
			a.Notes = append(a.Notes, "the polariser takes most of the glare off the water")
		case left >= light.MostGlare:
			a.Notes = append(a.Notes, "at this angle the polariser does nothing for the water")
		}
	}
	if w := r.Window; w != nil {
		left := light.ReflectionLeft(w.IncidenceDeg, cmp.Or(w.Index, light.WindowIndex))
		a.ReflectionLeft = &left
	}
	a.Notes = append(a.Notes, "a camera that rolls or yaws turns its polariser with it: on a drone the effect comes and goes")
	return a, nil
}
