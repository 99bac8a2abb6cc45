package take

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Request is what is known of a clip beside its frames; nothing of it has to be given.
type Request struct {
	FPS          float64           `json:"fps,omitempty" minimum:"1" maximum:"1000" doc:"frames a second; replaces what the file says"`
	WidthPx      float64           `json:"widthPx,omitempty" minimum:"1" maximum:"100000" doc:"of the original, where the frames were reduced"`
	HFOVDeg      angle.Deg         `json:"hfovDeg,omitempty" minimum:"0" maximum:"360" doc:"field of view, horizontal, degrees"`
	Projection   motion.Projection `json:"projection,omitempty" doc:"rectilinear by default"`
	ReadoutS     float64           `json:"readoutS,omitempty" minimum:"0" maximum:"1" doc:"how long the sensor takes to read a frame"`
	ShutterS     stop.Shutter      `json:"shutterS,omitempty" minimum:"0" maximum:"60" doc:"as it was set, to stand beside what is measured"`
	SuitsEV      *stop.EV          `json:"suitsEv100,omitempty" minimum:"-20" maximum:"40" doc:"the light that the setting suits through its filters"`
	MainsHz      float64           `json:"mainsHz,omitempty" minimum:"0" maximum:"1000" doc:"of the lamps, to stand beside what beats"`
	BitsPerFrame float64           `json:"bitsPerFrame,omitempty" minimum:"0" maximum:"1000000000" doc:"of the compressed clip: a starved one evens out its sharpness"`
	Times        []float64         `json:"times,omitempty" maxItems:"1200" doc:"of each frame, seconds"`
}

// Why is a reason for which something cannot be told.
type Why string

// The reasons.
const (
	WhyMotion     Why = "motion"     // too little movement, or too even
	WhyTexture    Why = "texture"    // nothing in the picture to follow
	WhyTracking   Why = "tracking"   // blocks do not go together
	WhyClipped    Why = "clipped"    // too bright or too dark
	WhyStabilised Why = "stabilised" // frames were moved after they were exposed
	WhyVibration  Why = "vibration"  // the picture wobbles
	WhyShort      Why = "short"      // under 0.8 s
	WhyView       Why = "view"       // the field of view is not given
	WhyFlicker    Why = "flicker"    // the light changes between the rows
	WhyStanding   Why = "standing"   // bands that stand still belong to the scene
	WhyShare      Why = "share"      // it hangs on a share that cannot be told
)

// Values returns every Why there is.
func (Why) Values() []Why {
	return []Why{WhyMotion, WhyTexture, WhyTracking, WhyClipped, WhyStabilised, WhyVibration, WhyShort, WhyView, WhyFlicker, WhyStanding, WhyShare}
}

// By is how a share was found.
type By string

// The ways.
const (
	ByPairs By = "pairs" // the same content at different speeds
	ByNulls By = "nulls" // the gaps that a steady pan leaves in the spectrum
	ByBoth  By = "both"
)

// Values returns every By there is.
func (By) Values() []By { return []By{ByPairs, ByNulls, ByBoth} }

// Answer is what a clip says. Pixels are of the original; frames count from 0.
type Answer struct {
	Frames     int      `json:"frames"`
	WidthPx    float64  `json:"widthPx"`
	WorkPx     int      `json:"workPx" doc:"the width that was worked on"`
	FPS        float64  `json:"fps"`
	Gaps       []int    `json:"gaps" doc:"frames before which the clock jumps"`
	Duplicates []int    `json:"duplicates" doc:"frames that repeat the one before"`
	Drops      []int    `json:"drops" doc:"frames before which one is missing"`
	Cuts       []int    `json:"cuts" doc:"frames with which another picture begins"`
	Exposure   Exposure `json:"exposure"`
	Motion     Motion   `json:"motion"`
	Shake      Shake    `json:"shake"`
	Shutter    Shutter  `json:"shutter"`
	Ghost      Ghost    `json:"ghost"`
	Strobe     Strobe   `json:"strobe"`
	Flicker    Flicker  `json:"flicker"`
	Wobble     Wobble   `json:"wobble"`
}

// Motion is how the content moved.
type Motion struct {
	TrackedShare float64        `json:"trackedShare" doc:"of the pairs of frames"`
	Pairs        []Move         `json:"pairs"`
	SpeedPx      float64        `json:"speedPx" doc:"a frame, in the middle of the take"`
	TurnDegS     *angle.DegPerS `json:"turnDegS,omitempty" doc:"the same as a turn of the camera"`
}

// Move is how the content moved from a frame to the next one that is kept.
type Move struct {
	DxPx    float64 `json:"dxPx" minimum:"-100000" maximum:"100000" doc:"right"`
	DyPx    float64 `json:"dyPx" minimum:"-100000" maximum:"100000" doc:"down"`
	RollDeg float64 `json:"rollDeg" minimum:"-360" maximum:"360" doc:"clockwise"`
	Zoom    float64 `json:"zoom" minimum:"-10" maximum:"10" doc:"natural logarithm"`
}

// Shake is the movement that was not meant.
type Shake struct {
	DegS   *angle.DegPerS `json:"degS" doc:"90th percentile"`
	SE     float64        `json:"se"`
	PeakHz *float64       `json:"peakHz" doc:"where it is strongest, above 1 Hz"`
	Why    Why            `json:"why,omitempty"`
}

// Shutter is the share of the frame time that the shutter was open.
type Shutter struct {
	Share    *float64      `json:"share"`
	SE       float64       `json:"se"`
	AtLeast  bool          `json:"atLeast" doc:"compression evens out sharpness: it was open as long, or longer"`
	By       By            `json:"by,omitempty"`
	ShutterS *stop.Shutter `json:"shutterS,omitempty"`
	AngleDeg *angle.Deg    `json:"angleDeg,omitempty"`
	Expected *float64      `json:"expected,omitempty" doc:"of the shutter that was set"`
	Why      Why           `json:"why,omitempty"`
}

// Ghost is blur that no movement in the picture explains.
type Ghost struct {
	BlurPx     *float64 `json:"blurPx"`
	Stabilised bool     `json:"stabilised" doc:"frames were moved after they were exposed"`
	Why        Why      `json:"why,omitempty"`
}

// Strobe is movement that falls apart into single pictures.
type Strobe struct {
	StepPx         *float64 `json:"stepPx"`
	UncoveredShare *float64 `json:"uncoveredShare"`
	Strobes        *bool    `json:"strobes"`
	Why            Why      `json:"why,omitempty"`
}

// Flicker is light that beats with the frames.
type Flicker struct {
	Depth    *float64 `json:"depth" doc:"half of what lies between its ends, over its mean; 0 where there is none"`
	BeatHz   *float64 `json:"beatHz,omitempty"`
	Bands    *float64 `json:"bands,omitempty" doc:"in the height of a frame"`
	PulseHz  *float64 `json:"pulseHz,omitempty" doc:"of the lamps, where the readout is known"`
	Floor    float64  `json:"floor" doc:"the least that would be found"`
	Expected *float64 `json:"expected,omitempty" doc:"beat of the mains, hertz"`
	Why      Why      `json:"why,omitempty"`
}

// Wobble is a picture that bends because its rows were read while it shook.
type Wobble struct {
	Px    *float64 `json:"px" doc:"from end to end; 0 where there is none"`
	Bands *float64 `json:"bands,omitempty" doc:"in the height of a frame"`
	Hz    *float64 `json:"hz,omitempty" doc:"of what shakes, where the readout is known"`
	Floor float64  `json:"floor" doc:"the least that would be found"`
	Why   Why      `json:"why,omitempty"`
}
