// Package sim holds stand-ins for devices that are not there. What they give is
// computed, and says so wherever it goes.
package sim

import (
	"fmt"

	"pinhole/core/calc"
	"pinhole/core/motion"
	"pinhole/core/picture"
	"pinhole/core/stop"
	"pinhole/internal/render"
)

// CameraRequest points the simulated camera at a light.
type CameraRequest struct {
	Camera calc.AutoRequest `json:"camera" doc:"the camera's automatic, the light of the scene and the glass that is on"`
	FPS    float64          `json:"fps,omitempty" minimum:"0.00001" maximum:"10000" doc:"frames per second"`
}

// CameraAnswer is what its display shows.
type CameraAnswer struct {
	calc.AutoAnswer
	Simulated bool `json:"simulated" doc:"always true"`
}

// Camera stands in for a camera on automatic.
func Camera(r CameraRequest) (*CameraAnswer, error) {
	a, err := calc.OnAutomatic(r.Camera)
	if err != nil {
		return nil, err
	}
	return &CameraAnswer{AutoAnswer: *a, Simulated: true}, nil
}

// Size of a test frame, in pixels.
const testWidth, testHeight = 960, 540

// TestFrame returns what the simulated camera would record at the setting its
// automatic takes, as PNG.
func TestFrame(r CameraRequest) ([]byte, error) {
	a, err := calc.OnAutomatic(r.Camera)
	if err != nil {
		return nil, err
	}
	view := picture.View{
		Width: testWidth, Height: testHeight, Rate: stop.ExactRate(r.FPS), Seed: 1,
		Lens: motion.Lens{WidthPx: testWidth, HFOV: 72, Projection: motion.Rectilinear},
	}
	out, err := render.Still(view, picture.Exposure{Shutter: a.ShutterS, Error: a.ErrorStops, Gain: a.ISO.Over(r.Camera.Camera.ISOBase)})
	if err != nil {
		return nil, fmt.Errorf("test frame: %w", err)
	}
	return out, nil
}
