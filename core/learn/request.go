package learn

import (
	"time"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Kind is how a light was read.
type Kind string

// The kinds of reading.
const (
	ByAuto  Kind = "auto"
	ByMeter Kind = "meter"
	ByBias  Kind = "bias"
	ByFrame Kind = "frame"
	ByEye   Kind = "eye"
)

// Values returns every Kind there is.
func (Kind) Values() []Kind { return []Kind{ByAuto, ByMeter, ByBias, ByFrame, ByEye} }

// Grade is what was made of a take.
type Grade string

// The grades of a trial.
const (
	Bad    Grade = "bad"
	Usable Grade = "usable"
	Good   Grade = "good"
)

// Values returns every Grade there is.
func (Grade) Values() []Grade { return []Grade{Bad, Usable, Good} }

// Fault is what made a trial's take bad.
type Fault string

// What makes a take bad.
const (
	Unsaid Fault = ""
	Ghost  Fault = "ghost"
	Noise  Fault = "noise"
	Other  Fault = "other"
)

// Values returns every Fault there is.
func (Fault) Values() []Fault { return []Fault{Unsaid, Ghost, Noise, Other} }

// What is of what something is known.
type What string

// What is reset, and what is foretold.
const (
	Filter     What = "filter"
	Instrument What = "instrument"
	Floor      What = "floor"
)

// Values returns every What there is.
func (What) Values() []What { return []What{Filter, Instrument, Floor} }

// Request is a log, and what is asked of it.
type Request struct {
	AsOf        time.Time    `json:"asOf" doc:"when it is asked: nothing in the log is later"`
	Filters     []Glass      `json:"filters,omitempty" maxItems:"500"`
	Instruments []Reader     `json:"instruments,omitempty" maxItems:"200" doc:"each camera by each way of metering, and the hand meter"`
	Resets      []Reset      `json:"resets,omitempty" maxItems:"500" doc:"a filter dropped or replaced, new firmware: from then on it may differ"`
	Exposures   []Exposure   `json:"exposures,omitempty" maxItems:"5000"`
	Asks        []Ask        `json:"asks,omitempty" maxItems:"1000"`
	Trials      []Trial      `json:"trials,omitempty" maxItems:"5000"`
	Floors      []FloorAsk   `json:"floors,omitempty" maxItems:"500"`
	Takes       []Take       `json:"takes,omitempty" maxItems:"5000"`
	Limits      Limits       `json:"limits,omitzero"`
	Outcomes    []Prediction `json:"outcomes,omitempty" maxItems:"5000" doc:"what was foretold, and what came"`
}

// Glass is a filter as it is known without the log.
type Glass struct {
	ID      string      `json:"id" minLength:"1" maxLength:"100"`
	Kind    glass.Kind  `json:"kind"`
	Stops   stop.Stops  `json:"stops" minimum:"0" maximum:"40" doc:"as printed; of a variable filter where it usually stands"`
	Spread  *stop.Stops `json:"sdStops,omitempty" minimum:"0.0001" maximum:"10" doc:"how far it may be off what is printed; by its kind where it is not said"`
	Benches []Bench     `json:"benches,omitempty" maxItems:"200"`
}

// Bench is a filter measured by itself.
type Bench struct {
	Stops  stop.Stops `json:"stops" minimum:"-5" maximum:"40"`
	Spread stop.Stops `json:"sdStops" minimum:"0.0001" maximum:"10"`
	Time   *time.Time `json:"time,omitempty"`
}

// Reader is what reads light.
type Reader struct {
	ID     string      `json:"id" minLength:"1" maxLength:"100"`
	Spread *stop.Stops `json:"sdStops,omitempty" minimum:"0.0001" maximum:"10" doc:"how far it may be off; 0.3 where it is not said"`
}

// Reset is when something became another.
type Reset struct {
	Kind What      `json:"kind"`
	ID   string    `json:"id" minLength:"1" maxLength:"201" doc:"of a filter or an instrument; of a floor the camera, or camera and mode with a space between"`
	Time time.Time `json:"time"`
}

// Light is where a light was: a place under a sky with what is forecast there, or a scene of
// which nothing is.
type Light struct {
	Place string   `json:"place,omitempty" maxLength:"100"`
	Sky   string   `json:"sky,omitempty" enum:",clear,partly,overcast"`
	EV    *stop.EV `json:"ev100,omitempty" minimum:"-20" maximum:"40" doc:"the forecast"`
	Scene string   `json:"scene,omitempty" maxLength:"100"`
}

// Seeing is by what and through what a light is seen.
type Seeing struct {
	By       string                `json:"by,omitempty" maxLength:"100" doc:"an instrument"`
	Kind     Kind                  `json:"kind,omitempty" enum:"auto,meter,bias,frame,eye" doc:"auto where it is not said"`
	Glass    []string              `json:"glass,omitempty" maxItems:"20"`
	Settings map[string]stop.Stops `json:"settings,omitempty" minimum:"0" maximum:"40" doc:"of variable filters, by id"`
	Light    Light                 `json:"light"`
}

// Exposure is one reading of a light.
type Exposure struct {
	ID   string    `json:"id" minLength:"1" maxLength:"100"`
	Time time.Time `json:"time"`
	Seeing
	Seen   stop.EV     `json:"seenEv100" minimum:"-30" maximum:"40" doc:"log2(N²/t) − log2(ISO/100) + bias"`
	Spread *stop.Stops `json:"sdStops,omitempty" minimum:"0.0001" maximum:"10" doc:"by its kind where it is not said"`
}

// Ask asks for a light, and for what an instrument will show of it.
type Ask struct {
	ID   string    `json:"id" minLength:"1" maxLength:"100"`
	Time time.Time `json:"time"`
	Seeing
}

// Mover is who moves a camera in which mode, and how.
type Mover struct {
	Camera     string        `json:"camera" minLength:"1" maxLength:"100"`
	Mode       string        `json:"mode" maxLength:"100"`
	Person     string        `json:"person,omitempty" maxLength:"100"`
	Activity   string        `json:"activity" maxLength:"100" doc:"stand has no floor"`
	IsMeasured bool          `json:"measured,omitempty" doc:"the shake behind the computed floor was measured"`
	Computed   *stop.Shutter `json:"computedFloorS,omitempty" exclusiveMinimum:"0" maximum:"86400" doc:"at the default tolerance; null where there is none"`
}

// Trial is a take judged at a shutter.
type Trial struct {
	ID   string    `json:"id" minLength:"1" maxLength:"100"`
	Time time.Time `json:"time"`
	Mover
	Shutter stop.Shutter `json:"shutterS" exclusiveMinimum:"0" maximum:"86400"`
	Grade   Grade        `json:"grade"`
	Why     Fault        `json:"why,omitempty"`
	ISO     float64      `json:"iso,omitempty" minimum:"0" maximum:"10000000"`
	Ceiling float64      `json:"isoCeiling,omitempty" minimum:"0" maximum:"10000000"`
}

// FloorAsk asks for the slowest shutter at which a stabiliser works.
type FloorAsk struct {
	ID string `json:"id" minLength:"1" maxLength:"100"`
	Mover
}

// Take is what became of a take.
type Take struct {
	Time        time.Time   `json:"time"`
	Shoot       string      `json:"shoot,omitempty" maxLength:"100"`
	IsKept      bool        `json:"kept"`
	Why         string      `json:"why,omitempty" maxLength:"100" doc:"of a take that was binned: dark, bright, or any word"`
	Error       *stop.Stops `json:"errorStops,omitempty" minimum:"-40" maximum:"40" doc:"how much too bright it came out"`
	Activity    string      `json:"activity,omitempty" maxLength:"100"`
	School      string      `json:"school,omitempty" maxLength:"100"`
	Place       string      `json:"place,omitempty" maxLength:"100"`
	Sky         string      `json:"sky,omitempty" enum:",clear,partly,overcast"`
	Look        string      `json:"look,omitempty" maxLength:"100"`
	Glass       []string    `json:"glass,omitempty" maxItems:"20"`
	FirstRight  *bool       `json:"firstRight,omitempty" doc:"the first glass was right"`
	Swaps       *float64    `json:"swaps,omitempty" minimum:"0" maximum:"1000"`
	MinutesLost *float64    `json:"minutesLost,omitempty" minimum:"0" maximum:"100000"`
}

// Limits are those of the exposure that are set now, both positive.
type Limits struct {
	Dark   stop.Stops `json:"darkStops,omitempty" minimum:"0" maximum:"10" doc:"2/3 where it is not said"`
	Bright stop.Stops `json:"brightStops,omitempty" minimum:"0" maximum:"10" doc:"1/3 where it is not said"`
}

// Prediction is what was foretold, and what came.
type Prediction struct {
	Kind      string     `json:"kind" enum:"light,seen,floor"`
	Predicted float64    `json:"predicted" minimum:"-100000" maximum:"100000"`
	Spread    stop.Stops `json:"sdStops" minimum:"0.0001" maximum:"100" doc:"as the model had it, before it was scaled"`
	Was       float64    `json:"was" minimum:"-100000" maximum:"100000"`
	Scale     *float64   `json:"scale,omitempty" exclusiveMinimum:"0" maximum:"100" doc:"what it was scaled by when it was stated; 1 where it is not said"`
}

// sky is the sky, which was checked.
func (l *Light) sky() light.Sky { return light.Sky(l.Sky) }
