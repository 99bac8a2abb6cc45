// Package sim holds stand-ins for devices that are not there. What they give is
// computed, and says so wherever it goes.
package sim

import (
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/picture"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/render"
)

// CameraRequest points the simulated camera at a light.
type CameraRequest struct {
	Camera     assemble.Camera         `json:"camera"`
	Profile    *assemble.CameraProfile `json:"profile,omitempty" doc:"how its automatic behaves; shutter first where it does not say"`
	FPS        string                  `json:"fps" maxLength:"12" doc:"25, 29.97; still"`
	EV100      stop.EV                 `json:"ev100" minimum:"-20" maximum:"40" doc:"the light of the scene"`
	GlassStops stop.Stops              `json:"glassStops,omitempty" minimum:"0" maximum:"40" doc:"the glass that is on"`
}

// CameraAnswer is what its display shows.
type CameraAnswer struct {
	ShutterS   stop.Shutter `json:"shutterS"`
	Shutter    string       `json:"shutter" doc:"as it is typed"`
	ISO        string       `json:"iso" doc:"as it is typed"`
	ErrorStops stop.Stops   `json:"errorStops" doc:"what its automatic cannot make good, positive brighter"`
	Moves      glass.Moves  `json:"moves" doc:"what its automatic moves first"`
	Simulated  bool         `json:"simulated" doc:"always true"`
}

// exposure is what the camera takes.
type exposure struct {
	automatic *glass.Automatic
	rate      stop.FrameRate
	set       stop.Setting
	left      stop.Stops
}

func (r *CameraRequest) expose() (exposure, error) {
	fps, err := stop.ParseRate(r.FPS)
	if err != nil {
		return exposure{}, &problem.Fault{Field: "fps", Value: r.FPS, Allowed: stop.ErrRate.Error()}
	}
	if r.Camera.ISOCeiling < r.Camera.ISOBase {
		return exposure{}, &problem.Fault{Field: "camera.isoCeiling", Value: r.Camera.ISOCeiling, Allowed: "at least isoBase"}
	}
	e := exposure{automatic: r.Profile.AutomaticExposure(&r.Camera, fps), rate: fps}
	if e.automatic == nil {
		e.automatic = assemble.AssumedAutomatic(&r.Camera, fps)
	}
	e.set, e.left = e.automatic.Expose(r.EV100, r.GlassStops)
	return e, nil
}

// Camera returns what a camera on automatic would show in that light.
func Camera(r CameraRequest) (*CameraAnswer, error) {
	e, err := r.expose()
	if err != nil {
		return nil, err
	}
	return &CameraAnswer{
		ShutterS: e.set.Shutter, Shutter: e.set.Shutter.String(), ISO: fmt.Sprintf("%.0f", float64(e.set.ISO)), ErrorStops: e.left,
		Moves: e.automatic.Moves, Simulated: true,
	}, nil
}

// Size of a test frame, in pixels, and the view where the profile has no lens.
const (
	testWidth, testHeight = 640, 360
	testView              = 72
)

// TestFrame returns what the camera would record at that setting, as PNG.
func TestFrame(r CameraRequest) ([]byte, error) {
	e, err := r.expose()
	if err != nil {
		return nil, err
	}
	view := picture.View{
		Width: testWidth, Height: testHeight, Rate: e.rate, Seed: 1,
		Lens: motion.Lens{WidthPx: testWidth, HFOV: testView, Projection: motion.Rectilinear},
	}
	if err := r.Profile.Check(); err != nil {
		return nil, err
	}
	if p := r.Profile; p != nil && p.Lens != nil {
		view.Lens = motion.Lens{WidthPx: p.Lens.WidthPx, HFOV: p.Lens.HFOVDeg, Projection: p.Lens.Projection}
	}
	out, err := render.Still(view, picture.Exposure{Shutter: e.set.Shutter, Error: e.left, Gain: e.set.ISO.Over(r.Camera.ISOBase)})
	if err != nil {
		return nil, fmt.Errorf("test frame: %w", err)
	}
	return out, nil
}
