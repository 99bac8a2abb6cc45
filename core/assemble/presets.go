package assemble

import (
	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
	"pinhole/core/unit"
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
	Starts    Starts          `json:"starts" doc:"where forms begin"`
	Units     unit.Offered    `json:"units" doc:"what speeds, lengths and masses may be shown in"`
}

// Starts are the figures that a form begins with, to be put right by who knows better.
type Starts struct {
	BrightStops stop.Stops    `json:"brightStops" doc:"the brightest part of a frame against its subject"`
	DarkStops   stop.Stops    `json:"darkStops" doc:"the darkest part of a frame against its subject"`
	SpeedUp     float64       `json:"speedUp" doc:"times faster than filmed"`
	Stick       StickFields   `json:"stick"`
	Tilt        UptiltRequest `json:"tilt"`
	PassagesS   []float64     `json:"passagesS" doc:"how long a dark passage may take, seconds"`
	PassageS    float64       `json:"passageS" doc:"of those, the first one offered"`
	ISOBase     stop.ISO      `json:"isoBase"`
	ISOCeiling  stop.ISO      `json:"isoCeiling"`
	Rates       []string      `json:"rates" doc:"frame rates that nearly every camera has"`
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
		Starts: Starts{
			BrightStops: 2, DarkStops: -3, SpeedUp: 4,
			Stick: StickFields{CentreDegS: 120, MaxDegS: 560, Expo: 0.4}, Tilt: UptiltRequest{TiltDeg: 25, AtMps: 14, SpeedMps: 14},
			PassagesS: []float64{3, 10, 30, 60}, PassageS: 10, ISOBase: 100, ISOCeiling: 1600, Rates: []string{"24", "25", "30", "50", "60"},
		},
		Units: unit.Choices(),
	}
}
