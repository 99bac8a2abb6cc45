package assemble

import (
	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// NamedBand is a tolerance by its name.
type NamedBand struct {
	Name  string    `json:"name"`
	Title string    `json:"title" doc:"with its sizes"`
	Band  Tolerance `json:"tolerance"`
}

// Presets are the defaults and the usual choices that are offered for a shot, so that no
// screen has its own.
type Presets struct {
	Target    string          `json:"target" doc:"the shutter wanted of a new shot"`
	Light     string          `json:"light" doc:"what a new shot expects until something is read"`
	Rate      string          `json:"rate" doc:"where a camera does not list its own"`
	WidthPx   float64         `json:"widthPx" doc:"of a picture whose frame size is not known"`
	Tolerance NamedBand       `json:"tolerance" doc:"the accepted error where none is chosen"`
	Bands     []NamedBand     `json:"bands" doc:"accepted errors to choose from"`
	Offsets   []stop.Stops    `json:"offsets" doc:"aims against the meter to choose from"`
	Targets   []string        `json:"targets" doc:"shutters to choose from"`
	HFOVDeg   angle.Deg       `json:"hfovDeg" doc:"of a camera whose field of view is not known, horizontal, degrees"`
	Surfaces  []light.Surface `json:"surfaces" doc:"what a scene may be made of"`
}

const third = stop.Stops(1.0 / 3)

// UsualWidthPx is the width of the picture of a camera whose frame size is not known.
const UsualWidthPx = 3840

// UsualHFOV is the horizontal field of view of a camera that does not say: that of a plain
// wide lens.
const UsualHFOV = angle.Deg(72)

// UsualPresets returns what is offered, the default band first.
func UsualPresets() Presets {
	bands := []NamedBand{
		{"darker", "Darker −2/3 +1/3", Tolerance(glass.DefaultBand)},
		{"centred", "Centred ±1/2", Tolerance{0.5, 0.5}},
		{"wide", "Centred ±2/3", Tolerance{2 * third, 2 * third}},
		{"brighter", "Brighter −1/3 +2/3", Tolerance{third, 2 * third}},
	}
	return Presets{
		Target: "180°", Light: "EV 14.0", Rate: "25", WidthPx: UsualWidthPx, Tolerance: bands[0], Bands: bands,
		Offsets: []stop.Stops{-2 * third, -third, 0, third, 2 * third}, Targets: []string{"180°", "360°", "90°"}, HFOVDeg: UsualHFOV, Surfaces: light.Surfaces(),
	}
}
